"""Coupons worth trying: for joints without cover, drafts of pieces with the range each would give."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import product

from welding.codebook.table import load_table
from welding.coverage.covers import required_of
from welding.coverage.record import as_passed, in_force, plan_of
from welding.documents.codec import JOINT
from welding.documents.coupon import CouponPiece, PassRecord
from welding.documents.fields import Position, Progression
from welding.documents.intent import Intent
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import (
    BaseMetal,
    Code,
    ImpactRequirement,
    Joint,
    Preparation,
    Procedure,
    Pwht,
    Requirements,
)
from welding.documents.record import HardnessTest, ImpactTest, QualificationRecord, Test
from welding.documents.weld_list import Prices, Shop
from welding.errors import WeldingError
from welding.planning.propose import propose
from welding.qualification.needs import specified_impact
from welding.testing.overall import TestReport
from welding.testing.plan import TestPlan
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


MOST_OWN = 24
SAME = 0.1
"""Of more thicknesses than this in one family, those within a tenth of stock are left to stock."""


@dataclass(frozen=True, kw_only=True)
class Candidate:
    """A coupon that might be welded.

    Attributes:
        kin: What it has in common with coupons that differ from it in position alone.
        piece: What it is to be.
        name: What it is called, such as ``135 S355J2 20 mm PF``.
        record: The coupon with the tests that its range rests on, as if they had been passed.
        cost: What it costs.
    """

    kin: Hashable
    name: str
    piece: _Piece
    record: QualificationRecord
    cost: float

    @cached_property
    def report(self) -> TestReport:
        """The verdict that its tests would have."""
        return as_passed(self.record)


@dataclass(frozen=True, slots=True)
class _Family:
    """What the coupons of a gap have in common; ``facts`` tells apart metals of one name."""

    metals: tuple[str, ...]
    facts: bytes
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
    metals = _members(joint)
    names = tuple(one.designation or "" for one in metals)
    if not all(names) or not names:
        return
    facts = JOINT.write(JointToWeld(base_metals=metals, joint=Joint(kind="butt", weld="cjp-groove")))
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
            yield _Family(names, facts, shape, pipe, bool(joint.pwht), process)


def _members(joint: JointToWeld) -> tuple[BaseMetal, ...]:
    """Both members without their sizes; one that stands alone is joined to its like."""
    found = tuple(replace(one, thickness_mm=None, outside_diameter_mm=None) for one in joint.base_metals)
    return found * 2 if len(found) == 1 else found


def _of_family(
    family: _Family, joints: Sequence[JointToWeld], code: Code, shop: Shop, prices: Prices
) -> Iterator[Candidate]:
    members = _members(joints[0])
    asked = [_asked_of(joint, code) for joint in joints]
    positions = _positions(family, joints, code, shop)
    # A coupon for all of them, and cheaper ones for those that ask less.
    variants = tuple(dict.fromkeys((*asked, _hardest(asked))))
    for thickness, diameter in product(_thicknesses(joints, shop), _diameters(family, joints)):
        plan: Procedure | None = None
        for requirements, position in product(variants, positions):
            piece = _Piece(family, members, thickness, diameter, position, requirements)
            # Passes of one position stand for the others: what is chosen is drafted for its own.
            plan = plan or piece.draft(code)
            if plan is not None:
                yield _candidate(piece, plan, code, prices)


def _asked_of(joint: JointToWeld, code: Code) -> Requirements:
    """Impact toughness and hardness that a joint asks for, by contract or by the code, spelt out."""
    asked = in_force(code)
    needs = asked.edition.qualification.needs(required_of(joint, asked).need_facts, asked.level)
    stated = joint.requirements.impact if joint.requirements else None
    impact: ImpactRequirement | bool | None = None
    if needs.impact:
        impact = stated if isinstance(stated, ImpactRequirement) else _by_grade(joint.base_metals) or True
    return Requirements(impact=impact, hardness=True if needs.hardness else None)


def _by_grade(metals: Sequence[BaseMetal]) -> ImpactRequirement | None:
    """The coldest and highest that the grades of metals specify."""
    found = [value for one in metals if (value := specified_impact(one))]
    if not found:
        return None
    return ImpactRequirement(
        temperature_c=min(one.temperature_c for one in found), average_j=max(one.energy_j for one in found)
    )


def _hardest(asked: Sequence[Requirements]) -> Requirements:
    """What proves the hardest proves the others."""
    impacts = [one.impact for one in asked if one.impact]
    exact = [one for one in impacts if isinstance(one, ImpactRequirement)]
    impact: ImpactRequirement | bool | None = True if impacts else None
    if exact:
        impact = ImpactRequirement(
            temperature_c=min(one.temperature_c for one in exact),
            average_j=max(one.average_j for one in exact),
        )
    return Requirements(impact=impact, hardness=True if any(one.hardness for one in asked) else None)


def _thicknesses(joints: Sequence[JointToWeld], shop: Shop) -> list[float]:
    own = {one.thickness_mm for joint in joints for one in joint.base_metals if one.thickness_mm}
    stock = {float(row["thickness_mm"]) for row in load_table("welding.weldlist", "coupon_stock").rows}
    near = {
        t for t in stock | worth_trying(own, stock) if any(mine / _NEAR <= t <= mine * _NEAR for mine in own)
    }
    return sorted(t for t in near if shop.thickest_mm is None or t <= shop.thickest_mm)


def worth_trying(own: set[float], stock: set[float]) -> set[float]:
    """Thicknesses of the list; of very many those apart from stock, and the least and the greatest.

    A coupon of stock within a tenth qualifies nearly the same, and drafting each would take minutes.
    """
    if len(own) <= MOST_OWN:
        return own
    apart = {t for t in own if all(abs(t - other) > SAME * other for other in stock)}
    return apart | {min(own), max(own)}


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


@dataclass(frozen=True, slots=True)
class _Piece:
    """What one coupon is to be."""

    family: _Family
    members: tuple[BaseMetal, ...]
    thickness_mm: float
    diameter_mm: float | None
    position: Position
    requirements: Requirements

    @property
    def name(self) -> str:
        """What tells it apart from every other candidate."""
        family, impact = self.family, self.requirements.impact
        cold = f" {impact.temperature_c:g} °C" if isinstance(impact, ImpactRequirement) else ""
        words = (
            family.process,
            " + ".join(dict.fromkeys(family.metals)),
            f"{self.thickness_mm:g} mm",
            self.diameter_mm and f"OD {self.diameter_mm:g}",
            "fillet" if family.joint.weld == "fillet" else "butt",
            "both sides" if family.joint.sides == "both" else "",
            "backing" if family.joint.backing not in (None, "none") else "",
            self.position,
            "PWHT" if family.pwht else "",
            f"impact{cold}" if impact else "",
            "hardness" if self.requirements.hardness else "",
        )
        return " ".join(one for one in words if one)

    def draft(self, code: Code) -> Procedure | None:
        """Its procedure; ``None`` where it cannot be planned."""
        try:
            return propose(
                Intent(
                    code=code,
                    metals=self.family.metals,
                    thickness_mm=(self.thickness_mm, self.thickness_mm),
                    outside_diameter_mm=self.diameter_mm,
                    joint=_edges(self.family.joint, self.thickness_mm),
                    position=self.position,
                    progression=_progression(self.position),
                    process=self.family.process,  # type: ignore[arg-type]
                    requirements=self.requirements,
                )
            ).procedure
        except WeldingError:
            return None


def _candidate(piece: _Piece, plan: Procedure, code: Code, prices: Prices) -> Candidate:
    """A coupon of this plan, welded in the position of the piece."""
    record = _record(piece, plan, code)
    tests = plan_of(record)
    return Candidate(
        kin=(piece.family, piece.thickness_mm, piece.diameter_mm, piece.requirements),
        name=piece.name,
        piece=piece,
        record=replace(record, tests=tuple(_tests(tests, piece))),
        cost=coupon_cost(record, tests, prices),
    )


def drafted(one: Candidate, code: Code) -> Candidate:
    """The same coupon with a procedure drafted for its own position; as it is where none can be."""
    plan = one.piece.draft(code)
    if plan is None:
        return one
    return replace(one, record=replace(_record(one.piece, plan, code), tests=one.record.tests))


def _record(piece: _Piece, plan: Procedure, code: Code) -> QualificationRecord:
    progression = _progression(piece.position)
    # The joint's own words for its metals: what a draft calls them may say less.
    metals = tuple(
        replace(one, thickness_mm=piece.thickness_mm, outside_diameter_mm=piece.diameter_mm)
        for one in piece.members
    )
    procedure = replace(
        plan,
        number=piece.name,
        code=code,
        requirements=piece.requirements,
        base_metals=metals,
        positions=(piece.position,),
        passes=tuple(replace(one, progression=progression) for one in plan.passes),
    )
    return QualificationRecord(
        number=piece.name,
        procedure=procedure,
        coupon=CouponPiece(
            product="pipe" if piece.diameter_mm else "plate",
            thickness_mm=(piece.thickness_mm, piece.thickness_mm),
            outside_diameter_mm=piece.diameter_mm,
            weld=piece.family.joint.weld,
            position=piece.position,
            progression=progression,
            pwht=Pwht(kind="stress relief") if piece.family.pwht else None,
            # Welded as planned: what is absent from a record was.
            passes=tuple(PassRecord(number=one.number, side=one.side) for one in plan.passes),
        ),
    )


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


def _tests(plan: TestPlan, piece: _Piece) -> Iterator[Test]:
    """The tests of a plan that a range rests on, with what they will have to show."""
    kinds = {one.kind for one in plan.items}
    asked = piece.requirements.impact
    aim = asked if isinstance(asked, ImpactRequirement) else _by_grade(piece.members)
    if "impact" in kinds and aim is not None:
        for place in ("weld metal", "heat-affected zone"):
            yield ImpactTest(
                kind="impact",
                specimen=place,
                location=place,
                temperature_c=aim.temperature_c,
                values_j=(aim.average_j,) * 3,
            )
    if "hardness-hv10" in kinds:
        yield HardnessTest(kind="hardness-hv10", specimen="hardness", values=(SOFT_HV10,))
