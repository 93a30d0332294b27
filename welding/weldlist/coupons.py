"""The fewest coupons: which joints lack cover, and the cheapest coupons that give it to all of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from welding.codebook.catalogue import by_code
from welding.coverage.cover_sets import CoverSets, members
from welding.coverage.covers import covers
from welding.coverage.record import in_force, keeping_ranges
from welding.documents.codec import RECORD
from welding.documents.joint_list import JointToWeld
from welding.documents.record import QualificationRecord
from welding.documents.weld_list import WeldList
from welding.errors import UnknownEntryError, WeldingError
from welding.language import tr
from welding.weldlist.cheapest import CheapestSet, TooFewKindsError, cheapest_set
from welding.weldlist.joint_types import JointType, joint_types
from welding.weldlist.pieces import Candidate
from welding.weldlist.screening import tried_for
from welding.weldlist.spread import Watch
from welding.weldlist.standing import TypeCover, types_covered
from welding.weldlist.tried import Tried

MOST_NEAR = 25
"""So many of the coupons that are most like a joint are asked what stands in the way."""


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

    def plain(self) -> dict[str, Any]:
        """As JSON has it; the record in its open format."""
        return {
            "name": self.name,
            "cost": self.cost,
            "covers": list(self.covers),
            "only": list(self.only),
            "record": RECORD.plain(self.record),
        }


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
def fewest_coupons(
    listed: WeldList, seconds: float = 60.0, workers: int = 1, watch: Watch = _unwatched
) -> FewestCoupons:
    """Find the cheapest set of coupons for what the records at hand do not cover.

    Args:
        listed: Joints, records, shop and prices.
        seconds: Time for the solver; afterwards the best set found is given with its bound.
        workers: Processors to use.
        watch: Told how far the search is; what it raises ends the search.

    Raises:
        UnknownEntryError: No such code, or a candidate is to be kept that there is none of.
        WeldingError: Coupons in so few positions as the shop allows do not cover all.
    """
    watch("records", 0, 1)
    types = joint_types(listed.joints, listed.code)
    stand = types_covered(types, listed.records, listed.code)
    gaps = [one.type for one in stand if one.verdict != "covered"]
    sets = CoverSets([one.joint for one in gaps], in_force(listed.code))
    tried = tried_for(gaps, listed.code, listed.shop, listed.prices, sets, workers, watch)
    forced = _kept(tried.candidates, listed)
    reached = sorted(members(tried.of(range(len(tried.candidates)))))
    place = {row: number for number, row in enumerate(reached)}
    watch("solve", 0, 1)
    found, numbers = _cheapest(tried, place, forced, listed.shop.most_positions, seconds)
    watch("check", 0, 1)
    chosen = {number: tried.candidates[number] for number in numbers}
    own = {number: one.for_its_position() for number, one in chosen.items()}
    # A draft for its own position may be welded otherwise, and then cover less: the plan compared is kept.
    if not _open(own, tried, gaps, reached, listed):
        chosen = own
    elif wrong := _open(chosen, tried, gaps, reached, listed):
        raise WeldingError(tr("The set does not cover {key}: report this.", key=", ".join(wrong)))
    left = [number for number in range(len(gaps)) if number not in place]
    return FewestCoupons(
        types=stand,
        coupons=_explained(chosen, tried, gaps),
        cost=round(found.cost, 2),
        bound=round(found.bound, 2),
        optimal=found.optimal,
        tried=len(tried.candidates),
        uncovered=tuple(_nearest(number, gaps, tried, sets, listed) for number in left),
    )


def _cheapest(
    tried: Tried, place: Mapping[int, int], forced: Sequence[int], most_positions: int | None, seconds: float
) -> tuple[CheapestSet, list[int]]:
    """The cheapest set, and the numbers of its candidates; ``place`` numbers the gaps that can be closed."""
    useful = tried.undominated(forced, apart=most_positions is not None)
    number_of = {one: number for number, one in enumerate(useful)}
    try:
        found = cheapest_set(
            len(place),
            [{place[row] for row in members(tried.rows[one])} for one in useful],
            [tried.candidates[one].cost for one in useful],
            pairs={
                (number_of[one], number_of[two]): {place[row] for row in members(rows)}
                for (one, two), rows in tried.together.items()
            },
            forced=[number_of[one] for one in forced],
            kinds=[tried.candidates[one].piece.position for one in useful],
            most_kinds=most_positions,
            seconds=seconds,
        )
    except TooFewKindsError as few:
        raise WeldingError(
            tr(
                "Coupons in at most {most} positions do not cover all joints; in {least} positions they do.",
                most=most_positions,
                least=few.least,
            )
        ) from few
    return found, [useful[one] for one in found.chosen]


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
    tried: Tried,
    gaps: Sequence[JointType],
    reached: Sequence[int],
    listed: WeldList,
) -> list[str]:
    """Gaps that a set leaves open, asked of ``covers`` itself: none may wrongly be called closed."""
    code, level = listed.code.id, listed.code.level
    left = []
    for row in reached:
        by = [chosen[one] for one in tried.supporters(row, chosen)]
        records, reports = [one.record for one in by], [one.report for one in by]
        if not covers(records, gaps[row].joint, code, level, reports).covered:
            left.append(gaps[row].key)
    return left


def _explained(
    chosen: Mapping[int, Candidate], tried: Tried, gaps: Sequence[JointType]
) -> tuple[ChosenCoupon, ...]:
    whole, found = tried.of(chosen), []
    for number, one in chosen.items():
        others = tried.of([other for other in chosen if other != number])
        own = tried.rows[number]
        for pair, rows in tried.together.items():
            if number in pair and set(pair) <= set(chosen):
                own |= rows
        found.append(
            ChosenCoupon(
                name=one.name,
                record=one.record,
                cost=one.cost,
                covers=tuple(gaps[row].key for row in members(own)),
                only=tuple(gaps[row].key for row in members(whole & ~others)),
            )
        )
    return tuple(sorted(found, key=lambda one: one.name))


def _nearest(
    row: int, gaps: Sequence[JointType], tried: Tried, sets: CoverSets, listed: WeldList
) -> NoCoupon:
    """What stands in the way: the findings of the candidate with the fewest."""
    gap = gaps[row]
    if not gap.joint.base_metals or not all(one.designation for one in gap.joint.base_metals):
        return NoCoupon(type=gap, nearest="", reasons=(tr("The list states no metal for it."),))
    if gap.joint.process and gap.joint.process not in listed.shop.processes:
        words = tr("The shop does not weld process {process}.", process=gap.joint.process)
        return NoCoupon(type=gap, nearest="", reasons=(words,))
    near = sorted(tried.candidates, key=lambda one: _apart(one, gap.joint))[:MOST_NEAR]
    if not near:
        return NoCoupon(type=gap, nearest="", reasons=(tr("No coupon of these metals could be drafted."),))
    best = min(near, key=lambda one: sets.blocking(row, one.record, one.report))
    said = covers([best.record], gap.joint, listed.code.id, listed.code.level, [best.report])
    return NoCoupon(
        type=gap, nearest=best.name, reasons=tuple(one.message for one in said.records[0].blocking)
    )


def _apart(one: Candidate, joint: JointToWeld) -> tuple[bool, bool, float]:
    """How little a coupon is like a joint: other metal, other weld, other thickness."""
    piece = one.piece
    weld = joint.joint.weld if joint.joint else None
    sizes = [member.thickness_mm for member in joint.base_metals if member.thickness_mm]
    return (
        piece.family.metals[0] != joint.base_metals[0].designation,
        (piece.family.joint.weld == "fillet") != (weld == "fillet"),
        min((abs(piece.thickness_mm - mm) for mm in sizes), default=0.0),
    )
