"""What the coupon's sheet says beside the passes: machine, batches, readings, checklist, flags."""

from __future__ import annotations

from apps.printing.said import say
from apps.printing.sheets import Both, Writer
from welding.advice.checklist import checklist_for
from welding.deviations.of_piece import piece_deviations
from welding.deviations.saying import is_deviation
from welding.documents.coupon import Coupon
from welding.evaluate.coupon import CouponEvaluation
from welding.language import tr, tr_noop
from welding.quantities.writing import System

Facts = list[tuple[str, list[Both]]]
TREATMENTS = {
    "hydrogen-post-heat": tr_noop("Hydrogen post-heat as done"),
    "pwht": tr_noop("Heat treatment as done"),
}


def coupon_facts(document: Coupon, write: Writer) -> Facts:
    """Names and values for the sheet's head; what is not recorded is left out."""
    piece = document.coupon
    rows: Facts = []
    if piece.welded_on:
        rows.append((say("Welded on"), [Both(piece.welded_on)]))
    if piece.machine:
        until = piece.machine.calibrated_until
        state = tr("meters until {until}", until=until) if until else tr("calibration not recorded")
        rows.append(
            (
                say("Machine"),
                [
                    Both(piece.machine.name),
                    Both(state),
                ],
            )
        )
    if piece.batches:
        rows.append(
            (
                say("Batches"),
                [
                    Both(
                        " ".join(part for part in (one.designation, one.batch) if part)
                        + (
                            tr(", certificate {certificate}", certificate=one.certificate)
                            if one.certificate
                            else ""
                        )
                    )
                    for one in piece.batches
                ],
            )
        )
    if piece.preheat_readings:
        rows.append(
            (
                say("Preheat readings"),
                [
                    Both(
                        f"{write.value(one.temperature_c, 'temperature').main} "
                        f"{one.place or ''} {one.at or ''}".strip()
                    )
                    for one in piece.preheat_readings
                ],
            )
        )
    if piece.fit_up and piece.fit_up.cleaning:
        rows.append((say("Cleaning"), [Both(piece.fit_up.cleaning)]))
    if piece.checklist:
        asked = {one.id: one.question for one in checklist_for(document.procedure)}
        yes = sum(one.answer == "yes" for one in piece.checklist)
        no = [asked.get(one.item, one.item) for one in piece.checklist if one.answer == "no"]
        rows.append(
            (
                say("Checklist"),
                [
                    Both(tr("{yes} of {count} yes", yes=yes, count=len(asked))),
                    *(Both(f"NO: {one}") for one in no),
                ],
            )
        )
    for done in piece.treatments_done:
        values = [write.range(done.hold_c, "temperature")]
        if done.hold_min is not None:
            values.append(Both(tr("for {hold_min:g} min", hold_min=done.hold_min)))
        values += [Both(one) for one in (done.started_at, done.chart) if one]
        rows.append((tr(TREATMENTS[done.kind]), values))
    return rows


def deviation_lines(document: Coupon, system: System, log: CouponEvaluation | None = None) -> list[str]:
    """Where the piece differs from its procedure, and, with a log, each pass that is not flagged for it.

    The coupon's sheet tells of its passes row by row and needs no log here.
    """
    flagged = {(one.number, flag.rule) for one in document.coupon.passes for flag in one.flags}
    told = [
        f"{one.title}. {one.message}"
        for one in piece_deviations(document, system)
        if one.verdict != "complies"
    ]
    told += [
        tr(
            "Pass {pass_number}: {title}. {message}",
            pass_number=each.pass_number,
            title=one.title,
            message=one.message,
        )
        for each in (log.passes if log else ())
        for one in each.findings
        if one.verdict != "complies"
        and is_deviation(one.rule)
        and (each.pass_number, one.rule) not in flagged
    ]
    return told


def flag_lines(document: Coupon) -> list[str]:
    """The flags that stay on the record, with what was said of them."""
    return [
        tr("Pass {number}: {title}. {message} ", number=one.number, title=flag.title, message=flag.message)
        + (f"{flag.explained_by or ''}: {flag.explanation}" if flag.explanation else tr("Not explained."))
        for one in sorted(document.coupon.passes, key=lambda each: each.number)
        for flag in one.flags
    ]
