"""ISO system A: wire 14341, cored wire 17632, covered electrodes 2560, rods 636, stainless wire 14343."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from welding.consumables.designations.model import Decoded, RefusedError, Runs, Shielding, Token, read_from
from welding.consumables.designations.text import options, rows, table

_DOCUMENT = re.compile(r"^ISO (14341|17632|2560|636|14343)-A[- ]?")
_IMPACTS = {"Z": None, "A": 20, "0": 0, **{str(n): -10 * n for n in range(2, 11)}}
_GASES = {
    "C": "C1",
    "C1": "C1",
    "C2": "C2",
    "M": "M2",
    **{f"M{n}": f"M{n}" for n in (*range(11, 15), *range(20, 28), *range(31, 36))},
}
_NO_GAS = ("N", "NO")
_WIRE_POSITIONS = {
    "1": ("all", "all positions"),
    "2": ("all-but-vertical-down", "all positions but vertical downwards"),
    "3": ("flat-horizontal", "flat butt, flat and horizontal fillet"),
    "4": ("flat", "flat butt and flat fillet"),
    "5": ("flat-horizontal-vertical-down", "vertical downwards, and as 3"),
}
_HYDROGEN = re.compile(r"^H(\d{1,2})$")


class _Words:
    """The words of a designation, taken one after the other."""

    def __init__(self, text: str) -> None:
        self.left = text.split(" ")
        self.tokens: list[Token] = []

    def take(self) -> str:
        return self.left.pop(0) if self.left else ""

    def peek(self) -> str:
        return self.left[0] if self.left else ""

    def done(self, near: tuple[str, ...]) -> None:
        if self.left:
            raise RefusedError(f"{' '.join(self.left)} is not expected at the end", near)


def _strength(words: _Words) -> Any:
    said = words.take()
    row = rows("iso_strength").get(said)
    if row is None:
        if said in ("55", "62", "69", "79", "89"):
            raise RefusedError(
                f"strength {said} belongs to ISO 16834, 18275 or 18276, which are not known here yet"
            )
        known = options([key for key in rows("iso_strength") if key.isdigit()])
        raise RefusedError(
            f"{said or 'nothing'} is no strength of system A: {known} are", ("G 42 4 M21 3Si1",)
        )
    words.tokens.append(
        Token(said, f"yield at least {row['yield_mpa']} MPa, tensile at least {row['tensile_mpa']} MPa")
    )
    return row


def _impact(words: _Words) -> int | None:
    said = words.take()
    if said not in _IMPACTS:
        raise RefusedError(
            f"{said or 'nothing'} is no impact mark of system A: Z, A, 0 and 2 to 10 are (1 does not exist)"
        )
    at = _IMPACTS[said]
    words.tokens.append(Token(said, "no impact requirement" if at is None else f"47 J at {at} °C"))
    return at


def _hydrogen(words: _Words) -> float | None:
    match = _HYDROGEN.match(words.peek())
    if not match:
        return None
    said = words.take()
    if match[1] not in ("5", "10", "15"):
        aws = match[1] in ("4", "8", "16")
        raise RefusedError(f"{said} is {'a mark of AWS' if aws else 'no mark'}; ISO has H5, H10 and H15")
    words.tokens.append(Token(said, f"at most {match[1]} ml hydrogen in 100 g of deposit"))
    return float(match[1])


def _gas(words: _Words) -> tuple[str, ...]:
    said = words.take()
    if said not in _GASES and said != "Z":
        raise RefusedError(f"{said or 'nothing'} is no gas mark: C1, M12, M20, M21 … are")
    words.tokens.append(
        Token(
            said,
            "agreed gas" if said == "Z" else f"classified with a gas of group {_GASES[said]} (ISO 14175)",
        )
    )
    return () if said == "Z" else (_GASES[said],)


def system_a(text: str) -> Decoded | None:
    """Decode a designation of ISO system A.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    document = _DOCUMENT.match(text)
    body = text[document.end() :] if document else text
    first = re.match(r"^([GWTEPSBL]) (.+)$", body)
    if not first:
        if document:
            raise RefusedError(f"behind {document[0].strip(' -')} stands G, T, E, W, P, S, B or L")
        return None
    letter, rest = first.groups()
    if letter == "S" and rest.startswith("AL"):
        return None
    stainless = rows("iso_14343").get(rest)
    if stainless and letter in "GWPSBL":
        return _stainless(letter, stainless)
    number = rest.split(" ")[0]
    if re.fullmatch(r"\d{3}\w*", number) and number in {**rows("a5_9"), **rows("a5_22")}:
        found = next(
            (row for row in rows("iso_14343").values() if str(row.get("aws", "")).upper() == f"ER{number}"),
            None,
        )
        near = (f"{letter} {found['symbol']}",) if found and letter != "T" else ()
        raise RefusedError(
            f"{number} is a number of AWS and of system B; system A writes the composition", near
        )
    if letter == "T" and stainless:
        raise RefusedError(
            "cored stainless wire is ISO 17633, which is not known here yet", (f"G {stainless['symbol']}",)
        )
    words = _Words(rest)
    decoded = {"G": _wire, "W": _rod, "T": _cored, "E": _covered}.get(letter)
    if decoded is None:
        return None
    return decoded(words)


