"""The test piece against its procedure: position, thickness, fit-up, heat treatments."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.deviations.saying import against_plan, differs, tolerances
from welding.documents.coupon import Coupon, CouponPiece, TreatmentDone
from welding.documents.procedure import Procedure
from welding.finding import Finding
from welding.joints.section import Sectioned
from welding.language import tr
from welding.qualification.positions import aws_position, progression_of
from welding.quantities.writing import System, quantity_text, range_text
from welding.ranges import Range


def piece_deviations(coupon: Coupon, system: System = "si") -> Iterator[Finding]:
    """Everything in which the piece differs from its procedure, and what is planned and not yet recorded.

    Args:
        coupon: The coupon; what it does not state was as planned.
        system: Unit system of the sentences.
    """
    procedure, piece = coupon.procedure, coupon.coupon
    yield from _metals(coupon, system)
    yield from _position(procedure, piece)
    yield from _thickness(procedure, piece, system)
    yield from _diameter(procedure, piece, system)
    yield from _fit_up(procedure, piece, system)
    yield from _post_heat(procedure, piece, system)
    yield from _pwht(procedure, piece, system)


def _metals(coupon: Coupon, system: System) -> Iterator[Finding]:
    draft = Draft(procedure=coupon.procedure, heat=(), sectioned=Sectioned(), system=system)
    for planned, real in zip(coupon.procedure.base_metals, coupon.coupon.base_metals, strict=False):
        if planned.designation and real.designation and draft.metal(planned) != draft.metal(real):
            yield against_plan(
                "metal.as-planned",
                "base_metals",
                tr("Piece is not of the planned metal"),
                tr(
                    "{designation} is recorded; the procedure states {designation2}.",
                    designation=real.designation,
                    designation2=planned.designation,
                ),
                actual=real.designation,
                limit=planned.designation,
                remedy=tr("Correct the record, or weld the coupon to another procedure."),
            )


def _position(procedure: Procedure, piece: CouponPiece) -> Iterator[Finding]:
    welded, planned = piece.position, procedure.positions
    if welded is not None and planned:
        weld = "fillet" if procedure.joint and procedure.joint.weld == "fillet" else "groove"
        names = {welded, aws_position(welded, weld)} - {None}
        if not names & {one for each in planned for one in (each, aws_position(each, weld))}:
            text = ", ".join(planned)
            yield against_plan(
                "position.planned",
                "coupon.position",
                tr("Welded in another position than planned"),
                tr("The coupon is in {welded}; {text} is planned.", welded=welded, text=text),
                actual=welded,
                limit=text,
                remedy=tr(
                    "Correct the entry, or have the procedure say what was welded: the position "
                    "decides what the coupon qualifies."
                ),
            )
    planned_way = {one.progression for one in procedure.passes if one.progression}
    way = progression_of(welded, piece.progression) if welded else piece.progression
    if way is not None and planned_way and way not in planned_way:
        wanted = ", ".join(sorted(planned_way))
        yield against_plan(
            "progression.planned",
            "coupon.progression",
            tr("Welded in another direction than planned"),
            tr("Vertical progression was {way}; {wanted} is planned.", way=way, wanted=wanted),
            actual=way,
            limit=wanted,
        )


def _thickness(procedure: Procedure, piece: CouponPiece, system: System) -> Iterator[Finding]:
    planned = [one.thickness_mm for one in procedure.base_metals]
    for index, (wanted, found) in enumerate(zip(planned, piece.thickness_mm, strict=False)):
        if wanted and differs("thickness", wanted, found):
            actual, limit = (quantity_text(one, "thickness", system) for one in (found, wanted))
            yield against_plan(
                "thickness.planned",
                f"coupon.thickness_mm.{index}",
                tr("Piece is not of the planned thickness"),
                tr(
                    "Metal {index} is {actual} thick; {limit} is planned.",
                    index=index + 1,
                    actual=actual,
                    limit=limit,
                ),
                actual=actual,
                limit=limit,
                remedy=tr(
                    "Correct the entry, or choose a piece of the planned thickness: the thickness "
                    "welded decides what is qualified."
                ),
            )


def _diameter(procedure: Procedure, piece: CouponPiece, system: System) -> Iterator[Finding]:
    planned = [one.outside_diameter_mm for one in procedure.base_metals if one.outside_diameter_mm]
    if piece.outside_diameter_mm is not None and planned:
        wanted = min(planned, key=lambda one: abs(one - (piece.outside_diameter_mm or 0.0)))
        if differs("outside_diameter", wanted, piece.outside_diameter_mm):
            actual, limit = (
                quantity_text(one, "diameter", system) for one in (piece.outside_diameter_mm, wanted)
            )
            yield against_plan(
                "diameter.planned",
                "coupon.outside_diameter_mm",
                tr("Pipe is not of the planned diameter"),
                tr("The pipe is {actual} in diameter; {limit} is planned.", actual=actual, limit=limit),
                actual=actual,
                limit=limit,
            )
    if piece.product == "plate" and planned and procedure.joint and procedure.joint.kind == "butt":
        yield against_plan(
            "product.planned",
            "coupon.product",
            tr("Plate in place of pipe"),
            tr("The coupon is plate; the procedure plans pipe."),
            actual="plate",
            limit="pipe",
        )


def _fit_up(procedure: Procedure, piece: CouponPiece, system: System) -> Iterator[Finding]:
    fit = piece.fit_up
    if fit is None:
        return
    t = min(piece.thickness_mm, default=None) or min(
        (one.thickness_mm for one in procedure.base_metals if one.thickness_mm), default=None
    )
    butt = procedure.joint is not None and procedure.joint.kind == "butt"
    if fit.misalignment_mm is not None and t is not None and butt:
        row = tolerances().row("misalignment")
        most = min(t * row["percent"] / 100, row["most"])
        if fit.misalignment_mm > most * (1 + 1e-9):
            actual, limit = (quantity_text(one, "gap", system) for one in (fit.misalignment_mm, most))
            yield against_plan(
                "fit-up.misalignment",
                "coupon.fit_up.misalignment_mm",
                tr("Misalignment is too large"),
                tr(
                    "The edges are offset by {actual}; usual is at most a tenth of the thickness, "
                    "{limit} here.",
                    actual=actual,
                    limit=limit,
                ),
                actual=actual,
                limit=limit,
                remedy=tr("Align it before welding; look the limit up in the code in force."),
                citations=(tolerances().citation_of(row),),
            )
    preparation = procedure.joint.preparation if procedure.joint else None
    planned = preparation.root_face_mm if preparation else None
    face = fit.root_face_after_tack_mm if fit.root_face_after_tack_mm is not None else fit.root_face_mm
    if planned is not None and face is not None and differs("root_face", planned, face):
        actual, limit = (quantity_text(one, "gap", system) for one in (face, planned))
        yield against_plan(
            "fit-up.root-face",
            "coupon.fit_up.root_face_mm",
            tr("Root face differs from the plan"),
            tr("The root face is {actual}; {limit} is planned.", actual=actual, limit=limit),
            actual=actual,
            limit=limit,
        )


# --- treatments ------------------------------------------------------------------------------------


def _post_heat(procedure: Procedure, piece: CouponPiece, system: System) -> Iterator[Finding]:
    planned = procedure.thermal.post_heat if procedure.thermal else None
    if planned is None:
        return
    done = [one for one in piece.treatments_done if one.kind == "hydrogen-post-heat"]
    hold = Range(planned.temperature_c, planned.temperature_c)
    if piece.post_heat is not None and not done:
        done = [
            TreatmentDone(
                kind="hydrogen-post-heat",
                hold_c=Range(piece.post_heat.temperature_c, piece.post_heat.temperature_c),
                hold_min=piece.post_heat.hold_min,
            )
        ]
    if not done:
        if _all_welded(procedure, piece):
            yield _not_recorded(
                "post-heat", tr("Post-heating (hydrogen release)"), hold, planned.hold_min, system
            )
        return
    for one in done:
        # Hotter and longer drives hydrogen out as well.
        yield from _too_little("post-heat", "Post-heating", one, hold.min, planned.hold_min, system)


def _pwht(procedure: Procedure, piece: CouponPiece, system: System) -> Iterator[Finding]:
    planned = procedure.thermal.pwht if procedure.thermal else None
    done = [one for one in piece.treatments_done if one.kind == "pwht"]
    if piece.pwht is not None and not done:
        done = [TreatmentDone(kind="pwht", hold_c=piece.pwht.hold_c, hold_min=piece.pwht.hold_min)]
    if planned is None:
        if done:
            yield against_plan(
                "pwht.planned",
                "coupon.treatments_done",
                tr("PWHT that is not planned"),
                tr("The coupon was heat-treated after welding; the procedure plans no PWHT."),
                actual="PWHT",
                limit="none",
                remedy=tr("Have the procedure plan it: with and without are different procedures."),
            )
        return
    if not done:
        if _all_welded(procedure, piece):
            yield _not_recorded("pwht", "PWHT", planned.hold_c, planned.hold_min, system)
        return
    hold = planned.hold_c
    for one in done:
        yield from _too_little("pwht", "PWHT", one, hold.min if hold else None, planned.hold_min, system)
        if hold is not None and one.hold_c is not None and one.hold_c.max > hold.max + 1e-6:
            actual, limit = (range_text(each, "temperature", system) for each in (one.hold_c, hold))
            yield against_plan(
                "pwht.hold",
                "coupon.treatments_done",
                tr("PWHT was hotter than planned"),
                tr("It was held at {actual}; {limit} is planned.", actual=actual, limit=limit),
                actual=actual,
                limit=limit,
                remedy=tr("Above the planned range strength and toughness may be lost: ask the engineer."),
            )


def _all_welded(procedure: Procedure, piece: CouponPiece) -> bool:
    """Whether every planned pass is logged: before that no treatment is due."""
    logged = {one.number for one in piece.passes}
    return bool(logged) and {one.number for one in procedure.passes} <= logged


def _not_recorded(rule: str, what: str, hold: Range | None, minutes: float | None, system: System) -> Finding:
    parts = [
        range_text(hold, "temperature", system) if hold else "",
        tr("{minutes:g} min", minutes=minutes) if minutes else "",
    ]
    text = ", ".join(one for one in parts if one)
    return against_plan(
        f"{rule}.recorded",
        "coupon.treatments_done",
        tr("{what} is planned and not recorded", what=what),
        tr("The procedure plans {value}; nothing of it is recorded yet.", value=text or tr("it")),
        verdict="undecided",
        limit=text,
        remedy=tr("Do it straight after welding and record temperature, time and chart.")
        if rule == "post-heat"
        else tr("Record temperature, time and chart before the tests."),
    )


def _too_little(
    rule: str, what: str, one: TreatmentDone, least_c: float | None, minutes: float | None, system: System
) -> Iterator[Finding]:
    if least_c is not None and (one.hold_c is None or one.hold_c.min < least_c - 1e-6):
        limit = quantity_text(least_c, "temperature", system)
        known = one.hold_c is not None
        found = quantity_text(one.hold_c.min, "temperature", system) if one.hold_c else ""
        yield against_plan(
            f"{rule}.hold",
            "coupon.treatments_done",
            tr("{what} was colder than planned", what=what)
            if known
            else tr("{what}: temperature not recorded", what=what),
            tr("It was held at {found}; at least {limit} is planned.", found=found, limit=limit)
            if known
            else tr("At least {limit} is planned.", limit=limit),
            verdict="violates" if known else "undecided",
            actual=found,
            limit=limit,
        )
    if minutes is not None and (one.hold_min is None or one.hold_min < minutes - 1e-6):
        known = one.hold_min is not None
        yield against_plan(
            f"{rule}.time",
            "coupon.treatments_done",
            tr("{what} was shorter than planned", what=what)
            if known
            else tr("{what}: holding time not recorded", what=what),
            tr(
                "It was held for {hold_min:g} min; {minutes:g} min are planned.",
                hold_min=one.hold_min,
                minutes=minutes,
            )
            if one.hold_min is not None
            else tr("{minutes:g} min are planned.", minutes=minutes),
            verdict="violates" if known else "undecided",
            actual=tr("{hold_min:g} min", hold_min=one.hold_min) if one.hold_min is not None else "",
            limit=tr("{minutes:g} min", minutes=minutes),
        )
