"""Fillers as people ask for them: ``.045 E71T-1``, ``gas-shielded flux-core 1.2``, ``304``."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.consumables.designations.model import Decoded
from welding.errors import UnreadableError
from welding.quantities.reading import read_quantity

_SIZE = re.compile(r'^(?:0?\.\d{2,4}(?:in|")?|\d+/\d+(?:in|")?|\d+(?:\.\d+)?mm|\d\.\d{1,2})$')


@dataclass(frozen=True, slots=True, kw_only=True)
class FillerFound:
    """A filler that may be meant.

    Attributes:
        decoded: What its class says.
        metal: Family of metals it is mostly for; empty where it is not on the list.
        said: What people call it.
        diameter_mm: Diameter that was asked for with it.
        nominal: The size as it was typed.
    """

    decoded: Decoded
    metal: str
    said: str
    diameter_mm: float | None
    nominal: str | None


@by_book(8)
def common_fillers() -> tuple[tuple[Decoded, Mapping[str, Any]], ...]:
    """The list to choose from, decoded."""
    rows = load_table("welding.setup", "common_fillers").rows
    return tuple((decode(row["designation"]), row) for row in rows)


def _plain(text: str) -> str:
    return re.sub(r"[^a-z0-9.%]", "", text.lower()).replace("aluminum", "aluminium")


def _size(words: list[str]) -> tuple[float | None, str | None, list[str]]:
    """The diameter among the words, as typed, and the other words."""
    joined: list[str] = []
    for word in words:  # "1.2 mm" is one size
        if word in ("mm", "in", "inch") and joined and re.fullmatch(r"[\d./]+", joined[-1]):
            joined[-1] += "in" if word == "inch" else word
        else:
            joined.append(word)
    for index, word in enumerate(joined):
        if not _SIZE.match(word):
            continue
        try:
            found = read_quantity(word, kind="wire_diameter", shown_unit="mm")
        except UnreadableError:
            continue
        return found.value, word, joined[:index] + joined[index + 1 :]
    return None, None, joined


def search_fillers(text: str, most: int = 12) -> tuple[FillerFound, ...]:
    """Fillers that people may mean, the likeliest first.

    Args:
        text: A designation, some words, a size, in any order; empty lists the first ones.
        most: How many at the most.

    Example:
        >>> one = search_fillers(".045 E71T-1M")[0]
        >>> one.decoded.designation, round(one.diameter_mm, 3)
        ('E71T-1M', 1.143)
    """
    diameter, nominal, words = _size(text[:200].split())
    rest = " ".join(words)
    exact = decode(rest) if rest else None
    ranked: list[tuple[int, int, Decoded, str, str]] = []
    if exact is not None and exact.valid:
        row = next((r for d, r in common_fillers() if d.designation == exact.designation), None)
        ranked.append((0, 0, exact, row["metal"] if row else "", row["said"] if row else ""))
    whole, wanted = _plain(rest), [_plain(word) for word in words]
    for index, (one, row) in enumerate(common_fillers()):
        if exact is not None and exact.valid and one.designation == exact.designation:
            continue
        name = _plain(one.designation)
        told = name + "|" + _plain(row["said"]) + "|" + _plain(f"{row['metal']} {one.product} {one.process}")
        if whole and name.startswith(whole):
            rank = 1
        elif whole and whole in name:
            rank = 2
        elif all(word in told for word in wanted):
            rank = 3
        else:
            continue
        ranked.append((rank, index, one, row["metal"], row["said"]))
    if not ranked and exact is not None:
        near = [decode(one) for one in exact.suggestions]
        ranked = [(4, n, one, "", "") for n, one in enumerate(near) if one.valid]
    return tuple(
        FillerFound(decoded=one, metal=metal, said=said, diameter_mm=diameter, nominal=nominal)
        for _, _, one, metal, said in sorted(ranked, key=lambda hit: hit[:2])[:most]
    )
