"""Figures of the arc: power, feed and current, volts, transfer, spatter, tungsten, AC, pulse."""

from __future__ import annotations

from collections.abc import Iterator

from welding.bead.arc import drop_per_pulse_hz, short_circuits_hz
from welding.bead.figures import BALANCE, PRACTICE, PRACTICE_LOW, Figure, Level, banded, without_model
from welding.bead.state import Band, BeadState
from welding.bead.usual import electrode_range, tungsten_carries
from welding.codebook.table import load_table
from welding.language import tr, tr_noop

SHORT_DROP = 1.1
"""Drop of a short circuit in wire diameters, as it grows before it touches (common practice)."""
CLEANED_MM_PER_PERCENT = 0.06
"""Cleaned margin beside the bead for each percent electrode positive (common practice)."""
CODE_RICH_PERCENT = 25.0
_OFF_V = (1.0, 2.5)
_EXPLOSIVE_CO2 = 20.0
_SPATTERS = {"globular": 2.5, "short": 0.8, "cored-self": 1.6, "stick": 0.7, "cored-gas": 0.6}
_NAMES = {
    "short-circuit": tr_noop("short-circuiting transfer"),
    "globular": tr_noop("globular transfer"),
    "spray": tr_noop("spray transfer"),
    "pulsed": tr_noop("pulsed transfer"),
}


def arc_figures(state: BeadState) -> Iterator[Figure]:
    """What the arc does."""
    yield from _power(state)
    yield from _feed(state)
    yield from _volts(state)
    yield from _transfer(state)
    yield from _spatter(state)
    yield from _pulse(state)
    if state.settings.process == "141":
        yield from _tungsten(state)
        yield from _ac(state)


def _power(state: BeadState) -> Iterator[Figure]:
    title = tr("Arc power")
    if state.power_w is None:
        yield without_model("arc_power_w", "arc", title, tr("Current and volts are needed."))
        return
    measured = state.settings.voltage_v is not None
    yield banded(
        "arc_power_w",
        "arc",
        title,
        Band.within(state.power_w, 2.0 if measured else 12.0),
        BALANCE,
        quantity="power",
        error=tr("volts as set") if measured else tr("volts estimated from the current"),
    )


def _feed(state: BeadState) -> Iterator[Figure]:
    one = state.settings
    if not state.wire:
        return
    if one.wire_feed_m_min is not None and state.amps_by_feed is not None:
        found = state.amps_by_feed
        level: Level = ""
        words = ""
        if state.set_amps is not None:
            off = 100 * (state.set_amps - found.value) / found.value
            if abs(off) > found.error_percent:
                level = "watch"
                words = tr(
                    "{current_a:g} A does not go with this feed: check extension, wire size and meter.",
                    current_a=round(state.set_amps, 1),
                )
        yield banded(
            "current_by_feed_a",
            "arc",
            tr("Current that this wire feed draws"),
            Band.within(found.value, found.error_percent),
            found.citation,
            quantity="current",
            words=words,
            level=level,
        )
    elif state.feed_by_amps is not None:
        found = state.feed_by_amps
        yield banded(
            "wire_feed_m_min",
            "arc",
            tr("Wire feed that this current melts"),
            Band.within(found.value, found.error_percent),
            found.citation,
            quantity="wire_feed",
        )


