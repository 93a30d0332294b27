"""Does it cover? Records one by one, and together only where the code says so."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Literal

from welding.citation import COMMON_PRACTICE
from welding.codebook.catalogue import by_code
from welding.coverage.record import InForce, in_force, ranges_of
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Procedure
from welding.documents.record import QualificationRecord
from welding.finding import Finding
from welding.language import tr
from welding.qualification.compare import compare
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import QualifiedRange, RangeItem
from welding.qualification.needs import Needs
from welding.qualification.required_scope import RequiredScope, required_scope_of
from welding.testing.overall import TestReport

CoverVerdict = Literal["covered", "blocked", "open"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RecordCoverage:
    """How one record stands to what is required.

    Attributes:
        record: Its number.
        verdict: covered, blocked by a variable, or open while a fact is missing.
        findings: Every variable.
    """

    record: str
    verdict: CoverVerdict
    findings: tuple[Finding, ...]

    @property
    def blocking(self) -> tuple[Finding, ...]:
        """What blocks or is open, what blocks first."""
        order = {"violates": 0, "undecided": 1}
        return tuple(sorted((f for f in self.findings if f.verdict in order), key=lambda f: order[f.verdict]))


@dataclass(frozen=True, slots=True, kw_only=True)
class Coverage:
    """The answer over all records.

    Attributes:
        covered: Whether it is covered, by one record or by a combination that the code names.
        verdict: covered, blocked or open.
        by: Numbers of the records that cover it.
        combination: Why these stand together; empty for a single record.
        findings: What blocks, in the record that is nearest; every variable where it is covered.
        records: Each record by itself.
    """

    covered: bool
    verdict: CoverVerdict
    by: tuple[str, ...]
    combination: str
    findings: tuple[Finding, ...]
    records: tuple[RecordCoverage, ...]


@by_code
def covers(
    records: Sequence[QualificationRecord],
    target: Procedure | JointToWeld,
    code_id: str | None = None,
    level: int | None = None,
    reports: Sequence[TestReport | None] | None = None,
) -> Coverage:
    """Whether records cover a procedure or a joint.

    Args:
        records: Qualification records.
        target: A procedure with its passes, or a joint whose welding is still open.
        code_id: Code, where it is not the target's own (or the first record's).
        level: Level, likewise.
        reports: The verdicts on the records' tests, where these are known.

    Raises:
        UnknownEntryError: No such code.
    """
    own = target.code or (records[0].procedure.code if records else None)
    asked = in_force(own, code_id, level)
    required = required_of(target, asked)
    needs = asked.edition.qualification.needs(required.need_facts, asked.level)
    ranges = ranges_of(records, asked, needs, reports)
    each = tuple(_one(found, required, asked, needs) for found in ranges)
    best = min(each, key=_distance, default=None)
    if best is not None and best.verdict == "covered":
        return Coverage(
            covered=True,
            verdict="covered",
            by=(best.record,),
            combination="",
            findings=best.findings,
            records=each,
        )
    together = _combined(records, ranges, each, required, asked, needs)
    if together is not None:
        return replace(together, records=each)
    if best is None:
        return Coverage(
            covered=False,
            verdict="blocked",
            by=(),
            combination="",
            findings=(_nothing(),),
            records=(),
        )
    return Coverage(
        covered=False,
        verdict=best.verdict,
        by=(),
        combination="",
        findings=best.blocking,
        records=each,
    )


def required_of(target: Procedure | JointToWeld, asked: InForce) -> RequiredScope:
    """What is to be covered, under the code that is asked."""
    return required_scope_of(replace(target, code=asked.code), asked.rule)


def _nothing() -> Finding:
    return Finding(
        rule="record.none",
        verdict="violates",
        title=tr("No record"),
        message=tr("No qualification record is offered."),
        remedy=tr("Enter a record, or weld a coupon."),
        citations=(COMMON_PRACTICE,),
    )


def _one(found: QualifiedRange, required: RequiredScope, asked: InForce, needs: Needs) -> RecordCoverage:
    findings = compare(found, required, asked.edition.qualification.rules, needs)
    of_record = ("record.edition",) if found.valid else ("record.valid", "record.edition")
    findings = (*(f for f in found.findings if f.rule in of_record), *findings)
    if needs.open:
        findings = (*findings, _open(needs))
    if required.open_welding and not required.of_a_list:
        findings = (*findings, _no_passes())
    return RecordCoverage(record=found.number, verdict=_verdict(findings), findings=findings)


def _open(needs: Needs) -> Finding:
    return Finding(
        rule="requirements.open",
        verdict="undecided",
        path="requirements",
        title=tr("Requirements are not decided"),
        message=tr(
            "Whether the code asks for impact tests or hardness depends on: {open}.",
            open=", ".join(needs.open),
        ),
        remedy=tr("State it, or state the requirement."),
        citations=(COMMON_PRACTICE,),
    )


def _no_passes() -> Finding:
    return Finding(
        rule="passes.none",
        verdict="undecided",
        path="passes",
        title=tr("No passes are stated"),
        message=tr("A procedure without passes states no process, filler or current to be compared."),
        remedy=tr("Enter the passes."),
        citations=(COMMON_PRACTICE,),
    )


def _verdict(findings: tuple[Finding, ...]) -> CoverVerdict:
    verdicts = {one.verdict for one in findings}
    if "violates" in verdicts:
        return "blocked"
    return "open" if "undecided" in verdicts else "covered"


def _distance(one: RecordCoverage) -> tuple[int, int]:
    return (
        sum(f.verdict == "violates" for f in one.findings),
        sum(f.verdict == "undecided" for f in one.findings),
    )


# --- records that the code lets stand together ----------------------------------------------------


def _combined(
    records: Sequence[QualificationRecord],
    ranges: list[QualifiedRange],
    each: tuple[RecordCoverage, ...],
    required: RequiredScope,
    asked: InForce,
    needs: Needs,
) -> Coverage | None:
    """A combination that the code names: positions or heat inputs in a pair, or a record for each process."""
    for pair in combinations(range(len(records)), 2):
        found = _pair(records, ranges, pair, required, asked, needs)
        if found is not None:
            return found
    if asked.edition.qualification.processes_combine and len(required.processes) > 1:
        return _by_process(ranges, required, asked, needs)
    return None


_MAY_DIFFER = ("range.positions", "range.heat_input_kj_mm", "range.impact_temperature_c", "range.hardness")


def _pair(
    records: Sequence[QualificationRecord],
    ranges: list[QualifiedRange],
    pair: tuple[int, int],
    required: RequiredScope,
    asked: InForce,
    needs: Needs,
) -> Coverage | None:
    """Two coupons that differ in position or heat input alone: everything in between is covered."""
    coupons = [TestCoupon(records[index]) for index in pair]
    positions = asked.edition.qualification.both_positions(coupons[0], coupons[1], asked.level, needs)
    items = [ranges[index] for index in pair]
    if not all(one.valid for one in items):
        return None
    stretched = paired_ranges(items, positions, asked)
    if stretched == items:
        return None
    found = [_one(one, required, asked, needs) for one in stretched]
    if not all(one.verdict == "covered" for one in found):
        return None
    plain = [_one(one, required, asked, needs) for one in items]
    if any(f.rule not in _MAY_DIFFER for one in plain for f in one.blocking):
        return None
    why = tr("a pair of positions") if positions else tr("a pair of high and low heat input")
    return Coverage(
        covered=True,
        verdict="covered",
        by=tuple(one.record for one in found),
        combination=tr("{short} lets {why} stand together", short=asked.short, why=why),
        findings=found[0].findings,
        records=(),
    )


def paired_ranges(
    pair: Sequence[QualifiedRange], positions: tuple[str, ...], asked: InForce
) -> list[QualifiedRange]:
    """The ranges of two coupons with what they have together.

    Args:
        pair: The two ranges.
        positions: The positions that the code lets both stand for.
        asked: The code.
    """
    return [_stretched(one, other, positions, asked) for one, other in (pair, pair[::-1])]


def _stretched(
    one: QualifiedRange, other: QualifiedRange, positions: tuple[str, ...], asked: InForce
) -> QualifiedRange:
    """A range with the positions and the heat input that it has together with another one."""
    return replace(one, items=tuple(_stretch(item, other, positions, asked) for item in one.items))


def _stretch(item: RangeItem, other: QualifiedRange, positions: tuple[str, ...], asked: InForce) -> RangeItem:
    if item.variable == "positions" and item.kind == "set" and positions:
        suits = {"groove": ("G",), "fillet": ("F",)}[item.weld or "groove"]
        kept = tuple(p for p in positions if not p[0].isdigit() or p.endswith(suits) or p == "6GR")
        return replace(item, values=tuple(dict.fromkeys((*item.values, *kept))))
    if item.variable == "heat_input_kj_mm" and item.kind == "span" and asked.edition.levels:
        mates = [o for o in other.of("heat_input_kj_mm") if o.process == item.process and o.kind == "span"]
        if mates:
            lows = [o.min for o in (item, *mates) if o.min is not None]
            highs = [o.max for o in (item, *mates) if o.max is not None]
            return replace(
                item,
                min=min(lows) if lows and item.min is not None else item.min,
                max=max(highs) if highs and item.max is not None else item.max,
            )
    return item


def _by_process(
    ranges: list[QualifiedRange], required: RequiredScope, asked: InForce, needs: Needs
) -> Coverage | None:
    """One record for each process of the procedure; each has to cover the passes of its process."""
    if required.open_welding:
        return None
    by: list[str] = []
    findings: list[Finding] = []
    for process in required.processes:
        part = _part(required, process)
        options = [_one(one, part, asked, needs) for one in ranges]
        covering = next((one for one in options if one.verdict == "covered"), None)
        if covering is None:
            return None
        by.append(covering.record)
        findings += covering.findings
    if len(set(by)) < 2:
        return None
    return Coverage(
        covered=True,
        verdict="covered",
        by=tuple(dict.fromkeys(by)),
        combination=tr("{short} lets one record for each process stand together", short=asked.short),
        findings=tuple(findings),
        records=(),
    )


def _part(required: RequiredScope, process: str) -> RequiredScope:
    """The same joint with the passes of one process, numbered anew."""
    passes = tuple(
        replace(one, number=number)
        for number, one in enumerate(
            (one for one in required.procedure.passes if one.process == process), start=1
        )
    )
    return RequiredScope(
        replace(required.procedure, passes=passes),
        required.rule,
        joint_progression=required.joint_progression,
        pwht=required.pwht,
        named=required.named,
    )
