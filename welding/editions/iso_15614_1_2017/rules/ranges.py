"""Range of qualification of ISO 15614-1:2017, level 1 or 2, for one test piece."""

from __future__ import annotations

from welding.editions.iso_15614_1_2017.rules.range_heat import heat_items
from welding.editions.iso_15614_1_2017.rules.range_joint import position_items, weld_items
from welding.editions.iso_15614_1_2017.rules.range_metal import metal_items
from welding.editions.iso_15614_1_2017.rules.range_process import process_items, which_processes
from welding.editions.iso_15614_1_2017.rules.range_size import diameter_items, thickness_items
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import Alternative, RangeItem
from welding.qualification.needs import Needs


def range_items(
    coupon: TestCoupon, level: int, needs: Needs, joint_alone: bool = False
) -> tuple[tuple[RangeItem, ...], tuple[Alternative, ...]]:
    """Items of the range; this code has no other lines for the same test.

    ``joint_alone`` leaves out what only passes are asked about.
    """
    return (
        *thickness_items(coupon, level, needs),
        *diameter_items(coupon, level),
        *metal_items(coupon, level, needs),
        *weld_items(coupon, level),
        *position_items(coupon, level, needs),
        *((which_processes(coupon, level),) if joint_alone else process_items(coupon, level, needs)),
        *heat_items(coupon, level, needs),
    ), ()
