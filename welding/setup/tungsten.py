"""Tungsten electrodes: what a type is, what it suits, what current a diameter carries."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.language import tr
from welding.ranges import Range

Suits = Literal["good", "fair", "limited", "poor", ""]
BALANCED_EN_SHARE = 0.55
"""Up to this share negative an AC wave heats the tungsten like a balanced one (common practice)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TungstenType:
    """One type of tungsten electrode.

    Attributes:
        iso: Name in ISO 6848; the AWS name where it has none there.
        aws: Name in AWS A5.12.
        also: What people call it.
        addition: What is added, % by mass.
        colour: Colour of the tip now, both systems.
        older: What a colour used to mean, where it can be mistaken.
        dcen: How well it suits electrode negative; empty where it varies.
        ac: How well it suits AC.
        thoriated: Whether its grinding dust is radioactive.
        citation: Where it stands.
        unchecked: The table's id while nobody has compared it.
    """

    iso: str
    aws: str
    also: tuple[str, ...]
    addition: str
    colour: str
    older: str
    dcen: Suits
    ac: Suits
    thoriated: bool
    citation: Citation
    unchecked: tuple[str, ...]

    @property
    def pure(self) -> bool:
        """Whether nothing is added; it carries less."""
        return self.iso == "WP"


@dataclass(frozen=True, slots=True, kw_only=True)
class CarriedCurrent:
    """What a tungsten carries [A]: one range a published family, and the widest of them."""

    families: tuple[Range, ...]
    citation: Citation
    unchecked: tuple[str, ...]

    @property
    def widest(self) -> Range:
        """From the least of any family to the most of any."""
        return Range(min(one.min for one in self.families), max(one.max for one in self.families))


@by_book(8)
def tungsten_types() -> tuple[TungstenType, ...]:
    """Every type, in the order of the table."""
    table = load_table("welding.setup", "tungsten_types")
    return tuple(
        TungstenType(
            iso=row["iso"],
            aws=row["aws"],
            also=tuple(row["also"]),
            addition=tr(row["addition"]),
            colour=tr(row["colour"]),
            older=row["older"],
            dcen=row.get("dcen", ""),
            ac=row.get("ac", ""),
            thoriated=row["thoriated"],
            citation=table.citation_of(row),
            unchecked=table.unchecked,
        )
        for row in table.rows
    )


def _key(text: str) -> str:
    return re.sub(r"[^a-z0-9.]", "", text.lower())


def tungsten_named(text: str) -> TungstenType | None:
    """The type of this name: ISO, AWS, or what people say; ``None`` where it is not known.

    Example:
        >>> tungsten_named("EWTh-2").iso
        'WTh20'
        >>> tungsten_named("2 % lanthanated").colour
        'blue'
    """
    wanted = _key(text)
    for one in tungsten_types():
        if wanted in {_key(name) for name in (one.iso, one.aws, *one.also)}:
            return one
    return None


def carried_current(
    diameter_mm: float,
    polarity: Literal["DCEN", "DCEP", "AC"],
    *,
    pure: bool = False,
    en_share: float | None = None,
) -> CarriedCurrent | None:
    """What a tungsten carries in argon.

    Args:
        diameter_mm: Its diameter; trade sizes within 0.2 mm of the table's are taken for them.
        polarity: Of the electrode.
        pure: Whether it is pure tungsten.
        en_share: On AC, the share of the period negative; above about a half an inverter's wave
            lets a size carry nearer its DCEN figure.

    Returns:
        The ranges of both published families; ``None`` where the table has none.

    Example:
        >>> carried_current(2.4, "DCEN").widest
        Range(min=150.0, max=250.0)
    """
    table = load_table("welding.setup", "tungsten_current")
    row = min(table.rows, key=lambda one: abs(one["diameter_mm"] - diameter_mm))
    if abs(row["diameter_mm"] - diameter_mm) > 0.2:
        return None
    columns: tuple[str, ...]
    if polarity == "DCEP":
        columns = ("dcep",)
    elif polarity == "DCEN":
        columns = ("dcen_pure_iso",) if pure else ("dcen_oxide_aws", "dcen_oxide_iso")
    elif pure:
        columns = ("ac_pure_iso",)
    elif en_share is not None and en_share <= BALANCED_EN_SHARE:
        columns = ("ac_oxide_balanced_aws", "ac_oxide_iso")
    else:
        columns = ("ac_oxide_unbalanced_aws", "ac_oxide_iso")
    families = tuple(Range(float(row[name][0]), float(row[name][1])) for name in columns if name in row)
    if not families:
        return None
    return CarriedCurrent(families=families, citation=table.citation_of(row), unchecked=table.unchecked)
