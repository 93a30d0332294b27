"""Jobs."""

from __future__ import annotations

from typing import Annotated

from api.errors import ConflictError, ProblemOut
from api.people import person
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import StringConstraints

from apps.accounts.permissions import Action, require
from apps.jobs.models import Job

router = Router(tags=["jobs"])

Number = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40, pattern=r"^[^\x00-\x1f]+$")
]
Words = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200, pattern=r"^[^\x00-\x1f]*$")]


class JobOut(Schema):
    """A job."""

    id: int
    number: str
    title: str
    customer: str


class JobIn(Schema):
    """A new job."""

    number: Number
    title: Words
    customer: Words = ""


@router.get("/jobs", response=list[JobOut])
def list_jobs(request: HttpRequest) -> list[Job]:
    """All jobs."""
    require(person(request), Action.VIEW)
    return list(Job.objects.all())


@router.post("/jobs", response={201: JobOut, 403: ProblemOut, 409: ProblemOut, 422: ProblemOut})
def create_job(request: HttpRequest, payload: JobIn) -> Status[Job]:
    """Create a job."""
    require(person(request), Action.CREATE_JOB)
    try:
        with transaction.atomic():
            job = Job.objects.create(number=payload.number, title=payload.title, customer=payload.customer)
    except IntegrityError:
        raise ConflictError(
            f"There is a job {payload.number} already.",
            errors=[{"path": "number", "message": "taken", "value": payload.number}],
        ) from None
    return Status(201, job)
