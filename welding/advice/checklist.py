"""Which questions the checklist before the first arc asks."""

from __future__ import annotations

from dataclasses import dataclass

from welding.codebook.table import load_table
from welding.documents.procedure import Procedure
from welding.language import tr


@dataclass(frozen=True, slots=True, kw_only=True)
class Question:
    """One question; "yes" is the right answer."""

    id: str
    question: str
    why: str


def checklist_for(procedure: Procedure) -> tuple[Question, ...]:
    """The questions that the processes of a procedure call for, in the order of the table."""
    wanted: set[str] = {one.process for one in procedure.passes}
    if any(one.purge for one in procedure.passes):
        wanted.add("purge")
    return tuple(
        Question(id=row["id"], question=tr(row["question"]), why=tr(row["why"]))
        for row in load_table("welding.advice", "checklist").rows
        if wanted & set(row["processes"])
    )
