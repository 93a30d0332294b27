"""Sections of single beads: stated ones as stated, the others as they lay metal down."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from welding.deposit.laid import bead_area_middle_mm2
from welding.documents.procedure import Pass
from welding.joints.channel import Channel
from welding.joints.shapes import Polygon


@dataclass(frozen=True, slots=True, kw_only=True)
class Bead:
    """What of a pass shapes its bead: equal beads make equal sections, whatever else of the pass changed.

    Attributes:
        number: Its pass.
        role: Its role.
        layer: Its layer, where the procedure states it.
        stated_mm2: Its section, where the procedure states it.
        laid_mm2: Its section as feed and travel lay metal down; ``None`` while a fact is missing.
    """

    number: int
    role: str
    layer: int | None
    stated_mm2: float | None
    laid_mm2: float | None


def bead_of(one: Pass) -> Bead:
    """The bead of a pass."""
    stated = one.bead_area_mm2
    return Bead(
        number=one.number,
        role=one.role,
        layer=one.layer,
        stated_mm2=stated,
        laid_mm2=bead_area_middle_mm2(one) if stated is None else None,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class BeadArea:
    """Where one bead lies and what it fills.

    Attributes:
        pass_number: Its pass.
        area_mm2: Its section.
        locked: Whether the procedure states the section.
        layer_mm: Thickness of its layer, without the cap over the face.
        layer_width_mm: Width of its layer at the top.
        abreast: How many beads lie side by side in its layer.
        arranged: Whether the layers are arranged here and not stated.
    """

    pass_number: int
    area_mm2: float
    locked: bool
    layer_mm: float
    layer_width_mm: float
    abreast: int
    arranged: bool


def bead_shares(beads: Sequence[Bead], total_mm2: float) -> list[float]:
    """Section of each bead [mm²]: locked ones as stated, the others share the rest.

    They share it as their feeds and travels lay metal down where all of them say so, else alike.
    Locked beads that leave nothing are scaled down with the others, so that the sum always closes.
    """
    locked = [one.stated_mm2 for one in beads]
    rest = total_mm2 - sum(area for area in locked if area is not None)
    laid = [one.laid_mm2 for one in beads if one.stated_mm2 is None]
    if any(area is None for area in laid):
        laid = [1.0] * len(laid)
    whole = sum(area or 0.0 for area in laid)
    if laid and rest <= 0.02 * total_mm2:
        rest = 0.02 * total_mm2 * len(laid)
    shares = iter([rest * (area or 0.0) / whole for area in laid])
    areas = [next(shares) if area is None else area for area in locked]
    scale = total_mm2 / sum(areas) if areas else 1.0
    return [area * scale for area in areas]


def stated_layers(beads: Sequence[Bead]) -> list[int] | None:
    """Beads in each layer where every pass of the side states its layer, in rising order."""
    layers = [one.layer for one in beads if one.layer is not None]
    if len(layers) < len(beads) or layers != sorted(layers):
        return None
    return [layers.count(layer) for layer in dict.fromkeys(layers)]


def beads_of(channel: Channel, passes: Sequence[Bead]) -> tuple[list[Polygon], list[BeadArea]]:
    """The beads of one side as drawn, and their sections."""
    if not passes or channel.total_mm2 <= 0:
        return [], []
    areas = bead_shares(passes, channel.total_mm2)
    counts = stated_layers(passes)
    beads, layers = channel.beads([one.number for one in passes], [one.role for one in passes], areas, counts)
    told = [
        BeadArea(
            pass_number=one.number,
            area_mm2=area,
            locked=one.stated_mm2 is not None,
            layer_mm=layer.thickness_mm,
            layer_width_mm=channel.width(layer.high),
            abreast=layer.count,
            arranged=counts is None,
        )
        for one, area, layer in zip(passes, areas, layers, strict=True)
    ]
    return beads, told
