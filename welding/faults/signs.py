"""Facts that speak for or against a cause, from the pass, its log and what was measured beside it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from welding.bead.figures import Figure
from welding.bead.from_procedure import settings_of
from welding.bead.predict import predict
from welding.bead.state import BeadState
from welding.documents.bead_settings import BeadSettings
from welding.documents.coupon import PassRecord
from welding.documents.fault_case import FaultCase
from welding.documents.procedure import Pass
from welding.errors import WeldingError
from welding.heat.as_welded import travel_of
from welding.language import tr, tr_noop
from welding.quantities.writing import System, quantity_text
from welding.ranges import Range

LONG_EXTENSION, SHORT_EXTENSION = 1.35, 0.65
"""Against the usual extension of the wire (common practice)."""
WINDY_M_S = 1.5
OFF_V = 1.5
"""So far off the usual line of volts an arc is told long or short (common practice)."""
DAMP_PERCENT = 60.0
RICH_CO2_PERCENT, MANY_SHORTS_HZ, FEW_SHORTS_HZ = 20.0, 150.0, 30.0
SLIP_PERCENT, RETURN_DROP_V = 5.0, 2.0
THICK_FOR_SHORT_MM, THIN_MM = 6.0, 2.0
DIRTY_PURGE_PPM, CLEANING_PERCENT = 100.0, (20.0, 40.0)


@dataclass(frozen=True, slots=True)
class Sign:
    """A fact and what was read; ``words`` says it."""

    holds: bool
    words: str


class Known:
    """What a case lets be computed. Each sign is ``None`` where its facts are not known."""

    def __init__(self, case: FaultCase, system: System = "si") -> None:
        self.case = case
        self.system = system

    @property
    def planned(self) -> Pass | None:
        """The pass as planned."""
        procedure = self.case.procedure
        if procedure is None or self.case.index >= len(procedure.passes):
            return None
        return procedure.passes[self.case.index]

    @cached_property
    def settings(self) -> BeadSettings | None:
        """The pass as it was welded, else as planned; ``None`` without a procedure or a metal."""
        if self.case.procedure is None or self.planned is None:
            return None
        try:
            found = settings_of(self.case.procedure, self.planned)
        except WeldingError:
            return None
        return _as_logged(found, self.case.logged, self.case.around.gas_flow_l_min)

    @cached_property
    def state(self) -> BeadState | None:
        """What the settings come to."""
        return BeadState(self.settings) if self.settings else None

    @property
    def usual_v(self) -> float | None:
        """Volts that go with the current in the transfer that was planned; else as the arc is."""
        if self.state is None:
            return None
        planned = self.planned.transfer if self.planned else None
        if self.state.settings.process != "135" or planned is None:
            return self.state.usual_v
        short = "stainless-short" if self.state.kind == "stainless" else "steel-short"
        return self.state.usual_volts({"spray": "spray", "pulsed": "pulsed"}.get(planned, short))

    @cached_property
    def figures(self) -> Mapping[str, Figure]:
        """Predicted figures by key."""
        return {one.key: one for one in predict(self.settings).figures} if self.settings else {}

    def sign(self, key: str) -> Sign | None:
        """The sign of this key; ``None`` where nothing is known of it."""
        return SIGNS[key](self)


def _as_logged(found: BeadSettings, logged: PassRecord | None, flow: float | None) -> BeadSettings:
    changes: dict[str, object] = {}
    if logged is not None:
        for name in ("current_a", "voltage_v", "wire_feed_m_min"):
            reading = getattr(logged, name)
            if reading is not None:
                changes[name] = reading if isinstance(reading, float | int) else reading.mean
        if logged.current_a is not None and logged.wire_feed_m_min is None:
            changes["wire_feed_m_min"] = None
        if logged.current_a is None and logged.wire_feed_m_min is not None:
            changes["current_a"] = None
        travel = travel_of(logged)
        if travel is not None:
            changes["travel_mm_min"] = travel
        if logged.polarity is not None:
            changes["polarity"] = logged.polarity
        if logged.before_c is not None:
            changes["start_c"] = logged.before_c
    if flow is not None:
        changes["gas_flow_l_min"] = flow
    return replace(found, **changes)  # type: ignore[arg-type]


# --- signs ------------------------------------------------------------------------------------


KINDS: Mapping[str, str] = {
    "A": "current", "V": "voltage", "mm/min": "travel", "mm": "length", "L/min": "flow", "°C": "temperature",
    "kJ/mm": "heat_input", "m/s": "wind",
}  # fmt: skip
"""Kinds of quantity by the unit that a sign is computed in."""
COLDEST_C, NO_LIMIT = -273.0, 1e6
"""Ends of a range that has no end there."""


def _quantity(known: Known, value: float, unit: str) -> str:
    """A value in the reader's units; one of no kind of quantity as it stands."""
    kind = KINDS.get(unit)
    return quantity_text(value, kind, known.system) if kind else f"{round(value, 2):g} {unit}"


