"""Bead settings of a pass of a procedure, and the limits that a change of them has to keep."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TypeGuard

from welding.documents.bead_settings import BeadJoint, BeadSettings
from welding.documents.procedure import Pass, Preparation, Procedure
from welding.errors import WeldingError
from welding.language import tr
from welding.ranges import Range

HEAT = "heat_input_kj_mm"
NOTHING = Range(0.0, 0.0)
"""Where plan and record have no value in common: no setting above zero keeps it."""
LIMITED = ("current_a", "voltage_v", "wire_feed_m_min", "travel_mm_min", "extension_mm")


def settings_of(procedure: Procedure, one: Pass) -> BeadSettings:
    """The middle of every range of a pass, on the thinnest metal of the joint.

    Raises:
        WeldingError: The procedure states no metal with a thickness, without which there is nothing to try.
    """
    metals = [metal for metal in procedure.base_metals if metal.designation and metal.thickness_mm]
    if not metals:
        raise WeldingError(tr("The procedure states no metal with its thickness yet."))
    thinnest = min(metals, key=lambda metal: metal.thickness_mm or 0.0)
    joint, thermal = procedure.joint, procedure.thermal
    kind: BeadJoint = "plate"
    if joint is not None and joint.weld == "fillet":
        kind = "fillet"
    elif joint is not None and one.role == "root":
        kind = "butt"
    preparation = joint.preparation if joint and kind == "butt" else None
    feeder = one.feeder
    return BeadSettings(
        process=one.process,
        metal=thinnest.designation or "",
        thickness_mm=thinnest.thickness_mm or 0.0,
        joint=kind,
        root_gap_mm=preparation.root_gap_mm if preparation else None,
        root_face_mm=_face_mm(preparation, thinnest.thickness_mm),
        included_angle_deg=preparation.included_angle_deg if _one_v(preparation) else None,
        backing=bool(joint and joint.backing not in ("none", "gas")),
        position=procedure.positions[0] if procedure.positions else None,
        progression=one.progression,
        transfer=one.transfer,
        polarity=one.polarity,
        filler=one.filler.designation if one.filler else None,
        diameter_mm=one.filler.diameter_mm if one.filler else None,
        feed_filler=one.filler is not None,
        gas=one.gas.components_percent if one.gas else None,
        gas_flow_l_min=_middle(one.gas.flow_l_min) if one.gas else None,
        cup=one.cup,
        purge_oxygen_ppm=(one.purge.oxygen_ppm or None) if one.purge else None,
        current_a=_middle(one.current_a),
        voltage_v=_middle(one.voltage_v),
        wire_feed_m_min=_middle(one.wire_feed_m_min),
        travel_mm_min=_middle(one.travel_mm_min),
        extension_mm=_middle(one.extension_mm),
        inductance_percent=feeder.inductance_percent if feeder else None,
        start_c=_start_c(thermal.preheat_min_c if thermal else None),
        pulse=one.pulse,
        ac=one.ac,
        tungsten=one.tungsten,
        post_flow_s=one.gas_times.post_flow_s if one.gas_times else None,
    )


def limits_of(procedure: Procedure, one: Pass, qualified: Mapping[str, Range]) -> dict[str, Range]:
    """What each setting must keep: the range of the pass, and within it what is qualified.

    Args:
        procedure: The procedure.
        one: The pass.
        qualified: Qualified ranges by field, as far as a record gives any.

    Returns:
        Ranges by field; ``NOTHING`` where the pass is planned outside what is qualified.
    """
    found: dict[str, Range] = {}
    for field in LIMITED:
        for span in (getattr(one, field), qualified.get(field)):
            if span is None:
                continue
            known = found.get(field)
            low = span.min if known is None else max(known.min, span.min)
            high = span.max if known is None else min(known.max, span.max)
            found[field] = Range(low, high) if low <= high else NOTHING
    if one.gas is not None and one.gas.flow_l_min is not None:
        found["gas_flow_l_min"] = one.gas.flow_l_min
    thermal = procedure.thermal
    if thermal and (thermal.preheat_min_c is not None or thermal.interpass_max_c is not None):
        low = thermal.preheat_min_c if thermal.preheat_min_c is not None else -60.0
        high = thermal.interpass_max_c if thermal.interpass_max_c is not None else low
        found["start_c"] = Range(low, max(low, high))
    heat = qualified.get(HEAT) or (thermal.heat_input_kj_mm if thermal else None)
    if heat is not None:
        found[HEAT] = heat
    if one.weave_max_mm is not None:
        found["weave_mm"] = Range(0.0, one.weave_max_mm)
    elif one.bead == "stringer":
        found["weave_mm"] = Range(0.0, 0.0)
    if one.cup is not None:
        found["cup"] = Range(one.cup.number, one.cup.number)
    return found


def _face_mm(preparation: Preparation | None, thickness_mm: float | None) -> float | None:
    """Root face; square edges are root face all through."""
    if preparation is None:
        return None
    return thickness_mm if preparation.form == "square" else preparation.root_face_mm


def _one_v(preparation: Preparation | None) -> TypeGuard[Preparation]:
    """Whether the groove is the one that a drawing of the root knows."""
    return preparation is not None and preparation.form == "single-v"


def _middle(span: Range | None) -> float | None:
    return None if span is None else round(span.middle, 3)


def _start_c(preheat_c: float | None) -> float:
    return 20.0 if preheat_c is None else max(preheat_c, 20.0)
