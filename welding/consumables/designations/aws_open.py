"""The open classification of cored wire, AWS A5.36: E71T1-C1A0-CS1-H8."""

from __future__ import annotations

import re

from welding.consumables.designations.iso_words import GASES
from welding.consumables.designations.model import Decoded, RefusedError, Token, read_from
from welding.consumables.designations.text import options, rows, split_hydrogen, table
from welding.language import tr, tr_noop

_SHAPE = re.compile(r"^E(\d{1,2})(\d)T(\d{1,2}|G)-(C1|M\d\d|Z)?([AP])(\w{1,2})-(\w+)$")
_BEGUN = re.compile(r"^E\d{2,3}T(?:\d{1,2}|G)-(?:C1|M\d\d|Z)?[AP](?:\d{1,2}|[YZG])(?:-|$)")
_CARBON = {
    "CS1": tr_noop("carbon steel, gas-shielded"),
    "CS2": tr_noop("carbon steel, single run"),
    "CS3": tr_noop("carbon steel, self-shielded"),
}
_METAL_CORED = {"15": ("DCEP",), "16": ("AC",)}
"""Usability of metal-cored wire, which A5.20 does not have."""


def open_classification(text: str) -> Decoded | None:
    """Decode a designation of AWS A5.36.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    if not _BEGUN.match(text):
        return None
    near = ("E71T1-C1A0-CS1-H8", "E71T1-M21A2-CS1-H8")
    body, hydrogen, moisture = split_hydrogen(text)
    match = _SHAPE.match(body)
    if not match or moisture:
        raise RefusedError(tr("behind gas, condition and impact stands the deposit, such as CS1"), near)
    strength, position, use, gas, condition, impact, deposit = match.groups()
    tensile = rows("aws_tensile").get(f"{strength}0")
    if tensile is None:
        raise RefusedError(
            tr("{strength} is no strength of A5.36: it counts tens of ksi", strength=strength), near
        )
    if position not in ("0", "1"):
        raise RefusedError(
            tr("the digit before T is the position: 0 flat and horizontal, 1 all positions"), near
        )
    row = rows("a5_20").get(use)
    polarities = _METAL_CORED.get(use) or (tuple(row["polarities"]) if row else None)
    if polarities is None:
        raise RefusedError(
            tr("{use} is no usability known here: those of A5.20, 15 and 16 are", use=use), near
        )
    shielding = "gas" if use in _METAL_CORED else str(row["shielding"]) if row else "either"
    if shielding == "self" and gas:
        raise RefusedError(tr("usability {use} is self-shielded and has no gas mark", use=use), near)
    if shielding == "gas" and not gas:
        raise RefusedError(tr("usability {use} needs a gas mark, such as C1 or M21", use=use), near)
    if gas and gas != "Z" and gas not in GASES:
        raise RefusedError(tr("{gas} is no group of ISO 14175", gas=gas), near)
    cold = rows("a5_36_impact").get(impact)
    if cold is None and impact not in ("Z", "G"):
        known = options([*rows("a5_36_impact"), "Z", "G"])
        raise RefusedError(
            tr("{impact} is no impact mark of A5.36: {known} are", impact=impact, known=known), near
        )
    alloy = rows("a5_29_deposit").get(deposit)
    meaning = tr(_CARBON.get(deposit, "")) or (str(alloy["words"]) if alloy else "")
    if not meaning and deposit != "G":
        raise RefusedError(
            tr(
                "{deposit} is no deposit of A5.36 known here: CS1, CS2, CS3 and those of A5.29 are",
                deposit=deposit,
            ),
            near,
        )
    shown = str(alloy["deposit"]) if alloy else deposit
    mpa = tensile["tensile_mpa"]
    tokens = [
        Token("E", "electrode"),
        Token(
            strength, tr("tensile strength at least {strength}0 ksi, {mpa} MPa", strength=strength, mpa=mpa)
        ),
        Token(position, tr("all positions") if position == "1" else tr("flat and horizontal")),
        Token(f"T{use}", str(row["character"]) if row else "metal-cored"),
        *(
            [
                Token(
                    gas,
                    tr("agreed gas")
                    if gas == "Z"
                    else tr("classified with a gas of group {gas} (ISO 14175)", gas=gas),
                )
            ]
            if gas
            else []
        ),
        Token(condition, tr("tested as welded") if condition == "A" else tr("tested after heat treatment")),
        Token(
            impact, tr("27 J at {cold} °C", cold=cold["impact_c"]) if cold else tr("no impact requirement")
        ),
        Token(shown, meaning or "agreed"),
    ]
    if hydrogen:
        tokens.append(
            Token(
                f"H{hydrogen:g}",
                tr("at most {hydrogen:g} ml hydrogen in 100 g of deposit", hydrogen=hydrogen),
            )
        )
    own = shielding == "self"
    metal = use in _METAL_CORED
    process = "114" if own else "138" if metal else "136"
    return Decoded(
        valid=True,
        designation=f"E{strength}{position}T{use}-{gas or ''}{condition}{impact}-{shown}"
        + (f"-H{hydrogen:g}" if hydrogen else ""),
        system="AWS A5.36",
        product="metal-cored wire" if metal else "flux-cored wire",
        process=process,
        processes=(process,),
        meaning=tuple(tokens),
        polarities=polarities,
        gases=(gas,) if gas and gas != "Z" else (),
        shielding="self" if own else "gas",
        positions="all" if position == "1" else "flat-horizontal",
        runs="single" if deposit == "CS2" or (row and row["runs"] == "single") else "multi",
        tensile_mpa=mpa,
        impact_j=27 if cold else None,
        impact_c=cold["impact_c"] if cold else None,
        hydrogen_ml_100g=hydrogen,
        notes=(tr("impact marks of this system count tens of degrees Fahrenheit"),),
        sources=read_from(
            table("aws_tensile"), table("a5_20"), table("a5_36_impact"), table("a5_29_deposit")
        ),
    )
