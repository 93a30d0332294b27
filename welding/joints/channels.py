"""The channels of a joint: its front, its back, a fillet's side; each with what lies over its face."""

from __future__ import annotations

import math

from welding.documents.procedure import Joint
from welding.joints import members
from welding.joints.caps import ArcCap, FilletCap
from welding.joints.channel import Channel, Frame
from welding.joints.fillets import Fillet
from welding.joints.grooves import Groove
from welding.joints.shapes import Point
from welding.joints.walls import ledge, straight

ASSUMED_CAP_MM = 1.5
ASSUMED_CAP_SHARE = 0.15
LEAST_ASSUMED_CAP_MM = 0.5
MOST_REINFORCING_FILLET_MM = 10.0
BACK_LAP_MM = 2.5
"""A bead laid over the root from behind laps the opening by this on each side (common practice)."""


def assumed_cap_mm(thickness_mm: float) -> float:
    """Cap drawn where the procedure names none: 1.5 mm, lower on sheet (common practice, always said).

    Example:
        >>> assumed_cap_mm(2), assumed_cap_mm(20)
        (0.5, 1.5)
    """
    return min(ASSUMED_CAP_MM, max(LEAST_ASSUMED_CAP_MM, ASSUMED_CAP_SHARE * thickness_mm))


def _cap_mm(joint: Joint, thickness: float, assumptions: list[str]) -> float:
    if joint.reinforcement_mm is not None:
        return joint.reinforcement_mm
    rise = assumed_cap_mm(thickness)
    assumptions.append(f"cap {rise:g} mm high, none is named")
    return rise


def flat_channels(
    joint: Joint, groove: Groove, thicknesses: tuple[float, float], assumptions: list[str], backs: bool
) -> list[Channel]:
    """Front and back of joints whose members lie side by side."""
    t = groove.thickness_mm
    rise = _cap_mm(joint, t, assumptions)
    edge, lap = joint.kind == "edge", members.toe_mm(t)
    flare = groove.radius_mm is not None and groove.land_mm is None
    half = (-thicknesses[0] - groove.gap_mm / 2, thicknesses[1] + groove.gap_mm / 2)
    front = _side(groove, t, rise, (lap, lap), edge=half if edge else None)
    channels = [front]
    back_rise = max(rise, assumed_cap_mm(t))
    if groove.back_high_mm > 0:
        channels.append(_back(groove, rise, (lap, lap)))
    elif backs and not edge and not flare:
        chord = groove.gap_mm / 2 + BACK_LAP_MM
        channels.append(
            Channel(
                left=ledge(chord),
                right=ledge(chord),
                depth=0.0,
                cap=ArcCap(left_x=-chord, right_x=chord, height=0.0, rise=back_rise),
                frame=Frame(foot=(0.0, t), across=(1.0, 0.0), up=(0.0, 1.0)),
            )
        )
    return channels


def _side(
    groove: Groove,
    t: float,
    rise: float,
    laps: tuple[float, float],
    *,
    edge: tuple[float, float] | None = None,
    frame: Frame | None = None,
) -> Channel:
    """The front side, its foot where the front's weld begins."""
    low = groove.front_low_mm
    left, right = groove.left.cut(low, t), groove.right.cut(low, t)
    ends = edge or (-groove.left.at(t) - laps[0], groove.right.at(t) + laps[1])
    return Channel(
        left=left,
        right=right,
        depth=t - low,
        cap=ArcCap(left_x=ends[0], right_x=ends[1], height=t - low, rise=rise),
        frame=frame or Frame(foot=(0.0, t - low), across=(1.0, 0.0), up=(0.0, -1.0)),
    )