def _against(
    known: Known, value: float | None, span: Range | None, words: str, unit: str, *, above: bool
) -> Sign | None:
    """Whether a value lies beyond its range on one side."""
    if value is None or span is None:
        return None
    holds = value > span.max + 1e-9 if above else value < span.min - 1e-9
    shown, low, high = (_quantity(known, one, unit) for one in (value, span.min, span.max))
    if span.min <= COLDEST_C:
        said = tr("{words} {shown}, at most {high}", words=words, shown=shown, high=high)
    elif span.max >= NO_LIMIT:
        said = tr("{words} {shown}, at least {low}", words=words, shown=shown, low=low)
    else:
        said = tr(
            "{words} {shown}, usual or planned {low} to {high}", words=words, shown=shown, low=low, high=high
        )
    return Sign(holds, said)


def _planned_range(name: str) -> Callable[[Known], Range | None]:
    return lambda known: getattr(known.planned, name) if known.planned else None


def _setting(name: str) -> Callable[[Known], float | None]:
    return lambda known: getattr(known.settings, name) if known.settings else None


def _beyond(name: str, words: str, unit: str, *, above: bool) -> Callable[[Known], Sign | None]:
    return lambda known: _against(
        known, _setting(name)(known), _planned_range(name)(known), tr(words), unit, above=above
    )


def _volts(above: bool) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        state, usual = known.state, known.usual_v
        if state is None or state.settings.voltage_v is None or usual is None:
            return None
        off = state.settings.voltage_v - usual
        words = tr(
            "{volts:.1f} V, usual {usual:.1f} V at this current",
            volts=state.settings.voltage_v,
            usual=usual,
        )
        return Sign(off > OFF_V if above else off < -OFF_V, words)

    return found


def _gas(above: bool) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        figure, flow = known.figures.get("gas_flow"), _setting("gas_flow_l_min")(known)
        if figure is None or figure.low is None or figure.high is None:
            return None
        return _against(
            known, flow, Range(figure.low * 0.9, figure.high * 1.1), tr("gas"), "L/min", above=above
        )

    return found


def _extension(above: bool) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        state = known.state
        if state is None or state.settings.extension_mm is None or not state.wire:
            return None
        bare = BeadState(replace(state.settings, extension_mm=None)).extension_mm
        if bare is None:
            return None
        span = Range(SHORT_EXTENSION * bare, LONG_EXTENSION * bare)
        return _against(known, state.settings.extension_mm, span, tr("extension"), "mm", above=above)

    return found


def _measured(
    name: str, limit: float, words: str, unit: str, *, above: bool = True
) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        value: float | None = getattr(known.case.around, name)
        if value is None:
            return None
        said = f"{tr(words)} {_quantity(known, value, unit)}"
        return Sign(value > limit if above else value < limit, said)

    return found


def _unchecked(question: str, words: str) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        answer = known.case.checklist.get(question)
        return None if answer is None else Sign(not answer, tr("checklist: {words}", words=tr(words)))

    return found


def _level(key: str, words: str, *levels: str) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        figure = known.figures.get(key)
        if figure is None or figure.no_model or not figure.level:
            return None
        return Sign(figure.level in levels, tr(words))

    return found


def _polarity(known: Known) -> Sign | None:
    checked = known.case.checklist.get("polarity")
    logged, planned = known.case.logged, known.planned
    if logged is not None and logged.polarity and planned is not None and planned.polarity:
        same = logged.polarity == planned.polarity
        return Sign(
            not same,
            tr("welded on {logged}, planned {planned}", logged=logged.polarity, planned=planned.polarity),
        )
    return None if checked is None else Sign(not checked, tr("checklist: polarity at the terminals"))


