"""Which row of the relations a welded pass goes by: the same rows that plans are made with."""

from __future__ import annotations

from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.deposit.laid import weld_metal
from welding.documents.procedure import Pass, Procedure

THINNER = {"vertical-up": 0.8, "overhead": 0.85}
"""Uphill and overhead go on the settings of metal so many times as thick (common practice)."""
_CORED = {"136": "cored-gas", "138": "cored-metal", "114": "cored-self", "121": "saw", "111": "stick"}


def stick_kind(kind: str, designation: str) -> str:
    """Row of the currents of a covered electrode, by its covering; empty where none is known."""
    if kind in ("stainless", "nickel", "copper"):
        return "stick-stainless"
    text = designation.upper()
    if text.startswith("E ") or " B " in text or " C " in text or " R " in text:
        parts = text.split()
        covering = next((p for p in parts[2:] if p in ("B", "C", "R", "RR", "RC", "RA", "RB", "A")), "")
        return {"B": "stick-basic", "C": "stick-cellulosic"}.get(covering, "stick-rutile" if covering else "")
    last = text.split("-")[0].split(" ")[0].rstrip("M")[-2:]
    if last in ("10", "11"):
        return "stick-cellulosic"
    if last in ("15", "16", "18"):
        return "stick-basic"
    return "stick-rutile" if last in ("12", "13", "14") else ""


def _nickel_filler(one: Pass) -> bool:
    return one.filler is not None and weld_metal(one.filler.designation).startswith("nickel")


def pass_group(one: Pass, kind: str) -> str:
    """Row of travel, bead shape and wire current; empty where the transfer of wire is not stated."""
    if one.process in _CORED:
        return _CORED[one.process]
    if one.process == "141":
        return "tig-aluminium" if kind == "aluminium" else "tig"
    if one.process == "131":
        if kind == "copper":
            return "pulsed" if one.transfer == "pulsed" else "copper"
        nickel = kind == "nickel" or _nickel_filler(one)
        return "pulsed" if nickel else "aluminium" if kind == "aluminium" else ""
    if one.process == "135":
        if one.transfer in ("short-circuit", "controlled-short-circuit"):
            return "short"
        return {"spray": "spray", "pulsed": "pulsed"}.get(one.transfer or "", "")
    return ""


def volts_cases(one: Pass, kind: str) -> tuple[str, ...]:
    """Rows of the arc volts that a pass may go by: every transfer's where none is stated."""
    short = "steel-short" if kind == "steel" else "stainless-short"
    if one.process == "111":
        group = stick_kind(kind, one.filler.designation or "" if one.filler else "")
        return ("stick-cellulosic",) if group == "stick-cellulosic" else ("stick",)
    if one.process == "141":
        return ("tig-ac",) if one.polarity == "AC" else ("tig",)
    if one.process == "135":
        by_transfer = {"short-circuit": (short,), "spray": ("spray",), "pulsed": ("pulsed", "spray")}
        return by_transfer.get(one.transfer or "", (short, "spray", "pulsed"))
    if one.process == "131":
        return (
            ("copper", "pulsed")
            if kind == "copper"
            else ("aluminium",)
            if kind == "aluminium"
            else ("pulsed",)
        )
    return (_CORED[one.process],) if one.process in _CORED else ()


def wire_kind(process: str, designation: str | None, diameter_mm: float) -> str:
    """Row of the melting law; empty for covered electrodes and hand-fed rod."""
    fixed = {"136": "cored-rutile", "138": "cored-metal", "121": "saw"}
    if process in fixed:
        return fixed[process]
    if process == "114":
        return "cored-self-thin" if diameter_mm < 1.45 else "cored-self-thick"
    if process not in ("131", "135"):
        return ""
    metal = weld_metal(designation)
    if metal in ("aluminium-silicon", "aluminium-magnesium", "copper"):
        return metal
    if metal == "aluminium":
        return "aluminium-silicon"
    if metal in ("silicon-bronze", "aluminium-bronze"):
        return "bronze"
    return "solid-steel" if metal == "steel" else "solid-stainless"


def law_case(one: Pass, kind: str) -> str:
    """Row of TIG current against thickness."""
    if kind == "copper":
        name = one.filler.designation if one.filler else None
        copper = decode(name).classed.upper()[-2:] == "CU" if name else True
        return "tig-copper" if copper else "tig-copper-alloy"
    rows = {"aluminium": "tig-aluminium", "stainless": "tig-stainless", "nickel": "tig-stainless"}
    return rows.get(kind, "tig")


def attitude_of(procedure: Procedure, one: Pass) -> str:
    """How the weld lies, by the position and the pass's own progression; empty where none is stated."""
    if not procedure.positions:
        return ""
    rows = load_table("welding.joints", "positions").rows
    row = next((row for row in rows if row["position"] == procedure.positions[0]), None)
    if row is None:
        return ""
    if row["attitude"] not in ("vertical", "several"):
        return str(row["attitude"])
    way = row["progression"] if row["progression"] in ("up", "down") else (one.progression or "up")
    return "vertical-down" if way == "down" else "vertical-up"
