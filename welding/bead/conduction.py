"""Heat from a moving source in a plate: temperatures, pool, peak temperatures, cooling.

Rosenthal's solutions (1941, 1946), Rykalin's for a fast source (1951), Adams' for peak temperature and
cooling rate (1958), a plate of finite thickness by images of the source: from memory. No change of phase,
constant properties, a point or a line as source: within 10 to 20 % outside the pool, worse inside.

All lengths are in mm, times in s, powers in W, temperatures in °C. ``x_mm`` is positive in the direction
of travel with the source at 0, ``y_mm`` across, ``z_mm`` down from the surface.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import scipy  # its parts are loaded when one is used: they are slow to load, and few calls need them
from numpy.typing import NDArray

Field = NDArray[np.float64]
IMAGES, MOST_IMAGES = 20, 600
"""Images on either side; more where travel is slow against conduction and the sum settles late."""
EVEN_FROM = 5.0
"""So many thicknesses from the source heat is even through the plate."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Conductor:
    """A metal as it conducts near a weld: k [W/(mm K)] and heat by volume [J/(mm³ K)]."""

    k_w_mm_k: float
    heat_j_mm3_k: float

    @property
    def diffusivity_mm2_s(self) -> float:
        """k over heat by volume [mm²/s]."""
        return self.k_w_mm_k / self.heat_j_mm3_k


@dataclass(frozen=True, slots=True, kw_only=True)
class Source:
    """Heat that moves: net power [W], speed [mm/s], temperature that it starts from [°C]."""

    power_w: float
    travel_mm_s: float
    start_c: float

    @property
    def energy_j_mm(self) -> float:
        """Net energy for each length [J/mm]."""
        return self.power_w / self.travel_mm_s


def thick_plate_c(metal: Conductor, source: Source, x_mm: float, y_mm: float, z_mm: float) -> float:
    """Temperature about a point source on a thick plate [°C]."""
    r = math.sqrt(x_mm**2 + y_mm**2 + z_mm**2)
    share = math.exp(-source.travel_mm_s * (x_mm + r) / (2 * metal.diffusivity_mm2_s))
    return source.start_c + source.power_w / (2 * math.pi * metal.k_w_mm_k * r) * share


def thin_plate_c(metal: Conductor, source: Source, thickness_mm: float, x_mm: float, y_mm: float) -> float:
    """Temperature about a line source through a thin plate [°C]."""
    half = source.travel_mm_s / (2 * metal.diffusivity_mm2_s)
    r = math.hypot(x_mm, y_mm)
    # k0e is K0 times exp: the product stays a number far from the source.
    bessel = float(scipy.special.k0e(half * r)) * math.exp(-half * (x_mm + r))
    return source.start_c + source.power_w / (2 * math.pi * metal.k_w_mm_k * thickness_mm) * bessel


def plate_c(
    metal: Conductor, source: Source, thickness_mm: float, x_mm: Field, y_mm: Field, z_mm: Field
) -> Field:
    """Temperature about a point source on a plate of any thickness with faces that lose nothing [°C].

    Arrays are of one shape. Five thicknesses away the heat is even through the plate: there, and only there,
    the line source is taken, which the sum of images tends to.
    """
    half = source.travel_mm_s / (2 * metal.diffusivity_mm2_s)
    flat = np.hypot(x_mm, y_mm)
    rise = np.empty(np.shape(x_mm))
    far = flat > EVEN_FROM * thickness_mm
    rise[far] = scipy.special.k0e(half * flat[far]) * np.exp(-half * (x_mm[far] + flat[far])) / thickness_mm
    near = ~far
    count = min(MOST_IMAGES, max(IMAGES, math.ceil(6 / (half * thickness_mm))))
    n = np.arange(-count, count + 1)[:, None]
    r = np.sqrt(flat[near] ** 2 + (z_mm[near] - 2 * n * thickness_mm) ** 2)
    r = np.maximum(r, 1e-9)
    rise[near] = np.sum(np.exp(-half * (x_mm[near] + r)) / r, axis=0)
    rise *= source.power_w / (2 * math.pi * metal.k_w_mm_k)
    return np.asarray(source.start_c + rise, dtype=np.float64)


def fast_thick_plate_c(
    metal: Conductor, energy_j_mm: float, start_c: float, r_mm: float, t_s: float
) -> float:
    """Temperature at a distance from the centreline some time after a fast source, thick plate [°C]."""
    spread = math.exp(-(r_mm**2) / (4 * metal.diffusivity_mm2_s * t_s))
    return start_c + energy_j_mm / (2 * math.pi * metal.k_w_mm_k * t_s) * spread


