"""Covered electrodes: AWS A5.1 (carbon steel), A5.5 (low alloy), A5.4 (stainless)."""

from __future__ import annotations

import re
from dataclasses import replace

from welding.consumables.designations.model import Decoded, RefusedError, Token, read_from
from welding.consumables.designations.text import options, rows, split_hydrogen, table
from welding.language import tr, tr_noop

_SHAPE = re.compile(r"^E(60|70|80|90|100|110|120)(\d\d)(M1?)?(?:-(.+))?$")
_BEGINNING = re.compile(r"^E(?:60|70|80|90|100|110|120)\d\d(?!\d)")
_STAINLESS = re.compile(r"^E((?:\d{3,4}[A-Z]*)|16-8-2|33-31)(?:-(\d\d))?$")
_POSITIONS = {
    "1": ("all", tr_noop("all positions")),
    "2": ("flat-horizontal", tr_noop("flat, and horizontal fillets")),
    "4": (
        "flat-horizontal-overhead-vertical-down",
        tr_noop("flat, horizontal, overhead, vertical downwards"),
    ),
}
_POLARITIES = {
    "10": ("DCEP",),
    "11": ("AC", "DCEP"),
    "13": ("AC", "DCEP", "DCEN"),
    "15": ("DCEP",),
    "16": ("AC", "DCEP"),
    "18": ("AC", "DCEP"),
    "20": ("AC", "DCEN", "DCEP"),
    "27": ("AC", "DCEN", "DCEP"),
    "45": ("DCEP",),
}
_LOW_HYDROGEN = ("15", "16", "18", "45")
_USABILITY = {
    "15": (("DCEP",), "all", tr_noop("lime, DCEP only")),
    "16": (("AC", "DCEP"), "all", tr_noop("rutile with potassium")),
    "17": (("AC", "DCEP"), "all", tr_noop("rutile with more silica")),
    "26": (("AC", "DCEP"), "flat-horizontal", tr_noop("heavy covering, high deposition")),
    "25": (("DCEP",), "flat-horizontal", tr_noop("heavy lime covering, older editions")),
}


