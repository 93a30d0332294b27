"""Many people against many welds: the answers of ``may_weld``, each distinct fact compared once."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import replace
from functools import cached_property, lru_cache
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
    "filler": lambda w: (_without_deposit(w), w.metal_group, w.backing),
    "size": lambda w: (tuple(one.deposited_mm for one in w.parts), w.thickness_mm),
    "diameter": lambda w: (w.diameter_mm, w.position, w.turning, w.backing),
    "progression": lambda w: (w.position, w.progression),
    POSITION: lambda w: w.position,
    "detail": lambda w: (w.backing, w.layers, w.branch_deg, w.dihedral_deg, w.direction),
}
"""On which facts of a weld that is asked, beside its kind, the answers on each group of variables rest."""

FACTS_TESTED: dict[str, Callable[[WelderWeld], Hashable]] = {
    "process": lambda w: (_without_deposit(w), w.operation, w.electrodes, w.trained),
    "filler": lambda w: (_without_deposit(w), w.metal_group, w.backing, w.fillet_too),
    "size": lambda w: (
        tuple(one.deposited_mm for one in w.parts),
        w.thickness_mm,
        w.diameter_mm,
        w.layer_count,
        w.fillet_too,
        w.fillet_too_mm,
    ),
    "diameter": lambda w: (w.diameter_mm, w.thickness_mm, w.position, w.turning, w.backing),
    "progression": lambda w: (w.position, w.progression),
    POSITION: lambda w: (w.position, w.progression, w.diameter_mm, w.turning, w.fillet_too),
    "detail": lambda w: (
        w.thickness_mm,
        w.diameter_mm,
        w.position,
        w.backing,
        w.layers,
        w.layer_count,
        w.direction,
        w.turning,
        w.branch_deg,
        w.dihedral_deg,
        w.fillet_too,
        w.fillet_too_mm,
    ),
}
"""Likewise of a test."""


def _without_deposit(weld: WelderWeld) -> Hashable:
    return tuple(replace(one, deposited_mm=None) for one in weld.parts)


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
    welds = [[matrix.welds[weld] for weld in one.welds] for one in asked]
    known: dict[Hashable, list[MayWeld]] = {}
    found = []
    for tests in people:
        numbers = [matrix.tests[one.weld] for one in tests]
        same = tuple((at, one.validity.standing) for at, one in zip(numbers, tests, strict=True))
        if same not in known:
            known[same] = _standings(matrix, numbers, tests, welds, asked)
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
    def _answers(self) -> tuple[Ranks, Ranks]:
        """How each test stands to each weld by itself, without its position and with it.

        A pair is compared only while none of its facts is known to be out of range: most differ in the
        process or the filler, and those are told by any other pair with the same facts.
        """
        tested, asked = _numbered(self._tests, tested=True), _numbered(self._welds, tested=False)
        known = {
            group: np.full((max(tested[group], default=0) + 1, max(asked[group], default=0) + 1), _UNKNOWN,
                           dtype=np.int8)
            for group in FACTS_ASKED
        }  # fmt: skip
        shape = (len(self._tests), len(self._welds))
        without, alone = np.zeros(shape, dtype=np.int8), np.zeros(shape, dtype=np.int8)
        several = set(self._several)
        for at, weld in enumerate(self._welds):
            counts = [one for one in FACTS_ASKED if one != POSITION or at not in several]
            for row in self._to_compare(known, tested, {group: asked[group][at] for group in asked}, counts):
                cells = [known[group][tested[group][row], asked[group][at]] for group in counts]
                if _BLOCKED in cells or (_UNKNOWN not in cells and len(counts) == len(known)):
                    continue
                for group, worst in _answers(self._tests[row], weld).items():
                    known[group][tested[group][row], asked[group][at]] = worst
            columns = {group: known[group][tested[group], asked[group][at]] for group in known}
            without[:, at] = np.maximum.reduce([columns[group] for group in columns if group != POSITION])
            alone[:, at] = np.maximum(without[:, at], columns[POSITION])
        return without, alone

    def _to_compare(
        self,
        known: dict[str, Ranks],
        tested: dict[str, list[int]],
        asked: dict[str, int],
        counts: list[str],
    ) -> list[int]:
        """Tests of which an answer is not known yet, and none that is known is out of range."""
        columns = {group: known[group][tested[group], asked[group]] for group in known}
        out = np.maximum.reduce([columns[group] for group in counts]) == _BLOCKED
        complete = np.minimum.reduce(list(columns.values())) > _UNKNOWN
        return [int(one) for one in np.flatnonzero(~out & ~complete)]

    @cached_property
    def _alone(self) -> list[list[int]]:
        """How each test stands to each weld by itself."""
        return self._answers[1].tolist()  # type: ignore[no-any-return]

    def covered(self, test: int) -> frozenset[int]:
        """Numbers of the welds that a test covers by itself."""
        return frozenset(int(one) for one in np.flatnonzero(self._answers[1][test] == _COVERED))

    def of(self, tests: Sequence[int]) -> list[int]:
        """How tests, by their numbers, stand together to every weld."""
        if not tests:
            return [_BLOCKED] * len(self._welds)
        rows = [self._alone[one] for one in tests]
        found = list(map(min, *rows)) if len(rows) > 1 else list(rows[0])
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


@lru_cache(maxsize=16_384)
def _facts(weld: WelderWeld, tested: bool) -> tuple[Hashable, ...]:
    """The facts of a weld, group by group; the same weld is asked about again and again."""
    kind = _kind(weld)
    return tuple((kind, of(weld)) for of in (FACTS_TESTED if tested else FACTS_ASKED).values())


def _numbered(welds: Sequence[WelderWeld], *, tested: bool) -> dict[str, list[int]]:
    """For each group of variables the number of the facts of each weld that it rests on."""
    each = [_facts(one, tested) for one in welds]
    numbers: dict[str, list[int]] = {}
    for at, group in enumerate(FACTS_ASKED):
        facts: dict[Hashable, int] = {}
        numbers[group] = [facts.setdefault(one[at], len(facts)) for one in each]
    return numbers


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


def _standings(
    matrix: TestsAndWelds,
    numbers: Sequence[int],
    tests: Sequence[HeldTest],
    welds: Sequence[Sequence[int]],
    asked: Sequence[Asked],
) -> list[MayWeld]:
    codes = {one.weld.code for one in tests}
    valid_codes = {one.weld.code for one in tests if one.validity.valid}
    valid = [at for at, one in zip(numbers, tests, strict=True) if one.validity.valid]
    current = matrix.of(valid)
    in_all = current if len(valid) == len(tests) else matrix.of(numbers)
    doubtful = any(one.validity.standing == "unknown" for one in tests)
    found: list[MayWeld] = []
    for one, at_welds in zip(asked, welds, strict=True):
        if not at_welds:
            found.append("open")
            continue
        code = one.welds[0].code
        if code not in codes:
            found.append("untested")
            continue
        now, ever = max(current[at] for at in at_welds), max(in_all[at] for at in at_welds)
        if now == _COVERED:
            found.append("open" if one.open else "may")
        elif ever == _COVERED:
            # Which of the tests would count decides whether they have run out or are not known to.
            found.append(may_weld(tests, one).standing if doubtful else "lapsed")
        else:
            nearest = now if code in valid_codes else ever
            found.append("open" if nearest == _OPEN else "blocked")
    return found
