"""The production log: entered once, never rewritten, released only where the WPS covers; found by any fact."""

import uuid
from datetime import timedelta

import pytest
from apps.production import api as production_api
from apps.production.models import Inspection, Weld
from django.db import IntegrityError, ProgrammingError, transaction
from django.utils import timezone

from tests.server.conftest import PASSWORD

TODAY = timezone.localdate().isoformat()


def found(api, job, **asked):
    query = "&".join(f"{name}={value}" for name, value in asked.items())
    status, answer = api["viewer"]("GET", f"/jobs/{job.pk}/welds?{query}")
    assert status == 200, answer
    return answer


def joint(api, job, mark):
    status, answer = api["welder"]("GET", f"/jobs/{job.pk}/welds/joint?mark={mark}")
    assert status == 200, answer
    return answer


def test_a_joint_says_its_wps_and_what_is_left(api, job, log, released):
    seen = joint(api, job, "W1")
    assert (seen["count"], seen["left"], seen["assigned"]) == (2, [1, 2], released.pk)
    assert "20 mm" in seen["words"] and seen["welds"] == []
    log("W1", item=2)
    seen = joint(api, job, "W1")
    assert seen["left"] == [1] and seen["welders"] == ["R. Okafor"] and seen["batches"] == ["B-77"]
    assert joint(api, job, "W9")["count"] == 0


def test_a_weld_to_the_assigned_wps_is_covered(log):
    weld = log()
    assert (weld["fit"], weld["against"], weld["state"]) == ("covered", [], "welded")
    assert weld["position"] == "PF" and weld["wps"] == "FB-27-P03 B"


def test_what_the_wps_does_not_cover_is_logged_and_said(log, inspect, api):
    weld = log("W3")
    assert weld["fit"] == "blocked" and "PC" in weld["against"][0]
    assert log("W4")["fit"] == "open"
    inspect(weld)
    status, answer = api["inspector"]("POST", f"/welds/{weld['id']}/release")
    assert status == 409 and "does not cover" in answer["detail"] and "PC" in answer["errors"][0]["message"]


def test_a_wps_that_is_not_assigned_is_left_to_the_engineer(api, job, log, listed):
    table = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/procedures")[1]
    body = {"version": table["version"], "assign": {"T1": None}, "before": {"T1": listed.pk}}
    assert api["engineer"]("PUT", f"/jobs/{job.pk}/weld-list/assignments", body)[0] == 200
    weld = log()
    assert weld["fit"] == "open" and "No WPS is assigned" in weld["against"][0]


WRONG = [
    ({"mark": "W9"}, 422, "mark"),
    ({"item": 2}, 422, "item"),
    ({"welders": []}, 422, "welders"),
    ({"welders": ["  "]}, 422, "welders"),
    ({"revision_id": 999_999}, 422, "revision_id"),
    ({"welded_on": (timezone.localdate() + timedelta(days=3)).isoformat()}, 422, "welded_on"),
    ({"repair_of": 999_999}, 422, "repair_of"),
]


@pytest.mark.parametrize(("wrong", "status", "path"), WRONG, ids=[str(one[0]) for one in WRONG])
def test_a_wrong_entry_is_refused_beside_its_field(log, wrong, status, path):
    answer = log(status=status, **wrong)
    assert answer["errors"][0]["path"] == path
    assert not Weld.objects.exists()


def test_before_its_release_a_wps_covers_nothing(log):
    weld = log(welded_on=(timezone.localdate() - timedelta(days=30)).isoformat())
    assert weld["fit"] == "blocked" and "not released on" in weld["against"][0]


def test_after_its_withdrawal_a_wps_still_covers_what_was_welded_before(api, log, listed):
    assert api["engineer"]("POST", f"/revisions/{listed.pk}/withdraw", PASSWORD)[0] == 200
    assert log(welded_on=TODAY)["fit"] == "covered"
    later = (timezone.localdate() + timedelta(days=1)).isoformat()
    assert log("W1", welded_on=later)["fit"] == "blocked"


