"""Ranges of ISO 15614-1:2017 of size: thickness, throat, diameter, branch angle."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any

from welding.editions.iso_15614_1_2017.rules.basics import in_row, item, table_of, variable_row
from welding.editions.toolkit import row_of
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.deposits import COUNTED
from welding.qualification.items import RangeItem
from welding.qualification.needs import Needs, has_specified_impact
from welding.ranges import Range


def thickness_row(t: float, level: int) -> Mapping[str, Any] | None:
    """Row of the thickness table of a level."""
    rows = table_of(f"thickness_level_{level}").rows
    return next(
        (row for row in rows if row["row"] not in ("single-pass", "short-circuit") and in_row(row, t)), None
    )


def thickness_items(coupon: TestCoupon, level: int, needs: Needs) -> Iterator[RangeItem]:
    """Parent thickness, deposited thickness by process, throat."""
    if coupon.weld == "fillet":
        yield from _fillet(coupon, level)
        return
    table, t = table_of(f"thickness_level_{level}"), coupon.thickness_mm
    row = thickness_row(t, level) if t is not None else None
    if t is None or row is None:
        yield item(table, table.rows[0], "parent_thickness_mm", "unknown", tr("The thickness is not stated."))
        return
    found = _parent_2(coupon, table, row, t) if level == 2 else _parent_1(coupon, table, row, t, needs)
    yield found
    deposits = list(_deposits(coupon, table, row, t, level))
    yield from deposits
    throat = variable_row("weld_kinds", level)
    limits = [one for one in deposits if one.kind == "span"]
    yield item(
        table_of("variables") if level == 1 else table_of("fillet_ranges"),
        throat if level == 1 else row_of(table_of("fillet_ranges"), "throat-2-multi"),
        "throat_mm",
        "any" if level == 1 else "span" if len(limits) == 1 else "unknown",
        tr("A fillet of any throat.")
        if level == 1
        else tr(
            "A fillet qualified by a butt test takes its throat from the deposited thickness of the butt."
        )
        if len(limits) == 1
        else tr("The throat follows from the deposited thickness, which is not known for one process alone."),
        min=None,
        max=limits[0].max if level == 2 and len(limits) == 1 else None,
        weld="fillet",
    )


def _parent_2(coupon: TestCoupon, table: Any, row: Mapping[str, Any], t: float) -> RangeItem:
    kind = coupon.run_kind
    low_mm, low_factor = row.get(f"{kind}_min_mm"), row.get(f"{kind}_min_factor")
    high_factor = row.get(f"{kind}_max_factor")
    columns = (f"{kind}_min_mm", f"{kind}_min_factor", f"{kind}_max_factor")
    if high_factor is None:
        return item(
            table,
            row,
            "parent_thickness_mm",
            "unknown",
            tr("A single-run test does not apply at {t:g} mm.", t=t),
            tested=Range(t, t),
        )
    low = max(low_mm or 0.0, (low_factor or 0.0) * t)
    high = high_factor * t
    also = ""
    cap = row.get("impact_not_tested_max_mm")
    specified = any(has_specified_impact(one) for one in coupon.metals)
    if cap is not None and specified and not coupon.impact_tested and high > cap:
        high = float(cap)
        also = tr("Impact values are specified and were not tested: no thicker than {cap:g} mm.", cap=cap)
    return item(
        table,
        row,
        "parent_thickness_mm",
        "span",
        tr(
            "{t:g} mm, {value}: {low:g} to {high:g} mm.",
            t=t,
            value=tr("single run") if kind == "single" else tr("several runs"),
            low=low,
            high=high,
        ),
        columns=columns,
        min=low,
        max=high,
        tested=Range(t, t),
        also=also,
    )


def _parent_1(coupon: TestCoupon, table: Any, row: Mapping[str, Any], t: float, needs: Needs) -> RangeItem:
    low = row.get("min_mm", row.get("min_factor", 0.0) * t)
    high = row["max_mm"] if "max_mm" in row else row["max_factor"] * t
    unchecked = table.unchecked_of(row)
    also = ""
    for key, applies in _narrowed(coupon, t):
        if applies:
            limit = row_of(table, key)
            high = min(high, limit["max_factor"] * t)
            also = tr(
                "Limited to {limit:g} t: {replace}.", limit=limit["max_factor"], replace=key.replace("-", " ")
            )
            unchecked += table.unchecked_of(limit)
    reason = tr("{t:g} mm: {low:g} to {high:g} mm.", t=t, low=low, high=high)
    if needs.impact:
        # The raised lower limit is not recalled: what is surely inside is the tested thickness itself.
        low, also = (
            t,
            (also + " With impact toughness the lower limit is raised; look the figure up.").strip(),
        )
        reason = tr(
            "{t:g} mm: up to {high:g} mm; the lower limit with impact toughness is not known here.",
            t=t,
            high=high,
        )
    found = item(
        table, row, "parent_thickness_mm", "span", reason, min=low, max=high, tested=Range(t, t), also=also
    )
    return replace(found, unchecked=unchecked)


def _narrowed(coupon: TestCoupon, t: float) -> Iterator[tuple[str, bool]]:
    table = table_of("thickness_level_1")
    thick = row_of(table, "single-pass")["over_mm"]
    yield "single-pass", any(run.deposit_mm is not None and run.deposit_mm > thick for run in coupon.runs)
    short = any(run.transfer in ("short-circuit", "controlled-short-circuit") for run in coupon.runs)
    yield "short-circuit", short and t < row_of(table, "short-circuit")["below_mm"]


def _deposits(
    coupon: TestCoupon, table: Any, row: Mapping[str, Any], t: float, level: int
) -> Iterator[RangeItem]:
    for process in coupon.processes:
        laid = coupon.deposit(process)
        s = laid.mm
        if s is None:
            yield item(
                table,
                row,
                "deposited_thickness_mm",
                "unknown",
                tr(
                    "The thickness that process {process} deposited is not known. {reason}",
                    process=process,
                    reason=laid.reason,
                ),
                process=process,
            )
            continue
        tested = s
        if laid.estimated:
            s *= COUNTED
        columns: tuple[str, ...] = ("deposit_factor",)
        high = row["deposit_factor"] * s
        thick = row.get("thick_deposit_from_mm")
        if thick is not None and s >= thick - 1e-9:
            columns = ("thick_deposit_from_mm", "thick_deposit_mm", "thick_deposit_t_factor")
            high = row.get("thick_deposit_mm", 0.0) or row["thick_deposit_t_factor"] * t
        short = row_of(table, "short-circuit") if level == 1 else None
        if (
            short
            and t < short["below_mm"]
            and any(
                run.transfer in ("short-circuit", "controlled-short-circuit")
                for run in coupon.of_process(process)
            )
        ):
            high = min(high, short["deposit_factor"] * s)
        yield item(
            table,
            row,
            "deposited_thickness_mm",
            "span",
            tr(
                "Process {process} deposited about {tested:.1f} mm, counted as {s:.1f} mm: up to "
                "{high:.1f} mm. {reason}",
                process=process,
                tested=tested,
                s=s,
                high=high,
                reason=laid.reason,
            )
            if laid.estimated
            else tr(
                "Process {process} deposited {s:g} mm: up to {high:g} mm.", process=process, s=s, high=high
            ),
            columns=columns,
            max=high,
            tested=Range(tested, tested),
            process=process,
        )


def _fillet(coupon: TestCoupon, level: int) -> Iterator[RangeItem]:
    table = table_of("fillet_ranges")
    if level == 1:
        yield item(
            table,
            row_of(table, "metal-1"),
            "parent_thickness_mm",
            "any",
            tr("Level 1 sets no limit for fillets."),
        )
        yield item(
            table,
            row_of(table, "throat-1"),
            "throat_mm",
            "any",
            tr("Level 1 sets no limit of the throat."),
            weld="fillet",
        )
        return
    members = coupon.thicknesses_mm
    if not members:
        yield item(table, table.rows[0], "parent_thickness_mm", "unknown", tr("The thickness is not stated."))
    both = len(set(members)) == 1
    for index, t in enumerate(members[:1] if both else members):
        row = next(r for r in table.rows if r["row"].startswith("metal-2") and in_row(r, t))
        low = row["min_mm"] if "min_mm" in row else row["min_factor"] * t
        high = row["max_factor"] * t if "max_factor" in row else None
        yield item(
            table,
            row,
            "parent_thickness_mm",
            "span",
            tr(
                "Member of {t:g} mm: {low:g} mm {value}.",
                t=t,
                low=low,
                value=tr("and over") if high is None else tr("to {high:g} mm", high=high),
            ),
            min=low,
            max=high,
            tested=Range(t, t),
            member=None if both else index + 1,
        )
    a, kind = coupon.throat_mm, coupon.run_kind
    row = row_of(table, f"throat-2-{kind}")
    if a is None:
        yield item(table, row, "throat_mm", "unknown", tr("The throat is not stated."), weld="fillet")
        return
    limited = "throat_min_factor" in row
    yield item(
        table,
        row,
        "throat_mm",
        "span",
        tr("Single run, throat {a:g} mm: 0.75 a to 1.5 a.", a=a)
        if limited
        else tr("Several runs, throat {a:g} mm: no limit.", a=a),
        min=row["throat_min_factor"] * a if limited else None,
        max=row["throat_max_factor"] * a if limited else None,
        tested=Range(a, a),
        weld="fillet",
    )


def diameter_items(coupon: TestCoupon, level: int) -> Iterator[RangeItem]:
    """Outside diameter and branch angle."""
    table = table_of("diameters")
    if level == 1:
        for variable in ("outside_diameter_mm", "branch_angle_deg"):
            yield item(table, row_of(table, "any-1"), variable, "any", tr("Level 1 sets no limit."))
        return
    diameter = coupon.outside_diameter_mm
    if coupon.product == "plate":
        row, rotated = row_of(table, "plate-2"), row_of(table, "plate-rotated-2")
        yield item(
            table,
            row,
            "outside_diameter_mm",
            "span",
            tr("A plate test covers pipe over {row:g} mm.", row=row["over_mm"]),
            min=row["over_mm"],
            min_open=True,
            how="rotated",
            numbers=(float(rotated["over_mm"]),),
            also=tr(
                "Over {rotated:g} mm where the pipe is rotated, in PA or PC.", rotated=rotated["over_mm"]
            ),
        )
    elif diameter is None:
        yield item(
            table,
            row_of(table, "pipe-2"),
            "outside_diameter_mm",
            "unknown",
            tr("The outside diameter is not stated."),
        )
    else:
        small = row_of(table, "pipe-small-2")
        row = small if diameter <= small["to_mm"] + 1e-9 else row_of(table, "pipe-2")
        low = max(row["min_factor"] * diameter, row.get("least_mm", 0.0))
        high = row["max_factor"] * diameter if "max_factor" in row else None
        yield item(
            table,
            row,
            "outside_diameter_mm",
            "span",
            tr("Pipe of {diameter:g} mm: {low:g} mm ", diameter=diameter, low=low)
            + (tr("and over.") if high is None else tr("to {high:g} mm.", high=high)),
            min=low,
            max=high,
            tested=Range(diameter, diameter),
        )
    yield from _branch(coupon)


def _branch(coupon: TestCoupon) -> Iterator[RangeItem]:
    table = table_of("diameters")
    angle = coupon.joint.branch_angle_deg if coupon.joint else None
    if coupon.kind == "branch":
        row = row_of(table, "branch-2")
        if angle is None:
            yield item(table, row, "branch_angle_deg", "unknown", tr("The branch angle is not stated."))
            return
        yield item(
            table,
            row,
            "branch_angle_deg",
            "span",
            tr("Tested at {angle:g}°: that angle to {row:g}°.", angle=angle, row=row["max_deg"]),
            min=angle,
            max=row["max_deg"],
            tested=Range(angle, angle),
        )
        return
    row = row_of(table, "branch-from-butt-2")
    pipe = coupon.product == "pipe" and coupon.kind == "butt"
    yield item(
        table,
        row,
        "branch_angle_deg",
        "span" if pipe else "unknown",
        tr("A butt in pipe covers branches from 60°.")
        if pipe
        else tr("A branch is not covered by this test piece."),
        min=row["min_deg"] if pipe else None,
        max=row["max_deg"] if pipe else None,
    )
