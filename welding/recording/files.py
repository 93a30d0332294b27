"""Read a recorder's file: CSV, TSV or Parquet, any column names, units and decimal marks."""

from __future__ import annotations

import csv
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import islice
from pathlib import Path
from typing import Any

import numpy as np
import pyarrow as pa
import pyarrow.csv as pa_csv
import pyarrow.parquet as pq
from numpy.typing import NDArray

from welding.errors import WeldingError
from welding.language import tr
from welding.recording.cells import RowNotes, numbers_of
from welding.recording.mapping import Mapping
from welding.recording.signals import Fault, Lines, Recording, Samples, tidy

BESIDE = ("wire_feed_m_min", "gas_l_min")
"""Channels that a sample may lack."""
BLOCK_BYTES = 1 << 22
MOST_SAMPLES = 60_000_000
MOST_COLUMNS = 1000
LONGEST_S = 30 * 86_400.0
"""A month: what seems to last longer has a wrong time column."""


@dataclass(frozen=True, slots=True)
class FileRead:
    """What a file gave: the usable samples, what was wrong, and how many rows it had."""

    recording: Recording
    faults: tuple[Fault, ...]
    rows: int


def read_file(path: Path, mapping: Mapping) -> FileRead:
    """Read a file whole.

    Args:
        path: The file.
        mapping: How its columns become channels.

    Returns:
        The samples in order of time, in V, A, s, m/min and L/min. Rows that cannot be read are left
        out and named by their line; nothing is filled in.

    Raises:
        WeldingError: A chosen column is not there, no row can be read, there are more than 60 million
            samples or 1000 columns, or the times span more than a month.
    """
    with path.open("rb") as file:
        parquet = file.read(4) == b"PAR1"
    notes, aside = RowNotes([]), RowNotes([])
    parts: dict[str, list[Samples]] = {name: [] for name in mapping.columns}
    lines = Lines()
    told: list[NDArray[np.bool_]] = []
    rows = 0
    try:
        source = _parquet(path, mapping) if parquet else _text(path, mapping, notes)
        for first_line, batch in source:
            rows += batch.num_rows
            if rows > MOST_SAMPLES:
                raise WeldingError(
                    tr(
                        "more than {most_samples:,} samples: cut the recording into parts",
                        most_samples=MOST_SAMPLES,
                    )
                )
            at = first_line + np.arange(batch.num_rows)
            for name, column in mapping.columns.items():
                noted = aside if name in BESIDE else notes
                parts[name].append(numbers_of(batch.column(name), column, mapping.decimal, at, noted))
            told.append(notes.end_block(at))
            aside.end_block(at)
            lines.add(first_line, batch.num_rows)
    except (pa.ArrowException, OSError, csv.Error, UnicodeError, OverflowError) as error:
        raise WeldingError(tr("the file cannot be read: {plain}", plain=_plain(error))) from error
    channels = {name: _joined(parts.pop(name)) for name in list(parts)}
    size = lines.size
    if size == 0:
        raise WeldingError(
            tr(
                "no row could be read; line {lines} holds {example!r}",
                lines=notes.lines[0],
                example=notes.example,
            )
            if notes.lines
            else tr("the file holds no rows")
        )
    time = channels.pop("time_s", None)
    if time is not None and mapping.time is not None and mapping.time.unit == "clock":
        known = time[np.isfinite(time)]
        time -= known[0] if known.size else 0.0  # a clock of the day begins with the recording
    if mapping.sample_rate_hz is not None and mapping.time is None:
        time = np.arange(size) / mapping.sample_rate_hz
    if time is None:
        raise WeldingError(tr("there is neither a time column nor a sample rate"))
    tidied = tidy(
        time, channels["voltage_v"], channels["current_a"],
        wire_feed_m_min=channels.get("wire_feed_m_min"), gas_l_min=channels.get("gas_l_min"), lines=lines,
        told=np.concatenate(told),
    )  # fmt: skip
    if tidied.recording.size == 0:
        where = (
            tr("; line {lines} holds {example!r}", lines=notes.lines[0], example=notes.example)
            if notes.lines
            else ""
        )
        raise WeldingError(tr("no row holds numbers for time, voltage and current{where}", where=where))
    lasts = float(tidied.recording.time_s[-1] - tidied.recording.time_s[0])
    if lasts > LONGEST_S:
        raise WeldingError(
            tr(
                "the times span {lasts:,.0f} days: is this the time column, and is its unit right?",
                lasts=lasts / 86400,
            )
        )
    faults = (*_row_faults(path, notes, lines.of(size - 1)), *_aside_faults(aside), *tidied.faults)
    return FileRead(tidied.recording, faults, rows + notes.count - notes.cells)


