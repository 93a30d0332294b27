"""Dimensions as a drawing office sets them, in the drawing's mm: lines with strokes, angles as arcs."""

from __future__ import annotations

import math

from welding.glossary.terms import term_word
from welding.joints.channel import Frame
from welding.joints.fillets import Fillet
from welding.joints.grooves import Groove
from welding.joints.members import butt_reach
from welding.joints.shapes import Label, LabelKind, Line, Point, Polygon, Shape, centroid, spaced
from welding.language import tr


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


def _label(at: Point, anchor: str, value: float, text: str = "", kind: LabelKind = "length") -> Label:
    return Label(at=at, anchor=anchor, text=text, value=value, value_kind=kind)  # type: ignore[arg-type]


def upright(
    x: float, low: float, high: float, value: float, text_mm: float, *, left: bool = True
) -> list[Shape]:
    """A dimension line standing at ``x``, its number beside it."""
    away = -0.5 if left else 0.5
    return [
        Line(points=((x, low), (x, high)), ticks=True),
        _label((x + away * text_mm, (low + high) / 2 + 0.35 * text_mm), "end" if left else "start", value),
    ]


def angle(
    frame: Frame, groove: Groove, foot: float, level: float, angle_deg: float, cap_mm: float, text_mm: float
) -> list[Shape]:
    """An included angle over a face: both flanks drawn on to an arc about where they would meet.

    Args:
        frame: Of the side whose face it is.
        groove: The groove.
        foot: Height of the frame's foot over the far surface.
        level: Height of the face over the far surface.
        angle_deg: The angle.
        cap_mm: Height of the cap that the arc has to clear.
        text_mm: Height of text.
    """
    lean_right = math.radians(angle_deg / 2 if groove.both_walls else angle_deg)
    lean_left = math.radians(angle_deg / 2) if groove.both_walls else 0.0
    x_left, x_right = -groove.left.at(level), groove.right.at(level)
    width, spread = x_right - x_left, math.tan(lean_left) + math.tan(lean_right)
    if spread < 0.05 or width <= 0:
        return []
    high, up = abs(level - foot), cap_mm + 0.9 * text_mm
    apex = (x_left + width * math.tan(lean_left) / spread, high - width / spread)
    radius = (high + up - apex[1]) / math.cos(max(lean_left, lean_right))
    arc = [
        frame.place((apex[0] + radius * math.sin(a), apex[1] + radius * math.cos(a)))
        for a in spaced(-lean_left, lean_right, 13)
    ]
    middle = (lean_right - lean_left) / 2
    # The number stands outside the arc, at its middle, as far from it as suits its direction.
    out = frame.place(
        (
            apex[0] + (radius + 0.5 * text_mm) * math.sin(middle),
            apex[1] + (radius + 0.5 * text_mm) * math.cos(middle),
        )
    )
    sideways = abs(frame.up[0]) > 0.5
    anchor = "middle" if not sideways else ("start" if frame.up[0] > 0 else "end")
    drop = 0.35 * text_mm if sideways else (0.0 if frame.up[1] < 0 else 0.8 * text_mm)
    return [
        Line(points=(frame.place((x_left, high + 0.2 * text_mm)), arc[0])),
        Line(points=(frame.place((x_right, high + 0.2 * text_mm)), arc[-1])),
        Line(points=tuple(arc), ticks=True),
        _label((out[0], out[1] + drop), anchor, angle_deg, kind="angle"),
    ]


def below_butt(groove: Groove, y: float, text_mm: float) -> list[Shape]:
    """Gap, land and root radius in a row under a butt joint."""
    half, t = groove.gap_mm / 2, groove.thickness_mm
    shapes: list[Shape] = []
    line = y + 1.5 * text_mm
    if groove.gap_mm > 0:
        shapes += [
            Line(points=((side * half, t + 0.2 * text_mm), (side * half, line + 0.3 * text_mm)))
            for side in (-1, 1)
        ]
    base = line + 0.35 * text_mm
    shapes.append(_label((half + 0.5 * text_mm, base), "start", groove.gap_mm, term_word("root-gap")))
    if groove.land_mm is not None:
        shapes.append(_label((-half - 0.5 * text_mm, base), "end", groove.land_mm, term_word("root-face")))
    if groove.radius_mm is not None:
        shapes.append(
            _label((half + 0.5 * text_mm, base + 1.3 * text_mm), "start", groove.radius_mm, "radius")
        )
    if groove.lower_angle_deg is not None:
        shapes.append(
            _label(
                (half + 0.5 * text_mm, base + 1.3 * text_mm),
                "start",
                groove.lower_angle_deg,
                "lower",
                "angle",
            )
        )
    return shapes


