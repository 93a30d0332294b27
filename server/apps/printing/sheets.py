"""What stands on the sheets: plain rows of text, made from the documents and their evaluation."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from welding.assess import Evaluation
from welding.assess_coupon import CouponEvaluation, PassResult
from welding.catalogue import edition_of
from welding.documents.coupon import Coupon, PassRecord
from welding.documents.fields import Reading, Spread, mean_of
from welding.documents.procedure import Pass, Procedure
from welding.quantities.writing import number_text, quantity_text, range_text
from welding.ranges import Range

BLANK = "—"


@dataclass(frozen=True, slots=True)
class Both:
    """A quantity in both unit systems; the second is empty where it reads the same."""

    si: str
    us: str

    @property
    def has_us(self) -> bool:
        """Whether the US form says anything more."""
        return bool(self.us) and self.us != self.si


NOTHING = Both(BLANK, "")


def both(value: float | None, kind: str) -> Both:
    """One value in both systems."""
    if value is None:
        return NOTHING
    return Both(quantity_text(value, kind, "si"), quantity_text(value, kind, "us"))


def both_range(value: Range | None, kind: str) -> Both:
    """A range in both systems."""
    if value is None:
        return NOTHING
    return Both(range_text(value, kind, "si"), range_text(value, kind, "us"))


def both_reading(reading: Reading | None, kind: str) -> Both:
    """A reading in both systems, with the ends that were seen."""
    if reading is None:
        return NOTHING
    mean = both(mean_of(reading), kind)
    if isinstance(reading, Spread) and reading.min is not None and reading.max is not None:
        low, high = (number_text(end, kind) for end in (reading.min, reading.max))
        return Both(f"{mean.si} ({low}–{high})", mean.us if mean.has_us else "")
    return mean


def code_line(document: Procedure, evaluation: Evaluation) -> str:
    """The code in force, or that there is none."""
    if document.code is None:
        return "shop procedure, under no code"
    return evaluation.code or document.code.id


def sheet_word(document: Procedure) -> str:
    """What the code's users call this sheet."""
    edition = edition_of(document.code.id) if document.code else None
    return edition.procedure_word if edition else "Welding procedure"


def record_word(document: Procedure) -> str:
    """What the code's users call the record of the coupon."""
    edition = edition_of(document.code.id) if document.code else None
    return edition.record_word if edition else "Coupon record"


def joint_words(document: Procedure) -> str:
    """The joint in the trade's words."""
    joint = document.joint
    if joint is None:
        return BLANK
    kinds = {
        "t": "T joint",
        "butt": "butt",
        "corner": "corner",
        "lap": "lap",
        "edge": "edge",
        "branch": "branch",
    }
    welds = {"cjp-groove": "complete penetration", "pjp-groove": "partial penetration"}
    parts = [kinds[joint.kind], welds.get(joint.weld, joint.weld)]
    if joint.preparation:
        parts.append(joint.preparation.form.replace("-", " "))
    parts.append("both sides" if joint.sides == "both" else "one side")
    parts.append("no backing" if joint.backing == "none" else f"{joint.backing} backing")
    if joint.back_gouge:
        parts.append("back-gouged")
    return ", ".join(parts)


def facts(document: Procedure, evaluation: Evaluation) -> list[tuple[str, list[Both]]]:
    """Name and values of the sheet's head."""
    thermal = document.thermal
    metals = [
        Both(" ".join(part for part in (metal.designation or BLANK, metal.standard or "") if part), "")
        for metal in document.base_metals
    ] or [NOTHING]
    rows: list[tuple[str, list[Both]]] = [
        ("Metals", metals),
        ("Thickness", [both(metal.thickness_mm, "thickness") for metal in document.base_metals] or [NOTHING]),
        ("Joint", [Both(joint_words(document), "")]),
        ("Position", [Both(", ".join(document.positions) or BLANK, "")]),
        ("Preheat, at least", [both(thermal.preheat_min_c if thermal else None, "temperature")]),
        ("Between passes, at most", [both(thermal.interpass_max_c if thermal else None, "temperature")]),
    ]
    if thermal and thermal.heat_input_kj_mm:
        rows.append(("Heat input wanted", [both_range(thermal.heat_input_kj_mm, "heat_input")]))
    if evaluation.section:
        area = evaluation.section.total_mm2
        rows.append(("Section with cap", [both(area, "area")]))
    return rows


def logged_rows(document: Coupon, log: CouponEvaluation) -> list[dict[str, Any]]:
    """The log of a coupon, in welding order."""
    results = {one.pass_number: one for one in log.passes}
    planned = {one.number: one for one in document.procedure.passes}
    return [
        _logged(record, results[record.number], planned.get(record.number))
        for record in sorted(document.coupon.passes, key=lambda one: one.number)
    ]


def _logged(record: PassRecord, result: PassResult, planned: Pass | None) -> dict[str, Any]:
    return {
        "number": record.number,
        "role": planned.role if planned else BLANK,
        "process": record.process or (planned.process if planned else BLANK),
        "current": both_reading(record.current_a, "current"),
        "voltage": both_reading(record.voltage_v, "voltage"),
        "feed": both_reading(record.wire_feed_m_min, "wire_feed"),
        "length": both(record.length_mm, "length"),
        "time": f"{record.time_s:g} s" if record.time_s else BLANK,
        "travel": both(result.travel_mm_min, "travel"),
        "before": both(record.before_c, "temperature"),
        "heat": both(result.heat_input_kj_mm, "heat_input"),
        "k": f"{result.k:g}" if result.k is not None else BLANK,
        "out": [
            f"{finding.title}: {finding.message}"
            for finding in result.findings
            if finding.verdict == "violates"
        ],
        "remarks": record.remarks or "",
    }
