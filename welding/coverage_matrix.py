"""Many joints against many records: the same comparison as ``covers``, asked once for each distinct fact."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass

from welding.covering import CoverVerdict, demand_for
from welding.documents.joint_list import JointToWeld
from welding.documents.record import QualificationRecord
from welding.qualification.compare import JOINT_VARIABLES, Rules, metal_sides, thicknesses_asked, verdict_on
from welding.qualification.demand import Demand
from welding.qualification.items import QualifiedRange, RangeItem
from welding.qualification.needs import Needs, specified_impact
from welding.qualify import InForce, in_force, judge, ranges_of

_ORDER = ("weld_kinds", "base_metals", "positions", "progression", "outside_diameter_mm")
_WORST: dict[str, int] = {"complies": 0, "not_applicable": 0, "undecided": 1, "violates": 2}
_VERDICTS: tuple[CoverVerdict, ...] = ("covered", "open", "blocked")


@dataclass(frozen=True, slots=True)
class Cell:
    """How a record stands to a joint: the verdict, and the variables that block or are open."""

    verdict: CoverVerdict
    variables: tuple[str, ...]


def _preparation(demand: Demand) -> Hashable:
    joint = demand.procedure.joint
    return joint and (joint.kind, joint.weld, joint.preparation, joint.backing, joint.back_gouge, joint.sides)


def _details(demand: Demand) -> Hashable:
    joint = demand.procedure.joint
    return joint and (joint.sides, joint.backing, joint.back_gouge, joint.weld)


_FEATURES: dict[str, Callable[[Demand], Hashable]] = {
    "parent_thickness_mm": lambda d: (d.thicknesses_mm, d.thickness_mm, d.weld),
    "deposited_thickness_mm": lambda d: (
        len(d.processes) == 1 and (d.processes, d.thickness_mm, d.groove_depth_mm)
    ),
    "groove_depth_mm": lambda d: (_preparation(d), d.thickness_mm),
    "throat_mm": lambda d: (d.weld, d.throat_mm),
    "fillet_size_mm": lambda d: (d.weld, d.leg_mm),
    "weld_kinds": lambda d: d.procedure.joint and (d.procedure.joint.kind, d.procedure.joint.weld),
    "positions": lambda d: (d.procedure.positions, d.progressions, d.weld),
    "progression": lambda d: (d.procedure.positions, d.progressions),
    "outside_diameter_mm": lambda d: (d.outside_diameter_mm, _details(d), d.procedure.positions),
    "branch_angle_deg": lambda d: (
        d.procedure.joint and (d.procedure.joint.kind, d.procedure.joint.branch_angle_deg)
    ),
    "sides": _details,
    "backing": _details,
    "back_gouge": _details,
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

    def of(self, demand: Demand) -> dict[str, int]:
        """The number of each variable's facts."""
        facts: dict[str, Hashable] = {name: of(demand) for name, of in _FEATURES.items()}
        facts["base_metals"] = tuple(metal_sides(demand, self._rules)) if len(demand.metals) == 2 else ()
        known = self._known
        return {name: known.setdefault((name, fact), len(known)) for name, fact in facts.items()}


class _Compiled:
    """One line of a range: its items that concern a joint, each with the answers it has given."""

    def __init__(self, items: Sequence[RangeItem], asked: InForce, needs: Needs) -> None:
        concerned = [one for one in items if one.variable in JOINT_VARIABLES and one.kind != "any"]
        self._spans = [
            one for one in concerned if one.variable == "parent_thickness_mm" and one.kind == "span"
        ]
        others = [one for one in concerned if one not in self._spans]
        others.sort(key=lambda one: _ORDER.index(one.variable) if one.variable in _ORDER else len(_ORDER))
        self._items: list[tuple[str, RangeItem, dict[int, int]]] = [(one.variable, one, {}) for one in others]
        self._rules, self._needs = asked.edition.qualification.rules, needs

    def ask(self, demand: Demand, features: dict[str, int]) -> tuple[int, tuple[str, ...]]:
        """Worst verdict (0 covered, 1 open, 2 blocked), and the variables that have it."""
        worst, found = 0, []
        # Nearly every joint has a thickness of its own: remembering answers would not help here.
        for item in self._spans:
            asked = thicknesses_asked(item, demand)
            if not asked:
                worst, found = 1, ["parent_thickness_mm"]
            for _, t in asked:
                if not item.holds(t):
                    return 2, ("parent_thickness_mm",)
        for variable, item, answers in self._items:
            key = features.get(variable, -1)
            answer = answers.get(key)
            if answer is None:
                answer = answers[key] = _WORST[verdict_on(item, demand, self._rules, self._needs)]
            if answer == 2:
                return 2, (variable,)  # the first blocking variable is enough for a matrix
            if answer:
                worst = 1
                found.append(variable)
        return worst, tuple(found)


def coverage_matrix(
    records: Sequence[QualificationRecord],
    joints: Sequence[JointToWeld],
    code_id: str | None = None,
    level: int | None = None,
) -> list[list[Cell]]:
    """A row for each joint with a cell for each record.

    Args:
        records: Qualification records.
        joints: Joints; what they do not state is left to the procedure.
        code_id: Code, where it is not the joints' own (or the first record's).
        level: Level, likewise.

    Returns:
        What ``covers`` says of each record by itself, with the first variable that blocks.
    """
    if not joints:
        return []
    own = joints[0].code or (records[0].procedure.code if records else None)
    asked = in_force(own, code_id, level)
    compiled: dict[tuple[bool, bool], list[tuple[int, list[_Compiled]]]] = {}
    reports = [judge(one, asked.code.id, asked.level or None) for one in records]
    numbered = _Features(asked.edition.qualification.rules)
    table: list[list[Cell]] = []
    seen: dict[tuple[int, tuple[str, ...]], Cell] = {}
    for joint in joints:
        demand = demand_for(joint, asked)
        needs = asked.edition.qualification.needs(demand.need_facts, asked.level)
        kind = (needs.impact, needs.hardness)
        if kind not in compiled:
            found = ranges_of(records, asked, needs, reports, joint_alone=True)
            compiled[kind] = [(_of_tests(one), _lines(one, asked, needs)) for one in found]
        features = numbered.of(demand)
        row: list[Cell] = []
        for tests, lines in compiled[kind]:
            answer = (2, ("tests",)) if tests == 2 else lines[0].ask(demand, features)
            for other in lines[1:]:
                answer = min(answer, other.ask(demand, features))
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


def _of_tests(found: QualifiedRange) -> int:
    """0 where the tests are accepted, 1 while they are open, 2 where they failed."""
    return max((_WORST[one.verdict] for one in found.findings if one.rule == "record.valid"), default=0)


def _lines(found: QualifiedRange, asked: InForce, needs: Needs) -> list[_Compiled]:
    return [_Compiled(items, asked, needs) for _, items in found.lines()]
