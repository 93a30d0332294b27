"""evaluate_coupon(document): what each pass as welded gave, and where it left its range."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from welding.assess import heat_rule
from welding.checks.certificate import certificate_findings
from welding.checks.context import Draft
from welding.citation import COMMON_PRACTICE, Citation
from welding.documents.coupon import Coupon, PassRecord
from welding.documents.fields import Reading, ends_of, mean_of
from welding.documents.procedure import Pass, Procedure
from welding.errors import UnknownEntryError
from welding.finding import Finding, Verdict
from welding.heat.energy import (
    arc_energy_from_energy_kj_mm,
    arc_energy_kj_mm,
    thermal_efficiency,
    travel_mm_min,
)
from welding.heat.passes import HeatMethod, HeatRule, is_uneven, pass_heat
from welding.joints.section import section_of
from welding.quantities.writing import System, quantity_text, range_text
from welding.ranges import Range

THIS_PROCEDURE = Citation(
    document="this procedure", clause="range of the pass", provenance="practice", confidence="high"
)


@dataclass(frozen=True, slots=True, kw_only=True)
class PassResult:
    """What one pass as welded gave. ``None`` where a measurement is missing.

    ``heat_input_kj_mm`` is what the code in force calls heat input, with its ``k`` (1 under a code
    that uses none). ``planned_heat_kj_mm`` is the range of the pass as planned.
    """

    pass_number: int
    travel_mm_min: float | None
    arc_energy_kj_mm: float | None
    heat_input_kj_mm: float | None
    heat_input_kj_in: float | None
    planned_heat_kj_mm: Range | None
    method: HeatMethod
    k: float | None
    findings: tuple[Finding, ...]

    @property
    def out_of_range(self) -> bool:
        """Whether any measured value left its range."""
        return any(finding.verdict == "violates" for finding in self.findings)


@dataclass(frozen=True, slots=True, kw_only=True)
class CouponEvaluation:
    """All passes as welded, in order of their numbers, and the planned ones still to weld.

    ``piece`` holds findings on the metals that the piece was really made of, where they were recorded.
    """

    passes: tuple[PassResult, ...]
    to_weld: tuple[int, ...]
    piece: tuple[Finding, ...]


def evaluate_coupon(coupon: Coupon, system: System = "si") -> CouponEvaluation:
    """Judge a coupon's log against its procedure.

    Args:
        coupon: The coupon.
        system: Unit system of the sentences; numbers in fields stay SI.
    """
    records = sorted(coupon.coupon.passes, key=lambda one: one.number)
    done = {one.number for one in records}
    return CouponEvaluation(
        passes=tuple(evaluate_pass(coupon.procedure, one, system) for one in records),
        to_weld=tuple(one.number for one in coupon.procedure.passes if one.number not in done),
        piece=(*_fit_up_findings(coupon, system), *_piece_findings(coupon, system)),
    )


def _fit_up_findings(coupon: Coupon, system: System) -> Iterator[Finding]:
    """The gap, measured again after tacking, against what the procedure allows; it closes as tacks cool."""
    joint, fit = coupon.procedure.joint, coupon.coupon.fit_up
    allowed = joint.preparation.gap_allowed_mm if joint and joint.preparation else None
    measured = fit.gap_after_tack_mm if fit else None
    if allowed is None or measured is None:
        return
    inside = allowed.holds(measured)
    found, limit = quantity_text(measured, "gap", system), range_text(allowed, "gap", system)
    yield Finding(
        rule="fit-up.gap",
        verdict="complies" if inside else "violates",
        path="coupon.fit_up.gap_after_tack_mm",
        title="Gap after tacking is within the tolerance"
        if inside
        else "Gap after tacking is out of tolerance",
        message=f"The gap is {found} after tacking; {limit} is allowed.",
        actual=found,
        limit=limit,
        remedy=""
        if inside
        else "Cut the tacks out and fit it again; a gap that closed leaves the root unfused.",
        citations=(THIS_PROCEDURE,),
    )


def _piece_findings(coupon: Coupon, system: System) -> Iterator[Finding]:
    """What the certificates of the piece's own metals say against their grades."""
    if not coupon.coupon.base_metals:
        return
    procedure = replace(coupon.procedure, base_metals=coupon.coupon.base_metals)
    draft = Draft(procedure=procedure, heat=(), sectioned=section_of(procedure), system=system)
    yield from certificate_findings(draft)
    for planned, real in zip(coupon.procedure.base_metals, coupon.coupon.base_metals, strict=False):
        if planned.designation and real.designation and draft.metal(planned) != draft.metal(real):
            yield Finding(
                rule="metal.as-planned",
                verdict="violates",
                path="base_metals",
                title="Piece is not of the planned metal",
                message=f"{real.designation} is recorded; the procedure states {planned.designation}.",
                actual=real.designation,
                limit=planned.designation,
                remedy="Correct the record, or weld the coupon to another procedure.",
                citations=(THIS_PROCEDURE,),
            )


