"""Cooling: time t8/5 of unalloyed and low-alloy steel, and the wait until a pass may follow.

t8/5 is EN 1011-2 annex D, from memory. The wait is the textbook solution for a moving line of heat in a
large plate (Rosenthal, Carslaw and Jaeger), with the loss from its faces and constant properties: an
estimate, and said to be one.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.errors import OutOfRangeError
from welding.language import tr
from welding.ranges import Limits, Range, positive

CoolingJoint = Literal["plate", "butt", "corner-fillet", "t-fillet"]
Regime = Literal["2d", "3d"]
EN_1011_2_COOLING = Citation(
    document="EN 1011-2", edition="2001", clause="annex D", provenance="memory", confidence="high"
)
CONDUCTION_ESTIMATE = Citation(
    document="heat conduction in a large plate",
    clause="line source, constant properties",
    provenance="practice",
    confidence="low",
)
FACE_LOSS_W_M2_K = 25.0
"""What a face gives to still air by convection and radiation, 100 to 300 °C: 20 to 30, common practice."""
START_C = Limits(-50.0, 450.0, "°C")
"""Below 500 °C there is something to cool through; the last degrees make the formulas blow up."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Cooling:
    """Cooling time from 800 to 500 °C.

    Attributes:
        t85_s: In the middle of the shape factors [s].
        spread_s: With the least and the greatest shape factor.
        regime: Whether heat flows in the plane of the plate or into its depth.
        transition_thickness_mm: Thickness from which it flows into the depth.
        citation: Where the formulas stand.
        unchecked: Tables that nobody has compared.
    """

    t85_s: float
    spread_s: Range
    regime: Regime
    transition_thickness_mm: float
    citation: Citation
    unchecked: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Factors:
    f2: Range
    f3: float
    unchecked: tuple[str, ...]


@by_book(64)
def _factors(joint: CoolingJoint) -> _Factors:
    table = load_table("welding.heat", "shape_factors")
    row = next(row for row in table.rows if row["joint"] == joint)
    return _Factors(Range.between(row["f2_min"], row["f2_max"]), row["f3"], table.unchecked)


def t85_3d_s(heat_input_kj_mm: float, start_c: float, f3: float = 1.0) -> float:
    """t8/5 of a thick plate: (6700 − 5·T0) · Q · [1/(500−T0) − 1/(800−T0)] · F3.

    Args:
        heat_input_kj_mm: With k [kJ/mm], above zero.
        start_c: Preheat or interpass temperature T0 [°C].
        f3: Shape factor.

    Example:
        >>> round(t85_3d_s(1.0, 20), 2)
        5.29
    """
    positive("kJ/mm").require("heat_input_kj_mm", heat_input_kj_mm)
    START_C.require("start_c", start_c)
    return (6700 - 5 * start_c) * heat_input_kj_mm * (1 / (500 - start_c) - 1 / (800 - start_c)) * f3


def t85_2d_s(heat_input_kj_mm: float, start_c: float, thickness_mm: float, f2: float = 1.0) -> float:
    """t8/5 of a thin plate: (4300 − 4.3·T0) · 10⁵ · Q²/d² · [1/(500−T0)² − 1/(800−T0)²] · F2.

    Args:
        heat_input_kj_mm: With k [kJ/mm], above zero.
        start_c: Preheat or interpass temperature T0 [°C].
        thickness_mm: Thickness d, above zero.
        f2: Shape factor.

    Example:
        >>> round(t85_2d_s(1.0, 20, 10), 2)
        11.36
    """
    positive("kJ/mm").require("heat_input_kj_mm", heat_input_kj_mm)
    START_C.require("start_c", start_c)
    positive("mm").require("thickness_mm", thickness_mm)
    return (
        (4300 - 4.3 * start_c)
        * 1e5
        * (heat_input_kj_mm / thickness_mm) ** 2
        * (1 / (500 - start_c) ** 2 - 1 / (800 - start_c) ** 2)
        * f2
    )


def transition_thickness_mm(
    heat_input_kj_mm: float, start_c: float, f2: float = 1.0, f3: float = 1.0
) -> float:
    """Thickness at which both formulas give the same time [mm]; thicker plates are three-dimensional.

    Example:
        >>> round(transition_thickness_mm(1.0, 20), 2)
        14.66
    """
    positive("kJ/mm").require("heat_input_kj_mm", heat_input_kj_mm)
    START_C.require("start_c", start_c)
    ratio = (4300 - 4.3 * start_c) * 1e5 / (6700 - 5 * start_c) * f2 / f3
    return math.sqrt(ratio * heat_input_kj_mm * (1 / (500 - start_c) + 1 / (800 - start_c)))


@by_book(2048)  # passes that are welded alike ask alike
def cooling_time(
    heat_input_kj_mm: float, start_c: float, thickness_mm: float, joint: CoolingJoint = "plate"
) -> Cooling:
    """t8/5 of a bead; the longer of both solutions governs.

    Args:
        heat_input_kj_mm: With k [kJ/mm].
        start_c: Preheat or interpass temperature [°C].
        thickness_mm: Plate thickness [mm].
        joint: Which shape factors hold.

    Raises:
        OutOfRangeError: An argument is outside what the formulas accept.
    """
    factors = _factors(joint)

    def time(f2: float) -> tuple[float, bool]:
        thick = t85_3d_s(heat_input_kj_mm, start_c, factors.f3)
        thin = t85_2d_s(heat_input_kj_mm, start_c, thickness_mm, f2)
        return max(thick, thin), thin > thick

    middle, flat = time(factors.f2.middle)
    return Cooling(
        t85_s=middle,
        spread_s=Range(time(factors.f2.min)[0], time(factors.f2.max)[0]),
        regime="2d" if flat else "3d",
        transition_thickness_mm=transition_thickness_mm(
            heat_input_kj_mm, start_c, factors.f2.middle, factors.f3
        ),
        citation=EN_1011_2_COOLING,
        unchecked=factors.unchecked,
    )


