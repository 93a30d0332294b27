"""Test plan of ISO 15614-1:2017: extent of testing by joint and level, with its triggers."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.codebook.table import Table
from welding.editions.iso_15614_1_2017.rules.basics import condition, table_of
from welding.editions.iso_15614_1_2017.rules.groups import group_of, in_groups
from welding.language import tr, tr_noop
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import rule_of
from welding.qualification.needs import Needs
from welding.qualification.notch import Notch, NotchPlace, wanted_notches
from welding.quantities.writing import quantity_text
from welding.testing.plan import PlanItem, TestPlan

CODE = "iso-15614-1:2017"
_REFUSED = {
    "impact": tr_noop(
        "The code asks for impact tests here; switching them off does not free the record of them."
    ),
    "hardness": tr_noop("The code asks for hardness here; switching it off does not free the record of it."),
}
_SYMBOLS: dict[NotchPlace | None, str] = {"weld": "VWT", "haz": "VHT"}
_OPEN = {
    "thickness": tr_noop("the thickness"),
    "impact": tr_noop("whether the parent metal has specified impact values"),
    "group": tr_noop("the group of each base metal"),
}


def joint_key(coupon: TestCoupon) -> str:
    """Kind of test piece in the table of testing."""
    if coupon.weld == "fillet":
        return "fillet"
    return {"t": "t-butt", "corner": "t-butt", "branch": "branch"}.get(coupon.kind, "butt")


def test_plan(coupon: TestCoupon, level: int, needs: Needs) -> TestPlan:
    """What is asked of a test piece at a level.

    Args:
        coupon: The test piece.
        level: 1 or 2.
        needs: What is required beyond strength.
    """
    table, key = table_of("extent_of_testing"), joint_key(coupon)
    items: list[PlanItem] = []
    for row in table.rows:
        if row["joint"] != key or row["level"] != level:
            continue
        wanted = {"impact": needs.impact, "hardness-hv10": needs.hardness}.get(row["kind"], True)
        if wanted:
            items += _items(coupon, table, row, key)
    notes = [tr("Non-destructive tests come after any heat treatment and before cutting.")]
    groups = [group_of(coupon.draft, one) for one in coupon.metals]
    if any(group and in_groups(group, condition("hydrogen_prone")["groups"]) for group in groups):
        notes.append(tr("Steel prone to hydrogen cracks: wait before the tests (application standard)."))
    if key == "fillet":
        notes.append(tr("A fillet test proves no mechanical properties; add a butt test where they matter."))
    notes += [tr(_REFUSED[one]) for one in needs.refused]
    return TestPlan(
        code=CODE,
        level=level,
        items=tuple(items),
        notes=tuple(notes),
        open=tuple(tr(_OPEN[one]) for one in needs.open),
    )


test_plan.__test__ = False  # type: ignore[attr-defined]


def _plan(
    table: Table, row: Mapping[str, Any], kind: str, count: int, note: str = "", **more: Any
) -> PlanItem:
    return PlanItem(
        kind=kind,
        count=count,
        note=note,
        rule=rule_of(table, row),
        unchecked=table.unchecked_of(row),
        **more,
    )


def _items(coupon: TestCoupon, table: Table, row: Mapping[str, Any], key: str) -> Iterator[PlanItem]:
    kind, count = row["kind"], row["count"]
    if kind == "volumetric":
        yield from _volumetric(coupon, table, row, key)
    elif kind == "surface":
        yield from _surface(coupon, table, row)
    elif kind == "bend":
        yield from _bends(coupon, table, row)
    elif kind == "impact":
        yield _impact(coupon, table, row)
    elif kind == "hardness-hv10":
        yield _plan(
            table, row, kind, count, tr("on a macro section: {lines_of}", lines_of=lines_of(coupon)[1])
        )
    elif kind == "transverse-tensile":
        yield _plan(table, row, kind, count, tr("ISO 4136, excess weld metal machined flush"))
    elif kind == "macro":
        yield _plan(table, row, kind, count, tr("ISO 17639, one face etched, photograph kept"))
    else:
        yield _plan(table, row, kind, count, tr("the whole weld") if kind == "visual" else "")


def _volumetric(coupon: TestCoupon, table: Table, row: Mapping[str, Any], key: str) -> Iterator[PlanItem]:
    t = coupon.thickness_mm
    groups = [group_of(coupon.draft, one) for one in coupon.metals]
    refused = condition("no_ultrasonic")["groups"]
    diameter = coupon.outside_diameter_mm
    branch = key == "branch"
    if branch and diameter is not None and diameter <= condition("branch_volumetric_over")["value_mm"]:
        return
    sound = (
        t is not None
        and t >= condition("ultrasonic_from")["value_mm"] - 1e-9
        and not any(group and in_groups(group, refused) for group in groups)
    )
    first = "ultrasonic" if branch and sound else "radiographic"
    yield _plan(table, row, first, 1, tr("the whole weld"), choice="volumetric")
    if sound:
        other = "radiographic" if branch else "ultrasonic"
        note = tr("where ultrasonic testing is impossible") if branch else ""
        yield _plan(table, row, other, 1, note, choice="volumetric", option=1, alternative_to=first)


def _surface(coupon: TestCoupon, table: Table, row: Mapping[str, Any]) -> Iterator[PlanItem]:
    groups = [group_of(coupon.draft, one) for one in coupon.metals]
    plain = condition("non_magnetic")["groups"]
    if any(group and in_groups(group, plain) for group in groups):
        yield _plan(table, row, "penetrant", 1, tr("not magnetic"))
        return
    yield _plan(table, row, "magnetic-particle", 1, tr("the whole weld"), choice="surface")
    yield _plan(
        table, row, "penetrant", 1, "", choice="surface", option=1, alternative_to="magnetic-particle"
    )


def _bends(coupon: TestCoupon, table: Table, row: Mapping[str, Any]) -> Iterator[PlanItem]:
    t, count = coupon.thickness_mm or 0.0, row["count"]
    half = count // 2
    thick = t >= condition("side_bend_from")["value_mm"] - 1e-9
    ends: dict[str, Any] = {"choice": "bends"}
    if thick:
        yield _plan(table, row, "side-bend", count, tr("10 mm thick, ISO 5173"), **ends)
        other = {**ends, "option": 1, "alternative_to": "side-bend"}
    else:
        other = ends
    yield _plan(table, row, "root-bend", half, "ISO 5173", **other)
    yield _plan(table, row, "face-bend", half, "ISO 5173", **other)
    names = {one.designation for one in coupon.metals}
    if len(names) > 1:
        replaced = "side-bend" if thick else "root-bend"
        for kind in ("longitudinal-root-bend", "longitudinal-face-bend"):
            yield _plan(
                table,
                row,
                kind,
                1,
                tr("unlike metals"),
                choice="bends",
                option=2,
                alternative_to=replaced,
            )


def _impact(coupon: TestCoupon, table: Table, row: Mapping[str, Any]) -> PlanItem:
    """Sets of the table for each process, one more for a second metal, two more for thick pieces."""
    wanted = wanted_notches(coupon.processes)
    places = [(_SYMBOLS[one.place] + (f" of {one.process}" if one.process else ""), one) for one in wanted]
    if len({one.designation for one in coupon.metals}) > 1:
        places.append(("VHT, second metal", Notch("haz")))
    thick = condition("impact_extra_sets_over")["value_mm"]
    if (coupon.thickness_mm or 0.0) > thick + 1e-9:
        places += [
            (f"{_SYMBOLS[one.place]}, below mid-thickness", Notch(one.place)) for one in wanted_notches(())
        ]
    count = row["count"] + len(places) - len(wanted_notches(()))
    asked = coupon.impact_asked
    at = getattr(asked, "temperature_c", None)
    where = (
        tr(" at {quantity_text}", quantity_text=quantity_text(at, "temperature", coupon.units))
        if at is not None
        else ""
    )
    return _plan(
        table,
        row,
        "impact",
        count,
        tr("sets of three Charpy-V{where}, ISO 9016", where=where),
        locations=tuple(text for text, _ in places),
        notches=tuple(notch for _, notch in places),
    )


def lines_of(coupon: TestCoupon) -> tuple[int, str]:
    """How many lines of indents the thickness and the joint ask for, and where they lie."""
    two = (coupon.thickness_mm or 0.0) > condition("hardness_two_rows_over")["value_mm"] + 1e-9
    depth = condition("hardness_depth")["value_mm"]
    joint = coupon.joint
    root = coupon.weld == "fillet" or coupon.kind == "t" or bool(joint and joint.sides == "both")
    words = [tr("within {depth:g} mm of the upper surface", depth=depth)]
    if two:
        words.append(tr("within {depth:g} mm of the lower surface", depth=depth))
    if root:
        words.append(tr("through the root"))
    return len(words), ", ".join(words)
