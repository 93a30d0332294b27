"""Test plan of AWS D1.1:2020: specimens by tables 6.2, 6.3 and 6.4, impact sets where they are specified."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.codebook.table import Table
from welding.consumables.designations.decode import decode
from welding.editions.aws_d1_1_2020.rules.basics import earlier_number, figure, table_of
from welding.editions.aws_d1_1_2020.rules.judging import former_limit
from welding.editions.aws_d1_1_2020.rules.matching import STEEL_FILLERS
from welding.editions.aws_d1_1_2020.rules.prequalified import PROCESSES, SHORT
from welding.editions.aws_d1_1_2020.rules.range_size import groove_row
from welding.editions.toolkit import row_of
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import rule_of
from welding.qualification.needs import Needs
from welding.qualification.notch import Notch, notch_place
from welding.qualification.positions import aws_position
from welding.quantities.writing import quantity_text
from welding.testing.plan import PlanItem, TestPlan

CODE = "aws-d1.1:2020"


def _item(
    table: Table, row: Mapping[str, Any], kind: str, count: int, note: str = "", **more: Any
) -> PlanItem:
    return PlanItem(
        kind=kind,
        count=count,
        note=note,
        rule=rule_of(table, row, earlier=earlier_number(table.citation.clause)),
        unchecked=table.unchecked_of(row),
        **more,
    )


def test_plan(coupon: TestCoupon, level: int, needs: Needs) -> TestPlan:
    """What is asked of a coupon.

    Args:
        coupon: The coupon.
        level: Not used: this code has no levels.
        needs: What is required beyond strength.
    """
    items: list[PlanItem] = []
    open_: list[str] = list(needs.open)
    notes = [tr("Visual examination and RT or UT come before cutting; discard the ends.")]
    visual = table_of("acceptance")
    items.append(_item(visual, row_of(visual, "visual.undercut"), "visual", 1, tr("the whole weld")))
    if coupon.weld == "fillet":
        items += _fillet(coupon)
        notes = [tr("Visual examination comes before cutting.")]
    else:
        found = groove_row(coupon)
        if found is None:
            open_.append(tr("a thickness (and a pipe's diameter) within the table"))
        else:
            items += _groove(coupon, *found)
    if needs.impact:
        items.append(_impact(coupon))
    if needs.hardness:
        notes.append(tr("Hardness is asked for by the procedure; this code sets no limit: agree it."))
        acceptance = table_of("acceptance")
        items.append(
            _item(acceptance, row_of(acceptance, "hardness"), "hardness-hv10", 1, tr("limit by contract"))
        )
    return TestPlan(code=CODE, level=None, items=tuple(items), notes=tuple(notes), open=tuple(open_))


test_plan.__test__ = False  # type: ignore[attr-defined]


def _groove(coupon: TestCoupon, table: Table, row: Mapping[str, Any]) -> Iterator[PlanItem]:
    if coupon.weld != "pjp-groove":  # its root is not fused: the sections show its size instead
        yield _item(
            table, row, "radiographic", 1, tr("the whole weld less the discards"), choice="volumetric"
        )
        yield _item(
            table, row, "ultrasonic", 1, "", choice="volumetric", option=1, alternative_to="radiographic"
        )
    width = figure(row_of(table_of("specimen_layout"), "tensile-width"), "width", coupon.units) or 0.0
    yield _item(
        table,
        row,
        "transverse-tensile",
        row["tension"],
        tr(
            "reduced section at least {quantity_text} wide",
            quantity_text=quantity_text(width, "thickness", coupon.units),
        ),
    )
    thin = row["side"] == 0
    t = coupon.thickness_mm or 0.0
    if thin:
        yield _item(table, row, "root-bend", row["root"], _bend_note(coupon), choice="bends")
        yield _item(table, row, "face-bend", row["face"], _bend_note(coupon), choice="bends")
        edge = figure(row, "to", coupon.units) or 0.0
        if abs(t - edge) <= 0.5:
            yield _item(
                table,
                row,
                "side-bend",
                row["root"] + row["face"],
                tr("side bends may be used at this thickness"),
                choice="bends",
                option=1,
                alternative_to="root-bend",
            )
    else:
        yield _item(table, row, "side-bend", row["side"], _side_note(coupon), choice="bends")
    first = "root-bend" if thin else "side-bend"
    if _unlike(coupon):
        for kind in ("longitudinal-root-bend", "longitudinal-face-bend"):
            yield _item(
                table,
                row,
                kind,
                2,
                tr("where metals or weld bend differently"),
                choice="bends",
                option=2,
                alternative_to=first,
            )
    if "macro" in row:
        yield _item(table, row, "macro", row["macro"], tr("to show the weld size E"))


def _unlike(coupon: TestCoupon) -> bool:
    names = {one.designation for one in coupon.metals}
    return len(names) > 1


def _bend_note(coupon: TestCoupon) -> str:
    return tr("bent over {former_text}", former_text=_former_text(coupon))


def _side_note(coupon: TestCoupon) -> str:
    limit = figure(row_of(table_of("acceptance"), "thick_bend"), "limit", coupon.units) or 38.0
    thick = (coupon.thickness_mm or 0.0) > limit + 1e-9
    strip = tr("; cut into strips 20 to 38 mm [3/4 to 1-1/2 in] wide") if thick else ""
    return tr(
        "10 mm [3/8 in] thick, bent over {former_text}{strip}", former_text=_former_text(coupon), strip=strip
    )


def _former_text(coupon: TestCoupon) -> str:
    limit, lacks = former_limit(coupon)
    if limit.value is None:
        return tr("the former for the base metal ({lacks} is missing)", lacks=lacks)
    return tr(
        "a former of at most {quantity_text}", quantity_text=quantity_text(limit.value, "gap", coupon.units)
    )


def _fillet(coupon: TestCoupon) -> Iterator[PlanItem]:
    table = table_of("fillet_tests")
    row = row_of(table, "single-pass" if coupon.run_kind == "single" else "multiple-pass")
    symbol = aws_position(coupon.position, "fillet") if coupon.position else None
    if coupon.product == "pipe" and symbol in ("4F", "5F"):
        row = row_of(table, "pipe-4F-5F")
        yield _item(table, row, "macro", row["macro"], tr("four faces round the pipe"))
    else:
        yield _item(table, row, "macro", row["macro"], tr("three cuts; discard 25 mm [1 in] at each end"))
    if not _consumables_conform(coupon):
        row = row_of(table, "consumable-check")
        note = tr("verification of the consumables on a groove plate, unless a CJP test has shown them")
        yield _item(table, row, "all-weld-tensile", row["all_weld"], note)
        yield _item(table, row, "side-bend", row["side"], note)


def _consumables_conform(coupon: TestCoupon) -> bool:
    """Whether every pass, as welded or as planned, has a process and a filler of the prequalified rules."""
    if coupon.runs:
        passes = [(run.process, run.transfer, run.designation) for run in coupon.runs]
    else:
        passes = [
            (one.process, one.transfer, one.filler.designation if one.filler else None)
            for one in coupon.procedure.passes
        ]
    return all(
        process in PROCESSES
        and transfer not in SHORT
        and designation is not None
        and (found := decode(designation)).valid
        and found.system in STEEL_FILLERS
        for process, transfer, designation in passes
    )


def _impact(coupon: TestCoupon) -> PlanItem:
    table = table_of("impact_tests")
    row = row_of(table, "places")
    asked = coupon.impact_asked
    at = getattr(asked, "temperature_c", None)
    where = (
        tr(" at {quantity_text}", quantity_text=quantity_text(at, "temperature", coupon.units))
        if at is not None
        else ""
    )
    return _item(
        table,
        row,
        "impact",
        len(row["sets"]),
        tr("sets of {row} Charpy-V{where}", row=row["count"], where=where),
        locations=tuple(row["sets"]),
        notches=tuple(Notch(notch_place(one)) for one in row["sets"]),
    )
