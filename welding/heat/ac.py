"""AC waves of TIG: means of current and power, and the wave's corners for a drawing."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.documents.setup import Waveform
from welding.errors import OutOfRangeError
from welding.language import tr
from welding.ranges import Limits, positive

SOFT_RAMP = 0.2
"""Share of a half wave that a soft square spends rising, and again falling (common practice)."""
_SHARE = Limits(0.0, 1.0, "", low_open=True)
_SINE_POINTS = 24


@dataclass(frozen=True, slots=True)
class _Shape:
    """Mean and mean square of a half wave of height one."""

    mean: float
    square: float


_SHAPES: dict[Waveform, _Shape] = {
    "square": _Shape(1.0, 1.0),
    "soft-square": _Shape(1 - SOFT_RAMP, 1 - 4 * SOFT_RAMP / 3),
    "sine": _Shape(2 / math.pi, 0.5),
    "triangle": _Shape(0.5, 1 / 3),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class AcMeans:
    """Means of an AC wave.

    Attributes:
        mean_a: Mean of the current without its sign [A].
        rms_a: Root of the mean square [A].
        net_a: Mean with its sign, positive where the electrode is [A]; what a DC meter would show.
        mean_power_w: Mean power [W]; ``None`` without both voltages.
        period_ms: One period [ms].
        en_ms: Its negative part [ms].
        ep_ms: Its positive part, the cleaning [ms].
        points: The wave's corners over one period: ms, A.
    """

    mean_a: float
    rms_a: float
    net_a: float
    mean_power_w: float | None
    period_ms: float
    en_ms: float
    ep_ms: float
    points: tuple[tuple[float, float], ...]


def ac_wave(
    *,
    en_a: float,
    en_share: float,
    frequency_hz: float,
    waveform: Waveform = "square",
    amplitude_ratio: float = 1.0,
    en_v: float | None = None,
    ep_v: float | None = None,
) -> AcMeans:
    """Means of an AC wave whose halves have one shape each.

    Args:
        en_a: Height of the negative half [A].
        en_share: Share of the period with the electrode negative, between 0 and 1.
        frequency_hz: Frequency [Hz].
        waveform: Shape of both halves.
        amplitude_ratio: Height of the negative half over that of the positive one.
        en_v: Arc voltage in the negative half [V], taken as constant.
        ep_v: The same in the positive half [V].

    Raises:
        OutOfRangeError: A value is not above zero, or the share is not between 0 and 1.

    Example:
        >>> ac_wave(en_a=100, en_share=0.7, frequency_hz=100).rms_a
        100.0
    """
    positive("A").require("en_a", en_a)
    positive("Hz").require("frequency_hz", frequency_hz)
    positive("").require("amplitude_ratio", amplitude_ratio)
    _SHARE.require("en_share", en_share)
    if en_share >= 1:
        raise OutOfRangeError("en_share", en_share, tr("between 0 and 1"))
    shape = _SHAPES[waveform]
    ep_a, ep_share = en_a / amplitude_ratio, 1 - en_share
    en_mean, ep_mean = en_share * en_a * shape.mean, ep_share * ep_a * shape.mean
    square = shape.square * (en_share * en_a**2 + ep_share * ep_a**2)
    period = 1000 / frequency_hz
    power = en_mean * en_v + ep_mean * ep_v if en_v is not None and ep_v is not None else None
    return AcMeans(
        mean_a=en_mean + ep_mean,
        rms_a=math.sqrt(square),
        net_a=ep_mean - en_mean,
        mean_power_w=power,
        period_ms=period,
        en_ms=period * en_share,
        ep_ms=period * ep_share,
        points=(
            *_half(waveform, 0.0, period * en_share, -en_a),
            *_half(waveform, period * en_share, period * ep_share, ep_a),
        ),
    )


def _half(waveform: Waveform, start: float, length: float, height: float) -> list[tuple[float, float]]:
    if waveform == "square":
        corners = [(0.0, 1.0), (1.0, 1.0)]
    elif waveform == "soft-square":
        corners = [(0.0, 0.0), (SOFT_RAMP, 1.0), (1 - SOFT_RAMP, 1.0), (1.0, 0.0)]
    elif waveform == "triangle":
        corners = [(0.0, 0.0), (0.5, 1.0), (1.0, 0.0)]
    else:
        corners = [(n / _SINE_POINTS, math.sin(math.pi * n / _SINE_POINTS)) for n in range(_SINE_POINTS + 1)]
    return [(start + length * x, height * y) for x, y in corners]