def _stainless(letter: str, row: Any) -> Decoded:
    product, process = {
        "G": ("solid wire", "135"),
        "W": ("rod", "141"),
        "P": ("plasma wire", "15"),
        "S": ("wire for submerged arc", "12"),
        "B": ("strip", "12"),
        "L": ("wire for laser", "52"),
    }[letter]
    cousin = f", near AWS {row['aws']}" if row.get("aws") else ""
    return Decoded(
        valid=True,
        designation=f"{letter} {row['symbol']}",
        system="ISO 14343-A",
        product=product,
        process=process,
        processes=(process,),
        meaning=(Token(letter, product), Token(str(row["symbol"]), f"nominal Cr, Ni, Mo{cousin}")),
        polarities={"G": ("DCEP",), "W": ("DCEN",)}.get(letter, ()),
        gases=("I1",) if letter == "W" else (),
        shielding="gas" if letter in "GWP" else "none",
        positions="all" if letter in "GW" else "",
        tensile_mpa=row.get("tensile_mpa"),
        yield_mpa=row.get("yield_mpa"),
        notes=("strengths are informative",) if row.get("tensile_mpa") else (),
        sources=read_from(table("iso_14343")),
    )


def _symbol(words: _Words, near: tuple[str, ...]) -> str:
    said = words.take()
    row = rows("iso_wire").get(said) or rows("iso_wire").get(re.sub(r"^[GW](?=\d|Z)", "", said))
    if row is None:
        raise RefusedError(f"{said or 'nothing'} is no wire symbol of system A", near)
    words.tokens.append(Token(str(row["symbol"]), str(row["words"])))
    return str(row["symbol"])


def _weld_metal(common: Decoded, words: _Words, strength: Any, impact: int | None) -> Decoded:
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


def _wire(words: _Words) -> Decoded:
    words.tokens.append(Token("G", "solid wire, gas-shielded"))
    source = read_from(table("iso_strength"), table("iso_wire"))
    common = Decoded(
        valid=True,
        designation="",
        system="ISO 14341-A",
        product="solid wire",
        process="135",
        processes=("135",),
        polarities=("DCEP",),
        shielding="gas",
        positions="all",
        sources=source,
    )
    near = ("G 42 4 M21 3Si1", "G 46 4 M21 4Si1")
    if len(words.left) == 1:
        symbol = _symbol(words, near)
        return replace(
            common,
            designation=f"G {symbol}",
            meaning=tuple(words.tokens),
            notes=("the wire alone: strength and impact are those of no weld metal",),
        )
    strength, impact, gases = _strength(words), _impact(words), _gas(words)
    symbol = _symbol(words, near)
    words.done(near)
    return _weld_metal(replace(common, gases=gases), words, strength, impact)


def _rod(words: _Words) -> Decoded:
    words.tokens.append(Token("W", "rod for TIG"))
    near = ("W 42 5 3Si1", "W 46 5 W3Si1")
    common = Decoded(
        valid=True,
        designation="",
        system="ISO 636-A",
        product="rod",
        process="141",
        processes=("141",),
        polarities=("DCEN",),
        gases=("I1",),
        shielding="gas",
        positions="all",
        sources=read_from(table("iso_strength"), table("iso_wire")),
    )
    if len(words.left) == 1:
        symbol = _symbol(words, near)
        return replace(common, designation=f"W {symbol}", meaning=tuple(words.tokens))
    strength, impact = _strength(words), _impact(words)
    if words.peek() in _GASES:
        raise RefusedError("a TIG rod has no gas mark: argon is implied", near)
    _symbol(words, near)
    if _HYDROGEN.match(words.peek()):
        raise RefusedError("a TIG rod has no hydrogen mark", near)
    words.done(near)
    return _weld_metal(common, words, strength, impact)


def _deposit(words: _Words, *, cored: bool) -> None:
    row = rows("iso_deposit").get(words.peek())
    # Z alone could be the deposit or the core; a deposit has a core behind it.
    if row is None or (
        words.peek() == "Z" and cored and len(words.left) > 1 and words.left[1] not in rows("iso_core")
    ):
        return
    if (row["covered_only"] and cored) or (row["cored_only"] and not cored):
        raise RefusedError(
            f"{row['symbol']} is no deposit of {'cored wire' if cored else 'covered electrodes'} in system A"
        )
    words.take()
    words.tokens.append(Token(str(row["symbol"]), str(row["words"])))


