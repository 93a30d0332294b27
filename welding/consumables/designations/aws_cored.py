"""Flux-cored wire: AWS A5.20 (carbon steel), A5.29 (low alloy), A5.22 (stainless)."""

from __future__ import annotations

import re
from typing import Any

from welding.consumables.designations.aws_wire import GAS_C, GAS_M
from welding.consumables.designations.model import Decoded, RefusedError, Shielding, Token, read_from
from welding.consumables.designations.text import options, rows, split_hydrogen, table
from welding.language import tr, tr_noop

_GAS = "(?P<gas>[CM])?(?:/-?(?:\\d{1,2})?(?P<other>[CM]))?"
_TAIL = "(?:-?(?P<j>J))?(?:-?(?P<extra>[DQ]))?$"
_CARBON = re.compile(r"^E(?P<strength>\d{1,2})(?P<position>\d)T-(?P<use>\d{1,2}|GS|G)" + _GAS + _TAIL)
_CARBON_SHAPE = re.compile(r"^E\d{2,3}T-")
_ALLOY_SHAPE = re.compile(r"^E(?P<strength>\d{1,2})(?P<position>\d)T(?P<use>\d{1,2}|X|G)-(?P<rest>.+)$")
_ALLOY_REST = re.compile(r"^" + _GAS + r"(?:-?(?P<j>J))?$")
_STAINLESS = re.compile(r"^(?P<prefix>[ER])(?P<alloy>\d{3,4}[A-Z]*?)T(?P<position>\d)-(?P<gas>\w)$")
_EXTRA = {
    "D": tr_noop("extra tests at low and high heat input, for seismic work"),
    "Q": tr_noop("extra tests, for naval work"),
}


def _gas_tokens(
    gas: str | None, other: str | None, use: str
) -> tuple[tuple[str, ...], list[Token], list[str]]:
    letters = [letter for letter in (gas, other) if letter]
    words = {"C": tr("classified with CO2"), "M": tr("classified with 75 to 80 % Ar, rest CO2")}
    gases = tuple({"C": GAS_C, "M": GAS_M}[letter] for letter in dict.fromkeys(letters))
    if not letters:
        return (GAS_C,), [], [tr("{use} without a gas letter is the older spelling and means CO2", use=use)]
    return gases, [Token(letter, words[letter]) for letter in letters], []


