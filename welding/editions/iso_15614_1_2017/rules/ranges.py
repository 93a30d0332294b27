"""Range of qualification of ISO 15614-1:2017, level 1 or 2, for one test piece."""

from __future__ import annotations

from welding.editions.iso_15614_1_2017.rules.range_heat import heat_items
from welding.editions.iso_15614_1_2017.rules.range_joint import position_items, weld_items
from welding.editions.iso_15614_1_2017.rules.range_metal import metal_items
from welding.editions.iso_15614_1_2017.rules.range_process import process_items
from welding.editions.iso_15614_1_2017.rules.range_size import diameter_items, thickness_items
from welding.qualification.items import Alternative, RangeItem
from welding.qualification.needs import Needs
from welding.qualification.welded import Welded


def range_items(
    piece: Welded, level: int, needs: Needs, joint_alone: bool = False
) -> tuple[tuple[RangeItem, ...], tuple[Alternative, ...]]:
    """Items of the range; this code has no other lines for the same test.

    ``joint_alone`` leaves out what only passes are asked about.
    """
    return (
        *thickness_items(piece, level, needs),
        *diameter_items(piece, level),
        *metal_items(piece, level, needs),
        *weld_items(piece, level),
        *position_items(piece, level, needs),
        *(() if joint_alone else process_items(piece, level, needs)),
        *heat_items(piece, level, needs),
    ), ()