def _volts(state: BeadState) -> Iterator[Figure]:
    usual, set_v = state.usual_v, state.settings.voltage_v
    title = tr("Usual arc volts at this current")
    if usual is None:
        yield without_model("usual_volts_v", "arc", title, tr("No line of volts for these settings."))
        return
    words, level = "", ""
    if set_v is not None:
        off = set_v - usual
        size = abs(off)
        level = "fine" if size <= _OFF_V[0] else "watch" if size <= _OFF_V[1] else "bad"
        if off > _OFF_V[0]:
            words = tr("{off:.1f} V over: a long arc, wide and flat, undercut and spatter beyond.", off=off)
        elif off < -_OFF_V[0]:
            words = tr("{off:.1f} V under: a short arc, narrow and proud, stubbing beyond.", off=size)
        else:
            words = tr("In the middle of what practice uses.")
    table = load_table("welding.arc", "arc_volts")
    yield Figure(
        key="usual_volts_v",
        group="arc",
        title=title,
        value=usual,
        low=usual - 1.5,
        high=usual + 1.5,
        quantity="voltage",
        words=words,
        level=level,  # type: ignore[arg-type]
        citation=table.citation_of(table.row(state.volts_case)),
        error=tr("meters at the machine read 1 to 3 V more"),
    )


def _transfer(state: BeadState) -> Iterator[Figure]:
    one, found = state.settings, state.transfer
    title = tr("Metal transfer")
    if one.process not in ("131", "135"):
        return
    if found is None:
        yield without_model("transfer", "arc", title, tr("Current (or wire feed) and volts are needed."))
        return
    words = tr(_NAMES[found])
    if state.spray_from is None and one.process == "135" and found != "pulsed":
        words += tr("; this gas gives no true spray")
    elif state.spray_from is not None and state.amps is not None and found != "pulsed":
        words += tr("; spray from about {current_a:.0f} A", current_a=state.spray_from.current_a)
    yield Figure(
        key="transfer",
        group="arc",
        title=title,
        words=words,
        level="watch" if found == "globular" else "",
        citation=state.spray_from.citation if state.spray_from else PRACTICE,
    )
    if found == "short-circuit" and one.diameter_mm and state.feed_m_min:
        rate = short_circuits_hz(one.diameter_mm, state.feed_m_min, SHORT_DROP * one.diameter_mm)
        yield banded(
            "short_circuits_hz",
            "arc",
            tr("Short circuits"),
            Band.within(rate, 40),
            BALANCE,
            quantity="frequency",
            error=tr("drop of 1.1 wire diameters; 60 to 150 Hz is usual for 0.8 to 1.2 mm wire"),
        )


def _spatter(state: BeadState) -> Iterator[Figure]:
    one = state.settings
    if one.process in ("141", "121") or not state.group:
        return
    score = _SPATTERS.get(state.group, 0.0)
    reasons = []
    if state.group == "globular":
        reasons.append(tr("globular transfer"))
    carbon = state.components.get("CO2", 0.0)
    if carbon > CODE_RICH_PERCENT or (state.group == "spray" and carbon > _EXPLOSIVE_CO2):
        score += 1 + 0.01 * (carbon - _EXPLOSIVE_CO2)
        reasons.append(tr("much CO2"))
    if one.voltage_v is not None and state.usual_v is not None:
        off = abs(one.voltage_v - state.usual_v)
        score += min(off / _OFF_V[1], 2.0)
        if off > _OFF_V[0]:
            reasons.append(tr("volts off the middle"))
    if state.group == "short" and one.inductance_percent is not None:
        score += 0.01 * (50 - min(one.inductance_percent, 75.0))
        if one.inductance_percent < 25:
            reasons.append(tr("little inductance"))
    if state.group == "stick" and one.diameter_mm and state.amps:
        span = electrode_range(state)
        if span is not None:
            place = (state.amps - span.min) / max(span.max - span.min, 1.0)
            score += min(max(place, 0.0), 2.0) ** 2 * 0.7
            if place > 0.9:
                reasons.append(tr("current at the top of the electrode's range"))
    levels: tuple[tuple[str, Level], ...] = (
        (tr("little"), "fine"),
        (tr("some"), ""),
        (tr("much"), "watch"),
        (tr("very much"), "bad"),
    )
    words, level = levels[min(max(round(score), 0), 3)]
    yield Figure(
        key="spatter",
        group="arc",
        title=tr("Spatter"),
        words=words + (f": {', '.join(reasons)}" if reasons else ""),
        level=level,
        value=round(score, 3),
        citation=PRACTICE_LOW,
    )


