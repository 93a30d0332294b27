"""Recorders: add one, let it sign in, retire it."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta

from api.errors import ConflictError, InvalidError
from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.recordings.models import Recorder
from welding.language import tr

HEARD_EVERY = timedelta(seconds=15)


def hash_of(token: str) -> str:
    """What is kept of a token: it is long and random, so that a plain hash guards it."""
    return hashlib.sha256(token.encode()).hexdigest()


def add_recorder(user: User, name: str, token: str | None = None) -> tuple[Recorder, str]:
    """Add a recorder; its token is told this once.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: The name is empty.
        ConflictError: The name is taken.
    """
    require(user, Action.KEEP_LIBRARY)
    name = name.strip()[:100]
    if not name:
        raise InvalidError(
            tr("Give it a name."), errors=[{"path": "name", "message": tr("give it a name"), "value": ""}]
        )
    token = token or secrets.token_urlsafe(32)
    try:
        with transaction.atomic():
            return Recorder.objects.create(name=name, token_hash=hash_of(token), created_by=user), token
    except IntegrityError:
        raise ConflictError(
            tr("There is a recorder {name} already.", name=name),
            errors=[{"path": "name", "message": "taken", "value": name}],
        ) from None


def recorder_of(token: str) -> Recorder | None:
    """The recorder that signs in with a token; noted that it was heard."""
    found = Recorder.objects.filter(token_hash=hash_of(token), retired=False).first()
    now = timezone.now()
    # A chunk comes every second; that it was heard is written now and then.
    if found and (found.heard_at is None or now - found.heard_at > HEARD_EVERY):
        Recorder.objects.filter(pk=found.pk).update(heard_at=now)
    return found


def retire_recorder(user: User, recorder: Recorder) -> Recorder:
    """Refuse the recorder's token from now on; its recordings stay."""
    require(user, Action.KEEP_LIBRARY)
    recorder.retired = True
    recorder.save(update_fields=["retired"])
    return recorder
