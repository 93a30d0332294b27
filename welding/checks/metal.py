"""The base metals: whether they are known and identified, and strong enough a filler for them."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.checks.pairing import is_steel_filler
from welding.citation import COMMON_PRACTICE
from welding.consumables.designations.model import Decoded
from welding.documents.procedure import BaseMetal, Pass
from welding.finding import Finding
from welding.language import number, tr
from welding.metals.catalogue import Metal
from welding.metals.grouping import ISO_TR_15608

SAME_LEVEL_SHARE = 0.985
"""Level 69 is 760 MPa of electrodes and 770 of wires, 70 ksi is 480 to 490 MPa: one level, named apart."""
OVER_MATCH_MPA = 200
"""A filler this much stronger than the metal is hardly ever meant (common practice)."""


def metal_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on the base metals, and on each pass's filler against their strength."""
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
        if filler and not _practised_root(draft, one_pass):
            yield from _strength(index, one_pass, filler, metals)


def _known(draft: Draft, index: int, one: BaseMetal, metal: Metal | None) -> Finding:
    if metal is None:
        return Finding(
            rule="metal.known",
            verdict="undecided",
            obligation="recommendation",
            path=f"base_metals.{index}.designation",
            title=tr("Metal {index} is not in the catalogue", index=index + 1),
            message=tr(
                "{designation} is not known here; its group and strength are not judged.",
                designation=one.designation,
            ),
            actual=one.designation or "",
            limit=tr("a grade of the catalogue, or an own record"),
            remedy=tr("Choose a grade, or add it to the library."),
            citations=(COMMON_PRACTICE,),
        )
    computed = metal.grouped.group
    if metal.own and computed and metal.iso_15608 != computed:
        return Finding(
            rule="metal.known",
            verdict="violates",
            obligation="recommendation",
            path=f"base_metals.{index}.designation",
            title=tr("Group of metal {index} is not the computed one", index=index + 1),
            message=tr(
                "The own record of {name} states group {iso_15608}; {reason}, which gives {computed}.",
                name=metal.name,
                iso_15608=metal.iso_15608,
                reason=metal.grouped.reason,
                computed=computed,
            ),
            actual=metal.iso_15608,
            limit=computed,
            remedy=tr("Correct the record: its group, condition, yield or chemistry."),
            citations=(metal.citation, ISO_TR_15608),
        )
    code = draft.procedure.code
    group = metal.aws_group_at(one.thickness_mm, code.units if code else "si")
    aws = tr(", AWS D1.1 group {group}", group=group) if group else ""
    return Finding(
        rule="metal.known",
        verdict="complies",
        path=f"base_metals.{index}.designation",
        title=tr("Metal {index} is known", index=index + 1),
        message=tr(
            "{name} ({standard}): group {value} of ISO/TR 15608, {reason}{aws}.",
            name=metal.name,
            standard=metal.standard,
            value=metal.iso_15608 or tr("unknown"),
            reason=metal.grouped.reason,
            aws=aws,
        ),
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
            title=tr("Metal {index}: how is it known?", index=index + 1),
            message=tr("No evidence is stated: certificate, mark, magnet, spark or analyser."),
            limit=tr("evidence stated"),
            remedy=tr("State how the metal was identified."),
            citations=(COMMON_PRACTICE,),
        )
    if metal is None or one.magnet_sticks is None or metal.family == "nickel":
        return
    agrees = one.magnet_sticks == metal.magnetic
    sticks = "sticks" if one.magnet_sticks else tr("does not stick")
    expected = "attracts" if metal.magnetic else tr("does not attract")
    yield Finding(
        rule="metal.magnet",
        verdict="complies" if agrees else "violates",
        path=f"base_metals.{index}.designation",
        title=tr("Magnet agrees with metal {index}", index=index + 1)
        if agrees
        else tr("Magnet contradicts metal {index}", index=index + 1),
        message=tr(
            "{name} is {family} and {expected} a magnet; the magnet {sticks}.",
            name=metal.name,
            family=metal.family,
            expected=expected,
            sticks=sticks,
        ),
        actual=sticks,
        limit=tr("a magnet {value}", value=tr("sticks") if metal.magnetic else tr("does not stick")),
        remedy=""
        if agrees
        else tr("Identify the metal again, by analysis or certificate, before anything else."),
        citations=(COMMON_PRACTICE,),
    )


def _practised_root(draft: Draft, one: Pass) -> bool:
    """A root of pipe with a softer filler under stronger passes: practice, no fault."""
    pipe = any(base.outside_diameter_mm for base in draft.procedure.base_metals)
    return pipe and one.role == "root" and len(draft.procedure.passes) > 2


def _strength(index: int, one: Pass, filler: Decoded, metals: list[Metal]) -> Iterator[Finding]:
    plain = all(metal.family in ("carbon", "weathering") for metal in metals)
    if not plain or filler.tensile_mpa is None or not is_steel_filler(filler):
        return
    strengths = [metal.tensile_mpa for metal in metals if metal.tensile_mpa is not None]
    if len(strengths) < len(metals):
        return
    wanted, strongest = min(strengths), max(strengths)
    fits = filler.tensile_mpa >= wanted * SAME_LEVEL_SHARE
    over = filler.tensile_mpa > strongest + OVER_MATCH_MPA
    if over:
        yield Finding(
            rule="filler.over-match",
            verdict="violates",
            obligation="recommendation",
            path=f"passes.{index}.filler.designation",
            title=tr("Filler is far stronger than the metal, pass {number}", number=one.number),
            message=tr(
                "{designation} has at least {tensile_mpa:g} MPa, the stronger metal "
                "{strongest:g} MPa: the joint strains beside the weld, and the weld asks for "
                "more preheat.",
                designation=filler.designation,
                tensile_mpa=filler.tensile_mpa,
                strongest=strongest,
            ),
            actual=f"{number(filler.tensile_mpa)} MPa",
            limit=f"{number(strongest + OVER_MATCH_MPA)} MPa",
            remedy=tr("Choose a class nearer the metal's strength."),
            citations=(COMMON_PRACTICE,),
        )
    yield Finding(
        rule="filler.strength",
        verdict="complies" if fits else "violates",
        obligation="recommendation",
        path=f"passes.{index}.filler.designation",
        title=tr("Filler matches the metal's strength, pass {number}", number=one.number)
        if fits
        else tr("Filler is weaker than the metal, pass {number}", number=one.number),
        message=tr(
            "{designation} has at least {tensile_mpa:g} MPa, the weaker metal {wanted:g} MPa.",
            designation=filler.designation,
            tensile_mpa=filler.tensile_mpa,
            wanted=wanted,
        ),
        actual=f"{number(filler.tensile_mpa)} MPa",
        limit=f"{number(wanted)} MPa",
        remedy="" if fits else tr("Choose a stronger class, unless under-matching is meant."),
        citations=(*filler.sources.citations[-1:], *(metal.citation for metal in metals[:1])),
        unchecked=(*filler.sources.unchecked, *metals[0].unchecked),
    )
