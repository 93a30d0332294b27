"""What the rules of this edition are made with: its tables, and items whose rule is a row of one."""

from __future__ import annotations

from welding.editions.toolkit import EditionTables

_TABLES = EditionTables("welding.welders.codes.iso_9606_1_2017")
table = _TABLES.table
item = _TABLES.item
