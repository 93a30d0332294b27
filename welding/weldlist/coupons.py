"""The fewest coupons: which joints lack cover, and the cheapest coupons that give it to all of them."""

from __future__ import annotations

from collections.abc import Collection, Hashable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from welding.codebook.catalogue import by_code
from welding.coverage.cover_sets import CoverSet, CoverSets, Rows, members
from welding.coverage.covers import covers
from welding.coverage.record import in_force, keeping_ranges
from welding.documents.record import QualificationRecord
from welding.documents.weld_list import WeldList
from welding.errors import UnknownEntryError, WeldingError
from welding.language import tr
from welding.weldlist.candidates import Watch
from welding.weldlist.cheapest import cheapest_set
from welding.weldlist.joint_types import JointType, joint_types
from welding.weldlist.pieces import Candidate, drafted
from welding.weldlist.screening import candidates_for
from welding.weldlist.standing import TypeCover, types_covered


@dataclass(frozen=True, slots=True, kw_only=True)
class ChosenCoupon:
    """A coupon of the cheapest set.

    Attributes:
        name: What it is called.
        record: The coupon as a record, with what its tests will have to show.
        cost: What it costs.
        covers: Keys of the joint types that it covers.
        only: Keys of those that lose their cover without it.
    """

    name: str
    record: QualificationRecord
    cost: float
    covers: tuple[str, ...]
    only: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class NoCoupon:
    """A joint type that no coupon of this shop covers, and what stands in the way of the nearest one."""

    type: JointType
    nearest: str
    reasons: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class FewestCoupons:
    """The answer for a list.

    Attributes:
        types: Every joint type with the records that cover it.
        coupons: The cheapest set for the rest.
        cost: What it costs.
        bound: What any set costs at least.
        optimal: Whether none is cheaper among the candidates.
        tried: How many coupons were drafted and compared.
        uncovered: Types that nothing covers, with the reason.
    """

    types: tuple[TypeCover, ...]
    coupons: tuple[ChosenCoupon, ...]
    cost: float
    bound: float
    optimal: bool
    tried: int
    uncovered: tuple[NoCoupon, ...]


def _unwatched(_doing: str, _done: int, _of: int) -> None:
    """Nobody asked how far it is."""


@by_code
@keeping_ranges()
def fewest_coupons(listed: WeldList, seconds: float = 60.0, watch: Watch = _unwatched) -> FewestCoupons:
    """Find the cheapest set of coupons for what the records at hand do not cover.

    Args:
        listed: Joints, records, shop and prices.
        seconds: Time for the solver; afterwards the best set found is given with its bound.
        watch: Told how far the search is; what it raises ends the search.

    Raises:
        UnknownEntryError: No such code, or a candidate is to be kept that there is none of.
    """
    watch("records", 0, 1)
    types = joint_types(listed.joints, listed.code)
    stand = types_covered(types, listed.records, listed.code)
    gaps = [one.type for one in stand if one.verdict != "covered"]
    sets = CoverSets([one.joint for one in gaps], in_force(listed.code))
    tried = candidates_for(gaps, listed.code, listed.shop, listed.prices, sets, watch)
    cover = _cover_of(tried, sets, watch)
    forced = _kept(tried, listed)
    reached = sorted(members(cover.of(range(len(tried)))))
    place = {row: number for number, row in enumerate(reached)}
    useful = _undominated(tried, cover, forced)
    number_of = {one: number for number, one in enumerate(useful)}
    watch("solve", 0, 1)
    found = cheapest_set(
        len(reached),
        [{place[row] for row in members(cover.each[one].rows)} for one in useful],
        [tried[one].cost for one in useful],
        pairs={
            (number_of[one], number_of[two]): {place[row] for row in members(rows)}
            for (one, two), rows in cover.together.items()
        },
        forced=[number_of[one] for one in forced],
        seconds=seconds,
    )
    watch("check", 0, 1)
    chosen = [useful[number] for number in found.chosen]
    own = {number: drafted(tried[number], listed.code) for number in chosen}
    # A draft for its own position may be welded otherwise, and then cover less: the plan compared is kept.
    if not _open(own, cover, gaps, reached, listed):
        tried = tuple(own.get(number, one) for number, one in enumerate(tried))
    wrong = _open({one: tried[one] for one in chosen}, cover, gaps, reached, listed)
    if wrong:
        raise WeldingError(tr("The set does not cover {key}: report this.", key=", ".join(wrong)))
    return FewestCoupons(
        types=stand,
        coupons=_explained(chosen, tried, cover, gaps),
        cost=round(found.cost, 2),
        bound=round(found.bound, 2),
        optimal=found.optimal,
        tried=len(tried),
        uncovered=tuple(
            _nearest(number, gaps, tried, cover, sets, listed)
            for number in range(len(gaps))
            if number not in place
        ),
    )


