"""After a whole run of tests/welding: every row of every code's tables was read by a rule.

A row that no rule reads is a promise in the code book that nothing keeps: correcting it would change no
answer. So the tables of the editions note each row that a rule looks at (the code book's own listing does
not count), and a run of all of ``tests/welding`` fails while a row was never looked at. Part of the tests
asks nothing. It works across the workers of pytest-xdist.
"""

from __future__ import annotations

import sys
from functools import cache
from typing import Any

import pytest

from tests.whole_run import Noted
from welding.codebook import table

EDITIONS = "welding.editions."
LISTINGS = ("contents.py", "book.py")
"""Files that show or correct every row and judge by none."""
PASSED_OVER = ("rows_read.py", "table.py")
"""Files between a row and whoever looks at it."""

read = Noted("rows_read")
known = Noted("rows_known")


class _Row(dict):
    """A row that notes that it was looked at beyond its key."""

    __slots__ = ("key", "table")

    def _note(self, column: str) -> None:
        if column != self.key:
            note(self.table, str(dict.__getitem__(self, self.key)))

    def __getitem__(self, column):
        self._note(column)
        return dict.__getitem__(self, column)

    def get(self, column, default=None):
        self._note(column)
        return dict.get(self, column, default)


def note(table_id: str, key: str) -> None:
    """Remember the row, unless the caller only lists rows."""
    frame = sys._getframe(1)
    while frame and frame.f_code.co_filename.endswith(PASSED_OVER):
        frame = frame.f_back
    if frame and not frame.f_code.co_filename.endswith(LISTINGS):
        read.noted.add((table_id, key))


def _noting(entered):
    @cache
    def load(package: str, name: str):
        found = entered(package, name)
        if not package.startswith(EDITIONS):
            return found
        rows = []
        for plain in found.rows:
            row = _Row(plain)
            row.table, row.key = found.id, found.key
            known.noted.add((found.id, str(plain[found.key])))
            rows.append(row)
        return table.replace(found, rows=tuple(rows))

    return load


def _row_noted(get_row):
    def row(self, key):
        found = get_row(self, key)
        if isinstance(found, _Row):
            note(self.id, str(key))
        return found

    return row


def _named_noted(unchecked_of):
    def names(self, row, *columns):
        if isinstance(row, _Row):
            note(self.id, str(row[self.key]))
        return unchecked_of(self, row, *columns)

    return names


def pytest_configure() -> None:
    """Let the editions' tables note what is read; before any of them is loaded."""
    table._as_entered = _noting(table._as_entered.__wrapped__)
    table.Table.row = _row_noted(table.Table.row)
    table.Table.unchecked_of = _named_noted(table.Table.unchecked_of)


def lacking() -> list[str]:
    """Rows that no rule looked at."""
    return [f"{table_id}: {key}" for table_id, key in sorted(known.noted - read.noted)]


@pytest.hookimpl(optionalhook=True)
def pytest_testnodedown(node: Any) -> None:
    """Take over what a worker of pytest-xdist noted."""
    read.take_over(node)
    known.take_over(node)


@pytest.hookimpl(trylast=True)
def pytest_sessionfinish(session: pytest.Session, exitstatus: int) -> None:
    """Fail a run of the whole core that left rows unread."""
    read.finish(session, exitstatus, lacking)
    known.finish(session, exitstatus, lacking)


def pytest_terminal_summary(terminalreporter: Any) -> None:
    """Name the rows."""
    read.tell(terminalreporter, "rows of a code's tables that no rule reads", lacking)
