"""Shielding gas flow: what is usual for a process, a cup, a gas."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.language import tr
from welding.ranges import Range
from welding.setup.cup import cup_advice

TIG = ("141", "142", "143", "145", "146")
PURGE_L_MIN = Range(2.5, 5.0)
"""Purge of a root: 5 to 10 ft³/h (common practice)."""
_HELIUM_TIG = 2.25
_HELIUM_WIRE = 1.7
_AC_MORE_L_MIN = (1.0, 3.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class FlowAdvice:
    """Usual flow [L/min], what it goes by, and where that stands."""

    usual: Range
    basis: str
    citation: Citation


def flow_advice(
    process: str,
    components: Mapping[Any, float],
    *,
    transfer: str | None = None,
    cup_number: int | None = None,
    lens: bool = False,
    ac: bool = False,
) -> FlowAdvice | None:
    """Usual flow in still air (common practice).

    Args:
        process: ISO 4063 number.
        components: Gas, % by volume by component.
        transfer: Transfer mode of wire processes.
        cup_number: TIG cup, sixteenths of an inch.
        lens: Whether a gas lens is fitted.
        ac: TIG on AC (aluminium), which takes somewhat more.

    Returns:
        The advice; ``None`` where the facts do not suffice.

    Example:
        >>> flow_advice("141", {"Ar": 100}, cup_number=8).usual
        Range(min=8.0, max=11.0)
    """
    helium = components.get("He", 0.0) / 100
    if process in TIG:
        return _tig(cup_number, lens=lens, ac=ac, helium=helium)
    table = load_table("welding.setup", "wire_flow")
    for row in table.rows:
        if process in row["processes"] and (not row["transfer"] or transfer in row["transfer"]):
            if row["case"] == "wire-short" and process == "131":
                continue  # aluminium is hardly ever short-circuited; the spray figures hold
            factor = 1 + (_HELIUM_WIRE - 1) * helium
            return FlowAdvice(
                usual=Range.between(row["min_l_min"], round(row["max_l_min"] * factor, 1)),
                basis=tr("the process and its transfer")
                + (tr(", helium taken into account") if helium else ""),
                citation=table.citation_of(row),
            )
    return None


def _tig(cup_number: int | None, *, lens: bool, ac: bool, helium: float) -> FlowAdvice | None:
    advice = cup_advice(cup_number, lens=lens) if cup_number else None
    if advice is None or advice.flow_l_min is None:
        return None
    low, high = advice.flow_l_min.min, advice.flow_l_min.max
    if ac:
        low, high = low + _AC_MORE_L_MIN[0], high + _AC_MORE_L_MIN[1]
    factor = 1 + (_HELIUM_TIG - 1) * helium
    more = [words for words, yes in (("AC", ac), ("helium", helium > 0)) if yes]
    return FlowAdvice(
        usual=Range(round(low * factor, 1), round(high * factor, 1)),
        basis=tr(
            "cup no. {cup_number} {value}",
            cup_number=cup_number,
            value=tr("with a gas lens") if lens else tr("without a lens"),
        )
        + (tr(", {more} taken into account", more=tr(" and ").join(more)) if more else ""),
        citation=advice.citation,
    )


def post_flow_s(current_a: float) -> float:
    """Usual post-flow: a second for every 10 A, at least 5 s (common practice).

    Example:
        >>> post_flow_s(120)
        12.0
    """
    return max(5.0, current_a / 10)
