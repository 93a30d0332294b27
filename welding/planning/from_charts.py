"""Which charts a proposal follows, and why the others not."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from welding.charts.differences import differences, rows_for
from welding.documents.chart import QUANTITIES, ChartRow, SettingsChart, range_of
from welding.documents.procedure import Pass, Procedure
from welding.language import tr, tr_noop
from welding.planning.reasons import Reason
from welding.quantities.writing import System
from welding.ranges import Range

LEAST_LEFT_SHARE = 0.4
"""A chart is followed where at least this share of the proposed range lies inside it (common practice)."""
MOST_REASONS = 8
TOO_LITTLE = tr_noop("too little of the proposed range lies inside it.")


def followed(
    procedure: Procedure, charts: Sequence[SettingsChart], kind: str, system: System = "si"
) -> tuple[Procedure, tuple[Reason, ...]]:
    """The procedure kept inside the charts that are for just this work, and what was said of each chart.

    Ranges only become narrower, so that no limit is passed that was kept before.
    """
    if not charts:
        return procedure, ()
    passes, reasons = [], []
    for index, one in enumerate(procedure.passes):
        for chart in charts:
            for row in rows_for(chart, procedure, one):
                told = differences(chart, row, procedure, one, kind, system)
                kept = None if told else _kept_inside(one, row)
                why = " ".join(difference.text for difference in told) or tr(TOO_LITTLE)
                text = tr("{title} is not followed: {why}", title=chart.title, why=why)
                if kept is not None:
                    one, text = (
                        kept,
                        tr("kept inside {title}: the same class, size, gas and position", title=chart.title),
                    )
                reasons.append(Reason(path=f"passes.{index}.current_a", text=text, source="handbook"))
        passes.append(one)
    once = {reason.text: reason for reason in reversed(reasons)}
    return replace(procedure, passes=tuple(passes)), tuple(reversed(list(once.values())))[:MOST_REASONS]


def _kept_inside(one: Pass, row: ChartRow) -> Pass | None:
    """The pass with its ranges inside the line; ``None`` where too little of a range is left."""
    changes: dict[str, Range] = {}
    for field, _ in QUANTITIES:
        own, printed = range_of(one, field), range_of(row, field)
        if own is None or printed is None:
            continue
        low, high = max(own.min, printed.min), min(own.max, printed.max)
        if high - low < LEAST_LEFT_SHARE * (own.max - own.min):
            return None
        changes[field] = Range(low, high)
    return replace(one, **changes) if changes else None  # type: ignore[arg-type]
