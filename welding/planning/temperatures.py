"""Thermal plan of a draft: preheat by every method that applies, interpass, heat input, heat treatment."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from welding.codebook.table import load_table
from welding.documents.procedure import PostHeat, Pwht
from welding.glossary.values import in_words
from welding.heat.by_metal import (
    HARDENING,
    THIN_TUBE_MM,
    USUAL_HYDROGEN_ML_100G,
    copper_preheat,
    metal_key,
    typical_chemistry,
)
from welding.heat.cooling import CoolingJoint, heat_input_for_t85_kj_mm
from welding.heat.preheat import Preheat, method_b_at_its_ends
from welding.language import tr
from welding.metals.equivalents import equivalents
from welding.planning.facts import Facts
from welding.planning.reasons import Reason
from welding.ranges import Range

GUESSED_HEAT_KJ_MM = 1.0
POST_HEAT_FROM_MM = 50.0
COOLING_COUNTS = {"carbon", "weathering"}
"""Families whose strength and toughness go by t8/5; nickel steels have nickel fillers (common practice)."""
NONE_TO_C, THIN_MM = 45.0, 8.0
"""A thin wall that asks for no more than this is welded dry and at shop temperature (common practice)."""
LEAST_BAND_C = 60.0
"""Preheat and interpass nearer than this cannot be held in a shop (common practice)."""
ROOMY_WINDOW = 1.9
"""Greatest over least heat input that leaves a welder room (common practice)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ThermalPlan:
    """Temperatures and heat input of a draft.

    Attributes:
        preheat_c: Least temperature before a pass [°C].
        interpass_c: Greatest temperature before a pass [°C].
        heat_input_kj_mm: Wanted heat input with k [kJ/mm]; ``None`` where nothing asks for a window.
        hydrogen_ml_100g: Hydrogen that was counted with; ``None`` where it does not matter.
        options: Preheat by each method, side by side.
        post_heat: Hydrogen post-heat, where it is usual.
        pwht: Heat treatment, where it is usual.
        reasons: Why.
    """

    preheat_c: float
    interpass_c: float
    heat_input_kj_mm: Range | None
    hydrogen_ml_100g: float | None
    options: tuple[Preheat, ...]
    post_heat: PostHeat | None
    pwht: Pwht | None
    reasons: tuple[Reason, ...]


def plan_temperatures(
    facts: Facts,
    stages: Sequence[tuple[float, float]] = ((GUESSED_HEAT_KJ_MM, USUAL_HYDROGEN_ML_100G),),
) -> ThermalPlan:
    """Preheat, interpass, heat input window and treatments for the pair of metals.

    Args:
        facts: What is welded.
        stages: Heat input of the coldest pass, with k [kJ/mm], and hydrogen of the filler [ml/100 g], of
            the root and of the other passes; preheat by method B goes by the worse.
    """
    table = load_table("welding.heat", "temperatures")
    rows = [
        next(row for row in table.rows if row["metal"] == metal_key(metal, thickness))
        for metal, thickness in zip(facts.metals, facts.thicknesses, strict=True)
    ]
    reasons: list[Reason] = []
    usual = max(rows, key=lambda row: float(row["preheat_c"]))
    preheat, preheat_text = (
        float(usual["preheat_c"]),
        tr("usual for {replace}", replace=in_words(usual["metal"])),
    )
    source = table.citation_of(usual)
    if usual["metal"] == "copper":
        preheat, _, source = copper_preheat(facts.thick)
        preheat_text = tr("copper of {thick:g} mm draws the heat away", thick=facts.thick)
    if usual["metal"].startswith("cr-mo") and facts.thick <= THIN_TUBE_MM:
        preheat, preheat_text = 20.0, tr("thin-walled tube cools slowly enough without")
    hydrogen = facts.intent.hydrogen_ml_100g
    if hydrogen is None and facts.families & set(HARDENING):
        hydrogen = max(brought for _, brought in stages)
    elif hydrogen is not None:
        stages = [(heat, hydrogen) for heat, _ in stages]
    options = tuple(_options(facts, stages))
    reason = Reason(path="thermal.preheat_min_c", text=preheat_text, citation=source)
    for option in options:
        # Where the code has a method of its own, that rules; method B stands beside it.
        trifle = facts.thick < THIN_MM and (option.advised_c or 0.0) <= NONE_TO_C
        if (
            option.advised_c is not None
            and option.advised_c > preheat
            and not facts.code_has_preheat
            and not trifle
        ):
            preheat = option.advised_c
            reason = Reason(
                path="thermal.preheat_min_c",
                text=tr(
                    "{advised_c:g} °C by {method_words}; ",
                    advised_c=option.advised_c,
                    method_words=option.method_name,
                )
                + "; ".join(option.assumptions),
                source="code" if option.by_code else "estimate",
                citation=option.citation,
                unchecked=option.unchecked,
            )
    reasons.append(reason)
    reasons += [_told(option) for option in options if reason.citation != option.citation]
    coolest = min(rows, key=lambda row: float(row["interpass_c"]))
    interpass = max(float(coolest["interpass_c"]), preheat + 20)
    if usual["metal"].startswith("cr-mo") and facts.thick <= THIN_TUBE_MM:
        interpass = min(interpass, 200.0)
    reasons.append(
        Reason(
            path="thermal.interpass_max_c",
            text=tr("usual for {replace}", replace=in_words(coolest["metal"])),
            citation=table.citation_of(coolest),
        )
    )
    interpass = _lower_interpass(facts, preheat, interpass, reasons)
    window = _heat_window(facts, [row["metal"] for row in rows], preheat, interpass, reasons)
    post_heat, pwht = _after(facts, [row["metal"] for row in rows], reasons)
    return ThermalPlan(
        preheat_c=preheat,
        interpass_c=interpass,
        heat_input_kj_mm=window,
        hydrogen_ml_100g=hydrogen,
        options=options,
        post_heat=post_heat,
        pwht=pwht,
        reasons=tuple(reasons),
    )


