"""Groups of ISO/TR 15608, computed from what a metal is, its condition, its yield and its chemistry.

The limits are those of ISO/TR 15608, from memory; several elements are judged at the middle of what the
grade's standard allows, since that is what the grade is made to be.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from welding.citation import Citation
from welding.language import tr

Family = Literal[
    "carbon",
    "weathering",
    "cr-mo",
    "ni-steel",
    "austenitic",
    "ferritic",
    "martensitic",
    "ph-stainless",
    "duplex",
    "nickel",
    "aluminium",
    "aluminium-cast",
    "copper",
]
Limits = Mapping[str, tuple[float, float]]

ISO_TR_15608 = Citation(
    document="ISO/TR 15608",
    edition="2017",
    clause="tables of groups",
    provenance="memory",
    confidence="medium",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Grouped:
    """A group, or why there is none.

    Attributes:
        group: Such as ``1.2``; ``None`` where the limits known here give none.
        reason: One sentence: what decided, or what is missing.
    """

    group: str | None
    reason: str


def _middle(chemistry: Limits, element: str) -> float | None:
    if element not in chemistry:
        return None
    low, high = chemistry[element]
    return (low + high) / 2


def _most(chemistry: Limits, element: str) -> float:
    return chemistry[element][1] if element in chemistry else 0.0


def group_of(*, family: Family, condition: str, yield_mpa: float | None, chemistry: Limits) -> Grouped:
    """Compute the group of a metal.

    Args:
        family: What the metal is.
        condition: Delivery condition: AR, N, NT, M, QT …
        yield_mpa: Specified minimum yield or proof strength at the thinnest step [MPa].
        chemistry: Least and most of each known element, % by mass.

    Returns:
        The group with what decided it.

    Example:
        >>> group_of(family="carbon", condition="M", yield_mpa=460, chemistry={"C": (0, 0.16)}).group
        '2.1'
    """
    if family in ("carbon", "weathering"):
        return _carbon(family, condition, yield_mpa, chemistry)
    if family == "cr-mo":
        return _cr_mo(condition, yield_mpa, chemistry)
    if family == "ni-steel":
        return _by(chemistry, "Ni", ((3.0, "9.1"), (8.0, "9.2"), (10.0, "9.3")))
    if family in ("ferritic", "martensitic", "ph-stainless"):
        group = {"ferritic": "7.1", "martensitic": "7.2", "ph-stainless": "7.3"}[family]
        return Grouped(group=group, reason=tr("{family} stainless steel", family=family))
    if family == "austenitic":
        manganese = _middle(chemistry, "Mn") or 0.0
        if manganese > 4:
            return Grouped(
                group="8.3", reason=tr("austenitic with about {manganese:g} % Mn", manganese=manganese)
            )
        return _by(chemistry, "Cr", ((19.0, "8.1"), (30.0, "8.2")))
    if family == "duplex":
        nickel = _middle(chemistry, "Ni")
        if nickel is not None and nickel <= 4:
            return Grouped(group="10.3", reason=tr("lean duplex, about {nickel:g} % Ni", nickel=nickel))
        return _by(chemistry, "Cr", ((24.0, "10.1"), (30.0, "10.2")))
    if family == "nickel":
        return _nickel(chemistry)
    if family == "aluminium":
        return _aluminium(chemistry)
    if family == "aluminium-cast":
        return _aluminium_cast(chemistry)
    return _copper(chemistry)


def _by(chemistry: Limits, element: str, steps: tuple[tuple[float, str], ...]) -> Grouped:
    share = _middle(chemistry, element)
    if share is None:
        return Grouped(group=None, reason=tr("the {element} content is not known", element=element))
    for top, group in steps:
        if share <= top:
            return Grouped(
                group=group,
                reason=tr(
                    "about {share:g} % {element}, up to {top:g}", share=share, element=element, top=top
                ),
            )
    return Grouped(
        group=None,
        reason=tr(
            "about {share:g} % {element} is above {steps:g}", share=share, element=element, steps=steps[-1][0]
        ),
    )


_MOST_CARBON_QT_PERCENT = 0.30
"""Machine steels such as 42CrMo4 are no weldable steels of group 3 (the stricter reading)."""


def _carbon(family: Family, condition: str, yield_mpa: float | None, chemistry: Limits) -> Grouped:
    if yield_mpa is None:
        return Grouped(group=None, reason=tr("the minimum yield is not known"))
    said = tr("minimum yield {yield_mpa:g} MPa", yield_mpa=yield_mpa)
    if condition == "QT" and yield_mpa > 360:
        group = "3.1" if yield_mpa <= 690 else "3.2"
        return Grouped(group=group, reason=tr("quenched and tempered, {said}", said=said))
    if family == "weathering":
        return Grouped(group="1.4", reason=tr("weathering steel"))
    if condition == "M" and yield_mpa > 360:
        return Grouped(
            group="2.1" if yield_mpa <= 460 else "2.2",
            reason=tr("thermomechanically rolled, {said}", said=said),
        )
    if yield_mpa > 460:
        return Grouped(
            group=None,
            reason=tr(
                "{said} is above group 1, and {condition} is neither M nor QT", said=said, condition=condition
            ),
        )
    carbon = _most(chemistry, "C")
    if carbon > 0.25:
        group = "11.1" if carbon <= 0.35 else "11.2" if carbon <= 0.5 else "11.3"
        return Grouped(group=group, reason=tr("up to {carbon:g} % C", carbon=carbon))
    group = "1.1" if yield_mpa <= 275 else "1.2" if yield_mpa <= 360 else "1.3"
    return Grouped(group=group, reason=said)


def _cr_mo(condition: str, yield_mpa: float | None, chemistry: Limits) -> Grouped:
    chromium, molybdenum = _middle(chemistry, "Cr"), _middle(chemistry, "Mo")
    if chromium is None or molybdenum is None:
        return Grouped(group=None, reason=tr("Cr and Mo are not known"))
    if condition == "QT" and _most(chemistry, "C") > _MOST_CARBON_QT_PERCENT:
        return Grouped(group=None, reason=tr("quenched and tempered with so much C in no group known here"))
    if condition == "QT" and yield_mpa is not None and yield_mpa > 360 and chromium <= 3.5:
        group = "3.1" if yield_mpa <= 690 else "3.2"
        return Grouped(
            group=group,
            reason=tr("quenched and tempered, minimum yield {yield_mpa:g} MPa", yield_mpa=yield_mpa),
        )
    said = tr("about {chromium:g} % Cr, {molybdenum:g} % Mo", chromium=chromium, molybdenum=molybdenum)
    if (_middle(chemistry, "V") or 0.0) > 0.1:
        steps = ((0.75, "6.1"), (3.5, "6.2"), (7.0, "6.3"), (12.5, "6.4"))
        for top, group in steps:
            if 0.3 <= chromium <= top:
                return Grouped(group=group, reason=tr("{said}, with V", said=said))
        return Grouped(group=None, reason=tr("{said}, with V, is in no group", said=said))
    bands = (
        (0.75, 1.5, 0.0, 0.7, "5.1"),
        (1.5, 3.5, 0.7, 1.2, "5.2"),
        (3.5, 7.0, 0.4, 0.7, "5.3"),
        (7.0, 10.0, 0.7, 1.2, "5.4"),
    )
    for low, high, mo_low, mo_high, group in bands:
        if low <= chromium <= high and mo_low < molybdenum <= mo_high:
            return Grouped(group=group, reason=said)
    if chromium <= 0.3 and yield_mpa is not None:
        return Grouped(
            group="1.1" if yield_mpa <= 275 else "1.2", reason=tr("{said}: within group 1", said=said)
        )
    return Grouped(group=None, reason=tr("{said} is in no group", said=said))


def _nickel(chemistry: Limits) -> Grouped:
    nickel, iron = _middle(chemistry, "Ni") or 0.0, chemistry.get("Fe", (0.0, 0.0))[0]
    copper, cobalt = _middle(chemistry, "Cu") or 0.0, _middle(chemistry, "Co") or 0.0
    chromium, molybdenum = _middle(chemistry, "Cr") or 0.0, _middle(chemistry, "Mo") or 0.0
    if nickel >= 99:
        return Grouped(group="41", reason=tr("pure nickel"))
    if cobalt >= 10:
        return Grouped(group="46", reason="Ni-Cr-Co")
    if iron >= 20:
        return Grouped(group="45", reason="Ni-Fe-Cr")
    if copper >= 10 and nickel >= 45:
        return Grouped(group="42", reason="Ni-Cu")
    if molybdenum > 20 and chromium < 5:
        return Grouped(group="44", reason="Ni-Mo")
    if chromium >= 5 and nickel >= 40:
        return Grouped(group="43", reason="Ni-Cr")
    return Grouped(group=None, reason=tr("its main elements fit no group known here"))


def _aluminium(chemistry: Limits) -> Grouped:
    if _most(chemistry, "Al") >= 99.9 and chemistry["Al"][0] >= 99:
        return Grouped(group="21", reason=tr("pure aluminium, at most 1 % others"))
    if (_middle(chemistry, "Zn") or 0.0) > 2:
        return Grouped(group="23.2", reason="Al-Zn-Mg")
    magnesium, silicon = _middle(chemistry, "Mg"), _middle(chemistry, "Si")
    if magnesium is not None and silicon is not None:
        return Grouped(group="23.1", reason="Al-Mg-Si")
    if magnesium is not None:
        group = "22.2" if magnesium <= 1.5 else "22.3" if magnesium <= 3.5 else "22.4"
        return Grouped(group=group, reason=tr("Al-Mg with about {magnesium:g} % Mg", magnesium=magnesium))
    if _middle(chemistry, "Mn") is not None:
        return Grouped(group="22.1", reason="Al-Mn")
    return Grouped(group=None, reason=tr("its main elements are not known"))


def _aluminium_cast(chemistry: Limits) -> Grouped:
    silicon, copper = _middle(chemistry, "Si") or 0.0, _middle(chemistry, "Cu") or 0.0
    if silicon > 5:
        if copper > 1:
            return Grouped(group="25", reason=tr("Al-Si-Cu casting"))
        mg = _middle(chemistry, "Mg") or 0.0
        return Grouped(group="24.2" if mg > 0.1 else "24.1", reason=tr("Al-Si casting"))
    if 2 < copper <= 6:
        return Grouped(group="26", reason=tr("Al-Cu casting"))
    return Grouped(group=None, reason=tr("its main elements fit no group known here"))


def _copper(chemistry: Limits) -> Grouped:
    least = chemistry.get("Cu", (0.0, 0.0))[0]
    others = {name: _middle(chemistry, name) or 0.0 for name in chemistry if name != "Cu"}
    if least >= 99.9 and not others:
        return Grouped(group="31", reason=tr("pure copper"))
    zinc, nickel = others.get("Zn", 0.0), others.get("Ni", 0.0)
    if zinc > 5 and nickel > 5:
        return Grouped(group="36", reason="Cu-Ni-Zn")
    if zinc > 5:
        return Grouped(group="32.1" if len(others) == 1 else "32.2", reason="Cu-Zn")
    if others.get("Sn", 0.0) > 2:
        return Grouped(group="33", reason="Cu-Sn")
    if others.get("Al", 0.0) > 5:
        return Grouped(group="35", reason="Cu-Al")
    if nickel > 5:
        return Grouped(group="34", reason="Cu-Ni")
    total = sum(others.values())
    return Grouped(group="37" if total < 5 else "38", reason=tr("about {total:g} % others", total=total))
