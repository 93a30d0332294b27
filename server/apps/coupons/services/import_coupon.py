"""Import a coupon document with its procedure and its log."""

from __future__ import annotations

from dataclasses import dataclass, replace
from uuid import uuid4

from api.errors import ConflictError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon, PassLog
from apps.coupons.queries import coupon_document, standing_document
from apps.coupons.rows import to_columns
from apps.coupons.services.start_coupon import next_number
from apps.jobs.models import Job
from apps.procedures.models import Stage
from apps.procedures.services.import_procedure import import_procedure
from welding.documents.codec import COUPON, PROCEDURE
from welding.documents.coupon import Coupon as Document
from welding.language import tr


@dataclass(frozen=True, slots=True)
class Imported:
    """The coupon that holds the document now; ``unchanged`` if it stood there before."""

    coupon: Coupon
    unchanged: bool


@transaction.atomic
def import_coupon(user: User, job: Job, document: Document, as_number: str = "") -> Imported:
    """Take a coupon into a job, and its procedure too where that is not there yet.

    Args:
        user: Who imports.
        job: Where to.
        document: What.
        as_number: Another number to keep the coupon under.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The number, or the procedure's, is taken by other contents.
    """
    require(user, Action.IMPORT)
    number = as_number or (document.number or "").strip()[:60] or next_number(job)
    document = replace(document, number=number)
    there = Coupon.objects.filter(job=job, number=number).first()
    if there:
        if COUPON.write(coupon_document(there)) == COUPON.write(document):
            return Imported(there, unchanged=True)
        raise ConflictError(
            tr(
                "{number} stands in {number2} with other contents. Import it under another number.",
                number=number,
                number2=job.number,
            ),
            errors=[{"path": "number", "message": tr("taken by other contents"), "value": number}],
        )
    revision = import_procedure(user, job, document.procedure).revision
    if revision.stage == Stage.DRAFT:
        revision.stage, revision.frozen_at = Stage.TRIAL, timezone.now()
        revision.save(update_fields=["stage", "frozen_at"])
    plain = COUPON.plain(document)
    piece = {key: value for key, value in plain["coupon"].items() if key != "passes"}
    coupon = Coupon.objects.create(
        job=job,
        revision=revision,
        number=number,
        piece=piece,
        people=plain.get("people", []),
        procedure_document=PROCEDURE.plain(document.procedure),
        created_by=user,
    )
    for record in document.coupon.passes:
        PassLog.objects.create(
            coupon=coupon,
            client_id=uuid4(),
            logged_by=user,
            logged_name=user.shown_name,
            **to_columns(record),
        )
    standing_document(coupon)  # what could not be read again is not kept
    return Imported(coupon, unchanged=False)
