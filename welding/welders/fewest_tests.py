"""The fewest tests after which enough of the crew may weld everything that is asked: solved by HiGHS."""

from __future__ import annotations

from collections.abc import Hashable, Iterable, Sequence
from dataclasses import dataclass

import numpy as np
import scipy

from welding.documents.welder_weld import WelderWeld
from welding.errors import WeldingError
from welding.language import tr
from welding.welders.asked import Asked
from welding.welders.catalogue import welder_edition
from welding.welders.crew_matrix import TestsAndWelds
from welding.welders.who import HeldTest

_ALIKE = 3
"""So many people of equal certificates are asked about for each that is needed."""
_SIMPLER = 1e-4
"""Of equally many tests the simpler pieces: less than any test counts."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedTest:
    """A test that somebody should take.

    Attributes:
        person: Number of the person.
        piece: The test piece.
        for_asked: Numbers of what it helps the person to be qualified for.
    """

    person: int
    piece: WelderWeld
    for_asked: tuple[int, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class FewestTests:
    """The answer for a crew.

    Attributes:
        tests: The tests, person by person.
        held: For each asked thing how many may weld it already.
        lacking: Numbers of what stays short after the tests: no piece covers it, or people are too few.
        open: Numbers of what does not say enough to be asked.
        optimal: Whether fewer tests are proven not to do, among the pieces that were compared.
        tried: How many pieces were compared.
    """

    tests: tuple[PlannedTest, ...]
    held: tuple[int, ...]
    lacking: tuple[int, ...]
    open: tuple[int, ...]
    optimal: bool
    tried: int


def fewest_tests(
    people: Sequence[Sequence[HeldTest]], asked: Sequence[Asked], needed: int = 1, seconds: float = 30.0
) -> FewestTests:
    """Which tests the crew has to take so that everything may be welded by enough of them.

    A test covers a weld by itself here; tests that hold its positions only between them are not planned,
    since one test in the harder position does it.

    Args:
        people: The certificates of each person who could take tests, as they stand on the day.
        asked: What is to be welded.
        needed: How many people are to be qualified for each.
        seconds: Time for the solver; afterwards the best plan found is given.

    Raises:
        WeldingError: ``needed`` is below one, or no plan was found in that time.
    """
    if needed < 1:
        raise WeldingError(tr("At least one person is needed for each."))
    open_ = tuple(at for at, one in enumerate(asked) if one.open or not one.welds)
    pieces = _pieces(weld for at, one in enumerate(asked) if at not in open_ for weld in one.welds)
    own = [one.weld for tests in people for one in tests if one.validity.valid]
    crew = TestsAndWelds([*own, *pieces], [weld for one in asked for weld in one.welds])
    standing = _crew(people, crew)
    welds = [[] if at in open_ else [crew.welds[one] for one in what.welds] for at, what in enumerate(asked)]
    held = tuple(
        sum(all(one in holds for one in each) for holds in standing) if each else 0 for each in welds
    )
    wanted = {at: needed - held[at] for at, each in enumerate(welds) if each and held[at] < needed}
    problem = _Problem(crew, pieces, standing, welds, wanted, needed)
    tests, optimal = problem.solved(seconds)
    return FewestTests(
        tests=tests,
        held=held,
        lacking=tuple(sorted(at for at in wanted if problem.within_reach(at) < wanted[at])),
        open=open_,
        optimal=optimal,
        tried=len(pieces),
    )


def _pieces(welds: Iterable[WelderWeld]) -> list[WelderWeld]:
    """Pieces for the welds and for each process of them, the simpler ones first."""
    matrix = TestsAndWelds([], welds)
    found = dict.fromkeys(piece for one in matrix.welds for piece in welder_edition(one.code).pieces_for(one))
    return sorted(found, key=_effort)


def _effort(piece: WelderWeld) -> tuple[int, bool, float]:
    size = max([piece.thickness_mm or 0.0, *(one.deposited_mm or 0.0 for one in piece.parts)])
    return len(piece.parts), piece.product == "pipe", size


def _crew(people: Sequence[Sequence[HeldTest]], crew: TestsAndWelds) -> list[frozenset[int]]:
    """Numbers of the welds that each person is qualified for today."""
    found = []
    for tests in people:
        ranks = crew.of([crew.tests[one.weld] for one in tests if one.validity.valid])
        found.append(frozenset(at for at, rank in enumerate(ranks) if rank == 0))
    return found


class _Problem:
    """Who takes which piece: binary unknowns for tests, for who is qualified then, for joints in parts."""

    def __init__(
        self,
        crew: TestsAndWelds,
        pieces: Sequence[WelderWeld],
        standing: Sequence[frozenset[int]],
        welds: Sequence[Sequence[int]],
        wanted: dict[int, int],
        needed: int,
    ) -> None:
        self._crew, self._welds, self._wanted, self._standing = crew, welds, wanted, standing
        self._people = _who_counts(standing, needed)
        self._cut = needed > 1 and len(self._people) < len(standing)
        self._pieces = self._useful(pieces)
        self._covered = [crew.covered(crew.tests[one]) for one in self._pieces]

    def _useful(self, pieces: Sequence[WelderWeld]) -> list[WelderWeld]:
        """Pieces that cover something that lacks people, and something that no simpler one does."""
        lacking = {one for at in self._wanted for one in self._welds[at]}
        lacking |= {part for one in lacking for part in self._crew.parts[one]}
        kept: list[tuple[WelderWeld, frozenset[int]]] = []
        for piece in pieces:
            covered = self._crew.covered(self._crew.tests[piece]) & lacking
            if covered and not any(covered <= other for _, other in kept):
                kept.append((piece, covered))
        return [one for one, _ in kept]

    def _alike(self) -> dict[int, int]:
        """What lacks people, and how many; of things that the same pieces and people cover only one."""
        found: dict[Hashable, int] = {}
        for at in sorted(self._wanted, key=lambda one: -self._wanted[one]):
            found.setdefault(frozenset(self._same(one) for one in self._welds[at]), at)
        return {at: self._wanted[at] for at in found.values()}

    def _same(self, weld: int) -> Hashable:
        by = (
            frozenset(number for number, covered in enumerate(self._covered) if weld in covered),
            frozenset(person for person, holds in enumerate(self._standing) if weld in holds),
        )
        return by, *(self._same(part) for part in self._crew.parts[weld])

    def _reaches(self, person: int, weld: int) -> bool:
        """Whether a person is qualified for a weld, or may be after tests."""
        if weld in self._standing[person] or any(weld in covered for covered in self._covered):
            return True
        parts = self._crew.parts[weld]
        return bool(parts) and all(self._reaches(person, one) for one in parts)

    def _could(self, person: int, at: int) -> bool:
        return all(self._reaches(person, one) for one in self._welds[at])

    def _lacks(self, person: int, at: int) -> list[int]:
        return [one for one in self._welds[at] if one not in self._standing[person]]

    def within_reach(self, at: int) -> int:
        """How many more people tests can qualify for it."""
        return sum(bool(self._lacks(one, at)) and self._could(one, at) for one in range(len(self._standing)))

    def solved(self, seconds: float) -> tuple[tuple[PlannedTest, ...], bool]:
        """The plan, and whether it is proven."""
        rows = _Rows()
        for at, count in self._alike().items():
            people = [one for one in self._people if self._lacks(one, at) and self._could(one, at)]
            for person in people:
                qualified = rows.number(("qualified", person, at))
                for weld in self._lacks(person, at):
                    self._needs(rows, qualified, person, weld)
            columns = [(rows.number(("qualified", one, at)), 1.0) for one in people]
            if columns:
                rows.at_least(columns, min(count, len(columns)))
        if not rows.count:
            return (), True
        costs = np.zeros(rows.count)
        for number, key in enumerate(rows.names):
            if key[0] == "takes":
                costs[number] = 1.0 + _SIMPLER * key[2] / len(self._pieces)
        found = scipy.optimize.milp(
            c=costs,
            constraints=rows.constraints(),
            bounds=scipy.optimize.Bounds(np.zeros(rows.count), np.ones(rows.count)),
            integrality=np.ones(rows.count),
            options={"time_limit": seconds, "mip_rel_gap": 0.0},
        )
        if found.x is None:
            raise WeldingError(tr("No plan of tests was found in {seconds:g} s.", seconds=seconds))
        chosen = [key for number, key in enumerate(rows.names) if key[0] == "takes" and found.x[number] > 0.5]
        bound = found.fun if found.mip_dual_bound is None else found.mip_dual_bound
        proven = not self._cut and int(np.ceil(bound - 0.5)) >= len(chosen)
        return self._planned(chosen), bool(proven)

    def _needs(self, rows: _Rows, qualified: int, person: int, weld: int) -> None:
        """Qualified for a weld only with a piece that covers it, or with one for each of its processes."""
        terms = [
            (rows.number(("takes", person, at)), 1.0)
            for at, covered in enumerate(self._covered)
            if weld in covered
        ]
        parts = self._crew.parts[weld]
        if parts and all(self._reaches(person, one) for one in parts):
            by_parts = rows.number(("parts", person, weld))
            terms.append((by_parts, 1.0))
            for part in parts:
                if part not in self._standing[person]:
                    self._needs(rows, by_parts, person, part)
        rows.at_least([*terms, (qualified, -1.0)], 0)

    def _planned(self, chosen: list[tuple[str, int, int]]) -> tuple[PlannedTest, ...]:
        found = []
        for _, person, at in sorted(chosen, key=lambda key: (key[1], key[2])):
            covered = self._covered[at]
            helps = tuple(
                number
                for number in self._wanted
                if any(covered & {weld, *self._crew.parts[weld]} for weld in self._lacks(person, number))
            )
            found.append(PlannedTest(person=person, piece=self._pieces[at], for_asked=helps))
        return tuple(found)


def _who_counts(standing: Sequence[frozenset[int]], needed: int) -> list[int]:
    """People to ask about: of those with equal certificates one where one is needed, else some more."""
    most = 1 if needed == 1 else _ALIKE * needed
    alike: dict[frozenset[int], list[int]] = {}
    for person, holds in enumerate(standing):
        alike.setdefault(holds, []).append(person)
    return sorted(person for people in alike.values() for person in people[:most])


class _Rows:
    """Unknowns by their names, and inequalities over them."""

    def __init__(self) -> None:
        self.names: list[tuple[str, int, int]] = []
        self._numbers: dict[tuple[str, int, int], int] = {}
        self._rows: dict[tuple[tuple[int, float], ...], float] = {}

    @property
    def count(self) -> int:
        """How many unknowns there are."""
        return len(self.names)

    def number(self, name: tuple[str, int, int]) -> int:
        """The number of an unknown."""
        if name not in self._numbers:
            self._numbers[name] = len(self.names)
            self.names.append(name)
        return self._numbers[name]

    def at_least(self, terms: Sequence[tuple[int, float]], least: float) -> None:
        """The sum of the terms is no less."""
        key = tuple(sorted(terms))
        self._rows[key] = max(least, self._rows.get(key, least))

    def constraints(self) -> scipy.optimize.LinearConstraint:
        """All inequalities as one constraint."""
        places = [(row, number, value) for row, terms in enumerate(self._rows) for number, value in terms]
        rows, numbers, values = zip(*places, strict=True)
        shape = (len(self._rows), self.count)
        return scipy.optimize.LinearConstraint(
            scipy.sparse.csr_array((values, (rows, numbers)), shape=shape), lb=list(self._rows.values())
        )
