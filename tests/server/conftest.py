"""People, a job, a draft: made through the services that the API uses."""

import json
import uuid

import pytest
from apps.accounts.models import Role, User
from apps.coupons.services.edit_piece import edit_piece
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.crew.models import Certificate, CrewMember
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.services.create_procedure import create_procedure
from apps.qualification.models import QualificationRecord
from django.test import Client
from django.utils import timezone

from tests.welding import samples
from tests.welding.records import record
from welding.documents.codec import PASS_RECORD, PROCEDURE


@pytest.fixture
def people(db):
    found = {}
    for role in Role:
        user = User(username=role.value, role=role, first_name=role.value.title(), last_name="Test")
        user.set_own_password("long-enough-1")
        user.save()
        found[role.value] = user
    return found


@pytest.fixture
def job(db):
    return Job.objects.create(number="FB-27", title="Bridge", customer="Shop")


@pytest.fixture
def draft(people, job):
    return create_procedure(people["engineer"], job, PROCEDURE.take(samples.procedure()))


class Api:
    """A signed-in client that speaks JSON."""

    def __init__(self, user, **options):
        self.client = Client(**options)
        if user:
            self.client.force_login(user, backend="apps.accounts.backend.GuardedBackend")

    def __call__(self, method, path, body=None, raw=None):
        data = raw if raw is not None else (json.dumps(body) if body is not None else None)
        answer = self.client.generic(method, f"/api{path}", data or b"", content_type="application/json")
        kind = answer.headers.get("Content-Type", "")
        content = b"".join(answer.streaming_content) if answer.streaming else answer.content
        return answer.status_code, json.loads(content) if "json" in kind and content else content


@pytest.fixture
def api(people):
    return {name: Api(user) for name, user in people.items()}


PASSWORD = {"password": "long-enough-1", "reason": "compared with the certificates"}
SIGN = {"password": PASSWORD["password"]}
PF = "ISO 9606-1 135 P BW FM1 S s20 PF ss nb, spray transfer"
TODAY = timezone.localdate()
CODE = {"id": "iso-15614-1:2017", "level": 2, "units": "si", "route": "test"}
BASE = {
    "joint": "butt",
    "weld": "cjp-groove",
    "metal": "S355J2+N",
    "metal2": "S355J2+N",
    "thickness": "20 mm",
    "thickness2": "20 mm",
    "positions": "PF",
}


@pytest.fixture
def welded(people, job):
    """A welded coupon of 20 mm with its log closed, no test entered."""
    plain = record("iso")
    document = {**plain["procedure"], "number": "FB-27-P03"}
    return weld_coupon(people, create_procedure(people["engineer"], job, PROCEDURE.take(document)))


def weld_coupon(people, revision):
    """A coupon of the revision, welded by R. Okafor."""
    plain = record("iso")
    made = start_coupon(people["engineer"], revision, "R. Okafor")
    piece = {k: v for k, v in plain["coupon"].items() if k != "passes"}
    edit_piece(people["inspector"], made, made.version, {"piece": piece})
    for one in plain["coupon"]["passes"]:
        log_pass(people["inspector"], made, uuid.uuid4(), PASS_RECORD.take(one))
    made.refresh_from_db()
    edit_piece(people["inspector"], made, made.version, {"status": "welded"})
    made.refresh_from_db()
    return made


def enter_tests(api, coupon, *more, without=(), changed=None):
    for one in [*record("iso")["tests"], *more]:
        if one["specimen"] in without:
            continue
        test = {**one, **(changed or {}).get(one["specimen"], {})}
        status, answer = api["inspector"]("POST", f"/coupons/{coupon.pk}/specimens", {"test": test})
        assert status == 201, answer


@pytest.fixture
def signed(api, welded):
    enter_tests(api, welded)
    status, answer = api["engineer"]("POST", f"/coupons/{welded.pk}/sign", PASSWORD)
    assert status == 201, answer
    return QualificationRecord.objects.get(pk=answer["id"])


@pytest.fixture
def released(api, signed):
    status, made = api["engineer"]("POST", f"/records/{signed.pk}/procedure", {})
    assert status == 201, made
    body = {**PASSWORD, "records": [signed.pk]}
    status, answer = api["engineer"]("POST", f"/revisions/{made['id']}/qualify", body)
    assert status == 200, answer
    status, answer = api["engineer"]("POST", f"/revisions/{made['id']}/release", PASSWORD)
    assert status == 200 and answer["stage"] == "released", answer
    return Revision.objects.get(pk=made["id"])


@pytest.fixture
def listed(api, job, released):
    """W1 twice and W2 are covered and assigned, W3 is in another position, W4 says too little."""
    rows = [
        BASE | {"mark": "W1", "count": "2"},
        BASE | {"mark": "W2"},
        BASE | {"mark": "W3", "positions": "PC"},
        BASE | {"mark": "W4", "metal": ""},
    ]
    body = {"code": CODE, "changes": [{"cells": one} for one in rows]}
    status, answer = api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/rows", body)
    assert status == 200, answer
    body = {"version": answer["version"], "assign": {"T1": released.pk}}
    status, answer = api["engineer"]("PUT", f"/jobs/{job.pk}/weld-list/assignments", body)
    assert status == 200, answer
    return released


@pytest.fixture
def log(api, job, listed):
    def enter(mark="W2", who="welder", status=201, **more):
        body = {
            "client_id": str(uuid.uuid4()),
            "mark": mark,
            "revision_id": listed.pk,
            "welders": ["R. Okafor"],
            "batches": ["B-77"],
            "heats": ["H-1"],
            "welded_on": TODAY.isoformat(),
        } | more
        code, answer = api[who]("POST", f"/jobs/{job.pk}/welds", body)
        assert code == status, answer
        return answer

    return enter


@pytest.fixture
def inspect(api):
    def enter(weld, method="VT", accepted=True, who="inspector", status=201, **more):
        body = {
            "client_id": str(uuid.uuid4()),
            "method": method,
            "accepted": accepted,
            "inspector": "M. Duarte",
            "inspected_on": TODAY.isoformat(),
            "found": "" if accepted else "lack of fusion, 40 mm from A",
        } | more
        code, answer = api[who]("POST", f"/welds/{weld['id']}/results", body)
        assert code == status, answer
        return answer

    return enter


@pytest.fixture
def okafor(api):
    status, made = api["engineer"]("POST", "/crew", {"name": "R. Okafor", "mark": "RO"})
    assert status == 201, made
    return CrewMember.objects.get(pk=made["id"])


@pytest.fixture
def certify(api, okafor):
    def sign(who="engineer", status=201, member=okafor, **more):
        body = {
            "number": f"C-{Certificate.objects.count() + 1}",
            "designation": PF,
            "welded_on": TODAY.isoformat(),
            "way": "b",
            "examiner": "B. Quill",
            "from_paper": True,
            **SIGN,
        } | more
        code, answer = api[who]("POST", f"/crew/{member.pk}/certificates", body)
        assert code == status, answer
        return answer

    return sign
