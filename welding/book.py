"""The book: an organisation's confirmations and corrections of the numbers in the code tables.

A number's id is ``<table id>/<row>/<column>``. The book in force is laid over every table while an answer is
computed; outside of ``using`` the tables stand as they were entered.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Literal

Action = Literal["confirm", "correct"]


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
        raise ValueError(f"{number_id!r} is no id of a number; it reads table/row/column")
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
