"""Verdicts of AWS D1.1:2020 on specimens (clause 6.10), and its retest rules."""

from __future__ import annotations

from welding.documents.record import (
    BendTest,
    FractureTest,
    HardnessTest,
    ImpactTest,
    MacroTest,
    NdtTest,
    TensileTest,
    Test,
    VisualTest,
)
from welding.editions.aws_d1_1_2020.rules.basics import figure, table_of
from welding.editions.aws_d1_1_2020.rules.range_size import groove_row
from welding.editions.toolkit import row_of
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import rule_of
from welding.qualification.needs import Needs
from welding.quantities.writing import quantity_text
from welding.testing.bends import BendCriteria, judge_bend
from welding.testing.hardness import judge_hardness
from welding.testing.impact import ImpactCriteria, judge_impact
from welding.testing.limits import Limit, at_most, must
from welding.testing.ndt import judge_break, judge_ndt, outcome_point
from welding.testing.overall import RetestRule
from welding.testing.tensile import inches_for_mm, judge_tensile
from welding.testing.verdict import Judged, Point

_YIELD_SLACK = 0.005
"""345 MPa and 50 ksi are one printed class."""


def limit_of(coupon: TestCoupon, name: str) -> Limit:
    """A limit of the acceptance table, in mm or as printed."""
    table = table_of("acceptance")
    row = row_of(table, name)
    value = figure(row, "limit", coupon.units)
    if value is None:
        value = row.get("limit_deg")
    return Limit(value, rule_of(table, row), table.unchecked_of(row))


def former_limit(coupon: TestCoupon) -> tuple[Limit, str]:
    """Largest former by the base metals' yield; the smaller one where they differ."""
    table = table_of("bend_jig")
    yields = []
    for metal, t in zip(coupon.metals, coupon.thicknesses_mm or (None, None), strict=False):
        grade = coupon.grade(metal)
        found = metal.yield_mpa or (grade.yield_at(t) if grade else None)
        if found is None:
            empty = Limit(None, rule_of(table, table.rows[0]), table.unchecked_of(table.rows[0]))
            return empty, tr("the yield of {value}", value=metal.designation or tr("a base metal"))
        yields.append(found)
    if not yields:
        empty = Limit(None, rule_of(table, table.rows[0]), table.unchecked_of(table.rows[0]))
        return empty, tr("the base metals")
    least = min(yields)
    for row in table.rows:
        top, below = row.get("yield_to_mpa"), row.get("yield_below_mpa")
        if top is not None and least > top * (1 + _YIELD_SLACK):
            continue
        if below is not None and least >= below * (1 - _YIELD_SLACK):
            continue
        return Limit(figure(row, "former", coupon.units), rule_of(table, row), table.unchecked_of(row)), ""
    raise AssertionError("the last row of the bend jig has no upper limit")


def judge_specimen(coupon: TestCoupon, level: int, needs: Needs, test: Test) -> Judged:
    """Judge one specimen."""
    if isinstance(test, VisualTest):
        return _visual(coupon, test)
    if isinstance(test, NdtTest):
        limit = limit_of(coupon, "ndt")
        return judge_ndt(test, tr("accepted by the criteria of clause 8 for static loading"), limit)
    if isinstance(test, TensileTest):
        return _tensile(coupon, test)
    if isinstance(test, BendTest):
        return _bend(coupon, test)
    if isinstance(test, MacroTest):
        return _macro(coupon, test)
    if isinstance(test, FractureTest):
        flaw, total, length = (limit_of(coupon, f"break.{name}") for name in ("flaw", "sum", "length"))
        return judge_break(test, flaw, total, length, coupon.units)
    if isinstance(test, HardnessTest):
        return judge_hardness(
            test,
            limit_of(coupon, "hardness"),
            tr("the limit of hardness that was agreed (this code sets none)"),
            lines=1,
            indents=3,
            lines_text=tr("as agreed"),
        )
    return _impact(coupon, test)


