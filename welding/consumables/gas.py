"""Shielding gas as people write it: ``Ar+18CO2``, ``82Ar/18CO2``, ``CO2``, ``C25``."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from welding.errors import UnreadableError

_NAMES = {
    "AR": "Ar",
    "ARGON": "Ar",
    "HE": "He",
    "HELIUM": "He",
    "CO2": "CO2",
    "O2": "O2",
    "OXYGEN": "O2",
    "H2": "H2",
    "HYDROGEN": "H2",
    "N2": "N2",
    "NITROGEN": "N2",
}
_PART = re.compile(r"^(\d+(?:\.\d+)?)?\s*%?\s*([A-Z]+2?)\s*(\d+(?:\.\d+)?)?\s*%?$")
_C_MIX = re.compile(r"^C\s?(\d{1,2})$")


def read_gas(text: str) -> dict[str, float]:
    """Read a gas; return % by volume by component, base gas first.

    A component without a number takes what the others leave.

    Args:
        text: What was typed, at most 80 characters.

    Returns:
        Shares that sum to 100.

    Raises:
        UnreadableError: Not understood, ambiguous, or the shares do not sum to 100 %.

    Example:
        >>> read_gas("Ar+18CO2")
        {'Ar': 82.0, 'CO2': 18.0}
    """
    if len(text) > 80:
        raise UnreadableError(text[:80], f"{len(text)} characters are too many for a gas")
    clean = re.sub(r"\s+", " ", text.replace("₂", "2").replace(",", ".").upper()).strip()
    if not clean:
        raise UnreadableError(text, "nothing was typed")
    mix = _C_MIX.match(clean)
    if mix:
        share = float(mix[1])
        return {"Ar": 100 - share, "CO2": share}
    if re.fullmatch(r"[\d./ %]+", clean):
        raise UnreadableError(text, f"{text.strip()} does not name its gases: write Ar+25CO2 or 75Ar/25He")
    shares: dict[str, float | None] = {}
    for part in re.split(r"\s*[+/,;]\s*|(?<=[A-Z2%])\s+(?=\d)", clean):
        match = _PART.match(part)
        name = _NAMES.get(match[2]) if match else None
        if match is None or name is None:
            raise UnreadableError(
                text, f"{part.lower()!r} is no gas known here: Ar, He, CO2, O2, H2 and N2 are"
            )
        if name in shares:
            raise UnreadableError(text, f"{name} stands twice")
        number = match[1] or match[3]
        shares[name] = float(number) if number else None
    open_names = [name for name, share in shares.items() if share is None]
    known = sum(share for share in shares.values() if share is not None)
    if len(open_names) > 1:
        raise UnreadableError(text, f"the shares of {' and '.join(open_names)} are not said")
    if open_names:
        if known >= 100:
            raise UnreadableError(text, f"{known:g} % leave nothing for {open_names[0]}")
        shares[open_names[0]] = 100 - known
    elif abs(known - 100) > 0.05:
        raise UnreadableError(text, f"the shares sum to {known:g} %, not to 100 %")
    return {name: share for name, share in shares.items() if share}


def gas_text(components: Mapping[Any, float]) -> str:
    """Write a gas: its largest component, then the others by falling share.

    Example:
        >>> gas_text({"CO2": 18, "Ar": 82})
        'Ar+18CO2'
    """
    ordered = sorted(
        ((share, name) for name, share in components.items() if share > 0),
        key=lambda item: (-item[0], item[1]),
    )
    if not ordered:
        return ""
    return "+".join([ordered[0][1], *(f"{share:g}{name}" for share, name in ordered[1:])])
