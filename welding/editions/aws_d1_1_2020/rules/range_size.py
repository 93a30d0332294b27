"""Ranges of AWS D1.1:2020 of size: thickness, fillet, diameter, and which row a groove coupon falls in."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any

from welding.codebook.table import Table
from welding.documents.record import MacroTest
from welding.editions.aws_d1_1_2020.rules.basics import figure, in_row, item, table_of
from welding.editions.toolkit import row_of
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import Alternative, RangeItem, WeldGroup
from welding.quantities.writing import quantity_text
from welding.ranges import Range

_SECTIONS = 3
_PIPE_TOLERANCE = 0.03
"""How far a measured pipe may be from the standard size and still be that pipe (common practice)."""


def groove_row(coupon: TestCoupon) -> tuple[Table, Mapping[str, Any]] | None:
    """Row of table 6.2 or 6.3 for a groove coupon; ``None`` outside the table or without a thickness."""
    t = coupon.groove_depth_mm if coupon.weld == "pjp-groove" else coupon.thickness_mm
    if t is None:
        return None
    if coupon.weld == "pjp-groove":
        table = table_of("partial_groove_tests")
        return next(((table, row) for row in table.rows if in_row(row, t, coupon.units)), None)
    table = table_of("groove_tests")
    diameter = coupon.outside_diameter_mm
    for row in table.rows:
        if row["product"] != coupon.product or "pipes" in row or not in_row(row, t, coupon.units):
            continue
        below, start = figure(row, "od_below", coupon.units), figure(row, "od_from", coupon.units)
        if coupon.product == "pipe" and diameter is None:
            return None
        if below is not None and diameter is not None and diameter >= below - 1e-9:
            continue
        if start is not None and diameter is not None and diameter < start - 1e-9:
            continue
        return table, row
    return None


def thickness_items(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    """Thickness, groove depth, fillet size."""
    if coupon.weld == "fillet":
        yield from _fillet_items(coupon)
        return
    found, t = groove_row(coupon), coupon.thickness_mm
    if found is None or t is None:
        yield _no_row(coupon, "parent_thickness_mm")
        return
    table, row = found
    yield _thickness(coupon, table, row, t, impact)
    yield from _of_lesser_welds(coupon, table, row, "parent_thickness_mm", impact)
    if coupon.weld == "cjp-groove":
        yield _partial_size(coupon, table, row)
    elif coupon.weld == "pjp-groove":
        depth = coupon.groove_depth_mm or 0.0
        yield item(
            table,
            row,
            "groove_depth_mm",
            "span",
            tr("A groove of {said} qualifies grooves up to that depth.", said=said(coupon, depth)),
            columns=("depth_factor",),
            max=depth * row["depth_factor"],
            tested=Range(depth, depth),
        )
        yield _own_partial_size(coupon, table, row, depth)
    yield item(
        table,
        row,
        "fillet_size_mm",
        "any",
        tr("A groove test qualifies fillets of any size."),
        weld="fillet",
    )
    yield from _deposits(coupon, table, row)


def _proper(coupon: TestCoupon, impact: bool) -> WeldGroup | None:
    """Welds that the size tested limits: grooves like it; with impact toughness all."""
    if impact:
        return None
    return "cjp-groove" if coupon.weld == "cjp-groove" else "groove"


def _of_lesser_welds(
    coupon: TestCoupon, table: Table, row: Mapping[str, Any], variable: str, impact: bool
) -> Iterator[RangeItem]:
    """What a groove qualifies without limit of size: fillets, and of a complete one partial grooves too."""
    lesser: tuple[WeldGroup, ...] = ("fillet", "pjp-groove") if coupon.weld == "cjp-groove" else ("fillet",)
    for weld in () if impact else lesser:
        name = "fillets" if weld == "fillet" else tr("partial joint penetration grooves")
        reason = tr("A groove test qualifies {name} of any thickness and diameter.", name=name)
        yield item(table, row, variable, "any", reason, weld=weld)


def _section_sizes(coupon: TestCoupon) -> list[float]:
    return [
        one.weld_size_mm
        for one in coupon.record.tests
        if isinstance(one, MacroTest) and one.weld_size_mm and one.discarded is None
    ]


def _own_partial_size(coupon: TestCoupon, table: Table, row: Mapping[str, Any], depth_mm: float) -> RangeItem:
    """Weld size E that the sections of a partial groove show, and what it lacks of the groove's depth."""
    sizes = _section_sizes(coupon)
    shown = min(sizes) if len(sizes) >= _SECTIONS else None
    if shown is None:
        reason = tr("Fewer than three macroetch sections show a weld size.")
    else:
        lacks = max(depth_mm - shown, 0.0)
        reason = tr(
            "All {count} macroetch sections show a weld size of {said} from a groove {said2} "
            "deep, {said3} less than its depth.",
            count=len(sizes),
            said=said(coupon, shown),
            said2=said(coupon, depth_mm),
            said3=said(coupon, lacks),
        )
    return item(
        table,
        row,
        "partial_weld_size_mm",
        "unknown" if shown is None else "span",
        reason,
        max=shown,
        tested=None if shown is None else Range(shown, shown),
        numbers=() if shown is None else (max(depth_mm - shown, 0.0),),
        weld="pjp-groove",
    )


