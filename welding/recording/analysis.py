"""The whole of a recording's analysis in one call: passes, energies, waveform, faults."""

from __future__ import annotations

from dataclasses import dataclass

from welding.errors import WeldingError
from welding.language import tr
from welding.recording.arcs import ARC_ON_A, PAUSE_S, PassFound, Stretch, arc_stretches, passes_found
from welding.recording.faults import recording_faults
from welding.recording.measure import Measured, measure
from welding.recording.signals import Fault, Recording
from welding.recording.signs import straighten
from welding.recording.waveform import Waveform, waveform_of


@dataclass(frozen=True, slots=True, kw_only=True)
class PassMeasured:
    """One pass as the recording shows it; ``stretches_s`` are its starts and stops [s]."""

    start_s: float
    end_s: float
    stretches_s: tuple[tuple[float, float], ...]
    measured: Measured
    waveform: Waveform


@dataclass(frozen=True, slots=True, kw_only=True)
class Analysis:
    """What a recording tells. ``samples_per_s`` is the usual rate."""

    samples: int
    lasts_s: float
    samples_per_s: float
    arc_on_a: float
    pause_s: float
    passes: tuple[PassMeasured, ...]
    faults: tuple[Fault, ...]


def analyse(recording: Recording, *, arc_on_a: float = ARC_ON_A, pause_s: float = PAUSE_S) -> Analysis:
    """Find the passes of a recording and what each gave.

    Args:
        recording: Samples in order of time.
        arc_on_a: Magnitude of the current [A] from which the arc burns.
        pause_s: A longer pause [s] begins the next pass.

    Returns:
        Passes with energy, means and waveform; faults of the whole. A recording without an arc has
        no passes and one fault that says so.

    Raises:
        OutOfRangeError: The threshold is not above zero.
    """
    signed, turned = straighten(recording, arc_on_a)
    found = passes_found(arc_stretches(signed, arc_on_a=arc_on_a), pause_s=pause_s)
    passes = tuple(_one(recording, signed, one) for one in found)
    step = recording.step_s
    return Analysis(
        samples=recording.size,
        lasts_s=float(recording.time_s[-1] - recording.time_s[0]) if recording.size else 0.0,
        samples_per_s=1 / step if step else 0.0,
        arc_on_a=arc_on_a,
        pause_s=pause_s,
        passes=passes,
        faults=(*turned, *recording_faults(signed, found)),
    )


def measure_window(
    recording: Recording, start_s: float, end_s: float, *, arc_on_a: float = ARC_ON_A
) -> PassMeasured:
    """What a part of a recording gave, chosen by a person.

    Raises:
        WeldingError: There is no arc in it.
    """
    part = recording.part(start_s, end_s)
    signed, _ = straighten(part, arc_on_a)
    stretches = arc_stretches(signed, arc_on_a=arc_on_a)
    if not stretches:
        raise WeldingError(
            tr("no arc between {start_s:.1f} s and {end_s:.1f} s", start_s=start_s, end_s=end_s)
        )
    return _one(part, signed, PassFound(stretches[0].start_s, stretches[-1].end_s, stretches))


def _one(recording: Recording, signed: Recording, found: PassFound) -> PassMeasured:
    stretches: tuple[Stretch, ...] = found.stretches
    return PassMeasured(
        start_s=found.start_s,
        end_s=found.end_s,
        stretches_s=tuple((one.start_s, one.end_s) for one in stretches),
        measured=measure(signed, stretches),
        waveform=waveform_of(recording, stretches),
    )
