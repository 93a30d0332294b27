"""The edge preparation of a joint whose intent leaves it open (common practice, after the usual details)."""

from __future__ import annotations

from dataclasses import replace

from welding.documents.procedure import Joint, Preparation, PreparedSide
from welding.joints.grooves import form_words
from welding.language import tr, tr_noop
from welding.planning.facts import Facts
from welding.planning.reasons import Reason
from welding.ranges import Range

BACKED_GAP_MM = {"si": 6.0, "us": 6.35}
ONE_SIDE_TO_MM = 20.0
"""Thicker butts are prepared from both sides where both can be reached (common practice)."""
U_FROM_MM, U_RADIUS_MM = 22.0, 6.0
"""Thicker walls that are welded from one side are machined to a U (common practice)."""
SQUARE_TO_MM = {
    "141": 3.0,
    "131": 4.0,
    "111": 3.0,
    "114": 3.0,
    "135": 4.0,
    "136": 4.0,
    "138": 4.0,
    "121": 12.0,
}
SHEET_CAP_TO_MM, SHEET_CAP_MM = 3.0, 1.0
LEAST_UPHILL_LEG_MM = 4.5
"""Slow as it is, a wire lays no smaller fillet uphill (common practice)."""
LEG_OF_THICKNESS = 0.75
LARGEST_USUAL_LEG_MM = 12.0
GAP_TOLERANCE_MM = 1.0


def prepare(facts: Facts) -> tuple[Joint, tuple[Reason, ...]]:
    """The joint with its preparation, backing and sides, or with the leg of its fillet.

    What the intent states stands; a preparation that it states is taken as it is.
    """
    joint = facts.intent.joint
    if joint.weld == "fillet":
        return _fillet(facts, joint)
    if joint.preparation is not None:
        return joint, ()
    if joint.kind == "edge":
        return _edge(facts, joint)
    if joint.weld == "pjp-groove":
        return _partial(facts, joint)
    return _complete(facts, joint)


# --- fillets ----------------------------------------------------------------------------------


