"""What a new revision of a list changes: joints added, changed by column, and gone."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from welding.weldlist.columns import COLUMNS, word_key

Cells = Mapping[str, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangedCell:
    """A cell before and after."""

    column: str
    before: str
    after: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangedJoint:
    """A joint that stands in both, and its cells that differ; ``at`` are its places in both lists."""

    mark: str
    at: tuple[int, int]
    cells: tuple[ChangedCell, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class ListChanges:
    """What a new list does to the one that stands.

    Attributes:
        added: Places in the new list of joints that are new.
        changed: Joints that stand in both and differ.
        same: How many stand in both and do not.
        gone: Places in the old list of joints of the same drawings that the new one does not have.
    """

    added: tuple[int, ...]
    changed: tuple[ChangedJoint, ...]
    same: int
    gone: tuple[int, ...]


def changes_between(old: Sequence[Cells], new: Sequence[Cells]) -> ListChanges:
    """Compare two lists by the marks of their joints.

    A joint is gone only if the new list has its drawing (or names no drawing at all): a list of one
    drawing says nothing of the others. Where a mark stands more than once, its rows are taken in order.
    A column that the new list does not have leaves what stands.
    """
    waiting: dict[str, list[int]] = {}
    for at, row in enumerate(old):
        waiting.setdefault(_mark(row), []).append(at)
    listed = {name for row in new for name, text in row.items() if text}
    added, changed, same = [], [], 0
    for at, row in enumerate(new):
        there = waiting.get(_mark(row))
        if not there or not _mark(row):
            added.append(at)
            continue
        before = there.pop(0)
        cells = tuple(
            ChangedCell(column=name, before=old[before].get(name, ""), after=row.get(name, ""))
            for name in COLUMNS
            if name in listed and _differ(old[before].get(name, ""), row.get(name, ""))
        )
        if cells:
            changed.append(ChangedJoint(mark=row["mark"], at=(before, at), cells=cells))
        else:
            same += 1
    drawings = {word_key(row.get("drawing", "")) for row in new}
    gone = [
        at
        for rest in waiting.values()
        for at in rest
        if drawings == {""} or word_key(old[at].get("drawing", "")) in drawings
    ]
    return ListChanges(added=tuple(added), changed=tuple(changed), same=same, gone=tuple(sorted(gone)))


def merged(before: Cells, after: Cells, listed: Sequence[str]) -> dict[str, str]:
    """A row with the cells of a newer one, in the columns that the newer list has."""
    found = {**before, **{name: after.get(name, "") for name in listed}}
    return {name: text for name, text in found.items() if text}


def _mark(row: Cells) -> str:
    return word_key(row.get("mark", ""))


def _differ(one: str, other: str) -> bool:
    return one.strip() != other.strip()
