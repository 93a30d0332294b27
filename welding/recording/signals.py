"""The recording itself: time, voltage, current and what else was measured, sample by sample."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from welding.errors import WeldingError
from welding.language import tr

Samples = NDArray[np.float64]
Channel = Literal["voltage_v", "current_a", "wire_feed_m_min", "gas_l_min"]
CHANNELS: tuple[Channel, ...] = ("voltage_v", "current_a", "wire_feed_m_min", "gas_l_min")

MOST_LINES_NAMED = 20
LATEST_S, HIGHEST_V, HIGHEST_A = 1e11, 10_000.0, 1_000_000.0
"""Beyond these no clock, voltage or current of a weld is read (common practice, far on the safe side)."""
GAP_STEPS = 5.0
"""A step longer than this many usual steps is a gap; shorter ones are a sample or two left out."""

Severity = Literal["caution", "breach"]
FaultKind = Literal[
    "bad-row",
    "truncated",
    "not-a-number",
    "time-back",
    "gap",
    "saturated",
    "stuck",
    "swapped",
    "negative-voltage",
    "too-slow",
    "no-arc",
    "outage",
    "sag",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Fault:
    """Something that is wrong with a recording, in words a welder understands.

    Attributes:
        kind: What it is, stable for programs.
        severity: ``breach`` where figures from the recording cannot be trusted without a person's look.
        message: One sentence with figures.
        at_s: Where it begins on the recording's clock [s]; ``None`` where it has no one place.
        lasts_s: How long it lasts [s].
        lines: Lines of the file, at most 20 of them, where it came from a file.
        count: How many samples or rows.
    """

    kind: FaultKind
    severity: Severity
    message: str
    at_s: float | None = None
    lasts_s: float | None = None
    lines: tuple[int, ...] = ()
    count: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Recording:
    """Samples in order of time; every array has the same length.

    Time rises strictly and no voltage or current is missing: ``tidy`` sees to that. Wire feed and
    gas may hold NaN where a slower sensor has no value.
    """

    time_s: Samples
    voltage_v: Samples
    current_a: Samples
    wire_feed_m_min: Samples | None = None
    gas_l_min: Samples | None = None

    def __post_init__(self) -> None:
        for name in CHANNELS:
            channel = getattr(self, name)
            if channel is not None and channel.shape != self.time_s.shape:
                raise WeldingError(
                    tr(
                        "{name} has {size} samples, time has {size2}",
                        name=name,
                        size=channel.size,
                        size2=self.time_s.size,
                    )
                )

    @property
    def size(self) -> int:
        """Number of samples."""
        return int(self.time_s.size)

    @property
    def step_s(self) -> float:
        """The usual step between samples [s], the median; 0 where there are fewer than two."""
        if self.size < 2:
            return 0.0
        # The median of a part is as good as that of the whole, and the whole may be long.
        few = self.time_s if self.size <= 200_000 else self.time_s[:200_000]
        return float(np.median(np.diff(few)))

    @property
    def gap_s(self) -> float:
        """A step longer than this [s] is a gap in the data."""
        return GAP_STEPS * self.step_s

    def part(self, start_s: float, end_s: float) -> Recording:
        """The samples from ``start_s`` to ``end_s``, both ends in."""
        first = int(np.searchsorted(self.time_s, start_s, side="left"))
        last = int(np.searchsorted(self.time_s, end_s, side="right"))
        cut = slice(first, last)
        feed, gas = self.wire_feed_m_min, self.gas_l_min
        return Recording(
            time_s=self.time_s[cut],
            voltage_v=self.voltage_v[cut],
            current_a=self.current_a[cut],
            wire_feed_m_min=None if feed is None else feed[cut],
            gas_l_min=None if gas is None else gas[cut],
        )


@dataclass(slots=True)
class Lines:
    """Which line of a file each sample stands in: blocks of rows, each with its first line."""

    firsts: list[int] = field(default_factory=list)
    ends: list[int] = field(default_factory=list)

    def add(self, first_line: int, rows: int) -> None:
        """A block of rows that follow line by line."""
        self.firsts.append(first_line)
        self.ends.append(self.size + rows)

    @property
    def size(self) -> int:
        """How many rows there are."""
        return self.ends[-1] if self.ends else 0

    def of(self, row: int) -> int:
        """Line of a row, both counted as the file has them; rows from 0, lines from 1."""
        block = bisect_right(self.ends, row)
        return self.firsts[block] + row - (self.ends[block - 1] if block else 0)


@dataclass(frozen=True, slots=True)
class Tidied:
    """A recording that can be integrated, and what had to be left out for it."""

    recording: Recording
    faults: tuple[Fault, ...] = field(default=())


def tidy(
    time_s: Samples,
    voltage_v: Samples,
    current_a: Samples,
    *,
    wire_feed_m_min: Samples | None = None,
    gas_l_min: Samples | None = None,
    lines: Lines | None = None,
    told: NDArray[np.bool_] | None = None,
) -> Tidied:
    """Leave out what cannot be used, and say so: missing numbers, time that goes backwards.

    Args:
        time_s: Clock of the samples [s].
        voltage_v: Arc voltage [V].
        current_a: Current [A].
        wire_feed_m_min: Wire feed [m/min].
        gas_l_min: Gas flow [L/min].
        lines: Lines of the file that the samples came from, where they came from one.
        told: Which samples come from rows whose cells were told of already: left out without another word.

    Returns:
        The usable recording with the faults found on the way. Nothing is filled in.
    """
    faults: list[Fault] = []
    channels: dict[str, Samples | None] = {
        "time_s": time_s,
        "voltage_v": voltage_v,
        "current_a": current_a,
        "wire_feed_m_min": wire_feed_m_min,
        "gas_l_min": gas_l_min,
    }

    # Where the samples stood before anything was left out.
    place: NDArray[np.int64] | None = None

    def keep(mask: NDArray[np.bool_]) -> None:
        nonlocal place
        for name, channel in channels.items():
            channels[name] = None if channel is None else channel[mask]
        place = np.flatnonzero(mask) if place is None else place[mask]

    def named(wrong: NDArray[np.bool_]) -> tuple[int, ...]:
        found = np.flatnonzero(wrong)[:MOST_LINES_NAMED]
        at = found if place is None else place[found]
        return () if lines is None else tuple(lines.of(int(one)) for one in at)

    # NaN compares false; what no sensor of a weld can read is no number either.
    whole = (np.abs(time_s) <= LATEST_S) & (np.abs(voltage_v) <= HIGHEST_V) & (np.abs(current_a) <= HIGHEST_A)
    wrong = ~whole if told is None else ~whole & ~told
    missing = int(np.count_nonzero(wrong))
    if missing:
        first = int(np.argmax(wrong))
        at = float(time_s[first]) if np.isfinite(time_s[first]) else None
        faults.append(
            Fault(
                kind="not-a-number",
                severity="caution",
                message=tr(
                    "{missing:,} {value} no usable number for time, voltage or current; left out.",
                    missing=missing,
                    value=tr("samples have") if missing > 1 else tr("sample has"),
                ),
                at_s=at,
                lines=named(wrong),
                count=missing,
            )
        )
    if not whole.all():
        keep(whole)
    time = channels["time_s"]
    if time is not None and time.size > 1 and bool(np.any(np.diff(time) <= 0)):
        highest = np.maximum.accumulate(time)
        rising = np.concatenate(([True], time[1:] > highest[:-1]))
        back = int(np.argmax(~rising))
        count = int(rising.size - np.count_nonzero(rising))
        faults.append(
            Fault(
                kind="time-back",
                severity="breach" if count > rising.size / 100 else "caution",
                message=tr(
                    "Time goes back or stands still from {time:g} s to {time2:g} s; {count:,} "
                    "samples that are not later than the one before are left out.",
                    time=time[back - 1],
                    time2=time[back],
                    count=count,
                ),
                at_s=float(time[back - 1]),
                lines=named(~rising),
                count=count,
            )
        )
        keep(rising)
    recording = Recording(**channels)  # type: ignore[arg-type]
    return Tidied(recording, tuple(faults))
