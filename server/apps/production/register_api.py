"""The register of a job: who signed what."""

from __future__ import annotations

from typing import Literal

from api.downloads import attachment
from api.people import person
from api.sheets import TYPES
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from apps.accounts.permissions import Action, require
from apps.production.register import RegisterLine, register_file, register_of
from apps.weldlist.listed import REFUSALS, job_of

router = Router(tags=["production"])


class RegisterOut(Schema):
    """The responsible welding coordinator of a job, and all signatures, the latest first."""

    coordinator: str
    lines: list[RegisterLine]


@router.get("/jobs/{int:job_id}/register", response={200: RegisterOut, **REFUSALS})
def register(request: HttpRequest, job_id: int) -> RegisterOut:
    """Who signed what in a job."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    return RegisterOut(coordinator=job.coordinator, lines=register_of(job))


@router.get("/jobs/{int:job_id}/register/file", response={200: None, **REFUSALS})
def register_sheet(request: HttpRequest, job_id: int, kind: Literal["csv", "xlsx"] = "xlsx") -> HttpResponse:
    """The same as a sheet."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    return attachment(register_file(register_of(job), kind), TYPES[kind], f"{job.number} register.{kind}")
