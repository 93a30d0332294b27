"""Figures of how the arc behaves: its length, steadiness, tendency to porosity, inductance, AC waveform."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Literal

from welding.bead.arc import drop_per_pulse_hz
from welding.bead.figures import PRACTICE, PRACTICE_LOW, Figure, Level, banded
from welding.bead.state import PACKAGE, Band, BeadState
from welding.bead.usual import electrode_range, tungsten_carries, usual_flow
from welding.codebook.table import load_table
from welding.language import tr, tr_noop
from welding.ranges import Range
from welding.setup.cup import bore_mm

TOUCHES_BELOW_MM = 0.4
"""An arc as short as this touches now and then (common practice)."""
REASON_FROM = 0.5
"""Points from which an influence is named as a reason."""
_SCALE = {
    "stability": (tr_noop("steady"), tr_noop("fairly steady"), tr_noop("unsteady"), tr_noop("hard to hold")),
    "porosity": (tr_noop("little"), tr_noop("some"), tr_noop("much"), tr_noop("very much")),
}
_LEVELS: tuple[Level, ...] = ("fine", "", "watch", "bad")
_WAVES = {
    "sine": tr_noop("sine: soft and cool, re-ignites worst"),
    "soft-square": tr_noop("soft square: calm, wide pool"),
    "square": tr_noop("square: most power and penetration, quick pool"),
    "triangle": tr_noop("triangle: high peaks with little mean heat, for thin metal and out of position"),
}


def behaviour_figures(state: BeadState) -> Iterator[Figure]:
    """How the arc behaves."""
    yield from _arc_length(state)
    found = measures(state)
    if state.group and state.amps is not None:
        yield from _scored(state, found, "stability", tr("Arc stability"))
        yield from _scored(state, found, "porosity", tr("Tendency to porosity"))
    yield from _inductance(state)
    yield from _wave(state)


def _arc_length(state: BeadState) -> Iterator[Figure]:
    table = load_table(PACKAGE, "arc_lengths")
    row = next((one for one in table.rows if one["group"] == state.group), None)
    off = _volts_off(state)
    if row is None or off is None:
        return
    helium = state.components.get("He", 0.0) / 100
    column = row["column_v_mm"] * (1 + (row["helium_factor"] - 1) * helium)
    length = row["usual_mm"] + off / column
    touches = length < TOUCHES_BELOW_MM
    shown = max(length, 0.0)
    half = 0.3 * row["usual_mm"] + 0.4 * abs(off) / column
    yield banded(
        "arc_length_mm",
        "arc",
        tr("Arc length by the volts"),
        Band(shown, max(shown - half, 0.0), shown + half),
        table.citation_of(row),
        quantity="length",
        words=tr("so short that the electrode touches the pool")
        if touches and state.group != "short"
        else "",
        level="watch" if touches and state.group != "short" else "",
        error=tr("{column_v_mm:.1f} V for each millimetre; cables take volts, too", column_v_mm=column),
    )


def _volts_off(state: BeadState) -> float | None:
    """Arc volts above the usual ones; ``None`` where either is unknown."""
    if state.settings.voltage_v is None or state.usual_v is None:
        return None
    return state.settings.voltage_v - state.usual_v


def measures(state: BeadState) -> dict[str, float]:
    """Everything that an influence may go by, as far as the settings say it; see ``arc_influences``."""
    one = state.settings
    found: dict[str, float | None] = {
        "always": 1.0,
        "extension_mm": one.extension_mm,
        "wire_negative": 1.0 if state.wire and one.polarity == "DCEN" else 0.0,
        "co2_percent": state.components.get("CO2", 0.0),
        "helium_percent": state.components.get("He", 0.0),
        "inductance_percent": one.inductance_percent,
        "ac_hz": one.ac.frequency_hz if one.ac else None,
        "lean_deg": abs(one.torch_angle_deg or 0.0),
        "travel_mm_min": one.travel_mm_min,
        "start_c": one.start_c,
        "aluminium": 1.0 if state.kind == "aluminium" else 0.0,
        "hydrogen_unfit_percent": _unfit_hydrogen(state),
        "nitrogen_unfit_percent": 0.0 if state.kind == "stainless" else state.components.get("N2", 0.0),
        "tungsten_load_percent": _tungsten_load_percent(state),
        "pulse_off_percent": _pulse_off_percent(state),
        "weave_of_nozzle_percent": _weave_of_nozzle_percent(state),
    }
    off = _volts_off(state)
    if off is not None:
        found |= {"volts_off_v": abs(off), "volts_long_v": max(off, 0.0)}
    return {key: value for key, value in found.items() if value is not None} | _current(state) | _flow(state)


def _unfit_hydrogen(state: BeadState) -> float:
    fit = state.kind == "nickel" or (state.metal is not None and state.metal.family == "austenitic")
    return 0.0 if fit else state.components.get("H2", 0.0)


def _tungsten_load_percent(state: BeadState) -> float | None:
    carried = tungsten_carries(state)
    return 100 * state.amps / carried.widest.max if carried and state.amps is not None else None


def _pulse_off_percent(state: BeadState) -> float | None:
    pulse, one = state.settings.pulse, state.settings
    if pulse is None or pulse.frequency_hz is None or not one.diameter_mm or not state.feed_m_min:
        return None
    wanted = drop_per_pulse_hz(one.diameter_mm, state.feed_m_min)
    return 100 * abs(pulse.frequency_hz - wanted) / wanted


def _weave_of_nozzle_percent(state: BeadState) -> float | None:
    one = state.settings
    bore = bore_mm(one.cup.number) if one.cup else one.nozzle_mm
    return None if bore is None or one.weave_mm is None else 100 * one.weave_mm / bore


def _current(state: BeadState) -> dict[str, float]:
    """How far the current is outside an electrode's range, in percent of its nearer end."""
    span = electrode_range(state)
    return {} if span is None else _outside("current", state.amps, span)


