"""Butt joints: square and single V. Groove area in closed form, beads that tile it exactly."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache

from welding.errors import OutOfRangeError
from welding.joints.layers import layers_of
from welding.joints.shapes import (
    Label,
    Line,
    Point,
    Polygon,
    Shape,
    arc_y,
    centroid,
    segment_area,
    spaced,
)

TOE_MM = 1.5
"""How far a cap laps over each edge of the groove (common practice; the cap is always assumed)."""

BULGE = 0.05
"""Crown of an inner layer over its width; it only shapes the drawing."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ButtGroove:
    """A square or single-V groove in plates that are flush at the root.

    Attributes:
        thickness_mm: Thickness at the joint, the thinner member's.
        gap_mm: Root opening.
        land_mm: Root face; the whole thickness for a square groove.
        angle_deg: Included angle; zero for a square groove.
    """

    thickness_mm: float
    gap_mm: float
    land_mm: float
    angle_deg: float

    def __post_init__(self) -> None:
        if self.land_mm > self.thickness_mm:
            raise OutOfRangeError(
                "root_face_mm", self.land_mm, f"0 to the thickness, {self.thickness_mm:g} mm"
            )

    @property
    def slope(self) -> float:
        """Growth of the half width per mm above the land."""
        return math.tan(math.radians(self.angle_deg) / 2)

    def half_width(self, height: float) -> float:
        """Half the groove's width at a height above the root side."""
        return self.gap_mm / 2 + max(height - self.land_mm, 0.0) * self.slope

    def area_below(self, height: float) -> float:
        """Groove area below a height [mm²]: gap · h + (h − land)² · tan(angle / 2)."""
        return self.gap_mm * height + max(height - self.land_mm, 0.0) ** 2 * self.slope

    @property
    def area_mm2(self) -> float:
        """Groove area to the plate surface [mm²]."""
        return self.area_below(self.thickness_mm)

    @property
    def cap_chord_mm(self) -> float:
        """Width of the cap, toes included."""
        return 2 * (self.half_width(self.thickness_mm) + TOE_MM)


def cap_area(groove: ButtGroove, rise_mm: float) -> float:
    """Area of the cap over the plate surface [mm²], a circular segment."""
    return segment_area(groove.cap_chord_mm, rise_mm)


def back_chord_mm(groove: ButtGroove) -> float:
    """Width of a back bead, which laps the root opening on both sides."""
    return groove.gap_mm + 2 * (TOE_MM + 1.0)


def bead_polygons(groove: ButtGroove, rise_mm: float, numbers: list[int], roles: list[str]) -> list[Polygon]:
    """Beads from the root up, disjoint, filling groove and cap exactly.

    Args:
        groove: The groove.
        rise_mm: Height of the cap over the plate.
        numbers: Pass numbers in welding order.
        roles: Their roles.

    Returns:
        One polygon a pass.
    """
    if not numbers:
        return []
    total = groove.area_mm2 + cap_area(groove, rise_mm)
    crowned = _layer_tops(groove, rise_mm, total, roles, BULGE)
    tops = crowned or _layer_tops(groove, rise_mm, total, roles, 0.0) or [(groove.thickness_mm, len(numbers))]
    bulge = BULGE if crowned else 0.0
    polygons: list[Polygon] = []
    below, index = 0.0, 0
    for layer, (height, count) in enumerate(tops):
        last = layer == len(tops) - 1
        low_bulge = bulge if layer else 0.0
        for bead in range(count):
            outline = _bead(
                groove, rise_mm, below, height, low_bulge, bulge, last, bead / count, (bead + 1) / count
            )
            polygons.append(Polygon(role="bead", points=outline, pass_number=numbers[index]))
            index += 1
        below = height
    return polygons


