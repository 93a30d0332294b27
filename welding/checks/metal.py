"""The base metals: whether they are known and identified, and whether the filler suits them."""

from __future__ import annotations

import re
from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.citation import COMMON_PRACTICE, Citation
from welding.consumables.designations.model import Decoded
from welding.documents.procedure import BaseMetal, Pass
from welding.finding import Finding, Obligation
from welding.metals.catalogue import Metal
from welding.metals.grouping import ISO_TR_15608

PAIRING = Citation(
    document="common practice", clause="fillers for metals", provenance="practice", confidence="high"
)
_KIND_OF_METAL = {
    **dict.fromkeys(("carbon", "weathering", "cr-mo", "ni-steel"), "steel"),
    **dict.fromkeys(("austenitic", "ferritic", "martensitic", "ph-stainless", "duplex"), "stainless"),
    **dict.fromkeys(("aluminium", "aluminium-cast"), "aluminium"),
    "copper": "copper",
    "nickel": "nickel",
}
_KIND_OF_FILLER = {
    **dict.fromkeys(("AWS A5.1", "AWS A5.5", "AWS A5.18", "AWS A5.20", "AWS A5.28", "AWS A5.29"), "steel"),
    **dict.fromkeys(("ISO 14341-A", "ISO 17632-A", "ISO 2560-A", "ISO 636-A"), "steel"),
    **dict.fromkeys(("AWS A5.4", "AWS A5.9", "AWS A5.22", "ISO 14343-A"), "stainless"),
    **dict.fromkeys(("AWS A5.10", "ISO 18273"), "aluminium"),
    "AWS A5.7": "copper",
}
OVER_MATCH_MPA = 200
"""A filler this much stronger than the metal is hardly ever meant (common practice)."""
_TOUGH_MIXERS = ("309", "312", "2209", "23 12", "29 9", "22 9 3")
_DUPLEX = ("2209", "2307", "2553", "2594", "22 9 3", "23 7", "25 9 4")
_MOLYBDENUM = (
    "316",
    "317",
    "318",
    "385",
    "2209",
    "2594",
    "309LMo",
    "309Mo",
    "19 12 3",
    "22 9 3",
    "25 9 4",
    "23 12 2",
)


def metal_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on the base metals, and on each pass's filler against them."""
    stated = [
        (index, one, draft.metal(one))
        for index, one in enumerate(draft.procedure.base_metals)
        if one.designation
    ]
    for index, one, metal in stated:
        yield _known(draft, index, one, metal)
        yield from _identified(index, one, metal)
    metals = [metal for _, _, metal in stated if metal]
    if not metals or len(metals) < len(stated):
        return
    for index, one_pass in enumerate(draft.procedure.passes):
        filler = decoded_of(one_pass)
        if filler:
            yield from _suits(draft, index, one_pass, filler, metals)


def _known(draft: Draft, index: int, one: BaseMetal, metal: Metal | None) -> Finding:
    if metal is None:
        return Finding(
            rule="metal.known",
            verdict="undecided",
            obligation="recommendation",
            path=f"base_metals.{index}.designation",
            title=f"Metal {index + 1} is not in the catalogue",
            message=f"{one.designation} is not known here; its group and strength are not judged.",
            actual=one.designation or "",
            limit="a grade of the catalogue, or an own record",
            remedy="Choose a grade, or add it to the shelf.",
            citations=(COMMON_PRACTICE,),
        )
    computed = metal.grouped.group
    if metal.own and computed and metal.iso_15608 != computed:
        return Finding(
            rule="metal.known",
            verdict="violates",
            obligation="recommendation",
            path=f"base_metals.{index}.designation",
            title=f"Group of metal {index + 1} is not the computed one",
            message=f"The own record of {metal.name} states group {metal.iso_15608}; "
            f"{metal.grouped.reason}, which gives {computed}.",
            actual=metal.iso_15608,
            limit=computed,
            remedy="Correct the record: its group, condition, yield or chemistry.",
            citations=(metal.citation, ISO_TR_15608),
        )
    code = draft.procedure.code
    group = metal.aws_group_at(one.thickness_mm, code.units if code else "si")
    aws = f", AWS D1.1 group {group}" if group else ""
    return Finding(
        rule="metal.known",
        verdict="complies",
        path=f"base_metals.{index}.designation",
        title=f"Metal {index + 1} is known",
        message=f"{metal.name} ({metal.standard}): group {metal.iso_15608 or 'unknown'} of ISO/TR 15608, "
        f"{metal.grouped.reason}{aws}.",
        actual=metal.name,
        citations=(metal.citation,),
        unchecked=metal.unchecked,
    )


