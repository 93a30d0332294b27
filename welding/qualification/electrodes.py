"""Range items of electrodes that burn in one pool: each has its own current, polarity and angle."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from welding.codebook.table import Table
from welding.documents.setup import OneElectrode
from welding.language import tr
from welding.qualification.coupon import Run
from welding.qualification.items import RangeItem
from welding.ranges import Range

MakeItem = Callable[..., RangeItem]
"""How an edition makes an item of a row."""


@dataclass(frozen=True, slots=True)
class TestedElectrode:
    """One electrode as set in some tested passes: its number, its settings, and what its items share."""

    number: int
    settings: OneElectrode
    scope: Mapping[str, Any]


def of_each_electrode(runs: Sequence[Run]) -> Iterator[TestedElectrode]:
    """Each electrode, the leading one being 1, once for every size and setting that was tested.

    Passes that were set otherwise stay apart: what lies between two settings was not welded.
    """
    several = [run for run in runs if run.electrodes.count > 1]
    # A pass of no known size is no counterpart of any, where others have one.
    several = [run for run in several if run.diameter_mm] or several
    for number in range(1, max((run.electrodes.count for run in several), default=0) + 1):
        groups: dict[tuple[float | None, OneElectrode], list[int]] = {}
        for run in several:
            if number <= run.electrodes.count:
                each = run.electrodes.each
                settings = each[number - 1] if number <= len(each) else OneElectrode()
                groups.setdefault((run.diameter_mm, settings), []).append(run.number)
        for (diameter_mm, settings), passes in groups.items():
            scope = {"filler_diameter_mm": diameter_mm, "tested_passes": tuple(passes), "electrode": number}
            yield TestedElectrode(number, settings, scope)


def electrode_span(
    table: Table,
    row: Mapping[str, Any],
    variable: str,
    electrode: TestedElectrode,
    tested: Range | None,
    limits: Callable[[float, float], tuple[float, float]],
    words: str,
    shared: Mapping[str, Any],
    make: MakeItem,
) -> RangeItem:
    """A number of one electrode; unknown where it is not stated, or as a range wider than its limits.

    Args:
        table: Table of the variable.
        row: Its row.
        variable: Name of the variable.
        electrode: The electrode.
        tested: What it was set to.
        limits: Least and greatest, from the least and the greatest that were set.
        words: How far it reaches.
        shared: Further fields of the item.
        make: How the edition makes an item.
    """
    scope = {**shared, **electrode.scope}
    if tested is None:
        reason = tr("Electrode {number}: what it was set to is not recorded.", number=electrode.number)
        return make(table, row, variable, "unknown", reason, **scope)
    least, most = limits(tested.min, tested.max)
    if least > most:
        reason = tr(
            "Electrode {number}: recorded as a range too wide to tell what was welded.",
            number=electrode.number,
        )
        return make(table, row, variable, "unknown", reason, tested=tested, **scope)
    reason = tr("Electrode {number}: {words}.", number=electrode.number, words=words)
    return make(table, row, variable, "span", reason, min=least, max=most, tested=tested, **scope)


def electrode_polarity(
    table: Table,
    row: Mapping[str, Any],
    electrode: TestedElectrode,
    shared: Mapping[str, Any],
    make: MakeItem,
) -> RangeItem:
    """Current and polarity of one electrode; unknown where it is not stated."""
    scope, found = {**shared, **electrode.scope}, electrode.settings.polarity
    if found is None:
        reason = tr("Electrode {number}: its current and polarity are not recorded.", number=electrode.number)
        return make(table, row, "electrode_polarity", "unknown", reason, **scope)
    reason = tr("Electrode {number}: {found} as tested.", number=electrode.number, found=found)
    return make(table, row, "electrode_polarity", "set", reason, values=(found,), tested=(found,), **scope)
