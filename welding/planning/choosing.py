"""Filler, gas, transfer and diameter where the intent leaves them open."""

from __future__ import annotations

import re
from dataclasses import dataclass

from welding.checks.pairing import MOLYBDENUM_FROM_PERCENT
from welding.checks.shielding import STAINLESS
from welding.consumables.gas import gas_text, read_gas
from welding.documents.fields import Transfer
from welding.errors import DocumentError, Problem, UnreadableError
from welding.planning.facts import Facts
from welding.planning.reasons import Reason
from welding.planning.sizes import trade_size_name
from welding.setup.fields import fields_of
from welding.table import load_table

PACKAGE = "welding.planning"
_SMALL, _MIDDLE, _LARGE = 3.0, 5.0, 8.0
SI_SIZES = {0.762: 0.8, 0.889: 1.0, 1.143: 1.2, 1.727: 1.6, 1.588: 1.6, 2.381: 2.4, 3.175: 3.2}


@dataclass(frozen=True, slots=True, kw_only=True)
class Consumables:
    """What is welded with."""

    designation: str
    gas: dict[str, float] | None
    purge: dict[str, float] | None
    reasons: tuple[Reason, ...]


def choose_consumables(facts: Facts) -> Consumables:
    """Filler and gas, as wished or as usual for metal, process and code.

    Raises:
        DocumentError: A gas that cannot be read, or no filler is known here for the metal and process.
    """
    reasons: list[Reason] = []
    wished = facts.intent.filler.designation if facts.intent.filler else None
    gas = _wished_gas(facts)
    designation = wished or _filler(facts, gas)
    if not designation:
        raise DocumentError(
            (
                Problem(
                    "filler.designation", "no filler is known here for this metal and process: name one", ""
                ),
            )
        )
    if not wished:
        reasons.append(
            Reason(
                path="passes.*.filler.designation",
                text=f"{designation} for {' to '.join(dict.fromkeys(m.name for m in facts.metals))}, "
                f"process {facts.process}",
                citation=load_table(PACKAGE, "filler_choice").citation,
            )
        )
    if gas is None:
        gas = _usual_gas(facts, designation)
        if gas is not None:
            reasons.append(
                Reason(path="passes.*.gas", text=f"{gas_text(gas)}: {_gas_why(facts, designation)}")
            )
    purge = None
    if _needs_purge(facts):
        purge = {"Ar": 100.0}
        reasons.append(
            Reason(
                path="passes.0.purge",
                text="argon behind the root: bare stainless and nickel roots burn without it",
            )
        )
    return Consumables(designation=designation, gas=gas, purge=purge, reasons=tuple(reasons))


def _wished_gas(facts: Facts) -> dict[str, float] | None:
    if not facts.intent.gas or facts.process in ("111", "114"):
        return None
    try:
        return dict(read_gas(facts.intent.gas))
    except UnreadableError as error:
        raise DocumentError((Problem("gas", error.reason, facts.intent.gas),)) from None


def _filler(facts: Facts, gas: dict[str, float] | None) -> str:
    alloy = _alloy(facts)
    pure_co2 = bool(gas) and (gas or {}).get("CO2", 0.0) > 50
    if alloy:
        row = next(row for row in load_table(PACKAGE, "filler_by_alloy").rows if row["alloy"] == alloy)
        column = {"141": "rod", "135": "wire", "131": "wire", "111": "stick"}.get(facts.process, "cored")
        if column == "cored" and pure_co2:
            column = "cored_c1"
        return str(row[column])
    for row in load_table(PACKAGE, "filler_choice").rows:
        if (
            facts.process in row["processes"]
            and row["yield_over_mpa"] < max(facts.strength, 1) <= row["yield_to_mpa"]
            and facts.thick <= row["thickness_to_mm"]
            and (not row["gas"] or (row["gas"] == "C1") == pure_co2)
        ):
            return str(row["designation"])
    return ""


def _alloy(facts: Facts) -> str:
    """Row of the fillers by alloy; empty for carbon steels, which go by strength."""
    families, names = facts.families, [metal.name.upper() for metal in facts.metals]
    if facts.kind == "nickel":
        return "nicrmo3"
    if facts.kind == "copper":
        return "copper" if facts.thin >= 1.5 else "bronze"
    if facts.kind == "aluminium":
        return _aluminium(facts)
    if facts.kind == "stainless":
        return _stainless(facts, names)
    if families == {"cr-mo"}:
        share = min(metal.chemistry.get("Cr", (0.0, 0.0))[1] for metal in facts.metals)
        if any("4130" in name or "25CRMO" in name for name in names):
            return "D2"
        return "B3" if share > 1.6 else "B2"
    return ""


def _stainless(facts: Facts, names: list[str]) -> str:
    families = facts.families
    if families & {"carbon", "weathering", "cr-mo", "ni-steel"}:
        return "309L"
    if "duplex" in families:
        chromium = max(metal.chemistry.get("Cr", (0.0, 0.0))[1] for metal in facts.metals)
        return "2594" if chromium > 24.5 and families == {"duplex"} else "2209"
    if families & {"martensitic", "ferritic"}:
        return "309L"
    if any("310" in name for name in names):
        return "310"
    if all(metal.chemistry.get("Mo", (0.0, 0.0))[0] >= MOLYBDENUM_FROM_PERCENT for metal in facts.metals):
        return "316L"
    if all(re.search(r"321|347|1\.4541|1\.4550", name) for name in names):
        return "347"
    return "308L"


