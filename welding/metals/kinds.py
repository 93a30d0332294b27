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
