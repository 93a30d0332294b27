"""The fault finder through the API: symptoms, causes on a logged pass, what cured them, who may say so."""

import json
from pathlib import Path

import pytest
from apps.coupons.models import PassLog
from apps.faults.models import Cure, UnknownSymptom

pytestmark = pytest.mark.django_db
ROOT = Path(__file__).resolve().parents[2]
PROCEDURE = json.loads((ROOT / "server/apps/demo/documents/FB-27-P03-A.procedure.json").read_text())


@pytest.fixture
def row(welded):
    return PassLog.objects.filter(struck=False).order_by("number").first()


def rows_of(found):
    return [one["row"] for one in found["causes"]]


def test_symptoms_stand_in_groups_and_words_find_them(api):
    status, found = api["viewer"]("GET", "/faults/symptoms?words=sugar+on+the+root")
    assert status == 200
    assert found["found"][0] == "sugared-root"
    every = [one["key"] for group in found["groups"] for one in group["symptoms"]]
    assert len(every) == len(set(every)) >= 50
    assert all(group["symptoms"] for group in found["groups"])
    _, nothing = api["viewer"]("GET", "/faults/symptoms?words=qwertz")
    assert nothing["found"] == []


def test_a_breach_of_a_logged_pass_leads_to_its_cause(api, row):
    planned = row.coupon.procedure_document["passes"][row.number - 1]
    row.current_mean_a = planned["current_a"]["max"] + 60
    row.current_min_a = row.current_max_a = None
    row.save()
    status, known = api["welder"]("GET", f"/faults/passes/{row.pk}")
    assert status == 200
    assert (known["coupon_number"], known["pass_number"]) == (row.coupon.number, row.number)
    assert any("Current" in one for one in known["findings"])
    assert known["settings"]["current_a"] == planned["current_a"]["max"] + 60
    assert known["limits"]["current_a"] == planned["current_a"]
    keys = [one["key"] for one in known["suggested"]]
    assert "current-above" in keys
    status, found = api["welder"]("POST", "/faults/causes", {"symptom": "current-above", "pass_id": row.pk})
    assert status == 200
    first = found["causes"][0]
    assert first["evidence"][0]["holds"]
    assert f"{planned['current_a']['max'] + 60:g} A" in first["evidence"][0]["words"]


def test_a_check_that_rules_a_cause_out_sends_it_back(api, row):
    ask = {"symptom": "pores", "pass_id": row.pk}
    _, before = api["welder"]("POST", "/faults/causes", ask)
    first = before["causes"][0]
    _, after = api["welder"]("POST", "/faults/causes", {**ask, "ticked": {first["row"]: False}})
    assert rows_of(after)[0] != first["row"]
    assert sorted(rows_of(after)) == sorted(rows_of(before))


def test_a_procedure_gives_limits_and_its_records_narrow_them(api):
    ask = {"symptom": "proud-crown", "procedure": PROCEDURE, "index": 0}
    _, wide = api["welder"]("POST", "/faults/causes", ask)
    middle = PROCEDURE["passes"][0]["travel_mm_min"]
    nothing_left = {
        name: {"min": 0.001, "max": 0.002} for name in ("current_a", "voltage_v", "travel_mm_min", "wire_feed_m_min")
    }  # fmt: skip
    _, narrow = api["welder"]("POST", "/faults/causes", {**ask, "qualified": nothing_left})
    held = set(nothing_left)
    where = [
        {one["where"] for cause in found["causes"] for one in cause["remedies"] if one["field"] in held}
        for found in (wide, narrow)
    ]
    assert "inside" in where[0], middle
    assert where[1] == {"engineer"}


