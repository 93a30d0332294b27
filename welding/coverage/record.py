"""The questions asked of a qualification record: what to test, what the tests say, what it qualifies."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field, replace

from welding.citation import COMMON_PRACTICE
from welding.codebook.catalogue import all_editions, by_code, edition_of
from welding.codebook.edition import Edition
from welding.documents.procedure import Code
from welding.documents.record import QualificationRecord
from welding.errors import UnknownEntryError
from welding.evaluate.procedure import heat_rule
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.heat.passes import HeatRule
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import QualifiedRange
from welding.qualification.needs import NeedFacts, Needs
from welding.testing.cutting import CuttingPlan, cutting_plan
from welding.testing.overall import TestReport, report
from welding.testing.plan import TestPlan


@dataclass(frozen=True, slots=True)
class InForce:
    """An edition with the level that is asked."""

    edition: Edition
    level: int
    code: Code

    @property
    def rule(self) -> HeatRule:
        """How its heat input is counted."""
        return HeatRule(uses_k=self.edition.heat_basis == "heat-input", citation=self.edition.heat_citation)

    @property
    def short(self) -> str:
        """Name with the level."""
        return self.edition.short_with(self.code)


def in_force(code: Code | None, code_id: str | None = None, level: int | None = None) -> InForce:
    """The edition that is asked: by id, else the document's own.

    Args:
        code: The code of the document.
        code_id: Id that is asked instead.
        level: Level that is asked instead.

    Raises:
        UnknownEntryError: No code is named, or none of that id is known here.
    """
    wanted = code_id or (code.id if code else None)
    if wanted is None:
        raise UnknownEntryError("no code is named: state code.id, or ask for one")
    edition = edition_of(wanted)
    if edition is None:
        known = ", ".join(all_editions())
        raise UnknownEntryError(f"{wanted} is no code that this program has; it has {known}")
    own = code if code and code.id == wanted else None
    stated = level if level is not None else (own.level if own else None)
    if level is not None and edition.levels and level not in edition.levels:
        raise UnknownEntryError(f"{wanted} has the levels {', '.join(map(str, edition.levels))}")
    used = edition.level_of(stated)
    units = own.units if own else (edition.unit_column if code is None else code.units)
    if units not in edition.unit_columns:
        units = edition.unit_column
    return InForce(edition, used, Code(id=wanted, level=used or None, units=units))


def needs_of(coupon: TestCoupon, asked: InForce) -> Needs:
    """What the record has to prove beyond strength."""
    return asked.edition.qualification.needs(
        NeedFacts(
            draft=coupon.draft,
            metals=coupon.metals,
            thickness_mm=coupon.thickness_mm,
            requirements=coupon.procedure.requirements,
            weld=coupon.weld,
        ),
        asked.level,
    )


def _piece(record: QualificationRecord, asked: InForce) -> TestCoupon:
    """The record with the code that is asked, so that its printed column and heat input count."""
    kept = _KEPT.get()
    if kept is None:
        return _under(record, asked)
    key = (id(record), asked.code)
    if key not in kept.coupons:
        kept.coupons[key] = record, _under(record, asked)
    return kept.coupons[key][1]


def _under(record: QualificationRecord, asked: InForce) -> TestCoupon:
    own = record.procedure.code
    if own == asked.code:
        return TestCoupon(record)
    route = own.route if own else "test"
    code = replace(asked.code, route=route)
    return TestCoupon(replace(record, procedure=replace(record.procedure, code=code)))


@by_code
def plan_of(record: QualificationRecord, code_id: str | None = None, level: int | None = None) -> TestPlan:
    """Test plan of a record's coupon.

    Args:
        record: The record; its tests are not looked at.
        code_id: Code, where it is not the record's own.
        level: Level, likewise.

    Raises:
        UnknownEntryError: No such code.
    """
    asked = in_force(record.procedure.code, code_id, level)
    coupon = _piece(record, asked)
    return asked.edition.qualification.test_plan(coupon, asked.level, needs_of(coupon, asked))


@by_code
def cutting_of(
    record: QualificationRecord, code_id: str | None = None, level: int | None = None
) -> CuttingPlan:
    """Where the specimens of the plan are cut from the coupon.

    Raises:
        UnknownEntryError: No such code.
    """
    asked = in_force(record.procedure.code, code_id, level)
    coupon = _piece(record, asked)
    rules = asked.edition.qualification
    return cutting_plan(
        rules.test_plan(coupon, asked.level, needs_of(coupon, asked)),
        rules.layout(coupon),
        product=coupon.product,
        diameter_mm=coupon.outside_diameter_mm,
    )


@by_code
def judge(record: QualificationRecord, code_id: str | None = None, level: int | None = None) -> TestReport:
    """Verdict on every specimen of a record, and on all of them.

    Raises:
        UnknownEntryError: No such code.
    """
    asked = in_force(record.procedure.code, code_id, level)
    kept = _KEPT.get()
    key = (id(record), asked.code.id, asked.level)
    if kept is not None and key in kept.reports:
        return kept.reports[key][1]
    coupon = _piece(record, asked)
    found = _judged(coupon, asked, needs_of(coupon, asked))
    if kept is not None:
        kept.reports[key] = record, found
    return found


def as_passed(
    record: QualificationRecord, code_id: str | None = None, level: int | None = None
) -> TestReport:
    """The verdict that a coupon would have once its tests are passed; the coupon is still to be welded.

    Raises:
        UnknownEntryError: No such code.
    """
    return replace(judge(record, code_id, level), verdict="accepted", missing=(), retests=(), findings=())


def _judged(coupon: TestCoupon, asked: InForce, needs: Needs) -> TestReport:
    rules = asked.edition.qualification
    return report(
        coupon,
        rules.test_plan(coupon, asked.level, needs),
        lambda test: rules.judge(coupon, asked.level, needs, test),
        lambda test: rules.retest(coupon, asked.level, test),
    )


@by_code
def range_of(
    record: QualificationRecord,
    code_id: str | None = None,
    level: int | None = None,
    needs: Needs | None = None,
    tests: TestReport | None = None,
    joint_alone: bool = False,
) -> QualifiedRange:
    """Range of qualification of a record.

    Args:
        record: The record.
        code_id: Code, where it is not the record's own.
        level: Level, likewise.
        needs: What is required, where it is not what the record itself asks for.
        tests: The verdict on its tests, where it has been computed already.
        joint_alone: Leave out what only passes are asked about.

    Returns:
        The range as the coupon was welded; ``valid`` once its tests are accepted.

    Raises:
        UnknownEntryError: No such code.
    """
    asked = in_force(record.procedure.code, code_id, level)
    coupon = _piece(record, asked)
    own = needs_of(coupon, asked)
    wanted = needs or own
    found = tests or _judged(coupon, asked, own)
    items, others = asked.edition.qualification.range_items(coupon, asked.level, wanted, joint_alone)
    return QualifiedRange(
        code=asked.code.id,
        level=asked.level or None,
        valid=found.verdict == "accepted",
        items=items,
        alternatives=others,
        findings=tuple(_range_findings(record, asked, found, own)),
        impact=wanted.impact,
        hardness=wanted.hardness,
        number=record.number or "",
    )


@by_code
def ranges_of(
    records: Sequence[QualificationRecord],
    asked: InForce,
    needs: Needs,
    reports: Sequence[TestReport | None] | None = None,
    joint_alone: bool = False,
) -> list[QualifiedRange]:
    """Ranges of records under one code and one set of requirements.

    Args:
        records: The records.
        asked: The code.
        needs: What is required.
        reports: The verdicts on their tests, where these have been computed already.
        joint_alone: Leave out what only passes are asked about.
    """
    level = asked.level or None
    known = reports or [None] * len(records)
    kept = _KEPT.get()
    found = []
    for one, tests in zip(records, known, strict=True):
        key = (id(one), id(tests), asked.code.id, level, needs, joint_alone)
        if kept is None or key not in kept.ranges:
            span = range_of(one, asked.code.id, level, needs, tests, joint_alone)
            if kept is None:
                found.append(span)
                continue
            kept.ranges[key] = one, tests, span
        found.append(kept.ranges[key][2])
    return found


@dataclass(frozen=True, slots=True)
class KeptRanges:
    """What was computed of records, under one book, language and usage of terms.

    Keys go by identity; what they belong to is held beside, so that no other takes its place.
    """

    coupons: dict[Hashable, tuple[QualificationRecord, TestCoupon]] = field(default_factory=dict)
    ranges: dict[Hashable, tuple[QualificationRecord, TestReport | None, QualifiedRange]] = field(
        default_factory=dict
    )
    reports: dict[Hashable, tuple[QualificationRecord, TestReport]] = field(default_factory=dict)


_KEPT: ContextVar[KeptRanges | None] = ContextVar("kept_ranges", default=None)


@contextmanager
def keeping_ranges(kept: KeptRanges | None = None) -> Iterator[None]:
    """Compute each range once for as long as this lasts: for one search that asks the same records often.

    Args:
        kept: What was computed before of the same records, under the same book, language and terms.
    """
    token = _KEPT.set(KeptRanges() if kept is None else kept)
    try:
        yield
    finally:
        _KEPT.reset(token)


def _range_findings(
    record: QualificationRecord, asked: InForce, found: TestReport, needs: Needs
) -> Iterator[Finding]:
    if found.verdict != "accepted":
        lacking = "; ".join(found.missing[:6])
        failed = ", ".join(one.specimen for one in found.retests if one.state != "passed")
        yield Finding(
            rule="record.valid",
            verdict="violates" if found.verdict == "rejected" else "undecided",
            path="tests",
            title=tr("Tests are not accepted"),
            message=tr(
                "The range is what this coupon would qualify; its tests are {verdict}",
                verdict=in_words(found.verdict),
            )
            + (f" ({failed})" if failed else "")
            + (tr(": missing {lacking}.", lacking=lacking) if lacking else "."),
            remedy=tr("Enter what is missing.")
            if found.missing
            else tr("Make the retests, or weld another coupon."),
            citations=(COMMON_PRACTICE,),
        )
    # A test that this code does not ask for is no word against the range.
    yield from (one for one in found.findings if one.rule != "tests.kind")
    for one in needs.refused:
        yield Finding(
            rule=f"requirements.{one}",
            verdict="violates",
            path=f"requirements.{one}",
            title=tr("{capitalize} is asked by the code", capitalize=one.capitalize()),
            message=tr(
                "The procedure switches {one} off; {short} asks for it on this coupon.",
                one=in_words(one, "test"),
                short=asked.short,
            ),
            remedy=tr("Leave it to the code, and test it."),
            citations=(COMMON_PRACTICE,),
        )
    if record.source == "certificate":
        yield Finding(
            rule="record.certificate",
            verdict="undecided",
            obligation="recommendation",
            path="source",
            title=tr("From a certificate"),
            message=tr(
                "Entered from a certificate without a run log: ranges rest on the values printed there"
            )
            + (f" ({record.certificate})." if record.certificate else "."),
            remedy="" if record.certificate else tr("Name the certificate."),
            citations=(COMMON_PRACTICE,),
        )
    code = record.procedure.code
    tested_to = record.tested_to or (code.id if code else None)
    if tested_to and tested_to != asked.code.id:
        edition = edition_of(tested_to)
        tested = edition.short if edition else tested_to
        said, citation = asked.edition.earlier_records(tested_to) or ("", COMMON_PRACTICE)
        yield Finding(
            rule="record.edition",
            verdict="undecided",
            path="tested_to",
            title=tr("Tested to {tested}", tested=tested),
            message=tr(
                "Tested to {tested}, asked under {short}: tests that this edition asks in "
                "addition are added before new ranges are claimed{value}{said}.",
                tested=tested,
                short=asked.short,
                value=said and "; ",
                said=said,
            ),
            remedy=tr("Compare the test plan with the tests that were made."),
            citations=(citation,),
        )


def heat_rule_of(record: QualificationRecord) -> HeatRule:
    """How the record's own code counts heat input."""
    return heat_rule(record.procedure)