def travel_of(record: PassRecord) -> float | None:
    """Travel speed [mm/min] from segments, from length and time, or as typed."""
    length = record.length_mm
    time_s = record.time_s
    if record.segments:
        time_s = sum(segment.time_s for segment in record.segments)
        if all(segment.length_mm is not None for segment in record.segments):
            length = sum(segment.length_mm or 0.0 for segment in record.segments)
    if length and time_s:
        return travel_mm_min(length_mm=length, time_s=time_s)
    return record.travel_mm_min


def evaluate_pass(procedure: Procedure, record: PassRecord, system: System = "si") -> PassResult:
    """Judge one pass as welded against the pass of the same number in the procedure."""
    planned = next((one for one in procedure.passes if one.number == record.number), None)
    rule = heat_rule(procedure)
    travel = travel_of(record)
    energy, method = _arc_energy(record, planned, travel)
    k = _efficiency(record, planned, rule)
    heat = k * energy if k is not None and energy is not None else None
    planned_heat = pass_heat(planned, rule) if planned else None
    judge = _Judge(procedure, record, planned, system)
    return PassResult(
        pass_number=record.number,
        travel_mm_min=travel,
        arc_energy_kj_mm=energy,
        heat_input_kj_mm=heat,
        heat_input_kj_in=None if heat is None else heat * 25.4,
        planned_heat_kj_mm=(Range(planned_heat.min_kj_mm, planned_heat.max_kj_mm) if planned_heat else None),
        method=method,
        k=k,
        findings=tuple(judge.findings(travel, heat)),
    )


def _arc_energy(
    record: PassRecord, planned: Pass | None, travel: float | None
) -> tuple[float | None, HeatMethod]:
    if record.energy_j is not None and record.energy_method == "energy":
        length = record.length_mm
        if length:
            return arc_energy_from_energy_kj_mm(energy_j=record.energy_j, length_mm=length), "energy"
        return None, "energy"
    method: HeatMethod = "mean-estimate" if planned and is_uneven(planned) else "mean"
    if record.voltage_v is None or record.current_a is None or not travel:
        return None, method
    volts, amps = mean_of(record.voltage_v), mean_of(record.current_a)
    return arc_energy_kj_mm(voltage_v=volts, current_a=amps, travel_mm_min=travel), method


