"""Unit spellings and conversion. The factors are pint's; the spellings are the trade's."""

from __future__ import annotations

from fractions import Fraction
from functools import lru_cache
from typing import TYPE_CHECKING

from welding.quantities.kinds import KINDS, Kind

if TYPE_CHECKING:
    import pint

# Spelling (lower case, no blanks) -> (dimension, pint unit). Temperatures never reach pint's own
# parser, which reads F as farad.
_SPELLINGS: dict[str, dict[str, tuple[str, ...]]] = {
    "length": {
        "mm": ("mm", "millimetre", "millimetres", "millimeter", "millimeters"),
        "cm": ("cm",),
        "m": ("m", "metre", "metres", "meter", "meters"),
        "inch": ("in", "in.", "inch", "inches", '"', "''", "”", "″"),
        "foot": ("ft", "ft.", "foot", "feet", "'", "′"),
        "thou": ("thou", "mil", "mils"),
    },
    "speed": {
        "mm/min": ("mm/min", "mmpm", "mmmin-1"),
        "mm/s": ("mm/s", "mm/sec"),
        "cm/min": ("cm/min", "cpm"),
        "m/min": ("m/min", "mpm", "m/mn"),
        "m/hour": ("m/h", "m/hr"),
        "inch/minute": ("ipm", "in/min", "in./min", '"/min', "inch/min", "inches/min"),
        "inch/second": ("in/s", "in/sec", "ips"),
        "meter/second": ("m/s", "m/sec"),
        "mile/hour": ("mph", "mi/h"),
        "kilometer/hour": ("km/h", "kmh", "kph"),
    },
    "flow": {
        "liter/minute": ("l/min", "lpm", "lmin", "litre/min", "litres/min", "l/mn"),
        "foot**3/hour": ("cfh", "scfh", "ft3/h", "ft³/h", "ft3/hr", "ft³/hr", "cuft/h", "cf/h"),
        "meter**3/hour": ("m3/h", "m³/h"),
    },
    "temperature": {
        "degC": ("c", "°c", "degc", "ºc", "celsius"),
        "degF": ("f", "°f", "degf", "ºf", "fahrenheit"),
        "kelvin": ("k", "kelvin"),
    },
    "current": {"ampere": ("a", "amp", "amps", "ampere", "amperes"), "milliampere": ("ma",)},
    "voltage": {"volt": ("v", "volt", "volts")},
    "angle": {"degree": ("°", "deg", "degree", "degrees", "º"), "radian": ("rad",)},
    "time": {
        "second": ("s", "sec", "secs", "second", "seconds"),
        "minute": ("min", "mins", "minute", "minutes"),
        "hour": ("h", "hr", "hour", "hours"),
    },
    "energy": {
        "joule": ("j", "joule", "joules"),
        "kilojoule": ("kj",),
        "megajoule": ("mj",),
        "foot*force_pound": ("ftlb", "ftlbf", "ft-lb", "ft-lbf", "ft·lbf", "ft.lbf"),
    },
    "power": {"watt": ("w", "watt", "watts"), "kilowatt": ("kw",)},
    "energy per length": {
        "kilojoule/millimeter": ("kj/mm",),
        "kilojoule/centimeter": ("kj/cm",),
        "kilojoule/inch": ("kj/in", "kj/in.", "kj/inch"),
        "joule/millimeter": ("j/mm",),
        "joule/inch": ("j/in",),
    },
    "hydrogen": {"dimensionless": ("ml/100g", "ml/100gram")},
    "area": {"mm**2": ("mm2", "mm²"), "inch**2": ("in2", "in²", "sqin")},
    "mass": {"kilogram": ("kg", "kilo", "kilos"), "gram": ("g",), "pound": ("lb", "lbs")},
    "pressure": {"bar": ("bar",), "psi": ("psi",)},
    "stress": {"megapascal": ("mpa", "n/mm2", "n/mm²"), "kip/inch**2": ("ksi",)},
    "frequency": {"hertz": ("hz", "1/s", "pps"), "kilohertz": ("khz",)},
    "share": {"percent": ("%", "percent", "pct")},
}

SPELLINGS: dict[str, tuple[str, str]] = {
    spelling: (dimension, unit)
    for dimension, units in _SPELLINGS.items()
    for unit, spellings in units.items()
    for spelling in spellings
}

_LABEL_UNIT = {
    "mm": "mm",
    "in": "inch",
    "mm/min": "mm/min",
    "in/min": "inch/minute",
    "m/min": "m/min",
    "L/min": "liter/minute",
    "ft³/h": "foot**3/hour",
    "°C": "degC",
    "°F": "degF",
    "A": "ampere",
    "V": "volt",
    "°": "degree",
    "s": "second",
    "J": "joule",
    "W": "watt",
    "kJ/mm": "kilojoule/millimeter",
    "kJ/in": "kilojoule/inch",
    "ml/100 g": "dimensionless",
    "mm²": "mm**2",
    "in²": "inch**2",
    "Hz": "hertz",
    "%": "percent",
    "m/s": "meter/second",
    "mph": "mile/hour",
    "MPa": "megapascal",
    "ksi": "kip/inch**2",
    "ft·lbf": "foot*force_pound",
    "": "dimensionless",
}


@lru_cache(maxsize=1)
def _registry() -> pint.UnitRegistry[Fraction]:
    import pint  # slow to load, and many calls convert nothing

    # Fractions keep 3/32 in at 2.38125 mm and not a rounding error beside it.
    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True, non_int_type=Fraction)


@lru_cache(maxsize=512)
def _affine(from_unit: str, to_unit: str) -> tuple[Fraction, Fraction]:
    """Scale and offset between two pint units: ``to = scale * from + offset``, exact."""

    def at(value: int) -> Fraction:
        return Fraction(_registry().Quantity(Fraction(value), from_unit).to(to_unit).magnitude)

    zero = at(0)
    return at(1) - zero, zero


def convert(value: Fraction, from_unit: str, to_label: str) -> float:
    """Convert from a pint unit (as in ``SPELLINGS``) to a unit label of ``KINDS``."""
    target = _LABEL_UNIT[to_label]
    if from_unit == target:
        return float(value)
    scale, offset = _affine(from_unit, target)
    return float(value * scale + offset)


def us_scale(kind: Kind) -> tuple[float, float]:
    """Scale and offset from the kind's unit to its US unit; the screen converts with these."""
    scale, offset = _affine(_LABEL_UNIT[kind.unit], _LABEL_UNIT[kind.us_unit])
    return float(scale), float(offset)


def to_us(value: float, kind_name: str) -> float:
    """A stored value in the US unit of its kind.

    Example:
        >>> round(to_us(25.4, "length"), 6)
        1.0
    """
    scale, offset = us_scale(KINDS[kind_name])
    return value * scale + offset


KJ_MM_PER_KJ_IN = 1 / 25.4
"""1 kJ/in in kJ/mm; the inch is 25.4 mm exactly (ISO 80000-3)."""
