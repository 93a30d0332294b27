"""What AWS D1.1:2020 brings to the question whether a record covers a procedure."""

from __future__ import annotations

from welding.editions.aws_d1_1_2020.rules.basics import table_of
from welding.editions.aws_d1_1_2020.rules.groups import group_of
from welding.editions.aws_d1_1_2020.rules.joint_details import detail_answers
from welding.editions.aws_d1_1_2020.rules.preheat import code_preheat
from welding.editions.aws_d1_1_2020.rules.stated import lacking_dimensions
from welding.editions.toolkit import row_of
from welding.finding import Verdict
from welding.qualification.compare import Rules
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import RangeItem
from welding.qualification.needs import Needs
from welding.qualification.positions import aws_position
from welding.qualification.required_scope import RequiredScope


def _metal(required: RequiredScope, index: int) -> tuple[str | None, str, float | None]:
    metal = required.metals[index]
    units = required.procedure.code.units if required.procedure.code else "si"
    grade = required.draft.metal(metal)
    name = grade.name if grade else (metal.designation or "")
    return group_of(required.draft, metal, units), name, metal.yield_mpa


def _prequalified_groove(required: RequiredScope) -> bool:
    joint = required.joint
    if joint is None or lacking_dimensions(joint, joint.preparation):
        return False  # a detail is its dimensions: without them nobody can say that it is one
    answers = list(detail_answers(required.draft))
    return bool(answers) and all(one.verdict == "complies" for one in answers)


def _table_preheat_c(required: RequiredScope) -> float | None:
    found = code_preheat(required.draft)
    return found.preheat_c if found else None


def _position_in(position: str, required: RequiredScope, item: RangeItem) -> Verdict:
    symbol = aws_position(position, required.weld or "groove")
    return "complies" if symbol in item.values else "violates"


def both_positions(first: TestCoupon, second: TestCoupon, level: int, needs: Needs) -> tuple[str, ...]:
    """2G and 5G on pipe together qualify every position, as 6G does (table 6.1)."""
    if first.product != "pipe" or second.product != "pipe":
        return ()
    symbols = {
        aws_position(coupon.position, "groove") for coupon in (first, second) if coupon.position is not None
    }
    if symbols != {"2G", "5G"}:
        return ()
    row = row_of(table_of("test_positions"), "pipe-6G")
    return (*row["groove"], *row["fillet"])


RULES = Rules(
    metal=_metal,
    prequalified_groove=_prequalified_groove,
    table_preheat_c=_table_preheat_c,
    position_in=_position_in,
)
