"""Log a pass, correct it, strike it."""

from __future__ import annotations

from uuid import UUID

from api.errors import ConflictError, InvalidError, StaleError
from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon, PassLog, Status
from apps.coupons.rows import to_columns, to_plain
from welding.documents.coupon import PassRecord


def _require_open(coupon: Coupon) -> None:
    """Hold the coupon's row so that its log is not closed meanwhile; refuse if it is closed.

    Raises:
        ConflictError: The log is closed.
    """
    status = Coupon.objects.select_for_update().values_list("status", flat=True).get(pk=coupon.pk)
    if status != Status.WELDING:
        raise ConflictError(f"The log of {coupon.number} is closed. Open it again to change it.")


@transaction.atomic
def log_pass(user: User, coupon: Coupon, client_id: UUID, record: PassRecord) -> PassLog:
    """Log a pass once; the same ``client_id`` again gives the row that is there.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The pass number is logged already by someone else, or the log is closed.
    """
    require(user, Action.LOG_PASS)
    there = PassLog.objects.filter(client_id=client_id, coupon=coupon).first()
    if there:
        return there
    _require_open(coupon)
    try:
        with transaction.atomic():
            return PassLog.objects.create(
                coupon=coupon, client_id=client_id, logged_by=user, **to_columns(record)
            )
    except IntegrityError:
        twin = PassLog.objects.filter(client_id=client_id, coupon=coupon).first()
        if twin:  # the same entry arrived twice at once
            return twin
        other = PassLog.objects.filter(coupon=coupon, number=record.number, struck=False).first()
        who = other.logged_by.shown_name if other else "someone"
        raise ConflictError(
            f"Pass {record.number} is in the log already, by {who}. What you typed is kept: give it "
            "another number, or correct that entry.",
            errors=[{"path": "number", "message": "logged already", "value": str(record.number)}],
            current={"pass": to_plain(other)} if other else None,
        ) from None


@transaction.atomic
def correct_pass(user: User, row: PassLog, version: int, record: PassRecord) -> PassLog:
    """Replace a logged pass if ``version`` is still the one that stands.

    Raises:
        NotAllowedError: The role does not allow it.
        StaleError: Someone changed or struck it in the meantime.
        ConflictError: The new number is taken, or the log is closed.
    """
    require(user, Action.LOG_PASS)
    _require_open(row.coupon)
    try:
        with transaction.atomic():
            changed = PassLog.objects.filter(pk=row.pk, version=version, struck=False).update(
                **to_columns(record), version=version + 1, changed_at=timezone.now()
            )
    except IntegrityError:
        raise ConflictError(
            f"Pass {record.number} is in the log already.",
            errors=[{"path": "number", "message": "logged already", "value": str(record.number)}],
        ) from None
    row.refresh_from_db()
    if not changed:
        _stale(row)
    return row


@transaction.atomic
def strike_pass(user: User, row: PassLog, version: int, reason: str) -> PassLog:
    """Strike a logged pass; it stays in the trail and no longer counts.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: No reason is given.
        StaleError: Someone changed or struck it in the meantime.
        ConflictError: The log is closed.
    """
    require(user, Action.LOG_PASS)
    _require_open(row.coupon)
    if not reason.strip():
        raise InvalidError(
            "Say why the entry is struck.", errors=[{"path": "reason", "message": "say why", "value": ""}]
        )
    changed = PassLog.objects.filter(pk=row.pk, version=version, struck=False).update(
        struck=True, struck_reason=reason.strip(), version=version + 1, changed_at=timezone.now()
    )
    row.refresh_from_db()
    if not changed:
        _stale(row)
    return row


def _stale(row: PassLog) -> None:
    word = "struck" if row.struck else "changed"
    raise StaleError(
        f"Pass {row.number} was {word} in the meantime.",
        current={"version": row.version, "pass": to_plain(row), "struck": row.struck},
    )
