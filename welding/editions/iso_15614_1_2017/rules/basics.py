"""What the rules of ISO 15614-1:2017 share: tables, groups, what is required, how an item is made."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from welding.checks.context import Draft
from welding.codebook.table import Table, load_table
from welding.documents.procedure import BaseMetal
from welding.language import tr, tr_noop
from welding.qualification.items import RangeItem, rule_of
from welding.qualification.needs import NeedFacts, Needs, has_specified_impact

PACKAGE = "welding.editions.iso_15614_1_2017"
_SLACK = 1e-9


def table_of(name: str) -> Table:
    """A table of this edition, corrections laid over it."""
    return load_table(PACKAGE, name)


def row_of(table: Table, key: str) -> Mapping[str, Any]:
    """A row by its key."""
    return table.row(key)


def condition(name: str) -> Mapping[str, Any]:
    """Row of the table of test conditions."""
    return row_of(table_of("test_conditions"), name)


def single_share() -> float:
    """Least single impact value as a share of the mean asked."""
    return float(row_of(table_of("acceptance"), "impact.single_share")["share"])


def variable_row(variable: str, level: int) -> Mapping[str, Any]:
    """Row of the table of variables for a level."""
    return row_of(table_of("variables"), f"{variable}.{level}")


def in_row(row: Mapping[str, Any], value: float) -> bool:
    """Whether a thickness is in a row's band: from and to include their edge, over and below leave it out."""
    slack = _SLACK * max(1.0, value)
    return (
        ("from_mm" not in row or value >= row["from_mm"] - slack)
        and ("over_mm" not in row or value > row["over_mm"] + slack)
        and ("to_mm" not in row or value <= row["to_mm"] + slack)
        and ("below_mm" not in row or value < row["below_mm"] - slack)
    )


def item(
    table: Table,
    row: Mapping[str, Any],
    variable: str,
    kind: Any,
    reason: str,
    *,
    columns: tuple[str, ...] = (),
    **more: Any,
) -> RangeItem:
    """A range item whose rule is this row; ``columns`` are the ones it was read from."""
    return RangeItem(
        variable=variable,
        kind=kind,
        reason=reason,
        rule=rule_of(table, row, *columns),
        unchecked=table.unchecked_of(row, *columns),
        **more,
    )


def group_of(draft: Draft, metal: BaseMetal) -> str | None:
    """Group of ISO/TR 15608: as stated, as it stands on the certificate; else the catalogue's."""
    stated = metal.groups.iso_15608 if metal.groups else None
    if stated:
        return stated
    grade = draft.metal(metal)
    return grade.iso_15608 if grade else None


def contradiction(draft: Draft, metal: BaseMetal) -> str:
    """What is stated against what the grade's standard gives, in words; empty where they agree.

    Groups 1 and 11 differ by the carbon of the heat alone, which a certificate shows: no contradiction.
    """
    stated = metal.groups.iso_15608 if metal.groups else None
    grade = draft.metal(metal)
    listed = grade.iso_15608 if grade else None
    if not stated or not listed or in_groups(stated, [listed]) or in_groups(listed, [stated]):
        return ""
    if {main_group(stated), main_group(listed)} == {"1", "11"}:
        return ""
    return tr(
        "{designation} is stated as group {stated} and stands in group {listed}",
        designation=metal.designation,
        stated=stated,
        listed=listed,
    )


_OTHER_PARTS: tuple[tuple[range, str, str], ...] = (
    (range(21, 27), tr_noop("aluminium and its alloys"), "ISO 15614-2"),
    (range(31, 39), tr_noop("copper and its alloys"), "ISO 15614-6"),
    (range(51, 55), tr_noop("titanium and its alloys"), "ISO 15614-5"),
    (range(61, 63), tr_noop("zirconium and its alloys"), "ISO 15614-5"),
    (range(71, 77), tr_noop("cast irons"), "ISO 15614-3"),
)
"""Groups of ISO/TR 15608 that other parts of ISO 15614 are for (from memory)."""


def other_part(group: str | None) -> tuple[str, str] | None:
    """Which metals a group holds and which part they belong to, where it is not this one.

    Example:
        >>> other_part("22.3"), other_part("8.1")
        (('aluminium and its alloys', 'ISO 15614-2'), None)
    """
    number = main_group(group or "")
    if not number.isdigit():
        return None
    return next(((tr(words), part) for groups, words, part in _OTHER_PARTS if int(number) in groups), None)


def main_group(group: str) -> str:
    """Group without its sub-group.

    Example:
        >>> main_group("8.1"), main_group("43")
        ('8', '43')
    """
    return group.split(".")[0]


def in_groups(group: str, listed: list[str] | tuple[str, ...]) -> bool:
    """Whether a group is one of these, or a sub-group of one.

    Example:
        >>> in_groups("8.1", ["8"]), in_groups("1.2", ["1.1"])
        (True, False)
    """
    return any(group == one or group.startswith(f"{one}.") for one in listed)


def needs_of(facts: NeedFacts, level: int) -> Needs:
    """What the level requires: at level 1 what is asked for, at level 2 also what the code triggers."""
    asked_impact, asked_hardness = facts.impact_asked, facts.hardness_asked
    open_: list[str] = []
    refused: list[str] = []
    impact = hardness = False
    if level == 2:
        impact = _impact_triggered(facts, open_)
        hardness = _hardness_triggered(facts, open_)
    if impact and asked_impact is False:
        refused.append("impact")
    if hardness and asked_hardness is False:
        refused.append("hardness")
    return Needs(
        impact=impact or bool(asked_impact),
        hardness=hardness or bool(asked_hardness),
        refused=tuple(refused),
        open=tuple(open_),
    )


def _impact_triggered(facts: NeedFacts, open_: list[str]) -> bool:
    if facts.weld == "fillet" or not facts.metals:
        return False
    start = condition("impact_from")["value_mm"]
    if facts.thickness_mm is None:
        open_.append("thickness")
        return False
    if facts.thickness_mm < start - _SLACK:
        return False
    known = [has_specified_impact(one) for one in facts.metals]
    if any(known):
        return True
    if facts.impact_asked is None and any(one is None for one in known) and _may_have_impact(facts):
        open_.append("impact")
    return False


def _may_have_impact(facts: NeedFacts) -> bool:
    """Austenitic and nickel metals usually have none; a steel of groups 1 to 3 may."""
    groups = [group_of(facts.draft, one) for one in facts.metals]
    return any(group is None or main_group(group) in ("1", "2", "3", "9") for group in groups)


def _hardness_triggered(facts: NeedFacts, open_: list[str]) -> bool:
    groups = [group_of(facts.draft, one) for one in facts.metals]
    if not groups:
        return False
    if any(group is None for group in groups):
        open_.append("group")
        return False
    exempt = condition("hardness_exempt")["groups"]
    mixed = condition("hardness_mixed")["pair"]
    known = [group for group in groups if group]
    if all(in_groups(group, exempt) for group in known):
        return all(any(in_groups(group, [one]) for group in known) for one in mixed)
    return True
