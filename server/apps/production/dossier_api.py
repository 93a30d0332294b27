"""The final documentation of a job: what it lacks, and its open files as one archive."""

from __future__ import annotations

from api.downloads import attachment
from api.people import person
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from apps.accounts.permissions import Action, require
from apps.production.dossier import OpenPoint, dossier_files, dossier_of, zip_of
from apps.weldlist.listed import REFUSALS, job_of

router = Router(tags=["production"])


class DossierOut(Schema):
    """How far the final documentation of a job is; ``open`` is what it lacks."""

    expected: int
    made: int
    released: int
    open: list[OpenPoint]


@router.get("/jobs/{int:job_id}/dossier", response={200: DossierOut, **REFUSALS})
def dossier(request: HttpRequest, job_id: int) -> DossierOut:
    """How far the final documentation of a job is, and what it lacks."""
    require(person(request), Action.VIEW)
    found = dossier_of(job_of(job_id))
    return DossierOut(
        expected=found.expected, made=found.made, released=found.released, open=list(found.open)
    )


@router.get("/jobs/{int:job_id}/dossier/file", response={200: None, **REFUSALS})
def dossier_archive(request: HttpRequest, job_id: int) -> HttpResponse:
    """The open files of the documentation as a ZIP; signed ones are the bytes that were signed."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    return attachment(zip_of(dossier_files(job)), "application/zip", f"{job.number} documentation.zip")
