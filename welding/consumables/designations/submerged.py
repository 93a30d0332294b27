"""Submerged arc: AWS A5.17 and A5.23 classes, ISO 14171-A and 26304-A, wires alone, fluxes of ISO 14174."""

from __future__ import annotations

import re
from typing import Any

from welding.consumables.designations.iso_words import Words, read_hydrogen, read_impact
from welding.consumables.designations.model import Decoded, RefusedError, Sources, Token, read_from
from welding.consumables.designations.text import rows, split_hydrogen, table
from welding.language import tr

_CLASS = re.compile(r"^F(S?)(1[0-3]|43|48|55|62|69|76|83|90|[6-9])(TW)?([APT])(Z|\d{1,2})(?:-(.+))?$")
_METRIC = {"43": "6", "48": "7", "55": "8", "62": "9", "69": "10", "76": "11", "83": "12", "90": "13"}
_ALLOY_WIRE = re.compile(r"^E(C?)(.+?)(?:-(.+))?$")
_FLUX = re.compile(r"^(?:ISO 14174[- ]?)?(S|ES) ?(F|A|M) ([A-Z]{1,3})(?: |$)(.*)$")
_PROCESSES = ("121", "124", "125")


def _decoded(
    text: str, system: str, product: str, tokens: list[Token], sources: Sources, **more: Any
) -> Decoded:
    return Decoded(
        valid=True,
        designation=text,
        system=system,
        product=product,
        process="125" if "cored" in product else "121",
        processes=_PROCESSES if "cored" not in product else ("125",),
        meaning=tuple(tokens),
        shielding="none",
        positions="flat-horizontal",
        sources=sources,
        **more,
    )


def aws_submerged(text: str) -> Decoded | None:
    """Decode a flux-electrode class such as F7A2-EM12K, or an electrode of A5.17 alone.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    alone = rows("a5_17").get(text)
    if alone is not None:
        notes = (
            tr("the electrode alone: strength and impact are those of a flux and an electrode together"),
        )
        return _decoded(
            str(alone["class"]),
            "AWS A5.17",
            _kind(text),
            [Token(str(alone["class"]), str(alone["words"]))],
            read_from(table("a5_17")),
            notes=notes,
        )
    if not re.match(r"^FS?(?:\d{1,2})(?:TW)?[APT](?:Z|\d)", text):
        return None
    # A mark stands behind a dash or a space: the H14 of EH14 is none.
    body, hydrogen, moisture = (
        split_hydrogen(text) if re.search(r"[- ]H\d+R?$", text) else (text, None, False)
    )
    match = _CLASS.match(body)
    if not match or moisture:
        raise RefusedError(
            tr("{text} is no class of A5.17 or A5.23", text=text), ("F7A2-EM12K", "F8A4-ENi1-Ni1")
        )
    crushed, number, two_run, condition, impact, wire = match.groups()
    if not wire:
        raise RefusedError(
            tr("behind {body} stands the electrode, as in {body}-EM12K", body=body), (f"{body}-EM12K",)
        )
    metric = number in _METRIC
    strength = rows("aws_submerged")[_METRIC.get(number, number)]
    tokens = [
        Token(f"F{crushed}", tr("flux, crushed slag in it") if crushed else "flux"),
        Token(number, tr("tensile strength at least {strength} MPa", strength=strength["tensile_mpa"])),
        Token(condition, tr("tested as welded") if condition == "A" else tr("tested after heat treatment")),
    ]
    impact_c = None if impact == "Z" else _impact_c(int(impact), metric)
    tokens.append(
        Token(
            impact,
            tr("no impact requirement")
            if impact_c is None
            else tr("27 J at {impact_c:g} °C", impact_c=impact_c),
        )
    )
    carbon, spelled, product = _electrode(wire, tokens)
    if hydrogen:
        tokens.append(
            Token(
                f"H{hydrogen:g}",
                tr("at most {hydrogen:g} ml hydrogen in 100 g of deposit", hydrogen=hydrogen),
            )
        )
    source = read_from(table("a5_17" if carbon else "a5_23"), table("aws_submerged"))
    return _decoded(
        body.removesuffix(wire) + spelled + (f"-H{hydrogen:g}" if hydrogen else ""),
        "AWS A5.17" if carbon else "AWS A5.23",
        product,
        tokens,
        source,
        tensile_mpa=strength["tensile_mpa"],
        yield_mpa=strength["yield_mpa"],
        impact_j=None if impact_c is None else 27,
        impact_c=impact_c,
        hydrogen_ml_100g=hydrogen,
        runs="single" if two_run else "multi",
    )


def _impact_c(digit: int, metric: bool) -> float:
    """Temperature of the impact test: tens of degrees below zero, °F or °C."""
    return -10.0 * digit if metric else float(round((-10 * digit - 32) * 5 / 9))


def _kind(wire: str) -> str:
    return "cored wire for submerged arc" if wire.startswith("EC") else "wire for submerged arc"


def _electrode(wire: str, tokens: list[Token]) -> tuple[bool, str, str]:
    carbon = rows("a5_17").get(wire)
    if carbon is not None:
        tokens.append(Token(str(carbon["class"]), str(carbon["words"])))
        return True, str(carbon["class"]), _kind(wire)
    match = _ALLOY_WIRE.match(wire)
    parts = match.groups() if match else ("", "", None)
    first, last = (
        rows("a5_23").get(parts[1].removesuffix("K")),
        rows("a5_23").get((parts[2] or "").removesuffix("N")),
    )
    carbon_wire = rows("a5_17").get(f"E{parts[0]}{parts[1]}")
    if (first is None and carbon_wire is None) or last is None:
        raise RefusedError(
            tr("{wire} is no electrode of A5.17, and none of A5.23 with its weld metal behind it", wire=wire),
            ("F7A2-EM12K", "F8A4-ENi1-Ni1"),
        )
    named = first if first is not None else carbon_wire
    tokens += [
        Token(_spelled(parts[0], parts[1], first), str(named["words"] if named else "")),
        Token(str(last["symbol"]), tr("weld metal {last}", last=last["words"])),
    ]
    nuclear = "N" if (parts[2] or "").endswith("N") and not str(last["symbol"]).endswith("N") else ""
    return False, f"{tokens[-2].text}-{last['symbol']}{nuclear}", _kind(wire)


def _spelled(composite: str, symbol: str, row: Any) -> str:
    """An electrode as the document spells it: ENi1K, ECNi1."""
    name = str(row["symbol"]) if row is not None else symbol
    killed = "K" if symbol.endswith("K") and row is not None and not name.endswith("K") else ""
    return f"E{composite}{name}{killed}"


# --- ISO system A -------------------------------------------------------------------------------


def iso_submerged(text: str) -> Decoded | None:
    """Decode ``S 46 3 AB S2`` (ISO 14171-A, 26304-A above 50), or a wire such as S2 alone.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    body = re.sub(r"^ISO (?:14171|26304)-A[- ]?", "", text)
    alone = rows("iso_submerged_wire").get(body)
    if alone is not None:
        notes = (tr("the wire alone: strength and impact are those of a flux and a wire together"),)
        return _decoded(
            str(alone["symbol"]),
            "ISO 14171-A",
            "wire for submerged arc",
            [Token(str(alone["symbol"]), str(alone["words"]))],
            read_from(table("iso_submerged_wire")),
            notes=notes,
        )
    if not re.match(r"^S (?:3[58]|[4-9]\d|[2-5]T) ", body):
        return None
    words = Words(body.removeprefix("S "))
    words.tokens.append(Token("S", tr("wire and flux for submerged arc")))
    said = words.take()
    high = rows("iso_strength").get(said) is None
    strength = rows("iso_strength_high" if high else "iso_strength").get(said)
    if strength is None:
        raise RefusedError(tr("{said} is no strength of system A", said=said), ("S 42 2 AB S2",))
    words.tokens.append(
        Token(
            said,
            tr(
                "yield at least {strength} MPa, tensile at least {strength2} MPa",
                strength=strength["yield_mpa"],
                strength2=strength["tensile_mpa"],
            ),
        )
    )
    impact = read_impact(words)
    flux = rows("iso_14174").get(words.peek())
    if flux is None:
        raise RefusedError(
            tr("{value} is no type of flux of ISO 14174", value=words.peek() or tr("nothing")),
            ("S 46 3 AB S2",),
        )
    words.tokens.append(Token(words.take(), tr("flux {flux}", flux=flux["words"])))
    wire = rows("iso_submerged_wire").get(words.peek())
    if wire is None:
        raise RefusedError(
            tr("{value} is no wire of ISO 14171 or 26304", value=words.peek() or tr("nothing")),
            ("S 46 3 AB S2",),
        )
    words.take()
    words.tokens.append(Token(str(wire["symbol"]), str(wire["words"])))
    hydrogen = read_hydrogen(words)
    words.done(("S 46 3 AB S2",))
    return _decoded(
        " ".join(token.text for token in words.tokens),
        "ISO 26304-A" if high else "ISO 14171-A",
        "wire for submerged arc",
        words.tokens,
        read_from(
            table("iso_submerged_wire"),
            table("iso_14174"),
            table("iso_strength_high" if high else "iso_strength"),
        ),
        tensile_mpa=strength["tensile_mpa"],
        yield_mpa=strength["yield_mpa"],
        impact_j=None if impact is None else 47,
        impact_c=impact,
        hydrogen_ml_100g=hydrogen,
        runs="single" if said.endswith("T") else "multi",
    )


