"""Heat input of planned passes (ranges) under the code in force."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from welding.citation import Citation
from welding.documents.procedure import Pass
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.heat.energy import arc_energy_range_kj_mm, thermal_efficiency
from welding.ranges import Range

HeatMethod = Literal["mean", "mean-estimate", "energy", "power"]
"""``mean``: mean volts x mean amps. ``mean-estimate``: the same where the arc's shape makes it an
estimate. ``energy``, ``power``: measured."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PassHeat:
    """Heat input of a planned pass. ``k`` is 1 where the code in force uses none."""

    pass_number: int
    min_kj_mm: float
    max_kj_mm: float
    min_kj_in: float
    max_kj_in: float
    method: HeatMethod
    k: float
    citations: tuple[Citation, ...]
    unchecked: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatRule:
    """How the code in force counts heat input."""

    uses_k: bool
    citation: Citation


def is_uneven(one: Pass) -> bool:
    """Whether mean volts times mean amps only estimates this pass's power."""
    return (
        one.transfer in ("pulsed", "controlled-short-circuit")
        or one.pulse is not None
        or (one.ac is not None and one.ac.en_share not in (None, 0.5))
    )


def pass_heat(one: Pass, rule: HeatRule) -> PassHeat | None:
    """Heat-input range of a planned pass over all corners of volts, amps and travel.

    Returns:
        The range, or ``None`` while volts, amps, travel or the process's k is unknown.
    """
    if one.voltage_v is None or one.current_a is None or one.travel_mm_min is None:
        return None
    citations: tuple[Citation, ...] = (rule.citation,)
    unchecked: tuple[str, ...] = ()
    k = 1.0
    if rule.uses_k:
        try:
            efficiency = thermal_efficiency(one.process)
        except UnknownEntryError:
            return None
        k, unchecked = efficiency.k, efficiency.unchecked
        citations += (efficiency.citation,)
    try:
        energy: Range = arc_energy_range_kj_mm(
            voltage_v=one.voltage_v, current_a=one.current_a, travel_mm_min=one.travel_mm_min
        )
    except OutOfRangeError:
        return None
    return PassHeat(
        pass_number=one.number,
        min_kj_mm=k * energy.min,
        max_kj_mm=k * energy.max,
        min_kj_in=k * energy.min * 25.4,
        max_kj_in=k * energy.max * 25.4,
        method="mean-estimate" if is_uneven(one) else "mean",
        k=k,
        citations=citations,
        unchecked=unchecked,
    )
