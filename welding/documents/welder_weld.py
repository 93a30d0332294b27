"""A weld as the qualification of a person sees it: a test piece that was welded, or a weld that is asked."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f

Transfer = Literal["dip", "globular", "spray", "pulsed"]
Person = Literal["welder", "operator", "tack-welder"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ProcessPart:
    """What one process does in it.

    Attributes:
        process: By the code's own name: a number of ISO 4063, or letters of AWS.
        filler_group: Group of the filler as the code counts them: ``FM1``, ``F4``; ``None`` without filler.
        filler_type: Type of filler as the code names it: ``S``, ``B``, ``nm`` for none.
        deposited_mm: Thickness that it deposits in a butt weld [mm].
        transfer: Transfer mode of the arc, where it is known.
    """

    process: f.Name
    filler_group: f.Name | None = None
    filler_type: f.Name | None = None
    deposited_mm: f.ThicknessMm | None = None
    transfer: Transfer | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class WelderWeld:
    """A test piece, or a weld that somebody is to make.

    Attributes:
        code: Edition of the welder code, such as ``iso-9606-1:2017``.
        person: Who is qualified by it.
        parts: Its processes, the one of the root first.
        product: Plate (with every section that is no pipe) or pipe.
        weld: Butt (groove) or fillet.
        position: Test position, or the position of the weld, as the code names it.
        thickness_mm: Thickness of the material [mm]; of a fillet weld always, of a groove where the code
            counts it.
        diameter_mm: Outside diameter [mm]; of a branch that of the branch, of a hollow section its smaller side.
        backing: Detail of a butt weld: ``ss nb``, ``ss mb``, ``bs``, ``ss gb``, ``ss fb``, ``ci``; of a groove
            of AWS ``backing``, ``no backing``, ``backgouged``.
        layers: Of a fillet weld: ``sl`` or ``ml``.
        direction: Of oxy-acetylene welding: ``lw`` or ``rw``.
        layer_count: Layers that were counted.
        turning: Whether a pipe turns below the torch.
        branch_deg: Angle of a branch [°].
        mechanized: Whether the torch was guided by a machine.
        fillet_too: The supplementary fillet weld piece that was welded as well: its process and filler.
        fillet_too_mm: Thickness of its material [mm].
        metal_group: Group of the base metal where the code counts it.
        from_designation: Whether it was read from a designation, which does not say more than its grammar has.
    """

    code: f.Name
    person: Person = "welder"
    parts: Annotated[tuple[ProcessPart, ...], Field(min_length=1, max_length=2)]
    product: Literal["plate", "pipe"]
    weld: Literal["butt", "fillet"]
    position: f.Name
    thickness_mm: f.ThicknessMm | None = None
    diameter_mm: f.DiameterMm | None = None
    backing: f.Name | None = None
    layers: Literal["sl", "ml"] | None = None
    direction: Literal["lw", "rw"] | None = None
    layer_count: Annotated[int, Field(ge=1, le=500)] | None = None
    turning: bool | None = None
    branch_deg: Annotated[float, Field(gt=0, le=90)] | None = None
    mechanized: bool = False
    fillet_too: ProcessPart | None = None
    fillet_too_mm: f.ThicknessMm | None = None
    metal_group: f.Name | None = None
    from_designation: bool = False
