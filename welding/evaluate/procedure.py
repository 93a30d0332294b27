"""evaluate(document): the one path by which a procedure is judged, whoever asks."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from welding.advice.cautions import cautions_for
from welding.checks.arc import arc_findings
from welding.checks.certificate import certificate_findings
from welding.checks.composition import composition_findings
from welding.checks.content import content_complete, missing_content
from welding.checks.context import Draft
from welding.checks.filler import filler_findings
from welding.checks.heat import heat_findings
from welding.checks.hydrogen import hydrogen_findings
from welding.checks.laid import laid_findings
from welding.checks.machine import machine_findings
from welding.checks.metal import metal_findings
from welding.checks.pairing import pairing_findings
from welding.checks.position import position_findings
from welding.checks.process import process_findings
from welding.checks.product import product_findings
from welding.checks.root import root_findings
from welding.checks.shielding import shielding_findings
from welding.checks.site import site_findings
from welding.checks.thermal import thermal_findings
from welding.checks.tig import tig_findings
from welding.checks.treatment import treatment_findings
from welding.checks.wire import wire_findings
from welding.citation import COMMON_PRACTICE
from welding.codebook.catalogue import by_code, edition_of
from welding.deposit.consumption import Use, use_of
from welding.documents.procedure import Procedure
from welding.errors import Problem
from welding.evaluate.thermal import ThermalView, thermal_view, waits_of
from welding.finding import Finding
from welding.heat.energy import ISO_TR_18491
from welding.heat.passes import HeatRule, PassHeat, pass_heat
from welding.joints.grooves import fields_of
from welding.joints.section import Section, section_of
from welding.joints.shapes import Drawing
from welding.language import tr
from welding.quantities.writing import System

EVERYWHERE: tuple[Callable[[Draft], Iterable[Finding]], ...] = (
    heat_findings,
    process_findings,
    metal_findings,
    pairing_findings,
    certificate_findings,
    filler_findings,
    product_findings,
    hydrogen_findings,
    position_findings,
    tig_findings,
    wire_findings,
    shielding_findings,
    machine_findings,
    laid_findings,
    thermal_findings,
    treatment_findings,
    arc_findings,
    composition_findings,
    root_findings,
)
"""What is asked under every code, and under none."""

_ORDER = {"violates": 0, "undecided": 2, "complies": 3, "not_applicable": 4}


@dataclass(frozen=True, slots=True, kw_only=True)
class Evaluation:
    """All that is known of a procedure.

    Attributes:
        code: Short name of the code in force, empty for a shop procedure.
        heat_word: What the code in force calls the figure of ``heat_input``.
        findings: Breaches first, then cautions, open questions, what holds.
        heat_input: One entry for each pass whose volts, amps and travel are known.
        section: Areas of the joint, where they can be computed.
        drawing: The section's drawing, where it can be drawn.
        missing: What is not stated, with the path of each item.
        cautions: Sentences for people who will weld it.
        thermal: Preheat by method, cooling and waits, where metals and thicknesses are known.
        use: Weld metal, filler, gas and time, where the section is known.
        joint_fields: Paths of the geometry's fields that this joint has.
    """

    code: str
    heat_word: str
    findings: tuple[Finding, ...]
    heat_input: tuple[PassHeat, ...]
    section: Section | None
    drawing: Drawing | None
    missing: tuple[Problem, ...]
    cautions: tuple[str, ...]
    thermal: ThermalView | None
    use: Use | None
    joint_fields: tuple[str, ...]


def heat_rule(procedure: Procedure) -> HeatRule:
    """How heat input is counted: as the code in force says; with k under no code."""
    edition = edition_of(procedure.code.id) if procedure.code else None
    if edition is None:
        return HeatRule(uses_k=True, citation=ISO_TR_18491)
    return HeatRule(uses_k=edition.heat_basis == "heat-input", citation=edition.heat_citation)


@by_code
def evaluate(procedure: Procedure, system: System = "si") -> Evaluation:
    """Judge a procedure.

    Args:
        procedure: The procedure, draft or whole.
        system: Unit system of the sentences; numbers in fields stay SI.

    Returns:
        Findings, heat input by pass, section and drawing, what is missing, cautions. A poor or
        unfinished design never raises.
    """
    rule = heat_rule(procedure)
    heat = tuple(h for h in (pass_heat(one, rule) for one in procedure.passes) if h is not None)
    sectioned = section_of(procedure)
    edition = edition_of(procedure.code.id) if procedure.code else None
    draft = Draft(
        procedure=procedure,
        heat=heat,
        sectioned=sectioned,
        system=system,
        code_has_preheat=bool(edition and edition.preheat_methods),
    )
    findings: list[Finding] = []
    listed: tuple[Problem, ...] = ()
    code_name = ""
    if procedure.code and edition is None:
        findings.append(
            Finding(
                rule="code.known",
                verdict="undecided",
                path="code.id",
                title=tr("Code not known here"),
                message=tr(
                    "{id} is no code that this program has; its rules are not checked.", id=procedure.code.id
                ),
                limit=tr("a code that is on the list"),
                remedy=tr("Choose another code."),
            )
        )
    if edition and procedure.code:
        code_name = edition.short_with(procedure.code)
        listed = missing_content(procedure, edition.required_content)
        findings.append(content_complete(edition.required_content, listed))
        findings += edition.draft_findings(draft)
    for of_every_code in EVERYWHERE:
        findings += of_every_code(draft)
    findings += site_findings(
        draft, edition.wind_limit(procedure.code) if edition and procedure.code else None
    )
    findings += [
        Finding(
            rule="joint.geometry",
            verdict="violates",
            path=wrong.path,
            title=tr("The joint cannot be cut like this"),
            message=f"{wrong.message}.",
            remedy=tr("Correct the number, or choose another preparation."),
            citations=(COMMON_PRACTICE,),
        )
        for wrong in sectioned.wrong
    ]
    thermal = thermal_view(draft, edition)
    joint = procedure.joint
    return Evaluation(
        code=code_name,
        heat_word=tr("Heat input") if rule.uses_k else tr("Heat input (arc energy)"),
        findings=tuple(sorted(findings, key=_rank)),
        heat_input=heat,
        section=sectioned.section,
        drawing=sectioned.drawing,
        missing=_missing(sectioned.missing, listed),
        cautions=cautions_for(procedure),
        thermal=thermal,
        use=_use(draft, thermal),
        joint_fields=fields_of(joint) if joint else (),
    )


def _use(draft: Draft, thermal: ThermalView | None) -> Use | None:
    section, joint = draft.sectioned.section, draft.procedure.joint
    if section is None or joint is None or not draft.procedure.passes:
        return None
    metal = draft.metal(draft.procedure.base_metals[0])
    return use_of(
        draft.procedure.passes,
        {bead.pass_number: bead.area_mm2 for bead in section.beads},
        family=metal.family if metal else "carbon",
        length_mm=joint.length_mm,
        waits_s=waits_of(thermal),
    )


def _missing(geometry: tuple[Problem, ...], listed: tuple[Problem, ...]) -> tuple[Problem, ...]:
    """What the drawing and the code's list lack, each path once."""
    by_path = {problem.path: problem for problem in (*geometry, *listed)}
    return tuple(by_path.values())


def _rank(finding: Finding) -> int:
    if finding.verdict == "violates" and finding.obligation == "recommendation":
        return 1
    return _ORDER[finding.verdict]
