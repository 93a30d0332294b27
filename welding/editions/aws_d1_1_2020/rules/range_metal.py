"""Range of base metals of AWS D1.1:2020, by table 6.8."""

from __future__ import annotations

from collections.abc import Iterator

from welding.documents.procedure import BaseMetal
from welding.editions.aws_d1_1_2020.rules.basics import item, table_of
from welding.editions.aws_d1_1_2020.rules.groups import group_of
from welding.editions.toolkit import row_of
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import MetalPair, MetalSide, RangeItem, also_read


def metal_items(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    """Base metals by table 6.8."""
    table = table_of("base_metal_substitution")
    if len(coupon.metals) < 2:
        yield item(table, table.rows[0], "base_metals", "unknown", tr("The base metals are not stated."))
        return
    sides = [_side(coupon, one) for one in coupon.metals]
    names = tuple(one.designation or "unnamed" for one in coupon.metals)
    if any(not side[1] for side in sides):
        yield item(
            table,
            table.rows[0],
            "base_metals",
            "unknown",
            tr("A metal without a name or a group qualifies nothing that could be compared."),
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
            tr("A steel that the code does not list qualifies only the tested combination."),
            values=(pair.text,),
            pairs=(pair,),
            tested=names,
        )
        return
    bound = row_of(table_of("impact_variables"), "base_metal")
    special = next((side[1] for side in sides if side[0] == "specific"), "")
    others = [side[1] for side in sides if side[0] == "specific"]
    pairs = []
    for covered in row["covers"]:
        if impact and sorted(covered.split("+")) != sorted(tokens):
            continue
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
    reason = tr(
        "{names} to {names2} counts as {replace}; qualified: {join}.",
        names=names[0],
        names2=names[1],
        replace=key.replace("+", tr(" to ")),
        join=", ".join(pair.text for pair in pairs),
    )
    if impact:
        reason += tr(" With impact toughness another group asks for a new test.")
    found = item(
        table,
        row,
        "base_metals",
        "set",
        reason,
        values=tuple(pair.text for pair in pairs),
        pairs=tuple(pairs),
        tested=names,
    )
    yield also_read(found, table_of("impact_variables"), bound) if impact else found


def _as_side(token: str, name: str) -> MetalSide:
    return MetalSide(names=(name,)) if token == "specific" else MetalSide(groups=(token,))  # noqa: S105


def _side(coupon: TestCoupon, one: BaseMetal) -> tuple[str, str]:
    """Token of table 6.8 for a metal, and its name."""
    group = group_of(coupon.draft, one, coupon.units)
    grade = coupon.grade(one)
    name = grade.name if grade else (one.designation or "")
    if group in ("I", "II"):
        return group, name or group
    if group in ("III", "IV"):
        return "specific", name
    stated = (one.groups.aws_d1_1 if one.groups else None) or (grade.aws_d1_1 if grade else None)
    return ("specific" if stated else "unlisted"), name
