"""Equivalents of a composition in % by mass: how hardenable a steel is, how ferritic a stainless weld."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from welding.citation import Citation
from welding.errors import WeldingError
from welding.language import tr, tr_noop

ELEMENTS = (
    "C", "Si", "Mn", "P", "S", "Cr", "Mo", "Ni", "Cu", "V", "Nb", "Ti", "Al", "B", "N", "Co", "W", "Fe",
    "Mg", "Zn", "Sn", "Zr", "Ta",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Formula:
    """One equivalent: a weighted sum of elements.

    Attributes:
        key: Name on the command line, such as ``ce_iiw``.
        words: What the trade calls it.
        use: What it is for.
        weights: Factor of each element.
        needs: Elements without which it means nothing; the others count as zero where not given.
        citation: Where it stands.
        by_carbon: Whether all but carbon count by how much carbon there is (``accommodation``).
        decimals: How many are worth showing.
    """

    key: str
    words: str
    use: str
    weights: Mapping[str, float]
    needs: tuple[str, ...]
    citation: Citation
    by_carbon: bool = False
    decimals: int = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Equivalent:
    """The value of one formula, or what it lacks.

    Attributes:
        key: As in ``Formula``.
        words: As in ``Formula``.
        use: As in ``Formula``.
        value: In % by mass (the cracking index is a bare number); ``None`` while an element that it needs is
            not given.
        missing: The elements that it needs and that are not given.
        taken_as_zero: Elements of the formula that were not given.
        citation: Where the formula stands.
        decimals: How many of the value are worth showing.
    """

    key: str
    words: str
    use: str
    value: float | None
    missing: tuple[str, ...]
    taken_as_zero: tuple[str, ...]
    citation: Citation
    decimals: int = 3


def _citation(document: str, clause: str, edition: str = "") -> Citation:
    return Citation(document=document, edition=edition, clause=clause, provenance="memory", confidence="high")


FORMULAS = (
    Formula(
        "ce_iiw", "CE (IIW)", tr_noop("hardness and preheat of C-Mn steels over about 0.12 % C"),
        {"C": 1, "Mn": 1 / 6, "Cr": 1 / 5, "Mo": 1 / 5, "V": 1 / 5, "Ni": 1 / 15, "Cu": 1 / 15},
        ("C", "Mn"), _citation("EN 1011-2", tr_noop("annex C, method A"), "2001"),
    ),
    Formula(
        "ce_aws", "CE (AWS D1.1)", tr_noop("preheat by hardness control in AWS D1.1"),
        {"C": 1, "Mn": 1 / 6, "Si": 1 / 6, "Cr": 1 / 5, "Mo": 1 / 5, "V": 1 / 5, "Ni": 1 / 15, "Cu": 1 / 15},
        ("C", "Mn", "Si"), _citation("AWS D1.1", tr_noop("annex B"), "2020"),
    ),
    Formula(
        "cet", "CET", tr_noop("preheat by EN 1011-2 method B"),
        {"C": 1, "Mn": 1 / 10, "Mo": 1 / 10, "Cr": 1 / 20, "Cu": 1 / 20, "Ni": 1 / 40},
        ("C", "Mn"), _citation("EN 1011-2", tr_noop("annex C, method B"), "2001"),
    ),
    Formula(
        "pcm", "Pcm", tr_noop("preheat by hydrogen control; steels of low carbon"),
        {
            "C": 1, "Si": 1 / 30, "Mn": 1 / 20, "Cu": 1 / 20, "Cr": 1 / 20, "Ni": 1 / 60, "Mo": 1 / 15,
            "V": 1 / 10, "B": 5,
        },
        ("C", "Mn", "Si"), _citation("AWS D1.1", tr_noop("annex B, Pcm of Ito and Bessyo"), "2020"),
    ),
    Formula(
        "cen", "CEN", tr_noop("hydrogen cracking and hardness over a wide range of carbon"),
        {
            "C": 1, "Si": 1 / 24, "Mn": 1 / 6, "Cu": 1 / 15, "Ni": 1 / 20, "Cr": 1 / 5, "Mo": 1 / 5,
            "V": 1 / 5, "Nb": 1 / 5, "B": 5,
        },
        ("C", "Mn", "Si"), _citation("Yurioka", "CEN", "1983"), by_carbon=True,
    ),
    Formula(
        "cr_eq_wrc92", tr_noop("Cr equivalent (WRC-1992)"), tr_noop("ferrite of stainless weld metal"),
        {"Cr": 1, "Mo": 1, "Nb": 0.7}, ("Cr",), _citation("WRC-1992 diagram", "axes"), decimals=2,
    ),
    Formula(
        "ni_eq_wrc92", tr_noop("Ni equivalent (WRC-1992)"), tr_noop("ferrite of stainless weld metal"),
        {"Ni": 1, "C": 35, "N": 20, "Cu": 0.25}, ("Ni", "C", "N"), _citation("WRC-1992 diagram", "axes"),
        decimals=2,
    ),
)  # fmt: skip

STAINLESS_FROM_CR = 10.0
"""From this share of chromium on a ferrite number means something [% by mass]."""
FERRITE = Equivalent(
    key="fn_wrc92",
    words=tr_noop("Ferrite number (WRC-1992)"),
    use=tr_noop("hot cracking and embrittlement of stainless weld metal"),
    value=None,
    missing=(
        tr_noop("the diagram itself, which this program does not have: read it off with both equivalents"),
    ),
    taken_as_zero=(),
    citation=_citation("WRC-1992 diagram", tr_noop("ferrite lines")),
)
"""A number only from a sourced table; until there is one here, none."""


def require_chemistry(chemistry: Mapping[str, float]) -> None:
    """Refuse a composition that cannot be one.

    Args:
        chemistry: % by mass by element symbol.

    Raises:
        WeldingError: An element is not known, a share is negative, or they sum to more than 100 %.
    """
    for element, share in chemistry.items():
        if element not in ELEMENTS:
            raise WeldingError(
                tr(
                    "{element} is no element known here: {elements}",
                    element=element,
                    elements=", ".join(ELEMENTS),
                )
            )
        if not 0 <= share <= 100:
            raise WeldingError(
                tr("{element} {share:g} % is no share; 0 to 100 % is taken", element=element, share=share)
            )
    total = sum(chemistry.values())
    if total > 100.05:
        raise WeldingError(tr("the elements sum to {total:g} %, more than 100 %", total=total))


def looks_like_fractions(chemistry: Mapping[str, float]) -> bool:
    """Whether a steel's composition seems to be typed as fractions and not in % (a hint, never a rule).

    Example:
        >>> looks_like_fractions({"C": 0.0016, "Mn": 0.0145})
        True
    """
    return 0 < chemistry.get("C", 1.0) < 0.005 and 0 < chemistry.get("Mn", 1.0) < 0.03


def accommodation(carbon_percent: float) -> float:
    """How much of the alloying elements counts beside this much carbon, 0.5 to 1.

    Args:
        carbon_percent: Carbon [% by mass].

    Source: Yurioka 1983, from memory.

    Example:
        >>> round(accommodation(0.12), 2), round(accommodation(0.25), 2)
        (0.75, 1.0)
    """
    return 0.75 + 0.25 * math.tanh(20 * (carbon_percent - 0.12))


UCS_WEIGHTS = {"C": 230.0, "S": 190.0, "P": 75.0, "Nb": 45.0, "Si": -12.3, "Mn": -5.4}
UCS_LESS, UCS_LEAST_CARBON = 1.0, 0.08
"""Less carbon than this is counted as this much."""


def _cracking_index(chemistry: Mapping[str, float]) -> Equivalent:
    """Index of solidification cracking of C-Mn weld metal (EN 1011-2, annex E, from memory)."""
    counted = {**chemistry, "C": max(chemistry.get("C", 0.0), UCS_LEAST_CARBON)}
    missing = tuple(one for one in ("C", "S", "P", "Si", "Mn") if one not in chemistry)
    value = sum(factor * counted.get(element, 0.0) for element, factor in UCS_WEIGHTS.items()) - UCS_LESS
    return Equivalent(
        key="ucs",
        words="UCS",
        use=tr("solidification cracking of C-Mn weld metal as diluted; risk above 20 (fillet), 25 (butt)"),
        value=None if missing else max(value, 0.0),
        missing=missing,
        taken_as_zero=tuple(one for one in UCS_WEIGHTS if one not in chemistry and one not in missing),
        citation=_citation("EN 1011-2", tr_noop("annex E"), "2001"),
        decimals=1,
    )


def equivalents(chemistry: Mapping[str, float]) -> tuple[Equivalent, ...]:
    """Every equivalent of a composition.

    Args:
        chemistry: % by mass by element symbol.

    Returns:
        One entry a formula; its value is ``None`` while an element that it needs is not given.

    Raises:
        WeldingError: The composition cannot be one.

    Example:
        >>> round(equivalents({"C": 0.16, "Mn": 1.45})[0].value, 4)
        0.4017
    """
    require_chemistry(chemistry)
    found = []
    for one in FORMULAS:
        missing = tuple(element for element in one.needs if element not in chemistry)
        carbon = chemistry.get("C", 0.0)
        rest = sum(factor * chemistry.get(element, 0.0) for element, factor in one.weights.items())
        value = carbon + accommodation(carbon) * (rest - carbon) if one.by_carbon else rest
        found.append(
            Equivalent(
                key=one.key,
                words=tr(one.words),
                use=tr(one.use),
                value=None if missing else value,
                missing=missing,
                taken_as_zero=tuple(element for element in one.weights if element not in chemistry),
                citation=one.citation,
                decimals=one.decimals,
            )
        )
    if chemistry.get("Cr", 0.0) < STAINLESS_FROM_CR:
        found.append(_cracking_index(chemistry))
    if chemistry.get("Cr", 0.0) >= STAINLESS_FROM_CR:
        found.append(replace(FERRITE, words=tr(FERRITE.words), use=tr(FERRITE.use)))
    return tuple(found)
