"""Energy and means of a welding recording, by integration.

Source, from memory: ISO/TR 18491 (arc energy from instantaneous values, E = sum of U·I·dt) and the
clause of AWS D1.1 on waveform-controlled welding. The rule of integration is the trapezoid.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from welding.errors import WeldingError
from welding.language import tr
from welding.recording.arcs import Run, Stretch
from welding.recording.signals import Recording, Samples

CHUNK = 1 << 13
"""Samples a step: small enough that every array of a step stays in the processor's cache."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """What a recording gives over the time that the arc burned.

    Attributes:
        energy_j: Integral of v·i over the arc [J].
        arc_time_s: How long the arc burned [s], gaps in the data left out.
        elapsed_s: From the first arc to the last [s].
        missing_s: Gaps in the data while the arc burned [s]; their energy is not counted.
        filled_energy_j: The energy [J] if the gaps are filled with the mean power; an estimate.
        mean_voltage_v: Mean of the voltage's magnitude [V].
        mean_current_a: Mean of the current's magnitude [A].
        rms_current_a: Root of the mean square current [A].
        true_power_w: Energy over arc time [W].
        apparent_power_w: Mean volts times mean amps [W].
        mean_product_error: apparent / true power - 1; what V x I would have made wrong.
        mean_wire_feed_m_min: Mean wire feed over the arc [m/min], where it was recorded.
        mean_gas_l_min: Mean gas flow over the arc [L/min], where it was recorded.
    """

    energy_j: float
    arc_time_s: float
    elapsed_s: float
    missing_s: float
    filled_energy_j: float
    mean_voltage_v: float
    mean_current_a: float
    rms_current_a: float
    true_power_w: float
    apparent_power_w: float
    mean_product_error: float
    mean_wire_feed_m_min: float | None
    mean_gas_l_min: float | None


@dataclass(slots=True)
class _Sums:
    """Integrals over the runs so far."""

    energy: float = 0.0
    time: float = 0.0
    volts: float = 0.0
    amps: float = 0.0
    amps2: float = 0.0


def measure(recording: Recording, stretches: tuple[Stretch, ...]) -> Measured:
    """Integrate over stretches of arc.

    Args:
        recording: Samples in order of time.
        stretches: Where the arc burned, of this very recording.

    Returns:
        Energy, times and means. A sample stands for half the step on either side of it, so that a
        slow recording loses nothing at the ends of the arc.

    Raises:
        WeldingError: There is no arc, or it is a single sample with nothing beside it.
    """
    if not stretches:
        raise WeldingError(tr("no arc: the current never stays above the threshold"))
    sums = _Sums()
    for stretch in stretches:
        for run in stretch.runs:
            _add_run(recording, run, sums)
    if sums.time <= 0:
        raise WeldingError(tr("no arc: there are too few samples with current"))
    missing = sum(
        float(recording.time_s[after.first] - recording.time_s[before.last])
        for stretch in stretches
        for before, after in zip(stretch.runs, stretch.runs[1:], strict=False)
    )
    energy = abs(sums.energy)
    power = energy / sums.time
    volts, amps = sums.volts / sums.time, sums.amps / sums.time
    apparent = volts * amps
    return Measured(
        energy_j=energy,
        arc_time_s=sums.time,
        elapsed_s=stretches[-1].end_s - stretches[0].start_s,
        missing_s=missing,
        filled_energy_j=energy + power * missing,
        mean_voltage_v=volts,
        mean_current_a=amps,
        rms_current_a=float(np.sqrt(sums.amps2 / sums.time)),
        true_power_w=power,
        apparent_power_w=apparent,
        mean_product_error=apparent / power - 1 if power > 0 else 0.0,
        mean_wire_feed_m_min=_plain_mean(recording, recording.wire_feed_m_min, stretches),
        mean_gas_l_min=_plain_mean(recording, recording.gas_l_min, stretches),
    )


def _add_run(recording: Recording, run: Run, sums: _Sums) -> None:
    time, volts, amps = recording.time_s, recording.voltage_v, recording.current_a
    weight_of, weighted_of, size_of = np.empty(CHUNK + 1), np.empty(CHUNK + 1), np.empty(CHUNK + 1)
    for begin in range(run.first, run.last, CHUNK):
        end = min(begin + CHUNK, run.last)
        count = end - begin + 1
        weight, weighted, size = weight_of[:count], weighted_of[:count], size_of[:count]
        clock, v, i = time[begin : end + 1], volts[begin : end + 1], amps[begin : end + 1]
        # Each sample counts with half of the steps beside it: half the distance of its neighbours.
        np.subtract(clock[2:], clock[:-2], out=weight[1:-1])
        weight[0], weight[-1] = clock[1] - clock[0], clock[-1] - clock[-2]
        weight *= 0.5
        np.multiply(weight, i, out=weighted)
        sums.energy += float(np.dot(weighted, v))
        sums.amps2 += float(np.dot(weighted, i))
        sums.amps += float(np.dot(weight, np.abs(i, out=size)))
        sums.volts += float(np.dot(weight, np.abs(v, out=size)))
        sums.time += float(clock[-1] - clock[0])
    for edge, beside in ((run.first, run.first - 1), (run.last, run.last + 1)):
        _add_edge(recording, edge, beside, sums)


def _add_edge(recording: Recording, edge: int, beside: int, sums: _Sums) -> None:
    """Half a step outside the run, where there is a sample near enough to say that the arc was off."""
    if not 0 <= beside < recording.size:
        return
    step = abs(float(recording.time_s[edge] - recording.time_s[beside]))
    if step > recording.gap_s:
        return
    volts, amps = float(recording.voltage_v[edge]), float(recording.current_a[edge])
    half = step / 2
    sums.energy += half * volts * amps
    sums.amps2 += half * amps * amps
    sums.amps += half * abs(amps)
    sums.volts += half * abs(volts)
    sums.time += half


def _plain_mean(
    recording: Recording, channel: Samples | None, stretches: tuple[Stretch, ...]
) -> float | None:
    """Mean over the arc of a slow channel that may lack values."""
    if channel is None:
        return None
    parts = [channel[run.first : run.last + 1] for one in stretches for run in one.runs]
    values = np.concatenate(parts)
    values = values[np.isfinite(values)]
    return float(values.mean()) if values.size else None
