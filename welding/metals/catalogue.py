"""The catalogue of base metals: by name, by what people say, with the strength at a thickness."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Literal

from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.table import Table, load_table
from welding.metals.grouping import Family, Grouped, group_of

MPA_PER_KSI = 6.894757
"""NIST SP 811, published, rounded down: a reading of exactly the printed ksi is never just below it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Metal:
    """One grade.

    Attributes:
        name: Its name in the standard.
        also: Other names it goes by.
        standard: Product standard.
        family: carbon, austenitic, aluminium …
        condition: Delivery condition.
        yield_steps_mpa: Up to this thickness [mm], this minimum yield [MPa]; thinnest step first.
        tensile_mpa: Minimum tensile strength [MPa] of the thinnest step; ``None`` where an own record does
            not say.
        chemistry: Least and most of the elements that matter, % by mass.
        iso_15608: Listed group of ISO/TR 15608; empty where it is not known here.
        grouped: The group as computed, with what decided it.
        aws_d1_1: Listed group of AWS D1.1, where the code lists the steel.
        aws_d1_1_thick: Thickness above which it is in another group: mm, in, group.
        magnetic: Whether a magnet sticks (common practice).
        own: Whether it is a record of one's own and not of the catalogue.
        tensile_steps_mpa: The same by thickness, where the standard steps it; thinnest step first.
        tensile_ksi: Printed minimum [ksi] where it is not the MPa rounded to whole ksi.
        citation: Where it stands, with the row's confidence.
        unchecked: The table's id while nobody has compared it.
    """

    name: str
    also: tuple[str, ...]
    standard: str
    family: Family
    condition: str
    yield_steps_mpa: tuple[tuple[float, float], ...]
    tensile_mpa: float | None
    chemistry: dict[str, tuple[float, float]]
    iso_15608: str
    grouped: Grouped
    aws_d1_1: str | None
    aws_d1_1_thick: tuple[float, float, str] | None
    magnetic: bool
    citation: Citation
    unchecked: tuple[str, ...]
    own: bool = False
    tensile_ksi: float | None = None
    tensile_steps_mpa: tuple[tuple[float, float], ...] = ()

    def tensile_at(self, thickness_mm: float | None) -> float | None:
        """Minimum tensile strength at a thickness [MPa]; the thinnest step's without one.

        ``None`` above the last step.

        Example:
            >>> find("S355J2").tensile_at(40), find("S355J2").tensile_at(120)
            (470.0, 450.0)
        """
        if thickness_mm is None or not self.tensile_steps_mpa:
            return self.tensile_mpa
        return next((value for top, value in self.tensile_steps_mpa if thickness_mm <= top), None)

    def tensile_printed_mpa(
        self, units: Literal["si", "us"], thickness_mm: float | None = None
    ) -> float | None:
        """Minimum tensile strength at a thickness as the column in force prints it [MPa].

        American standards print whole ksi beside rounded MPa, and neither is a conversion of the other:
        65 ksi stand beside 450 MPa.

        Example:
            >>> round(find("A572 Gr 50").tensile_printed_mpa("us"), 1)
            448.2
        """
        least = self.tensile_at(thickness_mm)
        if units == "si" or least is None or not self.standard.startswith(("ASTM", "API")):
            return least
        first = self.tensile_ksi if least == self.tensile_mpa else None
        return (first or round(least / MPA_PER_KSI)) * MPA_PER_KSI

    def yield_at(self, thickness_mm: float | None) -> float | None:
        """Minimum yield at a thickness [MPa]; the thinnest step's without one, none above the last step.

        Example:
            >>> find("S355J2+N").yield_at(20)
            345.0
        """
        if thickness_mm is None:
            return self.yield_steps_mpa[0][1] if self.yield_steps_mpa else None
        return next((value for top, value in self.yield_steps_mpa if thickness_mm <= top), None)

    def aws_group_at(self, thickness_mm: float | None, units: Literal["si", "us"]) -> str | None:
        """Group of AWS D1.1 at a thickness, by the printed column that governs.

        Example:
            >>> find("A36").aws_group_at(25, "si")
            'II'
        """
        if self.aws_d1_1_thick is None or thickness_mm is None:
            return self.aws_d1_1
        above_mm, above_in, group = self.aws_d1_1_thick
        limit_mm = above_mm if units == "si" else above_in * 25.4
        return group if thickness_mm > limit_mm * (1 + 1e-9) else self.aws_d1_1


MAGNETIC = ("carbon", "weathering", "cr-mo", "ni-steel", "ferritic", "martensitic", "ph-stainless", "duplex")
_PREFIX = re.compile(r"^(?:ASTM|ASME|ABS|EN AW-?|EN \d{4,5}(?:-\d+)?:? (?=\S)|EN|UNS|SAE|AISI|GR(?:ADE)?)\s*")
_TWIN = re.compile(r"^S(A[- ]?\d{2,3}\b|A[- ]?\d{2,3}(?=[A-Z/ -]))")
"""ASME's twin of an ASTM specification: SA-516."""
_TUBE = re.compile(r"^TP(?=3\d\d)")


@by_book(8)
def all_metals() -> tuple[Metal, ...]:
    """Every grade in the order of the table."""
    table = load_table("welding.metals", "grades")
    return tuple(_metal(table, row) for row in table.rows)