def _fillet(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    if joint.leg1_mm or joint.leg2_mm or joint.throat_mm:
        edge = facts.thicknesses[1]
        if joint.kind == "lap" and joint.leg1_mm and joint.leg1_mm > edge and joint.leg2_mm is None:
            text = tr("the leg on the edge is {edge:g} mm, all there is of it", edge=edge)
            return replace(joint, leg2_mm=edge), (Reason(path="joint.leg2_mm", text=text),)
        return joint, ()
    thin = facts.thin
    most_small = 6.0 if facts.process in ("136", "114", "138") else 5.0
    least = min(thin, 2.0) if facts.process == "141" else min(max(thin, 3.0), most_small)
    leg = round(min(max(LEG_OF_THICKNESS * thin, least), LARGEST_USUAL_LEG_MM) * 2) / 2
    uphill = facts.attitude == "vertical-up" and facts.process in ("114", "135", "136", "138")
    if uphill:
        leg = max(leg, LEAST_UPHILL_LEG_MM)
    least_by_code = facts.edition.least_fillet_mm if facts.edition else None
    if least_by_code:
        leg = max(leg, least_by_code(thin, facts.units))
    second = None
    if joint.kind == "lap" and leg > facts.thicknesses[1]:
        second = facts.thicknesses[1]  # the edge is melted down whole
    reason = Reason(
        path="joint.leg1_mm",
        text=tr(
            "leg {leg:g} mm: about {leg_of_thickness:g} of the thinner member",
            leg=leg,
            leg_of_thickness=LEG_OF_THICKNESS,
        )
        + (tr(", and not below the code's minimum size") if least_by_code else "")
        + (tr("; uphill no wire lays less") if uphill and leg == LEAST_UPHILL_LEG_MM else ""),
    )
    return replace(joint, leg1_mm=leg, leg2_mm=second), (reason,)


# --- grooves ----------------------------------------------------------------------------------


def _reason(facts: Facts, text: str) -> Reason:
    return Reason(path="joint.preparation", text=text)


def _with(joint: Joint, preparation: Preparation, **more: object) -> Joint:
    gap = preparation.root_gap_mm or 0.0
    allowed = Range(max(gap - GAP_TOLERANCE_MM, 0.0), gap + GAP_TOLERANCE_MM)
    return replace(joint, preparation=replace(preparation, gap_allowed_mm=allowed), **more)  # type: ignore[arg-type]


def _edge(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    depth = joint.throat_mm or round(max(0.5 * facts.thin, 1.0), 1)
    made = _with(joint, Preparation(form="square", root_gap_mm=0.0), throat_mm=depth)
    return made, (_reason(facts, tr("edges flush, melted {depth:g} mm deep", depth=depth)),)


def _partial(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    depth = joint.throat_mm or round(max(0.5 * facts.thin, 3.0), 0)
    depth = min(depth, facts.thin)
    standing = joint.kind in ("t", "branch", "corner")
    form, angle = ("single-bevel", 45.0) if standing else ("single-v", 60.0)
    # Along a 45° bevel the root is not reached in every position: the groove is cut 3 mm deeper.
    deeper = 3.0 if standing and depth + 3 <= facts.thin else 0.0
    preparation = Preparation(
        form=form,  # type: ignore[arg-type]
        included_angle_deg=angle,
        root_gap_mm=0.0,
        sides=(PreparedSide(depth_mm=depth + deeper),),
    )
    text = tr(
        "{form_words} {angle:g}°, closed root, {depth:g} mm deep for a throat of {depth2:g} mm",
        form_words=form_words(form),
        angle=angle,
        depth=depth + deeper,
        depth2=depth,
    )
    return _with(joint, preparation, throat_mm=depth), (_reason(facts, text),)


def _complete(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    thin, process = facts.thin, facts.process
    sheet = thin <= SQUARE_TO_MM[process]
    if joint.kind in ("t", "branch", "corner"):
        return _square(facts, joint) if sheet and _left_square(facts, joint) else _standing(facts, joint)
    if process == "121" and joint.backing == "none":
        return _submerged(facts, joint)
    if sheet:
        return _square(facts, joint)
    if facts.kind == "aluminium":
        return _aluminium(facts, joint)
    return _v(facts, joint)


def _left_square(facts: Facts, joint: Joint) -> bool:
    """Whether the edge of sheet in a T or corner joint is left as cut: there is no depth for a bevel."""
    closes = ("141", "135") if joint.kind == "corner" else ("141",) if joint.kind == "t" else ()
    open_root = joint.backing == "none" and not joint.back_gouge
    return facts.process in closes and open_root and not facts.prequalified


def _square(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    thin = facts.thin
    wire = facts.process in ("131", "135", "136", "138", "114")
    gap = 0.0 if thin < 1.5 or (facts.process == "141" and thin < 2) else round(min(thin / 2, 2.0) * 2) / 2
    if wire and thin < 1.5:
        gap = 0.5
    if joint.kind == "t":
        gap = max(gap, 1.0)  # the arc reaches the far edge only through a gap
    made = _with(joint, Preparation(form="square", root_gap_mm=gap))
    if wire and thin < SHEET_CAP_TO_MM and joint.reinforcement_mm is None:
        made = replace(made, reinforcement_mm=SHEET_CAP_MM)  # wire lays down more than the gap takes
    return made, (_reason(facts, tr("square edges, gap {gap:g} mm, at {thin:g} mm", gap=gap, thin=thin)),)


def _submerged(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    """Closed roots from both sides: submerged arc bridges no gap, and reaches deep."""
    thin = facts.thin
    if thin <= SQUARE_TO_MM["121"]:
        made = _with(joint, Preparation(form="square", root_gap_mm=0.0), sides="both", back_gouge=False)
        text = tr("square and tight at {thin:g} mm: a run from each side, which overlap", thin=thin)
        return made, (_reason(facts, text),)
    deep = thin <= ONE_SIDE_TO_MM
    face = round(0.4 * thin) if deep else 5.0
    preparation = Preparation(
        form="double-v", included_angle_deg=70.0 if deep else 60.0, root_gap_mm=0.0, root_face_mm=face
    )
    made = _with(joint, preparation, sides="both", back_gouge=not deep)
    text = tr("double V, tight, root face {face:g} mm, ", face=face) + (
        tr("which the two sides melt through") if deep else tr("the second side gouged to sound metal")
    )
    return made, (_reason(facts, text),)


def _aluminium(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    stated = joint.sides == "both" or joint.back_gouge
    both = stated or (facts.thin > 12 and not facts.pipe)
    preparation = Preparation(
        form="double-v" if both and facts.thin > 12 else "single-v",
        included_angle_deg=70.0,
        root_gap_mm=1.5,
        root_face_mm=2.0 if facts.thin > 6 else 1.5,
    )
    made = _with(joint, preparation, back_gouge=both, sides="both" if both else joint.sides)
    return made, (
        _reason(facts, tr("wide angle for aluminium, small gap, thick root face against burn-through")),
    )


def _needs_backing(facts: Facts, joint: Joint) -> bool:
    """Processes that bridge no open root: cored wire, self-shielded wire, spray."""
    if joint.backing != "none" or joint.back_gouge or joint.sides == "both":
        return False
    if facts.process in ("136", "114", "138"):
        return True
    return facts.prequalified


def process_of_root(facts: Facts) -> str:
    """Process of the root where the other passes have another one; else empty."""
    return facts.process if facts.intent.fill_process else ""


_CLOSES = {"111": tr_noop("an electrode"), "135": tr_noop("short circuit"), "141": "TIG"}
"""What bridges an open root (common practice)."""


def _v(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    thin = facts.thin
    wide_root = _needs_backing(facts, joint) or joint.backing in ("metal", "ceramic")
    # A TIG root is there to be left as it is, from one side.
    reachable = not facts.pipe and joint.backing == "none" and process_of_root(facts) != "141"
    if joint.back_gouge or joint.sides == "both" or (thin > ONE_SIDE_TO_MM and reachable and not wide_root):
        return _gouged_v(facts, joint)
    if not wide_root and thin > U_FROM_MM:
        return _single_u(facts, joint)
    if wide_root:
        backing = joint.backing if joint.backing != "none" else ("metal" if facts.aws else "ceramic")
        gap = BACKED_GAP_MM[facts.units]
        preparation = Preparation(form="single-v", included_angle_deg=45.0, root_gap_mm=gap, root_face_mm=0.0)
        made = _with(joint, preparation, backing=backing)
        text = tr(
            "single V 45°, gap {gap:g} mm on {backing} backing: an open root is not bridged",
            gap=gap,
            backing=backing,
        )
        return made, (_reason(facts, text),)
    if facts.process == "141":
        gap, land, angle = (2.5, 1.0, 70.0) if thin < 6 else (3.0, 1.5, 60.0)
    elif facts.process == "111":
        gap, land, angle = 3.0, 2.0 if thin > 6 else 1.5, 60.0
    else:
        gap, land, angle = 3.0, 1.5, 60.0
    preparation = Preparation(
        form="single-v", included_angle_deg=angle, root_gap_mm=gap, root_face_mm=min(land, thin / 2)
    )
    text = tr(
        "single V {angle:g}°, open root: gap {gap:g} mm, root face {min:g} mm",
        angle=angle,
        gap=gap,
        min=min(land, thin / 2),
    )
    closes = tr(_CLOSES.get(facts.process, ""))
    wished = facts.intent.transfer
    if closes and wished in (None, "short-circuit", "controlled-short-circuit"):
        text += tr(
            "; {closes} closes it from one side, so that no backing has to be fitted or taken off",
            closes=closes,
        )
    return _with(joint, preparation), (_reason(facts, text),)


def _single_u(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    """A thick wall that is welded from one side: a U takes far less metal than a V, and is machined."""
    gap = 2.0 if facts.process == "141" else 3.0
    preparation = Preparation(
        form="single-u",
        included_angle_deg=20.0,
        root_gap_mm=gap,
        root_face_mm=2.0,
        sides=(PreparedSide(radius_mm=U_RADIUS_MM),),
    )
    text = tr(
        "single U 20°, radius {u_radius_mm:g} mm, open root: gap {gap:g} mm, root face 2 "
        "mm: above {u_from_mm:g} mm from one side a V would take much more metal; the "
        "edges are machined",
        u_radius_mm=U_RADIUS_MM,
        gap=gap,
        u_from_mm=U_FROM_MM,
    )
    return _with(joint, preparation), (_reason(facts, text),)


def _gouged_v(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    both = facts.thin > ONE_SIDE_TO_MM
    preparation = Preparation(
        form="double-v" if both else "single-v",
        included_angle_deg=60.0,
        root_gap_mm=2.0,
        root_face_mm=2.0,
    )
    made = _with(joint, preparation, sides="both", back_gouge=True)
    text = tr(
        "{value} V 60°, gap 2 mm, root face 2 mm, gouged and welded from the back",
        value=tr("double") if both else tr("single"),
    ) + (
        tr(
            ": above {one_side_to_mm:g} mm both sides need less metal and pull less",
            one_side_to_mm=ONE_SIDE_TO_MM,
        )
        if both
        else ""
    )
    return made, (_reason(facts, text),)


def _standing(facts: Facts, joint: Joint) -> tuple[Joint, tuple[Reason, ...]]:
    stem = facts.thicknesses[1]
    backed = joint.backing in ("metal", "ceramic")
    if backed:
        preparation = Preparation(
            form="single-bevel",
            included_angle_deg=45.0,
            root_gap_mm=BACKED_GAP_MM[facts.units],
            root_face_mm=0.0,
        )
        return _with(joint, preparation), (_reason(facts, tr("single bevel 45°, gap 6 mm on backing")),)
    both = stem > ONE_SIDE_TO_MM and joint.kind != "branch"
    gouged = both or joint.sides == "both" or joint.back_gouge or facts.process in ("136", "114", "138")
    gouged = gouged and joint.kind != "branch"
    gap = 2.0 if gouged else 3.0
    preparation = Preparation(
        form="double-bevel" if both else "single-bevel",
        included_angle_deg=45.0,
        root_gap_mm=gap,
        root_face_mm=min(2.0 if gouged else 1.5, stem / 2),
    )
    made = _with(joint, preparation, back_gouge=gouged, sides="both" if gouged else joint.sides)
    text = tr(
        "{value} bevel 45° on the standing member, gap {gap:g} mm",
        value=tr("double") if both else tr("single"),
        gap=gap,
    ) + (tr(", gouged and welded from the back") if gouged else tr(", open root"))
    return made, (_reason(facts, text),)
