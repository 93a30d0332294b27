"""Which coupons of a long list are worth drafting in every position: those that no other one matches.

Metals, processes and sizes are compared first, each in one position and with the tests of the hardest joint.
One that covers no joint which another does not cover as well, for no more money, is not tried further. So the
set that is found is the cheapest of the coupons compared, and ``covers`` is asked of it as of any other.
"""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from welding.codebook.table import load_table
from welding.coverage.cover_sets import CoverSets, Rows, members
from welding.coverage.record import in_force
from welding.documents.fields import Position
from welding.documents.procedure import Code, Procedure, Requirements
from welding.documents.weld_list import Prices, Shop
from welding.weldlist.candidates import (
    Options,
    Watch,
    asked_of,
    every_candidate,
    levels_of,
    options_for,
    positions_for,
)
from welding.weldlist.joint_types import JointType
from welding.weldlist.pieces import Candidate, candidate_of

EVERY_ONE_UP_TO = 3000
"""So many coupons are drafted one and all."""
LADDER = 3
"""Families are compared at every third thickness of stock."""


@dataclass(frozen=True, slots=True)
class _Size:
    """Coupons of one family, thickness and diameter, in whatever position."""

    options: Options
    thickness_mm: float
    diameter_mm: float | None
    plan: Procedure
    costs: tuple[float, ...]
    rows: Rows

    def is_matched_by(self, other: _Size) -> bool:
        """Whether another covers all that this one does and costs no more, whatever is to be tested."""
        return not self.rows & ~other.rows and all(
            its <= mine for its, mine in zip(other.costs, self.costs, strict=True)
        )


def candidates_for(
    gaps: Sequence[JointType],
    code: Code,
    shop: Shop,
    prices: Prices,
    sets: CoverSets | None = None,
    watch: Watch = lambda *_: None,
) -> tuple[Candidate, ...]:
    """Draft every coupon that is worth trying.

    Args:
        gaps: Joint types without cover.
        code: The code.
        shop: What coupons may be made of.
        prices: What they cost.
        sets: The gaps, ready to be held against coupons.
        watch: Told how far it is.

    Returns:
        Candidates with names that differ; what cannot be drafted is left out.
    """
    options = options_for(gaps, code, shop)
    if sum(one.count for one in options) <= EVERY_ONE_UP_TO:
        return every_candidate(options, code, shop, prices, watch)
    known = sets or CoverSets([one.joint for one in gaps], in_force(code))
    return _Screening(gaps, code, shop, prices, known, watch).candidates(options)


