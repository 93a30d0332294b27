"""Volts, amps and travel of a pass narrowed until every corner of them keeps a heat input."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from welding.documents.procedure import Pass
from welding.errors import UnknownEntryError
from welding.heat.energy import thermal_efficiency
from welding.qualification.coupon import Run
from welding.ranges import Range

_STEP_MM_MIN = 5.0
_SHRINKS = 20


@dataclass(frozen=True, slots=True)
class Window:
    """Least and greatest heat input [kJ/mm]; ``None`` without a limit."""

    min: float | None
    max: float | None


def within_heat(one: Pass, window: Window, run: Run, uses_k: bool) -> Pass | None:
    """Narrow travel, and where that is not enough volts and amps around what was welded.

    Args:
        one: The pass with its volts, amps and travel.
        window: Heat input to keep.
        run: The run as welded, towards which volts and amps shrink.
        uses_k: Whether the code's heat input counts the process's k.

    Returns:
        The pass, or ``None`` where a range is missing or nothing around the run keeps the window.
    """
    if one.current_a is None or one.voltage_v is None or one.travel_mm_min is None:
        return None
    try:
        k = thermal_efficiency(one.process).k if uses_k else 1.0
    except UnknownEntryError:
        return None
    for step in range(_SHRINKS + 1):
        share = 1 - step / _SHRINKS
        amps = _towards(one.current_a, run.current_a, share)
        volts = _towards(one.voltage_v, run.voltage_v, share)
        travel = _travel(one.travel_mm_min, amps, volts, k, window)
        if travel is not None and _holds(travel, run.travel_mm_min):
            digits = Range(round(volts.min, 1), round(volts.max, 1))
            fitted = replace(
                one,
                current_a=Range(float(math.ceil(amps.min - 1e-9)), float(math.floor(amps.max + 1e-9)))
                if math.ceil(amps.min - 1e-9) <= math.floor(amps.max + 1e-9)
                else amps,
                voltage_v=digits,
            )
            narrowed = _travel(one.travel_mm_min, fitted.current_a or amps, digits, k, window)
            if narrowed is not None:
                return replace(fitted, travel_mm_min=narrowed)
    return None


def _towards(planned: Range, welded: Range | None, share: float) -> Range:
    """A range shrunk by a share towards the middle of what was welded."""
    if welded is None:
        return planned
    middle = min(max(welded.middle, planned.min), planned.max)
    return Range(middle - share * (middle - planned.min), middle + share * (planned.max - middle))


def _travel(planned: Range, amps: Range, volts: Range, k: float, window: Window) -> Range | None:
    """Travel at which the hottest and the coolest corner keep the window, rounded inwards to 5 mm/min."""
    slowest, fastest = planned.min, planned.max
    if window.max is not None:
        slowest = max(slowest, k * volts.max * amps.max * 60 / (1000 * window.max))
    if window.min is not None and window.min > 0:
        fastest = min(fastest, k * volts.min * amps.min * 60 / (1000 * window.min))
    low = math.ceil(slowest / _STEP_MM_MIN - 1e-9) * _STEP_MM_MIN
    high = math.floor(fastest / _STEP_MM_MIN + 1e-9) * _STEP_MM_MIN
    return Range(low, high) if low <= high else None


def _holds(travel: Range, welded: Range | None) -> bool:
    """Whether the welder's own travel stays near: half a step at each end is what rounding costs."""
    return welded is None or (travel.min - _STEP_MM_MIN <= welded.middle <= travel.max + _STEP_MM_MIN)
