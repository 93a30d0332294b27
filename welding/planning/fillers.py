"""Which filler a draft takes: the alloy that the metals ask for, its name by process and code."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from welding.checks.pairing import MOLYBDENUM_FROM_PERCENT
from welding.codebook.table import load_table
from welding.metals.catalogue import Metal
from welding.metals.kinds import copper_kind, mean_nickel_percent, takes_nickel_filler
from welding.planning.facts import Facts

PACKAGE = "welding.planning"
STEEL = frozenset(("carbon", "weathering", "cr-mo", "ni-steel"))
_COLUMNS = {
    "111": "stick", "114": "self", "121": "saw", "131": "wire", "135": "wire", "136": "cored",
    "138": "metal_cored", "141": "rod",
}  # fmt: skip
_STRENGTH_STEPS = ((415, "carbon-42"), (500, "carbon-50"), (600, "carbon-55"), (700, "qt-69"))
"""Least yield of the weaker metal up to which a filler matches [MPa]."""
_THIN_SELF_SHIELDED_MM = 6.0
_COLD = re.compile(r"^(?:S\d{3}(?:NL|ML|QL1)|P\d{3}(?:NL\d|ML\d)|A333GR6|A352LC|A350LF2|A420)")
_BY_NAME: tuple[tuple[str, str], ...] = (
    (r"ALLOY20[01]\b", "nickel"), (r"ALLOY(?:400|K-?500)", "nicu"), (r"ALLOY800", "nicr-hot"),
    (r"ALLOY60[01]", "nicr"), (r"ALLOY690", "nicrfe-7"), (r"ALLOY617", "nicrcomo1"), (r"ALLOYB-?\d", "nimo7"),
    (r"ALLOYC-?276", "nicrmo4"), (r"ALLOYC-?22", "nicrmo10"), (r"ALLOY59", "nicrmo13"),
    (r"ALLOYC-?4$", "nicrmo7"),
)  # fmt: skip


def row_of_alloy(alloy: str) -> Mapping[str, Any]:
    """Row of the table of fillers; an unknown alloy is an error of ours."""
    return next(row for row in load_table(PACKAGE, "fillers").rows if row["alloy"] == alloy)


def designation_for(facts: Facts, alloy: str, process: str, *, pure_co2: bool) -> str:
    """Class of an alloy for a process in the names of the code in force; empty where none is known here."""
    row = row_of_alloy(alloy)
    if process == "114" and alloy == "carbon-42" and facts.thick < _THIN_SELF_SHIELDED_MM:
        return "E71T-11"
    column = _COLUMNS[process]
    if column == "cored" and pure_co2:
        column = "cored_c1"
    return str((row[f"{column}_iso"] if facts.iso else "") or row[column])


def alloy_for(facts: Facts) -> str:
    """Alloy of the filler, as a row of the table of fillers."""
    if facts.kind == "nickel":
        return _nickel(facts)
    if facts.kind == "copper":
        return _copper(facts)
    if facts.kind == "aluminium":
        return _aluminium(facts)
    if facts.kind == "stainless":
        return _stainless(facts)
    return _steel(facts)


def is_high_alloy(alloy: str) -> bool:
    """Whether a filler is stainless or nickel: its root is kept from the air."""
    row = row_of_alloy(alloy)
    return bool(re.match(r"ERNi|ER[2346]\d\d(?!\d)|ER16|ER19", str(row["rod"])))


def _share(metal: Metal, element: str, end: int = 1) -> float:
    """What the grade's standard allows at the most (1) or asks at the least (0) [%]."""
    return metal.chemistry.get(element, (0.0, 0.0))[end]


def _keys(facts: Facts) -> list[str]:
    return [metal.name.upper().replace(" ", "") for metal in facts.metals]


# --- steel ------------------------------------------------------------------------------------


def _steel(facts: Facts) -> str:
    families = facts.families
    if families == {"cr-mo"}:
        return min((_creep(metal) for metal in facts.metals), key=_CREEP_ORDER.index)
    if any(takes_nickel_filler(metal) for metal in facts.metals):
        return "nickel-steel"
    if families == {"ni-steel"}:
        return max((_cold(metal) for metal in facts.metals), key=_COLD_ORDER.index)
    if families == {"weathering"}:
        return "weathering"
    hardest = (
        max(_share(metal, "C") for metal in facts.metals if metal.family != "cr-mo")
        if (families - {"cr-mo"})
        else 0.0
    )
    soft = all("WEARPLATE" in name for name in _keys(facts)) or hardest > 0.4
    strength = 0.0 if soft else facts.strength
    if strength <= _STRENGTH_STEPS[0][0] and all(_COLD.match(name) for name in _keys(facts)):
        return "carbon-cold"
    return next((alloy for top, alloy in _STRENGTH_STEPS if strength <= top), "qt-89")


_CREEP_ORDER = ("D2", "A1", "B2", "B3", "creep-special", "B6", "B8", "B9")


