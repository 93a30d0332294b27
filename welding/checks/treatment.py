"""Heat treatment after welding against the metal, and preheat and heat input where no window was set."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.checks.saying import advise, of_pass
from welding.codebook.table import load_table
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.heat.by_metal import (
    HARDENING,
    THIN_TUBE_MM,
    copper_preheat,
    metal_key,
    typical_chemistry,
    usual_hydrogen_ml_100g,
)
from welding.heat.cooling import START_C, CoolingJoint, cooling_time
from welding.heat.preheat import method_b_at_its_ends
from welding.language import number, tr
from welding.metals.catalogue import Metal
from welding.metals.equivalents import equivalents

FAR_BELOW = 0.55
FAR_BELOW_COPPER = 0.4
FAR_BELOW_C, FAR_BELOW_METHOD_C = 30.0, 60.0
"""A preheat below this share of what is usual, and this much below, is a fault and no school."""
BEYOND_HEAT = 1.3
T85_SLACK = 1.35


def treatment_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on preheat, heat input and heat treatment by metal."""
    known = [
        (metal, one.thickness_mm)
        for one in draft.procedure.base_metals
        if (metal := draft.metal(one)) and one.thickness_mm
    ]
    if not known or len(known) < len(draft.procedure.base_metals):
        return
    yield from _preheat(draft, known)
    yield from _heat(draft, known)
    yield from _pwht(draft, known)


# --- preheat ----------------------------------------------------------------------------------


def _preheat(draft: Draft, known: list[tuple[Metal, float]]) -> Iterator[Finding]:
    """Typical chemistry and what is usual for the metal, where no certificate was judged."""
    thermal = draft.procedure.thermal
    stated = thermal.preheat_min_c if thermal else None
    if stated is None or any(one.chemistry for one in draft.procedure.base_metals):
        return
    needed, why, by_method = _needed_c(draft, known)
    copper = any(metal_key(metal, t) == "copper" for metal, t in known)
    share = FAR_BELOW_COPPER if copper else FAR_BELOW
    far = FAR_BELOW_METHOD_C if by_method else FAR_BELOW_C
    low = stated < needed * share and needed - stated > far
    found, usual = draft.write(stated, "temperature"), draft.write(needed, "temperature")
    yield advise(
        "preheat.typical",
        "thermal.preheat_min_c",
        trouble=tr(
            "Preheat {found} is far below what is usual: about {usual}, {why}.",
            found=found,
            usual=usual,
            why=why,
        )
        if low
        else "",
        fine=tr("About {usual} is usual, {why}.", usual=usual, why=why),
        titles=(tr("Preheat is too low for the metal"), tr("Preheat is plausible for the metal")),
        actual=found,
        limit=tr("about {usual}", usual=usual),
        remedy=tr(
            "Preheat to about {usual}, or show by the heat's certificate that less is enough.", usual=usual
        ),
    )


def _needed_c(draft: Draft, known: list[tuple[Metal, float]]) -> tuple[float, str, bool]:
    """Least preheat, why, and whether a method gives it rather than what is usual."""
    table = load_table("welding.heat", "temperatures")
    thick = max(t for _, t in known)
    best, why, by_method = 0.0, "", False
    # A code with a method of its own holds the procedure against that.
    hydrogen = None if draft.code_has_preheat else _hydrogen(draft)
    heats = [(one.min_kj_mm + one.max_kj_mm) / 2 for one in draft.heat]
    for metal, thickness in known:
        key = metal_key(metal, thickness)
        usual = float(next(row for row in table.rows if row["metal"] == key)["preheat_c"])
        if key == "copper":
            _, usual, _ = copper_preheat(thick)
        if key.startswith("cr-mo") and thick <= THIN_TUBE_MM:
            usual = 20.0
        if usual >= best:
            best, why, by_method = usual, tr("for {metal}", metal=in_words(key)), False
        if metal.family in HARDENING and hydrogen is not None:
            cet = next((e.value for e in equivalents(typical_chemistry(metal)) if e.key == "cet"), None)
            if cet is None:
                continue
            found = method_b_at_its_ends(
                cet=cet,
                thickness_mm=thick,
                hydrogen_ml_100g=hydrogen,
                heat_input_kj_mm=min(heats, default=1.0),
            )
            less = 60.0 if draft.single_run_fillet else 0.0
            advised = (found.advised_c or 0.0) - less
            if advised > best:
                best, by_method = advised, True
                why = tr("by EN 1011-2 method B with a typical chemistry of the grade")
    return best, why, by_method


