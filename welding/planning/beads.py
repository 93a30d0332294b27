"""How many beads fill a joint, in which layers, and how much each lays down."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from welding.arc.relations import BeadShape
from welding.documents.fields import Role
from welding.joints.channel import Channel

MOST_BEADS = 150
THICKEST_OVER_USUAL = 1.25
ROOT_SHARE = 0.8
"""A root bead over the largest usual bead (common practice)."""
SHALLOW_ROOT_SHARE = 0.55
"""How much of a shallow groove its root fills where one bead does not fill it all (common practice)."""
OVERLAP_SHARE = {"third": 1 / 3, "half": 1 / 2, "two-thirds": 2 / 3}
"""How far a bead laps over the last one, by school (common practice)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedBead:
    """One bead of the plan.

    Attributes:
        side: 1 or 2.
        role: root, hot, fill, cap or back.
        layer: Counted from the root, within its side.
        area_mm2: What it lays down.
        width_mm: Width of the layer over the number of its beads; overlap is only drawn.
        height_mm: Thickness of the layer.
    """

    side: int
    role: Role
    layer: int
    area_mm2: float
    width_mm: float
    height_mm: float


def plan_side(
    channel: Channel,
    side: int,
    shape: BeadShape,
    scale: float = 1.0,
    overlap: str = "half",
    most_mm2: tuple[float | None, float | None] = (None, None),
    hot_mm: float = 0.0,
) -> list[PlannedBead]:
    """Beads of one side: a root bead, layers of about the usual thickness, a cap layer.

    Args:
        channel: The side.
        side: 1 or 2; every bead of side 2 that begins at a gouged root is a back bead.
        shape: Usual thickness and width.
        scale: Below one for more and smaller beads.
        overlap: School of overlap; it decides how many beads lie side by side.
        most_mm2: Largest root bead and largest other bead that the heat input allows.
        hot_mm: Thickness of a second layer that is laid like the root; none where it is 0.

    Returns:
        Beads in welding order; their areas sum to the side's area with its cap, exactly.
    """
    depth, total = channel.depth, channel.total_mm2
    fill = shape.fill_mm * math.sqrt(scale)
    widest = shape.width_mm * math.sqrt(scale)
    one_wide = widest * 1.3 * 1.05
    by_one = side == 1 and channel.width(0.0) < one_wide
    first = min(shape.root_mm * math.sqrt(scale), depth)
    if depth <= shape.root_mm * 1.2 * math.sqrt(scale):
        single = _single_layer(channel, side, widest * 1.3, overlap, shape.most_mm2 * scale)
        if len(single) == 1 or not by_one:
            return single
        first = SHALLOW_ROOT_SHARE * depth
    if by_one:
        # One bead closes the root; where the groove soon is wider than a bead, it fills less of the depth.
        first = min(first, channel.height_as_wide(one_wide))
    largest_root = min(ROOT_SHARE * shape.most_mm2 * scale, most_mm2[0] or math.inf)
    if channel.area_between(0.0, first) > largest_root:
        first = max(channel.height_holding(largest_root), 0.3 * first)
    roots = _abreast(channel.width(first), widest * 1.3, overlap)
    root_area = channel.area_between(0.0, first)
    beads = [
        PlannedBead(
            side=side,
            role="root" if side == 1 else "back",
            layer=1,
            area_mm2=root_area / roots,
            width_mm=channel.width(first) / roots,
            height_mm=first,
        )
        for _ in range(roots)
    ]
    layer = 2
    if hot_mm and first + hot_mm < 0.7 * depth:
        area = channel.area_between(first, first + hot_mm)
        count = math.ceil(area / largest_root - 1e-9)
        width = channel.width(first + hot_mm) / count
        beads += [
            PlannedBead(
                side=side, role="hot", layer=2, area_mm2=area / count, width_mm=width, height_mm=hot_mm
            )
            for _ in range(count)
        ]
        first, root_area, layer = first + hot_mm, root_area + area, 3
    most = min(shape.most_mm2 * scale, most_mm2[1] or math.inf)
    thickest = fill * THICKEST_OVER_USUAL
    layers = max(1, math.ceil((depth - first) / fill - 0.2))
    for more in range(MOST_BEADS):
        counts = _layer_counts(channel, first, layers + more, widest, overlap)
        _share_out(counts, total - root_area, most)
        upper = _upper_layers(channel, side, first, counts, thickest, layer)
        if upper[-1].height_mm <= thickest * 1.001 or len(upper) > MOST_BEADS:
            break
    return beads + upper


