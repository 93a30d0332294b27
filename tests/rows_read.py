"""After a whole run of tests/welding: every row of every code's tables was read by a rule.

A row that no rule reads is a promise in the code book that nothing keeps: correcting it would change no
answer. So the tables of the editions note each row that a rule looks at (the code book's own listing does
not count), and a run of all of ``tests/welding`` fails while a row was never looked at. Part of the tests
asks nothing. It works across the workers of pytest-xdist.
"""

from __future__ import annotations

import sys
from functools import cache
from pathlib import Path
from typing import Any

import pytest

from welding.codebook import table

CORE = Path(__file__).parent / "welding"
EDITIONS = "welding.editions."
LISTINGS = ("codebook.py", "book.py")
"""Files that show or correct every row and judge by none."""
PASSED_OVER = ("rows_read.py", "table.py")
"""Files between a row and whoever looks at it."""

read: set[tuple[str, str]] = set()
known: set[tuple[str, str]] = set()
_state: dict[str, Any] = {"whole": False}


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
        read.add((table_id, key))


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
            known.add((found.id, str(plain[found.key])))
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


def pytest_collection_finish(session: pytest.Session) -> None:
    """Whether all of tests/welding is run, and not a part of it."""
    chosen = {item.path for item in session.items}
    part = session.config.getoption("keyword") or session.config.getoption("markexpr")
    named = any("::" in word for word in session.config.args)
    _state["whole"] = not part and not named and chosen >= set(CORE.rglob("test_*.py"))


@pytest.hookimpl(optionalhook=True)
def pytest_testnodedown(node: Any) -> None:
    """Take over what a worker of pytest-xdist noted."""
    noted = getattr(node, "workeroutput", {}).get("rows_read")
    if noted:
        read.update(map(tuple, noted["read"]))
        known.update(map(tuple, noted["known"]))
        _state["whole"] = _state["whole"] or noted["whole"]


@pytest.hookimpl(trylast=True)
def pytest_sessionfinish(session: pytest.Session, exitstatus: int) -> None:
    """Fail a run of the whole core that left rows unread."""
    output = getattr(session.config, "workeroutput", None)
    if output is not None:
        output["rows_read"] = {"read": sorted(read), "known": sorted(known), "whole": _state["whole"]}
    elif _state["whole"] and exitstatus == 0 and known - read:
        session.exitstatus = pytest.ExitCode.TESTS_FAILED


def pytest_terminal_summary(terminalreporter: Any) -> None:
    """Name the rows."""
    if _state["whole"] and known - read:
        terminalreporter.section("rows of a code's tables that no rule reads")
        for table_id, key in sorted(known - read):
            terminalreporter.line(f"{table_id}: {key}")
