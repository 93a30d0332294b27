"""Filler, gas, transfer and diameter where the intent leaves them open."""

from __future__ import annotations

import re
from dataclasses import dataclass

from welding.checks.shielding import STAINLESS
from welding.codebook.table import load_table
from welding.consumables.gas import gas_text, read_gas
from welding.documents.fields import Transfer
from welding.errors import DocumentError, Problem, UnreadableError
from welding.language import tr
from welding.metals.kinds import is_nine_chromium
from welding.planning.facts import Facts
from welding.planning.fillers import alloy_for, designation_for, is_high_alloy
from welding.planning.reasons import Reason
from welding.planning.sizes import trade_size_name
from welding.setup.fields import fields_of

PACKAGE = "welding.planning"
_SMALL, _MIDDLE, _LARGE = 3.0, 5.0, 8.0
_SOCKET_LEG = 6.5
"""Fillets of pipe up to this leg take two layers of a small electrode (common practice)."""
SI_SIZES = {0.762: 0.8, 0.889: 1.0, 1.143: 1.2, 1.727: 1.6, 1.588: 1.6, 1.984: 2.0, 2.381: 2.4, 3.175: 3.2}


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
                    "filler.designation",
                    tr("no filler is known here for this metal and process: name one"),
                    "",
                ),
            )
        )
    if not wished:
        reasons.append(
            Reason(
                path="passes.*.filler.designation",
                text=tr(
                    "{designation} for {fromkeys}, process {process}",
                    designation=designation,
                    fromkeys=tr(" to ").join(dict.fromkeys(m.name for m in facts.metals)),
                    process=facts.process,
                ),
                citation=load_table(PACKAGE, "fillers").citation,
            )
        )
    if gas is None:
        gas = _usual_gas(facts, designation)
        if gas is not None:
            reasons.append(
                Reason(path="passes.*.gas", text=f"{gas_text(gas)}: {_gas_why(facts, designation)}")
            )
    purge = None
    if _needs_purge(facts, alloy_for(facts)):
        purge = {"Ar": 100.0}
        reasons.append(
            Reason(
                path="passes.0.purge",
                text=tr("argon behind the root: one with chromium or nickel scales without it"),
            )
        )
    return Consumables(designation=designation, gas=gas, purge=purge, reasons=tuple(reasons))


def _wished_gas(facts: Facts) -> dict[str, float] | None:
    if not facts.intent.gas or facts.process in ("111", "114", "121"):
        return None
    try:
        return dict(read_gas(facts.intent.gas))
    except UnreadableError as error:
        raise DocumentError((Problem("gas", error.reason, facts.intent.gas),)) from None


def _filler(facts: Facts, gas: dict[str, float] | None) -> str:
    pure_co2 = bool(gas) and (gas or {}).get("CO2", 0.0) > 50
    return designation_for(facts, alloy_for(facts), facts.process, pure_co2=pure_co2)


def _usual_gas(facts: Facts, designation: str) -> dict[str, float] | None:
    process = facts.process
    if process in ("111", "114", "121"):
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
        return tr("inert, as the process and the metal ask")
    if facts.kind == "stainless" and facts.process == "135":
        return tr("little CO2, so that the weld picks up no carbon")
    if facts.process in ("136", "138"):
        return tr("a gas that {designation} was classified with", designation=designation)
    return tr("carries every transfer mode of solid steel wire")


PURGED_FROM_PERCENT_CR = 1.9
"""From here the root of a chromium steel scales without argon behind it (common practice)."""


def _needs_purge(facts: Facts, alloy: str) -> bool:
    joint = facts.intent.joint
    open_root = joint.weld == "cjp-groove" and joint.backing in ("none", "gas") and not joint.back_gouge
    has_purge = "purge" in fields_of(facts.process, None, "spray")
    if not (has_purge and open_root):
        return False
    chromium = any(
        metal.family == "cr-mo" and sum(metal.chemistry.get("Cr", (0.0, 0.0))) / 2 > PURGED_FROM_PERCENT_CR
        for metal in facts.metals
    )
    bare = bool(facts.families & set(STAINLESS)) or is_high_alloy(alloy)
    return chromium or bare


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
    if any(is_nine_chromium(metal) for metal in facts.metals):
        return "pulsed"  # in 9 % chromium steel a short arc leaves lack of fusion
    carbon_dioxide = (gas or {}).get("CO2", 0.0)
    if carbon_dioxide > 20:
        return "short-circuit"
    if not facts.prequalified and (open_root or facts.thin < _MIDDLE):
        return "short-circuit"
    # Pipe is small and fed from one side: pulses keep its pool.
    if level and facts.thin >= _MIDDLE and carbon_dioxide <= 20 and (facts.prequalified or not facts.pipe):
        return "spray"
    return "pulsed"


# --- diameter ---------------------------------------------------------------------------------


def choose_diameter(
    facts: Facts, transfer: Transfer | None, *, root: bool, open_root: bool = True
) -> tuple[float, str]:
    """True diameter of the filler [mm] and its trade size; the one that is wished first."""
    wished = facts.intent.filler
    if wished is not None and wished.diameter_mm is not None:
        return wished.diameter_mm, wished.nominal or trade_size_name(wished.diameter_mm, facts.units)
    inch = _inch_size(facts, transfer, root=root, open_root=open_root)
    size = inch if facts.units == "us" and facts.process != "111" else SI_SIZES.get(inch, inch)
    if facts.process == "131" and facts.units == "us" and abs(inch - 1.143) < 0.01:
        size = 1.191  # aluminium and copper wire is sold as 3/64 in
    return size, trade_size_name(size, facts.units)


def _inch_size(facts: Facts, transfer: Transfer | None, *, root: bool, open_root: bool) -> float:
    thin, process = facts.thin, facts.process
    if process == "135":
        if transfer == "short-circuit":
            return 0.762 if thin < 2 else 0.889
        return 0.889 if thin < _MIDDLE else 1.143
    if process == "121":
        thick_steel = facts.kind == "steel" and not facts.pipe and facts.strength < 600
        return (
            4.0
            if thick_steel and thin >= 8 and not facts.intent.fill_process and facts.families != {"cr-mo"}
            else 3.2
        )
    if process == "136":
        return 0.889 if thin < _SMALL else 1.143
    if process == "114":
        return 1.143 if thin < 6 else 1.984
    if process in ("138", "131"):
        return 0.889 if process == "131" and thin < 2 else 1.143
    if process == "141":
        if thin < 1.8:
            return 1.588
        return 2.381 if root or thin < _LARGE else 3.175
    return _stick(facts, root=root, open_root=open_root)


def _stick(facts: Facts, *, root: bool, open_root: bool) -> float:
    level = facts.attitude in ("flat", "horizontal")
    if facts.attitude == "vertical-down" and facts.thin >= 6 and facts.kind == "steel":
        return 3.2 if root else 4.0
    leg = (facts.intent.joint.leg1_mm or facts.intent.joint.leg2_mm) if facts.fillet else None
    if facts.thin < _SMALL or (facts.pipe and leg is not None and leg <= _SOCKET_LEG):
        return 2.5
    if root and (facts.thin < _LARGE or (open_root and facts.kind != "steel")):
        return 2.5
    if not root and level and facts.thin >= 10 and facts.kind == "steel":
        return 4.0
    return 3.2
