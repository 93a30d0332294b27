"""Starting point of a run: current, volts, feed and what it lays down, with every adjustment spelled out."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from welding.arc.groups import THINNER, stick_kind, wire_kind
from welding.arc.relations import (
    Estimate,
    arc_volts,
    current_a,
    current_for_thickness,
    fillet_factor,
    wire_feed_m_min,
    wire_range,
)
from welding.citation import Citation
from welding.deposit.laid import hand_rate_mm3_min_a, laid_per_feed, weld_metal
from welding.documents.fields import Transfer
from welding.documents.procedure import Filler, Gas, Pass
from welding.errors import UnknownEntryError
from welding.glossary.values import in_words
from welding.language import tr
from welding.planning.facts import Facts, transfer_group
from welding.ranges import Range
from welding.setup.spray import SprayMetal, SprayTransition, spray_transition

SLAG_HOLDS = 0.9
"""A quick-freezing slag carries the pool, so that cored wire comes down less (common practice)."""
OPEN_ROOT_TO_MM = 5.0
OPEN_ROOT = {"tig": 0.77, "tig-aluminium": 0.9, "short": 0.85, "pulsed": 0.85}
COPPER_NICKEL_PERCENT = 5.0
BACKED_ROOT = {
    "cored-gas": 0.78,
    "cored-metal": 0.85,
    "cored-self": 0.85,
    "spray": 0.9,
    "pulsed": 0.9,
    "saw": 0.88,
}
_STICK_SHARE = {"flat": 0.65, "horizontal": 0.55, "vertical-up": 0.35, "vertical-down": 0.6, "overhead": 0.4}
SHEET_TO_MM = 4.0
COOLER = 0.92
"""Spray on quenched and tempered steel and on duplex, which a hot pool softens (common practice)."""
SPRAY_FILLET, SPRAY_BUTT = (195.0, 10.5, 305.0), (195.0, 9.0, 285.0)
"""Amps of a 1.2 mm wire in spray by hand: base, more for each mm, most; other sizes with (d / 1.2)^1.5
(common practice)."""
SPRAY_OVER_TRANSITION = 1.03
SUPPLY_AMPS = Range(15.0, 350.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Run:
    """What a pass is run with, before ranges.

    Attributes:
        group: Row of travel and bead shape.
        transfer: Transfer mode of wire.
        diameter_mm: True diameter of the filler.
        nominal_size: Its trade size.
        current_a: In the middle.
        takes: Current that wire, electrode or transfer takes.
        voltage_v: In the middle.
        feed_m_min: Wire feed; ``None`` for covered electrodes and hand-fed rod.
        wire_kind: Row of the melting law; empty without a feed.
        extension_mm: Wire beyond the tip that the melting law took.
        deposit_mm3_min: Weld metal laid down a minute.
        current_text: How the current came about.
        voltage_text: How the volts came about.
        error_percent: How far the current usually is from a working one.
        citations: Of the current, the volts, the feed.
        unchecked: Tables that nobody has compared.
    """

    group: str
    transfer: Transfer | None
    diameter_mm: float
    nominal_size: str
    current_a: float
    takes: Range
    voltage_v: float
    feed_m_min: float | None
    wire_kind: str
    extension_mm: float
    deposit_mm3_min: float
    current_text: str
    voltage_text: str
    error_percent: float
    citations: tuple[Citation, ...]
    unchecked: tuple[str, ...] = field(default=())


@dataclass(frozen=True, slots=True, kw_only=True)
class Setting:
    """Which relations a pass goes by."""

    facts: Facts
    designation: str
    gas: dict[str, float] | None
    purge: dict[str, float] | None = None
    transfer: Transfer | None
    diameter_mm: float
    nominal_size: str
    role: str
    open_root: bool

    @property
    def group(self) -> str:
        """Row of travel and bead shape."""
        return transfer_group(self.facts, self.transfer)

    @property
    def wire_kind(self) -> str:
        """Row of the melting law; empty for covered electrodes and hand-fed rod."""
        return wire_kind(self.facts.process, self.designation, self.diameter_mm)

    @property
    def transition(self) -> SprayTransition | None:
        """Current from which a pass in spray sprays; ``None`` for other transfers and unknown gases."""
        if self.transfer != "spray" or self.facts.process not in ("131", "135"):
            return None
        metals: dict[str, SprayMetal] = {
            "copper": "copper",
            "stainless": "stainless",
            "aluminium": "aluminium",
        }
        metal = metals.get(self.facts.kind, "steel")
        return spray_transition(metal, self.gas or {}, self.diameter_mm)

    @property
    def volts_case(self) -> str:
        """Row of the arc volts."""
        if self.facts.process == "111":
            return "stick-cellulosic" if self.stick_kind == "stick-cellulosic" else "stick"
        if self.facts.process == "141":
            return "tig-ac" if self.facts.kind == "aluminium" else "tig"
        if self.group == "short":
            return "steel-short" if self.facts.kind == "steel" else "stainless-short"
        return self.group

    @property
    def stick_kind(self) -> str:
        """Row of an electrode's currents."""
        return stick_kind(self.facts.kind, self.designation) or "stick-basic"


