"""Range of parent metal of ISO 15614-1:2017, by pairs of groups."""

from __future__ import annotations

import re
from collections.abc import Iterator

from welding.documents.procedure import BaseMetal
from welding.editions.iso_15614_1_2017.rules.basics import item, table_of
from welding.editions.iso_15614_1_2017.rules.groups import contradiction, group_of, main_group, other_part
from welding.editions.toolkit import row_of
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import MetalPair, MetalSide, RangeItem
from welding.qualification.needs import Needs


def metal_items(coupon: TestCoupon, level: int, needs: Needs) -> Iterator[RangeItem]:
    """The pairs of groups that the tested pair qualifies."""
    table = table_of(f"parent_metal_level_{level}")
    if len(coupon.metals) < 2:
        yield item(table, table.rows[0], "base_metals", "unknown", tr("The base metals are not stated."))
        return
    names = tuple(one.designation or "unnamed" for one in coupon.metals)
    groups = [group_of(coupon.draft, one) for one in coupon.metals]
    if None in groups:
        yield _ungrouped(coupon, level, names)
        return
    against = next((said for one in coupon.metals if (said := contradiction(coupon.draft, one))), "")
    if against:
        yield item(table, table.rows[0], "base_metals", "unknown", f"{against}.", tested=names)
        return
    other = next((part for group in groups if (part := other_part(group))), None)
    if other is not None:
        why = tr(
            "Not within this part of ISO 15614: {other} belong to {other2}.", other=other[0], other2=other[1]
        )
        yield item(table, table.rows[0], "base_metals", "set", why, tested=names)
        return
    sides = sorted(
        ((group or "", _yield(coupon, one)) for group, one in zip(groups, coupon.metals, strict=True)),
        key=lambda side: (-_order(side[0]), -(side[1] or 0.0)),
    )
    yield _level_1(sides, names, needs) if level == 1 else _level_2(sides, names)


def _order(group: str) -> float:
    return float(group) if re.fullmatch(r"\d+(\.\d+)?", group) else 0.0


def _yield(coupon: TestCoupon, metal: BaseMetal) -> float | None:
    """Specified minimum yield of the grade, at its thinnest step; as stated where the grade is not known."""
    grade = coupon.grade(metal)
    return (grade.yield_at(None) if grade else None) or metal.yield_mpa


def _ungrouped(coupon: TestCoupon, level: int, names: tuple[str, ...]) -> RangeItem:
    table = table_of(f"parent_metal_level_{level}")
    if not all(one.designation for one in coupon.metals):
        return item(
            table, table.rows[0], "base_metals", "unknown", tr("A base metal has neither a name nor a group.")
        )
    pair = MetalPair(
        text=" + ".join(names), first=MetalSide(names=(names[0],)), second=MetalSide(names=(names[1],))
    )
    return item(
        table,
        table.rows[0],
        "base_metals",
        "set",
        tr("A metal without a group needs a test of its own, which covers only itself."),
        values=(pair.text,),
        pairs=(pair,),
        tested=names,
    )


def _level_1(sides: list[tuple[str, float | None]], names: tuple[str, ...], needs: Needs) -> RangeItem:
    table = table_of("parent_metal_level_1")
    if needs.impact:
        row = row_of(table, "impact")
        pairs = [_pair(sides[0][0], sides[1][0])]
        reason = tr("With impact toughness the tested sub-groups are kept.")
    else:
        mains = [main_group(side[0]) for side in sides]
        found = next((row for row in table.rows if row["row"] == "-".join(mains)), None)
        row = found or row_of(table, "same")
        covered = [one.split("-") for one in found["covers"]] if found else [mains]
        pairs = [_pair(*one) for one in covered]
        reason = tr(
            "Groups {mains} were tested; level 1 qualifies them whole.", mains=tr(" and ").join(mains)
        )
    return item(
        table,
        row,
        "base_metals",
        "set",
        reason,
        values=tuple(pair.text for pair in pairs),
        pairs=tuple(pairs),
        tested=names,
    )