def _joined(parts: list[Samples]) -> Samples:
    """One array of all parts; each part is let go as soon as it is copied."""
    whole = np.empty(sum(part.size for part in parts))
    at = 0
    parts.reverse()
    while parts:
        part = parts.pop()
        whole[at : at + part.size] = part
        at += part.size
    return whole


def _row_faults(path: Path, notes: RowNotes, last_line: int) -> Iterator[Fault]:
    if not notes.count:
        return
    # A last row that is short, in a file that does not end with a line end, was cut off.
    with path.open("rb") as file:
        file.seek(-1, 2)
        open_end = file.read(1) not in b"\r\n\x00"
    cut = open_end and notes.last >= last_line
    if cut:
        yield Fault(
            kind="truncated",
            severity="breach",
            message=tr(
                "The file ends in the middle of line {last}: it was cut off. The rest is kept.",
                last=notes.last,
            ),
            lines=(notes.last,),
            count=1,
        )
    count = notes.count - cut
    if count:
        named = tuple(line for line in notes.lines if not cut or line != notes.last)
        yield Fault(
            kind="bad-row",
            severity="caution",
            message=tr(
                "{count:,} {value} could not be read and {value2} left out, the first in line "
                "{value3}: {example!r}.",
                count=count,
                value=tr("rows") if count > 1 else tr("row"),
                value2=tr("are") if count > 1 else tr("is"),
                value3=named[0] if named else notes.last,
                example=notes.example[:60],
            ),
            lines=named,
            count=count,
        )


def _aside_faults(aside: RowNotes) -> Iterator[Fault]:
    """Cells of wire feed or gas that are no numbers: the rows are kept."""
    if aside.count:
        yield Fault(
            kind="bad-row",
            severity="caution",
            message=tr(
                "Wire feed or gas could not be read in {count:,} {value}, the first in line "
                "{lines}: {example!r}. Volts and amps of them are kept.",
                count=aside.count,
                value=tr("rows") if aside.count > 1 else tr("row"),
                lines=aside.lines[0],
                example=aside.example[:60],
            ),
            lines=tuple(aside.lines),
            count=aside.count,
        )


def _names(path: Path, mapping: Mapping) -> list[str]:
    """Names of the columns: those of the header, with numbers where a name is empty or stands twice."""
    with path.open(encoding=_codec(mapping), newline="", errors="replace") as file:
        wanted = mapping.header_line or mapping.first_line
        line = next(islice(file, wanted - 1, wanted), "")
    cells = _cells(line, mapping)
    names: list[str] = []
    for number, cell in enumerate(cells, 1):
        name = cell.strip() if mapping.header_line else ""
        names.append(name if name and name not in names else str(number))
    return names


def _codec(mapping: Mapping) -> str:
    return "utf-8-sig" if mapping.encoding == "utf-8" else mapping.encoding


def _cells(line: str, mapping: Mapping) -> list[str]:
    text = line.rstrip("\r\n")
    if mapping.delimiter == " ":
        return text.split()
    return next(csv.reader([text], delimiter=mapping.delimiter), [])


def _chosen(names: list[str], mapping: Mapping) -> dict[str, str]:
    """Channel -> name of its column in ``names``; a number names a column by its place."""
    chosen: dict[str, str] = {}
    for channel, column in mapping.columns.items():
        if column.column in names:
            chosen[channel] = column.column
        elif column.column.isdigit() and 1 <= int(column.column) <= len(names):
            chosen[channel] = names[int(column.column) - 1]
        else:
            there = ", ".join(names[:20])
            raise WeldingError(
                tr("there is no column {column!r}; the file has {there}", column=column.column, there=there)
            )
    return chosen