def _told(option: Preheat) -> Reason:
    """Another method's answer, side by side with the one that was taken."""
    words = option.method_name
    if option.preheat_c is None:
        text = tr("{words} gives none: {outside}", words=words, outside="; ".join(option.outside))
    else:
        text = tr("{words} asks for {preheat_c:.0f} °C", words=words, preheat_c=option.preheat_c)
    if option.preheat_c is not None and option.none_needed:
        text = tr("{words} asks for no preheat", words=words)
    return Reason(
        path="thermal.preheat_min_c", text=text, citation=option.citation, unchecked=option.unchecked
    )


def _options(facts: Facts, stages: Sequence[tuple[float, float]]) -> list[Preheat]:
    """Method B for steels that it is for, with a typical chemistry of the grade."""
    found: list[Preheat] = []
    for metal, thickness in zip(facts.metals, facts.thicknesses, strict=True):
        if metal.family not in HARDENING:
            continue
        cet = next((e.value for e in equivalents(typical_chemistry(metal)) if e.key == "cet"), None)
        if cet is None:
            continue
        found += [
            method_b_at_its_ends(
                cet=cet,
                thickness_mm=max(thickness, facts.thick),
                hydrogen_ml_100g=hydrogen,
                heat_input_kj_mm=heat,
            )
            for heat, hydrogen in stages
        ]
    best = max(found, key=lambda one: one.preheat_c or -1000.0, default=None)
    if best is None:
        return []
    taken = tr("typical chemistry of the grade: the heat's certificate decides")
    return [replace(best, assumptions=(taken, *best.assumptions))]


def cooling_joint(facts: Facts) -> CoolingJoint:
    """Which shape factors of t8/5 the joint goes by."""
    if facts.fillet:
        return "corner-fillet" if facts.intent.joint.kind == "corner" else "t-fillet"
    return "butt"


