"""Many joints against many records: the same comparison as ``covers``, asked once for each distinct fact."""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass, fields
from operator import attrgetter
from typing import Any

from welding.coverage.covers import CoverVerdict, required_of
from welding.coverage.record import InForce, in_force, judge, ranges_of
from welding.documents.joint_list import JointToWeld
from welding.documents.record import QualificationRecord
from welding.qualification.compare import JOINT_VARIABLES, Rules, metal_sides, verdict_on
from welding.qualification.compare_passes import PASS_VARIABLES
from welding.qualification.items import QualifiedRange, RangeItem
from welding.qualification.needs import Needs, specified_impact
from welding.qualification.required_scope import RequiredScope
from welding.testing.overall import TestReport

_ORDER = ("weld_kinds", "base_metals", "positions", "progression", "outside_diameter_mm")
_WORST: dict[str, int] = {"complies": 0, "not_applicable": 0, "undecided": 1, "violates": 2}
_BLOCKED = 2
_VERDICTS: tuple[CoverVerdict, ...] = ("covered", "open", "blocked")


@dataclass(frozen=True, slots=True)
class Cell:
    """How a record stands to a joint: the verdict, and the variables that block or are open."""

    verdict: CoverVerdict
    variables: tuple[str, ...]


def _preparation(required: RequiredScope) -> Hashable:
    joint = required.procedure.joint
    return joint and (joint.kind, joint.weld, joint.preparation, joint.backing, joint.back_gouge, joint.sides)


def _details(required: RequiredScope) -> Hashable:
    joint = required.procedure.joint
    return joint and (joint.sides, joint.backing, joint.back_gouge, joint.weld)


def _weld(required: RequiredScope) -> Hashable:
    return required.procedure.joint and required.procedure.joint.weld


def _detailed(required: RequiredScope) -> Hashable:
    """What makes a groove a prequalified detail; without a preparation it is none, whatever its thickness."""
    joint = required.procedure.joint
    if joint is None or joint.preparation is None:
        return None
    return _preparation(required), required.thicknesses_mm, required.procedure.positions


FACTS_ASKED: dict[str, Callable[[RequiredScope], Hashable]] = {
    "parent_thickness_mm": lambda d: (d.thicknesses_mm, d.thickness_mm, _weld(d)),
    "deposited_thickness_mm": lambda d: (
        len(d.processes) == 1 and (d.processes, d.thickness_mm, d.groove_depth_mm)
    ),
    "groove_depth_mm": lambda d: (_preparation(d), d.thickness_mm),
    "partial_weld_size_mm": lambda d: (
        _weld(d) == "pjp-groove" and (d.procedure.joint and d.procedure.joint.throat_mm, _detailed(d))
    ),
    "throat_mm": lambda d: (d.weld, d.throat_mm),
    "fillet_size_mm": lambda d: (d.weld, d.leg_mm),
    "weld_kinds": lambda d: d.procedure.joint and (d.procedure.joint.kind, d.procedure.joint.weld),
    "positions": lambda d: (d.procedure.positions, d.progressions, d.weld),
    "progression": lambda d: (d.procedure.positions, d.progressions),
    "outside_diameter_mm": lambda d: (d.outside_diameter_mm, _details(d), d.procedure.positions, _weld(d)),
    "branch_angle_deg": lambda d: (
        d.procedure.joint and (d.procedure.joint.kind, d.procedure.joint.branch_angle_deg)
    ),
    "sides": _details,
    "backing": lambda d: (_details(d), _detailed(d)),
    "back_gouge": lambda d: (_details(d), _detailed(d)),
    "groove": lambda d: (_preparation(d), d.thicknesses_mm, d.procedure.positions),
    "groove_angle_deg": lambda d: (_preparation(d), d.thicknesses_mm, d.procedure.positions),
    "root_gap_mm": lambda d: (_preparation(d), d.thicknesses_mm, d.procedure.positions),
    "root_face_mm": lambda d: (_preparation(d), d.thicknesses_mm, d.procedure.positions),
    "pwht": lambda d: d.heat_treated,
    "impact_temperature_c": lambda d: (
        d.procedure.requirements,
        tuple(specified_impact(m) for m in d.metals),
    ),
}
"""On which facts of a joint each answer rests; none where the joint's welding decides, which is open."""


