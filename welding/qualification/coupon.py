"""A coupon as welded: the facts from which editions compute ranges, resolved once."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal

from welding.checks.context import Draft
from welding.consumables.designations.decode import decode
from welding.consumables.designations.model import Decoded
from welding.documents.coupon import PassRecord
from welding.documents.fields import UnitColumn, mean_of
from welding.documents.procedure import BaseMetal, ImpactRequirement, Joint, Pass, Procedure, Pwht
from welding.documents.record import QualificationRecord
from welding.documents.setup import Electrodes
from welding.errors import UnknownEntryError
from welding.heat.as_welded import arc_energy_of, travel_of
from welding.heat.energy import arc_energy_range_kj_mm, thermal_efficiency
from welding.heat.passes import HeatMethod
from welding.joints.section import Sectioned
from welding.language import tr
from welding.metals.catalogue import Metal
from welding.qualification.deposits import Deposit, deposits_of
from welding.qualification.fillet import leg_mm_of, throat_mm_of
from welding.ranges import Range

RunKind = Literal["single", "multi"]
PassRole = Literal["root", "other"]


@dataclass(frozen=True, kw_only=True)
class Run:
    """One pass as welded; what was not recorded was as planned. Readings are ranges of means."""

    number: int
    side: int
    role: PassRole
    process: str
    mechanisation: str | None
    transfer: str | None
    designation: str | None
    make: str | None
    diameter_mm: float | None
    gas: tuple[tuple[str, float], ...] | None
    purge: tuple[tuple[str, float], ...] | None
    polarity: str | None
    pulsed: bool
    output: str | None
    progression: str | None
    bead: str | None
    flux: str | None
    electrodes: Electrodes
    deposit_mm: float | None
    before_c: float | None
    flow_l_min: Range | None
    current_a: Range | None
    voltage_v: Range | None
    wire_feed_m_min: Range | None
    travel_mm_min: Range | None
    run_out_mm: Range | None
    arc_energy_kj_mm: Range | None
    energy_method: HeatMethod

    @property
    def k(self) -> float | None:
        """Thermal efficiency of the process, ``None`` where the table has none."""
        try:
            return thermal_efficiency(self.process).k
        except UnknownEntryError:
            return None

    @cached_property
    def filler(self) -> Decoded | None:
        """What the filler's class says."""
        found = decode(self.designation) if self.designation else None
        return found if found and found.valid else None


