"""Verdicts of ISO 15614-1:2017 on specimens, with ISO 5817 for what is measured, and its retest rules."""

from __future__ import annotations

from dataclasses import replace

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
from welding.editions.iso_15614_1_2017.rules.basics import condition, table_of
from welding.editions.iso_15614_1_2017.rules.groups import group_of, in_groups, main_group
from welding.editions.iso_15614_1_2017.rules.imperfections import measured_points
from welding.editions.iso_15614_1_2017.rules.test_plan import lines_of
from welding.editions.toolkit import row_of
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import rule_of
from welding.qualification.needs import Needs, specified_impact
from welding.testing.bends import BendCriteria, former_by_elongation_mm, judge_bend
from welding.testing.hardness import judge_hardness
from welding.testing.impact import ImpactCriteria, judge_impact
from welding.testing.limits import Limit, must
from welding.testing.ndt import judge_break, judge_ndt, outcome_point
from welding.testing.overall import RetestRule
from welding.testing.tensile import inches_for_mm, judge_tensile
from welding.testing.verdict import Judged, Point


def limit_of(name: str) -> Limit:
    """A limit of the acceptance table."""
    table = table_of("acceptance")
    row = row_of(table, name)
    return Limit(row.get("limit_mm", row.get("limit_deg")), rule_of(table, row), table.unchecked_of(row))


def judge_specimen(coupon: TestCoupon, level: int, needs: Needs, test: Test) -> Judged:
    """Judge one specimen at a level."""
    if isinstance(test, VisualTest):
        return _visual(coupon, level, test)
    if isinstance(test, NdtTest):
        table = table_of("extent_of_testing")
        limit = Limit(None, rule_of(table, table.rows[0]))
        return judge_ndt(
            test, tr("accepted at the level that belongs to ISO 5817 level B (ISO 17635)"), limit
        )
    if isinstance(test, TensileTest):
        return _tensile(coupon, test)
    if isinstance(test, BendTest):
        return _bend(coupon, test)
    if isinstance(test, MacroTest):
        return _macro(coupon, level, test)
    if isinstance(test, FractureTest):
        nothing = limit_of("bend.single")
        return judge_break(test, nothing, limit_of("bend.sum"), Limit(150.0, nothing.rule), coupon.units)
    if isinstance(test, HardnessTest):
        return _hardness(coupon, test)
    return _impact(coupon, test)


def _visual(coupon: TestCoupon, level: int, test: VisualTest) -> Judged:
    limit = limit_of("bend.single")
    table = table_of("imperfections")
    rule = Limit(None, rule_of(table, table.rows[0]), table.unchecked_of(table.rows[0]))
    points = [outcome_point(test.outcome, tr("visual examination accepted"), rule if level == 2 else limit)]
    if test.cracks is not None:
        points.append(must(test.cracks, False, tr("no cracks"), rule, "cracks"))
    if test.complete_fusion is not None:
        points.append(must(test.complete_fusion, True, tr("complete fusion"), rule, "fusion"))
    points += measured_points(coupon, level, test)
    return Judged(points=tuple(points))


def _tensile(coupon: TestCoupon, test: TensileTest) -> Judged:
    table = table_of("acceptance")
    row = row_of(table, "tension")
    rule, unchecked = rule_of(table, row), table.unchecked_of(row)
    found: list[tuple[float, str]] = []
    lacks = "" if coupon.metals else tr("the base metals")
    for metal in coupon.metals:
        grade = coupon.grade(metal)
        value = metal.tensile_mpa or (
            grade.tensile_at(metal.thickness_mm or coupon.thickness_mm) if grade else None
        )
        if value is None:
            lacks = tr(
                "the specified tensile strength of {value}", value=metal.designation or tr("a base metal")
            )
        else:
            found.append((value, metal.designation or tr("a base metal")))
    least, name = min(found) if found and not lacks else (None, "")
    words = tr("specified for {name}", name=name) if name else tr("the parent metal's specified minimum")
    return judge_tensile(test, Limit(least, rule, unchecked), lacks, words, coupon.units, coupon.thickness_mm)


def _former(coupon: TestCoupon, test: BendTest) -> tuple[Limit, str]:
    table = table_of("acceptance")
    row = row_of(table, "bend.elongation")
    rule, unchecked = rule_of(table, row), table.unchecked_of(row)
    if test.thickness_mm is None:
        return Limit(None, rule, unchecked), tr("the specimen's thickness")
    least = former_by_elongation_mm(
        thickness_mm=test.thickness_mm,
        elongation_percent=row["percent"],
        factor=row["factor"],
        from_percent=row["percent"],
    )
    # Four times the thickness is the most severe of both formulas, so it holds for every elongation.
    if test.former_mm is None or test.former_mm <= least * (1 + 1e-6):
        return Limit(least, rule, unchecked), ""
    stated = [one.elongation_percent for one in coupon.metals]
    if not stated or any(value is None for value in stated):
        return Limit(None, rule, unchecked), (
            tr("the parent metal's minimum elongation (a former up to {least:g} mm needs none)", least=least)
        )
    percent = max(value for value in stated if value is not None)
    former = former_by_elongation_mm(
        thickness_mm=test.thickness_mm,
        elongation_percent=percent,
        factor=row["factor"],
        from_percent=row["percent"],
    )
    return Limit(former, rule, unchecked), ""


