"""Coupons that were compared, and what they cover alone and in pairs."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from itertools import combinations

from welding.coverage.cover_sets import CoverSets, Rows
from welding.weldlist.pieces import Candidate


@dataclass(frozen=True, slots=True)
class Tried:
    """Candidates with the gaps that each closes, and that two close together while neither does alone."""

    candidates: Sequence[Candidate]
    rows: Sequence[Rows]
    together: dict[tuple[int, int], Rows]

    def of(self, chosen: Collection[int]) -> Rows:
        """Gaps that a set of candidates closes."""
        found = 0
        for one in chosen:
            found |= self.rows[one]
        there = set(chosen)
        for pair, more in self.together.items():
            if there.issuperset(pair):
                found |= more
        return found

    def supporters(self, row: int, chosen: Collection[int]) -> list[int]:
        """The candidates of a set that close a gap: one of them, or a pair; none where it stays open."""
        for one in chosen:
            if self.rows[one] >> row & 1:
                return [one]
        there = set(chosen)
        for pair, rows in self.together.items():
            if rows >> row & 1 and there.issuperset(pair):
                return list(pair)
        return []

    def undominated(self, forced: Collection[int], apart: bool = False) -> list[int]:
        """All but what covers nothing, and what another covers as well for no more.

        Args:
            forced: Candidates that stay in any case.
            apart: Compare coupons of one position alone; where positions are limited, each counts for itself.
        """
        paired = {one for pair in self.together for one in pair} | set(forced)
        of = self.candidates
        order = sorted(
            range(len(of)), key=lambda one: (of[one].cost, -self.rows[one].bit_count(), of[one].name)
        )
        useful: list[int] = []
        kept: dict[str, list[Rows]] = {}
        for number in order:
            rows = self.rows[number]
            others = kept.setdefault(of[number].piece.position if apart else "", [])
            if number in paired or (rows and not any(not rows & ~other for other in others)):
                useful.append(number)
                others.append(rows)
        return useful


def cover_of_size(
    coupons: Sequence[Candidate], sets: CoverSets
) -> tuple[list[Rows], dict[tuple[int, int], Rows]]:
    """What coupons of one family and size cover, each alone, and as pairs that differ in position alone."""
    each = [sets.of(one.record, one.report) for one in coupons]
    together = {}
    for one, two in combinations(range(len(coupons)), 2):
        if coupons[one].piece.requirements != coupons[two].piece.requirements:
            continue
        rows = sets.of_pair([(coupons[n].record, coupons[n].report, each[n]) for n in (one, two)])
        if rows:
            together[one, two] = rows
    return [one.rows for one in each], together


def put_together(
    some: Sequence[tuple[Sequence[Candidate], Sequence[Rows], dict[tuple[int, int], Rows]]],
) -> Tried:
    """Coupons of many sizes, numbered anew."""
    candidates: list[Candidate] = []
    rows: list[Rows] = []
    together: dict[tuple[int, int], Rows] = {}
    for coupons, covered, pairs in some:
        start = len(candidates)
        together |= {(start + one, start + two): found for (one, two), found in pairs.items()}
        candidates += coupons
        rows += covered
    return Tried(candidates, rows, together)