def cored_carbon(text: str) -> Decoded | None:
    """Decode flux-cored wire of AWS A5.20.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    if not _CARBON_SHAPE.match(text):
        return None
    body, hydrogen, moisture = split_hydrogen(text)
    match = _CARBON.match(body)
    if not match or moisture:
        begun = re.match(r"^(E\d{2,3}T-\d{1,2})", body)
        near = tuple(f"{begun[1]}{gas}" for gas in ("C", "M", "")) if begun else ("E71T-1C", "E71T-1M")
        raise RefusedError(tr("{text} is no class of A5.20", text=text), near)
    part = match.groupdict()
    strength = {"43": "6", "49": "7"}.get(part["strength"], part["strength"])
    use, position = part["use"], part["position"]
    row = rows("a5_20").get(use)
    stem = f"E{strength}{position}T-{use}"
    if strength not in ("6", "7"):
        raise RefusedError(
            tr(
                "{part} is no strength of A5.20: 6 and 7 are; higher ones are in A5.29", part=part["strength"]
            ),
            (f"E7{position}T-{use}C",),
        )
    if row is None:
        known = options(["1", *list(rows("a5_20"))[1:]])
        raise RefusedError(
            tr("{use} is no usability of A5.20: {known} are", use=use, known=known),
            (f"E{strength}{position}T-1C", "E71T-8"),
        )
    if strength == "6" and use not in ("13", "G", "GS"):
        raise RefusedError(tr("strength 6 exists for usability 13, G and GS only"), (f"E7{position}T-{use}",))
    if position not in ("0", "1"):
        raise RefusedError(
            tr("the digit before T is the position: 0 flat and horizontal, 1 all positions"),
            (f"E{strength}1T-{use}{part['gas'] or ''}", f"E{strength}0T-{use}{part['gas'] or ''}"),
        )
    if position not in row["position_digits"]:
        right = row["position_digits"][0]
        words = tr("flat and horizontal only") if right == "0" else tr("in all positions only")
        raise RefusedError(
            tr("usability {use} exists {words}", use=use, words=words),
            (f"E{strength}{right}T-{use}{part['gas'] or ''}",),
        )
    if row["shielding"] == "self" and part["gas"]:
        raise RefusedError(tr("usability {use} is self-shielded and has no gas letter", use=use), (stem,))
    if part["j"] and row["runs"] == "single":
        raise RefusedError(
            tr(
                "usability {use} is for single runs and has no impact requirement, so J means nothing",
                use=use,
            ),
            (stem,),
        )
    return _carbon(row, strength, position, part, hydrogen)


def _carbon(
    row: Any, strength: str, position: str, part: dict[str, str | None], hydrogen: float | None
) -> Decoded:
    use = str(part["use"])
    tensile = rows("aws_tensile")[f"{strength}0"]["tensile_mpa"]
    shielding: Shielding = row["shielding"]
    gases: tuple[str, ...] = ()
    gas_tokens: list[Token] = []
    notes: list[str] = []
    if shielding == "gas":
        gases, gas_tokens, notes = _gas_tokens(part["gas"], part["other"], f"-{use}")
    tokens = [
        Token("E", "electrode"),
        Token(
            strength,
            tr(
                "tensile strength at least {strength}0 ksi, {tensile} MPa", strength=strength, tensile=tensile
            ),
        ),
        Token(position, tr("all positions") if position == "1" else tr("flat and horizontal")),
        Token("T", "flux-cored"),
        Token(
            use,
            tr(
                "{row}; {row2}-run; {options}",
                row=tr(row["character"]),
                row2=row["runs"],
                options=options(row["polarities"]),
            ),
        ),
        *gas_tokens,
    ]
    impact_j, impact_c = row.get("impact_j"), row.get("impact_c")
    name = f"E{strength}{position}T-{use}{part['gas'] or ''}" + (f"/{part['other']}" if part["other"] else "")
    marks = ""
    if part["j"]:
        impact_j, impact_c = 27, -40
        tokens.append(Token("J", "27 J at -40 °C"))
        marks += "J"
    if part["extra"]:
        tokens.append(Token(part["extra"], tr(_EXTRA[part["extra"]])))
        marks += part["extra"]
    if hydrogen:
        tokens.append(
            Token(
                f"H{hydrogen:g}",
                tr("at most {hydrogen:g} ml hydrogen in 100 g of deposit", hydrogen=hydrogen),
            )
        )
        marks += f"H{hydrogen:g}"
    if row.get("thickness_note"):
        notes.append(tr("up to {row:g} mm: {row2}", row=row["thickness_max_mm"], row2=row["thickness_note"]))
    sealed = shielding == "self"
    return Decoded(
        valid=True,
        designation=f"{name}-{marks}" if marks else name,
        system="AWS A5.20",
        product="flux-cored wire",
        process="114" if sealed else "136",
        processes=("114",) if sealed else ("136",) if shielding == "gas" else ("136", "114"),
        meaning=tuple(tokens),
        polarities=tuple(row["polarities"]),
        gases=gases,
        shielding=shielding,
        positions="all" if position == "1" else "flat-horizontal",
        runs=row["runs"],
        tensile_mpa=tensile,
        yield_mpa=row.get("yield_mpa"),
        impact_j=impact_j,
        impact_c=impact_c,
        hydrogen_ml_100g=hydrogen,
        thickness_max_mm=row.get("thickness_max_mm"),
        notes=tuple(notes),
        sources=read_from(table("a5_20"), table("aws_tensile")),
    )


_USE = {
    "1": ("gas", ("DCEP",)),
    "4": ("self", ("DCEP",)),
    "5": ("gas", ("DCEP", "DCEN")),
    "6": ("self", ("DCEP",)),
    "7": ("self", ("DCEN",)),
    "8": ("self", ("DCEN",)),
    "11": ("self", ("DCEN",)),
    "X": ("either", ()),
    "G": ("either", ()),
}


def cored_alloy(text: str) -> Decoded | None:
    """Decode flux-cored wire of AWS A5.29; returns and raises as ``cored_carbon``."""
    match = _ALLOY_SHAPE.match(text)
    if not match or _STAINLESS.match(text):
        return None
    body, hydrogen, moisture = split_hydrogen(text)
    match = _ALLOY_SHAPE.match(body)
    if not match or moisture:
        raise RefusedError(tr("{text} is no class of A5.29", text=text), ("E81T1-Ni1C",))
    strength, position, use, rest = match["strength"], match["position"], match["use"], match["rest"]
    level = rows("a5_29_strength").get(strength)
    if level is None or position not in ("0", "1") or use not in _USE:
        near = (f"E7{position}T-{use}{rest}",) if rest in ("C", "M") else ("E81T1-Ni1C", "E71T8-Ni1")
        raise RefusedError(
            tr(
                "E{strength}{position}T{use} is no beginning of A5.29",
                strength=strength,
                position=position,
                use=use,
            ),
            near,
        )
    deposit = max((one for one in rows("a5_29_deposit") if rest.startswith(one)), key=len, default=None)
    tail = _ALLOY_REST.match(rest[len(deposit) :]) if deposit else None
    if deposit is None or tail is None:
        if re.fullmatch(r"[CM](?:-?J)?", rest):
            raise RefusedError(
                tr("the hyphen stands in the wrong place: A5.20 has it before the usability"),
                (f"E{strength}{position}T-{use}{rest}",),
            )
        raise RefusedError(
            tr("{rest} is no deposit of A5.29", rest=rest),
            (f"E{strength}{position}T{use}-Ni1", f"E{strength}{position}T{use}-G"),
        )
    row = rows("a5_29_deposit")[deposit]
    shown = str(row["deposit"])
    stem = f"E{strength}{position}T{use}-{shown}"
    shielding, polarities = _USE[use]
    if shielding == "self" and tail["gas"]:
        raise RefusedError(tr("T{use} is self-shielded and has no gas letter", use=use), (stem,))
    if shielding == "self" and not row["self_shielded"]:
        raise RefusedError(
            tr("{shown} is no deposit of self-shielded wire", shown=shown),
            (f"E{strength}{position}T1-{shown}C",),
        )
    return _alloy(level, row, shielding, polarities, match.groupdict(), tail.groupdict(), hydrogen)


def _alloy(
    level: Any,
    row: Any,
    shielding: str,
    polarities: tuple[str, ...],
    part: dict[str, str],
    tail: dict[str, str | None],
    hydrogen: float | None,
) -> Decoded:
    strength, position, use, shown = part["strength"], part["position"], part["use"], str(row["deposit"])
    gases: tuple[str, ...] = ()
    gas_tokens: list[Token] = []
    notes: list[str] = []
    if shielding == "gas":
        gases, gas_tokens, notes = _gas_tokens(tail["gas"], tail["other"], f"T{use}")
    impact = rows("a5_29_impact").get(f"{strength}T{use}-{shown}".upper(), {})
    impact_c = impact.get("impact_c")
    tokens = [
        Token("E", "electrode"),
        Token(
            strength,
            tr(
                "tensile strength at least {strength}0 ksi, {level} MPa",
                strength=strength,
                level=level["tensile_mpa"],
            ),
        ),
        Token(position, tr("all positions") if position == "1" else tr("flat and horizontal")),
        Token(
            f"T{use}", "flux-cored, " + {"gas": "with gas", "self": "self-shielded"}.get(shielding, "agreed")
        ),
        Token(shown, str(row["words"])),
        *gas_tokens,
    ]
    name = f"E{strength}{position}T{use}-{shown}{tail['gas'] or ''}" + (
        f"/{tail['other']}" if tail["other"] else ""
    )
    if tail["j"]:
        name += "-J"
        tokens.append(Token("J", tr("the same energy 10 °C lower")))
        impact_c = None if impact_c is None else impact_c - 10
    if hydrogen:
        name += f" H{hydrogen:g}"
        tokens.append(
            Token(
                f"H{hydrogen:g}",
                tr("at most {hydrogen:g} ml hydrogen in 100 g of deposit", hydrogen=hydrogen),
            )
        )
    return Decoded(
        valid=True,
        designation=name,
        system="AWS A5.29",
        product="flux-cored wire",
        process="114" if shielding == "self" else "136",
        processes=("114",) if shielding == "self" else ("136",),
        meaning=tuple(tokens),
        polarities=polarities,
        gases=gases,
        shielding="self" if shielding == "self" else "gas" if shielding == "gas" else "either",
        positions="all" if position == "1" else "flat-horizontal",
        tensile_mpa=level["tensile_mpa"],
        yield_mpa=level["yield_mpa"],
        impact_j=impact.get("impact_j"),
        impact_c=impact_c,
        hydrogen_ml_100g=hydrogen,
        notes=tuple(notes),
        sources=read_from(table("a5_29_strength"), table("a5_29_deposit"), table("a5_29_impact")),
    )


_STAINLESS_GAS: dict[str, tuple[Shielding, tuple[str, ...], tuple[str, ...], str, str]] = {
    "1": ("gas", (GAS_C,), ("DCEP",), "136", "CO2"),
    "3": ("self", (), ("DCEP",), "114", tr_noop("no gas")),
    "4": ("gas", (GAS_M,), ("DCEP",), "136", tr_noop("75 to 80 % Ar, rest CO2")),
    "5": ("gas", ("I1",), ("DCEN",), "141", tr_noop("argon, rod for TIG")),
    "G": ("either", (), (), "136", tr_noop("not specified")),
}


def cored_stainless(text: str) -> Decoded | None:
    """Decode flux-cored stainless wire of AWS A5.22; returns and raises as ``cored_carbon``."""
    match = _STAINLESS.match(text)
    if not match or match["alloy"] not in rows("a5_22"):
        return None
    row = rows("a5_22")[match["alloy"]]
    prefix, position, gas, shown = match["prefix"], match["position"], match["gas"], str(row["alloy"])
    stem = f"{prefix}{shown}T{position}-"
    if position not in ("0", "1"):
        raise RefusedError(tr("the digit behind T is the position: 0 or 1"), (f"{prefix}{shown}T1-{gas}",))
    if gas not in _STAINLESS_GAS:
        raise RefusedError(
            tr("-{gas} is no gas of A5.22: -1 CO2, -3 none, -4 argon mix", gas=gas), (f"{stem}1", f"{stem}4")
        )
    if prefix == "E" and gas == "5":
        raise RefusedError(
            tr("-5 belongs to rods for TIG, which begin with R"), (f"R{shown}T1-5", f"{stem}4")
        )
    if prefix == "R" and gas not in ("5", "G"):
        raise RefusedError(
            tr("rods that begin with R have -5 or -G"), (f"R{shown}T1-5", f"E{shown}T{position}-{gas}")
        )
    shielding, gases, polarities, process, words = _STAINLESS_GAS[gas]
    words = tr(words)
    notes = (tr("-3 is usually flat and horizontal, T0"),) if gas == "3" and position == "1" else ()
    return Decoded(
        valid=True,
        designation=f"{stem}{gas}",
        system="AWS A5.22",
        product="flux-cored wire" if prefix == "E" else "flux-cored rod",
        process=process,
        processes=(process,),
        meaning=(
            Token(prefix, "electrode" if prefix == "E" else "rod"),
            Token(shown, tr("alloy {shown}", shown=shown)),
            Token(f"T{position}", tr("all positions") if position == "1" else tr("flat and horizontal")),
            Token(f"-{gas}", words),
        ),
        polarities=polarities,
        gases=gases,
        shielding=shielding,
        positions="all" if position == "1" else "flat-horizontal",
        tensile_mpa=row.get("tensile_mpa"),
        notes=notes,
        sources=read_from(table("a5_22")),
    )