def _metal(table: Table, row: Mapping[str, Any]) -> Metal:
    chemistry = {element: (low, high) for element, (low, high) in row["chemistry"].items()}
    thick = row.get("aws_d1_1_thick")
    steps = _steps(row["yield_steps_mpa"])
    return Metal(
        name=row["name"],
        also=tuple(row.get("also", ())),
        standard=row["standard"],
        family=row["family"],
        condition=row["condition"],
        yield_steps_mpa=steps,
        tensile_mpa=float(row["tensile_mpa"]),
        tensile_ksi=row.get("tensile_ksi"),
        tensile_steps_mpa=tuple(
            (float(top), float(value)) for top, value in row.get("tensile_steps_mpa", ())
        ),
        chemistry=chemistry,
        iso_15608=row.get("iso_15608", ""),
        grouped=group_of(
            family=row["family"], condition=row["condition"], yield_mpa=steps[0][1], chemistry=chemistry
        ),
        aws_d1_1=row.get("aws_d1_1"),
        aws_d1_1_thick=(thick["above_mm"], thick["above_in"], thick["group"]) if thick else None,
        magnetic=row["family"] in MAGNETIC,
        citation=replace(table.citation_of(row), document=row["standard"], clause=""),
        unchecked=table.unchecked,
    )


def _steps(plain: Any) -> tuple[tuple[float, float], ...]:
    return tuple((float(top), float(value)) for top, value in plain)


@lru_cache(maxsize=8192)
def name_key(text: str) -> str:
    """A name without what spellings differ in: case, blanks, hyphens, ``ASTM``, ``EN``, ``Gr.`` …

    Example:
        >>> name_key("ASTM A572/A572M Gr. 50") == name_key("A572 Grade 50")
        True
    """
    clean = re.sub(r"\s+", " ", text.strip().upper()).replace("GRADE", "GR").replace("CLASS", "CL")
    clean = re.sub(r"\b(GR|CL)\.", r"\1", clean)
    clean = _TUBE.sub("", _TWIN.sub(r"\1", _PREFIX.sub("", clean)))
    clean = re.sub(r"\b(A\d{2,4})\s*/\s*\1M\b", r"\1", clean)  # the metric twin of a specification
    return re.sub(r"[^A-Z0-9.+]", "", clean)


@by_book(8)
def _by_key() -> dict[str, Metal]:
    found: dict[str, Metal] = {}
    for metal in all_metals():
        for name in (metal.name, *metal.also):
            found.setdefault(name_key(name), metal)
    return found


@by_book(8)
def _by_short_key() -> dict[str, Metal]:
    """Names with the word for grade left out, as in ``A572-50`` and ``A106B``; only what is one grade."""
    found: dict[str, set[str]] = {}
    for metal in all_metals():
        for name in (metal.name, *metal.also):
            found.setdefault(_short(name_key(name)), set()).add(metal.name)
    names = _by_key()
    return {key: names[name_key(next(iter(of)))] for key, of in found.items() if len(of) == 1}


def _short(key: str) -> str:
    return re.sub(r"(?<=\d|L)(?:GR|CL)(?=[0-9A-Z])", "", key)


@by_book(8192)
def find(text: str) -> Metal | None:
    """The grade of this name, by any of its spellings; ``None`` where it is not in the catalogue.

    A delivery condition behind a plus sign (``S355J2+N``) and two names joined by a stroke
    (``1.4307 / 304L``) are understood.
    """
    key = name_key(text)
    names = _by_key()
    if key in names:
        return names[key]
    short = _by_short_key().get(_short(key))
    if short is not None:
        return short
    if "+" in key and key.split("+")[0] in names:
        return names[key.split("+")[0]]
    for part in re.split(r"[/,]", text):
        if name_key(part) in names and part != text:
            return names[name_key(part)]
    told = re.fullmatch(r"(.+?)\s*\((.+)\)\s*", text)
    if told:  # a name with a word of explanation, as in ``C12200 (Cu-DHP)``
        return find(told[1]) or find(told[2])
    without_temper = re.sub(r"(?<=\d{4})(?:T\d+|H\d+|O)$", "", key)
    return names.get(without_temper)


def search(text: str, most: int = 20) -> tuple[Metal, ...]:
    """Grades that people may mean, the likeliest first.

    Args:
        text: Some letters of a name, or words such as ``duplex``; empty lists the first ones.
        most: How many at the most.
    """
    words = [name_key(word) for word in text.split()]
    whole = name_key(text)
    ranked = []
    for index, metal in enumerate(all_metals()):
        names = [name_key(name) for name in (metal.name, *metal.also)]
        told = [*names, name_key(metal.family), name_key(metal.standard), name_key(metal.condition)]
        if whole in names:
            rank = 0
        elif any(name.startswith(whole) for name in names):
            rank = 1
        elif any(whole in name for name in names):
            rank = 2
        elif words and all(any(word in one for one in told) for word in words):
            rank = 3
        else:
            continue
        ranked.append((rank, index, metal))
    return tuple(metal for _, _, metal in sorted(ranked, key=lambda one: one[:2])[:most])