def beside_butt(groove: Groove, thickest_mm: float, text_mm: float) -> list[Shape]:
    """Thickness at the left; on double forms the depth of both sides at the right."""
    t, reach = groove.thickness_mm, butt_reach(groove, thickest_mm)
    x = -reach - 1.1 * text_mm
    shapes: list[Shape] = [
        Line(points=((-reach - 0.2 * text_mm, y), (x - 0.4 * text_mm, y))) for y in (0.0, t)
    ]
    shapes += upright(x, 0.0, t, t, text_mm)
    if groove.back_angle_deg is not None and groove.land_mm is not None:
        right = reach + 1.1 * text_mm
        front, back = _depths(groove)
        shapes += upright(right, 0.0, front, front, text_mm, left=False)
        shapes += upright(right, t - back, t, back, text_mm, left=False)
    return shapes


def _depths(groove: Groove) -> tuple[float, float]:
    """Depth of the front and of the back side of a double form, without gouging."""
    ends = sorted({p.low for p in groove.right.pieces} | {groove.thickness_mm})
    land, t = groove.land_mm or 0.0, groove.thickness_mm
    if groove.back_high_mm and abs(groove.back_high_mm - groove.front_low_mm) < 1e-9:
        back = min(ends, key=lambda end: abs(end - groove.back_high_mm))
    else:
        back = groove.back_high_mm
    return t - land - back, back


def of_standing(
    groove: Groove, thicknesses: tuple[float, float], cap_mm: float, text_mm: float
) -> list[Shape]:
    """Plate, stem, gap, land and radius of a groove under a standing member."""
    plate, stem = thicknesses
    half = stem / 2
    out = half + max(1.5 * cap_mm, 0.4 * plate, 5.0)
    up = max(1.2 * stem, groove.right.at(groove.thickness_mm) + 0.6 * stem, 8.0)
    shapes = upright(-out - 1.0 * text_mm, 0.0, plate, plate, text_mm)
    shapes += [
        Line(points=((-half, -up - 0.8 * text_mm), (half, -up - 0.8 * text_mm)), ticks=True),
        _label((0.0, -up - 1.2 * text_mm), "middle", stem),
    ]
    y = plate + 1.5 * text_mm
    row: list[tuple[float, str]] = [(groove.gap_mm, term_word("root-gap"))]
    if groove.land_mm is not None:
        row.append((groove.land_mm, term_word("root-face")))
    if groove.radius_mm is not None:
        row.append((groove.radius_mm, "radius"))
    for index, (value, text) in enumerate(row):
        shapes.append(_label((-half, y + 1.3 * text_mm * index), "start", value, text))
    return shapes


def of_fillet(weld: Fillet, corner: Point, plate_mm: float, left_x: float, text_mm: float) -> list[Shape]:
    """Both legs, the plate's thickness, and the angle where it is not square."""
    psi = math.radians(weld.dihedral_deg)
    toe = (corner[0] + weld.leg1_mm, 0.0)
    top = (corner[0] + weld.leg2_mm * math.cos(psi), -weld.leg2_mm * math.sin(psi))
    y = plate_mm + 1.3 * text_mm
    shapes: list[Shape] = [
        Line(points=((x, 0.2 * text_mm), (x, y + 0.3 * text_mm))) for x in (corner[0], toe[0])
    ]
    shapes += [
        Line(points=((corner[0], y), (toe[0], y)), ticks=True),
        _label(((corner[0] + toe[0]) / 2, y + 1.25 * text_mm), "middle", weld.leg1_mm, tr("leg")),
    ]
    # The second leg, drawn along its member and set off into the open.
    off = max(weld.leg1_mm * math.sin(psi) + 1.0 * text_mm, 1.2 * text_mm)
    away = (math.sin(psi) * off, math.cos(psi) * off)
    ends = [(point[0] + away[0], point[1] + away[1]) for point in (corner, top)]
    shapes += [
        Line(
            points=(
                top,
                (ends[1][0] + 0.3 * text_mm * math.sin(psi), ends[1][1] + 0.3 * text_mm * math.cos(psi)),
            )
        ),
        Line(points=(ends[1], ends[0]), ticks=True),
        _label(
            (
                ends[0][0] + 0.65 * (ends[1][0] - ends[0][0]) + 0.5 * text_mm,
                ends[0][1] + 0.65 * (ends[1][1] - ends[0][1]) + 0.35 * text_mm,
            ),
            "start",
            weld.leg2_mm,
            tr("leg"),
        ),
    ]
    shapes += upright(left_x - 1.0 * text_mm, 0.0, plate_mm, plate_mm, text_mm)
    if abs(weld.dihedral_deg - 90) > 0.05:
        shapes.append(
            _label((top[0] + 0.4 * text_mm, top[1] - 0.8 * text_mm), "start", weld.dihedral_deg, kind="angle")
        )
    return shapes
