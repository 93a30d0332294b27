"""Hardness of the heat-affected zone of steel by composition and cooling time; published, from memory.

Single bead, unalloyed and low-alloy steel, C up to 0.3 %; one value scatters by 30 HV and more.
"""

from __future__ import annotations

import math
from collections.abc import Mapping

Chemistry = Mapping[str, float]
MOST_CARBON = 0.3
SCATTER_HV = 30.0


def _get(chemistry: Chemistry, *names: str) -> list[float]:
    return [chemistry.get(name, 0.0) for name in names]


def dueren_bainite_equivalent(chemistry: Chemistry) -> float:
    """C + Si/11 + Mn/8 + Cu/9 + Cr/5 + Ni/17 + Mo/6 + V/3 (Düren 1985) [%]."""
    c, si, mn, cu, cr, ni, mo, v = _get(chemistry, "C", "Si", "Mn", "Cu", "Cr", "Ni", "Mo", "V")
    return c + si / 11 + mn / 8 + cu / 9 + cr / 5 + ni / 17 + mo / 6 + v / 3


def dueren_bainite_hv(equivalent: float) -> float:
    """Hardness of all bainite (Düren 1985) [HV]."""
    return 350 * equivalent + 101


def martensite_hv(carbon: float) -> float:
    """Hardness of all martensite, 884 C (1 - 0.3 C²) + 294 (Yurioka 1987) [HV]."""
    return 884 * carbon * (1 - 0.3 * carbon**2) + 294


def terasaki_martensite_hv(carbon: float) -> float:
    """The same, 812 C + 293 (Terasaki) [HV]."""
    return 812 * carbon + 293


def beckert_martensite_hv(carbon: float) -> float:
    """The same, 939 C + 284 (Beckert and Holz 1973) [HV]."""
    return 939 * carbon + 284


def dueren_hv(chemistry: Chemistry, t85_s: float) -> float:
    """Hardness at a cooling time, between all bainite and all martensite (Düren 1985) [HV]."""
    c, equivalent = chemistry.get("C", 0.0), dueren_bainite_equivalent(chemistry)
    log = math.log10(t85_s)
    mixed = 2019 * (c * (1 - 0.5 * log) + 0.3 * (equivalent - c)) + 66 * (1 - 0.8 * log)
    low, high = sorted((dueren_bainite_hv(equivalent), 802 * c + 305))
    return min(max(mixed, low), high)


def yurioka_hv(chemistry: Chemistry, t85_s: float) -> float:
    """Hardness at a cooling time (Yurioka and others 1987) [HV]."""
    c, si, mn, cu, cr, ni, mo, v, nb = _get(chemistry, "C", "Si", "Mn", "Cu", "Cr", "Ni", "Mo", "V", "Nb")
    fast = c if c <= MOST_CARBON else c / 6 + 0.25
    equivalent_1 = fast + si / 24 + mn / 6 + cu / 15 + ni / 12 + cr * (1 - 0.16 * math.sqrt(cr)) / 8 + mo / 4
    equivalent_2 = c + si / 24 + mn / 5 + cu / 10 + ni / 18 + cr / 5 + mo / 2.5 + v / 5 + nb / 3
    equivalent_3 = c + mn / 3.6 + cu / 20 + ni / 9 + cr / 5 + mo / 4
    martensite = martensite_hv(c)
    bainite = 145 + 130 * math.tanh(2.65 * equivalent_2 - 0.69)
    log_martensite, log_bainite = 10.6 * equivalent_1 - 4.8, 6.2 * equivalent_3 + 0.74
    x = 4 * (math.log(t85_s) - log_martensite) / (log_bainite - log_martensite) - 2
    return (martensite + bainite) / 2 - (martensite - bainite) * math.atan(x) / 2.20
