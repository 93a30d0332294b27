"""Coupons worth trying: for joints without cover, drafts of pieces with the range each would give."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from welding.codebook.table import load_table
from welding.coverage.covers import required_of
from welding.coverage.record import as_passed, in_force
from welding.documents.coupon import CouponPiece
from welding.documents.fields import Position, Progression
from welding.documents.intent import Intent
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Code, ImpactRequirement, Joint, Preparation, Pwht, Requirements
from welding.documents.record import HardnessTest, ImpactTest, QualificationRecord, Test
from welding.documents.weld_list import Prices, Shop
from welding.errors import WeldingError
from welding.planning.propose import propose
from welding.qualification.needs import Needs, specified_impact
from welding.testing.overall import TestReport
from welding.weldlist.costs import coupon_cost
from welding.weldlist.joint_types import JointType

SOFT_HV10 = 200.0
"""A traverse that is below every limit; the coupon's own has to show it."""
_WIDER = {
    (False, False): {"groove": ("PA", "PC", "PF", "PE"), "fillet": ("PB", "PF", "PD")},
    (False, True): {"groove": ("PC", "PH", "H-L045"), "fillet": ("PB", "PH")},
    (True, False): {"groove": ("1G", "2G", "3G", "4G"), "fillet": ("2F", "3F", "4F")},
    (True, True): {"groove": ("2G", "5G", "6G"), "fillet": ("2F", "5F")},
}
"""Positions tried besides those of the joints, by AWS or ISO words, plate or pipe (common practice)."""
ONE_SIDED = Preparation(form="single-v", included_angle_deg=60, root_gap_mm=3, root_face_mm=2)
DOUBLE_FROM_MM = 12.0
"""Edges of thicker plate are usually prepared from both sides; one side alone is this V (common practice)."""
_NEAR = 2.6
"""No code lets a coupon count for more than about twice its thickness, or for less than about half of it."""


@dataclass(frozen=True, kw_only=True)
class Candidate:
    """A coupon that might be welded.

    Attributes:
        kin: What it has in common with coupons that differ from it in position alone.
        name: What it is called, such as ``135 S355J2 20 mm PF``.
        record: The coupon with the tests that its range rests on, as if they had been passed.
        cost: What it costs.
    """

    kin: Hashable
    name: str
    record: QualificationRecord
    cost: float

    @cached_property
    def report(self) -> TestReport:
        """The verdict that its tests would have."""
        return as_passed(self.record)


@dataclass(frozen=True, slots=True)
class _Family:
    """What the coupons of a gap have in common."""

    metals: tuple[str, ...]
    joint: Joint
    pipe: bool
    pwht: bool
    process: str


def candidates_for(
    gaps: Sequence[JointType], code: Code, shop: Shop, prices: Prices
) -> tuple[Candidate, ...]:
    """Draft every coupon that is worth trying.

    Args:
        gaps: Joint types without cover.
        code: The code.
        shop: What coupons may be made of.
        prices: What they cost.

    Returns:
        Candidates with names that differ; what cannot be drafted is left out.
    """
    families: dict[_Family, list[JointToWeld]] = {}
    for gap in gaps:
        for family in _families(gap.joint, shop):
            families.setdefault(family, []).append(gap.joint)
    found: dict[str, Candidate] = {}
    for family, joints in families.items():
        for one in _of_family(family, joints, code, shop, prices):
            found.setdefault(one.name, one)
    return tuple(one for one in found.values() if one.name not in shop.without)


def _families(joint: JointToWeld, shop: Shop) -> Iterator[_Family]:
    """Coupons like the joint itself; of a fillet a butt as well, since it may cover both."""
    names = tuple(one.designation for one in joint.base_metals if one.designation)
    if not names:
        return
    pipe = any(one.outside_diameter_mm for one in joint.base_metals)
    processes = (joint.process,) if joint.process else shop.processes
    own = replace(
        joint.joint,
        preparation=None,
        leg1_mm=None,
        leg2_mm=None,
        throat_mm=None,
        length_mm=None,
        branch_angle_deg=None,
    )
    shapes = [Joint(kind="butt", weld="cjp-groove", sides="one", backing="none")]
    if own.weld == "fillet":
        shapes.append(Joint(kind="t", weld="fillet"))
    elif own.kind == "butt":
        shapes.append(own)
    for process in processes:
        if process not in shop.processes:
            continue
        for shape in dict.fromkeys(shapes):
            yield _Family(names if len(names) == 2 else names * 2, shape, pipe, bool(joint.pwht), process)


def _of_family(
    family: _Family, joints: Sequence[JointToWeld], code: Code, shop: Shop, prices: Prices
) -> Iterator[Candidate]:
    requirements = _hardest(joints)
    tests = tuple(_tests(_impact_asked(joints), _needs(joints, code)))
    for thickness in _thicknesses(joints, shop):
        for position in _positions(family, joints, code, shop):
            for diameter in _diameters(family, joints):
                made = _draft(family, thickness, diameter, position, code, requirements, tests)
                if made is not None:
                    yield replace(made, cost=coupon_cost(replace(made.record, tests=()), prices))


def _needs(joints: Sequence[JointToWeld], code: Code) -> Needs:
    asked = in_force(code)
    impact = hardness = False
    for joint in joints:
        found = asked.edition.qualification.needs(required_of(joint, asked).need_facts, asked.level)
        impact, hardness = impact or found.impact, hardness or found.hardness
    return Needs(impact=impact, hardness=hardness)


