"""From an edge preparation to the two walls of the groove, over the whole thickness.

Heights count from the far (root) surface up. Every form is flanks set on a land: straight (V, bevel),
hollow (U, J), bulging (flare), in two steps (compound).
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from welding.documents.procedure import Joint, Preparation, PreparedSide
from welding.errors import Problem
from welding.glossary.values import in_words
from welding.joints.walls import Wall, bevelled, bulging, hollowed, straight
from welding.language import tr

WIDEST_GAP_MM = 25.0
"""A root opening beyond this is taken for a slip (common practice; 16 mm is the widest in use)."""
GOUGE_BEYOND_MM = 2.0
"""Back-gouging goes this far past the land into weld metal (common practice)."""
GOUGE_RADIUS_MM = 4.0
"""Half the width that an air-carbon gouge leaves at its bottom (common practice)."""
GOUGE_LEAN_DEG = 10.0

PREPARATION = "joint.preparation"
_BOTH_SIDES = ("double-v", "double-bevel", "double-u", "double-j")
_BOTH_WALLS = ("single-v", "double-v", "single-u", "double-u", "flare-v", "compound-bevel")
_ROUND = ("single-u", "double-u", "single-j", "double-j")
_FLARE = ("flare-v", "flare-bevel")


@dataclass(frozen=True, slots=True, kw_only=True)
class Groove:
    """A cut groove, over the whole thickness.

    Attributes:
        thickness_mm: From the far surface to the face [mm].
        left: Wall at the left, by height over the far surface.
        right: Wall at the right.
        front_low_mm: Where the front side's weld begins.
        back_high_mm: Where the back side's weld ends; zero where nothing is cut at the back.
        gap_mm: Root opening.
        land_mm: Root face; ``None`` where the form has none.
        front_angle_deg: Included angle at the front face; ``None`` where it has none.
        lower_angle_deg: That of the lower flank of a compound bevel.
        back_angle_deg: The same at the back.
        radius_mm: Root radius of U and J, outside radius of a flare; ``None`` elsewhere.
        both_walls: Whether both members are bevelled.
        assumptions: What was taken where nothing is stated.
    """

    thickness_mm: float
    left: Wall
    right: Wall
    front_low_mm: float
    back_high_mm: float
    gap_mm: float
    land_mm: float | None
    front_angle_deg: float | None
    back_angle_deg: float | None
    radius_mm: float | None
    both_walls: bool
    lower_angle_deg: float | None = None
    assumptions: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """A groove, or what is missing for it, or what cannot be."""

    groove: Groove | None = None
    missing: tuple[Problem, ...] = ()
    wrong: tuple[Problem, ...] = ()


def fields_of(joint: Joint) -> tuple[str, ...]:
    """Paths of the fields that a joint's geometry has; a screen shows no others."""
    if joint.weld == "fillet":
        base = ("joint.leg1_mm", "joint.leg2_mm", "joint.throat_mm", "joint.face", "joint.sides")
        height = ("joint.face_height_mm",) if joint.face in ("convex", "concave") else ()
        skewed = ("joint.dihedral_deg",) if joint.kind in ("t", "corner", "branch") else ()
        branch = ("joint.branch_angle_deg",) if joint.kind == "branch" else ()
        return (*base, *height, *skewed, *branch)
    if joint.weld not in ("cjp-groove", "pjp-groove"):
        return ()
    form = joint.preparation.form if joint.preparation else None
    found = ["joint.preparation.form"]
    if form is None:
        return tuple(found)
    found.append(f"{PREPARATION}.root_gap_mm")
    if form in _FLARE:
        found += [f"{PREPARATION}.sides.0.radius_mm", f"{PREPARATION}.sides.0.depth_mm"]
    elif form == "compound-bevel":
        found += [f"{PREPARATION}.sides.0.angle_deg", f"{PREPARATION}.sides.0.depth_mm"]
        found += [f"{PREPARATION}.sides.1.angle_deg", f"{PREPARATION}.root_face_mm"]
    elif form != "square":
        found += [f"{PREPARATION}.included_angle_deg", f"{PREPARATION}.root_face_mm"]
        if form in _ROUND:
            found.append(f"{PREPARATION}.sides.0.radius_mm")
        if form in _BOTH_SIDES:
            found += [f"{PREPARATION}.sides.0.depth_mm", f"{PREPARATION}.sides.1.depth_mm"]
        elif joint.weld == "pjp-groove":
            found.append(f"{PREPARATION}.sides.0.depth_mm")
    if joint.weld == "pjp-groove" or joint.kind == "edge":
        found.append("joint.throat_mm")
    if joint.kind in ("t", "branch"):
        found.append("joint.leg1_mm")
    else:
        found.append("joint.reinforcement_mm")
    if joint.kind != "edge" and form not in _FLARE and joint.weld == "cjp-groove":
        found += ["joint.backing", "joint.back_gouge"]
    found.append("joint.sides")
    return tuple(found)


