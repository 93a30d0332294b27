"""What the rules of ISO 15614-1:2017 share: its tables, rows that several ask for, bands of thickness."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from welding.editions.toolkit import SLACK, EditionTables, in_band, row_of

PACKAGE = "welding.editions.iso_15614_1_2017"
TABLES = EditionTables(PACKAGE)
table_of, item = TABLES.table, TABLES.item


def condition(name: str) -> Mapping[str, Any]:
    """Row of the table of test conditions."""
    return row_of(table_of("test_conditions"), name)


def single_share() -> float:
    """Least single impact value as a share of the mean asked."""
    return float(row_of(table_of("acceptance"), "impact.single_share")["share"])


def variable_row(variable: str, level: int) -> Mapping[str, Any]:
    """Row of the table of variables for a level."""
    return row_of(table_of("variables"), f"{variable}.{level}")


def in_row(row: Mapping[str, Any], value: float) -> bool:
    """Whether a thickness is in a row's band: from and to include their edge, over and below leave it out."""
    return in_band(
        value,
        start_mm=row.get("from_mm"),
        over_mm=row.get("over_mm"),
        to_mm=row.get("to_mm"),
        below_mm=row.get("below_mm"),
        slack_mm=SLACK * max(1.0, value),
    )
