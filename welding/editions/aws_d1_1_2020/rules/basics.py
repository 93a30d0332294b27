"""What the range rules of AWS D1.1:2020 share: its processes, its printed columns, how an item is made."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.documents.fields import UnitColumn
from welding.editions.aws_d1_1_2020.rules.clauses import MM_PER_INCH, PACKAGE
from welding.editions.toolkit import SLACK, EditionTables, in_band, row_of
from welding.qualification.coupon import TestCoupon

PROCESSES: dict[str, tuple[str, ...]] = {
    "SMAW": ("111", "112"),
    "SAW": ("121", "122", "124", "125", "126"),
    "GMAW": ("131", "133", "135", "138"),
    "FCAW": ("114", "132", "136"),
    "GTAW": ("141", "142", "143", "145", "146"),
}
"""The code's processes by their ISO 4063 numbers."""
_NOMINAL_MM = 0.01
"""How far an inch size written in mm is off its printed size (ASME B36.10M rounds to 0.01 mm)."""


@by_book(100)
def earlier_number(clause: str) -> str:
    """The table's number in the edition of 2015, where it is known.

    Example:
        >>> earlier_number("table 6.5")
        '2015: table 4.5'
    """
    named = re.match(r"tables? ([\d.]+)(?: and ([\d.]+))?", clause)
    rows = {row["row"]: row for row in load_table(PACKAGE, "clause_numbers").rows}
    before = [rows[one]["number_2015"] for one in (named.groups() if named else ()) if one in rows]
    return f"2015: table{'s' if len(before) > 1 else ''} {' and '.join(before)}" if before else ""


TABLES = EditionTables(PACKAGE, earlier_number)
table_of, item = TABLES.table, TABLES.item


def code_process(process: str) -> str | None:
    """The code's own process, ``None`` where it has no variables for it.

    Example:
        >>> code_process("138"), code_process("311")
        ('GMAW', None)
    """
    return next((name for name, numbers in PROCESSES.items() if process in numbers), None)


_ALIKE: tuple[tuple[str, ...], ...] = (("131", "133", "135", "138"), ("132", "136"))
"""Numbers that differ in gas or in kind of wire alone, which are variables of their own in table 6.5. Strip,
added metal powder, cored rods and self-shielded wire are tested for themselves (common practice)."""


def same_process(process: str) -> tuple[str, ...]:
    """Every number that is the same process under this code.

    Example:
        >>> same_process("138"), same_process("121")
        (('131', '133', '135', '138'), ('121',))
    """
    return next((alike for alike in _ALIKE if process in alike), (process,))


def figure(row: Mapping[str, Any], name: str, units: UnitColumn) -> float | None:
    """A printed length in mm from the column that governs; ``None`` where the row has none.

    Example:
        >>> figure({"to_mm": 10, "to_in": 0.375}, "to", "us")
        9.525
    """
    value = row.get(f"{name}_mm") if units == "si" else row.get(f"{name}_in")
    if value is None:
        return None
    return float(value) if units == "si" else float(value) * MM_PER_INCH


def degrees(row: Mapping[str, Any], name: str, units: UnitColumn) -> float | None:
    """A printed difference of temperature in °C from the column that governs."""
    if units == "si":
        return None if row.get(f"{name}_c") is None else float(row[f"{name}_c"])
    return None if row.get(f"{name}_f") is None else float(row[f"{name}_f"]) / 1.8


def in_row(row: Mapping[str, Any], value_mm: float, units: UnitColumn) -> bool:
    """Whether a thickness is in a row's band: from and to include their edge, over and below leave it out."""
    start, over = figure(row, "from", units), figure(row, "over", units)
    to, below = figure(row, "to", units), figure(row, "below", units)
    # A wall of 3/8 in is listed as 9.53 mm: a nominal size in mm is the printed inch size.
    slack = _NOMINAL_MM if units == "us" else SLACK * max(1.0, value_mm)
    return in_band(value_mm, start_mm=start, over_mm=over, to_mm=to, below_mm=below, slack_mm=slack)


def joint_row(coupon: TestCoupon, variable: str) -> Mapping[str, Any]:
    """Row of table 6.5 for a variable of the joint: that of the first process that has one."""
    for process in coupon.processes:
        name = code_process(process)
        row = variable_row(variable, name) if name else None
        if row is not None:
            return row
    return row_of(table_of("essential_variables"), f"{variable}.GMAW")


def variable_row(variable: str, process: str) -> Mapping[str, Any] | None:
    """Row of table 6.5 for a variable and a process of the code."""
    return next(
        (row for row in table_of("essential_variables").rows if row["row"] == f"{variable}.{process}"), None
    )
