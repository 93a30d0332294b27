"""What practice uses, to judge settings by: gas flow, currents of a tungsten and of a covered electrode."""

from __future__ import annotations

from welding.arc.groups import stick_kind
from welding.arc.relations import wire_range
from welding.bead.state import BeadState
from welding.ranges import Range
from welding.setup.flow import FlowAdvice, flow_advice
from welding.setup.tungsten import CarriedCurrent, carried_current, tungsten_named


def usual_flow(state: BeadState) -> FlowAdvice | None:
    """Usual flow for process, transfer and cup; ``None`` without gas, or where no table has it."""
    one = state.settings
    if not one.gas:
        return None
    return flow_advice(
        one.process,
        state.components,
        transfer=state.transfer,
        cup_number=one.cup.number if one.cup else None,
        lens=bool(one.cup and one.cup.lens),
        ac=one.polarity == "AC",
    )


def tungsten_carries(state: BeadState) -> CarriedCurrent | None:
    """What the tungsten carries on this polarity; ``None`` where the settings or the table lack it."""
    tungsten, polarity = state.settings.tungsten, state.settings.polarity
    if tungsten is None or tungsten.diameter_mm is None or polarity is None:
        return None
    kind = tungsten_named(tungsten.type) if tungsten.type else None
    return carried_current(
        tungsten.diameter_mm,
        polarity,
        pure=bool(kind and kind.pure),
        en_share=1 - state.positive_share if polarity == "AC" else None,
    )


def electrode_range(state: BeadState) -> Range | None:
    """Currents of a covered electrode by its covering and size; ``None`` for other processes."""
    one = state.settings
    kind = stick_kind(state.kind, one.filler or "") if state.group == "stick" else ""
    known = wire_range(kind, one.diameter_mm) if kind and one.diameter_mm else None
    return known[0] if known else None
