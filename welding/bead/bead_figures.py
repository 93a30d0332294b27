"""Figures of the bead and of the heat: size, dilution, margins, cooling, hardness, colour, distortion."""

from __future__ import annotations

import math
from collections.abc import Iterator

from welding.bead.conduction import pool_length_mm
from welding.bead.figures import BALANCE, PRACTICE_LOW, Figure, Level, banded, without_model
from welding.bead.hardness import MOST_CARBON, SCATTER_HV, dueren_hv, yurioka_hv
from welding.bead.melting import crown_height_mm, dilution_percent
from welding.bead.shielding import LAMINAR_BELOW, exit_velocity_m_s, reynolds
from welding.bead.shrinkage import (
    shortening_okerblom_mm,
    tendon_force_kn,
    tilt_deg,
    transverse_capel_mm,
)
from welding.bead.state import Band, BeadState
from welding.bead.tint import Tint, can_tint, face_tint, root_tint
from welding.citation import Citation
from welding.deposit.laid import density_g_cm3, weld_metal
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.heat.by_metal import typical_chemistry
from welding.heat.cooling import START_C, cooling_time
from welding.heat.energy import thermal_efficiency
from welding.language import tr
from welding.setup.cup import bore_mm
from welding.setup.flow import flow_advice

ROSENTHAL = Citation(
    document="Rosenthal 1946",
    clause="moving point source, plate by images",
    provenance="memory",
    confidence="high",
)
JACKSON = Citation(
    document="Jackson and Shrubsall 1953", clause="penetration", provenance="memory", confidence="medium"
)
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
SAGS_AT_WIDTHS = 5.0
"""A pool fused through and wider than so many thicknesses falls through (common practice)."""
COLD_DILUTION_PERCENT = 8.0


def bead_figures(state: BeadState) -> Iterator[Figure]:
    """Size of the bead and how it is bound to the metal."""
    yield from _deposit(state)
    yield from _size(state)
    yield from _margins(state)


def _deposit(state: BeadState) -> Iterator[Figure]:
    area, one = state.deposit_mm2, state.settings
    title = tr("Deposited section")
    if area is None:
        yield without_model(
            "deposit_mm2", "bead", title, tr("Filler, its diameter, feed or current, and travel are needed.")
        )
        return
    if area == 0:
        yield Figure(key="deposit_mm2", group="bead", title=title, words=tr("no filler"), citation=BALANCE)
        return
    error = 8.0 if one.wire_feed_m_min is not None else 25.0
    yield banded("deposit_mm2", "bead", title, Band.within(area, error), BALANCE, quantity="area")
    if one.travel_mm_min:
        rate = area * one.travel_mm_min * density_g_cm3(weld_metal(one.filler)) * 60e-6
        yield banded(
            "deposition_kg_h", "bead", tr("Deposition rate"), Band.within(rate, error), BALANCE, unit="kg/h"
        )