def _heat_window(
    facts: Facts, keys: list[str], preheat: float, interpass: float, reasons: list[Reason]
) -> Range | None:
    """Wanted heat input with k: as typed, from t8/5, or by metal."""
    if facts.intent.heat_input_kj_mm is not None:
        typed = facts.intent.heat_input_kj_mm
        reasons.append(Reason(path="thermal.heat_input_kj_mm", text=tr("as wished")))
        # A wish is in the measure of the code in force.
        return Range(typed.min / facts.heat_measure, typed.max / facts.heat_measure)
    target, citation, unchecked = _cooling_target(facts)
    if target is not None:
        joint = cooling_joint(facts)
        least = heat_input_for_t85_kj_mm(target.min, preheat, facts.thin, joint)
        most = heat_input_for_t85_kj_mm(target.max, interpass, facts.thin, joint)
        if least < most:
            reasons.append(
                Reason(
                    path="thermal.heat_input_kj_mm",
                    text=tr(
                        "t8/5 of {min:g} to {max:g} s from {preheat:g} to {interpass:g} °C",
                        min=target.min,
                        max=target.max,
                        preheat=preheat,
                        interpass=interpass,
                    ),
                    source="estimate",
                    citation=citation,
                    unchecked=unchecked,
                )
            )
            return Range(least, most)
    table = load_table("welding.heat", "heat_limits")
    limits = [row for row in table.rows if row["metal"] in keys]
    if not limits:
        return None
    row = min(limits, key=lambda one: float(one["max_kj_mm"]))
    least = row["min_kj_mm"] if facts.thin >= 4 else 0.0
    reasons.append(
        Reason(
            path="thermal.heat_input_kj_mm",
            text=tr("usual for {replace}", replace=in_words(row["metal"])),
            citation=table.citation_of(row),
        )
    )
    return Range.between(least, row["max_kj_mm"])


def _lower_interpass(facts: Facts, preheat: float, interpass: float, reasons: list[Reason]) -> float:
    """A lower interpass maximum where t8/5 would leave too little room for the heat input."""
    target, citation, unchecked = _cooling_target(facts)
    if target is None:
        return interpass
    joint, least_c = cooling_joint(facts), preheat + LEAST_BAND_C
    chosen = interpass
    while chosen - 10 >= least_c:
        least = heat_input_for_t85_kj_mm(target.min, preheat, facts.thin, joint)
        most = heat_input_for_t85_kj_mm(target.max, chosen, facts.thin, joint)
        if most / least >= ROOMY_WINDOW:
            break
        chosen -= 10
    if chosen < interpass:
        reasons.append(
            Reason(
                path="thermal.interpass_max_c",
                text=tr(
                    "lowered to {chosen:g} °C, so that t8/5 leaves room for the heat input", chosen=chosen
                ),
                source="estimate",
                citation=citation,
                unchecked=unchecked,
            )
        )
    return chosen


def _cooling_target(facts: Facts) -> tuple[Range | None, Any, tuple[str, ...]]:
    table = load_table("welding.heat", "cooling_targets")
    wished = facts.intent.t85_s
    if wished is not None and facts.families <= set(HARDENING):
        return wished, table.citation, ()
    strongest = max(
        (m.yield_at(t) or 0.0 for m, t in zip(facts.metals, facts.thicknesses, strict=True)), default=0
    )
    if not facts.families <= COOLING_COUNTS:
        return None, table.citation, ()
    row = next((r for r in table.rows if r["yield_from_mpa"] <= strongest < r["yield_to_mpa"]), None)
    if row is None:
        return None, table.citation, ()
    return Range.between(row["min_s"], row["max_s"]), table.citation_of(row), table.unchecked


def _after(facts: Facts, keys: list[str], reasons: list[Reason]) -> tuple[PostHeat | None, Pwht | None]:
    table = load_table("welding.heat", "heat_treatment")
    row = next((r for r in table.rows if r["metal"] in keys and facts.thick >= r["from_mm"]), None)
    if row is not None:
        hold = max(row["least_min"], math.ceil(row["minutes_per_mm"] * facts.thick / 5) * 5)
        reasons.append(
            Reason(
                path="thermal.pwht",
                text=tr("tempered, {hold:g} min at {thick:g} mm", hold=hold, thick=facts.thick),
                citation=table.citation_of(row),
            )
        )
        return None, Pwht(
            kind="temper",
            hold_c=Range.between(row["hold_min_c"], row["hold_max_c"]),
            hold_min=float(hold),
            heating_c_h=float(row["rate_c_h"]),
            cooling_c_h=float(row["rate_c_h"]),
        )
    if facts.thick >= POST_HEAT_FROM_MM and set(keys) & {"quenched", "fine-grained"}:
        reasons.append(
            Reason(
                path="thermal.post_heat",
                text=tr("hydrogen is driven out of thick, strong steel before it cools"),
            )
        )
        return PostHeat(temperature_c=200.0, hold_min=120.0), None
    return None, None
