"""What stands on the sheets: plain rows of text, made from the documents and their evaluation."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from welding.assess import Evaluation
from welding.assess_coupon import CouponEvaluation, PassResult
from welding.catalogue import edition_of
from welding.documents.coupon import Coupon, PassRecord
from welding.documents.fields import Reading, Spread, mean_of
from welding.documents.procedure import Pass, Procedure
from welding.quantities.writing import System, number_text, quantity_text, range_text
from welding.ranges import Range

BLANK = "—"
FORM_WORDS = {"single-v": "single V", "double-v": "double V", "single-u": "single U", "double-u": "double U"}


@dataclass(frozen=True, slots=True)
class Both:
    """A quantity in the sheet's own unit system, and in the other one where that reads differently."""

    main: str
    other: str = ""


NOTHING = Both(BLANK)


@dataclass(frozen=True, slots=True)
class Writer:
    """Writes quantities in both systems, the sheet's own first."""

    system: System

    @property
    def _other(self) -> System:
        return "us" if self.system == "si" else "si"

    def _both(self, write: Callable[[System], str]) -> Both:
        main, other = write(self.system), write(self._other)
        return Both(main, "" if other == main else other)

    def value(self, value: float | None, kind: str) -> Both:
        """One value."""
        if value is None:
            return NOTHING
        return self._both(lambda system: quantity_text(value, kind, system))

    def range(self, value: Range | None, kind: str) -> Both:
        """A range."""
        if value is None:
            return NOTHING
        return self._both(lambda system: range_text(value, kind, system))

    def reading(self, reading: Reading | None, kind: str) -> Both:
        """A reading, with the ends that were seen in the sheet's own system."""
        if reading is None:
            return NOTHING
        mean = self.value(mean_of(reading), kind)
        if isinstance(reading, Spread) and reading.min is not None and reading.max is not None:
            low, high = (number_text(end, kind, self.system) for end in (reading.min, reading.max))
            return Both(f"{mean.main} ({low}–{high})", mean.other)
        return mean


def system_of(document: Procedure) -> System:
    """The unit system that a sheet puts first: that of the code's printed column."""
    return document.code.units if document.code else "si"


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
        parts.append(FORM_WORDS.get(joint.preparation.form) or joint.preparation.form.replace("-", " "))
    parts.append("both sides" if joint.sides == "both" else "one side")
    parts.append("no backing" if joint.backing == "none" else f"{joint.backing} backing")
    if joint.back_gouge:
        parts.append("back-gouged")
    return ", ".join(parts)


def facts(document: Procedure, evaluation: Evaluation) -> list[tuple[str, list[Both]]]:
    """Name and values of the sheet's head."""
    thermal, write = document.thermal, Writer(system_of(document))
    metals = [
        Both(
            " ".join(part for part in (metal.designation or BLANK, metal.standard or "") if part)
            + (f", heat {metal.heat}" if metal.heat else "")
        )
        for metal in document.base_metals
    ] or [NOTHING]
    rows: list[tuple[str, list[Both]]] = [
        ("Metals", metals),
        (
            "Thickness",
            [write.value(metal.thickness_mm, "thickness") for metal in document.base_metals] or [NOTHING],
        ),
        ("Joint", [Both(joint_words(document))]),
        ("Position", [Both(", ".join(document.positions) or BLANK)]),
        ("Preheat, at least", [write.value(thermal.preheat_min_c if thermal else None, "temperature")]),
        (
            "Between passes, at most",
            [write.value(thermal.interpass_max_c if thermal else None, "temperature")],
        ),
    ]
    if thermal and thermal.heat_input_kj_mm:
        rows.append(("Heat input wanted", [write.range(thermal.heat_input_kj_mm, "heat_input")]))
    if evaluation.section:
        words = "Section with cap" if evaluation.section.reinforcement_mm2 else "Section"
        rows.append((words, [write.value(evaluation.section.total_mm2, "area")]))
    return rows


def logged_rows(document: Coupon, log: CouponEvaluation) -> list[dict[str, Any]]:
    """The log of a coupon, in welding order."""
    results = {one.pass_number: one for one in log.passes}
    planned = {one.number: one for one in document.procedure.passes}
    write = Writer(system_of(document.procedure))
    return [
        _logged(write, record, results[record.number], planned.get(record.number))
        for record in sorted(document.coupon.passes, key=lambda one: one.number)
    ]


def _logged(write: Writer, record: PassRecord, result: PassResult, planned: Pass | None) -> dict[str, Any]:
    time_s = record.time_s or sum(segment.time_s for segment in record.segments)
    return {
        "number": record.number,
        "role": planned.role if planned else BLANK,
        "process": record.process or (planned.process if planned else BLANK),
        "current": write.reading(record.current_a, "current"),
        "voltage": write.reading(record.voltage_v, "voltage"),
        "feed": write.reading(record.wire_feed_m_min, "wire_feed"),
        "length": write.value(record.length_mm, "length"),
        "time": f"{time_s:g} s" if time_s else BLANK,
        "travel": write.value(result.travel_mm_min, "travel"),
        "before": write.value(record.before_c, "temperature"),
        "heat": write.value(result.heat_input_kj_mm, "heat_input"),
        "k": f"{result.k:g}" if result.k is not None else BLANK,
        "out": [
            f"{finding.title}: {finding.message}"
            for finding in result.findings
            if finding.verdict == "violates"
        ],
        "remarks": record.remarks or "",
    }