def flux_class(text: str) -> Decoded | None:
    """Decode a flux by ISO 14174, such as ``S A AB 1 67 AC H5``.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and its type is none of the standard's.
    """
    match = _FLUX.match(text)
    if not match:
        return None
    use, made, kind, rest = match.groups()
    row = rows("iso_14174").get(kind)
    if row is None:
        raise RefusedError(tr("{kind} is no type of flux of ISO 14174", kind=kind), ("S A AB 1 67 AC H5",))
    tokens = [
        Token(use, tr("submerged arc") if use == "S" else "electroslag"),
        Token(made, {"F": "fused", "A": "agglomerated", "M": "mixed"}[made]),
        Token(kind, str(row["words"])),
    ]
    words = Words(rest)
    words.tokens = tokens
    words.left = rest.split()
    if words.peek() in ("1", "2", "2B", "3", "4"):
        said = words.take()
        tokens.append(
            Token(
                said,
                tr("for unalloyed and low-alloy steel") if said == "1" else tr("class {said}", said=said),
            )
        )
    if re.fullmatch(r"\d{2,3}", words.peek()):
        tokens.append(Token(words.take(), tr("gain and loss of Si and Mn")))
    polarities: tuple[str, ...] = ()
    if words.peek() in ("DC", "AC"):
        said = words.take()
        polarities = ("DCEP", "AC") if said == "AC" else ("DCEP",)
        tokens.append(
            Token(said, tr("alternating and direct current") if said == "AC" else tr("direct current"))
        )
    hydrogen = read_hydrogen(words)
    words.done(("S A AB 1 67 AC H5",))
    found = _decoded(
        " ".join(token.text for token in tokens),
        "ISO 14174",
        "flux",
        tokens,
        read_from(table("iso_14174")),
        polarities=polarities,
        hydrogen_ml_100g=hydrogen,
    )
    return found
