"""Does a groove match a prequalified detail, dimension by dimension (AWS D1.1:2020, figures 5.1 and 5.2)?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from welding.checks.context import Draft
from welding.codebook.table import load_table
from welding.documents.fields import UnitColumn
from welding.documents.procedure import Joint, Preparation
from welding.editions.aws_d1_1_2020.rules.clauses import (
    LETTERS,
    PACKAGE,
    SAW,
    Answer,
    attitudes,
    in_column,
    units_of,
)
from welding.glossary.values import in_words
from welding.language import number, tr

_SLACK_MM, _SLACK_DEG = 1e-3, 1e-6
RADIUS_PLUS_MM = {"si": 3.0, "us": 0.125 * 25.4}
PREPARATION = "joint.preparation"


@dataclass(frozen=True, slots=True)
class _Asked:
    """What of a joint a detail is asked about."""

    draft: Draft
    joint: Joint
    preparation: Preparation
    thickness_mm: float
    units: UnitColumn
    back: str


def detail_answers(draft: Draft) -> Iterator[Answer]:
    """Answers on a groove's detail: one that names it, or one for every dimension that the nearest lacks."""
    joint = draft.procedure.joint
    thicknesses = [m.thickness_mm for m in draft.procedure.base_metals if m.thickness_mm]
    if joint is None or joint.weld == "fillet" or joint.preparation is None or not thicknesses:
        return
    standing = joint.kind in ("t", "corner") and len(thicknesses) > 1
    asked = _Asked(
        draft=draft,
        joint=joint,
        preparation=joint.preparation,
        thickness_mm=thicknesses[1] if standing else min(thicknesses),
        units=units_of(draft),
        back=_back(joint),
    )
    table = load_table(PACKAGE, "prequalified_joints")
    rows = [row for row in table.rows if _same_kind(asked, row)]
    if not rows:
        yield _no_detail(asked)
        return
    judged = [(list(_mismatches(asked, row)), row) for row in rows]
    wrong, row = min(judged, key=lambda pair: len(pair[0]))
    if wrong:
        yield from wrong
        return
    yield Answer(
        rule="prequalified.joint",
        path=PREPARATION,
        verdict="complies",
        title=tr("Joint detail {row}", row=row["detail"]),
        message=tr(
            "The joint is detail {row} as detailed. At fit-up {fit_up}.",
            row=row["detail"],
            fit_up=_fit_up(asked, row),
        ),
        actual=row["detail"],
        limit=tr("a prequalified detail"),
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )


def _back(joint: Joint) -> str:
    if joint.backing == "metal":  # other than steel has to be shown by test
        return "backing"
    return "gouge" if joint.back_gouge else "none"


def _same_kind(asked: _Asked, row: Mapping[str, Any]) -> bool:
    weld = "pjp" if asked.joint.weld == "pjp-groove" else "cjp"
    processes = {one.process for one in asked.draft.procedure.passes}
    return (
        row["weld"] == weld
        and asked.joint.kind in row["kinds"]
        and row["form"] == asked.preparation.form
        and processes <= set(row["processes"])
        and (weld == "pjp" or row["back"] == asked.back)
    )


def _no_detail(asked: _Asked) -> Answer:
    table = load_table(PACKAGE, "prequalified_joints")
    open_root = asked.joint.weld == "cjp-groove" and asked.back == "none"
    form = in_words(asked.preparation.form)
    not_steel = asked.joint.backing in ("ceramic", "flux")
    if not open_root and not _is_entered(asked):
        return Answer(
            rule="prequalified.joint",
            path=f"{PREPARATION}.form",
            verdict="undecided",
            title=tr("Details of this kind are not entered"),
            message=tr("the details of a {form} for these processes are not entered here", form=form),
            actual=form,
            limit=tr("a prequalified detail"),
            remedy=tr("Look the detail up in the figures of clause 5."),
            citation=table.citation,
            unchecked=table.unchecked,
        )
    return Answer(
        rule="prequalified.joint",
        path="joint.backing" if open_root else f"{PREPARATION}.form",
        verdict="violates",
        title=tr("Backing other than steel is not prequalified")
        if open_root and not_steel
        else tr("Open root is not prequalified")
        if open_root
        else tr("No prequalified detail"),
        message=tr(
            "Backing of {backing} is not steel backing, which alone is prequalified.",
            backing=asked.joint.backing,
        )
        if open_root and not_steel
        else tr("A CJP groove weld from one side without backing is no prequalified detail.")
        if open_root
        else tr(
            "No detail known here is a {form} on a {kind} joint for these processes.",
            form=form,
            kind=asked.joint.kind,
        ),
        actual=(tr("{backing} backing", backing=asked.joint.backing) if not_steel else tr("open root"))
        if open_root
        else form,
        limit=tr("a prequalified detail"),
        remedy=tr("Add steel backing, gouge the root and weld it from the back, or qualify it by testing."),
        citation=table.citation,
        unchecked=table.unchecked,
    )


