"""Procedures: lists, drafting, revisions, history."""

from __future__ import annotations

from functools import partial
from typing import Any

from api.damage import attempt
from api.downloads import attachment
from api.errors import ProblemOut
from api.people import person
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.next_step import Standing, standing_of
from apps.procedures.queries import newest_revisions
from apps.procedures.schemas import (
    CouponRefOut,
    CreatedOut,
    CreateIn,
    EventOut,
    RevisionLineOut,
    RevisionOut,
    SavedOut,
    SaveIn,
    SiblingOut,
)
from apps.procedures.services.begin_revision import begin_revision
from apps.procedures.services.create_procedure import create_procedure
from apps.procedures.services.save_revision import save_revision
from welding.documents.codec import PROCEDURE
from welding.documents.identity import with_pass_ids
from welding.evaluate.procedure import evaluate
from welding.language import tr
from welding.quantities.writing import System

router = Router(tags=["procedures"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


def _revision(revision_id: int) -> Revision:
    found = Revision.objects.select_related("procedure__job", "saved_by")
    return get_object_or_404(found, pk=revision_id)


@router.get("/jobs/{int:job_id}/procedures", response={200: list[RevisionLineOut], 404: ProblemOut})
def list_procedures(request: HttpRequest, job_id: int) -> list[RevisionLineOut]:
    """The newest revision of every procedure, each with its one next step."""
    require(person(request), Action.VIEW)
    lines = []
    for one in newest_revisions(get_object_or_404(Job, pk=job_id)):
        coupon_count: int = getattr(one, "coupon_count", 0)
        standing, damaged = attempt(
            one, partial(standing_of, one, coupon_count, getattr(one, "welding_count", 0))
        )
        standing = standing or Standing(0, 0, 0, tr("Damaged: tell the administrator"))
        lines.append(
            RevisionLineOut(
                id=one.pk,
                procedure_id=one.procedure.pk,
                number=one.procedure.number,
                letter=one.letter,
                title=one.title,
                stage=one.stage,
                code_id=one.code_id,
                code_level=one.code_level,
                processes=one.processes,
                positions=one.positions,
                thickness_min_mm=one.thickness_min_mm,
                thickness_max_mm=one.thickness_max_mm,
                pass_count=one.pass_count,
                coupon_count=coupon_count,
                saved_by=one.saved_by.shown_name,
                saved_at=one.saved_at,
                breaches=standing.breaches,
                cautions=standing.cautions,
                open_questions=standing.open_questions,
                next_step=standing.next_step,
                damaged=damaged,
            )
        )
    return lines


@router.post("/jobs/{int:job_id}/procedures", response={201: CreatedOut, **REFUSALS})
def create(request: HttpRequest, job_id: int, payload: CreateIn) -> Status[CreatedOut]:
    """Create a procedure with its first draft."""
    job = get_object_or_404(Job, pk=job_id)
    revision = create_procedure(person(request), job, payload.document)
    return Status(201, CreatedOut(id=revision.pk))


@router.get("/revisions/{int:revision_id}", response={200: RevisionOut, 404: ProblemOut})
def read_revision(request: HttpRequest, revision_id: int, units: System = "si") -> RevisionOut:
    """A revision with its evaluation."""
    require(person(request), Action.VIEW)
    one = _revision(revision_id)
    document = one.contents()
    if one.frozen_at is None:  # what was signed is shown as it was signed
        document = with_pass_ids(document)
    return RevisionOut(
        id=one.pk,
        job_id=one.procedure.job_id,
        procedure_id=one.procedure.pk,
        number=one.procedure.number,
        letter=one.letter,
        stage=one.stage,
        version=one.version,
        document=document,
        saved_by=one.saved_by.shown_name,
        saved_at=one.saved_at,
        frozen=one.frozen_at is not None,
        siblings=[
            SiblingOut(id=other.pk, letter=other.letter, stage=other.stage)
            for other in one.procedure.revisions.order_by("id")
        ],
        coupons=[
            CouponRefOut(id=coupon.pk, number=coupon.number, status=coupon.status)
            for coupon in one.coupons.order_by("number")
        ],
        evaluation=evaluate(document, units),
    )


@router.put("/revisions/{int:revision_id}", response={200: SavedOut, **REFUSALS})
def save(request: HttpRequest, revision_id: int, payload: SaveIn) -> SavedOut:
    """Save a draft; 409 with both versions if someone saved it in the meantime."""
    old = Revision.objects.select_related("procedure", "saved_by").defer("document", "body")
    one = get_object_or_404(old, pk=revision_id)
    one = save_revision(person(request), one, payload.version, payload.document)
    return SavedOut(version=one.version, saved_by=one.saved_by.shown_name, saved_at=one.saved_at)


@router.post("/revisions/{int:revision_id}/next", response={201: CreatedOut, **REFUSALS})
def begin_next(request: HttpRequest, revision_id: int) -> Status[CreatedOut]:
    """Begin the next revision as a draft."""
    revision = begin_revision(person(request), _revision(revision_id).procedure)
    return Status(201, CreatedOut(id=revision.pk))


@router.get("/revisions/{int:revision_id}/history", response={200: list[EventOut], 404: ProblemOut})
def history(request: HttpRequest, revision_id: int) -> list[EventOut]:
    """The audit trail of a revision, newest first, at most 200 entries."""
    require(person(request), Action.VIEW)
    one = _revision(revision_id)
    events = one.events.select_related("saved_by").order_by("-pgh_id")[:200]  # type: ignore[attr-defined]
    words = {"insert": "created", "update": "saved", "delete": "deleted"}
    return [
        EventOut(
            at=event.pgh_created_at,
            what=words.get(event.pgh_label, event.pgh_label),
            by=event.saved_by.shown_name,
            version=event.version,
            stage=event.stage,
        )
        for event in events
    ]


@router.get("/revisions/{int:revision_id}/export", response={200: None, 404: ProblemOut})
def export(request: HttpRequest, revision_id: int) -> HttpResponse:
    """The procedure document as a file."""
    require(person(request), Action.VIEW)
    one = _revision(revision_id)
    return attachment(
        PROCEDURE.write(one.contents()),
        "application/json",
        f"{one.procedure.number}-{one.letter}.procedure.json",
    )
