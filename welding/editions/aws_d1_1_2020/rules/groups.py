"""Groups of AWS D1.1: of a metal, and whether the code may list it."""

from __future__ import annotations

from welding.checks.context import Draft
from welding.documents.fields import UnitColumn
from welding.documents.procedure import BaseMetal

ORDER = ("I", "II", "III", "IV")


def group_of(draft: Draft, metal: BaseMetal, units: UnitColumn) -> str | None:
    """Group of AWS D1.1: the catalogue's at the thickness, else as stated; ``None`` where none is I to IV."""
    stated = metal.groups.aws_d1_1 if metal.groups else None
    known = draft.metal(metal)
    group = (known.aws_group_at(metal.thickness_mm, units) if known else None) or stated
    return group if group in ORDER else None


def may_be_listed(draft: Draft, metal: BaseMetal) -> bool:
    """Whether a metal without a group here may be one of the code's: not found is not the same as not listed.

    A grade of another standard body, or no structural steel at all, is surely none.
    """
    if metal.groups and metal.groups.aws_d1_1:
        return False
    known = draft.metal(metal)
    if known is None:
        return True
    if known.aws_d1_1 is not None or known.condition == "QT":
        return False
    return known.standard.startswith(("ASTM", "API", "ABS")) and known.family in ("carbon", "weathering")