def _flow(state: BeadState) -> dict[str, float]:
    """How far the gas flow is outside what is usual, in percent of its nearer end."""
    advice = usual_flow(state)
    return {} if advice is None else _outside("flow", state.settings.gas_flow_l_min, advice.usual)


def _outside(name: str, value: float | None, span: Range) -> dict[str, float]:
    if value is None:
        return {}
    return {
        f"{name}_below_percent": max(100 * (span.min - value) / span.min, 0.0),
        f"{name}_above_percent": max(100 * (value - span.max) / span.max, 0.0),
    }


def _points(row: Mapping[str, object], found: Mapping[str, float]) -> float:
    value = found.get(str(row["measure"]))
    if value is None:
        return 0.0
    start, each, most = (float(row[name]) for name in ("from", "each", "most"))  # type: ignore[arg-type]
    return min(max((value - start) / each, 0.0), most)


def _scored(
    state: BeadState, found: Mapping[str, float], key: Literal["stability", "porosity"], title: str
) -> Iterator[Figure]:
    """Points of all influences: they order settings; what they come to is said in words."""
    table = load_table(PACKAGE, "arc_influences")
    rows = [row for row in table.rows if row["on"] == key and state.group in row["groups"]]
    if not rows:
        return
    points = {row["row"]: _points(row, found) for row in rows}
    score = sum(points.values())
    step = min(round(score), 3)
    reasons = [tr(row["words"]) for row in rows if points[row["row"]] >= REASON_FROM]
    yield Figure(
        key=key,
        group="arc" if key == "stability" else "shielding",
        title=title,
        value=round(score, 3),
        words=tr(_SCALE[key][step]) + (f": {'; '.join(reasons)}" if reasons else ""),
        level=_LEVELS[step],
        citation=PRACTICE_LOW,
    )


def _inductance(state: BeadState) -> Iterator[Figure]:
    percent = state.settings.inductance_percent
    if state.group != "short" or percent is None:
        return
    yield Figure(
        key="inductance",
        group="arc",
        title=tr("Inductance and slope"),
        words=tr(
            "little: current rises fast in a short circuit; crisp arc, pool freezes quickly, more spatter"
        )
        if percent < 30
        else tr("middle: what roots and general work are welded with")
        if percent <= 65
        else tr(
            "much: current rises slowly; fluid pool that wets the toes, for filling; cold starts beyond 80 %"
        ),
        citation=PRACTICE,
        error=tr(
            "Where the source has a slope to set, a steeper one limits the current of the short circuit, "
            "as more inductance does. Dials differ: 50 % of one machine is not 50 % of another."
        ),
    )


def _wave(state: BeadState) -> Iterator[Figure]:
    ac = state.settings.ac
    if state.group != "tig-ac" or ac is None or ac.waveform is None:
        return
    yield Figure(
        key="waveform", group="arc", title=tr("AC waveform"), words=tr(_WAVES[ac.waveform]), citation=PRACTICE
    )
