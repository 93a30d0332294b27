"""What the rules of every edition are made with: its tables, bands of thickness, items of a range."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from welding.codebook.book import by_book
from welding.codebook.table import Table, load_table
from welding.glossary.values import in_words
from welding.qualification.items import RangeItem, rule_of

SLACK = 1e-9
"""Relative slack at an edge, so that converted sizes stay on their side."""


@dataclass(frozen=True, slots=True)
class EditionTables:
    """The tables of one edition.

    Attributes:
        package: Dotted name of the edition's folder.
        earlier_number: The number of a table in the edition before, by its clause; or "".
    """

    package: str
    earlier_number: Callable[[str], str] = lambda _: ""

    def table(self, name: str) -> Table:
        """A table of this edition, corrections laid over it."""
        return load_table(self.package, name)

    def item(
        self,
        table: Table,
        row: Mapping[str, Any],
        variable: str,
        kind: Any,
        reason: str,
        *,
        columns: tuple[str, ...] = (),
        **more: Any,
    ) -> RangeItem:
        """A range item whose rule is this row; ``columns`` are the ones it was read from."""
        named = _in_words((*more.get("values", ()), *more.get("doubtful", ())), variable)
        return RangeItem(
            variable=variable,
            kind=kind,
            reason=reason,
            rule=rule_of(table, row, *columns, earlier=self.earlier_number(table.citation.clause)),
            unchecked=table.unchecked_of(row, *columns),
            words=named,
            **more,
        )


@by_book(5000)
def _in_words(values: tuple[str, ...], variable: str) -> dict[str, str]:
    """What the values of an item are called; shared by items, and not to be changed."""
    return {one: in_words(one, variable) for one in values}


def row_of(table: Table, key: str) -> Mapping[str, Any]:
    """A row by its key."""
    return table.row(key)


def in_band(
    value_mm: float,
    *,
    start_mm: float | None,
    over_mm: float | None,
    to_mm: float | None,
    below_mm: float | None,
    slack_mm: float,
) -> bool:
    """Whether a thickness lies in a band: from and to include their edge, over and below leave it out.

    Example:
        >>> edges = {"start_mm": 3.0, "over_mm": None, "to_mm": None, "below_mm": 12.0, "slack_mm": 1e-9}
        >>> in_band(3.0, **edges), in_band(12.0, **edges)
        (True, False)
    """
    return (
        (start_mm is None or value_mm >= start_mm - slack_mm)
        and (over_mm is None or value_mm > over_mm + slack_mm)
        and (to_mm is None or value_mm <= to_mm + slack_mm)
        and (below_mm is None or value_mm < below_mm - slack_mm)
    )
