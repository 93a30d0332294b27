"""Range of qualification of AWS D1.1:2020: every variable of tables 6.1 to 6.8 for one coupon."""

from __future__ import annotations

from welding.editions.aws_d1_1_2020.rules.range_heat import heat_items
from welding.editions.aws_d1_1_2020.rules.range_joint import groove_items, position_items, weld_items
from welding.editions.aws_d1_1_2020.rules.range_metal import metal_items
from welding.editions.aws_d1_1_2020.rules.range_process import process_items, which_processes
from welding.editions.aws_d1_1_2020.rules.range_size import diameter_items, job_pipe, thickness_items
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import Alternative, RangeItem
from welding.qualification.needs import Needs


def range_items(
    coupon: TestCoupon, level: int, needs: Needs, joint_alone: bool = False
) -> tuple[tuple[RangeItem, ...], tuple[Alternative, ...]]:
    """Items of the range, and the line of the standard test pipes where the coupon is one.

    ``joint_alone`` leaves out what only passes are asked about.
    """
    impact = needs.impact
    items = (
        *thickness_items(coupon, impact),
        *diameter_items(coupon, impact),
        *metal_items(coupon, impact),
        *weld_items(coupon),
        *position_items(coupon, impact),
        *groove_items(coupon),
        *((which_processes(coupon),) if joint_alone else process_items(coupon, impact)),
        *heat_items(coupon, impact),
    )
    other = job_pipe(coupon, impact)
    return items, (other,) if other else ()
