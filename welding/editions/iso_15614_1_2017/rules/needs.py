"""What the level requires beyond strength: impact toughness and hardness."""

from __future__ import annotations

from welding.editions.iso_15614_1_2017.rules.basics import condition
from welding.editions.iso_15614_1_2017.rules.groups import group_of, in_groups, main_group
from welding.editions.toolkit import SLACK
from welding.qualification.needs import NeedFacts, Needs, has_specified_impact


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
    if facts.thickness_mm < start - SLACK:
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