def _aluminium(facts: Facts) -> str:
    magnesium = max(sum(metal.chemistry.get("Mg", (0.0, 0.0))) / 2 for metal in facts.metals)
    first = {metal.name[:1] for metal in facts.metals}
    if magnesium > 3.5:
        return "5183"
    if magnesium > 2.0 or "5" in first or first == {"6"}:
        return "5356"
    return "1100" if first == {"1"} else "4043"


def _usual_gas(facts: Facts, designation: str) -> dict[str, float] | None:
    process = facts.process
    if process in ("111", "114"):
        return None
    if process in ("131", "141"):
        return {"Ar": 100.0}
    if process == "135":
        if facts.kind == "stainless":
            return {"Ar": 98.0, "CO2": 2.0}
        if facts.units == "si":
            return {"Ar": 82.0, "CO2": 18.0}
        short = facts.intent.transfer == "short-circuit" or (
            facts.intent.transfer is None and facts.thin < _MIDDLE
        )
        return {"Ar": 75.0, "CO2": 25.0} if short and not facts.prequalified else {"Ar": 90.0, "CO2": 10.0}
    if process == "136" and re.search(r"(?:C|-1|-G)$", designation.split(" ")[0].split("-H")[0]):
        return {"CO2": 100.0}
    return (
        {"Ar": 75.0, "CO2": 25.0} if facts.units == "us" and process == "136" else {"Ar": 80.0, "CO2": 20.0}
    )


def _gas_why(facts: Facts, designation: str) -> str:
    if facts.process in ("131", "141"):
        return "inert, as the process and the metal ask"
    if facts.kind == "stainless" and facts.process == "135":
        return "little CO2, so that the weld picks up no carbon"
    if facts.process in ("136", "138"):
        return f"a gas that {designation} was classified with"
    return "carries every transfer mode of solid steel wire"


def _needs_purge(facts: Facts) -> bool:
    joint = facts.intent.joint
    open_root = joint.weld == "cjp-groove" and joint.backing in ("none", "gas") and not joint.back_gouge
    has_purge = "purge" in fields_of(facts.process, None, "spray")
    return has_purge and open_root and facts.families <= set(STAINLESS)


# --- transfer ---------------------------------------------------------------------------------


def choose_transfer(facts: Facts, gas: dict[str, float] | None, *, open_root: bool) -> Transfer | None:
    """Transfer of a pass; the one that is wished first."""
    if facts.process not in ("131", "135", "138"):
        return None
    wished = facts.intent.transfer
    if wished is not None:
        return wished
    level = facts.attitude in ("flat", "horizontal")
    if facts.process == "138":
        return "spray" if level else "pulsed"
    if facts.process == "131":
        if facts.kind == "nickel":
            return "pulsed"
        return "spray" if level and facts.thin >= 4 else "pulsed"
    carbon_dioxide = (gas or {}).get("CO2", 0.0)
    if carbon_dioxide > 20:
        return "short-circuit"
    if not facts.prequalified and (open_root or facts.thin < _MIDDLE):
        return "short-circuit"
    if level and facts.thin >= _MIDDLE and carbon_dioxide <= 20:
        return "spray"
    return "pulsed"


# --- diameter ---------------------------------------------------------------------------------


def choose_diameter(facts: Facts, transfer: Transfer | None, *, root: bool) -> tuple[float, str]:
    """True diameter of the filler [mm] and its trade size; the one that is wished first."""
    wished = facts.intent.filler
    if wished is not None and wished.diameter_mm is not None:
        return wished.diameter_mm, wished.nominal or trade_size_name(wished.diameter_mm, facts.units)
    inch = _inch_size(facts, transfer, root=root)
    size = inch if facts.units == "us" and facts.process != "111" else SI_SIZES.get(inch, inch)
    if facts.process == "131" and facts.units == "us" and abs(inch - 1.143) < 0.01:
        size = 1.191  # aluminium and copper wire is sold as 3/64 in
    return size, trade_size_name(size, facts.units)


def _inch_size(facts: Facts, transfer: Transfer | None, *, root: bool) -> float:
    thin, process = facts.thin, facts.process
    if process == "135":
        if transfer == "short-circuit":
            return 0.762 if thin < 2 else 0.889
        return 0.889 if thin < _MIDDLE else 1.143
    if process == "136":
        return 0.889 if thin < _SMALL else 1.143
    if process == "114":
        return 1.143 if thin <= 12 and facts.strength <= 360 else 1.727
    if process in ("138", "131"):
        return 0.889 if process == "131" and thin < 2 else 1.143
    if process == "141":
        if thin < 1.8:
            return 1.588
        return 2.381 if root or thin < _LARGE else 3.175
    return _stick(facts, root=root)


def _stick(facts: Facts, *, root: bool) -> float:
    level = facts.attitude in ("flat", "horizontal")
    if facts.thin < _SMALL:
        return 2.5
    if root and (facts.thin < _LARGE or facts.kind != "steel"):
        return 2.5
    if not root and level and facts.thin >= 10 and facts.kind == "steel":
        return 4.0
    return 3.2
