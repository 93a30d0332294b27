"""evaluate_pass(...): what one pass as welded gave, and where it left its range."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from welding.citation import COMMON_PRACTICE
from welding.deviations.of_pass import pass_deviations, record_contradictions
from welding.deviations.saying import against_plan
from welding.documents.coupon import CouponPiece, PassRecord
from welding.documents.fields import Reading, ends_of
from welding.documents.procedure import Pass, Procedure
from welding.errors import UnknownEntryError
from welding.evaluate.fit_up import batch_finding
from welding.evaluate.procedure import heat_rule
from welding.finding import Finding
from welding.heat.as_welded import arc_energy_of, travel_of
from welding.heat.energy import (
    thermal_efficiency,
)
from welding.heat.passes import HeatMethod, HeatRule, pass_heat
from welding.language import tr
from welding.quantities.writing import System, quantity_text, range_text
from welding.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class PassResult:
    """What one pass as welded gave. ``None`` where a measurement is missing.

    ``heat_input_kj_mm`` is what the code in force calls heat input, with its ``k`` (1 under a code
    that uses none). ``planned_heat_kj_mm`` is the range of the pass as planned. ``heat_with_k_kj_mm``
    always has the process's own k: cooling goes by it.
    """

    pass_number: int
    travel_mm_min: float | None
    arc_energy_kj_mm: float | None
    heat_input_kj_mm: float | None
    heat_input_kj_in: float | None
    planned_heat_kj_mm: Range | None
    method: HeatMethod
    k: float | None
    heat_with_k_kj_mm: float | None
    findings: tuple[Finding, ...]

    @property
    def out_of_range(self) -> bool:
        """Whether any measured value left its range."""
        return any(finding.verdict == "violates" for finding in self.findings)


def evaluate_pass(
    procedure: Procedure, record: PassRecord, system: System = "si", piece: CouponPiece | None = None
) -> PassResult:
    """Judge one pass as welded against the pass of the same number in the procedure.

    Args:
        procedure: As the coupon was to be welded.
        record: The pass.
        system: Unit system of the sentences.
        piece: What is at the booth, for the filler batch; without it the batch is not looked at.
    """
    planned = next((one for one in procedure.passes if one.number == record.number), None)
    rule = heat_rule(procedure)
    travel = travel_of(record)
    energy, method = arc_energy_of(record, planned)
    k = _efficiency(record, planned, rule)
    heat = k * energy if k is not None and energy is not None else None
    planned_heat = pass_heat(planned, rule) if planned else None
    judge = _Judge(procedure, record, planned, system)
    batch = batch_finding(piece, record) if piece else None
    thermal = _with_efficiency(record, planned, energy)
    return PassResult(
        pass_number=record.number,
        travel_mm_min=travel,
        arc_energy_kj_mm=energy,
        heat_input_kj_mm=heat,
        heat_input_kj_in=None if heat is None else heat * 25.4,
        planned_heat_kj_mm=(Range(planned_heat.min_kj_mm, planned_heat.max_kj_mm) if planned_heat else None),
        method=method,
        k=k,
        heat_with_k_kj_mm=thermal,
        findings=(*judge.findings(travel, heat), *((batch,) if batch else ())),
    )


def _efficiency(record: PassRecord, planned: Pass | None, rule: HeatRule) -> float | None:
    return _k_of(record, planned) if rule.uses_k else 1.0


def _with_efficiency(record: PassRecord, planned: Pass | None, energy: float | None) -> float | None:
    k = _k_of(record, planned)
    return k * energy if k is not None and energy is not None else None


def _k_of(record: PassRecord, planned: Pass | None) -> float | None:
    process = record.process or (planned.process if planned else None)
    if process is None:
        return None
    try:
        return thermal_efficiency(process).k
    except UnknownEntryError:
        return None


@dataclass(frozen=True, slots=True)
class _Judge:
    procedure: Procedure
    record: PassRecord
    planned: Pass | None
    system: System

    def findings(self, travel: float | None, heat: float | None) -> Iterator[Finding]:
        planned, record = self.planned, self.record
        if planned is None:
            yield against_plan(
                "pass.planned",
                "number",
                tr("Pass is not in the procedure"),
                tr(
                    "The procedure plans {count} passes; nothing to compare pass {number} with.",
                    count=len(self.procedure.passes),
                    number=record.number,
                ),
                verdict="undecided",
            )
        else:
            yield from self._reading("current", record.current_a, planned.current_a, "current_a")
            yield from self._reading("voltage", record.voltage_v, planned.voltage_v, "voltage_v")
            yield from self._reading(
                "wire_feed", record.wire_feed_m_min, planned.wire_feed_m_min, "wire_feed_m_min"
            )
            if record.gas and planned.gas:
                yield from self._reading(
                    "flow", record.gas.flow_l_min, planned.gas.flow_l_min, "gas.flow_l_min"
                )
            yield from self._travel(travel, planned)
            yield from pass_deviations(planned, record, self.system)
        yield from record_contradictions(record, self.system)
        yield from self._heat(heat, travel)
        yield from self._temperature()

    def _reading(
        self, kind: str, reading: Reading | None, allowed: Range | None, path: str
    ) -> Iterator[Finding]:
        if reading is None or allowed is None:
            return
        low, high = ends_of(reading)
        yield from self._within(kind, low, high, allowed, path, "")

    def _within(
        self, kind: str, low: float, high: float, allowed: Range, path: str, remedy: str
    ) -> Iterator[Finding]:
        name = {
            "current": tr("Current"),
            "voltage": tr("Voltage"),
            "wire_feed": tr("Wire feed"),
            "flow": tr("Gas flow"),
            "travel": tr("Travel"),
            "heat_input": tr("Heat input"),
        }[kind]
        limit = range_text(allowed, kind, self.system)
        rule = f"{kind.replace('_', '-')}.range"
        seen = [value for value in (high, low) if not allowed.holds(value)]
        if not seen:
            yield against_plan(
                rule,
                path,
                tr("{name} holds", name=name),
                tr(
                    "{quantity_text} lies within {limit}.",
                    quantity_text=quantity_text(high, kind, self.system),
                    limit=limit,
                ),
                actual=quantity_text(high, kind, self.system),
                limit=limit,
                verdict="complies",
            )
            return
        value = seen[0]
        above = value > allowed.max
        actual = quantity_text(value, kind, self.system)
        yield against_plan(
            rule,
            path,
            tr("{name} above the range", name=name) if above else tr("{name} below the range", name=name),
            tr("{actual} is above {limit}.", actual=actual, limit=limit)
            if above
            else tr("{actual} is below {limit}.", actual=actual, limit=limit),
            actual=actual,
            limit=limit,
            remedy=remedy,
        )

    def _travel(self, travel: float | None, planned: Pass) -> Iterator[Finding]:
        allowed = planned.travel_mm_min
        if travel is None or allowed is None:
            return
        remedy = ""
        if not allowed.holds(travel):
            too_slow = travel < allowed.min
            target = allowed.min if too_slow else allowed.max
            remedy = tr(
                "{quantity_text} or {value}",
                quantity_text=quantity_text(target, "travel", self.system),
                value=tr("faster") if too_slow else tr("slower"),
            )
            length = self.record.length_mm
            if length:
                shown = quantity_text(length, "length", self.system)
                remedy += tr(", about {length:.0f} s for {shown}", length=length / target * 60, shown=shown)
            remedy += "."
        yield from self._within("travel", travel, travel, allowed, "travel_mm_min", remedy)

    def _heat(self, heat: float | None, travel: float | None) -> Iterator[Finding]:
        thermal = self.procedure.thermal
        window = thermal.heat_input_kj_mm if thermal else None
        planned = pass_heat(self.planned, heat_rule(self.procedure)) if self.planned else None
        allowed = window or (Range(planned.min_kj_mm, planned.max_kj_mm) if planned else None)
        if heat is not None and allowed is not None:
            remedy = self._way_back(heat, travel, allowed)
            yield from self._within("heat_input", heat, heat, allowed, "heat_input_kj_mm", remedy)

    def _way_back(self, heat: float, travel: float | None, allowed: Range) -> str:
        """The travel that brings the heat input back at these volts and amps: Q goes with 1/v."""
        if travel is None or allowed.holds(heat):
            return ""
        too_hot = heat > allowed.max
        needed = travel * heat / (allowed.max if too_hot else allowed.min)
        if not math.isfinite(needed):
            return ""
        # Rounded to the side that holds, in steps of what is shown: 1 mm/min or 0.1 in/min.
        step = 1.0 if self.system == "si" else 2.54
        rounded = (math.ceil(needed / step - 1e-9) if too_hot else math.floor(needed / step + 1e-9)) * step
        word = "faster" if too_hot else "slower"
        planned = self.planned.travel_mm_min if self.planned else None
        text = tr(
            "{quantity_text} or {word} at these volts and amps.",
            quantity_text=quantity_text(rounded, "travel", self.system),
            word=word,
        )
        if planned is not None and not planned.holds(rounded):
            text += tr(" That leaves the travel range: change volts or amps as well.")
        return text

    def _temperature(self) -> Iterator[Finding]:
        thermal, record = self.procedure.thermal, self.record
        if record.interpass and record.interpass.quenched:
            yield Finding(
                rule="interpass.quenched",
                verdict="violates",
                path="interpass.quenched",
                title=tr("Quenched before this pass"),
                message=tr("A quenched piece counts as having no interpass record."),
                remedy=tr("Explain it in the remarks; it stays on the record."),
                citations=(COMMON_PRACTICE,),
            )
        if thermal is None:
            return
        value = record.before_c
        if value is None:
            if thermal.interpass_max_c is not None or thermal.preheat_min_c is not None:
                yield against_plan(
                    "interpass.range",
                    "before_c",
                    tr("No temperature before this pass"),
                    tr("The temperature before the pass was not read."),
                    remedy=tr("Read it before the arc is struck."),
                    verdict="undecided",
                )
            return
        shown = quantity_text(value, "temperature", self.system)
        high, low = thermal.interpass_max_c, thermal.preheat_min_c
        if high is not None and value > high:
            limit = quantity_text(high, "temperature", self.system)
            yield against_plan(
                "interpass.range",
                "before_c",
                tr("Too hot before this pass"),
                tr("{shown} is above {limit}.", shown=shown, limit=limit),
                actual=shown,
                limit=limit,
                remedy=tr("Let it cool before the next pass."),
            )
        elif low is not None and value < low:
            limit = quantity_text(low, "temperature", self.system)
            yield against_plan(
                "interpass.range",
                "before_c",
                tr("Too cold before this pass"),
                tr("{shown} is below {limit}.", shown=shown, limit=limit),
                actual=shown,
                limit=limit,
                remedy=tr("Preheat before the next pass."),
            )
        elif high is not None or low is not None:
            yield against_plan(
                "interpass.range",
                "before_c",
                tr("Temperature holds"),
                tr("{shown} before the pass keeps its limits.", shown=shown),
                actual=shown,
                verdict="complies",
            )
