"""Who signed what in a job, its coordinator, and the welders in its final documentation."""

import io
import json
import zipfile
from datetime import timedelta

from apps.crew.models import Certificate
from apps.jobs.models import Job
from django.db import connection

from tests.server.conftest import SIGN, TODAY
from tests.server.test_dossier import archive, lacks

LONG_AGO = (TODAY - timedelta(days=400)).isoformat()
NOT_QUALIFIED = "Welds of welders who were not qualified for them when they were logged"
NOT_KNOWN = "Welds of welders whose qualification is not known here"


def register(api, job):
    status, answer = api["viewer"]("GET", f"/jobs/{job.pk}/register")
    assert status == 200, answer
    return answer


def test_the_register_says_who_signed_what(api, job, listed, okafor, certify, log, inspect):
    certify()
    weld = log()
    inspect(weld)
    assert api["inspector"]("POST", f"/welds/{weld['id']}/release")[0] == 200
    body = {"kind": "revocation", "reason": "doubt", **SIGN}
    assert api["examiner"]("POST", f"/certificates/{Certificate.objects.get().pk}/statements", body)[0] == 201
    lines = register(api, job)["lines"]
    said = {(one["of"], one["purpose"]) for one in lines}
    assert ("C-1 of R. Okafor", "entered from paper") in said
    assert ("C-1 of R. Okafor", "the qualification is revoked") in said
    assert ("1 welds", "released") in said and (str(listed), "released for production") in said
    assert [one["at"] for one in lines] == sorted((one["at"] for one in lines), reverse=True)
    signed = [one for one in lines if one["of"] == "C-1 of R. Okafor"]
    assert all(len(one["sha256"]) == 64 and one["name"] and one["role"] for one in signed)
    assert next(one["reason"] for one in lines if one["purpose"].endswith("revoked")) == "doubt"
    status, data = api["viewer"]("GET", f"/jobs/{job.pk}/register/file?kind=csv")
    assert status == 200 and b"C-1 of R. Okafor" in data and b"SHA-256" in data


def test_a_job_names_its_coordinator(api, job):
    path = f"/jobs/{job.pk}"
    assert register(api, job)["coordinator"] == ""
    status, answer = api["engineer"]("PATCH", path, {"coordinator": "N. Hollis, EWE"})
    assert status == 200 and answer["coordinator"] == "N. Hollis, EWE"
    # What does not name one leaves it as it is.
    assert api["engineer"]("PATCH", path, {"two_signatures": True})[1]["coordinator"] == "N. Hollis, EWE"
    assert register(api, job)["coordinator"] == "N. Hollis, EWE"
    assert api["inspector"]("PATCH", path, {"two_signatures": True, "coordinator": "Me"})[0] == 403
    assert api["engineer"]("PATCH", path, {"two_signatures": True, "coordinator": "x" * 121})[0] == 422
    assert Job.objects.get(pk=job.pk).coordinator == "N. Hollis, EWE"
    # Somebody who still sees nobody named does not overwrite it, and what was typed comes back.
    status, answer = api["engineer"]("PATCH", path, {"coordinator": "O. Brandt", "seen": ""})
    assert status == 409 and answer["errors"][0]["value"] == "O. Brandt" and "N. Hollis" in answer["detail"]
    assert api["engineer"]("PATCH", path, {"coordinator": "O. Brandt", "seen": "N. Hollis, EWE"})[0] == 200
    assert register(api, job)["coordinator"] == "O. Brandt" and Job.objects.get(pk=job.pk).two_signatures


def test_the_documentation_holds_the_certificates_of_those_who_welded(api, job, listed, okafor, certify, log):
    certify()
    certify(designation="AWS D1.1 SMAW F4 3G uphill plate CJP T1in backing electrodes=1", way=None)
    other = api["engineer"]("POST", "/crew", {"name": "A. Bell"})[1]["id"]
    assert other
    log()
    with zipfile.ZipFile(io.BytesIO(archive(api, job))) as files:
        names = [one for one in files.namelist() if one.startswith("welders/")]
        # The job is welded by ISO: a certificate to another code is not passed on.
        (name,) = names
        assert name.startswith("welders/R. Okafor/C-1-")
        assert files.read(name).decode() == Certificate.objects.get(number="C-1").body
        (weld,) = json.loads(files.read("welds.json"))
        assert [one["standing"] for one in weld["qualified"]] == ["may"]


def test_the_documentation_lacks_qualified_welders(api, job, listed, log):
    log()
    assert not {NOT_QUALIFIED, NOT_KNOWN} & set(lacks(api, job)[1])
    api["engineer"]("POST", "/crew", {"name": "A. Bell"})
    # A shop that keeps its crew here is told of names that are not in it.
    assert lacks(api, job)[1][NOT_KNOWN] == 1


def test_a_weld_of_somebody_not_qualified_is_an_open_point(api, job, listed, okafor, certify, log):
    certify(welded_on=LONG_AGO)
    log()
    found, said = lacks(api, job)
    assert said[NOT_QUALIFIED] == 1 and NOT_KNOWN not in said
    assert next(one["marks"] for one in found["open"] if one["said"] == NOT_QUALIFIED)


def test_a_certificate_that_was_changed_all_the_same_is_not_handed_over(
    api, job, listed, okafor, certify, log
):
    certify()
    log()
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        cursor.execute("UPDATE crew_certificate SET body = replace(body, 'PF', 'PA')")
        cursor.execute("SET session_replication_role = DEFAULT")
    archive(api, job, status=409)
    # The register stays readable and says which signature is over other bytes.
    (line,) = [one for one in register(api, job)["lines"] if one["of"] == "C-1 of R. Okafor"]
    assert "not what was kept" in line["purpose"]
