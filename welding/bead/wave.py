"""Voltage and current of a source that makes its own wave: a pulse, and AC of a TIG source."""

from __future__ import annotations

import math
from collections.abc import Callable

from welding.bead.trace import ArcSound, ArcTrace, Points
from welding.documents.setup import AcWave, Pulse
from welding.language import tr

PERIODS, STEPS = 4, 60
SOFT_EDGE = 0.15
"""Share of a half wave in which a soft square rises, and falls (common practice)."""
WIRE_PEAK_OVER_BACKGROUND_V = 1.5
"""Arc volts of a wire's peak over those of its background, where neither is stated (common practice)."""


def pulse_trace(pulse: Pulse, mean_v: float | None, *, wire: bool) -> ArcTrace | None:
    """The steps of a pulse; ``None`` without frequency, share at peak or volts.

    Args:
        pulse: The pulse.
        mean_v: Mean arc volts, for a pulse that states none of its own.
        wire: Whether a wire melts in it: its arc grows with each drop, a tungsten's hardly does.
    """
    share, hz = pulse.peak_share, pulse.frequency_hz
    if share is None or hz is None:
        return None
    high, low = pulse.peak_v, pulse.background_v
    if high is None or low is None:
        if mean_v is None:
            return None
        ratio = WIRE_PEAK_OVER_BACKGROUND_V if wire else 1.0
        low = mean_v / (1 + (ratio - 1) * share)
        high = low * ratio
    points = []
    for at in _places():
        peak = at % 1 < share
        points.append(
            (1000 * at / hz, high if peak else low, pulse.peak_a if peak else pulse.background_a),
        )
    slow = hz < 20
    caption = (
        tr("Arc that swells and ebbs with each pulse") if slow else tr("Even hum or buzz at the pulse's rate")
    )
    return ArcTrace(
        points=_rounded(points),
        sound=ArcSound(clicks_hz=0.0, irregular=0.0, hiss=0.2, tone_hz=0.0 if slow else hz, caption=caption),
    )


def ac_trace(ac: AcWave, mean_a: float, mean_v: float) -> ArcTrace | None:
    """An AC wave with the current below zero while the electrode is negative; ``None`` without its frequency.

    Args:
        ac: The wave; a share that is not stated is even, and both halves are as high.
        mean_a: Mean current without its sign [A].
        mean_v: Mean arc volts without their sign [V].
    """
    if ac.frequency_hz is None:
        return None
    negative = ac.en_share if ac.en_share is not None else 0.5
    ratio = ac.amplitude_ratio or 1.0
    positive_a = mean_a / (ratio * negative + 1 - negative)
    shape = _SHAPES[ac.waveform or "square"]
    points = []
    for at in _places():
        within = at % 1
        if within < 1 - negative:
            amps, sign = positive_a * shape(within / (1 - negative)), 1.0
        else:
            amps, sign = -ratio * positive_a * shape((within - 1 + negative) / negative), -1.0
        points.append((1000 * at / ac.frequency_hz, sign * mean_v, amps))
    return ArcTrace(
        points=_rounded(points),
        sound=ArcSound(
            clicks_hz=0.0,
            irregular=0.0,
            hiss=0.1,
            tone_hz=ac.frequency_hz,
            caption=tr("Even buzz, higher and thinner as the frequency rises"),
        ),
    )


def _soft(at: float) -> float:
    """A trapezium of mean 1 over a half wave."""
    edge = min(at, 1 - at) / SOFT_EDGE
    return min(edge, 1.0) / (1 - SOFT_EDGE)


_SHAPES: dict[str, Callable[[float], float]] = {
    "square": lambda at: 1.0,
    "soft-square": _soft,
    "sine": lambda at: math.pi / 2 * math.sin(math.pi * at),
    "triangle": lambda at: 4 * min(at, 1 - at),
}
"""Each half wave over its own length, with a mean of 1."""


def _places() -> list[float]:
    """Places in periods."""
    return [step / STEPS for step in range(PERIODS * STEPS + 1)]


def _rounded(points: list[tuple[float, float, float]]) -> Points:
    return tuple((round(ms, 3), round(volts, 1), round(amps, 1)) for ms, volts, amps in points)
