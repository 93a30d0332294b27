"""Duty cycle: the share of ten minutes that a machine may weld at a current."""

from __future__ import annotations

from itertools import pairwise
from math import log

from welding.citation import Citation
from welding.documents.machine import Envelope

IEC_60974_1 = Citation(
    document="IEC 60974-1", clause="duty cycle, 10 min period", provenance="memory", confidence="high"
)
WORKING_RULE = Citation(
    document="common practice",
    clause="current squared times duty cycle is constant",
    provenance="practice",
    confidence="high",
)


def duty_at(envelope: Envelope, current_a: float) -> float | None:
    """Share of ten minutes [%] at a current.

    Between two points X follows a power of I that fits both; beyond the ends I²·X stays constant
    (the working rule), never above 100 %.

    Args:
        envelope: With its duty points; their currents differ.
        current_a: Welding current [A].

    Returns:
        0 to 100; ``None`` without any point.

    Example:
        >>> from welding.documents.machine import DutyPoint
        >>> from welding.ranges import Range
        >>> rated = (DutyPoint(current_a=300, percent=60),)
        >>> one = Envelope(family="wire", current_a=Range(30, 320), duty=rated)
        >>> round(duty_at(one, 232.4))
        100
    """
    points = sorted((point.current_a, point.percent) for point in envelope.duty)
    if not points:
        return None
    first, last = points[0], points[-1]
    if current_a <= first[0]:
        return min(100.0, first[1] * (first[0] / current_a) ** 2)
    if current_a >= last[0]:
        return last[1] * (last[0] / current_a) ** 2
    for (low_a, low_x), (high_a, high_x) in pairwise(points):
        if low_a <= current_a <= high_a:
            share = _log_share(current_a, low_a, high_a)
            return float(low_x * (high_x / low_x) ** share)
    return None


def _log_share(value: float, low: float, high: float) -> float:
    return log(value / low) / log(high / low)
