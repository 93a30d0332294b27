"""Amend a signed record: a copy of its coupon is corrected and signed anew; the signed one stays as it is."""

from __future__ import annotations

import re
from typing import Any
from uuid import uuid4

from api.errors import ConflictError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon, PassLog, PassPhoto
from apps.qualification.models import Amendment, QualificationRecord, Specimen
from apps.recordings.models import RecordedPass
from welding.language import tr


def amended_number(number: str) -> str:
    """The number of an amendment of ``number``: ``FB-27-C05`` gives ``FB-27-C05-R1``, then ``-R2``."""
    found = re.fullmatch(r"(.*)-R(\d+)", number)
    return f"{found[1]}-R{int(found[2]) + 1}" if found else f"{number}-R1"


@transaction.atomic
def amend_record(user: User, record: QualificationRecord, reason: str) -> Amendment:
    """Begin an amendment: the coupon's log and tests are copied, to be corrected and signed anew.

    The signed record counts until the amended one is signed. Nothing beneath it changes.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It no longer counts, is being amended already, or no reason is given.
    """
    require(user, Action.SIGN_RECORD)
    coupon = Coupon.objects.select_for_update().get(pk=record.coupon_id)
    record = QualificationRecord.objects.get(pk=record.pk)
    record.document()  # a damaged record is not amended but looked into
    if record.void or record.superseded:
        raise ConflictError(
            tr("Record {number} no longer counts: there is nothing to amend.", number=record.number)
        )
    there = Amendment.objects.filter(of=record).select_related("coupon").first()
    if there is not None:
        raise ConflictError(
            tr(
                "Record {number} is being amended already, as {number2}.",
                number=record.number,
                number2=there.coupon.number,
            )
        )
    if not reason.strip():
        raise ConflictError(
            tr("State what is wrong."),
            errors=[{"path": "reason", "message": tr("state what is wrong"), "value": ""}],
        )
    copy = Coupon.objects.create(
        job_id=coupon.job_id,
        revision_id=coupon.revision_id,
        number=amended_number(coupon.number),
        status=coupon.status,
        procedure_document=coupon.procedure_document,
        piece=coupon.piece,
        people=coupon.people,
        certificate=coupon.certificate,
        tested_to=coupon.tested_to,
        created_by=user,
    )
    _copy_log(coupon, copy)
    _copy_tests(coupon, copy)
    return Amendment.objects.create(
        of=record, coupon=copy, reason=reason.strip(), by=user, name=user.shown_name
    )


def _values(row: Any, *without: str) -> dict[str, Any]:
    """All columns of a row but its key and those named."""
    return {
        field.attname: getattr(row, field.attname)
        for field in row._meta.concrete_fields
        if not field.primary_key and field.attname not in without
    }


def _copy_log(coupon: Coupon, copy: Coupon) -> None:
    for row in coupon.passes.prefetch_related("photos", "recorded"):
        made = PassLog.objects.create(
            **{
                **_values(row, "coupon_id", "client_id", "version"),
                "coupon_id": copy.pk,
                "client_id": uuid4(),
            }
        )
        for photo in row.photos.all():
            PassPhoto.objects.create(
                **{**_values(photo, "row_id", "client_id"), "row_id": made.pk, "client_id": uuid4()}
            )
        for part in row.recorded.all():
            RecordedPass.objects.create(**{**_values(part, "row_id"), "row_id": made.pk})


def _copy_tests(coupon: Coupon, copy: Coupon) -> None:
    old = list(coupon.specimens.order_by("id"))
    made = {
        one.pk: Specimen.objects.create(
            **_values(one, "coupon_id", "version", "retest_of_id"), coupon_id=copy.pk
        )
        for one in old
    }
    for one in old:
        if one.retest_of_id:
            Specimen.objects.filter(pk=made[one.pk].pk).update(retest_of=made[one.retest_of_id])
