"""Gas at the nozzle and behind the root: definitions, balance of volumes."""

from __future__ import annotations

import math

ARGON_KG_M3, ARGON_PA_S = 1.66, 2.23e-5
"""Argon at 20 °C (handbook)."""
LAMINAR_BELOW = 2000.0
"""Reynolds number up to which a jet keeps together in still air; a gas lens carries further."""


def reynolds(
    flow_l_min: float, bore_mm: float, density_kg_m3: float = ARGON_KG_M3, viscosity_pa_s: float = ARGON_PA_S
) -> float:
    """Reynolds number of a nozzle, 4 rho Q / (pi D mu)."""
    return 4 * density_kg_m3 * flow_l_min / 60e3 / (math.pi * bore_mm / 1e3 * viscosity_pa_s)


def exit_velocity_m_s(flow_l_min: float, bore_mm: float) -> float:
    """Mean speed of the gas at the nozzle [m/s]."""
    return flow_l_min / 60e3 / (math.pi / 4 * (bore_mm / 1e3) ** 2)


def laminar_flow_l_min(
    bore_mm: float, density_kg_m3: float = ARGON_KG_M3, viscosity_pa_s: float = ARGON_PA_S
) -> float:
    """Flow at which the jet of a nozzle turns turbulent [L/min]."""
    return LAMINAR_BELOW * math.pi * bore_mm / 1e3 * viscosity_pa_s / (4 * density_kg_m3) * 60e3


def purge_volumes(from_ppm: float, to_ppm: float) -> float:
    """Volumes of gas that bring oxygen from one level to another with perfect mixing, ln(c0 / c1)."""
    return math.log(from_ppm / to_ppm)
