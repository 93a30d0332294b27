"""Wire and rod: AWS A5.18, A5.28, A5.9 (stainless), A5.10 and ISO 18273 (aluminium), A5.7 (copper)."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from welding.consumables.designations.model import Decoded, RefusedError, Token, read_from
from welding.consumables.designations.text import rows, split_hydrogen, table
from welding.language import tr

_STEEL = re.compile(r"^(ER|E)(\d{2,3})(S|C)-(.+)$")
_STAINLESS = re.compile(r"^(ER|EQ|EC)(\d{3,4}[A-Z]*|16-8-2|19-10H|33-31)(?:-(.+))?$")
_ALUMINIUM = re.compile(r"^(ER|R)(\d{4}[A-Z]?)(?:-(.+))?$")
_ALUMINIUM_CAST = re.compile(r"^R-?(206\.0|C355\.0|A356\.0|357\.0|A357\.0|4008)$")
_COPPER = re.compile(r"^ER?CU(.*)$")
_BASE_METALS = {"304": "308", "304L": "308L", "303": "312", "301": "308"}
GAS_C, GAS_M = "CO2", "Ar+20-25CO2"


def steel_wire(text: str) -> Decoded | None:
    """Decode solid or metal-cored wire of carbon or low-alloy steel.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    match = _STEEL.match(text.split(" ")[0])
    if not match:
        return None
    body, hydrogen, moisture = split_hydrogen(text)
    match = _STEEL.match(body)
    if not match or moisture:
        raise RefusedError(tr("{text} is no class of A5.18 or A5.28", text=text), (body,))
    prefix, strength, kind, tail = match.groups()
    if kind == "S" and prefix == "E":
        raise RefusedError(tr("solid wire begins with ER"), (f"ER{strength}S-{tail}",))
    if kind == "C" and prefix == "ER":
        raise RefusedError(tr("metal-cored wire begins with E, not with ER"), (f"E{strength}C-{tail}",))
    notes: list[str] = []
    if strength in ("48", "49"):
        notes.append(tr("{strength} is the metric spelling of 70", strength=strength))
        strength = "70"
    name = f"{prefix}{strength}{kind}-{tail}"
    carbon, alloy = rows("a5_18").get(name), rows("a5_28").get(name)
    if carbon is None and alloy is None:
        raise RefusedError(*_not_a_class(prefix, strength, kind, tail))
    row: Any = carbon or alloy
    if name == "ER70S-G":
        notes.append(tr("a class of A5.28 too: ask which is meant"))
    solid = row["kind"] == "solid"
    last = name[-1] if not solid and name[-1] in "CM" else ""
    gases = {"C": (GAS_C,), "M": (GAS_M,)}.get(last, ())
    shown = str(row["class"])
    tensile = row.get("tensile_mpa") or rows("aws_tensile")[strength]["tensile_mpa"]
    tokens = [
        Token(prefix, tr("electrode or rod") if solid else "electrode"),
        Token(strength, tr("tensile strength at least {tensile} MPa", tensile=tensile)),
        Token(kind, "solid" if solid else "metal-cored"),
        Token(shown.partition("-")[2], str(row["deposit"])),
    ]
    if last:
        tokens.append(
            Token(
                last,
                tr("classified with CO2") if last == "C" else tr("classified with 75 to 80 % Ar, rest CO2"),
            )
        )
    if hydrogen:
        tokens.append(
            Token(
                f"H{hydrogen:g}",
                tr("at most {hydrogen:g} ml hydrogen in 100 g of deposit", hydrogen=hydrogen),
            )
        )
    source = table("a5_18") if carbon else table("a5_28")
    return Decoded(
        valid=True,
        designation=shown + (f" H{hydrogen:g}" if hydrogen else ""),
        system="AWS A5.18" if carbon else "AWS A5.28",
        product="solid wire or rod" if solid else "metal-cored wire",
        process="135" if solid else "138",
        processes=("135", "141") if solid else ("138",),
        meaning=tuple(tokens),
        polarities=("DCEP", "DCEN") if solid else ("DCEP",),
        gases=gases,
        shielding="gas",
        positions="all",
        runs=row.get("runs", "multi"),
        tensile_mpa=tensile,
        yield_mpa=row.get("yield_mpa"),
        impact_j=row.get("impact_j"),
        impact_c=row.get("impact_c"),
        hydrogen_ml_100g=hydrogen,
        notes=(*notes, *((tr("DCEP for 135, DCEN for 141"),) if solid else ())),
        sources=read_from(source, table("aws_tensile")),
    )


