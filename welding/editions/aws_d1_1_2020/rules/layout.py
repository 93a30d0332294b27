"""Where specimens are cut (AWS D1.1:2020, figures of test plates)."""

from __future__ import annotations

from welding.editions.aws_d1_1_2020.rules.basics import figure, table_of
from welding.editions.aws_d1_1_2020.rules.range_size import groove_row
from welding.editions.toolkit import row_of
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import rule_of
from welding.testing.cutting import Layout


def layout_of(coupon: TestCoupon) -> Layout:
    """Layout of a coupon; side bends where the table asks for them."""
    table, units = table_of("specimen_layout"), coupon.units
    discard, fillet = row_of(table, "discard"), row_of(table, "fillet")
    found = groove_row(coupon) if coupon.weld != "fillet" else None
    thick = found is not None and found[1].get("side", 0) > 0
    row = row_of(table, "plate-thick" if thick else "plate-thin")
    of_fillet = coupon.weld == "fillet"
    ends = fillet if of_fillet else discard
    bend = figure(row_of(table, "bend-width"), "width", units) or 38.0
    return Layout(
        discard_mm=figure(ends, "discard", units) or 0.0,
        each_side_mm=(figure(discard, "each_side", units) or 180.0) if not of_fillet else 100.0,
        length_mm=figure(fillet, "length", units) if of_fillet else None,
        order=("macro",) if of_fillet else tuple(row["order"]),
        widths_mm={
            "transverse-tensile": figure(row_of(table, "tensile-width"), "width", units) or 20.0,
            "side-bend": figure(row_of(table, "side-bend-width"), "width", units) or 10.0,
            "bend": bend,
            "impact": figure(row_of(table, "impact-width"), "width", units) or 55.0,
            "macro": 15.0,
        },
        angles_deg=tuple(float(a) for a in row_of(table, "pipe")["angles_deg"]),
        rule=rule_of(table, row),
        unchecked=table.unchecked_of(row),
    )
