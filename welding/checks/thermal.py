"""Interpass maximum by metal, and preheat against the chemistry of the heat (recommendations)."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.saying import advise
from welding.codebook.table import load_table
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.heat.by_metal import HARDENING, metal_key
from welding.heat.preheat import method_b
from welding.language import tr
from welding.metals.equivalents import equivalents

INTERPASS_SLACK_C = 30.0
"""Shops and manufacturers differ by about this before a word is said."""
PREHEAT_SLACK_C = 10.0


def thermal_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on the stated interpass and preheat temperatures."""
    yield from _interpass(draft)
    yield from _preheat(draft)


def _interpass(draft: Draft) -> Iterator[Finding]:
    thermal = draft.procedure.thermal
    stated = thermal.interpass_max_c if thermal else None
    known = [
        (metal, one.thickness_mm)
        for one in draft.procedure.base_metals
        if (metal := draft.metal(one)) and one.thickness_mm
    ]
    if stated is None or not known:
        return
    table = load_table("welding.heat", "temperatures")
    rows = [row for row in table.rows if row["metal"] in {metal_key(m, t) for m, t in known}]
    if not rows:
        return
    row = min(rows, key=lambda one: float(one["interpass_c"]))
    usual = float(row["interpass_c"])
    if len(rows) > 1:  # beside a metal that is preheated higher it cannot be held lower than that
        usual = max(usual, max(float(one["preheat_c"]) for one in rows) + 50)
    found, limit = draft.write(stated, "temperature"), draft.write(usual, "temperature")
    words = in_words(row["metal"])
    yield advise(
        "temperature.interpass",
        "thermal.interpass_max_c",
        trouble=tr(
            "{found} between passes is hot for {words}; {limit} is usual.",
            found=found,
            words=words,
            limit=limit,
        )
        if stated > usual + INTERPASS_SLACK_C
        else "",
        fine=tr("{limit} between passes is usual for {words}.", limit=limit, words=words),
        titles=(tr("Interpass maximum is high"), tr("Interpass maximum is usual")),
        actual=found,
        limit=limit,
        remedy=tr("Let it cool to {limit}, or keep it with the manufacturer's statement.", limit=limit),
        citations=(table.citation_of(row),),
    )


def _preheat(draft: Draft) -> Iterator[Finding]:
    """Method B, asked only where the heat's chemistry and the hydrogen are stated."""
    thermal = draft.procedure.thermal
    if thermal is None or thermal.preheat_min_c is None or thermal.hydrogen_ml_100g is None or not draft.heat:
        return
    thick = max((one.thickness_mm or 0.0 for one in draft.procedure.base_metals), default=0.0)
    coldest = min((one.min_kj_mm + one.max_kj_mm) / 2 for one in draft.heat)
    asked = []
    for one in draft.procedure.base_metals:
        metal = draft.metal(one)
        if metal is None or metal.family not in HARDENING:
            continue
        cet = next((e.value for e in equivalents(one.chemistry or {}) if e.key == "cet"), None)
        if cet is None:
            continue
        result = method_b(
            cet=cet,
            thickness_mm=thick,
            hydrogen_ml_100g=thermal.hydrogen_ml_100g,
            heat_input_kj_mm=min(max(coldest, 0.5), 4.0),
            single_run_fillet=draft.single_run_fillet,
        )
        if result.preheat_c is not None:
            asked.append(result)
    if not asked:
        return
    worst = max(asked, key=lambda one: one.preheat_c or 0.0)
    needed = worst.advised_c or 0.0
    stated = thermal.preheat_min_c
    found, limit = draft.write(stated, "temperature"), draft.write(needed, "temperature")
    yield advise(
        "preheat.method-b",
        "thermal.preheat_min_c",
        trouble=tr(
            "Preheat is {found}; EN 1011-2 method B asks for {limit} with this heat's chemistry.",
            found=found,
            limit=limit,
        )
        if stated < needed - PREHEAT_SLACK_C and needed > 20
        else "",
        fine=tr(
            "EN 1011-2 method B asks for {limit} with this heat's chemistry; {found} is stated.",
            limit=limit,
            found=found,
        ),
        titles=(tr("Preheat is below method B"), tr("Preheat suits method B")),
        actual=found,
        limit=limit,
        remedy=tr(
            "Preheat to {limit}, raise the heat input, or take a filler with less hydrogen.", limit=limit
        ),
        citations=(worst.citation,),
    )
