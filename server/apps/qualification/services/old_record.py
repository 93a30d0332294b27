"""Enter an old record from its certificate: no run log, values as printed there."""

from __future__ import annotations

from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.models import Status as CouponStatus
from apps.coupons.services.start_coupon import start_coupon
from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.procedures.services.create_procedure import create_procedure
from apps.qualification.queries import standing_record
from welding.documents.procedure import Procedure as Document


@transaction.atomic
def enter_old_record(user: User, job: Job, document: Document, certificate: str, tested_to: str) -> Coupon:
    """Keep the procedure as printed, with a coupon that has no log.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The number is taken in this job.
        InvalidError: The procedure has no pass.
    """
    require(user, Action.ENTER_OLD_RECORD)
    return old_record_of(user, create_procedure(user, job, document), certificate, tested_to)


@transaction.atomic
def old_record_of(user: User, revision: Revision, certificate: str, tested_to: str) -> Coupon:
    """Take a revision, written as the certificate prints it, for the procedure of an old record.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: The procedure has no pass.
    """
    require(user, Action.ENTER_OLD_RECORD)
    if revision.stage == Stage.DRAFT:
        require(user, Action.WRITE_PROCEDURE)  # it freezes the draft
    document = revision.contents()
    coupon = start_coupon(user, revision)
    piece = {key: value for key, value in coupon.piece.items() if key != "welded_on"}
    thermal = document.thermal
    if thermal is not None and thermal.preheat_min_c is not None:
        piece["preheat_c"] = thermal.preheat_min_c
    Coupon.objects.filter(pk=coupon.pk).update(
        certificate=certificate.strip(), tested_to=tested_to.strip(), status=CouponStatus.WELDED, piece=piece
    )
    coupon.refresh_from_db()
    standing_record(coupon)  # what could not be read again is not kept
    return coupon