@dataclass(frozen=True)
class TestCoupon:
    """A record's piece. Everything asked of it is either known or ``None``; nothing is guessed."""

    __test__ = False  # no test of ours, whatever its name says

    record: QualificationRecord

    @property
    def procedure(self) -> Procedure:
        """The procedure as the coupon was to be welded."""
        return self.record.procedure

    @cached_property
    def draft(self) -> Draft:
        """The procedure as checks see it, for metals and own records."""
        return Draft(procedure=self.procedure, heat=(), sectioned=Sectioned(), system=self.units)

    @property
    def units(self) -> UnitColumn:
        """Printed column that governs."""
        return self.procedure.code.units if self.procedure.code else "si"

    @property
    def joint(self) -> Joint | None:
        """The joint."""
        return self.procedure.joint

    @property
    def weld(self) -> str | None:
        """Kind of weld, as the piece says or as planned."""
        return self.record.coupon.weld or (self.joint.weld if self.joint else None)

    @property
    def kind(self) -> str:
        """Kind of joint."""
        return self.joint.kind if self.joint else "butt"

    @property
    def product(self) -> str:
        """plate or pipe."""
        return self.record.coupon.product

    @cached_property
    def metals(self) -> tuple[BaseMetal, ...]:
        """The metals of the piece, as recorded or as planned; one metal stands for both members."""
        found = self.record.coupon.base_metals or self.procedure.base_metals
        return found * 2 if len(found) == 1 else found

    def grade(self, one: BaseMetal) -> Metal | None:
        """The grade of a metal."""
        return self.draft.metal(one)

    @cached_property
    def thicknesses_mm(self) -> tuple[float, ...]:
        """Thickness of each member, as recorded or as planned; empty while one is unknown."""
        recorded = self.record.coupon.thickness_mm
        if recorded:
            return recorded * 2 if len(recorded) == 1 else recorded
        planned = [one.thickness_mm for one in self.metals]
        return tuple(t for t in planned if t) if planned and all(planned) else ()

    @property
    def thickness_mm(self) -> float | None:
        """Thickness at the joint: the thinner part of a butt, the prepared member of a T or a branch."""
        known = self.thicknesses_mm
        if not known:
            return None
        if self.kind in ("t", "corner", "branch") and self.weld != "fillet":
            return known[-1]
        return min(known)

    @property
    def outside_diameter_mm(self) -> float | None:
        """Outside diameter of a pipe; the smaller of two."""
        if self.record.coupon.outside_diameter_mm is not None:
            return self.record.coupon.outside_diameter_mm
        planned = [one.outside_diameter_mm for one in self.metals if one.outside_diameter_mm]
        return min(planned) if planned else None

    @property
    def position(self) -> str | None:
        """The position it was welded in."""
        if self.record.coupon.position:
            return self.record.coupon.position
        return self.procedure.positions[0] if self.procedure.positions else None

    @property
    def progression(self) -> str | None:
        """up or down, as recorded, or as every pass was planned."""
        if self.record.coupon.progression:
            return self.record.coupon.progression
        said = {one.progression for one in self.procedure.passes if one.progression}
        return said.pop() if len(said) == 1 else None

    @property
    def preheat_c(self) -> float | None:
        """Preheat as read: the lowest of the readings, else the one that was stated."""
        readings = [one.temperature_c for one in self.record.coupon.preheat_readings]
        stated = self.record.coupon.preheat_c
        if stated is None and self.from_certificate and self.procedure.thermal:
            stated = self.procedure.thermal.preheat_min_c
        known = [*readings, *([stated] if stated is not None else [])]
        return min(known) if known else None

    @property
    def before_c(self) -> Range | None:
        """Lowest and highest temperature of the piece before a pass."""
        read = [one.before_c for one in self.runs if one.before_c is not None]
        if not read and self.from_certificate and self.procedure.thermal:
            most = self.procedure.thermal.interpass_max_c
            return Range(most, most) if most is not None else None
        return Range(min(read), max(read)) if read else None

    @property
    def from_certificate(self) -> bool:
        """Whether the values stand on an old certificate."""
        return self.record.source == "certificate"

    @cached_property
    def runs(self) -> tuple[Run, ...]:
        """Passes as welded in order; as printed where an old certificate has no log."""
        planned = {one.number: one for one in self.procedure.passes}
        logged = sorted(self.record.coupon.passes, key=lambda one: one.number)
        if not logged and self.from_certificate:
            return tuple(_as_printed(one, self.progression) for one in self.procedure.passes)
        return tuple(
            run
            for one in logged
            if (run := _as_welded(one, planned.get(one.number), self.progression)) is not None
        )

    @property
    def processes(self) -> tuple[str, ...]:
        """Processes in the order of their first pass."""
        return tuple(dict.fromkeys(run.process for run in self.runs))

    def of_process(self, process: str) -> tuple[Run, ...]:
        """The runs of one process."""
        return tuple(run for run in self.runs if run.process == process)

    @cached_property
    def run_kind(self) -> RunKind:
        """single where no side has more than one run, else multi."""
        return runs_a_side(run.side for run in self.runs)

    @property
    def weld_depth_mm(self) -> float | None:
        """Thickness that is welded in all: of the base metal, of a partial groove its depth."""
        partial = self.joint is not None and self.joint.weld == "pjp-groove"
        return self.groove_depth_mm if partial else self.thickness_mm

    def deposit(self, process: str) -> Deposit:
        """Thickness that a process laid down; all of it where it is alone, unless its passes state less."""
        stated = [run.deposit_mm for run in self.of_process(process)]
        if len(self.processes) > 1:
            return self._deposits[process]
        if stated and all(stated):
            return Deposit(mm=sum(mm or 0.0 for mm in stated), reason=tr("As stated pass by pass."))
        alone = None if self.weld == "fillet" else self.weld_depth_mm
        return Deposit(mm=alone, reason=tr("One process welded all."))

    @cached_property
    def _deposits(self) -> Mapping[str, Deposit]:
        planned = {one.number: one for one in self.procedure.passes}
        laid = []
        for run in self.runs:
            plan = planned.get(run.number)
            if plan is None or plan.process != run.process:
                plan = Pass(number=run.number, side=run.side, process=run.process)  # type: ignore[arg-type]
            welded = replace(
                plan,
                current_a=run.current_a,
                wire_feed_m_min=run.wire_feed_m_min,
                travel_mm_min=run.travel_mm_min,
                run_out_mm=run.run_out_mm,
            )
            laid.append((welded, run.deposit_mm if run.deposit_mm is not None else plan.deposit_mm))
        metals = self.metals
        if self.record.coupon.thickness_mm:
            both = self.record.coupon.thickness_mm
            metals = tuple(replace(metal, thickness_mm=t) for metal, t in zip(metals, both * 2, strict=False))
        return deposits_of(replace(self.procedure, base_metals=metals), laid, self.weld_depth_mm)

    @property
    def groove_depth_mm(self) -> float | None:
        """Depth of the groove, the deeper of two sides; the plate less the root face if none is stated."""
        preparation = self.joint.preparation if self.joint else None
        depths = [s.depth_mm for s in preparation.sides if s.depth_mm] if preparation else []
        if depths:
            return max(depths)
        if preparation is None or self.thickness_mm is None or preparation.form.startswith("double"):
            return None
        return self.thickness_mm - (preparation.root_face_mm or 0.0)

    @property
    def throat_mm(self) -> float | None:
        """Throat of a fillet: as stated, as measured in the sections, or from its legs at a right angle."""
        return throat_mm_of(self.joint)

    @property
    def leg_mm(self) -> float | None:
        """Leg of a fillet, the smaller of two."""
        return leg_mm_of(self.joint)

    def heat_kj_mm(self, runs: Iterable[Run], *, with_k: bool) -> Range | None:
        """Lowest and highest heat input of some runs; ``None`` where not one is known."""
        found: list[float] = []
        for run in runs:
            if run.arc_energy_kj_mm is None:
                continue
            k = run.k if with_k else 1.0
            if k is not None:
                found += [k * run.arc_energy_kj_mm.min, k * run.arc_energy_kj_mm.max]
        return Range(min(found), max(found)) if found else None

    @property
    def pwht(self) -> bool:
        """Whether the piece was heat-treated after welding."""
        done = any(one.kind == "pwht" for one in self.record.coupon.treatments_done)
        return done or self._stated_pwht is not None

    @property
    def pwht_hold_c(self) -> Range | None:
        """Holding temperature of the treatment as done."""
        for one in self.record.coupon.treatments_done:
            if one.kind == "pwht" and one.hold_c:
                return one.hold_c
        return self._stated_pwht.hold_c if self._stated_pwht else None

    @property
    def pwht_hold_min(self) -> float | None:
        """Holding time of the treatment as done [min]."""
        for one in self.record.coupon.treatments_done:
            if one.kind == "pwht" and one.hold_min:
                return one.hold_min
        return self._stated_pwht.hold_min if self._stated_pwht else None

    @property
    def _stated_pwht(self) -> Pwht | None:
        """The treatment as stated of the coupon; the procedure's on an existing record that is printed."""
        stated = self.record.coupon.pwht
        if stated is None and self.from_certificate and self.procedure.thermal:
            stated = self.procedure.thermal.pwht
        return stated

    @property
    def post_heat(self) -> tuple[float, float] | None:
        """Temperature [°C] and time [min] of the hydrogen post-heat."""
        for one in self.record.coupon.treatments_done:
            if one.kind == "hydrogen-post-heat" and one.hold_c and one.hold_min is not None:
                return one.hold_c.min, one.hold_min
        stated = self.record.coupon.post_heat
        if stated is None and self.from_certificate and self.procedure.thermal:
            stated = self.procedure.thermal.post_heat
        return (stated.temperature_c, stated.hold_min) if stated else None

    @property
    def impact_asked(self) -> ImpactRequirement | bool | None:
        """The requirement of impact toughness as the procedure states it."""
        return self.procedure.requirements.impact if self.procedure.requirements else None

    @property
    def hardness_asked(self) -> bool | None:
        """The requirement of hardness as the procedure states it."""
        return self.procedure.requirements.hardness if self.procedure.requirements else None

    @property
    def impact_tested(self) -> bool:
        """Whether impact specimens were broken."""
        return any(one.kind == "impact" and one.discarded is None for one in self.record.tests)

    @property
    def hardness_tested(self) -> bool:
        """Whether a hardness traverse was made."""
        return any(one.kind == "hardness-hv10" and one.discarded is None for one in self.record.tests)