def cut_groove(joint: Joint, thickness_mm: float) -> Cut:
    """The groove of a joint in a plate of this thickness.

    Args:
        joint: With a preparation; its form, gap, land, angles, depths and radii.
        thickness_mm: Thickness at the joint, the thinner member's; not asked of a flare.
    """
    preparation = joint.preparation
    if preparation is None:
        return Cut(missing=(Problem(PREPARATION, tr("the edge preparation")),))
    missing = tuple(_missing(preparation, joint))
    if missing:
        return Cut(missing=missing)
    if preparation.form in _FLARE:
        unfit = tuple(_unfit(joint, preparation.form))
        return Cut(wrong=unfit) if unfit else _flare(preparation)
    thickness = _edge_depth(joint) if joint.kind == "edge" else thickness_mm
    wrong = (*_unfit(joint, preparation.form), *_wrong(preparation, thickness))
    if wrong:
        return Cut(wrong=wrong)
    return _plain(joint, preparation, thickness)


def _edge_depth(joint: Joint) -> float:
    """An edge weld is as deep as its throat says."""
    return joint.throat_mm or 0.0


def _unfit(joint: Joint, form: str) -> Iterator[Problem]:
    """Forms that a kind of joint cannot have."""
    if joint.kind in ("t", "branch") and form in _BOTH_WALLS and form not in ("compound-bevel", "flare-v"):
        yield Problem(
            f"{PREPARATION}.form",
            tr(
                "a {form_words} bevels both members, and a T joint's through plate is not "
                "bevelled: take a bevel or a J",
                form_words=form_words(form),
            ),
        )
    if joint.kind == "edge" and form in _FLARE:
        yield Problem(f"{PREPARATION}.form", tr("an edge joint lies between flat members, not rounded ones"))
    if joint.kind == "edge" and (form in _BOTH_SIDES or joint.back_gouge):
        yield Problem(f"{PREPARATION}.form", tr("an edge joint is welded from one side only"))


def form_words(form: str) -> str:
    """A form in words.

    Example:
        >>> form_words("single-v")
        'single V'
    """
    return in_words(form)


def _missing(preparation: Preparation, joint: Joint) -> Iterator[Problem]:
    form = preparation.form
    first = preparation.sides[0] if preparation.sides else PreparedSide()
    if preparation.root_gap_mm is None:
        yield Problem(f"{PREPARATION}.root_gap_mm", tr("the root gap"))
    if form in _FLARE:
        if first.radius_mm is None:
            yield Problem(f"{PREPARATION}.sides.0.radius_mm", tr("the outside radius of the rounded member"))
        return
    if joint.kind == "edge" and joint.throat_mm is None:
        yield Problem("joint.throat_mm", tr("the depth of the edge weld"))
    if form == "square":
        if joint.weld == "pjp-groove" and first.depth_mm is None and joint.throat_mm is None:
            yield Problem(f"{PREPARATION}.sides.0.depth_mm", tr("the depth of the weld"))
        return
    if form == "compound-bevel":
        for index, words in ((0, "lower"), (1, "upper")):
            side = preparation.sides[index] if index < len(preparation.sides) else PreparedSide()
            if side.angle_deg is None:
                yield Problem(
                    f"{PREPARATION}.sides.{index}.angle_deg",
                    tr("the included angle of the {words} flank", words=words),
                )
        if first.depth_mm is None:
            yield Problem(f"{PREPARATION}.sides.0.depth_mm", tr("the depth of the lower flank"))
    elif preparation.included_angle_deg is None and first.angle_deg is None:
        yield Problem(f"{PREPARATION}.included_angle_deg", tr("the included angle"))
    if form in _ROUND and first.radius_mm is None:
        yield Problem(f"{PREPARATION}.sides.0.radius_mm", tr("the root radius"))
    if preparation.root_face_mm is None and (form == "compound-bevel" or first.depth_mm is None):
        yield Problem(f"{PREPARATION}.root_face_mm", tr("the root face"))


def _angles(preparation: Preparation) -> list[tuple[str, float]]:
    """Included angles with their paths: of both flanks of a compound bevel, else front and back."""
    angles = []
    if preparation.included_angle_deg is not None and preparation.form != "compound-bevel":
        angles.append((f"{PREPARATION}.included_angle_deg", preparation.included_angle_deg))
    angles += [
        (f"{PREPARATION}.sides.{index}.angle_deg", side.angle_deg)
        for index, side in enumerate(preparation.sides)
        if side.angle_deg is not None
    ]
    return angles


