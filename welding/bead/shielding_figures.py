"""Figures of the gas: flow at the nozzle, colour of stainless steel at face and root, post-flow."""

from __future__ import annotations

from collections.abc import Iterator

from welding.bead.figures import BALANCE, PRACTICE_LOW, Figure, banded, without_model
from welding.bead.shielding import LAMINAR_BELOW, exit_velocity_m_s, reynolds
from welding.bead.state import Band, BeadState
from welding.bead.tint import Tint, can_tint, face_tint, root_tint
from welding.bead.usual import usual_flow
from welding.language import tr
from welding.setup.cup import bore_mm


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
    advice = usual_flow(state)
    if one.gas_flow_l_min is None or advice is None:
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
