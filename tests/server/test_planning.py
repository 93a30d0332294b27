"""Drafts proposed over the API, the trial log, the heat chart."""

import pytest
from apps.library.models import Record
from apps.trials.models import TrialEntry

from tests.welding import samples

INTENT = {
    "format": "grounded-bead/intent",
    "version": 1,
    "metals": ["S355J2+N"],
    "thickness_mm": [3],
    "joint": {"kind": "t", "weld": "fillet"},
    "position": "PF",
    "process": "135",
    "filler": {"designation": "ER70S-6", "diameter_mm": 1.0},
}
TRIAL = {
    "process": "135",
    "transfer": "short-circuit",
    "filler": {"designation": "ER70S-6", "diameter_mm": 1.0},
    "gas": "Ar+18CO2",
    "position": "PF",
    "thickness_mm": 3.0,
    "voltage_v": 15.1,
    "current_a": 95,
    "seen": "even",
}

pytestmark = pytest.mark.django_db


def test_a_draft_is_proposed_judged_and_not_stored(api):
    status, found = api["viewer"]("POST", "/propose", {"intent": INTENT})
    assert status == 200
    assert found["procedure"]["passes"][0]["current_a"]["min"] > 50
    assert found["evaluation"]["drawing"]["shapes"]
    assert not [f for f in found["evaluation"]["findings"] if f["verdict"] == "violates"]
    assert {"passes.0.current_a", "thermal.preheat_min_c"} <= {r["path"] for r in found["reasons"]}


def test_charts_of_the_library_stand_beside_the_draft(api):
    chart = {
        "format": "grounded-bead/chart", "version": 1, "name": "Door of bay 2", "process": "135", "gas": "CO2",
        "designation": "ER70S-6", "polarity": "DCEP",
        "rows": [{"diameter_mm": 1.0, "positions": ["PF"], "current_a": {"min": 90, "max": 160}}],
    }  # fmt: skip
    assert api["viewer"]("POST", "/propose", {"intent": INTENT})[1]["bands"] == []
    api["engineer"]("POST", "/library", {"document": chart})
    api["engineer"]("POST", "/library", {"document": {**chart, "name": "Cored", "process": "136"}})
    _, found = api["viewer"]("POST", "/propose", {"intent": INTENT})
    (group,) = found["bands"]
    assert [one["source"] for one in group["sources"]] == ["Proposal", "Door of bay 2"]
    assert "The chart is for CO2, the pass uses Ar+18CO2" in group["sources"][1]["differs"][0]
    assert not group["sources"][1]["followed"]


def test_a_chart_that_cannot_be_read_is_passed_over(api):
    chart = {
        "format": "grounded-bead/chart", "version": 1, "name": "Door of bay 2", "process": "135",
        "rows": [{"diameter_mm": 1.0, "current_a": {"min": 90, "max": 160}}],
    }  # fmt: skip
    _, kept = api["engineer"]("POST", "/library", {"document": chart})
    Record.objects.filter(pk=kept["id"]).update(document={**chart, "rows": "torn off"})
    status, found = api["viewer"]("POST", "/propose", {"intent": INTENT})
    assert (status, found["bands"]) == (200, [])


def test_a_proposed_draft_can_be_created_and_gets_the_jobs_number(api, job):
    _, found = api["engineer"]("POST", "/propose", {"intent": INTENT})
    document = {**found["procedure"], "number": None}
    status, made = api["engineer"]("POST", f"/jobs/{job.pk}/procedures", {"document": document})
    assert status == 201
    _, revision = api["engineer"]("GET", f"/revisions/{made['id']}")
    assert revision["number"] == "FB-27-P01"
    assert revision["document"]["passes"][0]["sources"]["current_a"] == "estimate"


@pytest.mark.parametrize(
    "change, path",
    [
        ({"metals": ["S355XX"]}, "metals.0"),
        ({"position": "4G"}, "position"),
        ({"thickness_mm": [0.3]}, "thickness_mm.0"),
        ({"process": "99"}, "process"),
    ],
)
def test_what_cannot_be_planned_is_said_beside_its_field(api, change, path):
    status, body = api["engineer"]("POST", "/propose", {"intent": {**INTENT, **change}})
    assert status == 422
    assert path in [error["path"] for error in body["errors"]]


