"""Jobs."""

from __future__ import annotations

from typing import Annotated

from api.errors import ConflictError, ProblemOut
from api.people import person
from api.text import JobNumber, Line
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from welding.language import tr

router = Router(tags=["jobs"])


class JobOut(Schema):
    """A job."""

    id: int
    number: str
    title: str
    customer: str
    coordinator: str
    two_signatures: bool


class JobIn(Schema):
    """A new job."""

    number: JobNumber
    title: Line
    customer: Line = ""
    coordinator: Annotated[Line, Field(max_length=120)] = ""
    two_signatures: bool = False


class JobChangeIn(Schema):
    """What is changed of a job; ``seen`` is the coordinator who was seen when another is named."""

    two_signatures: bool | None = None
    coordinator: Annotated[Line, Field(max_length=120)] | None = None
    seen: Annotated[Line, Field(max_length=120)] = ""


@router.get("/jobs", response=list[JobOut])
def list_jobs(request: HttpRequest) -> list[Job]:
    """All jobs that the person may see."""
    user = person(request)
    require(user, Action.VIEW)
    jobs = Job.objects.all()
    return list(jobs if user.only_jobs is None else jobs.filter(pk__in=user.only_jobs))


@router.post("/jobs", response={201: JobOut, 403: ProblemOut, 409: ProblemOut, 422: ProblemOut})
def create_job(request: HttpRequest, payload: JobIn) -> Status[Job]:
    """Create a job."""
    require(person(request), Action.CREATE_JOB)
    try:
        with transaction.atomic():
            job = Job.objects.create(**payload.model_dump())
    except IntegrityError:
        raise ConflictError(
            tr("There is a job {number} already.", number=payload.number),
            errors=[{"path": "number", "message": "taken", "value": payload.number}],
        ) from None
    return Status(201, job)


@router.patch("/jobs/{int:job_id}", response={200: JobOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut})
def change_job(request: HttpRequest, job_id: int, payload: JobChangeIn) -> Job:
    """Ask for two signatures on records and releases, or no longer; name the responsible coordinator.

    The audit trail keeps both.
    """
    require(person(request), Action.CREATE_JOB)
    with transaction.atomic():
        job = get_object_or_404(Job.objects.select_for_update(), pk=job_id)
        if payload.two_signatures is not None:
            job.two_signatures = payload.two_signatures
        if payload.coordinator is not None:
            if job.coordinator != payload.seen:
                said = tr("Somebody named {name} in the meantime.", name=job.coordinator or "-")
                raise ConflictError(
                    said, errors=[{"path": "coordinator", "message": said, "value": payload.coordinator}]
                )
            job.coordinator = payload.coordinator
        job.save(update_fields=["two_signatures", "coordinator"])
    return job
