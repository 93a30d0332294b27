"""Qualified limits beside a draft: for each field of each pass, what its supporting record allows."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from welding.documents.procedure import Pass, Procedure
from welding.qualification.items import QualifiedRange, RangeItem, RuleRef

_FIELDS = {
    "current_a": "current_a",
    "voltage_v": "voltage_v",
    "wire_feed_m_min": "wire_feed_m_min",
    "travel_mm_min": "travel_mm_min",
    "run_out_mm": "run_out_mm",
    "gas_flow_l_min": "gas.flow_l_min",
}
_THERMAL = (("preheat_c", "thermal.preheat_min_c"), ("interpass_c", "thermal.interpass_max_c"))
_SAME_SIZE_MM = 0.03


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
        for item in found.items:
            field = _FIELDS.get(item.variable)
            if item.variable == "heat_input_kj_mm":
                field = "heat_input_kj_mm"
            if field is None or item.kind != "span" or not _is_for(item, one):
                continue
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


def _is_for(item: RangeItem, one: Pass) -> bool:
    if not item.is_for(one.process):
        return False
    diameter = one.filler.diameter_mm if one.filler else None
    if item.filler_diameter_mm is not None and (
        diameter is None or abs(diameter - item.filler_diameter_mm) > _SAME_SIZE_MM
    ):
        return False
    return item.role is None or item.role == ("root" if one.role == "root" else "other")


def span_for(items: Iterable[RangeItem], variable: str, one: Pass) -> RangeItem | None:
    """The span of a variable that holds for a pass."""
    return next(
        (item for item in items if item.variable == variable and item.kind == "span" and _is_for(item, one)),
        None,
    )
