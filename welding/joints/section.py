"""From a procedure to its section: areas, beads and the dimensioned drawing."""

from __future__ import annotations

from dataclasses import dataclass

from welding.documents.procedure import Joint, Pass, Procedure
from welding.errors import Problem
from welding.joints import dimensions, members
from welding.joints.beads import BeadArea, beads_of
from welding.joints.channel import Channel, Frame
from welding.joints.channels import fillet_channel, flat_channels, standing_channels
from welding.joints.fillets import Fillet, fillet_of
from welding.joints.grooves import Groove, cut_groove
from welding.joints.shapes import Drawing, Label, Point, Polygon, Shape

_WELDS_DRAWN = ("cjp-groove", "pjp-groove", "fillet")


@dataclass(frozen=True, slots=True, kw_only=True)
class Section:
    """Areas of the joint's section, all in mm², and what was assumed for them.

    ``centroid_mm`` is that of ``area_mm2`` in the drawing's coordinates. ``throat_mm`` is a fillet's.
    """

    area_mm2: float
    reinforcement_mm2: float
    total_mm2: float
    centroid_mm: Point
    throat_mm: float | None
    beads: tuple[BeadArea, ...]
    assumptions: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sectioned:
    """The result: a section and its drawing, or what is missing or wrong for them."""

    section: Section | None = None
    drawing: Drawing | None = None
    missing: tuple[Problem, ...] = ()
    wrong: tuple[Problem, ...] = ()


def section_of(procedure: Procedure) -> Sectioned:
    """Section of a joint, with the beads of its passes.

    Returns:
        Section and drawing, or what is missing for them, or what cannot be.
    """
    joint = procedure.joint
    if joint is None:
        return Sectioned(missing=(Problem("joint", "the joint"),))
    if joint.weld not in _WELDS_DRAWN:
        return Sectioned(missing=(Problem("joint.weld", f"a drawing of a {joint.weld} weld: not drawn yet"),))
    thicknesses, missing = _thicknesses(procedure)
    if joint.weld == "fillet":
        return _fillet(procedure, joint, thicknesses, missing)
    return _groove(procedure, joint, thicknesses, missing)


def _thicknesses(procedure: Procedure) -> tuple[tuple[float, float] | None, tuple[Problem, ...]]:
    known = [metal.thickness_mm for metal in procedure.base_metals]
    missing = tuple(
        Problem(f"base_metals.{i}.thickness_mm", f"thickness of metal {i + 1}")
        for i in range(2)
        if i >= len(known) or known[i] is None
    )
    if missing:
        return None, missing
    return (known[0] or 0.0, known[1] or 0.0), ()


# --- grooves ----------------------------------------------------------------------------------


def _groove(
    procedure: Procedure,
    joint: Joint,
    thicknesses: tuple[float, float] | None,
    missing: tuple[Problem, ...],
) -> Sectioned:
    standing = joint.kind in ("t", "corner", "branch")
    thin = thicknesses and (thicknesses[1] if standing else min(thicknesses))
    cut = cut_groove(joint, thin or 1e9)
    missing += cut.missing
    if missing or thicknesses is None or thin is None:
        return Sectioned(missing=missing)
    if cut.groove is None:
        return Sectioned(wrong=cut.wrong)
    groove = cut.groove
    flare = groove.radius_mm is not None and groove.land_mm is None
    if joint.kind == "lap":
        return Sectioned(wrong=(Problem("joint.weld", "a lap joint takes a fillet, not a groove"),))
    assumptions = list(groove.assumptions)
    if not standing and joint.kind != "edge" and thicknesses[0] != thicknesses[1] and not flare:
        assumptions.append("plates flush at the root, section of the thinner one")
    fronts, backs = _by_side(procedure)
    if standing and not flare:
        channels = standing_channels(joint, groove, thicknesses, assumptions, bool(backs))
    else:
        channels = flat_channels(joint, groove, thicknesses, assumptions, bool(backs))
    beads, areas = [], []
    for channel, passes in zip(channels, (fronts, backs), strict=False):
        laid, told = beads_of(channel, passes)
        beads += laid
        areas += told
    area = sum(channel.area_mm2 for channel in channels)
    caps = sum(channel.cap.area for channel in channels)
    cap_mm = channels[0].cap.rise
    shapes, text_mm = _groove_shapes(joint, groove, thicknesses, channels, cap_mm, flare)
    return Sectioned(
        section=Section(
            area_mm2=area,
            reinforcement_mm2=caps,
            total_mm2=area + caps,
            centroid_mm=_common_centroid(channels),
            throat_mm=None,
            beads=tuple(areas),
            assumptions=tuple(assumptions),
        ),
        drawing=_drawn(shapes, beads, text_mm, _caption(procedure, joint)),
    )


