"""How the records of a job stand to its joint types: the table, and what covers each of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from welding.coverage.covers import Coverage, covers
from welding.coverage.matrix import Cell, coverage_matrix
from welding.documents.procedure import Code
from welding.documents.record import QualificationRecord
from welding.weldlist.joint_types import JointType

TypeVerdict = Literal["covered", "open", "blocked"]


@dataclass(frozen=True, slots=True, kw_only=True)
class TypeCover:
    """How the records at hand stand to a joint type.

    Attributes:
        type: The joint type.
        verdict: ``covered``; ``open`` where a fact is lacking; ``blocked``.
        by: Numbers of the records that cover it, alone or together.
        cells: How each record stands to it, in the order of the records.
    """

    type: JointType
    verdict: TypeVerdict
    by: tuple[str, ...]
    cells: tuple[Cell, ...] = ()


def types_covered(
    types: Sequence[JointType], records: Sequence[QualificationRecord], code: Code
) -> tuple[TypeCover, ...]:
    """Each type against the records, singly and, where none covers it alone, together.

    Args:
        types: Joint types of a list.
        records: Records that count.
        code: Code of the list.
    """
    names = [one.number or "" for one in records]
    table = coverage_matrix(records, [one.joint for one in types], code.id, code.level)
    found = []
    for kind, row in zip(types, table, strict=True):
        by = tuple(name for name, cell in zip(names, row, strict=True) if cell.verdict == "covered")
        verdict: TypeVerdict = "covered" if by else "blocked"
        if not by and len(names) > 1:
            together = covers(records, kind.joint, code.id, code.level)
            by, verdict = together.by, together.verdict
        elif not by and any(cell.verdict == "open" for cell in row):
            verdict = "open"
        found.append(TypeCover(type=kind, verdict=verdict, by=by, cells=tuple(row)))
    return tuple(found)


def why(kind: JointType, records: Sequence[QualificationRecord], code: Code) -> Coverage:
    """What each record says to a type: which variable blocks or is open, and by how much."""
    return covers(records, kind.joint, code.id, code.level)