def _interpass(known: Known) -> Sign | None:
    thermal = known.case.procedure.thermal if known.case.procedure else None
    before = known.case.logged.before_c if known.case.logged else None
    if before is None or thermal is None or thermal.interpass_max_c is None:
        return None
    return _against(
        known, before, Range(COLDEST_C, thermal.interpass_max_c), tr("before the pass"), "°C", above=True
    )


def _preheat(known: Known) -> Sign | None:
    thermal = known.case.procedure.thermal if known.case.procedure else None
    before = known.case.logged.before_c if known.case.logged else None
    if before is None or thermal is None or thermal.preheat_min_c is None:
        return None
    return _against(
        known, before, Range(thermal.preheat_min_c, NO_LIMIT), tr("before the pass"), "°C", above=False
    )


def _gap(above: bool) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        joint = known.case.procedure.joint if known.case.procedure else None
        preparation = joint.preparation if joint else None
        if known.case.around.gap_mm is None or preparation is None or preparation.root_gap_mm is None:
            return None
        planned = preparation.root_gap_mm
        return _against(
            known,
            known.case.around.gap_mm,
            Range(max(planned - 0.5, 0), planned + 0.5),
            tr("gap"),
            "mm",
            above=above,
        )

    return found


def _co2(known: Known) -> Sign | None:
    if known.state is None or not known.state.components:
        return None
    carbon = known.state.components.get("CO2", 0.0)
    return Sign(carbon > RICH_CO2_PERCENT, tr("{carbon:g} % CO2 in the gas", carbon=carbon))


def _thick_short(known: Known) -> Sign | None:
    if known.state is None or known.state.transfer is None:
        return None
    thick = known.state.settings.thickness_mm
    return Sign(
        known.state.transfer == "short-circuit" and thick > THICK_FOR_SHORT_MM,
        tr("short-circuiting transfer on {thick}", thick=_quantity(known, thick, "mm")),
    )


def _below_spray(known: Known) -> Sign | None:
    if known.state is None or known.state.spray_from is None or known.state.amps is None:
        return None
    amps, least = known.state.amps, known.state.spray_from.current_a
    return Sign(amps < least, tr("{amps:.0f} A, spray from {least:.0f} A", amps=amps, least=least))


def _thin(known: Known) -> Sign | None:
    if known.settings is None:
        return None
    thin = known.settings.thickness_mm
    return Sign(thin < THIN_MM, tr("{thin} thick", thin=_quantity(known, thin, "mm")))


def _root_face(known: Known) -> Sign | None:
    figure = known.figures.get("root_fusion")
    if figure is None or figure.value is None:
        return None
    return Sign(figure.level == "bad", tr("by the model the root face is not fused through"))


def _purge_missing(known: Known) -> Sign | None:
    if known.planned is None or known.state is None or known.state.kind != "stainless":
        return None
    none = known.planned.purge is None and known.case.around.purge_oxygen_ppm is None
    return Sign(none, tr("no purge is stated") if none else tr("a purge is stated"))


def _positive(above: bool) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        ac = known.settings.ac if known.settings else None
        if ac is None or ac.en_share is None:
            return None
        return _against(
            known,
            100 * (1 - ac.en_share),
            Range(*CLEANING_PERCENT),
            tr("electrode positive"),
            "%",
            above=above,
        )

    return found


def _drag(far: bool) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        angle = known.settings.torch_angle_deg if known.settings else None
        if angle is None:
            return None
        return Sign(angle < -20 if far else angle > 20, tr("torch at {angle:g}°", angle=angle))

    return found


def _post_flow(known: Known) -> Sign | None:
    figure, said = known.figures.get("post_flow_s"), _setting("post_flow_s")(known)
    if figure is None or figure.low is None or said is None:
        return None
    return Sign(said < figure.low, tr("post-flow {said:g} s", said=said))


def _pre_flow(known: Known) -> Sign | None:
    times = known.planned.gas_times if known.planned else None
    if times is None or times.pre_flow_s is None:
        return None
    return Sign(times.pre_flow_s < 0.2, tr("pre-flow {said:g} s", said=times.pre_flow_s))


