"""Tables of numbers: one TOML file for one printed table, with its passport, loaded strictly."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache, cached_property
from importlib.resources import files
from typing import Any, get_args

from welding.citation import Citation, Confidence, Provenance
from welding.codebook.book import Book, Correction, in_force
from welding.errors import TableError

_TOP = {"id", "title", "source", "reading", "rows"}
_SOURCE = {"document", "edition", "clause", "provenance", "confidence", "notes"}
_READING = {"key", "columns", "row_count", "column_sums"}
_OF_EVERY_ROW = {"confidence", "clause"}
_CONFIDENCE = get_args(Confidence)


@dataclass(frozen=True)
class Table:
    """A loaded table: its passport and its rows in printed order, corrections already laid over."""

    id: str
    title: str
    citation: Citation
    notes: tuple[str, ...]
    rows: tuple[Mapping[str, Any], ...]
    key: str = "row"
    corrections: Mapping[tuple[str, str], Correction] | None = None

    @cached_property
    def memo(self) -> dict[Any, Any]:
        """What others derived from rows of this table, by their own keys; a table never changes."""
        return {}

    @property
    def unchecked(self) -> tuple[str, ...]:
        """The table's id as a one-tuple while nobody has compared all of it with the printed text."""
        if self.citation.provenance != "memory" or self.confirmed:
            return ()
        return (self.id,)

    @property
    def confirmed(self) -> bool:
        """Whether every number was confirmed or corrected by the owner of a copy."""
        marks = self.corrections or {}
        return bool(marks) and all(
            (str(row[self.key]), column) in marks for row in self.rows for column in self.columns_of(row)
        )

    def row(self, key: str) -> Mapping[str, Any]:
        """The row with this key.

        Raises:
            KeyError: There is none.
        """
        rows: dict[str, Mapping[str, Any]] = self.memo.get("rows") or {
            str(row[self.key]): row for row in self.rows
        }
        self.memo["rows"] = rows
        return rows[key]

    def columns_of(self, row: Mapping[str, Any]) -> tuple[str, ...]:
        """Columns of a row that hold what was read: neither its key nor its confidence or clause."""
        return tuple(name for name in row if name != self.key and name not in _OF_EVERY_ROW)

    def number_id(self, row: Mapping[str, Any], column: str) -> str:
        """Id of one number, by which it is confirmed or corrected."""
        return f"{self.id}/{row[self.key]}/{column}"

    def correction_of(self, row: Mapping[str, Any], column: str) -> Correction | None:
        """What the owner of a copy said of this number."""
        return (self.corrections or {}).get((str(row[self.key]), column))

    def unchecked_of(self, row: Mapping[str, Any], *columns: str) -> tuple[str, ...]:
        """The row's id while any of these columns (of all, where none is named) is unconfirmed."""
        key = ("unchecked", row[self.key], columns)
        found: tuple[str, ...] | None = self.memo.get(key)
        if found is None:
            found = self.memo[key] = self._unchecked_of(row, columns)
        return found

    def _unchecked_of(self, row: Mapping[str, Any], columns: tuple[str, ...]) -> tuple[str, ...]:
        if self.citation.provenance != "memory":
            return ()
        asked = [name for name in columns if name in row] or self.columns_of(row)
        done = all(self.correction_of(row, name) for name in asked)
        return () if done else (f"{self.id}/{row[self.key]}",)

    def citation_of(self, row: Mapping[str, Any], *columns: str) -> Citation:
        """The table's citation with the clause and confidence of this row, where the row has its own.

        Its provenance is ``confirmed`` once all these columns (or all of the row) were.
        """
        c = self.citation
        marked = self.corrections and not self.unchecked_of(row, *columns)
        return Citation(
            document=c.document,
            edition=c.edition,
            clause=row.get("clause", c.clause),
            provenance="confirmed" if marked else c.provenance,
            confidence="high" if marked else row.get("confidence", c.confidence),
        )


