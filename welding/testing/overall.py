"""The verdict on a coupon: each specimen, retests in place of failures, what the plan still asks."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace

from welding.citation import COMMON_PRACTICE, Citation
from welding.documents.record import ImpactTest, QualificationRecord, Test
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import RuleRef
from welding.qualification.notch import Notch, notch_words, notches
from welding.testing.plan import BEFORE_CUTTING, PlanItem, TestPlan
from welding.testing.verdict import OUTCOMES, Judged, Point, SpecimenVerdict, TestVerdict, verdict_of

JudgeOne = Callable[[Test], Judged]


@dataclass(frozen=True, slots=True, kw_only=True)
class RetestRule:
    """What a failed specimen allows.

    Attributes:
        more: How many specimens stand in for it, all accepted.
        words: What may be repeated and from where.
        rule: Where it stands.
        most: How many of a kind may fail at first; ``None``: all but one, and one where there is only one.
    """

    more: int
    words: str
    rule: RuleRef
    most: int | None = None


RetestOf = Callable[[Test], RetestRule]


@dataclass(frozen=True, slots=True, kw_only=True)
class Retest:
    """A failure that is open, repeated or final.

    Attributes:
        specimen: The failed specimen.
        kind: Its kind.
        needed: How many stand in for it.
        made: How many were made and accepted.
        state: ``open``, ``passed`` or ``failed``.
        words: What may be repeated and from where.
        clause: Where that stands.
    """

    specimen: str
    kind: str
    needed: int
    made: int
    state: str
    words: str
    clause: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TestReport:
    """All verdicts.

    Attributes:
        verdict: accepted, rejected, or incomplete while anything is missing.
        specimens: Verdict on each specimen, in the order of the record.
        missing: What the overall verdict waits for.
        retests: Failures and what became of them.
        findings: Oddities: wrong kinds, dates before welding.
        plan: The plan that was asked.
    """

    __test__ = False  # no test of ours, whatever its name says

    verdict: TestVerdict
    specimens: tuple[SpecimenVerdict, ...]
    missing: tuple[str, ...]
    retests: tuple[Retest, ...]
    findings: tuple[Finding, ...]
    plan: TestPlan


def report(coupon: TestCoupon, plan: TestPlan, judge: JudgeOne, retest_of: RetestOf) -> TestReport:
    """Judge every specimen of a record by its plan.

    Args:
        coupon: The coupon.
        plan: What is asked.
        judge: The code's judging of one specimen.
        retest_of: The code's retest rule for one specimen.
    """
    record = coupon.record
    kinds = plan.kinds()
    verdicts = [_one(test, judge, coupon, kinds) for test in record.tests]
    by_mark = {one.specimen: one for one in verdicts}
    retests = _retests(record, by_mark, retest_of)
    repeated = {one.specimen for one in retests if one.state == "passed"}
    verdicts = [
        replace(one, state="repeated") if one.specimen in repeated and one.state == "counts" else one
        for one in verdicts
    ]
    missing = [
        *_missing_of_specimens(verdicts),
        *_missing_of_plan(plan, verdicts, coupon),
        *(tr("{fact} to finish the test plan", fact=fact) for fact in plan.open),
    ]
    missing += [
        tr(
            "{needed} more {kind} for {specimen}",
            needed=one.needed - one.made,
            kind=one.kind,
            specimen=one.specimen,
        )
        for one in retests
        if one.state == "open" and _begun(one, record)
    ]
    failed = any(one.state == "failed" for one in retests) or any(
        one.state == "open" and not _begun(one, record) for one in retests
    )
    verdict: TestVerdict = "rejected" if failed else "incomplete" if missing else "accepted"
    return TestReport(
        verdict=verdict,
        specimens=tuple(verdicts),
        missing=tuple(dict.fromkeys(missing)),
        retests=retests,
        findings=tuple(_findings(record, kinds)),
        plan=plan,
    )


def _begun(one: Retest, record: QualificationRecord) -> bool:
    return any(test.retest_of == one.specimen and test.discarded is None for test in record.tests)


def _one(test: Test, judge: JudgeOne, coupon: TestCoupon, kinds: frozenset[str]) -> SpecimenVerdict:
    found = verdict_of(test, test.kind, _certified(test, judge, coupon))
    if test.discarded is not None:
        return replace(found, state="discarded")
    return found if test.kind in kinds else replace(found, state="extra")


def _certified(test: Test, judge: JudgeOne, coupon: TestCoupon) -> Judged:
    """What an old certificate states stands for readings that it does not print."""
    judged = judge(test)
    if test.certified is None or not coupon.from_certificate:
        return judged
    broken = [p for p in judged.points if p.ok is False]
    if broken or test.certified == "rejected":
        return Judged(
            points=(*broken, *([_stated(judged, "rejected")] if test.certified == "rejected" else []))
        )
    if all(p.ok for p in judged.points) and not judged.lacking:
        return judged
    return Judged(points=(*(p for p in judged.points if p.ok), _stated(judged, "accepted")))


def _stated(judged: Judged, outcome: str) -> Point:
    rule = judged.points[0].rule
    return Point(outcome == "accepted", tr("as the certificate states"), tr(OUTCOMES[outcome]), rule)


def _retests(
    record: QualificationRecord, verdicts: dict[str, SpecimenVerdict], retest_of: RetestOf
) -> tuple[Retest, ...]:
    found = []
    tests = {test.specimen: test for test in record.tests}
    first = [one for one in verdicts.values() if one.state == "counts" and one.retest_of is None]
    for mark, verdict in verdicts.items():
        if verdict.state != "counts" or verdict.verdict != "rejected":
            continue
        test = tests[mark]
        rule = retest_of(test)
        again = [
            verdicts[one.specimen]
            for one in record.tests
            if one.retest_of == mark and one.discarded is None and one.kind == test.kind
        ]
        made = sum(one.verdict == "accepted" for one in again)
        of_kind = [one for one in first if one.kind == test.kind]
        most = rule.most if rule.most is not None else max(len(of_kind) - 1, 1)
        many = sum(one.verdict == "rejected" for one in of_kind) > most
        if test.retest_of is not None or many:
            state = "failed"  # a retest has no retest of its own, and the rule is for single failures
        elif any(one.verdict == "rejected" for one in again):
            state = "failed"
        else:
            state = "passed" if made >= rule.more else "open"
        found.append(
            Retest(
                specimen=mark,
                kind=test.kind,
                needed=rule.more,
                made=made,
                state=state,
                words=tr(
                    "no retest: too many of this kind failed ({words} where fewer fail)", words=rule.words
                )
                if many
                else rule.words,
                clause=rule.rule.clause,
            )
        )
    return tuple(found)


def _missing_of_specimens(verdicts: Iterable[SpecimenVerdict]) -> list[str]:
    return [
        f"{one.specimen}: {what}"
        for one in verdicts
        if one.state == "counts" and one.verdict != "rejected"
        for what in one.missing
    ]


def _notches(item: PlanItem, made: list[tuple[Notch, ...]]) -> Iterator[str]:
    """Impact sets that lie in the wrong place: two in the weld are none in the heat-affected zone.

    In a coupon of several processes a set in the deposit of one shows nothing of another; a set whose
    specimens hold the deposit of two stands for both.
    """
    shown = [notch for one in made for notch in one]
    for notch in dict.fromkeys(item.notches):
        same = [one for one in item.notches if one.place == notch.place]
        if notch.process is None:
            # Of any process: all sets of this place together.
            short = sum(one.place == notch.place for one in shown) < len(same)
        else:
            short = notch not in shown
        if short:
            yield tr("an impact set with the notch in the {notch_words}", notch_words=notch_words(notch))


def _impact_sets(verdicts: list[SpecimenVerdict], coupon: TestCoupon) -> list[tuple[Notch, ...]]:
    tests = {test.specimen: test for test in coupon.record.tests if isinstance(test, ImpactTest)}
    return [
        notches(tests[one.specimen], coupon.processes)
        for one in verdicts
        if one.kind == "impact" and one.state in ("counts", "repeated") and one.retest_of is None
    ]


def _missing_of_plan(plan: TestPlan, verdicts: list[SpecimenVerdict], coupon: TestCoupon) -> list[str]:
    """Kinds of which too few were entered; of a choice, the option that lacks least."""
    # Failures count towards the number: their retests are asked apart.
    made: dict[str, int] = {}
    for one in verdicts:
        if one.state in ("counts", "repeated") and one.retest_of is None:
            made[one.kind] = made.get(one.kind, 0) + 1
    sets = _impact_sets(verdicts, coupon)
    made["impact"] = sum(len(one) for one in sets)
    missing = [text for item in plan.items if not item.choice if (text := _short(item, made))]
    for item in plan.items:
        if item.kind == "impact" and made["impact"] >= item.count:  # else told by the number alone
            missing += _notches(item, sets)
    for choice in dict.fromkeys(item.choice for item in plan.items if item.choice):
        options: dict[int, list[PlanItem]] = {}
        for item in plan.items:
            if item.choice == choice:
                options.setdefault(item.option, []).append(item)
        lacks = [[text for item in items if (text := _short(item, made))] for items in options.values()]
        if not any(not one for one in lacks):
            begun = [
                (sum(made.get(item.kind, 0) for item in items), -number) for number, items in options.items()
            ]
            best = max(range(len(lacks)), key=lambda index: begun[index])
            missing += lacks[best]
    return missing


def _short(item: PlanItem, made: dict[str, int]) -> str:
    less = item.count - made.get(item.kind, 0)
    if less <= 0:
        return ""
    words = in_words(item.kind, "test")
    if item.kind in BEFORE_CUTTING or (item.count == 1 and less == 1):
        return words
    return tr(
        "{less} more {words}{value} ({count} are asked)",
        less=less,
        words=words,
        value=tr(" sets") if item.kind == "impact" else "",
        count=item.count,
    )


def _findings(record: QualificationRecord, kinds: frozenset[str]) -> Iterable[Finding]:
    welded_on = record.coupon.welded_on
    for index, test in enumerate(record.tests):
        path = f"tests.{index}"
        if test.kind not in kinds and test.discarded is None:
            yield _note(
                "tests.kind",
                f"{path}.kind",
                tr("{specimen} is not asked of this coupon", specimen=test.specimen),
                tr(
                    "A {replace} is no test of this coupon under this code; it is kept and does not count.",
                    replace=in_words(test.kind, "test"),
                ),
                tr("Choose the kind that the plan asks for, or leave it as additional evidence."),
            )
        if welded_on and test.date and test.date < welded_on:
            yield Finding(
                rule="tests.date",
                verdict="violates",
                path=f"{path}.date",
                title=tr("{specimen} is dated before welding", specimen=test.specimen),
                message=tr(
                    "The test is dated {date}; the coupon was welded on {welded_on}.",
                    date=test.date,
                    welded_on=welded_on,
                ),
                actual=test.date,
                limit=tr("{welded_on} or later", welded_on=welded_on),
                remedy=tr("Correct one of the dates."),
                citations=(COMMON_PRACTICE,),
            )
        if test.certified is not None and record.source != "certificate":
            yield _note(
                "tests.certified",
                f"{path}.certified",
                tr("{specimen}: a stated outcome does not count here", specimen=test.specimen),
                tr(
                    "Only an existing PQR or WPQR takes an outcome from its certificate; this one "
                    "goes by its readings."
                ),
                tr("Enter the readings."),
            )


def _note(rule: str, path: str, title: str, message: str, remedy: str) -> Finding:
    return Finding(
        rule=rule,
        verdict="violates",
        obligation="recommendation",
        path=path,
        title=title,
        message=message,
        remedy=remedy,
        citations=(COMMON_PRACTICE,),
    )


def cite(rule: RuleRef) -> Citation:
    """A rule reference as a citation."""
    return Citation(
        document=rule.document,
        edition=rule.edition,
        clause=rule.clause,
        provenance=rule.provenance,
        confidence=rule.confidence,
    )