def _bend(coupon: TestCoupon, test: BendTest) -> Judged:
    strange = inches_for_mm(test.thickness_mm, coupon.thickness_mm)
    former, lacks = _former(coupon, test)
    if strange:
        return Judged(points=(Point(None, tr("specimen thickness"), "", former.rule, (), strange),))
    single = limit_of("bend.single")
    criteria = BendCriteria(
        former=former,
        former_lacks=lacks,
        angle=limit_of("bend.angle"),
        single=single,
        counted_above=limit_of("bend.counted_above"),
        total=limit_of("bend.sum"),
        corner="ignore",
        corner_free=single,
        corner_caused=single,
    )
    return judge_bend(test, criteria, coupon.units)


def _macro(coupon: TestCoupon, level: int, test: MacroTest) -> Judged:
    table = table_of("imperfections")
    row = row_of(table, "undercut")
    limit = Limit(None, rule_of(table, row), table.unchecked_of(row))
    points = [
        must(test.cracks, False, tr("no cracks"), limit, tr("whether there are cracks")),
        must(test.complete_fusion, True, tr("complete fusion"), limit, tr("whether fusion is complete")),
    ]
    if test.fused_to_root is not None:
        points.append(must(test.fused_to_root, True, tr("fusion to the root"), limit, ""))
    if coupon.weld == "fillet":
        points += _fillet_section(coupon, level, test, limit)
    points += measured_points(coupon, level, test)
    return Judged(points=tuple(points), main=1)


def _fillet_section(coupon: TestCoupon, level: int, test: MacroTest, limit: Limit) -> list[Point]:
    if level == 1:
        difference = limit_of("fillet.leg_difference")
        wanted = tr("legs differ by at most {value:g} mm", value=difference.value)
        if len(test.legs_mm) < 2:
            return [
                Point(None, wanted, "", difference.rule, difference.unchecked, tr("both legs as measured"))
            ]
        apart = abs(test.legs_mm[0] - test.legs_mm[1])
        kept = apart <= (difference.value or 0.0) + 1e-9
        return [Point(kept, wanted, f"{apart:g} mm", difference.rule, difference.unchecked)]
    if test.throat_mm is None and len(test.legs_mm) < 2:
        return [Point(None, tr("throat as specified"), "", limit.rule, (), tr("the throat or both legs"))]
    return []


def _hardness(coupon: TestCoupon, test: HardnessTest) -> Judged:
    limit, lacks = hardness_limit(coupon)
    agreed = ""
    if limit.value is None and lacks:
        limit, lacks, agreed = _as_agreed(coupon, test, limit, lacks)
    lines, text = lines_of(coupon)
    return judge_hardness(
        test, limit, lacks, lines=lines, indents=condition("indents")["count"], lines_text=text, agreed=agreed
    )


def _as_agreed(coupon: TestCoupon, test: HardnessTest, limit: Limit, lacks: str) -> tuple[Limit, str, str]:
    """The limit that was agreed before the test, where the code's table leaves it to the parties."""
    requirements = coupon.procedure.requirements
    agreed = requirements.hardness_limit if requirements else None
    if agreed is None or None in {group_of(coupon.draft, one) for one in coupon.metals}:
        return limit, lacks, ""
    if agreed.max_hv10 is None or not agreed.agreed_with or agreed.agreed_on is None:
        return (
            limit,
            tr("the agreed hardness limit in full: its value, with whom it was agreed, and when"),
            "",
        )
    if test.date is not None and agreed.agreed_on > test.date:
        late = tr(
            "a hardness limit agreed before the test; this one was agreed on {agreed_on}",
            agreed_on=agreed.agreed_on,
        )
        return limit, late, ""
    said = tr(
        "agreed with {agreed_with} on {agreed_on}", agreed_with=agreed.agreed_with, agreed_on=agreed.agreed_on
    )
    return replace(limit, value=agreed.max_hv10), "", said


def hardness_limit(coupon: TestCoupon) -> tuple[Limit, str]:
    """Greatest hardness by group and treatment; what is missing where there is none."""
    table = table_of("hardness_limits")
    empty = Limit(None, rule_of(table, table.rows[0]), table.unchecked_of(table.rows[0]))
    groups = {group_of(coupon.draft, one) for one in coupon.metals}
    if None in groups or not groups:
        return empty, tr("the group of each base metal")
    rows = []
    for group in groups:
        row = next((r for r in table.rows if in_groups(str(group), r["groups"])), None)
        if row is None:
            return empty, tr("the hardness limit for group {group}: agree it before the test", group=group)
        rows.append(row)
    if len({main_group(str(group)) for group in groups}) > 1:
        return empty, tr("the hardness limit for mixed groups: agree it before the test")
    row = rows[0]
    special = row.get("special_over_yield_mpa")
    if special is not None:
        yields = [grade.yield_at(None) for one in coupon.metals if (grade := coupon.grade(one))]
        if any(value is not None and value > special for value in yields):
            return empty, tr(
                "the hardness limit for a yield over {special:g} MPa: agree it before the test",
                special=special,
            )
    value = row.get("treated" if coupon.pwht else "untreated")
    state = "heat-treated" if coupon.pwht else tr("as welded")
    lacks = (
        ""
        if value is not None
        else tr("the hardness limit for group {row}, {state}: agree it", row=row["row"], state=state)
    )
    return Limit(None if value is None else float(value), rule_of(table, row), table.unchecked_of(row)), lacks