def _layer_tops(
    groove: ButtGroove, rise_mm: float, total: float, roles: list[str], bulge: float
) -> list[tuple[float, int]] | None:
    """Height of each layer's top at the wall, with its bead count; ``None`` if none fits."""

    if groove.area_mm2 <= 0:
        return None
    inner = sum(role != roles[-1] for role in roles) / len(roles)
    # A lone cap over many fills takes more than its equal share: the fills end below the surface.
    squeeze = min(1.0, 0.97 * groove.area_mm2 / (inner * total)) if inner else 1.0

    gap, land, slope = groove.gap_mm, groove.land_mm, groove.slope

    @cache  # asked again and again for the few shares that layers can begin at
    def height_at(share: float) -> float:
        low, high = 0.0, groove.thickness_mm
        wanted = share * squeeze * total
        for _ in range(45):  # to 1e-12 of the thickness
            mid = (low + high) / 2
            above = max(mid - land, 0.0)
            width = gap + 2 * above * slope
            if gap * mid + above**2 * slope + 2 / 3 * bulge * width**2 < wanted:
                low = mid
            else:
                high = mid
        return high

    def shape(start: float, end: float) -> tuple[float, float]:
        bottom = height_at(start) if start > 0 else 0.0
        top = groove.thickness_mm + rise_mm / 2 if end >= 1 else height_at(end)
        return groove.half_width(bottom) + groove.half_width(top), top - bottom

    counts = layers_of(roles, shape)
    tops, done = [], 0
    for count in counts[:-1]:
        done += count
        height = height_at(done / len(roles))
        crown = bulge * 2 * groove.half_width(height)
        if height <= 1e-6 or height + crown >= groove.thickness_mm + 1e-9:
            return None
        tops.append((height, count))
    tops.append((groove.thickness_mm, counts[-1]))
    return tops


def _bead(
    groove: ButtGroove,
    rise_mm: float,
    below: float,
    height: float,
    low_bulge: float,
    bulge: float,
    last: bool,
    left: float,
    right: float,
) -> tuple[Point, ...]:
    t = groove.thickness_mm

    def edge(level: float, crown: float, share: float) -> Point:
        half = groove.half_width(level)
        x = half * (2 * share - 1)
        lift = crown * 2 * half * (1 - (x / half) ** 2) if half > 0 else 0.0
        return x, t - level - lift

    bottom = [edge(below, low_bulge, share) for share in spaced(left, right, 9)]
    if last:
        chord = groove.cap_chord_mm
        top = [
            (x, -arc_y(x, chord, rise_mm))
            for x in (chord / 2 * (2 * share - 1) for share in spaced(left, right, 17))
        ]
    else:
        top = [edge(height, bulge, share) for share in spaced(left, right, 9)]
    outline = [*bottom]
    if right == 1.0:
        outline += _wall(groove, below, height, +1)
    outline += reversed(top)
    if left == 0.0:
        outline += reversed(_wall(groove, below, height, -1))
    return tuple(outline)


def _wall(groove: ButtGroove, below: float, height: float, side: int) -> list[Point]:
    """Corners of the groove's wall strictly above ``below`` and up to ``height``."""
    levels = [level for level in (groove.land_mm,) if below < level < height]
    levels.append(height)
    return [(side * groove.half_width(level), groove.thickness_mm - level) for level in levels]


def back_polygons(groove: ButtGroove, rise_mm: float, numbers: list[int]) -> list[Polygon]:
    """Beads welded from the root side, side by side under the root."""
    chord, t = back_chord_mm(groove), groove.thickness_mm
    beads = []
    for index, number in enumerate(numbers):
        xs = spaced(
            -chord / 2 + chord * index / len(numbers), -chord / 2 + chord * (index + 1) / len(numbers), 13
        )
        arc = [(x, t + arc_y(x, chord, rise_mm)) for x in xs]
        beads.append(Polygon(role="bead", points=((xs[0], t), *arc, (xs[-1], t)), pass_number=number))
    return beads


