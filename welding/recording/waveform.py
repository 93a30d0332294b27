"""What the waveform tells: short circuits a second, pulses, alternating halves.

Thresholds are common practice: a bridged arc falls below 10 V and burns again above 14 V.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from welding.language import tr
from welding.recording.arcs import Stretch
from welding.recording.signals import Recording, Samples

SHORT_V, ARC_V = 10.0, 14.0
LONGEST_SHORT_S = 0.02
SLOWEST_STEP_S = 0.00101
SAMPLES_A_CYCLE = 8
ENOUGH = 2_000_000
PULSE_DEPTH = 0.35
IRREGULAR = 0.25

Shape = Literal["steady", "short-circuit", "pulsed", "alternating"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Waveform:
    """The shape of voltage and current over the arc. ``None`` where it does not apply.

    Attributes:
        shape: What it looks like.
        short_circuits_hz: Short circuits a second of arc.
        pulse_hz: Pulses a second [Hz].
        peak_share: Share of a period spent at peak.
        peak_a: Median current at peak [A].
        background_a: Median current at background [A].
        ac_hz: Cycles a second of alternating current [Hz].
        negative_share: Share of a cycle with negative current.
        note: Why something could not be told, in words; empty otherwise.
    """

    shape: Shape
    short_circuits_hz: float | None = None
    pulse_hz: float | None = None
    peak_share: float | None = None
    peak_a: float | None = None
    background_a: float | None = None
    ac_hz: float | None = None
    negative_share: float | None = None
    note: str = ""


def waveform_of(recording: Recording, stretches: tuple[Stretch, ...]) -> Waveform:
    """Tell the shape of the arc from its samples.

    Args:
        recording: Samples in order of time, signs as recorded.
        stretches: Where the arc burned.

    Returns:
        The shape. A slow recording cannot show waveforms; ``note`` says so.
    """
    step = recording.step_s
    runs = [run for one in stretches for run in one.runs if run.last - run.first >= 2]
    if not runs or step <= 0:
        return Waveform(shape="steady", note=tr("too few samples to see a waveform"))
    longest = max(runs, key=lambda run: run.last - run.first)
    # The middle of a long run is enough, and holds neither start nor crater.
    over = max(0, longest.last + 1 - longest.first - ENOUGH) // 2
    cut = slice(longest.first + over, longest.last + 1 - over)
    time, volts, amps = recording.time_s[cut], recording.voltage_v[cut], recording.current_a[cut]
    negative = float(np.count_nonzero(amps < 0)) / amps.size
    if 0.02 < negative < 0.98:
        period, _ = _periods(time, amps > 0, amps < 0)
        if period is None or period < SAMPLES_A_CYCLE * step:
            return Waveform(shape="alternating", negative_share=negative, note=_slow(step, "cycles"))
        return Waveform(shape="alternating", ac_hz=1 / period, negative_share=negative)
    size = np.abs(amps)
    low, high = (float(one) for one in np.percentile(size, (10, 90)))
    middle, swing = (low + high) / 2, high - low
    shorts = _short_circuits(time, np.abs(volts)) if step <= SLOWEST_STEP_S else None
    if swing > PULSE_DEPTH * middle and not shorts:
        period, scatter = _periods(time, size > middle + 0.15 * swing, size < middle - 0.15 * swing)
        if period is not None and period >= SAMPLES_A_CYCLE * step and scatter < IRREGULAR:
            at_peak = size > middle
            return Waveform(
                shape="pulsed",
                pulse_hz=1 / period,
                peak_share=float(np.count_nonzero(at_peak)) / size.size,
                peak_a=float(np.median(size[at_peak])),
                background_a=float(np.median(size[~at_peak])),
            )
    if shorts:
        return Waveform(shape="short-circuit", short_circuits_hz=shorts)
    note = _slow(step, tr("short circuits and pulses")) if step > SLOWEST_STEP_S else ""
    return Waveform(shape="steady", short_circuits_hz=None if shorts is None else 0.0, note=note)


def _slow(step_s: float, what: str) -> str:
    return tr("{value:.3g} samples a second are too few to see {what}", value=1 / step_s, what=what)


def _flips(up: NDArray[np.bool_], down: NDArray[np.bool_]) -> NDArray[np.int64]:
    """Where a signal goes up, with a dead band between ``down`` and ``up``."""
    state = np.zeros(up.size, dtype=np.int8)
    state[up] = 1
    state[down] = -1
    told = np.flatnonzero(state)
    if told.size < 2:
        return np.empty(0, np.int64)
    kept = state[told]
    rising = np.flatnonzero((kept[1:] == 1) & (kept[:-1] == -1)) + 1
    return told[rising]


def _periods(time: Samples, up: NDArray[np.bool_], down: NDArray[np.bool_]) -> tuple[float | None, float]:
    """Median period [s] and the scatter of the periods relative to it."""
    rising = _flips(up, down)
    if rising.size < 4:
        return None, np.inf
    periods = np.diff(time[rising])
    median = float(np.median(periods))
    # The mean over whole periods is finer than one step of the clock; the scatter is robust.
    spread = float(np.median(np.abs(periods - median))) / median
    usual = periods[np.abs(periods - median) < 0.5 * median]
    return float(usual.mean()), spread


def _short_circuits(time: Samples, volts: Samples) -> float | None:
    """Short circuits a second: the voltage falls below 10 V and is back above 14 V in 20 ms."""
    back = _flips(volts > ARC_V, volts < SHORT_V)
    fallen = _flips(volts < SHORT_V, volts > ARC_V)
    lasts = float(time[-1] - time[0])
    if back.size == 0 or fallen.size == 0 or lasts <= 0:
        return 0.0
    following = np.searchsorted(back, fallen)
    ended = following < back.size
    short = time[back[following[ended]]] - time[fallen[ended]] <= LONGEST_SHORT_S
    rate = float(np.count_nonzero(short)) / lasts
    return rate if rate >= 1 else 0.0
