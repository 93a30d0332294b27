"""Figures of the heat: energy, the zone beside the bead, cooling, hardness; shrinkage of free parts."""

from __future__ import annotations

import math
from collections.abc import Iterator

from welding.bead.bead_figures import ROSENTHAL, lacking
from welding.bead.conduction import pool_length_mm
from welding.bead.figures import BALANCE, Figure, Level, banded, without_model
from welding.bead.hardness import MOST_CARBON, SCATTER_HV, dueren_hv, yurioka_hv
from welding.bead.shrinkage import (
    shortening_okerblom_mm,
    tendon_force_kn,
    tilt_deg,
    transverse_capel_mm,
)
from welding.bead.state import Band, BeadState
from welding.citation import Citation
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.heat.by_metal import typical_chemistry
from welding.heat.cooling import START_C, cooling_time
from welding.heat.energy import thermal_efficiency
from welding.language import tr

HARDNESS = Citation(
    document="Yurioka 1987 and Düren 1985",
    clause="hardness of the heat-affected zone",
    provenance="memory",
    confidence="medium",
)
SHRINKAGE = Citation(
    document="Blodgett, Capel 1961, Okerblom 1958",
    clause="shrinkage of free parts",
    provenance="memory",
    confidence="low",
)
HARDENING = ("carbon", "weathering", "ni-steel", "cr-mo")


def heat_figures(state: BeadState) -> Iterator[Figure]:
    """Energy, the zone beside the bead, cooling and hardness."""
    energy, one = state.arc_energy_j_mm, state.settings
    if energy is None:
        yield without_model("arc_energy_kj_mm", "heat", tr("Arc energy"), lacking(state))
        return
    measured = one.voltage_v is not None
    yield banded(
        "arc_energy_kj_mm",
        "heat",
        tr("Arc energy"),
        Band.within(energy / 1000, 2 if measured else 12),
        BALANCE,
        quantity="heat_input",
        error=tr("volts × amps / travel, no factor"),
    )
    try:
        factor = thermal_efficiency(one.process)
    except UnknownEntryError:
        factor = None
    if factor is not None:
        yield banded(
            "heat_input_kj_mm",
            "heat",
            tr("Heat input with k {k:g}", k=factor.k),
            Band.within(factor.k * energy / 1000, 2 if measured else 12),
            factor.citation,
            quantity="heat_input",
        )
    if state.efficiency is not None:
        net = energy / 1000
        yield banded(
            "net_energy_kj_mm",
            "heat",
            tr("Energy that enters the work"),
            Band(net * state.efficiency.value, net * state.efficiency.low, net * state.efficiency.high),
            state.citation_of_arc(),
            quantity="heat_input",
            error=tr("share by calorimeter, for the prediction only"),
        )
    yield from _zone(state)
    if factor is not None:
        yield from _cooling(state, factor.k * energy / 1000)


def _zone(state: BeadState) -> Iterator[Figure]:
    if not state.half_widths_mm or state.source is None or state.conductor is None or state.hot is None:
        return
    zone = state.half_widths_mm["zone"] - state.half_widths_mm["pool"]
    name = (
        tr("Softened zone beside the bead")
        if state.kind in ("aluminium", "copper")
        else tr("Heat-affected zone")
    )
    yield banded(
        "zone_mm",
        "heat",
        name,
        Band.within(zone, 25),
        ROSENTHAL,
        quantity="length",
        error=tr("to {zone_c:g} °C, on the surface", zone_c=state.hot["zone_c"]),
    )
    length = pool_length_mm(
        state.conductor, state.source.power_w, state.hot["melting_c"] - state.settings.start_c
    )
    yield banded(
        "pool_length_mm",
        "heat",
        tr("Length of the pool behind the arc"),
        Band.within(length, 30),
        ROSENTHAL,
        quantity="length",
        error=tr("thick plate; longer in sheet"),
    )