class _Features:
    """Facts of joints as small numbers, the same fact always the same number."""

    def __init__(self, rules: Rules) -> None:
        self._rules = rules
        self._known: dict[tuple[str, Hashable], int] = {}
        self.sets: dict[tuple[str, ...], int] = {}

    def of(self, required: RequiredScope) -> _Facts:
        """The numbers of a joint's facts."""
        facts: dict[str, Hashable] = {name: of(required) for name, of in FACTS_ASKED.items()}
        facts["base_metals"] = tuple(metal_sides(required, self._rules)) if len(required.metals) == 2 else ()
        known = self._known
        numbers = {name: known.setdefault((name, fact), len(known)) for name, fact in facts.items()}
        return _Facts(required, numbers, {})


@dataclass(slots=True)
class _Facts:
    """A joint with the numbers of its facts, and their combinations by sets of variables."""

    required: RequiredScope
    numbers: dict[str, int]
    combined: dict[int, tuple[int, ...]]

    def of(self, which: int, variables: tuple[str, ...]) -> tuple[int, ...]:
        """The combination of facts of a set of variables, put together once."""
        found = self.combined.get(which)
        if found is None:
            found = self.combined[which] = tuple(self.numbers.get(name, -1) for name in variables)
        return found


_THICKNESS: tuple[int, tuple[str, ...]] = (2, ("parent_thickness_mm",))


_Answer = tuple[int, tuple[str, ...]]


decides = attrgetter(
    *(
        one.name
        for one in fields(RangeItem)
        if one.name not in ("rule", "reason", "tested", "tested_passes", "unchecked", "words")
    )
)
"""What of an item decides its verdict on a joint: items alike in it say the same."""


class _Shared:
    """Answers that lines of several records share: what asks the same is asked once."""

    def __init__(self) -> None:
        self._items: dict[Any, tuple[RangeItem, dict[int, int]]] = {}
        self._lines: dict[tuple[int, ...], dict[tuple[int, ...], _Answer]] = {}

    def item(self, item: RangeItem) -> tuple[RangeItem, dict[int, int]]:
        """An item, and its answers by the number of the fact; what was tested and why decide nothing here."""
        return self._items.setdefault(decides(item), (item, {}))

    def line(self, items: Sequence[tuple[RangeItem, dict[int, int]]]) -> dict[tuple[int, ...], _Answer]:
        """The answers of the same items in the same order, by the combination of facts."""
        return self._lines.setdefault(tuple(id(answers) for _, answers in items), {})


def _ends(item: RangeItem) -> tuple[float, float]:
    """Ends of a span with the slack that ``RangeItem.holds`` gives them."""
    least = -math.inf if item.min is None else item.min - 1e-9 * max(1.0, item.min)
    return least, math.inf if item.max is None else item.max + 1e-9 * max(1.0, item.max)