def _groove_shapes(
    joint: Joint,
    groove: Groove,
    thicknesses: tuple[float, float],
    channels: list[Channel],
    cap_mm: float,
    flare: bool,
) -> tuple[list[Shape], float]:
    t = groove.thickness_mm
    front = channels[0]
    backing = joint.backing in ("metal", "ceramic", "flux")
    wide = max(members.wall_span(wall, t) for wall in (groove.left, groove.right))
    if joint.kind in ("t", "corner", "branch") and not flare:
        text_mm = _text_height(thicknesses[1] + 3 * cap_mm + 10, thicknesses[0] + wide + thicknesses[1])
        whole = Frame(foot=(-thicknesses[1] / 2, front.frame.foot[1]), across=(0.0, -1.0), up=(1.0, 0.0))
        shapes = members.standing_members(groove, whole, thicknesses, cap_mm, corner=joint.kind == "corner")
        shapes += dimensions.of_standing(groove, thicknesses, cap_mm, text_mm)
        return shapes + _angles(groove, channels, text_mm), text_mm
    if flare:
        radius = groove.radius_mm or 0.0
        text_mm = _text_height(3.6 * radius, 1.7 * radius + cap_mm)
        shapes = members.flare_members(groove, thicknesses, flat_left=not groove.both_walls)
        base = t + 0.7 * radius + 1.5 * text_mm
        shapes += [
            Label(at=(0.5 * text_mm, base), anchor="start", text="radius", value=radius, value_kind="length"),
            Label(
                at=(-0.5 * text_mm, base), anchor="end", text="gap", value=groove.gap_mm, value_kind="length"
            ),
        ]
        return shapes, text_mm
    if joint.kind == "edge":
        text_mm = _text_height(2.5 * sum(thicknesses), t + 1.5 * sum(thicknesses))
        shapes = members.edge_members(groove, thicknesses)
        left = -thicknesses[0] - groove.gap_mm / 2 - 1.1 * text_mm
        shapes += dimensions.upright(left, 0.0, t, t, text_mm)
        return shapes + _angles(groove, channels, text_mm), text_mm
    text_mm = _text_height(2 * wide + max(0.6 * t, 10.0), t)
    foot = max(channels[1].cap.rise if len(channels) > 1 else 0.0, max(3.0, 0.2 * t) if backing else 0.0)
    shapes = members.butt_members(groove, thicknesses, backing)
    shapes += dimensions.beside_butt(groove, max(thicknesses), text_mm)
    below = foot + (3.4 * text_mm if groove.back_angle_deg else 0.0)
    shapes += dimensions.below_butt(groove, t + below, text_mm)
    return shapes + _angles(groove, channels, text_mm), text_mm


def _angles(groove: Groove, channels: list[Channel], text_mm: float) -> list[Shape]:
    shapes: list[Shape] = []
    front = channels[0]
    if groove.front_angle_deg:
        shapes += dimensions.angle(
            front.frame,
            groove,
            groove.front_low_mm,
            groove.thickness_mm,
            groove.front_angle_deg,
            front.cap.rise,
            text_mm,
        )
    if groove.back_angle_deg and len(channels) > 1:
        shapes += dimensions.angle(
            channels[1].frame,
            groove,
            groove.back_high_mm,
            0.0,
            groove.back_angle_deg,
            channels[1].cap.rise,
            text_mm,
        )
    return shapes


# --- fillets ----------------------------------------------------------------------------------


