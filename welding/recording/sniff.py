"""A first guess at how a recorder's file is written; a person confirms it."""

from __future__ import annotations

import csv
import re
from collections import Counter
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from welding.errors import WeldingError
from welding.language import tr
from welding.recording.mapping import Column, Mapping, Unit

HEAD_BYTES = 65_536
MOST_COLUMNS = 200
Delimiter = Literal[",", ";", "\t", "|", " "]

_NUMBER = re.compile(r"^[+-]?(\d+([.,]\d*)?|[.,]\d+)([eE][+-]?\d+)?$|^[+-]?(nan|inf)$", re.IGNORECASE)
_CLOCK = re.compile(r"^(\d{4}-\d\d-\d\d[T ])?\d{1,2}:\d\d:\d\d([.,]\d+)?Z?$")
_SPREADSHEET = re.compile(r"^\d{1,2}[./]\d{1,2}[./]\d{2,4}( \d{1,2}:\d\d)?$|^\d{1,2}:\d\d$")
_UNIT = re.compile(r"[\[(/_ ]\s*([a-zµ²/%]+)\s*[\])]?$", re.IGNORECASE)
_UNITS: dict[str, Unit] = {
    "s": "s", "sec": "s", "ms": "ms", "us": "us", "µs": "us", "min": "min",
    "v": "V", "mv": "mV", "volt": "V", "volts": "V", "a": "A", "ka": "kA", "ma": "mA", "amp": "A",
    "amps": "A", "m/min": "m/min", "in/min": "in/min", "ipm": "in/min", "l/min": "L/min", "lpm": "L/min",
    "cfh": "cfh",
}  # fmt: skip
_MEANT: tuple[tuple[str, re.Pattern[str], Unit], ...] = (
    # "timestamp" holds "amp": time comes first.
    ("time", re.compile(r"time|zeit|temps|stamp|elapsed|seconds|^t(\b|_|$)", re.IGNORECASE), "s"),
    ("wire_feed", re.compile(r"feed|wfs|\bwire", re.IGNORECASE), "m/min"),
    ("gas", re.compile(r"\bgas|flow", re.IGNORECASE), "L/min"),
    ("voltage", re.compile(r"volt|spannung|tension|^[uv](\b|_|$)|arc_?v", re.IGNORECASE), "V"),
    ("current", re.compile(r"curr|amp|strom|^[i](\b|_|$)|arc_?a", re.IGNORECASE), "A"),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Guess:
    """What a file looks like.

    Attributes:
        kind: Text or Parquet.
        names: Names of the columns; their numbers from 1 where there is no header.
        rows: The first rows as they stand, at most ten.
        mapping: The guess, where volts and amps could be told apart; ``None`` otherwise.
        delimiter: What parts the columns of a text.
        decimal: The decimal mark.
        encoding: Of the text.
        header_line: Line of the names, 0 for none.
        first_line: First line of data.
        questions: What a person has to answer, in words.
    """

    kind: Literal["text", "parquet"]
    names: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    mapping: Mapping | None
    delimiter: Delimiter = ","
    decimal: Literal[".", ","] = "."
    encoding: Literal["utf-8", "utf-16", "cp1252"] = "utf-8"
    header_line: int = 0
    first_line: int = 1
    questions: tuple[str, ...] = ()


def sniff(path: Path) -> Guess:
    """Look at the beginning of a file and guess how it is written.

    Raises:
        WeldingError: The file is empty, an archive, a workbook, or no text with columns.
    """
    with path.open("rb") as file:
        head = file.read(HEAD_BYTES)
    if not head.strip():
        raise WeldingError(tr("the file is empty"))
    if head.startswith(b"PAR1"):
        return _parquet(path)
    encoding, text = _decoded(head)
    lines = text.splitlines()
    if len(head) == HEAD_BYTES and len(lines) > 1:
        lines.pop()  # the last one is cut
    delimiter, decimal = _layout(lines)
    header, first = _header(lines, delimiter)
    rows = [_cells(line, delimiter) for line in lines[first - 1 : first + 9] if line.strip()]
    if not rows:
        raise WeldingError(tr("no row of numbers was found; is this a recording?"))
    width = max(len(row) for row in rows)
    if header:
        names = [name or str(number) for number, name in enumerate(_cells(lines[header - 1], delimiter), 1)]
        names += [str(number) for number in range(len(names) + 1, width + 1)]
        # A line of units may stand between the names and the numbers.
        units = _cells(lines[first - 2], delimiter) if first - 1 > header else []
    else:
        names, units = [str(number) for number in range(1, width + 1)], []
    questions: list[str] = []
    mapping = _mapping(names, units, rows[0], questions, delimiter, decimal, encoding, header, first)
    return Guess(
        kind="text",
        names=tuple(names[:MOST_COLUMNS]),
        rows=tuple(tuple(row[:MOST_COLUMNS]) for row in rows),
        mapping=mapping,
        delimiter=delimiter,
        decimal=decimal,
        encoding=encoding,
        header_line=header,
        first_line=first,
        questions=tuple(questions),
    )


def _decoded(head: bytes) -> tuple[Literal["utf-8", "utf-16", "cp1252"], str]:
    if head.startswith(b"PK\x03\x04"):
        raise WeldingError(
            tr(
                "this is an archive or a workbook: unpack it, or save the sheet as CSV. Nothing "
                "is unpacked here"
            )
        )
    if head.startswith((b"\x1f\x8b", b"BZh", b"\xfd7zXZ", b"7z\xbc\xaf", b"\x28\xb5\x2f\xfd", b"Rar!")):
        raise WeldingError(tr("this is a compressed file: unpack it first. Nothing is unpacked here"))
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        return "utf-16", head[: len(head) // 2 * 2].decode("utf-16", errors="replace")
    if b"\x00" in head:
        raise WeldingError(tr("this is no text: it holds zero bytes. Send CSV, TSV or Parquet"))
    try:
        # The head may end in the middle of a character.
        return "utf-8", head.decode("utf-8-sig") if len(head) < HEAD_BYTES else _cut(head)
    except UnicodeDecodeError:
        return "cp1252", head.decode("cp1252", errors="replace")


def _cut(head: bytes) -> str:
    return head[: head.rfind(b"\n") + 1].decode("utf-8-sig")


def _layout(lines: list[str]) -> tuple[Delimiter, Literal[".", ","]]:
    """The delimiter that parts most lines into the same number of columns, all numbers at best."""
    tail = [line for line in lines[:400] if line.strip()][-200:]
    best: tuple[tuple[int, int, int], Delimiter] = ((-1, 0, 0), ",")
    choices: tuple[Delimiter, ...] = ("\t", ";", "|", ",", " ")
    for order, delimiter in enumerate(choices):
        cells = [_cells(line, delimiter) for line in tail]
        widths = Counter(len(row) for row in cells if len(row) > 1)
        if not widths:
            continue
        width, same = widths.most_common(1)[0]
        good = sum(len(row) == width and all(_is_value(one) for one in row) for row in cells)
        score = (good, same, -order)
        if score > best[0]:
            best = (score, delimiter)
    if best[0][0] < 0:
        raise WeldingError(tr("no columns were found: parted by comma, semicolon, tab, bar or blank?"))
    delimiter = best[1]
    values = [one for line in tail for one in _cells(line, delimiter) if _NUMBER.match(one)]
    comma = sum("," in one for one in values) > sum("." in one for one in values)
    return delimiter, "," if comma and delimiter != "," else "."


def _is_value(cell: str) -> bool:
    return not cell or bool(_NUMBER.match(cell) or _CLOCK.match(cell) or _SPREADSHEET.match(cell))


def _header(lines: list[str], delimiter: Delimiter) -> tuple[int, int]:
    """Lines, counted from 1: that of the names (0 for none), and the first of the numbers."""
    rows = (
        (at, len(cells))
        for at, line in enumerate(lines, 1)
        if len(cells := _cells(line, delimiter)) > 1 and any(cells) and all(_is_value(one) for one in cells)
    )
    found = next(rows, None)
    if found is None:
        raise WeldingError(tr("no row of numbers was found; is this a recording?"))
    number, width = found
    above = [
        at
        for at in range(1, number)
        if len(cells := _cells(lines[at - 1], delimiter)) >= width - 1 > 0 and any(cells)
    ]
    if not above:
        return 0, number
    # Of two lines directly above the numbers the upper holds the names, the lower the units.
    last = above[-1]
    names = last - 1 if last - 1 in above and _are_units(_cells(lines[last - 1], delimiter)) else last
    return names, number


def _are_units(cells: list[str]) -> bool:
    return all(not one or one.strip("[]() ").lower() in _UNITS for one in cells)


def _cells(line: str, delimiter: Delimiter) -> list[str]:
    if delimiter == " ":
        return line.split()
    try:
        return [one.strip() for one in next(csv.reader([line], delimiter=delimiter), [])]
    except csv.Error as error:  # a field of over 131 kB, or a lone carriage return
        raise WeldingError(tr("a line cannot be parted into columns: {error}", error=error)) from error


def _mapping(
    names: list[str],
    units: list[str],
    row: list[str],
    questions: list[str],
    delimiter: Delimiter,
    decimal: Literal[".", ","],
    encoding: Literal["utf-8", "utf-16", "cp1252"],
    header: int,
    first: int,
) -> Mapping | None:
    found: dict[str, Column] = {}
    for at, name in enumerate(names):
        for channel, pattern, usual in _MEANT:
            if channel in found or not pattern.search(name.strip()):
                continue
            found[channel] = Column(
                column=name, unit=unit_of(name, usual, units[at] if at < len(units) else "")
            )
            break
    time = found.get("time")
    if time is not None:
        cell = row[names.index(time.column)] if names.index(time.column) < len(row) else ""
        if _CLOCK.match(cell):
            found["time"] = Column(column=time.column, unit="clock")
        elif _SPREADSHEET.match(cell):
            questions.append(
                tr(
                    "The times read like {cell}: a spreadsheet has cut the seconds off. Export the "
                    "file from the recorder again, or give the samples a second.",
                    cell=cell,
                )
            )
            del found["time"]
    if "time" not in found:
        questions.append(tr("Which column is the time? Or how many samples a second?"))
    for channel, word in (("voltage", "voltage"), ("current", "current")):
        if channel not in found:
            questions.append(tr("Which column is the {word}?", word=word))
    if questions:
        return None
    return Mapping(
        delimiter=delimiter, decimal=decimal, encoding=encoding, header_line=header, first_line=first,
        time=found["time"], voltage=found["voltage"], current=found["current"],
        wire_feed=found.get("wire_feed"), gas=found.get("gas"),
    )  # fmt: skip


def unit_of(name: str, usual: Unit, below: str = "") -> Unit:
    """Unit of a column from the text below its name, or from its name; ``usual`` where neither tells."""
    for text in (below.strip("[]() "), match[1] if (match := _UNIT.search(name)) else ""):
        unit = _UNITS.get(text.lower())
        # "t_a" is no time in amps: a unit must be one of the channel's own kind.
        if unit is not None and _kind(unit) == _kind(usual):
            return unit
    return usual


def _kind(unit: Unit) -> str:
    for kind, units in (
        ("time", ("s", "ms", "us", "min", "clock")), ("voltage", ("V", "mV")), ("current", ("A", "kA", "mA")),
        ("feed", ("m/min", "in/min")), ("gas", ("L/min", "cfh")),
    ):  # fmt: skip
        if unit in units:
            return kind
    return "other"


def _parquet(path: Path) -> Guess:
    import pyarrow.parquet as pq  # slow to load, and needed only here
    from pyarrow import ArrowException

    try:
        with pq.ParquetFile(path) as file:
            columns = file.metadata.num_columns
            names = [str(name) for name in file.schema_arrow.names]
            # Nothing is unpacked of a file that is no recording.
            batch = next(file.iter_batches(batch_size=10), None) if columns <= MOST_COLUMNS else None
    except (ArrowException, OSError, ValueError, OverflowError) as error:
        raise WeldingError(tr("the Parquet file cannot be read: {error}", error=str(error)[:200])) from error
    if columns > MOST_COLUMNS:
        raise WeldingError(tr("{columns:,} columns are no recording", columns=columns))
    rows = tuple(tuple(str(value) for value in row.values()) for row in batch.to_pylist()) if batch else ()
    if not rows:
        raise WeldingError(tr("the Parquet file holds no row"))
    questions: list[str] = []
    mapping = _mapping(names, [], list(rows[0]), questions, ",", ".", "utf-8", 1, 2)
    return Guess(kind="parquet", names=tuple(names), rows=rows, mapping=mapping, questions=tuple(questions))
