"""Positions against the weld and against the passes' progression; roles against their order."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from welding.checks.context import Draft
from welding.codebook.table import load_table
from welding.finding import Finding
from welding.joints.positions import position_is_for


def position_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each stated position."""
    table = load_table("welding.joints", "positions")
    rows = {row["position"]: row for row in table.rows}
    joint = draft.procedure.joint
    weld = None
    if joint is not None:
        weld = "fillet" if joint.weld == "fillet" else "groove"
    for index, position in enumerate(draft.procedure.positions):
        row = rows[position]
        base = Finding(
            rule="position.progression",
            verdict="undecided",
            path=f"positions.{index}",
            title=f"{position}: uphill or downhill?",
            message=f"{position} is {row['words']}; which way the passes run is not stated.",
            actual=position,
            limit="up or down",
            remedy="State the progression in each pass.",
            citations=(table.citation,),
            unchecked=table.unchecked,
        )
        if joint is not None:
            fits = position_is_for(row, joint)
            yield replace(
                base,
                rule="position.weld",
                verdict="complies" if fits else "violates",
                title=f"{position} suits the weld" if fits else f"{position} is not for this weld",
                message=f"{position} ({row['words']}) is a position of "
                f"{' and '.join(row['welds'])} welds; this is a {weld} weld."
                if weld in row["welds"] or not fits
                else f"{position} ({row['words']}) is for fillet welds and for groove welds of such a joint.",
                limit=f"a position of {weld} welds",
                remedy="" if fits else f"Choose a position of {weld} welds.",
            )
        said = {one.progression for one in draft.procedure.passes if one.progression}
        if row["progression"] == "open" and not said:
            yield base
        elif row["progression"] in ("up", "down") and said - {row["progression"]}:
            yield replace(
                base,
                verdict="violates",
                title=f"{position} runs {row['progression']}",
                message=f"{position} is {row['words']}; a pass is stated to run "
                f"{'down' if row['progression'] == 'up' else 'up'}.",
                limit=row["progression"],
                remedy="Correct the progression or the position.",
            )
