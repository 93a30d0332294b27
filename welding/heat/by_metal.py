"""Which row of the tables by metal a grade goes by, and the chemistry to count with (common practice)."""

from __future__ import annotations

import re
from collections.abc import Mapping

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.metals.catalogue import Metal

HARDENABLE_FROM_PERCENT_C = 0.37
THIN_TUBE_MM = 3.2
"""Chromium-molybdenum tube up to here is welded without preheat (common practice, 1/8 in)."""
HARDENING = ("carbon", "weathering", "ni-steel")
"""Families whose preheat method B is for; chromium-molybdenum steels have figures of their own."""
USUAL_HYDROGEN_ML_100G = 5.0
HYDROGEN_BY_PROCESS_ML_100G = {"135": 3.0, "141": 3.0, "131": 3.0}
"""Bare wire and rod in dry gas bring next to none; whatever has a flux counts 5 where it is ordered so."""
NOT_LOW_ML_100G = 16.0
"""Covered electrodes that are no low-hydrogen ones (common practice)."""
_CARBON_SHARE, _MANGANESE_SHARE, _MENU_SHARE = 0.80, 0.9, 0.35


def metal_key(metal: Metal, thickness_mm: float) -> str:
    """Row of the tables by metal.

    Example:
        >>> from welding.metals.catalogue import find
        >>> metal_key(find("2205"), 10), metal_key(find("S690QL"), 20)
        ('duplex', 'quenched')
    """
    family, name = metal.family, metal.name.upper()
    chromium = metal.chemistry.get("Cr", (0.0, 0.0))[1]
    carbon = metal.chemistry.get("C", (0.0, 0.0))[1]
    if family in ("carbon", "cr-mo") and carbon > HARDENABLE_FROM_PERCENT_C:
        return "hardenable"
    if family == "copper":
        return "copper" if metal.chemistry.get("Cu", (0.0, 0.0))[0] >= 99 else "copper-alloy"
    if (
        family == "austenitic"
        and metal.chemistry.get("Ni", (0.0, 0.0))[0] >= 17
        and (metal.chemistry.get("Mo", (0.0, 0.0))[0] >= 3.5)
    ):
        return "super-austenitic"
    if family == "cr-mo":
        return "cr-mo-9" if chromium > 5 else "cr-mo-2" if chromium > 1.6 else "cr-mo-1"
    if family == "duplex":
        return "super-duplex" if chromium > 24.5 else "duplex"
    if family in ("aluminium", "aluminium-cast"):
        return "aluminium-hardened" if re.match(r"[67]", name) else "aluminium"
    if family in ("carbon", "weathering"):
        if "Q" in metal.condition or re.search(r"Q[LT]?\d?$|A514|A517|HPS", name):
            return "quenched"
        strength = metal.yield_at(thickness_mm) or 0.0
        fine = strength >= 400 or re.match(r"[SP]\d{3}[NM]L?\d?\b", name)
        return "fine-grained" if fine else family
    return family


def typical_chemistry(metal: Metal) -> Mapping[str, float]:
    """What a heat of the grade usually has [% by mass], never all maxima at once (common practice).

    Carbon is about 0.8 and manganese 0.9 of the most that is allowed; of an element that the standard asks
    for, the middle; of one that it only allows, a third, since no heat has every one of them. With it the
    carbon equivalent stays below the cap that the standards of structural steel set (S355: 0.45).
    """
    shares = {"C": _CARBON_SHARE, "Mn": _MANGANESE_SHARE}
    found = {}
    for element, (low, high) in metal.chemistry.items():
        if low > 0 and element not in shares:
            found[element] = (low + high) / 2
        else:
            found[element] = max(high * shares.get(element, _MENU_SHARE), low)
    return found


def usual_hydrogen_ml_100g(process: str, marked: float | None, low_hydrogen: bool | None) -> float:
    """Diffusible hydrogen to count with [ml/100 g]: the mark, else by covering and process.

    A cellulosic or rutile covering brings more than 15.
    """
    if marked is not None:
        return marked
    if process == "111" and low_hydrogen is False:
        return NOT_LOW_ML_100G
    return HYDROGEN_BY_PROCESS_ML_100G.get(process, USUAL_HYDROGEN_ML_100G)


def upper_chemistry(metal: Metal) -> Mapping[str, float]:
    """The most that a grade's standard allows of each element [% by mass]."""
    return {element: high for element, (_, high) in metal.chemistry.items()}


def copper_preheat(thickness_mm: float) -> tuple[float, float, Citation]:
    """Preheat of copper of a thickness [mm]: what is usual, the least that is not told [°C], and the source.

    Example:
        >>> copper_preheat(6.0)[:2], copper_preheat(8.0)[:2]
        ((250.0, 200.0), (400.0, 200.0))
    """
    table = load_table("welding.heat", "copper_preheat")
    begun = [row for row in table.rows if row["from_mm"] <= thickness_mm]
    row = max(begun or table.rows[:1], key=lambda one: float(one["from_mm"]))
    return float(row["usual_c"]), float(row["least_c"]), table.citation_of(row)
