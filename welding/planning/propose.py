"""propose(intent): a whole draft from six answers, each number with its reason."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from welding.checks.context import Draft
from welding.codebook.catalogue import edition_of
from welding.consumables.designations.decode import decode
from welding.documents.chart import SettingsChart
from welding.documents.intent import Intent, Trial
from welding.documents.library import Library
from welding.documents.procedure import BaseMetal, Groups, Joint, Procedure, Thermal
from welding.errors import DocumentError, Problem
from welding.heat.by_metal import usual_hydrogen_ml_100g
from welding.heat.preheat import Preheat
from welding.joints.channel import Channel
from welding.joints.fill import fill_joint
from welding.joints.grooves import form_words
from welding.joints.section import section_of
from welding.language import number, tr, tr_noop
from welding.planning.autogenous import (
    AUTOGENOUS,
    Autogenous,
    of_filler,
    refuse_metals,
    with_rod,
    without_filler,
)
from welding.planning.beads import PlannedBead
from welding.planning.beside import PassBands, bands_beside
from welding.planning.choosing import Consumables, choose_consumables
from welding.planning.facts import Facts, facts_of, for_fill
from welding.planning.from_charts import followed
from welding.planning.passes import build_pass
from welding.planning.planner import Planned, Planner, Stage, limits_of
from welding.planning.preparing import prepare
from welding.planning.reasons import Reason
from welding.planning.starting import Setting
from welding.planning.temperatures import GUESSED_HEAT_KJ_MM, ThermalPlan, plan_temperatures
from welding.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class Proposal:
    """A draft with what decided it.

    Attributes:
        procedure: The draft.
        reasons: Why each number is what it is.
        collisions: Limits that cannot all be kept, with by how much.
        preheat_options: Preheat by each method that was asked, side by side.
        bands: What charts, sheets, own trials and the code say of each kind of pass, beside the proposal.
    """

    procedure: Procedure
    reasons: tuple[Reason, ...]
    collisions: tuple[str, ...]
    preheat_options: tuple[Preheat, ...]
    bands: tuple[PassBands, ...] = ()


def propose(intent: Intent) -> Proposal:
    """Propose a whole draft.

    Args:
        intent: Metals, thickness, joint, position, process, code; and what else is wished.

    Returns:
        A complete procedure: preparation, passes with ranges and sources, temperatures, heat input.

    Raises:
        DocumentError: The intent cannot be planned; every reason with its path.
    """
    fused = intent.process == AUTOGENOUS
    facts = facts_of(with_rod(intent) if fused else intent)
    if fused:
        refuse_metals(facts.metals, facts.thicknesses)
    fill = for_fill(facts)
    consumables = choose_consumables(facts)
    of_fill = consumables if fill is facts else choose_consumables(fill)
    joint, reasons = prepare(facts)
    channels = () if fused else _channels(facts, joint)
    kind = Autogenous if fused else Planner
    thermal, more, planner, planned = _plan(kind, (facts, consumables), (fill, of_fill), joint, channels)
    told = [
        *reasons,
        *dict.fromkeys((*consumables.reasons, *of_fill.reasons)),
        *more,
        *planner.reasons(planned),
        *thermal.reasons,
    ]
    if fused:
        told = [reason for reason in told if not of_filler(reason)]
    collisions = list(
        dict.fromkeys(
            f"{_words(bead)}: {text}"
            for bead, (_, _, ranges, _) in zip(planned.beads, planned.runs, strict=True)
            for text in ranges.collisions
        )
    )
    if intent.passes_wanted and len(planned.beads) != intent.passes_wanted:
        collisions.append(
            tr(
                "{passes_wanted} passes are wished; the layers of this joint give {count}",
                passes_wanted=intent.passes_wanted,
                count=len(planned.beads),
            )
        )
    passes = tuple(
        build_pass(index + 1, bead, setting, run, ranges, trial)
        for index, (bead, (setting, run, ranges, trial)) in enumerate(
            zip(planned.beads, planned.runs, strict=True)
        )
    )
    if fused:
        passes = tuple(without_filler(one) for one in passes)
    procedure = Procedure(
        number="draft",
        title=_title(facts, joint, intent.process),
        code=intent.code,
        requirements=intent.requirements,
        base_metals=_base_metals(facts),
        joint=joint,
        positions=(intent.position,),
        thermal=_thermal(facts, thermal, planned),
        shelf=_library(facts),
        passes=passes,
    )
    procedure, options, code_reason = _with_code_preheat(procedure, thermal)
    procedure, of_charts = followed(procedure, intent.charts, facts.kind, facts.units)
    return Proposal(
        procedure=procedure,
        reasons=(*told, *of_charts, *code_reason),
        bands=bands_beside(procedure, intent.charts, intent.trials, facts.units),
        collisions=tuple(collisions),
        preheat_options=options,
    )


def with_own(intent: Intent, trials: tuple[Trial, ...], charts: tuple[SettingsChart, ...] = ()) -> Intent:
    """The intent with further trials and charts to look through, its own ones first."""
    return replace(intent, trials=(*intent.trials, *trials)[:200], charts=(*intent.charts, *charts)[:40])


ROOT_ONLY_ML_100G = 8.0
_With = tuple[Facts, Consumables]


def _plan(
    kind: type[Planner], root: _With, fill: _With, joint: Joint, channels: Sequence[Channel]
) -> tuple[ThermalPlan, list[Reason], Planner, Planned]:
    """Temperatures and beads: preheat goes by the heat input of the coldest pass, the window by preheat."""
    facts = root[0]
    brought = (_hydrogen(*root), _hydrogen(*fill))
    if fill[0] is not facts and brought[0] > brought[1]:
        # The hot pass follows at once and drives the hydrogen of the root out (common practice).
        brought = (min(brought[0], ROOT_ONLY_ML_100G), brought[1])
    thermal = plan_temperatures(facts, [(GUESSED_HEAT_KJ_MM, one) for one in brought])
    planner, more = _planner(kind, root, fill, joint, channels, thermal)
    planned = planner.best()
    window = thermal.heat_input_kj_mm
    thermal = plan_temperatures(facts, list(zip(planner.coldest(planned), brought, strict=True)))
    if thermal.heat_input_kj_mm != window:
        planner, more = _planner(kind, root, fill, joint, channels, thermal)
        planned = planner.best()
    return thermal, more, planner, planned


def _hydrogen(facts: Facts, consumables: Consumables) -> float:
    filler = decode(consumables.designation)
    return usual_hydrogen_ml_100g(facts.process, filler.hydrogen_ml_100g, filler.low_hydrogen)


def _planner(
    kind: type[Planner],
    root: _With,
    fill: _With,
    joint: Joint,
    channels: Sequence[Channel],
    thermal: ThermalPlan,
) -> tuple[Planner, list[Reason]]:
    limits, more = limits_of(root[0], thermal)
    first = Stage(facts=root[0], consumables=root[1], limits=limits)
    if fill[0] is root[0]:
        return kind(first, first, joint, channels), more
    limits, others = limits_of(fill[0], thermal)
    second = Stage(facts=fill[0], consumables=fill[1], limits=limits)
    return kind(first, second, joint, channels), [*more, *others]


def _channels(facts: Facts, joint: Joint) -> tuple[Channel, ...]:
    filled = fill_joint(joint, facts.thicknesses, backs=False)
    if filled.wrong or filled.missing:
        raise DocumentError(filled.wrong or filled.missing)
    channels = filled.channels
    if joint.weld == "fillet" and joint.sides == "one":
        channels = channels[:1]
    whole = sum(channel.total_mm2 for channel in channels)
    if not channels or whole <= 0 or not math.isfinite(whole):
        raise DocumentError((Problem("joint", tr("there is nothing to fill"), ""),))
    return channels


def _words(bead: PlannedBead) -> str:
    return tr("{role} of side {side}", role=bead.role, side=bead.side) if bead.side == 2 else bead.role


_JOINTS = {
    "t": "T",
    "butt": tr_noop("butt"),
    "corner": tr_noop("corner"),
    "lap": tr_noop("lap"),
    "edge": tr_noop("edge"),
}
"""Joints as a title names them after the weld: a single V butt."""


def _title(facts: Facts, joint: Joint, process: str) -> str:
    kind = tr(_JOINTS.get(joint.kind, joint.kind))
    thickness = tr(" and ").join(dict.fromkeys(number(t) for t in facts.thicknesses))
    names = tr(" to ").join(dict.fromkeys(metal.name for metal in facts.metals))
    processes = " + ".join(dict.fromkeys((process, facts.intent.fill_process or process)))
    weld = tr("fillet") if facts.fillet else (form_words(joint.preparation.form) if joint.preparation else "")
    return tr(
        "{names}, {thickness} mm, {weld} {kind}, {processes}, {position}",
        names=names,
        thickness=thickness,
        weld=weld,
        kind=kind,
        processes=processes,
        position=facts.intent.position,
    )


def _base_metals(facts: Facts) -> tuple[BaseMetal, ...]:
    return tuple(
        BaseMetal(
            designation=metal.name,
            standard=metal.standard,
            condition=metal.condition or None,
            groups=Groups(iso_15608=metal.iso_15608, aws_d1_1=metal.aws_group_at(thickness, facts.units)),
            thickness_mm=thickness,
            outside_diameter_mm=facts.intent.outside_diameter_mm,
        )
        for metal, thickness in zip(facts.metals, facts.thicknesses, strict=True)
    )


def _library(facts: Facts) -> Library | None:
    """Copies of the own records that the draft uses."""
    library = facts.intent.shelf
    if library is None:
        return None
    names = {metal.name for metal in facts.metals if metal.own}
    return Library(
        machines=tuple(m for m in library.machines if facts.machine and m.name == facts.machine.name),
        products=tuple(p for p in library.products if facts.product and p.name == facts.product.name),
        metals=tuple(m for m in library.metals if m.name in names),
    )


def _thermal(facts: Facts, plan: ThermalPlan, planned: Planned) -> Thermal:
    measure = facts.heat_measure
    window = plan.heat_input_kj_mm
    heats = [_of_root(setting, facts, ranges.heat_kj_mm) for setting, _, ranges, _ in planned.runs]
    corners = Range(min(heat.min for heat in heats), max(heat.max for heat in heats))
    wished = facts.intent.heat_input_kj_mm is not None or facts.intent.t85_s is not None
    if window is None:
        window = corners
    elif not wished:  # our own target; where it cannot be kept the collision says so
        window = Range(min(window.min, corners.min), max(window.max, corners.max))
    low, high = (
        math.floor(window.min * measure * 20 + 1e-9) / 20,
        math.ceil(window.max * measure * 20 - 1e-9) / 20,
    )
    return Thermal(
        preheat_min_c=plan.preheat_c,
        interpass_max_c=plan.interpass_c,
        heat_input_kj_mm=Range(max(low, 0.01), max(high, 0.05)),
        hydrogen_ml_100g=plan.hydrogen_ml_100g,
        post_heat=plan.post_heat,
        pwht=plan.pwht,
    )


def _of_root(setting: Setting, facts: Facts, heat: Range) -> Range:
    """Heat input of a run in the measure of the root's process, where the code counts without k."""
    share = setting.facts.heat_measure / facts.heat_measure
    return Range(heat.min * share, heat.max * share)