def _pulse(state: BeadState) -> Iterator[Figure]:
    one = state.settings
    pulse, means = one.pulse, state.pulse
    if pulse is None or means is None:
        return
    yield banded(
        "pulse_mean_a",
        "arc",
        tr("Mean current of the pulse"),
        Band.within(means.mean_a, 0),
        BALANCE,
        quantity="current",
    )
    yield banded(
        "pulse_rms_a",
        "arc",
        tr("Root mean square current of the pulse"),
        Band.within(means.rms_a, 0),
        BALANCE,
        quantity="current",
    )
    if pulse.frequency_hz and one.travel_mm_min:
        yield banded(
            "ripple_mm",
            "arc",
            tr("Distance between ripples"),
            Band.within(one.travel_mm_min / 60 / pulse.frequency_hz, 0),
            BALANCE,
            quantity="length",
            error=tr("travel over pulse frequency"),
        )
    if one.process in ("131", "135") and one.diameter_mm and state.feed_m_min:
        yield banded(
            "drop_per_pulse_hz",
            "arc",
            tr("Frequency of one drop a pulse"),
            Band.within(drop_per_pulse_hz(one.diameter_mm, state.feed_m_min), 25),
            BALANCE,
            quantity="frequency",
            error=tr("a drop as wide as the wire"),
        )


def _tungsten(state: BeadState) -> Iterator[Figure]:
    tungsten, polarity = state.settings.tungsten, state.settings.polarity
    title = tr("Load of the tungsten")
    if tungsten is None or tungsten.diameter_mm is None or state.amps is None or polarity is None:
        yield without_model(
            "tungsten_load", "arc", title, tr("Tungsten diameter, polarity and current are needed.")
        )
        return
    carried = tungsten_carries(state)
    if carried is None:
        yield without_model("tungsten_load", "arc", title, tr("The table has no such tungsten."))
        return
    span = carried.widest
    share = 100 * state.amps / span.max
    if polarity == "AC":
        share *= 1 + 0.8 * (state.positive_share - 0.3)
    level: Level = "bad" if share > 100 else "watch" if share > 80 or share < 15 else "fine"
    words = (
        tr("over what it carries: it melts and spits tungsten into the weld")
        if share > 100
        else tr("near its limit: the tip wears fast")
        if share > 80
        else tr("so thick a tungsten does not keep so small an arc steady")
        if share < 15
        else tr("carried with ease")
    )
    yield banded(
        "tungsten_load",
        "arc",
        title,
        Band.within(share, 15),
        carried.citation,
        unit="%",
        words=words,
        level=level,
    )


def _ac(state: BeadState) -> Iterator[Figure]:
    ac = state.settings.ac
    if state.group != "tig-ac" or ac is None or ac.en_share is None:
        return
    positive = 100 * state.positive_share
    yield banded(
        "cleaned_mm",
        "arc",
        tr("Cleaned margin beside the bead"),
        Band.within(CLEANED_MM_PER_PERCENT * positive * (1 - state.components.get("He", 0.0) / 200), 40),
        PRACTICE_LOW,
        quantity="length",
        error=tr("about 0.6 mm on each side for 10 % positive"),
        level="fine" if 25 <= positive <= 40 else "watch",
        words=tr("30 to 35 % positive is the usual middle; more heats the tungsten, less leaves oxide."),
    )
    if ac.frequency_hz is not None:
        hz = ac.frequency_hz
        words = (
            tr("wide, soft arc; for thick metal")
            if hz < 80
            else tr("general work and thick metal")
            if hz <= 120
            else tr("narrow, stiff arc; for thin metal and corners")
        )
        yield Figure(
            key="ac_focus", group="arc", title=tr("Arc by AC frequency"), words=words, citation=PRACTICE
        )
