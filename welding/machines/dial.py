"""A wire feed dial, calibrated by run-out: asked feed to setting, and back."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from numpy.polynomial import Polynomial

from welding.documents.machine import DialCalibration
from welding.errors import WeldingError
from welding.language import tr

BEND_WORTH = 0.5
"""A bent curve is taken where it halves the scatter of the straight one, and five points bear it."""

LEAST_RISE = 0.01
"""Over all settings a dial raises the feed by more than this share; else it was not turned."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DialPoint:
    """One measured setting: feed as measured and as fitted [m/min]."""

    setting: float
    feed_m_min: float
    fitted_m_min: float

    @property
    def residual_m_min(self) -> float:
        """Measured less fitted."""
        return self.feed_m_min - self.fitted_m_min


@dataclass(frozen=True, slots=True, kw_only=True)
class DialFit:
    """A fitted dial.

    Attributes:
        coefficients: Feed [m/min] = c0 + c1·setting + c2·setting².
        points: The measured settings with their fit.
        scatter_m_min: Standard deviation of the residuals, by the freedom left [m/min].
        low: Lowest measured setting.
        high: Highest measured setting.
    """

    coefficients: tuple[float, ...]
    points: tuple[DialPoint, ...]
    scatter_m_min: float
    low: float
    high: float

    def feed_at(self, setting: float) -> float:
        """Feed at a setting [m/min].

        Raises:
            WeldingError: Outside the measured settings by more than a tenth of their span.
        """
        slack = (self.high - self.low) / 10
        if not self.low - slack <= setting <= self.high + slack:
            raise WeldingError(
                tr(
                    "setting {setting:g} lies outside what was measured, {low:g} to {high:g}",
                    setting=setting,
                    low=self.low,
                    high=self.high,
                )
            )
        return sum(factor * setting**power for power, factor in enumerate(self.coefficients))

    def setting_for(self, feed_m_min: float) -> float:
        """Setting for a feed; the inverse of ``feed_at`` on the measured stretch.

        Raises:
            WeldingError: No setting that was measured gives this feed.
        """
        slack = (self.high - self.low) / 10
        inside = [one for one in self._solutions(feed_m_min) if self.low - slack <= one <= self.high + slack]
        if not inside:
            ends = sorted((self.feed_at(self.low), self.feed_at(self.high)))
            raise WeldingError(
                tr(
                    "{feed_m_min:.3g} m/min lies outside what was measured, {ends:.3g} to {ends2:.3g} m/min",
                    feed_m_min=feed_m_min,
                    ends=ends[0],
                    ends2=ends[1],
                )
            )
        return min(inside, key=lambda one: abs(one - (self.low + self.high) / 2))

    def _solutions(self, feed_m_min: float) -> list[float]:
        """Settings at which the fitted curve passes a feed, wherever they lie."""
        constant, linear, *rest = self.coefficients
        if not rest:
            return [(feed_m_min - constant) / linear]
        square = rest[0]
        under = linear**2 - 4 * square * (constant - feed_m_min)
        if under < 0:
            return []
        return [(-linear + sign * math.sqrt(under)) / (2 * square) for sign in (1, -1)]


def run_out_feed_m_min(length_mm: float, time_s: float) -> float:
    """Wire feed from a length run out in a time [m/min].

    Example:
        >>> run_out_feed_m_min(571.5, 6)
        5.715
    """
    if not (math.isfinite(length_mm) and math.isfinite(time_s)) or length_mm <= 0 or time_s <= 0:
        raise WeldingError(tr("a run-out needs a length and a time above zero"))
    return length_mm / time_s * 60 / 1000


@lru_cache(maxsize=256)
def fit_dial(calibration: DialCalibration) -> DialFit:
    """Fit feed over setting by least squares: a straight line, or a bent one where that is worth it.

    A fit is kept, since one machine is asked for pass after pass.

    Raises:
        WeldingError: Fewer than two different settings, or a feed that falls as the dial rises.

    Example:
        >>> from welding.documents.machine import RunOut
        >>> points = tuple(RunOut(setting=n, length_mm=100 * n, time_s=6) for n in (2, 4, 6))
        >>> round(fit_dial(DialCalibration(points=points)).feed_at(5), 6)
        5.0
    """
    settings = [point.setting for point in calibration.points]
    feeds = [run_out_feed_m_min(point.length_mm, point.time_s) for point in calibration.points]
    different = len({round(one, 6) for one in settings})
    if different < 2:
        raise WeldingError(tr("measure at two or more different settings"))
    best = _polynomial(settings, feeds, 1)
    if different >= 5:
        bent = _polynomial(settings, feeds, 2)
        if _scatter(bent, settings, feeds, 3) < BEND_WORTH * _scatter(best, settings, feeds, 2):
            best = bent
    low, high = min(settings), max(settings)
    slope = best.deriv()  # straight, so it is least at an end
    slopes = [float(slope(low)), float(slope(high))]
    if min(slopes) * (high - low) <= LEAST_RISE * max(feeds):
        raise WeldingError(tr("the feed does not rise with the setting: measure again, or swap two lines"))
    return DialFit(
        coefficients=tuple(float(one) for one in best.coef),
        points=tuple(
            DialPoint(setting=at, feed_m_min=feed, fitted_m_min=float(best(at)))
            for at, feed in zip(settings, feeds, strict=True)
        ),
        scatter_m_min=_scatter(best, settings, feeds, len(best.coef)),
        low=low,
        high=high,
    )


def _polynomial(settings: list[float], feeds: list[float], degree: int) -> Polynomial:
    return Polynomial.fit(settings, feeds, degree).convert()


def _scatter(curve: Polynomial, settings: list[float], feeds: list[float], used: int) -> float:
    squares = sum((feed - float(curve(at))) ** 2 for at, feed in zip(settings, feeds, strict=True))
    free = len(settings) - used
    return math.sqrt(squares / free) if free > 0 else 0.0
