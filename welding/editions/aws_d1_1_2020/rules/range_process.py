"""Ranges of AWS D1.1:2020 that hold for a process: filler, gas, electrical values, speed (table 6.5)."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from welding.consumables.gas import gas_text
from welding.editions.aws_d1_1_2020.rules.basics import (
    code_process,
    figure,
    item,
    same_process,
    table_of,
    variable_row,
)
from welding.editions.aws_d1_1_2020.rules.range_electrodes import electrode_items
from welding.editions.toolkit import row_of
from welding.glossary.values import in_words
from welding.language import tr
from welding.qualification.coupon import Run, TestCoupon, spread_of
from welding.qualification.items import RangeItem, also_read
from welding.quantities.writing import quantity_text, range_text
from welding.ranges import Range

_READINGS: tuple[tuple[str, str, Callable[[Run], Range | None]], ...] = (
    ("current_a", "current", lambda run: run.current_a),
    ("voltage_v", "voltage", lambda run: run.voltage_v),
    ("wire_feed_m_min", "wire_feed", lambda run: run.wire_feed_m_min),
    ("travel_mm_min", "travel", lambda run: run.travel_mm_min),
    ("gas_flow_l_min", "flow", lambda run: run.flow_l_min),
)
_GASLESS = ("114",)
_CONTROLLED = {"controlled-short-circuit": "short-circuit"}


def which_processes(coupon: TestCoupon) -> RangeItem:
    """The processes themselves, which a joint without passes may name, too."""
    table = table_of("essential_variables")
    if not coupon.runs:
        return item(
            table,
            table.rows[0],
            "processes",
            "unknown",
            tr("No pass is logged; nothing of the welding can be qualified."),
        )
    numbers = tuple(n for process in coupon.processes for n in same_process(process))
    return item(
        table,
        table.rows[0],
        "processes",
        "set",
        tr("A change of process asks for a new test; ")
        + ", ".join(
            tr("{p} is {value}", p=p, value=code_process(p) or tr("no process of table 6.5"))
            for p in coupon.processes
        )
        + ".",
        columns=("process",),
        values=tuple(dict.fromkeys(numbers)),
        tested=coupon.processes,
    )


def process_items(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    """Every item that holds for a process, for each process of the coupon."""
    yield which_processes(coupon)
    if not coupon.runs:
        return
    table = table_of("essential_variables")
    yield item(
        table,
        table.rows[0],
        "mechanisation",
        "any",
        tr("The degree of mechanisation is no variable of table 6.5."),
        tested=tuple(dict.fromkeys(r.mechanisation for r in coupon.runs if r.mechanisation)) or None,
    )
    for process in coupon.processes:
        yield from _of_process(coupon, process, impact)


def _of_process(coupon: TestCoupon, process: str, impact: bool) -> Iterator[RangeItem]:
    name = code_process(process)
    runs = coupon.of_process(process)
    shared: dict[str, Any] = {"process": process, "processes": same_process(process)}
    if name is None:
        table = table_of("essential_variables")
        yield item(
            table,
            table.rows[0],
            "current_a",
            "unknown",
            tr(
                "Process {process} is not among the five of table 6.5: agree its variables with "
                "the engineer.",
                process=process,
            ),
            **shared,
        )
        return
    yield from _filler(runs, name, impact, shared)
    yield from _diameters(coupon, runs, name, shared)
    yield from _gas(runs, process, name, shared)
    yield from _sets(runs, name, shared)
    yield from _numbers(coupon, runs, name, shared)
    yield from electrode_items(coupon, runs, name, shared)


def _filler(runs: tuple[Run, ...], name: str, impact: bool, shared: dict[str, Any]) -> Iterator[RangeItem]:
    table = table_of("essential_variables")
    row = row_of(table, f"filler.{name}")
    tested = tuple(dict.fromkeys(run.designation for run in runs if run.designation))
    outside = row_of(table, f"filler_specifications.{name}")
    if not tested:
        yield item(table, row, "filler", "unknown", tr("The filler is not recorded."), **shared)
    else:
        strength = row["change"] == "strength-up" and not impact
        reason = (
            tr(
                "{tested}: a stronger class, or one that is not low-hydrogen in place of one "
                "that is, asks for a new test.",
                tested=", ".join(tested),
            )
            if strength
            else tr("{tested}: any other class asks for a new test", tested=", ".join(tested))
            + ("." if impact else tr("; the same class of lower strength is free."))
        )
        found = item(
            table,
            row,
            "filler",
            "set",
            reason,
            columns=("change",),
            values=tested,
            how="strength-not-up" if strength else "class" if impact else "class-or-weaker",
            tested=tested,
            also=tr("Within {outside}.", outside=", ".join(outside["specifications"])),
            **shared,
        )
        found = also_read(found, table, outside)
        if strength:
            found = also_read(found, table, row_of(table, f"low_hydrogen.{name}"))
        more = table_of("impact_variables")
        yield also_read(found, more, row_of(more, "filler")) if impact else found
    supplement = row_of(table_of("impact_variables"), "filler_make")
    bound = impact and shared["process"] in supplement["processes"]
    makes = tuple(dict.fromkeys(run.make for run in runs if run.make))
    yield item(
        table_of("impact_variables"),
        supplement,
        "filler_make",
        ("set" if makes else "unknown") if bound else "any",
        (
            tr("With impact toughness the trade name of cored wire is kept.")
            if makes
            else tr("With impact toughness the trade name of cored wire is kept, and it is not recorded.")
        )
        if bound
        else tr("The trade name is no variable here."),
        values=makes if bound else (),
        tested=makes or None,
        **shared,
    )


def _diameters(
    coupon: TestCoupon, runs: tuple[Run, ...], name: str, shared: dict[str, Any]
) -> Iterator[RangeItem]:
    table = table_of("essential_variables")
    row = row_of(table, f"filler_diameter_mm.{name}")
    sizes = sorted({run.diameter_mm for run in runs if run.diameter_mm})
    if not sizes:
        yield item(
            table,
            row,
            "filler_diameter_mm",
            "unknown",
            tr("The filler's diameter is not recorded."),
            **shared,
        )
        return
    minus, plus = (figure(row, side, coupon.units) for side in ("minus", "plus"))
    tested = Range(sizes[0], sizes[-1])
    words = ", ".join(quantity_text(size, "wire_diameter", coupon.units) for size in sizes)
    if minus == 0 and plus == 0:
        yield item(
            table,
            row,
            "filler_diameter_mm",
            "set",
            tr("{words}: any other diameter asks for a new test.", words=words),
            numbers=tuple(sizes),
            values=tuple(f"{size:g}" for size in sizes),
            tested=tested,
            **shared,
        )
        return
    yield item(
        table,
        row,
        "filler_diameter_mm",
        "span",
        f"{words}"
        + (
            tr(
                ", larger by no more than {quantity_text}",
                quantity_text=quantity_text(plus, "wire_diameter", coupon.units),
            )
            if plus
            else ""
        )
        + (tr(" and smaller by no more than that.") if minus else ("." if plus else tr(", and not larger."))),
        min=None if minus is None else max(sizes[0] - minus, 0.0),
        max=None if plus is None else sizes[-1] + plus,
        tested=tested,
        **shared,
    )


def _gas(runs: tuple[Run, ...], process: str, name: str, shared: dict[str, Any]) -> Iterator[RangeItem]:
    row = variable_row("gas", name)
    table = table_of("essential_variables")
    if row is None:
        return
    gases = tuple(dict.fromkeys(gas_text(dict(run.gas)) if run.gas else "none" for run in runs))
    if process not in _GASLESS and "none" in gases:
        yield item(
            table, row, "gas", "unknown", tr("The shielding gas is not recorded for every pass."), **shared
        )
    else:
        yield item(
            table,
            row,
            "gas",
            "set",
            tr(
                "{gases}: another gas, another nominal mixture or none asks for a new test.",
                gases=", ".join(gases),
            ),
            values=gases,
            how="composition",
            tested=gases,
            **shared,
        )
    yield item(
        table,
        row,
        "purge",
        "any",
        tr("Backing gas is no variable of table 6.5."),
        **shared,
    )


def _sets(runs: tuple[Run, ...], name: str, shared: dict[str, Any]) -> Iterator[RangeItem]:
    table = table_of("essential_variables")
    fields: tuple[tuple[str, Callable[[Run], str | None], str], ...] = (
        ("current_kind", lambda run: run.polarity, tr("Current and polarity")),
        ("output", lambda run: run.output, tr("Constant voltage or constant current")),
        (
            "transfer_modes",
            lambda run: _CONTROLLED.get(run.transfer or "", run.transfer),
            tr("Metal transfer"),
        ),
    )
    for variable, of_run, words in fields:
        row = variable_row(variable, name)
        if row is None:
            yield item(
                table,
                table.rows[0],
                variable,
                "any",
                tr("{words} is no variable of {name} in table 6.5.", words=words, name=name),
                **shared,
            )
            continue
        for role in _roles(runs) if variable == "transfer_modes" else (None,):
            kept = [run for run in runs if role is None or run.role == role]
            values = tuple(dict.fromkeys(v for run in kept if (v := of_run(run))))
            known = bool(values) and all(of_run(run) for run in kept)
            yield item(
                table,
                row,
                variable,
                "set" if known else "unknown",
                tr(
                    "{words} as tested: {values}.",
                    words=words,
                    values=", ".join(in_words(one) for one in values),
                )
                if known
                else tr("{words} is not recorded for every pass.", words=words),
                values=values if known else (),
                tested=values or None,
                role=role,
                **shared,
            )


def _roles(runs: tuple[Run, ...]) -> tuple[Any, ...]:
    return tuple(role for role in ("root", "other") if any(run.role == role for run in runs))


def _numbers(
    coupon: TestCoupon, runs: tuple[Run, ...], name: str, shared: dict[str, Any]
) -> Iterator[RangeItem]:
    table = table_of("essential_variables")
    for variable, quantity, of_run in _READINGS:
        row = variable_row(variable, name)
        if row is None:
            if variable != "gas_flow_l_min":
                yield item(
                    table,
                    table.rows[0],
                    variable,
                    "any",
                    tr("No limit for {name} in table 6.5.", name=name),
                    **shared,
                )
            continue
        # A pass of no known size is no counterpart of any: an item without a size would suit them all.
        for size in sorted({run.diameter_mm for run in runs if run.diameter_mm}) or (None,):
            for role in _roles(runs):
                kept = [run for run in runs if run.diameter_mm == size and run.role == role]
                if kept:
                    scope = {
                        **shared,
                        "filler_diameter_mm": size,
                        "role": role,
                        "tested_passes": tuple(run.number for run in kept),
                    }
                    spared = _spared(variable, runs) if all(of_run(run) is None for run in runs) else ""
                    yield _percent(coupon, kept, row, variable, quantity, of_run, scope, spared)


def _percent(
    coupon: TestCoupon,
    runs: list[Run],
    row: Any,
    variable: str,
    quantity: str,
    of_run: Callable[[Run], Range | None],
    scope: dict[str, Any],
    spared: str,
) -> RangeItem:
    """The limit of a reading; ``spared`` says why it is none where no pass of the process has it."""
    table = table_of("essential_variables")
    tested = spread_of(runs, of_run)
    if row["change"] == "maker":
        limits = _maker_range(coupon, runs)
        if limits is None and tested is not None:
            return item(
                table,
                row,
                variable,
                "span",
                tr(
                    "The range of the electrode's manufacturer counts; until it is entered for this "
                    "size, only what was tested is known to be inside: {range_text}.",
                    range_text=range_text(tested, quantity, coupon.units),
                ),
                min=tested.min,
                max=tested.max,
                tested=tested,
                how="maker",
                open_beyond=True,
                **scope,
            )
        if limits is None:
            return item(
                table,
                row,
                variable,
                "unknown",
                tr(
                    "The range of the electrode's manufacturer counts: enter the manufacturer's "
                    "amperage range for this size."
                ),
                tested=tested,
                how="maker",
                **scope,
            )
        return item(
            table,
            row,
            variable,
            "span",
            tr(
                "The electrode's manufacturer gives {range_text}.",
                range_text=range_text(limits, quantity, coupon.units),
            ),
            min=limits.min,
            max=limits.max,
            tested=tested,
            how="maker",
            **scope,
        )
    if tested is None:
        if spared:
            return item(table, row, variable, "any", spared, **scope)
        return item(
            table, row, variable, "unknown", tr("Not recorded for every pass of this size and role."), **scope
        )
    minus, plus = row["minus_percent"], row["plus_percent"]
    low, high = tested.min * (1 - minus / 100), tested.max * (1 + plus / 100)
    percent = f"±{minus:g} %" if minus == plus else f"-{minus:g} % / +{plus:g} %"
    return item(
        table,
        row,
        variable,
        "span",
        tr(
            "Tested {range_text}, {percent}: {range_text2}.",
            range_text=range_text(tested, quantity, coupon.units),
            percent=percent,
            range_text2=range_text(Range(low, high), quantity, coupon.units),
        ),
        columns=("minus_percent", "plus_percent"),
        min=low,
        max=high,
        tested=tested,
        **scope,
    )


def _spared(variable: str, runs: tuple[Run, ...]) -> str:
    if variable == "wire_feed_m_min":
        measured = all(run.current_a is not None for run in runs)
        return tr("The current was controlled and recorded; wire feed is no limit then.") if measured else ""
    gasless = variable == "gas_flow_l_min" and all(run.process in _GASLESS for run in runs)
    return tr("Welded without gas.") if gasless else ""


def _maker_range(coupon: TestCoupon, runs: list[Run]) -> Range | None:
    """Amperage range of the manufacturer's sheet of every pass, narrowed to what they share."""
    found = []
    planned = {one.number: one for one in coupon.procedure.passes}
    for run in runs:
        one = planned.get(run.number)
        sheet = coupon.draft.maker_range(one) if one else None
        if sheet is None or sheet.current_a is None:
            return None
        found.append(sheet.current_a)
    low, high = max(r.min for r in found), min(r.max for r in found)
    return Range(low, high) if low <= high else None