def _not_a_class(prefix: str, strength: str, kind: str, tail: str) -> tuple[str, tuple[str, ...]]:
    start = f"{prefix}{strength}{kind}-"
    if kind == "C" and tail in ("3", "6"):
        return tr("the gas letter C or M is missing behind {start}{tail}", start=start, tail=tail), (
            f"{start}{tail}C",
            f"{start}{tail}M",
        )
    known = [str(row["class"]) for name in ("a5_18", "a5_28") for row in rows(name).values()]
    near = [one for one in known if one.upper().endswith(f"{kind}-{tail}")]
    near += [one for one in known if one.upper().startswith(start)]
    if not near:
        return tr("{strength} is no strength of A5.18 or A5.28", strength=strength), (
            f"{prefix}70{kind}-{tail}",
        )
    return tr("{start}{tail} is no class of A5.18 or A5.28", start=start, tail=tail), tuple(
        dict.fromkeys(near)
    )


def stainless_wire(text: str) -> Decoded | None:
    """Decode bare stainless wire, rod, strip or metal-cored wire; returns and raises as ``steel_wire``."""
    match = _STAINLESS.match(text)
    if not match:
        return None
    prefix, alloy, suffix = match.groups()
    row = rows("a5_9").get(alloy)
    if row is None:
        if alloy in _BASE_METALS:
            raise RefusedError(
                tr(
                    "{alloy} is a base metal and no filler; it is welded with {base_metals}",
                    alloy=alloy,
                    base_metals=_BASE_METALS[alloy],
                ),
                (f"{prefix}{_BASE_METALS[alloy]}",),
            )
        return None
    shown = str(row["alloy"])
    if suffix:
        covered = suffix in ("15", "16", "17", "26")
        why = tr("is a suffix of covered electrodes") if covered else tr("means nothing behind a bare wire")
        raise RefusedError(
            f"-{suffix} {why}", (f"{prefix}{shown}", f"E{shown}-{suffix}" if covered else f"{prefix}{shown}")
        )
    cored = prefix == "EC"
    if cored and not row["composite"]:
        raise RefusedError(tr("EC{shown} is no metal-cored class known here", shown=shown), (f"ER{shown}",))
    product = {"ER": "solid wire or rod", "EQ": "strip", "EC": "metal-cored wire"}[prefix]
    processes = {"ER": ("135", "141"), "EQ": ("12",), "EC": ("138",)}[prefix]
    return Decoded(
        valid=True,
        designation=f"{prefix}{shown}",
        system="AWS A5.9",
        product=product,
        process=processes[0],
        processes=processes,
        meaning=(
            Token(prefix, tr(product)),
            Token(shown, tr("alloy {shown}{grade}", shown=shown, grade=_grade(shown))),
        ),
        polarities=("DCEP", "DCEN") if prefix == "ER" else ("DCEP",),
        shielding="none" if prefix == "EQ" else "gas",
        positions="all" if prefix != "EQ" else "",
        notes=(tr("the standard sets the chemistry only: no strength, impact or position"),),
        sources=read_from(table("a5_9")),
    )


def _grade(alloy: str) -> str:
    words = []
    if "LSi" in alloy or alloy.endswith("Si"):
        words.append(tr("more silicon, wets better"))
    if "L" in alloy[3:]:
        words.append(tr("low carbon"))
    if alloy.endswith("H"):
        words.append(tr("higher carbon, for heat"))
    return f": {', '.join(words)}" if words else ""


def aluminium_wire(text: str) -> Decoded | None:
    """Decode an aluminium filler of AWS A5.10; returns and raises as ``steel_wire``."""
    cast = _ALUMINIUM_CAST.match(text)
    match = _ALUMINIUM.match(text)
    if cast:
        prefix, alloy, suffix = "R", cast[1], None
    elif match:
        prefix, alloy, suffix = match.groups()
    else:
        return None
    row = rows("aluminium_fillers").get(alloy)
    if row is None and not cast:
        if alloy[0] in "12345678" and len(alloy) >= 4 and alloy in rows("a5_9"):
            return None
        raise RefusedError(tr("{alloy} is no filler alloy of A5.10", alloy=alloy), ("ER4043", "ER5356"))
    if suffix:
        raise RefusedError(
            tr("-{suffix} means nothing behind an aluminium filler", suffix=suffix), (f"{prefix}{alloy}",)
        )
    return replace(
        _aluminium(row, alloy, "AWS A5.10", f"{prefix}{alloy}"),
        product="rod" if prefix == "R" else "solid wire or rod",
        process="141" if prefix == "R" else "131",
        processes=("141",) if prefix == "R" else ("131", "141"),
    )


