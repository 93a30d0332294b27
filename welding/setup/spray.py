"""Current where globular transfer turns to spray, by metal, gas and wire."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from welding.citation import Citation
from welding.codebook.table import load_table

SprayMetal = Literal["steel", "stainless", "aluminium", "copper"]
_COLUMNS = ((0.8, "a_0_8"), (0.9, "a_0_9"), (1.143, "a_1_15"), (1.6, "a_1_6"))


@dataclass(frozen=True, slots=True, kw_only=True)
class SprayTransition:
    """Transition current [A]; ``interpolated`` between the table's wires."""

    current_a: float
    interpolated: bool
    citation: Citation
    unchecked: tuple[str, ...]


def spray_transition(
    metal: SprayMetal, components: Mapping[Any, float], diameter_mm: float
) -> SprayTransition | None:
    """Current above which a solid wire sprays, electrode positive.

    Args:
        metal: Metal of the wire.
        components: Gas, % by volume by component.
        diameter_mm: True diameter of the wire, 0.8 to 1.6 mm.

    Returns:
        The current, straight between the table's wires; ``None`` where the gas gives no true spray
        or the table has nothing for it.

    Example:
        >>> spray_transition("steel", {"Ar": 98, "O2": 2}, 1.143).current_a
        220.0
    """
    table = load_table("welding.setup", "spray_transition")
    carbon, oxygen = components.get("CO2", 0.0), components.get("O2", 0.0)
    row = next(
        (
            one
            for one in table.rows
            if one["metal"] == metal
            and one["co2_percent"][0] <= carbon <= one["co2_percent"][1]
            and one["o2_percent"][0] <= oxygen <= one["o2_percent"][1]
        ),
        None,
    )
    if row is None:
        return None
    points = [(size, row[column]) for size, column in _COLUMNS if column in row]
    sizes = [size for size, _ in points]
    if not sizes[0] - 0.03 <= diameter_mm <= sizes[-1] + 0.03:
        return None
    near = next((amps for size, amps in points if abs(size - diameter_mm) <= 0.03), None)
    if near is None:
        above = bisect_left(sizes, diameter_mm)
        (low, low_a), (high, high_a) = points[above - 1], points[above]
        current = low_a + (high_a - low_a) * (diameter_mm - low) / (high - low)
    else:
        current = near
    return SprayTransition(
        current_a=current,
        interpolated=near is None,
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )
