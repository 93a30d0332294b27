"""Confirm, correct or revert a number; take a book of corrections in."""

from __future__ import annotations

from typing import Any

from api.errors import InvalidError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.codebook.models import Entry, Said
from apps.codebook.queries import newest_entries, plain
from welding.codebook.book import Correction
from welding.codebook.contents import problem_of
from welding.documents.corrections import BookCorrections
from welding.language import tr


def say(user: User, number_id: str, said: str, value: Any, reason: str) -> Entry:
    """Say something of a number.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: No reason, no such number, a value of another kind, or nothing to revert.
    """
    require(user, Action.CORRECT_BOOK)
    if not reason.strip():
        raise InvalidError(tr("State the reason."), errors=[_at("reason", tr("state what was compared"), "")])
    if said == Said.REVERT:
        if number_id not in newest_entries():
            raise InvalidError(
                tr("Nothing was said of this number."), errors=[_at("id", tr("nothing to revert"), number_id)]
            )
        return Entry.objects.create(number_id=number_id, said=said, reason=reason.strip(), by=user)
    check(number_id, said, value)
    return Entry.objects.create(
        number_id=number_id,
        said=said,
        value=value if said == Said.CORRECT else None,
        reason=reason.strip(),
        by=user,
    )


def check(number_id: str, said: str, value: Any) -> Correction:
    """The correction as the core takes it.

    Raises:
        InvalidError: No such number, or a value of another kind.
    """
    correction = Correction(
        id=number_id,
        action="correct" if said == Said.CORRECT else "confirm",
        value=plain(value) if said == Said.CORRECT else None,
    )
    problem = problem_of(correction)
    if problem is not None:
        raise InvalidError(problem.message, errors=[_at(problem.path, problem.message, problem.value)])
    return correction


def _at(path: str, message: str, value: str) -> dict[str, str]:
    return {"path": path, "message": message, "value": value}


@transaction.atomic
def take_corrections(user: User, document: BookCorrections) -> int:
    """Take a book of corrections in, whole or not at all; what stands so already is left alone.

    Returns:
        How many entries were made.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: One of them does not fit its number.
    """
    require(user, Action.CORRECT_BOOK)
    standing = newest_entries()
    made = 0
    for index, one in enumerate(document.corrections):
        there = standing.get(one.id)
        if there is not None and there.said == one.action and there.value == one.value:
            continue
        try:
            check(one.id, one.action, one.value)
        except InvalidError as error:
            raise InvalidError(
                tr("Entry {index}: {detail}", index=index + 1, detail=error.detail),
                errors=[{**item, "path": f"corrections.{index}.{item['path']}"} for item in error.errors],
            ) from None
        Entry.objects.create(
            number_id=one.id,
            said=one.action,
            value=one.value if one.action == "correct" else None,
            reason=f"{one.reason} (imported{f', said by {one.by}' if one.by else ''})",
            by=user,
        )
        made += 1
    return made
