"""Manifest of AWS D1.1:2020."""

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.codebook.edition import Edition, Qualification
from welding.editions.aws_d1_1_2020.rules.basics import earlier_number
from welding.editions.aws_d1_1_2020.rules.covering import RULES, both_positions
from welding.editions.aws_d1_1_2020.rules.environment import wind_limit
from welding.editions.aws_d1_1_2020.rules.judging import judge_specimen, retest_rule
from welding.editions.aws_d1_1_2020.rules.layout import layout_of
from welding.editions.aws_d1_1_2020.rules.matching import matching_findings
from welding.editions.aws_d1_1_2020.rules.needs import needs_of
from welding.editions.aws_d1_1_2020.rules.pass_limits import prequalified_current
from welding.editions.aws_d1_1_2020.rules.preheat import PREHEAT_METHODS, code_preheat, preheat_by_chemistry
from welding.editions.aws_d1_1_2020.rules.prequalified import prequalified_findings
from welding.editions.aws_d1_1_2020.rules.ranges import range_items
from welding.editions.aws_d1_1_2020.rules.sizes import least_fillet_mm
from welding.editions.aws_d1_1_2020.rules.test_plan import test_plan
from welding.finding import Finding
from welding.heat.energy import AWS_HEAT_INPUT


def draft_findings(draft: Draft) -> Iterator[Finding]:
    """Findings of this edition on a draft."""
    yield from matching_findings(draft)
    yield from prequalified_findings(draft)


EDITION = Edition(
    id="aws-d1.1:2020",
    title="AWS D1.1/D1.1M:2020, Structural Welding Code, Steel",
    short="AWS D1.1:2020",
    levels=(),
    heat_basis="arc-energy",
    heat_citation=AWS_HEAT_INPUT,
    unit_columns=("us", "si"),
    usage="aws",
    record_word="PQR",
    procedure_word="WPS",
    draft_findings=draft_findings,
    qualification=Qualification(
        needs=needs_of,
        test_plan=test_plan,
        judge=judge_specimen,
        retest=retest_rule,
        range_items=range_items,
        layout=layout_of,
        rules=RULES,
        both_positions=both_positions,
        processes_combine=False,
        tables="welding.editions.aws_d1_1_2020",
    ),
    prequalified=True,
    wind_limit=wind_limit,
    least_fillet_mm=least_fillet_mm,
    preheat=code_preheat,
    preheat_methods=PREHEAT_METHODS,
    preheat_by_chemistry=preheat_by_chemistry,
    current_limit=prequalified_current,
    earlier_number=earlier_number,
)
