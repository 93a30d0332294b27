"""Somebody from outside sees the jobs that were named, by every call of the API, and nothing else."""

import re

import pytest
from api.api import api as ninja
from apps.accounts.models import User
from apps.jobs.models import Job
from config import urls  # noqa: F401 - mounts the routers on the API
from config.sight import JOB_OF, LISTED, OPEN, OWN_CERTIFICATE, PAST_THE_JOB
from django.db import IntegrityError, transaction
from django.test import Client

from tests.server.conftest import SIGN, Api


def calls():
    """Every call of the API as method and address."""
    return sorted(
        (method.upper(), path.removeprefix("/api"))
        for path, verbs in ninja.get_openapi_schema()["paths"].items()
        for method in verbs
        if not path.startswith("/api/recorder/")  # a recorder has a token, and is nobody who signs in
    )


def route(path):
    """As the rules of sight name it."""
    return "api" + re.sub(r"\{(\w+)\}", lambda found: f"<int:{found[1]}>", path)


@pytest.fixture
def ids(evidence, job):
    """An id of every kind, all of one job."""
    coupon = evidence["coupon"]
    return {
        "job_id": job.pk,
        "coupon_id": coupon.pk,
        "revision_id": coupon.revision_id,
        "other_id": coupon.revision_id,
        "pass_id": evidence["row"].pk,
        "photo_id": evidence["photo"].pk,
        "specimen_id": evidence["specimen"].pk,
        "recording_id": evidence["recording"].pk,
        "record_id": evidence["record"].pk,
    }


@pytest.fixture
def guest(people):
    """An examiner from outside who sees no job yet but one of another customer."""
    other = Job.objects.create(number="OTHER", title="Of another customer")
    User.objects.filter(pk=people["examiner"].pk).update(only_jobs=[other.pk])
    return Api(User.objects.get(pk=people["examiner"].pk))


def ask(api, method, path, ids):
    filled = re.sub(r"\{(\w+)\}", lambda found: str(ids.get(found[1], 1)), path)
    return api(method, filled, None if method in ("GET", "DELETE") else {})


def shows(guest, method, path, ids):
    """What a call answers that it should not, or nothing."""
    status, answer = ask(guest, method, path, ids)
    if route(path) in OPEN:
        return "closed" if status == 403 and "You see only the jobs" in str(answer) else ""
    if (method, path) == ("GET", "/jobs"):
        return "" if status == 200 and [one["number"] for one in answer] == ["OTHER"] else answer
    if path == "/crew/calendar.ics":  # has a key of its own, tried below
        return "" if status == 401 or status == 403 else answer
    refused = (
        status in (403, 404)
        and isinstance(answer, dict)
        and answer["type"] in ("/problems/not-allowed", "/problems/not-found")
    )
    return "" if refused else (status, answer)


def test_no_call_shows_anything_of_another_job(guest, ids):
    asked = [one for one in calls() if one != ("DELETE", "/session")]  # which would sign out
    shown = {(method, path): shows(guest, method, path, ids) for method, path in asked}
    assert len(asked) > 150
    assert {call: what for call, what in shown.items() if what} == {}


READ = {"/jobs/{job_id}/procedures", "/jobs/{job_id}/coupons", "/jobs/{job_id}/records", "/jobs/{job_id}/welds",
        "/jobs/{job_id}/dossier", "/revisions/{revision_id}", "/revisions/{revision_id}/history",
        "/revisions/{revision_id}/differences/{other_id}", "/revisions/{revision_id}/print",
        "/coupons/{coupon_id}", "/coupons/{coupon_id}/evidence", "/coupons/{coupon_id}/ranges",
        "/coupons/{coupon_id}/record", "/coupons/{coupon_id}/record/print", "/photos/{photo_id}",
        "/recordings/{recording_id}", "/recordings/{recording_id}/trace"}  # fmt: skip


def test_the_job_that_was_named_is_read_as_by_anybody(guest, people, ids):
    User.objects.filter(pk=people["examiner"].pk).update(only_jobs=[ids["job_id"]])
    assert {path: status for path in READ if (status := ask(guest, "GET", path, ids)[0]) != 200} == {}


def test_an_examiner_from_outside_signs_as_a_witness_in_the_own_job_only(guest, people, ids, evidence):
    path = f"/records/{evidence['record'].pk}/witness"
    assert guest("POST", path, SIGN)[0] == 404
    User.objects.filter(pk=people["examiner"].pk).update(only_jobs=[ids["job_id"]])
    status, answer = guest("POST", path, SIGN)
    assert status in (200, 201), answer


def test_rules_name_calls_that_exist():
    """A call that was renamed would stay closed, and one that is new under an old name open."""
    there = {route(path) for _, path in calls()}
    assert there >= OPEN | PAST_THE_JOB | OWN_CERTIFICATE | set(LISTED)


def test_every_id_in_an_address_is_decided():
    """An id that nobody thought of closes the call; it is named here so that somebody thinks of it."""
    shop = {"person_id", "member_id", "scan_id", "entry_id", "cure_id", "words_id", "recorder_id",
            "certificate_id", "record_id", "session_id"}  # fmt: skip
    beside = {"run_id", "search_id", "assignment_id", "key"}
    there = {name for _, path in calls() for name in re.findall(r"\{(\w+)\}", path)}
    assert there == set(JOB_OF) | shop | beside


def test_a_job_that_is_named_has_to_be_there(api, people):
    """An id of a job to come would open that one without anybody's word."""
    newest = Job.objects.create(number="N-1", title="x").pk
    body = {"username": "out", "name": "Out Side", "role": "examiner", **SIGN}
    for only in ([newest + 1], [newest, newest + 1], []):
        status, answer = api["administrator"]("POST", "/people", body | {"only_jobs": only})
        assert status == 422 and answer["errors"][0]["path"] == "only_jobs"
    status, answer = api["administrator"]("POST", "/people", body | {"only_jobs": [newest]})
    assert status == 201 and answer["person"]["only_jobs"] == [newest]
    status, answer = api["administrator"](
        "POST",
        "/people",
        body | {"username": "a", "name": "A B", "role": "administrator", "only_jobs": [newest]},
    )
    assert status == 422 and answer["errors"][0]["message"] == "An administrator sees all jobs."
    with pytest.raises(IntegrityError), transaction.atomic():
        User.objects.filter(pk=people["administrator"].pk).update(only_jobs=[newest])


def test_sight_is_changed_over_what_was_seen(api, job):
    made = api["administrator"]("POST", "/people", {
        "username": "out", "name": "Out Side", "role": "examiner", "only_jobs": [job.pk], **SIGN,
    })[1]["person"]  # fmt: skip
    body = {"name": made["name"], "role": "examiner", "active": True, "seen": made["seen"], **SIGN}
    path = f"/people/{made['id']}"
    status, answer = api["administrator"]("PUT", path, body | {"only_jobs": None})
    assert status == 200 and answer["only_jobs"] is None
    assert api["administrator"]("PUT", path, body | {"only_jobs": [job.pk]})[0] == 409
    assert api["engineer"]("PUT", path, body | {"only_jobs": None, "seen": answer["seen"]})[0] == 403


def test_the_days_of_the_crew_are_no_business_of_somebody_from_outside(api, people, job):
    status, answer = api["examiner"]("GET", "/crew/calendar")
    assert status == 200
    address = answer["url"].partition("testserver")[2]
    assert Client().get(address).status_code == 200
    User.objects.filter(pk=people["examiner"].pk).update(only_jobs=[job.pk])
    assert Client().get(address).status_code == 401