def _size(state: BeadState) -> Iterator[Figure]:
    width, depth, one = state.width_mm, state.penetration_mm, state.settings
    if width is None:
        why = _lacking(state)
        yield without_model("width_mm", "bead", tr("Bead width"), why)
        yield without_model("penetration_mm", "bead", tr("Penetration"), why)
        return
    note = tr("conduction from a point source, widened by volts and weave")
    yield banded("width_mm", "bead", tr("Bead width"), width, ROSENTHAL, quantity="length", error=note)
    if depth is not None:
        through = depth.value >= one.thickness_mm
        yield banded(
            "penetration_mm",
            "bead",
            tr("Penetration"),
            depth,
            JACKSON if state.kind not in ("aluminium", "copper") else PRACTICE_LOW,
            quantity="length",
            words=tr("fuses through the plate") if through else "",
            error=tr("constant set by practice: about 1 mm per 100 A at usual settings"),
        )
    area = state.deposit_mm2
    if area is not None and one.joint == "fillet" and area > 0:
        leg = math.sqrt(2 * area)
        yield banded(
            "leg_mm", "bead", tr("Leg of a flat fillet"), Band.within(leg, 6), BALANCE, quantity="length"
        )
        yield banded(
            "throat_mm",
            "bead",
            tr("Throat of a flat fillet"),
            Band.within(leg / math.sqrt(2), 6),
            BALANCE,
            quantity="length",
        )
    if area is not None and area > 0:
        height = crown_height_mm(area, width.value)
        error = 100 * (width.high - width.value) / width.value
        steep = height / width.value
        level: Level = "watch" if steep > 0.4 else ""
        yield banded(
            "reinforcement_mm",
            "bead",
            tr("Height of the crown"),
            Band.within(height, error),
            BALANCE,
            quantity="length",
            words=tr("proud and steep at the toes") if level else "",
            level=level,
            error=tr("as on flat plate, to compare by")
            if one.joint == "fillet"
            else tr("a parabola on the bead's width, on flat plate"),
        )
    if state.base_mm2 is not None and area is not None and state.base_mm2 + area > 0:
        share = dilution_percent(state.base_mm2, area)
        band = Band(share, share * 0.65, min(share * 1.35, 100.0)) if area else Band(100.0, 100.0, 100.0)
        yield banded(
            "dilution_percent",
            "bead",
            tr("Dilution by base metal"),
            band,
            PRACTICE_LOW,
            quantity="percent",
        )


def _margins(state: BeadState) -> Iterator[Figure]:
    width, depth, one = state.width_mm, state.penetration_mm, state.settings
    if width is None or depth is None:
        return
    left = one.thickness_mm - depth.value
    if one.joint == "butt" and one.root_face_mm is not None:
        left = one.root_face_mm - depth.value - 0.3 * (one.root_gap_mm or 0.0)
    through = left <= 0
    sags = through and not one.backing and width.value > SAGS_AT_WIDTHS * one.thickness_mm
    level: Level = (
        "bad" if sags else "watch" if through and not one.backing and one.joint != "butt" else "fine"
    )
    yield Figure(
        key="burn_through",
        group="bead",
        title=tr("Burn-through"),
        value=left,
        low=left - (depth.high - depth.value),
        high=left + (depth.value - depth.low),
        quantity="length",
        words=tr("likely: the pool is wider than {times:g} thicknesses", times=SAGS_AT_WIDTHS)
        if sags
        else tr("the pool reaches the other side")
        if through
        else tr("metal left under the pool"),
        level=level,
        citation=PRACTICE_LOW,
    )
    if one.joint == "butt" and one.root_face_mm is not None:
        gap = 0.5 * (one.root_gap_mm or 0.0)
        margin = depth.value + gap - one.root_face_mm
        fused = margin > 0 or state.fused_through
        yield Figure(
            key="root_fusion",
            group="bead",
            title=tr("Fusion of the root face"),
            value=margin,
            low=depth.low + gap - one.root_face_mm,
            high=depth.high + gap - one.root_face_mm,
            quantity="length",
            words=tr("fused through") if fused else tr("the root face is not fused through"),
            level="bad" if not fused else "fine" if depth.low + gap > one.root_face_mm else "watch",
            citation=PRACTICE_LOW,
        )
    cold = None
    if state.deposit_mm2 and state.base_mm2 is not None:
        cold = dilution_percent(state.base_mm2, state.deposit_mm2) < COLD_DILUTION_PERCENT
    if cold is not None:
        thick_short = state.group == "short" and one.thickness_mm > 6 and state.kind in ("steel", "stainless")
        yield Figure(
            key="fusion",
            group="bead",
            title=tr("Fusion to the base metal"),
            words=tr("cold: more metal is deposited than the heat binds; lack of fusion is likely")
            if cold
            else tr("short-circuiting on thick metal: lack of fusion is its usual fault")
            if thick_short
            else tr("enough heat for the metal that is deposited"),
            level="bad" if cold else "watch" if thick_short else "fine",
            citation=PRACTICE_LOW,
        )


def _lacking(state: BeadState) -> str:
    if state.metal is None:
        return tr("The metal is not known: no model without its conductivity.")
    if not state.group:
        return tr("No model for this process.")
    if state.power_w is None:
        return tr("Current and volts are needed.")
    if state.travel_mm_s is None:
        return tr("Travel is needed.")
    return tr("Outside the model: the metal is too hot before the pass.")