def _back(groove: Groove, rise: float, laps: tuple[float, float], frame: Frame | None = None) -> Channel:
    """The back side, upside down."""
    high = groove.back_high_mm
    left, right = groove.left.cut(0.0, high).flipped(), groove.right.cut(0.0, high).flipped()
    return Channel(
        left=left,
        right=right,
        depth=high,
        cap=ArcCap(left_x=-left.at(high) - laps[0], right_x=right.at(high) + laps[1], height=high, rise=rise),
        frame=frame or Frame(foot=(0.0, groove.thickness_mm - high), across=(1.0, 0.0), up=(0.0, 1.0)),
    )


def standing_channels(
    joint: Joint, groove: Groove, thicknesses: tuple[float, float], assumptions: list[str], backs: bool
) -> list[Channel]:
    """Front (at the right) and back of a groove under a standing member."""
    t, stem = groove.thickness_mm, thicknesses[1]
    half, low, high = stem / 2, groove.front_low_mm, groove.back_high_mm
    axis = -groove.gap_mm / 2
    front_frame = Frame(foot=(-half + low, axis), across=(0.0, -1.0), up=(1.0, 0.0))
    back_frame = Frame(foot=(-half + high, axis), across=(0.0, -1.0), up=(-1.0, 0.0))
    if joint.kind == "corner":
        rise, lap = _cap_mm(joint, t, assumptions), members.toe_mm(t)
        channels = [_side(groove, t, rise, (0.0, lap), frame=front_frame)]
        if high > 0:
            channels.append(_back(groove, rise, (lap, lap), frame=back_frame))
        return channels
    leg = joint.leg1_mm
    if leg is None:
        leg = min(MOST_REINFORCING_FILLET_MM, max(t / 4, 1.0))
        assumptions.append(f"reinforcing fillet {leg:g} mm, none is named")
    channels = [_reinforced(_side(groove, t, 0.0, (0.0, 0.0), frame=front_frame), leg)]
    if high > 0:
        channels.append(_reinforced(_back(groove, 0.0, (0.0, 0.0), frame=back_frame), leg))
    elif backs:
        near, far = groove.gap_mm / 2, groove.gap_mm / 2 + leg
        flat = Channel(
            left=ledge(near),
            right=ledge(far),
            depth=0.0,
            cap=FilletCap(left_x=-near, right_x=far, height=0.0, rise=leg),
            frame=Frame(foot=(-half, axis), across=(0.0, -1.0), up=(-1.0, 0.0)),
        )
        channels.append(flat)
    return channels


def _reinforced(channel: Channel, leg: float) -> Channel:
    top = channel.depth
    return Channel(
        left=channel.left,
        right=channel.right,
        depth=top,
        cap=FilletCap(left_x=-channel.left.at(top), right_x=channel.right.at(top), height=top, rise=leg),
        frame=channel.frame,
    )


def fillet_channel(weld: Fillet, corner: Point, side: int) -> Channel:
    """A fillet as a channel: its walls are the members, its face runs from toe to toe.

    Args:
        weld: The fillet.
        corner: Root corner in the drawing.
        side: +1 to the right of the standing member, -1 to the left.
    """
    psi = math.radians(weld.dihedral_deg)
    toe = (corner[0] + side * weld.leg1_mm, corner[1])
    top = (corner[0] + side * weld.leg2_mm * math.cos(psi), corner[1] - weld.leg2_mm * math.sin(psi))
    face = weld.face_mm
    across = ((top[0] - toe[0]) / face, (top[1] - toe[1]) / face)
    along = (corner[0] - toe[0]) * across[0] + (corner[1] - toe[1]) * across[1]
    foot = (toe[0] + along * across[0], toe[1] + along * across[1])
    height = math.dist(foot, corner)
    up = ((foot[0] - corner[0]) / height, (foot[1] - corner[1]) / height)
    return Channel(
        left=straight(height, 0.0, along),
        right=straight(height, 0.0, face - along),
        depth=height,
        cap=ArcCap(left_x=-along, right_x=face - along, height=height, rise=weld.rise_mm),
        frame=Frame(foot=corner, across=across, up=up),
    )