def _visual(coupon: TestCoupon, test: VisualTest) -> Judged:
    undercut = limit_of(coupon, "visual.undercut")
    points: list[Point] = [outcome_point(test.outcome, tr("visual examination accepted"), undercut)]
    if test.cracks is not None:
        points.append(must(test.cracks, False, tr("no cracks"), undercut, "cracks"))
    if test.craters_filled is not None:
        points.append(must(test.craters_filled, True, tr("craters filled"), undercut, "craters"))
    if test.complete_fusion is not None:
        points.append(must(test.complete_fusion, True, tr("complete fusion"), undercut, "fusion"))
    for value, name, words in (
        (test.reinforcement_mm, "visual.reinforcement", "reinforcement"),
        (test.undercut_mm, "visual.undercut", "undercut"),
        (test.root_concavity_mm, "visual.root_concavity", tr("root concavity")),
        (test.penetration_mm, "visual.melt_through", tr("melt-through at the root")),
        (test.underfill_mm, "visual.underfill", "underfill"),
    ):
        if value is not None:
            points.append(at_most(limit_of(coupon, name), value, words, coupon.units))
    if test.legs_mm and coupon.weld == "fillet" and coupon.leg_mm is not None:
        points.append(_legs(coupon, test.legs_mm))
    return Judged(points=tuple(points))


def _legs(coupon: TestCoupon, legs: tuple[float, ...]) -> Point:
    limit, wanted = limit_of(coupon, "legs"), coupon.leg_mm or 0.0
    return Point(
        min(legs) >= wanted - 1e-6,
        tr("legs at least {quantity_text}", quantity_text=quantity_text(wanted, "gap", coupon.units)),
        tr(" and ").join(quantity_text(leg, "gap", coupon.units) for leg in legs),
        limit.rule,
        limit.unchecked,
    )


def _tensile(coupon: TestCoupon, test: TensileTest) -> Judged:
    table = table_of("acceptance")
    row = row_of(table, "tension")
    rule, unchecked = rule_of(table, row), table.unchecked_of(row)
    if test.kind == "all-weld-tensile":
        strengths = [run.filler.tensile_mpa for run in coupon.runs if run.filler and run.filler.tensile_mpa]
        return judge_tensile(
            test,
            Limit(min(strengths) if strengths else None, rule, unchecked),
            tr("the least strength of the filler's class"),
            tr("the filler's class"),
            coupon.units,
            None,
        )
    least, lacks, what = least_tensile(coupon)
    return judge_tensile(test, Limit(least, rule, unchecked), lacks, what, coupon.units, coupon.thickness_mm)


def least_tensile(coupon: TestCoupon) -> tuple[float | None, str, str]:
    """Specified least strength of the weaker metal [MPa], what is missing for it, whose it is."""
    found: list[tuple[float, str]] = []
    for metal in coupon.metals:
        grade = coupon.grade(metal)
        value = metal.tensile_mpa or (
            grade.tensile_printed_mpa(coupon.units, metal.thickness_mm or coupon.thickness_mm)
            if grade
            else None
        )
        name = metal.designation or tr("a base metal")
        if value is None:
            return (
                None,
                tr("the specified tensile strength of {name}", name=name),
                tr("the base metal's specified minimum"),
            )
        found.append((value, name))
    if not found:
        return None, tr("the base metals"), tr("the base metal's specified minimum")
    value, name = min(found)
    return value, "", tr("specified for {name}", name=name)


def _bend(coupon: TestCoupon, test: BendTest) -> Judged:
    former, lacks = former_limit(coupon)
    strange = inches_for_mm(test.thickness_mm, coupon.thickness_mm)
    if strange:
        return Judged(points=(Point(None, tr("specimen thickness"), "", former.rule, (), strange),))
    criteria = BendCriteria(
        former=former,
        former_lacks=lacks,
        angle=limit_of(coupon, "bend.angle"),
        single=limit_of(coupon, "bend.single"),
        counted_above=limit_of(coupon, "bend.counted_above"),
        total=limit_of(coupon, "bend.sum"),
        corner="drop",
        corner_free=limit_of(coupon, "bend.corner"),
        corner_caused=limit_of(coupon, "bend.corner_with_cause"),
    )
    return judge_bend(test, criteria, coupon.units)


def _macro(coupon: TestCoupon, test: MacroTest) -> Judged:
    limit = limit_of(coupon, "macro.undercut")
    points = [
        must(test.cracks, False, tr("no cracks"), limit, tr("whether there are cracks")),
        must(
            test.complete_fusion,
            True,
            tr("complete fusion between layers and to the base metal"),
            limit,
            tr("whether fusion is complete"),
        ),
    ]
    if test.undercut_mm is not None:
        points.append(at_most(limit, test.undercut_mm, "undercut", coupon.units))
    if coupon.weld == "fillet":
        points.append(
            must(
                test.fused_to_root,
                True,
                tr("fused to the root"),
                limit,
                tr("whether it is fused to the root"),
            )
        )
        legs = limit_of(coupon, "legs")
        if coupon.leg_mm is None:
            points.append(
                Point(None, tr("legs as specified"), "", legs.rule, (), tr("the leg that is specified"))
            )
        elif not test.legs_mm:
            points.append(
                Point(None, tr("legs as specified"), "", legs.rule, (), tr("both legs as measured"))
            )
        else:
            points.append(_legs(coupon, test.legs_mm))
    if coupon.weld == "pjp-groove":
        points.append(_size(coupon, test, limit))
    return Judged(points=tuple(points), main=1)