def _cooling(state: BeadState, heat_kj_mm: float) -> Iterator[Figure]:
    one, title = state.settings, tr("Cooling time t8/5")
    if state.kind != "steel" or state.metal is None:
        yield without_model("t85_s", "heat", title, tr("The formulas are for unalloyed and low-alloy steel."))
        return
    joint = {"plate": "plate", "fillet": "t-fillet", "butt": "butt"}[one.joint]
    try:
        found = cooling_time(heat_kj_mm, one.start_c, one.thickness_mm, joint)  # type: ignore[arg-type]
    except OutOfRangeError:
        why = tr("The formulas end where the metal is above {most:g} °C before the pass.", most=START_C.high)
        yield without_model("t85_s", "heat", title, why)
        return
    band = Band(found.t85_s, found.spread_s.min * 0.85, found.spread_s.max * 1.15)
    yield banded(
        "t85_s", "heat", title, band, found.citation, quantity="time", error=tr("15 % and the shape factors")
    )
    title = tr("Hardness of the heat-affected zone")
    chemistry = typical_chemistry(state.metal)
    if state.metal.family not in HARDENING or not chemistry.get("C"):
        yield without_model("hardness_hv", "heat", title, tr("No composition is known for this metal."))
        return
    if chemistry["C"] > MOST_CARBON:
        yield without_model("hardness_hv", "heat", title, tr("The relations end at 0.3 % carbon."))
        return
    both = [yurioka_hv(chemistry, found.t85_s), dueren_hv(chemistry, found.t85_s)]
    middle = sum(both) / 2
    level: Level = "bad" if middle > 380 else "watch" if middle + SCATTER_HV > 380 else "fine"
    yield banded(
        "hardness_hv",
        "heat",
        title,
        Band(middle, min(both) - SCATTER_HV, max(both) + SCATTER_HV),
        HARDNESS,
        unit="HV",
        level=level,
        words=tr("380 HV is the usual limit of these steels without PWHT") if level != "fine" else "",
        error=tr("a usual heat of the grade, two relations, ±30 HV"),
    )


def distortion_figures(state: BeadState) -> Iterator[Figure]:
    """Shrinkage of free parts: to compare settings by, not to accept parts by."""
    one = state.settings
    if state.source is None or state.hot is None or one.travel_mm_min is None:
        return
    note = tr("free parts; restraint and sequence halve or double it")
    shrink = transverse_capel_mm(
        state.hot["capel"], state.source.power_w, one.thickness_mm, one.travel_mm_min
    )
    if one.joint == "butt":
        shrink += 0.05 * (one.root_gap_mm or 0.0)
    yield banded(
        "transverse_mm",
        "distortion",
        tr("Transverse shrinkage of this pass"),
        Band.within(shrink, 50),
        SHRINKAGE,
        quantity="length",
        error=note,
    )
    force = tendon_force_kn(state.source.energy_j_mm, state.hot["tendon"])
    yield banded(
        "tendon_kn",
        "distortion",
        tr("Shrinking force along the weld"),
        Band.within(force, 40),
        SHRINKAGE,
        unit="kN",
        error=note,
    )
    section = 100.0 * one.thickness_mm
    shorter = shortening_okerblom_mm(
        state.hot["expansion_um_m_k"] * 1e-6,
        state.hot["heat_j_cm3_k"] / 1000,
        state.source.energy_j_mm,
        1000.0,
        section,
    )
    yield banded(
        "shortening_mm_m",
        "distortion",
        tr("Shortening of a strip 100 mm wide"),
        Band.within(shorter, 50),
        SHRINKAGE,
        unit="mm/m",
        error=note,
    )
    if one.joint == "fillet" and state.deposit_mm2:
        tilt = tilt_deg(math.sqrt(2 * state.deposit_mm2), one.thickness_mm)
        yield banded(
            "tilt_deg",
            "distortion",
            tr("Tilt of a plate by fillets on both sides"),
            Band.within(tilt, 50),
            SHRINKAGE,
            quantity="angle",
            error=note,
        )