def _identified(index: int, one: BaseMetal, metal: Metal | None) -> Iterator[Finding]:
    if not one.identified_by:
        yield Finding(
            rule="metal.identified",
            verdict="undecided",
            obligation="recommendation",
            path=f"base_metals.{index}.identified_by",
            title=f"Metal {index + 1}: how is it known?",
            message="No evidence is stated: certificate, mark, magnet, spark or analyser.",
            limit="evidence stated",
            remedy="State how the metal was identified.",
            citations=(COMMON_PRACTICE,),
        )
    if metal is None or one.magnet_sticks is None or metal.family == "nickel":
        return
    agrees = one.magnet_sticks == metal.magnetic
    sticks = "sticks" if one.magnet_sticks else "does not stick"
    expected = "attracts" if metal.magnetic else "does not attract"
    yield Finding(
        rule="metal.magnet",
        verdict="complies" if agrees else "violates",
        path=f"base_metals.{index}.designation",
        title=f"Magnet agrees with metal {index + 1}" if agrees else f"Magnet contradicts metal {index + 1}",
        message=f"{metal.name} is {metal.family} and {expected} a magnet; the magnet {sticks}.",
        actual=sticks,
        limit=f"a magnet {'sticks' if metal.magnetic else 'does not stick'}",
        remedy=""
        if agrees
        else "Identify the metal again, by analysis or certificate, before anything else.",
        citations=(COMMON_PRACTICE,),
    )


def _suits(draft: Draft, index: int, one: Pass, filler: Decoded, metals: list[Metal]) -> Iterator[Finding]:
    trouble = _trouble(filler, metals)
    names = " to ".join(dict.fromkeys(metal.name for metal in metals))
    obligation, message, remedy = trouble or ("requirement", f"{filler.designation} suits {names}.", "")
    yield Finding(
        rule="filler.metal",
        verdict="violates" if trouble else "complies",
        obligation=obligation,
        path=f"passes.{index}.filler.designation",
        title=f"Filler does not suit the metal, pass {one.number}"
        if trouble
        else f"Filler suits the metal, pass {one.number}",
        message=message,
        actual=filler.designation,
        limit=names,
        remedy=remedy,
        citations=(PAIRING,),
    )
    yield from _strength(draft, index, one, filler, metals)


def _trouble(filler: Decoded, metals: list[Metal]) -> tuple[Obligation, str, str] | None:
    """How binding, what is wrong and what to do; ``None`` where the pairing is sound."""
    kinds = {_KIND_OF_METAL[metal.family] for metal in metals}
    kind = _KIND_OF_FILLER.get(filler.system)
    name = filler.designation
    alloy = _alloy(filler)
    if kind is None or "nickel" in kinds:
        return None
    if "aluminium" in kinds or kind == "aluminium":
        if kinds != {"aluminium"} or kind != "aluminium":
            return (
                "requirement",
                f"{name} is {kind} filler; aluminium is welded to aluminium only, with its own fillers.",
                "Choose a filler of the metal's family.",
            )
        return _aluminium(alloy, name, metals)
    if "copper" in kinds:
        if kind == "copper":
            return None
        return "requirement", f"{name} is {kind} filler on copper.", "Choose a copper filler."
    if kind == "copper":
        return None  # bronze brazes steel and stainless as well
    if kinds == {"steel"}:
        if kind == "stainless":
            return (
                "recommendation",
                f"{name} is stainless filler on carbon steel: dear, and hard where 308 is diluted.",
                "Choose a steel filler, or 309L or 312 where it is meant.",
            )
        return None
    if kind == "steel":
        return (
            "requirement",
            f"{name} is steel filler on stainless steel: no corrosion resistance, and hard.",
            "Choose a stainless filler.",
        )
    if kinds == {"steel", "stainless"}:
        if alloy.startswith(_TOUGH_MIXERS):
            return None
        return (
            "requirement",
            f"{name} between carbon and stainless steel dilutes to martensite.",
            "Choose 309L, or 309LMo for grades with molybdenum.",
        )
    return _stainless(alloy, name, metals)