def member_shapes(groove: ButtGroove, thicknesses: tuple[float, float], backing: bool) -> list[Shape]:
    """The two prepared plates, flush at the root, and a backing bar where there is one."""
    t = groove.thickness_mm
    reach = _reach(groove, max(thicknesses))
    shapes: list[Shape] = []
    for side, own in ((-1, thicknesses[0]), (1, thicknesses[1])):
        top = t - own
        corner = (side * groove.half_width(t), 0.0)
        step = (
            [
                (side * (groove.half_width(t) + TOE_MM + own - t), top),
                (side * (groove.half_width(t) + TOE_MM), 0.0),
            ]
            if own > t
            else []
        )
        shapes.append(
            Polygon(
                role="member",
                points=(
                    (side * reach, top),
                    *step,
                    corner,
                    (side * groove.half_width(groove.land_mm), t - groove.land_mm),
                    (side * groove.gap_mm / 2, t),
                    (side * reach, t),
                ),
            )
        )
    if backing:
        half, deep = groove.gap_mm / 2 + max(6.0, 0.4 * t), max(3.0, 0.2 * t)
        shapes.append(
            Polygon(role="backing", points=((-half, t), (half, t), (half, t + deep), (-half, t + deep)))
        )
    return shapes


def _reach(groove: ButtGroove, thickest_mm: float) -> float:
    t = groove.thickness_mm
    return groove.half_width(t) + max(0.3 * t, 5.0) + thickest_mm - t


def dimension_shapes(
    groove: ButtGroove, thickest_mm: float, rise_mm: float, text_mm: float, foot: float
) -> list[Shape]:
    """Angle above, thickness at the left, gap and land below, as a drawing office sets them."""
    t, top = groove.thickness_mm, groove.half_width(groove.thickness_mm)
    reach = _reach(groove, thickest_mm)
    shapes: list[Shape] = []
    if groove.angle_deg > 0:
        y = -max(rise_mm, 0.0) - 1.1 * text_mm
        shapes += [
            Line(points=((-top, -0.3 * text_mm), (-top, y - 0.4 * text_mm))),
            Line(points=((top, -0.3 * text_mm), (top, y - 0.4 * text_mm))),
            Line(points=((-top, y), (top, y)), ticks=True),
            Label(at=(0.0, y - 0.35 * text_mm), anchor="middle", value=groove.angle_deg, value_kind="angle"),
        ]
    x = -reach - 1.1 * text_mm
    shapes += [
        Line(points=((-reach - 0.2 * text_mm, 0.0), (x - 0.4 * text_mm, 0.0))),
        Line(points=((-reach - 0.2 * text_mm, t), (x - 0.4 * text_mm, t))),
        Line(points=((x, 0.0), (x, t)), ticks=True),
        Label(at=(x - 0.5 * text_mm, t / 2 + 0.35 * text_mm), anchor="end", value=t, value_kind="length"),
    ]
    half, y = groove.gap_mm / 2, t + foot + 1.5 * text_mm
    if groove.gap_mm > 0:
        shapes += [
            Line(points=((-half, t + 0.2 * text_mm), (-half, y + 0.3 * text_mm))),
            Line(points=((half, t + 0.2 * text_mm), (half, y + 0.3 * text_mm))),
        ]
    shapes.append(
        Label(
            at=(half + 0.5 * text_mm, y + 0.35 * text_mm),
            anchor="start",
            text="gap",
            value=groove.gap_mm,
            value_kind="length",
        )
    )
    if groove.angle_deg > 0:
        shapes.append(
            Label(
                at=(-half - 0.5 * text_mm, y + 0.35 * text_mm),
                anchor="end",
                text="land",
                value=groove.land_mm,
                value_kind="length",
            )
        )
    return shapes


def number_labels(beads: list[Polygon]) -> list[Label]:
    """Pass numbers at the beads' centroids."""
    return [
        Label(
            at=centroid(bead.points),
            anchor="middle",
            text=str(bead.pass_number),
            pass_number=bead.pass_number,
        )
        for bead in beads
    ]
