"""Nickel and copper fillers in ISO names: ISO 18274, ISO 14172 and ISO 24373, by the AWS class they equal."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

from welding.consumables.designations.aws_nickel import nickel
from welding.consumables.designations.aws_wire import copper_wire
from welding.consumables.designations.model import Decoded, RefusedError, Token, read_from
from welding.consumables.designations.text import rows, table
from welding.language import tr, tr_noop

_SHAPE = re.compile(r"^(?:ISO (?:18274|14172|24373)[- ]?)?(S|B|E) ?(NI|CU) ?(\d{4}[A-Z]?)(?: ?\((.+)\))?$")
_SYSTEMS = {("NI", True): "ISO 14172", ("NI", False): "ISO 18274", ("CU", False): "ISO 24373"}
_PREFIXES = {"S": tr_noop("solid wire or rod"), "B": "strip", "E": tr_noop("covered electrode")}


def iso_nonferrous(text: str) -> Decoded | None:
    """Decode ``S Ni 6625 (NiCr22Mo9Nb)``, ``E Ni 6182``, ``S Cu 6560``.

    Returns:
        What the class of AWS that it equals says, under its own name; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no symbol that is known here.
    """
    match = _SHAPE.match(text)
    if not match:
        return None
    prefix, base, number, chemical = match.groups()
    metal = base.capitalize()
    system = _SYSTEMS.get((base, prefix == "E"))
    row = rows("iso_nonferrous").get(f"{base} {number}")
    column = "electrode" if prefix == "E" else "wire"
    known = [f"{prefix} {one['symbol']}" for one in rows("iso_nonferrous").values() if one.get(column)]
    if system is None:
        raise RefusedError(
            tr("no ISO name of covered copper electrodes is known here; A5.6 has"), ("ECuSn-A",)
        )
    if row is None or not row.get(column):
        near = tuple(one for one in known if one.startswith(f"{prefix} {metal} {number[:2]}"))
        raise RefusedError(
            tr(
                "{prefix} {metal} {number} is no symbol of {system} known here",
                prefix=prefix,
                metal=metal,
                number=number,
                system=system,
            ),
            near,
        )
    _same_chemistry(row, prefix, chemical)
    read: Callable[[str], Decoded | None] = nickel if base == "NI" else copper_wire
    found = read(str(row[column]).upper())
    if found is None:
        raise RefusedError(tr("{row} is not known here", row=row["symbol"]), ())
    shown = f"{prefix} {row['symbol']} ({row['chemical']})"
    return replace(
        found,
        designation=shown,
        same_as=found.designation,
        system=system,
        meaning=(
            Token(prefix, tr(_PREFIXES[prefix])),
            Token(
                str(row["symbol"]),
                tr("{row}; as {designation}", row=row["chemical"], designation=found.designation),
            ),
        ),
        sources=read_from(table("iso_nonferrous")),
    )


def _same_chemistry(row: Mapping[str, Any], prefix: str, chemical: str | None) -> None:
    if chemical and chemical.replace(".", ",").replace(" ", "") != str(row["chemical"]).upper():
        raise RefusedError(
            tr(
                "{row} is {row2} and not {chemical}",
                row=row["symbol"],
                row2=row["chemical"],
                chemical=chemical,
            ),
            (f"{prefix} {row['symbol']} ({row['chemical']})",),
        )
