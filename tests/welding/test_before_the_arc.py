"""What stands around the passes: what is asked before the first arc, what stays flagged, the way back."""

from __future__ import annotations

import pytest

from tests.welding import samples
from welding.advice.checklist import checklist_for
from welding.documents.codec import COUPON, PASS_RECORD, PROCEDURE
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.fit_up import cooling_after, flags_of, with_flags
from welding.evaluate.one_pass import evaluate_pass
from welding.evaluate.procedure import evaluate

PLANNED = PROCEDURE.take(samples.procedure())
ENTRY = {"number": 1, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 72, "before_c": 100}


def coupon(piece=None, passes=(), **procedure):
    plain = PROCEDURE.plain(PLANNED) | procedure
    return COUPON.take(
        {
            "format": "grounded-bead/coupon",
            "version": 1,
            "procedure": plain,
            "coupon": {"thickness_mm": [20, 20], **(piece or {}), "passes": list(passes)},
        }
    )


def told(document, rule):
    return next((one for one in evaluate_coupon(document).piece if one.rule == rule), None)


@pytest.mark.parametrize(
    "piece,rule,verdict",
    [
        ({}, "machine.calibrated", None),
        ({"machine": {"name": "Source 3"}}, "machine.calibrated", "undecided"),
        ({"machine": {"name": "Source 3", "calibrated_until": "2026-06-30"}}, "machine.calibrated", "undecided"),
        ({"machine": {"name": "S", "calibrated_until": "2026-06-30"}, "welded_on": "2026-06-30"}, "machine.calibrated", "complies"),
        ({"machine": {"name": "S", "calibrated_until": "2026-06-30"}, "welded_on": "2026-07-01"}, "machine.calibrated", "violates"),
        ({"preheat_readings": [{"temperature_c": 120}, {"temperature_c": 60, "place": "end"}]}, "preheat.read", "violates"),
        ({"preheat_readings": [{"temperature_c": 120}]}, "preheat.read", "complies"),
        ({"checklist": [{"item": "polarity", "answer": "no"}]}, "checklist.polarity", "violates"),
        ({"checklist": [{"item": "polarity", "answer": "yes"}]}, "checklist.polarity", None),
        ({"checklist": [{"item": "polarity", "answer": "yes"}]}, "checklist.open", "undecided"),
        ({}, "checklist.open", None),
    ],
)  # fmt: skip
def test_what_is_told_before_the_first_arc(piece, rule, verdict):
    found = told(coupon(piece), rule)
    assert (found.verdict if found else None) == verdict


@pytest.mark.parametrize(
    "process,has,lacks",
    [
        ("111", {"polarity", "dry"}, {"rolls", "cup", "flow"}),
        ("136", {"rolls", "flow", "stick-out"}, {"tungsten", "dry"}),
        ("114", {"rolls"}, {"flow"}),
        ("141", {"tungsten", "cup", "flow"}, {"rolls", "purge"}),
    ],
)
def test_the_checklist_goes_by_process(process, has, lacks):
    plain = PROCEDURE.plain(PLANNED)
    plain["passes"] = [{"number": 1, "process": process}]
    asked = {one.id for one in checklist_for(PROCEDURE.take(plain))}
    assert has <= asked
    assert not lacks & asked


@pytest.mark.parametrize(
    "change,rule",
    [
        ({"interpass": {"quenched": True}}, "interpass.quenched"),
        ({"before_c": None}, "interpass.range"),
        ({"before_c": 400}, "interpass.range"),
        ({"polarity": "DCEN"}, "polarity.planned"),
        ({"filler": {"designation": "ER70S-6", "batch": "B-9"}}, "filler.batch"),
    ],
)
def test_flags_that_stay(change, rule):
    document = coupon({"batches": [{"kind": "filler", "batch": "B-7"}]})
    record = PASS_RECORD.take(ENTRY | change)
    flags = flags_of(evaluate_pass(PLANNED, record, piece=document.coupon).findings)
    assert rule in {one.rule for one in flags}
    # a correction does not take it away, and does not double it
    good = flags_of(evaluate_pass(PLANNED, PASS_RECORD.take(ENTRY), piece=document.coupon).findings)
    assert with_flags(flags, good) == flags
    assert with_flags(flags, flags) == flags


def test_a_pass_that_holds_earns_no_flag():
    assert flags_of(evaluate_pass(PLANNED, PASS_RECORD.take(ENTRY)).findings) == ()


@pytest.mark.parametrize(
    "time_s,word",
    [(150, "faster"), (20, "slower")],
)
@pytest.mark.parametrize("system,per", [("si", 1.0), ("us", 25.4)])
def test_the_way_back_holds_when_it_is_taken(time_s, word, system, per):
    """Whoever welds at the travel that is advised is inside: reckoned forward again."""
    record = PASS_RECORD.take(ENTRY | {"time_s": time_s})
    found = next(
        one for one in evaluate_pass(PLANNED, record, system).findings if one.rule == "heat-input.range"
    )
    assert found.verdict == "violates"
    assert word in found.remedy
    travel = float(found.remedy.split()[0]) * per
    back = PASS_RECORD.take(ENTRY | {"length_mm": None, "time_s": None, "travel_mm_min": travel})
    again = next(
        one for one in evaluate_pass(PLANNED, back, system).findings if one.rule == "heat-input.range"
    )
    assert again.verdict == "complies"


def test_the_wait_goes_by_the_pass_as_welded():
    """Twice the heat in a thick plate waits twice as long: t = Q / (2·pi·k·dT), the textbook line source."""
    document = coupon({"thickness_mm": [60, 60]}, [ENTRY])
    evaluation = evaluate(document.procedure)
    once = cooling_after(document, evaluation, 1, 1.0)
    twice = cooling_after(document, evaluation, 1, 2.0)
    assert once.to_c == document.procedure.thermal.interpass_max_c
    assert once.plate_c == 100
    assert twice.wait_s == pytest.approx(2 * once.wait_s)
    assert cooling_after(document, evaluation, 1, None) is None
    hot = coupon({"thickness_mm": [60, 60]}, [ENTRY | {"before_c": 300}])
    assert cooling_after(hot, evaluation, 1, 1.0) is None