def load_table(package: str, name: str) -> Table:
    """Load ``<package>/tables/<name>.toml``, the book in force laid over it.

    Every row has exactly the columns the ``reading`` section announces (plus an optional
    ``confidence`` and ``clause``); the number of rows and the sums of numeric columns are recorded in the
    file, so that a slip of the keyboard is an error at loading.

    Raises:
        TableError: A key is unknown or missing, a row is odd, or a recorded sum does not hold.
    """
    table = _as_entered(package, name)
    book = in_force()
    return _corrected(table, book) if table.id in book.by_table else table


@cache
def _as_entered(package: str, name: str) -> Table:
    text = (files(package) / "tables" / f"{name}.toml").read_text(encoding="utf-8")
    return parse_table(f"{package}/{name}", text)


_LAID: dict[tuple[str, str], Table] = {}
"""Corrected tables by table and book; a book is a few tables, and the newest books are what is asked for."""
_MOST_LAID = 400


def _corrected(table: Table, book: Book) -> Table:
    found = _LAID.get((table.id, book.digest))
    if found is None:
        if len(_LAID) >= _MOST_LAID:
            _LAID.clear()
        found = _LAID[table.id, book.digest] = _lay(table, book.by_table[table.id])
    return found


def _lay(table: Table, marks: Mapping[tuple[str, str], Correction]) -> Table:
    rows = []
    for row in table.rows:
        changed = {
            column: one.value
            for (key, column), one in marks.items()
            if key == str(row[table.key]) and one.action == "correct"
        }
        rows.append({**row, **changed} if changed else row)
    return replace(table, rows=tuple(rows), corrections=marks)


def parse_table(where: str, text: str) -> Table:
    """Parse and check the text of a table file; ``where`` names it in errors."""
    try:
        raw = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        raise TableError(f"{where}: {error}") from error
    _keys(where, raw, _TOP, _TOP)
    source, reading = raw["source"], raw["reading"]
    _keys(f"{where} [source]", source, _SOURCE, _SOURCE - {"notes"})
    _keys(f"{where} [reading]", reading, _READING, {"key", "columns", "row_count"})
    if source["provenance"] not in get_args(Provenance):
        raise TableError(f"{where}: provenance {source['provenance']!r} is not known")
    if source["confidence"] not in _CONFIDENCE:
        raise TableError(f"{where}: confidence {source['confidence']!r} is not known")
    rows = raw["rows"]
    if len(rows) != reading["row_count"]:
        raise TableError(f"{where}: {len(rows)} rows, {reading['row_count']} announced")
    columns = set(reading["columns"])
    for index, row in enumerate(rows):
        _keys(f"{where} row {index + 1}", row, columns | _OF_EVERY_ROW, {reading["key"]})
        if row.get("confidence", "high") not in _CONFIDENCE:
            raise TableError(f"{where} row {index + 1}: confidence {row['confidence']!r}")
    keys = [row[reading["key"]] for row in rows]
    if len(set(map(str, keys))) != len(keys):
        raise TableError(f"{where}: a key stands twice")
    for column, total in reading.get("column_sums", {}).items():
        found = sum(row[column] for row in rows if column in row)
        if abs(found - total) > 1e-9:
            raise TableError(f"{where}: column {column} sums to {found:g}, {total:g} recorded")
    citation = Citation(
        document=source["document"],
        edition=source["edition"],
        clause=source["clause"],
        provenance=source["provenance"],
        confidence=source["confidence"],
    )
    return Table(
        raw["id"], raw["title"], citation, tuple(source.get("notes", ())), tuple(rows), key=reading["key"]
    )


def _keys(where: str, found: Mapping[str, Any], allowed: set[str], needed: set[str]) -> None:
    unknown = sorted(set(found) - allowed)
    missing = sorted(needed - set(found))
    if unknown:
        raise TableError(f"{where}: unknown {', '.join(unknown)}")
    if missing:
        raise TableError(f"{where}: missing {', '.join(missing)}")
