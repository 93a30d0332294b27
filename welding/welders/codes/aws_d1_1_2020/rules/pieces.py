"""Test pieces of clause 6 that a person could weld to be qualified for a weld."""

from __future__ import annotations

from dataclasses import replace
from itertools import product as each_of

from welding.documents.welder_weld import WelderWeld
from welding.welders.codes.aws_d1_1_2020.rules.basics import column, table

_PIPES = ("pipe.large.6", "pipe.small.2")
_PLATES = ("plate.unlimited", "plate.standard")


def pieces_for(asked: WelderWeld) -> tuple[WelderWeld, ...]:
    """Groove welds on the test plates and pipes of the tables, and fillet welds for a fillet weld.

    Whether each of them covers the weld is not said here. None for plug and slot welds and for tack welders,
    whose pieces are of another form.
    """
    if asked.groove == "plug" or asked.person == "tack-welder":
        return ()
    base = replace(asked, groove=None, weld="butt", dihedral_deg=None)
    found = [_piece(base, name, position, backing)
             for name in (*_PLATES, *_PIPES)
             for position, backing in each_of(_positions(asked, name), _backings(asked))]  # fmt: skip
    if asked.weld == "fillet":
        plate = replace(asked, product="plate", diameter_mm=None, dihedral_deg=None)
        found += [_vertical(replace(plate, position=one)) for one in _rows("plate") if one.endswith("F")]
    return tuple(dict.fromkeys(found))


def _rows(product: str) -> list[str]:
    rows = [str(row["row"]).split(" ") for row in table("positions").rows]
    return [position for of, position in rows if of == product]


def _positions(asked: WelderWeld, name: str) -> list[str]:
    product = name.partition(".")[0]
    found = [one for one in _rows(product) if not one.endswith("F")]
    return [one for one in found if (one == "6GR") == (asked.groove == "tyk")]


def _backings(asked: WelderWeld) -> list[str]:
    own = asked.backing if asked.backing in ("backing", "open root") else "backing"
    return list(dict.fromkeys((own, "open root")))


def _piece(base: WelderWeld, name: str, position: str, backing: str) -> WelderWeld:
    row = table("sizes").row(name)
    pipe = name in _PIPES
    thickness = column(row, "tested", base.units) or column(row, "tested", "si")
    return _vertical(
        replace(
            base,
            product="pipe" if pipe else "plate",
            position=position,
            backing=backing,
            thickness_mm=thickness,
            diameter_mm=row.get("diameter_mm"),
        )
    )


def _vertical(piece: WelderWeld) -> WelderWeld:
    """With a progression where one of its positions is vertical: as it is asked, else uphill."""
    needs = table("asked_positions").row(piece.position)["needs"]
    return replace(piece, progression=(piece.progression or "uphill") if "V" in needs else None)