def runs_a_side(sides: Iterable[int]) -> RunKind:
    """single where no side stands twice.

    Example:
        >>> runs_a_side([1, 2]), runs_a_side([1, 1, 2])
        ('single', 'multi')
    """
    found = list(sides)
    return "single" if len(found) == len(set(found)) else "multi"


def flux_text(one: Pass) -> str | None:
    """Flux of a pass with its make, as it is compared; ``None`` where either is not stated."""
    flux = one.flux
    if flux is None or not flux.designation or not flux.make:
        return None
    return f"{flux.designation.strip()}, {flux.make.strip()}"


def spread_of(runs: Iterable[Run], field: Callable[[Run], Range | None]) -> Range | None:
    """Lowest and highest of what some runs recorded; ``None`` where one of them did not."""
    found = [field(run) for run in runs]
    known = [one for one in found if one is not None]
    if not known or len(known) < len(found):
        return None
    return Range(min(one.min for one in known), max(one.max for one in known))


def _as_printed(one: Pass, progression: str | None) -> Run:
    energy = None
    if one.voltage_v and one.current_a and one.travel_mm_min:
        energy = arc_energy_range_kj_mm(
            voltage_v=one.voltage_v, current_a=one.current_a, travel_mm_min=one.travel_mm_min
        )
    return Run(
        **_planned(one, progression),
        deposit_mm=None,
        before_c=None,
        flow_l_min=one.gas.flow_l_min if one.gas else None,
        current_a=one.current_a,
        voltage_v=one.voltage_v,
        wire_feed_m_min=one.wire_feed_m_min,
        travel_mm_min=one.travel_mm_min,
        run_out_mm=one.run_out_mm,
        arc_energy_kj_mm=energy,
        energy_method="mean",
    )


