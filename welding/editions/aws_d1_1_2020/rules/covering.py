"""What AWS D1.1:2020 brings to the question whether a record covers a procedure."""

from __future__ import annotations

from welding.editions.aws_d1_1_2020.rules.joint_details import detail_answers
from welding.editions.aws_d1_1_2020.rules.matching import group_of
from welding.editions.aws_d1_1_2020.rules.preheat import code_preheat
from welding.editions.aws_d1_1_2020.rules.range_basics import row_of, table_of
from welding.editions.aws_d1_1_2020.rules.stated import lacking_dimensions
from welding.qualification.compare import Rules
from welding.qualification.demand import Demand
from welding.qualification.needs import Needs
from welding.qualification.positions import aws_position
from welding.qualification.welded import Welded


def _metal(demand: Demand, index: int) -> tuple[str | None, str, float | None]:
    metal = demand.metals[index]
    units = demand.procedure.code.units if demand.procedure.code else "si"
    grade = demand.draft.metal(metal)
    name = grade.name if grade else (metal.designation or "")
    return group_of(demand.draft, metal, units), name, metal.yield_mpa


def _prequalified_groove(demand: Demand) -> bool:
    joint = demand.joint
    if joint is None or lacking_dimensions(joint, joint.preparation):
        return False  # a detail is its dimensions: without them nobody can say that it is one
    answers = list(detail_answers(demand.draft))
    return bool(answers) and all(one.verdict == "complies" for one in answers)


def _table_preheat_c(demand: Demand) -> float | None:
    found = code_preheat(demand.draft)
    return found.preheat_c if found else None


def both_positions(first: Welded, second: Welded, level: int, needs: Needs) -> tuple[str, ...]:
    """2G and 5G on pipe together qualify every position, as 6G does (table 6.1)."""
    if first.product != "pipe" or second.product != "pipe":
        return ()
    symbols = {
        aws_position(piece.position, "groove") for piece in (first, second) if piece.position is not None
    }
    if symbols != {"2G", "5G"}:
        return ()
    row = row_of(table_of("test_positions"), "pipe-6G")
    return (*row["groove"], *row["fillet"])


RULES = Rules(
    metal=_metal,
    prequalified_groove=_prequalified_groove,
    table_preheat_c=_table_preheat_c,
    positions="aws",
)
