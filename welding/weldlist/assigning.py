"""Which procedure to weld each joint type to: the fewest procedures first, then the widest margin."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from math import isinf

from welding.deposit.laid import bead_area_middle_mm2
from welding.documents.procedure import Procedure
from welding.language import tr
from welding.weldlist.applying import Applied
from welding.weldlist.cheapest import cheapest_set
from welding.weldlist.costs import weld_metal_and_hours

SECONDS = 5.0
"""For so long the fewest procedures are looked for; the best that was found by then is suggested."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Suggestion:
    """A procedure for a joint type.

    Attributes:
        procedure: Number of its place among the procedures.
        others: Places of other procedures that cover the type too.
        reason: Why this one.
    """

    procedure: int
    others: tuple[int, ...]
    reason: str


def suggested(
    applied: Sequence[Sequence[Applied]],
    names: Sequence[str],
    times: Sequence[float | None],
    kept: Collection[int] = (),
) -> Mapping[int, Suggestion]:
    """A procedure for each joint type that one covers.

    Args:
        applied: For each type, how each procedure stands to it.
        names: What the procedures are called.
        times: Time of each procedure at the joint [min/kg]; ``None`` where its passes do not state it.
        kept: Places of procedures that are in use already; using them costs nothing more.

    Returns:
        By the place of the type: the fewest procedures that cover all that can be covered; of these the
        quickest where several sets are as small; for each type the one with the widest margin.
    """
    covering = [[at for at, one in enumerate(row) if one.verdict == "covered"] for row in applied]
    wanted = [number for number, row in enumerate(covering) if row]
    if not wanted:
        return {}
    columns = [
        {place for place, number in enumerate(wanted) if at in covering[number]} for at in range(len(names))
    ]
    used = [at for at, covers in enumerate(columns) if covers]
    slowest = max((one for one in times if one is not None), default=1.0)
    found = cheapest_set(
        len(wanted),
        [columns[at] for at in used],
        # Time only decides between sets of one size: all of it together weighs less than one procedure.
        [1 + (times[at] or slowest) / slowest / (2 * len(used)) for at in used],
        forced=[place for place, at in enumerate(used) if at in kept],
        seconds=SECONDS,
    )
    chosen = {used[place] for place in found.chosen}
    made = {}
    for number in wanted:
        best = max(
            (at for at in covering[number] if at in chosen), key=lambda at: (applied[number][at].margin, -at)
        )
        others = tuple(at for at in covering[number] if at != best)
        made[number] = Suggestion(
            procedure=best,
            others=others,
            reason=_reason(applied[number], covering[number], best, chosen, names),
        )
    return made


def _reason(
    row: Sequence[Applied], covering: Sequence[int], best: int, chosen: Collection[int], names: Sequence[str]
) -> str:
    if len(covering) == 1:
        return tr("The only released WPS that covers it.")
    margin = row[best].margin
    inside = (
        tr("no limit of size near")
        if isinf(margin)
        else tr("{percent:.0f} % inside its limits", percent=100 * margin)
    )
    rivals = [at for at in covering if at in chosen and at != best]
    if rivals:
        return tr("Widest margin of {count} WPSs in use: {inside}.", count=len(rivals) + 1, inside=inside)
    spared = ", ".join(names[at] for at in covering if at != best)
    return tr("With it the shop needs fewer WPSs; {spared} would cover it too.", spared=spared)


def minutes_per_kg(procedure: Procedure) -> float | None:
    """Time at the joint for a kilogram of weld metal [min/kg]; ``None`` where a pass does not state it."""
    if not all(one.travel_mm_min and bead_area_middle_mm2(one) for one in procedure.passes):
        return None
    metal_kg, hours = weld_metal_and_hours(procedure, 1000.0)
    return hours * 60 / metal_kg if metal_kg > 0 else None
