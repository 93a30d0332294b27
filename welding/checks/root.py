"""Fit-up and root: gaps, lands, gouging, wide weaves, overlarge fillets, hydrogen in the gas."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.saying import advise, ask, of_pass
from welding.documents.procedure import Joint
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.heat.by_metal import metal_key
from welding.language import tr

WIDEST_ON_BACKING_MM = 10.0
WIDEST_ON_METAL_MM = 13.0
WIDEST_OPEN_MM = 5.0
FILLET_GAP_MM = 3.0
THICKEST_LAND_MM = 3.0
OVER_LEG = 1.1
QUENCHED_WEAVE_DIAMETERS, QUENCHED_WEAVE_MM = 4.0, 15.0
HYDROGEN_SUITS = ("austenitic", "nickel")
"""Families in whose gas a little hydrogen is used (ISO 14175 group R, common practice)."""


def root_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on the fit-up, and on each pass's weave and gas."""
    joint = draft.procedure.joint
    if joint is not None:
        yield from _gap(draft, joint)
        yield from _through(draft, joint)
        yield from _leg(draft, joint)
    yield from _weave(draft)
    yield from _hydrogen(draft)


def _gap(draft: Draft, joint: Joint) -> Iterator[Finding]:
    preparation = joint.preparation
    gap = preparation.root_gap_mm if preparation else None
    if gap is None:
        return
    if joint.weld == "fillet":
        most, what = (
            FILLET_GAP_MM,
            tr("a fillet; the leg grows by the gap, and over 5 mm the edge is built up"),
        )
    elif joint.backing == "metal":
        most, what = WIDEST_ON_METAL_MM, tr("a root on metal backing")
    elif joint.backing in ("ceramic", "flux"):
        most, what = WIDEST_ON_BACKING_MM, tr("one root pass on backing")
    elif joint.weld == "cjp-groove" and not joint.back_gouge and joint.sides == "one":
        most, what = WIDEST_OPEN_MM, tr("an open root")
    else:
        return
    found, limit = draft.write(gap, "gap"), draft.write(most, "gap")
    yield advise(
        "joint.gap",
        "joint.preparation.root_gap_mm",
        trouble=tr(
            "A gap of {found} is wide for {what}: up to {limit} is usual.",
            found=found,
            what=what,
            limit=limit,
        )
        if gap > most + 0.05
        else "",
        fine=tr("Up to {limit} is usual.", limit=limit),
        titles=(tr("Gap is too wide"), tr("Gap is usual")),
        actual=found,
        limit=limit,
        remedy=tr("Close the gap, build up the edge, or plan the root for it."),
    )


def _through(draft: Draft, joint: Joint) -> Iterator[Finding]:
    """A complete joint penetration weld whose root nothing makes sure of."""
    preparation = joint.preparation
    thin = min((one.thickness_mm or 0.0 for one in draft.procedure.base_metals), default=0.0)
    if joint.weld != "cjp-groove" or preparation is None or joint.back_gouge or joint.backing == "metal":
        return
    processes = {one.process for one in draft.procedure.passes}
    deep = processes & {"121", "122", "124", "125", "15", "311", "142", "145"}
    land = preparation.root_face_mm or 0.0
    double = joint.sides == "both" or preparation.form.startswith("double")
    trouble = ""
    if double and not deep and thin > 8 and processes:
        trouble = tr(
            "Welded from both sides without gouging: the second side need not melt into the "
            "first, and the root is not sure to be fused."
        )
    elif not double and not deep and land > THICKEST_LAND_MM + 0.05 and preparation.form != "square":
        trouble = tr(
            "A root face of {root_face} is not melted through from one side: "
            "the penetration is not complete.",
            root_face=draft.write(land, "gap"),
        )
    yield advise(
        "joint.penetration",
        "joint.back_gouge" if double else "joint.preparation.root_face_mm",
        trouble=trouble,
        fine=tr("The root can be melted through, or is made sound from the back."),
        titles=(tr("Root is not sure to be fused"), tr("Root can be fused")),
        remedy=tr("Gouge the second side to sound metal, add backing, or reduce the root face."),
    )


def _leg(draft: Draft, joint: Joint) -> Iterator[Finding]:
    thin = min((one.thickness_mm or 0.0 for one in draft.procedure.base_metals), default=0.0)
    leg = joint.leg1_mm
    if joint.weld != "fillet" or leg is None or thin < 6 or joint.kind == "lap":
        return
    most = OVER_LEG * thin if thin < 20 else max(0.75 * thin, 16.0)
    found, limit = draft.write(leg, "gap"), draft.write(most, "gap")
    yield advise(
        "joint.leg-over",
        "joint.leg1_mm",
        trouble=tr(
            "A leg of {found} is more than {thin} asks for: it distorts and costs; a groove, "
            "or both sides, takes less.",
            found=found,
            thin=draft.write(thin, "thickness"),
        )
        if leg > most + 0.05
        else "",
        fine=tr("Up to about {limit} is usual.", limit=limit),
        titles=(tr("Fillet is overlarge"), tr("Fillet is in proportion")),
        actual=found,
        limit=limit,
        remedy=tr("Weld both sides, or prepare the edge."),
    )


def _weave(draft: Draft) -> Iterator[Finding]:
    keys = {
        metal_key(metal, one.thickness_mm)
        for one in draft.procedure.base_metals
        if (metal := draft.metal(one)) and one.thickness_mm
    }
    if "quenched" not in keys:
        return
    for index, one in enumerate(draft.procedure.passes):
        diameter = one.filler.diameter_mm if one.filler else None
        if one.bead != "weave" or one.weave_max_mm is None or diameter is None:
            continue
        most = max(QUENCHED_WEAVE_DIAMETERS * diameter, QUENCHED_WEAVE_MM)
        yield advise(
            "bead.weave",
            f"passes.{index}.weave_max_mm",
            trouble=tr(
                "Weaving {weave_max_mm} wide on quenched and tempered steel raises the heat "
                "input; stringers are usual.",
                weave_max_mm=draft.write(one.weave_max_mm, "gap"),
            )
            if one.weave_max_mm > most
            else "",
            fine=tr("Stringers or narrow weaves are usual."),
            titles=(
                of_pass(tr("Weave is wide for the steel"), one),
                of_pass(tr("Weave is narrow enough"), one),
            ),
            remedy=tr("Lay stringers."),
        )


def _hydrogen(draft: Draft) -> Iterator[Finding]:
    """Hydrogen in the gas, or behind the root, of metal that it embrittles."""
    stated = [one for one in draft.procedure.base_metals if one.designation]
    metals = [metal for one in stated if (metal := draft.metal(one))]
    if not metals or all(metal.family in HYDROGEN_SUITS for metal in metals):
        return
    families = tr(" and ").join(sorted({in_words(metal.family) for metal in metals}))
    for index, one in enumerate(draft.procedure.passes):
        if one.gas is not None and one.gas.components_percent.get("H2", 0.0) > 0:
            yield ask(
                "gas.hydrogen",
                f"passes.{index}.gas",
                of_pass(tr("Hydrogen in the gas"), one),
                tr(
                    "Hydrogen in the shielding gas embrittles {families} metal: it cracks, or is porous.",
                    families=families,
                ),
                tr("Choose argon, or argon with helium; on duplex up to 2 % nitrogen."),
                verdict="violates",
            )
