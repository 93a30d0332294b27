"""The two members as drawn: prepared plates, through plate and stem, lapped plates, tubes."""

from __future__ import annotations

import math

from welding.joints.channel import Frame
from welding.joints.fillets import Fillet
from welding.joints.grooves import Groove
from welding.joints.shapes import Polygon, Shape
from welding.joints.walls import Wall, spaced_arc

LEAST_TOE_MM = 1.0
TOE_MM = 1.5
"""How far a cap laps over each edge of a groove (common practice; the cap is always assumed)."""


def toe_mm(thickness_mm: float) -> float:
    """Lap of a cap over an edge: 1.5 mm, less on sheet (common practice)."""
    return min(TOE_MM, max(thickness_mm / 2, LEAST_TOE_MM))


# --- butt -------------------------------------------------------------------------------------


def butt_reach(groove: Groove, thickest_mm: float) -> float:
    """How far to each side the plates are drawn."""
    t = groove.thickness_mm
    half = max(groove.left.at(t), groove.right.at(t), groove.left.at(0.0), groove.right.at(0.0))
    return half + max(0.3 * t, 5.0) + thickest_mm - t


def butt_members(groove: Groove, thicknesses: tuple[float, float], backing: bool) -> list[Shape]:
    """Two prepared plates, flush at the far surface, and a backing bar where there is one."""
    t = groove.thickness_mm
    reach = butt_reach(groove, max(thicknesses))
    shapes: list[Shape] = []
    for side, own, wall in ((-1, thicknesses[0], groove.left), (1, thicknesses[1], groove.right)):
        top, edge = t - own, wall.at(t)
        step = []
        if own > t:
            beyond = edge + toe_mm(t)
            step = [(side * (beyond + own - t), top), (side * beyond, 0.0)]
        cut = [(side * x, t - h) for x, h in reversed(wall.points(0.0, t))]
        shapes.append(Polygon(role="member", points=((side * reach, top), *step, *cut, (side * reach, t))))
    if backing:
        half, deep = groove.gap_mm / 2 + max(6.0, 0.4 * t), max(3.0, 0.2 * t)
        shapes.append(
            Polygon(role="backing", points=((-half, t), (half, t), (half, t + deep), (-half, t + deep)))
        )
    return shapes


def edge_members(groove: Groove, thicknesses: tuple[float, float]) -> list[Shape]:
    """Two plates side by side, welded along their edges."""
    t, tall = groove.thickness_mm, groove.thickness_mm + 1.5 * sum(thicknesses)
    shapes: list[Shape] = []
    for side, own, wall in ((-1, thicknesses[0], groove.left), (1, thicknesses[1], groove.right)):
        out = groove.gap_mm / 2 + own
        cut = [(side * x, t - h) for x, h in reversed(wall.points(0.0, t))]
        foot = (side * groove.gap_mm / 2, tall)
        shapes.append(Polygon(role="member", points=((side * out, 0.0), *cut, foot, (side * out, tall))))
    return shapes


# --- T and corner -----------------------------------------------------------------------------


def standing_members(
    groove: Groove, frame: Frame, thicknesses: tuple[float, float], cap_mm: float, *, corner: bool
) -> list[Shape]:
    """A through plate and a prepared member standing on it; at a corner the plate ends at the face."""
    plate, stem = thicknesses
    half, t = stem / 2, groove.thickness_mm
    out = half + max(1.5 * cap_mm, 0.4 * plate, 5.0)
    up = max(1.2 * stem, groove.right.at(t) + 0.6 * stem, 8.0)
    left = [frame.place((-x, h)) for x, h in groove.left.points(0.0, t)]
    right = [frame.place((x, h)) for x, h in groove.right.points(0.0, t)]
    end = half if corner else out
    surface = [(-out, 0.0), *left] if corner else [(-out, 0.0), *left, (out, 0.0)]
    return [
        Polygon(role="member", points=(*surface, (end, plate), (-out, plate))),
        Polygon(role="member", points=((-half, -up), *right, (half, -up))),
    ]


def fillet_members(weld: Fillet, kind: str, thicknesses: tuple[float, float]) -> list[Shape]:
    """Members of a fillet: a plate with a standing or leaning member, or two lapped plates."""
    plate, stem = thicknesses
    if kind == "lap":
        return _lap(weld, plate, stem)
    psi = math.radians(weld.dihedral_deg)
    half = stem / math.sin(psi) / 2
    out = half + max(1.5 * weld.leg1_mm, 0.4 * plate, 5.0)
    long = max(1.5 * weld.leg2_mm, 0.5 * stem, 5.0) + stem * abs(math.cos(psi))
    tip = (math.cos(psi) * long, -math.sin(psi) * long)
    begin = -half if kind == "corner" else -out
    return [
        Polygon(role="member", points=((begin, 0.0), (out, 0.0), (out, plate), (begin, plate))),
        Polygon(
            role="member",
            points=((-half, 0.0), (-half + tip[0], tip[1]), (half + tip[0], tip[1]), (half, 0.0)),
        ),
    ]


def _lap(weld: Fillet, lower: float, upper: float) -> list[Shape]:
    out = max(2.5 * weld.leg1_mm, 1.5 * lower, 8.0)
    inner = max(3.0 * upper, 12.0)
    return [
        Polygon(role="member", points=((-0.6 * inner, 0.0), (out, 0.0), (out, lower), (-0.6 * inner, lower))),
        Polygon(role="member", points=((-inner, -upper), (0.0, -upper), (0.0, 0.0), (-inner, 0.0))),
    ]


# --- tubes ------------------------------------------------------------------------------------


def flare_members(groove: Groove, thicknesses: tuple[float, float], *, flat_left: bool) -> list[Shape]:
    """Rounded members touching side by side, or one against a flat one at the left."""
    radius, depth = groove.radius_mm or 0.0, groove.thickness_mm
    down, beyond = 0.7 * radius, 0.8 * radius
    shapes: list[Shape] = []
    for side, wall in ((-1, thicknesses[0]), (1, thicknesses[1])):
        near = groove.gap_mm / 2
        if side == -1 and flat_left:
            shapes.append(
                Polygon(
                    role="member",
                    points=(
                        (-near, depth - radius - 0.3 * radius),
                        (-near, depth + down),
                        (-near - wall, depth + down),
                        (-near - wall, depth - radius - 0.3 * radius),
                    ),
                )
            )
            continue
        centre = near + radius
        outer = spaced_arc(centre, depth, radius, 180.0, 90.0)
        inner = spaced_arc(centre, depth, max(radius - wall, 0.0), 90.0, 180.0)
        points = [
            (near, depth + down),
            *outer,
            (centre + beyond, depth - radius),
            (centre + beyond, depth - radius + wall),
            *inner,
            (near + min(wall, radius), depth + down),
        ]
        shapes.append(Polygon(role="member", points=tuple((side * x, y) for x, y in points)))
    return shapes


def wall_span(wall: Wall, top: float) -> float:
    """Farthest that a wall reaches from the axis."""
    return max((x for x, _ in wall.points(0.0, top)), default=0.0)