def test_a_weld_made_before_the_next_revision_is_still_released(api, job, log, inspect, listed):
    """What is assigned later does not undo what was welded to the WPS of that day."""
    weld = log()
    inspect(weld)
    status, draft = api["engineer"]("POST", f"/revisions/{listed.pk}/next")
    assert status == 201, draft
    records = [one.record_id for one in listed.supports.all()]
    body = {"password": "long-enough-1", "reason": "the next one", "records": records}
    assert api["engineer"]("POST", f"/revisions/{draft['id']}/qualify", body)[0] == 200
    body.pop("records")
    assert api["engineer"]("POST", f"/revisions/{draft['id']}/release", body)[0] == 200
    table = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/procedures")[1]
    body = {"version": table["version"], "assign": {"T1": draft["id"]}, "before": {"T1": listed.pk}}
    assert api["engineer"]("PUT", f"/jobs/{job.pk}/weld-list/assignments", body)[0] == 200
    status, answer = api["inspector"]("POST", f"/welds/{weld['id']}/release")
    assert status == 200 and answer["state"] == "released", answer
    # A weld logged now to the revision before is left to the engineer.
    assert log("W1")["fit"] == "open"


def test_the_same_entry_twice_is_one_weld(log):
    key = str(uuid.uuid4())
    assert log(client_id=key)["id"] == log(client_id=key)["id"]
    log(client_id=key, mark="W1", status=409)
    answer = log(status=409)
    assert answer["errors"][0]["path"] == "item"
    assert Weld.objects.count() == 1


@pytest.mark.parametrize(
    ("who", "status"), [("viewer", 403), ("examiner", 403), ("inspector", 201), ("engineer", 201)]
)
def test_who_logs(log, who, status):
    log(who=who, status=status)


@pytest.mark.parametrize("who", ["viewer", "welder", "examiner"])
def test_who_does_not_inspect_or_release(api, log, inspect, who):
    weld = log()
    inspect(weld, who=who, status=403)
    assert api[who]("POST", f"/welds/{weld['id']}/release")[0] == 403


def test_visual_then_release(api, log, inspect):
    weld = log()
    status, answer = api["inspector"]("POST", f"/welds/{weld['id']}/release")
    assert status == 409 and "visual" in answer["detail"]
    assert inspect(weld)["state"] == "accepted"
    status, answer = api["inspector"]("POST", f"/welds/{weld['id']}/release")
    assert (status, answer["state"], answer["released_name"]) == (200, "released", "Inspector Test")
    assert api["inspector"]("POST", f"/welds/{weld['id']}/release")[0] == 409
    assert api["engineer"]("POST", f"/welds/{weld['id']}/strike", {"reason": "wrong"})[0] == 409


def test_a_rejected_weld_is_repaired_by_a_weld_of_its_own(api, log, inspect, listed):
    weld = log()
    inspect(weld)
    inspect(weld, "UT", accepted=False, found="", status=422)
    assert inspect(weld, "UT", accepted=False)["state"] == "rejected"
    log(repair_of=weld["id"], mark="W1", status=422)
    repair = log(repair_of=weld["id"], welders=["S. Lind"])
    assert api["viewer"]("GET", f"/welds/{weld['id']}")[1]["state"] == "repaired"
    assert api["viewer"]("GET", f"/welds/{weld['id']}")[1]["repaired_by"] == repair["id"]
    inspect(weld, status=409)
    log(repair_of=weld["id"], status=409)
    inspect(repair), inspect(repair, "UT")
    assert api["inspector"]("POST", f"/welds/{repair['id']}/release")[1]["state"] == "released"


def test_a_struck_repair_leaves_the_weld_rejected(api, log, inspect):
    weld = log()
    inspect(weld, accepted=False)
    repair = log(repair_of=weld["id"])
    assert api["welder"]("POST", f"/welds/{repair['id']}/strike", {"reason": " "})[0] == 409
    status, answer = api["welder"]("POST", f"/welds/{repair['id']}/strike", {"reason": "wrong joint"})
    assert status == 200 and answer["state"] == "struck" and answer["struck_reason"] == "wrong joint"
    assert api["viewer"]("GET", f"/welds/{weld['id']}")[1]["state"] == "rejected"


