"""From planned beads to passes with ranges, sources and set-up."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.deposit.laid import electrode_length_mm, laid_per_feed
from welding.documents.fields import ValueSource
from welding.documents.intent import Trial
from welding.documents.procedure import Filler, Gas, Pass, Purge
from welding.documents.setup import Feeder, Flux
from welding.glossary.values import in_words
from welding.heat.by_metal import metal_key
from welding.language import tr
from welding.planning.beads import PlannedBead
from welding.planning.facts import Facts
from welding.planning.hand_set_up import tig_set_up
from welding.planning.narrowing import (
    HALF_WIDTHS,
    PREQUALIFIED_SHARE,
    WIRE,
    HalfWidths,
    Middle,
    Ranges,
    narrowed,
)
from welding.planning.starting import Run, Setting, with_current
from welding.ranges import Range
from welding.setup.flow import PURGE_L_MIN, flow_advice

INCH_MIN = 25.4
QUENCHED_WEAVE_MM = 15.0
CONVEX = 1.12
"""A small fillet that is laid at a usual travel comes out somewhat convex (common practice)."""
LEAST_OF_START, MOST_OF_START = 0.95, 1.15
FAST, SLOW = 1.2, 0.9
"""Travel this far beyond what is usual is still welded, with small or large beads (common practice)."""
SOUGHT_FAST, SOUGHT_SLOW = 1.0, 1.0
"""Travel that a plan is looked for within, while the joint leaves a choice of beads."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Limits:
    """What ranges have to keep, by who sets them."""

    k: float
    window_kj_mm: Range | None
    current: Mapping[str, Range]
    voltage: Mapping[str, Range]
    feed: Mapping[str, Range]


def fitted_run(setting: Setting, run: Run, area_mm2: float, travel: Range | None, *, fixed: bool) -> Run:
    """The run with its current moved somewhat, so that a bead of this area is laid at a usual travel.

    The current goes by what has to be fused: it is moved only where travel would be far off, and then
    by a twentieth down or a sixth up at the most. What is left is travel, or the number of beads.

    Args:
        setting: Which relations it goes by.
        run: Starting point.
        area_mm2: Bead to lay down.
        travel: Usual travel [mm/min].
        fixed: Whether the current stands (an own trial).
    """
    if travel is None or fixed or by_rod(run):
        return run
    fastest, slowest, start = travel.max * FAST, travel.min * SLOW, run.current_a
    for _ in range(4):
        speed = run.deposit_mm3_min / area_mm2
        if speed > fastest:
            wanted = max(run.current_a * (fastest / speed) ** 0.8, start * LEAST_OF_START)
            run = with_current(setting, run, wanted, tr("somewhat less for a small bead"))
        elif speed < slowest:
            wanted = min(run.current_a * (slowest / speed) ** 0.8, start * MOST_OF_START)
            run = with_current(setting, run, wanted, tr("somewhat more for a large bead"))
        else:
            break
    return run


def by_rod(run: Run) -> bool:
    """Whether the filler is fed by hand, as much as the bead takes."""
    return run.group in ("tig", "tig-aluminium")


def middle_of(run: Run, area_mm2: float, travel: Range | None = None, *, convex: bool = False) -> Middle:
    """Middles of a run that lays down a bead of this area.

    Hand-fed rod is fed as the bead needs it: travel stays within what is usual, where it is given. A fillet
    may come out ``convex`` where travel would be too fast.
    """
    speed = run.deposit_mm3_min / area_mm2
    if by_rod(run) and travel is not None:
        speed = min(speed, travel.max * 0.8)
    elif travel is not None and convex and speed > travel.max:
        speed = max(travel.max, speed / CONVEX)
    return Middle(
        current_a=run.current_a, voltage_v=run.voltage_v, travel_mm_min=speed, feed_m_min=run.feed_m_min
    )


def ranges_of(
    setting: Setting,
    run: Run,
    area_mm2: float,
    limits: Limits,
    travel: Range | None,
    *,
    convex: bool = False,
) -> Ranges:
    """Ranges of a run about a bead of this area, with the limits that collide."""
    current = dict(limits.current)
    if setting.transition is not None:
        current["spray transfer"] = Range(setting.transition.current_a, 2000.0)
    middle = middle_of(run, area_mm2, travel, convex=convex)
    ranges = narrowed(
        middle,
        _widths(setting, run),
        k=limits.k,
        window_kj_mm=limits.window_kj_mm,
        current=current,
        voltage=dict(limits.voltage),
        feed=dict(limits.feed),
    )
    told = _travel_collision(setting, middle.travel_mm_min, area_mm2, travel)
    return replace(ranges, collisions=(*ranges.collisions, *told))