def fast_thin_plate_c(
    metal: Conductor, energy_j_mm: float, start_c: float, thickness_mm: float, y_mm: float, t_s: float
) -> float:
    """The same in a thin plate [°C]."""
    wide = math.sqrt(4 * math.pi * metal.k_w_mm_k * metal.heat_j_mm3_k * t_s)
    spread = math.exp(-(y_mm**2) / (4 * metal.diffusivity_mm2_s * t_s))
    return start_c + energy_j_mm / (thickness_mm * wide) * spread


def pool_length_mm(metal: Conductor, power_w: float, rise_c: float) -> float:
    """Distance behind a point source to an isotherm so far above the start; travel does not enter [mm]."""
    return power_w / (2 * math.pi * metal.k_w_mm_k * rise_c)


def operating_parameter(metal: Conductor, source: Source, rise_c: float) -> float:
    """Christensen's n (1965): dimensionless pool width depends on it alone."""
    a = metal.diffusivity_mm2_s
    return source.power_w * source.travel_mm_s / (4 * math.pi * a**2 * metal.heat_j_mm3_k * rise_c)


def half_width_mm(
    metal: Conductor, source: Source, isotherm_c: float, thickness_mm: float = math.inf
) -> float:
    """Greatest half width of an isotherm on the surface, of any thickness of plate, solved exactly [mm]."""
    rise = isotherm_c - source.start_c
    plate = thickness_mm if math.isfinite(thickness_mm) else 1e3 * pool_length_mm(metal, source.power_w, rise)
    behind = _behind_mm(metal, source, rise, plate, 80)

    def over(y: float) -> float:
        return float(_peaks_c(metal, source, plate, behind, np.array([y]))[0]) - isotherm_c

    far = 2 * fast_peak_radius_mm(metal, source, rise, plate)
    while over(far) > 0:
        far *= 2
    return float(scipy.optimize.brentq(over, 1e-6 * far, far, xtol=1e-4 * far))


def half_widths_mm(
    metal: Conductor, source: Source, isotherms_c: Sequence[float], thickness_mm: float
) -> list[float]:
    """The same for several isotherms at once, read between points of one grid: within 1 % [mm]."""
    least, most = min(isotherms_c) - source.start_c, max(isotherms_c) - source.start_c
    behind = _behind_mm(metal, source, least, thickness_mm, 36)
    far = 1.5 * fast_peak_radius_mm(metal, source, least, thickness_mm)
    near = min(0.02 * fast_peak_radius_mm(metal, source, most), 0.02 * far)
    across = np.geomspace(near, far, 26)
    peaks = _peaks_c(metal, source, thickness_mm, behind, across) - source.start_c
    # Peaks fall with the distance: read backwards they grow, as interpolation wants.
    read = scipy.interpolate.PchipInterpolator(np.log(peaks[::-1]), np.log(across[::-1]), extrapolate=True)
    return [float(math.exp(read(math.log(one - source.start_c)))) for one in isotherms_c]


def _behind_mm(metal: Conductor, source: Source, rise_c: float, plate_mm: float, count: int) -> Field:
    """Places behind the source among which the widest of an isotherm lies."""
    reach = pool_length_mm(metal, source.power_w, rise_c)
    if plate_mm < reach:
        # In a thin plate the isotherm trails much longer than behind a point on a thick one.
        storing = 4 * math.pi * metal.k_w_mm_k * metal.heat_j_mm3_k
        reach = max(
            reach,
            source.travel_mm_s * (source.power_w / source.travel_mm_s / plate_mm / rise_c) ** 2 / storing,
        )
    return np.asarray(-reach * np.concatenate(([0.0], np.geomspace(1e-4, 1.0, count))), dtype=np.float64)


def _peaks_c(metal: Conductor, source: Source, plate_mm: float, behind_mm: Field, across_mm: Field) -> Field:
    """Highest temperature on the surface at each distance from the centreline."""
    x, y = np.meshgrid(behind_mm, across_mm)
    found = plate_c(metal, source, plate_mm, x.ravel(), y.ravel(), np.zeros(x.size))
    return np.asarray(np.max(found.reshape(x.shape), axis=1), dtype=np.float64)


