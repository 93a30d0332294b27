"""The register of a job: who signed what."""

from __future__ import annotations

import dataclasses
from datetime import datetime
from typing import Literal

from api.downloads import attachment
from api.people import person
from api.sheets import TYPES
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from apps.accounts.permissions import Action, require
from apps.production.register import register_file, register_of
from apps.weldlist.listed import REFUSALS, job_of

router = Router(tags=["production"])


class RegisterLineOut(Schema):
    """A signature: who put it under what, in which role, saying what."""

    at: datetime
    name: str
    role: str
    of: str
    purpose: str
    reason: str
    sha256: str


class RegisterOut(Schema):
    """The responsible welding coordinator of a job, and all signatures, the latest first."""

    coordinator: str
    lines: list[RegisterLineOut]


@router.get("/jobs/{int:job_id}/register", response={200: RegisterOut, **REFUSALS})
def register(request: HttpRequest, job_id: int) -> RegisterOut:
    """Who signed what in a job."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    lines = [RegisterLineOut(**dataclasses.asdict(one)) for one in register_of(job)]
    return RegisterOut(coordinator=job.coordinator, lines=lines)


@router.get("/jobs/{int:job_id}/register/file", response={200: None, **REFUSALS})
def register_sheet(request: HttpRequest, job_id: int, kind: Literal["csv", "xlsx"] = "xlsx") -> HttpResponse:
    """The same as a sheet."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    return attachment(register_file(register_of(job), kind), TYPES[kind], f"{job.number} register.{kind}")
