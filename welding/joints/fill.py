"""The channels of a joint: its front, its back, a fillet's side; each with what lies over its face."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.documents.procedure import Joint
from welding.errors import Problem
from welding.joints import members
from welding.joints.caps import ArcCap, FilletCap
from welding.joints.channel import Channel, Frame
from welding.joints.fillets import Fillet, fillet_of
from welding.joints.grooves import Groove, cut_groove
from welding.joints.shapes import Point
from welding.joints.walls import ledge, straight
from welding.language import tr

LEAST_THROAT_MM = 0.01
ASSUMED_CAP_MM = 1.5
ASSUMED_CAP_SHARE = 0.15
LEAST_ASSUMED_CAP_MM = 0.5
MOST_REINFORCING_FILLET_MM = 10.0
BACK_LAP_MM = 2.5
"""A bead laid over the root from behind laps the opening by this on each side (common practice)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Filled:
    """What a joint is filled into: its channels and the geometry they came from; or what is missing or wrong.

    Attributes:
        channels: Front first, then the back where there is one; a fillet's right side, then its left.
        groove: The groove, where it is one.
        fillet: The fillet, where it is one.
        corner: Root corner of a fillet's right side.
        assumptions: What was taken where nothing is stated.
        missing: What is not stated.
        wrong: What cannot be.
    """

    channels: tuple[Channel, ...] = ()
    groove: Groove | None = None
    fillet: Fillet | None = None
    corner: Point = (0.0, 0.0)
    assumptions: tuple[str, ...] = ()
    missing: tuple[Problem, ...] = ()
    wrong: tuple[Problem, ...] = ()

    @property
    def rounded(self) -> bool:
        """Whether it is a flare between rounded members."""
        return self.groove is not None and self.groove.radius_mm is not None and self.groove.land_mm is None


def stands(joint: Joint) -> bool:
    """Whether the second member stands on the first."""
    return joint.kind in ("t", "corner", "branch")


def fill_joint(joint: Joint, thicknesses: tuple[float, float], *, backs: bool) -> Filled:
    """The channels of a joint.

    Args:
        joint: Joint with its preparation or its fillet.
        thicknesses: Of both members [mm].
        backs: Whether anything is welded from the far side.
    """
    if joint.weld == "fillet":
        return _fill_fillet(joint, thicknesses)
    if joint.kind == "lap":
        return Filled(wrong=(Problem("joint.weld", tr("a lap joint takes a fillet, not a groove")),))
    standing = stands(joint)
    cut = cut_groove(joint, thicknesses[1] if standing else min(thicknesses))
    if cut.groove is None:
        return Filled(missing=cut.missing, wrong=cut.wrong)
    filled = Filled(groove=cut.groove)
    assumptions = list(cut.groove.assumptions)
    flush = not standing and joint.kind != "edge" and not filled.rounded
    if flush and thicknesses[0] != thicknesses[1]:
        assumptions.append(tr("plates flush at the root, section of the thinner one"))
    make = standing_channels if standing and not filled.rounded else flat_channels
    channels = make(joint, cut.groove, thicknesses, assumptions, backs)
    return Filled(channels=tuple(channels), groove=cut.groove, assumptions=tuple(assumptions))


def _fill_fillet(joint: Joint, thicknesses: tuple[float, float]) -> Filled:
    weld, missing, wrong = fillet_of(joint)
    if weld is None:
        return Filled(missing=missing, wrong=wrong)
    throat = weld.leg1_mm * weld.leg2_mm * math.sin(math.radians(weld.dihedral_deg)) / weld.face_mm
    if throat < LEAST_THROAT_MM:
        return Filled(wrong=(Problem("joint.leg1_mm", tr("legs so unequal or small leave no throat")),))
    if joint.kind == "lap" and weld.leg2_mm > thicknesses[1] * (1 + 1e-9):
        path = "joint.leg2_mm" if joint.leg2_mm else "joint.leg1_mm"
        text = tr(
            "a leg of {leg2_mm:g} mm does not fit on an edge of {thicknesses:g} mm",
            leg2_mm=weld.leg2_mm,
            thicknesses=thicknesses[1],
        )
        return Filled(wrong=(Problem(path, text),))
    corner = (0.0, 0.0)
    if joint.kind != "lap":
        corner = (thicknesses[1] / math.sin(math.radians(weld.dihedral_deg)) / 2, 0.0)
    channels = [fillet_channel(weld, corner, 1)]
    if joint.kind not in ("lap", "corner"):
        other = Fillet(
            leg1_mm=weld.leg1_mm,
            leg2_mm=weld.leg2_mm,
            dihedral_deg=180 - weld.dihedral_deg,
            rise_mm=weld.rise_mm,
        )
        channels.append(fillet_channel(other, (-corner[0], 0.0), -1))
    assumptions = [] if joint.face else [tr("flat face")]
    if joint.sides == "both":
        assumptions.append(tr("area of one side of two"))
    return Filled(channels=tuple(channels), fillet=weld, corner=corner, assumptions=tuple(assumptions))


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
    assumptions.append(tr("cap {rise:g} mm high, none is named", rise=rise))
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
        assumptions.append(tr("reinforcing fillet {leg:g} mm, none is named", leg=leg))
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