def test_a_kept_trial_is_offered_first_next_time(api):
    status, _ = api["welder"]("POST", "/trials", {"trial": TRIAL})
    assert status == 201
    _, found = api["engineer"]("POST", "/propose", {"intent": INTENT})
    one = found["procedure"]["passes"][0]
    assert one["sources"]["voltage_v"] == "own-trial"
    assert pytest.approx((one["voltage_v"]["min"] + one["voltage_v"]["max"]) / 2, abs=0.1) == 15.1
    _, listed = api["viewer"]("GET", "/trials")
    assert listed[0]["trial"]["seen"] == "even" and listed[0]["entered_by"] == "Welder Test"


def test_the_latest_of_two_trials_comes_first(api):
    for day, volts in (("", 15.1), ("2020-02-02", 19.9)):  # without a day it is of today
        trial = {**TRIAL, "voltage_v": volts, **({"made_on": day} if day else {})}
        assert api["welder"]("POST", "/trials", {"trial": trial})[0] == 201
    one = api["engineer"]("POST", "/propose", {"intent": INTENT})[1]["procedure"]["passes"][0]
    assert one["voltage_v"]["min"] < 15.1 < one["voltage_v"]["max"]


def test_a_struck_trial_counts_no_more_and_stays(api):
    _, made = api["welder"]("POST", "/trials", {"trial": TRIAL})
    path = f"/trials/{made['id']}/strike"
    assert api["welder"]("POST", path, {"reason": " "})[0] == 409
    assert api["welder"]("POST", path, {"reason": "other wire"})[0] == 200
    assert api["welder"]("POST", path, {"reason": "again"})[0] == 409
    _, found = api["engineer"]("POST", "/propose", {"intent": INTENT})
    assert found["procedure"]["passes"][0]["sources"]["voltage_v"] == "estimate"
    assert TrialEntry.objects.get().struck_because == "other wire"


def test_who_may_log_trials(api):
    assert api["viewer"]("POST", "/trials", {"trial": TRIAL})[0] == 403
    assert api["inspector"]("POST", "/trials", {"trial": TRIAL})[0] == 201
    assert api["viewer"]("POST", "/trials/1/strike", {"reason": "x"})[0] in (403, 404)


def test_a_bad_trial_is_refused_with_its_path(api):
    status, body = api["welder"]("POST", "/trials", {"trial": {**TRIAL, "current_a": -5}})
    assert status == 422 and any("current_a" in error["path"] for error in body["errors"])


def test_charts_and_trials_stand_beside_a_typed_procedure(api):
    document = samples.procedure()
    _, none = api["viewer"]("POST", "/charts-beside", {"document": document})
    assert not [one for group in none for one in group["sources"] if one["kind"] in ("chart", "trial")]
    first = document["passes"][0]
    size = first["filler"]["diameter_mm"]
    line = {"diameter_mm": size, "positions": document["positions"], "current_a": {"min": 400, "max": 420}}
    chart = {
        "format": "grounded-bead/chart", "version": 1, "name": "Cabinet door", "process": first["process"],
        "designation": first["filler"]["designation"], "polarity": "DCEN", "rows": [line],
    }  # fmt: skip
    assert api["engineer"]("POST", "/library", {"kind": "chart", "document": chart})[0] == 201
    status, found = api["viewer"]("POST", "/charts-beside", {"document": document})
    assert status == 200
    own, printed = (next(s for s in found[0]["sources"] if s["kind"] == kind) for kind in ("own", "chart"))
    assert own["source"] == "This procedure" and own["current_a"] == first["current_a"]
    assert "The chart is for DCEN, the pass for DCEP." in printed["differs"]


def test_the_heat_chart_of_a_pass(api):
    document = samples.procedure(thermal={"heat_input_kj_mm": {"min": 1.0, "max": 2.0}})
    status, chart = api["viewer"]("POST", "/heat-chart", {"document": document, "pass_number": 1})
    assert status == 200
    wanted = [line for line in chart["lines"] if line["wanted"]]
    assert [line["kj_mm"] for line in wanted] == [1.0, 2.0]
    for line in chart["lines"]:
        # Heat input along a line, worked out again: k V I 60 / v / 1000.
        heat = 0.8 * 26 * line["current_a"][1] * 60 / line["travel_mm_min"][1] / 1000
        assert heat == pytest.approx(line["kj_mm"])
    assert chart["rectangle"] == [{"min": 200, "max": 300}, {"min": 220, "max": 260}]
    assert api["viewer"]("POST", "/heat-chart", {"document": document, "pass_number": 9})[0] == 422
