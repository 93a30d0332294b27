"""Where specimens are cut (ISO 15614-1:2017, figures)."""

from __future__ import annotations

from welding.editions.iso_15614_1_2017.rules.basics import table_of
from welding.editions.toolkit import row_of
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import rule_of
from welding.testing.cutting import Layout


def layout_of(coupon: TestCoupon) -> Layout:
    """Layout of a test piece by the code's areas."""
    table = table_of("specimen_areas")
    plate, fillet = row_of(table, "plate"), row_of(table, "fillet")
    of_fillet = coupon.weld == "fillet"
    row = fillet if of_fillet else row_of(table, "pipe" if coupon.product == "pipe" else "plate")
    return Layout(
        discard_mm=float((fillet if of_fillet else plate)["discard_mm"]),
        each_side_mm=float(plate["each_side_mm"]),
        length_mm=float((fillet if of_fillet else plate)["length_mm"]),
        order=("macro",) if of_fillet else tuple(row["order"]),
        widths_mm={
            "transverse-tensile": row_of(table, "tensile-width")["width_mm"],
            "side-bend": row_of(table, "side-bend-width")["width_mm"],
            "bend": row_of(table, "bend-width")["width_mm"],
            "impact": row_of(table, "impact-width")["width_mm"],
            "macro": row_of(table, "macro-width")["width_mm"],
        },
        angles_deg=tuple(float(a) for a in row_of(table, "pipe")["angles_deg"]),
        rule=rule_of(table, row),
        unchecked=table.unchecked_of(row),
    )
