"""What a joint takes: weld metal, filler bought, gas, arc time, time at the joint; per metre and in whole."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.deposit.laid import density_g_cm3, deposition_yield, weld_metal
from welding.documents.procedure import Pass


@dataclass(frozen=True, slots=True, kw_only=True)
class PassUse:
    """What one pass takes per metre of joint; ``None`` where a fact is missing."""

    pass_number: int
    weld_metal_kg_m: float
    filler_kg_m: float | None
    gas_l_m: float | None
    arc_min_m: float | None
    wait_min: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Use:
    """What the joint takes. Sums stand only where every pass has its figure.

    Attributes:
        passes: Per metre, by pass.
        weld_metal_kg_m: Weld metal [kg/m], caps included.
        filler_kg_m: Filler bought [kg/m].
        gas_l_m: Shielding gas [L/m], arc time only.
        arc_min_m: Arc time [min/m].
        at_joint_min_m: Time at the joint by the usual operating factor [min/m], an estimate.
        length_m: Length of the joint [m], where it is stated.
        waits_min: Estimated waits between the passes, once a joint [min].
        elapsed_min: Time at the joint and waits for the whole length [min]; the longer of both rules, since
            a long joint cools while it is welded.
        citations: Of yield, density, operating factor.
        unchecked: Tables that nobody has compared.
    """

    passes: tuple[PassUse, ...]
    weld_metal_kg_m: float
    filler_kg_m: float | None
    gas_l_m: float | None
    arc_min_m: float | None
    at_joint_min_m: float | None
    length_m: float | None
    waits_min: float | None
    elapsed_min: float | None
    citations: tuple[Citation, ...]
    unchecked: tuple[str, ...]


def use_of(
    passes: Sequence[Pass],
    bead_areas_mm2: Mapping[int, float],
    *,
    family: str,
    length_mm: float | None,
    waits_s: Mapping[int, float],
) -> Use:
    """What a joint takes.

    Args:
        passes: The passes.
        bead_areas_mm2: Section of each pass's bead.
        family: Family of the base metal, for passes without filler.
        length_mm: Length of the joint, where it is stated.
        waits_s: Estimated wait after each pass [s].
    """
    uses = tuple(_pass_use(one, bead_areas_mm2.get(one.number, 0.0), family, waits_s) for one in passes)
    factor = load_table("welding.deposit", "operating_factor")
    arc = _sum([one.arc_min_m for one in uses])
    at_joint = _sum(
        [
            one.arc_min_m / operating_share(planned.process) if one.arc_min_m is not None else None
            for one, planned in zip(uses, passes, strict=True)
        ]
    )
    # The last pass of a joint is waited for by nobody.
    waits = _sum([one.wait_min for one in uses[:-1]]) if uses else None
    length = length_mm / 1000 if length_mm else None
    elapsed = None
    if length is not None and at_joint is not None:
        elapsed = max(at_joint * length, (arc or 0.0) * length + (waits or 0.0))
    tables = [load_table("welding.deposit", name) for name in ("density", "efficiency")]
    return Use(
        passes=uses,
        weld_metal_kg_m=sum(one.weld_metal_kg_m for one in uses),
        filler_kg_m=_sum([one.filler_kg_m for one in uses]),
        gas_l_m=_sum([one.gas_l_m for one in uses if one.gas_l_m != 0.0]) or 0.0
        if any(one.gas is not None for one in passes)
        else None,
        arc_min_m=arc,
        at_joint_min_m=at_joint,
        length_m=length,
        waits_min=waits,
        elapsed_min=elapsed,
        citations=(*(table.citation for table in tables), factor.citation),
        unchecked=tuple(key for table in tables for key in table.unchecked),
    )


def operating_share(process: str) -> float:
    """Share of the time at the joint in which the arc burns, by process."""
    rows = load_table("welding.deposit", "operating_factor").rows
    return float(next((row["share"] for row in rows if process in row["processes"]), 0.3))


def _sum(values: Sequence[float | None]) -> float | None:
    known = [value for value in values if value is not None]
    return sum(known) if values and len(known) == len(values) else None


def _pass_use(one: Pass, area_mm2: float, family: str, waits_s: Mapping[int, float]) -> PassUse:
    designation = one.filler.designation if one.filler else None
    metal = area_mm2 * density_g_cm3(weld_metal(designation, family)) / 1000
    gained = deposition_yield(
        one.process, designation=designation, components=one.gas.components_percent if one.gas else None
    )
    arc = 1000 / one.travel_mm_min.middle if one.travel_mm_min else None
    flow = one.gas.flow_l_min.middle if one.gas and one.gas.flow_l_min else None
    gas = 0.0 if one.gas is None else flow * arc if flow is not None and arc is not None else None
    wait = waits_s.get(one.number)
    return PassUse(
        pass_number=one.number,
        weld_metal_kg_m=metal,
        filler_kg_m=metal / gained.usual if gained else None,
        gas_l_m=gas,
        arc_min_m=arc,
        wait_min=wait / 60 if wait is not None else None,
    )
