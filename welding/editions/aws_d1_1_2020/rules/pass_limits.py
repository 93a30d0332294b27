"""Limits of prequalified passes: electrode size, root, layers, single-pass fillets, width (table 5.2)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.documents.procedure import Joint, Pass
from welding.editions.aws_d1_1_2020.rules.clauses import (
    SAW,
    WIRE,
    Answer,
    attitudes,
    in_column,
    is_root,
    limit_row,
    limits_table,
    path_of,
    units_of,
)
from welding.joints.beads import BeadArea
from welding.language import number, tr
from welding.ranges import Range

_HAIR = 1 + 1e-6


def pass_answers(draft: Draft) -> Iterator[Answer]:
    """Answers on every pass."""
    section = draft.sectioned.section
    beads = {bead.pass_number: bead for bead in section.beads} if section else {}
    single = _single_sides(draft)
    for one in draft.procedure.passes:
        yield from _diameter(draft, one)
        if one.process in SAW:
            yield from _submerged(draft, one)
        bead = beads.get(one.number)
        if draft.procedure.joint and draft.procedure.joint.weld == "fillet":
            if one.side in single:
                yield from _single_fillet(draft, one)
        elif bead is None:
            yield _unknown_bead(one)
        else:
            yield from _thickness(draft, one, bead)
            yield from _width(draft, one, bead)


def _unknown_bead(one: Pass) -> Answer:
    """The joint as stated cannot be drawn, so that nobody knows how thick its layers are."""
    table = limits_table()
    return Answer(
        rule="prequalified.layer-thickness",
        path=path_of(one, "role"),
        verdict="undecided",
        title=tr("Layer thickness is not known, pass {number}", number=one.number),
        message=tr(
            "how thick pass {number} is follows from the joint, which cannot be drawn as stated",
            number=one.number,
        ),
        limit=tr("the limits of table 5.2"),
        remedy=tr("Correct the dimensions of the joint."),
        citation=table.citation,
        unchecked=table.unchecked,
    )


def _single_sides(draft: Draft) -> set[int]:
    sides = [one.side for one in draft.procedure.passes]
    return {side for side in sides if sides.count(side) == 1}


def _answer(
    draft: Draft,
    one: Pass,
    limit: str,
    value_mm: float,
    attitude: str,
    weld: str,
    rule: str,
    field: str,
    words: str,
    remedy: str,
    kind: str = "thickness",
    arranged: bool = False,
) -> Iterator[Answer]:
    row = limit_row(limit, one.process, attitude, weld)
    if row is None:
        return
    units = units_of(draft)
    most = in_column(row, units, "si_mm", "us_in")
    over = value_mm > most * _HAIR
    found, allowed = draft.write(value_mm, kind), draft.write(most, kind)
    table = limits_table()
    yield Answer(
        rule=rule,
        path=path_of(one, field),
        verdict=("undecided" if arranged else "violates") if over else "complies",
        title=tr(
            "{words} {value} the limit, pass {number}",
            words=words,
            value=tr("over") if over else tr("within"),
            number=one.number,
        ),
        message=tr("{words} is {found}", words=words, found=found)
        + (tr(" as the beads are arranged here, layers are not stated") if arranged and over else "")
        + tr(
            "; {value}, up to {allowed} is prequalified.",
            value=attitude or tr("in every position"),
            allowed=allowed,
        ),
        actual=found,
        limit=allowed,
        remedy=remedy,
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )


def _diameter(draft: Draft, one: Pass) -> Iterator[Answer]:
    diameter = one.filler.diameter_mm if one.filler else None
    joint = draft.procedure.joint
    if diameter is None or joint is None:
        return
    weld = "fillet" if joint.weld == "fillet" else "root" if is_root(draft, one) else "groove"
    filler = decoded_of(one)
    basic = bool(filler and (filler.low_hydrogen or filler.designation[3:5] == "14"))
    for attitude in attitudes(draft):
        # Roots have a limit of their own in the flat position only.
        row_weld = (
            weld if weld != "root" or limit_row("diameter", one.process, attitude, "root") else "groove"
        )
        limit = "diameter"
        if basic and limit_row("diameter-low-hydrogen", one.process, attitude):
            limit = "diameter-low-hydrogen"
        yield from _answer(
            draft, one, limit, diameter, attitude, row_weld, "prequalified.diameter", "filler.diameter_mm",
            tr("Electrode diameter"), tr("Take a smaller electrode."), "wire_diameter",
        )  # fmt: skip


def _submerged(draft: Draft, one: Pass) -> Iterator[Answer]:
    """Position and current of submerged arc, which is prequalified flat, and horizontal for fillets."""
    joint, table = draft.procedure.joint, limits_table()
    if joint is None:
        return
    fillet = joint.weld == "fillet"
    for attitude in attitudes(draft):
        out = attitude not in (("flat", "horizontal") if fillet else ("flat",))
        yield Answer(
            rule="prequalified.position",
            path="positions.0",
            verdict="violates" if out else "complies",
            title=tr("Submerged arc {attitude}, pass {number}", attitude=attitude, number=one.number),
            message=tr(
                "Submerged arc is prequalified flat{value}.",
                value=tr(", and horizontal for fillets") if fillet else "",
            ),
            actual=attitude,
            limit=tr("flat or horizontal") if fillet else "flat",
            remedy=tr("Turn the joint, or qualify the procedure by testing."),
            citation=table.citation,
            unchecked=table.unchecked,
        )
    count = one.electrodes.count if one.electrodes else 1
    row = _current_row(draft, joint, one)
    if row is None:
        return
    amps = one.current_a.max if one.current_a else None
    known = count == 1 and amps is not None
    over = amps is not None and amps > row["most_a"] * _HAIR
    yield Answer(
        rule="prequalified.current",
        path=path_of(one, "current_a"),
        verdict="undecided" if not known else "violates" if over else "complies",
        title=tr(
            "Current {value} the limit, pass {number}",
            value=tr("over") if over else tr("within"),
            number=one.number,
        )
        if known
        else tr("Current, pass {number}", number=one.number),
        message=tr("the limits of {count} electrodes are not entered here", count=count)
        if count > 1
        else tr("the current is not stated")
        if amps is None
        else tr("Current is up to {amps:g} A; up to {row} A is prequalified.", amps=amps, row=row["most_a"]),
        actual="" if amps is None else f"{number(amps)} A",
        limit=f"{row['most_a']} A",
        remedy=tr("Lower the current, or qualify the procedure by testing."),
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )


def _current_row(draft: Draft, joint: Joint, one: Pass) -> Mapping[str, Any] | None:
    weld = "fillet" if joint.weld == "fillet" else _groove_pass(draft, joint, one)
    return limit_row("current", one.process, "", weld) if weld else None


def prequalified_current(draft: Draft, one: Pass) -> tuple[str, Range] | None:
    """Most current [A] of a prequalified pass, named; ``None`` where the table has none that can be told."""
    procedure = draft.procedure
    code, joint = procedure.code, procedure.joint
    if code is None or code.route != "prequalified" or joint is None:
        return None
    if one.electrodes is not None and one.electrodes.count > 1:
        return None
    row = _current_row(draft, joint, one)
    return (
        None
        if row is None
        else (f"AWS D1.1:2020, {limits_table().citation.clause}", Range(0.0, float(row["most_a"])))
    )


def _groove_pass(draft: Draft, joint: Joint, one: Pass) -> str:
    """Which line of the current's limits a groove pass is on; empty for caps, which have none."""
    if one.role != "back" and not is_root(draft, one):
        return "" if one.role == "cap" else "fill"
    gap = joint.preparation.root_gap_mm if joint.preparation else None
    return "root-closed" if gap == 0 else "root-open"


