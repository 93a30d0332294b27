"""Exercises of setting up and of heat: balance, transfer, which is hotter, heat input, how many beads."""

from __future__ import annotations

import math
from random import Random

from welding.bead.predict import predict
from welding.bead.trace import Transfer, trace_of
from welding.citation import COMMON_PRACTICE, Citation
from welding.documents.bead_settings import BeadSettings
from welding.documents.machine import BalanceDial
from welding.documents.procedure import GasShares
from welding.heat.energy import arc_energy_kj_mm, thermal_efficiency
from welding.language import tr, tr_noop
from welding.machines.balance import en_share_of, reading_of
from welding.quantities.writing import System, quantity_text
from welding.trainer.exercise import Asked, Exercise, Fact, Option, Solution, Stage, shuffled

MODEL = Citation(
    document="bead model of this program",
    clause="docs/rules.md, the bead",
    provenance="practice",
    confidence="low",
)
ARGON_MIX: GasShares = {"Ar": 82.0, "CO2": 18.0}
CLEAR_OF = 1.12
"""So much hotter one of two must be that nobody argues."""
POSITIONS: dict[Stage, str] = {
    "flat": "PA",
    "horizontal": "PC",
    "vertical": "PF",
    "overhead": "PE",
    "pipe": "H-L045",
    "set-up": "PA",
}
MODES: dict[Transfer, str] = {
    "short-circuit": tr_noop("short-circuiting"),
    "globular": tr_noop("globular"),
    "spray": tr_noop("spray"),
    "pulsed": tr_noop("pulsed"),
}
MODE_REASONS: dict[Transfer, str] = {
    "short-circuit": tr_noop("The voltage falls below 10 V at even intervals while the current climbs."),
    "globular": tr_noop("The voltage sags and wanders unevenly, with a short circuit now and then."),
    "spray": tr_noop("Voltage and current hardly move: fine drops cross without touching."),
    "pulsed": tr_noop("Current steps evenly between background and peak."),
}


