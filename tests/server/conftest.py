"""People, a job, a draft: made through the services that the API uses."""

import json
import uuid

import pytest
from apps.accounts.models import Role, User
from apps.coupons.services.edit_piece import edit_piece
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.services.create_procedure import create_procedure
from apps.qualification.models import QualificationRecord
from django.test import Client

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
        return answer.status_code, json.loads(
            answer.content
        ) if "json" in kind and answer.content else answer.content


@pytest.fixture
def api(people):
    return {name: Api(user) for name, user in people.items()}


PASSWORD = {"password": "long-enough-1", "reason": "compared with the certificates"}


@pytest.fixture
def welded(people, job):
    """A welded coupon of 20 mm with its log closed, no test entered."""
    plain = record("iso")
    document = {**plain["procedure"], "number": "FB-27-P03"}
    revision = create_procedure(people["engineer"], job, PROCEDURE.take(document))
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