def _partial_size(coupon: TestCoupon, table: Table, row: Mapping[str, Any]) -> RangeItem:
    sizes = _section_sizes(coupon)
    shown = min(sizes) if len(sizes) >= _SECTIONS else None  # every section has to show the size
    return item(
        table,
        row,
        "partial_weld_size_mm",
        "unknown" if shown is None else "span",
        tr("A PJP groove that is not prequalified asks for three macroetch sections that show its weld size.")
        if shown is None
        else tr(
            "All {count} macroetch sections show a weld size of {said}.",
            count=len(sizes),
            said=said(coupon, shown),
        ),
        max=shown,
        tested=None if shown is None else Range(shown, shown),
        weld="pjp-groove",
    )


def _deposits(coupon: TestCoupon, table: Table, row: Mapping[str, Any]) -> Iterator[RangeItem]:
    if len(coupon.processes) < 2:
        yield item(
            table,
            row,
            "deposited_thickness_mm",
            "any",
            tr("With one process the base metal's thickness governs."),
        )
        return
    for process in coupon.processes:
        laid = coupon.deposit(process)
        s = laid.mm
        yield item(
            table,
            row,
            "deposited_thickness_mm",
            "unknown" if s is None else "span",
            tr(
                "The thickness that process {process} deposited is not known. {reason}",
                process=process,
                reason=laid.reason,
            )
            if s is None
            else tr(
                "Process {process} deposited {said}, which is proved. {reason} How much more one "
                "of several processes qualifies is not known here: look it up in clause 6.",
                process=process,
                said=said(coupon, round(s, 1)),
                reason=laid.reason,
            ),
            max=s,
            tested=None if s is None else Range(s, s),
            process=process,
            open_beyond=True,
        )


def _thickness(coupon: TestCoupon, table: Table, row: Mapping[str, Any], t: float, impact: bool) -> RangeItem:
    units = coupon.units
    low = figure(row, "min", units)
    if low is None and row.get("min_factor") is not None:
        low = row["min_factor"] * t
    high = figure(row, "max", units)
    if high is None and row.get("max_factor") is not None:
        high = row["max_factor"] * t
    also = ""
    joint = coupon.joint
    if (
        joint
        and joint.preparation
        and joint.preparation.form == "square"
        and not joint.back_gouge
        and coupon.weld == "cjp-groove"
    ):
        high = t if high is None else min(high, t)
        also = tr("A square groove without back-gouging is qualified up to the thickness tested.")
    reason = tr(
        "{capitalize} of {said}: from {said2} {value}.",
        capitalize=coupon.product.capitalize(),
        said=said(coupon, t),
        said2=said(coupon, low or 0.0),
        value=tr("without an upper limit") if high is None else tr("to ") + said(coupon, high),
    )
    unchecked = table.unchecked_of(row)
    if impact:
        limits = row_of(table_of("impact_variables"), "thickness")
        cap, below, least = (figure(limits, name, units) for name in ("cap", "below", "least"))
        raised = least if t < (below or 0.0) - 1e-9 else min(t, cap or t)
        if raised is not None and raised > (low or 0.0):
            low = raised
            reason += tr(" With impact toughness the least is {said}.", said=said(coupon, raised))
        unchecked += table_of("impact_variables").unchecked_of(limits)
    found = item(
        table,
        row,
        "parent_thickness_mm",
        "span",
        reason,
        min=low,
        max=high,
        tested=Range(t, t),
        also=also,
        weld=_proper(coupon, impact),
    )
    return replace(found, unchecked=unchecked)


def _no_row(coupon: TestCoupon, variable: str) -> RangeItem:
    table = table_of("partial_groove_tests" if coupon.weld == "pjp-groove" else "groove_tests")
    depth = coupon.weld == "pjp-groove"
    t = coupon.groove_depth_mm if depth else coupon.thickness_mm
    words = tr("groove depth") if depth else "thickness"
    if t is None:
        why = tr("The {words} of the piece is not stated.", words=words)
    elif coupon.product == "pipe" and coupon.outside_diameter_mm is None:
        why = tr("The outside diameter of the pipe is not stated.")
    else:
        why = tr(
            "A {words} of {said} is outside the table: look up what it qualifies.",
            words=words,
            said=said(coupon, t),
        )
    return item(table, table.rows[0], variable, "unknown", why, tested=Range(t, t) if t is not None else None)