@dataclass(frozen=True, slots=True)
class _Cover:
    """Gaps that each candidate closes alone, and that two close together while neither does alone."""

    each: list[CoverSet]
    together: dict[tuple[int, int], Rows]

    def of(self, chosen: Collection[int]) -> Rows:
        """Gaps that a set of candidates closes."""
        rows = 0
        for one in chosen:
            rows |= self.each[one].rows
        there = set(chosen)
        for pair, more in self.together.items():
            if there.issuperset(pair):
                rows |= more
        return rows

    def supporters(self, row: int, chosen: Collection[int]) -> list[int]:
        """The candidates of a set that close a gap: one of them, or a pair."""
        for one in chosen:
            if self.each[one].rows >> row & 1:
                return [one]
        there = set(chosen)
        for pair, rows in self.together.items():
            if rows >> row & 1 and there.issuperset(pair):
                return list(pair)
        return []


def _kept(tried: Sequence[Candidate], listed: WeldList) -> list[int]:
    """Candidates that have to be in the set; a record at hand may be named as well, and is there anyhow."""
    names = {one.name for one in tried}
    unknown = sorted(set(listed.shop.keep) - names - {one.number for one in listed.records})
    if unknown:
        raise UnknownEntryError(
            tr("No coupon is called {name}.", name=", ".join(unknown)), tuple(sorted(names))
        )
    return [number for number, one in enumerate(tried) if one.name in listed.shop.keep]


def _open(
    chosen: Mapping[int, Candidate],
    cover: _Cover,
    gaps: Sequence[JointType],
    reached: Sequence[int],
    listed: WeldList,
) -> list[str]:
    """Gaps that a set leaves open, asked of ``covers`` itself: none may wrongly be called closed."""
    code, level = listed.code.id, listed.code.level
    left = []
    for row in reached:
        by = [chosen[one] for one in cover.supporters(row, chosen)]
        records, reports = [one.record for one in by], [one.report for one in by]
        if not covers(records, gaps[row].joint, code, level, reports).covered:
            left.append(gaps[row].key)
    return left


def _cover_of(tried: Sequence[Candidate], sets: CoverSets, watch: Watch) -> _Cover:
    """What each candidate closes by itself, and what two of them close that differ in position alone."""
    each = []
    for number, one in enumerate(tried):
        watch("range", number, len(tried))
        each.append(sets.of(one.record, one.report))
    kin: dict[Hashable, list[int]] = {}
    for number, one in enumerate(tried):
        if each[number].but_position:
            kin.setdefault(one.kin, []).append(number)
    together = {}
    for done, some in enumerate(kin.values()):
        watch("pair", done, len(kin))
        for pair in combinations(some, 2):
            records = [tried[number].record for number in pair]
            if rows := sets.of_pair(records, (each[pair[0]], each[pair[1]])):
                together[pair] = rows
    return _Cover(each, together)


def _undominated(tried: Sequence[Candidate], cover: _Cover, forced: Sequence[int]) -> list[int]:
    """Leave out what covers nothing, and what another covers as well for no more."""
    paired = {one for pair in cover.together for one in pair} | set(forced)
    order = sorted(
        range(len(tried)),
        key=lambda one: (tried[one].cost, -cover.each[one].rows.bit_count(), tried[one].name),
    )
    useful: list[int] = []
    for number in order:
        rows = cover.each[number].rows
        if number in paired or (rows and not any(not rows & ~cover.each[other].rows for other in useful)):
            useful.append(number)
    return useful


def _explained(
    chosen: Sequence[int], tried: Sequence[Candidate], cover: _Cover, gaps: Sequence[JointType]
) -> tuple[ChosenCoupon, ...]:
    whole, found = cover.of(chosen), []
    for number in chosen:
        others = cover.of([one for one in chosen if one != number])
        own = cover.each[number].rows
        for pair, rows in cover.together.items():
            if number in pair and set(pair) <= set(chosen):
                own |= rows
        found.append(
            ChosenCoupon(
                name=tried[number].name,
                record=tried[number].record,
                cost=tried[number].cost,
                covers=tuple(gaps[row].key for row in members(own)),
                only=tuple(gaps[row].key for row in members(whole & ~others)),
            )
        )
    return tuple(sorted(found, key=lambda one: one.name))


def _nearest(
    row: int,
    gaps: Sequence[JointType],
    tried: Sequence[Candidate],
    cover: _Cover,
    sets: CoverSets,
    listed: WeldList,
) -> NoCoupon:
    """What stands in the way: the findings of the candidate with the fewest."""
    gap = gaps[row]
    if not gap.joint.base_metals or not all(one.designation for one in gap.joint.base_metals):
        return NoCoupon(type=gap, nearest="", reasons=(tr("The list states no metal for it."),))
    if gap.joint.process and gap.joint.process not in listed.shop.processes:
        words = tr("The shop does not weld process {process}.", process=gap.joint.process)
        return NoCoupon(type=gap, nearest="", reasons=(words,))
    metal = gap.joint.base_metals[0].designation
    of_metal = [
        number for number, one in enumerate(tried) if one.record.procedure.base_metals[0].designation == metal
    ]
    if not of_metal:
        return NoCoupon(type=gap, nearest="", reasons=(tr("No coupon of these metals could be drafted."),))
    number = min(of_metal, key=lambda one: sets.blocking(row, cover.each[one]))
    best = tried[number]
    said = covers([best.record], gap.joint, listed.code.id, listed.code.level, [best.report])
    return NoCoupon(
        type=gap, nearest=best.name, reasons=tuple(one.message for one in said.records[0].blocking)
    )
