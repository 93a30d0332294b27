"""Which filler suits which metals: families, stainless sub-types, aluminium pairs, bronze on copper."""

from __future__ import annotations

import re
from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import TIG, decoded_of
from welding.checks.saying import ask, of_pass
from welding.citation import COMMON_PRACTICE, Citation
from welding.codebook.table import load_table
from welding.consumables.designations.model import Decoded
from welding.documents.procedure import Pass
from welding.finding import Finding, Obligation
from welding.language import tr
from welding.metals.catalogue import Metal

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
    **dict.fromkeys(("AWS A5.36", "ISO 14341-A", "ISO 17632-A", "ISO 2560-A", "ISO 636-A"), "steel"),
    **dict.fromkeys(("ISO 16834-A", "ISO 18275-A", "ISO 18276-A", "ISO 3580-A", "ISO 21952-A"), "steel"),
    **dict.fromkeys(("AWS A5.4", "AWS A5.9", "AWS A5.22", "ISO 14343-A"), "stainless"),
    **dict.fromkeys(("ISO 3581-A", "ISO 17633-A"), "stainless"),
    **dict.fromkeys(("AWS A5.10", "ISO 18273"), "aluminium"),
    **dict.fromkeys(("AWS A5.11", "AWS A5.14", "AWS A5.34", "ISO 18274", "ISO 14172"), "nickel"),
    **dict.fromkeys(("AWS A5.6", "AWS A5.7", "ISO 24373"), "copper"),
}
_NOT_WELDED = re.compile(r"\b(?:2014|2017|2024|7050|7075)\b")
_PAIR_GROUP = (
    (re.compile(r"^1\d{3}"), "1100"),
    (re.compile(r"^3\d{3}"), "3003"),
    (re.compile(r"^(?:5052|5251|5754)"), "5052"),
    (re.compile(r"^(?:5083|5383)"), "5083"),
    (re.compile(r"^5086"), "5086"),
    (re.compile(r"^6\d{3}"), "6xxx"),
)
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
_HIGH_SILICON = ("135", "131")
MOLYBDENUM_FROM_PERCENT = 1.5
"""From here a grade counts as one with molybdenum."""


def pairing_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass's filler against the metals, where every stated metal is known."""
    stated = [one for one in draft.procedure.base_metals if one.designation]
    metals = [metal for one in stated if (metal := draft.metal(one))]
    for index, one in enumerate(stated):
        if _NOT_WELDED.search(one.designation or ""):
            yield ask(
                "metal.weldable",
                f"base_metals.{index}.designation",
                tr("{designation} is no alloy for arc welding", designation=one.designation),
                tr(
                    "{designation} cracks as it freezes; it is riveted, bolted or stir-welded.",
                    designation=one.designation,
                ),
                tr("Choose another alloy, or another way to join it."),
                verdict="violates",
            )
    if not metals or len(metals) < len(stated):
        return
    for index, one_pass in enumerate(draft.procedure.passes):
        filler = decoded_of(one_pass)
        if filler:
            yield _suits(index, one_pass, filler, metals)
        yield from _without_filler(index, one_pass, metals)


def is_steel_filler(filler: Decoded) -> bool:
    """Whether it is a filler of carbon or low-alloy steel."""
    return _KIND_OF_FILLER.get(filler.system) == "steel"


def _without_filler(index: int, one: Pass, metals: list[Metal]) -> Iterator[Finding]:
    bare = one.filler is None or not one.filler.designation
    if bare and one.process in TIG and {_alloy_group(metal) for metal in metals} == {"6xxx"}:
        yield ask(
            "filler.autogenous",
            f"passes.{index}.filler.designation",
            of_pass(tr("6xxx aluminium without filler"), one),
            tr("Melted by itself, this alloy has about 1 % Mg2Si in the pool and cracks as it freezes."),
            tr("Add 4043 or 5356."),
            verdict="violates",
        )


def _suits(index: int, one: Pass, filler: Decoded, metals: list[Metal]) -> Finding:
    trouble = _trouble(filler, metals)
    names = " to ".join(dict.fromkeys(metal.name for metal in metals))
    hint = _hint(one, filler, metals)
    obligation, message, remedy = trouble or (
        "requirement",
        tr("{designation} suits {names}.", designation=filler.designation, names=names)
        + (f" {hint}" if hint else ""),
        "",
    )
    table = load_table("welding.checks", "aluminium_pairs")
    light = _KIND_OF_FILLER.get(filler.system) == "aluminium"
    return Finding(
        rule="filler.metal",
        verdict="violates" if trouble else "complies",
        obligation=obligation,
        path=f"passes.{index}.filler.designation",
        title=of_pass(tr("Filler does not suit the metal") if trouble else tr("Filler suits the metal"), one),
        message=message,
        actual=filler.designation,
        limit=names,
        remedy=remedy,
        citations=(table.citation, COMMON_PRACTICE) if light else (PAIRING,),
        unchecked=table.unchecked if light else (),
    )


def _hint(one: Pass, filler: Decoded, metals: list[Metal]) -> str:
    """What else to know of a pairing that is sound."""
    alloy, kinds = _alloy(filler), {_KIND_OF_METAL[metal.family] for metal in metals}
    if kinds == {"stainless"} and one.process in _HIGH_SILICON and re.fullmatch(r"3\d\dL", alloy):
        return tr("The high-silicon ER{alloy}Si wets the toes better and spatters less.", alloy=alloy)
    if kinds == {"copper"} and filler.classed != "ERCu":
        return tr("Bronze is easier, but its colour and etch differ; filler cut from the parent matches.")
    if kinds == {"aluminium"} and alloy.startswith("4"):
        return tr("The seam turns dark when anodised.")
    if kinds == {"aluminium"} and alloy.startswith(("5356", "5183", "5556", "5654", "5087")):
        return tr("More than 3 % Mg: not for service above 65 °C, where it corrodes under stress.")
    return ""


