"""Enter a trial."""

from __future__ import annotations

from dataclasses import replace

from api.errors import ConflictError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.trials.models import TrialEntry
from welding.documents.codec import TRIAL
from welding.documents.intent import Trial
from welding.language import tr


@transaction.atomic
def enter_trial(user: User, trial: Trial) -> TrialEntry:
    """Keep a trial for whoever plans the same next; without a day of its own it counts as of today.

    Raises:
        NotAllowedError: The role does not allow it.
        DocumentError: The trial could not be read again.
    """
    require(user, Action.LOG_TRIAL)
    trial = replace(trial, made_on=trial.made_on or timezone.localdate().isoformat())
    return TrialEntry.objects.create(
        process=trial.process,
        position=trial.position,
        thickness_mm=trial.thickness_mm,
        verdict=trial.verdict,
        document=TRIAL.kept(trial),
        entered_by=user,
    )


@transaction.atomic
def strike_trial(user: User, entry_id: int, reason: str) -> TrialEntry:
    """Strike a trial that was entered wrongly; it stays with its reason and counts no more.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It is struck already, or no reason is given.
    """
    require(user, Action.LOG_TRIAL)
    entry = TrialEntry.objects.select_for_update().get(pk=entry_id)
    if entry.struck_because:
        raise ConflictError(tr("It is struck already."))
    if not reason.strip():
        raise ConflictError(
            tr("Say why it is struck."),
            errors=[{"path": "reason", "message": tr("a reason is needed"), "value": ""}],
        )
    entry.struck_because = reason.strip()[:400]
    entry.save(update_fields=["struck_because"])
    return entry