class _Screening:
    def __init__(
        self,
        gaps: Sequence[JointType],
        code: Code,
        shop: Shop,
        prices: Prices,
        sets: CoverSets,
        watch: Watch,
    ) -> None:
        self._gaps, self._code, self._shop, self._prices = gaps, code, shop, prices
        self._sets, self._watch = sets, watch
        self._asked = [asked_of(one.joint, code) for one in gaps]
        self._levels = levels_of(self._asked)
        self._sizes: dict[Hashable, _Size | None] = {}
        self._plans: dict[Hashable, Procedure | None] = {}
        stock = [float(row["thickness_mm"]) for row in load_table("welding.weldlist", "coupon_stock").rows]
        self._ladder = frozenset(sorted(stock)[::LADDER])

    def candidates(self, options: Sequence[Options]) -> tuple[Candidate, ...]:
        """Every position and requirement of the sizes that are worth it."""
        kept = self._families([one for one in options if one.positions])
        sizes = list(self._worth_it(kept))
        found = []
        for number, size in enumerate(sizes):
            self._watch("draft", number, len(sizes))
            for position in self._positions(size):
                for asked in self._requirements(size):
                    piece = size.options.piece(size.thickness_mm, size.diameter_mm, position, asked)
                    if piece.name not in self._shop.without:
                        found.append(candidate_of(piece, size.plan, self._code, self._prices))
        return tuple(found)

    # --- families -------------------------------------------------------------------------------

    def _families(self, options: Sequence[Options]) -> list[Options]:
        """Those that no other family matches at every thickness of the ladder."""
        rungs = []
        for number, one in enumerate(options):
            self._watch("compare", number, len(options))
            rungs.append(self._rungs(one))
        alike: dict[Hashable, list[int]] = {}
        for number, one in enumerate(options):
            alike.setdefault(_kind(one), []).append(number)
        dropped: set[int] = set()
        for some in alike.values():
            for mine in some:
                for other in some:
                    if (
                        other != mine
                        and other not in dropped
                        and _matched(rungs[mine], rungs[other])
                        # Of two that match each other, the first stays.
                        and (other < mine or not _matched(rungs[other], rungs[mine]))
                        and self._may_give_way(options[mine], options[other])
                    ):
                        dropped.add(mine)
                        break
        return [one for number, one in enumerate(options) if number not in dropped]

    def _rungs(self, one: Options, diameter_mm: float | None = None) -> dict[float, _Size]:
        """Sizes at the ladder, of a diameter or of the least that there is with such a wall."""
        thicknesses = [t for t in one.thicknesses_mm if t in self._ladder]
        found: dict[float, _Size] = {}
        for t, diameter in one.sizes_mm:
            if t in found or (len(thicknesses) > 1 and t not in self._ladder):
                continue
            if diameter_mm in (None, diameter) and (size := self._size(one, t, diameter)):
                found[t] = size
        return found

    def _may_give_way(self, mine: Options, other: Options) -> bool:
        """Whether nobody asked to keep a coupon of the one, or to do without one of the other."""
        return not (self._named(mine, self._shop.keep) or self._named(other, self._shop.without))

    def _named(self, one: Options, names: Sequence[str]) -> bool:
        return any(self._is_of(name, one) for name in names)

    @staticmethod
    def _is_of(name: str, one: Options) -> bool:
        start = f"{one.family.process} {' + '.join(dict.fromkeys(one.family.metals))} "
        return name.startswith(start) and f" {one.family.weld} " in name

    # --- sizes ----------------------------------------------------------------------------------

    def _worth_it(self, options: Sequence[Options]) -> Iterator[_Size]:
        """Sizes of the families that no other size of their kind matches."""
        alike: dict[Hashable, list[_Size]] = {}
        for number, one in enumerate(options):
            self._watch("size", number, len(options))
            usual = set(self._diameters(one))
            with_usual = {t for t, diameter in one.sizes_mm if diameter in usual}
            for t, diameter in one.sizes_mm:
                # A wall that is too thick for the usual diameters is tried with those that have it.
                if diameter not in usual and t in with_usual:
                    continue
                size = self._size(one, t, diameter)
                if size is not None and size.rows:
                    alike.setdefault(_kind(one), []).append(size)
        for some in alike.values():
            kept: list[_Size] = []
            for mine in sorted(some, key=lambda one: (one.costs, -one.rows.bit_count())):
                if not any(
                    mine.is_matched_by(other) and self._may_give_way(mine.options, other.options)
                    for other in kept
                ):
                    kept.append(mine)
            yield from kept

    def _diameters(self, one: Options) -> list[float | None]:
        """Diameters that no other one matches at every thickness of the ladder."""
        kept: dict[float | None, dict[float, _Size]] = {}
        for diameter in one.diameters_mm:
            mine = self._rungs(one, diameter)
            if not any(_matched(mine, other) for other in kept.values()):
                kept[diameter] = mine
        return list(kept)

    def _size(self, one: Options, thickness_mm: float, diameter_mm: float | None) -> _Size | None:
        key = (id(one), thickness_mm, diameter_mm)
        if key not in self._sizes:
            self._sizes[key] = self._compared(one, thickness_mm, diameter_mm)
        return self._sizes[key]

    def _compared(self, one: Options, thickness_mm: float, diameter_mm: float | None) -> _Size | None:
        first = one.piece(thickness_mm, diameter_mm, one.positions[0], one.requirements[0])
        # Diameter and heat treatment change nothing of the passes that a range of the joint rests on.
        family = one.family
        key = (
            (family.metals, family.facts, family.joint, family.process),
            (thickness_mm, first.position, first.requirements),
        )
        if key not in self._plans:
            self._plans[key] = first.draft(self._code)
        plan = self._plans[key]
        if plan is None:
            return None
        usual = positions_for(family, (), self._code, self._shop)
        position = (usual or one.positions)[0]
        each = [
            candidate_of(
                one.piece(thickness_mm, diameter_mm, position, asked), plan, self._code, self._prices
            )
            for asked in self._levels
        ]
        # What has to show the most comes last, and covers the most.
        rows = self._sets.of(each[-1].record, each[-1].report).but_position
        return _Size(one, thickness_mm, diameter_mm, plan, tuple(found.cost for found in each), rows)

    # --- what is drafted of a size ----------------------------------------------------------------

    def _positions(self, size: _Size) -> tuple[Position, ...]:
        joints = [self._gaps[row].joint for row in members(size.rows)]
        return positions_for(size.options.family, joints, self._code, self._shop)

    def _requirements(self, size: _Size) -> tuple[Requirements, ...]:
        """What the joints that it may cover ask for."""
        return tuple(levels_of([self._asked[row] for row in members(size.rows)]))


def _kind(one: Options) -> Hashable:
    """Coupons that are welded in the same positions."""
    return one.family.pipe, one.family.joint.weld == "fillet"


def _matched(mine: Mapping[float, _Size], other: Mapping[float, _Size]) -> bool:
    """Whether another family or diameter does as well at each of these thicknesses."""
    return bool(mine) and all(t in other and one.is_matched_by(other[t]) for t, one in mine.items())
