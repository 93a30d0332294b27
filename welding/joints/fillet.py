"""Fillet on a T joint: right-angled triangle of two legs, beads stacked from the root out."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.joints.layers import layers_of
from welding.joints.shapes import Label, Line, Point, Polygon, Shape
from welding.ranges import positive


@dataclass(frozen=True, slots=True, kw_only=True)
class Fillet:
    """A flat-faced fillet between square members.

    Attributes:
        leg1_mm: Leg on the through plate.
        leg2_mm: Leg on the standing plate.
    """

    leg1_mm: float
    leg2_mm: float

    @property
    def area_mm2(self) -> float:
        """Section area [mm²], half the product of the legs."""
        return self.leg1_mm * self.leg2_mm / 2

    @property
    def face_mm(self) -> float:
        """Length of the face, toe to toe [mm]."""
        return math.hypot(self.leg1_mm, self.leg2_mm)

    @property
    def throat_mm(self) -> float:
        """Theoretical throat [mm]: from the root square to the face."""
        return self.leg1_mm * self.leg2_mm / self.face_mm


def equal_legs_mm(throat_mm: float) -> float:
    """Leg of an equal-leg fillet with this throat: throat · √2 (plane geometry).

    Args:
        throat_mm: Theoretical throat [mm], above zero.

    Returns:
        Leg [mm].

    Raises:
        OutOfRangeError: The throat is zero, negative or not finite.

    Example:
        >>> round(equal_legs_mm(5.0), 3)
        7.071
    """
    positive("mm").require("throat_mm", throat_mm)
    return throat_mm * math.sqrt(2)


def bead_polygons(
    fillet: Fillet, corner: Point, side: int, numbers: list[int], roles: list[str]
) -> list[Polygon]:
    """Beads from the root out, the lower toe first in each layer; they tile the triangle exactly.

    Args:
        fillet: The fillet.
        corner: Root corner in the drawing.
        side: +1 to the right of the standing plate, -1 to the left.
        numbers: Pass numbers in welding order.
        roles: Their roles.

    Returns:
        One polygon a pass.
    """
    if not numbers:
        return []

    def shape(start: float, end: float) -> tuple[float, float]:
        inner, outer = math.sqrt(start), math.sqrt(end)
        return fillet.face_mm * (inner + outer) / 2, fillet.throat_mm * (outer - inner)

    def at(scale: float, share: float) -> Point:
        """Point on the line parallel to the face: share 0 on the plate, 1 on the stem."""
        return (
            corner[0] + side * fillet.leg1_mm * scale * (1 - share),
            corner[1] - fillet.leg2_mm * scale * share,
        )

    beads: list[Polygon] = []
    done = 0
    for count in layers_of(roles, shape):
        inner, outer = math.sqrt(done / len(numbers)), math.sqrt((done + count) / len(numbers))
        for bead in range(count):
            low, high = bead / count, (bead + 1) / count
            points = [at(outer, low), at(outer, high), at(inner, high)]
            if inner > 0:
                points.append(at(inner, low))
            beads.append(Polygon(role="bead", points=tuple(points), pass_number=numbers[done + bead]))
        done += count
    return beads


def member_shapes(fillet: Fillet, thicknesses: tuple[float, float]) -> list[Shape]:
    """Through plate below (its upper surface at y = 0) and standing plate above."""
    plate, stem = thicknesses
    out = stem / 2 + max(1.5 * fillet.leg1_mm, 0.4 * plate, 5.0)
    up = max(1.5 * fillet.leg2_mm, 0.5 * stem, 5.0)
    return [
        Polygon(role="member", points=((-out, 0.0), (out, 0.0), (out, plate), (-out, plate))),
        Polygon(role="member", points=((-stem / 2, 0.0), (-stem / 2, -up), (stem / 2, -up), (stem / 2, 0.0))),
    ]


def dimension_shapes(fillet: Fillet, thicknesses: tuple[float, float], text_mm: float) -> list[Shape]:
    """Legs at the right-hand fillet, thickness of both members."""
    plate, stem = thicknesses
    out = stem / 2 + max(1.5 * fillet.leg1_mm, 0.4 * plate, 5.0)
    up = max(1.5 * fillet.leg2_mm, 0.5 * stem, 5.0)
    toe = stem / 2 + fillet.leg1_mm
    y = plate + 1.3 * text_mm
    x = toe + 1.0 * text_mm
    left = -out - 1.0 * text_mm
    return [
        Line(points=((stem / 2, 0.2 * text_mm), (stem / 2, y + 0.3 * text_mm))),
        Line(points=((toe, 0.2 * text_mm), (toe, y + 0.3 * text_mm))),
        Line(points=((stem / 2, y), (toe, y)), ticks=True),
        Label(
            at=((stem / 2 + toe) / 2, y + 1.25 * text_mm),
            anchor="middle",
            text="leg",
            value=fillet.leg1_mm,
            value_kind="length",
        ),
        Line(points=((stem / 2 + 0.2 * text_mm, -fillet.leg2_mm), (x + 0.3 * text_mm, -fillet.leg2_mm))),
        Line(points=((x, -fillet.leg2_mm), (x, 0.0)), ticks=True),
        Label(
            at=(x + 0.5 * text_mm, -fillet.leg2_mm / 2 + 0.35 * text_mm),
            anchor="start",
            text="leg",
            value=fillet.leg2_mm,
            value_kind="length",
        ),
        Line(points=((left, 0.0), (left, plate)), ticks=True),
        Label(
            at=(left - 0.5 * text_mm, plate / 2 + 0.35 * text_mm),
            anchor="end",
            value=plate,
            value_kind="length",
        ),
        Line(points=((-stem / 2, -up - 0.8 * text_mm), (stem / 2, -up - 0.8 * text_mm)), ticks=True),
        Label(at=(0.0, -up - 1.2 * text_mm), anchor="middle", value=stem, value_kind="length"),
    ]
