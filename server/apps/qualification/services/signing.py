"""Signatures: the password is entered again, and the hash of what is signed is kept with them."""

from __future__ import annotations

import dataclasses
import hashlib
from typing import Any

from api.errors import ConflictError, InvalidError
from django.contrib.auth import authenticate
from django.db import transaction
from django.http import HttpRequest

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.codebook.queries import current_book
from apps.coupons.models import Coupon
from apps.coupons.models import Status as CouponStatus
from apps.procedures.models import Revision, Stage
from apps.qualification.models import Purpose, QualificationRecord, Signature
from apps.qualification.queries import record_document
from welding.documents.codec import RECORD
from welding.qualify import judge, range_of


def confirm_person(request: HttpRequest, user: User, password: str) -> None:
    """Whoever signs enters the password again; throttled like signing in.

    Raises:
        InvalidError: The password does not fit.
    """
    found = authenticate(request, username=user.username, password=password)
    if found is None or found.pk != user.pk:
        raise InvalidError(
            "The password does not fit: nothing was signed.",
            errors=[{"path": "password", "message": "does not fit", "value": ""}],
        )


@transaction.atomic
def sign_record(user: User, coupon: Coupon, remarks: str = "") -> QualificationRecord:
    """Sign a coupon's record: its bytes are frozen with their hash, and what they were found to say.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It is signed, its log is open, or its tests are not accepted.
    """
    require(user, Action.SIGN_RECORD)
    locked = Coupon.objects.select_for_update().get(pk=coupon.pk)
    if hasattr(locked, "record"):
        raise ConflictError(f"Record {locked.record.number} is signed already.")
    if locked.status != CouponStatus.WELDED and not locked.certificate:
        raise ConflictError("The log is still open: close it, then sign the record.")
    document = record_document(locked)
    if document.procedure.code is None:
        raise ConflictError("The coupon was welded under no code: there is nothing to qualify under.")
    report = judge(document)
    if report.verdict != "accepted":
        raise ConflictError(
            "The tests are not accepted: the record cannot be signed while a test is open or failed.",
            errors=[{"path": "tests", "message": text, "value": ""} for text in report.missing[:20]],
        )
    body = RECORD.write(document)
    digest = hashlib.sha256(body).hexdigest()
    found = range_of(document)
    record = QualificationRecord.objects.create(
        coupon=locked,
        number=document.number or "",
        code_id=document.procedure.code.id,
        code_level=document.procedure.code.level,
        body=body.decode(),
        content_hash=digest,
        findings={"report": _plain(report), "range": _plain(found)},
        book_digest=current_book().digest,
        signed_by=user,
    )
    _signature(user, Purpose.RECORD, digest, remarks, record=record)
    Revision.objects.filter(pk=locked.revision_id, stage=Stage.TRIAL).update(stage=Stage.TESTED)
    return record


def _plain(found: Any) -> Any:
    return dataclasses.asdict(found)


def _signature(user: User, purpose: str, digest: str, reason: str, **of: Any) -> Signature:
    return Signature.objects.create(
        purpose=purpose, content_hash=digest, reason=reason.strip(), by=user, role=user.role, **of
    )


@transaction.atomic
def witness_record(user: User, record: QualificationRecord, remarks: str = "") -> Signature:
    """Sign as a witness of welding and tests, such as an examiner from outside.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: This person has signed as a witness already.
    """
    require(user, Action.WITNESS)
    if record.signatures.filter(purpose=Purpose.WITNESS, by=user).exists():
        raise ConflictError("You have signed this record as a witness already.")
    return _signature(user, Purpose.WITNESS, record.content_hash, remarks, record=record)


@transaction.atomic
def void_record(user: User, record: QualificationRecord, reason: str) -> Signature:
    """Sign that a record no longer counts, such as after a test that was found wrong; it stays as it is.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It does not count already, or no reason is given.
    """
    require(user, Action.RELEASE)
    if record.void:
        raise ConflictError(f"Record {record.number} no longer counts already.")
    if not reason.strip():
        raise ConflictError(
            "State why it no longer counts.",
            errors=[{"path": "reason", "message": "state the reason", "value": ""}],
        )
    return _signature(user, Purpose.VOID, record.content_hash, reason, record=record)


def sign_revision(user: User, revision: Revision, purpose: str, reason: str) -> Signature:
    """A signature over a revision's document."""
    return _signature(user, purpose, revision.content_hash, reason, revision=revision)