def covered(text: str) -> Decoded | None:
    """Decode a covered electrode of carbon or low-alloy steel.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    if not _BEGINNING.match(text):
        return None
    body, hydrogen, moisture = split_hydrogen(text)
    match = _SHAPE.match(body)
    if not match:
        raise RefusedError(
            tr("{text} is no class of A5.1 or A5.5", text=text), (body[:5], body.replace(" ", "-"))
        )
    strength, covering, military, suffix = match.groups()
    name = f"E{strength}{covering}{military or ''}{f'-{suffix}' if suffix else ''}"
    if name in rows("a5_1"):
        decoded = _carbon(name, strength, covering)
    elif suffix == "M" and strength != "70":
        decoded = _low_alloy(strength, covering, "M")
    elif military and strength != "70":
        decoded = _low_alloy(strength, covering, military)
    elif suffix and f"E{strength}{covering}" in rows("a5_1") and suffix in ("1", "M"):
        raise RefusedError(
            tr(
                "-{suffix} does not exist for E{strength}{covering}",
                suffix=suffix,
                strength=strength,
                covering=covering,
            ),
            (f"E{strength}{covering}", "E7018-1"),
        )
    elif suffix:
        decoded = _low_alloy(strength, covering, suffix)
    else:
        raise RefusedError(*_without_suffix(strength, covering))
    if (hydrogen or moisture) and not decoded.low_hydrogen:
        raise RefusedError(
            tr(
                "a hydrogen mark stands on low-hydrogen coverings only, and E{strength}{covering} is none",
                strength=strength,
                covering=covering,
            ),
            (name,),
        )
    tokens = [*decoded.meaning]
    if hydrogen:
        tokens.append(
            Token(
                f"H{hydrogen:g}",
                tr("at most {hydrogen:g} ml hydrogen in 100 g of deposit", hydrogen=hydrogen),
            )
        )
    if moisture:
        tokens.append(Token("R", tr("covering resists moisture")))
    mark = (f" H{hydrogen:g}" if hydrogen else "") + ("R" if moisture else "")
    return replace(
        decoded,
        designation=decoded.designation + (mark if hydrogen else mark.strip()),
        meaning=tuple(tokens),
        hydrogen_ml_100g=hydrogen if hydrogen else decoded.hydrogen_ml_100g,
    )


def _without_suffix(strength: str, covering: str) -> tuple[str, tuple[str, ...]]:
    if strength == "70" and covering in _POLARITIES:
        near = tuple(
            f"E70{covering}-{suffix}" for suffix in ("A1", "P1", "G") if _pair(suffix, "70", covering)
        )
        return tr("E70{covering} exists only with a suffix of A5.5", covering=covering), near
    if strength in ("60", "70"):
        return tr("E{strength}{covering} is no class of A5.1", strength=strength, covering=covering), (
            f"E{strength}18",
            f"E{strength}{covering}",
        )
    usual = ("C3", "B2", "C1", "B3", "D2", "M", "G")
    return (
        tr(
            "A5.5 always has a suffix for the deposit behind E{strength}{covering}",
            strength=strength,
            covering=covering,
        ),
        tuple(
            f"E{strength}{covering}{'' if suffix == 'M' else '-'}{suffix}"
            for suffix in usual
            if _pair(suffix, strength, covering)
        ),
    )


def _pair(suffix: str, strength: str, covering: str) -> bool:
    row = rows("a5_5").get(suffix.upper())
    return row is not None and strength in row["strengths"] and covering in row["coverings"]


def _carbon(name: str, strength: str, covering: str) -> Decoded:
    row, source = rows("a5_1")[name], table("a5_1")
    tokens = [
        Token("E", tr("covered electrode")),
        Token(
            strength,
            tr(
                "tensile strength at least {strength} ksi, {row} MPa",
                strength=strength,
                row=row["tensile_mpa"],
            ),
        ),
        Token(covering, f"{tr(_POSITIONS[covering[0]][1])}; {row['covering']}; {options(row['polarities'])}"),
    ]
    if name.endswith("-1"):
        tokens.append(
            Token("-1", tr("tougher: {row} J at {row2} °C", row=row["impact_j"], row2=row["impact_c"]))
        )
    if name.endswith("M"):
        tokens.append(Token("M", tr("military type: yield in a band")))
    return Decoded(
        valid=True,
        designation=name,
        system="AWS A5.1",
        product="covered electrode",
        process="111",
        processes=("111",),
        meaning=tuple(tokens),
        polarities=tuple(row["polarities"]),
        positions=row["positions"],
        runs=row.get("runs", "multi"),
        tensile_mpa=row["tensile_mpa"],
        yield_mpa=row.get("yield_mpa"),
        impact_j=row.get("impact_j"),
        impact_c=row.get("impact_c"),
        low_hydrogen=row["low_hydrogen"],
        notes=(tr("vertical welds upwards only"),) if covering in ("15", "16", "18") else (),
        sources=read_from(source),
    )


def _low_alloy(strength: str, covering: str, suffix: str) -> Decoded:
    row = rows("a5_5").get(suffix)
    if row is None:
        wire = suffix in ("NI1", "NI2", "NI3")
        suffixes = ("C3", "C1") if wire else ("G",)
        near = tuple(f"E{strength}{covering}-{one}" for one in suffixes)
        why = (
            tr("is a suffix of wire; covered electrodes say C1, C2 or C3")
            if wire
            else tr("is no suffix of A5.5")
        )
        raise RefusedError(f"{suffix.replace('NI', 'Ni')} {why}", near)
    shown = str(row["suffix"])
    joined = shown if shown in ("M", "M1") else f"-{shown}"
    if strength not in row["strengths"] or covering not in row["coverings"]:
        near = tuple(
            f"E{s}{c}{joined}"
            for s in row["strengths"]
            for c in row["coverings"]
            if s == strength or c == covering
        )
        raise RefusedError(
            tr(
                "{shown} exists at {options} ksi with covering {options2}",
                shown=shown,
                options=options(row["strengths"]),
                options2=options(row["coverings"]),
            ),
            near,
        )
    low = covering in _LOW_HYDROGEN
    tensile = rows("aws_tensile")[strength]["tensile_mpa"]
    if strength == "70":
        tensile = row.get("tensile_at_70_mpa", tensile)
    where, words = _POSITIONS[covering[0]]
    words = tr(words)
    polarities: tuple[str, ...] = ("DCEP",) if shown in ("M", "M1") else _POLARITIES[covering]
    return Decoded(
        valid=True,
        designation=f"E{strength}{covering}{joined}",
        system="AWS A5.5",
        product="covered electrode",
        process="111",
        processes=("111",),
        meaning=(
            Token("E", tr("covered electrode")),
            Token(strength, tr("tensile strength at least {tensile} MPa", tensile=tensile)),
            Token(covering, f"{words}; {options(list(polarities))}"),
            Token(shown, f"{row['deposit']}; {row['condition']}"),
        ),
        polarities=polarities,
        positions=where,
        tensile_mpa=tensile,
        impact_j=row.get("impact_j"),
        impact_c=row.get("impact_c"),
        low_hydrogen=low,
        sources=read_from(table("a5_5"), table("aws_tensile")),
    )


def covered_stainless(text: str) -> Decoded | None:
    """Decode a covered stainless electrode; returns and raises as ``covered``."""
    match = _STAINLESS.match(text)
    if not match:
        return None
    alloy, usability = match.groups()
    row = rows("a5_4").get(alloy)
    if row is None:
        if alloy in rows("a5_9") or alloy in ("304", "304L"):
            near = {"304": "E308-16", "304L": "E308L-16", "321": "E347-16"}.get(alloy)
            base = alloy.removesuffix("LSI") + "L" if alloy.endswith("LSI") else alloy.removesuffix("SI")
            raise RefusedError(
                tr("there is no covered electrode {alloy}", alloy=alloy),
                (near or f"E{base}-16", f"E{base}-17"),
            )
        return None
    shown = str(row["alloy"])
    if usability is None:
        raise RefusedError(
            tr("the usability suffix is missing: -15, -16, -17 or -26"),
            (f"E{shown}-16", f"E{shown}-17", f"E{shown}-15"),
        )
    if usability not in _USABILITY:
        raise RefusedError(
            tr("-{usability} is no usability of A5.4: -15, -16, -17 and -26 are", usability=usability),
            (f"E{shown}-16",),
        )
    polarities, positions, words = _USABILITY[usability]
    words = tr(words)
    return Decoded(
        valid=True,
        designation=f"E{shown}-{usability}",
        system="AWS A5.4",
        product="covered electrode",
        process="111",
        processes=("111",),
        meaning=(
            Token("E", tr("covered electrode")),
            Token(shown, tr("alloy {shown}", shown=shown)),
            Token(f"-{usability}", words),
        ),
        polarities=polarities,
        positions=positions,
        tensile_mpa=row.get("tensile_mpa"),
        notes=(tr("all positions up to 4.0 mm; larger flat and horizontal"),) if positions == "all" else (),
        sources=read_from(table("a5_4")),
    )