def _wrong(preparation: Preparation, thickness: float) -> Iterator[Problem]:
    form, gap = preparation.form, preparation.root_gap_mm or 0.0
    if gap > WIDEST_GAP_MM:
        yield Problem(
            f"{PREPARATION}.root_gap_mm",
            tr(
                "a root gap of {gap:g} mm cannot be bridged; up to {widest_gap_mm:g} mm is taken",
                gap=gap,
                widest_gap_mm=WIDEST_GAP_MM,
            ),
        )
    land = preparation.root_face_mm
    if form == "square":
        return
    if land is not None and land > thickness * (1 + 1e-9):
        yield Problem(
            f"{PREPARATION}.root_face_mm",
            tr(
                "root_face_mm = {root_face:g}, allowed is 0 to the thickness, {thickness:g} mm",
                root_face=land,
                thickness=thickness,
            ),
        )
        return
    most = 180.0 if form in _BOTH_WALLS else 90.0
    word = form_words(form)
    for path, angle in _angles(preparation):
        if angle <= 0 and form not in _ROUND:
            yield Problem(
                path,
                tr(
                    "a {word} of {angle:g}° has no bevel: give an angle above 0° or take a square groove",
                    word=word,
                    angle=angle,
                ),
            )
        elif angle >= most:
            yield Problem(
                path,
                tr(
                    "an angle of {angle:g}° leaves no edge: a {word} has less than {most:g}°",
                    angle=angle,
                    word=word,
                    most=most,
                ),
            )
    depths = [side.depth_mm for side in preparation.sides]
    known = [depth for depth in depths if depth is not None]
    if form in _BOTH_SIDES:
        whole = sum(known[:2]) + (land or 0.0)
        full = len(known) >= 2 and land is not None
    else:
        whole = (known[0] if known else 0.0) + (land or 0.0)
        full = bool(known) and land is not None and form != "compound-bevel"
    if whole > thickness + 0.05 or (full and abs(whole - thickness) > 0.05):
        yield Problem(
            f"{PREPARATION}.sides.0.depth_mm",
            tr(
                "depth and root face make {whole:g} mm, the plate has {thickness:g} mm",
                whole=whole,
                thickness=thickness,
            ),
        )


def _flare(preparation: Preparation) -> Cut:
    side = preparation.sides[0]
    radius, gap = side.radius_mm or 0.0, preparation.root_gap_mm or 0.0
    depth = side.depth_mm if side.depth_mm is not None else radius
    if radius <= 0:
        return Cut(wrong=(Problem(f"{PREPARATION}.sides.0.radius_mm", tr("the radius must be above 0 mm")),))
    if gap > WIDEST_GAP_MM:
        return Cut(wrong=tuple(_wrong(preparation, depth)))
    if not 0 < depth <= radius:
        return Cut(
            wrong=(
                Problem(
                    f"{PREPARATION}.sides.0.depth_mm",
                    tr(
                        "a depth of {depth:g} mm does not lie between 0 and the radius, {radius:g} mm",
                        depth=depth,
                        radius=radius,
                    ),
                ),
            )
        )
    bulge = bulging(depth, gap / 2, radius)
    both = preparation.form == "flare-v"
    return Cut(
        groove=Groove(
            thickness_mm=depth,
            left=bulge if both else straight(depth, gap / 2, gap / 2),
            right=bulge,
            front_low_mm=0.0,
            back_high_mm=0.0,
            gap_mm=gap,
            land_mm=None,
            front_angle_deg=None,
            back_angle_deg=None,
            radius_mm=radius,
            both_walls=both,
            assumptions=(tr("weld metal fuses down to where the members touch"),),
        )
    )


def _flank(preparation: Preparation, side: PreparedSide, depth: float, out: float, angle: float) -> Wall:
    if preparation.form in _ROUND:
        return hollowed(depth, out, side.radius_mm or 0.0, angle)
    return bevelled(depth, out, angle)


