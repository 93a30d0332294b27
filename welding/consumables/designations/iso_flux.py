"""Cored wire and covered electrodes of ISO system A: 17632, 2560, and their kin for other steels.

Kin: 18276 and 18275 (high strength), 17633 and 3581 (stainless), 3580 (creep-resisting).
"""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from welding.consumables.designations.iso_words import (
    NO_GAS,
    POSITIONS,
    Words,
    read_gas_mark,
    read_hydrogen,
    read_impact,
    read_strength,
    weld_metal,
)
from welding.consumables.designations.model import Decoded, RefusedError, Runs, Shielding, Token, read_from
from welding.consumables.designations.text import rows, table
from welding.language import tr, tr_noop

_STAINLESS_CORES = {
    "R": tr_noop("rutile, slow freezing slag"),
    "P": tr_noop("rutile, fast freezing slag"),
    "M": tr_noop("metal powder"),
    "U": "self-shielded",
    "Z": tr_noop("another type"),
}


def _deposit(words: Words, *, cored: bool) -> None:
    row = rows("iso_deposit").get(words.peek())
    # Z alone could be the deposit or the core; a deposit has a core behind it.
    if row is None or (
        words.peek() == "Z" and cored and len(words.left) > 1 and words.left[1] not in rows("iso_core")
    ):
        return
    if (row["covered_only"] and cored) or (row["cored_only"] and not cored):
        raise RefusedError(
            tr(
                "{row} is no deposit of {value} in system A",
                row=row["symbol"],
                value=tr("cored wire") if cored else tr("covered electrodes"),
            )
        )
    words.take()
    words.tokens.append(Token(str(row["symbol"]), str(row["words"])))


def cored(words: Words) -> Decoded:
    """Cored wire: ISO 17632-A, and 18276-A above strength 50.

    Raises:
        RefusedError: It is no class.
    """
    words.tokens.append(Token("T", tr("flux-cored wire")))
    near = ("T 46 4 P M21 1 H5", "T 42 2 P C1 1 H10")
    high = words.peek() in rows("iso_strength_high")
    strength, impact = read_strength(words, high=high), read_impact(words)
    if high:
        _high_alloy(words, "ISO 18276", ("T 69 4 Mn2NiCrMo B M21 3 H5",))
    else:
        _deposit(words, cored=True)
    core = rows("iso_core").get(words.take())
    if core is None:
        raise RefusedError(tr("the type of core is missing or unknown: R, P, B, M, V, W, Y and Z are"), near)
    words.tokens.append(Token(str(core["symbol"]), f"{core['words']}; {core['runs']}-run"))
    shielding: Shielding = core["shielding"]
    runs: Runs = "single" if str(strength["number"]).endswith("T") else core["runs"]
    gases: tuple[str, ...] = ()
    if words.peek() in NO_GAS:
        if shielding == "gas":
            raise RefusedError(tr("core {core} needs a gas; N or NO means none", core=core["symbol"]), near)
        words.tokens.append(Token(words.take(), tr("no shielding gas")))
        shielding = "self"
    elif shielding == "self":
        raise RefusedError(
            tr("core {core} is self-shielded: N or NO stands behind it", core=core["symbol"]),
            ("T 42 3 Y N 1 H10",),
        )
    else:
        gases = read_gas_mark(words)
        shielding = "gas"
    if core["symbol"] == "V" and runs == "single" and not str(strength["number"]).endswith("T"):
        raise RefusedError(
            tr("core V is for single runs, so its strength is written 3T, 4T or 5T"), ("T 4T 2 V N 1",)
        )
    position, where = "", ""
    if words.peek() in POSITIONS:
        position = words.take()
        where, meaning = POSITIONS[position]
        meaning = tr(meaning)
        words.tokens.append(Token(position, meaning))
    hydrogen = read_hydrogen(words)
    words.done(near)
    metal = core["symbol"] == "M"
    process = "114" if shielding == "self" else "138" if metal else "136"
    common = Decoded(
        valid=True,
        designation="",
        system="ISO 18276-A" if high else "ISO 17632-A",
        product="metal-cored wire" if metal else "flux-cored wire",
        process=process,
        processes=(process,),
        gases=gases,
        shielding=shielding,
        positions=where,
        runs=runs,
        hydrogen_ml_100g=hydrogen,
        notes=(tr("the standard names no polarity: the manufacturer's sheet does"),),
        sources=read_from(
            *(
                (table("iso_strength_high"), table("iso_alloy_high"))
                if high
                else (table("iso_strength"), table("iso_deposit"))
            ),
            table("iso_core"),
        ),
    )
    return weld_metal(common, words, strength, impact)


