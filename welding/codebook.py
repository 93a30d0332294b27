"""The code book: every number of every edition with its id, its source, and what was said of it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from importlib.resources import files
from typing import Any

from welding.book import AS_ENTERED, Correction, split_id, using
from welding.catalogue import all_editions
from welding.errors import Problem, UnknownEntryError
from welding.table import Table, load_table


@dataclass(frozen=True, slots=True, kw_only=True)
class BookNumber:
    """One number, word or list of a table.

    Attributes:
        id: Its id.
        column: Its column.
        value: What stands now.
        entered: What was entered at first.
        status: ``memory``, ``published`` …; ``confirmed`` or ``corrected`` by the owner of a copy.
    """

    id: str
    column: str
    value: Any
    entered: Any
    status: str


@dataclass(frozen=True, slots=True, kw_only=True)
class BookRow:
    """A row with its numbers."""

    key: str
    clause: str
    confidence: str
    numbers: tuple[BookNumber, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class BookTable:
    """A table of an edition; ``earlier`` is its number in the edition before, where it is known."""

    id: str
    title: str
    document: str
    edition: str
    clause: str
    provenance: str
    notes: tuple[str, ...]
    rows: tuple[BookRow, ...]
    earlier: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class BookEdition:
    """An edition with its tables."""

    code: str
    title: str
    tables: tuple[BookTable, ...]


def editions() -> tuple[BookEdition, ...]:
    """Every edition with its tables, as the book in force has them."""
    return tuple(
        BookEdition(
            code=one.id,
            title=one.title,
            tables=tuple(
                _book_table(table, entered, one.earlier_number(table.citation.clause))
                for table, entered in tables_of(one.qualification.tables)
            ),
        )
        for one in all_editions().values()
    )


def tables_of(package: str) -> Iterator[tuple[Table, Table]]:
    """Tables of an edition, corrected and as entered."""
    folder = files(package) / "tables"
    for name in sorted(entry.name.removesuffix(".toml") for entry in folder.iterdir()):
        with using(AS_ENTERED):
            entered = load_table(package, name)
        yield load_table(package, name), entered


def _book_table(table: Table, entered: Table, earlier: str) -> BookTable:
    citation = table.citation
    return BookTable(
        id=table.id,
        title=table.title,
        document=citation.document,
        edition=citation.edition,
        clause=citation.clause,
        provenance=citation.provenance,
        notes=table.notes,
        rows=tuple(_book_row(table, row, old) for row, old in zip(table.rows, entered.rows, strict=True)),
        earlier=earlier,
    )


def _book_row(table: Table, row: Any, old: Any) -> BookRow:
    citation = table.citation_of(row)
    return BookRow(
        key=str(row[table.key]),
        clause=citation.clause,
        confidence=row.get("confidence", table.citation.confidence),
        numbers=tuple(
            BookNumber(
                id=table.number_id(row, column),
                column=column,
                value=row[column],
                entered=old[column],
                status=_status(table, row, column),
            )
            for column in table.columns_of(row)
        ),
    )


def _status(table: Table, row: Any, column: str) -> str:
    said = table.correction_of(row, column)
    if said is None:
        return table.citation.provenance
    return "confirmed" if said.action == "confirm" else "corrected"


def find_number(number_id: str) -> BookNumber:
    """A number by its id.

    Raises:
        UnknownEntryError: No edition has it.
    """
    try:
        table_id, row_key, column = split_id(number_id)
    except ValueError as error:
        raise UnknownEntryError(str(error)) from None
    for edition in all_editions().values():
        for table, entered in tables_of(edition.qualification.tables):
            if table.id != table_id:
                continue
            for row, old in zip(table.rows, entered.rows, strict=True):
                if str(row[table.key]) == row_key and column in table.columns_of(row):
                    return BookNumber(
                        id=number_id,
                        column=column,
                        value=row[column],
                        entered=old[column],
                        status=_status(table, row, column),
                    )
    raise UnknownEntryError(f"{number_id} is no number of the code book")


def problem_of(correction: Correction) -> Problem | None:
    """What is wrong with a correction; ``None`` where it may be laid over its table."""
    try:
        number = find_number(correction.id)
    except UnknownEntryError as error:
        return Problem("id", str(error), correction.id)
    if correction.action == "confirm":
        return None
    if not _same_kind(number.entered, correction.value):
        return Problem("value", f"should be {_kind_of(number.entered)}", str(correction.value))
    return None


def _same_kind(old: Any, new: Any) -> bool:
    if isinstance(old, bool) or isinstance(new, bool):
        return isinstance(old, bool) and isinstance(new, bool)
    if isinstance(old, (int, float)):
        return isinstance(new, (int, float)) and 0 <= new <= 1e6
    if isinstance(old, str):
        return isinstance(new, str) and bool(new.strip())
    if isinstance(old, (list, tuple)):
        return isinstance(new, (list, tuple)) and all(
            any(_same_kind(one, item) for one in old) if old else True for item in new
        )
    return False


def _kind_of(old: Any) -> str:
    if isinstance(old, bool):
        return "yes or no"
    if isinstance(old, (int, float)):
        return "a number from 0 up"
    return "a word" if isinstance(old, str) else "a list like the one that stands there"
