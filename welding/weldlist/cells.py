"""A row of a weld list, from its cells as typed to the joint that is judged, or what is wrong cell by cell.

Rows are kept as they were written; what they mean is read anew, so that an answer given once ("S355 is
S355J2+N") holds for every row. Nothing is supplied that the list does not say.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace

from pydantic import TypeAdapter, ValidationError

from welding.codebook.book import by_book
from welding.documents import fields as f
from welding.documents.procedure import Code
from welding.documents.weld_list import ListedJoint
from welding.errors import DocumentError
from welding.language import tr
from welding.weldlist.columns import COLUMNS, OWN
from welding.weldlist.row_reader import LISTED, CellProblem, RowReader

A_DATE = "#DATE"
"""Stands before a cell that a workbook had made a date of."""
_BROKEN = re.compile(r"#(?:DATE|REF|N/A|VALUE|NAME|DIV/0|NUM|NULL|FORMULA|SPILL|CALC)\b")
_MARK: TypeAdapter[str] = TypeAdapter(f.Line)


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadRow:
    """A row as it was understood: a joint, or the problems that keep it from being one."""

    joint: ListedJoint | None
    problems: tuple[CellProblem, ...] = ()


def read_row(cells: Mapping[str, str], code: Code, answers: Mapping[str, str]) -> ReadRow:
    """Read one row.

    Args:
        cells: Text by column (``COLUMNS``); lengths with their unit.
        code: Code of the list.
        answers: Answers by the keys of ``CellProblem.asks``.
    """
    broken = tuple(
        CellProblem(column=name, message=_broken(text)) for name, text in cells.items() if _BROKEN.match(text)
    )
    if broken:
        return ReadRow(joint=None, problems=broken)
    told = tuple(sorted(answers.items()))
    facts, problems = _facts(_only(cells, OWN, inside=False), code, told)
    around, own_problems = _around(_only(cells, OWN - {"mark"}, inside=True), code, told)
    try:
        mark = _MARK.validate_python(cells.get("mark", "").strip())
    except ValidationError as error:
        mark, own_problems = "", (CellProblem(column="mark", message=error.errors()[0]["msg"]), *own_problems)
    if not mark and not any(one.column == "mark" for one in own_problems):
        own_problems = (CellProblem(column="mark", message=tr("A joint needs its mark.")), *own_problems)
    problems = (*own_problems, *problems)
    if problems or facts is None or around is None:
        return ReadRow(joint=None, problems=problems)
    return ReadRow(joint=replace(around, mark=mark, joint=facts.joint))


def _only(cells: Mapping[str, str], names: frozenset[str], *, inside: bool) -> tuple[tuple[str, str], ...]:
    return tuple((name, cells.get(name, "").strip()) for name in COLUMNS if (name in names) is inside)


@by_book(4096)
def _around(
    cells: tuple[tuple[str, str], ...], code: Code, answers: tuple[tuple[str, str], ...]
) -> tuple[ListedJoint | None, tuple[CellProblem, ...]]:
    """What a row says of itself but its mark: most rows of a drawing say the same."""
    reader = RowReader(dict(cells), code, dict(answers))
    own = reader.own()
    return own, tuple(reader.problems)


def _broken(text: str) -> str:
    if text.startswith(A_DATE):
        day, _, typed = text.removeprefix(A_DATE).partition(",")
        return tr(
            "The workbook holds a date here, {day}; it may have been typed as {typed}. Enter it as text.",
            day=day.strip(),
            typed=typed.strip(),
        )
    return tr("The workbook has no value here: {text}.", text=text)


@by_book(4096)
def _facts(
    cells: tuple[tuple[str, str], ...], code: Code, answers: tuple[tuple[str, str], ...]
) -> tuple[ListedJoint | None, tuple[CellProblem, ...]]:
    """The joint of a row without what is its own: equal facts are read once, and are one object."""
    reader = RowReader(dict(cells), code, dict(answers))
    plain = reader.joint()
    if reader.problems:
        return None, tuple(reader.problems)
    try:
        return LISTED.take({"mark": "-", "joint": plain}), ()
    except DocumentError as error:
        return None, tuple(
            CellProblem(column=_column_of(one.path), message=one.message) for one in error.problems
        )


def _column_of(path: str) -> str:
    for part, column in (
        ("thickness", "thickness"), ("diameter", "diameter"), ("designation", "metal"), ("leg", "size"),
        ("throat", "size"), ("positions", "positions"), ("impact", "impact"), ("preparation", "edge"),
        ("weld", "weld"),
    ):  # fmt: skip
        if part in path:
            return column
    return "joint"
