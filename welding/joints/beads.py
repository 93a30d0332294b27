"""Sections of single beads: stated ones as stated, the others as they lay metal down."""

from __future__ import annotations

from dataclasses import dataclass

from welding.deposit.laid import bead_area_middle_mm2
from welding.documents.procedure import Pass
from welding.joints.channel import Channel
from welding.joints.shapes import Polygon


@dataclass(frozen=True, slots=True, kw_only=True)
class BeadArea:
    """Section of one bead [mm²]; ``locked`` where the procedure states it."""

    pass_number: int
    area_mm2: float
    locked: bool


def bead_shares(passes: list[Pass], total_mm2: float) -> list[float]:
    """Section of each bead [mm²]: locked ones as stated, the others share the rest.

    They share it as their feeds and travels lay metal down where all of them say so, else alike.
    Locked beads that leave nothing are scaled down with the others, so that the sum always closes.
    """
    locked = [one.bead_area_mm2 for one in passes]
    rest = total_mm2 - sum(area for area in locked if area is not None)
    free = [one for one, area in zip(passes, locked, strict=True) if area is None]
    laid = [bead_area_middle_mm2(one) for one in free]
    if any(area is None for area in laid):
        laid = [1.0] * len(free)
    whole = sum(area or 0.0 for area in laid)
    if free and rest <= 0.02 * total_mm2:
        rest = 0.02 * total_mm2 * len(free)
    shares = iter([rest * (area or 0.0) / whole for area in laid])
    areas = [next(shares) if area is None else area for area in locked]
    scale = total_mm2 / sum(areas) if areas else 1.0
    return [area * scale for area in areas]


def beads_of(channel: Channel, passes: list[Pass]) -> tuple[list[Polygon], list[BeadArea]]:
    """The beads of one side as drawn, and their sections."""
    if not passes or channel.total_mm2 <= 0:
        return [], []
    areas = bead_shares(passes, channel.total_mm2)
    beads = channel.beads([one.number for one in passes], [one.role for one in passes], areas)
    told = [
        BeadArea(pass_number=one.number, area_mm2=area, locked=one.bead_area_mm2 is not None)
        for one, area in zip(passes, areas, strict=True)
    ]
    return beads, told
