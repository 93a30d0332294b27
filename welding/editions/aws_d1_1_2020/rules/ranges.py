"""Range of qualification of AWS D1.1:2020: every variable of tables 6.1 to 6.8 for one coupon."""

from __future__ import annotations

from welding.editions.aws_d1_1_2020.rules.range_heat import heat_items
from welding.editions.aws_d1_1_2020.rules.range_joint import (
    groove_items,
    metal_items,
    position_items,
    weld_items,
)
from welding.editions.aws_d1_1_2020.rules.range_process import process_items
from welding.editions.aws_d1_1_2020.rules.range_size import diameter_items, job_pipe, thickness_items
from welding.qualification.items import Alternative, RangeItem
from welding.qualification.needs import NeedFacts, Needs
from welding.qualification.welded import Welded


def needs_of(facts: NeedFacts, level: int) -> Needs:
    """What is required beyond strength: impact toughness is left to the contract; there are no levels."""
    return Needs(impact=bool(facts.impact_asked), hardness=bool(facts.hardness_asked))


def range_items(
    piece: Welded, level: int, needs: Needs, joint_alone: bool = False
) -> tuple[tuple[RangeItem, ...], tuple[Alternative, ...]]:
    """Items of the range, and the line of the standard test pipes where the coupon is one.

    ``joint_alone`` leaves out what only passes are asked about.
    """
    impact = needs.impact
    items = (
        *thickness_items(piece, impact),
        *diameter_items(piece, impact),
        *metal_items(piece, impact),
        *weld_items(piece),
        *position_items(piece, impact),
        *groove_items(piece),
        *(() if joint_alone else process_items(piece, impact)),
        *heat_items(piece, impact),
    )
    other = job_pipe(piece, impact)
    return items, (other,) if other else ()
