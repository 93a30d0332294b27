"""ISO system A, word by word: strength, impact, gas, position, hydrogen."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from welding.consumables.designations.model import Decoded, RefusedError, Token
from welding.consumables.designations.text import options, rows

IMPACTS = {"Z": None, "A": 20, "0": 0, **{str(n): -10 * n for n in range(2, 11)}}
GASES = {
    "C": "C1",
    "C1": "C1",
    "C2": "C2",
    "M": "M2",
    **{f"M{n}": f"M{n}" for n in (*range(11, 15), *range(20, 28), *range(31, 36))},
}
NO_GAS = ("N", "NO")
POSITIONS = {
    "1": ("all", "all positions"),
    "2": ("all-but-vertical-down", "all positions but vertical downwards"),
    "3": ("flat-horizontal", "flat butt, flat and horizontal fillet"),
    "4": ("flat", "flat butt and flat fillet"),
    "5": ("flat-horizontal-vertical-down", "vertical downwards, and as 3"),
}
HYDROGEN = re.compile(r"^H(\d{1,2})$")


class Words:
    """The words of a designation, taken one after the other."""

    def __init__(self, text: str) -> None:
        self.left = text.split(" ")
        self.tokens: list[Token] = []

    def take(self) -> str:
        """The next word, taken away; empty at the end."""
        return self.left.pop(0) if self.left else ""

    def peek(self) -> str:
        """The next word, left where it is."""
        return self.left[0] if self.left else ""

    def done(self, near: tuple[str, ...]) -> None:
        """Refuse what is left over."""
        if self.left:
            raise RefusedError(f"{' '.join(self.left)} is not expected at the end", near)


def read_strength(words: Words, *, high: bool = False) -> Any:
    """Strength number; above 50 only where ``high`` allows it."""
    said = words.take()
    row = rows("iso_strength").get(said)
    if row is None and high:
        row = rows("iso_strength_high").get(said)
    if row is None:
        known = options([key for key in rows("iso_strength") if key.isdigit()])
        raise RefusedError(
            f"{said or 'nothing'} is no strength of system A: {known} are", ("G 42 4 M21 3Si1",)
        )
    words.tokens.append(
        Token(said, f"yield at least {row['yield_mpa']} MPa, tensile at least {row['tensile_mpa']} MPa")
    )
    return row


def read_impact(words: Words) -> int | None:
    """Impact mark: temperature of 47 J [°C]; ``None`` for Z."""
    said = words.take()
    if said not in IMPACTS:
        raise RefusedError(
            f"{said or 'nothing'} is no impact mark of system A: Z, A, 0 and 2 to 10 are (1 does not exist)"
        )
    at = IMPACTS[said]
    words.tokens.append(Token(said, "no impact requirement" if at is None else f"47 J at {at} °C"))
    return at


def read_hydrogen(words: Words) -> float | None:
    """Hydrogen mark [ml/100 g], where one stands."""
    match = HYDROGEN.match(words.peek())
    if not match:
        return None
    said = words.take()
    if match[1] not in ("5", "10", "15"):
        aws = match[1] in ("4", "8", "16")
        raise RefusedError(f"{said} is {'a mark of AWS' if aws else 'no mark'}; ISO has H5, H10 and H15")
    words.tokens.append(Token(said, f"at most {match[1]} ml hydrogen in 100 g of deposit"))
    return float(match[1])


def read_gas_mark(words: Words) -> tuple[str, ...]:
    """Group of gas it was classified with; empty for Z."""
    said = words.take()
    if said not in GASES and said != "Z":
        raise RefusedError(f"{said or 'nothing'} is no gas mark: C1, M12, M20, M21 … are")
    words.tokens.append(
        Token(
            said,
            "agreed gas" if said == "Z" else f"classified with a gas of group {GASES[said]} (ISO 14175)",
        )
    )
    return () if said == "Z" else (GASES[said],)


def weld_metal(common: Decoded, words: Words, strength: Any, impact: int | None) -> Decoded:
    """The designation as it was read, with strength and toughness of the weld metal."""
    return replace(
        common,
        designation=" ".join(token.text for token in words.tokens),
        meaning=tuple(words.tokens),
        tensile_mpa=strength["tensile_mpa"],
        yield_mpa=strength["yield_mpa"],
        impact_j=None if impact is None else 47,
        impact_c=impact,
    )