def test_a_struck_result_no_longer_counts(api, log, inspect):
    weld = log()
    after = inspect(weld, accepted=False)
    path = f"/welds/results/{after['results'][0]['id']}/strike"
    assert api["welder"]("POST", path, {"reason": "x"})[0] == 403
    status, answer = api["inspector"]("POST", path, {"reason": "other weld"})
    assert (
        status == 200
        and answer["state"] == "welded"
        and answer["results"][0]["struck_reason"] == "other weld"
    )


def test_a_weld_rejected_after_its_release_is_rejected(api, log, inspect):
    weld = log()
    inspect(weld)
    assert api["inspector"]("POST", f"/welds/{weld['id']}/release")[0] == 200
    assert inspect(weld, "RT", accepted=False)["state"] == "rejected"


def test_welders_strike_their_own_entries_only(api, log):
    weld = log(who="engineer")
    assert api["welder"]("POST", f"/welds/{weld['id']}/strike", {"reason": "x"})[0] == 403
    assert api["inspector"]("POST", f"/welds/{weld['id']}/strike", {"reason": "x"})[0] == 200
    assert log()["id"] != weld["id"]


@pytest.mark.parametrize(
    "change",
    [
        {"welders": ["Nobody"]},
        {"batches": ["other"]},
        {"welded_on": "2020-01-01"},
        {"mark": "W1"},
        {"wps": "P99 A"},
    ],
    ids=lambda change: next(iter(change)),
)
def test_the_database_rewrites_no_weld(log, change):
    weld = log()
    with pytest.raises(ProgrammingError), transaction.atomic():
        Weld.objects.filter(pk=weld["id"]).update(**change)
    with pytest.raises(ProgrammingError), transaction.atomic():
        Weld.objects.filter(pk=weld["id"]).delete()


def test_the_database_releases_nothing_that_is_not_covered(log, inspect, people):
    weld = log("W3")
    with pytest.raises(IntegrityError), transaction.atomic():
        Weld.objects.filter(pk=weld["id"]).update(
            released_at=timezone.now(), released_by=people["inspector"], state="released"
        )
    result = inspect(log())["results"][0]["id"]
    with pytest.raises(ProgrammingError), transaction.atomic():
        Inspection.objects.filter(pk=result).update(accepted=False)
    with pytest.raises(ProgrammingError), transaction.atomic():
        Inspection.objects.filter(pk=result).delete()


def test_traceability_both_ways(api, job, log, inspect, listed):
    first = log("W1", batches=["B-1", "B-2"], heats=["H-9"])
    second = log("W1", item=2, batches=["B-2"], welders=["S. Lind", "R. Okafor"])
    third = log("W2", batches=["B-3"], welders=["S. Lind"])
    inspect(first, "UT")
    inspect(second, "UT", accepted=False)
    inspect(third, "UT", accepted=False)

    def ids(**asked):
        return [one["id"] for one in found(api, job, **asked)["welds"]]

    assert ids(batch="B-2") == [second["id"], first["id"]]
    assert ids(heat="H-9") == [first["id"]]
    assert ids(welder="S. Lind", method="UT", accepted="false") == [third["id"], second["id"]]
    assert ids(wps=listed.pk, since=TODAY, mark="W2") == [third["id"]]
    assert ids(until="2020-01-01") == []
    assert ids(state="rejected") == [third["id"], second["id"]]
    page = found(api, job)
    assert (page["total"], page["more"], page["next"]) == (3, False, None)


