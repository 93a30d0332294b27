"""Numbers out of a column of a recorder's file, whatever its decimal mark, unit or clock."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
import pyarrow as pa
import pyarrow.compute as pc
from numpy.typing import NDArray

from welding.recording.mapping import Column
from welding.recording.signals import MOST_LINES_NAMED, Samples

EMPTY = ("", "-", "--", "NaN", "nan", "NAN", "null", "NULL", "n/a", "#N/A")


@dataclass(slots=True)
class RowNotes:
    """What is remembered from block to block: rows that could not be read, and where dates begin."""

    lines: list[int]
    count: int = 0
    last: int = 0
    example: str = ""
    # Rows of the block being read that a cell of was told of: a row is told once.
    block: set[int] = field(default_factory=set)
    cells: int = 0
    # Where dates begin: seconds since then keep their fine digits, seconds since 1970 would not.
    origin_ns: int | None = None
    origin_day: int | None = None

    def add_cell(self, line: int, example: str) -> None:
        """Note a row that stands among the others with a cell that is no number."""
        if line not in self.block:
            self.block.add(line)
            self.cells += 1
            self.add(line, example)

    def end_block(self, lines: NDArray[np.int64]) -> NDArray[np.bool_]:
        """Which rows of the block were told of; the next block begins."""
        told = (
            np.isin(lines, np.fromiter(self.block, dtype=np.int64))
            if self.block
            else np.zeros(lines.size, bool)
        )
        self.block.clear()
        return told

    def add(self, line: int, example: str) -> None:
        """Note one more, by its line; only the first lines are kept."""
        self.count += 1
        self.last = line
        if len(self.lines) < MOST_LINES_NAMED:
            self.lines.append(line)
        self.example = self.example or example


def numbers_of(
    array: pa.Array, column: Column, decimal: str, lines: NDArray[np.int64], notes: RowNotes
) -> Samples:
    """Numbers of a column in the unit of the program; NaN where there is none."""
    if pa.types.is_timestamp(array.type):
        stamps = pc.cast(pc.cast(array, pa.timestamp("ns")), pa.int64())
        if notes.origin_ns is None:
            notes.origin_ns = pc.min(stamps).as_py() or 0
        since = pc.subtract(stamps, notes.origin_ns).to_numpy(zero_copy_only=False)
        return np.asarray(since, dtype=np.float64) / 1e9
    if column.unit == "clock":
        values = _clock(array, lines, notes)
    elif pa.types.is_string(array.type) or pa.types.is_large_string(array.type):
        values = _from_text(array, decimal, lines, notes)
    else:
        values = pc.cast(array, pa.float64()).to_numpy(zero_copy_only=False)
    if column.factor == 1.0 and column.offset == 0.0:
        return np.asarray(values, dtype=np.float64)
    return np.asarray(values * column.factor + column.offset, dtype=np.float64)


def _from_text(array: pa.Array, decimal: str, lines: NDArray[np.int64], notes: RowNotes) -> Samples:
    if decimal == ",":
        array = pc.replace_substring(array, pattern=",", replacement=".")
    try:
        return np.asarray(pc.cast(array, pa.float64()).to_numpy(zero_copy_only=False), dtype=np.float64)
    except pa.ArrowInvalid:
        pass
    # Something in this block is no number: find out what, and keep the rest.
    array = pc.utf8_trim_whitespace(array)
    array = pc.if_else(pc.is_in(array, value_set=pa.array(EMPTY)), None, array)
    number = pc.match_substring_regex(array, r"^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$")
    wrong = np.flatnonzero(pc.fill_null(pc.invert(number), False).to_numpy(zero_copy_only=False))
    for one in wrong:
        notes.add_cell(int(lines[one]), str(array[int(one)]))
    array = pc.if_else(pc.fill_null(number, False), array, None)
    return np.asarray(pc.cast(array, pa.float64()).to_numpy(zero_copy_only=False), dtype=np.float64)


def _clock(array: pa.Array, lines: NDArray[np.int64], notes: RowNotes) -> Samples:
    """Hours, minutes and seconds of a clock, with a date or without, as seconds. Midnight goes on."""
    parts = pc.extract_regex(
        pc.utf8_trim_whitespace(pc.cast(array, pa.string())),
        r"^(?:(?P<day>\d{4}-\d\d-\d\d)[T ])?(?P<h>\d{1,2}):(?P<m>\d\d):(?P<s>\d\d(?:[.,]\d+)?)Z?$",
    )
    told = pc.is_valid(parts).to_numpy(zero_copy_only=False)
    for one in np.flatnonzero(~told):
        if str(array[int(one)]).strip() not in EMPTY:
            notes.add_cell(int(lines[one]), str(array[int(one)]))

    def part(name: str, change: Callable[[pa.Array], pa.Array] = lambda one: one) -> Samples:
        numbers = pc.cast(change(pc.struct_field(parts, name)), pa.float64())
        return np.asarray(numbers.to_numpy(zero_copy_only=False), dtype=np.float64)

    seconds = part("h") * 3600 + part("m") * 60
    seconds = seconds + part("s", lambda one: pc.replace_substring(one, pattern=",", replacement="."))
    days = pc.struct_field(parts, "day")
    dated = pc.if_else(pc.equal(days, ""), None, days)
    if pc.any(pc.is_valid(dated)).as_py():
        day = pc.cast(pc.cast(dated, pa.date32()), pa.int32())
        if notes.origin_day is None:
            notes.origin_day = pc.min(day).as_py()
        since = pc.cast(pc.subtract(day, notes.origin_day), pa.float64()).to_numpy(zero_copy_only=False)
        return np.asarray(seconds + 86_400.0 * since, dtype=np.float64)
    return _past_midnight(seconds)


def _past_midnight(seconds: Samples) -> Samples:
    """A clock that jumps back by more than half a day has passed midnight."""
    midnights = np.cumsum(np.diff(seconds) < -43_200)
    return np.asarray(seconds + 86_400.0 * np.concatenate(([0], midnights)), dtype=np.float64)