def thickness_for(setting: Setting) -> tuple[float, str]:
    """Thickness that the current goes by, and what was taken off for the position."""
    factor = THINNER.get(setting.facts.attitude, 1.0)
    if factor < 1.0 and setting.group == "cored-gas":
        factor = SLAG_HOLDS
    thin = setting.facts.thin
    if setting.open_root:
        thin = min(thin, OPEN_ROOT_TO_MM)  # a root is fused to its lands, however thick the plate
    if factor == 1.0:
        return thin, ""
    words = "uphill" if setting.facts.attitude == "vertical-up" else "overhead"
    return thin * factor, tr(
        "; {words} on the settings of a thinner plate, {thin:.1f} mm", words=words, thin=thin * factor
    )


def starting_run(setting: Setting) -> Run:
    """The starting point of a pass by the relations.

    Raises:
        UnknownEntryError: No relation is known for the wire.
    """
    current, takes, text, estimate = _current(setting)
    return run_at(setting, current, takes, text, estimate)


def run_at(setting: Setting, current: float, takes: Range, text: str, estimate: Estimate) -> Run:
    """A run at this current: volts, feed and deposit that belong to it."""
    volts, gas_shift = arc_volts(setting.volts_case, current, setting.gas or {})
    voltage_text = tr("arc volts at {current:.0f} A", current=current)
    if abs(gas_shift) >= 0.3:
        voltage_text += tr(
            ", {gas_shift:.1f} V {value} for this gas",
            gas_shift=abs(gas_shift),
            value=tr("less") if gas_shift < 0 else tr("more"),
        )
    extension = extension_taken(setting)
    feed, citations = None, [estimate.citation, volts.citation]
    if setting.wire_kind:
        melted = wire_feed_m_min(setting.wire_kind, setting.diameter_mm, current, extension)
        feed = melted.value
        citations.append(melted.citation)
    return Run(
        group=setting.group,
        transfer=setting.transfer,
        diameter_mm=setting.diameter_mm,
        nominal_size=setting.nominal_size,
        current_a=current,
        takes=takes,
        voltage_v=volts.value,
        feed_m_min=feed,
        wire_kind=setting.wire_kind,
        extension_mm=extension,
        deposit_mm3_min=_deposit(setting, current, feed),
        current_text=text,
        voltage_text=voltage_text,
        error_percent=estimate.error_percent,
        citations=tuple(citations),
        unchecked=estimate.unchecked,
    )


def with_current(setting: Setting, run: Run, current: float, why: str) -> Run:
    """The run moved to another current, within what it takes."""
    held = min(max(current, run.takes.min), run.takes.max)
    if abs(held - run.current_a) < 0.5:
        return run
    estimate = Estimate(
        value=held,
        error_percent=run.error_percent,
        inside=True,
        citation=run.citations[0],
        unchecked=run.unchecked,
    )
    text = run.current_text if run.current_text.endswith(why) else f"{run.current_text}; {why}"
    return run_at(setting, held, run.takes, text, estimate)


