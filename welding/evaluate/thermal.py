"""The thermal side of an evaluation: preheat by every method, t8/5 and waits by pass, the window chart."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.edition import Edition
from welding.codebook.table import load_table
from welding.documents.procedure import BaseMetal
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.glossary.values import in_words
from welding.heat.by_metal import HARDENING, USUAL_HYDROGEN_ML_100G, typical_chemistry
from welding.heat.cooling import (
    START_C,
    CoolingJoint,
    CoolingWindow,
    cooling_time,
    cooling_window,
    interpass_wait,
)
from welding.heat.energy import thermal_efficiency
from welding.heat.method_a import method_a
from welding.heat.passes import PassHeat
from welding.heat.preheat import Preheat, method_b
from welding.language import tr
from welding.metals.catalogue import Metal
from welding.metals.equivalents import equivalents
from welding.metals.kinds import KIND_OF_FAMILY
from welding.ranges import Range

TINTED = ("austenitic", "duplex", "ferritic", "martensitic", "ph-stainless")
ROOM_C = 20.0
MILD_TARGET_S = (5.0, 30.0)
"""Drawn for comparison where no target is usual (common practice)."""
_HOTTEST_START_C = 450.0


@dataclass(frozen=True, slots=True, kw_only=True)
class PassCooling:
    """Cooling of one pass: t8/5 at the cold corner and at the hot corner, and the wait until the next."""

    pass_number: int
    t85_least_s: float | None
    t85_most_s: float | None
    heat_least_kj_mm: float
    heat_most_kj_mm: float
    wait_s: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Tint:
    """One colour of the scale: the peak that leaves it, a picture of it, how it is usually judged."""

    colour: str
    to_c: float
    swatch: str
    view: str
    citation: Citation


@dataclass(frozen=True, slots=True, kw_only=True)
class ThermalView:
    """What is known of temperatures and cooling.

    Attributes:
        preheat: Preheat by each method that applies, side by side.
        passes: Cooling by pass; t8/5 only for steels that it is for.
        window: Heat input over starting temperature for the wanted t8/5, where there is a target.
        start_c: Preheat to interpass of the draft [°C], the width of its rectangle in the window.
        target: Where the target comes from, in words.
        tint: Heat tint of stainless steel, coolest first; empty for other metals.
        conducts_as: Row of the conduction table that the first metal goes by.
    """

    preheat: tuple[Preheat, ...]
    passes: tuple[PassCooling, ...]
    window: CoolingWindow | None
    start_c: Range | None
    target: str
    tint: tuple[Tint, ...]
    conducts_as: str


@by_book(8)
def heat_tint() -> tuple[Tint, ...]:
    """The tint scale of austenitic stainless steel in air (from memory)."""
    table = load_table("welding.heat", "heat_tint")
    return tuple(
        Tint(
            colour=tr(row["colour"]),
            to_c=row["to_c"],
            swatch=row["swatch"],
            view=tr(row["view"]),
            citation=table.citation_of(row),
        )
        for row in table.rows
    )


def thermal_view(draft: Draft, edition: Edition | None) -> ThermalView | None:
    """The thermal side of a draft; ``None`` while metals or thicknesses are not known."""
    known = [(one, metal) for one in draft.procedure.base_metals if (metal := draft.metal(one))]
    thicknesses = [one.thickness_mm for one, _ in known if one.thickness_mm]
    if not known or len(known) < len(draft.procedure.base_metals) or len(thicknesses) < len(known):
        return None
    thin, thick = min(thicknesses), max(thicknesses)
    hardening = all(metal.family in HARDENING for _, metal in known)
    heat = [_with_k(one, draft) for one in draft.heat]
    thermal = draft.procedure.thermal
    low = thermal.preheat_min_c if thermal and thermal.preheat_min_c is not None else ROOM_C
    high = thermal.interpass_max_c if thermal and thermal.interpass_max_c is not None else low
    start = Range(min(low, high), max(low, high))
    joint = _cooling_joint(draft)
    options = _preheat(draft, known, thick, heat, edition) if hardening else ()
    last = max((one.number for one in draft.procedure.passes), default=0)
    target, words = _target(known) if hardening else (None, "")
    usable = start.max < _HOTTEST_START_C and start.min >= START_C.low
    return ThermalView(
        preheat=options,
        passes=tuple(
            _cooling(
                one,
                start,
                thin,
                joint,
                known[0][1],
                hardening=hardening and usable,
                last=one.pass_number == last,
            )
            for one in heat
        ),
        window=cooling_window(target, thin, joint) if target and usable else None,
        start_c=start if thermal else None,
        target=words,
        tint=heat_tint() if any(metal.family in TINTED for _, metal in known) else (),
        conducts_as=_conducts_as(known[0][1]),
    )


@dataclass(frozen=True, slots=True)
class _Heat:
    pass_number: int
    span: Range


def _with_k(heat: PassHeat, draft: Draft) -> _Heat:
    """Heat input with k, whatever the code in force counts with: t8/5 and preheat go by it."""
    one = next(one for one in draft.procedure.passes if one.number == heat.pass_number)
    try:
        k = thermal_efficiency(one.process).k / heat.k
    except UnknownEntryError:
        k = 1.0
    return _Heat(heat.pass_number, Range(heat.min_kj_mm * k, heat.max_kj_mm * k))


def _cooling_joint(draft: Draft) -> CoolingJoint:
    joint = draft.procedure.joint
    if joint is not None and joint.weld == "fillet":
        return "corner-fillet" if joint.kind == "corner" else "t-fillet"
    return "butt"


def _conducts_as(metal: Metal) -> str:
    return "duplex" if metal.family == "duplex" else KIND_OF_FAMILY[metal.family]


def _cooling(
    heat: _Heat, start: Range, thin: float, joint: CoolingJoint, metal: Metal, *, hardening: bool, last: bool
) -> PassCooling:
    least = most = wait = None
    if hardening:
        least = cooling_time(heat.span.min, start.min, thin, joint).t85_s
        most = cooling_time(heat.span.max, start.max, thin, joint).t85_s
    try:
        if not last:
            wait = interpass_wait(heat.span.middle, thin, start.min, start.max, _conducts_as(metal)).wait_s
    except OutOfRangeError:
        pass
    return PassCooling(
        pass_number=heat.pass_number,
        t85_least_s=least,
        t85_most_s=most,
        heat_least_kj_mm=heat.span.min,
        heat_most_kj_mm=heat.span.max,
        wait_s=wait,
    )


def _target(known: list[tuple[BaseMetal, Metal]]) -> tuple[Range | None, str]:
    strongest = max((metal.yield_at(one.thickness_mm) or 0.0 for one, metal in known), default=0.0)
    table = load_table("welding.heat", "cooling_targets")
    row = next((r for r in table.rows if r["yield_from_mpa"] <= strongest < r["yield_to_mpa"]), None)
    if row is not None:
        words = tr(
            "usual for {metal}; the steel manufacturer's figure rules",
            metal=in_words(row["row"]),
        )
        return Range.between(row["min_s"], row["max_s"]), words
    return Range(*MILD_TARGET_S), tr("no target is usual for mild steel; drawn for comparison")


def hydrogen_counted(draft: Draft) -> tuple[float, str]:
    """Diffusible hydrogen to count with [ml/100 g], and where it comes from."""
    thermal = draft.procedure.thermal
    if thermal and thermal.hydrogen_ml_100g is not None:
        return thermal.hydrogen_ml_100g, tr("hydrogen as stated")
    marks = [
        filler.hydrogen_ml_100g
        for one in draft.procedure.passes
        if (filler := decoded_of(one)) and filler.hydrogen_ml_100g is not None
    ]
    if marks:
        return max(marks), tr("hydrogen by the filler's mark")
    return USUAL_HYDROGEN_ML_100G, tr("hydrogen of 5 ml/100 g assumed")


def chemistry_counted(one: BaseMetal, metal: Metal) -> tuple[Mapping[str, float], str]:
    """Chemistry to count with: the heat's, else what the grade usually has."""
    if one.chemistry and {"C", "Mn"} <= set(one.chemistry):
        return one.chemistry, tr("chemistry of the heat")
    return typical_chemistry(metal), tr("typical chemistry of the grade")