def _text(path: Path, mapping: Mapping, notes: RowNotes) -> Iterator[tuple[int, pa.RecordBatch]]:
    """Blocks of rows as text, each with the line that it begins at."""
    names = _names(path, mapping)
    chosen = _chosen(names, mapping)
    if mapping.delimiter == " ":
        yield from _blank_parted(path, mapping, names, chosen, notes)
        return
    skipped_in_block: list[int] = []

    def skip(row: Any) -> str:
        skipped_in_block.append(row.number)
        if row.text.strip():  # an empty line is no mistake
            notes.add(row.number, row.text)
        return "skip"

    with pa_csv.open_csv(
        path,
        read_options=pa_csv.ReadOptions(
            block_size=BLOCK_BYTES,
            use_threads=False,
            skip_rows=mapping.first_line - 1,
            column_names=names,
            encoding={"utf-8": "utf8", "utf-16": "utf-16", "cp1252": "cp1252"}[mapping.encoding],
        ),
        parse_options=pa_csv.ParseOptions(
            delimiter=mapping.delimiter, invalid_row_handler=skip, ignore_empty_lines=False
        ),
        convert_options=pa_csv.ConvertOptions(
            include_columns=list(dict.fromkeys(chosen.values())),
            column_types={name: pa.string() for name in chosen.values()},
            strings_can_be_null=False,
        ),
    ) as reader:
        line = mapping.first_line
        for batch in reader:
            yield line, _renamed(batch, chosen)
            # Rows left out were lines too.
            line += batch.num_rows + len(skipped_in_block)
            skipped_in_block.clear()


def _renamed(batch: pa.RecordBatch, chosen: dict[str, str]) -> pa.RecordBatch:
    return pa.RecordBatch.from_arrays(
        [batch.column(name) for name in chosen.values()], names=list(chosen.keys())
    )


def _blank_parted(
    path: Path, mapping: Mapping, names: list[str], chosen: dict[str, str], notes: RowNotes
) -> Iterator[tuple[int, pa.RecordBatch]]:
    """Columns parted by any number of blanks, which the fast reader cannot do."""
    places = {channel: names.index(name) for channel, name in chosen.items()}
    with path.open(encoding=_codec(mapping), errors="replace") as file:
        numbered = enumerate(islice(file, mapping.first_line - 1, None), mapping.first_line)
        while block := list(islice(numbered, 50_000)):
            columns: dict[str, list[str]] = {channel: [] for channel in chosen}
            for line, text in block:
                cells = text.split()
                if cells and len(cells) != len(names):
                    notes.add(line, text.strip())
                whole = len(cells) == len(names)
                for channel, place in places.items():
                    # A row that is short stays as an empty one, so that lines keep their numbers.
                    columns[channel].append(cells[place] if whole else "")
            yield block[0][0], pa.RecordBatch.from_pydict(columns)


def _parquet(path: Path, mapping: Mapping) -> Iterator[tuple[int, pa.RecordBatch]]:
    with pq.ParquetFile(path) as file:
        rows, columns = file.metadata.num_rows, file.metadata.num_columns
        if rows > MOST_SAMPLES or rows < 0:
            raise WeldingError(
                tr(
                    "{rows:,} samples: cut the recording into parts of {most_samples:,}",
                    rows=rows,
                    most_samples=MOST_SAMPLES,
                )
            )
        if columns > MOST_COLUMNS:
            raise WeldingError(tr("{columns:,} columns are no recording", columns=columns))
        chosen = _chosen([str(name) for name in file.schema_arrow.names], mapping)
        row = 1
        for batch in file.iter_batches(batch_size=1 << 18, columns=list(dict.fromkeys(chosen.values()))):
            yield row, _renamed(batch, chosen)
            row += batch.num_rows


def _plain(error: Exception) -> str:
    return next(iter(str(error).splitlines()), type(error).__name__)[:200]
