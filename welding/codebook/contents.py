"""The code book: every number of every table with its id, its source, and what was said of it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from welding.codebook.book import AS_ENTERED, Correction, split_id, using
from welding.codebook.catalogue import all_editions
from welding.codebook.table import Table, load_table
from welding.errors import Problem, UnknownEntryError
from welding.welders.catalogue import welder_editions


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
class BookPart:
    """A part of the book with its tables: an edition of a code, or a subject of the trade."""

    code: str
    title: str
    tables: tuple[BookTable, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PartSummary:
    """A part without its tables, with how many numbers it has and how many were confirmed or corrected."""

    code: str
    title: str
    numbers: int
    said: int


SUBJECTS: tuple[tuple[str, str, tuple[str, ...]], ...] = (
    ("metals", "Base metals", ("welding.metals",)),
    ("fillers", "Filler designations", ("welding.consumables.designations",)),
    ("gases", "Shielding gases", ("welding.consumables",)),
    ("drafting", "Fillers chosen in drafts", ("welding.planning",)),
    ("coupons", "Coupons compared by cost", ("welding.weldlist",)),
    ("arc", "Arc settings and the bead", ("welding.arc", "welding.bead")),
    ("faults", "Faults of welds", ("welding.faults",)),
    ("training", "Training", ("welding.trainer",)),
    ("setup", "Set-up of the torch", ("welding.setup",)),
    ("heat", "Heat input, preheat and PWHT", ("welding.heat",)),
    ("joints", "Joints, positions and deposits", ("welding.joints", "welding.deposit")),
    ("checks", "Checks and deviations", ("welding.checks", "welding.deviations")),
    ("advice", "Cautions, checklist and sizes", ("welding.advice", "welding.quantities")),
)
"""What is no edition: key, title, packages with tables. The glossary has words and no numbers."""


def parts() -> tuple[PartSummary, ...]:
    """Every part: editions first, then the subjects."""
    found = []
    for code, (title, packages) in _parts().items():
        tables = [table for package in packages for table, _ in tables_of(package)]
        numbers = sum(len(table.columns_of(row)) for table in tables for row in table.rows)
        said = sum(len(table.corrections or {}) for table in tables)
        found.append(PartSummary(code=code, title=title, numbers=numbers, said=said))
    return tuple(found)


def part(code: str) -> BookPart:
    """One part with its tables, as the book in force has them.

    Raises:
        UnknownEntryError: There is no such part.
    """
    known = _parts()
    if code not in known:
        raise UnknownEntryError(f"{code} is no part of the code book; {', '.join(known)} are")
    title, packages = known[code]
    edition = all_editions().get(code)
    return BookPart(
        code=code,
        title=title,
        tables=tuple(
            _book_table(table, entered, edition.earlier_number(table.citation.clause) if edition else "")
            for package in packages
            for table, entered in tables_of(package)
        ),
    )


def part_of(table_or_row: str) -> str:
    """Code of the part that holds a table, or a row by its id; empty where none does."""
    found = _places().get(table_or_row.split("/", 1)[0])
    if found is None:
        return ""
    return next(code for code, (_, packages) in _parts().items() if found[0] in packages)


def _parts() -> dict[str, tuple[str, tuple[str, ...]]]:
    editions = {one.id: (one.title, (one.qualification.tables,)) for one in all_editions().values()}
    persons = {one.id: (one.title, (one.package,)) for one in welder_editions().values()}
    return editions | persons | {code: (title, packages) for code, title, packages in SUBJECTS}


@cache
def _places() -> dict[str, tuple[str, str]]:
    """Package and file of every table by its id."""
    return {
        load_table(package, name).id: (package, name)
        for _, packages in _parts().values()
        for package in packages
        for name in _names(package)
    }


def _names(package: str) -> list[str]:
    folder = files(package) / "tables"
    return sorted(one.name.removesuffix(".toml") for one in folder.iterdir() if one.name.endswith(".toml"))


def tables_of(package: str) -> Iterator[tuple[Table, Table]]:
    """Tables of a package, corrected and as entered."""
    for name in _names(package):
        yield _pair(package, name)


def _pair(package: str, name: str) -> tuple[Table, Table]:
    with using(AS_ENTERED):
        entered = load_table(package, name)
    return load_table(package, name), entered


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
        numbers=tuple(_book_number(table, row, old, column) for column in table.columns_of(row)),
    )


def _book_number(table: Table, row: Any, old: Any, column: str) -> BookNumber:
    return BookNumber(
        id=table.number_id(row, column),
        column=column,
        value=row[column],
        entered=old[column],
        status=_status(table, row, column),
    )


def _status(table: Table, row: Any, column: str) -> str:
    said = table.correction_of(row, column)
    if said is None:
        return table.citation.provenance
    return "confirmed" if said.action == "confirm" else "corrected"


def find_number(number_id: str) -> BookNumber:
    """A number by its id.

    Raises:
        UnknownEntryError: No table has it.
    """
    try:
        table_id, row_key, column = split_id(number_id)
    except ValueError as error:
        raise UnknownEntryError(str(error)) from None
    place = _places().get(table_id)
    if place is not None:
        table, entered = _pair(*place)
        for row, old in zip(table.rows, entered.rows, strict=True):
            if str(row[table.key]) == row_key and column in table.columns_of(row):
                return _book_number(table, row, old, column)
    raise UnknownEntryError(f"{number_id} is no number of the code book")


def problem_of(correction: Correction) -> Problem | None:
    """What is wrong with a correction; ``None`` where it may be laid over its table."""
    try:
        number = find_number(correction.id)
    except UnknownEntryError as error:
        return Problem("id", str(error), correction.id)
    if correction.action == "confirm":
        return None
    if _has_words(number.entered) and part_of(correction.id) not in all_editions():
        return Problem(
            "value", "words of this table can be confirmed and not corrected", str(correction.value)
        )
    if not _same_kind(number.entered, correction.value):
        return Problem("value", f"should be {_kind_of(number.entered)}", str(correction.value))
    return None


def _has_words(value: Any) -> bool:
    """Whether words are in a value: outside the editions rows are looked up by them."""
    if isinstance(value, Mapping):
        return any(map(_has_words, value.values()))
    return any(map(_has_words, value)) if isinstance(value, (list, tuple)) else isinstance(value, str)


def _same_kind(old: Any, new: Any) -> bool:
    if isinstance(old, bool) or isinstance(new, bool):
        return isinstance(old, bool) and isinstance(new, bool)
    if isinstance(old, (int, float)):
        return isinstance(new, (int, float)) and (0 if old >= 0 else -1e6) <= new <= 1e6
    if isinstance(old, str):
        return isinstance(new, str) and (bool(new.strip()) or not old.strip())
    if isinstance(old, Mapping):
        return (
            isinstance(new, Mapping)
            and set(new) == set(old)
            and all(_same_kind(old[name], new[name]) for name in old)
        )
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
    if isinstance(old, Mapping):
        return f"{' and '.join(old)}, as they stand there"
    return "a word" if isinstance(old, str) else "a list like the one that stands there"