def _preheat(
    draft: Draft,
    known: list[tuple[BaseMetal, Metal]],
    thick: float,
    heat: list[_Heat],
    edition: Edition | None,
) -> tuple[Preheat, ...]:
    hydrogen, hydrogen_words = hydrogen_counted(draft)
    coldest = min((one.span.middle for one in heat), default=1.0)
    single = draft.single_run_fillet
    by_metal: list[Preheat] = []
    highest_ce, ce_words = 0.0, ""
    for one, metal in known:
        chemistry, words = chemistry_counted(one, metal)
        values = {e.key: e.value for e in equivalents(chemistry)}
        cet, ce = values.get("cet"), values.get("ce_iiw") or 0.0
        if cet is None:
            continue
        if ce > highest_ce:
            highest_ce, ce_words = ce, words
        found = method_b(
            cet=cet,
            thickness_mm=thick,
            hydrogen_ml_100g=hydrogen,
            heat_input_kj_mm=min(max(coldest, 0.5), 4.0),
            single_run_fillet=single,
        )
        by_metal.append(
            replace(found, assumptions=(f"CET {cet:.2f}, {words}", hydrogen_words, *found.assumptions))
        )
    options: list[Preheat] = []
    if by_metal:
        options.append(max(by_metal, key=lambda one: one.preheat_c if one.preheat_c is not None else -1e3))
    sizes = [one.thickness_mm for one, _ in known if one.thickness_mm]
    joint = draft.procedure.joint
    if by_metal and highest_ce and joint is not None and sizes:
        entered = method_a(
            ce=highest_ce,
            kind=joint.kind,
            thicknesses_mm=(sizes[0], sizes[-1]),
            hydrogen_ml_100g=hydrogen,
            heat_kj_mm=coldest,
        )
        options.append(replace(entered, assumptions=(*entered.assumptions, ce_words, hydrogen_words)))
    if edition is not None:
        asked = edition.preheat(draft)
        if asked is not None:
            options.append(asked)
        options += edition.preheat_by_chemistry(draft, hydrogen)
    return tuple(options)


def waits_of(view: ThermalView | None) -> dict[int, float]:
    """Estimated wait after each pass [s]."""
    if view is None:
        return {}
    return {one.pass_number: one.wait_s for one in view.passes if one.wait_s is not None}