def _widths(setting: Setting, run: Run) -> HalfWidths:
    """Usual half widths; a prequalified procedure may spread less (AWS D1.1:2020, table 5.1)."""
    usual = HALF_WIDTHS.get(run.group, WIRE)
    if not setting.facts.prequalified or run.feed_m_min is None:
        return usual
    return replace(
        usual,
        current=min(usual.current, PREQUALIFIED_SHARE),
        feed=min(usual.feed, PREQUALIFIED_SHARE),
    )


def _travel_collision(
    setting: Setting, speed: float, area_mm2: float, travel: Range | None
) -> tuple[str, ...]:
    """A bead that would have to be laid faster or slower than anybody welds there."""
    where = in_words(setting.facts.attitude)
    if travel is not None and speed > travel.max * FAST:
        return (
            tr(
                "a bead of {area_mm2:.1f} mm² would run at {speed:.0f} mm/min; {where}, this "
                "process goes up to {max:g}, {speed2:.0f} less",
                area_mm2=area_mm2,
                speed=speed,
                where=where,
                max=travel.max,
                speed2=speed - travel.max,
            ),
        )
    if travel is not None and speed < travel.min * SLOW:
        return (
            tr(
                "a bead of {area_mm2:.1f} mm² would run at {speed:.0f} mm/min; {where}, this "
                "process goes down to {min:g}, {min2:.0f} more",
                area_mm2=area_mm2,
                speed=speed,
                where=where,
                min=travel.min,
                min2=travel.min - speed,
            ),
        )
    return ()


def build_pass(
    number: int,
    bead: PlannedBead,
    setting: Setting,
    run: Run,
    ranges: Ranges,
    trial: Trial | None,
) -> Pass:
    """One pass of the procedure.

    Args:
        number: In welding order.
        bead: What it lays down.
        setting: Which relations it goes by.
        run: Its middles.
        ranges: Its ranges.
        trial: The own trial that its settings come from, where there is one.
    """
    facts = setting.facts
    current = _tidy(ranges.current_a, 1.0)
    travel = _tidy(ranges.travel_mm_min, 1.0 if facts.units == "si" else 0.1 * INCH_MIN)
    feed = ranges.feed_m_min and _tidy(ranges.feed_m_min, 0.05 if facts.units == "si" else INCH_MIN / 1000)
    made = Pass(
        number=number,
        side=bead.side,
        role=bead.role,
        layer=bead.layer,
        process=facts.process,  # type: ignore[arg-type]
        mechanisation={"111": "manual", "141": "manual", "121": "fully"}.get(facts.process, "partly"),  # type: ignore[arg-type]
        transfer=setting.transfer,
        filler=Filler(
            designation=setting.designation,
            diameter_mm=setting.diameter_mm,
            nominal=setting.nominal_size,
            make=facts.product.name if facts.product else None,
        ),
        flux=_flux(facts),
        gas=_gas(facts, setting, None),
        purge=_purge(setting, bead),
        polarity=polarity_of(facts, setting.designation),  # type: ignore[arg-type]
        output="CC" if facts.process in ("111", "141") else "CV",
        current_a=current,
        voltage_v=_tidy(ranges.voltage_v, 0.1),
        wire_feed_m_min=feed,
        travel_mm_min=travel,
        progression=facts.progression,
        bead=_technique(facts, bead, run),
        weave_max_mm=_weave(facts, bead, run),
        extension_mm=_extension(setting),
        feeder=_feeder(facts, setting),
        machine=facts.machine.name if facts.machine else None,
    )
    made = replace(made, **_by_hand(made, facts, current, bead))
    return replace(made, gas=_gas(facts, setting, made), sources=_sources(made, trial))


def _by_hand(made: Pass, facts: Facts, current: Range, bead: PlannedBead) -> dict[str, Any]:
    if facts.process == "141":
        return tig_set_up(facts, current, ac=made.polarity == "AC", root=bead.role == "root")
    if facts.process != "111" or made.filler is None or made.filler.diameter_mm is None:
        return {}
    laid = laid_per_feed(made)
    if laid is None:
        return {}
    volume = laid * electrode_length_mm(made.filler.diameter_mm)
    length = volume / bead.area_mm2
    return {"run_out_mm": _tidy(Range(length * 0.88, length * 1.12), 1.0)}


