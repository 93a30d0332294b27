"""Gas groups: the ISO 14175 symbol of a composition, its mix strings, and what may be welded with it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.table import Table, load_table
from welding.language import tr

MetalFamily = Literal["steel", "stainless", "aluminium"]
_ISO_LETTERS = {"Ar": "Ar", "He": "He", "CO2": "C", "O2": "O", "H2": "H", "N2": "N", "NO": "NO"}
_AWS_LETTERS = {**_ISO_LETTERS, "Ar": "A"}
_ORDER = tuple(_ISO_LETTERS)
_ACTIVE = ("CO2", "O2", "H2", "N2")
SLACK = 1e-9
"""Shares that were computed as the rest of 100 % may miss a boundary by this much."""


@dataclass(frozen=True, slots=True, kw_only=True)
class GasSymbol:
    """What a composition is called.

    Attributes:
        iso_14175: Group, such as ``M21``; ``Z`` for everything the table does not list.
        iso_14175_mix: Group and mix, such as ``M21-ArC-18``.
        aws_a5_32: Older AWS form, such as ``SG-AC-18``.
        nature: inert, oxidising, reducing …; empty for Z.
        citation: Where the group's limits stand.
        unchecked: The table's id while nobody has compared it.
    """

    iso_14175: str
    iso_14175_mix: str
    aws_a5_32: str
    nature: str
    citation: Citation
    unchecked: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class TransferModes:
    """Transfer modes of solid wire; ``limited`` ones are possible with care."""

    usual: tuple[str, ...]
    limited: tuple[str, ...]
    note: str
    citation: Citation

    @property
    def all(self) -> tuple[str, ...]:
        """Every mode that is possible."""
        return (*self.usual, *self.limited)


def _groups() -> Table:
    return load_table("welding.consumables", "iso_14175")


def gas_symbol(components: Mapping[Any, float]) -> GasSymbol:
    """Name a composition.

    Args:
        components: Shares in % by volume by component, summing to 100.

    Returns:
        Its one symbol and its mix strings. Every composition has one: what fits no group is Z.

    Example:
        >>> gas_symbol({"Ar": 82, "CO2": 18}).iso_14175_mix
        'M21-ArC-18'
    """
    return _symbol_of(tuple((str(name), share) for name, share in components.items() if share > 0))


@by_book(512)
def _symbol_of(parts: tuple[tuple[str, float], ...]) -> GasSymbol:
    shares = dict(parts)
    table = _groups()
    row = next((row for row in table.rows if _fits(row, shares)), None)
    symbol = str(row["symbol"]) if row else "Z"
    return GasSymbol(
        iso_14175=symbol,
        iso_14175_mix=_mix(symbol, shares, _ISO_LETTERS),
        aws_a5_32="SG-" + _aws_mix(shares),
        nature=tr(str(row["nature"])) if row else "",
        citation=table.citation_of(row) if row else table.citation,
        unchecked=table.unchecked,
    )


def _fits(row: Mapping[str, Any], shares: Mapping[str, float]) -> bool:
    base = row["base"]
    if base in ("Ar", "He", "CO2", "N2", "O2"):
        allowed = {base, *(name for name in _ACTIVE if name in row)}
        return (
            base in shares
            and set(shares) <= allowed
            and all(_within(row[name], shares.get(name, 0.0)) for name in _ACTIVE if name in row)
        )
    if base == "Ar/He":
        return set(shares) == {"Ar", "He"} and _within(row["He"], shares["He"])
    # Argon balance, of which helium may be a part or all.
    inert = shares.get("Ar", 0.0) + shares.get("He", 0.0)
    if inert <= 0 or "NO" in shares:
        return False
    return all(
        _within(row[name], shares.get(name, 0.0)) if name in row else name not in shares for name in _ACTIVE
    )


def _within(limits: Mapping[str, float], share: float) -> bool:
    if share > limits["to"] + SLACK:
        return False
    return share > limits["over"] + SLACK if "over" in limits else share >= limits["from"] - SLACK


def _ordered(shares: Mapping[str, float]) -> list[str]:
    """Base gas first, then the others by falling share; equal ones in a fixed order."""
    return sorted(shares, key=lambda name: (-shares[name], _ORDER.index(name)))


def _mix(symbol: str, shares: Mapping[str, float], letters: Mapping[str, str]) -> str:
    names = _ordered(shares)
    if len(names) == 1:
        return symbol
    text = "".join(f"+{letters[name]}" if name == "NO" else letters[name] for name in names)
    return f"{symbol}-{text}-{'/'.join(_number(shares[name]) for name in names[1:])}"


def _aws_mix(shares: Mapping[str, float]) -> str:
    names = _ordered(shares)
    if "NO" in shares:  # a special mix: base gas and G
        return f"{_AWS_LETTERS[names[0]]}-G"
    text = "".join(_AWS_LETTERS[name] for name in names)
    return text if len(names) == 1 else f"{text}-{'/'.join(_number(shares[name]) for name in names[1:])}"


def _number(share: float) -> str:
    return f"{round(share, 4):g}"


def transfer_modes(components: Mapping[Any, float], metal: MetalFamily) -> TransferModes:
    """Transfer modes of solid wire in this gas on this metal (common practice).

    Returns:
        The modes; none of them where the gas is no gas for wire on this metal.

    Example:
        >>> transfer_modes({"Ar": 75, "CO2": 25}, "steel").usual
        ('short-circuit', 'globular')
    """
    table = load_table("welding.consumables", "transfer_by_gas")
    symbol = gas_symbol(components).iso_14175
    carbon, helium = components.get("CO2", 0.0), components.get("He", 0.0)
    for row in table.rows:
        if symbol not in row["groups"] or helium < row.get("helium_from", 0.0):
            continue
        if "co2_to" in row and not row["co2_over"] < carbon <= row["co2_to"] + SLACK:
            continue
        return TransferModes(
            usual=tuple(row.get(metal, ())),
            limited=tuple(row.get(f"{metal}_limited", ())),
            note=tr(row.get("note", "")),
            citation=table.citation_of(row),
        )
    return TransferModes(usual=(), limited=(), note="", citation=table.citation)
