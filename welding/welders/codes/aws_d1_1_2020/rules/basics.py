"""What the rules of this edition are made with: its tables, and items whose rule is a row of one."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from welding.editions.toolkit import EditionTables

_TABLES = EditionTables("welding.welders.codes.aws_d1_1_2020")
table = _TABLES.table
item = _TABLES.item
MM_PER_IN = 25.4


def column(row: Mapping[str, Any], name: str, units: str) -> float | None:
    """A length of a row in its printed column [mm]; ``None`` where the row has none."""
    value = row.get(f"{name}_in" if units == "us" else f"{name}_mm")
    if value is None:
        return None
    return float(value) * MM_PER_IN if units == "us" else float(value)
