"""Begin the next revision of a procedure as a draft."""

from __future__ import annotations

from api.errors import ConflictError
from django.db import IntegrityError, transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.procedures.models import Procedure, Revision
from apps.procedures.services.columns import columns_of, named
from welding.language import tr


def next_letter(letter: str) -> str:
    """The letter after this one: A, B … Z, AA, AB …"""
    if not letter:
        return "A"
    if letter[-1] != "Z":
        return letter[:-1] + chr(ord(letter[-1]) + 1)
    return next_letter(letter[:-1]) + "A"


def begin_revision(user: User, procedure: Procedure) -> Revision:
    """Copy the newest revision into a new draft.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: There is a draft already.
    """
    require(user, Action.WRITE_PROCEDURE)
    newest = procedure.revisions.order_by("-id")[0]
    letter = next_letter(newest.letter)
    document = named(newest.contents(), procedure.number, letter)
    try:
        with transaction.atomic():
            return Revision.objects.create(
                procedure=procedure, letter=letter, created_by=user, saved_by=user, **columns_of(document)
            )
    except IntegrityError:
        raise ConflictError(tr("{number} has a draft already.", number=procedure.number)) from None
