"""Which coupons of a long list are worth drafting in every position: those that no other one matches.

Metals, processes and sizes are compared first, each in one position and with the tests of the hardest joint.
One that covers no joint which another does not cover as well, for no more money, is not tried further. So the
set that is found is the cheapest of the coupons compared, and ``covers`` is asked of it as of any other.
"""

from __future__ import annotations

from collections.abc import Hashable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import product

from welding.codebook.table import load_table
from welding.coverage.cover_sets import CoverSets, Rows, members
from welding.coverage.record import in_force, keeping_ranges
from welding.documents.fields import Position
from welding.documents.procedure import Code, Requirements
from welding.documents.weld_list import Prices, Shop
from welding.weldlist.candidates import Options, asked_of, levels_of, options_for, positions_for
from welding.weldlist.joint_types import JointType
from welding.weldlist.pieces import Candidate, Drafted
from welding.weldlist.spread import Watch, spread
from welding.weldlist.tried import Tried, cover_of_size, put_together

EVERY_ONE_UP_TO = 3000
"""So many coupons are drafted one and all."""
LADDER = 4
"""Families are compared at every fourth thickness of stock."""


@dataclass(frozen=True, slots=True)
class _Size:
    """Coupons of one family, thickness and diameter, in whatever position; ``of`` numbers the family."""

    of: int
    thickness_mm: float
    diameter_mm: float | None
    draft: Drafted
    costs: tuple[float, ...]
    rows: Rows

    def is_matched_by(self, other: _Size) -> bool:
        """Whether another covers all that this one does and costs no more, whatever is to be tested."""
        return not self.rows & ~other.rows and all(
            its <= mine for its, mine in zip(other.costs, self.costs, strict=True)
        )


@dataclass(frozen=True, slots=True)
class _Coupons:
    """Coupons of one size: position, tests and cost of each, what it covers, and what pairs cover."""

    asked: list[tuple[Position, Requirements, float]]
    rows: list[Rows]
    pairs: dict[tuple[int, int], Rows]


def tried_for(
    gaps: Sequence[JointType],
    code: Code,
    shop: Shop,
    prices: Prices,
    sets: CoverSets | None = None,
    workers: int = 1,
    watch: Watch = lambda *_: None,
) -> Tried:
    """Draft every coupon that is worth trying, and see what each would cover.

    Args:
        gaps: Joint types without cover.
        code: The code.
        shop: What coupons may be made of.
        prices: What they cost.
        sets: The gaps, ready to be held against coupons.
        workers: Processors to use.
        watch: Told how far it is.

    Returns:
        Candidates with names that differ; what cannot be drafted is left out.
    """
    known = sets or CoverSets([one.joint for one in gaps], in_force(code))
    search = _Screening(gaps, code, shop, prices, known, workers, watch)
    every = sum(one.count for one in search.options) <= EVERY_ONE_UP_TO
    return search.every_one() if every else search.worth_it()


