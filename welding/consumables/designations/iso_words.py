"""ISO system A, word by word: strength, impact, gas, position, hydrogen."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from welding.consumables.designations.model import Decoded, RefusedError, Token
from welding.consumables.designations.text import options, rows
from welding.language import tr, tr_noop

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
    "1": ("all", tr_noop("all positions")),
    "2": ("all-but-vertical-down", tr_noop("all positions but vertical downwards")),
    "3": ("flat-horizontal", tr_noop("flat butt, flat and horizontal fillet")),
    "4": ("flat", tr_noop("flat butt and flat fillet")),
    "5": ("flat-horizontal-vertical-down", tr_noop("vertical downwards, and as 3")),
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
            raise RefusedError(tr("{left} is not expected at the end", left=" ".join(self.left)), near)


def read_strength(words: Words, *, high: bool = False) -> Any:
    """Strength number; above 50 only where ``high`` allows it."""
    said = words.take()
    row = rows("iso_strength").get(said)
    if row is None and high:
        row = rows("iso_strength_high").get(said)
    if row is None:
        known = options([key for key in rows("iso_strength") if key.isdigit()])
        raise RefusedError(
            tr("{value} is no strength of system A: {known} are", value=said or tr("nothing"), known=known),
            ("G 42 4 M21 3Si1",),
        )
    words.tokens.append(
        Token(
            said,
            tr(
                "yield at least {row} MPa, tensile at least {row2} MPa",
                row=row["yield_mpa"],
                row2=row["tensile_mpa"],
            ),
        )
    )
    return row


def read_impact(words: Words) -> int | None:
    """Impact mark: temperature of 47 J [°C]; ``None`` for Z."""
    said = words.take()
    if said not in IMPACTS:
        raise RefusedError(
            tr(
                "{value} is no impact mark of system A: Z, A, 0 and 2 to 10 are (1 does not exist)",
                value=said or tr("nothing"),
            )
        )
    at = IMPACTS[said]
    words.tokens.append(
        Token(said, tr("no impact requirement") if at is None else tr("47 J at {at} °C", at=at))
    )
    return at


def read_hydrogen(words: Words) -> float | None:
    """Hydrogen mark [ml/100 g], where one stands."""
    match = HYDROGEN.match(words.peek())
    if not match:
        return None
    said = words.take()
    if match[1] not in ("5", "10", "15"):
        aws = match[1] in ("4", "8", "16")
        raise RefusedError(
            tr(
                "{said} is {value}; ISO has H5, H10 and H15",
                said=said,
                value=tr("a mark of AWS") if aws else tr("no mark"),
            )
        )
    words.tokens.append(Token(said, tr("at most {match} ml hydrogen in 100 g of deposit", match=match[1])))
    return float(match[1])


def read_gas_mark(words: Words) -> tuple[str, ...]:
    """Group of gas it was classified with; empty for Z."""
    said = words.take()
    if said not in GASES and said != "Z":
        raise RefusedError(tr("{value} is no gas mark: C1, M12, M20, M21 … are", value=said or tr("nothing")))
    words.tokens.append(
        Token(
            said,
            tr("agreed gas")
            if said == "Z"
            else tr("classified with a gas of group {gases} (ISO 14175)", gases=GASES[said]),
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
