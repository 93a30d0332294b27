"""Log a pass, correct it, strike it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from uuid import UUID

from api.errors import ConflictError, InvalidError, StaleError
from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon, PassLog
from apps.coupons.rows import to_columns, to_plain, to_record
from apps.coupons.services.hold import held, held_open
from welding.documents.codec import PIECE, PROCEDURE
from welding.documents.coupon import Flag, PassRecord
from welding.evaluate.fit_up import flags_of, with_flags
from welding.evaluate.one_pass import evaluate_pass
from welding.language import in_source_language, tr, tr_noop


@dataclass(frozen=True, slots=True)
class DeviceClock:
    """What the clock of the sending device says: now, and when the pass was saved on it."""

    now: datetime
    saved_at: datetime | None = None


MOST_WAITED = timedelta(days=7)
"""A pass that claims to have waited longer on its device is dated by its arrival."""


@transaction.atomic
def log_pass(
    user: User, coupon: Coupon, client_id: UUID, record: PassRecord, clock: DeviceClock | None = None
) -> PassLog:
    """Log a pass once; the same ``client_id`` again gives the row that is there.

    The clock that counts is the server's: a pass that waited in the browser is dated back by the time
    that it waited, a week at most and never to before the coupon was started; what the device said is
    noted. What must stay on the record is flagged here, whatever the sender says of flags.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The pass number is logged already by someone else, the log is closed, the record is
            signed, or the ``client_id`` was used for another entry.
    """
    require(user, Action.LOG_PASS)
    there = _sent_before(coupon, client_id, record)
    if there:
        return there
    coupon = held_open(coupon)
    try:
        with transaction.atomic():
            return PassLog.objects.create(
                coupon=coupon,
                client_id=client_id,
                logged_by=user,
                logged_name=user.shown_name,
                **_moment(coupon, clock),
                **to_columns(_flagged(coupon, record, ())),
            )
    except IntegrityError:
        twin = _sent_before(coupon, client_id, record)
        if twin:  # the same entry arrived twice at once
            return twin
        other = PassLog.objects.filter(coupon=coupon, number=record.number, struck=False).first()
        who = other.logged_name if other else "someone"
        raise ConflictError(
            tr(
                "Pass {number} is in the log already, by {who}. What you typed is kept: give it "
                "another number, or correct that entry.",
                number=record.number,
                who=who,
            ),
            errors=[{"path": "number", "message": tr("logged already"), "value": str(record.number)}],
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
    coupon = held_open(row.coupon)
    now = timezone.now()
    try:
        with transaction.atomic():
            flagged = _flagged(coupon, record, to_record(row).flags)
            changed = PassLog.objects.filter(pk=row.pk, version=version, struck=False).update(
                **to_columns(flagged),
                version=version + 1,
                changed_at=now,
                corrected_by=user,
                corrected_name=user.shown_name,
                corrected_at=now,
            )
    except IntegrityError:
        raise ConflictError(
            tr("Pass {number} is in the log already.", number=record.number),
            errors=[{"path": "number", "message": tr("logged already"), "value": str(record.number)}],
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
    held_open(row.coupon)
    if not reason.strip():
        raise InvalidError(
            tr("Say why the entry is voided."),
            errors=[{"path": "reason", "message": tr("say why"), "value": ""}],
        )
    changed = PassLog.objects.filter(pk=row.pk, version=version, struck=False).update(
        struck=True,
        struck_reason=reason.strip(),
        corrected_by=user,
        corrected_name=user.shown_name,
        corrected_at=timezone.now(),
        version=version + 1,
        changed_at=timezone.now(),
    )
    row.refresh_from_db()
    if not changed:
        _stale(row)
    return row


@transaction.atomic
def explain_flag(user: User, row: PassLog, version: int, rule: str, text: str) -> PassLog:
    """Explain a flag of a pass. It stays; an explanation may be replaced, the trail keeps the old one.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: There is no such flag, or nothing is said.
        StaleError: Someone changed or struck the pass in the meantime.
        ConflictError: The record is signed.
    """
    require(user, Action.LOG_PASS)
    held(row.coupon)
    record = to_record(row)
    if not text.strip():
        raise InvalidError(
            tr("Say what happened."), errors=[{"path": "text", "message": tr("say it"), "value": ""}]
        )
    if rule not in {one.rule for one in record.flags}:
        raise InvalidError(tr("Pass {number} has no flag {rule}.", number=row.number, rule=rule))
    flags = tuple(
        replace(one, explanation=text.strip(), explained_by=user.shown_name) if one.rule == rule else one
        for one in record.flags
    )
    changed = PassLog.objects.filter(pk=row.pk, version=version, struck=False).update(
        rest=to_columns(replace(record, flags=flags))["rest"], version=version + 1, changed_at=timezone.now()
    )
    row.refresh_from_db()
    if not changed:
        _stale(row)
    return row


@in_source_language
def _flagged(coupon: Coupon, record: PassRecord, before: tuple[Flag, ...]) -> PassRecord:
    """The record with the flags that it earns; those that stood before stay."""
    procedure = PROCEDURE.take(coupon.procedure_document)
    bare = replace(record, flags=())
    earned = flags_of(evaluate_pass(procedure, bare, piece=PIECE.take(coupon.piece)).findings)
    now = timezone.now().isoformat(timespec="seconds")
    return replace(bare, flags=with_flags(before, tuple(replace(one, at=now) for one in earned)))


def _sent_before(coupon: Coupon, client_id: UUID, record: PassRecord) -> PassLog | None:
    """The row of an entry that was sent before.

    Raises:
        ConflictError: The id belongs to another entry: it must not be acknowledged in this one's place.
    """
    there = PassLog.objects.select_related("coupon").filter(client_id=client_id).first()
    if there is None:
        return None
    # Corrected since, it differs rightly.
    other = there.version == 1 and replace(to_record(there), flags=()) != replace(record, flags=())
    if there.coupon_id != coupon.pk or other:
        raise ConflictError(
            tr(
                "This entry was sent before as pass {number} of {number2}, with other values. "
                "What you typed is kept: correct that entry, or log it anew.",
                number=there.number,
                number2=there.coupon.number,
            ),
            current={"pass": to_plain(there)},
        )
    return there


def _moment(coupon: Coupon, clock: DeviceClock | None) -> dict[str, object]:
    now = timezone.now()
    if clock is None:
        return {"ended_at": now}
    offset = clock.now - now
    waited = max(clock.now - clock.saved_at, timedelta()) if clock.saved_at else timedelta()
    believed = waited <= MOST_WAITED and now - waited >= coupon.created_at
    return {
        "ended_at": now - waited if believed else now,
        "device_offset_s": offset.total_seconds(),
        "device_saved_at": clock.saved_at,
    }


def _stale(row: PassLog) -> None:
    said = tr_noop("Pass {number} was changed in the meantime.")
    if row.struck:
        said = tr_noop("Pass {number} was voided in the meantime.")
    raise StaleError(
        tr(said, number=row.number),
        current={"version": row.version, "pass": to_plain(row), "struck": row.struck},
    )
