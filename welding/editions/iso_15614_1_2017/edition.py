"""Manifest of ISO 15614-1:2017."""

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.citation import Citation
from welding.codebook.edition import Edition, Qualification
from welding.codebook.table import load_table
from welding.editions.iso_15614_1_2017.rules.covering import RULES, both_positions
from welding.editions.iso_15614_1_2017.rules.groups import contradiction, group_of, other_part
from welding.editions.iso_15614_1_2017.rules.judging import judge_specimen, retest_rule
from welding.editions.iso_15614_1_2017.rules.layout import layout_of
from welding.editions.iso_15614_1_2017.rules.needs import needs_of
from welding.editions.iso_15614_1_2017.rules.ranges import range_items
from welding.editions.iso_15614_1_2017.rules.test_plan import test_plan
from welding.finding import Finding
from welding.heat.energy import ISO_TR_18491
from welding.language import tr
from welding.metals.grouping import ISO_TR_15608

LEVELS = Citation(
    document="ISO 15614-1", edition="2017", clause="levels of testing", provenance="memory", confidence="high"
)


SCOPE = Citation(
    document="ISO 15614-1", edition="2017", clause="clause 1, scope", provenance="memory", confidence="high"
)


def draft_findings(draft: Draft) -> Iterator[Finding]:
    """Findings of this edition on a draft."""
    for index, metal in enumerate(draft.procedure.base_metals):
        against = contradiction(draft, metal)
        if against:
            yield Finding(
                rule="metal.group",
                verdict="undecided",
                path=f"base_metals.{index}.groups.iso_15608",
                title=tr("Stated group against the grade's"),
                message=tr("{against}: until that is settled nothing is covered.", against=against),
                limit=tr("one group"),
                remedy=tr("Correct the group, or the name of the metal."),
                citations=(ISO_TR_15608,),
            )
        other = other_part(group_of(draft, metal))
        if other is not None:
            yield Finding(
                rule="code.scope",
                verdict="violates",
                path=f"base_metals.{index}.designation",
                title=tr("{other} applies", other=other[1]),
                message=tr(
                    "ISO 15614-1 is for steels and nickel alloys; {other} belong to {other2}.",
                    other=other[0],
                    other2=other[1],
                ),
                actual=metal.designation or "",
                limit=tr("steels and nickel alloys"),
                remedy=tr("Qualify to {other}.", other=other[1]),
                citations=(SCOPE,),
            )
    code = draft.procedure.code
    if code is not None and code.level is None:
        yield Finding(
            rule="code.level",
            verdict="undecided",
            path="code.level",
            title=tr("No level named"),
            message=tr("Level 1 or 2 is not stated; level 2 is taken where none is named."),
            limit=tr("level 1 or 2"),
            remedy=tr("Name the level."),
            citations=(LEVELS,),
        )


def _earlier_records(code_id: str) -> tuple[str, Citation] | None:
    table = load_table("welding.editions.iso_15614_1_2017", "old_editions")
    row = next((row for row in table.rows if row["row"] == code_id), None)
    if row is None:
        return None
    return tr("such a record counts as level {row} once they are", row=row["as_level"]), table.citation_of(
        row
    )


EDITION = Edition(
    id="iso-15614-1:2017",
    title="ISO 15614-1:2017, welding procedure test, arc and gas welding of steels",
    short="ISO 15614-1:2017",
    levels=(1, 2),
    heat_basis="heat-input",
    heat_citation=ISO_TR_18491,
    unit_columns=("si",),
    usage="iso",
    record_word="WPQR",
    procedure_word="pWPS",
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
        processes_combine=True,
        tables="welding.editions.iso_15614_1_2017",
    ),
    earlier_records=_earlier_records,
)
