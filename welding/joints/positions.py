"""Which welds a welding position is for."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from welding.documents.procedure import Joint


def position_is_for(row: Mapping[str, Any], joint: Joint) -> bool:
    """Whether a row of the table of positions is for the weld of a joint.

    A groove weld of a T, corner or branch joint is welded in the positions of its fillet as well (ISO 6947).
    """
    if joint.weld == "fillet":
        return "fillet" in row["welds"]
    return "groove" in row["welds"] or joint.kind in row.get("grooves_of", ())
