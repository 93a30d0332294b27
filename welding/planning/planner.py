"""Beads and runs of a proposal: sizes are tried until travel, heat input and limits hold."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from welding.arc.relations import bead_shape, travel_range
from welding.documents.intent import Trial
from welding.documents.procedure import Joint
from welding.errors import DocumentError, Problem, UnknownEntryError
from welding.heat.energy import thermal_efficiency
from welding.joints.channel import Channel
from welding.language import tr
from welding.planning.beads import PlannedBead, fit_scale, plan_side
from welding.planning.choosing import Consumables, choose_diameter, choose_transfer
from welding.planning.facts import Facts
from welding.planning.narrowing import Ranges
from welding.planning.passes import (
    MOST_OF_START,
    SLOW,
    SOUGHT_FAST,
    SOUGHT_SLOW,
    Limits,
    by_rod,
    fitted_run,
    middle_of,
    ranges_of,
)
from welding.planning.reasons import Reason
from welding.planning.starting import Run, Setting, starting_run, with_feed
from welding.planning.temperatures import ThermalPlan
from welding.planning.trials import matching_trials, near_rejected
from welding.ranges import Range

SCALES = (1.0, 0.93, 0.85, 0.77, 0.7, 1.2, 0.62, 0.55, 1.45, 0.42, 0.32, 0.24)
"""How much smaller or larger beads may become while limits are sought, nearest first."""
MOST_PASSES = 150
HOT_MM = 3.0
SOCKET_LAYERS, SOCKET_FROM_MM = 2, 5.0
"""A socket weld holds pressure: two layers whose starts and stops are staggered (common practice)."""
"""Second layer by hand under submerged arc, which would burn through a root alone (common practice)."""
MACHINE_FAMILY = {"111": "stick", "141": "tig"}
HEAT_ROOM = 1.16
"""A bead in the middle of its ranges keeps this far from an end of the wanted heat input."""


@dataclass(frozen=True, slots=True)
class Planned:
    """Beads with their runs, one each.

    Attributes:
        beads: Root first, side after side.
        runs: Setting, run, ranges and, if the run goes by one, the trial of each bead.
        badness: How far limits are missed, 0 when all hold; logarithms summed, no unit.
    """

    beads: list[PlannedBead]
    runs: list[tuple[Setting, Run, Ranges, Trial | None]]
    badness: float


def limits_of(facts: Facts, thermal: ThermalPlan) -> tuple[Limits, list[Reason]]:
    """What ranges have to keep: heat input, the machine, the manufacturer's sheet."""
    current: dict[str, Range] = {}
    voltage: dict[str, Range] = {}
    feed: dict[str, Range] = {}
    reasons: list[Reason] = []
    family = MACHINE_FAMILY.get(facts.process, "wire")
    machine = facts.machine
    envelope = None
    if machine is not None and machine.supply is not None:
        envelope = next((e for e in machine.supply.envelopes if e.family == family), None)
    if envelope is not None and machine is not None:
        who = tr("the machine {name}", name=machine.name)
        current[who] = envelope.current_a
        if envelope.voltage_v:
            voltage[who] = envelope.voltage_v
        if envelope.wire_feed_m_min:
            feed[who] = envelope.wire_feed_m_min
        reasons.append(
            Reason(
                path="passes.*.current_a",
                text=tr("held within what {name} delivers", name=machine.name),
                source="machine-chart",
            )
        )
    product = facts.product
    if product is not None:
        wished = facts.intent.filler
        rows = [
            row
            for row in product.ranges
            if wished and wished.diameter_mm and abs(row.diameter_mm - wished.diameter_mm) <= 0.03
        ]
        row = next((r for r in rows if facts.intent.position in r.positions), None) or next(
            (r for r in rows if not r.positions), None
        )
        if row is not None:
            who = tr("the sheet of {name}", name=product.name)
            for limits, value in (
                (current, row.current_a),
                (voltage, row.voltage_v),
                (feed, row.wire_feed_m_min),
            ):
                if value is not None:
                    limits[who] = value
            reasons.append(
                Reason(path="passes.*.current_a", text=tr("held within {who}", who=who), source="maker")
            )
    return (
        Limits(
            k=thermal_efficiency(facts.process).k,
            window_kj_mm=thermal.heat_input_kj_mm,
            current=current,
            voltage=voltage,
            feed=feed,
        ),
        reasons,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """What some passes are welded with: the root, or those after it."""

    facts: Facts
    consumables: Consumables
    limits: Limits


class Planner:
    """Tries bead sizes until travel, heat input and limits hold, the usual size first."""

    def __init__(self, root: Stage, fill: Stage, joint: Joint, channels: Sequence[Channel]) -> None:
        self.stages = {True: root, False: fill}
        self.facts, self.joint = fill.facts, joint
        self.two = root.facts is not fill.facts
        self.channels = channels
        self.open_root = (
            joint.weld == "cjp-groove"
            and joint.backing in ("none", "gas")
            and not joint.back_gouge
            and joint.kind != "edge"
        )
        self._settings: dict[bool, tuple[Setting, Run, Trial | None]] = {}

    def best(self) -> Planned:
        """The plan that keeps all limits with the most usual beads, or misses them by the least."""
        wanted = self.facts.intent.passes_wanted
        if wanted is None and self._socket and len(self._beads(1.0)) < SOCKET_LAYERS:
            wanted = SOCKET_LAYERS
        if wanted is not None:
            beads, _ = fit_scale(self._beads, wanted)
            return self._planned(beads)
        found: list[Planned] = []
        for scale in SCALES:
            beads = self._beads(scale)
            if len(beads) > MOST_PASSES:
                if scale == SCALES[0]:
                    raise DocumentError((self._too_many(len(beads)),))
                continue
            plan = self._planned(beads)
            found.append(plan)
            if plan.badness <= 1e-9:
                return plan
        return min(found, key=lambda plan: plan.badness)

    @property
    def _socket(self) -> bool:
        """Whether it is the fillet of a pipe in a socket or sleeve, of a size that takes layers."""
        joint = self.joint
        leg = joint.leg1_mm or joint.leg2_mm or 0.0
        return self.facts.pipe and joint.kind == "lap" and self.facts.fillet and leg >= SOCKET_FROM_MM

    def _too_many(self, count: int) -> Problem:
        return Problem(
            "process",
            tr(
                "process {process} would need about {count} passes here; choose one with a "
                "higher deposition rate",
                process=self.facts.process,
                count=count,
            ),
            self.facts.process,
        )

    def _beads(self, scale: float) -> list[PlannedBead]:
        facts = self.facts
        (first, root_run, _), (fills, fill_run, _) = self._start(root=True), self._start(root=False)
        shape = replace(
            bead_shape(fills.group, facts.attitude, fills.diameter_mm),
            root_mm=bead_shape(first.group, facts.attitude, first.diameter_mm).root_mm,
        )
        most = (
            self._most_mm2(first, root_run, self.stages[True].limits),
            self._most_mm2(fills, fill_run, self.stages[False].limits),
        )
        if self._two_square_runs:
            return self._each_side_once()
        hot = HOT_MM if self.two and facts.process == "121" else 0.0
        return [
            bead
            for index, channel in enumerate(self.channels)
            for bead in plan_side(
                channel, index + 1, shape, scale, facts.intent.overlap, most, hot if index == 0 else 0.0
            )
        ]

    @property
    def _two_square_runs(self) -> bool:
        preparation = self.joint.preparation
        square = preparation is not None and preparation.form == "square"
        return square and self.joint.sides == "both" and len(self.channels) == 1 and not self.two

    def _each_side_once(self) -> list[PlannedBead]:
        """A run from each side of square edges: what is laid down stands as reinforcement."""
        channel = self.channels[0]
        _, run, _ = self._start(root=False)
        usual = travel_range(run.group, self.facts.attitude)
        least = run.deposit_mm3_min / usual[0].middle if usual else 0.0
        area = max(channel.total_mm2 / 2, least)
        width = max(channel.width(channel.depth), 1.0)
        return [
            PlannedBead(
                side=1, role="root", layer=1, area_mm2=area, width_mm=width, height_mm=channel.depth / 2
            ),
            PlannedBead(
                side=2, role="back", layer=1, area_mm2=area, width_mm=width, height_mm=channel.depth / 2
            ),
        ]

    def _is_root(self, bead: PlannedBead) -> bool:
        """Whether a bead is welded as the root is; a gouged back side is welded like the filling."""
        return bead.role in ("root", "hot")

    def _most_mm2(self, setting: Setting, run: Run, limits: Limits) -> float | None:
        """Largest bead that keeps the wanted heat input, with room for ranges, and a usual travel.

        A wished number of passes and a least heat input come before a usual travel; a large root bead may
        take somewhat more current instead.
        """
        window = limits.window_kj_mm
        if by_rod(run):
            return None
        power = limits.k * run.current_a * run.voltage_v * 0.06
        usual = travel_range(setting.group, self.facts.attitude)
        slowest = 0.0
        if usual is not None and not self.facts.fillet and self.facts.intent.passes_wanted is None:
            slowest = usual[0].min * (SLOW / MOST_OF_START if setting.role == "root" else SOUGHT_SLOW)
        if window is not None:
            if window.min > 0:
                slowest = min(slowest, power / (window.min * HEAT_ROOM**2))
            slowest = max(slowest, power * HEAT_ROOM / window.max)
        return run.deposit_mm3_min / slowest if slowest else None

    def _start(self, *, root: bool) -> tuple[Setting, Run, Trial | None]:
        """Setting and starting run of the root or of the other passes."""
        if root not in self._settings:
            stage = self.stages[root]
            facts = stage.facts
            transfer = choose_transfer(facts, stage.consumables.gas, open_root=root and self.open_root)
            open_root = root and self.open_root
            diameter, name = choose_diameter(facts, transfer, root=root, open_root=open_root)
            setting = Setting(
                facts=facts,
                designation=stage.consumables.designation,
                gas=stage.consumables.gas,
                purge=stage.consumables.purge,
                transfer=transfer,
                diameter_mm=diameter,
                nominal_size=name,
                role="root" if root else "fill",
                open_root=root and self.open_root,
            )
            try:
                run = starting_run(setting)
            except UnknownEntryError as error:
                raise DocumentError((Problem("filler.diameter_mm", str(error), f"{diameter:g}"),)) from None
            trial = next(
                (t for t in matching_trials(setting, facts.intent.trials) if t.verdict == "kept"), None
            )
            self._settings[root] = (setting, _tried(setting, run, trial), trial)
        return self._settings[root]

    def _planned(self, beads: list[PlannedBead]) -> Planned:
        runs, badness = [], 0.0
        convex = self.facts.fillet and len(beads) == 1
        for root in (True, False):
            mine = [bead for bead in beads if self._is_root(bead) == root]
            if not mine:
                continue
            setting, run, trial = self._start(root=root)
            limits = self.stages[root].limits
            travel = travel_range(setting.group, self.facts.attitude)
            usual = travel[0] if travel else None
            mean = math.exp(sum(math.log(bead.area_mm2) for bead in mine) / len(mine))
            fitted = fitted_run(setting, run, mean, usual, fixed=trial is not None)
            known: dict[float, Ranges] = {}
            for bead in mine:
                if bead.area_mm2 not in known:
                    known[bead.area_mm2] = ranges_of(
                        setting, fitted, bead.area_mm2, limits, usual, convex=convex
                    )
                ranges = known[bead.area_mm2]
                badness += _badness(fitted, bead, ranges, usual, limits, convex) / len(beads)
                runs.append((bead, (setting, fitted, ranges, trial)))
        order = {id(bead): index for index, bead in enumerate(beads)}
        runs.sort(key=lambda pair: order[id(pair[0])])
        return Planned(beads, [run for _, run in runs], badness)

    def coldest(self, planned: Planned) -> tuple[float, float]:
        """Least heat input of the root and of the other passes, with k [kJ/mm]."""
        heats: dict[bool, list[float]] = {True: [], False: []}
        for bead, (_, _, ranges, _) in zip(planned.beads, planned.runs, strict=True):
            heats[self._is_root(bead)].append(ranges.heat_kj_mm.middle)
        every = heats[True] + heats[False]
        return min(heats[True] or every), min(heats[False] or every)

    def reasons(self, planned: Planned) -> list[Reason]:
        """Why the runs are what they are: root and others once each."""
        told: list[Reason] = []
        if self._socket and self.facts.intent.passes_wanted is None:
            text = tr(
                "a socket weld takes {socket_layers} layers at least, starts and stops staggered",
                socket_layers=SOCKET_LAYERS,
            )
            told.append(Reason(path="passes", text=text, source="practice"))
        seen: set[bool] = set()
        for index, (bead, (setting, run, ranges, trial)) in enumerate(
            zip(planned.beads, planned.runs, strict=True)
        ):
            root = self._is_root(bead)
            if root in seen:
                continue
            seen.add(root)
            told += _run_reasons(f"passes.{index}", setting, run, ranges, trial, bead, setting.facts)
            rejected = near_rejected(run, matching_trials(setting, setting.facts.intent.trials))
            if rejected is not None:
                told.append(
                    Reason(
                        path=f"passes.{index}.current_a",
                        text=tr("a trial about here was rejected")
                        + (f": {rejected.seen}" if rejected.seen else ""),
                        source="own-trial",
                    )
                )
        return told


def _badness(
    run: Run, bead: PlannedBead, ranges: Ranges, usual: Range | None, limits: Limits, convex: bool
) -> float:
    speed = middle_of(run, bead.area_mm2, usual, convex=convex).travel_mm_min
    off, slow = 0.0, SLOW if bead.role in ("root", "hot") and not convex else SOUGHT_SLOW
    if usual is not None:
        off += max(0.0, math.log(speed / (usual.max * SOUGHT_FAST)), math.log(usual.min * slow / speed))
    window = limits.window_kj_mm
    if window is not None:
        heat = limits.k * run.current_a * run.voltage_v * 0.06 / speed
        off += 3 * max(0.0, math.log(heat * HEAT_ROOM / window.max))
        if window.min > 0:
            off += 3 * max(0.0, math.log(window.min * HEAT_ROOM / heat))
    return off + 0.5 * len(ranges.collisions)


def _tried(setting: Setting, run: Run, trial: Trial | None) -> Run:
    """The run with the settings of an own trial, which outrank every estimate."""
    if trial is None:
        return run
    if trial.wire_feed_m_min and setting.wire_kind:
        run = with_feed(setting, run, trial.wire_feed_m_min)
    if trial.current_a:
        run = replace(run, current_a=trial.current_a)
    if trial.voltage_v:
        run = replace(run, voltage_v=trial.voltage_v)
    return run


def _run_reasons(
    path: str,
    setting: Setting,
    run: Run,
    ranges: Ranges,
    trial: Trial | None,
    bead: PlannedBead,
    facts: Facts,
) -> list[Reason]:
    if trial is not None:
        text = (
            tr("your own trial")
            + (tr(" of {made_on}", made_on=trial.made_on) if trial.made_on else "")
            + (f": {trial.seen}" if trial.seen else "")
        )
        told = [Reason(path=f"{path}.current_a", text=text, source="own-trial")]
    else:
        told = [
            Reason(
                path=f"{path}.current_a",
                text=tr(
                    "{current_text}; usually within {error_percent:g} %",
                    current_text=run.current_text,
                    error_percent=run.error_percent,
                ),
                source="estimate",
                citation=run.citations[0],
                unchecked=run.unchecked,
            ),
            Reason(
                path=f"{path}.voltage_v", text=run.voltage_text, source="estimate", citation=run.citations[1]
            ),
        ]
        if run.feed_m_min is not None:
            told.append(
                Reason(
                    path=f"{path}.wire_feed_m_min",
                    text=tr(
                        "what {current_a:.0f} A melts, {extension_mm:g} mm of wire past the tip",
                        current_a=run.current_a,
                        extension_mm=run.extension_mm,
                    ),
                    source="estimate",
                    citation=run.citations[2],
                )
            )
    speed = ranges.travel_mm_min.middle
    text = tr("a bead of {area_mm2:.1f} mm² ", area_mm2=bead.area_mm2)
    if by_rod(run):
        text += tr("at {speed:.0f} mm/min; the rod is fed as it needs", speed=speed)
    else:
        text += tr(
            "from {deposit_mm3_min:.0f} mm³ deposited a minute is {speed:.0f} mm/min",
            deposit_mm3_min=run.deposit_mm3_min,
            speed=speed,
        )
    if ranges.share < 0.999:
        text += tr("; ranges narrowed to {share:.0%} of the usual for the heat input", share=ranges.share)
    told.append(Reason(path=f"{path}.travel_mm_min", text=text, source="estimate"))
    if bead.width_mm > 0 and facts.attitude == "vertical-up" and setting.group != "tig":
        told.append(
            Reason(
                path=f"{path}.bead",
                text=tr("the layer is {width_mm:.0f} mm wide for each bead", width_mm=bead.width_mm),
            )
        )
    return told
