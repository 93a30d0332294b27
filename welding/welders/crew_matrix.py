"""Many people against many welds: the answers of ``may_weld``, each distinct fact compared once."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import replace
from functools import cached_property
from typing import Any

import numpy as np

from welding.documents.welder_weld import WelderWeld
from welding.welders.asked import Asked
from welding.welders.covers import (
    POSITION,
    asks_for_several,
    compared_with,
    each_process,
    may_stand_together,
    verdict_of,
)
from welding.welders.who import HeldTest, MayWeld, may_weld

Ranks = np.ndarray[Any, np.dtype[np.int8]]
_UNKNOWN, _COVERED, _OPEN, _BLOCKED = -1, 0, 1, 2
_OF_ANSWER = {"violates": _BLOCKED, "undecided": _OPEN}
_OF_VERDICT = {"covered": _COVERED, "open": _OPEN, "blocked": _BLOCKED}

_PROCESS = (
    "welder_process", "mechanization", "person", "electrodes", "operation_mode", "unit", "view", "runs",
    "arc_length_control", "joint_tracking", "arc_sensor", "joint_sensor", "functional_test",
)  # fmt: skip
_FILLER = ("transfer_mode", "filler_group", "filler_type", "metal_group")
_DETAILS = ("weld_type", "product", "backing", "layers", "branch_deg", "dihedral_deg", "welding_direction")
GROUPS: dict[str, str] = {
    **dict.fromkeys(_PROCESS, "process"),
    **dict.fromkeys(_FILLER, "filler"),
    **dict.fromkeys(("deposited_mm", "material_mm", "fillet_material_mm"), "size"),
    **dict.fromkeys(_DETAILS, "detail"),
    "outside_diameter_mm": "diameter",
    "progression": "progression",
    POSITION: POSITION,
}
"""Variables by what they rest on."""

FACTS_ASKED: dict[str, Callable[[WelderWeld], Hashable]] = {
    "process": lambda w: (w.operation, w.electrodes),
    "filler": lambda w: (
        tuple(replace(one, deposited_mm=None) for one in w.parts),
        w.metal_group,
        w.backing,
    ),
    "size": lambda w: (tuple(one.deposited_mm for one in w.parts), w.thickness_mm),
    "diameter": lambda w: (w.diameter_mm, w.position, w.turning, w.backing),
    "progression": lambda w: (w.position, w.progression),
    POSITION: lambda w: w.position,
    "detail": lambda w: (w.backing, w.layers, w.branch_deg, w.dihedral_deg, w.direction),
}
"""On which facts of a weld, beside its kind, the answers on each group of variables rest."""


def _kind(weld: WelderWeld) -> Hashable:
    """What every answer may rest on."""
    processes = tuple(one.process for one in weld.parts)
    return (
        weld.code, weld.person, weld.weld, weld.groove, weld.product, weld.units, weld.from_designation,
        weld.mechanized, processes,
    )  # fmt: skip


def crew_matrix(people: Sequence[Sequence[HeldTest]], asked: Sequence[Asked]) -> list[list[MayWeld]]:
    """Whether each of many people may weld each of many things, as ``may_weld`` says.

    Args:
        people: The tests of each person, as they stand on the day that is asked.
        asked: What each thing asks.

    Returns:
        For each person the standings, in the order of what is asked.
    """
    matrix = TestsAndWelds(
        (one.weld for tests in people for one in tests), (weld for one in asked for weld in one.welds)
    )
    known: dict[Hashable, list[MayWeld]] = {}
    found = []
    for tests in people:
        same = tuple((one.weld, one.validity.standing) for one in tests)
        if same not in known:
            known[same] = _standings(matrix, tests, asked)
        found.append(known[same])
    return found


def _parts_of(weld: WelderWeld) -> tuple[WelderWeld, ...]:
    return each_process(weld) if len(weld.parts) > 1 else ()


class TestsAndWelds:
    """Every test against every weld by itself, and how several tests stand to a weld.

    Attributes:
        tests: Numbers of the tests, in the order given.
        welds: Numbers of the welds, likewise.
        parts: Of a weld of two processes, by its number, the numbers of what each process does.
    """

    def __init__(self, tests: Iterable[WelderWeld], welds: Iterable[WelderWeld]) -> None:
        self._tests = list(dict.fromkeys(tests))
        self._welds = list(dict.fromkeys(part for one in welds for part in (one, *_parts_of(one))))
        self.tests = {one: number for number, one in enumerate(self._tests)}
        self.welds = {one: number for number, one in enumerate(self._welds)}
        self.parts = [tuple(self.welds[part] for part in _parts_of(one)) for one in self._welds]
        several = [at for at, one in enumerate(self._welds) if self.parts[at] or asks_for_several(one)]
        self._several = sorted(several, key=lambda at: len(self.parts[at]))
        self._together: dict[tuple[int, ...], int] = {}

    @cached_property
    def _columns(self) -> dict[str, list[int]]:
        """For each group of variables the number of the facts of each weld that it rests on."""
        kinds = [_kind(one) for one in self._welds]
        columns: dict[str, list[int]] = {}
        for group, of in FACTS_ASKED.items():
            facts: dict[Hashable, int] = {}
            each = ((kind, of(weld)) for kind, weld in zip(kinds, self._welds, strict=True))
            columns[group] = [facts.setdefault(one, len(facts)) for one in each]
        return columns

    @cached_property
    def _answers(self) -> tuple[Ranks, Ranks]:
        """How each test stands to each weld by itself, without its position and with it.

        A pair is compared only while none of its facts is known to be out of range: most differ in the
        process or the filler, and those are told by any other weld with the same facts.
        """
        known = {
            group: np.full((len(self._tests), max(places, default=0) + 1), _UNKNOWN, dtype=np.int8)
            for group, places in self._columns.items()
        }
        shape = (len(self._tests), len(self._welds))
        without, alone = np.zeros(shape, dtype=np.int8), np.zeros(shape, dtype=np.int8)
        several = set(self._several)
        for at, weld in enumerate(self._welds):
            cells = {group: known[group][:, places[at]] for group, places in self._columns.items()}
            others = [one for group, one in cells.items() if group != POSITION]
            out = np.maximum.reduce(others) == _BLOCKED
            if at not in several:
                out |= cells[POSITION] == _BLOCKED
            complete = np.minimum.reduce(list(cells.values())) > _UNKNOWN
            for row in np.flatnonzero(~out & ~complete):
                for group, worst in _answers(self._tests[row], weld).items():
                    cells[group][row] = worst
            without[:, at] = np.maximum.reduce(others)
            alone[:, at] = np.maximum(without[:, at], cells[POSITION])
        return without, alone

    def covered(self, test: int) -> frozenset[int]:
        """Numbers of the welds that a test covers by itself."""
        return frozenset(int(one) for one in np.flatnonzero(self._answers[1][test] == _COVERED))

    def of(self, tests: Sequence[int]) -> list[int]:
        """How tests, by their numbers, stand together to every weld."""
        if not tests:
            return [_BLOCKED] * len(self._welds)
        found: list[int] = self._answers[1][list(tests)].min(axis=0).tolist()
        for at in self._several:
            if found[at] == _COVERED:
                continue
            if self.parts[at]:
                found[at] = min(found[at], max(found[one] for one in self.parts[at]))
            weld = self._welds[at]
            fitting = tuple(one for one in tests if self._fits(one, at)) if len(tests) > 1 else ()
            if len(fitting) > 1 and may_stand_together([self._tests[one] for one in fitting], weld):
                found[at] = min(found[at], self._of_several(fitting, at))
        return found

    def _fits(self, test: int, weld: int) -> bool:
        one, other = self._tests[test], self._welds[weld]
        alike = one.weld == other.weld and len(one.parts) == len(other.parts)
        return alike and bool(self._answers[0][test, weld] != _BLOCKED)

    def _of_several(self, tests: tuple[int, ...], weld: int) -> int:
        key = (*tests, weld)
        if key not in self._together:
            verdict = verdict_of([self._tests[one] for one in tests], self._welds[weld])
            self._together[key] = _OF_VERDICT[verdict]
        return self._together[key]


def _answers(tested: WelderWeld, asked: WelderWeld) -> dict[str, int]:
    """The worst answer of a test on each group of variables, up to the first that is out of range."""
    if tested.code != asked.code or len(asked.parts) > len(tested.parts):
        return {"process": _BLOCKED}
    worst = dict.fromkeys(FACTS_ASKED, _COVERED)
    for one in compared_with(tested, asked):
        group = GROUPS[one.item.variable]
        rank = _OF_ANSWER.get(one.verdict, _COVERED)
        if rank == _BLOCKED and group != POSITION:
            return {group: _BLOCKED}
        worst[group] = max(worst[group], rank)
    return worst


def _standings(matrix: TestsAndWelds, tests: Sequence[HeldTest], asked: Sequence[Asked]) -> list[MayWeld]:
    codes = {one.weld.code for one in tests}
    valid = [one.weld for one in tests if one.validity.valid]
    current = matrix.of([matrix.tests[one] for one in valid])
    in_all = current if len(valid) == len(tests) else matrix.of([matrix.tests[one.weld] for one in tests])
    doubtful = any(one.validity.standing == "unknown" for one in tests)
    found: list[MayWeld] = []
    for one in asked:
        if not one.welds:
            found.append("open")
            continue
        code = one.welds[0].code
        if code not in codes:
            found.append("untested")
            continue
        numbers = [matrix.welds[weld] for weld in one.welds]
        now, ever = max(current[at] for at in numbers), max(in_all[at] for at in numbers)
        if now == _COVERED:
            found.append("open" if one.open else "may")
        elif ever == _COVERED:
            # Which of the tests would count decides whether they have run out or are not known to.
            found.append(may_weld(tests, one).standing if doubtful else "lapsed")
        else:
            nearest = now if any(test.code == code for test in valid) else ever
            found.append("open" if nearest == _OPEN else "blocked")
    return found