def _size(coupon: TestCoupon, test: MacroTest, limit: Limit) -> Point:
    asked = coupon.joint.throat_mm if coupon.joint else None
    if asked is None:
        return Point(
            None, tr("weld size E as specified"), "", limit.rule, (), tr("the weld size E that is specified")
        )
    criterion = tr(
        "weld size E at least {quantity_text}", quantity_text=quantity_text(asked, "gap", coupon.units)
    )
    if test.weld_size_mm is None:
        return Point(None, criterion, "", limit.rule, (), tr("the weld size E as measured"))
    found = quantity_text(test.weld_size_mm, "gap", coupon.units)
    return Point(test.weld_size_mm >= asked - 1e-6, criterion, found, limit.rule, limit.unchecked)


def _impact(coupon: TestCoupon, test: ImpactTest) -> Judged:
    table = table_of("impact_tests")
    default, places = row_of(table, "default"), row_of(table, "places")
    rule, unchecked = rule_of(table, default), table.unchecked_of(default)
    us = coupon.units == "us"
    average = default["average_ft_lbf"] * 1.3558179483 if us else default["average_j"]
    single = default["single_ft_lbf"] * 1.3558179483 if us else default["single_j"]
    asked = coupon.impact_asked
    wanted = getattr(asked, "average_j", None)
    if wanted is not None:
        # The contract's own mean; its single value keeps the printed proportion.
        average, single = wanted, wanted * single / average
    width = test.width_mm if test.width_mm is not None else 10.0
    row = next(
        (r for r in table.rows if "width_mm" in r and abs(r["width_mm"] - width) < 0.05),
        None,
    )
    colder = None
    if row is not None:
        colder = row["lower_f"] / 1.8 if us else float(row["lower_c"])
    criteria = ImpactCriteria(
        average=Limit(average, rule, unchecked),
        average_lacks="",
        single=Limit(single, rule, unchecked),
        below_mean_most=1 if test.retest_of is None else 0,
        temperature_c=getattr(asked, "temperature_c", None),
        colder_by=Limit(
            colder,
            rule_of(table, row or places),
            table.unchecked_of(row or places),
        ),
        width="as-is",
        count=places["count"],
        drop_ends_of_five=True,
    )
    return judge_impact(test, criteria, coupon.units)


def retest_rule(coupon: TestCoupon, level: int, test: Test) -> RetestRule:
    """What a failed specimen allows (clause 6.10.5)."""
    table = table_of("retests")
    if test.kind in ("visual", "radiographic", "ultrasonic"):
        row = row_of(table, "destructive")
        return RetestRule(
            more=1, words=tr("weld another coupon and examine it again"), rule=rule_of(table, row), most=1
        )
    if test.kind == "impact":
        row = row_of(table, "impact")
        return RetestRule(
            more=1,
            words=tr(
                "{row} more specimens of the same place, each at least at the mean asked", row=row["more"]
            ),
            rule=rule_of(table, row),
            most=1,
        )
    thick = row_of(table, "thick")
    limit = figure(thick, "over", coupon.units) or 38.0
    if (coupon.thickness_mm or 0.0) > limit + 1e-9:
        count = _planned(coupon, test.kind)
        return RetestRule(
            more=count * thick["places"],
            words=tr(
                "all {count} of this kind again from {thick} more places of the piece",
                count=count,
                thick=thick["places"],
            ),
            rule=rule_of(table, thick),
            most=1,
        )
    row = row_of(table, "destructive")
    return RetestRule(
        more=row["more"],
        words=tr("{row} more of this kind from the same material, both accepted", row=row["more"]),
        rule=rule_of(table, row),
        most=1,
    )


def _planned(coupon: TestCoupon, kind: str) -> int:
    found = groove_row(coupon)
    if found is None:
        return 1
    columns = {
        "transverse-tensile": "tension",
        "root-bend": "root",
        "face-bend": "face",
        "side-bend": "side",
        "macro": "macro",
    }
    return int(found[1].get(columns.get(kind, ""), 1) or 1)