def _pair(first: str, second: str) -> MetalPair:
    return MetalPair(
        text=f"{first} + {second}", first=MetalSide(groups=(first,)), second=MetalSide(groups=(second,))
    )


def _level_2(sides: list[tuple[str, float | None]], names: tuple[str, ...]) -> RangeItem:
    table = table_of("parent_metal_level_2")
    mains = [main_group(side[0]) for side in sides]
    row = next((row for row in table.rows if row["row"] == "-".join(mains)), None)
    if row is None:
        limited = [_own_sub_group(*side) for side in sides]
        if None in limited:
            why = tr("The specified yield of a tested metal is not known.")
            return item(table, table.rows[0], "base_metals", "unknown", why, tested=names)
        (first, first_words), (second, second_words) = (one for one in limited if one is not None)
        pair = MetalPair(text=f"{first_words} + {second_words}", first=first, second=second)
        return item(
            table,
            table.rows[0],
            "base_metals",
            "set",
            tr(
                "The pair {mains} is not in the table: it qualifies its own sub-groups, up to "
                "the yield tested.",
                mains="-".join(mains),
            ),
            values=(pair.text,),
            pairs=(pair,),
            tested=names,
        )
    pairs: list[MetalPair] = []
    for covered in row["covers"]:
        pair_or_why = _covered_pair(covered, sides)
        if isinstance(pair_or_why, str):
            return item(table, row, "base_metals", "unknown", pair_or_why, tested=names)
        pairs.append(pair_or_why)
    return item(
        table,
        row,
        "base_metals",
        "set",
        tr(
            "Groups {join} were tested; qualified: {join2}.",
            join=tr(" and ").join(side[0] for side in sides),
            join2="; ".join(pair.text for pair in pairs),
        ),
        values=tuple(pair.text for pair in pairs),
        pairs=tuple(pairs),
        tested=names,
    )


def _own_sub_group(group: str, yield_mpa: float | None) -> tuple[MetalSide, str] | None:
    """The sub-group tested; of steels that are grouped by strength no stronger one."""
    if main_group(group) not in ("1", "2", "3"):
        return MetalSide(groups=(group,)), group
    if yield_mpa is None:
        return None
    return MetalSide(groups=(group,), max_yield_mpa=yield_mpa), f"{group} ≤ {yield_mpa:g} MPa"


def _covered_pair(covered: str, sides: list[tuple[str, float | None]]) -> MetalPair | str:
    """A pair of the table as two sides; why not, where a yield that it needs is not known."""
    tokens = covered.split("-")
    same = main_group(tokens[0].rstrip("abc")) == main_group(tokens[1].rstrip("abc"))
    mark_of_pair = tokens[0][-1]
    if same and mark_of_pair in "abc" and tokens[1][-1] not in "abc":
        # A mark is read for both members of the same group: the stricter of two readings.
        tokens[1] += mark_of_pair
    made: list[MetalSide] = []
    words: list[str] = []
    for index, token in enumerate(tokens):
        group, mark = token.rstrip("abc"), token[-1] if token[-1] in "abc" else ""
        tested, yield_mpa = next(
            (side for side in sides[index:] + sides[:index] if main_group(side[0]) == main_group(group)),
            ("", None),
        )
        if mark == "a":
            if yield_mpa is None:
                return tr(
                    "The specified yield of the tested metal of group {group} is not known.", group=group
                )
            made.append(MetalSide(groups=(group,), max_yield_mpa=yield_mpa))
            words.append(f"{group} ≤ {yield_mpa:g} MPa")
        elif mark == "b" and "." in tested:
            sub = int(tested.split(".")[1])
            made.append(MetalSide(groups=tuple(f"{group}.{n}" for n in range(1, sub + 1))))
            words.append(tr("{group}.1 to {tested}", group=group, tested=tested) if sub > 1 else tested)
        elif mark in ("b", "c") and tested:
            made.append(MetalSide(groups=(tested,)))
            words.append(tested)
        else:
            made.append(MetalSide(groups=(group,)))
            words.append(group)
    return MetalPair(text=" + ".join(words), first=made[0], second=made[1])