def _efficiency(record: PassRecord, planned: Pass | None, rule: HeatRule) -> float | None:
    if not rule.uses_k:
        return 1.0
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
            yield self._finding(
                "pass.planned",
                "undecided",
                "number",
                "Pass is not in the procedure",
                f"The procedure plans {len(self.procedure.passes)} passes; nothing to compare "
                f"pass {record.number} with.",
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
            yield from self._changed(planned)
        yield from self._heat(heat)
        yield from self._temperature()

    def _finding(
        self,
        rule: str,
        verdict: Verdict,
        path: str,
        title: str,
        message: str,
        *,
        actual: str = "",
        limit: str = "",
        remedy: str = "",
    ) -> Finding:
        return Finding(
            rule=rule,
            verdict=verdict,
            path=path,
            title=title,
            message=message,
            actual=actual,
            limit=limit,
            remedy=remedy,
            citations=(THIS_PROCEDURE,),
        )

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
            "current": "Current",
            "voltage": "Voltage",
            "wire_feed": "Wire feed",
            "flow": "Gas flow",
            "travel": "Travel",
            "heat_input": "Heat input",
        }[kind]
        limit = range_text(allowed, kind, self.system)
        rule = f"{kind.replace('_', '-')}.range"
        seen = [value for value in (high, low) if not allowed.holds(value)]
        if not seen:
            yield self._finding(
                rule,
                "complies",
                path,
                f"{name} holds",
                f"{quantity_text(high, kind, self.system)} lies within {limit}.",
                actual=quantity_text(high, kind, self.system),
                limit=limit,
            )
            return
        value = seen[0]
        where = "above" if value > allowed.max else "below"
        actual = quantity_text(value, kind, self.system)
        yield self._finding(
            rule,
            "violates",
            path,
            f"{name} {where} the range",
            f"{actual} is {where} {limit}.",
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
            remedy = f"{quantity_text(target, 'travel', self.system)} or {'faster' if too_slow else 'slower'}"
            length = self.record.length_mm
            if length:
                shown = quantity_text(length, "length", self.system)
                remedy += f", about {length / target * 60:.0f} s for {shown}"
            remedy += "."
        yield from self._within("travel", travel, travel, allowed, "travel_mm_min", remedy)

    def _heat(self, heat: float | None) -> Iterator[Finding]:
        thermal = self.procedure.thermal
        window = thermal.heat_input_kj_mm if thermal else None
        planned = pass_heat(self.planned, heat_rule(self.procedure)) if self.planned else None
        allowed = window or (Range(planned.min_kj_mm, planned.max_kj_mm) if planned else None)
        if heat is not None and allowed is not None:
            yield from self._within("heat_input", heat, heat, allowed, "heat_input_kj_mm", "")

    def _changed(self, planned: Pass) -> Iterator[Finding]:
        for name, title in (
            ("process", "Other process"),
            ("polarity", "Other polarity"),
            ("transfer", "Other transfer"),
        ):
            used, wanted = getattr(self.record, name), getattr(planned, name)
            if used is not None and wanted is not None and used != wanted:
                yield self._finding(
                    f"{name}.planned",
                    "violates",
                    name,
                    f"{title} than planned",
                    f"{used} was used; {wanted} is planned.",
                    actual=used,
                    limit=wanted,
                )
        used_filler = self.record.filler.designation if self.record.filler else None
        wanted_filler = planned.filler.designation if planned.filler else None
        if used_filler and wanted_filler and used_filler.strip() != wanted_filler.strip():
            yield self._finding(
                "filler.planned",
                "violates",
                "filler.designation",
                "Other filler than planned",
                f"{used_filler} was used; {wanted_filler} is planned.",
                actual=used_filler,
                limit=wanted_filler,
            )

    def _temperature(self) -> Iterator[Finding]:
        thermal, record = self.procedure.thermal, self.record
        if record.interpass and record.interpass.quenched:
            yield Finding(
                rule="interpass.quenched",
                verdict="violates",
                path="interpass.quenched",
                title="Quenched before this pass",
                message="A quenched piece counts as having no interpass record.",
                remedy="Explain it in the remarks; it stays on the record.",
                citations=(COMMON_PRACTICE,),
            )
        if thermal is None:
            return
        value = record.before_c
        if value is None:
            if thermal.interpass_max_c is not None or thermal.preheat_min_c is not None:
                yield self._finding(
                    "interpass.range",
                    "undecided",
                    "before_c",
                    "No temperature before this pass",
                    "The temperature before the pass was not read.",
                    remedy="Read it before the arc is struck.",
                )
            return
        shown = quantity_text(value, "temperature", self.system)
        high, low = thermal.interpass_max_c, thermal.preheat_min_c
        if high is not None and value > high:
            limit = quantity_text(high, "temperature", self.system)
            yield self._finding(
                "interpass.range",
                "violates",
                "before_c",
                "Too hot before this pass",
                f"{shown} is above {limit}.",
                actual=shown,
                limit=limit,
                remedy="Let it cool before the next pass.",
            )
        elif low is not None and value < low:
            limit = quantity_text(low, "temperature", self.system)
            yield self._finding(
                "interpass.range",
                "violates",
                "before_c",
                "Too cold before this pass",
                f"{shown} is below {limit}.",
                actual=shown,
                limit=limit,
                remedy="Preheat before the next pass.",
            )
        elif high is not None or low is not None:
            yield self._finding(
                "interpass.range",
                "complies",
                "before_c",
                "Temperature holds",
                f"{shown} before the pass keeps its limits.",
                actual=shown,
            )
