"""What a check is given: the document, what was computed from it, and how to write numbers."""

from __future__ import annotations

from dataclasses import dataclass

from welding.documents.procedure import Procedure
from welding.heat.passes import PassHeat
from welding.joints.section import Sectioned
from welding.quantities.writing import Rounding, System, quantity_text, range_text
from welding.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class Draft:
    """A procedure under evaluation."""

    procedure: Procedure
    heat: tuple[PassHeat, ...]
    sectioned: Sectioned
    system: System

    def write(self, value: float, kind: str, rounding: Rounding = "nearest") -> str:
        """A quantity in the reader's unit system."""
        return quantity_text(value, kind, self.system, rounding)

    def write_range(self, value: Range, kind: str) -> str:
        """A range in the reader's unit system."""
        return range_text(value, kind, self.system)
