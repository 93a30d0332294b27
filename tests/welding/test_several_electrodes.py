"""Submerged arc with several electrodes: each keeps its own current, polarity and angles."""

from copy import deepcopy

import pytest

from tests.welding.records import record, taken
from tests.welding.test_covering import procedure_of
from tests.welding.test_every_row import take_out
from welding.coverage.covers import covers
from welding.documents.codec import PROCEDURE
from welding.evaluate.procedure import evaluate

LEAD = {"current_a": {"min": 600, "max": 600}, "polarity": "DCEP", "angle_deg": 0, "across_deg": 0}
TRAIL = {"current_a": {"min": 500, "max": 500}, "polarity": "AC", "angle_deg": 12, "across_deg": 0}
WIRES = {"count": 2, "spacing_mm": 20, "offset_mm": 0, "each": [LEAD, TRAIL]}


def tandem(code, wires=WIRES):
    plain = record(code)
    for one in plain["procedure"]["passes"]:
        one.update(process="121", electrodes=deepcopy(wires))
    for one in plain["coupon"]["passes"]:
        one["process"] = "121"
    return plain


def told(code, change=None, tested=WIRES):
    """Verdicts on the electrodes of a procedure in which one thing differs from the tested."""
    plain = PROCEDURE.plain(procedure_of(tandem(code)))
    if change:
        electrode, field, value = change
        for one in plain["passes"]:
            each = one["electrodes"]["each"]
            if value is None:
                take_out(each[electrode - 1], [field])
            else:
                each[electrode - 1][field] = value
    found = covers([taken(tandem(code, tested))], PROCEDURE.take(plain))
    return {
        one.rule.removeprefix("range.electrode_"): one.verdict
        for one in found.findings
        if one.rule.startswith("range.electrode_") and one.verdict != "complies"
    }


def amps(low, high):
    return {"min": low, "max": high}


@pytest.mark.parametrize(
    "code, change, expected",
    [
        ("aws", None, {}),
        ("aws", (1, "current_a", amps(540, 660)), {}),
        ("aws", (1, "current_a", amps(539, 600)), {"current_a": "violates"}),
        ("aws", (1, "current_a", amps(600, 661)), {"current_a": "violates"}),
        ("aws", (2, "current_a", amps(600, 600)), {"current_a": "violates"}),
        ("aws", (2, "polarity", "DCEP"), {"polarity": "violates"}),
        ("aws", (2, "angle_deg", 15), {}),
        ("aws", (2, "angle_deg", 15.1), {"angle_deg": "violates"}),
        ("aws", (1, "across_deg", -5), {}),
        ("aws", (1, "across_deg", -5.1), {"across_deg": "violates"}),
        ("aws", (1, "current_a", None), {"current_a": "undecided"}),
        ("aws", (2, "polarity", None), {"polarity": "undecided"}),
        ("iso", None, {}),
        ("iso", (2, "polarity", "DCEP"), {"polarity": "violates"}),
        ("iso", (2, "polarity", None), {"polarity": "undecided"}),
        ("iso", (1, "current_a", amps(600, 661)), {}),
    ],
)  # fmt: skip
def test_each_electrode_keeps_its_own(code, change, expected):
    """AWS D1.1:2020, table 6.5, SAW: 10 % of each current, angles 3° and 5° (low confidence), from memory.
    ISO 15614-1:2017, 8.4.9: current and polarity; amperes follow from the heat input."""
    assert told(code, change) == expected


@pytest.mark.parametrize("low, high, expected", [
    (630, 630, {}), (420, 420, {}), (500, 500, {"current_a": "violates"}), (420, 630, {"current_a": "violates"}),
])  # fmt: skip
def test_between_two_tested_settings_nothing_was_welded(low, high, expected):
    """AWS D1.1:2020, table 6.5: the percentage counts from what was tested, not from between two tests."""
    plain = tandem("aws")
    plain["procedure"]["passes"][1]["electrodes"]["each"][0]["current_a"] = amps(400, 400)
    asked = PROCEDURE.plain(procedure_of(plain))
    for one in asked["passes"]:
        one["electrodes"]["each"][0]["current_a"] = amps(low, high)
    found = covers([taken(plain)], PROCEDURE.take(asked)).findings
    told = {one.rule.removeprefix("range.electrode_"): one.verdict for one in found
            if one.rule.startswith("range.electrode_") and one.verdict != "complies"}  # fmt: skip
    assert told == expected


def test_a_range_wider_than_the_limits_does_not_tell_what_was_welded():
    wide = {**WIRES, "each": [{**LEAD, "current_a": amps(400, 800)}, TRAIL]}
    assert told("aws", tested=wide) == {"current_a": "undecided"}


@pytest.mark.parametrize("code", ["aws", "iso"])
def test_what_was_not_recorded_of_an_electrode_is_open(code):
    bare = {"count": 2, "spacing_mm": 20, "offset_mm": 0}
    assert set(told(code, tested=bare).values()) == {"undecided"}


@pytest.mark.parametrize(
    "of_pass, said",
    [(amps(1000, 1200), "complies"), (amps(500, 550), "violates"), (amps(1200, 1300), "violates")],
)
def test_the_currents_of_the_electrodes_add_up_to_that_of_the_pass(of_pass, said):
    plain = tandem("aws")["procedure"]
    for one in plain["passes"]:
        one["current_a"] = of_pass
    found = [one for one in evaluate(PROCEDURE.take(plain)).findings if one.rule == "arc.electrodes-sum"]
    assert {one.verdict for one in found} == {said}


def test_one_electrode_has_no_settings_of_its_own():
    plain = tandem("aws", {"count": 1})
    assert not [
        item
        for item in covers([taken(plain)], procedure_of(plain)).findings
        if item.rule.startswith("range.electrode_")
    ]
