"""A bead in its joint: members, deposit, and how far fusion and each temperature reach beyond the wall.

A drawing, not a solution: the deposit fills what its section fills, and the molten base metal lies evenly
along the wall, both by the balance of areas.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

from welding.bead.melting import crown_height_mm
from welding.bead.picture import STEPS, Point, peak_c
from welding.bead.state import BeadState

BEYOND_MM = 4.0
"""Metal that is drawn beside the groove."""


@dataclass(frozen=True, slots=True, kw_only=True)
class BesideWall:
    """How far beyond the wall the metal peaked at a temperature: ``pool``, ``zone`` or the temperature."""

    name: str
    peak_c: float
    beyond_mm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class JointPicture:
    """Points in mm, y upwards.

    Attributes:
        members: Outlines of the parts before welding.
        deposit: Outline of the weld metal that is added.
        wall: Line along which it touches the members, with the root.
        beside: What lies beyond the wall, the hottest last.
        low: Lower left corner of what is worth seeing.
        high: Upper right corner.
    """

    members: tuple[tuple[Point, ...], ...]
    deposit: tuple[Point, ...]
    wall: tuple[Point, ...]
    beside: tuple[BesideWall, ...]
    low: Point
    high: Point


def joint_picture_of(state: BeadState) -> JointPicture | None:
    """The bead in a butt's root or in a fillet; ``None`` on a plain plate, or without the joint's sizes."""
    area, base, one = state.deposit_mm2, state.base_mm2, state.settings
    if not area or base is None or not state.half_widths_mm:
        return None
    if one.joint == "fillet":
        members, deposit, wall = _fillet(area, one.thickness_mm)
        touched = 2 * math.sqrt(2 * area)
    elif one.joint == "butt" and one.root_face_mm is not None:
        angle = one.included_angle_deg
        if angle is None and one.root_face_mm < one.thickness_mm:
            return None
        depth = state.penetration_mm.value if state.penetration_mm else 0.0
        members, deposit, wall = _groove(state, area, math.radians(angle or 0.0) / 2, depth)
        touched = _length(wall)
    else:
        return None
    fused = base / touched
    pool = state.half_widths_mm["pool"]
    beside = sorted(
        (
            BesideWall(
                name=name,
                peak_c=peak_c(state, name),
                beyond_mm=round(fused + max(reached - pool, 0.0), 3),
            )
            for name, reached in state.half_widths_mm.items()
        ),
        key=lambda line: line.peak_c,
    )
    reach = next(line.beyond_mm for line in beside if line.name == "zone") + 1
    xs, ys = ([point[place] for point in deposit] for place in (0, 1))
    return JointPicture(
        members=members,
        deposit=deposit,
        wall=wall,
        beside=tuple(beside),
        low=(round(min(xs) - reach, 3), round(max(min(ys) - reach, _bottom(members)) - 1, 3)),
        high=(round(max(xs) + reach, 3), round(max(ys) + 2, 3)),
    )


Shape = tuple[tuple[tuple[Point, ...], ...], tuple[Point, ...], tuple[Point, ...]]


def _fillet(area_mm2: float, thickness_mm: float) -> Shape:
    """A flat fillet with legs of one size between a member that lies and one that stands."""
    leg = math.sqrt(2 * area_mm2)
    far = leg + 3 * BEYOND_MM + thickness_mm
    lying = ((-far, 0.0), (far, 0.0), (far, -thickness_mm), (-far, -thickness_mm))
    standing = ((-thickness_mm, far), (0.0, far), (0.0, 0.0), (-thickness_mm, 0.0))
    wall = ((leg, 0.0), (0.0, 0.0), (0.0, leg))
    return (_rounded(lying), _rounded(standing)), _rounded(wall), _rounded(wall)


def _groove(state: BeadState, area_mm2: float, half_angle: float, depth_mm: float) -> Shape:
    """A root pass in a groove, from as far down as it fuses; what the groove does not hold is its crown."""
    one = state.settings
    thick, gap = one.thickness_mm, one.root_gap_mm or 0.0
    face = min(one.root_face_mm or 0.0, thick)
    slope = math.tan(half_angle)

    def half(up: float) -> float:
        return gap / 2 + max(up - face, 0.0) * slope

    def holds(up: float) -> float:
        return gap * up + max(up - face, 0.0) ** 2 * slope

    # Weld metal runs down the gap as far as the faces fuse.
    begins = max(face - depth_mm - gap / 2, 0.0)
    wanted = area_mm2 + holds(begins)
    top = begins
    if holds(thick) <= wanted:
        top = thick
    else:
        low, high = begins, thick
        for _ in range(40):
            top = (low + high) / 2
            low, high = (top, high) if holds(top) < wanted else (low, top)
    over = max(wanted - holds(thick), 0.0)
    wide = max(2 * half(top), state.width_mm.value if over and state.width_mm else 0.0)
    crown = crown_height_mm(over, wide) if over and wide else 0.0
    ups = sorted({begins, *(up for up in (face,) if begins < up < top), top})
    left = [(-half(up), up - thick) for up in ups]
    right = [(half(up), up - thick) for up in ups]
    surface = [
        (wide / 2 * at, top - thick + crown * (1 - at**2))
        for at in (1 - 2 * step / STEPS for step in range(STEPS + 1))
    ]
    # Where the faces touch, the spur of fusion between them belongs to the wall.
    spur = [(0.0, max(face - depth_mm, 0.0) - thick)] if gap == 0 and depth_mm > 0 else []
    wall = [*reversed(left), *spur, *right]
    far = half(thick) + wide / 2 + 3 * BEYOND_MM
    member = [
        (gap / 2, -thick), (gap / 2, face - thick), (half(thick), 0.0), (far, 0.0), (far, -thick),
    ]  # fmt: skip
    mirrored = [(-x, y) for x, y in member]
    return (
        (_rounded(mirrored), _rounded(member)),
        _rounded([*reversed(left), *right, *surface]),
        _rounded(wall),
    )


def _length(points: tuple[Point, ...]) -> float:
    return max(sum(math.dist(one, two) for one, two in pairwise(points)), 0.1)


def _bottom(members: tuple[tuple[Point, ...], ...]) -> float:
    return min(y for outline in members for _, y in outline)


def _rounded(points: list[Point] | tuple[Point, ...]) -> tuple[Point, ...]:
    return tuple((round(x, 3), round(y, 3)) for x, y in points)
