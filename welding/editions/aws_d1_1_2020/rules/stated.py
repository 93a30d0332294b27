"""What a prequalified procedure has to state: without it no clause can say that it is prequalified."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.content import missing_items
from welding.checks.context import Draft
from welding.codebook.table import load_table
from welding.documents.procedure import Joint, Preparation
from welding.editions.aws_d1_1_2020.rules.clauses import PACKAGE, Answer, from_clause
from welding.language import tr

_PREPARATION = "joint.preparation"
_DETAILS = from_clause("clause 5, figures of prequalified joints")


def stated_answers(draft: Draft) -> Iterator[Answer]:
    """An open answer for each fact that is not stated; one for all passes that lack it."""
    table = load_table(PACKAGE, "required_content")
    for row in table.rows:
        if "prequalified" not in row:
            continue
        items = missing_items(draft.procedure, {**row, "processes": row["prequalified"]})
        missing = [one for one in items if not _by_wire_feed(draft, one.path)]
        if missing:
            passes = [one.message.rpartition("pass ")[2] for one in missing if ".*." in row["path"]]
            of = (
                tr(" of pass {passes}", passes=passes[0])
                if len(passes) == 1
                else tr(" of passes {passes}", passes=", ".join(passes))
            )
            verb = "are" if row["path"] == "passes" else "is"
            said = tr(
                "the {row}{value} {verb} not stated", row=row["what"], value=of if passes else "", verb=verb
            )
            yield Answer(
                rule="prequalified.stated",
                path=missing[0].path,
                verdict="undecided",
                title=tr("Not stated: {row}", row=row["what"]),
                message=said,
                remedy=tr("State it."),
                citation=table.citation_of(row),
                unchecked=table.unchecked,
            )
    yield from _of_the_joint(draft)


def _by_wire_feed(draft: Draft, path: str) -> bool:
    """A wire's current may be stated by its feed."""
    _, _, rest = path.partition("passes.")
    index, _, field = rest.partition(".")
    return field == "current_a" and draft.procedure.passes[int(index)].wire_feed_m_min is not None


def _of_the_joint(draft: Draft) -> Iterator[Answer]:
    joint = draft.procedure.joint
    if joint is None or joint.weld == "fillet":
        return
    lacking = lacking_dimensions(joint, joint.preparation)
    sides = {one.side for one in draft.procedure.passes}
    if joint.back_gouge and joint.weld == "cjp-groove" and draft.procedure.passes and 2 not in sides:
        lacking.append(("joint.sides", tr("a pass welded from the gouged side")))
    for path, what in lacking:
        yield Answer(
            rule="prequalified.stated",
            path=path,
            verdict="undecided",
            title=tr("Not stated: {what}", what=what),
            message=tr("{what} is not stated", what=what),
            remedy=tr("State it."),
            citation=_DETAILS,
        )


def lacking_dimensions(joint: Joint, preparation: Preparation | None) -> list[tuple[str, str]]:
    """Path and words of each dimension of a groove that its detail is judged by and that is not stated."""
    if preparation is None:
        return [(_PREPARATION, tr("the form of the groove"))]
    form, found = preparation.form, []
    if form.startswith("flare"):
        return []
    partial = joint.weld == "pjp-groove"
    two = form.startswith("double")
    depths = [one.depth_mm for one in preparation.sides if one.depth_mm is not None]
    if preparation.root_gap_mm is None:
        found.append((f"{_PREPARATION}.root_gap_mm", tr("the root opening")))
    if form == "square":
        return found
    if preparation.root_face_mm is None and not (partial and len(depths) == (2 if two else 1)):
        found.append((f"{_PREPARATION}.root_face_mm", tr("the root face")))
    angles = [one.angle_deg for one in preparation.sides if one.angle_deg is not None]
    if preparation.included_angle_deg is None and len(angles) < (2 if two else 1):
        found.append((f"{_PREPARATION}.included_angle_deg", tr("the groove angle")))
    if form.endswith(("-u", "-j")):
        radii = [one.radius_mm for one in preparation.sides if one.radius_mm is not None]
        if not radii:
            found.append((f"{_PREPARATION}.sides.0.radius_mm", tr("the root radius")))
    if partial and not depths and (two or preparation.root_face_mm is None):
        found.append((f"{_PREPARATION}.sides.0.depth_mm", tr("the depth of the groove")))
    return found
