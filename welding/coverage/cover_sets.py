"""Which joints of a list each of very many coupons covers: what ``covers`` says, as sets.

The verdict on a joint is the worst over the items of a range, so the joints that a range covers are those
that every one of its items lets through; each item is asked once, whichever coupons share it.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Sequence
from dataclasses import dataclass

from welding.coverage.covers import paired_ranges, required_of
from welding.coverage.matrix import FACTS_ASKED, decides, of_tests
from welding.coverage.record import InForce, ranges_of
from welding.documents.joint_list import JointToWeld
from welding.documents.record import QualificationRecord
from welding.qualification.compare import JOINT_VARIABLES, metal_sides, verdict_on
from welding.qualification.compare_passes import PASS_VARIABLES
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import QualifiedRange, RangeItem
from welding.qualification.needs import Needs
from welding.qualification.required_scope import RequiredScope
from welding.testing.overall import TestReport

OF_POSITION = ("positions", "progression")
"""Variables in which the coupons of a pair may fall short, each by itself."""

Rows = int
"""A set of joints: bit n stands for joint n."""


@dataclass(frozen=True, slots=True)
class CoverSet:
    """What a coupon covers.

    Attributes:
        rows: Joints that it covers by itself.
        but_position: Joints that it would cover if their position were among its own.
    """

    rows: Rows
    but_position: Rows


def members(rows: Rows) -> Iterator[int]:
    """Numbers of the joints in a set, in order.

    Example:
        >>> list(members(0b1010))
        [1, 3]
    """
    while rows:
        last = rows & -rows
        yield last.bit_length() - 1
        rows ^= last


@dataclass(frozen=True, slots=True)
class _Kind:
    """Joints with the same needs, grouped by the facts that an item may ask about."""

    needs: Needs
    rows: Rows
    groups: dict[str, list[tuple[RequiredScope, Rows]]]
    let_through: dict[Hashable, Rows]


class CoverSets:
    """The joints of a list, ready to be held against coupons.

    Args:
        joints: The joints; what they do not state is left to the procedure.
        asked: The code.
    """

    def __init__(self, joints: Sequence[JointToWeld], asked: InForce) -> None:
        self._asked = asked
        self._rules = asked.edition.qualification
        self._required = [required_of(one, asked) for one in joints]
        needs = [self._rules.needs(one.need_facts, asked.level) for one in self._required]
        self._kinds: list[_Kind] = []
        self._kind_of: list[int | None] = [None] * len(joints)
        found: dict[tuple[bool, bool], list[int]] = {}
        for row, one in enumerate(needs):
            # What the requirements of a joint leave open is not covered by any coupon.
            if not one.open:
                found.setdefault((one.impact, one.hardness), []).append(row)
        for number, rows in enumerate(found.values()):
            self._kinds.append(_Kind(needs[rows[0]], _together(rows), self._grouped(rows), {}))
            for row in rows:
                self._kind_of[row] = number

    def _grouped(self, rows: Sequence[int]) -> dict[str, list[tuple[RequiredScope, Rows]]]:
        facts: dict[str, Callable[[RequiredScope], Hashable]] = {
            **FACTS_ASKED,
            "base_metals": self._metals,
            "processes": lambda one: one.processes,
            # What no joint of a list states: one answer for all.
            "": lambda _: None,
        }
        found: dict[str, list[tuple[RequiredScope, Rows]]] = {}
        for variable, of in facts.items():
            alike: dict[Hashable, list[int]] = {}
            for row in rows:
                alike.setdefault(of(self._required[row]), []).append(row)
            found[variable] = [(self._required[some[0]], _together(some)) for some in alike.values()]
        return found

    def _metals(self, one: RequiredScope) -> Hashable:
        return tuple(metal_sides(one, self._rules.rules)) if len(one.metals) == 2 else ()

    def of(self, record: QualificationRecord, report: TestReport) -> CoverSet:
        """What a coupon with these tests covers."""
        rows = but_position = 0
        for kind in self._kinds:
            span = self._range(record, report, kind)
            if of_tests(span):
                continue
            for _, items in span.lines():
                most = self._held(kind, (one for one in items if one.variable not in OF_POSITION))
                but_position |= most
                # Asked only where something is left: most coupons are of another metal or shape.
                rows |= most and most & self._held(
                    kind, (one for one in items if one.variable in OF_POSITION)
                )
        return CoverSet(rows, but_position)

    def _range(self, record: QualificationRecord, report: TestReport, kind: _Kind) -> QualifiedRange:
        return ranges_of([record], self._asked, kind.needs, [report], joint_alone=True)[0]

    def of_pair(self, pair: Sequence[tuple[QualificationRecord, TestReport, CoverSet]]) -> Rows:
        """Joints that two coupons cover which the code lets stand together for the positions in between."""
        (first, _, one), (second, _, other) = pair
        both = one.but_position & other.but_position & ~(one.rows | other.rows)
        found = 0
        for kind in self._kinds if both else ():
            positions = self._rules.both_positions(
                TestCoupon(first), TestCoupon(second), self._asked.level, kind.needs
            )
            if not positions or not both & kind.rows:
                continue
            held = both & kind.rows
            ranges = [self._range(record, report, kind) for record, report, _ in pair]
            for span in paired_ranges(ranges, positions, self._asked):
                held &= self._of_lines(kind, span)
            found |= held
        return found

    def _of_lines(self, kind: _Kind, span: QualifiedRange) -> Rows:
        rows = 0
        for _, items in span.lines():
            rows |= self._held(kind, items)
        return rows

    def _held(self, kind: _Kind, items: Iterator[RangeItem] | Sequence[RangeItem]) -> Rows:
        """Joints that every item lets through."""
        rows = kind.rows
        welded = []
        for item in items:
            if item.variable == "processes":
                welded.append(item)
            elif item.variable in JOINT_VARIABLES and item.kind != "any":
                rows &= self._through(kind, item)
            if not rows:
                return 0
        return rows & self._of_processes(kind, welded) if welded else rows

    def _through(self, kind: _Kind, item: RangeItem) -> Rows:
        key = decides(item)
        found = kind.let_through.get(key)
        if found is None:
            found = 0
            for required, rows in kind.groups.get(item.variable) or kind.groups[""]:
                if verdict_on(item, required, self._rules.rules, kind.needs) in (
                    "complies",
                    "not_applicable",
                ):
                    found |= rows
            kind.let_through[key] = found
        return found

    def _of_processes(self, kind: _Kind, items: Sequence[RangeItem]) -> Rows:
        """A joint that names no process leaves it to the coupon."""
        key = ("processes", *(decides(one) for one in items))
        found = kind.let_through.get(key)
        if found is None:
            found = 0
            for required, rows in kind.groups["processes"]:
                said = list(PASS_VARIABLES["processes"](list(items), required)) if required.processes else []
                if not required.processes or (
                    said and all(one.verdict in ("complies", "not_applicable") for one in said)
                ):
                    found |= rows
            kind.let_through[key] = found
        return found

    def blocking(self, row: int, record: QualificationRecord, report: TestReport) -> int:
        """How many items of a coupon's range do not let a joint through.

        A joint whose requirements are open is let through by none: every coupon is as near as another.
        """
        number = self._kind_of[row]
        if number is None:
            return 1
        kind, bit = self._kinds[number], 1 << row
        span = self._range(record, report, kind)
        return min(sum(not self._held(kind, (item,)) & bit for item in items) for _, items in span.lines())


def _together(rows: Sequence[int]) -> Rows:
    found = 0
    for row in rows:
        found |= 1 << row
    return found