def _share_out(counts: list[int], area_mm2: float, most: float) -> None:
    """More beads side by side, the widest layers first, until none is over the largest section."""
    while area_mm2 / sum(counts) > most and sum(counts) < MOST_BEADS:
        fullest = max(range(len(counts)), key=lambda i: (i + 1) / counts[i])
        counts[fullest] += 1


def _upper_layers(
    channel: Channel, side: int, first: float, counts: list[int], thickest: float, lowest: int
) -> list[PlannedBead]:
    """Layers over the root: every bead lays down the same, unless its layer would become too thick."""
    beads: list[PlannedBead] = []
    low, left = first, channel.total_mm2 - channel.area_between(0.0, first)
    for index in range(len(counts)):
        rest = sum(counts[index:])
        each = left / rest
        filled = channel.area_between(0.0, low) + each * counts[index]
        # What would only fill the cap lies side by side in the last layer.
        last = index == len(counts) - 1 or filled >= 0.99 * channel.area_mm2
        count, high = (rest, channel.depth) if last else (counts[index], channel.depth)
        if not last:
            high = min(channel.height_holding(filled), low + thickest)
            each = channel.area_between(low, high) / count
        left -= each * count
        beads += [
            PlannedBead(
                side=side,
                role="cap" if last else "fill",
                layer=index + lowest,
                area_mm2=each,
                width_mm=channel.width(high) / count,
                height_mm=max(high - low, 0.1),
            )
            for _ in range(count)
        ]
        if last:
            break
        low = high
    return beads


def _single_layer(
    channel: Channel, side: int, widest: float, overlap: str, most_mm2: float
) -> list[PlannedBead]:
    width = max(channel.width(channel.depth), 1.0)
    count = max(_abreast(width, widest, overlap), math.ceil(channel.total_mm2 / most_mm2 - 1e-9))
    return [
        PlannedBead(
            side=side,
            role="root" if side == 1 else "back",
            layer=1,
            area_mm2=channel.total_mm2 / count,
            width_mm=width / count,
            height_mm=max(channel.depth, 0.5),
        )
        for _ in range(count)
    ]


def _layer_counts(channel: Channel, first: float, layers: int, widest: float, overlap: str) -> list[int]:
    """Beads in each layer over the root: as many as it is wide, layers taken as equally thick."""
    step = (channel.depth - first) / layers
    return [_abreast(channel.width(first + step * (i + 1)), widest, overlap) for i in range(layers)]


def _abreast(width: float, widest: float, overlap: str) -> int:
    """Beads side by side: each one laps over the last by its school's share."""
    if width <= widest * 1.05:
        return 1
    return 1 + math.ceil((width - widest * 1.05) / (widest * (1 - OVERLAP_SHARE[overlap])))


def fit_scale(plan: Callable[[float], Sequence[PlannedBead]], wanted: int) -> tuple[list[PlannedBead], bool]:
    """The plan with a wanted number of beads, or the nearest one that the geometry gives.

    Returns:
        The beads and whether the number is the wanted one.
    """
    best: list[PlannedBead] = []
    for step in range(81):
        found = list(plan(0.1 * (60.0 ** (step / 80))))
        if not best or abs(len(found) - wanted) < abs(len(best) - wanted):
            best = found
        if len(best) == wanted:
            break
    return best, len(best) == wanted
