"""What a code edition is: a manifest and the functions that answer for it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal

from welding.checks.context import Draft
from welding.checks.site import WindLimit
from welding.citation import Citation
from welding.codebook.table import Table, load_table
from welding.documents.fields import UnitColumn
from welding.documents.procedure import Code, Pass
from welding.documents.record import Test
from welding.finding import Finding
from welding.heat.preheat import Preheat
from welding.language import Usage, tr
from welding.qualification.compare import Rules
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import Alternative, RangeItem
from welding.qualification.needs import NeedFacts, Needs
from welding.ranges import Range
from welding.testing.cutting import Layout
from welding.testing.overall import RetestRule
from welding.testing.plan import TestPlan
from welding.testing.verdict import Judged

HeatBasis = Literal["arc-energy", "heat-input"]
"""What the code calls heat input: arc energy without k, or k times arc energy."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Qualification:
    """How an edition answers for a coupon. Every function takes the level; editions without levels get 0.

    Attributes:
        needs: Whether impact toughness and hardness are required.
        test_plan: What is tested.
        judge: Verdict on one specimen.
        retest: What a failed specimen allows.
        range_items: What the coupon qualifies (for the joint alone, where that is asked), and other lines of
            the code that the same test meets.
        layout: How it lays specimens out on the piece.
        rules: What the code brings to the question whether a range covers a procedure.
        both_positions: Positions that two records together cover, where the code lets them stand together.
        processes_combine: Whether separate records, one for each process, together cover a joint of several.
        tables: Name of the package whose tables hold the numbers.
    """

    needs: Callable[[NeedFacts, int], Needs]
    test_plan: Callable[[TestCoupon, int, Needs], TestPlan]
    judge: Callable[[TestCoupon, int, Needs, Test], Judged]
    retest: Callable[[TestCoupon, int, Test], RetestRule]
    range_items: Callable[
        [TestCoupon, int, Needs, bool], tuple[tuple[RangeItem, ...], tuple[Alternative, ...]]
    ]
    layout: Callable[[TestCoupon], Layout]
    rules: Rules
    both_positions: Callable[[TestCoupon, TestCoupon, int, Needs], tuple[str, ...]]
    processes_combine: bool
    tables: str


@dataclass(frozen=True, slots=True)
class MethodOption:
    """A fact that a preheat method is asked with.

    Attributes:
        name: Name of the argument.
        help: Unit or meaning, for the command line.
        number: Whether it is a number.
        choices: The values that it may have; empty for any.
    """

    name: str
    help: str
    number: bool = False
    choices: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class PreheatMethod:
    """A code's own way to a preheat temperature.

    Attributes:
        id: Id of the method, as ``Preheat.method``.
        options: What it is asked with, beside thickness [mm] and printed column.
        compute: The method; takes ``thickness_mm``, ``units`` and the options by name.
    """

    id: str
    options: tuple[MethodOption, ...]
    compute: Callable[..., Preheat]


@dataclass(frozen=True, slots=True, kw_only=True)
class Edition:
    """One edition of a code.

    Attributes:
        id: Code id of the documents, such as ``iso-15614-1:2017``.
        title: Full name.
        short: What the top strip shows.
        levels: Levels it knows; empty where it has none.
        heat_basis: What its heat input means.
        heat_citation: Where that stands.
        unit_columns: Printed columns that it has, the one that a new procedure starts with first; see
            ``Code.units``.
        usage: Whose terms its users speak; see ``glossary``.
        record_word: What its users call the record of a qualification test.
        procedure_word: What they call a procedure before it is qualified.
        prequalified: Whether it knows a route without a test.
        draft_findings: Findings on a draft, beyond those that hold under every code.
        qualification: How it answers for a coupon: plan, verdicts, range, coverage.
        wind_limit: The code's own limit of wind for gas-shielded welding, where it has one.
        least_fillet_mm: The code's least leg by thickness and printed column, where it has one.
        preheat: What the code's own table asks of a draft, where it has one and the facts suffice.
        preheat_methods: Its own methods of preheat; with one, its preheat rules and not EN 1011-2.
        preheat_by_chemistry: What the code's methods by chemistry ask, given the hydrogen [ml/100 g].
        current_limit: The code's limit of a pass's current, named, where it has one that can be told.
        earlier_number: The same table's number in the edition before, such as ``2015: table 4.5``; or "".
        earlier_records: What holds for records to an earlier edition of this code, by their code id.
    """

    id: str
    title: str
    short: str
    levels: tuple[int, ...]
    heat_basis: HeatBasis
    heat_citation: Citation
    unit_columns: tuple[UnitColumn, ...]
    usage: Usage
    record_word: str
    procedure_word: str
    draft_findings: Callable[[Draft], Iterator[Finding]]
    qualification: Qualification
    prequalified: bool = False
    wind_limit: Callable[[Code], WindLimit | None] = lambda _: None
    least_fillet_mm: Callable[[float, UnitColumn], float] | None = None
    preheat: Callable[[Draft], Preheat | None] = lambda _: None
    preheat_methods: tuple[PreheatMethod, ...] = ()
    preheat_by_chemistry: Callable[[Draft, float], list[Preheat]] = lambda _, __: []
    current_limit: Callable[[Draft, Pass], tuple[str, Range] | None] = lambda _, __: None
    earlier_number: Callable[[str], str] = lambda _: ""
    earlier_records: Callable[[str], tuple[str, Citation] | None] = lambda _: None

    @property
    def required_content(self) -> Table:
        """What a procedure has to state, as the code book in force has it."""
        return load_table(self.qualification.tables, "required_content")

    @property
    def unit_column(self) -> UnitColumn:
        """Printed column that a new procedure starts with."""
        return self.unit_columns[0]

    def level_of(self, level: int | None) -> int:
        """The level in force: as stated, the highest where none is named, 0 where the code has none."""
        return (level or max(self.levels)) if self.levels else 0

    def short_with(self, code: Code) -> str:
        """Short name with the level that is in force."""
        if not self.levels:
            return self.short
        return tr("{code}, level {level}", code=self.short, level=code.level or max(self.levels))
