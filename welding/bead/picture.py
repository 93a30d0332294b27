"""Drawing of a bead in section: crown, fusion line, the lines of peak temperature beside it."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.bead.melting import crown_height_mm
from welding.bead.state import BeadState

Point = tuple[float, float]
STEPS = 32
FINGER_FILL = 0.31


@dataclass(frozen=True, slots=True, kw_only=True)
class PeakLine:
    """Where the metal peaked at a temperature; ``name`` is ``pool``, ``zone`` or the temperature [°C]."""

    name: str
    peak_c: float
    points: tuple[Point, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class BeadPicture:
    """Points in mm, x across from the centreline, y up from the plate's surface.

    Below the surface the lines lie as far beside the fusion line as on it: a drawing, not a solution.
    """

    thickness_mm: float
    crown: tuple[Point, ...]
    lines: tuple[PeakLine, ...]


def picture_of(state: BeadState) -> BeadPicture | None:
    """The drawing; ``None`` where width or depth have no model."""
    width, depth = state.width_mm, state.penetration_mm
    if width is None or depth is None or state.arc is None or state.hot is None:
        return None
    half, down = width.value / 2, depth.value
    height = crown_height_mm(state.deposit_mm2, width.value) if state.deposit_mm2 else 0.0
    crown = tuple(
        (round(half * at, 3), round(height * (1 - at**2), 3))
        for at in (-1 + 2 * step / STEPS for step in range(STEPS + 1))
    )
    # A dish fills 2/3 of width times depth, a finger below its middle 0.31: the pool is a mixture of both.
    dish = min(max((state.arc["fill"] - FINGER_FILL) / (2 / 3 - FINGER_FILL), 0.0), 1.0)
    pool = state.half_widths_mm["pool"]
    lines = []
    for name, reached in state.half_widths_mm.items():
        beyond = max(reached - pool, 0.0)
        lines.append(
            PeakLine(
                name=name,
                peak_c=peak_c(state, name),
                points=_bowl(
                    half + beyond,
                    down + beyond,
                    dish if name == "pool" else max(dish, 0.8),
                    state.settings.thickness_mm,
                ),
            )
        )
    lines.sort(key=lambda line: line.peak_c)
    return BeadPicture(thickness_mm=state.settings.thickness_mm, crown=crown, lines=tuple(lines))


def peak_c(state: BeadState, name: str) -> float:
    """Temperature of a line by its name [°C]."""
    known = {"pool": "melting_c", "zone": "zone_c"}.get(name)
    return float(state.hot[known]) if known and state.hot else float(name)


def _bowl(half: float, down: float, dish: float, thickness_mm: float) -> tuple[Point, ...]:
    points = []
    for step in range(STEPS + 1):
        across = math.cos(math.pi * step / STEPS)
        deep = down * (dish * (1 - across**2) + (1 - dish) * math.exp(-((across / 0.35) ** 2)))
        points.append((round(-half * across, 3), round(-min(deep, thickness_mm), 3)))
    return tuple(points)