def _hardest(joints: Sequence[JointToWeld]) -> Requirements | None:
    """The requirements of all of them: what proves the hardest proves the others."""
    stated = [one.requirements for one in joints if one.requirements is not None]
    impacts = [one.impact for one in stated if one.impact]
    exact = [one for one in impacts if isinstance(one, ImpactRequirement)]
    impact: ImpactRequirement | bool | None = True if impacts else None
    if exact:
        impact = ImpactRequirement(
            temperature_c=min(one.temperature_c for one in exact),
            average_j=max(one.average_j for one in exact),
        )
    hardness = True if any(one.hardness for one in stated) else None
    return Requirements(impact=impact, hardness=hardness) if impact or hardness else None


def _thicknesses(joints: Sequence[JointToWeld], shop: Shop) -> list[float]:
    own = {one.thickness_mm for joint in joints for one in joint.base_metals if one.thickness_mm}
    stock = {float(row["thickness_mm"]) for row in load_table("welding.weldlist", "coupon_stock").rows}
    near = {t for t in stock | own if any(mine / _NEAR <= t <= mine * _NEAR for mine in own)}
    return sorted(t for t in near if shop.thickest_mm is None or t <= shop.thickest_mm)


def _positions(family: _Family, joints: Sequence[JointToWeld], code: Code, shop: Shop) -> list[Position]:
    welds = "fillet" if family.joint.weld == "fillet" else "groove"
    usual = _WIDER[code.id.startswith("aws"), family.pipe]
    rows = {row["position"]: row for row in load_table("welding.joints", "positions").rows}
    own = [p for joint in joints for p in joint.positions if welds in rows[p]["welds"]]
    tried: list[Position] = list(dict.fromkeys((*own, *usual[welds])))  # type: ignore[arg-type]
    return [one for one in tried if not shop.positions or one in shop.positions]


def _diameters(family: _Family, joints: Sequence[JointToWeld]) -> list[float | None]:
    if not family.pipe:
        return [None]
    metals = [one for joint in joints for one in joint.base_metals]
    return [*sorted({one.outside_diameter_mm for one in metals if one.outside_diameter_mm})]


def _draft(
    family: _Family,
    thickness_mm: float,
    diameter_mm: float | None,
    position: Position,
    code: Code,
    requirements: Requirements | None,
    tests: tuple[Test, ...],
) -> Candidate | None:
    progression = _progression(position)
    try:
        procedure = propose(
            Intent(
                code=code,
                metals=family.metals,
                thickness_mm=(thickness_mm,) * len(family.metals),
                outside_diameter_mm=diameter_mm,
                joint=_edges(family.joint, thickness_mm),
                position=position,
                progression=progression,
                process=family.process,  # type: ignore[arg-type]
                requirements=requirements,
            )
        ).procedure
    except WeldingError:
        return None
    shape = "fillet" if family.joint.weld == "fillet" else "butt"
    words = [
        family.process,
        " + ".join(dict.fromkeys(family.metals)),
        f"{thickness_mm:g} mm",
        *([f"OD {diameter_mm:g}"] if diameter_mm else []),
        shape,
        *(["both sides"] if family.joint.sides == "both" else []),
        *(["backing"] if family.joint.backing not in (None, "none") else []),
        position,
        *(["PWHT"] if family.pwht else []),
    ]
    name = " ".join(words)
    piece = CouponPiece(
        product="pipe" if diameter_mm else "plate",
        thickness_mm=(thickness_mm, thickness_mm),
        outside_diameter_mm=diameter_mm,
        weld=family.joint.weld,
        position=position,
        progression=progression,
        pwht=Pwht(kind="stress relief") if family.pwht else None,
    )
    record = QualificationRecord(
        number=name,
        procedure=replace(procedure, number=name),
        coupon=piece,
        tests=tests,
    )
    return Candidate(kin=(family, thickness_mm, diameter_mm), name=name, record=record, cost=0.0)


def _edges(joint: Joint, thickness_mm: float) -> Joint:
    """A butt from one side keeps to it: left alone, thick plate would be drafted from both."""
    if joint.kind != "butt" or joint.sides == "both":
        return joint
    if thickness_mm <= DOUBLE_FROM_MM:
        return joint
    return replace(joint, preparation=ONE_SIDED)


def _progression(position: str) -> Progression | None:
    """Which way a position is welded; upwards where the position leaves it open."""
    way = load_table("welding.joints", "positions").row(position)["progression"]
    fixed: dict[str, Progression] = {"up": "up", "down": "down", "open": "up"}
    return fixed.get(way)


def _impact_asked(joints: Sequence[JointToWeld]) -> ImpactRequirement | None:
    """The coldest and highest that any of them asks, by contract or by the grade of its metals."""
    asked = [one.requirements.impact for one in joints if one.requirements is not None]
    exact = [(one.temperature_c, one.average_j) for one in asked if isinstance(one, ImpactRequirement)]
    grades = [value for joint in joints for one in joint.base_metals if (value := specified_impact(one))]
    exact += [(one.temperature_c, one.energy_j) for one in grades]
    if not exact:
        return None
    return ImpactRequirement(
        temperature_c=min(cold for cold, _ in exact), average_j=max(energy for _, energy in exact)
    )


def _tests(aim: ImpactRequirement | None, needs: Needs) -> Iterator[Test]:
    """Tests that a range rests on, with what they will have to show."""
    if needs.impact and aim is not None:
        for place in ("weld metal", "heat-affected zone"):
            yield ImpactTest(
                kind="impact",
                specimen=place,
                location=place,
                temperature_c=aim.temperature_c,
                values_j=(aim.average_j,) * 3,
            )
    if needs.hardness:
        yield HardnessTest(kind="hardness-hv10", specimen="hardness", values=(SOFT_HV10,))