def _cored(words: _Words) -> Decoded:
    words.tokens.append(Token("T", "flux-cored wire"))
    near = ("T 46 4 P M21 1 H5", "T 42 2 P C1 1 H10")
    strength, impact = _strength(words), _impact(words)
    _deposit(words, cored=True)
    core = rows("iso_core").get(words.take())
    if core is None:
        raise RefusedError("the type of core is missing or unknown: R, P, B, M, V, W, Y and Z are", near)
    words.tokens.append(Token(str(core["symbol"]), f"{core['words']}; {core['runs']}-run"))
    shielding: Shielding = core["shielding"]
    runs: Runs = "single" if str(strength["number"]).endswith("T") else core["runs"]
    gases: tuple[str, ...] = ()
    if words.peek() in _NO_GAS:
        if shielding == "gas":
            raise RefusedError(f"core {core['symbol']} needs a gas; N or NO means none", near)
        words.tokens.append(Token(words.take(), "no shielding gas"))
        shielding = "self"
    elif shielding == "self":
        raise RefusedError(
            f"core {core['symbol']} is self-shielded: N or NO stands behind it", ("T 42 3 Y N 1 H10",)
        )
    else:
        gases = _gas(words)
        shielding = "gas"
    if core["symbol"] == "V" and runs == "single" and not str(strength["number"]).endswith("T"):
        raise RefusedError(
            "core V is for single runs, so its strength is written 3T, 4T or 5T", ("T 4T 2 V N 1",)
        )
    position, where = "", ""
    if words.peek() in _WIRE_POSITIONS:
        position = words.take()
        where, meaning = _WIRE_POSITIONS[position]
        words.tokens.append(Token(position, meaning))
    hydrogen = _hydrogen(words)
    words.done(near)
    metal = core["symbol"] == "M"
    process = "114" if shielding == "self" else "138" if metal else "136"
    common = Decoded(
        valid=True,
        designation="",
        system="ISO 17632-A",
        product="metal-cored wire" if metal else "flux-cored wire",
        process=process,
        processes=(process,),
        gases=gases,
        shielding=shielding,
        positions=where,
        runs=runs,
        hydrogen_ml_100g=hydrogen,
        notes=("the standard names no polarity: the maker's sheet does",),
        sources=read_from(table("iso_strength"), table("iso_deposit"), table("iso_core")),
    )
    return _weld_metal(common, words, strength, impact)


def _covered(words: _Words) -> Decoded:
    words.tokens.append(Token("E", "covered electrode"))
    near = ("E 42 4 B 32 H5", "E 42 0 RR 12")
    strength, impact = _strength(words), _impact(words)
    if str(strength["number"]).endswith("T") or (impact is not None and impact < -60):
        raise RefusedError(
            "covered electrodes have strengths 35 to 50 and impact marks Z, A, 0 and 2 to 6", near
        )
    _deposit(words, cored=False)
    covering = rows("iso_covering").get(words.take())
    if covering is None:
        raise RefusedError("the covering is missing or unknown: A, C, R, RR, RC, RA, RB and B are", near)
    basic = covering["symbol"] == "B"
    words.tokens.append(Token(str(covering["symbol"]), f"{covering['words']} covering"))
    polarities: tuple[str, ...] = ()
    where = ""
    digits = ""
    while len(digits) < 2 and re.fullmatch(r"\d{1,2}", words.peek()):
        digits += words.take()
    if digits:
        row = rows("iso_efficiency").get(digits[0])
        if row is None:
            raise RefusedError(f"{digits[0]} is no efficiency and current digit: 1 to 8 are", near)
        words.tokens.append(
            Token(digits[0], f"{row['words']}; {'AC and DC' if row['alternating'] else 'DC'}")
        )
        polarities = ("AC", "DCEP", "DCEN") if row["alternating"] else ("DCEP", "DCEN")
        if len(digits) == 2:
            if digits[1] not in _WIRE_POSITIONS:
                raise RefusedError(f"{digits[1]} is no position digit: 1 to 5 are", near)
            where, meaning = _WIRE_POSITIONS[digits[1]]
            words.tokens.append(Token(digits[1], meaning))
    hydrogen = _hydrogen(words)
    if hydrogen and not basic:
        raise RefusedError("a hydrogen mark stands on basic coverings only", near)
    words.done(near)
    common = Decoded(
        valid=True,
        designation="",
        system="ISO 2560-A",
        product="covered electrode",
        process="111",
        processes=("111",),
        polarities=polarities,
        positions=where,
        hydrogen_ml_100g=hydrogen,
        low_hydrogen=basic,
        notes=("which DC polarity: the maker's sheet says",) if polarities else (),
        sources=read_from(
            table("iso_strength"), table("iso_deposit"), table("iso_covering"), table("iso_efficiency")
        ),
    )
    decoded = _weld_metal(common, words, strength, impact)
    # The two digits are two marks and are written as one word.
    return replace(decoded, designation=re.sub(r" (\d) (\d)(?= H|$)", r" \1\2", decoded.designation))
