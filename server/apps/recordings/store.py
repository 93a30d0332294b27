"""Samples and levels of a recording in Django's storage: Parquet and arrays, read in parts."""

from __future__ import annotations

import io
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import numpy as np
import pyarrow.compute as pc
import pyarrow.parquet as pq
from django.db.models.fields.files import FieldFile

from apps.recordings.models import Recording
from welding.recording.signals import Recording as Signals
from welding.recording.trace import Level, thinned

MOST_SAMPLES_CUT = 400_000
"""Up to this many samples a trace is cut from the samples themselves, beyond from the levels."""


@contextmanager
def local(field: FieldFile) -> Iterator[Path]:
    """The stored file as a path, copied to a temporary one where the storage is elsewhere."""
    try:
        path = Path(field.path)
    except NotImplementedError:
        with tempfile.NamedTemporaryFile(suffix=".recording") as copy:
            with field.open("rb") as source:
                for part in source.chunks():
                    copy.write(part)
            copy.flush()
            yield Path(copy.name)
        return
    yield path


def read_signals(recording: Recording, start_s: float | None = None, end_s: float | None = None) -> Signals:
    """The samples between two times, both in; only the parts of the file that hold them are read."""
    with recording.samples.open("rb") as stored, pq.ParquetFile(stored) as file:
        groups = _groups(file, start_s, end_s)
        table = file.read_row_groups(groups) if groups else file.schema_arrow.empty_table()
    if start_s is not None or end_s is not None:
        time = table.column("time_s")
        inside = pc.and_(
            pc.greater_equal(time, -np.inf if start_s is None else start_s),
            pc.less_equal(time, np.inf if end_s is None else end_s),
        )
        table = table.filter(inside)
    columns = {name: table.column(name).to_numpy() for name in table.column_names}
    return Signals(**columns)


def _groups(file: pq.ParquetFile, start_s: float | None, end_s: float | None) -> list[int]:
    chosen = []
    for at in range(file.num_row_groups):
        statistics = file.metadata.row_group(at).column(0).statistics
        before = end_s is not None and statistics.min > end_s
        after = start_s is not None and statistics.max < start_s
        if not before and not after:
            chosen.append(at)
    return chosen


def trace(
    recording: Recording, start_s: float | None, end_s: float | None, most: int
) -> tuple[list[str], Level]:
    """Lowest and highest values of every channel between two times, in at most ``2 * most`` buckets."""
    with recording.levels.open("rb") as stored:
        arrays = dict(np.load(io.BytesIO(stored.read())))
    names = [str(name) for name in arrays["channels"]]
    count = sum(key.startswith("size_") for key in arrays)
    levels = [
        Level(int(arrays[f"size_{at}"]), arrays[f"start_{at}"], arrays[f"low_{at}"], arrays[f"high_{at}"])
        for at in range(count)
    ]
    for level in reversed(levels):
        cut = _within(level, start_s, end_s)
        if cut.start_s.size >= most:
            return names, _coarser(cut, most)
    finest = _within(levels[0], start_s, end_s)
    if finest.start_s.size * finest.size > MOST_SAMPLES_CUT:
        return names, finest
    signals = read_signals(recording, start_s, end_s)
    return names, thinned(signals.time_s, tuple(getattr(signals, name) for name in names), most)


def _within(level: Level, start_s: float | None, end_s: float | None) -> Level:
    first, last = 0, level.start_s.size
    if start_s is not None:
        first = max(0, int(np.searchsorted(level.start_s, start_s, side="right")) - 1)
    if end_s is not None:
        last = int(np.searchsorted(level.start_s, end_s, side="right"))
    cut = slice(first, last)
    return Level(level.size, level.start_s[cut], level.low[:, cut], level.high[:, cut])


def _coarser(level: Level, most: int) -> Level:
    """The level with so many buckets joined that at most ``2 * most`` remain."""
    joined = level.start_s.size // most
    if joined < 2:
        return level
    edges = np.arange(0, level.start_s.size, joined)
    return Level(
        level.size * joined,
        level.start_s[edges],
        np.fmin.reduceat(level.low, edges, axis=1),
        np.fmax.reduceat(level.high, edges, axis=1),
    )
