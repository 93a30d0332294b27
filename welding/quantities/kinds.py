"""The kinds of quantity that fields hold: their units, and what is plausible for each.

The plausible limits are not limits of any code. They catch slips of the hand (5000 A) and are wide
enough for every arc process of ISO 4063; provenance: common practice.
"""

from __future__ import annotations

from dataclasses import dataclass

from welding.errors import UnknownEntryError
from welding.language import tr_noop
from welding.ranges import Limits


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of quantity.

    Attributes:
        name: What a field asks for, such as ``wire_feed``.
        words: How to name it in a sentence.
        dimension: Which units may be typed for it.
        unit: The unit it is stored and computed in.
        us_unit: The unit shown to people who work in inches.
        limits: What is plausible, in ``unit``.
        decimals: Decimals shown in ``unit``.
        us_decimals: Decimals shown in ``us_unit``.
        us_fraction: Largest denominator of the fractions of an inch that it is written in; 0 for none.
        us_fraction_from: From here it is written so [in]; thinner is sheet or wire, which has decimals.
    """

    name: str
    words: str
    dimension: str
    unit: str
    us_unit: str
    limits: Limits
    decimals: int
    us_decimals: int
    us_fraction: int = 0
    us_fraction_from: float = 0.0


def _kind(
    name: str,
    words: str,
    dimension: str,
    unit: str,
    us_unit: str,
    low: float,
    high: float,
    decimals: int,
    us_decimals: int,
    low_open: bool = True,
    fraction: tuple[int, float] = (0, 0.0),
) -> Kind:
    limits = Limits(low, high, unit, low_open=low_open)
    return Kind(name, words, dimension, unit, us_unit, limits, decimals, us_decimals, *fraction)


PLATE, GAP, WIRE = (16, 1 / 8), (16, 1 / 16), (64, 1 / 16)
"""Sixteenths of plate and gaps, 64ths of wire; sheet and thinner wire have decimals (common practice)."""
KINDS: dict[str, Kind] = {
    kind.name: kind
    for kind in (
        _kind("length", "a length", "length", "mm", "in", 0, 100_000, 1, 3, low_open=False),
        _kind("thickness", "a thickness", "length", "mm", "in", 0, 1_000, 2, 3, fraction=PLATE),
        _kind("diameter", "a diameter", "length", "mm", "in", 0, 5_000, 2, 3),
        _kind(
            "wire_diameter",
            tr_noop("a wire or electrode diameter"),
            "length",
            "mm",
            "in",
            0.1,
            13,
            3,
            4,
            fraction=(64, 0.0625),
        ),
        _kind(
            "gap",
            tr_noop("a root gap or a root face"),
            "length",
            "mm",
            "in",
            0,
            100,
            2,
            3,
            low_open=False,
            fraction=(16, 0.0625),
        ),
        _kind("speed", "a speed", "speed", "mm/min", "in/min", 0, 100_000, 0, 1),
        _kind("travel", tr_noop("a travel speed"), "speed", "mm/min", "in/min", 0, 20_000, 0, 1),
        _kind("wire_feed", tr_noop("a wire feed speed"), "speed", "m/min", "in/min", 0, 60, 2, 0),
        _kind("flow", tr_noop("a gas flow"), "flow", "L/min", "ft³/h", 0, 250, 1, 0),
        _kind("temperature", "a temperature", "temperature", "°C", "°F", -100, 1_300, 0, 0, low_open=False),
        _kind("current", "a current", "current", "A", "A", 0, 2_000, 0, 0),
        _kind("voltage", "a voltage", "voltage", "V", "V", 0, 100, 1, 1),
        _kind("angle", tr_noop("an angle"), "angle", "°", "°", 0, 360, 1, 1, low_open=False),
        _kind("time", "a time", "time", "s", "s", 0, 86_400, 1, 1),
        _kind("energy", tr_noop("an energy"), "energy", "J", "J", 0, 1e9, 0, 0),
        _kind("power", "a power", "power", "W", "W", 0, 1e6, 0, 0),
        _kind(
            "heat_input",
            tr_noop("a heat input"),
            tr_noop("energy per length"),
            "kJ/mm",
            "kJ/in",
            0,
            100,
            2,
            1,
        ),
        _kind("hydrogen", tr_noop("a hydrogen content"), "hydrogen", "ml/100 g", "ml/100 g", 0, 50, 1, 1),
        _kind("frequency", "a frequency", "frequency", "Hz", "Hz", 0, 20_000, 1, 1),
        _kind("percent", "a share", "share", "%", "%", 0, 100, 1, 1, low_open=False),
        _kind("wind", tr_noop("a wind speed"), "speed", "m/s", "mph", 0, 60, 1, 1, low_open=False),
        _kind("strength", "a strength", "stress", "MPa", "ksi", 0, 3_000, 0, 1),
        _kind("impact", tr_noop("an impact energy"), "energy", "J", "ft·lbf", 0, 1_000, 0, 0),
        _kind("number", "a number", "number", "", "", -1e6, 1e6, 2, 2, low_open=False),
        _kind("area", tr_noop("an area"), "area", "mm²", "in²", 0, 1e6, 1, 3),
    )
}

DEFAULT_KIND: dict[str, str] = {
    "length": "length",
    "speed": "speed",
    "flow": "flow",
    "temperature": "temperature",
    "current": "current",
    "voltage": "voltage",
    "angle": "angle",
    "time": "time",
    "energy": "energy",
    "power": "power",
    "energy per length": "heat_input",
    "hydrogen": "hydrogen",
    "area": "area",
    "frequency": "frequency",
    "share": "percent",
    "stress": "strength",
}
"""The kind taken for a dimension when the caller did not say what is asked for."""


def kind_named(name: str) -> Kind:
    """Return the kind of this name.

    Raises:
        UnknownEntryError: There is no such kind.
    """
    try:
        return KINDS[name]
    except KeyError:
        raise UnknownEntryError(
            f"{name!r} is no kind of quantity; known: {', '.join(sorted(KINDS))}"
        ) from None