class _Screening:
    def __init__(
        self,
        gaps: Sequence[JointType],
        code: Code,
        shop: Shop,
        prices: Prices,
        sets: CoverSets,
        workers: int,
        watch: Watch,
    ) -> None:
        self._gaps, self._code, self._shop, self._prices = gaps, code, shop, prices
        self._sets, self._workers, self._watch = sets, workers, watch
        self._asked = [asked_of(one.joint, code) for one in gaps]
        self._levels = levels_of(self._asked)
        self._known: dict[tuple[int, float, float | None], _Size | None] = {}
        self._drafts: dict[Hashable, Drafted | None] = {}
        stock = [float(row["thickness_mm"]) for row in load_table("welding.weldlist", "coupon_stock").rows]
        self._ladder = frozenset(sorted(stock)[::LADDER])
        self.options = [one for one in options_for(gaps, code, shop) if one.positions]

    def every_one(self) -> Tried:
        """Every coupon that the options allow."""
        sizes = [(of, *size) for of, one in enumerate(self.options) for size in one.sizes_mm]

        def coupons(number: int) -> tuple[Drafted, _Coupons] | None:
            of, t, diameter = sizes[number]
            draft = self._draft(of, t, diameter)
            if draft is None:
                return None
            one = self.options[of]
            asked = product(one.positions, one.requirements)
            return draft, self._coupons(of, t, diameter, draft, list(asked))

        found = spread(coupons, len(sizes), self._workers, "draft", self._watch)
        return put_together(
            [self._as_candidates(*size, *some) for size, some in zip(sizes, found, strict=True) if some]
        )

    def worth_it(self) -> Tried:
        """Every position and requirement of the sizes that no other one matches."""
        sizes = list(self._sizes(self._families()))

        def coupons(number: int) -> _Coupons:
            one = sizes[number]
            asked = product(self._positions(one), self._requirements(one))
            return self._coupons(one.of, one.thickness_mm, one.diameter_mm, one.draft, list(asked))

        found = spread(coupons, len(sizes), self._workers, "draft", self._watch)
        return put_together(
            [
                self._as_candidates(one.of, one.thickness_mm, one.diameter_mm, one.draft, some)
                for one, some in zip(sizes, found, strict=True)
            ]
        )

    def _coupons(
        self,
        of: int,
        thickness_mm: float,
        diameter_mm: float | None,
        draft: Drafted,
        asked: Sequence[tuple[Position, Requirements]],
    ) -> _Coupons:
        """What coupons of one size cost and cover, without what those were that it was worked out from."""
        pieces = [self.options[of].piece(thickness_mm, diameter_mm, *one) for one in asked]
        kept = [n for n, one in enumerate(pieces) if one.name not in self._shop.without]
        some = [Candidate(pieces[n], draft, self._code, self._prices) for n in kept]
        with keeping_ranges():
            rows, pairs = cover_of_size(some, self._sets)
        return _Coupons([(*asked[n], one.cost) for n, one in zip(kept, some, strict=True)], rows, pairs)

    def _as_candidates(
        self, of: int, thickness_mm: float, diameter_mm: float | None, draft: Drafted, some: _Coupons
    ) -> tuple[list[Candidate], list[Rows], dict[tuple[int, int], Rows]]:
        candidates = [
            Candidate(
                self.options[of].piece(thickness_mm, diameter_mm, position, requirements),
                draft,
                self._code,
                self._prices,
                cost,
            )
            for position, requirements, cost in some.asked
        ]
        return candidates, some.rows, some.pairs

    # --- families -------------------------------------------------------------------------------

    def _families(self) -> list[int]:
        """Those that no other family matches at every thickness of the ladder."""
        count = len(self.options)
        rungs = []
        for found in spread(self._rungs, count, self._workers, "compare", self._watch):
            self._learn(found.values())
            rungs.append(found)
        alike: dict[Hashable, list[int]] = {}
        for number, one in enumerate(self.options):
            alike.setdefault(_kind(one), []).append(number)
        dropped: set[int] = set()
        for some in alike.values():
            for mine, other in product(some, some):
                if (
                    other != mine
                    and not dropped & {mine, other}
                    and _matched(rungs[mine], rungs[other])
                    # Of two that match each other, the first stays.
                    and (other < mine or not _matched(rungs[other], rungs[mine]))
                    and self._may_give_way(mine, other)
                ):
                    dropped.add(mine)
        return [number for number in range(count) if number not in dropped]

    def _learn(self, sizes: Iterable[_Size]) -> None:
        """Keep what was worked out, perhaps on another processor."""
        for one in sizes:
            self._known[one.of, one.thickness_mm, one.diameter_mm] = one
            self._drafts[self._draft_key(one.of, one.thickness_mm)] = one.draft

    def _rungs(self, of: int, diameter_mm: float | None = None) -> dict[float, _Size]:
        """Sizes at the ladder, of a diameter or of the least that there is with such a wall."""
        one = self.options[of]
        few = sum(t in self._ladder for t in one.thicknesses_mm) < 2
        found: dict[float, _Size] = {}
        for t, diameter in one.sizes_mm:
            if t in found or not (few or t in self._ladder):
                continue
            if diameter_mm in (None, diameter) and (size := self._size(of, t, diameter)):
                found[t] = size
        return found

    def _may_give_way(self, mine: int, other: int) -> bool:
        """Whether nobody asked to keep a coupon of the one, or to do without one of the other."""
        return not (self._named(mine, self._shop.keep) or self._named(other, self._shop.without))

    def _named(self, of: int, names: Sequence[str]) -> bool:
        family = self.options[of].family
        start = f"{family.process} {' + '.join(dict.fromkeys(family.metals))} "
        return any(name.startswith(start) and f" {family.weld} " in name for name in names)

    # --- sizes ----------------------------------------------------------------------------------

    def _sizes(self, families: Sequence[int]) -> Iterator[_Size]:
        """Sizes of the families that no other size of their kind matches."""
        alike: dict[Hashable, list[_Size]] = {}

        def sizes(number: int) -> list[_Size]:
            return self._sizes_of(families[number])

        for found in spread(sizes, len(families), self._workers, "size", self._watch):
            for one in found:
                alike.setdefault(_kind(self.options[one.of]), []).append(one)
        for some in alike.values():
            kept: list[_Size] = []
            for mine in sorted(some, key=lambda one: (one.costs, -one.rows.bit_count())):
                if not any(
                    mine.is_matched_by(other) and self._may_give_way(mine.of, other.of) for other in kept
                ):
                    kept.append(mine)
            yield from kept

    def _sizes_of(self, of: int) -> list[_Size]:
        one = self.options[of]
        usual = self._diameters(of)
        with_usual = {t for t, diameter in one.sizes_mm if diameter in usual}
        found = []
        for t, diameter in one.sizes_mm:
            # A wall that is too thick for the usual diameters is tried with those that have it.
            if diameter not in usual and t in with_usual:
                continue
            size = self._size(of, t, diameter)
            if size is not None and size.rows:
                found.append(size)
        return found

    def _diameters(self, of: int) -> set[float | None]:
        """Diameters that no other one matches at every thickness of the ladder."""
        kept: dict[float | None, dict[float, _Size]] = {}
        for diameter in self.options[of].diameters_mm:
            mine = self._rungs(of, diameter)
            if not any(_matched(mine, other) for other in kept.values()):
                kept[diameter] = mine
        return set(kept)

    def _size(self, of: int, thickness_mm: float, diameter_mm: float | None) -> _Size | None:
        key = of, thickness_mm, diameter_mm
        if key not in self._known:
            self._known[key] = self._compared(*key)
        return self._known[key]

    def _compared(self, of: int, thickness_mm: float, diameter_mm: float | None) -> _Size | None:
        one = self.options[of]
        draft = self._draft(of, thickness_mm, diameter_mm)
        if draft is None:
            return None
        usual = positions_for(one.family, (), self._code, self._shop)
        position = (usual or one.positions)[0]
        each = [
            Candidate(one.piece(thickness_mm, diameter_mm, position, asked), draft, self._code, self._prices)
            for asked in self._levels
        ]
        # What has to show the most comes last, and covers the most.
        rows = self._sets.of(each[-1].record, each[-1].report).but_position
        costs = tuple(found.cost for found in each)
        return _Size(of, thickness_mm, diameter_mm, draft, costs, rows)

    def _draft(self, of: int, thickness_mm: float, diameter_mm: float | None) -> Drafted | None:
        """Passes of one position stand for the others: what is chosen is drafted for its own."""
        key = self._draft_key(of, thickness_mm)
        if key not in self._drafts:
            one = self.options[of]
            pieces = (
                one.piece(thickness_mm, diameter_mm, position, asked)
                for asked, position in product(one.requirements, one.positions)
            )
            self._drafts[key] = next((found for piece in pieces if (found := piece.draft(self._code))), None)
        return self._drafts[key]

    def _draft_key(self, of: int, thickness_mm: float) -> Hashable:
        """Diameter and heat treatment change nothing of the passes that the range of a joint rests on."""
        one = self.options[of]
        family = one.family
        return (
            (family.metals, family.facts, family.joint, family.pipe, family.process),
            (thickness_mm, one.positions, one.requirements),
        )

    # --- what is drafted of a size ----------------------------------------------------------------

    def _positions(self, size: _Size) -> tuple[Position, ...]:
        joints = [self._gaps[row].joint for row in members(size.rows)]
        return positions_for(self.options[size.of].family, joints, self._code, self._shop)

    def _requirements(self, size: _Size) -> tuple[Requirements, ...]:
        """What the joints that it may cover ask for."""
        return tuple(levels_of([self._asked[row] for row in members(size.rows)]))


def _kind(one: Options) -> Hashable:
    """Coupons that are welded in the same positions."""
    return one.family.pipe, one.family.joint.weld == "fillet"


def _matched(mine: Mapping[float, _Size], other: Mapping[float, _Size]) -> bool:
    """Whether another family or diameter does as well at each of these thicknesses."""
    return bool(mine) and all(t in other and one.is_matched_by(other[t]) for t, one in mine.items())
