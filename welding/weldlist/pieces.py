"""A coupon that might be welded: what it is made of, its draft, the record it would give, what it costs."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from welding.codebook.table import load_table
from welding.coverage.record import plan_of
from welding.documents.coupon import CouponPiece, PassRecord
from welding.documents.fields import Position, Progression
from welding.documents.intent import Intent
from welding.documents.procedure import (
    BaseMetal,
    Code,
    ImpactRequirement,
    Joint,
    Pass,
    Preparation,
    Procedure,
    Pwht,
    Requirements,
)
from welding.documents.record import HardnessTest, ImpactTest, QualificationRecord, Test
from welding.documents.weld_list import Prices
from welding.errors import WeldingError
from welding.planning.propose import propose
from welding.qualification.needs import specified_impact
from welding.testing.overall import TestReport
from welding.testing.plan import TestPlan
from welding.weldlist.costs import making_cost, tests_cost

SOFT_HV10 = 200.0
"""A traverse that is below every limit; the coupon's own has to show it."""
ONE_SIDED = Preparation(form="single-v", included_angle_deg=60, root_gap_mm=3, root_face_mm=2)
DOUBLE_FROM_MM = 12.0
"""Edges of thicker plate are usually prepared from both sides; one side alone is this V (common practice)."""


@dataclass(frozen=True, slots=True)
class Family:
    """What the coupons of a gap have in common; ``facts`` tells apart metals of one name."""

    metals: tuple[str, ...]
    facts: bytes
    joint: Joint
    pipe: bool
    pwht: bool
    process: str

    @property
    def weld(self) -> str:
        """Its weld and edges in words."""
        words = (
            "fillet" if self.joint.weld == "fillet" else "butt",
            "partial penetration" if self.joint.weld == "pjp-groove" else "",
            "both sides" if self.joint.sides == "both" else "",
            "backing" if self.joint.backing not in (None, "none") else "",
        )
        return " ".join(one for one in words if one)

    @property
    def words(self) -> Hashable:
        """What its coupons are called by; families that differ in less are numbered."""
        return self.metals, self.weld, self.pwht, self.pipe, self.process


USUAL_J = 27.0
"""Energy that goes without saying where a coupon is named; another one is named with it."""


