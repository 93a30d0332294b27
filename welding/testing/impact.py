"""Charpy sets: mean and single values against what is required."""

from __future__ import annotations

from dataclasses import dataclass

from welding.documents.record import ImpactTest
from welding.language import tr
from welding.quantities.writing import System, quantity_text
from welding.testing.limits import Limit
from welding.testing.verdict import Judged, Point


@dataclass(frozen=True, slots=True, kw_only=True)
class ImpactCriteria:
    """What a set has to reach.

    Attributes:
        average: Least mean [J]; ``None`` while it is not known.
        average_lacks: What is missing then.
        single: Least single value [J].
        below_mean_most: How many values may lie below the mean asked.
        temperature_c: Temperature at which it is required [°C].
        colder_by: How much colder a specimen of this width is tested [°C]; ``None`` for an odd width.
        width: What a narrower specimen means for the energy asked: ``asked`` leaves it open.
        count: Values of a set.
        drop_ends_of_five: Whether the highest and lowest of five are left out.
    """

    average: Limit
    average_lacks: str
    single: Limit
    below_mean_most: int
    temperature_c: float | None
    colder_by: Limit
    width: str
    count: int
    drop_ends_of_five: bool


def judge_impact(test: ImpactTest, criteria: ImpactCriteria, system: System) -> Judged:
    """Judge a set. A blank is a value that is still missing, and no verdict comes from two of three."""
    points = [_temperature(test, criteria, system)]
    average = criteria.average
    known = [value for value in test.values_j if value is not None]
    blanks = len(test.values_j) - len(known)
    if blanks or len(known) < criteria.count:
        short = max(criteria.count - len(known), blanks)
        need = tr("{short} more value{value} of the set", short=short, value="s" if short > 1 else "")
        points.append(Point(None, tr("mean of the set"), _list(known), average.rule, average.unchecked, need))
        return Judged(points=tuple(points), lacking=_location(test))
    if criteria.width == "asked" and test.width_mm is not None and test.width_mm < 10 - 1e-9:
        need = tr(
            "the energy asked for specimens {width_mm:g} mm wide (application standard)",
            width_mm=test.width_mm,
        )
        points.append(Point(None, tr("mean of the set"), _list(known), average.rule, average.unchecked, need))
        return Judged(points=tuple(points), lacking=_location(test))
    if criteria.drop_ends_of_five and len(known) == 5:
        known = sorted(known)[1:-1]
    points += _energies(known, criteria)
    return Judged(points=tuple(points), lacking=_location(test), main=1)


def _location(test: ImpactTest) -> tuple[str, ...]:
    return () if test.location else (tr("where the notch is"),)


def _list(values: list[float]) -> str:
    return ", ".join(f"{value:g}" for value in values) + " J" if values else ""


def _temperature(test: ImpactTest, criteria: ImpactCriteria, system: System) -> Point:
    rule, unchecked = criteria.colder_by.rule, criteria.colder_by.unchecked
    if test.temperature_c is None:
        return Point(
            None, tr("tested at a stated temperature"), "", rule, unchecked, tr("the test temperature")
        )
    found = quantity_text(test.temperature_c, "temperature", system)
    if criteria.temperature_c is None:
        return Point(True, tr("test temperature stated"), found, rule, unchecked)
    if criteria.colder_by.value is None:
        need = tr("a specimen width of the table ({width_mm:g} mm is none)", width_mm=test.width_mm)
        return Point(None, tr("tested cold enough for its width"), found, rule, unchecked, need)
    wanted = criteria.temperature_c - criteria.colder_by.value
    criterion = tr(
        "tested at {quantity_text} or colder", quantity_text=quantity_text(wanted, "temperature", system)
    )
    kept = test.temperature_c <= wanted + 1e-6
    return Point(
        kept or None,
        criterion,
        found,
        rule,
        unchecked,
        ""
        if kept
        else tr(
            "a set at {quantity_text} or colder", quantity_text=quantity_text(wanted, "temperature", system)
        ),
    )


def _energies(values: list[float], criteria: ImpactCriteria) -> list[Point]:
    average, single = criteria.average, criteria.single
    mean = sum(values) / len(values)
    actual = tr("mean {mean:.1f} J of {list}", mean=mean, list=_list(values))
    if average.value is None:
        return [
            Point(
                None, tr("mean of the set"), actual, average.rule, average.unchecked, criteria.average_lacks
            )
        ]
    wanted = average.value
    points = [
        Point(
            mean >= wanted - 1e-9,
            tr("mean at least {wanted:g} J", wanted=wanted),
            actual,
            average.rule,
            average.unchecked,
        )
    ]
    low = [value for value in values if value < wanted - 1e-9]
    points.append(
        Point(
            len(low) <= criteria.below_mean_most,
            tr(
                "at most {below_mean_most} value below {wanted:g} J",
                below_mean_most=criteria.below_mean_most,
                wanted=wanted,
            ),
            tr("{count} below", count=len(low)),
            single.rule,
            single.unchecked,
        )
    )
    if single.value is not None:
        points.append(
            Point(
                min(values) >= single.value - 1e-9,
                tr("every value at least {value:g} J", value=single.value),
                tr("lowest {min:g} J", min=min(values)),
                single.rule,
                single.unchecked,
            )
        )
    return points
