"""Plain drawing primitives in mm, and the plane geometry behind them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Point = tuple[float, float]
PolygonRole = Literal["member", "bead", "backing", "strip", "discard", "spare"]
LabelKind = Literal["length", "angle", "none"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Polygon:
    """A closed outline. A bead carries the number of its pass."""

    kind: Literal["polygon"] = "polygon"
    role: PolygonRole
    points: tuple[Point, ...]
    pass_number: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """An open line of a dimension; ``ticks`` asks for a stroke at both ends."""

    kind: Literal["line"] = "line"
    points: tuple[Point, ...]
    ticks: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Label:
    """A text at a point. ``value`` is in mm or degrees; the renderer writes it in its own units."""

    kind: Literal["label"] = "label"
    at: Point
    anchor: Literal["start", "middle", "end"]
    text: str = ""
    value: float | None = None
    value_kind: LabelKind = "none"
    pass_number: int | None = None


Shape = Polygon | Line | Label


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawing:
    """Shapes and the window that holds them; ``text_mm`` is the text height that suits it."""

    x: float
    y: float
    width: float
    height: float
    text_mm: float
    shapes: tuple[Shape, ...]
    caption: str


def polygon_area(points: Sequence[Point]) -> float:
    """Area inside a closed outline by the shoelace sum [unit²]; orientation does not matter.

    Example:
        >>> polygon_area([(0, 0), (4, 0), (4, 3)])
        6.0
    """
    twice = sum(
        x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(points, [*points[1:], points[0]], strict=True)
    )
    return abs(twice) / 2


def centroid(points: Sequence[Point]) -> Point:
    """Centroid of a closed outline; the mean of its corners if it has no area."""
    twice = cx = cy = 0.0
    for (x1, y1), (x2, y2) in zip(points, [*points[1:], points[0]], strict=True):
        cross = x1 * y2 - x2 * y1
        twice += cross
        cx += (x1 + x2) * cross
        cy += (y1 + y2) * cross
    if abs(twice) < 1e-12:
        return (
            sum(x for x, _ in points) / len(points),
            sum(y for _, y in points) / len(points),
        )
    return cx / (3 * twice), cy / (3 * twice)


def segment_area(chord: float, rise: float) -> float:
    """Area between a circular arc and its chord [unit²].

    Args:
        chord: Length of the chord, above zero.
        rise: Height of the arc over the chord, zero to half the chord and beyond.

    Returns:
        Area; zero where the rise is zero.

    Example:
        >>> round(segment_area(2.0, 1.0), 6)   # half a disc of radius 1
        1.570796
    """
    if rise <= 0 or chord <= 0:
        return 0.0
    radius = (chord**2 / 4 + rise**2) / (2 * rise)
    return radius**2 * math.acos((radius - rise) / radius) - (radius - rise) * math.sqrt(
        2 * radius * rise - rise**2
    )


def arc_y(x: float, chord: float, rise: float) -> float:
    """Height of a circular arc over its chord at ``x`` from the chord's middle."""
    if rise <= 0:
        return 0.0
    radius = (chord**2 / 4 + rise**2) / (2 * rise)
    return math.sqrt(max(radius**2 - x**2, 0.0)) - (radius - rise)


def spaced(start: float, end: float, count: int) -> list[float]:
    """``count`` values from ``start`` to ``end``, both included."""
    return [start + (end - start) * i / (count - 1) for i in range(count)]
