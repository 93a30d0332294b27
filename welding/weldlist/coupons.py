"""The fewest coupons: which joints lack cover, and the cheapest coupons that give it to all of them."""

from __future__ import annotations

from collections.abc import Collection, Hashable, Sequence
from dataclasses import dataclass
from itertools import combinations

from welding.codebook.catalogue import by_code
from welding.coverage.covers import covers, required_of
from welding.coverage.matrix import Cell, coverage_matrix
from welding.coverage.record import in_force, keeping_ranges
from welding.documents.record import QualificationRecord
from welding.documents.weld_list import WeldList
from welding.errors import UnknownEntryError, WeldingError
from welding.finding import Finding
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.weldlist.candidates import Candidate, candidates_for, drafted
from welding.weldlist.cheapest import cheapest_set
from welding.weldlist.joint_types import JointType, joint_types
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


@by_code
@keeping_ranges()
def fewest_coupons(listed: WeldList, seconds: float = 60.0) -> FewestCoupons:
    """Find the cheapest set of coupons for what the records at hand do not cover.

    Args:
        listed: Joints, records, shop and prices.
        seconds: Time for the solver; afterwards the best set found is given with its bound.

    Raises:
        UnknownEntryError: No such code, or a candidate is to be kept that there is none of.
    """
    types = joint_types(listed.joints, listed.code)
    stand = types_covered(types, listed.records, listed.code)
    gaps = [one.type for one in stand if one.verdict != "covered"]
    tried = candidates_for(gaps, listed.code, listed.shop, listed.prices)
    cover = _cover_of(tried, gaps, listed)
    forced = _kept(tried, listed)
    reached = sorted(set().union(*cover.alone, *cover.together.values()))
    place = {row: number for number, row in enumerate(reached)}
    useful = _undominated(tried, cover, forced)
    number_of = {one: number for number, one in enumerate(useful)}
    found = cheapest_set(
        len(reached),
        [{place[row] for row in cover.alone[one]} for one in useful],
        [tried[one].cost for one in useful],
        pairs={
            (number_of[one], number_of[two]): {place[row] for row in rows}
            for (one, two), rows in cover.together.items()
        },
        forced=[number_of[one] for one in forced],
        seconds=seconds,
    )
    chosen = [useful[number] for number in found.chosen]
    closed = [gaps[row] for row in reached]
    own = {number: drafted(tried[number], listed.code) for number in chosen}
    # A draft for its own position may be welded otherwise, and then cover less: the plan compared is kept.
    if not _open([own[one] for one in chosen], closed, listed):
        tried = tuple(own.get(number, one) for number, one in enumerate(tried))
    wrong = _open([tried[one] for one in chosen], closed, listed)
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
            _nearest(gap, tried, listed) for number, gap in enumerate(gaps) if number not in place
        ),
    )


@dataclass(frozen=True, slots=True)
class _Cover:
    """Gaps that each candidate closes alone, and that two close together while neither does alone."""

    alone: list[frozenset[int]]
    together: dict[tuple[int, int], frozenset[int]]

    def of(self, chosen: Collection[int]) -> frozenset[int]:
        """Gaps that a set of candidates closes."""
        pairs = (rows for pair, rows in self.together.items() if set(pair) <= set(chosen))
        return frozenset().union(*(self.alone[one] for one in chosen), *pairs)


def _kept(tried: Sequence[Candidate], listed: WeldList) -> list[int]:
    """Candidates that have to be in the set; a record at hand may be named as well, and is there anyhow."""
    names = {one.name for one in tried}
    unknown = sorted(set(listed.shop.keep) - names - {one.number for one in listed.records})
    if unknown:
        raise UnknownEntryError(
            tr("No coupon is called {name}.", name=", ".join(unknown)), tuple(sorted(names))
        )
    return [number for number, one in enumerate(tried) if one.name in listed.shop.keep]


def _open(chosen: Sequence[Candidate], gaps: Sequence[JointType], listed: WeldList) -> list[str]:
    """Gaps that a set leaves open, asked of ``covers`` as a whole: none may wrongly be called closed."""
    records, reports = [one.record for one in chosen], [one.report for one in chosen]
    code, level = listed.code.id, listed.code.level
    return [gap.key for gap in gaps if not covers(records, gap.joint, code, level, reports).covered]


