"""Write a stored value for people, in either unit system."""

from __future__ import annotations

import math
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from welding.language import digits
from welding.quantities.kinds import KINDS, Kind
from welding.quantities.units import to_us
from welding.ranges import Range

System = Literal["si", "us"]
Rounding = Literal["nearest", "up", "down"]
BEYOND_SENSE = 1e15
OF_A_FRACTION_IN = 0.0002
"""How near a size lies to a fraction of an inch to be written as one [in]."""


def number_text(value: float, kind_name: str, system: System = "si", rounding: Rounding = "nearest") -> str:
    """The number alone, rounded as the kind is shown, without trailing zeros after the point.

    A limit that is advised is rounded to its safe side: ``up`` or ``down``.

    Example:
        >>> number_text(2.38125, "wire_diameter", "us"), number_text(1.143, "wire_diameter", "us")
        ('3/32', '0.045')
    """
    return digits(_number(value, kind_name, system, rounding))


@lru_cache(maxsize=8192)  # passes repeat their numbers, and a keystroke writes them all again
def _number(value: float, kind_name: str, system: System, rounding: Rounding = "nearest") -> str:
    kind = KINDS[kind_name]
    if system == "si":
        shown, decimals = value, kind.decimals
    else:
        shown, decimals = to_us(value, kind_name), kind.us_decimals
    if system == "us" and (fraction := _fraction(shown, kind)):
        return fraction
    if not abs(shown) < BEYOND_SENSE:  # readings that nobody made; told, not refused, and no digits invented
        return f"{shown:.0e}"
    if rounding != "nearest":
        step = 10**decimals
        # A hair of slack: 233.0000001 is 233, not 234.
        shown = (
            math.ceil(shown * step - 1e-6) if rounding == "up" else math.floor(shown * step + 1e-6)
        ) / step
    return _decimal(shown, decimals, kind_name)


def _decimal(shown: float, decimals: int, kind_name: str) -> str:
    # Halves away from zero, as the screen's toFixed does; f"{24.25:.1f}" would give 24.2.
    text = str(Decimal(shown).quantize(Decimal(1).scaleb(-decimals), ROUND_HALF_UP))
    if not text.strip("-0."):
        text = text.lstrip("-")
    if kind_name in ("heat_input", "voltage"):
        return text
    return text.rstrip("0").rstrip(".") if "." in text else text


def _fraction(inches: float, kind: Kind) -> str:
    """A size that is a fraction of an inch, as the trade writes it; empty where it is none."""
    if not kind.us_fraction or not kind.us_fraction_from - OF_A_FRACTION_IN <= inches < 100:
        return ""
    parts = round(inches * kind.us_fraction)
    if abs(parts / kind.us_fraction - inches) > OF_A_FRACTION_IN:
        return ""
    whole, left = divmod(parts, kind.us_fraction)
    if not left:
        return str(whole)
    small = Fraction(left, kind.us_fraction)
    written = f"{small.numerator}/{small.denominator}"
    return f"{whole} {written}" if whole else written


def unit_text(kind_name: str, system: System = "si") -> str:
    """The unit's label in this system."""
    kind = KINDS[kind_name]
    return kind.unit if system == "si" else kind.us_unit


def quantity_text(value: float, kind_name: str, system: System = "si", rounding: Rounding = "nearest") -> str:
    """Number and unit.

    Example:
        >>> quantity_text(6350, "travel", "us")
        '250 in/min'
    """
    return f"{number_text(value, kind_name, system, rounding)} {unit_text(kind_name, system)}"


def range_text(value: Range, kind_name: str, system: System = "si") -> str:
    """A range with its unit once; one number where both ends read the same.

    Example:
        >>> range_text(Range(6.6, 8), "wire_feed")
        '6.6–8.0 m/min'
    """
    return f"{digits(_range(value, kind_name, system))} {unit_text(kind_name, system)}"


@lru_cache(maxsize=8192)
def _range(value: Range, kind_name: str, system: System) -> str:
    low, high = (_number(end, kind_name, system) for end in (value.min, value.max))
    return low if low == high else "–".join(_alike(low, high, value, kind_name, system))


def _alike(low: str, high: str, value: Range, kind_name: str, system: System) -> tuple[str, str]:
    """Both numbers as fractions, or both with as many decimals as the longer one has."""
    kind = KINDS[kind_name]
    if "/" in low + high:
        ends = [to_us(end, kind_name) for end in (value.min, value.max)]
        if all(end == 0 or _fraction(end, kind) for end in ends):
            return low, high
        low, high = (_decimal(end, kind.us_decimals, kind_name) for end in ends)
    decimals = max(len(text.partition(".")[2]) for text in (low, high))
    return f"{float(low):.{decimals}f}", f"{float(high):.{decimals}f}"