def _slope_down(known: Known) -> Sign | None:
    slopes = known.planned.slopes if known.planned else None
    if slopes is None or slopes.down_s is None:
        return None
    return Sign(slopes.down_s < 0.5, tr("down-slope {said:g} s", said=slopes.down_s))


def _inductance(known: Known) -> Sign | None:
    said = _setting("inductance_percent")(known)
    return None if said is None else Sign(said < 25, tr("inductance {said:g} %", said=said))


def _heat(known: Known) -> Sign | None:
    wanted = (
        known.case.procedure.thermal.heat_input_kj_mm
        if known.case.procedure and known.case.procedure.thermal
        else None
    )
    figure = known.figures.get("heat_input_kj_mm")
    if wanted is None or figure is None or figure.value is None:
        return None
    return _against(known, figure.value, wanted, tr("heat input"), "kJ/mm", above=True)


def _t85(below: bool) -> Callable[[Known], Sign | None]:
    def found(known: Known) -> Sign | None:
        figure = known.figures.get("t85_s")
        if figure is None or figure.value is None:
            return None
        words = tr("t8/5 about {seconds:.1f} s", seconds=figure.value)
        return Sign(figure.value < 5 if below else figure.value > 22, words)

    return found


def _wide_weave(known: Known) -> Sign | None:
    said, most = _setting("weave_mm")(known), known.planned.weave_max_mm if known.planned else None
    if said is None or most is None:
        return None
    return _against(known, said, Range(0, most), tr("weave"), "mm", above=True)


def _nothing(known: Known) -> Sign | None:
    """A sign that only a person can read."""
    return None


SIGNS: Mapping[str, Callable[[Known], Sign | None]] = {
    "gas-low": _gas(False),
    "gas-high": _gas(True),
    "wind": _measured("wind_m_s", WINDY_M_S, tr_noop("wind"), "m/s"),
    "not-cleaned": _unchecked("bright", tr_noop("metal bright where the weld touches")),
    "damp": _measured("humidity_percent", DAMP_PERCENT, tr_noop("humidity"), "%"),
    "volts-high": _volts(True),
    "volts-low": _volts(False),
    "travel-high": _beyond("travel_mm_min", tr_noop("travel"), "mm/min", above=True),
    "travel-low": _beyond("travel_mm_min", tr_noop("travel"), "mm/min", above=False),
    "current-high": _beyond("current_a", tr_noop("current"), "A", above=True),
    "current-low": _beyond("current_a", tr_noop("current"), "A", above=False),
    "extension-long": _extension(True),
    "extension-short": _extension(False),
    "interpass-high": _interpass,
    "preheat-low": _preheat,
    "polarity-wrong": _polarity,
    "co2-high": _co2,
    "gap-large": _gap(True),
    "gap-small": _gap(False),
    "root-face-thick": _root_face,
    "thick-short-arc": _thick_short,
    "push-far": _drag(False),
    "drag-far": _drag(True),
    "weave-wide": _wide_weave,
    "post-flow-short": _post_flow,
    "pre-flow-none": _pre_flow,
    "no-slope-down": _slope_down,
    "purge-none": _purge_missing,
    "purge-oxygen-high": _measured(
        "purge_oxygen_ppm", DIRTY_PURGE_PPM, tr_noop("oxygen in the purge"), "ppm"
    ),
    "tungsten-overloaded": _level("tungsten_load", tr_noop("load of the tungsten"), "bad"),
    "ep-high": _positive(True),
    "ep-low": _positive(False),
    "below-spray": _below_spray,
    "shorts-many": _measured("short_circuits_hz", MANY_SHORTS_HZ, tr_noop("short circuits"), "Hz"),
    "shorts-few": _measured("short_circuits_hz", FEW_SHORTS_HZ, tr_noop("short circuits"), "Hz", above=False),
    "feed-slip": _measured("feed_slip_percent", SLIP_PERCENT, tr_noop("slip of the wire"), "%"),
    "inductance-low": _inductance,
    "heat-high": _heat,
    "cools-fast": _t85(True),
    "cools-slow": _t85(False),
    "hydrogen-high": _nothing,
    "thin-sheet": _thin,
    "tungsten-too-thick": _level("tungsten_load", tr_noop("tungsten thick for this current"), "watch"),
    "return-bad": _measured("return_drop_v", RETURN_DROP_V, tr_noop("voltage lost in the work return"), "V"),
    "no-tab": _nothing,
}