def _with_code_preheat(
    procedure: Procedure, plan: ThermalPlan
) -> tuple[Procedure, tuple[Preheat, ...], tuple[Reason, ...]]:
    """The draft with the code's own preheat, where it asks for more."""
    edition = edition_of(procedure.code.id) if procedure.code else None
    if edition is None or procedure.thermal is None:
        return procedure, plan.options, ()
    draft = Draft(procedure=procedure, heat=(), sectioned=section_of(procedure), system="si")
    asked = edition.preheat(draft)
    if asked is None or asked.preheat_c is None:
        return procedure, plan.options, ()
    options = (*plan.options, asked)
    needed = asked.preheat_c
    stated = procedure.thermal.preheat_min_c or 0.0
    reason = Reason(
        path="thermal.preheat_min_c",
        text=tr("the code's table asks for no preheat")
        if asked.none_needed
        else tr("the code's table asks for {needed:.0f} °C", needed=needed),
        source="code",
        citation=asked.citation,
        unchecked=asked.unchecked,
    )
    if needed <= stated:
        return procedure, options, (reason,)
    interpass = max(procedure.thermal.interpass_max_c or 0.0, needed + 20)
    thermal = replace(procedure.thermal, preheat_min_c=math.ceil(needed), interpass_max_c=interpass)
    return replace(procedure, thermal=thermal), options, (reason,)
