"""Release of procedures, comparison of revisions, and what a change of the book reaches."""

from __future__ import annotations

import dataclasses
from typing import Any

from api.errors import ProblemOut
from api.people import person
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from apps.accounts.permissions import Action, require
from apps.accounts.services.confirm_person import confirm_person
from apps.codebook.queries import book_of, current_book, newest_entries
from apps.codebook.services.say import check
from apps.procedures.models import Revision, Stage
from apps.qualification.api import REFUSALS, record_line, signature_out
from apps.qualification.models import QualificationRecord
from apps.qualification.schemas import (
    DifferenceOut,
    EffectOut,
    PreviewIn,
    QualifyIn,
    SignatureIn,
    StageOut,
)
from apps.qualification.services.release import (
    coverage_of,
    prequalify_revision,
    qualify_revision,
    release_revision,
    supporting_records,
    withdraw_revision,
)
from apps.qualification.services.touched import touched_by
from welding.codebook.book import AS_ENTERED, Book
from welding.documents.codec import PROCEDURE
from welding.documents.difference import differences

router = Router(tags=["release"])


def _revision(revision_id: int) -> Revision:
    return get_object_or_404(Revision.objects.select_related("procedure__job"), pk=revision_id)


def _stage(revision: Revision) -> StageOut:
    records = supporting_records(revision)
    document = revision.contents()
    in_use = revision.stage in (Stage.QUALIFIED, Stage.RELEASED) and records
    return StageOut(
        revision_id=revision.pk,
        stage=revision.stage,
        route=document.code.route if document.code else "test",
        supports=[record_line(one) for one in records],
        signatures=[signature_out(one) for one in revision.signatures.all()],
        current=coverage_of(revision, records) if in_use else None,
    )


@router.get("/revisions/{int:revision_id}/stage", response={200: StageOut, 404: ProblemOut})
def read_stage(request: HttpRequest, revision_id: int) -> StageOut:
    """Stage, supports and signatures; whether the supports still cover it under the book as it stands."""
    require(person(request), Action.VIEW)
    return _stage(_revision(revision_id))


def _signing(request: HttpRequest, payload: SignatureIn) -> Any:
    user = person(request)
    require(user, Action.RELEASE)
    confirm_person(request, user, payload.password)
    return user


@router.post("/revisions/{int:revision_id}/qualify", response={200: StageOut, **REFUSALS})
def qualify(request: HttpRequest, revision_id: int, payload: QualifyIn) -> StageOut:
    """Declare that signed records cover the revision."""
    user = _signing(request, payload)
    revision = _revision(revision_id)
    records = list(
        QualificationRecord.objects.filter(pk__in=payload.records, coupon__job=revision.procedure.job)
        .select_related("coupon__job", "coupon__revision__procedure")
        .prefetch_related("signatures")
    )
    return _stage(qualify_revision(user, revision, records, payload.reason))


@router.post("/revisions/{int:revision_id}/prequalify", response={200: StageOut, **REFUSALS})
def prequalify(request: HttpRequest, revision_id: int, payload: SignatureIn) -> StageOut:
    """Declare that every prequalified rule holds."""
    user = _signing(request, payload)
    return _stage(prequalify_revision(user, _revision(revision_id), payload.reason))


@router.post("/revisions/{int:revision_id}/release", response={200: StageOut, **REFUSALS})
def release(request: HttpRequest, revision_id: int, payload: SignatureIn) -> StageOut:
    """Release for production."""
    user = _signing(request, payload)
    return _stage(release_revision(user, _revision(revision_id), payload.reason))


@router.post("/revisions/{int:revision_id}/withdraw", response={200: StageOut, **REFUSALS})
def withdraw(request: HttpRequest, revision_id: int, payload: SignatureIn) -> StageOut:
    """Take out of production."""
    user = _signing(request, payload)
    return _stage(withdraw_revision(user, _revision(revision_id), payload.reason))


@router.get(
    "/revisions/{int:revision_id}/differences/{int:other_id}",
    response={200: list[DifferenceOut], 404: ProblemOut},
)
def compare_revisions(request: HttpRequest, revision_id: int, other_id: int) -> list[DifferenceOut]:
    """Two revisions field by field."""
    require(person(request), Action.VIEW)
    before, after = (PROCEDURE.plain(_revision(one).contents()) for one in (other_id, revision_id))
    return [DifferenceOut(**dataclasses.asdict(one)) for one in differences(before, after)]


@router.post("/book/preview", response={200: list[EffectOut], **REFUSALS})
def preview(request: HttpRequest, payload: PreviewIn) -> list[EffectOut]:
    """Which procedures a change would reach, before anyone says it."""
    require(person(request), Action.VIEW)
    standing = dict(current_book().corrections)
    if payload.said == "revert":
        standing.pop(payload.number_id, None)
    else:
        standing[payload.number_id] = check(payload.number_id, payload.said, payload.value)
    return [EffectOut(**dataclasses.asdict(one)) for one in touched_by(current_book(), Book(standing))]


@router.get("/book/touched", response={200: list[EffectOut]})
def touched(request: HttpRequest) -> list[EffectOut]:
    """Which procedures in production read differently under the book than under the tables as entered."""
    require(person(request), Action.VIEW)
    return [EffectOut(**dataclasses.asdict(one)) for one in touched_by(AS_ENTERED, book_of(newest_entries()))]
