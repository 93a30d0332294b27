"""Qualified limits beside a draft: for each field of each pass, what its supporting record allows."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from welding.documents.procedure import Pass, Procedure
from welding.qualification.counterparts import counterparts
from welding.qualification.items import QualifiedRange, RangeItem, RuleRef

_FIELDS = {
    "current_a": "current_a",
    "voltage_v": "voltage_v",
    "wire_feed_m_min": "wire_feed_m_min",
    "travel_mm_min": "travel_mm_min",
    "run_out_mm": "run_out_mm",
    "gas_flow_l_min": "gas.flow_l_min",
    "heat_input_kj_mm": "heat_input_kj_mm",
}
_THERMAL = (("preheat_c", "thermal.preheat_min_c"), ("interpass_c", "thermal.interpass_max_c"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Bracket:
    """The qualified limits of one field of a pass, or of the heat input of a pass.

    Attributes:
        path: Field, such as ``passes.1.current_a``; ``passes.1.heat_input_kj_mm`` for heat input.
        min: Least, ``None`` without a limit.
        max: Greatest, likewise.
        record: Number of the record.
        reason: How it follows from the test.
        rule: Where it stands.
    """

    path: str
    min: float | None
    max: float | None
    record: str
    reason: str
    rule: RuleRef


def brackets_of(found: QualifiedRange, procedure: Procedure) -> tuple[Bracket, ...]:
    """Limits of every pass's fields and of the temperatures by one record.

    Args:
        found: The record's range.
        procedure: The draft.
    """
    brackets = []
    for index, one in enumerate(procedure.passes):
        for variable, field in _FIELDS.items():
            item = span_for(found.items, variable, one)
            if item is not None:
                brackets.append(_bracket(item, f"passes.{index}.{field}", found.number))
    for variable, path in _THERMAL:
        brackets += [
            _bracket(item, path, found.number)
            for item in found.of(variable)
            if item.kind == "span" and (variable == "preheat_c" or item.max is not None)
        ]
    return tuple(brackets)


def _bracket(item: RangeItem, path: str, number: str) -> Bracket:
    return Bracket(path=path, min=item.min, max=item.max, record=number, reason=item.reason, rule=item.rule)


def span_for(items: Iterable[RangeItem], variable: str, one: Pass) -> RangeItem | None:
    """The span of a variable that a pass is held against first: of its own size and role where tested."""
    held = counterparts((item for item in items if item.variable == variable), one)
    return held[0] if held and held[0].kind == "span" else None
