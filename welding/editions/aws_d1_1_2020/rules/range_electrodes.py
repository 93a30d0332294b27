"""Range items of AWS D1.1:2020 on electrodes: how many, how far apart, powder, and what is no variable."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial
from typing import Any

from welding.editions.aws_d1_1_2020.rules.basics import figure, item, table_of, variable_row
from welding.editions.toolkit import row_of
from welding.language import tr, tr_noop
from welding.qualification.coupon import Run, TestCoupon
from welding.qualification.electrodes import electrode_polarity, electrode_span, of_each_electrode
from welding.qualification.items import RangeItem
from welding.quantities.writing import quantity_text, range_text
from welding.ranges import Range

_SPACINGS: tuple[tuple[str, str, Callable[[Run], float | None]], ...] = (
    ("electrode_spacing_mm", tr_noop("along the weld"), lambda run: run.electrodes.spacing_mm),
    ("electrode_offset_mm", tr_noop("across it"), lambda run: run.electrodes.offset_mm),
)


def _spacing(coupon: TestCoupon, runs: Sequence[Run], shared: dict[str, Any]) -> Iterator[RangeItem]:
    """Spacing of several electrodes: 10 % or a length, whichever is greater."""
    table = table_of("essential_variables")
    for variable, source, of in _SPACINGS:
        words = tr(source)
        row = row_of(table, f"{variable}.SAW")
        if all(run.electrodes.count == 1 for run in runs):
            yield item(table, row, variable, "any", tr("One electrode has no spacing."), **shared)
            continue
        found = [of(run) for run in runs if run.electrodes.count > 1]
        known = [one for one in found if one is not None]
        if len(known) < len(found):
            yield item(
                table,
                row,
                variable,
                "unknown",
                tr("The electrodes' spacing {words} is not recorded.", words=words),
                **shared,
            )
            continue
        low, high = min(known), max(known)
        slack = figure(row, "plus", coupon.units) or 0.0
        share = row["plus_percent"] / 100
        yield item(
            table,
            row,
            variable,
            "span",
            tr(
                "Tested {range_text} {words}, {row:g} % or {quantity_text} either way, whichever is more.",
                range_text=range_text(Range(low, high), "gap", coupon.units),
                words=words,
                row=row["plus_percent"],
                quantity_text=quantity_text(slack, "gap", coupon.units),
            ),
            columns=("plus_percent",),
            min=max(low - max(slack, low * share), 0.0),
            max=high + max(slack, high * share),
            tested=Range(low, high),
            **shared,
        )


def _either_way(slack: float, low: float, high: float) -> tuple[float, float]:
    return high - slack, low + slack


def _of_each(coupon: TestCoupon, runs: Sequence[Run], shared: dict[str, Any]) -> Iterator[RangeItem]:
    """Current, polarity and angle of each of several electrodes, the leading one first."""
    table = table_of("essential_variables")
    amps, kind = (row_of(table, f"{name}.SAW") for name in ("current_a", "current_kind"))
    share = amps["plus_percent"] / 100
    for one in of_each_electrode(runs):
        yield electrode_span(
            table,
            amps,
            "electrode_current_a",
            one,
            one.settings.current_a,
            lambda low, high: (high * (1 - share), low * (1 + share)),
            tr("{amps:g} % either way of what each electrode was set to", amps=amps["plus_percent"]),
            shared,
            item,
        )
        yield electrode_polarity(table, kind, one, shared, item)
        for name in ("angle_deg", "across_deg"):
            row, angle = row_of(table, f"electrode_{name}.SAW"), getattr(one.settings, name)
            yield electrode_span(
                table,
                row,
                f"electrode_{name}",
                one,
                None if angle is None else Range(angle, angle),
                partial(_either_way, row["plus_deg"]),
                tr("{row:g}° either way", row=row["plus_deg"]),
                shared,
                item,
            )


def electrode_items(
    coupon: TestCoupon, runs: Sequence[Run], name: str, shared: dict[str, Any]
) -> Iterator[RangeItem]:
    """Electrodes of one process, named as in table 6.5."""
    table = table_of("essential_variables")
    row = variable_row("electrodes", name)
    counts = tuple(dict.fromkeys(str(run.electrodes.count) for run in runs))
    yield item(
        table,
        row or table.rows[0],
        "electrodes",
        "set" if row else "any",
        tr("{counts} as tested; another number of electrodes asks for a new test.", counts=", ".join(counts))
        if row
        else tr("No variable of {name}.", name=name),
        values=counts if row else (),
        tested=counts,
        **shared,
    )
    if name == "SAW":
        yield from _spacing(coupon, runs, shared)
        yield from _of_each(coupon, runs, shared)
        powder = shared["process"] == "124"
        yield item(
            table,
            row_of(table, "supplemental_filler.SAW"),
            "supplemental_filler",
            "exact",
            tr("Welded with metal powder; leaving it out, or more of it, asks for a new test.")
            if powder
            else tr("Welded without powder, granules or cut wire; adding them asks for a new test."),
            values=("metal powder",) if powder else ("none",),
            tested=("metal powder",) if powder else ("none",),
            **shared,
        )
    yield item(
        table,
        table.rows[0],
        "run_out_mm",
        "any",
        tr("Run-out length is no variable of table 6.5."),
        **shared,
    )
    yield item(
        table,
        table.rows[0],
        "hydrogen_class",
        "any",
        tr("The hydrogen mark is no variable of table 6.5; preheat depends on it."),
        **shared,
    )
