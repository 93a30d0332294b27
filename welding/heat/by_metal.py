"""Which row of the tables by metal a grade goes by, and the chemistry to count with (common practice)."""

from __future__ import annotations

import re
from collections.abc import Mapping

from welding.metals.catalogue import Metal

HARDENING = ("carbon", "weathering", "ni-steel")
"""Families whose preheat method B is for; chromium-molybdenum steels have figures of their own."""
USUAL_HYDROGEN_ML_100G = 5.0


def metal_key(metal: Metal, thickness_mm: float) -> str:
    """Row of the tables by metal.

    Example:
        >>> from welding.metals.catalogue import find
        >>> metal_key(find("2205"), 10), metal_key(find("S690QL"), 20)
        ('duplex', 'quenched')
    """
    family, name = metal.family, metal.name.upper()
    chromium = metal.chemistry.get("Cr", (0.0, 0.0))[1]
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
        return "fine-grained" if strength >= 400 else family
    return family


def upper_chemistry(metal: Metal) -> Mapping[str, float]:
    """The most that a grade's standard allows of each element [% by mass]."""
    return {element: high for element, (_, high) in metal.chemistry.items()}