def with_feed(setting: Setting, run: Run, feed_m_min: float) -> Run:
    """The run at another feed: the current that it draws."""
    amps = current_a(setting.wire_kind, setting.diameter_mm, feed_m_min, run.extension_mm)
    return replace(
        run,
        feed_m_min=feed_m_min,
        current_a=amps.value,
        deposit_mm3_min=_deposit(setting, amps.value, feed_m_min),
    )


def extension_taken(setting: Setting) -> float:
    """Wire beyond the tip [mm]: tip to work less the arc (common practice)."""
    if setting.group == "short":
        return 8.5
    if setting.facts.process == "121":
        return 30.0
    if setting.facts.process == "136":
        return 16.0
    if setting.facts.process == "114":
        return 16.0 if setting.diameter_mm < 1.45 else 25.0
    return 15.0


def _deposit(setting: Setting, current: float, feed_m_min: float | None) -> float:
    """Weld metal laid down [mm³/min]."""
    if feed_m_min is not None:
        stand_in = Pass(
            number=1,
            process=setting.facts.process,  # type: ignore[arg-type]
            filler=Filler(designation=setting.designation, diameter_mm=setting.diameter_mm),
            gas=Gas(components_percent=setting.gas) if setting.gas else None,  # type: ignore[arg-type]
        )
        return (laid_per_feed(stand_in) or 0.0) * feed_m_min * 1000
    metal = weld_metal(setting.designation, next(iter(setting.facts.families)))
    return hand_rate_mm3_min_a(setting.facts.process, setting.designation, metal) * current


# --- current ----------------------------------------------------------------------------------


def _current(setting: Setting) -> tuple[float, Range, str, Estimate]:
    if setting.facts.process == "111":
        return _stick_current(setting)
    if setting.group == "spray" or (setting.group == "copper" and setting.transfer == "spray"):
        sprayed = _spray_current(setting)
        if sprayed is not None:
            return sprayed
    return _law_current(setting)


def _stick_current(setting: Setting) -> tuple[float, Range, str, Estimate]:
    found = wire_range(setting.stick_kind, setting.diameter_mm)
    if found is None:
        raise UnknownEntryError(f"no current is known here for an electrode of {setting.diameter_mm:g} mm")
    takes, citation, unchecked = found
    share = _STICK_SHARE[setting.facts.attitude] - (0.15 if setting.role == "root" else 0.0)
    value = takes.min + max(share, 0.15) * (takes.max - takes.min)
    text = tr(
        "an electrode of {nominal_size} takes {min:g} to {max:g} A; {value} for {replace}",
        nominal_size=setting.nominal_size,
        min=takes.min,
        max=takes.max,
        value=tr("the lower part") if share < 0.5 else tr("the middle"),
        replace=in_words(setting.facts.attitude),
    ) + (tr(" and the root") if setting.role == "root" else "")
    estimate = Estimate(value=value, error_percent=12, inside=True, citation=citation, unchecked=unchecked)
    return value, takes, text, estimate


def _spray_current(setting: Setting) -> tuple[float, Range, str, Estimate] | None:
    facts, transition = setting.facts, setting.transition
    if transition is None:
        return None
    base, slope, most = SPRAY_FILLET if facts.fillet else SPRAY_BUTT
    root = BACKED_ROOT["spray"] if setting.role == "root" and not facts.fillet else 1.0
    size = (setting.diameter_mm / 1.2) ** 1.5
    least = transition.current_a * SPRAY_OVER_TRANSITION
    cooler = COOLER if facts.heat_shy else 1.0
    value = max(min(base + slope * facts.thin, most) * size * root * cooler, least)
    takes = Range(least, max(most * size, transition.current_a * 1.06))
    text = tr(
        "spray begins at {current_a:.0f} A with this wire and gas; {value:.2f} times that at {thin:g} mm",
        current_a=transition.current_a,
        value=value / transition.current_a,
        thin=facts.thin,
    ) + (
        tr(", less by {value:.0%} for quenched and tempered steel or duplex", value=1 - cooler)
        if cooler < 1
        else ""
    )
    estimate = Estimate(
        value=value,
        error_percent=15,
        inside=True,
        citation=transition.citation,
        unchecked=transition.unchecked,
    )
    return value, takes, text, estimate


