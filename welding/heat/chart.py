"""Amps against travel with lines of equal heat input, and a pass's own rectangle in it."""

from __future__ import annotations

from dataclasses import dataclass

from welding.documents.procedure import Pass
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.heat.energy import thermal_efficiency
from welding.heat.passes import HeatRule
from welding.language import tr
from welding.ranges import Range

_STEPS = (0.1, 0.2, 0.3, 0.5, 0.75, 1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 7.5, 10.0)
MOST_LINES = 6
CLOSE = 0.15
"""A round line nearer than this to a wanted one is left out: their labels would lie on each other."""


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatLine:
    """All pairs of amps and travel with one heat input; ``wanted`` where it bounds the wanted window."""

    kj_mm: float
    wanted: bool
    travel_mm_min: tuple[float, float]
    current_a: tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatChart:
    """A chart of one pass.

    Attributes:
        travel_mm_min: Travel axis.
        current_a: Current axis.
        rectangle: The pass's own ranges: travel, current.
        voltage_v: Volts that the lines are drawn for, the middle of the pass's.
        k: Thermal efficiency that counts; 1 where the code uses none.
        lines: Lines of equal heat input, least first.
    """

    travel_mm_min: Range
    current_a: Range
    rectangle: tuple[Range, Range]
    voltage_v: float
    k: float
    lines: tuple[HeatLine, ...]


def heat_chart(one: Pass | None, rule: HeatRule, wanted: Range | None) -> HeatChart:
    """The chart of a pass whose volts, amps and travel are stated.

    Args:
        one: The pass.
        rule: How the code in force counts heat input.
        wanted: Wanted heat input [kJ/mm], where there is one.

    Raises:
        OutOfRangeError: No such pass.
        UnknownEntryError: Volts, amps or travel are not stated, or k is not known.
    """
    if one is None:
        raise OutOfRangeError("pass_number", 0, tr("a pass of the procedure"))
    if one.voltage_v is None or one.current_a is None or one.travel_mm_min is None:
        raise UnknownEntryError("volts, amps and travel have to be stated for the chart")
    k = thermal_efficiency(one.process).k if rule.uses_k else 1.0
    travel, current, volts = one.travel_mm_min, one.current_a, one.voltage_v.middle
    across = Range(0.0, _round_up(travel.max * 1.6))
    along = Range(0.0, _round_up(current.max * 1.5))
    ends = [wanted.min, wanted.max] if wanted else []
    factor = k * volts * 60 / 1000
    low = factor * current.min / travel.max * 0.6
    high = factor * current.max / travel.min * 1.7
    steps = [
        step for step in _STEPS if low <= step <= high and all(abs(step - end) > CLOSE * end for end in ends)
    ]
    while len(steps) > MOST_LINES:
        steps = steps[::2]
    return HeatChart(
        travel_mm_min=across,
        current_a=along,
        rectangle=(travel, current),
        voltage_v=volts,
        k=k,
        lines=tuple(
            _line(step, step in ends, factor, across.max, along.max) for step in sorted({*steps, *ends})
        ),
    )


def _line(kj_mm: float, wanted: bool, factor: float, most_travel: float, most_current: float) -> HeatLine:
    """From the origin to the edge of the chart: current = heat input x travel / factor."""
    slope = kj_mm / factor
    travel = min(most_travel, most_current / slope)
    return HeatLine(kj_mm=kj_mm, wanted=wanted, travel_mm_min=(0.0, travel), current_a=(0.0, slope * travel))


def _round_up(value: float) -> float:
    step = 50.0 if value > 200 else 10.0
    return step * -(-value // step)
