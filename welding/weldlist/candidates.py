"""What coupons for joints without cover may be: metals, shapes, processes, sizes, positions, tests."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import product

from welding.codebook.table import load_table
from welding.coverage.covers import required_of
from welding.coverage.record import in_force
from welding.documents.codec import JOINT
from welding.documents.fields import Position
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import BaseMetal, Code, ImpactRequirement, Joint, Requirements
from welding.documents.weld_list import Shop
from welding.weldlist.joint_types import JointType
from welding.weldlist.pieces import Family, Piece, by_grade

_NEAR = 2.6
"""No code lets a coupon count for more than about twice its thickness, or for less than about half of it."""
MOST_OWN = 24
SAME = 0.1
"""Of more thicknesses than this in one family, those within a tenth of stock are left to stock."""
THICKEST_WALL = 0.2
"""Pipe with a wall of more than a fifth of its diameter is hardly to be had (common practice)."""


@dataclass(frozen=True, slots=True)
class Options:
    """What the coupons of one family may be.

    Attributes:
        family: What they have in common.
        members: Metals of the joints without their sizes.
        joints: The joints that they are tried for.
        thicknesses_mm: Thicknesses worth trying.
        diameters_mm: Outside diameters worth trying; one that is ``None`` for plate.
        positions: Positions worth trying.
        requirements: What its coupons may have to show.
        variant: Numbers families that go by the same words.
    """

    family: Family
    members: tuple[BaseMetal, ...]
    joints: tuple[JointToWeld, ...]
    thicknesses_mm: tuple[float, ...]
    diameters_mm: tuple[float | None, ...]
    positions: tuple[Position, ...]
    requirements: tuple[Requirements, ...]
    variant: int

    @property
    def sizes_mm(self) -> list[tuple[float, float | None]]:
        """Thickness and diameter; of pipe walls as they are made, and as the list itself has them."""
        own = {
            (one.thickness_mm, one.outside_diameter_mm) for joint in self.joints for one in joint.base_metals
        }
        return [
            (t, diameter)
            for t, diameter in product(self.thicknesses_mm, self.diameters_mm)
            if diameter is None or t <= THICKEST_WALL * diameter or (t, diameter) in own
        ]

    @property
    def count(self) -> int:
        """How many coupons that makes."""
        return len(self.sizes_mm) * len(self.requirements) * len(self.positions)

    def piece(
        self, thickness_mm: float, diameter_mm: float | None, position: Position, asked: Requirements
    ) -> Piece:
        """One of them."""
        return Piece(self.family, self.members, thickness_mm, diameter_mm, position, asked, self.variant)


def options_for(gaps: Sequence[JointType], code: Code, shop: Shop) -> list[Options]:
    """What coupons may be made of, a family at a time.

    Args:
        gaps: Joint types without cover.
        code: The code.
        shop: What coupons may be made of.
    """
    families: dict[Family, list[JointToWeld]] = {}
    for gap in gaps:
        for family in _families(gap.joint, shop):
            families.setdefault(family, []).append(gap.joint)
    # A coupon of one family may close gaps of another one that asks more.
    all_asked = levels_of([asked_of(gap.joint, code) for gap in gaps])
    called: dict[Hashable, int] = {}
    found = []
    for family, joints in families.items():
        called[family.words] = variant = called.get(family.words, 0) + 1
        found.append(
            Options(
                family=family,
                members=_members(joints[0]),
                joints=tuple(joints),
                thicknesses_mm=tuple(_thicknesses(joints, shop)),
                diameters_mm=_diameters(family, joints),
                positions=positions_for(family, joints, code, shop),
                requirements=tuple(
                    dict.fromkeys((*levels_of([asked_of(one, code) for one in joints]), *all_asked))
                ),
                variant=variant,
            )
        )
    return found


def _families(joint: JointToWeld, shop: Shop) -> Iterator[Family]:
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
            yield Family(names, facts, shape, pipe, bool(joint.pwht), process)


def _members(joint: JointToWeld) -> tuple[BaseMetal, ...]:
    """Both members without their sizes; one that stands alone is joined to its like."""
    found = tuple(replace(one, thickness_mm=None, outside_diameter_mm=None) for one in joint.base_metals)
    return found * 2 if len(found) == 1 else found


def asked_of(joint: JointToWeld, code: Code) -> Requirements:
    """Impact toughness and hardness that a joint asks for, by contract or by the code, spelt out."""
    asked = in_force(code)
    needs = asked.edition.qualification.needs(required_of(joint, asked).need_facts, asked.level)
    stated = joint.requirements.impact if joint.requirements else None
    impact: ImpactRequirement | bool | None = None
    if needs.impact:
        impact = stated if isinstance(stated, ImpactRequirement) else by_grade(joint.base_metals) or True
    return Requirements(impact=impact, hardness=True if needs.hardness else None)


def hardest(asked: Sequence[Requirements]) -> Requirements:
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


def levels_of(asked: Sequence[Requirements]) -> list[Requirements]:
    """The hardest of each kind of tests, and of all of them: one that has to show more costs no more."""
    kinds: dict[tuple[bool, bool], list[Requirements]] = {}
    for one in asked:
        kinds.setdefault((bool(one.impact), bool(one.hardness)), []).append(one)
    each, most = [hardest(some) for some in kinds.values()], hardest(asked)
    return [*(one for one in each if one != most), most]


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


def positions_for(
    family: Family, joints: Sequence[JointToWeld], code: Code, shop: Shop
) -> tuple[Position, ...]:
    """Positions of the joints, and those that coupons of their kind are usually welded in."""
    welds = "fillet" if family.joint.weld == "fillet" else "groove"
    kind = f"{'aws' if code.id.startswith('aws') else 'iso'} {'pipe' if family.pipe else 'plate'} {welds}"
    usual = load_table("welding.weldlist", "coupon_positions").row(kind)["positions"]
    rows = {row["position"]: row for row in load_table("welding.joints", "positions").rows}
    own = [p for joint in joints for p in joint.positions if welds in rows[p]["welds"]]
    tried: list[Position] = list(dict.fromkeys((*own, *usual)))
    return tuple(one for one in tried if not shop.positions or one in shop.positions)


def _diameters(family: Family, joints: Sequence[JointToWeld]) -> tuple[float | None, ...]:
    if not family.pipe:
        return (None,)
    metals = [one for joint in joints for one in joint.base_metals]
    return tuple(sorted({one.outside_diameter_mm for one in metals if one.outside_diameter_mm}))