def _cover_of(tried: Sequence[Candidate], gaps: Sequence[JointType], listed: WeldList) -> _Cover:
    """What each candidate closes by itself, and what two of them close that differ in position alone."""
    code, level = listed.code.id, listed.code.level
    table = coverage_matrix(
        [one.record for one in tried],
        [one.joint for one in gaps],
        code,
        level,
        [one.report for one in tried],
    )
    alone = [
        frozenset(row for row, cells in enumerate(table) if cells[number].verdict == "covered")
        for number in range(len(tried))
    ]
    return _Cover(alone, _together(tried, gaps, table, listed))


def _together(
    tried: Sequence[Candidate],
    gaps: Sequence[JointType],
    table: Sequence[Sequence[Cell]],
    listed: WeldList,
) -> dict[tuple[int, int], frozenset[int]]:
    """Gaps that two coupons close which differ in position alone, while neither does by itself."""
    asked = in_force(listed.code)
    rules = asked.edition.qualification
    needs = [rules.needs(required_of(gap.joint, asked).need_facts, asked.level) for gap in gaps]
    kin: dict[Hashable, list[int]] = {}
    for number, one in enumerate(tried):
        kin.setdefault(one.kin, []).append(number)
    found: dict[tuple[int, int], frozenset[int]] = {}
    for pair in (pair for members in kin.values() for pair in combinations(members, 2)):
        records = [tried[number].record for number in pair]
        first, second = (TestCoupon(record) for record in records)
        closed = []
        for row, cells in enumerate(table):
            # Where anything but the position speaks against one of them, a pair does not help.
            if any(cells[number].variables != ("positions",) for number in pair):
                continue
            if not rules.both_positions(first, second, asked.level, needs[row]):
                continue
            reports = [tried[number].report for number in pair]
            if covers(records, gaps[row].joint, asked.code.id, asked.code.level, reports).covered:
                closed.append(row)
        if closed:
            found[pair] = frozenset(closed)
    return found


def _undominated(tried: Sequence[Candidate], cover: _Cover, forced: Sequence[int]) -> list[int]:
    """Leave out what covers nothing, and what another covers as well for no more."""
    paired = {one for pair in cover.together for one in pair} | set(forced)
    order = sorted(
        range(len(tried)), key=lambda one: (tried[one].cost, -len(cover.alone[one]), tried[one].name)
    )
    useful: list[int] = []
    for number in order:
        rows = cover.alone[number]
        if number in paired or (rows and not any(rows <= cover.alone[other] for other in useful)):
            useful.append(number)
    return useful


def _explained(
    chosen: Sequence[int], tried: Sequence[Candidate], cover: _Cover, gaps: Sequence[JointType]
) -> tuple[ChosenCoupon, ...]:
    whole, found = cover.of(chosen), []
    for number in chosen:
        others = cover.of([one for one in chosen if one != number])
        own = cover.alone[number] | {
            row
            for pair, rows in cover.together.items()
            if number in pair and set(pair) <= set(chosen)
            for row in rows
        }
        found.append(
            ChosenCoupon(
                name=tried[number].name,
                record=tried[number].record,
                cost=tried[number].cost,
                covers=tuple(gaps[row].key for row in sorted(own)),
                only=tuple(gaps[row].key for row in sorted(whole - others)),
            )
        )
    return tuple(sorted(found, key=lambda one: one.name))


def _nearest(gap: JointType, tried: Sequence[Candidate], listed: WeldList) -> NoCoupon:
    """What stands in the way: the findings of the candidate with the fewest."""
    if not gap.joint.base_metals or not all(one.designation for one in gap.joint.base_metals):
        return NoCoupon(type=gap, nearest="", reasons=(tr("The list states no metal for it."),))
    if gap.joint.process and gap.joint.process not in listed.shop.processes:
        words = tr("The shop does not weld process {process}.", process=gap.joint.process)
        return NoCoupon(type=gap, nearest="", reasons=(words,))
    best: tuple[int, str, tuple[Finding, ...]] | None = None
    for one in tried:
        if one.record.procedure.base_metals[0].designation != gap.joint.base_metals[0].designation:
            continue
        said = covers([one.record], gap.joint, listed.code.id, listed.code.level, [one.report])
        against = said.records[0].blocking
        if best is None or len(against) < best[0]:
            best = len(against), one.name, against
    if best is None:
        return NoCoupon(type=gap, nearest="", reasons=(tr("No coupon of these metals could be drafted."),))
    return NoCoupon(type=gap, nearest=best[1], reasons=tuple(one.message for one in best[2]))
