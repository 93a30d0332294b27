"""One wall of a groove: distance from the groove's axis by height, of straight and round pieces.

Heights run from the bottom of the groove to its face. Areas and moments are closed forms, so that a
section is exact and not as fine as its drawing.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import pairwise

from welding.joints.shapes import Point, spaced

ARC_POINTS = 13
"""Points that an arc is drawn with; areas do not go by them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """A piece of wall between two heights [mm].

    A straight piece runs from ``start`` to ``end``. A round one (``radius`` above zero) lies on a
    circle about (``centre_x``, ``centre_h``); ``bulge`` +1 is its outer half (a groove hollowed out,
    as a U), -1 its inner half (a tube bulging into the groove).
    """

    low: float
    high: float
    start: float = 0.0
    end: float = 0.0
    radius: float = 0.0
    centre_x: float = 0.0
    centre_h: float = 0.0
    bulge: int = 1

    def at(self, height: float) -> float:
        """Distance from the axis at a height within the piece."""
        if self.radius:
            rest = self.radius**2 - (height - self.centre_h) ** 2
            return self.centre_x + self.bulge * math.sqrt(max(rest, 0.0))
        if self.high <= self.low:
            return self.end
        return self.start + (self.end - self.start) * (height - self.low) / (self.high - self.low)

    def area(self, low: float, high: float) -> float:
        """Integral of the distance over height [mm²]."""
        if not self.radius:
            return self.at((low + high) / 2) * (high - low)
        a, b = low - self.centre_h, high - self.centre_h
        return self.centre_x * (b - a) + self.bulge * (self._half_disc(b) - self._half_disc(a))

    def _half_disc(self, t: float) -> float:
        """Antiderivative of √(r² − t²)."""
        r = self.radius
        t = max(-r, min(r, t))
        return (t * math.sqrt(r * r - t * t) + r * r * math.asin(t / r)) / 2

    def height_moment(self, low: float, high: float) -> float:
        """Integral of distance x height [mm³]."""
        if not self.radius:
            x0, x1, span = self.at(low), self.at(high), high - low
            slope = (x1 - x0) / span if span else 0.0
            return x0 * (high**2 - low**2) / 2 + slope * (
                (high**3 - low**3) / 3 - low * (high**2 - low**2) / 2
            )
        r, c = self.radius, self.centre_h
        a, b = (max(-r, min(r, end - c)) for end in (low, high))
        swing = (math.pow(r * r - a * a, 1.5) - math.pow(r * r - b * b, 1.5)) / 3
        return (
            self.centre_x * (high**2 - low**2) / 2
            + self.bulge * swing
            + self.bulge * c * (self._half_disc(b) - self._half_disc(a))
        )

    def square(self, low: float, high: float) -> float:
        """Integral of distance² over height [mm³], for the sideways centroid."""
        if not self.radius:
            x0, x1 = self.at(low), self.at(high)
            return (x0 * x0 + x0 * x1 + x1 * x1) / 3 * (high - low)
        r, x, s = self.radius, self.centre_x, self.bulge
        a, b = low - self.centre_h, high - self.centre_h
        return (
            (x * x + r * r) * (b - a)
            - (b**3 - a**3) / 3
            + 2 * x * s * (self._half_disc(b) - self._half_disc(a))
        )

    def moved(self, up: float, out: float) -> Piece:
        """The piece shifted up and away from the axis."""
        return replace(
            self,
            low=self.low + up,
            high=self.high + up,
            start=self.start + out,
            end=self.end + out,
            centre_x=self.centre_x + out,
            centre_h=self.centre_h + up,
        )