def _creep(metal: Metal) -> str:
    """Filler of a creep-resisting steel: chromium, molybdenum and vanadium as in the steel."""
    chromium, carbon = sum(metal.chemistry.get("Cr", (0.0, 0.0))) / 2, _share(metal, "C")
    vanadium = _share(metal, "V", 0) > 0.1
    name = metal.name.upper()
    if carbon > 0.24 and chromium < 1.6:
        return "D2"  # machine steels such as 25CrMo4, 4130 and 4140
    if re.search(r"P92|T92|WMO|X20|X11CRMOWVNB|T2[34]|WVMONB|MOVTIB|E911|14MOV|VANADIUM", name):
        return "creep-special"
    if chromium > 7.5:
        return "B9" if vanadium else "B8"
    if chromium > 3.5:
        return "B6"
    if vanadium:
        return "creep-special"
    return "B3" if chromium > 1.6 else "B2" if chromium > 0.6 else "A1"


_COLD_ORDER = ("Ni1", "Ni2", "Ni3", "nickel-steel")


def _cold(metal: Metal) -> str:
    nickel = mean_nickel_percent(metal)
    return "Ni3" if nickel > 2.8 else "Ni2" if nickel > 1.2 else "Ni1"


# --- stainless --------------------------------------------------------------------------------


def _stainless(facts: Facts) -> str:
    families = facts.families
    hot = any(_share(metal, "Cr") > 1.9 for metal in facts.metals if metal.family == "cr-mo")
    if families == {"cr-mo", "austenitic"} and hot:
        return "nicr"  # such joints serve in heat: carbon moves into stainless weld metal
    if families & STEEL:
        return "309L"
    if "duplex" in families:
        chromium = max(_share(metal, "Cr") for metal in facts.metals)
        return "2594" if chromium > 24.5 and families == {"duplex"} else "2209"
    if families == {"martensitic"}:
        if any(_share(metal, "C") > 0.15 for metal in facts.metals):
            return "309L"
        nickel = all(_share(metal, "Ni", 0) >= 2 for metal in facts.metals)
        return "410NiMo" if nickel else "410" if facts.process in ("111", "141", "135") else "309L"
    if families == {"ph-stainless"}:
        return "630"
    if families & {"martensitic", "ferritic", "ph-stainless"}:
        return "309L"
    found = [_austenitic(metal) for metal in facts.metals]
    if len(set(found)) == 1:
        return found[0]
    if set(found) & {"nicrmo3"}:
        return "nicrmo3"
    if set(found) & {"310", "309", "385"}:
        return "309L"
    # Between two common grades the lesser one decides: the weld is as good as that steel.
    return min(found, key=_AUSTENITIC_ORDER.index)


_AUSTENITIC_ORDER = ("308L", "308H", "347", "316L", "316H", "318", "317L", "309", "310", "385", "nicrmo3")
_STABILISED = re.compile(r"321|347|348|1\.4541|1\.4550|1\.4878|1\.4961|NB\d|TI\d")


def _austenitic(metal: Metal) -> str:
    name = metal.name.upper()
    chromium, nickel, molybdenum = (_share(metal, e, 0) for e in ("Cr", "Ni", "Mo"))
    if molybdenum >= 5.5 or (molybdenum >= 3 and nickel >= 29):
        return "nicrmo3"
    if molybdenum >= 3.9:
        return "385"
    if chromium >= 23 and nickel >= 18:
        return "310"
    if nickel >= 11 and chromium >= 19 and molybdenum < 1:
        return "309"
    hot = bool(re.search(r"\d{3}H$|1\.4948|1\.4919", name))
    if molybdenum >= 3.0:
        return "317L"
    if molybdenum >= MOLYBDENUM_FROM_PERCENT:
        stable = re.search(r"TI|NB|1\.4571|1\.4580", name)
        return "316H" if hot else "318" if stable else "316L"
    if _STABILISED.search(name):
        return "347"
    return "308H" if hot else "308L"


# --- nickel, aluminium, copper ----------------------------------------------------------------


def _nickel(facts: Facts) -> str:
    if facts.families <= STEEL:
        return _steel(facts)
    found = set()
    for metal, name in zip(facts.metals, _keys(facts), strict=True):
        if metal.family != "nickel":
            found.add("")
            continue
        found.add(next((alloy for shape, alloy in _BY_NAME if re.search(shape, name)), "nicrmo3"))
    found.discard("")
    if len(found) == 1:
        alloy = found.pop()
        # Copper from 70/30 makes stainless steel crack; nickel does not.
        return "nickel" if alloy == "nicu" and "austenitic" in facts.families else alloy
    return "nicrmo3"


def _aluminium(facts: Facts) -> str:
    magnesium = max(sum(metal.chemistry.get("Mg", (0.0, 0.0))) / 2 for metal in facts.metals)
    first = {metal.name[:1] for metal in facts.metals}
    if magnesium > 3.5:
        return "5183"
    if magnesium > 2.0 or first & {"5", "7"} or first == {"6"}:
        return "5356"
    return "1100" if first == {"1"} else "4043"


def _copper(facts: Facts) -> str:
    if facts.families - {"copper"}:  # to steel: iron in copper cracks, less so with aluminium or nickel
        with_nickel = any(copper_kind(metal) == "cuni" for metal in facts.metals if metal.family == "copper")
        return "nicu" if with_nickel else "aluminium-bronze"
    kinds = {copper_kind(metal) for metal in facts.metals if metal.family == "copper"}
    if len(kinds) == 1:
        kind = kinds.pop()
        return "silicon-bronze" if kind == "copper" and facts.thin < 1.5 else kind
    return "aluminium-bronze" if kinds & {"aluminium-bronze", "nickel-aluminium-bronze"} else "tin-bronze"
