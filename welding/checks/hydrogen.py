"""Hydrogen of the deposit against the steel: hard zones crack on what soft ones bear."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.checks.saying import ask, of_pass
from welding.codebook.table import load_table
from welding.consumables.designations.model import Decoded
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.language import number, tr
from welding.metals.catalogue import Metal

_STAINLESS = ("AWS A5.4", "AWS A5.9", "AWS A5.22", "ISO 14343-A", "ISO 3581-A", "ISO 17633-A", "AWS A5.11",
              "ISO 14172")  # fmt: skip
"""Austenitic and nickel deposits keep their hydrogen; they are judged by no mark."""
PRACTISED_TO_MM = 20.0
_LOW_HYDROGEN_ENDS_ML_100G = 15.0
_UNMARKED_OTHERS_ML_100G = 16.0
"""What a covering that is no low-hydrogen one brings at the least (common practice)."""


def hydrogen_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass's filler against the most demanding metal."""
    table = load_table("welding.checks", "hydrogen_by_group")
    rows = [
        row
        for one in draft.procedure.base_metals
        if (metal := draft.metal(one))
        and (row := _row(_group(metal), table.rows))
        and (one.thickness_mm or 0.0) >= row["from_mm"]
    ]
    if not rows:
        return
    row = min(rows, key=lambda one: one["most_ml_100g"])
    for index, one in enumerate(draft.procedure.passes):
        filler = decoded_of(one)
        if filler is None or filler.system in _STAINLESS or filler.product.startswith(("solid", "rod")):
            continue  # bare wire and rod bring next to none
        if _practised_root(draft, one, filler, row):
            continue
        yield from _judge(draft, index, one, filler, row)


def _practised_root(draft: Draft, one: Pass, filler: Decoded, row: Mapping[str, Any]) -> bool:
    """A cellulosic root of pipe in mild steel, or a whole pipeline weld: the hot pass follows at once.

    Common practice where the wall is no thicker than ``PRACTISED_TO_MM``.
    """
    pipe = any(base.outside_diameter_mm for base in draft.procedure.base_metals)
    wall = max((base.thickness_mm or 0.0 for base in draft.procedure.base_metals), default=0.0)
    if filler.low_hydrogen is not False or not pipe or wall > PRACTISED_TO_MM or row["most_ml_100g"] < 10:
        return False
    names = [(base.designation or "").upper() for base in draft.procedure.base_metals]
    return one.role == "root" or all("5L" in name or name.startswith(("X", "L")) for name in names)


def _group(metal: Metal) -> str:
    """Group of the metal; mild steel that is in group 11 for its carbon alone stands apart."""
    mild = metal.iso_15608.startswith("11") and metal.aws_d1_1 == "I"
    return "11 mild" if mild else metal.iso_15608


def _row(group: str, rows: tuple[Mapping[str, Any], ...]) -> Mapping[str, Any] | None:
    return next((row for row in rows if row["group"] in (group, group.split(".")[0])), None)


def _judge(draft: Draft, index: int, one: Pass, filler: Decoded, row: Mapping[str, Any]) -> Iterator[Finding]:
    table = load_table("welding.checks", "hydrogen_by_group")
    most = float(row["most_ml_100g"])
    stated = draft.procedure.thermal.hydrogen_ml_100g if draft.procedure.thermal else None
    marked = filler.hydrogen_ml_100g
    other = marked is None and filler.low_hydrogen is False
    path = f"passes.{index}.filler.designation"
    # What the procedure states counts for unmarked fillers, but dries no covering that is not basic.
    value = marked if marked is not None else _UNMARKED_OTHERS_ML_100G if other else stated
    if value is None:
        if most <= 5:
            yield ask(
                "hydrogen.steel",
                path,
                of_pass(tr("How much hydrogen does this filler bring?"), one),
                tr(
                    "Steel of group {row} wants at most {most:g} ml/100 g; {designation} carries no mark.",
                    row=row["group"],
                    most=most,
                    designation=filler.designation,
                ),
                tr("Choose a class with a hydrogen mark, or state the hydrogen from its sheet."),
            )
        return
    # AWS's H16 is taken for ISO's H15; a figure that somebody stated is taken as it is.
    over = value > most + (1 if marked is not None else 0)
    yield Finding(
        rule="hydrogen.steel",
        verdict="violates" if over else "complies",
        obligation="recommendation",
        path=path,
        title=of_pass(tr("Too much hydrogen for the steel") if over else tr("Hydrogen suits the steel"), one),
        message=tr("{designation} brings ", designation=filler.designation)
        + (
            tr(
                "more than {low_hydrogen_ends_ml_100g:g}",
                low_hydrogen_ends_ml_100g=_LOW_HYDROGEN_ENDS_ML_100G,
            )
            if other
            else tr("up to {value:g}", value=value)
        )
        + tr(" ml/100 g; steel of group {row} wants at most {most:g}.", row=row["group"], most=most)
        + (tr(" It may crack hours after welding.") if over else ""),
        actual=f"{number(value)} ml/100 g",
        limit=f"{number(most)} ml/100 g",
        remedy=tr("Choose a low-hydrogen class with its mark, dried as its manufacturer says.")
        if over
        else "",
        citations=(table.citation, *filler.sources.citations[:1]),
        unchecked=filler.sources.unchecked[:1],
    )
