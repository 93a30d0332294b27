"""Is everything stated that a procedure specification has to state?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.codebook.table import Table
from welding.documents.procedure import Procedure
from welding.errors import Problem
from welding.finding import Finding
from welding.language import tr


def missing_content(procedure: Procedure, table: Table) -> tuple[Problem, ...]:
    """Items of the table that the procedure does not state, each with its path."""
    return tuple(problem for row in table.rows for problem in missing_items(procedure, row))


def missing_items(procedure: Procedure, row: Mapping[str, Any]) -> Iterator[Problem]:
    """What one row asks and the procedure does not state; of passes, one each.

    Args:
        procedure: The procedure.
        row: ``path``, ``what`` and, where it asks only some, ``processes``.
    """
    path: str = row["path"]
    if not path.startswith("passes.*."):
        if not _stated(procedure, path.split(".")):
            yield Problem(path, tr(row["what"]))
        return
    for index, one in enumerate(procedure.passes):
        if one.process not in row.get("processes", (one.process,)):
            continue
        if not _stated(one, path.split(".")[2:]):
            yield Problem(
                path.replace("*", str(index)),
                tr("{row}, pass {number}", row=tr(row["what"]), number=one.number),
            )


def _stated(value: Any, parts: list[str]) -> bool:
    for part in parts:
        if isinstance(value, tuple):
            index = int(part)
            value = value[index] if index < len(value) else None
        else:
            value = getattr(value, part)
        if value is None or value == () or value == "":
            return False
    return True


def content_complete(table: Table, missing: tuple[Problem, ...]) -> Finding:
    """One finding over the whole list; the single items, found by ``missing_content``, go to ``missing``."""
    if not missing:
        return Finding(
            rule="content.complete",
            verdict="complies",
            title=tr("Everything is stated"),
            message=tr(
                "All {count} kinds of item that {document} asks for are stated.",
                count=len(table.rows),
                document=table.citation.document,
            ),
            citations=(table.citation,),
            unchecked=table.unchecked,
        )
    first = ", ".join(problem.message for problem in missing[:3])
    more = tr(" and {count} more", count=len(missing) - 3) if len(missing) > 3 else ""
    return Finding(
        rule="content.complete",
        verdict="undecided",
        path=missing[0].path,
        title=tr(
            "{count} {value} not stated",
            count=len(missing),
            value=tr("item") if len(missing) == 1 else tr("items"),
        ),
        message=tr("Still to state: {first}{more}.", first=first, more=more),
        actual=tr("{count} missing", count=len(missing)),
        limit=tr("all stated"),
        remedy=tr("Fill them in."),
        citations=(table.citation,),
        unchecked=table.unchecked,
    )
