"""What the prequalified rules do not reach at all: thin sheet, acute fillets, other welds, wide ranges."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from welding.checks.context import Draft
from welding.codebook.table import load_table
from welding.documents.procedure import Pass
from welding.editions.aws_d1_1_2020.rules.clauses import (
    MM_PER_INCH,
    PACKAGE,
    Answer,
    attitudes,
    from_clause,
    in_column,
    path_of,
    units_of,
)
from welding.language import number, tr, tr_noop
from welding.ranges import Range

LEAST_MM = {"si": 3.0, "us": MM_PER_INCH / 8}
"""Thinnest steel of the code, 1/8 in [3 mm] (clause 1, scope; from memory)."""
_DRAWN = ("cjp-groove", "pjp-groove", "fillet")
_VALUES: dict[str, tuple[str, str, str, Callable[[Pass], Range | None]]] = {
    "current_a": ("Current", "current", "current_a", lambda one: one.current_a),
    "voltage_v": ("Voltage", "voltage", "voltage_v", lambda one: one.voltage_v),
    "wire_feed_m_min": (
        tr_noop("Wire feed"),
        "wire_feed",
        "wire_feed_m_min",
        lambda one: one.wire_feed_m_min,
    ),
    "travel_mm_min": (tr_noop("Travel speed"), "travel", "travel_mm_min", lambda one: one.travel_mm_min),
    "gas_flow_l_min": (
        tr_noop("Gas flow"),
        "flow",
        "gas.flow_l_min",
        lambda one: one.gas.flow_l_min if one.gas else None,
    ),
}


def scope_answers(draft: Draft) -> Iterator[Answer]:
    """Answers on what lies outside the prequalified rules, whatever the joint's detail."""
    yield from _thin(draft)
    yield from _weld(draft)
    yield from _skewed(draft)
    yield from _tested(draft)
    for one in draft.procedure.passes:
        yield from _spread(draft, one)


def _tested(draft: Draft) -> Iterator[Answer]:
    """What the contract asks to be tested is met by a test: nothing is tested of a prequalified procedure."""
    asked = draft.procedure.requirements
    if asked is None:
        return
    for wanted, field, title in (
        (asked.impact, "impact", tr("Impact tests are required")),
        (asked.hardness, "hardness", tr("Hardness tests are required")),
    ):
        if wanted:
            yield Answer(
                rule="prequalified.tested",
                path=f"requirements.{field}",
                verdict="violates",
                title=title,
                message=tr("{title}: they are part of a qualification by test.", title=title),
                remedy=tr("Qualify the procedure by test."),
                citation=from_clause("clause 6", "medium"),
            )


def _thin(draft: Draft) -> Iterator[Answer]:
    least = LEAST_MM[units_of(draft)]
    for index, metal in enumerate(draft.procedure.base_metals):
        t = metal.thickness_mm
        if t is not None and t < least * (1 - 1e-6):
            found, limit = draft.write(t, "thickness"), draft.write(least, "thickness")
            yield Answer(
                rule="prequalified.scope",
                path=f"base_metals.{index}.thickness_mm",
                verdict="violates",
                title=tr("Thinner than the code is for"),
                message=tr(
                    "Metal {index} is {found}; the code is for steel of {limit} and more.",
                    index=index + 1,
                    found=found,
                    limit=limit,
                ),
                actual=found,
                limit=tr("{limit} and more", limit=limit),
                remedy=tr("Qualify it to the code for sheet steel."),
                citation=from_clause("clause 1, scope"),
            )


def _weld(draft: Draft) -> Iterator[Answer]:
    """A weld whose own rules are not entered, or whose preparation nobody stated, is not prequalified."""
    joint = draft.procedure.joint
    if joint is None:
        return
    missing = ""
    if joint.weld not in _DRAWN:
        missing = tr("the rules for a {weld} weld are not entered here", weld=joint.weld)
    elif joint.weld != "fillet" and joint.preparation is None:
        missing = tr("the groove is not stated")
    elif any(metal.thickness_mm is None for metal in draft.procedure.base_metals):
        missing = tr("the thickness of a metal is not stated")
    if missing:
        yield Answer(
            rule="prequalified.joint",
            path="joint.preparation" if "groove" in missing else "joint.weld",
            verdict="undecided",
            title=tr("Joint detail is open"),
            message=missing,
            limit=tr("a prequalified detail"),
            remedy=tr("State it.") if "stated" in missing else tr("Look the weld up in clause 5."),
            citation=from_clause("clause 5, joint details"),
        )