def _impact(coupon: TestCoupon, test: ImpactTest) -> Judged:
    table = table_of("acceptance")
    share, count = row_of(table, "impact.single_share"), row_of(table, "impact.count")
    rule, unchecked = rule_of(table, share), table.unchecked_of(share)
    asked = coupon.impact_asked
    average, temperature = getattr(asked, "average_j", None), getattr(asked, "temperature_c", None)
    lacks = ""
    if average is None:
        stated = [value for one in coupon.metals if (value := specified_impact(one))]
        if stated:
            average = min(one.energy_j for one in stated)
            temperature = min(one.temperature_c for one in stated) if temperature is None else temperature
        else:
            lacks = tr(
                "the impact energy that is required (the parent's standard or the application standard)"
            )
    first = _first_set(coupon, test)
    wanted = average
    if first is not None and average is not None:
        return _mean_of_six(coupon, first, test, average, rule, unchecked, share["share"])
    criteria = ImpactCriteria(
        average=Limit(wanted, rule, unchecked),
        average_lacks=lacks,
        single=Limit(None if wanted is None else share["share"] * wanted, rule, unchecked),
        below_mean_most=1,
        temperature_c=temperature,
        colder_by=Limit(0.0, rule, unchecked),
        width="asked",
        count=count["count"],
        drop_ends_of_five=False,
    )
    return judge_impact(test, criteria, coupon.units)


def _first_set(coupon: TestCoupon, test: ImpactTest) -> ImpactTest | None:
    """The set that this one repeats."""
    return next(
        (
            one
            for one in coupon.record.tests
            if isinstance(one, ImpactTest) and one.specimen == test.retest_of
        ),
        None,
    )


def _mean_of_six(
    coupon: TestCoupon,
    first: ImpactTest,
    test: ImpactTest,
    average: float,
    rule: object,
    unchecked: tuple[str, ...],
    share: float,
) -> Judged:
    """A retest: the mean of all six, at most two below the mean, at most one below its share."""
    table = table_of("retests")
    row = row_of(table, "impact")
    where, marks = rule_of(table, row), table.unchecked_of(row)
    values = [v for one in (first, test) for v in one.values_j if v is not None]
    wanted = row["mean_of"]
    if len(values) < wanted:
        need = tr("{wanted} more values", wanted=wanted - len(values))
        return Judged(
            points=(Point(None, tr("mean of all {wanted}", wanted=wanted), "", where, marks, need),)
        )
    mean = sum(values) / len(values)
    below, far = (
        sum(v < average - 1e-9 for v in values),
        sum(v < share * average - 1e-9 for v in values),
    )
    return Judged(
        points=(
            Point(
                mean >= average - 1e-9,
                tr("mean of all {wanted} at least {average:g} J", wanted=wanted, average=average),
                f"{mean:.1f} J",
                where,
                marks,
            ),
            Point(
                below <= row["below_mean_most"],
                tr("at most {row} of them below {average:g} J", row=row["below_mean_most"], average=average),
                f"{below}",
                where,
                marks,
            ),
            Point(
                far <= row["below_share_most"],
                tr(
                    "at most {row} of them below {share:g} J",
                    row=row["below_share_most"],
                    share=share * average,
                ),
                f"{far}",
                where,
                marks,
            ),
        )
    )


def retest_rule(coupon: TestCoupon, level: int, test: Test) -> RetestRule:
    """What a failed specimen allows (clause 7.6)."""
    table = table_of("retests")
    if test.kind in ("visual", "radiographic", "ultrasonic", "magnetic-particle", "penetrant"):
        row = row_of(table, "visual")
        return RetestRule(
            more=row["pieces"],
            words=tr("weld one new test piece and examine it again"),
            rule=rule_of(table, row),
        )
    if test.kind == "hardness-hv10":
        row = row_of(table, "hardness")
        return RetestRule(
            more=row["more"],
            words=tr("repeat on the reverse side or after regrinding; no new value above the limit"),
            rule=rule_of(table, row),
        )
    if test.kind == "impact":
        row = row_of(table, "impact")
        return RetestRule(
            more=1,
            words=tr(
                "{row} more of the same place; the mean of all {row2} counts",
                row=row["more"],
                row2=row["mean_of"],
            ),
            rule=rule_of(table, row),
        )
    row = row_of(table, "destructive")
    return RetestRule(
        more=row["more"],
        words=tr("{row} more for each that failed, from the same piece, all accepted", row=row["more"]),
        rule=rule_of(table, row),
    )
