"""Kinds of metal that process, gas and filler go by."""

from __future__ import annotations

import re
from typing import Literal

from welding.metals.catalogue import Metal

Kind = Literal["steel", "stainless", "aluminium", "copper", "nickel"]
KIND_OF_FAMILY: dict[str, Kind] = {
    "carbon": "steel",
    "weathering": "steel",
    "cr-mo": "steel",
    "ni-steel": "steel",
    "austenitic": "stainless",
    "ferritic": "stainless",
    "martensitic": "stainless",
    "ph-stainless": "stainless",
    "duplex": "stainless",
    "nickel": "nickel",
    "aluminium": "aluminium",
    "aluminium-cast": "aluminium",
    "copper": "copper",
}


def _most(metal: Metal, element: str) -> float:
    return metal.chemistry.get(element, (0.0, 0.0))[1]


def is_nine_chromium(metal: Metal) -> bool:
    """Whether a creep steel holds 7 % chromium or more, as P9 and P91 do."""
    return metal.family == "cr-mo" and metal.chemistry.get("Cr", (0.0, 0.0))[0] >= 7


def takes_nickel_filler(metal: Metal) -> bool:
    """Whether a nickel steel is welded with nickel-base filler: 5 and 9 % Ni (common practice)."""
    return metal.family == "ni-steel" and mean_nickel_percent(metal) > 4.5


def mean_nickel_percent(metal: Metal) -> float:
    """Middle of the nickel that a grade allows [%]."""
    return sum(metal.chemistry.get("Ni", (0.0, 0.0))) / 2


def copper_kind(metal: Metal) -> str:
    """Alloy of the filler that a copper metal asks for."""
    zinc, nickel, aluminium = (_most(metal, e) for e in ("Zn", "Ni", "Al"))
    name = metal.name.upper()
    if aluminium > 4 or re.search(r"CUAL", name):
        return "nickel-aluminium-bronze" if nickel > 3 or "NI" in name else "aluminium-bronze"
    if zinc > 5 or "CUZN" in name or "ZN" in name:
        return "silicon-bronze"
    if nickel > 5 or "CUNI" in name:
        return "cuni"
    if "CUSN" in name or _most(metal, "Sn") > 2:
        return "tin-bronze"
    return "silicon-bronze" if _most(metal, "Si") > 1 or "CUSI" in name else "copper"
