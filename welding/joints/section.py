"""From a procedure to its section: areas, beads and the dimensioned drawing."""

from __future__ import annotations

from dataclasses import dataclass

from welding.documents.procedure import Joint, Pass, Procedure
from welding.errors import OutOfRangeError, Problem
from welding.joints import butt, fillet
from welding.joints.shapes import Drawing, Label, Polygon, Shape, segment_area

ASSUMED_CAP_MM = 1.5
ASSUMED_CAP_SHARE = 0.15
LEAST_ASSUMED_CAP_MM = 0.5


def assumed_cap_mm(thickness_mm: float) -> float:
    """Cap drawn where the procedure names none: 1.5 mm, lower on sheet (common practice, always said).

    Example:
        >>> assumed_cap_mm(2), assumed_cap_mm(20)
        (0.5, 1.5)
    """
    return min(ASSUMED_CAP_MM, max(LEAST_ASSUMED_CAP_MM, ASSUMED_CAP_SHARE * thickness_mm))


@dataclass(frozen=True, slots=True, kw_only=True)
class Section:
    """Areas of the joint's section, all in mm², and what was assumed for them."""

    area_mm2: float
    reinforcement_mm2: float
    total_mm2: float
    assumptions: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sectioned:
    """The result: a section and its drawing, or what is missing or wrong for them."""

    section: Section | None = None
    drawing: Drawing | None = None
    missing: tuple[Problem, ...] = ()
    wrong: tuple[Problem, ...] = ()


def section_of(procedure: Procedure) -> Sectioned:
    """Section of a butt (square, single V) or of a T fillet.

    Returns:
        Section and drawing, or the missing facts; a joint that is not drawn yet says so.
    """
    joint = procedure.joint
    if joint is None:
        return Sectioned(missing=(Problem("joint", "the joint"),))
    if joint.kind == "butt" and joint.weld in ("cjp-groove", "pjp-groove"):
        return _butt(procedure, joint)
    if joint.kind == "t" and joint.weld == "fillet":
        return _fillet(procedure, joint)
    return Sectioned(
        missing=(Problem("joint.kind", f"a drawing of {joint.weld} on a {joint.kind} joint: not drawn yet"),)
    )


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


def _butt(procedure: Procedure, joint: Joint) -> Sectioned:
    thicknesses, missing = _thicknesses(procedure)
    preparation = joint.preparation
    if preparation is None:
        missing += (Problem("joint.preparation", "the edge preparation"),)
    elif preparation.form not in ("square", "single-v"):
        missing += (Problem("joint.preparation.form", f"a drawing of {preparation.form}: not drawn yet"),)
    elif preparation.root_gap_mm is None:
        missing += (Problem("joint.preparation.root_gap_mm", "the root gap"),)
    if preparation and preparation.form == "single-v":
        if preparation.included_angle_deg is None:
            missing += (Problem("joint.preparation.included_angle_deg", "the included angle"),)
        if preparation.root_face_mm is None:
            missing += (Problem("joint.preparation.root_face_mm", "the root face"),)
    if missing or thicknesses is None or preparation is None:
        return Sectioned(missing=missing)
    thin = min(thicknesses)
    square = preparation.form == "square"
    try:
        groove = butt.ButtGroove(
            thickness_mm=thin,
            gap_mm=preparation.root_gap_mm or 0.0,
            land_mm=thin if square else preparation.root_face_mm or 0.0,
            angle_deg=0.0 if square else preparation.included_angle_deg or 0.0,
        )
    except OutOfRangeError as error:
        return Sectioned(wrong=(Problem("joint.preparation.root_face_mm", str(error)),))
    assumptions = []
    if thicknesses[0] != thicknesses[1]:
        assumptions.append("plates flush at the root, section of the thinner one")
    rise = joint.reinforcement_mm
    if rise is None:
        rise = assumed_cap_mm(thin)
        assumptions.append(f"cap {rise:g} mm high, none is named")
    front = [one for one in procedure.passes if one.side == 1]
    back = [one for one in procedure.passes if one.side == 2]
    reinforcement = butt.cap_area(groove, rise)
    beads = butt.bead_polygons(groove, rise, *_numbers(front))
    foot = 0.0
    if back:
        foot = max(rise, assumed_cap_mm(thin))
        beads += butt.back_polygons(groove, foot, [one.number for one in back])
        reinforcement += segment_area(butt.back_chord_mm(groove), foot)
    area = groove.area_mm2
    backing = joint.backing in ("metal", "ceramic", "flux")
    text_mm = _text_height(2 * groove.half_width(thin) + max(0.6 * thin, 10.0), thin)
    shapes = [
        *butt.member_shapes(groove, thicknesses, backing),
        *beads,
        *butt.number_labels(beads),
        *butt.dimension_shapes(
            groove, max(thicknesses), rise, text_mm, max(foot, max(3.0, 0.2 * thin) if backing else 0.0)
        ),
    ]
    form = "square butt" if square else "single-V butt"
    return Sectioned(
        section=Section(
            area_mm2=area,
            reinforcement_mm2=reinforcement,
            total_mm2=area + reinforcement,
            assumptions=tuple(assumptions),
        ),
        drawing=_framed(shapes, text_mm, f"Section of a {form}, {len(procedure.passes)} passes"),
    )


def _fillet(procedure: Procedure, joint: Joint) -> Sectioned:
    thicknesses, missing = _thicknesses(procedure)
    legs = fillet_legs(joint)
    if legs is None:
        missing += (Problem("joint.leg1_mm", "a leg or the throat of the fillet"),)
    if missing or thicknesses is None or legs is None:
        return Sectioned(missing=missing)
    weld = fillet.Fillet(leg1_mm=legs[0], leg2_mm=legs[1])
    both = joint.sides == "both"
    assumptions = ["flat face"]
    beads: list[Polygon] = []
    for side, number in ((1, 1), (-1, 2)):
        own = [one for one in procedure.passes if one.side == number]
        beads += fillet.bead_polygons(weld, (side * thicknesses[1] / 2, 0.0), side, *_numbers(own))
    if both:
        assumptions.append("area of one side of two")
    text_mm = _text_height(thicknesses[1] + 3.6 * legs[0], thicknesses[0] + 1.8 * legs[1])
    shapes = [
        *fillet.member_shapes(weld, thicknesses),
        *beads,
        *butt.number_labels(beads),
        *fillet.dimension_shapes(weld, thicknesses, text_mm),
    ]
    area = weld.area_mm2
    return Sectioned(
        section=Section(area_mm2=area, reinforcement_mm2=0.0, total_mm2=area, assumptions=tuple(assumptions)),
        drawing=_framed(shapes, text_mm, f"Section of a T fillet, {len(procedure.passes)} passes"),
    )


def fillet_legs(joint: Joint) -> tuple[float, float] | None:
    """Both legs of a fillet from what the joint names: two legs, one leg, or the throat."""
    if joint.leg1_mm and joint.leg2_mm:
        return joint.leg1_mm, joint.leg2_mm
    one = joint.leg1_mm or joint.leg2_mm
    if one:
        return one, one
    if joint.throat_mm:
        leg = fillet.equal_legs_mm(joint.throat_mm)
        return leg, leg
    return None


def _numbers(passes: list[Pass]) -> tuple[list[int], list[str]]:
    return [one.number for one in passes], [one.role for one in passes]


def _text_height(width: float, height: float) -> float:
    return max(width, height) / 17


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
