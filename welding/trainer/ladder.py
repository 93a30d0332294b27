"""``make``: one exercise of a kind; the ladder of the trade with the kinds that stand on each rung."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from random import Random

from welding.codebook.table import load_table
from welding.errors import UnknownEntryError
from welding.language import tr, tr_noop
from welding.quantities.writing import System
from welding.trainer import at_the_desk, at_the_machine
from welding.trainer.exercise import Exercise, Stage

STAGES: Mapping[Stage, str] = {
    "set-up": tr_noop("Set-up"),
    "flat": tr_noop("Flat"),
    "horizontal": tr_noop("Horizontal"),
    "vertical": tr_noop("Vertical"),
    "overhead": tr_noop("Overhead"),
    "pipe": tr_noop("Pipe"),
}
"""Rungs in the order of the trade."""
BENCH = tr_noop(
    "At the bench: screen, gloves and extraction first; set the machine with the arc off, and try on scrap "
    "with a qualified welder beside you. Local rules come before any lesson."
)
MAKERS: Mapping[str, Callable[[Random, Stage, int, System], Exercise]] = {
    "designation": at_the_desk.designation,
    "filler-and-gas": at_the_desk.filler_and_gas,
    "balance": at_the_machine.balance,
    "arc": at_the_machine.arc,
    "hotter": at_the_machine.hotter,
    "heat-input": at_the_machine.heat_input,
    "macro": at_the_machine.macro,
    "beads": at_the_machine.beads,
    "three-errors": at_the_desk.three_errors,
    "bend": at_the_desk.bend,
    "covers-thickness": at_the_desk.covers_thickness,
    "purge-colour": at_the_desk.purge_colour,
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Rung:
    """One rung of the ladder: its exercises by kind and title."""

    stage: Stage
    title: str
    kinds: tuple[tuple[str, str], ...]


def ladder() -> tuple[Rung, ...]:
    """The rungs in the order of the trade.

    Example:
        >>> [one.stage for one in ladder()][:2]
        ['set-up', 'flat']
    """
    rows = load_table("welding.trainer", "exercises").rows
    return tuple(
        Rung(
            stage=stage,
            title=tr(title),
            kinds=tuple((row["kind"], tr(row["title"])) for row in rows if stage in row["stages"]),
        )
        for stage, title in STAGES.items()
    )


def make(kind: str, stage: str, seed: int, system: System = "si") -> Exercise:
    """Make an exercise; the same seed gives the same one.

    Args:
        kind: Row of the table of exercises.
        stage: Rung that the kind stands on.
        seed: What it is drawn with.
        system: Unit system of its sentences.

    Raises:
        UnknownEntryError: There is no such exercise on that rung.
    """
    row = next((one for one in load_table("welding.trainer", "exercises").rows if one["kind"] == kind), None)
    rung = next((one for one in STAGES if one == stage), None)
    if row is None or rung is None or rung not in row["stages"]:
        raise UnknownEntryError(f"{kind}, {stage}", tuple(MAKERS))
    # One lot for each kind and rung, so that a seed never repeats what another kind drew.
    made = MAKERS[kind](Random(f"{kind}/{stage}/{seed}"), rung, seed, system)  # noqa: S311
    return replace(made, caution=tr(BENCH)) if row["bench"] else made
