"""Shrinkage and distortion of free parts: published estimates, from memory.

Restraint, tacks and the sequence halve or double any of them: they rank settings, they are no acceptance.
"""

from __future__ import annotations

import math

IN = 25.4


def transverse_blodgett_mm(area_mm2: float, thickness_mm: float) -> float:
    """Transverse shrinkage of a butt weld, 0.10 A / t, A the whole weld metal (Blodgett) [mm]."""
    return 0.10 * area_mm2 / thickness_mm


def transverse_spraragen_mm(area_mm2: float, thickness_mm: float, gap_mm: float) -> float:
    """The same with the root gap, 0.2 A / t + 0.05 gap (Spraragen and Ettinger) [mm]."""
    return 0.2 * area_mm2 / thickness_mm + 0.05 * gap_mm


def transverse_capel_mm(factor: float, power_w: float, thickness_mm: float, travel_mm_min: float) -> float:
    """The same by power, factor x 10⁻³ P / (s v), v in cm/min (Capel 1961) [mm]."""
    return factor * 1e-3 * power_w / (thickness_mm * travel_mm_min / 10)


def flange_tilt_mm(width_mm: float, leg_mm: float, thickness_mm: float) -> float:
    """How far the edge of a flange bends up by fillets, 0.02 W leg^1.3 / t² in inches (Blodgett) [mm]."""
    width, leg, thick = width_mm / IN, leg_mm / IN, thickness_mm / IN
    return float(0.02 * width * leg**1.3 / thick**2 * IN)


def tilt_deg(leg_mm: float, thickness_mm: float) -> float:
    """The angle of that tilt, both sides of the web alike [°]."""
    return math.degrees(math.atan(0.02 * 2 * (leg_mm / IN) ** 1.3 / (thickness_mm / IN) ** 2 / 2))


def bow_mm(area_mm2: float, offset_mm: float, length_mm: float, inertia_mm4: float) -> float:
    """Bow of a beam, 0.005 A d L² / I (Blodgett) [mm]."""
    return 0.005 * area_mm2 * offset_mm * length_mm**2 / inertia_mm4


def tendon_force_kn(net_energy_j_mm: float, factor: float = 0.2) -> float:
    """Force that a weld shortens its plate with, 0.2 Q (White, Leggatt; steel) [kN]."""
    return factor * net_energy_j_mm


def shortening_okerblom_mm(
    expansion_per_k: float, heat_j_mm3_k: float, net_energy_j_mm: float, length_mm: float, section_mm2: float
) -> float:
    """Longitudinal shortening, 0.335 alpha / (rho c) Q L / A (Okerblom 1958) [mm]."""
    return 0.335 * expansion_per_k / heat_j_mm3_k * net_energy_j_mm * length_mm / section_mm2


def angular_single_v_deg(included_angle_deg: float) -> float:
    """Angle of a butt welded in one pass from one side, 0.0144 tan(angle / 2) rad (geometric) [°]."""
    return math.degrees(0.0144 * math.tan(math.radians(included_angle_deg / 2)))
