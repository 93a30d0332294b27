"""The book in force, from its entries."""

from __future__ import annotations

from typing import Any

from django.db.models import Max

from apps.codebook.models import Entry, Said
from welding.codebook.book import AS_ENTERED, Book, Correction

_KEPT: dict[int, Book] = {}


def newest_entries() -> dict[str, Entry]:
    """The newest entry of every number, reverted ones left out."""
    newest = Entry.objects.order_by("number_id", "-id").distinct("number_id").select_related("by")
    return {one.number_id: one for one in newest if one.said != Said.REVERT}


def current_book() -> Book:
    """The book as it stands now; built anew only when something was said since."""
    last: int | None = Entry.objects.aggregate(last=Max("id"))["last"]
    if last is None:
        return AS_ENTERED
    found = _KEPT.get(last)
    if found is None:
        _KEPT.clear()
        found = _KEPT[last] = book_of(newest_entries())
    return found


def book_of(entries: dict[str, Entry]) -> Book:
    """Entries as the core's book."""
    return Book(
        {
            number_id: Correction(id=number_id, action=_action(one), value=plain(one.value))
            for number_id, one in entries.items()
        }
    )


def _action(one: Entry) -> Any:
    return str(one.said)


def plain(value: Any) -> Any:
    """Lists as tuples, so that a book can be compared."""
    return tuple(plain(item) for item in value) if isinstance(value, list) else value
