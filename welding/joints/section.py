"""From a procedure to its section: areas, beads and the dimensioned drawing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from welding.codebook.book import by_book
from welding.documents.procedure import Joint, Procedure
from welding.errors import Problem
from welding.glossary.terms import term_word
from welding.glossary.values import in_words
from welding.joints import dimensions, members
from welding.joints.beads import Bead, BeadArea, bead_of, beads_of
from welding.joints.channel import Channel, Frame
from welding.joints.fill import Filled, fill_joint
from welding.joints.fillets import Fillet
from welding.joints.grooves import Groove
from welding.joints.shapes import Drawing, Label, Point, Polygon, Shape
from welding.language import tr

_ANY_MM = 1e9
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
        return Sectioned(missing=(Problem("joint", tr("the joint")),))
    if joint.weld not in _WELDS_DRAWN:
        return Sectioned(
            missing=(Problem("joint.weld", tr("a drawing of a {weld} weld: not drawn yet", weld=joint.weld)),)
        )
    thicknesses, missing = _thicknesses(procedure)
    return _sectioned(joint, thicknesses, missing, _by_side(procedure))


@by_book(256)  # most of what is typed leaves the section as it was
def _sectioned(
    joint: Joint,
    thicknesses: tuple[float, float] | None,
    missing: tuple[Problem, ...],
    sides: tuple[tuple[Bead, ...], tuple[Bead, ...]],
) -> Sectioned:
    filled = fill_joint(joint, thicknesses or (_ANY_MM, _ANY_MM), backs=bool(sides[1]))
    missing += filled.missing
    if missing or thicknesses is None:
        return Sectioned(missing=missing)
    if not filled.channels:
        return Sectioned(wrong=filled.wrong)
    beads, areas = [], []
    for channel, passes in zip(filled.channels, sides, strict=False):
        laid, told = beads_of(channel, passes)
        beads += laid
        areas += told
    shapes, text_mm = _shapes(joint, filled, thicknesses)
    return Sectioned(
        section=_section(filled, tuple(areas)),
        drawing=_drawn(shapes, beads, text_mm, _caption(joint, sum(map(len, sides)))),
    )


def _section(filled: Filled, beads: tuple[BeadArea, ...]) -> Section:
    weld = filled.fillet
    counted = filled.channels[:1] if weld else filled.channels  # a fillet is told for one side
    area = sum(channel.area_mm2 for channel in counted)
    caps = sum(channel.cap.area for channel in counted)
    return Section(
        area_mm2=area,
        reinforcement_mm2=caps,
        total_mm2=area + caps,
        centroid_mm=_common_centroid(counted),
        throat_mm=weld.throat_mm if weld else None,
        beads=beads,
        assumptions=filled.assumptions,
    )


def _thicknesses(procedure: Procedure) -> tuple[tuple[float, float] | None, tuple[Problem, ...]]:
    known = [metal.thickness_mm for metal in procedure.base_metals]
    missing = tuple(
        Problem(f"base_metals.{i}.thickness_mm", tr("thickness of metal {i}", i=i + 1))
        for i in range(2)
        if i >= len(known) or known[i] is None
    )
    if missing:
        return None, missing
    return (known[0] or 0.0, known[1] or 0.0), ()


# --- what is drawn ----------------------------------------------------------------------------


def _shapes(joint: Joint, filled: Filled, thicknesses: tuple[float, float]) -> tuple[list[Shape], float]:
    if filled.fillet is not None:
        return _fillet_shapes(joint, filled.fillet, filled.corner, thicknesses)
    if filled.groove is None:
        return [], 1.0
    cap_mm = filled.channels[0].cap.rise
    return _groove_shapes(joint, filled.groove, thicknesses, list(filled.channels), cap_mm, filled.rounded)


def _fillet_shapes(
    joint: Joint, weld: Fillet, corner: Point, thicknesses: tuple[float, float]
) -> tuple[list[Shape], float]:
    shapes = members.fillet_members(weld, joint.kind, thicknesses)
    left = min(x for shape in shapes if isinstance(shape, Polygon) for x, y in shape.points if y >= 0)
    text_mm = _text_height(thicknesses[1] + 3.6 * weld.leg1_mm, thicknesses[0] + 1.8 * weld.leg2_mm)
    return shapes + dimensions.of_fillet(weld, corner, thicknesses[0], left, text_mm), text_mm


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
                at=(-0.5 * text_mm, base),
                anchor="end",
                text=term_word("root-gap"),
                value=groove.gap_mm,
                value_kind="length",
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


# --- beads and frame --------------------------------------------------------------------------


def _by_side(procedure: Procedure) -> tuple[tuple[Bead, ...], tuple[Bead, ...]]:
    first, second = (tuple(bead_of(one) for one in procedure.passes if one.side == side) for side in (1, 2))
    return first, second


def _common_centroid(channels: Sequence[Channel]) -> Point:
    whole = sum(channel.area_mm2 for channel in channels)
    if whole <= 0:
        return channels[0].frame.foot
    x = sum(channel.area_mm2 * channel.centroid[0] for channel in channels) / whole
    y = sum(channel.area_mm2 * channel.centroid[1] for channel in channels) / whole
    return x, y


def _caption(joint: Joint, count: int) -> str:
    kind = in_words(joint.kind, "joint")
    form = joint.preparation.form if joint.preparation else "square"
    words = (
        tr("{weld}, {kind}", weld=in_words("fillet"), kind=kind)
        if joint.weld == "fillet"
        else f"{in_words(form)}, {kind}"
    )
    return tr(
        "Section of a {words}, {count} {value}",
        words=words,
        count=count,
        value=tr("pass") if count == 1 else tr("passes"),
    )


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
