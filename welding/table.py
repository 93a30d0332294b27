"""Tables of numbers: one TOML file for one printed table, with its passport, loaded strictly."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, get_args

from welding.citation import Citation, Confidence, Provenance
from welding.errors import TableError

_TOP = {"id", "title", "source", "reading", "rows"}
_SOURCE = {"document", "edition", "clause", "provenance", "confidence", "notes"}
_READING = {"key", "columns", "row_count", "column_sums"}
_CONFIDENCE = get_args(Confidence)


@dataclass(frozen=True, slots=True)
class Table:
    """A loaded table: its passport and its rows in printed order."""

    id: str
    title: str
    citation: Citation
    notes: tuple[str, ...]
    rows: tuple[Mapping[str, Any], ...]

    @property
    def unchecked(self) -> tuple[str, ...]:
        """The table's id as a one-tuple while nobody has compared it with the printed text."""
        return (self.id,) if self.citation.provenance == "memory" else ()

    def citation_of(self, row: Mapping[str, Any]) -> Citation:
        """The table's citation with the confidence of this row, where the row has its own."""
        confidence = row.get("confidence", self.citation.confidence)
        c = self.citation
        return Citation(
            document=c.document,
            edition=c.edition,
            clause=c.clause,
            provenance=c.provenance,
            confidence=confidence,
        )


@cache
def load_table(package: str, name: str) -> Table:
    """Load ``<package>/tables/<name>.toml``.

    Every row has exactly the columns the ``reading`` section announces (plus an optional
    ``confidence``); the number of rows and the sums of numeric columns are recorded in the file,
    so that a slip of the keyboard is an error at loading.

    Raises:
        TableError: A key is unknown or missing, a row is odd, or a recorded sum does not hold.
    """
    text = (files(package) / "tables" / f"{name}.toml").read_text(encoding="utf-8")
    return parse_table(f"{package}/{name}", text)


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
        _keys(f"{where} row {index + 1}", row, columns | {"confidence"}, {reading["key"]})
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
    return Table(raw["id"], raw["title"], citation, tuple(source.get("notes", ())), tuple(rows))


def _keys(where: str, found: Mapping[str, Any], allowed: set[str], needed: set[str]) -> None:
    unknown = sorted(set(found) - allowed)
    missing = sorted(needed - set(found))
    if unknown:
        raise TableError(f"{where}: unknown {', '.join(unknown)}")
    if missing:
        raise TableError(f"{where}: missing {', '.join(missing)}")