def test_the_log_is_read_page_by_page_and_counted_so_far(api, job, log, monkeypatch):
    made = [log("W1")["id"], log("W1", item=2)["id"], log("W2")["id"]]
    monkeypatch.setattr(production_api, "PAGE", 1)
    first = found(api, job)
    assert (first["total"], first["more"], first["next"]) == (3, False, made[2])
    second = found(api, job, before=first["next"])
    assert [one["id"] for one in second["welds"]] == [made[1]] and second["total"] == 3
    last = found(api, job, before=second["next"])
    assert [one["id"] for one in last["welds"]] == [made[0]] and (last["total"], last["next"]) == (3, None)
    monkeypatch.setattr(production_api, "MOST_COUNTED", 2)
    assert (found(api, job)["total"], found(api, job)["more"]) == (2, True)


def test_reject_rates_by_welder_wps_position_and_month(api, job, log, inspect):
    first, second = log("W1"), log("W1", item=2, welders=["S. Lind", "R. Okafor"])
    inspect(first), inspect(second, "UT", accepted=False)
    log("W2")  # not inspected: does not count

    def rates(**asked):
        query = "&".join(f"{name}={value}" for name, value in asked.items())
        status, answer = api["viewer"]("GET", f"/jobs/{job.pk}/welds/rates?{query}")
        assert status == 200, answer
        return {one["of"]: (one["rate"]["rejected"], one["rate"]["inspected"]) for one in answer}

    assert rates(by="welder") == {"S. Lind": (1, 1), "R. Okafor": (1, 2)}
    assert rates(by="welder", method="VT") == {"R. Okafor": (0, 1)}
    assert rates(by="wps") == {"FB-27-P03 B": (1, 2)}
    assert rates(by="position") == {"PF": (1, 2)}
    assert rates(by="month") == {TODAY[:7]: (1, 2)}


def test_passes_as_welded_are_judged_against_the_wps(api, log):
    passes = [{"number": 1, "current_a": {"mean": 500}, "voltage_v": {"mean": 25}, "travel_mm_min": 300}]
    weld = log(passes=passes)
    status, seen = api["viewer"]("GET", f"/welds/{weld['id']}")
    assert status == 200 and seen["passes"][0]["number"] == 1
    assert any(one["verdict"] == "violates" for one in seen["judged"][0]["findings"])


@pytest.mark.parametrize("kind", ["csv", "xlsx"])
def test_the_log_is_a_sheet(api, job, log, kind):
    log(welders=["=1+1"])
    status, data = api["viewer"]("GET", f"/jobs/{job.pk}/welds/file?kind={kind}")
    assert status == 200 and len(data) > 100
    if kind == "csv":
        assert b"FB-27-P03 B" in data and b"\n=1+1" not in data and b",=1+1" not in data


def test_joints_taken_along_say_what_each_joint_says(api, job, log, released):
    log("W1", item=1)
    status, taken = api["welder"]("GET", f"/jobs/{job.pk}/welds/joints")
    assert status == 200 and taken["next"] is None
    marks = [one["mark"] for one in taken["joints"]]
    assert "W1" in marks and taken["joints"] == [joint(api, job, mark) for mark in marks]
    log("W1", item=2)
    assert "W1" not in [
        one["mark"] for one in api["welder"]("GET", f"/jobs/{job.pk}/welds/joints")[1]["joints"]
    ]
    assert api["welder"]("GET", f"/jobs/{job.pk}/welds/joints?start=200")[1] == {"joints": [], "next": None}


@pytest.mark.parametrize(("who", "status"), [("welder", 201), ("inspector", 403)])
def test_a_weld_that_waited_bears_no_other_name(api, people, job, listed, who, status):
    """Saved by the welder without a network; somebody else is signed in on the device when it is sent."""
    body = {
        "client_id": str(uuid.uuid4()),
        "person_id": people["welder"].pk,
        "mark": "W1",
        "revision_id": listed.pk,
        "welders": ["R. Okafor"],
        "welded_on": timezone.localdate().isoformat(),
    }
    got, answer = api[who]("POST", f"/jobs/{job.pk}/welds", body)
    assert got == status, answer
    assert Weld.objects.count() == int(status == 201)
