"""A heat's certificate against the grade: chemistry, strength, and what is not stated."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.saying import advise, ask
from welding.documents.procedure import BaseMetal
from welding.finding import Finding
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
                f"Is the chemistry of metal {index + 1} in %?",
                f"C {one.chemistry.get('C', 0):g} and Mn {one.chemistry.get('Mn', 0):g} look like fractions; "
                "% by mass is meant.",
                "Multiply by a hundred, if so.",
            )
            continue
        if one.chemistry and not one.heat:
            yield ask(
                "metal.heat",
                f"{path}.heat",
                f"Which heat is metal {index + 1} of?",
                "A chemistry is stated without its heat number.",
                "State the heat number of the certificate.",
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
            off.append(f"{element} {share:g} % above {high:g} %")
        elif share < low * (1 - 1e-9):
            off.append(f"{element} {share:g} % below {low:g} %")
    judged = [element for element in metal.chemistry if element in one.chemistry]
    yield Finding(
        rule="metal.chemistry",
        verdict="violates" if off else "complies",
        path=f"{path}.chemistry",
        title=f"Certificate does not fit {metal.name}" if off else f"Certificate fits {metal.name}",
        message=f"Heat {one.heat or 'not named'}: {', '.join(off)}."
        if off
        else f"Heat {one.heat or 'not named'}: {', '.join(judged) or 'no element'} compared with the limits "
        "known here.",
        actual=", ".join(off),
        limit=f"limits of {metal.name}",
        remedy="Check the certificate, then whether the plate is what it is said to be." if off else "",
        citations=(metal.citation,),
        unchecked=metal.unchecked,
    )


def _properties(index: int, path: str, one: BaseMetal, metal: Metal) -> Iterator[Finding]:
    paper = one.certificate
    if paper is None:
        return
    for words, measured, least, field in (
        ("yield", paper.yield_mpa, metal.yield_at(one.thickness_mm), "yield_mpa"),
        ("tensile strength", paper.tensile_mpa, metal.tensile_at(one.thickness_mm), "tensile_mpa"),
    ):
        if measured is None or least is None:
            continue
        weak = measured < least * (1 - 1e-9)
        yield advise(
            "metal.strength",
            f"{path}.certificate.{field}",
            trouble=f"The certificate gives a {words} of {measured:g} MPa; "
            f"{metal.name} has at least {least:g} MPa."
            if weak
            else "",
            fine=f"The certificate gives a {words} of {measured:g} MPa, at least {least:g} MPa is asked.",
            titles=(
                f"Metal {index + 1} is weaker than its grade",
                f"Strength of metal {index + 1} fits its grade",
            ),
            actual=f"{measured:g} MPa",
            limit=f"{least:g} MPa",
            remedy="Check the certificate; the metal is not what it is said to be.",
            citations=(metal.citation,),
            unchecked=metal.unchecked,
        )
