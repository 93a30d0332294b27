"""Charts beside a proposal: bands of every source on one scale, and which charts are followed."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from welding.charts.differences import Difference, apart_in, differences, rows_for
from welding.documents.chart import QUANTITIES, ChartRow, SettingsChart, range_of
from welding.documents.intent import Trial
from welding.documents.procedure import Pass, Procedure
from welding.documents.shelf import Product
from welding.planning.reasons import Reason
from welding.quantities.writing import System
from welding.ranges import Range

LEAST_LEFT_SHARE = 0.4
"""A chart is followed where at least this share of the proposed range lies inside it (common practice)."""
MOST_REASONS = 8
TOO_LITTLE = "too little of the proposed range lies inside it."

SourceKind = Literal["proposal", "chart", "product", "trial", "code"]
Limit = Callable[[Procedure, Pass], tuple[str, Range] | None]
"""The code's own limit of the current of a pass: where it stands, and the limit; none where it has none."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SourceBands:
    """Ranges of one source for one pass.

    Attributes:
        source: Its name.
        kind: The proposal itself, a chart, a filler's own sheet, an own trial, or the code.
        current_a: Range of current, where it gives one.
        voltage_v: Range of volts.
        wire_feed_m_min: Range of wire feed.
        differs: Why it does not hold as it stands; empty where it is for just this.
        wrong: Whether it contradicts the filler's class.
        followed: Whether the proposal keeps inside it.
    """

    source: str
    kind: SourceKind
    current_a: Range | None = None
    voltage_v: Range | None = None
    wire_feed_m_min: Range | None = None
    differs: tuple[str, ...] = ()
    wrong: bool = False
    followed: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class PassBands:
    """What every source says of passes that are welded alike, with one scale for each quantity."""

    passes: tuple[int, ...]
    role: str
    sources: tuple[SourceBands, ...]
    current_scale_a: Range | None
    voltage_scale_v: Range | None
    wire_feed_scale_m_min: Range | None


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
                why = " ".join(difference.text for difference in told) or TOO_LITTLE
                text = f"{chart.title} is not followed: {why}"
                if kept is not None:
                    one, text = kept, f"kept inside {chart.title}: the same class, size, gas and position"
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


def bands_beside(
    procedure: Procedure,
    charts: Sequence[SettingsChart],
    trials: Sequence[Trial],
    kind: str,
    code_limit: Limit,
    system: System = "si",
) -> tuple[PassBands, ...]:
    """Bands of every source for each kind of pass; none where no source but the proposal speaks."""
    groups: dict[tuple[object, ...], list[Pass]] = {}
    for one in procedure.passes:
        groups.setdefault(_alike(one), []).append(one)
    found = []
    for group in groups.values():
        one = group[0]
        sources = [
            *_charts(procedure, charts, one, kind, system),
            *_sheet(procedure, one),
            *_trials(procedure, trials, one),
            *_code(procedure, one, code_limit),
        ]
        if sources:
            found.append(_scaled(group, [_own(one), *sources]))
    return tuple(found)


def _alike(one: Pass) -> tuple[object, ...]:
    filler = one.filler
    return (
        one.process,
        one.transfer,
        filler and filler.designation,
        filler and filler.diameter_mm,
        one.current_a,
        one.voltage_v,
        one.wire_feed_m_min,
    )


def _own(one: Pass) -> SourceBands:
    return SourceBands(
        source="Proposal",
        kind="proposal",
        current_a=one.current_a,
        voltage_v=one.voltage_v,
        wire_feed_m_min=one.wire_feed_m_min,
    )


def _charts(
    procedure: Procedure, charts: Sequence[SettingsChart], one: Pass, kind: str, system: System
) -> Iterator[SourceBands]:
    for chart in charts:
        for row in rows_for(chart, procedure, one):
            told: tuple[Difference, ...] = differences(chart, row, procedure, one, kind, system)
            yield SourceBands(
                source=chart.title,
                kind="chart",
                current_a=row.current_a,
                voltage_v=row.voltage_v,
                wire_feed_m_min=row.wire_feed_m_min,
                differs=tuple(difference.text for difference in told),
                wrong=any(difference.wrong for difference in told),
                followed=not told and not apart_in(row, one) and _inside(one, row),
            )


def _inside(one: Pass, row: ChartRow) -> bool:
    pairs = [(range_of(one, field), range_of(row, field)) for field, _ in QUANTITIES]
    return all(
        own.min >= printed.min - 1e-6 and own.max <= printed.max + 1e-6
        for own, printed in pairs
        if own and printed
    )


def _sheet(procedure: Procedure, one: Pass) -> Iterator[SourceBands]:
    products: tuple[Product, ...] = procedure.shelf.products if procedure.shelf else ()
    for product in products:
        if one.filler is None or product.name != one.filler.make or one.filler.diameter_mm is None:
            continue
        for row in product.ranges:
            fits = not row.positions or set(procedure.positions) <= set(row.positions)
            if fits and abs(row.diameter_mm - one.filler.diameter_mm) < 0.03:
                yield SourceBands(
                    source=f"Sheet of {product.name}",
                    kind="product",
                    current_a=row.current_a,
                    voltage_v=row.voltage_v,
                    wire_feed_m_min=row.wire_feed_m_min,
                    followed=True,
                )


def _trials(procedure: Procedure, trials: Sequence[Trial], one: Pass) -> Iterator[SourceBands]:
    size = one.filler.diameter_mm if one.filler else None
    for trial in trials:
        wire = trial.filler.diameter_mm
        near = wire is None or (size is not None and abs(wire - size) <= 0.03)
        if trial.process != one.process or trial.position not in procedure.positions or not near:
            continue
        kept = trial.verdict == "kept"
        yield SourceBands(
            source=f"Own trial{f' of {trial.made_on}' if trial.made_on else ''}, {trial.thickness_mm:g} mm",
            kind="trial",
            current_a=_point(trial.current_a),
            voltage_v=_point(trial.voltage_v),
            wire_feed_m_min=_point(trial.wire_feed_m_min),
            differs=() if kept else (f"Rejected{f': {trial.seen}' if trial.seen else ''}.",),
        )


def _point(value: float | None) -> Range | None:
    return None if value is None else Range(value, value)


def _code(procedure: Procedure, one: Pass, code_limit: Limit) -> Iterator[SourceBands]:
    limit = code_limit(procedure, one)
    if limit is not None:
        source, allowed = limit
        over = one.current_a is not None and one.current_a.max > allowed.max
        yield SourceBands(
            source=source,
            kind="code",
            current_a=allowed,
            differs=("The current goes beyond what is prequalified.",) if over else (),
            followed=not over,
        )


def _scaled(group: Sequence[Pass], sources: Sequence[SourceBands]) -> PassBands:
    def scale(field: str) -> Range | None:
        known = [found for one in sources if (found := range_of(one, field)) is not None]
        if not known:
            return None
        # A code's limit begins at nothing: only its upper end belongs to the scale.
        low = min(found.min for found in known if found.min > 0)
        high = max(found.max for found in known)
        room = max(0.05 * (high - low), 0.01 * high)
        return Range(max(low - room, 0.0), high + room)

    return PassBands(
        passes=tuple(one.number for one in group),
        role=group[0].role,
        sources=tuple(sources),
        current_scale_a=scale("current_a"),
        voltage_scale_v=scale("voltage_v"),
        wire_feed_scale_m_min=scale("wire_feed_m_min"),
    )
