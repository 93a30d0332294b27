"""Ranges of AWS D1.1:2020 that hold for the joint: thickness, diameter, metals, position, weld, groove."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any

from welding.documents.procedure import BaseMetal
from welding.editions.aws_d1_1_2020.rules.matching import group_of
from welding.editions.aws_d1_1_2020.rules.range_basics import figure, in_row, item, row_of, table_of
from welding.qualification.items import Alternative, MetalPair, MetalSide, RangeItem
from welding.qualification.positions import aws_position, has_progression, progression_of
from welding.qualification.welded import Welded
from welding.quantities.writing import quantity_text
from welding.ranges import Range
from welding.table import Table

_PIPE_TOLERANCE = 0.03
"""How far a measured pipe may be from the standard size and still be that pipe (common practice)."""


def groove_row(piece: Welded) -> tuple[Table, Mapping[str, Any]] | None:
    """Row of table 6.2 or 6.3 for a groove coupon; ``None`` outside the table or without a thickness."""
    t = piece.groove_depth_mm if piece.weld == "pjp-groove" else piece.thickness_mm
    if t is None:
        return None
    if piece.weld == "pjp-groove":
        table = table_of("partial_groove_tests")
        return next(((table, row) for row in table.rows if in_row(row, t, piece.units)), None)
    table = table_of("groove_tests")
    diameter = piece.outside_diameter_mm
    for row in table.rows:
        if row["product"] != piece.product or "pipes" in row or not in_row(row, t, piece.units):
            continue
        below, start = figure(row, "od_below", piece.units), figure(row, "od_from", piece.units)
        if piece.product == "pipe" and diameter is None:
            return None
        if below is not None and diameter is not None and diameter >= below - 1e-9:
            continue
        if start is not None and diameter is not None and diameter < start - 1e-9:
            continue
        return table, row
    return None


def thickness_items(piece: Welded, impact: bool) -> Iterator[RangeItem]:
    """Thickness, groove depth, fillet size."""
    if piece.weld == "fillet":
        yield from _fillet_items(piece)
        return
    found, t = groove_row(piece), piece.thickness_mm
    if found is None or t is None:
        yield _no_row(piece, "parent_thickness_mm")
        return
    table, row = found
    yield _thickness(piece, table, row, t, impact)
    if piece.weld == "pjp-groove":
        depth = piece.groove_depth_mm or 0.0
        yield item(
            table,
            row,
            "groove_depth_mm",
            "span",
            f"A groove of {_mm(piece, depth)} qualifies grooves up to that depth.",
            columns=("depth_factor",),
            max=depth * row["depth_factor"],
            tested=Range(depth, depth),
        )
    yield item(
        table,
        row,
        "fillet_size_mm",
        "any",
        "A groove test qualifies fillets of any size.",
        weld="fillet",
    )
    yield _deposit(piece, table, row)


def _deposit(piece: Welded, table: Table, row: Mapping[str, Any]) -> RangeItem:
    if len(piece.processes) < 2:
        return item(
            table,
            row,
            "deposited_thickness_mm",
            "any",
            "With one process the base metal's thickness governs.",
        )
    return item(
        table,
        row,
        "deposited_thickness_mm",
        "unknown",
        "How the thickness of each of several processes counts is not known here: look it up in clause 6.",
    )


def _thickness(piece: Welded, table: Table, row: Mapping[str, Any], t: float, impact: bool) -> RangeItem:
    units = piece.units
    low = figure(row, "min", units)
    if low is None and row.get("min_factor") is not None:
        low = row["min_factor"] * t
    high = figure(row, "max", units)
    if high is None and row.get("max_factor") is not None:
        high = row["max_factor"] * t
    also = ""
    joint = piece.joint
    if (
        joint
        and joint.preparation
        and joint.preparation.form == "square"
        and not joint.back_gouge
        and piece.weld == "cjp-groove"
    ):
        high = t if high is None else min(high, t)
        also = "A square groove without back-gouging is qualified up to the thickness tested."
    reason = (
        f"{piece.product.capitalize()} of {_mm(piece, t)}: from {_mm(piece, low or 0.0)}"
        f" {'without an upper limit' if high is None else 'to ' + _mm(piece, high)}."
    )
    unchecked = table.unchecked_of(row)
    if impact:
        limits = row_of(table_of("impact_variables"), "thickness")
        cap, below, least = (figure(limits, name, units) for name in ("cap", "below", "least"))
        raised = least if t < (below or 0.0) - 1e-9 else min(t, cap or t)
        if raised is not None and raised > (low or 0.0):
            low = raised
            reason += f" With impact toughness the least is {_mm(piece, raised)}."
        unchecked += table_of("impact_variables").unchecked_of(limits)
    found = item(
        table, row, "parent_thickness_mm", "span", reason, min=low, max=high, tested=Range(t, t), also=also
    )
    return replace(found, unchecked=unchecked)


def _no_row(piece: Welded, variable: str) -> RangeItem:
    table = table_of("partial_groove_tests" if piece.weld == "pjp-groove" else "groove_tests")
    depth = piece.weld == "pjp-groove"
    t = piece.groove_depth_mm if depth else piece.thickness_mm
    words = "groove depth" if depth else "thickness"
    if t is None:
        why = f"The {words} of the piece is not stated."
    elif piece.product == "pipe" and piece.outside_diameter_mm is None:
        why = "The outside diameter of the pipe is not stated."
    else:
        why = f"A {words} of {_mm(piece, t)} is outside the table: look up what it qualifies."
    return item(table, table.rows[0], variable, "unknown", why, tested=Range(t, t) if t is not None else None)


def _fillet_items(piece: Welded) -> Iterator[RangeItem]:
    table = table_of("fillet_tests")
    row = row_of(table, "single-pass" if piece.run_kind == "single" else "multiple-pass")
    t, leg = piece.thickness_mm, piece.leg_mm
    tested = Range(t, t) if t is not None else None
    yield item(
        table,
        row,
        "parent_thickness_mm",
        "any",
        "A fillet test qualifies any plate thickness.",
        tested=tested,
    )
    if leg is None:
        yield item(
            table, row, "fillet_size_mm", "unknown", "The leg of the fillet is not stated.", weld="fillet"
        )
        return
    smaller = row["qualifies"] == "smaller"
    yield item(
        table,
        row,
        "fillet_size_mm",
        "span",
        f"A {'single' if smaller else 'multiple'}-pass fillet of {_mm(piece, leg)} qualifies that size and "
        f"{'smaller in a single pass' if smaller else 'larger in several passes'}.",
        columns=("qualifies",),
        max=leg if smaller else None,
        min=None if smaller else leg,
        tested=Range(leg, leg),
        weld="fillet",
        also="in a single pass" if smaller else "in several passes",
    )
    yield item(
        table,
        row,
        "runs_per_side",
        "exact",
        "Single-pass and multiple-pass fillets are qualified apart.",
        values=(piece.run_kind,),
        tested=(piece.run_kind,),
        weld="fillet",
    )


def diameter_items(piece: Welded) -> Iterator[RangeItem]:
    """Outside diameter, and the branch angle of tubular connections."""
    diameter = piece.outside_diameter_mm
    table = table_of("groove_tests")
    if piece.weld == "fillet":
        yield item(
            table_of("fillet_tests"),
            table_of("fillet_tests").rows[0],
            "outside_diameter_mm",
            "any",
            "A fillet test qualifies any wall.",
        )
    elif piece.product == "plate":
        row = row_of(table, "large-pipe-middle")
        limit = figure(row, "od_min", piece.units)
        yield item(
            table,
            row,
            "outside_diameter_mm",
            "span",
            f"A plate test covers pipe of {_mm(piece, limit or 0.0)} and over.",
            columns=("od_min_mm", "od_min_in"),
            min=limit,
            unless=("backing", "back-gouge"),
            also="Smaller pipe with backing or back-gouging.",
        )
    else:
        found = groove_row(piece)
        if found is None or diameter is None:
            yield _no_row(piece, "outside_diameter_mm")
        else:
            yield _diameter(piece, *found, diameter)
    yield item(
        table,
        table.rows[0],
        "branch_angle_deg",
        "unknown",
        "T-, Y- and K-connections have rules of their own: look them up in clause 10.",
    )


def _diameter(piece: Welded, table: Table, row: Mapping[str, Any], diameter: float) -> RangeItem:
    low = figure(row, "od_min", piece.units)
    return item(
        table,
        row,
        "outside_diameter_mm",
        "span",
        f"Pipe of {_mm(piece, diameter)} qualifies "
        + ("that diameter and over." if low is None else f"{_mm(piece, low)} and over."),
        min=diameter if low is None else min(low, diameter),
        tested=Range(diameter, diameter),
    )


def job_pipe(piece: Welded, impact: bool) -> Alternative | None:
    """The line of the standard test pipes, where the coupon is one of them."""
    diameter, t = piece.outside_diameter_mm, piece.thickness_mm
    if piece.product != "pipe" or piece.weld != "cjp-groove" or diameter is None or t is None:
        return None
    table = table_of("groove_tests")
    for row in table.rows:
        for od, wall in row.get("pipes", ()):
            near = abs(od - diameter) <= od * _PIPE_TOLERANCE and abs(wall - t) <= wall * _PIPE_TOLERANCE
            if near:
                low, high = (figure(row, name, piece.units) for name in ("od_min", "od_max"))
                return Alternative(
                    title="standard test pipe",
                    items=(
                        _thickness(piece, table, row, t, impact),
                        item(
                            table,
                            row,
                            "outside_diameter_mm",
                            "span",
                            f"A standard test pipe of {_mm(piece, od)} x {_mm(piece, wall)} qualifies from "
                            f"{_mm(piece, low or 0.0)}{' to ' + _mm(piece, high) if high else ' up'}.",
                            min=low,
                            max=high,
                            tested=Range(diameter, diameter),
                        ),
                    ),
                )
    return None


def _mm(piece: Welded, value: float) -> str:
    return quantity_text(value, "thickness", piece.units)


# --- base metals --------------------------------------------------------------------------------


def metal_items(piece: Welded) -> Iterator[RangeItem]:
    """Base metals by table 6.8."""
    table = table_of("base_metal_substitution")
    if len(piece.metals) < 2:
        yield item(table, table.rows[0], "base_metals", "unknown", "The base metals are not stated.")
        return
    sides = [_side(piece, one) for one in piece.metals]
    names = tuple(one.designation or "unnamed" for one in piece.metals)
    if any(not side[1] for side in sides):
        yield item(
            table,
            table.rows[0],
            "base_metals",
            "unknown",
            "A metal without a name or a group qualifies nothing that could be compared.",
            tested=names,
        )
        return
    tokens = sorted((side[0] for side in sides), key=("I", "II", "specific", "unlisted").index)
    key = "+".join(("specific", tokens[0]) if tokens == [tokens[0], "specific"] else tokens)
    row = next((row for row in table.rows if row["row"] == key), None)
    if row is None:
        pair = MetalPair(
            text=" + ".join(names),
            first=MetalSide(names=(sides[0][1],)),
            second=MetalSide(names=(sides[1][1],)),
        )
        yield item(
            table,
            row_of(table, "specific+specific"),
            "base_metals",
            "set",
            "A steel that the code does not list qualifies only the tested combination.",
            values=(pair.text,),
            pairs=(pair,),
            tested=names,
        )
        return
    special = next((side[1] for side in sides if side[0] == "specific"), "")
    others = [side[1] for side in sides if side[0] == "specific"]
    pairs = []
    for covered in row["covers"]:
        first, second = covered.split("+")
        second_name = others[1] if first == second == "specific" else special
        pairs.append(
            MetalPair(
                text=" + ".join(
                    name if token == "specific" else f"group {token}"  # noqa: S105
                    for token, name in ((first, special), (second, second_name))
                ),
                first=_as_side(first, special),
                second=_as_side(second, second_name),
            )
        )
    yield item(
        table,
        row,
        "base_metals",
        "set",
        f"{names[0]} to {names[1]} counts as {key.replace('+', ' to ')}; qualified: "
        f"{', '.join(pair.text for pair in pairs)}.",
        values=tuple(pair.text for pair in pairs),
        pairs=tuple(pairs),
        tested=names,
    )


def _as_side(token: str, name: str) -> MetalSide:
    return MetalSide(names=(name,)) if token == "specific" else MetalSide(groups=(token,))  # noqa: S105


def _side(piece: Welded, one: BaseMetal) -> tuple[str, str]:
    """Token of table 6.8 for a metal, and its name."""
    group = group_of(piece.draft, one, piece.units)
    grade = piece.grade(one)
    name = grade.name if grade else (one.designation or "")
    if group in ("I", "II"):
        return group, name or group
    if group in ("III", "IV"):
        return "specific", name
    stated = (one.groups.aws_d1_1 if one.groups else None) or (grade.aws_d1_1 if grade else None)
    return ("specific" if stated else "unlisted"), name


# --- position, weld, groove ---------------------------------------------------------------------


def position_items(piece: Welded, impact: bool) -> Iterator[RangeItem]:
    """Positions for grooves and for fillets, and the progression."""
    table = table_of("test_positions")
    tested = piece.position
    own = "fillet" if piece.weld == "fillet" else "groove"
    symbol = aws_position(tested, own) if tested else None
    row = next((r for r in table.rows if r["row"] == f"{piece.product}-{symbol}"), None)
    if tested is None or row is None:
        why = (
            "The position is not stated."
            if tested is None
            else f"{tested} is no test position of a {own} on {piece.product} in table 6.1."
        )
        yield item(table, table.rows[0], "positions", "unknown", why)
        return
    all_by_impact = impact and symbol == "3G" and piece.progression == "up"
    for weld in ("groove", "fillet"):
        values = tuple(row[weld])
        if not values:
            continue
        yield item(
            table,
            row,
            "positions",
            "set",
            f"{symbol} on {piece.product} qualifies {', '.join(values)} for {weld}s.",
            columns=(weld,),
            values=values,
            tested=(tested,),
            weld=weld,
            also="Vertical up covers every position where impact toughness is the question; "
            "without it table 6.1 counts."
            if all_by_impact
            else "",
        )
    yield from _progression(piece, tested)


def _progression(piece: Welded, position: str) -> Iterator[RangeItem]:
    rows = table_of("essential_variables")
    row = next(row for row in rows.rows if row["variable"] == "progression")
    if not has_progression(position):
        yield item(rows, row, "progression", "any", f"{position} runs neither up nor down.")
        return
    stated = progression_of(position, piece.progression)
    if stated is None:
        yield item(
            rows, row, "progression", "unknown", f"{position}: whether it ran up or down is not recorded."
        )
        return
    yield item(
        rows,
        row,
        "progression",
        "exact",
        f"Welded {stated}; the other way asks for a test of its own.",
        values=(stated,),
        tested=(stated,),
    )


def weld_items(piece: Welded) -> Iterator[RangeItem]:
    """Kinds of weld."""
    table = table_of("test_welds")
    row = next((row for row in table.rows if row["row"] == piece.weld), None)
    if row is None:
        yield item(
            table,
            table.rows[0],
            "weld_kinds",
            "unknown",
            f"What a {piece.weld or 'weld of unknown kind'} qualifies is not known here: look it up.",
        )
        return
    yield item(
        table,
        row,
        "weld_kinds",
        "set",
        f"A {piece.weld} test qualifies {', '.join(row['covers'])}.",
        values=tuple(row["covers"]),
        tested=(str(piece.weld),),
    )


def groove_items(piece: Welded) -> Iterator[RangeItem]:
    """Groove, its dimensions, backing and back-gouging."""
    joint, preparation = piece.joint, piece.joint.preparation if piece.joint else None
    rows = table_of("essential_variables")
    if joint is None or piece.weld == "fillet":
        return
    backed = joint.backing != "none"
    yield item(
        rows,
        row_of(rows, "backing.GMAW"),
        "backing",
        "set" if backed else "any",
        "Welded with backing; leaving it out asks for a new test."
        if backed
        else "Welded without backing; adding it is free.",
        values=("metal", "ceramic", "gas", "weld", "flux") if backed else (),
        tested=(joint.backing,),
        weld="groove",
    )
    yield item(
        rows,
        row_of(rows, "back_gouge.GMAW"),
        "back_gouge",
        "exact" if joint.back_gouge else "any",
        "The root was gouged from the back; leaving that out asks for a new test."
        if joint.back_gouge
        else "Not gouged; adding it is free.",
        values=("back-gouged",) if joint.back_gouge else (),
        tested=("back-gouged" if joint.back_gouge else "not gouged",),
        weld="groove",
    )
    if preparation is None:
        yield item(rows, row_of(rows, "groove.GMAW"), "groove", "unknown", "The groove is not stated.")
        return
    yield item(
        rows,
        row_of(rows, "groove.GMAW"),
        "groove",
        "set",
        "The tested form of groove"
        + (
            ", and every prequalified groove detail."
            if piece.weld == "cjp-groove"
            else "; another form asks for a new test."
        ),
        values=(preparation.form,),
        tested=(preparation.form,),
        how="form-or-prequalified" if piece.weld == "cjp-groove" else "form",
        weld="groove",
    )
    yield from _dimensions(piece, backed)


def _dimensions(piece: Welded, backed: bool) -> Iterator[RangeItem]:
    joint = piece.joint
    preparation = joint.preparation if joint else None
    if joint is None or preparation is None:
        return
    table = table_of("groove_tolerances")
    row = row_of(table, "gouge" if joint.back_gouge else "backing" if backed else "none")
    fit = piece.record.coupon.fit_up
    gap = (fit.gap_after_tack_mm if fit else None) or preparation.root_gap_mm
    face = (fit.root_face_mm if fit else None) or preparation.root_face_mm
    angle = preparation.included_angle_deg
    if angle is None and preparation.sides:
        angle = min((s.angle_deg for s in preparation.sides if s.angle_deg is not None), default=None)
    tolerance = figure(row, "gap_minus", piece.units)
    if gap is not None and tolerance is not None:
        yield item(
            table,
            row,
            "root_gap_mm",
            "span",
            f"Root opening of {_mm(piece, gap)} less the tolerance of {_mm(piece, tolerance)}.",
            min=max(gap - tolerance, 0.0),
            tested=Range(gap, gap),
            how="or-prequalified",
            weld="groove",
        )
    more = figure(row, "face_plus", piece.units)
    if face is not None and more is not None and piece.weld == "cjp-groove":
        yield item(
            table,
            row,
            "root_face_mm",
            "span",
            f"Root face of {_mm(piece, face)} and the tolerance of {_mm(piece, more)}.",
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
            f"A groove of {angle:g}° less the tolerance of {row['angle_minus_deg']:g}°.",
            min=angle - row["angle_minus_deg"],
            tested=Range(angle, angle),
            how="or-prequalified",
            weld="groove",
        )
