"""What lies over a groove's face: a crowned or hollow arc, or the fillet that reinforces a T joint."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Protocol

from welding.joints.shapes import Point, arc_y, segment_area, spaced


class Cap(Protocol):
    """Over the face. Shares run from the left toe (0) to the right toe (1)."""

    @property
    def area(self) -> float:
        """Area over the face [mm²]; negative where the face is hollow."""

    @property
    def rise(self) -> float:
        """Height over the face [mm]; negative where it is hollow."""

    def area_to(self, share: float) -> float:
        """Area from the left toe to a share of the width [mm²]."""

    def points(self, left: float, right: float) -> list[Point]:
        """Its outline between two shares, in the channel's coordinates."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ArcCap:
    """A circular arc over the chord from toe to toe; ``height`` is where the face lies."""

    left_x: float
    right_x: float
    height: float
    rise: float

    @property
    def chord(self) -> float:
        """Toe to toe [mm]."""
        return self.right_x - self.left_x

    @property
    def area(self) -> float:
        """Circular segment [mm²]."""
        return math.copysign(segment_area(self.chord, abs(self.rise)), self.rise)

    def area_to(self, share: float) -> float:
        """Area of the segment left of a share of the chord [mm²]."""
        if self.rise == 0 or self.chord <= 0:
            return 0.0
        rise = abs(self.rise)
        radius = (self.chord**2 / 4 + rise**2) / (2 * rise)
        half = self.chord / 2

        def under(x: float) -> float:
            x = max(-radius, min(radius, x))
            return (x * math.sqrt(radius**2 - x**2) + radius**2 * math.asin(x / radius)) / 2

        x = half * (2 * share - 1)
        area = under(x) - under(-half) - (radius - rise) * (x + half)
        return math.copysign(area, self.rise)

    def points(self, left: float, right: float) -> list[Point]:
        """Its outline between two shares."""
        middle, sign = (self.left_x + self.right_x) / 2, math.copysign(1.0, self.rise)
        return [
            (
                self.left_x + share * self.chord,
                self.height
                + sign * arc_y(self.left_x + share * self.chord - middle, self.chord, abs(self.rise)),
            )
            for share in spaced(left, right, 17)
        ]


@dataclass(frozen=True, slots=True, kw_only=True)
class FilletCap:
    """A triangle: from the other member's edge of the face up along the left member by ``rise``."""

    left_x: float
    right_x: float
    height: float
    rise: float

    @property
    def area(self) -> float:
        """Half width times height [mm²]."""
        return (self.right_x - self.left_x) * self.rise / 2

    def area_to(self, share: float) -> float:
        """Area from the left to a share of the width [mm²]."""
        return (self.right_x - self.left_x) * self.rise * (share - share**2 / 2)

    def points(self, left: float, right: float) -> list[Point]:
        """Its sloping edge between two shares."""
        return [
            (self.left_x + share * (self.right_x - self.left_x), self.height + self.rise * (1 - share))
            for share in (left, right)
        ]