def fast_peak_radius_mm(
    metal: Conductor, source: Source, rise_c: float, thickness_mm: float = math.inf
) -> float:
    """Distance from the centreline that a fast source heats so far, thick or thin plate [mm]."""
    thick = math.sqrt(2 * source.energy_j_mm / (math.pi * math.e * metal.heat_j_mm3_k * rise_c))
    thin = source.energy_j_mm / (ROOT_2_PI_E * metal.heat_j_mm3_k * thickness_mm * rise_c)
    return max(thick, thin)


ROOT_2_PI_E = math.sqrt(2 * math.pi * math.e)


def peak_thick_c(metal: Conductor, energy_j_mm: float, start_c: float, r_mm: float) -> float:
    """Peak temperature at a distance from the centreline, thick plate (Rykalin) [°C]."""
    return start_c + 2 * energy_j_mm / (math.pi * math.e * metal.heat_j_mm3_k * r_mm**2)


def peak_thin_c(
    metal: Conductor,
    energy_j_mm: float,
    start_c: float,
    thickness_mm: float,
    beyond_mm: float,
    melting_c: float,
) -> float:
    """Peak temperature so far from the fusion line of a thin plate fused through (Adams) [°C]."""
    inverse = ROOT_2_PI_E * metal.heat_j_mm3_k * thickness_mm * beyond_mm / energy_j_mm
    return start_c + 1 / (inverse + 1 / (melting_c - start_c))


def zone_thin_mm(
    metal: Conductor, energy_j_mm: float, start_c: float, thickness_mm: float, peak_c: float, melting_c: float
) -> float:
    """Width of the zone heated beyond ``peak_c``, from the fusion line, thin plate (Adams) [mm]."""
    steps = 1 / (peak_c - start_c) - 1 / (melting_c - start_c)
    return steps * energy_j_mm / (ROOT_2_PI_E * metal.heat_j_mm3_k * thickness_mm)


def zone_thick_mm(
    metal: Conductor, energy_j_mm: float, start_c: float, peak_c: float, melting_c: float
) -> float:
    """Width of the zone heated beyond ``peak_c``, from the fusion line, thick plate [mm]."""

    def r(limit_c: float) -> float:
        return math.sqrt(2 * energy_j_mm / (math.pi * math.e * metal.heat_j_mm3_k * (limit_c - start_c)))

    return r(peak_c) - r(melting_c)


def cooling_rate_thick_c_s(metal: Conductor, energy_j_mm: float, start_c: float, at_c: float) -> float:
    """Cooling rate on the centreline at a temperature, thick plate (Adams) [°C/s]."""
    return 2 * math.pi * metal.k_w_mm_k * (at_c - start_c) ** 2 / energy_j_mm


def cooling_rate_thin_c_s(
    metal: Conductor, energy_j_mm: float, start_c: float, thickness_mm: float, at_c: float
) -> float:
    """The same in a thin plate [°C/s]."""
    per = thickness_mm / energy_j_mm
    return 2 * math.pi * metal.k_w_mm_k * metal.heat_j_mm3_k * per**2 * (at_c - start_c) ** 3


def relative_thickness(
    metal: Conductor, energy_j_mm: float, start_c: float, thickness_mm: float, at_c: float = 550.0
) -> float:
    """Adams' relative thickness: above 0.9 a plate is thick, below 0.6 thin, 0.75 parts them."""
    return thickness_mm * math.sqrt(metal.heat_j_mm3_k * (at_c - start_c) / energy_j_mm)


def t85_thin_s(metal: Conductor, energy_j_mm: float, start_c: float, thickness_mm: float) -> float:
    """Time from 800 to 500 °C in a thin plate, from the physical constants (Rykalin) [s]."""
    steps = 1 / (500 - start_c) ** 2 - 1 / (800 - start_c) ** 2
    return (energy_j_mm / thickness_mm) ** 2 / (4 * math.pi * metal.k_w_mm_k * metal.heat_j_mm3_k) * steps


def wait_thick_s(metal: Conductor, energy_j_mm: float, start_c: float, until_c: float) -> float:
    """Wait on a large thick plate until the centreline has fallen so far; no loss from the faces [s]."""
    return energy_j_mm / (2 * math.pi * metal.k_w_mm_k * (until_c - start_c))


def ellipsoid_peak_w_mm3(power_w: float, front_share: float, a_mm: float, b_mm: float, c_mm: float) -> float:
    """Peak power density of half a double ellipsoid (Goldak 1984); shares of both halves make 2 [W/mm³]."""
    return 6 * math.sqrt(3) * front_share * power_w / (a_mm * b_mm * c_mm * math.pi * math.sqrt(math.pi))
