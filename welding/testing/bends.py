"""Guided bends: the former, the angle, openings on the convex face, cracks from the corners."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from welding.documents.record import BendTest
from welding.language import tr
from welding.quantities.writing import System, quantity_text
from welding.testing.limits import SLACK, Limit
from welding.testing.verdict import Judged, Point


@dataclass(frozen=True, slots=True, kw_only=True)
class BendCriteria:
    """Criteria of one code for one specimen.

    Attributes:
        former: The largest former that may be used [mm]; its value is ``None`` while a fact is missing.
        former_lacks: That fact.
        angle: Bending angle [deg].
        single: Largest single opening [mm].
        counted_above: Openings above this count into the sum [mm].
        total: Largest sum of those [mm].
        corner: ``drop`` (a crack above ``corner_free`` without a cause drops the specimen) or ``ignore``
            (a crack without a cause does not count).
        corner_free: Largest crack from a corner without a cause [mm].
        corner_caused: Largest crack from a corner with a cause [mm].
    """

    former: Limit
    former_lacks: str
    angle: Limit
    single: Limit
    counted_above: Limit
    total: Limit
    corner: Literal["drop", "ignore"]
    corner_free: Limit
    corner_caused: Limit


def former_by_elongation_mm(
    *, thickness_mm: float, elongation_percent: float, factor: float = 4.0, from_percent: float = 20.0
) -> float:
    """Former by the parent's minimum elongation: factor x ts from 20 %, 100·ts/A - ts below.

    Args:
        thickness_mm: Specimen thickness ts [mm].
        elongation_percent: Minimum elongation A of the parent [%], above zero.
        factor: The factor from ``from_percent`` up.
        from_percent: The elongation from which the factor holds.

    Source: ISO 15614-1, bend tests, from memory.

    Example:
        >>> former_by_elongation_mm(thickness_mm=10, elongation_percent=17)
        48.8235294
    """
    if elongation_percent >= from_percent:
        return factor * thickness_mm
    return 100 * thickness_mm / elongation_percent - thickness_mm


def judge_bend(test: BendTest, criteria: BendCriteria, system: System) -> Judged:
    """Judge a bend by its code's criteria."""
    points = [
        _former(test, criteria, system),
        _angle(test, criteria),
        *_openings(test, criteria, system),
        *_corners(test, criteria, system),
    ]
    return Judged(points=tuple(points), main=2)


def _mm(value: float, system: System) -> str:
    return quantity_text(value, "gap", system)


def _former(test: BendTest, criteria: BendCriteria, system: System) -> Point:
    limit = criteria.former
    if test.former_mm is None:
        asked = tr(" of at most {mm}", mm=_mm(limit.value, system)) if limit.value is not None else ""
        return Point(
            None,
            tr("bent over a former{asked}", asked=asked),
            "",
            limit.rule,
            limit.unchecked,
            tr("the former's diameter"),
        )
    if limit.value is None:
        return Point(
            None,
            tr("bent over the code's former"),
            _mm(test.former_mm, system),
            limit.rule,
            limit.unchecked,
            criteria.former_lacks,
        )
    kept = test.former_mm <= limit.value * (1 + 1e-6)
    return Point(
        kept or None,
        tr("former at most {mm}", mm=_mm(limit.value, system)),
        _mm(test.former_mm, system),
        limit.rule,
        limit.unchecked,
        "" if kept else tr("a bend over a former no larger than the code's"),
    )


def _angle(test: BendTest, criteria: BendCriteria) -> Point:
    limit = criteria.angle
    wanted = limit.value or 180.0
    criterion = tr("bent through {wanted:g}°", wanted=wanted)
    if test.angle_deg is None:
        return Point(None, criterion, "", limit.rule, limit.unchecked, tr("the bending angle"))
    if test.angle_deg >= wanted - 1e-6:
        return Point(True, criterion, f"{test.angle_deg:g}°", limit.rule, limit.unchecked)
    return Point(
        None,
        criterion,
        f"{test.angle_deg:g}°",
        limit.rule,
        limit.unchecked,
        tr(
            "the bend stopped at {angle_deg:g}°: say what opened, or bend it through",
            angle_deg=test.angle_deg,
        ),
    )


def _openings(test: BendTest, criteria: BendCriteria, system: System) -> list[Point]:
    single, total, counted = criteria.single, criteria.total, criteria.counted_above
    criterion = tr("no opening over {mm} on the convex face", mm=_mm(single.value or 0.0, system))
    if test.openings_mm is None:
        return [
            Point(
                None,
                criterion,
                "",
                single.rule,
                single.unchecked,
                tr("the openings (an empty list where there are none)"),
            )
        ]
    largest = max(test.openings_mm, default=0.0)
    points = [
        Point(
            largest <= (single.value or 0.0) + SLACK,
            criterion,
            tr("largest {mm}", mm=_mm(largest, system)) if test.openings_mm else "none",
            single.rule,
            single.unchecked,
        )
    ]
    if total.value is not None and counted.value is not None:
        added = sum(
            mm
            for mm in test.openings_mm
            if mm > counted.value + SLACK and mm <= (single.value or 0.0) + SLACK
        )
        points.append(
            Point(
                added <= total.value + SLACK,
                tr(
                    "openings over {mm} add up to at most {mm2}",
                    mm=_mm(counted.value, system),
                    mm2=_mm(total.value, system),
                ),
                _mm(added, system),
                total.rule,
                total.unchecked,
            )
        )
    return points


def _corners(test: BendTest, criteria: BendCriteria, system: System) -> list[Point]:
    points = []
    caused = criteria.corner_caused
    for crack in test.corner_cracks:
        found = _mm(crack.mm, system)
        limit = caused.value or 0.0
        with_cause = tr("corner crack from a visible flaw at most {mm}", mm=_mm(limit, system))
        if crack.cause is None and crack.mm > limit + SLACK:
            points.append(
                Point(
                    None,
                    with_cause,
                    found,
                    caused.rule,
                    caused.unchecked,
                    tr("what the corner crack of {found} starts from", found=found),
                )
            )
        elif crack.cause in (None, "none-seen"):
            points.append(_without_cause(crack.mm, criteria, system))
        else:
            points.append(
                Point(
                    crack.mm <= limit + SLACK,
                    with_cause,
                    tr("{found}, from {cause}", found=found, cause=crack.cause),
                    caused.rule,
                    caused.unchecked,
                )
            )
    return points


def _without_cause(mm: float, criteria: BendCriteria, system: System) -> Point:
    free, found = criteria.corner_free, _mm(mm, system)
    if criteria.corner == "ignore":
        return Point(True, tr("corner cracks without a flaw do not count"), found, free.rule, free.unchecked)
    limit = free.value or 0.0
    kept = mm <= limit + SLACK
    return Point(
        kept or None,
        tr("corner crack without a flaw at most {mm}", mm=_mm(limit, system)),
        found,
        free.rule,
        free.unchecked,
        "" if kept else tr("another specimen in its place (discard this one with its reason)"),
    )
