"""Where the arc burned: stretches of arc, and the passes that they make up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from welding.ranges import Limits, positive
from welding.recording.signals import Recording, Samples

ARC_ON_A = 5.0
"""Current [A] from which the arc counts as burning (common practice; adjustable)."""
BRIDGE_S = 0.05
"""Lulls up to this long [s] are no end of the arc: zero crossings of AC, blown short circuits."""
TOUCH_S = 0.1
"""Stretches shorter than this [s] are touches of the electrode, not welding."""
LONGEST_HOLE_S = 2.0
"""Over a hole in the data longer than this [s] the arc is not taken to have burned on: many recorders
fall silent between passes."""
PAUSE_S = 20.0
"""Stretches this close together [s] are one pass with restarts, until a person says otherwise."""


@dataclass(frozen=True, slots=True)
class Run:
    """Samples ``first`` to ``last`` (both in) of one unbroken run of data with the arc on."""

    first: int
    last: int


@dataclass(frozen=True, slots=True)
class Stretch:
    """One stretch of arc.

    ``runs`` are its unbroken runs of data: a gap in the data parts them, a lull of the arc does not.
    """

    start_s: float
    end_s: float
    runs: tuple[Run, ...]


@dataclass(frozen=True, slots=True)
class PassFound:
    """One pass as the recording suggests it; ``stretches`` are its starts and stops."""

    start_s: float
    end_s: float
    stretches: tuple[Stretch, ...]


def arc_stretches(
    recording: Recording,
    *,
    arc_on_a: float = ARC_ON_A,
    bridge_s: float = BRIDGE_S,
    touch_s: float = TOUCH_S,
) -> tuple[Stretch, ...]:
    """Stretches in which the current stays above a threshold.

    Args:
        recording: Samples in order of time.
        arc_on_a: Magnitude of the current [A] from which the arc burns, above zero.
        bridge_s: Lulls up to this long [s] belong to the stretch.
        touch_s: Shorter stretches [s] are left out, unless a stretch has no longer one beside it.

    Returns:
        The stretches in order; their times are those of the first and the last sample with arc.

    Raises:
        OutOfRangeError: The threshold is not above zero, or a time is negative.
    """
    positive("A").require("arc_on_a", arc_on_a)
    for name, value in (("bridge_s", bridge_s), ("touch_s", touch_s)):
        Limits(0, float("inf"), "s").require(name, value)
    if recording.size == 0:
        return ()
    time = recording.time_s
    on = arc_is_on(recording.current_a, arc_on_a)
    starts, stops = runs_of(on)
    if starts.size == 0:
        return ()
    if recording.size > 1:
        holes = np.flatnonzero(np.diff(time) > max(LONGEST_HOLE_S, recording.gap_s))
        holes = holes[on[holes] & on[holes + 1]]
        starts, stops = np.sort(np.append(starts, holes + 1)), np.sort(np.append(stops, holes))
    starts, stops = _bridged(time, starts, stops, max(bridge_s, 1.5 * recording.step_s))
    step = recording.step_s
    long_enough = time[stops] - time[starts] + step >= touch_s
    starts, stops = starts[long_enough], stops[long_enough]
    gaps = np.flatnonzero(np.diff(time) > recording.gap_s) if recording.size > 1 else np.empty(0, np.int64)
    return tuple(
        Stretch(float(time[first]), float(time[last]), _split(int(first), int(last), gaps))
        for first, last in zip(starts, stops, strict=True)
    )


def passes_found(stretches: tuple[Stretch, ...], *, pause_s: float = PAUSE_S) -> tuple[PassFound, ...]:
    """Group stretches into passes: a pause longer than ``pause_s`` [s] begins the next pass."""
    groups: list[list[Stretch]] = []
    for one in stretches:
        if groups and one.start_s - groups[-1][-1].end_s <= pause_s:
            groups[-1].append(one)
        else:
            groups.append([one])
    return tuple(PassFound(group[0].start_s, group[-1].end_s, tuple(group)) for group in groups)


def arc_is_on(current_a: Samples, arc_on_a: float) -> NDArray[np.bool_]:
    """Where the magnitude of the current reaches the threshold."""
    return np.asarray((current_a >= arc_on_a) | (current_a <= -arc_on_a))


def runs_of(on: NDArray[np.bool_]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """First and last index of every run of true."""
    edges = np.flatnonzero(on[1:] != on[:-1]) + 1
    bounds = np.concatenate(([0], edges, [on.size]))
    first, last = bounds[:-1], bounds[1:] - 1
    chosen = on[first]
    return first[chosen], last[chosen]


def _bridged(
    time: Samples, starts: NDArray[np.int64], stops: NDArray[np.int64], bridge_s: float
) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Close lulls that are shorter than ``bridge_s``; a gap in the data at the arc is bridged by runs."""
    lull = time[starts[1:]] - time[stops[:-1]]
    new = np.concatenate(([True], lull > bridge_s))
    return starts[new], stops[np.concatenate((new[1:], [True]))]


def _split(first: int, last: int, gaps: NDArray[np.int64]) -> tuple[Run, ...]:
    """Part a stretch at gaps in the data (``gaps`` holds the index before each)."""
    inside = gaps[np.searchsorted(gaps, first) : np.searchsorted(gaps, last)]
    bounds = [first - 1, *(int(one) for one in inside), last]
    return tuple(Run(bounds[k] + 1, bounds[k + 1]) for k in range(len(bounds) - 1))