def _plain(joint: Joint, preparation: Preparation, thickness: float) -> Cut:
    form, gap = preparation.form, preparation.root_gap_mm or 0.0
    first = preparation.sides[0] if preparation.sides else PreparedSide()
    second = preparation.sides[1] if len(preparation.sides) > 1 else first
    double = form in _BOTH_SIDES
    both_walls = form in _BOTH_WALLS and joint.kind not in ("t", "branch")
    front, back, land = _depths(preparation, thickness, joint)
    share = 0.5 if both_walls else 1.0
    compound = form == "compound-bevel"
    front_angle = second.angle_deg if compound else _angle(first, preparation)
    back_angle = _angle(second, preparation) if double else None

    def wall(prepared: bool) -> Wall:
        if not prepared or form == "square":
            return straight(thickness, gap / 2, gap / 2)
        if compound:
            lower = bevelled(first.depth_mm or 0.0, gap / 2, (first.angle_deg or 0.0) * share)
            upper_depth = front - (first.depth_mm or 0.0)
            flank = lower.on(bevelled(upper_depth, lower.at(lower.top), (second.angle_deg or 0.0) * share))
        else:
            flank = _flank(preparation, first, front, gap / 2, (front_angle or 0.0) * share)
        result = straight(land, gap / 2, gap / 2).on(flank)
        if double:
            under = _flank(preparation, second, back, gap / 2, (back_angle or 0.0) * share)
            result = under.flipped().on(result)
        return result

    left, right = wall(both_walls), wall(prepared=True)
    partial = joint.weld == "pjp-groove"
    # Without an opening there is nothing to fill between the lands.
    front_low = thickness - front if partial else back + (land if gap == 0 else 0.0)
    back_high = back
    assumptions: tuple[str, ...] = ()
    if joint.back_gouge and not partial:
        depth = min(back + land + GOUGE_BEYOND_MM, 0.9 * thickness)
        through = joint.kind in ("t", "branch", "corner")
        left, right, front_low = _gouged(left, right, thickness, depth, both=not through)
        back_high = front_low
        assumptions = (
            tr(
                "gouged from the back {depth:.1f} mm deep, {gouge_radius_mm:g} mm bottom radius",
                depth=depth,
                gouge_radius_mm=GOUGE_RADIUS_MM,
            ),
        )
    return Cut(
        groove=Groove(
            thickness_mm=thickness,
            left=left,
            right=right,
            front_low_mm=front_low,
            back_high_mm=back_high,
            gap_mm=gap,
            land_mm=None if form == "square" else land,
            front_angle_deg=None if form == "square" else front_angle,
            back_angle_deg=back_angle,
            radius_mm=first.radius_mm if form in _ROUND else None,
            both_walls=both_walls,
            lower_angle_deg=first.angle_deg if compound else None,
            assumptions=assumptions,
        )
    )


def _angle(side: PreparedSide, preparation: Preparation) -> float | None:
    if side.angle_deg is not None:
        return side.angle_deg
    return preparation.included_angle_deg


def _depths(preparation: Preparation, thickness: float, joint: Joint) -> tuple[float, float, float]:
    """Depth of the front side, of the back side, and the land between or under them."""
    first = preparation.sides[0] if preparation.sides else PreparedSide()
    if preparation.form == "square":
        depth = first.depth_mm if first.depth_mm is not None else joint.throat_mm
        if joint.weld == "pjp-groove" and depth is not None:
            return min(depth, thickness), 0.0, max(thickness - depth, 0.0)
        return 0.0, 0.0, thickness
    land = preparation.root_face_mm
    if preparation.form not in _BOTH_SIDES:
        depth = None if preparation.form == "compound-bevel" else first.depth_mm
        if land is None:
            land = thickness - (depth or 0.0)
        return thickness - land, 0.0, land
    front = first.depth_mm
    back = preparation.sides[1].depth_mm if len(preparation.sides) > 1 else None
    if land is None:
        front = front or 0.0
        back = front if back is None else back
        return front, back, max(thickness - front - back, 0.0)
    rest = thickness - land
    if front is None and back is None:
        front = rest / 2
    elif front is None:
        front = rest - (back or 0.0)
    return front, rest - front, land


def _gouged(
    left: Wall, right: Wall, thickness: float, depth: float, *, both: bool
) -> tuple[Wall, Wall, float]:
    """The walls with a gouge from the far side, and the height up to which the back side fills it.

    A through plate at the left is not gouged: the gouge takes its metal from the standing member.
    """
    groove = hollowed(depth, 0.0, GOUGE_RADIUS_MM, GOUGE_LEAN_DEG).flipped()
    gouge = groove.on(straight(thickness - depth, -1.0, -1.0)) if depth < thickness else groove
    ends = [_highest_where_wider(gouge, wall, depth) for wall in ((left, right) if both else (right,))]
    return left.wider_of(gouge) if both else left, right.wider_of(gouge), min(ends)


def _highest_where_wider(gouge: Wall, wall: Wall, depth: float) -> float:
    """Highest level at which the gouge is wider than the groove; its own depth where it never is."""
    steps = 60
    for step in range(1, steps + 1):
        low = depth * (1 - step / steps)
        if gouge.at(low) >= wall.at(low):
            high = low + depth / steps
            for _ in range(45):
                middle = (low + high) / 2
                if gouge.at(middle) >= wall.at(middle):
                    low = middle
                else:
                    high = middle
            return low
    return depth
