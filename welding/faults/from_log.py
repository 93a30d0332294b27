"""A fault case from the log of a coupon: the pass as welded, what was measured beside it, its breaches."""

from __future__ import annotations

from collections.abc import Mapping

from welding.documents.coupon import Coupon, CouponPiece, PassRecord
from welding.documents.fault_case import Around, FaultCase
from welding.documents.fields import Reading, ends_of, mean_of
from welding.documents.procedure import Procedure
from welding.evaluate.one_pass import PassResult
from welding.faults.finder import Symptom, symptoms
from welding.ranges import Range
from welding.recording.waveform import Waveform

COLDEST_C, HOTTEST_C = 273.0, 2000.0
"""No limit at all, where a procedure names only one of preheat and interpass."""


def case_of(
    coupon: Coupon,
    number: int,
    symptom: str,
    *,
    waveform: Waveform | None = None,
    ticked: Mapping[str, bool] | None = None,
    cured: Mapping[str, int] | None = None,
) -> FaultCase:
    """What is known of a pass of the log.

    Args:
        coupon: The coupon.
        number: Pass number; it must be logged.
        symptom: A symptom's key, or words.
        waveform: Of the recording that the pass was taken from.
        ticked: Quick checks that were made.
        cured: What cured the symptom in this shop before, by row.

    Raises:
        KeyError: No such pass is logged.
    """
    logged = {one.number: one for one in coupon.coupon.passes}[number]
    places = [place for place, one in enumerate(coupon.procedure.passes) if one.number == number]
    return FaultCase(
        symptom=symptom,
        procedure=coupon.procedure,
        # A pass beyond the plan has no planned one to be held against.
        index=places[0] if places else len(coupon.procedure.passes),
        logged=logged,
        around=around_of(coupon.coupon, logged, waveform),
        checklist=answers_of(coupon.coupon),
        ticked=dict(ticked or {}),
        cured=dict(cured or {}),
    )


def around_of(piece: CouponPiece, logged: PassRecord, waveform: Waveform | None = None) -> Around:
    """What was measured beside a pass: gas, gap as tacked (first pass), short circuits recorded."""
    flow: Reading | None = logged.gas.flow_l_min if logged.gas else None
    fit = piece.fit_up
    gap = None
    if fit is not None and logged.number == 1:
        gap = fit.gap_after_tack_mm if fit.gap_after_tack_mm is not None else fit.gap_before_tack_mm
    return Around(
        gas_flow_l_min=None if flow is None else mean_of(flow),
        gap_mm=gap,
        short_circuits_hz=waveform.short_circuits_hz if waveform else None,
    )


def answers_of(piece: CouponPiece) -> dict[str, bool]:
    """Answers to the checklist; a question that does not apply says nothing."""
    return {one.item: one.answer == "yes" for one in piece.checklist if one.answer != "does-not-apply"}


def suggested(procedure: Procedure, record: PassRecord, result: PassResult) -> tuple[Symptom, ...]:
    """Symptoms that the breaches of a pass are, in the order of the findings.

    Args:
        procedure: As the coupon was to be welded.
        record: The pass as welded.
        result: How it was judged.
    """
    by_rule = {rule: one for one in symptoms() for rule in one.findings}
    spans = _spans(procedure, record, result)
    found: dict[str, Symptom] = {}
    for rule in (one.rule for one in result.findings if one.verdict == "violates"):
        for side in _sides(*spans.get(rule, (None, None))):
            if (symptom := by_rule.get(rule + side)) is not None:
                found[symptom.key] = symptom
    return tuple(found.values())


def _sides(reading: Reading | None, allowed: Range | None) -> str:
    """On which sides a reading left its range: ``+``, ``-``, both or none."""
    if reading is None or allowed is None:
        return ""
    low, high = ends_of(reading)
    return ("+" if high > allowed.max else "") + ("-" if low < allowed.min else "")


def _spans(
    procedure: Procedure, record: PassRecord, result: PassResult
) -> dict[str, tuple[Reading | None, Range | None]]:
    planned = next((one for one in procedure.passes if one.number == record.number), None)
    thermal = procedure.thermal
    held: Range | None = None
    if thermal is not None:
        low, high = thermal.preheat_min_c, thermal.interpass_max_c
        held = Range(-COLDEST_C if low is None else low, HOTTEST_C if high is None else high)
    heat = (thermal.heat_input_kj_mm if thermal else None) or result.planned_heat_kj_mm
    spans: dict[str, tuple[Reading | None, Range | None]] = {
        "interpass.range": (record.before_c, held),
        "heat-input.range": (result.heat_input_kj_mm, heat),
    }
    if planned is not None:
        gas = planned.gas.flow_l_min if planned.gas else None
        spans |= {
            "current.range": (record.current_a, planned.current_a),
            "voltage.range": (record.voltage_v, planned.voltage_v),
            "wire-feed.range": (record.wire_feed_m_min, planned.wire_feed_m_min),
            "flow.range": (record.gas.flow_l_min if record.gas else None, gas),
            "travel.range": (result.travel_mm_min, planned.travel_mm_min),
        }
    return spans