def _fillet(
    procedure: Procedure,
    joint: Joint,
    thicknesses: tuple[float, float] | None,
    missing: tuple[Problem, ...],
) -> Sectioned:
    weld, lacking, wrong = fillet_of(joint)
    missing += lacking
    if wrong:
        return Sectioned(wrong=wrong)
    if missing or thicknesses is None or weld is None:
        return Sectioned(missing=missing)
    if joint.kind == "lap" and weld.leg2_mm > thicknesses[1] * (1 + 1e-9):
        return Sectioned(
            wrong=(
                Problem(
                    "joint.leg2_mm" if joint.leg2_mm else "joint.leg1_mm",
                    f"a leg of {weld.leg2_mm:g} mm does not fit on an edge of {thicknesses[1]:g} mm",
                ),
            )
        )
    kind = joint.kind if joint.kind in ("lap", "corner") else "t"
    shapes, corner = members.fillet_members(weld, kind, thicknesses)
    assumptions = [] if joint.face else ["flat face"]
    channels = [fillet_channel(weld, corner, 1)]
    if kind == "t":
        other = Fillet(
            leg1_mm=weld.leg1_mm,
            leg2_mm=weld.leg2_mm,
            dihedral_deg=180 - weld.dihedral_deg,
            rise_mm=weld.rise_mm,
        )
        channels.append(fillet_channel(other, (-corner[0], 0.0), -1))
    if joint.sides == "both":
        assumptions.append("area of one side of two")
    fronts, backs = _by_side(procedure)
    beads, areas = [], []
    for channel, passes in zip(channels, (fronts, backs), strict=False):
        laid, told = beads_of(channel, passes)
        beads += laid
        areas += told
    left = min(x for shape in shapes if isinstance(shape, Polygon) for x, y in shape.points if y >= 0)
    text_mm = _text_height(thicknesses[1] + 3.6 * weld.leg1_mm, thicknesses[0] + 1.8 * weld.leg2_mm)
    shapes += dimensions.of_fillet(weld, corner, thicknesses[0], left, text_mm)
    area = weld.flat_area_mm2
    return Sectioned(
        section=Section(
            area_mm2=area,
            reinforcement_mm2=weld.area_mm2 - area,
            total_mm2=weld.area_mm2,
            centroid_mm=channels[0].centroid,
            throat_mm=weld.throat_mm,
            beads=tuple(areas),
            assumptions=tuple(assumptions),
        ),
        drawing=_drawn(shapes, beads, text_mm, _caption(procedure, joint)),
    )


def fillet_legs(joint: Joint) -> tuple[float, float] | None:
    """Both legs of a fillet from what the joint names: two legs, one leg, or the throat."""
    weld, _, _ = fillet_of(joint)
    return (weld.leg1_mm, weld.leg2_mm) if weld else None


# --- beads and frame --------------------------------------------------------------------------


def _by_side(procedure: Procedure) -> tuple[list[Pass], list[Pass]]:
    return (
        [one for one in procedure.passes if one.side == 1],
        [one for one in procedure.passes if one.side == 2],
    )


def _common_centroid(channels: list[Channel]) -> Point:
    whole = sum(channel.area_mm2 for channel in channels)
    if whole <= 0:
        return channels[0].frame.foot
    x = sum(channel.area_mm2 * channel.centroid[0] for channel in channels) / whole
    y = sum(channel.area_mm2 * channel.centroid[1] for channel in channels) / whole
    return x, y


def _caption(procedure: Procedure, joint: Joint) -> str:
    kind = "T" if joint.kind == "t" else joint.kind
    form = joint.preparation.form if joint.preparation else "square"
    words = f"{kind} fillet" if joint.weld == "fillet" else f"{form.replace('-v', '-V')} {kind}"
    count = len(procedure.passes)
    return f"Section of a {words}, {count} {'pass' if count == 1 else 'passes'}"


def _text_height(width: float, height: float) -> float:
    return max(width, height) / 17


def _drawn(shapes: list[Shape], beads: list[Polygon], text_mm: float, caption: str) -> Drawing:
    plates = [shape for shape in shapes if isinstance(shape, Polygon)]
    marks = [shape for shape in shapes if not isinstance(shape, Polygon)]
    return _framed([*plates, *beads, *dimensions.number_labels(beads), *marks], text_mm, caption)


def _framed(shapes: list[Shape], text_mm: float, caption: str) -> Drawing:
    xs: list[float] = []
    ys: list[float] = []
    for shape in shapes:
        if isinstance(shape, Label):
            # A label needs room for its text: about 0.55 of its height a character.
            room = 0.55 * text_mm * (len(shape.text) + (7 if shape.value is not None else 0))
            left = {"start": 0.0, "middle": room / 2, "end": room}[shape.anchor]
            xs += [shape.at[0] - left, shape.at[0] - left + room]
            ys += [shape.at[1] - text_mm, shape.at[1] + 0.3 * text_mm]
        else:
            xs += [x for x, _ in shape.points]
            ys += [y for _, y in shape.points]
    margin = 0.4 * text_mm
    return Drawing(
        x=min(xs) - margin,
        y=min(ys) - margin,
        width=max(xs) - min(xs) + 2 * margin,
        height=max(ys) - min(ys) + 2 * margin,
        text_mm=text_mm,
        shapes=tuple(shapes),
        caption=caption,
    )