def covered(words: Words) -> Decoded:
    """Covered electrodes: ISO 2560-A, 18275-A above strength 50, 3580-A (creep-resisting).

    Raises:
        RefusedError: It is no class.
    """
    words.tokens.append(Token("E", tr("covered electrode")))
    near = ("E 42 4 B 32 H5", "E 42 0 RR 12")
    creep = rows("iso_creep").get(words.peek())
    if creep and "covered" in creep["products"]:
        return _creep(words, creep)
    high = words.peek() in rows("iso_strength_high")
    strength, impact = read_strength(words, high=high), read_impact(words)
    if str(strength["number"]).endswith("T") or (impact is not None and impact < -60 and not high):
        raise RefusedError(
            tr("covered electrodes have strengths 35 to 50 and impact marks Z, A, 0 and 2 to 6"), near
        )
    if high:
        _high_alloy(words, "ISO 18275", ("E 69 5 Mn2NiCrMo B 42 H5",))
    else:
        _deposit(words, cored=False)
    covering = rows("iso_covering").get(words.take())
    if covering is None:
        raise RefusedError(tr("the covering is missing or unknown: A, C, R, RR, RC, RA, RB and B are"), near)
    basic = covering["symbol"] == "B"
    words.tokens.append(Token(str(covering["symbol"]), tr("{covering} covering", covering=covering["words"])))
    polarities, where = _digits(words, near)
    hydrogen = read_hydrogen(words)
    if hydrogen and not basic:
        raise RefusedError(tr("a hydrogen mark stands on basic coverings only"), near)
    words.done(near)
    common = Decoded(
        valid=True,
        designation="",
        system="ISO 18275-A" if high else "ISO 2560-A",
        product="covered electrode",
        process="111",
        processes=("111",),
        polarities=polarities,
        positions=where,
        hydrogen_ml_100g=hydrogen,
        low_hydrogen=basic,
        notes=(tr("which DC polarity: the manufacturer's sheet says"),) if polarities else (),
        sources=read_from(
            *(
                (table("iso_strength_high"), table("iso_alloy_high"))
                if high
                else (table("iso_strength"), table("iso_deposit"))
            ),
            table("iso_covering"),
            table("iso_efficiency"),
        ),
    )
    decoded = weld_metal(common, words, strength, impact)
    return replace(decoded, designation=_joined(decoded.designation))


def _joined(designation: str) -> str:
    """The two digits are two marks and are written as one word."""
    return re.sub(r" (\d) (\d)(?= H|$)", r" \1\2", designation)


def _digits(words: Words, near: tuple[str, ...]) -> tuple[tuple[str, ...], str]:
    """Efficiency and current, then position: polarities and where; empty where they do not stand."""
    digits = ""
    while len(digits) < 2 and re.fullmatch(r"\d{1,2}", words.peek()):
        digits += words.take()
    if not digits:
        return (), ""
    row = rows("iso_efficiency").get(digits[0])
    if row is None:
        raise RefusedError(
            tr("{digits} is no efficiency and current digit: 1 to 8 are", digits=digits[0]), near
        )
    words.tokens.append(Token(digits[0], f"{row['words']}; {'AC and DC' if row['alternating'] else 'DC'}"))
    polarities = ("AC", "DCEP", "DCEN") if row["alternating"] else ("DCEP", "DCEN")
    if len(digits) < 2:
        return polarities, ""
    if digits[1] not in POSITIONS:
        raise RefusedError(tr("{digits} is no position digit: 1 to 5 are", digits=digits[1]), near)
    where, meaning = POSITIONS[digits[1]]
    meaning = tr(meaning)
    words.tokens.append(Token(digits[1], meaning))
    return polarities, where


def _high_alloy(words: Words, document: str, near: tuple[str, ...]) -> None:
    said = words.take()
    row = rows("iso_alloy_high").get(said)
    if row is None or "flux" not in row["products"]:
        raise RefusedError(
            tr(
                "{value} is no alloy of {document} known here", value=said or tr("nothing"), document=document
            ),
            near,
        )
    words.tokens.append(Token(str(row["symbol"]), "agreed" if said == "Z" else tr("nominal composition")))
    if words.peek() == "T":
        words.tokens.append(Token(words.take(), tr("tested after stress relief")))


def _composition(letter: str, product: str, alloy: str) -> tuple[list[Token], Any]:
    row = rows("iso_14343")[alloy]
    cousin = (
        tr(", near AWS {removeprefix}", removeprefix=str(row["aws"]).removeprefix("ER"))
        if row.get("aws")
        else ""
    )
    return [
        Token(letter, product),
        Token(str(row["symbol"]), tr("nominal Cr, Ni, Mo{cousin}", cousin=cousin)),
    ], row


