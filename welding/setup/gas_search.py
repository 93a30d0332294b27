"""Gases that shops keep, found by their mix, their symbol, or what they are for."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.consumables.gas import gas_text, read_gas
from welding.consumables.gas_symbol import GasSymbol, gas_symbol
from welding.errors import UnreadableError
from welding.language import tr


@dataclass(frozen=True, slots=True, kw_only=True)
class GasFound:
    """A gas: its mix, its symbols, what it is for (empty where it is not on the list)."""

    written: str
    components_percent: Mapping[str, float]
    symbol: GasSymbol
    use: str


@by_book(8)
def common_gases() -> tuple[GasFound, ...]:
    """The list to choose from."""
    return tuple(
        _found(read_gas(row["gas"]), tr(row["use"]))
        for row in load_table("welding.setup", "common_gases").rows
    )


def _found(shares: Mapping[str, float], use: str) -> GasFound:
    return GasFound(written=gas_text(shares), components_percent=shares, symbol=gas_symbol(shares), use=use)


def search_gases(text: str) -> tuple[GasFound, ...]:
    """Gases that people may mean; a mix that is not on the list comes first, by itself.

    Example:
        >>> search_gases("C25")[0].symbol.iso_14175
        'M21'
    """
    wanted = text.strip().lower()
    if not wanted:
        return common_gases()
    try:
        asked = [_found(read_gas(text), "")]
    except UnreadableError:
        asked = []
    listed = {one.written: one for one in common_gases()}
    first = [listed.get(one.written, one) for one in asked]
    words = wanted.split()
    others = [
        one
        for one in common_gases()
        if one not in first
        and all(
            word in f"{one.written} {one.symbol.iso_14175_mix} {one.symbol.aws_a5_32} {one.use}".lower()
            for word in words
        )
    ]
    return (*first, *others)
