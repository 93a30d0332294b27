"""What a sheet says: in the reader's language, and beside it in a second one for whoever welds by it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from welding.language import speaking, tr, tr_noop

STAGES = (
    *(tr_noop("draft"), tr_noop("trial"), tr_noop("tested"), tr_noop("prequalified"), tr_noop("qualified")),
    *(tr_noop("released"), tr_noop("superseded"), tr_noop("withdrawn")),
)
"""Stages of a revision, which a sheet names."""
STATES = (tr_noop("welding"), tr_noop("welded"))
"""States of a coupon, which its sheet names."""
_second: ContextVar[str] = ContextVar("second", default="")


@contextmanager
def second_language(language: str) -> Iterator[None]:
    """Say headings, values in words and cautions in this language too; in none with an empty string."""
    token = _second.set(language)
    try:
        yield
    finally:
        _second.reset(token)


def in_both(say: Callable[[], str]) -> str:
    """What a function says, and after a stroke what it says in the second language, where that differs."""
    first = say()
    if not _second.get():
        return first
    with speaking(_second.get()):
        other = say()
    same = other.replace(",", ".") == first.replace(",", ".")  # a number alone is not said twice
    return first if same else f"{first} / {other}"


def say(template: str, /, **values: object) -> str:
    """A sentence of a catalogue, in both languages of the sheet."""
    return in_both(lambda: tr(template, **values))
