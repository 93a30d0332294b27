"""What stands on the sheet of a record: specimens with their criteria, the range with its clauses."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from apps.printing.sheets import BLANK, Both, Writer
from welding.documents.procedure import OpenRange, Procedure
from welding.documents.record import HardnessTest, ImpactTest, Test
from welding.language import number, tr, tr_noop
from welding.qualification.items import QualifiedRange, RangeItem
from welding.qualification.variables import VARIABLES
from welding.ranges import Range
from welding.testing.overall import TestReport

_STATES = {
    "repeated": tr_noop("repeated, passed"),
    "discarded": tr_noop("does not count"),
    "extra": "additional",
}


def kind_words(kind: str) -> str:
    """A kind of test as people say it."""
    return kind.replace("-hv10", " HV10").replace("-", " ")


def test_rows(tests: Iterable[Test], report: TestReport) -> list[dict[str, str]]:
    """A line for each specimen."""
    documents = {one.specimen: one for one in tests}
    rows = []
    for one in report.specimens:
        test = documents[one.specimen]
        rows.append(
            {
                "mark": one.specimen,
                "kind": kind_words(one.kind)
                + (tr(", repeats {retest_of}", retest_of=one.retest_of) if one.retest_of else ""),
                "readings": readings_of(test),
                "criterion": one.criterion,
                "clause": one.clause,
                "actual": one.actual or BLANK,
                "verdict": one.verdict if one.verdict != "incomplete" else "open",
                "state": tr(_STATES.get(one.state, "")),
                "remarks": " ".join(
                    part
                    for part in (
                        test.date or "",
                        test.remarks or "",
                        tr("discarded: {reason}", reason=test.discarded.reason) if test.discarded else "",
                    )
                    if part
                ),
            }
        )
    return rows


test_rows.__test__ = False  # type: ignore[attr-defined]


def _readings(values: Iterable[float | None]) -> str:
    """Readings in a row, parted by what no number of the language has in it."""
    apart = ", " if number(0.5) == "0.5" else " / "
    return apart.join(BLANK if value is None else number(value) for value in values)


def readings_of(test: Test) -> str:
    """Everything that was entered, in the names of its fields."""
    if isinstance(test, HardnessTest):
        unknown = tr("zone not noted")
        parts = [f"{row.line or ''} {row.zone or unknown}: {_readings(row.values)}" for row in test.rows]
        if test.values:
            parts.append(_readings(test.values))
        return "; ".join(parts)
    if isinstance(test, ImpactTest):
        values = _readings(test.values_j)
        at = f"{number(test.temperature_c)} °C" if test.temperature_c is not None else BLANK
        width = tr(", {width_mm:g} mm wide", width_mm=test.width_mm) if test.width_mm is not None else ""
        of = tr(" of {processes}", processes=", ".join(test.processes)) if test.processes else ""
        place = test.location or tr("notch not noted")
        return f"{place}{of}, {at}{width}: {values} J"
    said = []
    for name in type(test).__dataclass_fields__:
        value = getattr(test, name)
        if name in ("specimen", "kind", "remarks", "date", "discarded", "retest_of", "outcome"):
            continue
        if value is None or value == ():
            if name in ("openings_mm", "flaws_mm") and value == ():
                said.append(tr("{field_words} none", field_words=_field_words(name)))
            continue
        said.append(f"{_field_words(name)} {_text(value)}")
    return ", ".join(said)


def _field_words(name: str) -> str:
    for suffix, unit in (("_mm", " [mm]"), ("_deg", " [°]"), ("_n", " [N]"), ("_mpa", " [MPa]")):
        if name.endswith(suffix):
            return name.removesuffix(suffix).replace("_", " ") + unit
    return name.replace("_", " ")


def _text(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return number(value)
    if isinstance(value, tuple):
        return ", ".join(_text(one) for one in value)
    if hasattr(value, "mm"):
        cause = value.cause or tr("cause not noted")
        return f"{number(value.mm)} ({cause})"
    return str(value)


def range_rows(
    found: QualifiedRange, write: Writer, signed: QualifiedRange | None = None
) -> list[dict[str, Any]]:
    """A line for each variable that the code limits; where it read otherwise when it was signed, both."""
    before = {_place(item): item for item in signed.items} if signed else {}
    rows = []
    for item in found.items:
        if item.kind == "any":
            continue
        rows.append(
            {
                "title": VARIABLES[item.variable].title,
                "scope": _scope(item),
                "tested": _tested(item, write),
                "qualified": _qualified(item, write),
                "clause": item.rule.clause + (f" ({item.rule.earlier})" if item.rule.earlier else ""),
                "provenance": "confirmed"
                if item.rule.provenance == "confirmed"
                else tr("from memory, not confirmed"),
                "also": " ".join(
                    part
                    for part in (item.also, tr("Anything else is not decided.") if item.open_beyond else "")
                    if part
                ),
                "signed_as": _signed_as(item, before.get(_place(item)), write) if signed else "",
            }
        )
    return rows


_WELDS = {
    "groove": "grooves",
    "fillet": "fillets",
    "cjp-groove": tr_noop("CJP grooves"),
    "pjp-groove": tr_noop("PJP grooves"),
}


def _place(item: RangeItem) -> tuple[object, ...]:
    # Records signed before complete grooves stood apart have what holds for them without a weld.
    weld = None if item.weld == "cjp-groove" else item.weld
    return item.variable, item.process, item.role, weld, item.member, item.filler_diameter_mm


def _signed_as(item: RangeItem, before: RangeItem | None, write: Writer) -> str:
    """What stood there when it was signed, if that was something else."""
    if before is None:
        return tr("not listed")
    same = (item.kind, item.min, item.max, item.values) == (
        before.kind,
        before.min,
        before.max,
        before.values,
    )
    return "" if same else (tr("no limit") if before.kind == "any" else _qualified(before, write).main)


def _scope(item: RangeItem) -> str:
    parts = [
        item.process or "",
        f"{number(item.filler_diameter_mm)} mm" if item.filler_diameter_mm else "",
        {"root": tr("root"), "other": tr("fill and cap")}.get(item.role or "", ""),
        tr("member {member}", member=item.member) if item.member else "",
        tr(_WELDS.get(item.weld or "", "")),
    ]
    return ", ".join(part for part in parts if part)


def _tested(item: RangeItem, write: Writer) -> Both:
    quantity = VARIABLES[item.variable].quantity
    if isinstance(item.tested, Range):
        if quantity:
            return write.range(item.tested, quantity)
        return Both(tr("{min:g} to {max:g}", min=item.tested.min, max=item.tested.max))
    return Both(", ".join(item.tested) if item.tested else BLANK)


def _qualified(item: RangeItem, write: Writer) -> Both:
    if item.kind == "unknown":
        return Both(tr("not known: ") + item.reason)
    if item.kind != "span":
        return Both(", ".join(item.values))
    return open_range(OpenRange(min=item.min, max=item.max), VARIABLES[item.variable].quantity, write)


def open_range(value: OpenRange | None, quantity: str, write: Writer) -> Both:
    """A range whose ends may be open, in words."""
    if value is None or (value.min is None and value.max is None):
        return Both(tr("no limit"))
    if value.min is not None and value.max is not None and quantity:
        return write.range(Range(value.min, value.max), quantity)
    end = value.min if value.min is not None else value.max
    if value.min is not None and value.max is not None:
        return Both(tr("{min:g} to {max:g}", min=value.min, max=value.max))
    found = write.value(end, quantity) if quantity else Both(number(end or 0.0))
    words = tr_noop("from {end}") if value.min is not None else tr_noop("up to {end}")
    return Both(tr(words, end=found.main), tr(words, end=found.other) if found.other else "")


def applies_rows(document: Procedure, write: Writer) -> list[tuple[str, list[Both]]]:
    """What a procedure may be used for in production, where it says so."""
    applies = document.applies_to
    if applies is None:
        return []
    rows: list[tuple[str, list[Both]]] = []
    if applies.thickness_mm:
        rows.append((tr("Thickness in production"), [open_range(applies.thickness_mm, "thickness", write)]))
    if applies.outside_diameter_mm:
        rows.append((tr("Pipe in production"), [open_range(applies.outside_diameter_mm, "diameter", write)]))
    if applies.throat_mm:
        rows.append((tr("Throat in production"), [open_range(applies.throat_mm, "gap", write)]))
    if applies.base_metals:
        rows.append((tr("Metals qualified"), [Both("; ".join(applies.base_metals))]))
    if applies.records:
        rows.append((tr("Supported by"), [Both(", ".join(applies.records))]))
    return rows