def _is_entered(asked: _Asked) -> bool:
    """Whether the table has details of this form for these processes at all: flare and SAW it has not."""
    weld = "pjp" if asked.joint.weld == "pjp-groove" else "cjp"
    processes = {one.process for one in asked.draft.procedure.passes}
    table = load_table(PACKAGE, "prequalified_joints")
    known = {process for row in table.rows for process in row["processes"]}
    # A process that the code does not prequalify at all is told elsewhere.
    return not (processes & set(SAW)) - known and any(
        row["weld"] == weld and row["form"] == asked.preparation.form for row in table.rows
    )


def _mismatches(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    yield from _positions(asked, row)
    yield from _plate(asked, row)
    yield from _gap(asked, row)
    yield from _land(asked, row)
    yield from _angle(asked, row)
    yield from _radius(asked, row)
    yield from _size(asked, row)


def _tolerance(row: Mapping[str, Any]) -> Mapping[str, Any]:
    rows = load_table(PACKAGE, "joint_tolerances").rows
    return next(one for one in rows if one["set"] == row["tolerance"])


def _wrong(
    asked: _Asked,
    row: Mapping[str, Any],
    rule: str,
    path: str,
    words: str,
    actual: str,
    limit: str,
    remedy: str,
) -> Answer:
    table = load_table(PACKAGE, "prequalified_joints")
    return Answer(
        rule=f"prequalified.{rule}",
        path=path,
        verdict="violates",
        title=tr("{words} is outside detail {row}", words=words, row=row["detail"]),
        message=tr(
            "{words} {actual}; detail {row} has {limit}.",
            words=words,
            actual=actual,
            row=row["detail"],
            limit=limit,
        ),
        actual=actual,
        limit=limit,
        remedy=remedy,
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )


def _positions(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    found = [LETTERS[one] for one in attitudes(asked.draft)]
    missing = [letter for letter in found if letter not in row["positions"]]
    if missing:
        yield _wrong(
            asked,
            row,
            "position",
            "positions.0",
            "Position",
            ", ".join(missing),
            ", ".join(row["positions"]),
            tr("Choose a detail for this position."),
        )


def _plate(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    t, write = asked.thickness_mm, asked.draft.write
    if "to_mm" in row:
        most = in_column(row, asked.units, "to_mm", "to_in")
        if t > most + _SLACK_MM:
            yield _wrong(
                asked,
                row,
                "thickness",
                "base_metals.0.thickness_mm",
                "Thickness",
                write(t, "thickness"),
                tr("up to {most}", most=write(most, "thickness")),
                tr("Choose a detail for this thickness."),
            )
    if "from_mm" in row:
        least = in_column(row, asked.units, "from_mm", "from_in")
        if t < least - _SLACK_MM:
            yield _wrong(
                asked,
                row,
                "thickness",
                "base_metals.0.thickness_mm",
                "Thickness",
                write(t, "thickness"),
                tr("{least} and more", least=write(least, "thickness")),
                tr("Choose a detail for this thickness."),
            )


def _gap_range(asked: _Asked, row: Mapping[str, Any]) -> tuple[float, float]:
    """Gap as printed [mm], least and most, without tolerance."""
    if "gap_rule" in row:
        value = asked.thickness_mm * (0.5 if row["gap_rule"] == "t/2" else 1.0)
        return value, value
    if asked.units == "si":
        return row["gap_mm"][0], row["gap_mm"][1]
    return row["gap_in"][0] * 25.4, row["gap_in"][1] * 25.4


def _gap(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    gap = asked.preparation.root_gap_mm
    if gap is None:
        return
    tolerance = _tolerance(row)
    low, high = _gap_range(asked, row)
    low -= in_column(tolerance, asked.units, "gap_minus_mm", "gap_minus_in")
    high += in_column(tolerance, asked.units, "gap_plus_mm", "gap_plus_in")
    if not low - _SLACK_MM <= gap <= high + _SLACK_MM:
        write = asked.draft.write
        yield _wrong(
            asked,
            row,
            "root-opening",
            f"{PREPARATION}.root_gap_mm",
            tr("Root opening"),
            write(gap, "gap"),
            tr("{low} to {high} as detailed", low=write(low, "gap"), high=write(high, "gap")),
            tr("Correct the root opening."),
        )


def _land(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    land = asked.preparation.root_face_mm
    if land is None or asked.preparation.form == "square":
        return
    write = asked.draft.write
    if "land_mm" not in row:
        low, high = 0.0, 0.0
    elif asked.units == "si":
        low, high = row["land_mm"]
    else:
        low, high = (value * 25.4 for value in row["land_in"])
    high += in_column(_tolerance(row), asked.units, "land_plus_mm", "land_plus_in")
    if not low - _SLACK_MM <= land <= high + _SLACK_MM:
        limit = (
            tr("{low} to {high}", low=write(low, "gap"), high=write(high, "gap"))
            if high < 500
            else tr("{low} and more", low=write(low, "gap"))
        )
        yield _wrong(
            asked,
            row,
            "root-face",
            f"{PREPARATION}.root_face_mm",
            tr("Root face"),
            write(land, "gap"),
            limit,
            tr("Correct the root face."),
        )


def _angle(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    if "angle_deg" not in row:
        return
    most = row["angle_deg"] + _tolerance(row)["angle_plus_deg"]
    sides = [side.angle_deg for side in asked.preparation.sides if side.angle_deg is not None]
    stated = (
        [asked.preparation.included_angle_deg] if asked.preparation.included_angle_deg is not None else []
    )
    for angle in dict.fromkeys(sides or stated):
        if not row["angle_deg"] - _SLACK_DEG <= angle <= most + _SLACK_DEG:
            yield _wrong(
                asked,
                row,
                "groove-angle",
                f"{PREPARATION}.included_angle_deg",
                tr("Groove angle"),
                f"{number(angle)}°",
                tr("{row:g}° to {most:g}° as detailed", row=row["angle_deg"], most=most),
                tr("Correct the groove angle."),
            )


def _radius(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    if "radius_mm" not in row:
        return
    least = in_column(row, asked.units, "radius_mm", "radius_in")
    most = least + RADIUS_PLUS_MM[asked.units]
    radii = [side.radius_mm for side in asked.preparation.sides if side.radius_mm is not None]
    for radius in dict.fromkeys(radii):
        if not least - _SLACK_MM <= radius <= most + _SLACK_MM:
            write = asked.draft.write
            yield _wrong(
                asked,
                row,
                "radius",
                f"{PREPARATION}.sides.0.radius_mm",
                tr("Root radius"),
                write(radius, "gap"),
                tr("{least} to {most}", least=write(least, "gap"), most=write(most, "gap")),
                tr("Correct the root radius."),
            )


def _size(asked: _Asked, row: Mapping[str, Any]) -> Iterator[Answer]:
    """A partial weld's size against its groove depth."""
    if row["weld"] != "pjp" or asked.joint.throat_mm is None:
        return
    depths = [side.depth_mm for side in asked.preparation.sides if side.depth_mm is not None]
    if not depths:
        return
    depth = sum(depths)
    lacking = in_column(row, asked.units, "deduct_mm", "deduct_in") if "deduct_mm" in row else 0.0
    if asked.joint.throat_mm > depth - lacking + _SLACK_MM:
        write = asked.draft.write
        yield _wrong(
            asked,
            row,
            "weld-size",
            "joint.throat_mm",
            tr("Weld size"),
            write(asked.joint.throat_mm, "thickness"),
            tr(
                "up to {depth} from a groove {depth2} deep",
                depth=write(depth - lacking, "thickness"),
                depth2=write(depth, "thickness"),
            ),
            tr("Cut the groove deeper, or count on less."),
        )


def _fit_up(asked: _Asked, row: Mapping[str, Any]) -> str:
    """Tolerances at fit-up, in words."""
    tolerance, write = _tolerance(row), asked.draft.write
    low, high = _gap_range(asked, row)
    low -= in_column(tolerance, asked.units, "fit_minus_mm", "fit_minus_in")
    high += in_column(tolerance, asked.units, "fit_plus_mm", "fit_plus_in")
    text = tr("the gap may be {max} to {high}", max=write(max(low, 0.0), "gap"), high=write(high, "gap"))
    if "angle_deg" in row:
        text += tr(
            ", the angle {row:g}° to {row2:g}°",
            row=row["angle_deg"] - tolerance["angle_fit_minus_deg"],
            row2=row["angle_deg"] + tolerance["angle_plus_deg"],
        )
    return text
