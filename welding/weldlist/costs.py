"""What a coupon costs: plate, weld metal, time at the joint, tests. To compare coupons by, not to invoice."""

from __future__ import annotations

from welding.codebook.table import load_table
from welding.deposit.consumption import operating_share
from welding.deposit.laid import bead_area_middle_mm2, density_g_cm3, weld_metal
from welding.documents.procedure import Procedure
from welding.documents.weld_list import Prices
from welding.metals.catalogue import find
from welding.testing.plan import TestPlan

LENGTH_MM = 350.0
HALF_WIDTH_MM = 150.0
"""Usual test plate: two pieces of 150 by 350 mm."""


def making_cost(procedure: Procedure, thickness_mm: float, prices: Prices) -> float:
    """Cost of plate, weld metal and time of a coupon, in the currency of the prices.

    Args:
        procedure: What it is welded to.
        thickness_mm: Thickness of its plate; a pipe costs as the plate it would be rolled from.
        prices: Prices of the shop.
    """
    family = _family(procedure)
    plate_kg = 2 * LENGTH_MM * HALF_WIDTH_MM * thickness_mm * density_g_cm3(weld_metal(None, family)) * 1e-6
    metal_kg, hours = weld_metal_and_hours(procedure, LENGTH_MM)
    return plate_kg * prices.plate_kg + metal_kg * prices.weld_metal_kg + hours * prices.hour


def tests_cost(plan: TestPlan, prices: Prices) -> float:
    """Cost of the tests that a plan asks first; what may replace them is left out."""
    table = load_table("welding.weldlist", "test_prices")
    total = 0.0
    for one in plan.items:
        if one.alternative_to or one.option:
            continue
        each = prices.tests.get(one.kind)
        total += one.count * (table.row(one.kind)["each"] if each is None else each)
    return total


def _family(procedure: Procedure) -> str:
    """Family of the first metal; steel where the catalogue does not know it."""
    names = [one.designation for one in procedure.base_metals if one.designation]
    metal = find(names[0]) if names else None
    return metal.family if metal else "carbon"


def weld_metal_and_hours(procedure: Procedure, length_mm: float) -> tuple[float, float]:
    """Weld metal [kg] and hours at the joint of a length [mm], as far as the passes state them."""
    family = _family(procedure)
    metal_kg = hours = 0.0
    for one in procedure.passes:
        area = bead_area_middle_mm2(one)
        if area is not None:
            what = weld_metal(one.filler.designation if one.filler else None, family)
            metal_kg += area * length_mm * density_g_cm3(what) * 1e-6
        if one.travel_mm_min is not None:
            hours += length_mm / one.travel_mm_min.middle / 60 / operating_share(one.process)
    return metal_kg, hours