def _alloy(filler: Decoded) -> str:
    """``308LSi`` of ER308LSi, ``19 9 L`` of G 19 9 L, ``5356`` of S Al 5356."""
    text = re.sub(r"^(?:ER|EC|EQ|E|R|[GWTPSBL] (?:Al )?)", "", filler.designation)
    return re.sub(r"(?:T[01])?-.*$| \(.*$", "", text)


def _stainless(alloy: str, name: str, metals: list[Metal]) -> tuple[Obligation, str, str] | None:
    families = {metal.family for metal in metals}
    if "duplex" in families and not alloy.startswith(_DUPLEX) and not alloy.startswith("309LMo"):
        return (
            "recommendation",
            f"{name} on duplex leaves the wrong balance of phases.",
            "Choose 2209, or 2594 for more corrosion resistance.",
        )
    molybdenum = [metal.name for metal in metals if metal.chemistry.get("Mo", (0.0, 0.0))[0] >= 1.5]
    if len(molybdenum) == len(metals) and families == {"austenitic"} and not alloy.startswith(_MOLYBDENUM):
        return (
            "recommendation",
            f"{name} has no molybdenum: {molybdenum[0]} would lose its resistance to pitting at the weld.",
            "Choose 316L or 317L.",
        )
    return None


def _aluminium(alloy: str, name: str, metals: list[Metal]) -> tuple[Obligation, str, str] | None:
    magnesium = max((sum(metal.chemistry.get("Mg", (0.0, 0.0))) / 2 for metal in metals), default=0.0)
    if alloy.startswith("4") and magnesium > 2.5:
        return (
            "requirement",
            f"{name} on a metal with about {magnesium:g} % Mg forms brittle Mg2Si.",
            "Choose 5356, 5183 or 5556.",
        )
    return None


def _strength(draft: Draft, index: int, one: Pass, filler: Decoded, metals: list[Metal]) -> Iterator[Finding]:
    plain = all(metal.family in ("carbon", "weathering") for metal in metals)
    if not plain or filler.tensile_mpa is None or _KIND_OF_FILLER.get(filler.system) != "steel":
        return
    strengths = [metal.tensile_mpa for metal in metals if metal.tensile_mpa is not None]
    if len(strengths) < len(metals):
        return
    wanted, strongest = min(strengths), max(strengths)
    fits = filler.tensile_mpa >= wanted
    over = filler.tensile_mpa > strongest + OVER_MATCH_MPA
    if over:
        yield Finding(
            rule="filler.over-match",
            verdict="violates",
            obligation="recommendation",
            path=f"passes.{index}.filler.designation",
            title=f"Filler is far stronger than the metal, pass {one.number}",
            message=f"{filler.designation} has at least {filler.tensile_mpa:g} MPa, the stronger metal "
            f"{strongest:g} MPa: the joint strains beside the weld, and the weld asks for more preheat.",
            actual=f"{filler.tensile_mpa:g} MPa",
            limit=f"{strongest + OVER_MATCH_MPA:g} MPa",
            remedy="Choose a class nearer the metal's strength.",
            citations=(COMMON_PRACTICE,),
        )
    yield Finding(
        rule="filler.strength",
        verdict="complies" if fits else "violates",
        obligation="recommendation",
        path=f"passes.{index}.filler.designation",
        title=f"Filler matches the metal's strength, pass {one.number}"
        if fits
        else f"Filler is weaker than the metal, pass {one.number}",
        message=f"{filler.designation} has at least {filler.tensile_mpa:g} MPa, "
        f"the weaker metal {wanted:g} MPa.",
        actual=f"{filler.tensile_mpa:g} MPa",
        limit=f"{wanted:g} MPa",
        remedy="" if fits else "Choose a stronger class, unless under-matching is meant.",
        citations=(*filler.sources.citations[-1:], *(metal.citation for metal in metals[:1])),
        unchecked=(*filler.sources.unchecked, *metals[0].unchecked),
    )
