"""Signatures: the hash of what is signed is kept with them."""

from __future__ import annotations

import dataclasses
import hashlib
from typing import Any

from api.errors import ConflictError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.codebook.queries import current_book
from apps.coupons.models import Coupon
from apps.coupons.models import Status as CouponStatus
from apps.coupons.services.hold import held
from apps.procedures.models import Revision, Stage
from apps.qualification.models import Amendment, Purpose, QualificationRecord, Signature
from apps.qualification.queries import standing_record
from welding.coverage.record import judge, range_of
from welding.documents.codec import RECORD
from welding.language import SOURCE, pinned_terms, speaking, tr


@transaction.atomic
def sign_record(user: User, coupon: Coupon, remarks: str = "") -> QualificationRecord:
    """Sign a coupon's record: its bytes are frozen with their hash, and what they were found to say.

    The record of an amendment takes the place of the one that it amends.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It is signed, its log is open, a recording still runs, or its tests are not accepted.
    """
    require(user, Action.SIGN_RECORD)
    locked = held(coupon)
    if locked.status != CouponStatus.WELDED and not locked.certificate:
        raise ConflictError(tr("The log is still open: close it, then sign the record."))
    if locked.recordings.filter(status="streaming").exists():
        raise ConflictError(tr("A recorder still sends for this coupon: end the recording, then sign."))
    document = standing_record(locked)
    if document.procedure.code is None:
        raise ConflictError(tr("The coupon was welded under no code: there is nothing to qualify under."))
    report = judge(document)
    if report.verdict != "accepted":
        raise ConflictError(
            tr("The tests are not accepted: the record cannot be signed while a test is open or failed."),
            errors=[{"path": "tests", "message": text, "value": ""} for text in report.missing[:20]],
        )
    body = RECORD.write(document)
    digest = hashlib.sha256(body).hexdigest()
    with speaking(SOURCE), pinned_terms(None):  # what is kept reads the same whoever signed
        report, found = judge(document), range_of(document)
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
    _supersede(user, locked, record)
    Revision.objects.filter(pk=locked.revision_id, stage=Stage.TRIAL).update(stage=Stage.TESTED)
    return record


def _supersede(user: User, coupon: Coupon, record: QualificationRecord) -> None:
    amendment = Amendment.objects.filter(coupon=coupon).select_related("of").first()
    if amendment is None:
        return
    before = _locked(amendment.of)
    if before.void:
        raise ConflictError(
            tr("Record {number} was declared void meanwhile: it is not amended.", number=before.number)
        )
    _signature(
        user,
        Purpose.SUPERSEDED,
        before.content_hash,
        f"Superseded by {record.number}: {amendment.reason}",
        record=before,
    )


def _plain(found: Any) -> Any:
    return dataclasses.asdict(found)


def _locked(record: QualificationRecord) -> QualificationRecord:
    """The record, held while a signature is put to it: two of one kind do not come in at once."""
    Coupon.objects.select_for_update().get(pk=record.coupon_id)
    return QualificationRecord.objects.select_related("coupon__job").get(pk=record.pk)


def _signature(user: User, purpose: str, digest: str, reason: str, **of: Any) -> Signature:
    return Signature.objects.create(
        purpose=purpose,
        content_hash=digest,
        reason=reason.strip(),
        by=user,
        name=user.shown_name,
        role=user.role,
        **of,
    )


@transaction.atomic
def witness_record(user: User, record: QualificationRecord, remarks: str = "") -> Signature:
    """Sign as a witness of welding and tests, such as an examiner from outside.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It is void or superseded, or this person has signed it already.
    """
    require(user, Action.WITNESS)
    locked = _locked(record)
    locked.document()  # nobody signs what is damaged
    if locked.void or locked.superseded:
        raise ConflictError(
            tr("Record {number} no longer counts: it is not witnessed.", number=locked.number)
        )
    if locked.signed_by_id == user.pk:
        raise ConflictError(tr("You signed this record: somebody else witnesses it."))
    if locked.signatures.filter(purpose=Purpose.WITNESS, by=user).exists():
        raise ConflictError(tr("You have signed this record as a witness already."))
    return _signature(user, Purpose.WITNESS, locked.content_hash, remarks, record=locked)


@transaction.atomic
def void_record(user: User, record: QualificationRecord, reason: str) -> Signature:
    """Sign that a record no longer counts, such as after a test that was found wrong; it stays as it is.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It does not count already, or no reason is given.
    """
    require(user, Action.RELEASE)
    locked = _locked(record)
    if locked.void or locked.superseded:
        raise ConflictError(tr("Record {number} no longer counts already.", number=locked.number))
    if not reason.strip():
        raise ConflictError(
            tr("State why it no longer counts."),
            errors=[{"path": "reason", "message": tr("state the reason"), "value": ""}],
        )
    return _signature(user, Purpose.VOID, locked.content_hash, reason, record=locked)


def sign_revision(user: User, revision: Revision, purpose: str, reason: str) -> Signature:
    """A signature over a revision's document."""
    return _signature(user, purpose, revision.content_hash, reason, revision=revision)
