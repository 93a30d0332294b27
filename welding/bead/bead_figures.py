"""Figures of the bead: size, dilution, margins against burn-through and lack of fusion."""

from __future__ import annotations

import math
from collections.abc import Iterator

from welding.bead.figures import BALANCE, PRACTICE_LOW, Figure, Level, banded, without_model
from welding.bead.melting import crown_height_mm, dilution_percent, toe_angle_deg
from welding.bead.state import Band, BeadState
from welding.citation import Citation
from welding.deposit.laid import density_g_cm3, weld_metal
from welding.language import tr

ROSENTHAL = Citation(
    document="Rosenthal 1946",
    clause="moving point source, plate by images",
    provenance="memory",
    confidence="high",
)
JACKSON = Citation(
    document="Jackson and Shrubsall 1953", clause="penetration", provenance="memory", confidence="medium"
)
SAGS_AT_WIDTHS = 5.0
"""A pool fused through and wider than so many thicknesses falls through (common practice)."""
COLD_DILUTION_PERCENT = 8.0
STEEP_TOE_DEG, SMOOTH_TOE_DEG = 110.0, 150.0
"""Angles at the toe of a butt weld that quality levels C and B ask for (ISO 5817, 507, from memory)."""


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
        why = lacking(state)
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
        if one.joint != "fillet":
            toe = toe_angle_deg(height, width.value)
            yield banded(
                "toe_angle_deg",
                "bead",
                tr("Angle at the weld toes"),
                Band(
                    toe,
                    *(toe_angle_deg(crown_height_mm(area, wide), wide) for wide in (width.low, width.high)),
                ),
                BALANCE,
                quantity="angle",
                words=tr("steep: notches at the toes") if toe < STEEP_TOE_DEG else "",
                level="watch" if toe < STEEP_TOE_DEG else "fine" if toe >= SMOOTH_TOE_DEG else "",
                error=tr("between plate and crown, as a parabola has it; 180° is flush"),
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


def lacking(state: BeadState) -> str:
    """What the model of the pool lacks here, in words."""
    if state.metal is None:
        return tr("The metal is not known: no model without its conductivity.")
    if not state.group:
        return tr("No model for this process.")
    if state.power_w is None:
        return tr("Current and volts are needed.")
    if state.travel_mm_s is None:
        return tr("Travel is needed.")
    return tr("Outside the model: the metal is too hot before the pass.")
