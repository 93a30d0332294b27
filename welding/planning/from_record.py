"""A procedure from a record: the widest that its range allows, for the engineer to narrow."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any

from welding.checks.machine import family_of
from welding.citation import COMMON_PRACTICE
from welding.coverage.brackets import span_for
from welding.coverage.record import InForce, in_force, range_of
from welding.documents.machine import Machine
from welding.documents.procedure import (
    AppliesTo,
    OpenRange,
    Pass,
    Procedure,
    Thermal,
)
from welding.documents.record import QualificationRecord
from welding.finding import Finding
from welding.heat.passes import pass_heat
from welding.language import tr
from welding.planning.within_heat import Window, within_heat
from welding.qualification.compare import Rules
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import QualifiedRange, RangeItem
from welding.qualification.required_scope import RequiredScope
from welding.ranges import Range

_READINGS = ("current_a", "voltage_v", "wire_feed_m_min", "travel_mm_min")
_STEPS = {"current_a": 1.0, "voltage_v": 0.1, "wire_feed_m_min": 0.1, "travel_mm_min": 5.0}
"""Limits are rounded inwards to what can be read at the machine (common practice)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class FromRecord:
    """The procedure, why each limit is what it is, and what stands in the way of using it."""

    procedure: Procedure
    notes: tuple[str, ...]
    findings: tuple[Finding, ...]


def procedure_from(
    record: QualificationRecord, code_id: str | None = None, level: int | None = None
) -> FromRecord:
    """Make the procedure that a record supports.

    Production conveniences of the record's procedure are kept (technique, drawing, machine, notes); limits
    are the qualified ones, narrowed to the machine and the filler's sheet where the procedure has them.

    Args:
        record: The record.
        code_id: Code, where it is not the record's own.
        level: Level, likewise.

    Raises:
        UnknownEntryError: No such code.
    """
    asked = in_force(record.procedure.code, code_id, level)
    found = range_of(record, asked.code.id, asked.level or None)
    coupon = TestCoupon(record)
    own = record.procedure
    notes: list[str] = []
    code = replace(asked.code, route="test")
    thermal = _thermal(coupon, found, asked, notes)
    procedure = replace(
        own,
        number=None,
        revision=None,
        code=code,
        positions=_positions(own, found),
        thermal=thermal,
        passes=tuple(_pass(one, coupon, found, asked.rule.uses_k, notes) for one in own.passes),
        applies_to=_applies_to(coupon, found, record.number),
        base_metals=tuple(
            replace(metal, thickness_mm=t, heat=None, certificate=None, chemistry=None)
            for metal, t in zip(own.base_metals, _thicknesses(coupon, own), strict=False)
        ),
    )
    procedure = _with_code_preheat(procedure, asked, found, notes)
    return FromRecord(procedure=procedure, notes=tuple(dict.fromkeys(notes)), findings=_findings(found))


def _thicknesses(coupon: TestCoupon, own: Procedure) -> tuple[float | None, ...]:
    return coupon.thicknesses_mm or tuple(one.thickness_mm for one in own.base_metals)


def _positions(own: Procedure, found: QualifiedRange) -> tuple[Any, ...]:
    weld = "fillet" if own.joint and own.joint.weld == "fillet" else "groove"
    items = [i for i in found.of("positions") if i.weld == weld and i.kind == "set"]
    return items[0].values if items else own.positions


def _open(items: Iterable[RangeItem]) -> OpenRange | None:
    """The range of items; without a limit where one says so and none limits it."""
    known = tuple(items)
    span = next((item for item in known if item.kind == "span"), None)
    if span is None and any(item.kind == "any" for item in known):
        return OpenRange()  # qualified without a limit, which is not the same as nothing stated
    if span is None or (span.min is None and span.max is None):
        return None
    return OpenRange(min=span.min, max=span.max)


def _applies_to(coupon: TestCoupon, found: QualifiedRange, number: str | None) -> AppliesTo:
    metals = found.of("base_metals")
    pipe = coupon.product == "pipe"
    joint = coupon.procedure.joint

    def of_weld(variable: str) -> tuple[RangeItem, ...]:
        """What holds for the weld of the procedure: a groove qualifies fillets too, within other limits."""
        welds = (None, coupon.weld, joint.weld if joint else None)
        return tuple(item for item in found.of(variable) if item.weld in welds)

    return AppliesTo(
        thickness_mm=_open(i for i in of_weld("parent_thickness_mm") if i.member is None),
        outside_diameter_mm=_open(of_weld("outside_diameter_mm")) if pipe else None,
        throat_mm=_open(of_weld("throat_mm")) if coupon.weld == "fillet" else None,
        base_metals=metals[0].values if metals else (),
        records=(number,) if number else (),
    )


