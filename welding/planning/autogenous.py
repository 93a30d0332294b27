"""Fusion without filler (process 142): edges that fit tight are melted together in one pass by TIG."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Literal

from welding.documents.intent import Intent
from welding.documents.procedure import Joint, Pass, Preparation
from welding.errors import DocumentError, Problem
from welding.joints.channel import Channel
from welding.language import tr, tr_noop
from welding.metals.catalogue import Metal
from welding.planning.beads import PlannedBead
from welding.planning.planner import Planned, Planner, Stage
from welding.planning.reasons import Reason
from welding.ranges import Range

AUTOGENOUS: Literal["142"] = "142"
WITH_ROD: Literal["141"] = "141"
MOST_MM = 3.0
"""Thickest edges that TIG melts through in one pass without a groove (common practice)."""
CLOSE_MM = 0.2
"""Widest gap that the edges' own metal closes (common practice)."""
_FILLED: dict[str, str] = {
    "aluminium": tr_noop("without filler most aluminium alloys crack while they solidify"),
    "aluminium-cast": tr_noop("without filler most aluminium alloys crack while they solidify"),
    "copper": tr_noop("without a deoxidised filler copper becomes porous"),
    "duplex": tr_noop(
        "without filler, whose nickel is raised for it, duplex solidifies almost wholly ferritic"
    ),
    "cr-mo": tr_noop("creep-resisting steel is welded with filler, heated before and after"),
    "ni-steel": tr_noop("the toughness of nickel steel is that of its filler"),
    "martensitic": tr_noop("martensitic steel hardens; it is welded with filler, heated before and after"),
    "ph-stainless": tr_noop("precipitation-hardening steel is welded with filler of its own kind"),
}
"""Families that are not welded without filler, and why (common practice)."""
_MOST_YIELD_MPA = 360.0
"""Stronger structural steel is not welded without filler (common practice)."""


def with_rod(intent: Intent) -> Intent:
    """The intent as its settings are looked up: like TIG with rod, square edges that touch.

    Raises:
        DocumentError: What cannot be welded without filler, each reason with its path.
    """
    joint, wrong = intent.joint, []
    if joint.kind not in ("butt", "edge", "corner") or joint.weld == "fillet":
        wrong.append(
            Problem(
                "joint.kind",
                tr(
                    "process 142 adds no metal: it welds butt, corner and edge joints whose edges "
                    "touch; a fillet needs filler"
                ),
                joint.kind,
            )
        )
    if max(intent.thickness_mm) > MOST_MM:
        wrong.append(
            Problem(
                "thickness_mm.0",
                tr(
                    "without filler TIG melts through {most_mm:g} mm at the most; take 141 with a rod",
                    most_mm=MOST_MM,
                ),
                f"{max(intent.thickness_mm):g}",
            )
        )
    if intent.filler is not None and intent.filler.designation:
        wrong.append(
            Problem("filler.designation", tr("process 142 has no filler"), intent.filler.designation)
        )
    if intent.fill_process is not None:
        wrong.append(
            Problem("fill_process", tr("without filler there is one pass and no other"), intent.fill_process)
        )
    if (intent.passes_wanted or 1) > 1 or joint.sides == "both" or joint.back_gouge:
        wrong.append(
            Problem("passes_wanted", tr("without filler it is planned as one pass from one side"), "")
        )
    stated = joint.preparation
    if stated is not None and (stated.form != "square" or (stated.root_gap_mm or 0.0) > CLOSE_MM):
        wrong.append(
            Problem("joint.preparation", tr("without filler the edges are square and touch"), stated.form)
        )
    if wrong:
        raise DocumentError(tuple(wrong))
    square = Preparation(form="square", root_gap_mm=0.0, gap_allowed_mm=Range(0.0, CLOSE_MM))
    return replace(
        intent,
        process=WITH_ROD,
        filler=None,
        joint=replace(joint, preparation=square),
    )


def refuse_metals(metals: Iterable[Metal], thickness_mm: Iterable[float]) -> None:
    """Raise for metals that are not welded without filler.

    Raises:
        DocumentError: Each metal with the reason.
    """
    wrong = []
    for index, (metal, thickness) in enumerate(zip(metals, thickness_mm, strict=True)):
        why = _FILLED.get(metal.family)
        if why is None and metal.family in ("carbon", "weathering"):
            strength = metal.yield_at(thickness)
            if strength is not None and strength > _MOST_YIELD_MPA:
                why = tr(
                    "steel above {most_yield_mpa:g} MPa yield takes the strength of its weld from filler",
                    most_yield_mpa=_MOST_YIELD_MPA,
                )
        if why is not None:
            wrong.append(Problem(f"metals.{index}", f"{metal.name}: {tr(why)}", metal.name))
    if wrong:
        raise DocumentError(tuple(wrong))


class Autogenous(Planner):
    """Plans the one pass; nothing is laid down, so travel goes by what the hand does."""

    def __init__(self, root: Stage, fill: Stage, joint: Joint, channels: Sequence[Channel]) -> None:
        super().__init__(root, fill, joint, channels)
        self.open_root = False  # no gap to close and no rod to melt: the current of the thickness

    def best(self) -> Planned:
        """The one bead, which lays down nothing."""
        thin = self.facts.thin
        bead = PlannedBead(side=1, role="root", layer=1, area_mm2=1e-3, width_mm=2.0 * thin, height_mm=thin)
        return self._planned([bead])

    def reasons(self, planned: Planned) -> list[Reason]:
        """Why current, volts and travel are what they are, and how the edges must fit."""
        ((_, _, ranges, _),) = planned.runs
        gap = tr(
            "edges square and tight, at most {close_mm:g} mm apart: there is no filler to bridge a gap",
            close_mm=CLOSE_MM,
        )
        told = [
            Reason(path="joint.preparation", text=gap),
            Reason(
                path="passes.0.travel_mm_min",
                text=tr(
                    "{middle:.0f} mm/min, usual by hand; both edges must melt",
                    middle=ranges.travel_mm_min.middle,
                ),
                source="estimate",
            ),
        ]
        if "carbon" in self.facts.families or "weathering" in self.facts.families:
            text = tr("steel without filler should be killed (silicon or aluminium), else the weld is porous")
            told.append(Reason(path="metals.0", text=text, source="practice"))
        of_current = [
            one for one in super().reasons(planned) if one.path.endswith((".current_a", ".voltage_v"))
        ]
        return [*of_current, *told]


def without_filler(one: Pass) -> Pass:
    """The pass as it is welded: process 142, no filler, nothing said of one."""
    return replace(one, process=AUTOGENOUS, filler=None)


def of_filler(reason: Reason) -> bool:
    """Whether a reason speaks of a filler, which there is none of."""
    return "filler" in reason.path
