"""Signs of voltage and current: leads that were clipped on the wrong way round, rectified channels."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from welding.language import tr
from welding.recording.arcs import arc_is_on
from welding.recording.signals import Fault, Recording, Samples

ENOUGH = 500_000
"""Samples enough to tell a sign from; of a longer recording every k-th is looked at."""
MINOR = 0.02
"""A share of samples of the other sign up to this is noise."""


def straighten(recording: Recording, arc_on_a: float) -> tuple[Recording, tuple[Fault, ...]]:
    """Make volts times amps the power into the arc.

    Args:
        recording: Samples in order of time.
        arc_on_a: Magnitude of the current [A] from which the arc burns; only there signs count.

    Returns:
        The recording, with the voltage turned round or both channels taken as magnitudes where
        their signs contradict each other, and what was done. A pair that agrees is left as it is:
        both positive, both negative (electrode negative), or both alternating.
    """
    few = slice(None, None, max(1, recording.size // ENOUGH))
    amps_seen, volts_seen = recording.current_a[few], recording.voltage_v[few]
    on = arc_is_on(amps_seen, arc_on_a)
    if not bool(on.any()):
        return recording, ()
    volts, amps = _sign(volts_seen[on]), _sign(amps_seen[on])
    if volts == amps:
        return recording, ()
    if volts != 0 and amps != 0:
        return replace(recording, voltage_v=-recording.voltage_v), (
            Fault(
                kind="negative-voltage",
                severity="caution",
                message=tr(
                    "Voltage and current have opposite signs: the voltage leads look swapped. The "
                    "voltage was turned round; check the polarity at the machine, not from this file."
                ),
            ),
        )
    which = "voltage" if volts != 0 else "current"
    return (
        replace(recording, voltage_v=np.abs(recording.voltage_v), current_a=np.abs(recording.current_a)),
        (
            Fault(
                kind="negative-voltage",
                severity="caution",
                message=tr(
                    "The {which} never changes its sign while the other channel alternates: it was "
                    "rectified. Magnitudes are taken for both; zero crossings are a little overestimated.",
                    which=which,
                ),
            ),
        ),
    )


def _sign(values: Samples) -> int:
    """1 or -1 where nearly all values have that sign, 0 where they alternate."""
    share = float(np.count_nonzero(values < 0)) / values.size
    return -1 if share > 1 - MINOR else 1 if share < MINOR else 0
