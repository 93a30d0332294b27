"""Least sizes of fillets and of partial groove welds (AWS D1.1:2020, tables 7.7 and 5.5)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from welding.codebook.table import Table, load_table
from welding.documents.fields import UnitColumn
from welding.ranges import positive

MM_PER_INCH = 25.4


def sizes_table() -> Table:
    """The table with its passport."""
    return load_table("welding.editions.aws_d1_1_2020", "least_sizes")


def _least(weld: str, thickness_mm: float, units: UnitColumn) -> float:
    positive("mm").require("thickness_mm", thickness_mm)

    def top(row: Mapping[str, Any]) -> float:
        return float(row["to_mm"] if units == "si" else row["to_in"] * MM_PER_INCH)

    row = next(r for r in sizes_table().rows if r["weld"] == weld and thickness_mm <= top(r) * (1 + 1e-9))
    return float(row["size_mm"] if units == "si" else row["size_in"] * MM_PER_INCH)


def least_fillet_mm(thickness_mm: float, units: UnitColumn = "si") -> float:
    """Least leg of a fillet [mm]; it need not exceed the thinner part.

    Args:
        thickness_mm: Of the thinner part when welded low-hydrogen, of the thicker one otherwise [mm].
        units: Which printed column governs.

    Example:
        >>> least_fillet_mm(10), least_fillet_mm(25)
        (5.0, 8.0)
    """
    return min(_least("fillet", thickness_mm, units), thickness_mm)


def least_partial_mm(thickness_mm: float, units: UnitColumn = "si") -> float:
    """Least size E of a prequalified partial groove weld [mm], by the thicker part."""
    return _least("partial", thickness_mm, units)