def _hydrogen(draft: Draft) -> float | None:
    """What the fillers after the root bring: the hot pass drives the root's out."""
    thermal = draft.procedure.thermal
    if thermal and thermal.hydrogen_ml_100g is not None:
        return thermal.hydrogen_ml_100g
    passes = draft.procedure.passes
    later = [one for one in passes if one.role != "root"] or list(passes)
    found = []
    for one in later:
        filler = decoded_of(one)
        if filler is None:
            continue
        found.append(usual_hydrogen_ml_100g(one.process, filler.hydrogen_ml_100g, filler.low_hydrogen))
    return max(found, default=None)


# --- heat input -------------------------------------------------------------------------------


def _heat(draft: Draft, known: list[tuple[Metal, float]]) -> Iterator[Finding]:
    """Heat input against what the metal bears, even where no window is stated."""
    table = load_table("welding.heat", "heat_limits")
    keys = {metal_key(metal, t) for metal, t in known}
    rows = [row for row in table.rows if row["metal"] in keys]
    passes = {one.number: one for one in draft.procedure.passes}
    uses_k = any(one.k != 1.0 for one in draft.heat)
    if rows:
        row = min(rows, key=lambda one: float(one["max_kj_mm"]))
        most = float(row["max_kj_mm"])
        thin = min(t for _, t in known)
        if thin < float(row["thin_below_mm"]):
            most = min(most, float(row["thin_max_kj_mm"]))
        words = in_words(row["metal"])
        for heat in draft.heat:
            one = passes[heat.pass_number]
            middle = (heat.min_kj_mm + heat.max_kj_mm) / 2
            found, limit = draft.write(middle, "heat_input"), draft.write(most, "heat_input")
            yield advise(
                "heat-input.metal",
                f"passes.{one.number - 1}.travel_mm_min",
                trouble=tr(
                    "Heat input of about {found} is high for {words}: at most {limit} is usual.",
                    found=found,
                    words=words,
                    limit=limit,
                )
                if middle > most * BEYOND_HEAT
                else "",
                fine=tr("At most {limit} is usual for {words}.", limit=limit, words=words),
                titles=(
                    of_pass(tr("Heat input is high for the metal"), one),
                    of_pass(tr("Heat input suits"), one),
                ),
                actual=found,
                limit=limit,
                remedy=tr("Lay smaller beads: less current, or faster travel."),
                citations=(table.citation_of(row),),
            )
    if "quenched" in keys:
        yield from _quenched(draft, known, uses_k=uses_k)


def _quenched(draft: Draft, known: list[tuple[Metal, float]], *, uses_k: bool) -> Iterator[Finding]:
    """Quenched steel softens where it cools slowly: t8/5 at the middle of the ranges."""
    table = load_table("welding.heat", "cooling_targets")
    strongest = max(metal.yield_at(t) or 0.0 for metal, t in known)
    row = next((r for r in table.rows if r["yield_from_mpa"] <= strongest < r["yield_to_mpa"]), None)
    thermal = draft.procedure.thermal
    start = thermal.preheat_min_c if thermal else None
    if row is None or start is None or not START_C.allows(start):
        return
    joint = draft.procedure.joint
    fillet = joint is not None and joint.weld == "fillet"
    shape: CoolingJoint = "t-fillet" if fillet else "butt"
    passes = {one.number: one for one in draft.procedure.passes}
    thin = min(t for _, t in known)
    for heat in draft.heat:
        one = passes[heat.pass_number]
        k = 1.0 if uses_k else (0.6 if one.process == "141" else 1.0 if one.process == "121" else 0.8)
        middle = (heat.min_kj_mm + heat.max_kj_mm) / 2 * k
        seconds = cooling_time(middle, start, thin, shape).t85_s
        yield advise(
            "heat-input.t85",
            f"passes.{one.number - 1}.travel_mm_min",
            trouble=tr(
                "Heat input gives a t8/5 of about {seconds:.0f} s; quenched and tempered steel "
                "of this strength bears {row:g} to {row2:g} s and softens above.",
                seconds=seconds,
                row=row["min_s"],
                row2=row["max_s"],
            )
            if seconds > row["max_s"] * T85_SLACK
            else "",
            fine=tr("t8/5 is about {seconds:.0f} s.", seconds=seconds),
            titles=(of_pass(tr("Heat input is high: slow cooling"), one), of_pass(tr("Cooling suits"), one)),
            actual=f"{number(seconds, '.0f')} s",
            limit=tr("{row:g} to {row2:g} s", row=row["min_s"], row2=row["max_s"]),
            remedy=tr("Lay smaller beads, or lower preheat and interpass temperature."),
            citations=(table.citation_of(row),),
            unchecked=table.unchecked,
        )


