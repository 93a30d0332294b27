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
class Operation:
    """How a machine welds, as the qualification of its operator counts it.

    Attributes:
        mode: Mechanized, or automatic.
        unit: Type of the unit and its control.
        view: Whether the arc is seen directly or over a camera.
        arc_length_control: Whether the machine keeps the length of the arc.
        joint_tracking: Whether it follows the joint.
        arc_sensor: Whether an arc sensor guides it.
        joint_sensor: Whether a sensor finds the joint.
        runs: A single run on each side, or several.
        functional_test: Whether the person's knowledge of the unit was tested; ``None`` where it is not said.
    """

    mode: Literal["mechanized", "automatic"]
    unit: f.Name | None = None
    view: Literal["direct", "remote"] | None = None
    arc_length_control: bool = False
    joint_tracking: bool = False
    arc_sensor: bool = False
    joint_sensor: bool = False
    runs: Literal["single-run", "multi-run"] | None = None
    functional_test: bool | None = None


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
        diameter_mm: Outside diameter [mm]: of the branch where there is one; of a hollow section its
            smaller side.
        backing: Detail of a butt weld: ``ss nb``, ``ss mb``, ``bs``, ``ss gb``, ``ss fb``, ``ci``; of a
            groove of AWS ``backing``, ``open root``, ``backgouged``.
        layers: Of a fillet weld: ``sl`` or ``ml``.
        direction: Of oxy-acetylene welding: ``lw`` or ``rw``.
        layer_count: Layers that were counted.
        turning: Whether a pipe turns below the torch.
        branch_deg: Angle of a branch [°].
        mechanized: Whether the torch was guided by a machine.
        fillet_too: The supplementary fillet weld piece that was welded as well: its process and filler.
        fillet_too_mm: Thickness of its material [mm].
        metal_group: Group of the base metal where the code counts it.
        groove: Kind of groove weld of AWS: CJP, PJP, plug or slot, CJP in T-, Y- or K-connections.
        progression: Vertical progression of AWS.
        dihedral_deg: Angle between the members of a fillet weld [°]; ``None`` where they are square.
        electrodes: Electrodes that an operator runs at once.
        trained: Whether a welder was trained as an operator and shown to be able.
        operation: How the machine welds, where an operator is qualified for it.
        units: Which printed column of the code counts.
        from_designation: Whether it was read from a designation, which has no place for some facts.
    """

    code: f.Name
    person: Person = "welder"
    parts: Annotated[tuple[ProcessPart, ...], Field(min_length=1, max_length=2)]
    product: Literal["plate", "pipe"] = "plate"
    weld: Literal["butt", "fillet"] = "butt"
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
    groove: Literal["cjp", "pjp", "plug", "tyk"] | None = None
    progression: Literal["uphill", "downhill"] | None = None
    dihedral_deg: Annotated[float, Field(gt=0, le=180)] | None = None
    electrodes: Annotated[int, Field(ge=1, le=12)] | None = None
    trained: bool = False
    operation: Operation | None = None
    units: Literal["si", "us"] = "si"
    from_designation: bool = False