def _as_welded(record: PassRecord, planned: Pass | None, progression: str | None) -> Run | None:
    process = record.process or (planned.process if planned else None)
    if process is None:
        return None
    facts = _planned(planned, progression) if planned else _nothing(record, progression)
    if planned and record.process and record.process != planned.process:
        facts["transfer"] = facts["output"] = None
    filler, gas = record.filler, record.gas
    if filler is not None:
        facts["designation"] = filler.designation or facts["designation"]
        facts["diameter_mm"] = filler.diameter_mm or facts["diameter_mm"]
        facts["make"] = filler.make or facts["make"]
    if gas is not None:
        facts["gas"] = _shares(gas.components_percent)
    planned_flow = planned.gas.flow_l_min if planned and planned.gas else None
    energy, method = arc_energy_of(record, planned)
    travel = travel_of(record)
    facts.update(
        number=record.number,
        side=record.side,
        process=process,
        transfer=record.transfer or facts["transfer"],
        polarity=record.polarity or facts["polarity"],
        bead=record.bead or facts["bead"],
    )
    return Run(
        **facts,
        deposit_mm=record.deposit_mm,
        before_c=record.before_c,
        # A flow that nobody read was as planned; currents, volts and speeds have to be read.
        flow_l_min=_read(gas.flow_l_min) if gas and gas.flow_l_min is not None else planned_flow,
        current_a=_read(record.current_a),
        voltage_v=_read(record.voltage_v),
        wire_feed_m_min=_read(record.wire_feed_m_min),
        travel_mm_min=Range(travel, travel) if travel else None,
        run_out_mm=_read(record.run_out_mm),
        arc_energy_kj_mm=Range(energy, energy) if energy is not None else None,
        energy_method=method,
    )


def _read(reading: object) -> Range | None:
    if reading is None:
        return None
    mean = mean_of(reading)  # type: ignore[arg-type]
    return Range(mean, mean)


def _shares(components: object) -> tuple[tuple[str, float], ...]:
    shares: dict[str, float] = dict(components)  # type: ignore[call-overload]
    return tuple(sorted((name, share) for name, share in shares.items() if share > 0))


def _planned(one: Pass, progression: str | None) -> dict[str, Any]:
    return {
        "number": one.number,
        "side": one.side,
        "role": "root" if one.role == "root" else "other",
        "process": one.process,
        "mechanisation": one.mechanisation,
        "transfer": one.transfer,
        "designation": one.filler.designation if one.filler else None,
        "make": one.filler.make if one.filler else None,
        "diameter_mm": one.filler.diameter_mm if one.filler else None,
        "gas": _shares(one.gas.components_percent) if one.gas else None,
        "purge": _shares(one.purge.components_percent) if one.purge else None,
        "polarity": one.polarity,
        "pulsed": one.pulse is not None or one.transfer == "pulsed",
        "output": one.output,
        "progression": one.progression or progression,
        "bead": one.bead,
        "flux": flux_text(one),
        "electrodes": one.electrodes or Electrodes(),
    }


def _nothing(record: PassRecord, progression: str | None) -> dict[str, Any]:
    empty: dict[str, Any] = dict.fromkeys(
        ("mechanisation", "transfer", "designation", "make", "diameter_mm", "gas", "purge", "polarity",
         "output", "bead", "flux")
    )  # fmt: skip
    return {
        **empty,
        "number": record.number,
        "side": record.side,
        "role": "other",
        "pulsed": record.transfer == "pulsed",
        "electrodes": Electrodes(),
        "progression": progression,
    }
