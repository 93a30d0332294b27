"""Signing, witnessing, voiding and amending a record; what is made from one; old records."""

from __future__ import annotations

from api.people import person
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.accounts.services.confirm_person import confirm_person
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.schemas import CreatedOut
from apps.qualification.api import REFUSALS, coupon_of, record_of
from apps.qualification.schemas import AmendIn, MadeOut, MakeIn, OldRecordIn, OldRecordOfIn, SignatureIn
from apps.qualification.services.amend_record import amend_record
from apps.qualification.services.make_procedure import make_procedure
from apps.qualification.services.old_record import enter_old_record, old_record_of
from apps.qualification.services.signing import sign_record, void_record, witness_record

router = Router(tags=["qualification"])


@router.post("/coupons/{int:coupon_id}/sign", response={201: CreatedOut, **REFUSALS})
def sign(request: HttpRequest, coupon_id: int, payload: SignatureIn) -> Status[CreatedOut]:
    """Sign the record: it is frozen with its hash."""
    user = person(request)
    require(user, Action.SIGN_RECORD)
    confirm_person(request, user, payload.password)
    made = sign_record(user, coupon_of(coupon_id), payload.reason)
    return Status(201, CreatedOut(id=made.pk))


@router.post("/records/{int:record_id}/witness", response={201: CreatedOut, **REFUSALS})
def witness(request: HttpRequest, record_id: int, payload: SignatureIn) -> Status[CreatedOut]:
    """Sign as a witness."""
    user = person(request)
    require(user, Action.WITNESS)
    confirm_person(request, user, payload.password)
    made = witness_record(user, record_of(record_id), payload.reason)
    return Status(201, CreatedOut(id=made.pk))


@router.post("/records/{int:record_id}/void", response={201: CreatedOut, **REFUSALS})
def void(request: HttpRequest, record_id: int, payload: SignatureIn) -> Status[CreatedOut]:
    """Sign that a record no longer counts."""
    user = person(request)
    require(user, Action.RELEASE)
    confirm_person(request, user, payload.password)
    made = void_record(user, record_of(record_id), payload.reason)
    return Status(201, CreatedOut(id=made.pk))


@router.post("/records/{int:record_id}/amend", response={201: CreatedOut, **REFUSALS})
def amend(request: HttpRequest, record_id: int, payload: AmendIn) -> Status[CreatedOut]:
    """Begin an amendment: a copy of the coupon to correct and to sign anew. Gives the copy's id."""
    made = amend_record(person(request), record_of(record_id), payload.reason)
    return Status(201, CreatedOut(id=made.coupon_id))


@router.post("/records/{int:record_id}/procedure", response={201: MadeOut, **REFUSALS})
def make(request: HttpRequest, record_id: int, payload: MakeIn) -> Status[MadeOut]:
    """Make the procedure that a record supports."""
    made = make_procedure(person(request), record_of(record_id), as_new=payload.as_new)
    return Status(201, MadeOut(id=made.revision.pk, notes=list(made.notes)))


@router.post("/jobs/{int:job_id}/old-records", response={201: CreatedOut, **REFUSALS})
def old_record(request: HttpRequest, job_id: int, payload: OldRecordIn) -> Status[CreatedOut]:
    """Enter an old record from its certificate; its tests are entered as for any coupon."""
    job = get_object_or_404(Job, pk=job_id)
    made = enter_old_record(person(request), job, payload.document, payload.certificate, payload.tested_to)
    return Status(201, CreatedOut(id=made.pk))


@router.post("/revisions/{int:revision_id}/old-record", response={201: CreatedOut, **REFUSALS})
def old_record_from(request: HttpRequest, revision_id: int, payload: OldRecordOfIn) -> Status[CreatedOut]:
    """Take a revision, written as the certificate prints it, for the procedure of an old record."""
    revision = get_object_or_404(Revision.objects.select_related("procedure__job"), pk=revision_id)
    made = old_record_of(person(request), revision, payload.certificate, payload.tested_to)
    return Status(201, CreatedOut(id=made.pk))