def _pass(one: Pass, coupon: TestCoupon, found: QualifiedRange, uses_k: bool, notes: list[str]) -> Pass:
    changes: dict[str, object] = {}
    sources = dict(one.sources)
    run = next((r for r in coupon.runs if r.number == one.number), None)
    if run is not None:
        changes["filler"] = (
            replace(one.filler, batch=None, designation=run.designation, diameter_mm=run.diameter_mm)
            if one.filler
            else None
        )
        changes["polarity"] = run.polarity
        changes["transfer"] = run.transfer
    for field in _READINGS:
        span = span_for(found.items, field, one)
        if span is None or span.min is None or span.max is None:
            continue
        narrowed = _narrowed(field, one, coupon, Range(span.min, span.max), notes)
        changes[field] = _inwards(narrowed, _STEPS[field])
        sources[field] = "record"
    within = span_for(found.items, "heat_input_kj_mm", one)
    if within is not None and run is not None:
        made = replace(one, **changes)  # type: ignore[arg-type]
        fitted = within_heat(made, Window(within.min, within.max), run, uses_k)
        if fitted is not None:
            changes.update(
                current_a=fitted.current_a, voltage_v=fitted.voltage_v, travel_mm_min=fitted.travel_mm_min
            )
            if fitted.travel_mm_min != made.travel_mm_min:
                notes.append(
                    tr("Travel is narrowed so that heat input holds at every corner of volts and amps.")
                )
    flow = span_for(found.items, "gas_flow_l_min", one)
    if one.gas and flow and flow.min is not None and flow.max is not None:
        changes["gas"] = replace(one.gas, flow_l_min=_inwards(Range(flow.min, flow.max), 1.0))
        sources["gas.flow_l_min"] = "record"
    return replace(one, sources=sources, **changes)  # type: ignore[arg-type]


def _inwards(value: Range, step: float) -> Range:
    """Rounded inwards to a step; as it is where that would leave nothing."""
    low, high = -(-(value.min - 1e-9) // step) * step, (value.max + 1e-9) // step * step
    digits = 0 if step >= 1 else 1
    return Range(round(low, digits), round(high, digits)) if low <= high else value


def _narrowed(field: str, one: Pass, coupon: TestCoupon, value: Range, notes: list[str]) -> Range:
    """Within what the machine gives and the filler's sheet says, where the procedure has them."""
    machine: Machine | None = coupon.draft.machine(one)
    sheet = coupon.draft.maker_range(one)
    limits: list[tuple[Range, str]] = []
    supply, family = machine.supply if machine else None, family_of(one.process)
    envelope = next((e for e in supply.envelopes if e.family == family), None) if supply else None
    if machine is not None and envelope is not None:
        of_machine = getattr(envelope, field, None)
        if of_machine is not None:
            limits.append((of_machine, machine.name))
    if sheet is not None:
        of_sheet = getattr(sheet, field, None)
        if of_sheet is not None:
            limits.append((of_sheet, tr("the filler's sheet")))
    for limit, name in limits:
        low, high = max(value.min, limit.min), min(value.max, limit.max)
        if low <= high and (low, high) != (value.min, value.max):
            notes.append(
                tr(
                    "Pass {number}: {split} narrowed to what {name} allows.",
                    number=one.number,
                    split=field.split("_")[0],
                    name=name,
                )
            )
            value = Range(low, high)
    return value


def _thermal(coupon: TestCoupon, found: QualifiedRange, asked: InForce, notes: list[str]) -> Thermal:
    own = coupon.procedure.thermal or Thermal()
    changes: dict[str, object] = {}
    preheat = next((i for i in found.of("preheat_c") if i.kind == "span"), None)
    if preheat is not None and preheat.min is not None:
        changes["preheat_min_c"] = preheat.min
    interpass = next((i for i in found.of("interpass_c") if i.kind == "span"), None)
    if interpass is not None and interpass.max is not None:
        changes["interpass_max_c"] = interpass.max
    heats = [i for i in found.of("heat_input_kj_mm") if i.kind == "span"]
    planned = [h for h in (pass_heat(one, asked.rule) for one in coupon.procedure.passes) if h]
    if heats and planned:
        low = max((i.min for i in heats if i.min is not None), default=None)
        high = min((i.max for i in heats if i.max is not None), default=None)
        # Where the code sets no limit, the corners of what was planned are as far as it goes.
        least = low if low is not None else min(h.min_kj_mm for h in planned)
        most = high if high is not None else max(h.max_kj_mm for h in planned)
        if least <= most:
            changes["heat_input_kj_mm"] = Range(least, most)
            notes.append(
                tr("Heat input is limited as qualified; volts, amps and travel stay inside it together.")
            )
    if coupon.pwht and found.of("pwht_hold_c"):
        hold = found.of("pwht_hold_c")[0]
        if own.pwht and hold.min is not None and hold.max is not None:
            changes["pwht"] = replace(own.pwht, hold_c=Range(hold.min, hold.max))
    return replace(own, **changes)  # type: ignore[arg-type]


def _with_code_preheat(
    procedure: Procedure, asked: InForce, found: QualifiedRange, notes: list[str]
) -> Procedure:
    """Raise the preheat to what the code's own table asks of the joint that the procedure is drawn for."""
    rules: Rules = asked.edition.qualification.rules
    least = rules.table_preheat_c(RequiredScope(procedure, asked.rule))
    thermal = procedure.thermal
    if least is None or thermal is None or thermal.preheat_reason:
        return procedure
    notes.append(tr("Thicker production metal asks for the code's preheat of its own thickness."))
    if thermal.preheat_min_c is not None and thermal.preheat_min_c >= least:
        return procedure
    notes.append(
        tr("Preheat is the code's own table, {least:g} °C, above what the record would allow.", least=least)
    )
    return replace(procedure, thermal=replace(thermal, preheat_min_c=least))


def _findings(found: QualifiedRange) -> tuple[Finding, ...]:
    unknown = [
        Finding(
            rule=f"range.{item.variable}",
            verdict="undecided",
            title=tr("Not known in the record"),
            message=item.reason,
            remedy=tr("Supply it in the record, or look the rule up."),
            citations=(COMMON_PRACTICE,),
            unchecked=item.unchecked,
        )
        for item in found.items
        if item.kind == "unknown"
        and not item.how.startswith("only-if")
        and item.variable != "branch_angle_deg"
    ]
    return (*found.findings, *unknown)