def _aluminium(row: Any, alloy: str, system: str, name: str) -> Decoded:
    words = (
        tr("{row} alloy, {row2}", row=row["family"], row2=row["symbol"])
        if row
        else tr("casting alloy, rod only")
    )
    notes = [tr("never CO2 or oxygen in the gas"), tr("DCEP for 131, AC for 141")]
    magnesium = row.get("magnesium_percent") if row else None
    if magnesium and magnesium > 3:
        notes.append(tr("over 3 % Mg: not for service above 65 °C (stress corrosion)"))
    return Decoded(
        valid=True,
        designation=name,
        system=system,
        product="solid wire or rod",
        process="131",
        processes=("131", "141"),
        meaning=(Token(alloy, words),),
        polarities=("DCEP", "AC", "DCEN"),
        gases=("I1", "I3"),
        shielding="gas",
        positions="all",
        notes=tuple(notes),
        sources=read_from(table("aluminium_fillers")),
    )


def iso_aluminium(text: str) -> Decoded | None:
    """Decode an aluminium filler of ISO 18273, ``S Al 5356 (AlMg5Cr(A))``; returns and raises as above."""
    match = re.match(r"^(?:ISO 18273[- ]?)?S (?:(AL) ?)?(\S+?)(?: ?\((.+)\))?$", text)
    if not match:
        return None
    if not match[1]:
        raise RefusedError(
            tr("behind S stands Al and the alloy's number, not {match}", match=match[2]),
            ("S Al 4043", "S Al 5356"),
        )
    row = rows("aluminium_fillers").get(match[2])
    if row is None:
        raise RefusedError(
            tr("{match} is no filler alloy of ISO 18273", match=match[2]), ("S Al 4043", "S Al 5356")
        )
    if match[3] and match[3].replace(".", ",") != str(row["symbol"]).upper():
        raise RefusedError(
            tr("{row} is {row2} and not {match}", row=row["alloy"], row2=row["symbol"], match=match[3]),
            (f"S Al {row['alloy']} ({row['symbol']})",),
        )
    symbol = f" ({row['symbol']})" if match[3] else ""
    return _aluminium(row, str(row["alloy"]), "ISO 18273", f"S Al {row['alloy']}{symbol}")


def copper_wire(text: str) -> Decoded | None:
    """Decode a copper filler of AWS A5.7 or A5.6; returns and raises as ``steel_wire``."""
    if not _COPPER.match(text):
        return None
    if not text.startswith("ER"):
        return _copper_electrode(text)
    row = rows("a5_7").get(text)
    if row is None:
        near = [
            str(one["class"])
            for one in rows("a5_7").values()
            if str(one["class"]).upper().startswith(text[:6])
        ]
        raise RefusedError(
            tr("{text} is no class of A5.7: the group letter behind the elements decides", text=text),
            tuple(near),
        )
    return Decoded(
        valid=True,
        designation=str(row["class"]),
        system="AWS A5.7",
        product="solid wire or rod",
        process="131",
        processes=("131", "141"),
        meaning=(Token("ER", tr("electrode or rod")), Token(str(row["class"])[2:], str(row["words"]))),
        polarities=("DCEP", "DCEN", "AC"),
        gases=("I1", "I2", "I3"),
        shielding="gas",
        positions="all",
        notes=(tr("DCEP for 131, DCEN for 141, AC for aluminium bronze"),),
        sources=read_from(table("a5_7")),
    )


def _copper_electrode(text: str) -> Decoded:
    row = rows("a5_6").get(text)
    if row is None:
        near = [
            str(one["class"]) for one in rows("a5_6").values() if str(one["class"]).upper()[:4] == text[:4]
        ]
        raise RefusedError(tr("{text} is no class of A5.6 known here", text=text), tuple(near))
    return Decoded(
        valid=True,
        designation=str(row["class"]),
        system="AWS A5.6",
        product="covered electrode",
        process="111",
        processes=("111",),
        meaning=(Token("E", tr("covered electrode")), Token(str(row["class"])[1:], str(row["words"]))),
        polarities=("DCEP",),
        shielding="none",
        positions="all",
        sources=read_from(table("a5_6")),
    )
