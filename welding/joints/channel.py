"""What one side of a joint is filled into: two walls, a face, a cap; and the beads that tile it.

Every joint comes down to this: a groove, the gouged back of one, and a fillet, whose walls are the two
members and whose face is the line from toe to toe. Beads are disjoint and sum to the section exactly.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache, cached_property

from welding.joints.caps import Cap
from welding.joints.layers import layers_of
from welding.joints.shapes import Point, Polygon, spaced
from welding.joints.walls import Piece, Wall

_NEAR = 1e-6
CROWN = 0.05
"""Rise of an inner layer over its width; it only shapes the drawing."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Frame:
    """Where a channel lies in the drawing: its foot, and which way across and up run."""

    foot: Point
    across: Point
    up: Point

    def place(self, point: Point) -> Point:
        """From (across, up) to the drawing."""
        x, u = point
        return (
            self.foot[0] + x * self.across[0] + u * self.up[0],
            self.foot[1] + x * self.across[1] + u * self.up[1],
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Layer:
    """One layer of beads between two heights over the foot [mm]; crowns only shape the drawing."""

    low: float
    high: float
    low_crown: float
    crown: float
    count: int

    @property
    def thickness_mm(self) -> float:
        """Thickness of the layer, without a cap over the face [mm]."""
        return self.high - self.low


@dataclass(frozen=True, kw_only=True)
class Channel:
    """One side of the joint.

    Attributes:
        left: Wall at the left, its distances counted to the left.
        right: Wall at the right.
        depth: From the foot to the face [mm].
        cap: What lies over the face.
        frame: Its place in the drawing.
    """

    left: Wall
    right: Wall
    depth: float
    cap: Cap
    frame: Frame

    def width(self, height: float) -> float:
        """Width at a height above the foot [mm]."""
        return self.left.at(height) + self.right.at(height)

    def area_between(self, low: float, high: float) -> float:
        """Area between two heights [mm²]."""
        return self.left.area(low, high) + self.right.area(low, high)

    def height_holding(self, area_mm2: float) -> float:
        """Height up to which the channel holds an area [mm]; its depth where it holds no more."""
        return _root(lambda h: self.area_between(0.0, h), area_mm2, self.depth)

    def height_as_wide(self, width_mm: float) -> float:
        """Height at which the channel is as wide [mm]; its depth where it stays narrower."""
        return _root(self.width, width_mm, self.depth)

    @cached_property
    def area_mm2(self) -> float:
        """Area from the foot to the face [mm²]."""
        return self.area_between(0.0, self.depth)

    @property
    def total_mm2(self) -> float:
        """Area with the cap [mm²]."""
        return self.area_mm2 + self.cap.area

    @property
    def centroid(self) -> Point:
        """Centroid of the area below the face, in the drawing; the foot where there is none."""
        if self.area_mm2 <= 0:
            return self.frame.foot
        up = sum(wall.total(Piece.height_moment, 0.0, self.depth) for wall in (self.left, self.right))
        across = (
            self.right.total(Piece.square, 0.0, self.depth) - self.left.total(Piece.square, 0.0, self.depth)
        ) / 2
        return self.frame.place((across / self.area_mm2, up / self.area_mm2))

    def beads(
        self,
        numbers: Sequence[int],
        roles: Sequence[str],
        weights: Sequence[float],
        counts: Sequence[int] | None = None,
    ) -> tuple[list[Polygon], list[Layer]]:
        """Beads from the foot up, disjoint, filling channel and cap; each its share of the whole.

        Args:
            numbers: Pass numbers in welding order.
            roles: Their roles; a layer never mixes root, hot, fill and cap.
            weights: Their areas or anything in proportion to them, above zero.
            counts: Beads in each layer, where that is stated; arranged by natural shape otherwise.

        Returns:
            One outline and one layer a pass.
        """
        if not numbers:
            return [], []
        whole = sum(weights)
        ends = [sum(weights[: i + 1]) / whole for i in range(len(weights))]
        beads: list[Polygon] = []
        lies: list[Layer] = []
        done = 0
        for layer in self._layers(roles, ends, counts):
            starts = [0.0, *self._cuts(layer, ends[done : done + layer.count], ends[done - 1] if done else 0)]
            for left, right in zip(starts, [*starts[1:], 1.0], strict=True):
                outline = self._outline(layer, left, right)
                beads.append(
                    Polygon(
                        role="bead",
                        points=tuple(self.frame.place(point) for point in outline),
                        pass_number=numbers[len(beads)],
                    )
                )
                lies.append(layer)
            done += layer.count
        return beads, lies

    def _layers(
        self, roles: Sequence[str], ends: Sequence[float], counts: Sequence[int] | None
    ) -> list[Layer]:
        """Layers from the foot up; what would pass the face is laid side by side in the last one."""
        if self.area_mm2 <= 0:
            return [Layer(low=0.0, high=self.depth, low_crown=0.0, crown=0.0, count=len(ends))]
        inner = next(
            (e for e, role in zip(reversed(ends), reversed(roles), strict=True) if role != roles[-1]), 0.0
        )
        if counts:
            inner = ends[-1 - counts[-1]] if len(counts) > 1 else 0.0
        # Fills end below the face: a lone cap over many of them takes more than its share.
        below_face = 0.97 * (self.area_mm2 + min(self.cap.area, 0.0))
        squeeze = min(1.0, below_face / (inner * self.total_mm2)) if inner else 1.0

        @cache  # asked again and again for the few shares that layers can begin at
        def height_at(share: float) -> float:
            return _root(
                lambda h: self.area_between(0.0, h) + 2 / 3 * CROWN * self.width(h) ** 2,
                share * squeeze * self.total_mm2,
                self.depth,
            )

        @cache
        def level(share: float) -> tuple[float, float]:
            """Height that a share fills up to, and the width there."""
            if share >= 1 - 1e-12:
                height = self.depth + self.cap.rise / 2
            else:
                height = height_at(share) if share > 0 else 0.0
            return height, self.width(min(height, self.depth))

        def shape(start: float, end: float) -> tuple[float, float]:
            (bottom, foot), (top, face) = level(start), level(end)
            return (foot + face) / 2, top - bottom

        layers: list[Layer] = []
        done, low, low_crown = 0, 0.0, 0.0
        for count in (counts or layers_of(roles, shape, ends))[:-1]:
            high = height_at(ends[done + count - 1])
            highest = self.depth + min(self.cap.rise, 0.0) - CROWN * self.width(high)
            if high <= low + 1e-6 or high >= highest:
                break
            layers.append(Layer(low=low, high=high, low_crown=low_crown, crown=CROWN, count=count))
            done, low, low_crown = done + count, high, CROWN
        last = Layer(low=low, high=self.depth, low_crown=low_crown, crown=0.0, count=len(ends) - done)
        return [*layers, last]

    def _cuts(self, layer: Layer, ends: Sequence[float], before: float) -> list[float]:
        """Shares of the width at which a layer's beads meet, so that each has its area."""
        if len(ends) == 1:
            return []
        span = ends[-1] - before
        area_to = self._layer_area(layer)
        whole = area_to(1.0)
        return [_root(area_to, (end - before) / span * whole, 1.0) for end in ends[:-1]]

    def _layer_area(self, layer: Layer) -> Callable[[float], float]:
        """Area of a layer from its left end to a share of the width, as a function of that share."""
        between = self.area_between(layer.low, layer.high)
        bottom, top = self.width(layer.low), self.width(layer.high)
        over: Callable[[float], float] = (
            self.cap.area_to
            if layer.high >= self.depth
            else lambda share: _crown_area(layer.crown, top, share)
        )
        return lambda share: share * between + over(share) - _crown_area(layer.low_crown, bottom, share)

    def _outline(self, layer: Layer, left: float, right: float) -> list[Point]:
        def edge(height: float, crown: float) -> list[Point]:
            width, start = self.width(height), -self.left.at(height)
            return [
                (start + share * width, height + crown * width * 4 * share * (1 - share))
                for share in spaced(left, right, 9)
            ]

        bottom = edge(layer.low, layer.low_crown)
        top = self.cap.points(left, right) if layer.high >= self.depth else edge(layer.high, layer.crown)
        outline = [*bottom]
        if right == 1.0:
            outline += self.right.points(layer.low, layer.high)
        else:
            outline += self._between(layer, right)
        outline += reversed(top)
        if left == 0.0:
            outline += [(-x, h) for x, h in reversed(self.left.points(layer.low, layer.high))]
        else:
            outline += reversed(self._between(layer, left))
        return _without_doubles(outline)

    def _between(self, layer: Layer, share: float) -> list[Point]:
        """The line where two beads meet: a share of the width at each height where a wall bends."""
        heights = sorted(
            {h for wall in (self.left, self.right) for _, h in wall.points(layer.low, layer.high)}
        )
        # A crown below lifts the foot of the line; what lies under it belongs to the layer below.
        foot = layer.low + layer.low_crown * self.width(layer.low) * 4 * share * (1 - share)
        return [
            (-self.left.at(h) + share * self.width(h), h)
            for h in heights
            if foot + _NEAR < h < layer.high - _NEAR
        ]


def _without_doubles(points: list[Point]) -> list[Point]:
    """Without points that lie on the one before; a drawing library takes them for a crossing."""
    kept: list[Point] = []
    for point in points:
        if not kept or math.dist(kept[-1], point) > _NEAR:
            kept.append(point)
    while len(kept) > 1 and math.dist(kept[0], kept[-1]) <= _NEAR:
        kept.pop()
    return kept


def _crown_area(crown: float, width: float, share: float) -> float:
    """Area under the parabola of a layer's top, up to a share of its width."""
    return crown * width**2 * (2 * share**2 - 4 / 3 * share**3)


def _root(of: Callable[[float], float], wanted: float, top: float) -> float:
    """Where a rising function takes a value, between 0 and ``top``; false position, Illinois form."""
    low, high = 0.0, top
    below, above = of(low) - wanted, of(high) - wanted
    if below >= 0:
        return low
    if above <= 0:
        return high
    kept = 0
    for _ in range(80):
        middle = high - above * (high - low) / (above - below)
        off = of(middle) - wanted
        if abs(off) <= 1e-8 * (1 + abs(wanted)) or high - low <= 1e-12 * top:
            return middle
        if off < 0:
            low, below = middle, off
            above = above / 2 if kept == -1 else above
            kept = -1
        else:
            high, above = middle, off
            below = below / 2 if kept == 1 else below
            kept = 1
    return high
