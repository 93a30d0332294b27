"""A coupon's log as a table: what a hand-written log is copied into, and what a log is exported as.

The first row names the columns with their units. A cell is read as people say it ("10 ipm", "65F"); a
bare number is in the unit of its column. Columns that are reckoned are written and never read.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from welding.documents.codec import PASS_RECORD
from welding.documents.coupon import PassRecord
from welding.documents.fields import Reading, Spread, mean_of
from welding.errors import DocumentError, Problem, WeldingError
from welding.language import tr
from welding.quantities.reading import read_quantity


@dataclass(frozen=True, slots=True)
class TableColumn:
    """One column: its name with its unit, the field it fills, and what kind of quantity it holds."""

    name: str
    unit: str
    path: str
    kind: str

    @property
    def title(self) -> str:
        """What stands in the first row."""
        return f"{self.name}, {self.unit}" if self.unit else self.name


COLUMNS: tuple[TableColumn, ...] = (
    TableColumn("pass", "", "number", "whole"),
    TableColumn("side", "", "side", "whole"),
    TableColumn("layer", "", "layer", "whole"),
    TableColumn("process", "", "process", "text"),
    TableColumn("filler batch", "", "filler.batch", "text"),
    TableColumn("current", "A", "current_a.mean", "current"),
    TableColumn("current least", "A", "current_a.min", "current"),
    TableColumn("current most", "A", "current_a.max", "current"),
    TableColumn("voltage", "V", "voltage_v.mean", "voltage"),
    TableColumn("voltage least", "V", "voltage_v.min", "voltage"),
    TableColumn("voltage most", "V", "voltage_v.max", "voltage"),
    TableColumn("wire feed", "m/min", "wire_feed_m_min.mean", "wire_feed"),
    TableColumn("bead length", "mm", "length_mm", "length"),
    TableColumn("arc time", "s", "time_s", "time"),
    TableColumn("travel", "mm/min", "travel_mm_min", "travel"),
    TableColumn("before the pass", "°C", "before_c", "temperature"),
    TableColumn("read at", "", "interpass.place", "text"),
    TableColumn("quenched", "", "interpass.quenched", "yes"),
    TableColumn("deposit", "mm", "deposit_mm", "gap"),
    TableColumn("bead from one electrode", "mm", "run_out_mm", "length"),
    TableColumn("energy by recording", "J", "energy_j", "energy"),
    TableColumn("welded by", "", "welded_by", "text"),
    TableColumn("remarks", "", "remarks", "text"),
)
_BY_TITLE = {name.lower(): column for column in COLUMNS for name in (column.title, column.name)}
RECKONED = (
    "heat input, kJ/mm",
    "arc energy, kJ/mm",
    "k",
    "method",
    "flags",
    "logged by",
    "arc ended",
)
MOST_ROWS = 400


def cells_of(record: PassRecord) -> list[Any]:
    """The cells of a pass under ``COLUMNS``; ``None`` where nothing is recorded."""
    return [_cell(record, column.path) for column in COLUMNS]


def _cell(record: PassRecord, path: str) -> Any:
    name, _, part = path.partition(".")
    value = getattr(record, name)
    if part in ("mean", "min", "max"):
        return _end(value, part)
    if part:
        value = getattr(value, part) if value is not None else None
    if isinstance(value, bool):
        return "yes" if value else None
    return value


def _end(reading: Reading | None, part: str) -> float | None:
    if reading is None:
        return None
    if part == "mean":
        return mean_of(reading)
    return getattr(reading, part) if isinstance(reading, Spread) else None


def read_table(rows: Sequence[Sequence[Any]], first_line: int = 1) -> tuple[PassRecord, ...]:
    """Read a table into passes.

    Args:
        rows: The names first, then a row a pass; cells are text, numbers or ``None``.
        first_line: Line of the names in the file, for messages.

    Returns:
        The passes in the order of the rows. Rows without anything are passed over, as are rows with
        only a pass number: a template that was not filled in.

    Raises:
        DocumentError: A column is not known, a cell cannot be read, a pass stands twice, or there is
            nothing. Every mistake is listed with its line; nothing is taken if there is one.
    """
    problems: list[Problem] = []
    if not rows:
        raise DocumentError((Problem("", tr("the file is empty")),))
    columns = list(_columns(rows[0], problems, first_line))
    records: list[PassRecord] = []
    seen: dict[int, int] = {}
    for line, row in enumerate(rows[1:], first_line + 1):
        filled = [
            (column, cell) for column, cell in zip(columns, row, strict=False) if column and _told(cell)
        ]
        if not any(column.path != "number" for column, _ in filled):
            continue
        record = _record(filled, line, problems)
        if record is None:
            continue
        if record.number in seen:
            problems.append(
                Problem(
                    tr("line {line}", line=line),
                    tr(
                        "pass {number} stands in line {seen} already",
                        number=record.number,
                        seen=seen[record.number],
                    ),
                )
            )
        seen[record.number] = line
        records.append(record)
    if len(records) > MOST_ROWS:
        problems.append(
            Problem(
                "",
                tr("{count} passes; at most {most_rows} are taken", count=len(records), most_rows=MOST_ROWS),
            )
        )
    if not records and not problems:
        problems.append(Problem("", tr("no row holds anything but a pass number")))
    if problems:
        raise DocumentError(tuple(problems[:50]))
    return tuple(records)


def known_columns(names: Sequence[Any]) -> int:
    """How many of these names are columns of a log; tells the right way to part a line."""
    return sum(str(name or "").strip().lower() in _BY_TITLE for name in names)


def _told(cell: Any) -> bool:
    return cell is not None and str(cell).strip() not in ("", "-", "–", "—")


def _columns(names: Sequence[Any], problems: list[Problem], line: int) -> Iterator[TableColumn | None]:
    reckoned = {name.lower() for name in RECKONED}
    found: set[str] = set()
    for name in names:
        text = str(name or "").strip().lower()
        column = _BY_TITLE.get(text)
        if column is None and text and text not in reckoned:
            problems.append(
                Problem(tr("line {line}", line=line), tr("this column is not known"), str(name)[:60])
            )
        if column is not None:
            found.add(column.path)
        yield column
    if "number" not in found:
        problems.append(Problem(tr("line {line}", line=line), tr("there is no column named pass")))


def _record(filled: list[tuple[TableColumn, Any]], line: int, problems: list[Problem]) -> PassRecord | None:
    plain: dict[str, Any] = {}
    wrong = False
    for column, cell in filled:
        try:
            _put(plain, column.path, _value(column, cell))
        except WeldingError as error:
            wrong = True
            problems.append(
                Problem(tr("line {line}, {title}", line=line, title=column.title), str(error), str(cell)[:60])
            )
    if wrong:
        return None
    for name, reading in list(plain.items()):
        if not isinstance(reading, dict) or name in ("interpass", "filler"):
            continue
        if "mean" not in reading:
            ends = [reading[part] for part in ("min", "max") if part in reading]
            reading["mean"] = sum(ends) / len(ends)
        if set(reading) == {"mean"}:
            plain[name] = reading["mean"]
    if "energy_j" in plain:
        plain["energy_method"] = "energy"
    try:
        return PASS_RECORD.take(plain)
    except DocumentError as error:
        problems.extend(
            Problem(
                tr("line {line}", line=line) + (f", {one.path}" if one.path else ""),
                one.message,
                one.value,
            )
            for one in error.problems
        )
        return None


def _put(plain: dict[str, Any], path: str, value: Any) -> None:
    name, _, part = path.partition(".")
    if part:
        plain.setdefault(name, {})[part] = value
    else:
        plain[name] = value


def _value(column: TableColumn, cell: Any) -> Any:
    text = str(cell).strip()
    if column.kind == "text":
        # A sheet turns a batch such as 4471 into a number.
        return text.removesuffix(".0") if isinstance(cell, float) else text
    if column.kind == "yes":
        if text.lower() not in ("yes", "y", "true", "1", "x", "no", "n", "false", "0"):
            raise WeldingError(tr("say yes or no"))
        return text.lower() in ("yes", "y", "true", "1", "x")
    if column.kind == "whole":
        if not text.removesuffix(".0").isdigit():
            raise WeldingError(tr("a whole number is wanted"))
        return int(text.removesuffix(".0"))
    return read_quantity(text, kind=column.kind, shown_unit=column.unit).value
