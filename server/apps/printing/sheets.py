"""What stands on the sheets: plain rows of text, made from the documents and their evaluation."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from apps.printing.said import in_both, say
from welding.codebook.catalogue import edition_of
from welding.documents.coupon import Coupon, PassRecord
from welding.documents.fields import Reading, Spread, mean_of
from welding.documents.procedure import Pass, Procedure, Thermal
from welding.evaluate.coupon import CouponEvaluation
from welding.evaluate.one_pass import PassResult
from welding.evaluate.procedure import Evaluation
from welding.glossary.values import in_words
from welding.language import Usage, number, tr
from welding.quantities.writing import System, number_text, quantity_text, range_text
from welding.ranges import Range

BLANK = "—"


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
        return tr("shop procedure, under no code")
    return evaluation.code or document.code.id


def sheet_word(document: Procedure) -> str:
    """What the code's users call this sheet."""
    edition = edition_of(document.code.id) if document.code else None
    return edition.procedure_word if edition else tr("Welding procedure")


def record_word(document: Procedure) -> str:
    """What the code's users call the record of the coupon."""
    edition = edition_of(document.code.id) if document.code else None
    return edition.record_word if edition else tr("Coupon record")


def joint_words(document: Procedure) -> str:
    """The joint in the trade's words."""
    joint = document.joint
    if joint is None:
        return BLANK
    parts = [in_words(joint.kind, "joint"), in_words(joint.weld)]
    if joint.preparation:
        parts.append(in_words(joint.preparation.form))
    parts.append(in_words(joint.sides))
    parts.append(in_words(joint.backing, "backing"))
    if joint.back_gouge:
        parts.append(in_words("back-gouged"))
    return ", ".join(parts)


def facts(document: Procedure, evaluation: Evaluation) -> list[tuple[str, list[Both]]]:
    """Name and values of the sheet's head."""
    thermal, write = document.thermal, Writer(system_of(document))
    metals = [
        Both(
            " ".join(part for part in (metal.designation or BLANK, metal.standard or "") if part)
            + (tr(", heat {heat}", heat=metal.heat) if metal.heat else "")
        )
        for metal in document.base_metals
    ] or [NOTHING]
    rows: list[tuple[str, list[Both]]] = [
        (say("Metals"), metals),
        (
            say("Thickness"),
            [write.value(metal.thickness_mm, "thickness") for metal in document.base_metals] or [NOTHING],
        ),
        *_pipe(document, write),
        (say("Joint"), [Both(in_both(lambda: joint_words(document)))]),
        (say("Position"), [Both(", ".join(document.positions) or BLANK)]),
        (say("Preheat, at least"), _preheat(thermal, write)),
        (
            say("Between passes, at most"),
            [write.value(thermal.interpass_max_c if thermal else None, "temperature")],
        ),
    ]
    if thermal and thermal.heat_input_kj_mm:
        rows.append((say("Heat input wanted"), [write.range(thermal.heat_input_kj_mm, "heat_input")]))
    rows += _treatments(thermal, write)
    gap = document.joint.preparation.gap_allowed_mm if document.joint and document.joint.preparation else None
    if gap:
        rows.append((say("Gap after tacking"), [write.range(gap, "gap")]))
    if evaluation.section:
        words = say("Section with cap") if evaluation.section.reinforcement_mm2 else say("Section")
        rows.append((words, [write.value(evaluation.section.total_mm2, "area")]))
    return rows


def _pipe(document: Procedure, write: Writer) -> list[tuple[str, list[Both]]]:
    """Outside diameter of each member that is pipe."""
    found = [one.outside_diameter_mm for one in document.base_metals if one.outside_diameter_mm]
    return [(say("Outside diameter"), [write.value(one, "diameter") for one in found])] if found else []


def _preheat(thermal: Thermal | None, write: Writer) -> list[Both]:
    """The least preheat, and why less than the code's table is enough where that is stated."""
    least = write.value(thermal.preheat_min_c if thermal else None, "temperature")
    return [least, Both(thermal.preheat_reason)] if thermal and thermal.preheat_reason else [least]


def _treatments(thermal: Thermal | None, write: Writer) -> list[tuple[str, list[Both]]]:
    """Post-heat and heat treatment, where they are planned."""
    rows: list[tuple[str, list[Both]]] = []
    if thermal and thermal.post_heat:
        soak = write.value(thermal.post_heat.temperature_c, "temperature")
        rows.append(
            ("Post-heat", [soak, Both(tr("for {hold_min:g} min", hold_min=thermal.post_heat.hold_min))])
        )
    if thermal and thermal.pwht:
        pwht = thermal.pwht
        values = [write.range(pwht.hold_c, "temperature")]
        if pwht.hold_min is not None:
            values.append(Both(tr("for {hold_min:g} min", hold_min=pwht.hold_min)))
        if pwht.heating_c_h is not None and pwht.cooling_c_h is not None:
            values.append(
                Both(
                    tr(
                        "up {heating_c_h:g}, down {cooling_c_h:g} °C/h at most",
                        heating_c_h=pwht.heating_c_h,
                        cooling_c_h=pwht.cooling_c_h,
                    )
                )
            )
        rows.append((pwht.kind.capitalize(), values))
    return rows


def use_line(evaluation: Evaluation) -> str:
    """Metal, filler, gas and arc time of a metre of joint in one line; empty where they are not known."""
    use = evaluation.use
    if use is None:
        return ""
    parts = [tr("{weld_metal_kg_m:.2f} kg weld metal", weld_metal_kg_m=use.weld_metal_kg_m)]
    if use.filler_kg_m is not None:
        parts.append(tr("{filler_kg_m:.2f} kg filler", filler_kg_m=use.filler_kg_m))
    if use.gas_l_m:
        parts.append(tr("{volume:.0f} L gas", volume=use.gas_l_m))
    if use.arc_min_m is not None:
        parts.append(tr("{arc_min_m:.0f} min arc time", arc_min_m=use.arc_min_m))
    line = tr("A metre of joint takes about {parts}.", parts=", ".join(parts))
    if use.length_m is not None and use.elapsed_min is not None:
        line += tr(
            " {length_m:g} m: {elapsed_min:.0f} min from first to last arc, an estimate.",
            length_m=use.length_m,
            elapsed_min=use.elapsed_min,
        )
    return line


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
        "role": in_words(planned.role) if planned and planned.role else BLANK,
        "process": record.process or (planned.process if planned else BLANK),
        "current": write.reading(record.current_a, "current"),
        "voltage": write.reading(record.voltage_v, "voltage"),
        "feed": write.reading(record.wire_feed_m_min, "wire_feed"),
        "length": write.value(record.length_mm, "length"),
        "time": f"{number(time_s)} s" if time_s else BLANK,
        "travel": write.value(result.travel_mm_min, "travel"),
        "before": write.value(record.before_c, "temperature"),
        "heat": write.value(result.heat_input_kj_mm, "heat_input"),
        "k": f"{number(result.k)}" if result.k is not None else BLANK,
        "out": [
            f"{finding.title}: {finding.message}"
            for finding in result.findings
            if finding.verdict == "violates"
        ],
        "remarks": record.remarks or "",
    }


def usage_of(document: Procedure) -> Usage | None:
    """By whose terms a sheet of this procedure is said."""
    edition = edition_of(document.code.id) if document.code else None
    return edition.usage if edition else None