def test_what_cured_a_fault_ranks_higher_next_time_and_no_more_once_void(api, row):
    ask = {"symptom": "pores", "pass_id": row.pk}
    _, before = api["welder"]("POST", "/faults/causes", ask)
    last = before["causes"][-1]
    kept = [
        api["welder"](
            "POST", "/faults/cures", {"cause": last["row"], "remedy": 0, "pass_id": row.pk, "note": "seen"}
        )
        for _ in range(3)
    ]
    assert {status for status, _ in kept} == {201}
    _, after = api["welder"]("POST", "/faults/causes", ask)
    place = rows_of(after).index(last["row"])
    assert place < len(after["causes"]) - 1
    assert after["causes"][place]["cured_here"] == 3
    _, listed = api["viewer"]("GET", "/faults/cures")
    assert listed[0]["remedy"] == last["remedies"][0]["words"]
    assert listed[0]["seen_on"] == f"{row.coupon.number}, pass {row.number}"
    for one in listed:
        strike = f"/faults/cures/{one['id']}/strike"
        assert api["welder"]("POST", strike, {"reason": " "})[0] == 409
        assert api["welder"]("POST", strike, {"reason": "wrong pass"})[0] == 200
        assert api["welder"]("POST", strike, {"reason": "again"})[0] == 409
    _, again = api["welder"]("POST", "/faults/causes", ask)
    assert rows_of(again) == rows_of(before)
    assert Cure.objects.count() == 3


def test_words_that_nobody_knows_are_kept_for_the_engineer(api, row):
    status, problem = api["welder"]("POST", "/faults/causes", {"symptom": "qwertz noise"})
    assert (status, "qwertz noise" in problem["detail"]) == (422, True)
    status, kept = api["welder"]("POST", "/faults/words", {"words": "qwertz noise", "pass_id": row.pk})
    assert status == 201
    settle = f"/faults/words/{kept['id']}/settle"
    assert api["welder"]("POST", settle, {"answer": "spatter"})[0] == 403
    assert api["engineer"]("POST", settle, {"answer": ""})[0] == 422
    assert api["engineer"]("POST", settle, {"answer": "He means spatter."})[0] == 200
    assert api["engineer"]("POST", settle, {"answer": "again"})[0] == 409
    _, listed = api["viewer"]("GET", "/faults/words")
    assert (listed[0]["words"], listed[0]["settled_as"]) == ("qwertz noise", "He means spatter.")


@pytest.mark.parametrize(
    "path, body, code",
    [
        ("/faults/cures", {"cause": "nothing.9", "remedy": 0}, 422),
        ("/faults/cures", {"cause": "pores.1", "remedy": 40}, 422),
        ("/faults/cures", {"cause": "pores.1", "remedy": 0, "pass_id": 999999}, 404),
        ("/faults/cures", {"cause": "pores.1", "remedy": 0, "note": "x" * 401}, 422),
        ("/faults/words", {"words": " "}, 422),
        ("/faults/words", {"words": "x" * 201}, 422),
        ("/faults/causes", {"symptom": "pores", "pass_id": 999999}, 404),
        ("/faults/causes", {"symptom": "pores", "around": {"wind_m_s": -1}}, 422),
        ("/faults/causes", {"symptom": "pores", "ticked": {"pores.1": "perhaps"}}, 422),
        ("/faults/causes", {"symptom": "pores", "procedure": {"format": "nothing"}}, 422),
    ],
)
def test_bad_input_is_refused_and_nothing_kept(api, path, body, code):
    assert api["engineer"]("POST", path, body)[0] == code
    assert not Cure.objects.exists()
    assert not UnknownSymptom.objects.exists()


@pytest.mark.parametrize("role", ["viewer", "examiner"])
def test_who_only_looks_keeps_nothing(api, role, row):
    assert api[role]("POST", "/faults/causes", {"symptom": "pores", "pass_id": row.pk})[0] == 200
    assert api[role]("POST", "/faults/cures", {"cause": "pores.1", "remedy": 0})[0] == 403
    assert api[role]("POST", "/faults/words", {"words": "odd noise"})[0] == 403


def test_a_voided_pass_is_not_looked_at(api, row):
    row.struck, row.struck_reason = True, "test"
    row.save()
    assert api["welder"]("GET", f"/faults/passes/{row.pk}")[0] == 404
