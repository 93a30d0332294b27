"""What looks wrong with a recording: gaps, clipped or stuck channels, channels swapped, stutter.

All thresholds are common practice and err towards asking a person; none of them changes a sample.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from welding.language import tr, tr_noop
from welding.recording.arcs import BRIDGE_S, PassFound, Run, Stretch, runs_of
from welding.recording.signals import Fault, Recording, Samples

NAMES: dict[str, tuple[str, str]] = {
    "voltage_v": ("voltage", "V"),
    "current_a": ("current", "A"),
    "wire_feed_m_min": (tr_noop("wire feed"), "m/min"),
    "gas_l_min": (tr_noop("gas flow"), "L/min"),
}
HIGHEST_ARC_V = 60.0
"""A mean arc voltage above this is no arc of the processes here."""
STUCK_S, STUCK_SAMPLES = 1.0, 50
CLIPPED_RUN, CLIPPED_SHARE, VARIED = 3, 0.002, 50
SAG_SHARE, SAG_WINDOW_S = 0.2, 0.5
MOST_OF_A_KIND = 20
ENOUGH = 500_000


def recording_faults(recording: Recording, passes: tuple[PassFound, ...]) -> tuple[Fault, ...]:
    """Everything that a person should look at before believing figures of this recording.

    Args:
        recording: Samples in order of time.
        passes: The passes found in it.

    Returns:
        Faults, the grave ones first, at most 20 of a kind.
    """
    stretches = tuple(stretch for one in passes for stretch in one.stretches)
    if not stretches:
        return (
            Fault(
                kind="no-arc",
                severity="breach",
                message=tr("No arc was found: the current never stays above the threshold."),
            ),
        )
    found = [
        *_gaps(recording, stretches),
        *_silences(recording, passes),
        *_swapped(recording, stretches),
        *_saturated(recording, stretches),
        *_stuck(recording, stretches),
        *_outages(passes),
        *_sags(recording, stretches),
    ]
    stuck = [one for one in found if one.kind == "stuck"]
    found = [one for one in found if one.kind != "sag" or not any(_during(one, other) for other in stuck)]
    kept: list[Fault] = []
    for one in sorted(found, key=lambda fault: fault.severity != "breach"):
        if sum(other.kind == one.kind for other in kept) < MOST_OF_A_KIND:
            kept.append(one)
    return tuple(kept)


def _during(one: Fault, other: Fault) -> bool:
    """Whether one fault begins while the other lasts: a stuck sensor droops by itself."""
    if one.at_s is None or other.at_s is None:
        return False
    return other.at_s - SAG_WINDOW_S <= one.at_s <= other.at_s + (other.lasts_s or 0)


def _gaps(recording: Recording, stretches: tuple[Stretch, ...]) -> Iterator[Fault]:
    for stretch in stretches:
        for before, after in zip(stretch.runs, stretch.runs[1:], strict=False):
            start = float(recording.time_s[before.last])
            lasts = float(recording.time_s[after.first]) - start
            yield Fault(
                kind="gap",
                severity="breach",
                message=tr(
                    "No samples for {lasts:.3g} s while the arc burned, from {start:.2f} s on; that "
                    "energy is not counted.",
                    lasts=lasts,
                    start=start,
                ),
                at_s=start,
                lasts_s=lasts,
            )


def _silences(recording: Recording, passes: tuple[PassFound, ...]) -> Iterator[Fault]:
    """Two stretches of one pass with nothing recorded between them: nobody knows what happened."""
    for one in passes:
        for before, after in pairwise(one.stretches):
            if after.runs[0].first != before.runs[-1].last + 1:
                continue
            lasts = after.start_s - before.end_s
            yield Fault(
                kind="gap",
                severity="breach",
                message=tr(
                    "Nothing was recorded for {lasts:.1f} s from {end_s:.2f} s on: whether the arc "
                    "burned meanwhile cannot be told, and nothing is counted for it.",
                    lasts=lasts,
                    end_s=before.end_s,
                ),
                at_s=before.end_s,
                lasts_s=lasts,
            )


def _of_arc(channel: Samples, stretches: tuple[Stretch, ...]) -> Samples:
    """The samples of the arc; a long recording of one stretch is not copied."""
    parts = [channel[run.first : run.last + 1] for one in stretches for run in one.runs]
    return parts[0] if len(parts) == 1 else np.concatenate(parts)


def _mean_size(channel: Samples, stretches: tuple[Stretch, ...]) -> float:
    values = _of_arc(channel, stretches)
    return float(np.mean(np.abs(values[:: max(1, values.size // ENOUGH)])))


def _swapped(recording: Recording, stretches: tuple[Stretch, ...]) -> Iterator[Fault]:
    volts = _mean_size(recording.voltage_v, stretches)
    amps = _mean_size(recording.current_a, stretches)
    if volts > HIGHEST_ARC_V and amps < HIGHEST_ARC_V:
        yield Fault(
            kind="swapped",
            severity="breach",
            message=tr(
                "Mean {volts:.0f} V and {amps:.0f} A: the two channels look swapped. Choose the "
                "columns again.",
                volts=volts,
                amps=amps,
            ),
        )
    elif volts > HIGHEST_ARC_V:
        yield Fault(
            kind="swapped",
            severity="breach",
            message=tr(
                "A mean of {volts:.0f} V is no arc voltage: check the column and its unit.", volts=volts
            ),
        )


def _saturated(recording: Recording, stretches: tuple[Stretch, ...]) -> Iterator[Fault]:
    for name in ("voltage_v", "current_a"):
        channel = _of_arc(getattr(recording, name), stretches)
        top = max(float(channel.max()), -float(channel.min()))
        at_top = (channel == top) | (channel == -top)
        if np.count_nonzero(at_top) <= CLIPPED_SHARE * channel.size:
            continue
        starts, stops = runs_of(at_top)
        clipped = int((stops - starts + 1)[(stops - starts + 1) >= CLIPPED_RUN].sum())
        if clipped <= CLIPPED_SHARE * channel.size:
            continue
        # A clean rectangle stands at its top too; only a signal that varies otherwise is clipped.
        below = channel[~at_top][:100_000]
        if np.unique(below).size < VARIED:
            continue
        word, unit = tr(NAMES[name][0]), NAMES[name][1]
        yield Fault(
            kind="saturated",
            severity="breach",
            message=tr(
                "The {word} stands at its highest value, {top:.4g} {unit}, for {clipped:.1%} of "
                "the arc: the channel looks cut off at its limit.",
                word=word,
                top=top,
                unit=unit,
                clipped=clipped / channel.size,
            ),
            count=clipped,
        )


def _stuck(recording: Recording, stretches: tuple[Stretch, ...]) -> Iterator[Fault]:
    """The same value over and over while the other channel lives."""
    for name, other in (("voltage_v", "current_a"), ("current_a", "voltage_v")):
        channel, beside = getattr(recording, name), getattr(recording, other)
        for stretch in stretches:
            for run in stretch.runs:
                yield from _stuck_in(recording, run, channel, beside, name)


def _stuck_in(
    recording: Recording, run: Run, channel: Samples, beside: Samples, name: str
) -> Iterator[Fault]:
    part = channel[run.first : run.last + 1]
    if part.size <= STUCK_SAMPLES:
        return
    starts, stops = runs_of(part[1:] == part[:-1])
    time = recording.time_s
    for start, stop in zip(starts, stops, strict=True):
        first, last = run.first + int(start), run.first + int(stop) + 1
        lasts = float(time[last] - time[first])
        if last - first + 1 < STUCK_SAMPLES or lasts < STUCK_S:
            continue
        if np.unique(beside[first : last + 1]).size < 10:
            continue
        word, unit = tr(NAMES[name][0]), NAMES[name][1]
        yield Fault(
            kind="stuck",
            severity="breach",
            message=tr(
                "The {word} stays at exactly {channel:.4g} {unit} for {lasts:.1f} s from "
                "{time:.2f} s on while the other channel moves: a stuck sensor.",
                word=word,
                channel=channel[first],
                unit=unit,
                lasts=lasts,
                time=time[first],
            ),
            at_s=float(time[first]),
            lasts_s=lasts,
            count=last - first + 1,
        )


def _outages(passes: tuple[PassFound, ...]) -> Iterator[Fault]:
    """Stutter: the arc goes out for a moment within a pass. Longer stops are restarts, not faults."""
    for one in passes:
        for before, after in zip(one.stretches, one.stretches[1:], strict=False):
            lasts = after.start_s - before.end_s
            if BRIDGE_S < lasts < 1.0:
                yield Fault(
                    kind="outage",
                    severity="caution",
                    message=tr(
                        "The arc went out for {lasts:.2f} s at {end_s:.2f} s: stutter, or a wire that "
                        "slipped.",
                        lasts=lasts,
                        end_s=before.end_s,
                    ),
                    at_s=before.end_s,
                    lasts_s=lasts,
                )


def _sags(recording: Recording, stretches: tuple[Stretch, ...]) -> Iterator[Fault]:
    """A mean over half a second that leaves the median of its stretch by more than a fifth."""
    for name, (word, unit) in NAMES.items():
        channel = getattr(recording, name)
        if channel is None:
            continue
        for stretch in stretches:
            for run in stretch.runs:
                yield from _sags_in(recording, run, channel, word, unit)


def _sags_in(recording: Recording, run: Run, channel: Samples, word: str, unit: str) -> Iterator[Fault]:
    # A thousand samples a window tell its mean.
    thin = max(1, int(SAG_WINDOW_S / max(recording.step_s, 1e-9) / 1000))
    part = slice(run.first, run.last + 1, thin)
    time = recording.time_s[part]
    if time.size < 8 or time[-1] - time[0] < 6 * SAG_WINDOW_S:
        return
    # Windows that hold samples: a long pause must not cost a window for every half second of it.
    windows = np.floor((time - time[0]) / SAG_WINDOW_S)
    bounds = np.concatenate(([0], np.flatnonzero(np.diff(windows)) + 1))
    values = np.abs(channel[part])
    values = np.where(np.isfinite(values), values, 0.0)
    means = np.add.reduceat(values, bounds) / np.diff(np.concatenate((bounds, [time.size])))
    # Start, crater fill and a short last window are no droop.
    inner = means[2:-2]
    if inner.size < 3:
        return
    usual = float(np.median(inner))
    starts, stops = runs_of(np.abs(inner - usual) > SAG_SHARE * usual)
    for start, stop in zip(starts, stops, strict=True):
        at = float(time[bounds[start + 2]])
        worst = float(inner[start : stop + 1][np.argmax(np.abs(inner[start : stop + 1] - usual))])
        lasts = (int(stop) - int(start) + 1) * SAG_WINDOW_S
        yield Fault(
            kind="sag",
            severity="caution",
            message=tr(
                "The {word} {value} to {worst:.4g} {unit} for {lasts:.1f} s from {at:.2f} s on; "
                "its usual value in this stretch is {usual:.4g} {unit}.",
                word=word,
                value=tr("droops") if worst < usual else tr("rises"),
                worst=worst,
                unit=unit,
                lasts=lasts,
                at=at,
                usual=usual,
            ),
            at_s=at,
            lasts_s=lasts,
        )