def _thickness(draft: Draft, one: Pass, bead: BeadArea) -> Iterator[Answer]:
    if one.role == "back" or is_root(draft, one):
        for attitude in attitudes(draft):
            yield from _answer(
                draft, one, "root-thickness", bead.layer_mm, attitude, "", "prequalified.root-thickness",
                "role", tr("Root pass thickness"), tr("Put down a thinner root."), arranged=bead.arranged,
            )  # fmt: skip
        return
    yield from _answer(
        draft, one, "fill-thickness", bead.layer_mm, "", "", "prequalified.layer-thickness", "role",
        tr("Layer thickness"), tr("Weld in more layers."), arranged=bead.arranged,
    )  # fmt: skip


def _single_fillet(draft: Draft, one: Pass) -> Iterator[Answer]:
    joint = draft.procedure.joint
    leg = max((x for x in (joint.leg1_mm, joint.leg2_mm) if x), default=None) if joint else None
    if leg is None:
        return
    for attitude in attitudes(draft):
        yield from _answer(
            draft, one, "single-pass-fillet", leg, attitude, "", "prequalified.single-pass-fillet", "role",
            tr("Single-pass fillet size"), tr("Weld it in more passes."),
        )  # fmt: skip


def _width(draft: Draft, one: Pass, bead: BeadArea) -> Iterator[Answer]:
    if one.process not in (*WIRE, *SAW) or bead.abreast > 1:
        return
    for attitude in attitudes(draft):
        yield from _answer(
            draft, one, "layer-width", bead.layer_width_mm, attitude, "", "prequalified.layer-width",
            "weave_max_mm", tr("Width of an unsplit layer"), tr("Split the layer into beads side by side."),
            arranged=bead.arranged,
        )  # fmt: skip
