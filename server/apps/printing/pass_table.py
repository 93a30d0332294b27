"""The pass table of the procedure sheet: passes as they lie in the joint, cap first, each with its bands."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import groupby

from apps.printing.said import in_both, say
from apps.printing.set_up import set_up_in_both
from apps.printing.sheets import BLANK, Both, Writer, system_of
from welding.documents.procedure import Pass, Procedure
from welding.evaluate.procedure import Evaluation
from welding.glossary.values import in_words
from welding.heat.passes import PassHeat
from welding.language import tr, tr_noop
from welding.ranges import Range

COLUMNS = (
    (tr_noop("Current"), "current", "current_a"),
    (tr_noop("Voltage"), "voltage", "voltage_v"),
    (tr_noop("Wire feed"), "wire_feed", "wire_feed_m_min"),
    (tr_noop("Travel"), "travel", "travel_mm_min"),
)


MOST_WITH_BANDS = 40


@dataclass(frozen=True, slots=True)
class Bar:
    """A bar on a scale, both in % of the scale's width."""

    left: float
    width: float


@dataclass(frozen=True, slots=True)
class Cell:
    """One parameter of one pass: its range in words and as a bar, with the limits where there are any."""

    text: Both
    bar: Bar | None
    limits: Bar | None = None


@dataclass(frozen=True, slots=True)
class Row:
    """One pass, or neighbours that are welded with the same settings: ``number`` is then such as 3–12."""

    number: str
    role: str
    cells: tuple[Cell, ...]
    technique: str


@dataclass(frozen=True, slots=True)
class Group:
    """Neighbouring passes with the same set-up."""

    process: str
    filler: str
    rest: str
    rows: tuple[Row, ...]


@dataclass(frozen=True, slots=True)
class PassTable:
    """All of it, with the column headings of what is planned at all."""

    headings: tuple[str, ...]
    groups: tuple[Group, ...]

    @property
    def long(self) -> bool:
        """Whether there are so many rows that they stand as plain text, without bands."""
        return sum(len(one.rows) for one in self.groups) > MOST_WITH_BANDS


def pass_table(document: Procedure, evaluation: Evaluation) -> PassTable:
    """Lay out the passes of a procedure for its sheet."""
    passes, write = document.passes[::-1], Writer(system_of(document))
    shown = [column for column in COLUMNS if any(getattr(one, column[2]) for one in passes)] or [*COLUMNS]
    heat = {one.pass_number: one for one in evaluation.heat_input}
    wanted = document.thermal.heat_input_kj_mm if document.thermal else None
    scales = {field: _scale(getattr(one, field) for one in passes) for _, _, field in shown}
    heat_scale = _scale([*(_range(one) for one in heat.values()), wanted])

    def row(one: Pass) -> Row:
        cells = [
            Cell(write.range(getattr(one, field), kind), _bar(getattr(one, field), scales[field]))
            for _, kind, field in shown
        ]
        found = _range(heat.get(one.number))
        cells.append(
            Cell(write.range(found, "heat_input"), _bar(found, heat_scale), _bar(wanted, heat_scale))
        )
        return Row(
            str(one.number),
            in_both(lambda: in_words(one.role)),
            tuple(cells),
            in_both(lambda: _technique(one, write)),
        )

    groups = tuple(
        Group(process, filler, rest, tuple(_joined([row(one) for one in members])))
        for (process, filler, rest), members in groupby(passes, key=lambda one: set_up_in_both(one, write))
    )
    return PassTable((*(say(words) for words, _, _ in shown), evaluation.heat_word), groups)


def _joined(rows: list[Row]) -> Iterator[Row]:
    """Three and more neighbours that read the same as one row: passes 3 to 12 of a fill."""
    for _, same in groupby(rows, key=lambda one: (one.role, one.cells, one.technique)):
        found = list(same)
        if len(found) < 3:
            yield from found
        else:
            ends = sorted((int(found[0].number), int(found[-1].number)))
            yield replace(found[0], number=f"{ends[0]}–{ends[1]}")


def _range(heat: PassHeat | None) -> Range | None:
    return Range(heat.min_kj_mm, heat.max_kj_mm) if heat else None


def _scale(ranges: Iterable[Range | None]) -> Range | None:
    known = [one for one in ranges if one]
    if not known:
        return None
    low, high = min(one.min for one in known), max(one.max for one in known)
    air = max((high - low) * 0.18, high * 0.06)
    return Range(max(low - air, 0.0), high + air)


def _bar(value: Range | None, scale: Range | None) -> Bar | None:
    if value is None or scale is None:
        return None
    width = scale.max - scale.min
    return Bar(
        round(100 * (value.min - scale.min) / width, 2),
        round(max(100 * (value.max - value.min) / width, 1.2), 2),
    )


def _technique(one: Pass, write: Writer) -> str:
    parts = [in_words(word) for word in (one.progression, one.bead) if word]
    if one.weave_max_mm:
        parts.append(tr("to {main}", main=write.value(one.weave_max_mm, "gap").main))
    return ", ".join(part for part in parts if part) or BLANK
