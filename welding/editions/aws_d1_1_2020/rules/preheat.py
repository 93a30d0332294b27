"""Preheat of AWS D1.1:2020: the prequalified table 5.8, and annex B by hydrogen control."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any, Literal

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.codebook.edition import MethodOption, PreheatMethod
from welding.codebook.table import load_table
from welding.documents.fields import UnitColumn
from welding.editions.aws_d1_1_2020.rules.groups import group_of
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.heat.preheat import Preheat
from welding.language import tr
from welding.metals.catalogue import Metal
from welding.metals.equivalents import equivalents
from welding.ranges import positive

PACKAGE = "welding.editions.aws_d1_1_2020"
HydrogenLevel = Literal["H1", "H2", "H3"]
Restraint = Literal["low", "medium", "high"]
LEVEL_ML_100G: dict[HydrogenLevel, float] = {"H1": 5.0, "H2": 10.0, "H3": 30.0}
_PCM_LIMITS = (0.18, 0.23, 0.28, 0.33, 0.38)
_GROUPS = "ABCDEFG"


def _in_band(row: Mapping[str, Any], thickness_mm: float, units: UnitColumn) -> bool:
    over, to = (row["over_mm"], row["to_mm"])
    if units == "us":
        over, to = row["over_in"] * 25.4, row["to_in"] * 25.4
    return bool(over * (1 + 1e-9) < thickness_mm <= to * (1 + 1e-9))


def table_preheat(category: str, thickness_mm: float, units: UnitColumn = "si") -> Preheat:
    """Prequalified minimum preheat by category and thicker part (table 5.8).

    Args:
        category: A to D.
        thickness_mm: Of the thicker part at the weld [mm].
        units: Which printed column governs; the temperature is told in °C either way.

    Raises:
        UnknownEntryError: No such category is known here.
        OutOfRangeError: The thickness is not above zero.
    """
    positive("mm").require("thickness_mm", thickness_mm)
    table = load_table(PACKAGE, "preheat")
    rows = [row for row in table.rows if row["category"] == category.upper()]
    if not rows:
        raise UnknownEntryError(f"category {category!r} is not known here; A, B, C and D are")
    row = next(row for row in rows if _in_band(row, thickness_mm, units))
    value = float(row["si_c"]) if units == "si" else (row["us_f"] - 32) / 1.8
    assumptions = [tr("the thicker part at the weld governs")]
    if row["si_c"] == 0:
        assumptions.append(tr("steel below 0 °C is warmed to 20 °C first and kept so"))
    return Preheat(
        method="aws-d1.1-table",
        method_name=tr("AWS D1.1, table by category"),
        by_code=True,
        preheat_c=value,
        none_needed=row["si_c"] == 0,
        governing_thickness_mm=thickness_mm,
        assumptions=tuple(assumptions),
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )


def category_of(metal: Metal | None, group: str | None, *, low_hydrogen: bool) -> str | None:
    """Category of table 5.8: A with covered electrodes that are not low-hydrogen, else by the steel.

    Steels of group I are in category A and, welded low-hydrogen, in B as well. ``None`` where it is
    not known here (the stronger steels' lists differ by edition).
    """
    name = (metal.name if metal else "").upper()
    if "A913" in name and low_hydrogen:
        return "D"
    if group in ("I", "II"):
        if low_hydrogen:
            return "B"
        return "A" if group == "I" else None
    if group == "III":
        return "C" if low_hydrogen else None
    if group == "IV" and ("HPS70" in name.replace(" ", "") or "A852" in name):
        return "C" if low_hydrogen else None
    return None


def susceptibility_index(pcm: float, level: HydrogenLevel) -> float:
    """Index 12·Pcm + log10(H), rounded to one decimal as it is grouped.

    Example:
        >>> susceptibility_index(0.26, "H2")
        4.1
    """
    positive("%").require("pcm", pcm)
    return round(12 * pcm + math.log10(LEVEL_ML_100G[level]) + 1e-12, 1)


def susceptibility_group(pcm: float, level: HydrogenLevel) -> str:
    """Group A to G by the printed ranges of the index.

    Raises:
        OutOfRangeError: The index is above 7.0, where the annex ends.
    """
    index = susceptibility_index(pcm, level)
    table = load_table(PACKAGE, "annex_b_groups")
    row = next((row for row in table.rows if index <= row["index_to"] + 1e-9), None)
    if row is None:
        raise OutOfRangeError("index", index, tr("up to 7.0, where the annex ends"))
    return str(row["group"])


def group_by_pcm_table(pcm: float, level: HydrogenLevel) -> str | None:
    """The coarser alternative: group by Pcm band and level; ``None`` above the last band."""
    band = next((i for i, limit in enumerate(_PCM_LIMITS) if pcm < limit), None)
    return None if band is None else _GROUPS[band + ("H1", "H2", "H3").index(level)]


def annex_b_preheat(
    pcm: float, level: HydrogenLevel, restraint: Restraint, thickness_mm: float, units: UnitColumn = "si"
) -> Preheat:
    """Preheat by hydrogen control (annex B).

    Args:
        pcm: Cracking parameter Pcm [%].
        level: Hydrogen level of the filler: H1 below 5, H2 below 10, H3 not controlled [ml/100 g].
        restraint: Of the joint.
        thickness_mm: Of the thicker part [mm].
        units: Which printed column governs.

    Raises:
        OutOfRangeError: The index is beyond the annex, or an argument is not above zero.
    """
    positive("mm").require("thickness_mm", thickness_mm)
    group = susceptibility_group(pcm, level)
    table = load_table(PACKAGE, "annex_b_preheat")
    row = next(
        row
        for row in table.rows
        if row["restraint"] == restraint and _in_annex_band(row, thickness_mm, units)
    )
    at = _GROUPS.index(group)
    value = float(row["si_c"][at]) if units == "si" else (row["us_f"][at] - 32) / 1.8
    coarse = group_by_pcm_table(pcm, level)
    assumptions = [
        tr(
            "susceptibility group {group} by index {susceptibility_index:g}",
            group=group,
            susceptibility_index=susceptibility_index(pcm, level),
        ),
        tr("{restraint} restraint", restraint=restraint),
        tr("the thicker part governs"),
    ]
    if coarse is not None and coarse != group:
        assumptions.append(tr("the coarser Pcm table would say group {coarse}", coarse=coarse))
    return Preheat(
        method="aws-d1.1-annex-b",
        method_name=tr("AWS D1.1, annex B, hydrogen control"),
        by_code=True,
        preheat_c=value,
        none_needed=group in row["none_needed"],
        governing_thickness_mm=thickness_mm,
        assumptions=tuple(assumptions),
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )


def _in_annex_band(row: Mapping[str, Any], thickness_mm: float, units: UnitColumn) -> bool:
    """The annex's first band is below 3/8 in [10 mm], its second begins there."""
    if row["over_mm"] == 10:
        edge = row["over_mm"] if units == "si" else row["over_in"] * 25.4
        top = row["to_mm"] if units == "si" else row["to_in"] * 25.4
        return bool(edge * (1 - 1e-9) <= thickness_mm <= top * (1 + 1e-9))
    if row["over_mm"] == 0:
        return bool(thickness_mm < (row["to_mm"] if units == "si" else row["to_in"] * 25.4) * (1 - 1e-9))
    return _in_band(row, thickness_mm, units)


def categories(draft: Draft) -> list[str | None]:
    """Category of table 5.8 of each base metal; ``None`` where it is not known here."""
    code = draft.procedure.code
    units = code.units if code else "si"
    low_hydrogen = all(
        (filler := decoded_of(one)) is None or filler.low_hydrogen is not False
        for one in draft.procedure.passes
    )
    return [
        category_of(draft.metal(one), group_of(draft, one, units), low_hydrogen=low_hydrogen)
        for one in draft.procedure.base_metals
    ]


def code_preheat(draft: Draft) -> Preheat | None:
    """What table 5.8 asks of a draft; the higher one of two categories. ``None`` where facts are missing."""
    code = draft.procedure.code
    known = [metal.thickness_mm for metal in draft.procedure.base_metals]
    thickest = max((t for t in known if t), default=None)
    found = categories(draft)
    if thickest is None or not found or None in found or code is None:
        return None
    options = [table_preheat(one, thickest, code.units) for one in found if one]
    return max(options, key=lambda one: one.preheat_c or 0.0)


def hydrogen_level(hydrogen_ml_100g: float) -> HydrogenLevel:
    """Level of annex B: H1 below 5, H2 below 10, H3 otherwise [ml/100 g]; a mark of 5 counts as H1."""
    return "H1" if hydrogen_ml_100g <= 5 else "H2" if hydrogen_ml_100g <= 10 else "H3"


def preheat_by_chemistry(draft: Draft, hydrogen_ml_100g: float) -> list[Preheat]:
    """Annex B at medium restraint, where the heat's chemistry is stated; the worst metal governs."""
    code = draft.procedure.code
    found: list[Preheat] = []
    for metal in draft.procedure.base_metals:
        value = next((e.value for e in equivalents(metal.chemistry or {}) if e.key == "pcm"), None)
        if value is None or metal.thickness_mm is None or code is None:
            return []
        thickest = max(m.thickness_mm or 0.0 for m in draft.procedure.base_metals)
        level = hydrogen_level(hydrogen_ml_100g)
        try:
            found.append(annex_b_preheat(value, level, "medium", thickest, code.units))
        except OutOfRangeError:
            return []
    return [max(found, key=lambda one: one.preheat_c or 0.0)] if found else []


PREHEAT_METHODS = (
    PreheatMethod(
        id="aws-d1.1-table",
        options=(MethodOption("category", "A to D"),),
        compute=lambda thickness_mm, units, category: table_preheat(category, thickness_mm, units),
    ),
    PreheatMethod(
        id="aws-d1.1-annex-b",
        options=(
            MethodOption("pcm", "%", number=True),
            MethodOption("hydrogen_level", "of the filler", choices=tuple(LEVEL_ML_100G)),
            MethodOption("restraint", "of the joint", choices=("low", "medium", "high")),
        ),
        compute=lambda thickness_mm, units, pcm, hydrogen_level, restraint: annex_b_preheat(
            pcm, hydrogen_level, restraint, thickness_mm, units
        ),
    ),
)
"""The code's own methods, as the command line asks for them."""
