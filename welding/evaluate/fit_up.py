"""What stands around the passes: fit-up, machine, batches, checklist; flags that stay; the wait."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from welding.advice.checklist import Question, checklist_for
from welding.citation import COMMON_PRACTICE, Citation
from welding.deviations.of_piece import piece_deviations
from welding.deviations.saying import THIS_PROCEDURE
from welding.documents.coupon import Coupon, CouponPiece, Flag, PassRecord
from welding.errors import OutOfRangeError
from welding.evaluate.procedure import Evaluation
from welding.finding import Finding
from welding.heat.cooling import interpass_wait
from welding.heat.small_piece import WarmPiece, warm_piece
from welding.language import tr
from welding.quantities.writing import System, quantity_text, range_text

STAYING = frozenset(
    {
        "interpass.quenched",
        "interpass.range",
        "filler.batch",
        "filler.planned",
        "process.planned",
        "polarity.planned",
        "transfer.planned",
        "gas.planned",
        "filler.diameter.planned",
    }
)
"""Rules whose breach, or whose missing reading, stays on the record of a pass."""


def set_up_findings(coupon: Coupon, system: System = "si") -> Iterator[Finding]:
    """What is wrong or missing at the booth before the first arc."""
    yield from _gap(coupon, system)
    yield from _preheat(coupon, system)
    yield from _machine(coupon.coupon)
    yield from _checklist(coupon)
    yield from piece_deviations(coupon, system)


def flags_of(findings: tuple[Finding, ...]) -> tuple[Flag, ...]:
    """The flags that a pass earns: they stay on the record and can only be explained."""
    return tuple(
        Flag(rule=one.rule, title=one.title, message=one.message)
        for one in findings
        if one.rule in STAYING and one.verdict in ("violates", "undecided")
    )


def with_flags(before: tuple[Flag, ...], now: tuple[Flag, ...]) -> tuple[Flag, ...]:
    """Flags that stand, with new ones added; a rule that was flagged keeps its first words."""
    known = {one.rule for one in before}
    return (*before, *(one for one in now if one.rule not in known))


def batch_finding(piece: CouponPiece, record: PassRecord) -> Finding | None:
    """Whether the pass names a filler batch that is at this booth."""
    batch = record.filler.batch if record.filler else None
    listed = [one.batch for one in piece.batches if one.kind == "filler"]
    if batch is None or not listed:
        return None
    right = batch.strip() in {one.strip() for one in listed}
    return Finding(
        rule="filler.batch",
        verdict="complies" if right else "violates",
        path="filler.batch",
        title=tr("Filler batch is the one at the booth") if right else tr("Filler of another batch"),
        message=tr(
            "Batch {batch}; {listed} {value} recorded.",
            batch=batch,
            listed=", ".join(listed),
            value=tr("is") if len(listed) == 1 else tr("are"),
        ),
        actual=batch,
        limit=", ".join(listed),
        remedy="" if right else tr("Record that batch with its certificate, or weld with the one recorded."),
        citations=(COMMON_PRACTICE,),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Cooling:
    """How a pass cools: an estimate, to be confirmed by a reading.

    Attributes:
        after_pass: The pass whose heat has to go.
        wait_s: Seconds from the end of the arc until the interpass maximum is reached.
        to_c: That maximum [°C].
        plate_c: Temperature of the plate that the estimate starts from [°C].
        citation: Of the model.
        piece_c: What the whole piece warms to, where its size is recorded [°C]; then the longer wait counts.
    """

    after_pass: int
    wait_s: float
    to_c: float
    plate_c: float
    citation: Citation
    piece_c: float | None = None


def cooling_after(
    coupon: Coupon, evaluation: Evaluation, pass_number: int, heat_with_k_kj_mm: float | None
) -> Cooling | None:
    """The wait after a pass as it was welded.

    Args:
        coupon: The coupon.
        evaluation: Of its procedure; tells the metal's family and the thin side.
        pass_number: The pass that was welded last.
        heat_with_k_kj_mm: Its heat input with k [kJ/mm].

    Returns:
        The estimate, or ``None`` where heat, thickness or the maximum is not known, or where the
        piece was too warm to begin with.
    """
    thermal = coupon.procedure.thermal
    limit = thermal.interpass_max_c if thermal else None
    view = evaluation.thermal
    thickness = min(coupon.coupon.thickness_mm, default=None)
    if limit is None or view is None or thickness is None or not heat_with_k_kj_mm:
        return None
    record = next((one for one in coupon.coupon.passes if one.number == pass_number), None)
    start = record.before_c if record else None
    if start is None:
        start = coupon.coupon.preheat_c if coupon.coupon.preheat_c is not None else coupon.coupon.ambient_c
    plate = start if start is not None else 20.0
    try:
        wait = interpass_wait(heat_with_k_kj_mm, thickness, plate, limit, view.conducts_as)
        whole = _whole_piece(coupon, record, heat_with_k_kj_mm, thickness, plate, limit, view.conducts_as)
    except OutOfRangeError:
        return None
    longer = whole is not None and whole.wait_s > wait.wait_s
    return Cooling(
        after_pass=pass_number,
        wait_s=whole.wait_s if whole and longer else wait.wait_s,
        to_c=limit,
        plate_c=plate,
        citation=whole.citation if whole and longer else wait.citation,
        piece_c=whole.piece_c if whole else None,
    )


def _whole_piece(
    coupon: Coupon,
    record: PassRecord | None,
    heat_kj_mm: float,
    thickness_mm: float,
    plate_c: float,
    to_c: float,
    metal: str,
) -> WarmPiece | None:
    """How the whole piece warms by a pass, where its size and the length welded are recorded."""
    piece = coupon.coupon
    welded = (record.length_mm if record else None) or piece.length_mm
    if piece.product != "plate" or not piece.length_mm or not piece.width_mm or not welded:
        return None
    return warm_piece(
        heat_j=heat_kj_mm * 1000 * welded,
        length_mm=piece.length_mm,
        width_mm=piece.width_mm,
        thickness_mm=thickness_mm,
        before_c=plate_c,
        to_c=to_c,
        ambient_c=piece.ambient_c if piece.ambient_c is not None else 20.0,
        metal=metal,
    )


def _gap(coupon: Coupon, system: System) -> Iterator[Finding]:
    """The gap, measured again after tacking, against what the procedure allows; it closes as tacks cool."""
    joint, fit = coupon.procedure.joint, coupon.coupon.fit_up
    allowed = joint.preparation.gap_allowed_mm if joint and joint.preparation else None
    measured = fit.gap_after_tack_mm if fit else None
    if allowed is None or measured is None:
        return
    inside = allowed.holds(measured)
    found, limit = quantity_text(measured, "gap", system), range_text(allowed, "gap", system)
    yield Finding(
        rule="fit-up.gap",
        verdict="complies" if inside else "violates",
        path="coupon.fit_up.gap_after_tack_mm",
        title=tr("Gap after tacking is within the tolerance")
        if inside
        else tr("Gap after tacking is out of tolerance"),
        message=tr("The gap is {found} after tacking; {limit} is allowed.", found=found, limit=limit),
        actual=found,
        limit=limit,
        remedy=""
        if inside
        else tr("Cut the tacks out and fit it again; a gap that closed leaves the root unfused."),
        citations=(THIS_PROCEDURE,),
    )


def _preheat(coupon: Coupon, system: System) -> Iterator[Finding]:
    """The coldest reading before the first arc against the preheat of the procedure."""
    thermal, piece = coupon.procedure.thermal, coupon.coupon
    least = thermal.preheat_min_c if thermal else None
    read = [one.temperature_c for one in piece.preheat_readings]
    if piece.preheat_c is not None:
        read.append(piece.preheat_c)
    if least is None or not read:
        return
    coldest = min(read)
    found, limit = quantity_text(coldest, "temperature", system), quantity_text(least, "temperature", system)
    yield Finding(
        rule="preheat.read",
        verdict="complies" if coldest >= least else "violates",
        path="coupon.preheat_readings",
        title=tr("Preheat is reached") if coldest >= least else tr("Preheat is not reached everywhere"),
        message=tr("The coldest reading is {found}; at least {limit} is wanted.", found=found, limit=limit),
        actual=found,
        limit=limit,
        remedy="" if coldest >= least else tr("Continue preheating and measure again before the first arc."),
        citations=(THIS_PROCEDURE,),
    )


def _machine(piece: CouponPiece) -> Iterator[Finding]:
    """A meter whose calibration has run out makes every figure read from it doubtful."""
    used = piece.machine
    if used is None:
        return
    if used.calibrated_until is None or piece.welded_on is None:
        what = (
            tr("until when its meters are calibrated")
            if piece.welded_on
            else tr("on which day it was welded")
        )
        yield Finding(
            rule="machine.calibrated",
            verdict="undecided",
            obligation="recommendation",
            path="coupon.machine.calibrated_until",
            title=tr("Calibration is not known"),
            message=tr("{name}: it is not recorded {what}.", name=used.name, what=what),
            remedy=tr("Record it, or read volts and amps with meters that are calibrated."),
            citations=(COMMON_PRACTICE,),
        )
        return
    # Days are written year first, so that they compare as they stand.
    good = str(piece.welded_on) <= str(used.calibrated_until)
    yield Finding(
        rule="machine.calibrated",
        verdict="complies" if good else "violates",
        path="coupon.machine.calibrated_until",
        title=tr("Meters are calibrated") if good else tr("Calibration has run out"),
        message=tr(
            "{name} is calibrated until {calibrated_until}; the coupon was welded on {welded_on}.",
            name=used.name,
            calibrated_until=used.calibrated_until,
            welded_on=piece.welded_on,
        ),
        actual=str(piece.welded_on),
        limit=str(used.calibrated_until),
        remedy="" if good else tr("Use calibrated meters, or have it calibrated and say so on the record."),
        citations=(COMMON_PRACTICE,),
    )


def _checklist(coupon: Coupon) -> Iterator[Finding]:
    questions: dict[str, Question] = {one.id: one for one in checklist_for(coupon.procedure)}
    answers = {one.item: one for one in coupon.coupon.checklist}
    for key, question in questions.items():
        answer = answers.get(key)
        if answer is not None and answer.answer == "no":
            yield Finding(
                rule=f"checklist.{key}",
                verdict="violates",
                obligation="recommendation",
                path="coupon.checklist",
                title=tr("Answered with no"),
                message=f"{question.question} {answer.note or ''}".strip(),
                remedy=question.why,
                citations=(COMMON_PRACTICE,),
            )
    # A coupon logged without the list is an older one: nothing is asked of it.
    open_ = [key for key in questions if key not in answers]
    if answers and open_:
        yield Finding(
            rule="checklist.open",
            verdict="undecided",
            obligation="recommendation",
            path="coupon.checklist",
            title=tr("Checklist is not complete"),
            message=tr(
                "{count} of {count2} questions are not answered.", count=len(open_), count2=len(questions)
            ),
            citations=(COMMON_PRACTICE,),
        )