def stainless_cored(alloy: str, words: Words) -> Decoded:
    """Cored stainless wire of ISO 17633-A, behind its composition.

    Raises:
        RefusedError: Core, gas or position is missing or wrong.
    """
    tokens, row = _composition("T", tr("flux-cored wire"), alloy)
    words.tokens += tokens
    near = (f"T {row['symbol']} P M21 1", f"T {row['symbol']} R M21 3")
    core = words.take()
    if core not in _STAINLESS_CORES:
        raise RefusedError(tr("the type of core is missing or unknown: R, P, M, U and Z are"), near)
    words.tokens.append(Token(core, tr(_STAINLESS_CORES[core])))
    own = core == "U" or words.peek() in NO_GAS
    if own and words.peek() in NO_GAS:
        words.tokens.append(Token(words.take(), tr("no shielding gas")))
    gases = () if own else read_gas_mark(words)
    where = ""
    if words.peek() in POSITIONS:
        digit = words.take()
        where, meaning = POSITIONS[digit]
        meaning = tr(meaning)
        words.tokens.append(Token(digit, meaning))
    words.done(near)
    process = "114" if own else "138" if core == "M" else "136"
    return Decoded(
        valid=True,
        designation=" ".join(token.text for token in words.tokens),
        system="ISO 17633-A",
        product="metal-cored wire" if core == "M" else "flux-cored wire",
        process=process,
        processes=(process,),
        meaning=tuple(words.tokens),
        gases=gases,
        shielding="self" if own else "gas",
        positions=where,
        tensile_mpa=row.get("tensile_mpa"),
        yield_mpa=row.get("yield_mpa"),
        notes=(tr("the standard names no polarity: the manufacturer's sheet does"),),
        sources=read_from(table("iso_14343")),
    )


def stainless_covered(alloy: str, words: Words) -> Decoded:
    """Covered stainless electrodes of ISO 3581-A, behind their composition.

    Raises:
        RefusedError: Covering or digits are missing or wrong.
    """
    tokens, row = _composition("E", tr("covered electrode"), alloy)
    words.tokens += tokens
    near = (f"E {row['symbol']} R 12", f"E {row['symbol']} B 22")
    covering = words.take()
    if covering not in ("R", "B"):
        raise RefusedError(tr("the covering is missing or unknown: R (rutile) and B (basic) are"), near)
    words.tokens.append(Token(covering, tr("rutile covering") if covering == "R" else tr("basic covering")))
    polarities, where = _digits(words, near)
    words.done(near)
    return Decoded(
        valid=True,
        designation=_joined(" ".join(token.text for token in words.tokens)),
        system="ISO 3581-A",
        product="covered electrode",
        process="111",
        processes=("111",),
        meaning=tuple(words.tokens),
        polarities=polarities or (("DCEP",) if covering == "B" else ("AC", "DCEP")),
        positions=where,
        tensile_mpa=row.get("tensile_mpa"),
        yield_mpa=row.get("yield_mpa"),
        notes=(tr("which DC polarity: the manufacturer's sheet says, mostly DCEP"),),
        sources=read_from(table("iso_14343"), table("iso_efficiency")),
    )


def _creep(words: Words, row: Any) -> Decoded:
    words.take()
    words.tokens.append(Token(str(row["symbol"]), str(row["words"])))
    near = (f"E {row['symbol']} B 42 H5",)
    covering = words.take()
    if covering not in ("B", "R"):
        raise RefusedError(tr("the covering is missing or unknown: B (basic) and R (rutile) are"), near)
    basic = covering == "B"
    words.tokens.append(Token(covering, tr("basic covering") if basic else tr("rutile covering")))
    polarities, where = _digits(words, near)
    hydrogen = read_hydrogen(words)
    words.done(near)
    return Decoded(
        valid=True,
        designation=_joined(" ".join(token.text for token in words.tokens)),
        system="ISO 3580-A",
        product="covered electrode",
        process="111",
        processes=("111",),
        meaning=tuple(words.tokens),
        polarities=polarities,
        positions=where,
        tensile_mpa=row["tensile_mpa"],
        yield_mpa=row["yield_mpa"],
        hydrogen_ml_100g=hydrogen,
        low_hydrogen=basic,
        notes=(tr("strength after heat treatment"),),
        sources=read_from(table("iso_creep"), table("iso_efficiency")),
    )