def _fillet_items(coupon: TestCoupon) -> Iterator[RangeItem]:
    table = table_of("fillet_tests")
    row = row_of(table, "single-pass" if coupon.run_kind == "single" else "multiple-pass")
    t, leg = coupon.thickness_mm, coupon.leg_mm
    tested = Range(t, t) if t is not None else None
    yield item(
        table,
        row,
        "parent_thickness_mm",
        "any",
        tr("A fillet test qualifies any plate thickness."),
        tested=tested,
    )
    if leg is None:
        yield item(
            table, row, "fillet_size_mm", "unknown", tr("The leg of the fillet is not stated."), weld="fillet"
        )
        return
    smaller = row["qualifies"] == "smaller"
    yield item(
        table,
        row,
        "fillet_size_mm",
        "span",
        tr(
            "A {value}-pass fillet of {said} qualifies that size and {value2}.",
            value=tr("single") if smaller else tr("multiple"),
            said=said(coupon, leg),
            value2=tr("smaller in a single pass") if smaller else tr("larger in several passes"),
        ),
        columns=("qualifies",),
        max=leg if smaller else None,
        min=None if smaller else leg,
        tested=Range(leg, leg),
        weld="fillet",
        also=tr("in a single pass") if smaller else tr("in several passes"),
    )
    yield item(
        table,
        row,
        "runs_per_side",
        "exact",
        tr("Single-pass and multiple-pass fillets are qualified apart."),
        values=(coupon.run_kind,),
        tested=(coupon.run_kind,),
        weld="fillet",
    )


def diameter_items(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    """Outside diameter, and the branch angle of tubular connections."""
    diameter = coupon.outside_diameter_mm
    table = table_of("groove_tests")
    if coupon.weld == "fillet":
        yield item(
            table_of("fillet_tests"),
            table_of("fillet_tests").rows[0],
            "outside_diameter_mm",
            "any",
            tr("A fillet test qualifies any wall."),
        )
    elif coupon.product == "plate":
        row = row_of(table, "large-pipe-middle")
        limit = figure(row, "od_min", coupon.units)
        yield item(
            table,
            row,
            "outside_diameter_mm",
            "span",
            tr("A plate test covers pipe of {said} and over.", said=said(coupon, limit or 0.0)),
            columns=("od_min_mm", "od_min_in"),
            min=limit,
            unless=("backing", "back-gouge"),
            also=tr("Whether it covers smaller pipe with backing or back-gouging is not decided here."),
        )
    else:
        found = groove_row(coupon)
        if found is None or diameter is None:
            yield _no_row(coupon, "outside_diameter_mm")
        else:
            yield _diameter(coupon, *found, diameter, _proper(coupon, impact))
            yield from _of_lesser_welds(coupon, *found, "outside_diameter_mm", impact)
    yield item(
        table,
        table.rows[0],
        "branch_angle_deg",
        "unknown",
        tr("T-, Y- and K-connections have rules of their own: look them up in clause 10."),
    )


def _diameter(
    coupon: TestCoupon, table: Table, row: Mapping[str, Any], diameter: float, weld: WeldGroup | None
) -> RangeItem:
    low = figure(row, "od_min", coupon.units)
    return item(
        table,
        row,
        "outside_diameter_mm",
        "span",
        tr("Pipe of {said} qualifies ", said=said(coupon, diameter))
        + (tr("that diameter and over.") if low is None else tr("{said} and over.", said=said(coupon, low))),
        min=diameter if low is None else min(low, diameter),
        tested=Range(diameter, diameter),
        weld=weld,
    )


def job_pipe(coupon: TestCoupon, impact: bool) -> Alternative | None:
    """The line of the standard test pipes, where the coupon is one of them."""
    diameter, t = coupon.outside_diameter_mm, coupon.thickness_mm
    if coupon.product != "pipe" or coupon.weld != "cjp-groove" or diameter is None or t is None:
        return None
    table = table_of("groove_tests")
    for row in table.rows:
        for od, wall in row.get("pipes", ()):
            near = abs(od - diameter) <= od * _PIPE_TOLERANCE and abs(wall - t) <= wall * _PIPE_TOLERANCE
            if near:
                low, high = (figure(row, name, coupon.units) for name in ("od_min", "od_max"))
                return Alternative(
                    title=tr("standard test pipe"),
                    items=(
                        _thickness(coupon, table, row, t, impact),
                        item(
                            table,
                            row,
                            "outside_diameter_mm",
                            "span",
                            tr(
                                "A standard test pipe of {said} x {said2} qualifies from {said3}{value}.",
                                said=said(coupon, od),
                                said2=said(coupon, wall),
                                said3=said(coupon, low or 0.0),
                                value=tr(" to ") + said(coupon, high) if high else tr(" up"),
                            ),
                            min=low,
                            max=high,
                            tested=Range(diameter, diameter),
                            weld=_proper(coupon, impact),
                        ),
                    ),
                )
    return None


def said(coupon: TestCoupon, value: float) -> str:
    """A length, mm, as written in the unit system of the coupon."""
    return quantity_text(value, "thickness", coupon.units)
