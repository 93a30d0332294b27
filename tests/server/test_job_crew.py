"""The crew against the joint types of a job, the positions that it holds, and the tests that it lacks."""

from datetime import timedelta

import pytest
from apps.crew.models import CrewMember

from tests.server.conftest import PF, TODAY

SHORT = {"m": "may", "o": "open", "l": "lapsed", "b": "blocked", "u": "untested"}
LONG_AGO = (TODAY - timedelta(days=400)).isoformat()


@pytest.fixture
def others(api):
    """Two more people."""
    return [api["engineer"]("POST", "/crew", {"name": name})[1]["id"] for name in ("A. Bell", "Z. Cole")]


def table(api, job, **query):
    asked = "&".join(f"{name}={value}" for name, value in query.items())
    status, answer = api["welder"]("GET", f"/jobs/{job.pk}/crew?{asked}")
    assert status == 200, answer
    return answer


def plan(api, job, status=200, **query):
    asked = "&".join(f"{name}={value}" for name, value in query.items())
    code, answer = api["welder"]("GET", f"/jobs/{job.pk}/welder-tests?{asked}")
    assert code == status, answer
    return answer


def test_the_table_says_of_each_joint_what_is_said_of_it_alone(api, job, listed, okafor, certify, others):
    certify()
    certify(member=okafor, designation="ISO 9606-1 111 P BW FM1 B s12 PF ss nb", welded_on=LONG_AGO)
    found = table(api, job)
    assert [one["name"] for one in found["people"]] == ["A. Bell", "R. Okafor", "Z. Cole"]
    (kind,) = [one for one in found["types"] if one["may"]]
    assert kind["wps"] and kind["code"] == "ISO 9606-1" and kind["asked"]
    for one in found["people"]:
        assert len(one["cells"]) == len(found["types"])
    # W2 is of the one type that somebody may weld; its own answer is the same.
    at = found["types"].index(kind)
    path = f"/jobs/{job.pk}/welds/who-may?revision_id={listed.pk}&mark=W2"
    alone = {one["name"]: one["standing"] for one in api["welder"]("GET", path)[1]["people"]}
    assert {one["name"]: SHORT[one["cells"][at]] for one in found["people"]} == alone
    assert alone == {"A. Bell": "untested", "R. Okafor": "may", "Z. Cole": "untested"}
    later = table(api, job, on=(TODAY + timedelta(days=365)).isoformat())
    assert {one["cells"][at] for one in later["people"] if one["name"] == "R. Okafor"} == {"l"}


def test_a_joint_type_without_a_wps_is_told_and_counts_for_nobody(api, job, listed, okafor):
    found = table(api, job)
    assert {one["key"] for one in found["types"]}.isdisjoint(one["key"] for one in found["without"])
    assert found["without"] and all("No WPS" in one["why"] for one in found["without"])


def test_a_plan_of_tests_closes_the_gap_once_they_are_passed(api, job, listed, okafor, certify, others):
    before = table(api, job)
    assert not any(one["may"] for one in before["types"])
    found = plan(api, job, needed=2)
    assert found["proven"] and found["short"] == len(before["types"]) and not found["lacking"]
    assert {key for one in found["tests"] for key in one["types"]} == {one["key"] for one in before["types"]}
    for one in found["tests"]:
        certify(member=CrewMember.objects.get(pk=one["member_id"]), designation=one["designation"])
    assert all(one["may"] >= 2 for one in table(api, job)["types"])
    assert plan(api, job, needed=2)["tests"] == []


def test_who_could_take_tests_is_chosen(api, job, listed, okafor, others):
    found = plan(api, job, needed=2, members=others[0])
    assert {one["member_id"] for one in found["tests"]} == {others[0]}
    assert [one["held"] for one in found["lacking"]] == [0] * found["short"]
    assert plan(api, job, status=422, needed=0) and plan(api, job, status=422, needed=99)


def test_a_job_without_a_list_is_refused(api, job):
    assert "no weld list" in plan(api, job, status=409)["detail"]


def test_positions_of_the_crew_by_process(api, okafor, certify, others):
    certify()
    certify(designation="ISO 9606-1 135 P BW FM1 S s10 PC ss nb, dip transfer", welded_on=LONG_AGO)
    status, answer = api["welder"]("GET", "/crew/positions")
    people = {one["name"]: one["held"] for one in answer["people"]}
    assert status == 200 and people["A. Bell"] == []
    held = {one["process"]: one for one in people["R. Okafor"]}
    assert (held["135"]["valid"], held["135"]["lapsed"]) == (["PA", "PF"], ["PC"])
    assert (
        held["135"]["code"] == "ISO 9606-1"
        and held["135"]["weld"] == "butt"
        and PF.startswith("ISO 9606-1 135")
    )


def test_who_may_weld_it_says_until_when_and_why_not_for_so_many(
    api, job, listed, okafor, certify, others, monkeypatch
):
    certify()
    wrong = {"designation": "ISO 9606-1 111 P BW FM1 B s12 PF ss nb"}
    certify(member=CrewMember.objects.get(pk=others[0]), **wrong)
    path = f"/jobs/{job.pk}/welds/who-may?revision_id={listed.pk}&mark=W2"
    people = {one["name"]: one for one in api["welder"]("GET", path)[1]["people"]}
    due = api["welder"]("GET", f"/crew/{okafor.pk}")[1]["certificates"][0]["last_valid_day"]
    assert people["R. Okafor"]["until"] == due and people["A. Bell"]["until"] is None
    assert people["A. Bell"]["standing"] == "blocked" and people["A. Bell"]["reasons"]
    monkeypatch.setattr("apps.crew.queries.MOST_TOLD", 0)
    people = {one["name"]: one for one in api["welder"]("GET", path)[1]["people"]}
    assert (people["A. Bell"]["standing"], people["A. Bell"]["reasons"]) == ("blocked", [])
    assert people["R. Okafor"]["standing"] == "may"
