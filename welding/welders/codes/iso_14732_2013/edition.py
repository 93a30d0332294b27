"""ISO 14732 as this program knows it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from welding.citation import Citation
from welding.documents.welder_weld import Operation, WelderWeld
from welding.editions.toolkit import EditionTables
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.welders.codes.iso_14732_2013.short_form import CODE, SHORT, read, write
from welding.welders.comparing import Compared, compared, of_set
from welding.welders.edition import WelderEdition

PACKAGE = "welding.welders.codes.iso_14732_2013"
_TABLES = EditionTables(PACKAGE)
_LOST = ("arc_length_control", "joint_tracking")
"""What a mechanized operator must not lose: without it the person guides the torch."""
_CHANGED = ("arc_sensor", "joint_sensor")


def range_items(weld: WelderWeld) -> tuple[RangeItem, ...]:
    """What an operator's test covers, variable by variable of its kind of welding."""
    return tuple(_items(weld))


def _items(weld: WelderWeld) -> Iterator[RangeItem]:
    operation = weld.operation or Operation(mode="mechanized")
    mode = operation.mode
    yield _set(
        "process",
        "operation_mode",
        (mode,),
        tr("Mechanized and automatic welding are qualified each by itself."),
    )
    yield _set(
        "process", "welder_process", (weld.parts[0].process,), tr("A change of process asks for a new test.")
    )
    for name in ("unit", "view"):
        if _counts(name, mode):
            value = getattr(operation, name)
            reason = tr("A change asks for a new test.")
            yield _set(name, name, (value,) if value else (), reason, known=value is not None)
    for name in _LOST:
        if _counts(name, mode):
            has = getattr(operation, name)
            values: tuple[str, ...] = ("with",) if has else ("with", "without")
            yield _set(name, name, values, tr("Taking it away asks for a new test."))
    for name in _CHANGED:
        if _counts(name, mode):
            values = ("with",) if getattr(operation, name) else ("without",)
            yield _set(name, name, values, tr("A change asks for a new test."))
    if operation.runs is None:
        yield _set(
            "runs",
            "runs",
            ("single-run",),
            tr("The runs of the test are not stated."),
            doubtful=("multi-run",),
        )
    else:
        runs = ("single-run",) if operation.runs == "single-run" else ("multi-run", "single-run")
        yield _set(
            "runs", "runs", runs, tr("From a single run to several asks for a new test, not the other way.")
        )
    if _counts("position", mode):
        yield _set(
            "position",
            "welder_position",
            (weld.position,),
            tr("A position that is added asks for a new test."),
        )
    if _counts("backing", mode):
        values = ("backing",) if weld.backing == "backing" else ("backing", "no backing")
        known = weld.backing is not None
        yield _set(
            "backing",
            "backing",
            values if known else (),
            tr("Leaving out the backing asks for a new test."),
            known=known,
        )
    if operation.functional_test is not None:
        values = ("with",) if operation.functional_test else ()
        yield _set(
            "functional_test", "functional_test", values, tr("Knowledge of the unit is tested as well.")
        )


def _counts(name: str, mode: str) -> bool:
    return mode in _TABLES.table("variables").row(name)["of"]


def _set(
    row: str,
    variable: str,
    values: tuple[str, ...],
    reason: str,
    *,
    known: bool = True,
    doubtful: tuple[str, ...] = (),
) -> RangeItem:
    table = _TABLES.table("variables")
    kind: Any = "set" if known else "unknown"
    return _TABLES.item(
        table, table.row(row), variable, kind, reason, values=values, tested=values, doubtful=doubtful
    )


def compare(items: Sequence[RangeItem], tested: WelderWeld, asked: WelderWeld) -> Iterator[Compared]:
    """Findings on a weld that an operator is asked to make."""
    operation = asked.operation or Operation(mode="mechanized")
    for item in items:
        value = _asked(item.variable, asked, operation)
        unsaid = value is None and item.kind == "unknown"
        if (
            item.variable == "runs"
            and value is None
            and (tested.operation is None or tested.operation.runs is None)
        ):
            continue
        if unsaid and asked.from_designation:
            continue
        yield compared(item, of_set(item, value))


def _asked(variable: str, asked: WelderWeld, operation: Operation) -> str | None:
    if variable == "operation_mode":
        return operation.mode
    if variable == "welder_process":
        return asked.parts[0].process
    if variable == "welder_position":
        return asked.position
    if variable == "backing":
        return asked.backing
    if variable == "functional_test":
        return "with"
    value = getattr(operation, variable)
    if isinstance(value, bool):
        return "with" if value else "without"
    return value if value is None else str(value)


def positions_asked(asked: WelderWeld) -> tuple[str, ...]:
    """The position itself."""
    return (asked.position,)


EDITION = WelderEdition(
    id=CODE,
    title="ISO 14732:2013, welding operators and weld setters, mechanized and automatic welding",
    short=SHORT,
    usage="iso",
    package=PACKAGE,
    prefixes=("EN ISO 14732:2013", "ISO 14732:2013", "EN ISO 14732", "ISO 14732"),
    read=read,
    write=write,
    range_items=range_items,
    compare=compare,
    positions_asked=positions_asked,
    scope=Citation(document=SHORT, edition="2013", clause="clause 1"),
)
