"""Test pieces that a welder could weld to be qualified for a weld."""

from __future__ import annotations

from dataclasses import replace
from itertools import product as each_of
from typing import Literal

from welding.documents.welder_weld import ProcessPart, WelderWeld
from welding.welders.codes.iso_9606_1_2017.rules.basics import table

Product = Literal["plate", "pipe"]
Layers = Literal["sl", "ml"]
_ON_PLATE = ("PE", "PF", "PG")
_FIXED = ("PH", "PJ", "H-L045", "J-L045")


def pieces_for(asked: WelderWeld) -> tuple[WelderWeld, ...]:
    """The piece as the weld is asked, and those of the other positions, sizes and details of the tables.

    Whether each of them covers the weld is not said here. None for mechanized welding, which is not tested
    by this part.
    """
    if asked.mechanized:
        return ()
    products: tuple[Product, ...] = ("plate", "pipe") if asked.product == "pipe" else ("plate",)
    details = _details(asked)
    found = []
    for product, parts, (backing, layers) in each_of(products, _parts(asked), details):
        for position in _positions(asked.weld, product):
            found.append(
                replace(
                    asked,
                    parts=parts,
                    product=product,
                    diameter_mm=asked.diameter_mm if product == "pipe" else None,
                    position=position,
                    backing=backing,
                    layers=layers,
                    layer_count=_layers(parts),
                    turning=None,
                    branch_deg=None,
                )
            )
    return tuple(dict.fromkeys(found))


def _positions(weld: str, product: str) -> list[str]:
    kind = "BW" if weld == "butt" else "FW"
    rows = [str(row["row"]).split(" ") for row in table("positions").rows]
    other = _FIXED if product == "plate" else _ON_PLATE
    return [position for of, position in rows if of == kind and position not in other]


def _details(asked: WelderWeld) -> list[tuple[str | None, Layers | None]]:
    if asked.weld == "fillet":
        return [(None, "ml"), *([(None, asked.layers)] if asked.layers != "ml" else [])]
    return [(one, None) for one in dict.fromkeys((asked.backing, "ss nb"))]


def _parts(asked: WelderWeld) -> list[tuple[ProcessPart, ...]]:
    deposited = asked.parts[0].deposited_mm
    row = table("sizes").row("butt.medium")
    if asked.weld == "fillet" or len(asked.parts) > 1 or deposited is None or deposited < row["least_mm"]:
        return [asked.parts]
    sizes = dict.fromkeys((deposited, float(row["below_mm"])))
    return [(replace(asked.parts[0], deposited_mm=one),) for one in sizes]


def _layers(parts: tuple[ProcessPart, ...]) -> int | None:
    """The layers that a thick piece is welded in at least."""
    deposited = parts[0].deposited_mm if len(parts) == 1 else None
    thick = deposited is not None and deposited >= table("sizes").row("butt.medium")["below_mm"]
    return int(table("sizes").row("butt.thick")["layers"]) if thick else None
