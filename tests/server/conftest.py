"""People, a job, a draft: made through the services that the API uses."""

import json

import pytest
from apps.accounts.models import Role, User
from apps.jobs.models import Job
from apps.procedures.services.create_procedure import create_procedure
from django.test import Client

from tests.welding import samples
from welding.documents.codec import PROCEDURE


@pytest.fixture
def people(db):
    return {
        role.value: User.objects.create_user(
            role.value, password="long-enough-1", role=role, first_name=role.value.title(), last_name="Test"
        )
        for role in Role
    }


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
            self.client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")

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
