"""Wire and rod of ISO system A: 14341, 636, 14343 (stainless), 16834 (high strength), 21952 (creep)."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from welding.consumables.designations.iso_words import (
    GASES,
    HYDROGEN,
    Words,
    read_gas_mark,
    read_impact,
    read_strength,
    weld_metal,
)
from welding.consumables.designations.model import Decoded, RefusedError, Token, read_from
from welding.consumables.designations.text import rows, table
from welding.language import tr


def stainless_wire(letter: str, row: Any) -> Decoded:
    """Stainless wire, rod, strip of ISO 14343-A, by its composition."""
    product, process = {
        "G": ("solid wire", "135"),
        "W": ("rod", "141"),
        "P": ("plasma wire", "15"),
        "S": ("wire for submerged arc", "121"),
        "B": ("strip", "122"),
        "L": ("wire for laser", "52"),
    }[letter]
    cousin = tr(", near AWS {row}", row=row["aws"]) if row.get("aws") else ""
    return Decoded(
        valid=True,
        designation=f"{letter} {row['symbol']}",
        system="ISO 14343-A",
        product=product,
        process=process,
        processes=(process,),
        meaning=(
            Token(letter, tr(product)),
            Token(str(row["symbol"]), tr("nominal Cr, Ni, Mo{cousin}", cousin=cousin)),
        ),
        polarities={"G": ("DCEP",), "W": ("DCEN",)}.get(letter, ()),
        gases=("I1",) if letter == "W" else (),
        shielding="gas" if letter in "GWP" else "none",
        positions="all" if letter in "GW" else "",
        tensile_mpa=row.get("tensile_mpa"),
        yield_mpa=row.get("yield_mpa"),
        notes=(tr("strengths are informative"),) if row.get("tensile_mpa") else (),
        sources=read_from(table("iso_14343")),
    )


def _symbol(words: Words, near: tuple[str, ...]) -> str:
    said = words.take()
    row = rows("iso_wire").get(said) or rows("iso_wire").get(re.sub(r"^[GW](?=\d|Z)", "", said))
    if row is None:
        raise RefusedError(tr("{value} is no wire symbol of system A", value=said or tr("nothing")), near)
    words.tokens.append(Token(str(row["symbol"]), str(row["words"])))
    return str(row["symbol"])


def wire(words: Words) -> Decoded:
    """Solid wire: ISO 14341-A, 16834-A (above strength 50), 21952-A (creep-resisting).

    Raises:
        RefusedError: It is no class.
    """
    words.tokens.append(Token("G", tr("solid wire, gas-shielded")))
    if _is_creep(words):
        return _creep(words, "G")
    if words.peek() in rows("iso_strength_high"):
        return _high(words, "G")
    common = replace(_of("G", "ISO 14341-A"), sources=read_from(table("iso_strength"), table("iso_wire")))
    near = ("G 42 4 M21 3Si1", "G 46 4 M21 4Si1")
    if len(words.left) == 1:
        symbol = _symbol(words, near)
        return replace(
            common,
            designation=f"G {symbol}",
            meaning=tuple(words.tokens),
            notes=(tr("the wire alone: strength and impact are those of no weld metal"),),
        )
    strength, impact, gases = read_strength(words), read_impact(words), read_gas_mark(words)
    symbol = _symbol(words, near)
    words.done(near)
    return weld_metal(replace(common, gases=gases), words, strength, impact)


def rod(words: Words) -> Decoded:
    """Rod for TIG: ISO 636-A, 16834-A, 21952-A.

    Raises:
        RefusedError: It is no class.
    """
    words.tokens.append(Token("W", tr("rod for TIG")))
    if _is_creep(words):
        return _creep(words, "W")
    if words.peek() in rows("iso_strength_high"):
        return _high(words, "W")
    near = ("W 42 5 3Si1", "W 46 5 W3Si1")
    common = replace(_of("W", "ISO 636-A"), sources=read_from(table("iso_strength"), table("iso_wire")))
    if len(words.left) == 1:
        symbol = _symbol(words, near)
        return replace(common, designation=f"W {symbol}", meaning=tuple(words.tokens))
    strength, impact = read_strength(words), read_impact(words)
    if words.peek() in GASES:
        raise RefusedError(tr("a TIG rod has no gas mark: argon is implied"), near)
    _symbol(words, near)
    if HYDROGEN.match(words.peek()):
        raise RefusedError(tr("a TIG rod has no hydrogen mark"), near)
    words.done(near)
    return weld_metal(common, words, strength, impact)


def _of(letter: str, system: str) -> Decoded:
    """What wire (G) and rod (W) have in common, whatever their standard."""
    bare = letter == "G"
    return Decoded(
        valid=True,
        designation="",
        system=system,
        product="solid wire" if bare else "rod",
        process="135" if bare else "141",
        processes=("135",) if bare else ("141",),
        polarities=("DCEP",) if bare else ("DCEN",),
        gases=() if bare else ("I1",),
        shielding="gas",
        positions="all",
    )


def _high(words: Words, letter: str) -> Decoded:
    near = ("G 69 4 M21 Mn3Ni1CrMo",) if letter == "G" else ("W 69 5 Mn3Ni1CrMo",)
    strength, impact = read_strength(words, high=True), read_impact(words)
    gases = read_gas_mark(words) if letter == "G" else ("I1",)
    said = words.take()
    row = rows("iso_alloy_high").get(said)
    if row is None or "wire" not in row["products"]:
        raise RefusedError(
            tr("{value} is no alloy of ISO 16834 known here", value=said or tr("nothing")), near
        )
    words.tokens.append(Token(str(row["symbol"]), "agreed" if said == "Z" else tr("nominal composition")))
    if words.peek() == "T":
        words.tokens.append(Token(words.take(), tr("tested after stress relief")))
    words.done(near)
    source = read_from(table("iso_strength_high"), table("iso_alloy_high"))
    return weld_metal(
        replace(_of(letter, "ISO 16834-A"), gases=gases, sources=source), words, strength, impact
    )


def _is_creep(words: Words) -> bool:
    row = rows("iso_creep").get(words.peek())
    return len(words.left) == 1 and row is not None and "wire" in row["products"]


def _creep(words: Words, letter: str) -> Decoded:
    row = rows("iso_creep")[words.take()]
    words.tokens.append(Token(str(row["symbol"]), str(row["words"])))
    return replace(
        _of(letter, "ISO 21952-A"),
        designation=f"{letter} {row['symbol']}",
        meaning=tuple(words.tokens),
        tensile_mpa=row["tensile_mpa"],
        yield_mpa=row["yield_mpa"],
        notes=(tr("strength after heat treatment"),),
        sources=read_from(table("iso_creep")),
    )
