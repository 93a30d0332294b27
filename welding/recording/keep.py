"""Samples and their levels as files: Parquet without loss, and arrays for the trace."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np
import pyarrow as pa
import pyarrow.parquet as pq

from welding.recording.signals import CHANNELS, Recording
from welding.recording.trace import levels_of

ROW_GROUP = 1 << 18


def keep(signals: Recording, samples: Path, levels: Path) -> None:
    """Write the samples of a recording to ``samples`` (Parquet) and their levels to ``levels`` (NPZ).

    Time in s, voltage in V, current in A, wire feed in m/min, gas in L/min; a channel that was not
    recorded has no column.
    """
    names = [name for name in CHANNELS if getattr(signals, name) is not None]
    columns: dict[str, Any] = {"time_s": signals.time_s}
    columns |= {name: getattr(signals, name) for name in names}
    pq.write_table(
        pa.table(columns), samples, row_group_size=ROW_GROUP, compression="zstd", use_dictionary=False
    )
    arrays: dict[str, Any] = {"channels": np.array(names)}
    for at, level in enumerate(levels_of(signals.time_s, tuple(getattr(signals, name) for name in names))):
        arrays |= {f"size_{at}": np.array(level.size), f"start_{at}": level.start_s}
        arrays |= {f"low_{at}": level.low, f"high_{at}": level.high}
    with levels.open("wb") as sink:
        np.savez(sink, **arrays)