def _tidy(value: Range, step: float) -> Range:
    """Ends rounded inwards to a step, so that no corner is passed by rounding."""
    low, high = math.ceil(value.min / step - 1e-9) * step, math.floor(value.max / step + 1e-9) * step
    if low > high:
        return Range(round(value.middle, 3), round(value.middle, 3))
    return Range(round(low, 4), round(high, 4))


def polarity_of(facts: Facts, designation: str) -> str:
    """Polarity that process, metal and filler go with."""
    if facts.process == "141":
        # Aluminium in a bronze makes the same skin of oxide.
        bronze = all(metal.chemistry.get("Al", (0.0, 0.0))[1] > 4 for metal in facts.metals)
        skin = facts.kind == "aluminium" or bronze
        return "AC" if skin else "DCEN"
    allowed = decode(designation).polarities
    if "AC" in allowed and facts.families == {"ni-steel"} and facts.process == "111":
        return "AC"  # 9 % nickel steel is easily magnetic: direct current is blown aside
    if facts.process in ("111", "114"):
        if not allowed:
            return "DCEP" if facts.process == "111" else "DCEN"
        return "DCEP" if "DCEP" in allowed else allowed[0]
    return "DCEP"


def _gas(facts: Facts, setting: Setting, made: Pass | None) -> Gas | None:
    if setting.gas is None:
        return None
    advice = flow_advice(
        facts.process,
        setting.gas,
        transfer=setting.transfer,
        cup_number=made.cup.number if made and made.cup else None,
        lens=bool(made and made.cup and made.cup.lens),
        ac=polarity_of(facts, setting.designation) == "AC",
    )
    usual = advice.usual if advice else None
    return Gas(components_percent=setting.gas, flow_l_min=usual)  # type: ignore[arg-type]


def _purge(setting: Setting, bead: PlannedBead) -> Purge | None:
    if setting.purge is None or bead.side != 1 or bead.layer > 2:
        return None
    return Purge(components_percent=setting.purge, flow_l_min=PURGE_L_MIN, oxygen_ppm=100.0)  # type: ignore[arg-type]


def _technique(facts: Facts, bead: PlannedBead, run: Run) -> Any:
    woven = facts.attitude == "vertical-up" and bead.width_mm > 2.5 * run.diameter_mm
    return "weave" if woven else "stringer"


def _weave(facts: Facts, bead: PlannedBead, run: Run) -> float | None:
    if _technique(facts, bead, run) != "weave":
        return None
    width = float(math.ceil(bead.width_mm * 1.15))
    quenched = any(
        metal_key(m, t) == "quenched" for m, t in zip(facts.metals, facts.thicknesses, strict=True)
    )
    return min(width, QUENCHED_WEAVE_MM) if quenched else width


def _extension(setting: Setting) -> Range | None:
    facts = setting.facts
    if facts.process in ("111", "141"):
        return None
    if facts.process == "121":
        return Range(25.0, 35.0)
    if facts.process in ("136", "114"):
        return Range(15.0, 20.0) if setting.diameter_mm < 1.5 else Range(20.0, 28.0)
    rows = load_table("welding.setup", "extension").rows
    row = next(
        (r for r in rows if facts.process in r["processes"] and r["transfer"] in ("", setting.transfer)),
        rows[1],
    )
    return Range(float(row["min_mm"]), float(row["max_mm"]))


def _flux(facts: Facts) -> Flux | None:
    """A basic flux of low hydrogen; the AWS class of a wire names the flux with it."""
    return Flux(designation="S A AB 1 67 DC H5") if facts.process == "121" else None


def _feeder(facts: Facts, setting: Setting) -> Feeder | None:
    if facts.process in ("111", "141", "121"):
        return None
    rolls = "knurled" if facts.process in ("114", "136", "138") else "u" if facts.kind == "aluminium" else "v"
    return Feeder(rolls=rolls, contact_tip_mm=setting.diameter_mm)  # type: ignore[arg-type]


def _sources(made: Pass, trial: Trial | None) -> dict[str, ValueSource]:
    sources: dict[str, ValueSource] = {
        path: "estimate"
        for path in ("current_a", "voltage_v", "wire_feed_m_min", "travel_mm_min", "run_out_mm")
        if getattr(made, path) is not None
    }
    if made.gas and made.gas.flow_l_min:
        sources["gas.flow_l_min"] = "practice"
    for path in ("extension_mm", "tungsten", "cup", "gas_times", "slopes", "ac", "pulse", "pedal_max_a"):
        if getattr(made, path) is not None:
            sources[path] = "practice"
    if trial is not None:
        for path in ("current_a", "voltage_v", "wire_feed_m_min"):
            if getattr(trial, path) is not None and path in sources:
                sources[path] = "own-trial"
    return sources
