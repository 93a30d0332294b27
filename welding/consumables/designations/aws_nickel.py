"""Nickel fillers: AWS A5.11 (covered electrodes), A5.14 (bare wire and rod), A5.34 (cored wire)."""

from __future__ import annotations

import re

from welding.consumables.designations.model import Decoded, RefusedError, Token, read_from
from welding.consumables.designations.text import rows, table
from welding.language import tr

_SHAPE = re.compile(r"^(ER|E)NI[A-Z]*-\w+$|^E?R?NI")


_ALSO_AC = ("ENiCrMo-6", "ENiCrFe-9", "ENiMo-8")
"""Made for 9 % nickel steel, which magnetism troubles (from memory)."""


def nickel(text: str) -> Decoded | None:
    """Decode a nickel filler.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class that is known here.
    """
    if not _SHAPE.match(text):
        return None
    row = rows("a5_11_14").get(text)
    if row is None:
        known = [str(one["class"]) for one in rows("a5_11_14").values()]
        stem = text.removeprefix("ER").removeprefix("E").rstrip("-0123456789")
        near = [one for one in known if one.upper().removeprefix("ER").removeprefix("E").startswith(stem)]
        # The same prefix and the same elements first.
        near.sort(key=lambda one: (one.upper().rstrip("0123456789-") != text.rstrip("0123456789-"), one))
        raise RefusedError(tr("{text} is no nickel class known here", text=text), tuple(near))
    covered = row["kind"] == "covered"
    name = str(row["class"])
    if row["kind"] == "cored":
        return _cored(name, str(row["words"]), row.get("tensile_mpa"))
    prefix = "E" if covered else "ER"
    return Decoded(
        valid=True,
        designation=name,
        system="AWS A5.11" if covered else "AWS A5.14",
        product="covered electrode" if covered else "solid wire or rod",
        process="111" if covered else "131",
        processes=("111",) if covered else ("131", "141"),
        meaning=(
            Token(prefix, tr("covered electrode") if covered else tr("electrode or rod")),
            Token(name.removeprefix(prefix), str(row["words"])),
        ),
        polarities=(("AC", "DCEP") if name in _ALSO_AC else ("DCEP",)) if covered else ("DCEP", "DCEN"),
        gases=() if covered else ("I1", "I3"),
        shielding="none" if covered else "gas",
        positions="all",
        tensile_mpa=row.get("tensile_mpa"),
        notes=() if covered else (tr("DCEP for 131, DCEN for 141"),),
        sources=read_from(table("a5_11_14")),
    )


def _cored(name: str, words: str, tensile_mpa: float | None) -> Decoded:
    co2 = name.endswith("-1")
    return Decoded(
        valid=True,
        designation=name,
        system="AWS A5.34",
        product="flux-cored wire",
        process="136",
        processes=("136",),
        meaning=(
            Token("E", "electrode"),
            Token(name[1:].split("T")[0], words),
            Token(f"T{name.split('T')[-1]}", tr("cored, CO2") if co2 else tr("cored, argon with CO2")),
        ),
        polarities=("DCEP",),
        gases=("C1",) if co2 else ("M21",),
        shielding="gas",
        positions="all",
        tensile_mpa=tensile_mpa,
        sources=read_from(table("a5_11_14")),
    )
