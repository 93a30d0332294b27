"""Do the passes lay down what the joint holds? And is every prepared side welded?"""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.saying import advise, ask
from welding.citation import COMMON_PRACTICE
from welding.deposit.laid import bead_area_mm2, by_hand
from welding.documents.procedure import Joint
from welding.finding import Finding
from welding.joints.section import Section
from welding.language import tr

CONVEX_SHARE = 0.2
VOLUME_SLACK = 0.15
"""Yield, gap and cap differ by about this before a plan is wrong (common practice)."""


def laid_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on the metal that the passes lay down against the section."""
    section, joint = draft.sectioned.section, draft.procedure.joint
    passes = draft.procedure.passes
    if section is None or joint is None or not passes:
        return
    both = joint.sides == "both" or joint.back_gouge or len({one.side for one in passes}) > 1
    if joint.preparation and joint.preparation.form.startswith("double") and not _welded_twice(draft):
        yield ask(
            "joint.other-side",
            "passes",
            tr("The other side has no pass"),
            tr("The joint is prepared from both sides, and every pass lies on one."),
            tr("Add the passes of side 2."),
        )
        return
    areas = [bead_area_mm2(one) for one in passes]
    if any(by_hand(one) for one in passes) or any(area is None for area in areas):
        return
    low = sum(area.min for area in areas if area)
    high = sum(area.max for area in areas if area)
    needed = sum(bead.area_mm2 for bead in section.beads)
    little = needed > high * (1 + VOLUME_SLACK)
    much = needed + _proud_mm2(draft, section, joint, both=both) < low * (1 - VOLUME_SLACK)
    laid = tr("{low} to {high}", low=draft.write(low, "area"), high=draft.write(high, "area"))
    wanted = draft.write(needed, "area")
    yield advise(
        "deposit.volume",
        "passes",
        trouble=tr(
            "The passes deposit {laid}; the joint{value} takes {wanted}.",
            laid=laid,
            value=tr(" of both sides") if both else "",
            wanted=wanted,
        )
        if little or much
        else "",
        fine=tr("The passes deposit {laid}; the joint takes {wanted}.", laid=laid, wanted=wanted),
        titles=(
            tr("Passes do not fill the joint") if little else tr("Passes overfill the joint"),
            tr("Passes fill the joint"),
        ),
        actual=laid,
        limit=wanted,
        remedy=tr("Add a pass, feed more or travel slower.")
        if little
        else tr("Take a pass out, or travel faster."),
        citations=(COMMON_PRACTICE,),
    )


def _proud_mm2(draft: Draft, section: Section, joint: Joint, *, both: bool) -> float:
    """What may stand proud beyond the flat face or the cap that was assumed (common practice).

    A fillet comes out convex; a cap that nobody stated may be as high again; square edges are melted wider
    than their gap, up to 3 mm high.
    """
    if joint.weld == "fillet":
        return CONVEX_SHARE * section.total_mm2
    extra = section.reinforcement_mm2 if joint.reinforcement_mm is None else 0.0
    if joint.preparation is not None and joint.preparation.form == "square":
        thin = min((one.thickness_mm or 0.0 for one in draft.procedure.base_metals), default=0.0)
        width, height = min(2 * thin + 4, 20.0), 3.0 if thin >= 3 else 1.5
        extra = max(extra, 2 / 3 * width * height * (2 if both else 1))
    return extra


def _welded_twice(draft: Draft) -> bool:
    return {one.side for one in draft.procedure.passes} == {1, 2}
