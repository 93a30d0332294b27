"""What a check is given: the document, what was computed from it, and how to write numbers."""

from __future__ import annotations

from dataclasses import dataclass

from welding.checks.own_metal import as_metal
from welding.documents.library import Library, MakerRange, Product
from welding.documents.machine import Machine
from welding.documents.procedure import BaseMetal, Pass, Procedure
from welding.heat.passes import PassHeat
from welding.joints.section import Sectioned
from welding.metals.catalogue import Metal, find, name_key
from welding.metals.kinds import KIND_OF_FAMILY
from welding.quantities.writing import Rounding, System, quantity_text, range_text
from welding.ranges import Range

_EMPTY = Library()


@dataclass(frozen=True, slots=True, kw_only=True)
class Draft:
    """A procedure under evaluation.

    Attributes:
        procedure: The document.
        heat: Heat input of each pass that states enough.
        sectioned: The joint's section.
        system: Unit system of the sentences.
        code_has_preheat: Whether the code in force has a preheat method of its own.
    """

    procedure: Procedure
    heat: tuple[PassHeat, ...]
    sectioned: Sectioned
    system: System
    code_has_preheat: bool = False

    @property
    def library(self) -> Library:
        """The own records that the procedure takes along; an empty library where it takes none."""
        return self.procedure.shelf or _EMPTY

    def metal(self, one: BaseMetal) -> Metal | None:
        """The grade of a base metal: an own record of that name, else the catalogue's."""
        if not one.designation:
            return None
        wanted = name_key(one.designation)
        for own in self.library.metals:
            if wanted in {name_key(name) for name in (own.name, *own.also)}:
                return as_metal(own)
        return find(one.designation)

    @property
    def metal_kind(self) -> str:
        """Kind of metal that settings go by, the most demanding of two; empty where a metal is not known."""
        found = [self.metal(one) for one in self.procedure.base_metals]
        kinds = {KIND_OF_FAMILY[one.family] for one in found if one}
        if not found or not all(found):
            return ""
        return next((k for k in ("nickel", "copper", "aluminium", "stainless") if k in kinds), "steel")

    def machine(self, one: Pass) -> Machine | None:
        """The machine that a pass names, where the procedure takes its record along."""
        return next((m for m in self.library.machines if m.name == one.machine), None)

    def product(self, one: Pass) -> Product | None:
        """The filler as bought that a pass names, where the procedure takes its record along."""
        make = one.filler.make if one.filler else None
        return next((p for p in self.library.products if p.name == make), None)

    def maker_range(self, one: Pass) -> MakerRange | None:
        """What the product's sheet gives for the pass's diameter and the procedure's positions."""
        product = self.product(one)
        diameter = one.filler.diameter_mm if one.filler else None
        if product is None or diameter is None:
            return None
        sized = [r for r in product.ranges if abs(r.diameter_mm - diameter) <= 0.03]
        stated = set(self.procedure.positions)
        return next((r for r in sized if stated and stated <= set(r.positions)), None) or next(
            (r for r in sized if not r.positions), None
        )

    @property
    def single_run_fillet(self) -> bool:
        """Whether the joint is a fillet of one pass a side."""
        joint = self.procedure.joint
        sides = [one.side for one in self.procedure.passes]
        return bool(joint and joint.weld == "fillet" and sides and len(sides) == len(set(sides)))

    def write(self, value: float, kind: str, rounding: Rounding = "nearest") -> str:
        """A quantity in the reader's unit system."""
        return quantity_text(value, kind, self.system, rounding)

    def write_range(self, value: Range, kind: str) -> str:
        """A range in the reader's unit system."""
        return range_text(value, kind, self.system)
