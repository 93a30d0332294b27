"""Which tested passes a pass of a procedure is held against."""

from __future__ import annotations

from collections.abc import Iterable

from welding.documents.procedure import Pass
from welding.qualification.items import RangeItem

SAME_SIZE_MM = 0.03
"""Two diameters this near are one trade size (.045 in is sold as 1.1 and as 1.14; common practice)."""
_BY_ROLE = ("transfer_modes", "filler_diameter_mm")
"""Variables in which root and other passes do not stand in for one another where both were tested."""


def counterparts(items: Iterable[RangeItem], one: Pass) -> tuple[RangeItem, ...]:
    """The items of one variable that a pass is held against; any one of them is enough.

    An essential variable belongs to a process and an electrode size. How a pass is named frees it from
    nothing: without a tested pass of its size the nearest size counts, without one of its role the others.

    Args:
        items: Items of one variable of one range.
        one: The pass.

    Returns:
        Those of its process, its own role first; empty where the process was not tested.
    """
    mine = [item for item in items if item.is_for(one.process)]
    diameter = one.filler.diameter_mm if one.filler else None
    if diameter is not None:
        gaps = [_gap_mm(item, diameter) for item in mine]
        nearest = max(min(gaps, default=0.0), SAME_SIZE_MM)
        mine = [item for item, gap in zip(mine, gaps, strict=True) if gap <= nearest + 1e-9]
    own = [item for item in mine if has_role_of(item, one)]
    if own and mine[0].variable in _BY_ROLE:
        return tuple(own)
    return (*own, *(item for item in mine if item not in own))


def _gap_mm(item: RangeItem, diameter_mm: float) -> float:
    return 0.0 if item.filler_diameter_mm is None else abs(item.filler_diameter_mm - diameter_mm)


def has_size_of(item: RangeItem, one: Pass) -> bool:
    """Whether a pass has the electrode size that an item was tested with; an item of no size suits all."""
    if item.filler_diameter_mm is None:
        return True
    diameter = one.filler.diameter_mm if one.filler else None
    return diameter is not None and _gap_mm(item, diameter) <= SAME_SIZE_MM


def has_role_of(item: RangeItem, one: Pass) -> bool:
    """Whether a pass is of the role that an item was tested in; an item of no role suits all."""
    return item.role is None or item.role == ("root" if one.role == "root" else "other")