def balance(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """A dial of one convention, a share of cleaning that is wanted: what is set."""
    cleaning = lot.choice((20, 25, 30, 35, 40))
    dial, says = lot.choice(_dials())
    signed = dial.convention == "signed"
    right = reading_of(dial, 1 - cleaning / 100)
    wrong = {round(reading_of(dial, cleaning / 100), 1)}
    wrong |= {round(right + off, 1) for off in ((-4, 2) if signed else (-20, 10))}
    wrong.discard(round(right, 1))
    unit = "" if signed else " %"
    options, keys = shuffled(lot, [f"{right:g}{unit}"], [f"{value:g}{unit}" for value in sorted(wrong)])
    share = en_share_of(dial, right)
    return Exercise(
        kind="balance",
        stage=stage,
        seed=seed,
        question=tr(
            "Set the balance so that the electrode is positive for {share} % of the period.", share=cleaning
        ),
        given=(Fact(tr("Machine"), says), Fact(tr("Metal"), tr("aluminium, TIG on AC"))),
        options=options,
        solution=Solution(
            keys=keys,
            words=f"{right:g}{unit}",
            because=(
                tr("That is {share:.0f} % electrode negative.", share=100 * share),
                tr("More electrode positive cleans wider and heats the tungsten more."),
            ),
            sources=(COMMON_PRACTICE,),
        ),
    )


def _dials() -> tuple[tuple[BalanceDial, str], ...]:
    return (
        (
            BalanceDial(convention="en-percent"),
            tr("The dial shows the share with the electrode negative, in percent."),
        ),
        (
            BalanceDial(convention="ep-percent"),
            tr("The dial shows the share with the electrode positive (cleaning), in percent."),
        ),
        (
            BalanceDial(convention="signed", zero_en_share=0.5, step_en_share=0.05),
            tr("The dial is zero at 50 % electrode negative; each step up is 5 % more of it."),
        ),
    )


def arc(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """A trace and its sound: which transfer it is."""
    modes = list(MODES)
    mode = lot.choice(modes)
    return Exercise(
        kind="arc",
        stage=stage,
        seed=seed,
        question=tr("Which mode of metal transfer is this?"),
        given=(Fact(tr("Process"), tr("solid wire in gas, steel")),),
        options=tuple(Option(one, tr(words)) for one, words in MODES.items()),
        trace=trace_of(mode, lot),
        solution=Solution(
            keys=frozenset({mode}),
            words=tr(MODES[mode]),
            because=(tr(MODE_REASONS[mode]),),
            sources=(COMMON_PRACTICE,),
        ),
    )


def hotter(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """Two settings that pull apart: which brings more heat per length."""
    while True:
        pair = [_drawn(lot, stage) for _ in range(2)]
        heats = [_heat(one) for one in pair]
        amps = [one.current_a or 0.0 for one in pair]
        # The one with more amps must be the cooler one: that is the lesson.
        if max(heats) > CLEAR_OF * min(heats) and (amps[0] - amps[1]) * (heats[0] - heats[1]) < 0:
            break
    hot = 0 if heats[0] > heats[1] else 1
    names = ("A", "B")
    return Exercise(
        kind="hotter",
        stage=stage,
        seed=seed,
        question=tr("Which of the two brings more heat into each millimetre of the weld?"),
        given=tuple(Fact(name, _said(one, system)) for name, one in zip(names, pair, strict=True)),
        options=tuple(Option(name, name) for name in names),
        solution=Solution(
            keys=frozenset({names[hot]}),
            words=names[hot],
            because=(
                *(
                    tr("{name}: {energy} arc energy.", name=name, energy=_energy(heat, system))
                    for name, heat in zip(names, heats, strict=True)
                ),
                tr("Heat per length is volts times amps over travel: travel counts as much as amps."),
            ),
            sources=(thermal_efficiency("135").citation,),
        ),
    )


def _drawn(lot: Random, stage: Stage) -> BeadSettings:
    current = lot.choice((100, 110, 120, 130, 140, 150))
    return BeadSettings(
        process="141",
        metal="S355J2",
        thickness_mm=6,
        gas={"Ar": 100},
        current_a=float(current),
        voltage_v=lot.choice((10.0, 11.0, 12.0, 14.0)),
        travel_mm_min=float(lot.choice((60, 80, 100, 120, 150))),
        polarity="DCEN",
        position=POSITIONS[stage],  # type: ignore[arg-type]
    )


def _heat(one: BeadSettings) -> float:
    return arc_energy_kj_mm(
        voltage_v=one.voltage_v or 0, current_a=one.current_a or 0, travel_mm_min=one.travel_mm_min or 0
    )


def _energy(heat: float, system: System) -> str:
    return quantity_text(heat, "heat_input", system)


def _area(mm2: float, system: System) -> str:
    return quantity_text(mm2, "area", system)


def _said(one: BeadSettings, system: System) -> str:
    parts = [
        quantity_text(one.current_a or 0, "current", system),
        quantity_text(one.voltage_v or 0, "voltage", system),
        quantity_text(one.travel_mm_min or 0, "travel", system),
    ]
    return tr("TIG, position {position}: {settings}", position=one.position or "", settings=", ".join(parts))


def heat_input(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """Volts, amps, length and time: the heat input with the efficiency of the process."""
    process = lot.choice(("111", "135", "141"))
    efficiency = thermal_efficiency(process)
    volts, amps = {"111": (24, 130), "135": (19, 140), "141": (12, 120)}[process]
    volts, amps = volts + lot.choice((-1, 0, 1)), amps + lot.choice((-20, -10, 0, 10, 20))
    length, seconds = lot.choice((100, 150, 200, 250)), lot.choice((60, 75, 90, 120))
    energy = arc_energy_kj_mm(voltage_v=volts, current_a=amps, travel_mm_min=length / seconds * 60)
    heat = efficiency.k * energy
    return Exercise(
        kind="heat-input",
        stage=stage,
        seed=seed,
        question=tr("What is the heat input by EN 1011-1?"),
        given=(
            Fact(tr("Process"), f"{process}, k = {efficiency.k:g}"),
            Fact(tr("Position"), POSITIONS[stage]),
            Fact(tr("Voltage, current"), f"{volts} V, {amps} A"),
            Fact(tr("Length"), quantity_text(length, "length", system)),
            Fact(tr("Arc time"), f"{seconds} s"),
        ),
        asked=Asked(kind="heat_input"),
        solution=Solution(
            low=heat * 0.97,
            high=heat * 1.03,
            words=quantity_text(heat, "heat_input", system),
            because=(
                tr(
                    "Q = k · U · I · t / L: {k:g} · {volts} V · {amps} A · {seconds} s / {length:g} mm.",
                    k=efficiency.k,
                    volts=volts,
                    amps=amps,
                    seconds=seconds,
                    length=length,
                ),
            ),
            sources=(efficiency.citation,),
        ),
    )


def macro(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """A section to scale: what one dimension of it measures."""
    settings = BeadSettings(
        process="135",
        metal="S355J2",
        thickness_mm=float(lot.choice((8, 10, 12))),
        gas=ARGON_MIX,
        filler="ER70S-6",
        diameter_mm=1.2,
        wire_feed_m_min=lot.choice((8.0, 9.0, 10.0)),
        voltage_v=lot.choice((28.0, 29.5, 31.0)),
        travel_mm_min=float(lot.choice((350, 420, 500))),
        extension_mm=18,
        joint="plate",
        position=POSITIONS[stage],  # type: ignore[arg-type]
    )
    found = predict(settings)
    wanted, words = lot.choice(
        (
            ("penetration_mm", tr("How deep is the penetration below the surface of the plate?")),
            ("width_mm", tr("How wide is the bead at the surface of the plate?")),
            ("reinforcement_mm", tr("How high does the bead stand above the plate?")),
        )
    )
    figure = found.figure(wanted)
    value = figure.value if figure and figure.value is not None else 0.0
    slack = max(0.15 * value, 0.4)
    return Exercise(
        kind="macro",
        stage=stage,
        seed=seed,
        question=words,
        given=(
            Fact(tr("Scale"), tr("the lines of the grid are 1 mm apart")),
            Fact(tr("Plate"), quantity_text(settings.thickness_mm, "thickness", system)),
        ),
        asked=Asked(kind="length"),
        picture=found.picture,
        solution=Solution(
            low=value - slack,
            high=value + slack,
            words=quantity_text(value, "length", system),
            because=(
                tr("Measured from the surface of the plate, not from the crown."),
                tr("The heat-affected zone around the fusion line is no penetration."),
            ),
            sources=(MODEL,),
        ),
    )


def beads(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """A groove and a wire: how many passes fill it to the surface."""
    thick, angle, gap = lot.choice((10, 12, 15, 20)), lot.choice((45, 60)), lot.choice((2, 3))
    wire, feed = 1.2, lot.choice((6.0, 7.0, 8.0))
    travel = lot.choice((180, 220, 260))
    groove = gap * thick + thick**2 * math.tan(math.radians(angle / 2))
    bead = math.pi / 4 * wire**2 * feed * 1000 / travel * 0.95
    passes = math.ceil(groove / bead)
    return Exercise(
        kind="beads",
        stage=stage,
        seed=seed,
        question=tr("How many passes of this bead fill the groove up to the surface of the plate?"),
        given=(
            Fact(tr("Groove"), tr("single V without root face, {angle}° included", angle=angle)),
            Fact(tr("Plate"), quantity_text(thick, "thickness", system)),
            Fact(tr("Root gap"), quantity_text(gap, "gap", system)),
            Fact(tr("Position"), POSITIONS[stage]),
            Fact(tr("Wire"), quantity_text(wire, "diameter", system)),
            Fact(tr("Wire feed"), quantity_text(feed, "wire_feed", system)),
            Fact(tr("Travel"), quantity_text(travel, "travel", system)),
            Fact(tr("Yield"), tr("95 % of the wire becomes weld metal")),
        ),
        asked=Asked(kind="number"),
        solution=Solution(
            # A groove is never filled to the drop: one pass more or less is as right.
            low=passes - 1,
            high=passes + 1,
            words=tr("{count} passes", count=passes),
            because=(
                tr("Area of the groove: {area}.", area=_area(groove, system)),
                tr("Area of a bead, wire area times feed over travel: {area}.", area=_area(bead, system)),
            ),
            sources=(COMMON_PRACTICE,),
        ),
    )
