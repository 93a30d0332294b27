"""Charts, sheets, own trials and the code's limits beside the passes of a procedure, each on one scale."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from welding.charts.differences import Difference, apart_in, differences, rows_for
from welding.checks.context import Draft
from welding.codebook.catalogue import edition_of
from welding.documents.chart import QUANTITIES, ChartRow, SettingsChart, range_of
from welding.documents.intent import Trial
from welding.documents.library import Product
from welding.documents.procedure import Pass, Procedure
from welding.joints.section import section_of
from welding.language import tr, tr_noop
from welding.quantities.writing import System
from welding.ranges import Range

PROPOSAL = tr_noop("Proposal")
THIS_PROCEDURE = tr_noop("This procedure")

SourceKind = Literal["own", "chart", "product", "trial", "code"]


@dataclass(frozen=True, slots=True, kw_only=True)
class SourceBands:
    """Ranges of one source for one pass.

    Attributes:
        source: Its name.
        kind: The procedure itself, a chart, a filler's own sheet, an own trial, or the code.
        current_a: Range of current, where it gives one.
        voltage_v: Range of volts.
        wire_feed_m_min: Range of wire feed.
        differs: Why it does not hold as it stands; empty where it is for just this.
        wrong: Whether it contradicts the filler's class.
        followed: Whether the procedure keeps inside it.
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


def bands_beside(
    procedure: Procedure,
    charts: Sequence[SettingsChart],
    trials: Sequence[Trial],
    system: System = "si",
    own: str = PROPOSAL,
) -> tuple[PassBands, ...]:
    """Bands of every source for each kind of pass; none where no source but the procedure itself speaks.

    Args:
        procedure: A draft, proposed or typed.
        charts: The charts to look through.
        trials: The shop's own trial welds.
        system: Unit system of the sentences.
        own: What the procedure itself is called among the sources.
    """
    draft = Draft(procedure=procedure, heat=(), sectioned=section_of(procedure), system=system)
    groups: dict[tuple[object, ...], list[Pass]] = {}
    for one in procedure.passes:
        groups.setdefault(_alike(one), []).append(one)
    found = []
    for group in groups.values():
        one = group[0]
        sources = [
            *_charts(draft, charts, one),
            *_sheet(procedure, one),
            *_trials(procedure, trials, one),
            *_code(draft, one),
        ]
        if sources:
            found.append(_scaled(group, [_own(one, tr(own)), *sources]))
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


def _own(one: Pass, name: str) -> SourceBands:
    return SourceBands(
        source=name,
        kind="own",
        current_a=one.current_a,
        voltage_v=one.voltage_v,
        wire_feed_m_min=one.wire_feed_m_min,
    )


def _charts(draft: Draft, charts: Sequence[SettingsChart], one: Pass) -> Iterator[SourceBands]:
    procedure, kind, system = draft.procedure, draft.metal_kind, draft.system
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
                    source=tr("Sheet of {name}", name=product.name),
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
            source=tr(
                "Own trial{value}, {thickness_mm:g} mm",
                value=tr(" of {made_on}", made_on=trial.made_on) if trial.made_on else "",
                thickness_mm=trial.thickness_mm,
            ),
            kind="trial",
            current_a=_point(trial.current_a),
            voltage_v=_point(trial.voltage_v),
            wire_feed_m_min=_point(trial.wire_feed_m_min),
            differs=() if kept else (f"Rejected{f': {trial.seen}' if trial.seen else ''}.",),
        )


def _point(value: float | None) -> Range | None:
    return None if value is None else Range(value, value)


def _code(draft: Draft, one: Pass) -> Iterator[SourceBands]:
    code = draft.procedure.code
    edition = edition_of(code.id) if code else None
    limit = edition.current_limit(draft, one) if edition else None
    if limit is not None:
        source, allowed = limit
        over = one.current_a is not None and one.current_a.max > allowed.max
        yield SourceBands(
            source=source,
            kind="code",
            current_a=allowed,
            differs=(tr("The current goes beyond what is prequalified."),) if over else (),
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
