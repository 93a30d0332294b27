"""What is to be covered: a procedure, or a joint whose welding is still open."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from welding.checks.context import Draft
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import BaseMetal, Joint, Pass, Procedure
from welding.heat.passes import HeatRule, PassHeat, pass_heat
from welding.joints.section import Sectioned
from welding.qualification.coupon import RunKind, runs_a_side
from welding.qualification.deposits import Deposit, deposits_of
from welding.qualification.fillet import leg_mm_of, throat_mm_of
from welding.qualification.needs import NeedFacts


@dataclass(frozen=True)
class RequiredScope:
    """A procedure with its passes, or a joint: then what it does not state is left to the procedure."""

    procedure: Procedure
    rule: HeatRule
    process: str | None = None
    joint_progression: str | None = None
    pwht: bool | None = None
    named: str = ""
    of_a_list: bool = False

    @property
    def open_welding(self) -> bool:
        """Whether the welding itself is not stated at all."""
        return not self.procedure.passes

    @cached_property
    def draft(self) -> Draft:
        """The procedure as checks see it."""
        system = self.procedure.code.units if self.procedure.code else "si"
        return Draft(procedure=self.procedure, heat=self.heat, sectioned=Sectioned(), system=system)

    @property
    def joint(self) -> Joint | None:
        """The joint."""
        return self.procedure.joint

    @property
    def weld(self) -> str | None:
        """groove, fillet, or what else it is."""
        if self.joint is None:
            return None
        return "fillet" if self.joint.weld == "fillet" else "groove"

    def is_of(self, weld: str | None) -> bool:
        """Whether what holds for a weld, for all grooves or for fillets holds here."""
        return weld is None or self.joint is None or weld in (self.weld, self.joint.weld)

    @cached_property
    def metals(self) -> tuple[BaseMetal, ...]:
        """Both members; one metal stands for both."""
        found = self.procedure.base_metals
        return found * 2 if len(found) == 1 else found

    @cached_property
    def thicknesses_mm(self) -> tuple[float, ...]:
        """Thickness of each member; empty while one is unknown."""
        found = [one.thickness_mm for one in self.metals]
        return tuple(t for t in found if t) if found and all(found) else ()

    @property
    def thickness_mm(self) -> float | None:
        """Thickness at the joint: the thinner part of a butt, the prepared member of a T or branch."""
        known = self.thicknesses_mm
        if not known:
            return None
        if self.joint and self.joint.kind in ("t", "corner", "branch") and self.joint.weld != "fillet":
            return known[-1]
        return min(known)

    @cached_property
    def members_asked(self) -> list[tuple[int, float]]:
        """Members (0 or 1) with the thickness asked: both of a fillet, the governing one of a groove."""
        known = self.thicknesses_mm
        if self.weld == "fillet":
            return list(enumerate(known))
        t = self.thickness_mm
        return [] if t is None else [(known.index(t), t)]

    @cached_property
    def outside_diameter_mm(self) -> float | None:
        """Smallest outside diameter; ``None`` for plate."""
        found = [one.outside_diameter_mm for one in self.metals if one.outside_diameter_mm]
        return min(found) if found else None

    @cached_property
    def progressions(self) -> tuple[str, ...]:
        """Progressions stated."""
        found = [one.progression for one in self.procedure.passes if one.progression]
        if self.joint_progression:
            found.append(self.joint_progression)  # type: ignore[arg-type]
        return tuple(dict.fromkeys(str(one) for one in found))

    @property
    def progression(self) -> str | None:
        """The one progression stated."""
        return self.progressions[0] if len(self.progressions) == 1 else None

    @property
    def processes(self) -> tuple[str, ...]:
        """Processes in the order of their first pass; the joint's own where it names one."""
        found = tuple(dict.fromkeys(one.process for one in self.procedure.passes))
        return found or ((self.process,) if self.process else ())

    @cached_property
    def heat(self) -> tuple[PassHeat, ...]:
        """Heat input of the passes, by the code's own way of counting it."""
        found = (pass_heat(one, self.rule) for one in self.procedure.passes)
        return tuple(one for one in found if one is not None)

    def heat_of(self, one: Pass) -> PassHeat | None:
        """Heat input of a pass."""
        return next((h for h in self.heat if h.pass_number == one.number), None)

    def run_kind(self, process: str | None = None) -> RunKind:
        """single or multi, over the passes of a process; several processes count as several runs."""
        if len(self.processes) > 1:
            return "multi"
        return runs_a_side(
            one.side for one in self.procedure.passes if process is None or one.process == process
        )

    @property
    def throat_mm(self) -> float | None:
        """Throat of a fillet at a right angle."""
        return throat_mm_of(self.joint)

    @property
    def leg_mm(self) -> float | None:
        """Leg of a fillet, the smaller of two."""
        return leg_mm_of(self.joint)

    @property
    def groove_depth_mm(self) -> float | None:
        """Depth of a partial groove."""
        preparation = self.joint.preparation if self.joint else None
        if preparation is None:
            return None
        depths = [side.depth_mm for side in preparation.sides if side.depth_mm]
        if depths:
            return max(depths)
        if self.thickness_mm is None or preparation.form.startswith("double"):
            return None
        return self.thickness_mm - (preparation.root_face_mm or 0.0)

    @property
    def weld_depth_mm(self) -> float | None:
        """Thickness that is welded in all: of the base metal, of a partial groove its depth."""
        partial = self.joint is not None and self.joint.weld == "pjp-groove"
        return self.groove_depth_mm if partial else self.thickness_mm

    @cached_property
    def deposits(self) -> Mapping[str, Deposit]:
        """Thickness that each process will lay down, of a joint that several weld."""
        passes = self.procedure.passes
        return deposits_of(self.procedure, [(one, one.deposit_mm) for one in passes], self.weld_depth_mm)

    @property
    def heat_treated(self) -> bool | None:
        """Whether it is heat-treated after welding; ``None`` where nothing is said."""
        if self.procedure.thermal and self.procedure.thermal.pwht:
            return True
        if self.pwht is not None:
            return self.pwht
        return None if self.open_welding else False

    @property
    def need_facts(self) -> NeedFacts:
        """What decides whether impact toughness and hardness are required."""
        return NeedFacts(
            draft=self.draft,
            metals=self.metals,
            thickness_mm=self.thickness_mm,
            requirements=self.procedure.requirements,
            weld=self.joint.weld if self.joint else None,
        )


def required_scope_of(target: Procedure | JointToWeld, rule: HeatRule) -> RequiredScope:
    """A procedure or a joint as what is to be covered."""
    if isinstance(target, Procedure):
        return RequiredScope(target, rule, named=target.number or "")
    return RequiredScope(
        target.as_procedure,
        rule,
        process=target.process,
        joint_progression=target.progression,
        pwht=target.pwht,
        named=target.number or "",
        of_a_list=True,
    )
