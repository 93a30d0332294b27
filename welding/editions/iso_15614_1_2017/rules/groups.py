"""Groups of ISO/TR 15608: of a metal, of a list, and which part of ISO 15614 they belong to."""

from __future__ import annotations

from welding.checks.context import Draft
from welding.documents.procedure import BaseMetal
from welding.language import tr, tr_noop


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