def heat_input_for_t85_kj_mm(
    t85_s: float, start_c: float, thickness_mm: float, joint: CoolingJoint = "plate"
) -> float:
    """Heat input that gives a cooling time [kJ/mm, with k]; the inverse of ``cooling_time``.

    Example:
        >>> round(heat_input_for_t85_kj_mm(16.29, 100, 15), 2)
        1.5
    """
    positive("s").require("t85_s", t85_s)
    factors = _factors(joint)
    thick = t85_s / t85_3d_s(1.0, start_c, factors.f3)
    thin = math.sqrt(t85_s / t85_2d_s(1.0, start_c, thickness_mm, factors.f2.middle))
    return min(thick, thin)


@dataclass(frozen=True, slots=True, kw_only=True)
class CoolingWindow:
    """Heat input against starting temperature for two cooling times: one point a temperature."""

    start_c: tuple[float, ...]
    least_kj_mm: tuple[float, ...]
    most_kj_mm: tuple[float, ...]
    target_s: Range
    citation: Citation


def cooling_window(
    target_s: Range, thickness_mm: float, joint: CoolingJoint = "plate", temperatures: Range | None = None
) -> CoolingWindow:
    """The window of heat input that keeps t8/5 within a target, over starting temperatures.

    Args:
        target_s: Shortest and longest t8/5 wanted [s].
        thickness_mm: Plate thickness [mm].
        joint: Which shape factors hold.
        temperatures: From where to where [°C]; 20 to 300 without it.
    """
    span = temperatures or Range(20.0, 300.0)
    points = tuple(span.min + (span.max - span.min) * i / 14 for i in range(15))
    return CoolingWindow(
        start_c=points,
        least_kj_mm=tuple(heat_input_for_t85_kj_mm(target_s.min, t, thickness_mm, joint) for t in points),
        most_kj_mm=tuple(heat_input_for_t85_kj_mm(target_s.max, t, thickness_mm, joint) for t in points),
        target_s=target_s,
        citation=EN_1011_2_COOLING,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Wait:
    """Estimated wait until a bead has cooled to the interpass temperature."""

    wait_s: float
    regime: Regime
    citation: Citation
    unchecked: tuple[str, ...]


def _with_loss(lossless_s: float, per_s: float) -> float:
    """Solve t · exp(2·b·t) = t0 for t, by Newton's method on its logarithm."""
    time = lossless_s / (1 + 2 * per_s * lossless_s)
    for _ in range(40):
        step = (math.log(time / lossless_s) + 2 * per_s * time) / (1 / time + 2 * per_s)
        time = max(time - step, time / 10)
        if abs(step) <= 1e-12 * time:
            break
    return time


def interpass_wait(
    heat_input_kj_mm: float, thickness_mm: float, plate_c: float, interpass_max_c: float, metal: str = "steel"
) -> Wait:
    """Estimate the wait after a pass: a line of heat in a large plate that also cools from its faces.

    Thick: t = Q / (2πλ·ΔT). Thin: √t · exp(b·t) = (Q/d) / (√(4πλρc) · ΔT) with b = 2h / (ρc·d), the fin
    equation. The longer one governs.

    Args:
        heat_input_kj_mm: With k [kJ/mm].
        thickness_mm: Plate thickness [mm].
        plate_c: Temperature of the plate away from the weld, preheat or room [°C].
        interpass_max_c: Temperature to fall to [°C]; above ``plate_c``.
        metal: Row of the conduction table.

    Raises:
        OutOfRangeError: The plate is as warm as the limit already, or another argument is off.
    """
    positive("kJ/mm").require("heat_input_kj_mm", heat_input_kj_mm)
    positive("mm").require("thickness_mm", thickness_mm)
    if interpass_max_c - plate_c < 1:
        raise OutOfRangeError(
            "plate_c",
            plate_c,
            tr("below the interpass maximum, {interpass_max_c:g} °C", interpass_max_c=interpass_max_c),
        )
    table = load_table("welding.heat", "conduction")
    row = next((row for row in table.rows if row["metal"] == metal), table.rows[0])
    conductivity, volume_heat = row["conductivity_w_m_k"] / 1000, row["heat_j_cm3_k"] / 1000
    line, rise = heat_input_kj_mm * 1000, interpass_max_c - plate_c
    thick = line / (2 * math.pi * conductivity * rise)
    lossless = (line / thickness_mm) ** 2 / (4 * math.pi * conductivity * volume_heat * rise**2)
    thin = _with_loss(lossless, 2 * FACE_LOSS_W_M2_K * 1e-6 / (volume_heat * thickness_mm))
    return Wait(
        wait_s=max(thick, thin),
        regime="2d" if thin > thick else "3d",
        citation=CONDUCTION_ESTIMATE,
        unchecked=table.unchecked,
    )
