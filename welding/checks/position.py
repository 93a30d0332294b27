"""Positions against the weld and against the passes' progression; roles against their order."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from welding.checks.context import Draft
from welding.codebook.table import load_table
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.joints.positions import position_is_for
from welding.language import tr


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
            title=tr("{position}: uphill or downhill?", position=position),
            message=tr(
                "{position} is {row}; which way the passes run is not stated.",
                position=position,
                row=tr(row["words"]),
            ),
            actual=position,
            limit=tr("up or down"),
            remedy=tr("State the progression in each pass."),
            citations=(table.citation,),
            unchecked=table.unchecked,
        )
        if joint is not None:
            fits = position_is_for(row, joint)
            yield replace(
                base,
                rule="position.weld",
                verdict="complies" if fits else "violates",
                title=tr("{position} suits the weld", position=position)
                if fits
                else tr("{position} is not for this weld", position=position),
                message=tr(
                    "{position} ({row}) is a position of {row2} welds; this is a {weld} weld.",
                    position=position,
                    row=tr(row["words"]),
                    row2=tr(" and ").join(tr(one) for one in row["welds"]),
                    weld=tr(weld) if weld else "",
                )
                if weld in row["welds"] or not fits
                else tr(
                    "{position} ({row}) is for fillet welds and for groove welds of such a joint.",
                    position=position,
                    row=tr(row["words"]),
                ),
                limit=tr("a position of {weld} welds", weld=tr(weld) if weld else ""),
                remedy=""
                if fits
                else tr("Choose a position of {weld} welds.", weld=tr(weld) if weld else ""),
            )
        said = {one.progression for one in draft.procedure.passes if one.progression}
        if row["progression"] == "open" and not said:
            yield base
        elif row["progression"] in ("up", "down") and said - {row["progression"]}:
            yield replace(
                base,
                verdict="violates",
                title=tr("{position} runs {row}", position=position, row=in_words(row["progression"])),
                message=tr(
                    "{position} is {row}; a pass is stated to run {value}.",
                    position=position,
                    row=tr(row["words"]),
                    value="down" if row["progression"] == "up" else "up",
                ),
                limit=row["progression"],
                remedy=tr("Correct the progression or the position."),
            )
