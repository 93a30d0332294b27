"""Range items of electrodes that burn in one pool: each has its own current, polarity and angle."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Any

from welding.documents.setup import OneElectrode
from welding.qualification.items import RangeItem
from welding.qualification.welded import Run
from welding.ranges import Range
from welding.table import Table

MakeItem = Callable[..., RangeItem]
"""How an edition makes an item of a row."""


def of_each_electrode(runs: Sequence[Run]) -> Iterator[tuple[int, list[OneElectrode]]]:
    """Number of each electrode, the leading one being 1, with its settings in every run that has it."""
    several = [run.electrodes for run in runs if run.electrodes.count > 1]
    for number in range(1, max((wires.count for wires in several), default=0) + 1):
        yield (
            number,
            [
                wires.each[number - 1] if number <= len(wires.each) else OneElectrode()
                for wires in several
                if number <= wires.count
            ],
        )


def electrode_span(
    table: Table,
    row: Mapping[str, Any],
    variable: str,
    electrode: int,
    tested: Sequence[Range | None],
    limits: Callable[[float, float], tuple[float, float]],
    words: str,
    shared: Mapping[str, Any],
    make: MakeItem,
) -> RangeItem:
    """A number of one electrode; unknown while any run that has this electrode does not state it.

    Args:
        table: Table of the variable.
        row: Its row.
        variable: Name of the variable.
        electrode: Number of the electrode.
        tested: What each run was set to.
        limits: Least and greatest, from the least and the greatest that were set.
        words: How far it reaches.
        shared: Further fields of the item.
        make: How the edition makes an item.
    """
    known = [one for one in tested if one is not None]
    if len(known) < len(tested):
        reason = f"Electrode {electrode}: what it was set to is not recorded."
        return make(table, row, variable, "unknown", reason, electrode=electrode, **shared)
    low, high = min(one.min for one in known), max(one.max for one in known)
    least, most = limits(low, high)
    if least > most:
        least, most = low, high
    reason = f"Electrode {electrode}: {words}."
    return make(
        table, row, variable, "span", reason,
        min=least, max=most, tested=Range(low, high), electrode=electrode, **shared,
    )  # fmt: skip


def electrode_polarity(
    table: Table,
    row: Mapping[str, Any],
    electrode: int,
    tested: Sequence[str | None],
    shared: Mapping[str, Any],
    make: MakeItem,
) -> RangeItem:
    """Current and polarity of one electrode; unknown while any run does not state it."""
    found = tuple(dict.fromkeys(one for one in tested if one is not None))
    if None in tested:
        reason = f"Electrode {electrode}: its current and polarity are not recorded."
        return make(table, row, "electrode_polarity", "unknown", reason, electrode=electrode, **shared)
    return make(
        table, row, "electrode_polarity", "set", f"Electrode {electrode}: {', '.join(found)} as tested.",
        values=found, tested=found, electrode=electrode, **shared,
    )  # fmt: skip
