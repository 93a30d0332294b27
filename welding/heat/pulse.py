"""Rectangular pulses: means of current and of power, which are not each other's product."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.ranges import Limits, positive

SHARE = Limits(0.0, 1.0, "", low_open=True)


@dataclass(frozen=True, slots=True)
class PulseMeans:
    """Means of a rectangular pulse; powers are ``None`` where a voltage is not known."""

    mean_a: float
    rms_a: float
    mean_power_w: float | None
    apparent_power_w: float | None


def rectangular_pulse(
    *,
    peak_a: float,
    background_a: float,
    peak_share: float,
    peak_v: float | None = None,
    background_v: float | None = None,
) -> PulseMeans:
    """Means of a rectangular pulse (common practice; heat input takes the mean of the product).

    Args:
        peak_a: Peak current [A].
        background_a: Background current [A].
        peak_share: Share of the period spent at peak, above 0 to 1.
        peak_v: Arc voltage at peak [V].
        background_v: Arc voltage at background [V].

    Returns:
        Mean and rms current [A]; mean power and mean volts x mean amps [W].

    Raises:
        OutOfRangeError: A current is not above zero or the share is outside 0 to 1.

    Example:
        >>> rectangular_pulse(peak_a=100, background_a=10, peak_share=0.5).mean_a
        55.0
    """
    positive("A").require("peak_a", peak_a)
    positive("A").require("background_a", background_a)
    SHARE.require("peak_share", peak_share)
    rest = 1 - peak_share
    mean_a = peak_share * peak_a + rest * background_a
    rms_a = math.sqrt(peak_share * peak_a**2 + rest * background_a**2)
    if peak_v is None or background_v is None:
        return PulseMeans(mean_a, rms_a, None, None)
    power = peak_share * peak_v * peak_a + rest * background_v * background_a
    mean_v = peak_share * peak_v + rest * background_v
    return PulseMeans(mean_a, rms_a, power, mean_v * mean_a)
