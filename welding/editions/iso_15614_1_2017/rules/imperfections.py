"""Measured imperfections against ISO 5817: level B, some relaxed to C."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.documents.record import MacroTest, VisualTest
from welding.editions.iso_15614_1_2017.rules.basics import table_of
from welding.editions.toolkit import row_of
from welding.language import number, tr, tr_noop
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import rule_of
from welding.testing.limits import SLACK
from welding.testing.verdict import Point

_WORDS = {
    "excess_weld_metal": (tr_noop("excess weld metal"), tr_noop("the width of the weld")),
    "excess_convexity": (tr_noop("excess convexity"), tr_noop("the width of the weld")),
    "excess_penetration": (tr_noop("excess penetration"), tr_noop("the width of the penetration")),
    "excess_throat": (tr_noop("excess throat"), tr_noop("the nominal throat")),
    "short_throat": (tr_noop("throat below nominal"), tr_noop("the nominal throat")),
    "undercut": ("undercut", tr_noop("the thickness")),
    "misalignment": ("misalignment", tr_noop("the thickness")),
    "misalignment_pipe": ("misalignment", tr_noop("the thickness")),
    "root_concavity": (tr_noop("root concavity"), tr_noop("the thickness")),
    "underfill": (tr_noop("incompletely filled groove"), tr_noop("the thickness")),
    "fillet_asymmetry": (tr_noop("difference of the legs"), tr_noop("the throat")),
    "root_gap": (tr_noop("root gap of the fillet"), tr_noop("the nominal throat")),
    "pore": ("pore", tr_noop("the thickness, of a fillet the nominal throat")),
}


def limit_mm(row: Mapping[str, Any], size_mm: float) -> float | None:
    """Limit of an imperfection at the level that its row asks; ``None`` where the level has no limit.

    Args:
        row: Row of the table of imperfections.
        size_mm: Width of the weld, throat or thickness, as the row says [mm].

    Example:
        >>> limit_mm(row_of(table_of("imperfections"), "excess_weld_metal"), 20)
        4.0
    """
    level = str(row["level"]).lower()
    value = row[f"base_{level}"] + row[f"slope_{level}"] * size_mm
    cap = row.get(f"cap_{level}")
    return float(min(value, cap)) if cap is not None else float(value)


def measured_points(coupon: TestCoupon, level: int, test: VisualTest | MacroTest) -> Iterator[Point]:
    """A point for everything that was measured; level 1 does not go by this table."""
    if level == 1:
        return
    width, t, throat = test.width_mm, coupon.thickness_mm, coupon.throat_mm
    fillet = coupon.weld == "fillet"
    misaligned = "misalignment_pipe" if coupon.product == "pipe" else "misalignment"
    asked: list[tuple[str, float | None, float | None]] = [
        ("excess_weld_metal", None if fillet else test.reinforcement_mm, width),
        ("excess_penetration", test.penetration_mm, test.penetration_width_mm),
        ("undercut", test.undercut_mm, t),
        (misaligned, test.misalignment_mm, t),
    ]
    if isinstance(test, VisualTest):
        asked += [("root_concavity", test.root_concavity_mm, t), ("underfill", test.underfill_mm, t)]
    else:
        asked += [
            ("excess_convexity", test.convexity_mm, width),
            ("root_gap", test.root_gap_mm, throat),
            ("pore", test.pore_mm, throat if fillet else t),
        ]
    if fillet:
        asked += _throats(coupon, test)
    for key, value, size in asked:
        if value is not None:
            yield _point(key, value, size, t)


def _throats(
    coupon: TestCoupon, test: VisualTest | MacroTest
) -> Iterator[tuple[str, float | None, float | None]]:
    nominal, found = coupon.throat_mm, test.throat_mm
    if found is None and len(test.legs_mm) == 2:
        a, b = test.legs_mm
        found = a * b / (a * a + b * b) ** 0.5
    if found is not None and nominal is not None:
        yield "short_throat", max(nominal - found, 0.0), nominal
        yield "excess_throat", max(found - nominal, 0.0), nominal
    if len(test.legs_mm) == 2 and nominal is not None:
        yield "fillet_asymmetry", abs(test.legs_mm[0] - test.legs_mm[1]), nominal


def _row(key: str, thickness_mm: float | None) -> Mapping[str, Any] | None:
    """The row of an imperfection for a thickness; ``None`` where that decides and is not stated."""
    table = table_of("imperfections")
    thin = next((row for row in table.rows if row["row"] == f"{key}.thin"), None)
    if thin is None:
        return row_of(table, key)
    if thickness_mm is None:
        return None
    return thin if thickness_mm <= thin["to_mm"] + SLACK else row_of(table, key)


def _point(key: str, value: float, size: float | None, thickness_mm: float | None) -> Point:
    table = table_of("imperfections")
    row = _row(key, thickness_mm)
    if row is None:
        row, size = row_of(table, key), None
    words, lacks = (tr(one) for one in _WORDS[key])
    rule, unchecked = rule_of(table, row), table.unchecked_of(row)
    said = tr("{words} ({row}, level {row2})", words=words, row=row["reference"], row2=row["level"])
    if size is None:
        return Point(None, said, f"{number(value)} mm", rule, unchecked, lacks)
    limit = limit_mm(row, size)
    if limit is None:
        return Point(True, tr("{said}: no limit", said=said), f"{value:g} mm", rule, unchecked)
    return Point(
        value <= limit + SLACK,
        tr("{said} at most {limit:.4g} mm", said=said, limit=limit),
        f"{number(value, '.4g')} mm",
        rule,
        unchecked,
    )