def _skewed(draft: Draft) -> Iterator[Answer]:
    joint = draft.procedure.joint
    angle = joint.dihedral_deg if joint else None
    if joint is None or joint.weld != "fillet" or angle is None:
        return
    acute = min(angle, 180 - angle)
    table = load_table(PACKAGE, "skewed_fillets")
    if acute >= max(row["below_deg"] for row in table.rows) - 1e-6:
        return
    least = min(row["from_deg"] for row in table.rows)
    shared: dict[str, Any] = {
        "rule": "prequalified.skewed",
        "path": "joint.dihedral_deg",
        "actual": f"{number(angle)}°",
        "citation": table.citation,
        "unchecked": table.unchecked,
    }
    if acute < least - 1e-6:
        yield Answer(
            verdict="violates",
            title=tr("Too acute for a prequalified fillet"),
            message=tr(
                "The members stand at {acute:g}°; below {least:g}° no fillet is prequalified.",
                acute=acute,
                least=least,
            ),
            limit=tr("{least:g}° and more", least=least),
            remedy=tr("Qualify it by testing."),
            **shared,
        )
        return
    losses = [_z_loss_mm(draft, one, acute) for one in draft.procedure.passes]
    known = [loss for loss in losses if loss is not None]
    if len(known) < len(losses):
        message = tr("no Z-loss is entered for one of the processes at {acute:g}°", acute=acute)
    elif max(known, default=0.0) > 0:
        lost = draft.write(max(known), "thickness")
        message = tr(
            "at {acute:g}° the throat loses {lost} (Z-loss): whether the stated size allows for it",
            acute=acute,
            lost=lost,
        )
    else:
        return
    yield Answer(
        verdict="undecided",
        title=tr("Z-loss of the acute side"),
        message=message,
        limit=tr("a throat with the Z-loss added"),
        remedy=tr("Have the engineer confirm the effective throat."),
        **shared,
    )


def _z_loss_mm(draft: Draft, one: Pass, acute_deg: float) -> float | None:
    """Greatest loss of a pass over the positions; ``None`` where no row is known."""
    table = load_table(PACKAGE, "skewed_fillets")
    found: list[float] = []
    for attitude in attitudes(draft) or ["flat"]:
        row = next(
            (
                row
                for row in table.rows
                if row["from_deg"] - 1e-6 <= acute_deg < row["below_deg"] - 1e-6
                and one.process in row["processes"]
                and row["upright"] == (attitude in ("vertical", "overhead"))
            ),
            None,
        )
        if row is None:
            return None
        found.append(in_column(row, units_of(draft), "z_mm", "z_in"))
    return max(found)


def _spread(draft: Draft, one: Pass) -> Iterator[Answer]:
    table = load_table(PACKAGE, "prequalified_variables")
    for row in table.rows:
        if one.process not in row["processes"]:
            continue
        source, quantity, field, of = _VALUES[row["variable"]]
        words = tr(source)
        stated = of(one)
        if stated is None or stated.min <= 0:
            continue
        minus, plus = row["minus_percent"] / 100, row["plus_percent"] / 100
        wide = stated.max / stated.min > (1 + plus) / (1 - minus) * (1 + 1e-6)
        citation = table.citation_of(row)
        sure = citation.confidence != "low"
        low, high = (draft.write(end, quantity) for end in (stated.min, stated.max))
        band = (
            f"±{number(row['plus_percent'])} %"
            if minus == plus
            else f"-{number(100 * minus)} / +{number(100 * plus)} %"
        )
        yield Answer(
            rule="prequalified.spread",
            path=path_of(one, field),
            verdict="complies" if not wide else "violates" if sure else "undecided",
            title=tr(
                "{words} {value}, pass {number}",
                words=words,
                value=tr("spreads too far") if wide else tr("within its band"),
                number=one.number,
            ),
            message=tr(
                "{words} {low} to {high} is {value} {band} about one value.",
                words=words,
                low=low,
                high=high,
                value=tr("over") if wide else tr("within"),
                band=band,
            ),
            actual=tr("{low} to {high}", low=low, high=high),
            limit=tr("{band} about one value", band=band),
            remedy=tr("State a narrower range, or a procedure for each setting."),
            citation=citation,
            unchecked=table.unchecked_of(row),
        )