class _Compiled:
    """One line of a range: its items that concern a joint, with the answers it has given to facts."""

    def __init__(
        self,
        items: Sequence[RangeItem],
        asked: InForce,
        needs: Needs,
        sets: dict[tuple[str, ...], int],
        shared: _Shared,
    ) -> None:
        concerned = [one for one in items if one.variable in JOINT_VARIABLES and one.kind != "any"]
        spans = [
            one
            for one in concerned
            if one.variable == "parent_thickness_mm" and one.kind == "span" and not one.min_open
        ]
        self._limits = [(one.member, one.weld, *_ends(one)) for one in spans]
        others = [one for one in concerned if one not in spans]
        others.sort(key=lambda one: _ORDER.index(one.variable) if one.variable in _ORDER else len(_ORDER))
        self._items = [shared.item(one) for one in others]
        self._variables = tuple(dict.fromkeys(one.variable for one in others))
        self._which = sets.setdefault(self._variables, len(sets))
        self._answers = shared.line(self._items)
        self._welded = [one for one in items if one.variable == "processes"]
        self._processes: dict[tuple[str, ...], int] = {}
        self._rules, self._needs = asked.edition.qualification.rules, needs

    def ask(self, facts: _Facts) -> _Answer:
        """Worst verdict (0 covered, 1 open, 2 blocked), and the variables that have it."""
        members = facts.required.members_asked
        # Nearly every joint has a thickness of its own: remembering answers would not help here.
        for member, weld, least, most in self._limits:
            if weld is not None and not facts.required.is_of(weld):
                continue
            for index, t in members:
                if (t < least or t > most) and member in (None, index + 1):
                    return _THICKNESS
        welded = self._of_processes(facts.required) if facts.required.processes else 0
        if welded == _BLOCKED:
            return welded, ("processes",)
        key = facts.of(self._which, self._variables)
        answer = self._answers.get(key)
        if answer is None:
            answer = self._answers[key] = self._judge(facts)
        if answer[0] == _BLOCKED:
            return answer
        lacking = ["parent_thickness_mm"] if not members and self._limits else []
        lacking += ["processes"] if welded else []
        return (1, (*lacking, *answer[1])) if lacking else answer

    def _of_processes(self, required: RequiredScope) -> int:
        """Worst verdict on the process that a joint names: a record of another one proves nothing for it."""
        found = self._processes.get(required.processes)
        if found is None:
            said = PASS_VARIABLES["processes"](self._welded, required)
            found = self._processes[required.processes] = max(
                (_WORST[one.verdict] for one in said), default=_BLOCKED
            )
        return found

    def _judge(self, facts: _Facts) -> _Answer:
        found = []
        for item, answers in self._items:
            fact = facts.numbers.get(item.variable, -1)
            verdict = answers.get(fact)
            if verdict is None:
                verdict = answers[fact] = _WORST[verdict_on(item, facts.required, self._rules, self._needs)]
            if verdict == 2:
                return 2, (item.variable,)  # the first blocking variable is enough for a matrix
            if verdict == 1:
                found.append(item.variable)
        return (1 if found else 0), tuple(found)


def coverage_matrix(
    records: Sequence[QualificationRecord],
    joints: Sequence[JointToWeld],
    code_id: str | None = None,
    level: int | None = None,
    reports: Sequence[TestReport] | None = None,
) -> list[list[Cell]]:
    """A row for each joint with a cell for each record.

    Args:
        records: Qualification records.
        joints: Joints; what they do not state is left to the procedure.
        code_id: Code, where it is not the joints' own (or the first record's).
        level: Level, likewise.
        reports: The verdicts on the records' tests, where these are known; of a coupon that is still to be
            welded, those that it would have.

    Returns:
        What ``covers`` says of each record by itself, with the first variable that blocks.
    """
    if not joints:
        return []
    own = joints[0].code or (records[0].procedure.code if records else None)
    asked = in_force(own, code_id, level)
    compiled: dict[tuple[bool, bool], list[tuple[int, list[_Compiled]]]] = {}
    reports = reports or [judge(one, asked.code.id, asked.level or None) for one in records]
    numbered = _Features(asked.edition.qualification.rules)
    table: list[list[Cell]] = []
    seen: dict[_Answer, Cell] = {}
    for joint in joints:
        required = required_of(joint, asked)
        needs = asked.edition.qualification.needs(required.need_facts, asked.level)
        kind = (needs.impact, needs.hardness)
        if kind not in compiled:
            found = ranges_of(records, asked, needs, reports, joint_alone=True)
            shared = _Shared()  # needs differ from kind to kind, and so may the answers
            compiled[kind] = [
                (
                    of_tests(one),
                    [_Compiled(items, asked, needs, numbered.sets, shared) for _, items in one.lines()],
                )
                for one in found
            ]
        facts = numbered.of(required)
        row: list[Cell] = []
        for tests, lines in compiled[kind]:
            answer = (2, ("tests",)) if tests == 2 else lines[0].ask(facts)
            for other in lines[1:]:
                answer = min(answer, other.ask(facts))
            if tests > answer[0]:
                answer = (tests, ("tests",))
            elif needs.open and answer[0] == 0:
                answer = (1, ("requirements",))
            cell = seen.get(answer)
            if cell is None:
                cell = seen[answer] = Cell(_VERDICTS[answer[0]], answer[1])
            row.append(cell)
        table.append(row)
    return table


def of_tests(found: QualifiedRange) -> int:
    """0 where the tests are accepted, 1 while they are open or of another edition, 2 where they failed."""
    of_record = ("record.valid", "record.edition")
    return max((_WORST[one.verdict] for one in found.findings if one.rule in of_record), default=0)
