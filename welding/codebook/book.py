"""The book: an organisation's confirmations and corrections of the numbers in the code tables.

A number's id is ``<table id>/<row>/<column>``. The book in force is laid over every table while an answer is
computed; outside of ``using`` the tables stand as they were entered.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from functools import cached_property, lru_cache, wraps
from typing import Any, Literal, ParamSpec, TypeVar

from welding.language import language, tr, usage

Action = Literal["confirm", "correct"]
P = ParamSpec("P")
R = TypeVar("R")


@dataclass(frozen=True, slots=True, kw_only=True)
class Correction:
    """What the owner of a copy says of one number.

    Attributes:
        id: Id of the number.
        action: ``confirm``: it stands as printed; ``correct``: ``value`` is what is printed.
        value: The corrected value; of the kind that the table has there.
    """

    id: str
    action: Action
    value: Any = None


@dataclass(frozen=True)
class Book:
    """Corrections by the id of their number."""

    corrections: Mapping[str, Correction] = field(default_factory=dict)

    @cached_property
    def by_table(self) -> dict[str, dict[tuple[str, str], Correction]]:
        """Corrections by table, then by row and column."""
        found: dict[str, dict[tuple[str, str], Correction]] = {}
        for one in self.corrections.values():
            table, row, column = split_id(one.id)
            found.setdefault(table, {})[row, column] = one
        return found

    @cached_property
    def digest(self) -> str:
        """SHA-256 over the corrections, the same for the same corrections in any order."""
        plain = [[one.id, one.action, one.value] for _, one in sorted(self.corrections.items())]
        return hashlib.sha256(json.dumps(plain, ensure_ascii=False).encode()).hexdigest()


AS_ENTERED = Book()
_IN_FORCE: ContextVar[Book] = ContextVar("book", default=AS_ENTERED)


def split_id(number_id: str) -> tuple[str, str, str]:
    """Table, row and column of a number's id.

    Raises:
        ValueError: It has not three parts.

    Example:
        >>> split_id("aws_d1_1_2020.groove_tests/plate-thin/max_factor")
        ('aws_d1_1_2020.groove_tests', 'plate-thin', 'max_factor')
    """
    parts = number_id.split("/")
    if len(parts) < 3:
        raise ValueError(
            tr("{number_id!r} is no id of a number; it reads table/row/column", number_id=number_id)
        )
    return parts[0], "/".join(parts[1:-1]), parts[-1]


def in_force() -> Book:
    """The book in force here."""
    return _IN_FORCE.get()


@contextmanager
def using(book: Book) -> Iterator[None]:
    """Lay a book over the tables for the length of a ``with`` block."""
    token = _IN_FORCE.set(book)
    try:
        yield
    finally:
        _IN_FORCE.reset(token)


LANGUAGES_KEPT = 4
"""English and one more language, each in the terms of two usages."""


def by_book(most: int) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Keep answers of a function that reads tables, apart for each book: a correction is heard at once.

    Answers may hold sentences, so they are kept apart for each language and usage of terms, too.

    Args:
        most: How many answers are kept over all books; a look at a correction is a book of its own.
    """

    def kept_apart(call: Callable[P, R]) -> Callable[P, R]:
        @lru_cache(maxsize=most * LANGUAGES_KEPT)
        def answer(_: tuple[str, str, str], *args: P.args, **words: P.kwargs) -> R:
            return call(*args, **words)

        @wraps(call)
        def asked(*args: P.args, **words: P.kwargs) -> R:
            return answer((_IN_FORCE.get().digest, language(), usage()), *args, **words)  # type: ignore[arg-type]

        return asked

    return kept_apart
