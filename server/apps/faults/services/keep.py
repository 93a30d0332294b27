"""Keep what cured a fault, and words for a symptom that nobody knows."""

from __future__ import annotations

from api.errors import ConflictError, InvalidError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import PassLog
from apps.faults.models import Cure, UnknownSymptom
from apps.procedures.models import Revision
from welding.faults.finder import remedies_of
from welding.language import tr


@transaction.atomic
def keep_cure(
    user: User,
    cause: str,
    remedy: int,
    note: str,
    row: PassLog | None = None,
    revision: Revision | None = None,
) -> Cure:
    """Keep a cause that was found and the remedy that cured it, in the words of the table.

    Args:
        user: Who says so.
        cause: Row of the table of causes.
        remedy: Which of its remedies, counted from 0.
        note: What else is to be known.
        row: The pass it was seen on.
        revision: The procedure it was seen with, where no pass is known.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: There is no such cause or remedy.
    """
    require(user, Action.LOG_TRIAL)
    found = remedies_of(cause)
    if found is None or not 0 <= remedy < len(found.remedies):
        raise InvalidError(tr("There is no such cause or remedy."))
    return Cure.objects.create(
        symptom=found.symptom,
        cause=cause,
        remedy=found.remedies[remedy][:400],
        note=note.strip()[:400],
        row=row,
        revision=revision or (row.coupon.revision if row else None),
        entered_by=user,
    )


@transaction.atomic
def strike_cure(user: User, cure_id: int, reason: str) -> Cure:
    """Void a cure that was entered wrongly; it stays with its reason and counts no more.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It is void already, or no reason is given.
    """
    require(user, Action.LOG_TRIAL)
    cure = Cure.objects.select_for_update().get(pk=cure_id)
    if cure.struck_because:
        raise ConflictError(tr("It is void already."))
    if not reason.strip():
        raise ConflictError(
            tr("Say why it is voided."),
            errors=[{"path": "reason", "message": tr("a reason is needed"), "value": ""}],
        )
    cure.struck_because = reason.strip()[:400]
    cure.save(update_fields=["struck_because"])
    return cure


@transaction.atomic
def keep_words(user: User, words: str, row: PassLog | None = None) -> UnknownSymptom:
    """Keep words for a symptom that nobody knows, for the engineer.

    Raises:
        NotAllowedError: The role does not allow it.
    """
    require(user, Action.LOG_TRIAL)
    return UnknownSymptom.objects.create(words=words, row=row, entered_by=user)


@transaction.atomic
def settle_words(user: User, words_id: int, answer: str) -> UnknownSymptom:
    """Say what the words meant.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: Somebody answered already.
    """
    require(user, Action.KEEP_LIBRARY)
    one = UnknownSymptom.objects.select_for_update().get(pk=words_id)
    if one.settled_as:
        raise ConflictError(tr("It is answered already."))
    one.settled_as, one.settled_by = answer, user
    one.save(update_fields=["settled_as", "settled_by"])
    return one
