"""A drawing office's list as a grid of cells: which row names the columns, what they mean, rows as texts."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Annotated

from pydantic import Field

from welding.documents import fields as f
from welding.documents.procedure import Code
from welding.language import tr
from welding.weldlist.cells import A_DATE, ReadRow, read_row
from welding.weldlist.columns import COLUMNS, LONGEST_CELL, QUANTITIES, word_key, words
from welding.weldlist.row_reader import BARE, TWO, UNIT, CellProblem

Cell = str | float | int | bool | datetime | date | None
Grid = Sequence[Sequence[Cell]]
MOST_HEADINGS = 30
"""Rows among which the headings are looked for."""
MOST_COLUMNS = 200

_UNIT = re.compile(
    r"""[(\[]\s*(mm|cm|m|in\.?|inch(?:es)?|"|zoll)\s*[)\]]|[,/\s]\s*(mm|cm|m|in\.?|inch(?:es)?|"|zoll)\s*$""",
    re.IGNORECASE,
)
"""A unit in brackets, or at the end."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ListMapping:
    """How a list is read; kept for the next revision of the same list.

    Attributes:
        first_row: Number of the first row with a joint, counted from 1.
        headings: Heading of each column by what it means (``COLUMNS``).
        units: Unit of bare numbers by column, where the heading names one; in the others it is asked for.
        answers: Answers that hold for every row, by ``CellProblem.asks``.
    """

    first_row: Annotated[int, Field(ge=1, le=MOST_HEADINGS + 1)]
    headings: Annotated[dict[f.Line, f.Line], Field(max_length=len(COLUMNS))]
    units: Annotated[dict[f.Line, f.Line], Field(max_length=len(COLUMNS))] = field(default_factory=dict)
    answers: Annotated[dict[f.Line, f.Line], Field(max_length=500)] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class GridRow:
    """A row: its number in the file or in the list, and its cells as texts by column."""

    number: int
    cells: dict[str, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class ListQuestion:
    """What has to be answered once for all rows that ask it.

    Attributes:
        key: Where the answer goes in ``ListMapping.answers``.
        column: The column asked about.
        message: The question.
        choices: Answers to choose from; empty where any text may be one.
        rows: How many rows ask.
        first_row: Number of the first of them.
    """

    key: str
    column: str
    message: str
    choices: tuple[str, ...]
    rows: int
    first_row: int


def headings_of(grid: Grid) -> tuple[int, tuple[str, ...]]:
    """The first row after the headings, counted from 1, and the heading of each column.

    The row with the most known headings is it; or two rows, where a merged heading ("Thickness") stands
    above those that part it ("1", "2").
    """
    best: tuple[int, int, tuple[str, ...]] = (0, 2, _unique([_text(one) for one in grid[0]] if grid else []))
    for number, row in enumerate(grid[:MOST_HEADINGS]):
        plain = tuple(_text(cell) for cell in row[:MOST_COLUMNS])
        below = grid[number + 1] if number + 1 < len(grid) else ()
        for names, rows in ((plain, 1), (_under(row, below), 2)):
            score = len({means for one in names if (means := words("column").get(_name(one)))})
            if score > best[0]:
                best = score, number + rows + 1, _unique(names)
    return best[1], best[2]


def _under(above: Sequence[Cell], row: Sequence[Cell]) -> tuple[str, ...]:
    """Headings in two rows: a merged one stands in its first cell alone and holds for those below it."""
    found, last = [], ""
    for at in range(min(max(len(row), len(above)), MOST_COLUMNS)):
        own = _text(above[at]) if at < len(above) else ""
        last = own or last
        under = _text(row[at]) if at < len(row) else ""
        known = _name(under) in words("column") and not own
        found.append(under if known else f"{last} {under}".strip() if under else own)
    return tuple(found)


def _unique(names: Sequence[str]) -> tuple[str, ...]:
    seen: Counter[str] = Counter()
    found = []
    for at, one in enumerate(names):
        name = one or f"column {at + 1}"
        seen[name] += 1
        found.append(name if seen[name] == 1 else f"{name} ({seen[name]})")
    return tuple(found)


def _name(cell: Cell) -> str:
    """A heading without its unit, as the table of words is searched."""
    return word_key(_UNIT.sub(" ", _text(cell)))


def _text(cell: Cell) -> str:
    if cell is None:
        return ""
    if isinstance(cell, float) and cell.is_integer():
        return str(int(cell))
    return re.sub(r"\s+", " ", str(cell)).strip()


def guessed_mapping(grid: Grid, usual: ListMapping | None = None) -> ListMapping:
    """How a list is likely to be read: as the last one where its headings are there, else by their words."""
    first_row, names = headings_of(grid)
    headings: dict[str, str] = {}
    for name in names:
        means = words("column").get(_name(name))
        if means is not None and means not in headings:
            headings[means] = name
    if usual is not None:
        headings |= {means: name for means, name in usual.headings.items() if name in names}
    units = {means: unit for means, name in headings.items() if means in QUANTITIES and (unit := _unit(name))}
    answers = dict(usual.answers) if usual else {}
    return ListMapping(
        first_row=first_row,
        headings={means: headings[means] for means in COLUMNS if means in headings},
        units=units,
        answers=answers,
    )


def _unit(heading: str) -> str:
    named = _UNIT.search(heading)
    if named is None:
        return ""
    unit = (named[1] or named[2]).lower()
    return unit if unit in ("mm", "cm", "m") else "in"


def rows_of(grid: Grid, mapping: ListMapping) -> tuple[GridRow, ...]:
    """Rows as texts by column, lengths with their unit; empty rows are left out, no other is."""
    _, names = headings_of(grid)
    place = {name: at for at, name in enumerate(names)}
    columns = [(means, place[name]) for means, name in mapping.headings.items() if name in place]
    found = []
    for number, row in enumerate(grid[mapping.first_row - 1 :], start=mapping.first_row):
        cells: dict[str, str] = {}
        for means, at in columns:
            raw = row[at] if at < len(row) else None
            if isinstance(raw, (datetime, date)) and means not in ("remarks", "place"):
                raw = f"{A_DATE} {raw:%Y-%m-%d}, {raw.month}/{raw.day}"
            if told := _text(raw)[:LONGEST_CELL]:
                cells[means] = _with_unit(told, mapping, means)
        if cells:
            found.append(GridRow(number=number, cells=cells))
    return tuple(found)


def _with_unit(told: str, mapping: ListMapping, means: str) -> str:
    """A bare number with the unit of its column; without one it stays bare, and is asked about."""
    unit = mapping.units.get(means)
    if means in QUANTITIES and unit:
        lead = re.match(r"[azAZ]\s*=?\s*", told) if means == "size" else None
        head = lead[0] if lead else ""
        rest = told[len(head) :]
        fraction = unit == "in" and re.fullmatch(r"(?:\d+[\s-]+)?\d+/\d+", rest)
        both = unit != "in" and means == "thickness" and TWO.fullmatch(rest)
        if BARE.fullmatch(rest) or fraction or both:
            return f"{head}{rest} {unit}"
    return told


@dataclass(frozen=True, slots=True, kw_only=True)
class ListRead:
    """A list as it was understood: each row with its joint or problems, and what is to be answered once."""

    mapping: ListMapping
    headings: tuple[str, ...]
    rows: tuple[tuple[GridRow, ReadRow], ...]
    questions: tuple[ListQuestion, ...]


def read_grid(
    grid: Grid, code: Code, mapping: ListMapping | None = None, usual: ListMapping | None = None
) -> ListRead:
    """Read a list.

    Args:
        grid: Cells as a workbook or a CSV file has them.
        code: Code of the list.
        mapping: How to read it, as a person chose; guessed where it is ``None``.
        usual: How the last list of the job was read.
    """
    mapping = mapping or guessed_mapping(grid, usual)
    _, names = headings_of(grid)
    rows = rows_of(grid, mapping)
    read = read_rows(rows, code, mapping.answers)
    return ListRead(
        mapping=mapping,
        headings=names,
        rows=tuple(zip(rows, read, strict=True)),
        questions=questions_of(rows, read),
    )


def read_rows(rows: Sequence[GridRow], code: Code, answers: Mapping[str, str]) -> tuple[ReadRow, ...]:
    """Read the rows of a list; a mark that stands more than once is a problem of each of its rows."""
    marks = Counter(row.cells.get("mark", "") for row in rows)
    found = []
    for row in rows:
        read = read_row(row.cells, code, answers)
        mark = row.cells.get("mark", "")
        if mark and marks[mark] > 1:
            words_ = tr("{mark} stands {times} times in the list.", mark=mark, times=marks[mark])
            twice = CellProblem(column="mark", message=words_)
            read = ReadRow(joint=None, problems=(*read.problems, twice))
        found.append(read)
    return tuple(found)


def questions_of(rows: Sequence[GridRow], read: Sequence[ReadRow]) -> tuple[ListQuestion, ...]:
    """What the rows leave to be answered once, the unit first, then what most rows ask."""
    found: dict[str, ListQuestion] = {}
    for row, one in zip(rows, read, strict=True):
        for problem in {one.asks: one for one in one.problems if one.asks}.values():
            before = found.get(problem.asks)
            found[problem.asks] = ListQuestion(
                key=problem.asks,
                column=problem.column,
                message=problem.message,
                choices=problem.choices,
                rows=1 + (before.rows if before else 0),
                first_row=before.first_row if before else row.number,
            )
    return tuple(sorted(found.values(), key=lambda one: (one.key != UNIT, -one.rows, one.key)))


def known_headings(rows: Grid) -> int:
    """How many columns that we know the likeliest headings of these rows name."""
    _, names = headings_of(rows)
    return len({means for one in names if (means := words("column").get(_name(one)))})
