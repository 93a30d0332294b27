"""What ISO 15614-1:2017 brings to the question whether a record covers a procedure."""

from __future__ import annotations

from welding.editions.iso_15614_1_2017.rules.basics import table_of
from welding.editions.iso_15614_1_2017.rules.groups import contradiction, group_of
from welding.editions.iso_15614_1_2017.rules.range_joint import POSITIONS
from welding.editions.toolkit import row_of
from welding.finding import Verdict
from welding.qualification.compare import Rules
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import RangeItem
from welding.qualification.needs import Needs
from welding.qualification.positions import iso_positions
from welding.qualification.required_scope import RequiredScope


def _metal(required: RequiredScope, index: int) -> tuple[str | None, str, float | None]:
    metal = required.metals[index]
    grade = required.draft.metal(metal)
    name = grade.name if grade else (metal.designation or "")
    yield_mpa = (grade.yield_at(None) if grade else None) or metal.yield_mpa
    return group_of(required.draft, metal), name, yield_mpa


def _position_in(position: str, required: RequiredScope, item: RangeItem) -> Verdict:
    inside = [one in item.values for one in iso_positions(position, required.progression)]
    return "complies" if all(inside) else "undecided" if any(inside) else "violates"


def both_positions(first: TestCoupon, second: TestCoupon, level: int, needs: Needs) -> tuple[str, ...]:
    """A piece of the highest and one of the lowest heat input together cover all but downhill."""
    table = table_of("heat_positions")

    def is_in(coupon: TestCoupon, row: str) -> bool:
        if coupon.position is None:
            return False
        symbols = iso_positions(coupon.position, coupon.progression)
        return len(symbols) == 1 and symbols[0] in row_of(table, row)[coupon.product]

    pairs = ((first, second), (second, first))
    if any(is_in(high, "highest") and is_in(low, "lowest") for high, low in pairs):
        own = row_of(table, "own-test")["positions"]
        return tuple(p for p in POSITIONS if p not in own)
    return ()


RULES = Rules(
    metal=_metal,
    contradiction=lambda required, index: contradiction(required.draft, required.metals[index]),
    prequalified_groove=lambda _: False,
    table_preheat_c=lambda _: None,
    position_in=_position_in,
    sides_rule_gouging=True,
)
