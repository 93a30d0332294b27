"""How much of the heat melts metal, and how much metal a heat melts: published relations, from memory."""

from __future__ import annotations

import math

THICK_CEILING = 1 / math.e
"""Most of the heat that can melt, fast source on a thick plate: half circle of the peak isotherm."""
THIN_CEILING = 2 / math.sqrt(2 * math.pi * math.e)
"""The same in a thin plate."""


def wells_width_mm(
    power_w: float, k_w_mm_k: float, rise_c: float, thickness_mm: float, travel_mm_s: float, a_mm2_s: float
) -> float:
    """Pool width in a thin plate fused through: q = 8 k dT d (1/5 + v w / 4a) (Wells 1952) [mm].

    Zero where the power is too small to fuse through.
    """
    left = power_w / (8 * k_w_mm_k * rise_c * thickness_mm) - 0.2
    return max(0.0, left * 4 * a_mm2_s / travel_mm_s)


def wells_efficiency(a_mm2_s: float, travel_mm_s: float, width_mm: float) -> float:
    """Share of the heat that melts, by the pool's width (Wells 1952); at most 0.5."""
    return 1 / (8 * a_mm2_s / (5 * travel_mm_s * width_mm) + 2)


def okada_efficiency(a_mm2_s: float, travel_mm_s: float, width_mm: float) -> float:
    """The same on a thick plate (Okada 1977); at most 0.37."""
    return 1 / (1.35 * (1 + math.sqrt(1 + 10.4 * (a_mm2_s / (travel_mm_s * width_mm)) ** 2)))


def dupont_marder_efficiency(
    power_w: float, travel_mm_s: float, melting_j_mm3: float, a_mm2_s: float, viscosity_mm2_s: float
) -> float:
    """Share of the net power that melts, arc processes (DuPont and Marder 1995)."""
    return 0.5 * math.exp(-175 * melting_j_mm3 * a_mm2_s * viscosity_mm2_s / (power_w * travel_mm_s))


def fuerschbach_efficiency(power_w: float, travel_mm_s: float, melting_j_mm3: float, a_mm2_s: float) -> float:
    """Share of the net power that melts (Fuerschbach and Knorovsky 1991), Ry = q v / (a² H)."""
    ry = power_w * travel_mm_s / (a_mm2_s**2 * melting_j_mm3)
    return max(0.0, 0.48 - 0.29 * math.exp(-ry / 6.8) - 0.17 * math.exp(-ry / 59))


def jackson_penetration_mm(k: float, current_a: float, voltage_v: float, travel_mm_min: float) -> float:
    """Penetration K (I⁴ / (v U²))^(1/3), v in in/min, result in inches (Jackson and Shrubsall 1953) [mm].

    K is one process' and has to be fitted: the form holds within 10 to 20 % where it was.
    """
    travel_in_min = travel_mm_min / 25.4
    return float(k * (current_a**4 / (travel_in_min * voltage_v**2)) ** (1 / 3) * 25.4)


def crown_height_mm(area_mm2: float, width_mm: float) -> float:
    """Height of a crown in the form of a parabola [mm]."""
    return 1.5 * area_mm2 / width_mm


def toe_angle_deg(height_mm: float, width_mm: float) -> float:
    """Angle between plate and crown at the toe of a parabola, 180 - atan(4 h / w)."""
    return 180 - math.degrees(math.atan(4 * height_mm / width_mm))


def dilution_percent(melted_base_mm2: float, deposit_mm2: float) -> float:
    """Share of base metal in the weld metal [%]."""
    return 100 * melted_base_mm2 / (melted_base_mm2 + deposit_mm2)


def diluted_percent(dilution: float, base_percent: float, filler_percent: float) -> float:
    """Element in the weld metal by mixture; ``dilution`` is a share of 1 [%]."""
    return dilution * base_percent + (1 - dilution) * filler_percent
