"""What a job takes: weld metal, filler in packs, gas, time and cost, from its list and the WPSs assigned."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import ceil

from welding.codebook.table import load_table
from welding.consumables.gas import gas_text
from welding.deposit.consumption import operating_share
from welding.deposit.laid import bead_area_middle_mm2, density_g_cm3, deposition_yield, weld_metal
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Pass, Procedure
from welding.documents.weld_list import ListedJoint, Prices
from welding.joints.section import section_of
from welding.language import tr
from welding.metals.catalogue import find
from welding.weldlist.applying import written_for
from welding.weldlist.joint_types import JointType

_STEEL = "carbon"


@dataclass(frozen=True, slots=True, kw_only=True)
class Share:
    """What one process with one filler takes of a metre of weld."""

    process: str
    filler: str
    diameter_mm: float | None
    gas: str
    weld_metal_kg: float
    filler_kg: float | None
    gas_l: float | None
    arc_min: float
    at_joint_min: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PerMetre:
    """What a metre of weld takes; without shares ``lacking`` says why nobody knows."""

    shares: tuple[Share, ...] = ()
    lacking: str = ""


@dataclass(slots=True, kw_only=True)
class FillerTotal:
    """A filler of the job: what is used [kg], what is bought with waste [kg], in how many packs.

    ``None`` where the yield of its process is not known.
    """

    process: str
    filler: str
    diameter_mm: float | None
    used_kg: float | None = 0.0
    bought_kg: float | None = None
    packs: int | None = None
    pack: str = ""
    pack_kg: float | None = None


@dataclass(slots=True, kw_only=True)
class Hours:
    """Time of a process in a position, or of a part [h]; ``at_joint_h`` with what is done beside the arc."""

    of: str
    arc_h: float = 0.0
    at_joint_h: float = 0.0
    weld_metal_kg: float = 0.0
    welds: int = 0
    cost: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class LeftOut:
    """Welds that no figure counts, and why."""

    reason: str
    welds: int
    types: tuple[str, ...]


@dataclass(slots=True, kw_only=True)
class JobTotals:
    """What a job takes. ``left_out`` is not in any of the sums.

    Attributes:
        welds: Welds counted.
        length_m: Their length.
        weld_metal_kg: Weld metal, caps included.
        fillers: By process, classification and diameter.
        gas_l: Shielding gas by its name, arc time only; ``None`` where a pass states no flow.
        hours: By process and position.
        parts: By part of the list.
        cost: Weld metal and hours at the prices of the list.
        left_out: What is not counted.
    """

    welds: int
    length_m: float
    weld_metal_kg: float
    fillers: list[FillerTotal]
    gas_l: dict[str, float | None]
    hours: list[Hours]
    parts: list[Hours]
    cost: float
    left_out: list[LeftOut]


def per_metre(procedure: Procedure, joint: JointToWeld) -> PerMetre:
    """What a metre of a joint takes, welded to a procedure.

    The section of the joint with its cap is filled by the passes of the procedure: its root passes once, of
    the others as many as fill the rest. Both sides of a fillet count where it is welded from both.

    Args:
        procedure: The WPS.
        joint: The joint.
    """
    written = written_for(procedure, joint)
    found = section_of(written)
    if found.section is None:
        said = ", ".join(one.message for one in (*found.missing, *found.wrong))
        return PerMetre(lacking=tr("its section is not known: {what}", what=said))
    areas = [bead_area_middle_mm2(one) for one in written.passes]
    if not areas or any(
        area is None or one.travel_mm_min is None for area, one in zip(areas, written.passes, strict=True)
    ):
        return PerMetre(lacking=tr("a pass of the WPS does not state what its bead follows from"))
    wanted = found.section.total_mm2
    if joint.joint.weld == "fillet" and joint.joint.sides == "both":
        wanted *= 2
    beads = [(one, area or 0.0) for one, area in zip(written.passes, areas, strict=True)]
    return PerMetre(
        shares=tuple(_share(one, area, how_often, written) for one, area, how_often in _laid(beads, wanted))
    )


def _laid(beads: Sequence[tuple[Pass, float]], wanted_mm2: float) -> list[tuple[Pass, float, float]]:
    """How often each pass is laid to fill an area: root passes once, the others as often as it takes."""
    root = sum(area for one, area in beads if one.role == "root")
    rest = sum(area for one, area in beads if one.role != "root")
    if rest <= 0 or root >= wanted_mm2:
        often = wanted_mm2 / (root + rest)
        return [(one, area, often) for one, area in beads]
    often = (wanted_mm2 - root) / rest
    return [(one, area, 1.0 if one.role == "root" else often) for one, area in beads]


def _share(one: Pass, area_mm2: float, how_often: float, written: Procedure) -> Share:
    designation = one.filler.designation if one.filler else None
    names = [metal.designation for metal in written.base_metals if metal.designation]
    metal = find(names[0]) if names else None
    kg = (
        area_mm2
        * how_often
        * density_g_cm3(weld_metal(designation, metal.family if metal else _STEEL))
        / 1000
    )
    components = one.gas.components_percent if one.gas else None
    gained = deposition_yield(one.process, designation=designation, components=components)
    arc = how_often * 1000 / one.travel_mm_min.middle if one.travel_mm_min else 0.0
    flow = one.gas.flow_l_min if one.gas else None
    return Share(
        process=one.process,
        filler=designation or "",
        diameter_mm=one.filler.diameter_mm if one.filler else None,
        gas=gas_text(one.gas.components_percent) if one.gas else "",
        weld_metal_kg=kg,
        filler_kg=kg / gained.usual if gained is not None and designation else None,
        gas_l=flow.middle * arc if flow is not None else None,
        arc_min=arc,
        at_joint_min=arc / operating_share(one.process),
    )


def job_totals(
    types: Sequence[JointType],
    lines: Mapping[str, ListedJoint],
    assigned: Mapping[str, Procedure],
    prices: Prices,
) -> JobTotals:
    """What a job takes, of the welds whose length and WPS are known.

    Args:
        types: Joint types of the list.
        lines: Lines of the list by their marks.
        assigned: The WPS by the key of the type.
        prices: Prices of the shop.
    """
    counted = _Counted(prices)
    for kind in types:
        procedure = assigned.get(kind.key)
        metre = per_metre(procedure, kind.joint) if procedure is not None else None
        positions = kind.joint.positions or (procedure.positions if procedure else ())
        for mark in kind.marks:
            line = lines[mark]
            reason = _lacking(metre, line)
            if metre is None or reason:
                counted.leave(reason, line.count, kind.key)
            else:
                counted.take(metre, line, ", ".join(positions))
    return counted.totals()


def _lacking(metre: PerMetre | None, line: ListedJoint) -> str:
    if metre is None:
        return tr("no WPS is assigned")
    if metre.lacking:
        return metre.lacking
    return "" if line.length_mm else tr("the list states no length")


class _Counted:
    """Sums that are still being made."""

    def __init__(self, prices: Prices) -> None:
        self._prices = prices
        self._sum = JobTotals(
            welds=0, length_m=0.0, weld_metal_kg=0.0, fillers=[], gas_l={}, hours=[], parts=[], cost=0.0,
            left_out=[],
        )  # fmt: skip
        self._fillers: dict[tuple[str, str, float | None], FillerTotal] = {}
        self._hours: dict[str, Hours] = {}
        self._parts: dict[str, Hours] = {}
        self._left: dict[str, tuple[int, dict[str, None]]] = {}

    def leave(self, reason: str, count: int, key: str) -> None:
        """Leave welds out of the sums."""
        before, keys = self._left.get(reason, (0, {}))
        self._left[reason] = (before + count, keys | {key: None})

    def take(self, metre: PerMetre, line: ListedJoint, positions: str) -> None:
        """Count the welds of a line."""
        metres = line.count * (line.length_mm or 0.0) / 1000
        self._sum.welds += line.count
        self._sum.length_m += metres
        part = self._parts.setdefault(line.part or "", Hours(of=line.part or ""))
        part.welds += line.count
        seen = set()
        for share in metre.shares:
            of = f"{share.process} {positions}".strip()
            row = self._hours.setdefault(of, Hours(of=of))
            row.welds += 0 if of in seen else line.count
            seen.add(of)
            self._time_and_cost(share, metres, (row, part))
            self._material(share, metres)

    def _time_and_cost(self, share: Share, metres: float, rows: Sequence[Hours]) -> None:
        prices = self._prices
        each = share.weld_metal_kg * prices.weld_metal_kg + share.at_joint_min / 60 * prices.hour
        self._sum.cost += metres * each
        for row in rows:
            row.arc_h += metres * share.arc_min / 60
            row.at_joint_h += metres * share.at_joint_min / 60
            row.weld_metal_kg += metres * share.weld_metal_kg
            row.cost += metres * each

    def _material(self, share: Share, metres: float) -> None:
        found = self._sum
        found.weld_metal_kg += metres * share.weld_metal_kg
        if share.gas:
            before = found.gas_l.get(share.gas, 0.0)
            known = before is not None and share.gas_l is not None
            found.gas_l[share.gas] = (before or 0.0) + metres * (share.gas_l or 0.0) if known else None
        if share.filler:
            key = (share.process, share.filler, share.diameter_mm)
            one = self._fillers.setdefault(
                key, FillerTotal(process=share.process, filler=share.filler, diameter_mm=share.diameter_mm)
            )
            known = one.used_kg is not None and share.filler_kg is not None
            one.used_kg = (one.used_kg or 0.0) + metres * (share.filler_kg or 0.0) if known else None

    def totals(self) -> JobTotals:
        """The sums."""
        found = self._sum
        found.fillers = [_packed(one) for one in self._fillers.values()]
        found.hours = sorted(self._hours.values(), key=lambda row: -row.at_joint_h)
        found.parts = sorted(self._parts.values(), key=lambda row: row.of)
        found.left_out = [
            LeftOut(reason=why, welds=count, types=tuple(keys)) for why, (count, keys) in self._left.items()
        ]
        return found


def _packed(one: FillerTotal) -> FillerTotal:
    """With waste, and in whole packs where the packs of its process are known."""
    rows = load_table("welding.weldlist", "filler_packs").rows
    row = next((row for row in rows if one.process in row["processes"]), None)
    if row is None or one.used_kg is None:
        return one
    one.bought_kg = one.used_kg * (1 + row["waste_percent"] / 100)
    one.pack, one.pack_kg = tr(row["pack"]), row["pack_kg"]
    one.packs = ceil(one.bought_kg / row["pack_kg"] - 1e-9)
    return one
