"""Metal laid down per length of bead, and what of the filler becomes weld metal."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.documents.procedure import Pass
from welding.ranges import Range

CORED_GAS, CORED_SELF, METAL_CORED = ("136", "132"), ("114",), ("138", "133")
TIG = ("141", "143", "145", "146", "15")
STICK = ("111", "112")


@dataclass(frozen=True, slots=True, kw_only=True)
class Yield:
    """Share of the filler that becomes weld metal, by mass: usual, and its range."""

    usual: float
    spread: Range
    citation: Citation


def density_g_cm3(what: str) -> float:
    """Density of a metal or of a kind of cored wire [g/cm³], from the table of that name."""
    row = next(row for row in load_table("welding.deposit", "density").rows if row["what"] == what)
    return float(row["g_cm3"])


def weld_metal(designation: str | None, family: str = "carbon") -> str:
    """Which row of the density table a filler's weld metal is; by the base metal without one.

    Example:
        >>> weld_metal("ER5356"), weld_metal("ER308LSi"), weld_metal("ER70S-6")
        ('aluminium-magnesium', 'stainless', 'steel')
    """
    name = (designation or "").upper().replace(" ", "")
    found = decode(designation) if designation else None
    if found is not None and found.same_as:
        return weld_metal(found.same_as)
    system = found.system if found else ""
    if system in ("AWS A5.10", "ISO 18273") or name[:4] in (
        "ER40",
        "ER41",
        "ER50",
        "ER51",
        "ER53",
        "ER55",
        "ER56",
    ):
        digits = name.lstrip("ERSAL ")
        return {"4": "aluminium-silicon", "5": "aluminium-magnesium"}.get(digits[:1], "aluminium")
    if system == "AWS A5.7":
        if "SI" in name:
            return "silicon-bronze"
        return "aluminium-bronze" if "AL" in name else "copper"
    if system in ("AWS A5.11", "AWS A5.14"):
        return "nickel" if name.startswith("ERNI-1") else "nickel-alloy"
    if system in ("AWS A5.4", "AWS A5.9", "AWS A5.22") or system.startswith(
        ("ISO 14343", "ISO 3581", "ISO 17633")
    ):
        return "stainless"
    if system:
        return "steel"
    if family in ("austenitic", "duplex", "ferritic", "martensitic", "ph-stainless"):
        return "stainless"
    return {"aluminium": "aluminium", "copper": "copper", "nickel": "nickel-alloy"}.get(family, "steel")


def deposition_yield(
    process: str, *, designation: str | None = None, components: Mapping[Any, float] | None = None
) -> Yield | None:
    """Share of the filler that becomes weld metal; ``None`` for processes that the table does not have.

    Args:
        process: ISO 4063 number.
        designation: Of the filler; tells the covering of an electrode.
        components: Gas, % by volume; tells spatter of solid wire.
    """
    case = _case(process, designation, components or {})
    table = load_table("welding.deposit", "efficiency")
    row = next((row for row in table.rows if row["case"] == case), None)
    if row is None:
        return None
    return Yield(
        usual=row["usual"], spread=Range.between(row["min"], row["max"]), citation=table.citation_of(row)
    )


def _case(process: str, designation: str | None, components: Mapping[Any, float]) -> str:
    if process in TIG:
        return "tig"
    if process.startswith("12"):
        return "saw"
    if process in METAL_CORED:
        return "metal-cored"
    if process in CORED_GAS:
        return "cored-gas"
    if process in CORED_SELF:
        return "cored-self"
    if process == "131":
        return "wire-inert"
    if process == "135":
        carbon = components.get("CO2", 0.0)
        return "wire-co2" if carbon > 50 else "wire-mix" if carbon > 10 else "wire-lean"
    if process in STICK:
        return _covering(designation or "")
    return ""


def _covering(designation: str) -> str:
    last = designation.upper().split("-")[0].rstrip("M")[-2:]
    if last in ("10", "11"):
        return "stick-cellulosic"
    if last in ("24", "27", "28"):
        return "stick-iron-powder"
    return (
        "stick-rutile"
        if last in ("12", "13", "14", "16", "17") and "308" in designation
        else ("stick-rutile" if last in ("12", "13", "14") else "stick-basic")
    )


def laid_per_feed(one: Pass) -> float | None:
    """Weld metal per length of wire fed [mm³/mm]: section of the wires x yield x density ratio.

    ``None`` where the filler's diameter is not stated or the process has no figure.
    """
    filler = one.filler
    if filler is None or filler.diameter_mm is None:
        return None
    gained = deposition_yield(
        one.process,
        designation=filler.designation,
        components=one.gas.components_percent if one.gas else None,
    )
    if gained is None:
        return None
    metal = density_g_cm3(weld_metal(filler.designation))
    wire = metal
    if one.process in CORED_GAS + CORED_SELF:
        wire = density_g_cm3("mean-cored-rutile")
    elif one.process in METAL_CORED:
        wire = density_g_cm3("mean-cored-metal")
    wires = one.electrodes.count if one.electrodes else 1
    return wires * math.pi / 4 * filler.diameter_mm**2 * gained.usual * wire / metal


def hand_rate_mm3_min_a(process: str, designation: str | None, metal: str) -> float:
    """Weld metal a minute for each ampere, of hand-fed rod or a covered electrode (common practice).

    Args:
        process: ISO 4063 number, TIG or covered electrode.
        designation: Of the filler.
        metal: Row of the density table.
    """
    if process in STICK:
        kind = "stick-basic" if _covering(designation or "") == "stick-basic" else "stick-other"
    elif metal.startswith("aluminium"):
        kind = "tig-aluminium"
    else:
        kind = "tig-copper" if metal in ("copper", "silicon-bronze", "aluminium-bronze") else "tig"
    rows = load_table("welding.deposit", "hand_deposit").rows
    return float(next(row for row in rows if row["kind"] == kind)["mm3_min_a"])


def by_hand(one: Pass) -> bool:
    """Whether what a pass lays down is only an estimate by its current."""
    if one.process in STICK:
        return one.run_out_mm is None
    return one.process in TIG and one.wire_feed_m_min is None


def bead_area_mm2(one: Pass) -> Range | None:
    """Section that a pass lays down [mm²], over its ranges; from the thinnest bead to the thickest.

    Wire: section x feed x yield / travel. Covered electrodes: core wire x yield / run-out length.
    Without a feed or a run-out, hand-fed rod and electrodes are estimated by current. Volume balance,
    common practice.

    Returns:
        The range, or ``None`` while a fact is missing.
    """
    parts = _volume_and_length(one)
    if parts is None:
        return None
    volume, length = parts
    return Range(volume.min / length.max, volume.max / length.min)


def bead_area_middle_mm2(one: Pass) -> float | None:
    """Section that a pass lays down in the middle of its ranges [mm²]."""
    parts = _volume_and_length(one)
    return None if parts is None else parts[0].middle / parts[1].middle


def _volume_and_length(one: Pass) -> tuple[Range, Range] | None:
    """Volume laid down and the length it is laid along, in the same time."""
    if by_hand(one):
        if one.current_a is None or one.travel_mm_min is None or one.filler is None:
            return None
        designation = one.filler.designation
        rate = hand_rate_mm3_min_a(one.process, designation, weld_metal(designation))
        return Range(rate * one.current_a.min, rate * one.current_a.max), one.travel_mm_min
    per_feed = laid_per_feed(one)
    if per_feed is None:
        return None
    if one.process in STICK and one.run_out_mm is not None and one.filler and one.filler.diameter_mm:
        volume = per_feed * electrode_length_mm(one.filler.diameter_mm)
        return Range(volume, volume), one.run_out_mm
    if one.wire_feed_m_min is None or one.travel_mm_min is None:
        return None
    feed = one.wire_feed_m_min
    return Range(per_feed * feed.min * 1000, per_feed * feed.max * 1000), one.travel_mm_min


def electrode_length_mm(diameter_mm: float) -> float:
    """Usual length of a covered electrode: 350 mm up to 3.2 mm, 450 mm above (common practice)."""
    return 350.0 if diameter_mm < 3.5 else 450.0
