"""Ranges of AWS D1.1:2020 that hold for the joint: metals, position, weld, groove."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import get_args

from welding.documents.fields import PreparationForm
from welding.editions.aws_d1_1_2020.rules.basics import figure, item, joint_row, table_of
from welding.editions.aws_d1_1_2020.rules.range_size import said
from welding.editions.toolkit import row_of
from welding.glossary.values import in_words
from welding.language import tr, tr_noop
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import RangeItem, also_read
from welding.qualification.positions import aws_position, has_progression, progression_of
from welding.ranges import Range


def position_items(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    """Positions for grooves and for fillets, and the progression."""
    table = table_of("test_positions")
    tested = coupon.position
    own = "fillet" if coupon.weld == "fillet" else "groove"
    symbol = aws_position(tested, own) if tested else None
    row = next((r for r in table.rows if r["row"] == f"{coupon.product}-{symbol}"), None)
    if tested is None or row is None:
        why = (
            tr("The position is not stated.")
            if tested is None
            else tr(
                "{tested} is no test position of a {own} on {product} in table 6.1.",
                tested=tested,
                own=in_words(own),
                product=in_words(coupon.product),
            )
        )
        yield item(table, table.rows[0], "positions", "unknown", why)
        return
    all_by_impact = impact and symbol == "3G" and coupon.progression == "up"
    for weld in ("groove", "fillet"):
        values = tuple(row[weld])
        if not values:
            continue
        found = item(
            table,
            row,
            "positions",
            "set",
            tr(
                "{symbol} on {product} qualifies {values} for {welds}.",
                symbol=symbol,
                product=in_words(coupon.product),
                values=", ".join(values),
                welds=tr("grooves") if weld == "groove" else tr("fillets"),
            ),
            columns=(weld,),
            values=values,
            tested=(tested,),
            weld=weld,
            also=tr(
                "Vertical up covers every position where impact toughness is the question; "
                "without it table 6.1 counts."
            )
            if all_by_impact
            else "",
        )
        found = also_read(found, table_of("essential_variables"), joint_row(coupon, "position"))
        more = table_of("impact_variables")
        yield also_read(found, more, row_of(more, "position")) if impact else found
    yield from _progression(coupon, tested)


def _progression(coupon: TestCoupon, position: str) -> Iterator[RangeItem]:
    rows = table_of("essential_variables")
    row = joint_row(coupon, "progression")
    if not has_progression(position):
        yield item(
            rows, row, "progression", "any", tr("{position} runs neither up nor down.", position=position)
        )
        return
    stated = progression_of(position, coupon.progression)
    if stated is None:
        yield item(
            rows,
            row,
            "progression",
            "unknown",
            tr("{position}: whether it ran up or down is not recorded.", position=position),
        )
        return
    yield item(
        rows,
        row,
        "progression",
        "exact",
        tr("Welded {stated}; the other way asks for a test of its own.", stated=stated),
        values=(stated,),
        tested=(stated,),
    )


def weld_items(coupon: TestCoupon) -> Iterator[RangeItem]:
    """Kinds of weld."""
    table = table_of("test_welds")
    row = next((row for row in table.rows if row["row"] == coupon.weld), None)
    if row is None:
        yield item(
            table,
            table.rows[0],
            "weld_kinds",
            "unknown",
            tr(
                "What a {value} qualifies is not known here: look it up.",
                value=coupon.weld or tr("weld of unknown kind"),
            ),
        )
        return
    yield item(
        table,
        row,
        "weld_kinds",
        "set",
        tr(
            "Tested: {weld}; qualified: {welds}.",
            weld=in_words(str(coupon.weld)),
            welds=", ".join(in_words(one) for one in row["covers"]),
        ),
        values=tuple(row["covers"]),
        tested=(str(coupon.weld),),
    )


_OPEN = (
    ("none", "gas", "metal"),
    ("weld", "ceramic", "flux"),
    tr_noop("Welded without backing; adding steel backing is free. Other backing is to be shown by testing."),
)
_BACKINGS: dict[str, tuple[tuple[str, ...], tuple[str, ...], str]] = {
    "none": _OPEN,
    "gas": _OPEN,
    "metal": (
        ("metal",),
        ("weld",),
        tr_noop("Welded on metal backing; leaving it out, or backing of another kind, asks for a new test."),
    ),
    "ceramic": (
        ("ceramic",),
        ("metal", "flux", "weld"),
        tr_noop("Welded on ceramic backing; leaving it out asks for a new test."),
    ),
    "flux": (
        ("flux",),
        ("metal", "ceramic", "weld"),
        tr_noop("Welded on flux; leaving it out asks for a new test."),
    ),
    "weld": (("weld",), ("metal",), tr_noop("Welded on a weld; leaving that out asks for a new test.")),
}
"""By the backing tested: what is qualified, what the clause leaves open, and why. Gas is no backing."""


def groove_items(coupon: TestCoupon) -> Iterator[RangeItem]:
    """Groove, its dimensions, backing and back-gouging.

    What was tested in a complete groove says nothing of the root of a partial one: there its sections do,
    of its own groove.
    """
    if coupon.weld != "cjp-groove":
        yield from _tested_groove(coupon)
        return
    for found in _tested_groove(coupon):
        yield replace(found, weld="cjp-groove")
        if found.variable == "groove" and found.kind == "set":
            yield replace(
                found,
                doubtful=tuple(form for form in get_args(PreparationForm) if form not in found.values),
                reason=tr("A PJP groove of the tested form; of another one its sections have to tell."),
                weld="pjp-groove",
            )


def _tested_groove(coupon: TestCoupon) -> Iterator[RangeItem]:
    joint, preparation = coupon.joint, coupon.joint.preparation if coupon.joint else None
    rows = table_of("essential_variables")
    if joint is None or coupon.weld == "fillet":
        return
    backed = joint.backing in ("metal", "ceramic", "flux", "weld")
    values, doubtful, reason = _BACKINGS[joint.backing]
    reason = tr(reason)
    yield item(
        rows,
        joint_row(coupon, "backing"),
        "backing",
        "set",
        reason,
        values=values,
        doubtful=doubtful,
        tested=(joint.backing,),
        how="or-prequalified",
        weld="groove",
    )
    yield item(
        rows,
        joint_row(coupon, "back_gouge"),
        "back_gouge",
        "exact" if joint.back_gouge else "any",
        tr("The root was gouged from the back; leaving that out asks for a new test.")
        if joint.back_gouge
        else tr("Not gouged; adding it is free."),
        values=("back-gouged",) if joint.back_gouge else (),
        tested=("back-gouged" if joint.back_gouge else "not gouged",),
        how="or-prequalified",
        weld="groove",
    )
    if preparation is None:
        yield item(rows, joint_row(coupon, "groove"), "groove", "unknown", tr("The groove is not stated."))
        return
    yield item(
        rows,
        joint_row(coupon, "groove"),
        "groove",
        "set",
        tr("The tested form of groove")
        + (
            tr(", and every prequalified groove detail.")
            if coupon.weld == "cjp-groove"
            else tr("; another form asks for a new test.")
        ),
        values=(preparation.form,),
        tested=(preparation.form,),
        how="form-or-prequalified" if coupon.weld == "cjp-groove" else "form",
        weld="groove",
    )
    yield from _dimensions(coupon, backed)


def _dimensions(coupon: TestCoupon, backed: bool) -> Iterator[RangeItem]:
    joint = coupon.joint
    preparation = joint.preparation if joint else None
    if joint is None or preparation is None:
        return
    table = table_of("groove_tolerances")
    row = row_of(table, "gouge" if joint.back_gouge else "backing" if backed else "none")
    fit = coupon.record.coupon.fit_up
    gap, face = preparation.root_gap_mm, preparation.root_face_mm
    if fit and fit.gap_after_tack_mm is not None:
        gap = fit.gap_after_tack_mm
    if fit and fit.root_face_mm is not None:
        face = fit.root_face_mm
    angle = preparation.included_angle_deg
    if angle is None and preparation.sides:
        angle = min((s.angle_deg for s in preparation.sides if s.angle_deg is not None), default=None)
    tolerance = figure(row, "gap_minus", coupon.units)
    missing = {"root_gap_mm": gap} if tolerance is not None else {}
    if preparation.form != "square":
        missing["groove_angle_deg"] = angle
        if figure(row, "face_plus", coupon.units) is not None and coupon.weld == "cjp-groove":
            missing["root_face_mm"] = face
    for variable, value in missing.items():
        if value is None:
            yield item(
                table,
                row,
                variable,
                "unknown",
                tr("Not recorded of the test piece."),
                how="or-prequalified",
                weld="groove",
            )
    if gap is not None and tolerance is not None:
        yield item(
            table,
            row,
            "root_gap_mm",
            "span",
            tr(
                "Root opening of {said} less the tolerance of {said2}.",
                said=said(coupon, gap),
                said2=said(coupon, tolerance),
            ),
            min=max(gap - tolerance, 0.0),
            tested=Range(gap, gap),
            how="or-prequalified",
            weld="groove",
        )
    more = figure(row, "face_plus", coupon.units)
    if face is not None and more is not None and coupon.weld == "cjp-groove":
        yield item(
            table,
            row,
            "root_face_mm",
            "span",
            tr(
                "Root face of {said} and the tolerance of {said2}.",
                said=said(coupon, face),
                said2=said(coupon, more),
            ),
            max=face + more,
            tested=Range(face, face),
            how="or-prequalified",
            weld="groove",
        )
    if angle is not None and preparation.form != "square":
        yield item(
            table,
            row,
            "groove_angle_deg",
            "span",
            tr(
                "A groove of {angle:g}° less the tolerance of {row:g}°.",
                angle=angle,
                row=row["angle_minus_deg"],
            ),
            min=angle - row["angle_minus_deg"],
            tested=Range(angle, angle),
            how="or-prequalified",
            weld="groove",
        )
