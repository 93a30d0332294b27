"""What a test coupon proves is what was recorded of it; the plan stands in only where an existing record is printed."""

from typing import Any

import pytest

from tests.welding.records import record, taken
from welding.coverage.covers import covers
from welding.coverage.record import range_of
from welding.qualification.coupon import TestCoupon
from welding.ranges import Range

PLANNED = {"kind": "stress relief", "hold_c": {"min": 580, "max": 620}, "hold_min": 60}


def coupon(code: str = "iso", /, **changes: Any) -> TestCoupon:
    return TestCoupon(taken(record(code, **changes)))


IMPACT = {"temperature_c": -20, "average_j": 27}
CHART = {"kind": "pwht", "hold_c": {"min": 595, "max": 605}, "hold_min": 62}


@pytest.mark.parametrize("code", ["iso", "aws"])
@pytest.mark.parametrize("missing", ["", "hold_c", "hold_min"])
def test_a_planned_treatment_is_no_recorded_one(code, missing):
    """A chart nobody kept proves neither temperature nor time (AWS D1.1:2020, 6.8.1; ISO 15614-1:2017, 8.4.11)."""
    changes = {
        "procedure__thermal__pwht": PLANNED,
        "procedure__requirements": {"impact": IMPACT, "hardness": False},
        "coupon__treatments_done": [{name: value for name, value in CHART.items() if name != missing}],
    }
    found = coupon(code, **changes)
    assert found.pwht_hold_c == (None if missing == "hold_c" else Range(595, 605))
    assert found.pwht_hold_min == (None if missing == "hold_min" else 62)
    for field in ["hold_c"] + ["hold_min"] * (code == "aws"):
        kinds = {item.kind for item in range_of(found.record).of(f"pwht_{field}")}
        assert kinds == ({"unknown"} if missing == field else {"span"}), field
        asked = covers([found.record], found.procedure).records[0].findings
        told = {one.verdict for one in asked if one.rule == f"range.pwht_{field}"}
        assert ("undecided" in told) == (missing == field), (field, told)


POST_HEAT = {"temperature_c": 250, "hold_min": 120}
POST_HEATED = {"kind": "hydrogen-post-heat", "hold_c": {"min": 240, "max": 260}, "hold_min": 130}


@pytest.mark.parametrize(
    "changes, fact, logged, printed",
    [
        ({"procedure__thermal__pwht": PLANNED}, "pwht", False, True),
        ({"procedure__thermal__pwht": PLANNED}, "pwht_hold_c", None, Range(580, 620)),
        ({"procedure__thermal__pwht": PLANNED}, "pwht_hold_min", None, 60),
        ({"coupon__pwht": PLANNED}, "pwht_hold_c", Range(580, 620), Range(580, 620)),
        ({"coupon__pwht": PLANNED}, "pwht_hold_min", 60, 60),
        ({"procedure__thermal__post_heat": POST_HEAT}, "post_heat", None, (250, 120)),
        ({"coupon__post_heat": POST_HEAT}, "post_heat", (250, 120), (250, 120)),
        ({"coupon__treatments_done": [POST_HEATED]}, "post_heat", (240, 130), (240, 130)),
        ({"coupon__preheat_c": "remove"}, "preheat_c", None, 80),
        ({"coupon__passes": []}, "processes", (), ("135",)),
        ({"coupon__progression": "remove"}, "progression", "up", "up"),
        ({"coupon__position": "remove"}, "position", "PF", "PF"),
        ({"coupon__thickness_mm": [12]}, "thickness_mm", 12, 12),
        ({"coupon__thickness_mm": "remove"}, "thicknesses_mm", (20, 20), (20, 20)),
        ({"coupon__outside_diameter_mm": 168.3}, "outside_diameter_mm", 168.3, 168.3),
    ],
)
def test_the_plan_is_evidence_only_on_an_existing_record(changes, fact, logged, printed):
    """A log proves what it recorded; on a printed record the values of its procedure are the recorded ones."""
    assert getattr(coupon(**changes), fact) == logged
    assert getattr(coupon(**changes, source="certificate"), fact) == printed


@pytest.mark.parametrize(
    "kind, weld, thickness",
    [("butt", "cjp-groove", 12), ("t", "cjp-groove", 20), ("t", "fillet", 12), ("corner", "cjp-groove", 20)],
)
def test_the_prepared_member_of_a_t_is_the_second(kind, weld, thickness):
    """Two plates of 12 and 20 mm: a butt counts the thinner, a T with a groove the member that is prepared."""
    found = coupon(coupon__thickness_mm=[12, 20], procedure__joint__kind=kind, procedure__joint__weld=weld)
    assert found.thickness_mm == thickness


def test_a_printed_record_states_its_arc_energy_by_the_corners():
    """V x A x 60 / (1000 v) [kJ/mm] at both corners of the printed ranges, computed by hand."""
    found = coupon(source="certificate", coupon__passes=[])
    planned = found.procedure.passes[0]
    volts, amps, travel = planned.voltage_v, planned.current_a, planned.travel_mm_min
    assert volts and amps and travel
    least = volts.min * amps.min * 60 / (1000 * travel.max)
    most = volts.max * amps.max * 60 / (1000 * travel.min)
    energy = found.runs[0].arc_energy_kj_mm
    assert energy and (energy.min, energy.max) == (pytest.approx(least), pytest.approx(most))


def test_a_pass_of_another_process_than_planned_keeps_nothing_of_the_plan():
    """Transfer and output of the planned process say nothing about the one that was welded."""
    found = coupon(coupon__passes__0__process="136", procedure__passes__0__output="CV")
    assert found.runs[0].process == "136"
    assert (found.runs[0].transfer, found.runs[0].output) == (None, None)
    assert found.runs[1].output == "CV"


def test_the_logged_gas_stands_before_the_planned():
    found = coupon(coupon__passes__0__gas={"components_percent": {"Ar": 90, "CO2": 10}})
    assert dict(found.runs[0].gas or ()) == {"Ar": 90, "CO2": 10}
    assert found.runs[0].gas != found.runs[1].gas


@pytest.mark.parametrize(
    "measured, field, end, limit",
    [
        ({"root_face_mm": 0}, "root_face_mm", "max", 2),
        ({"root_face_mm": 1}, "root_face_mm", "max", 3),
        ({"gap_after_tack_mm": 0}, "root_gap_mm", "min", 0),
        ({"gap_after_tack_mm": 4}, "root_gap_mm", "min", 2),
    ],
)
def test_a_joint_measured_at_nought_is_measured(measured, field, end, limit):
    """AWS D1.1:2020, fig. 5.2, from memory: ±2 mm on face and opening without backing, from what was fitted up."""
    found = range_of(taken(record("aws", coupon__fit_up=measured))).of(field)
    assert [getattr(one, end) for one in found] == [limit]


def test_a_production_range_against_an_unknown_one_is_undecided():
    """An open range of fillet throats asked of a piece whose own is unknown is no answer, not a yes."""
    plain = record("iso", procedure__joint={"kind": "t", "weld": "fillet", "sides": "one"})
    plain["procedure"]["applies_to"] = {"throat_mm": {"min": 3, "max": 9}}
    plain["tests"] = []
    found = taken(plain)
    assert {one.kind for one in range_of(found).of("throat_mm")} <= {"unknown", "any"}
    told = [f for f in covers([found], found.procedure).records[0].findings if "throat" in f.rule]
    assert {f.verdict for f in told} == {"undecided"}