# --- heat treatment ---------------------------------------------------------------------------


def _pwht(draft: Draft, known: list[tuple[Metal, float]]) -> Iterator[Finding]:
    thermal = draft.procedure.thermal
    pwht = thermal.pwht if thermal else None
    table = load_table("welding.heat", "treatment_limits")
    thick = max(t for _, t in known)
    hold = pwht.hold_c if pwht else None
    for metal, thickness in known:
        key = metal_key(metal, thickness)
        row = next((r for r in table.rows if r["metal"] == key), None)
        if row is None:
            continue
        words = in_words(key)
        if pwht is None or hold is None:
            if thick >= float(row["needed_from_mm"]) and not _soft_filler(draft):
                yield advise(
                    "pwht.needed",
                    "thermal.pwht",
                    trouble=tr(
                        "No PWHT is planned; {words} of {thick} is tempered.",
                        words=words,
                        thick=draft.write(thick, "thickness"),
                    ),
                    fine="",
                    titles=(tr("PWHT is missing"), ""),
                    remedy=tr("Plan {row:g} to {row2:g} °C.", row=row["least_c"], row2=row["most_c"]),
                    citations=(table.citation_of(row),),
                )
            continue
        cold, hot = hold.middle < row["least_c"], hold.middle > row["most_c"]
        low, high = (draft.write(float(row[c]), "temperature") for c in ("least_c", "most_c"))
        limit = tr("{low} to {high}", low=low, high=high) if row["most_c"] > row["least_c"] else "none"
        trouble = ""
        if row["most_c"] <= row["least_c"]:
            trouble = tr(
                "Heat treatment at {write_range}: {row}.",
                write_range=draft.write_range(hold, "temperature"),
                row=tr(row["why"]),
            )
        elif cold or hot:
            trouble = tr(
                "Heat treatment at {write_range} is too {value} for {words}, {limit}: {row}.",
                write_range=draft.write_range(hold, "temperature"),
                value=tr("cold") if cold else tr("hot"),
                words=words,
                limit=limit,
                row=tr(row["why"]),
            )
        yield advise(
            "pwht.metal",
            "thermal.pwht.hold_c",
            trouble=trouble,
            fine=tr("{limit} is usual for {words}.", limit=limit, words=words),
            titles=(tr("Heat treatment does not suit the metal"), tr("Heat treatment suits the metal")),
            actual=draft.write_range(hold, "temperature"),
            limit=limit,
            remedy=tr("Take the temperature of the steel's own standard or manufacturer."),
            citations=(table.citation_of(row),),
        )
        least = max(15.0, thick * float(row["minutes_per_mm"]))
        if pwht.hold_min is not None and row["minutes_per_mm"]:
            yield advise(
                "pwht.hold",
                "thermal.pwht.hold_min",
                trouble=tr(
                    "A hold of {hold_min:g} min is short at {thick}: about {least:.0f} min is usual, "
                    "an hour for every 25 mm.",
                    hold_min=pwht.hold_min,
                    thick=draft.write(thick, "thickness"),
                    least=least,
                )
                if pwht.hold_min < least * 0.5
                else "",
                fine=tr("About {least:.0f} min is usual.", least=least),
                titles=(tr("Hold time is short"), tr("Hold time is usual")),
                actual=tr("{hold_min:g} min", hold_min=pwht.hold_min),
                limit=tr("about {least:.0f} min", least=least),
                remedy=tr("Hold about {least:.0f} min.", least=least),
                citations=(table.citation_of(row),),
            )


def _soft_filler(draft: Draft) -> bool:
    """Whether the weld metal is austenitic or nickel: such joints are often left as welded."""
    systems = ("AWS A5.4", "AWS A5.9", "AWS A5.22", "AWS A5.11", "AWS A5.14", "ISO 14343-A", "ISO 3581-A",
        "ISO 18274", "ISO 14172")  # fmt: skip
    fillers = [decoded_of(one) for one in draft.procedure.passes]
    return any(
        filler is not None and filler.system in systems and "41" not in filler.designation[:6]
        for filler in fillers
    )
