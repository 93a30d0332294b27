"""Wire set-up: tip distance, drive rolls, and whether a spray arc is hot enough to spray."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import FAMILIES, decoded_of
from welding.checks.saying import advise, of_pass
from welding.citation import COMMON_PRACTICE
from welding.codebook.table import load_table
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.language import tr
from welding.setup.spray import spray_transition

CORED = ("114", "132", "133", "136", "138")
_TIP_SLACK = 0.2
"""Habits differ by a fifth beyond the table before a distance is worth a word."""
_SPRAY_SLACK = 0.1
"""Published transition currents differ by about a tenth."""


def wire_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass with a wire."""
    for index, one in enumerate(draft.procedure.passes):
        path = f"passes.{index}"
        yield from _tip_distance(draft, path, one)
        yield from _rolls(path, one)
        yield from _spray(path, one)


def _tip_distance(draft: Draft, path: str, one: Pass) -> Iterator[Finding]:
    planned = one.extension_mm
    table = load_table("welding.setup", "extension")
    row = next(
        (
            r
            for r in table.rows
            if one.process in r["processes"] and (not r["transfer"] or r["transfer"] == one.transfer)
        ),
        None,
    )
    if planned is None or row is None:
        return
    low, high = row["min_mm"], row["max_mm"]
    off = planned.max < low * (1 - _TIP_SLACK) or planned.min > high * (1 + _TIP_SLACK)
    usual = tr("{low} to {high}", low=draft.write(low, "gap"), high=draft.write(high, "gap"))
    yield advise(
        "extension.usual",
        f"{path}.extension_mm",
        trouble=tr(
            "The tip is usually {usual} from the work; {write_range} is stated. Current and "
            "penetration change with it.",
            usual=usual,
            write_range=draft.write_range(planned, "gap"),
        )
        if off
        else "",
        fine=tr("The tip is usually {usual} from the work.", usual=usual),
        titles=(of_pass(tr("Tip distance is unusual"), one), of_pass(tr("Tip distance is usual"), one)),
        actual=draft.write_range(planned, "gap"),
        limit=usual,
        remedy=tr("Correct the distance, or keep it with a trial behind it."),
        citations=(table.citation_of(row),),
    )


def _rolls(path: str, one: Pass) -> Iterator[Finding]:
    rolls = one.feeder.rolls if one.feeder else None
    if rolls is None:
        return
    filler = decoded_of(one)
    soft = filler is not None and FAMILIES.get(filler.system) == "aluminium"
    if one.process in CORED:
        wanted, why = "knurled", tr("cored wire slips, and is crushed where the rolls are set tight")
    elif soft:
        wanted, why = "u", tr("aluminium wire is shaved by sharp grooves")
    else:
        wanted, why = "v", tr("knurls mark solid wire and fill the liner with dust")
    words = {"v": "V-groove", "u": "U-groove", "knurled": "knurled"}
    yield advise(
        "rolls.wire",
        f"{path}.feeder.rolls",
        trouble=tr("{capitalize} rolls: {why}.", capitalize=words[rolls].capitalize(), why=why)
        if rolls != wanted
        else "",
        fine=tr("{capitalize} rolls suit the wire.", capitalize=words[rolls].capitalize()),
        titles=(
            of_pass(tr("Drive rolls do not suit the wire"), one),
            of_pass(tr("Drive rolls suit the wire"), one),
        ),
        actual=words[rolls],
        limit=words[wanted],
        remedy=tr("Fit {words} rolls.", words=words[wanted]),
    )


def _spray(path: str, one: Pass) -> Iterator[Finding]:
    filler = decoded_of(one)
    diameter = one.filler.diameter_mm if one.filler else None
    if one.transfer != "spray" or one.process not in ("131", "135") or filler is None:
        return
    metal = FAMILIES.get(filler.system) or ("copper" if filler.system in ("AWS A5.7", "ISO 24373") else None)
    if metal is None or one.gas is None or one.current_a is None or diameter is None:
        return
    found = spray_transition(metal, one.gas.components_percent, diameter)
    if found is None:
        return
    planned, needed = one.current_a, found.current_a
    below = planned.max < needed
    partly = not below and planned.min < needed * (1 - _SPRAY_SLACK)
    trouble = ""
    if below:
        trouble = tr(
            "This wire sprays from about {needed:.0f} A in this gas; at most {max:g} A is planned.",
            needed=needed,
            max=planned.max,
        )
    elif partly:
        trouble = tr(
            "This wire sprays from about {needed:.0f} A in this gas; the lower end, {min:g} "
            "A, lies in globular transfer.",
            needed=needed,
            min=planned.min,
        )
    yield advise(
        "spray.current",
        f"{path}.current_a",
        trouble=trouble,
        fine=tr("This wire sprays from about {needed:.0f} A in this gas.", needed=needed),
        titles=(
            of_pass(tr("Too little current for spray"), one),
            of_pass(tr("Enough current for spray"), one),
        ),
        actual=tr("{min:g} to {max:g} A", min=planned.min, max=planned.max),
        limit=tr("from {needed:.0f} A", needed=needed),
        remedy=tr("Raise the current and feed, take a thinner wire, or pulse.")
        if below
        else tr("Raise the lower end, or name the transfer otherwise."),
        citations=(found.citation, *((COMMON_PRACTICE,) if found.interpolated else ())),
        unchecked=found.unchecked,
    )