@dataclass(frozen=True, slots=True)
class Wall:
    """Pieces one above the other, without gaps in height."""

    pieces: tuple[Piece, ...]

    @property
    def top(self) -> float:
        """Height of its upper end."""
        return self.pieces[-1].high if self.pieces else 0.0

    def at(self, height: float) -> float:
        """Distance from the axis at a height; beyond its ends that of the end."""
        if not self.pieces:
            return 0.0
        for piece in self.pieces:
            if height <= piece.high:
                return piece.at(max(height, piece.low))
        return self.pieces[-1].at(self.pieces[-1].high)

    def total(self, of: Callable[[Piece, float, float], float], low: float, high: float) -> float:
        """Sum of an integral of the pieces between two heights."""
        found = 0.0
        for piece in self.pieces:  # a plain loop: roots of it are sought on every evaluation
            if piece.high > low and piece.low < high:
                found += of(piece, max(low, piece.low), min(high, piece.high))
        return found

    def area(self, low: float, high: float) -> float:
        """Area between the axis and the wall, between two heights [mm²]."""
        return self.total(Piece.area, low, high)

    def cut(self, low: float, high: float) -> Wall:
        """The part between two heights, counted from the lower one."""
        parts = []
        for piece in self.pieces:
            a, b = max(low, piece.low), min(high, piece.high)
            if b - a > 1e-9:
                parts.append(
                    replace(piece, low=a, high=b, start=piece.at(a), end=piece.at(b)).moved(-low, 0.0)
                )
        return Wall(tuple(parts))

    def flipped(self) -> Wall:
        """The wall upside down: its top becomes its bottom."""
        top = self.top
        return Wall(
            tuple(
                replace(
                    piece,
                    low=top - piece.high,
                    high=top - piece.low,
                    start=piece.end,
                    end=piece.start,
                    centre_h=top - piece.centre_h,
                )
                for piece in reversed(self.pieces)
            )
        )

    def on(self, other: Wall) -> Wall:
        """This wall with another one set on top of it."""
        return Wall((*self.pieces, *(piece.moved(self.top, 0.0) for piece in other.pieces)))

    def points(self, low: float, high: float) -> list[Point]:
        """Its outline between two heights, from below up: (distance, height)."""
        found: list[Point] = []
        for piece in self.pieces:
            a, b = max(low, piece.low), min(high, piece.high)
            if b < a or (b == a and found):
                continue
            steps = spaced(a, b, ARC_POINTS) if piece.radius and b > a else [a, b]
            for height in steps:
                point = (piece.at(height), height)
                if not found or math.dist(found[-1], point) > 1e-9:
                    found.append(point)
        return found

    def wider_of(self, other: Wall) -> Wall:
        """At each height the farther one of two walls of the same height."""
        marks = sorted({end for wall in (self, other) for p in wall.pieces for end in (p.low, p.high)})
        parts: list[Piece] = []
        for a, b in pairwise(marks):
            if b - a < 1e-9:
                continue
            for low, high in _split(self, other, a, b):
                middle = (low + high) / 2
                wall = self if self.at(middle) >= other.at(middle) else other
                parts += [piece.moved(low, 0.0) for piece in wall.cut(low, high).pieces]
        return Wall(tuple(parts))


def _split(one: Wall, other: Wall, low: float, high: float) -> list[tuple[float, float]]:
    """The interval, cut where both walls cross (looked for once, between their pieces' ends)."""

    def ahead(height: float) -> bool:
        return one.at(height) >= other.at(height)

    inner_low, inner_high = low + 1e-9, high - 1e-9
    if ahead(inner_low) == ahead(inner_high):
        return [(low, high)]
    first = ahead(inner_low)
    for _ in range(60):
        middle = (inner_low + inner_high) / 2
        if ahead(middle) == first:
            inner_low = middle
        else:
            inner_high = middle
    return [(low, inner_high), (inner_high, high)]


def straight(depth: float, start: float, end: float) -> Wall:
    """A straight wall of this height; without any it has no piece."""
    return Wall((Piece(low=0.0, high=depth, start=start, end=end),)) if depth > 0 else Wall(())


def ledge(out: float) -> Wall:
    """A wall of no height, this far from the axis."""
    return Wall((Piece(low=0.0, high=0.0, start=out, end=out),))


def bevelled(depth: float, out: float, angle_deg: float) -> Wall:
    """A wall leaning out by an angle from the upright, ``out`` from the axis at its foot."""
    return straight(depth, out, out + depth * math.tan(math.radians(angle_deg)))


def hollowed(depth: float, out: float, radius: float, angle_deg: float) -> Wall:
    """A wall of a U or a J: a fillet of this radius at the foot, then straight at the angle.

    The circle touches the foot's level right over the edge of the land.
    """
    angle = math.radians(angle_deg)
    tangent = radius * (1 - math.sin(angle))
    arc_top = min(tangent, depth)
    arc = Piece(low=0.0, high=arc_top, radius=radius, centre_x=out, centre_h=radius)
    wall = Wall((arc,))
    if depth > tangent:
        wall = wall.on(bevelled(depth - tangent, out + radius * math.cos(angle), angle_deg))
    return wall


def bulging(depth: float, out: float, radius: float) -> Wall:
    """A tube's rounded corner: it touches the axis' side at the foot and curves away."""
    return Wall((Piece(low=0.0, high=depth, radius=radius, centre_x=out + radius, centre_h=0.0, bulge=-1),))


def spaced_arc(
    centre_x: float, centre_y: float, radius: float, start_deg: float, end_deg: float
) -> list[Point]:
    """Points on a circle in the drawing (y downwards), angles counted from the right, upwards."""
    return [
        (centre_x + radius * math.cos(math.radians(a)), centre_y - radius * math.sin(math.radians(a)))
        for a in spaced(start_deg, end_deg, ARC_POINTS)
    ]