def _law_case(setting: Setting) -> str:
    facts = setting.facts
    if facts.process == "141":
        if facts.kind == "copper" and not all(
            metal.chemistry.get("Cu", (0.0, 0.0))[0] >= 99 for metal in facts.metals
        ):
            return "tig-copper-alloy"
        return {"aluminium": "tig-aluminium", "copper": "tig-copper", "stainless": "tig-stainless"}.get(
            facts.kind, "tig-stainless" if facts.kind == "nickel" else "tig"
        )
    if setting.group == "spray":
        return "pulsed"
    return setting.group


def _drains_heat(setting: Setting) -> bool:
    """Whether the root takes as much current as the rest: copper and bronzes by TIG, not copper-nickel."""
    nickel = max((metal.chemistry.get("Ni", (0.0, 0.0))[0] for metal in setting.facts.metals), default=0.0)
    return _law_case(setting).startswith("tig-copper") and nickel < COPPER_NICKEL_PERCENT


def _law_current(setting: Setting) -> tuple[float, Range, str, Estimate]:
    facts, group = setting.facts, setting.group
    thickness, for_position = thickness_for(setting)
    law = current_for_thickness(_law_case(setting), thickness)
    value, text = (
        law.value,
        tr(
            "{value:.0f} A at {thickness:.3g} mm{for_position}",
            value=law.value,
            thickness=thickness,
            for_position=for_position,
        ),
    )
    more = fillet_factor(_law_case(setting)) if facts.fillet else 1.0
    if more != 1.0:
        value *= more
        text += tr("; T or lap: times {more:g}", more=more)
    if group in ("cored-gas", "cored-metal", "cored-self", "pulsed", "saw"):
        by_size = (setting.diameter_mm / 4) ** 1.2 if group == "saw" else (setting.diameter_mm / 1.2) ** 1.5
        if abs(by_size - 1) > 0.02:
            value *= by_size
            text += tr(
                "; {nominal_size} wire: times {by_size:.2f}",
                nominal_size=setting.nominal_size,
                by_size=by_size,
            )
    kind = {"spray": "pulsed"}.get(group, group)
    uphill = facts.attitude in ("vertical-up", "overhead") or (
        facts.attitude == "vertical-down" and group == "cored-self"
    )
    found = wire_range(kind, setting.diameter_mm, uphill=uphill)
    takes = found[0] if found else SUPPLY_AMPS
    sheet = group == "short" and facts.thin <= SHEET_TO_MM
    whole = facts.intent.joint.weld == "cjp-groove"
    if setting.role == "root" and whole and not sheet and not _drains_heat(setting):
        value = min(value, takes.max)
        share = (OPEN_ROOT if setting.open_root else BACKED_ROOT).get(group, 1.0)
        if share != 1.0:
            value *= share
            text += tr(
                "; {value}: times {share:g}",
                value=tr("open root") if setting.open_root else tr("root"),
                share=share,
            )
    if setting.transition is not None:
        takes = Range(min(setting.transition.current_a * 1.12, takes.max), takes.max)
    held = min(max(value, takes.min), takes.max)
    if abs(held - value) > 0.5:
        edge = "least" if held > value else "most"
        text += tr(
            "; {nominal_size} wire takes {held:g} A at the {edge}",
            nominal_size=setting.nominal_size,
            held=held,
            edge=edge,
        )
    return held, takes, text, law
