"""How the records of a job stand to its joint types: the table, and what covers each of them."""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from typing import Literal

from welding.coverage.covers import RecordCoverage, covers
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
        if not by:
            by = _together(kind, records, row, code)
        is_open = any(cell.verdict == "open" for cell in row)
        verdict: TypeVerdict = "covered" if by else "open" if is_open else "blocked"
        found.append(TypeCover(type=kind, verdict=verdict, by=by, cells=tuple(row)))
    return tuple(found)


_MAY_DIFFER = frozenset({"positions", "heat_input_kj_mm", "impact_temperature_c", "hardness"})
"""What two records of a pair may lack each by itself."""


def _together(
    kind: JointType, records: Sequence[QualificationRecord], row: Sequence[Cell], code: Code
) -> tuple[str, ...]:
    """Records that cover a type together while none does alone; empty where none do.

    Asked of those that nothing else speaks against, one of each kind: of two that were welded in one position
    and tested alike, the second adds nothing to a pair.
    """
    near: dict[Hashable, QualificationRecord] = {}
    for one, cell in zip(records, row, strict=True):
        if set(cell.variables) <= _MAY_DIFFER:
            piece = one.coupon
            alike = (piece.position, piece.product, tuple(sorted({test.kind for test in one.tests})))
            near.setdefault((alike, cell.variables), one)
    if len(near) < 2:
        return ()
    return covers(list(near.values()), kind.joint, code.id, code.level).by


def why(kind: JointType, records: Sequence[QualificationRecord], code: Code) -> tuple[RecordCoverage, ...]:
    """What each record by itself says to a type: which variable blocks or is open, and by how much."""
    return tuple(covers([one], kind.joint, code.id, code.level).records[0] for one in records)
