"""Reject rates with the interval that so few welds leave open."""

from __future__ import annotations

from dataclasses import dataclass

import scipy

from welding.errors import WeldingError
from welding.language import tr

CONFIDENCE = 0.95


@dataclass(frozen=True, slots=True, kw_only=True)
class RejectRate:
    """Welds rejected among those inspected.

    Attributes:
        rejected: How many were rejected.
        inspected: How many were inspected.
        share: Rejected by inspected; ``None`` where nothing was inspected.
        low: Lower end of the interval at 95 % confidence, a share.
        high: Upper end.
    """

    rejected: int
    inspected: int
    share: float | None
    low: float
    high: float


def reject_rate(rejected: int, inspected: int) -> RejectRate:
    """Reject rate with its exact (Clopper-Pearson) interval at 95 % confidence.

    Args:
        rejected: How many were rejected.
        inspected: How many were inspected.

    Raises:
        WeldingError: More were rejected than inspected, or a number is below zero.

    Source: C. J. Clopper and E. S. Pearson, Biometrika 26 (1934), pages 404 to 413.

    Example:
        >>> found = reject_rate(0, 10)
        >>> round(found.low, 4), round(found.high, 4)
        (0.0, 0.3085)
    """
    if not 0 <= rejected <= inspected:
        raise WeldingError(tr("{rejected} of {inspected} cannot be.", rejected=rejected, inspected=inspected))
    if inspected == 0:
        return RejectRate(rejected=0, inspected=0, share=None, low=0.0, high=1.0)
    tail = (1 - CONFIDENCE) / 2
    inverse, accepted = scipy.special.betaincinv, inspected - rejected
    low = 0.0 if rejected == 0 else float(inverse(rejected, accepted + 1, tail))
    high = 1.0 if accepted == 0 else float(inverse(rejected + 1, accepted, 1 - tail))
    return RejectRate(rejected=rejected, inspected=inspected, share=rejected / inspected, low=low, high=high)
