"""Ranges of a procedure, and limits that a value must keep."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.errors import OutOfRangeError
from welding.language import tr


@dataclass(frozen=True, slots=True)
class Range:
    """A closed range of a parameter, both ends said. ``min`` never exceeds ``max``."""

    min: float
    max: float

    def __post_init__(self) -> None:
        if self.min > self.max:
            raise OutOfRangeError("min", self.min, tr("at most its max, {max:g}", max=self.max))

    @classmethod
    def between(cls, one: float, other: float) -> Range:
        """The range between two ends of a table, in either order.

        Corrections of the code book come one by one: until the second, the ends may stand the wrong way.
        """
        return cls(min(one, other), max(one, other))

    @property
    def middle(self) -> float:
        """Arithmetic middle of the range."""
        return (self.min + self.max) / 2

    def holds(self, value: float) -> bool:
        """Whether ``value`` lies in the range, both ends included.

        A relative slack of 1e-9 keeps a value that was converted from inch and back inside.
        """
        return (self.min <= value <= self.max) or any(
            math.isclose(value, end, rel_tol=1e-9) for end in (self.min, self.max)
        )


@dataclass(frozen=True, slots=True)
class Limits:
    """What a number may be, with its unit; used by guards and by the screen alike."""

    low: float
    high: float
    unit: str
    low_open: bool = False

    def allows(self, value: float) -> bool:
        """Whether the value keeps the limits; NaN and infinities never do."""
        if not math.isfinite(value):
            return False
        return (value > self.low if self.low_open else value >= self.low) and value <= self.high

    @property
    def text(self) -> str:
        """The limits in words.

        Example:
            >>> Limits(0, 100, "V", low_open=True).text
            'above 0 to 100 V'
        """
        low = tr("above {low:g}", low=self.low) if self.low_open else f"{self.low:g}"
        if math.isinf(self.high):
            return f"{low} {self.unit}".strip()
        return f"{low} to {self.high:g} {self.unit}".strip()

    def require(self, name: str, value: float) -> None:
        """Raise ``OutOfRangeError`` naming the argument if the value is not allowed."""
        if not self.allows(value):
            raise OutOfRangeError(name, value, self.text)


def positive(unit: str) -> Limits:
    """Limits of a quantity that must be above zero."""
    return Limits(0.0, math.inf, unit, low_open=True)
