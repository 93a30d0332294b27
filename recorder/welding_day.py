"""A coupon at the simulated booth: passes and pauses, and what a bad day does to the sensors."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np

from recorder.waveforms import Mode, Samples, Setting, arc

COLUMNS = ("time_s", "voltage_v", "current_a", "wire_feed_m_min", "gas_l_min")
PRE_FLOW_S, POST_FLOW_S = 0.5, 1.0


@dataclass(frozen=True, slots=True)
class Trouble:
    """What goes wrong, at times [s] of the recording; none of it by default.

    Attributes:
        drift_percent_min: Voltage sensor drifting, percent a minute.
        dropout: Start and length [s] of a hole in the samples.
        stuck: Start and length [s] of a current sensor that keeps its value.
        saturate_a: Highest current [A] that the sensor can tell.
        network: Start and length [s] of a break of the network; nothing is lost, it comes late.
    """

    drift_percent_min: float = 0.0
    dropout: tuple[float, float] | None = None
    stuck: tuple[float, float] | None = None
    saturate_a: float | None = None
    network: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Plan:
    """Passes of equal length with pauses between them."""

    setting: Setting
    passes: int = 3
    arc_s: float = 20.0
    pause_s: float = 30.0
    lead_s: float = 2.0
    wire_feed_m_min: float = 6.5
    gas_l_min: float = 15.0
    trouble: Trouble = field(default_factory=Trouble)

    @property
    def lasts_s(self) -> float:
        """From switching on to two seconds after the last arc [s]."""
        return self.lead_s + self.passes * self.arc_s + (self.passes - 1) * self.pause_s + 2.0

    def start_of(self, number: int) -> float:
        """When pass ``number`` (from 1) begins [s]."""
        return self.lead_s + (number - 1) * (self.arc_s + self.pause_s)


def samples(plan: Plan, rate_hz: float, chunk_s: float = 1.0) -> Iterator[Samples]:
    """The recording bit by bit: arrays of rows with the columns of ``COLUMNS``.

    A hole in the samples leaves rows out; a chunk may be empty.
    """
    total = round(plan.lasts_s * rate_hz)
    a_chunk = max(1, round(chunk_s * rate_hz))
    held: float | None = None
    for first in range(0, total, a_chunk):
        time = np.arange(first, min(first + a_chunk, total)) / rate_hz
        rows = _rows(plan, time)
        stuck = plan.trouble.stuck
        if stuck is not None:
            inside = (time >= stuck[0]) & (time < stuck[0] + stuck[1])
            if inside.any():
                held = float(rows[int(np.argmax(inside)), 2]) if held is None else held
                rows[inside, 2] = held
        hole = plan.trouble.dropout
        if hole is not None:
            rows = rows[(time < hole[0]) | (time >= hole[0] + hole[1])]
        yield rows


def _rows(plan: Plan, time: Samples) -> Samples:
    rows = np.zeros((time.size, len(COLUMNS)))
    rows[:, 0] = time
    for number in range(1, plan.passes + 1):
        start = plan.start_of(number)
        on = (time >= start) & (time < start + plan.arc_s)
        if on.any():
            # Every pass is its own arc: another seed, and a little hotter or colder by hand.
            setting = Setting(
                plan.setting.mode,
                plan.setting.voltage_v,
                plan.setting.current_a * (1 + 0.015 * np.sin(number)),
                plan.setting.noise,
                plan.setting.seed + number,
            )
            rows[on, 1], rows[on, 2] = arc(setting, time[on] - start)
            rows[on, 3] = plan.wire_feed_m_min * (1 + 0.01 * np.sin(7 * time[on]))
        gas = (time >= start - PRE_FLOW_S) & (time < start + plan.arc_s + POST_FLOW_S)
        rows[gas, 4] = plan.gas_l_min * (1 + 0.005 * np.sin(3 * time[gas]))
    rows[:, 1] *= 1 + plan.trouble.drift_percent_min / 100 * time / 60
    if plan.trouble.saturate_a is not None:
        np.clip(rows[:, 2], -plan.trouble.saturate_a, plan.trouble.saturate_a, out=rows[:, 2])
    return rows


def text_of(rows: Samples) -> bytes:
    """Rows as the lines of CSV that a gateway sends."""
    return b"".join(b"%.6f,%.3f,%.2f,%.3f,%.2f\n" % tuple(row) for row in rows.tolist())


USUAL: dict[Mode, tuple[float, float, float]] = {
    "short-circuit": (18.0, 120.0, 3.4),
    "spray": (28.0, 250.0, 8.5),
    "pulsed": (24.0, 160.0, 6.5),
    "ac": (13.0, 120.0, 0.0),
}
"""Volts, amps and wire feed [m/min] of a usual setting (common practice)."""
