"""A heat's certificate against the grade: chemistry, strength, and what is not stated."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.saying import advise, ask
from welding.documents.procedure import BaseMetal
from welding.finding import Finding
from welding.language import number, tr
from welding.metals.catalogue import Metal
from welding.metals.equivalents import looks_like_fractions


def certificate_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each base metal whose heat was stated."""
    for index, one in enumerate(draft.procedure.base_metals):
        path = f"base_metals.{index}"
        if one.chemistry and looks_like_fractions(one.chemistry):
            yield ask(
                "metal.fractions",
                f"{path}.chemistry",
                tr("Is the chemistry of metal {index} in %?", index=index + 1),
                tr(
                    "C {get:g} and Mn {get2:g} look like fractions; % by mass is meant.",
                    get=one.chemistry.get("C", 0),
                    get2=one.chemistry.get("Mn", 0),
                ),
                tr("Multiply by a hundred, if so."),
            )
            continue
        if one.chemistry and not one.heat:
            yield ask(
                "metal.heat",
                f"{path}.heat",
                tr("Which heat is metal {index} of?", index=index + 1),
                tr("A chemistry is stated without its heat number."),
                tr("State the heat number of the certificate."),
            )
        metal = draft.metal(one)
        if metal is not None:
            yield from _chemistry(index, path, one, metal)
            yield from _properties(index, path, one, metal)


def _chemistry(index: int, path: str, one: BaseMetal, metal: Metal) -> Iterator[Finding]:
    if not one.chemistry:
        return
    off = []
    for element, (low, high) in metal.chemistry.items():
        share = one.chemistry.get(element)
        if share is None:
            continue
        if share > high * (1 + 1e-9):
            off.append(tr("{element} {share:g} % above {high:g} %", element=element, share=share, high=high))
        elif share < low * (1 - 1e-9):
            off.append(tr("{element} {share:g} % below {low:g} %", element=element, share=share, low=low))
    judged = [element for element in metal.chemistry if element in one.chemistry]
    yield Finding(
        rule="metal.chemistry",
        verdict="violates" if off else "complies",
        path=f"{path}.chemistry",
        title=tr("Certificate does not fit {name}", name=metal.name)
        if off
        else tr("Certificate fits {name}", name=metal.name),
        message=tr("Heat {value}: {off}.", value=one.heat or tr("not named"), off=", ".join(off))
        if off
        else tr(
            "Heat {value}: {value2} compared with the limits known here.",
            value=one.heat or tr("not named"),
            value2=", ".join(judged) or tr("no element"),
        ),
        actual=", ".join(off),
        limit=tr("limits of {name}", name=metal.name),
        remedy=tr("Check the certificate, then whether the plate is what it is said to be.") if off else "",
        citations=(metal.citation,),
        unchecked=metal.unchecked,
    )


def _properties(index: int, path: str, one: BaseMetal, metal: Metal) -> Iterator[Finding]:
    paper = one.certificate
    if paper is None:
        return
    for words, measured, least, field in (
        ("yield", paper.yield_mpa, metal.yield_at(one.thickness_mm), "yield_mpa"),
        (tr("tensile strength"), paper.tensile_mpa, metal.tensile_at(one.thickness_mm), "tensile_mpa"),
    ):
        if measured is None or least is None:
            continue
        weak = measured < least * (1 - 1e-9)
        yield advise(
            "metal.strength",
            f"{path}.certificate.{field}",
            trouble=tr(
                "The certificate gives a {words} of {measured:g} MPa; {name} has at least {least:g} MPa.",
                words=words,
                measured=measured,
                name=metal.name,
                least=least,
            )
            if weak
            else "",
            fine=tr(
                "The certificate gives a {words} of {measured:g} MPa, at least {least:g} MPa is asked.",
                words=words,
                measured=measured,
                least=least,
            ),
            titles=(
                tr("Metal {index} is weaker than its grade", index=index + 1),
                tr("Strength of metal {index} fits its grade", index=index + 1),
            ),
            actual=f"{number(measured)} MPa",
            limit=f"{number(least)} MPa",
            remedy=tr("Check the certificate; the metal is not what it is said to be."),
            citations=(metal.citation,),
            unchecked=metal.unchecked,
        )