def _trouble(filler: Decoded, metals: list[Metal]) -> tuple[Obligation, str, str] | None:
    """How binding, what is wrong and what to do; ``None`` where the pairing is sound."""
    kinds = {_KIND_OF_METAL[metal.family] for metal in metals}
    kind = _KIND_OF_FILLER.get(filler.system)
    name = filler.designation
    alloy = _alloy(filler)
    if kind is None:
        return None
    if "nickel" in kinds:
        if kind == "nickel":
            return None
        return (
            "requirement",
            tr("{name} is {kind} filler on nickel alloy: it dilutes and cracks.", name=name, kind=kind),
            tr("Choose a nickel filler, such as ERNiCr-3 or ERNiCrMo-3."),
        )
    if kind == "nickel" and kinds <= {"steel", "stainless"}:
        return None  # nickel joins unlike steels, and serves in cold and heat
    if "aluminium" in kinds or kind == "aluminium":
        if kinds != {"aluminium"} or kind != "aluminium":
            return (
                "requirement",
                tr(
                    "{name} is {kind} filler; aluminium is welded to aluminium only, with its own fillers.",
                    name=name,
                    kind=kind,
                ),
                tr("Choose a filler of the metal's family."),
            )
        return _aluminium(alloy, name, metals)
    if "copper" in kinds:
        between = len(kinds) > 1 and filler.classed.startswith(("ERNiCu", "ENiCu", "ERNi-", "ENi-"))
        if kind == "copper" or between:
            return None
        return (
            "requirement",
            tr("{name} is {kind} filler on copper.", name=name, kind=kind),
            tr("Choose a copper filler."),
        )
    if kind == "copper":
        return None  # bronze brazes steel and stainless as well
    if kinds == {"steel"}:
        if kind == "stainless":
            return (
                "recommendation",
                tr(
                    "{name} is stainless filler on carbon steel: dear, and hard where 308 is diluted.",
                    name=name,
                ),
                tr("Choose a steel filler, or 309L or 312 where it is meant."),
            )
        return None
    if kind == "steel":
        return (
            "requirement",
            tr("{name} is steel filler on stainless steel: no corrosion resistance, and hard.", name=name),
            tr("Choose a stainless filler."),
        )
    if kinds == {"steel", "stainless"}:
        if alloy.startswith(_TOUGH_MIXERS):
            return None
        return (
            "requirement",
            tr("{name} between carbon and stainless steel dilutes to martensite.", name=name),
            tr("Choose 309L, or 309LMo for grades with molybdenum."),
        )
    return _stainless(alloy, name, metals)


def _alloy(filler: Decoded) -> str:
    """``308LSi`` of ER308LSi, ``19 9 L`` of G 19 9 L, ``5356`` of S Al 5356."""
    text = re.sub(r"^(?:ER|EC|EQ|E ?|R|[GWTPSBL] (?:Al )?)", "", filler.classed)
    return re.sub(r"(?:T[01])?-.*$| \(.*$", "", text)


def _stainless(alloy: str, name: str, metals: list[Metal]) -> tuple[Obligation, str, str] | None:
    families = {metal.family for metal in metals}
    if "duplex" in families and not alloy.startswith(_DUPLEX) and not alloy.startswith("309LMo"):
        return (
            "recommendation",
            tr("{name} on duplex leaves the wrong balance of phases.", name=name),
            tr("Choose 2209, or 2594 for more corrosion resistance."),
        )
    molybdenum = [
        metal.name for metal in metals if metal.chemistry.get("Mo", (0.0, 0.0))[0] >= MOLYBDENUM_FROM_PERCENT
    ]
    if len(molybdenum) == len(metals) and families == {"austenitic"} and not alloy.startswith(_MOLYBDENUM):
        return (
            "recommendation",
            tr(
                "{name} has no molybdenum: {molybdenum} would lose its resistance to pitting at the weld.",
                name=name,
                molybdenum=molybdenum[0],
            ),
            tr("Choose 316L or 317L."),
        )
    return None


def _alloy_group(metal: Metal) -> str | None:
    """Which row of the table of pairs an alloy goes by; ``None`` where the table has none."""
    return next((group for shape, group in _PAIR_GROUP if shape.match(metal.name)), None)


def _aluminium(alloy: str, name: str, metals: list[Metal]) -> tuple[Obligation, str, str] | None:
    magnesium = max((sum(metal.chemistry.get("Mg", (0.0, 0.0))) / 2 for metal in metals), default=0.0)
    if alloy.startswith("4") and magnesium > 2.5:
        return (
            "requirement",
            tr(
                "{name} on a metal with about {magnesium:g} % Mg forms brittle Mg2Si.",
                name=name,
                magnesium=magnesium,
            ),
            tr("Choose 5356, 5183 or 5556."),
        )
    groups = [group for metal in metals if (group := _alloy_group(metal))]
    if len(groups) < len(metals):
        return None
    wanted = {f"{groups[0]} {groups[-1]}", f"{groups[-1]} {groups[0]}"}
    row = next((r for r in load_table("welding.checks", "aluminium_pairs").rows if r["pair"] in wanted), None)
    if row is None or alloy[:4] in (*row["first"], *row["also"], "5087"):
        return None
    usual = " or ".join((*row["first"], *row["also"]))
    pair = " to ".join(dict.fromkeys(metal.name for metal in metals))
    return (
        "recommendation",
        tr("{name} is not usual on {pair}; {usual} are.", name=name, pair=pair, usual=usual),
        tr("Choose {row}.", row=row["first"][0]),
    )