@dataclass(frozen=True, slots=True)
class Piece:
    """What one coupon is to be; ``variant`` numbers those that go by the same words."""

    family: Family
    members: tuple[BaseMetal, ...]
    thickness_mm: float
    diameter_mm: float | None
    position: Position
    requirements: Requirements
    variant: int = 1

    @property
    def name(self) -> str:
        """What tells it apart from every other candidate."""
        family, impact = self.family, self.requirements.impact
        words = (
            family.process,
            " + ".join(dict.fromkeys(family.metals)),
            f"{self.thickness_mm:g} mm",
            self.diameter_mm and f"OD {self.diameter_mm:g}",
            family.weld,
            self.position,
            "PWHT" if family.pwht else "",
            "impact" if impact else "",
            f"{impact.temperature_c:g} °C" if isinstance(impact, ImpactRequirement) else "",
            f"{impact.average_j:g} J"
            if isinstance(impact, ImpactRequirement) and impact.average_j != USUAL_J
            else "",
            "hardness" if self.requirements.hardness else "",
            f"({self.variant})" if self.variant > 1 else "",
        )
        return " ".join(one for one in words if one)

    def draft(self, code: Code) -> Drafted | None:
        """Its procedure; ``None`` where none can be drafted."""
        try:
            return Drafted(
                propose(
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
            )
        except WeldingError:
            return None


class Drafted:
    """A draft that coupons of one size share: what each of them needs of it is worked out once."""

    def __init__(self, procedure: Procedure) -> None:
        self.procedure = procedure
        self._passes: dict[Progression | None, tuple[Pass, ...]] = {}
        self._making: dict[float, float] = {}

    def passes(self, progression: Progression | None) -> tuple[Pass, ...]:
        """Its passes, welded that way."""
        if progression not in self._passes:
            passes = self.procedure.passes
            self._passes[progression] = tuple(replace(one, progression=progression) for one in passes)
        return self._passes[progression]

    def making_cost(self, thickness_mm: float, prices: Prices) -> float:
        """Cost of plate, weld metal and time; always asked with the same prices."""
        if thickness_mm not in self._making:
            self._making[thickness_mm] = making_cost(self.procedure, thickness_mm, prices)
        return self._making[thickness_mm]

    @cached_property
    def as_logged(self) -> tuple[PassRecord, ...]:
        """Welded as planned: what is absent from a record was."""
        return tuple(PassRecord(number=one.number, side=one.side) for one in self.procedure.passes)


class Candidate:
    """A coupon that might be welded.

    Args:
        piece: What it is to be.
        draft: The procedure that it is welded to.
        code: The code.
        prices: What it costs is worked out from these.
        cost: What it costs, where that is known.
    """

    def __init__(
        self, piece: Piece, draft: Drafted, code: Code, prices: Prices, cost: float | None = None
    ) -> None:
        self.piece, self.draft, self._code, self._prices = piece, draft, code, prices
        if cost is not None:
            self.cost = cost

    @cached_property
    def name(self) -> str:
        """What it is called, such as ``135 S355J2 20 mm butt PF``."""
        return self.piece.name

    @cached_property
    def _welded(self) -> QualificationRecord:
        return _record(self.piece, self.draft, self._code)

    @cached_property
    def plan(self) -> TestPlan:
        """The tests that its code asks for."""
        return plan_of(self._welded)

    @cached_property
    def cost(self) -> float:
        """What it costs to weld and to test, in the currency of the prices."""
        making = self.draft.making_cost(self.piece.thickness_mm, self._prices)
        return round(self._prices.coupon + making + tests_cost(self.plan, self._prices), 2)

    @cached_property
    def record(self) -> QualificationRecord:
        """The coupon with the tests that its range rests on, as if they had been passed."""
        return replace(self._welded, tests=tuple(_tests(self.plan, self.piece)))

    @cached_property
    def report(self) -> TestReport:
        """The verdict that its tests would have."""
        return TestReport(
            verdict="accepted", specimens=(), missing=(), retests=(), findings=(), plan=self.plan
        )

    def for_its_position(self) -> Candidate:
        """The same with a procedure drafted for its own position; as it is where none can be."""
        draft = self.piece.draft(self._code)
        return self if draft is None else Candidate(self.piece, draft, self._code, self._prices, self.cost)


def _record(piece: Piece, draft: Drafted, code: Code) -> QualificationRecord:
    progression = _progression(piece.position)
    # The joint's own words for its metals: what a draft calls them may say less.
    metals = tuple(
        replace(one, thickness_mm=piece.thickness_mm, outside_diameter_mm=piece.diameter_mm)
        for one in piece.members
    )
    procedure = replace(
        draft.procedure,
        number=piece.name,
        code=code,
        requirements=piece.requirements,
        base_metals=metals,
        positions=(piece.position,),
        passes=draft.passes(progression),
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
            passes=draft.as_logged,
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


def _tests(plan: TestPlan, piece: Piece) -> Iterator[Test]:
    """The tests of a plan that a range rests on, with what they will have to show."""
    kinds = {one.kind for one in plan.items}
    asked = piece.requirements.impact
    aim = asked if isinstance(asked, ImpactRequirement) else by_grade(piece.members)
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


def by_grade(metals: Sequence[BaseMetal]) -> ImpactRequirement | None:
    """The coldest and highest that the grades of metals specify."""
    found = [value for one in metals if (value := specified_impact(one))]
    if not found:
        return None
    return ImpactRequirement(
        temperature_c=min(one.temperature_c for one in found), average_j=max(one.energy_j for one in found)
    )