# --- heat ---------------------------------------------------------------------------------------


def heat_figures(state: BeadState) -> Iterator[Figure]:
    """Energy, the zone beside the bead, cooling and hardness."""
    energy, one = state.arc_energy_j_mm, state.settings
    if energy is None:
        yield without_model("arc_energy_kj_mm", "heat", tr("Arc energy"), _lacking(state))
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


# --- shielding ----------------------------------------------------------------------------------


def shielding_figures(state: BeadState) -> Iterator[Figure]:
    """Gas at the nozzle, colour of face and root."""
    one = state.settings
    bore = bore_mm(one.cup.number) if one.cup else one.nozzle_mm
    if bore is not None and one.gas_flow_l_min is not None and one.gas:
        number = reynolds(one.gas_flow_l_min, bore)
        limit = LAMINAR_BELOW * (1.5 if one.cup and one.cup.lens else 1.0)
        tig = one.process == "141"
        yield banded(
            "reynolds",
            "shielding",
            tr("Reynolds number at the nozzle"),
            Band.within(number, 10),
            BALANCE,
            words=tr("smooth")
            if number <= limit
            else tr("turbulent: it draws air in")
            if tig
            else tr("turbulent"),
            level="fine" if number <= limit else "watch" if tig else "",
            error=tr("as argon at 20 °C; {speed:.1f} m/s", speed=exit_velocity_m_s(one.gas_flow_l_min, bore)),
        )
    yield from _gas_flow(state)
    if not can_tint(state) or one.process != "141":
        return
    yield _tinted("tint_c", tr("Colour of the face"), face_tint(state))
    if one.joint == "butt":
        yield _tinted("tint_root", tr("Colour of the root"), root_tint(state))


def _gas_flow(state: BeadState) -> Iterator[Figure]:
    one = state.settings
    if one.gas_flow_l_min is None or not one.gas:
        return
    advice = flow_advice(
        one.process,
        state.components,
        transfer=state.transfer,
        cup_number=one.cup.number if one.cup else None,
        lens=bool(one.cup and one.cup.lens),
        ac=one.polarity == "AC",
    )
    if advice is None:
        return
    low, high, flow = advice.usual.min, advice.usual.max, one.gas_flow_l_min
    inside = low * 0.9 <= flow <= high * 1.1
    yield Figure(
        key="gas_flow",
        group="shielding",
        title=tr("Usual gas flow"),
        value=advice.usual.middle,
        low=low,
        high=high,
        quantity="flow",
        words=""
        if inside
        else tr("too little: pores and dull colour")
        if flow < low
        else tr("more than it takes: turbulent gas draws air in, pores"),
        level="fine" if inside else "bad" if flow < low * 0.7 or flow > high * 1.5 else "watch",
        citation=advice.citation,
    )
    if one.process == "141" and one.post_flow_s is not None and state.amps is not None:
        least = max(5.0, state.amps / 10)
        yield Figure(
            key="post_flow_s",
            group="shielding",
            title=tr("Usual post-flow"),
            value=least,
            low=least * 0.8,
            high=least * 1.5,
            quantity="time",
            words=tr("too short: tungsten and crater oxidise") if one.post_flow_s < least * 0.8 else "",
            level="watch" if one.post_flow_s < least * 0.8 else "fine",
            citation=PRACTICE_LOW,
            error=tr("1 s for each 10 A, at least 5 s"),
        )


def _tinted(key: str, title: str, found: Tint | str) -> Figure:
    if isinstance(found, str):
        return without_model(key, "shielding", title, found)
    return Figure(
        key=key,
        group="shielding",
        title=title,
        value=found.left_c,
        quantity="temperature" if found.left_c is not None else "",
        words=f"{found.colour}: {found.view}",
        swatch=found.swatch,
        level="fine" if found.accepted else "watch",
        citation=found.citation,
        error=found.why + " " + tr("Two colours lighter or darker are within the error."),
    )


# --- distortion ---------------------------------------------------------------------------------


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
