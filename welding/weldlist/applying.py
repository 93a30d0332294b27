"""Whether a procedure may be used for a joint: what its sheet states, its records cover, its code asks."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, fields, replace
from functools import cached_property

from welding.coverage.covers import CoverVerdict, covers
from welding.coverage.record import keeping_ranges
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import BaseMetal, Code, Joint, Pass, Preparation, Procedure, Requirements
from welding.documents.record import QualificationRecord
from welding.evaluate.procedure import Evaluation, evaluate
from welding.finding import Finding
from welding.metals.catalogue import find
from welding.weldlist.stated_limits import stated_limits

_ORDER = {"violates": 0, "undecided": 1}
_STATED = tuple(one.name for one in fields(BaseMetal))
_SUMMED_UP = frozenset({"prequalified.verdict"})
_MORE_LAYERS = frozenset({"prequalified.layer-thickness", "prequalified.root-thickness"})
"""Thicker metal is welded in more layers of the size that the sheet is drawn with, not in its few."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Applied:
    """How a procedure stands to a joint.

    Attributes:
        verdict: ``covered``: it may be used; ``open`` where a fact is lacking; ``blocked``.
        findings: What blocks or is open, what blocks first.
        records: Numbers of the records that cover the joint as it would be welded; empty where a procedure is
            prequalified.
        margin: How far the joint lies inside the limits that the sheet states, as a share of its own size;
            ``inf`` without a limit.
    """

    verdict: CoverVerdict
    findings: tuple[Finding, ...]
    records: tuple[str, ...]
    margin: float


def applied_to(
    procedure: Procedure, joint: JointToWeld, records: Sequence[QualificationRecord], code: Code
) -> Applied:
    """Whether a joint may be welded to a procedure.

    Three questions, each answered where it is answered everywhere else: whether the sheet of the procedure
    states the joint; whether the procedure, written for this joint, is covered by the records that support it
    (``covers``), or is still prequalified; whether it meets the requirements of its code for this joint
    (``evaluate``), such as the preheat for its thickness.

    Args:
        procedure: A procedure that is released.
        joint: The joint, or a joint type.
        records: Records that support the procedure and count.
        code: Code of the list.
    """
    return applied_to_each(procedure, [joint], records, code)[0]


def applied_to_each(
    procedure: Procedure,
    joints: Sequence[JointToWeld],
    records: Sequence[QualificationRecord],
    code: Code,
) -> list[Applied]:
    """The same of many joints: what holds for the procedure and its records alone is found once."""
    sheet = _Sheet(procedure)
    with keeping_ranges():
        return [_applied(sheet, one, records, code) for one in joints]


class _Sheet:
    """A procedure with what its code says of it as it is drawn, found once it is asked."""

    def __init__(self, procedure: Procedure) -> None:
        self.procedure = procedure

    @cached_property
    def as_drawn(self) -> frozenset[tuple[str, str]]:
        """Rules with their verdicts."""
        return frozenset((one.rule, one.verdict) for one in _evaluated(self.procedure).findings)


def _applied(
    sheet: _Sheet, joint: JointToWeld, records: Sequence[QualificationRecord], code: Code
) -> Applied:
    procedure = sheet.procedure
    margin, stated = stated_limits(procedure, joint, records, code)
    findings = list(stated)
    by: tuple[str, ...] = ()
    # What the sheet rules out by itself is not asked any further.
    if not any(one.verdict == "violates" for one in findings):
        written = written_for(procedure, joint)
        if procedure.code is not None and procedure.code.route == "prequalified":
            findings += _of_prequalified(sheet, written)
        else:
            found = covers(records, written, code.id, code.level)
            by = found.by
            findings += () if found.covered else found.findings
            findings += _new_breaches(sheet, written)
    against = sorted((one for one in findings if one.verdict in _ORDER), key=lambda one: _ORDER[one.verdict])
    verdict: CoverVerdict = (
        "covered" if not against else "blocked" if against[0].verdict == "violates" else "open"
    )
    return Applied(
        verdict=verdict, findings=tuple(against), records=by if verdict == "covered" else (), margin=margin
    )


def written_for(procedure: Procedure, joint: JointToWeld) -> Procedure:
    """The procedure as it would be written for a joint: its passes and heat, the joint's metals and sizes."""
    metals = tuple(_metal(one, procedure) for one in joint.base_metals) or procedure.base_metals
    return replace(
        procedure,
        requirements=_required(procedure.requirements, joint.requirements),
        base_metals=metals,
        joint=_joint(procedure, joint),
        positions=joint.positions or procedure.positions,
        applies_to=None,
        passes=_deposits(procedure, joint),
    )


def _metal(asked: BaseMetal, procedure: Procedure) -> BaseMetal:
    """A member with the standard and condition that the sheet or the catalogue has for its grade."""
    metal = find(asked.designation or "")
    named = metal.name if metal else asked.designation
    for own in procedure.base_metals:
        grade = find(own.designation or "")
        if not own.designation or (grade.name if grade else own.designation) != named:
            continue
        if metal is not None:
            return _told(asked, own.standard or metal.standard, own.condition or metal.condition)
        # Nobody but the sheet knows this grade. The piece that it was drawn from is not that of this joint.
        given = {name: getattr(asked, name) for name in _STATED if getattr(asked, name) is not None}
        plain = replace(own, heat=None, certificate=None, chemistry=None, outside_diameter_mm=None)
        return replace(plain, **given)
    return asked if metal is None else _told(asked, metal.standard, metal.condition)


def _told(asked: BaseMetal, standard: str, condition: str) -> BaseMetal:
    return replace(
        asked, standard=asked.standard or standard or None, condition=asked.condition or condition or None
    )


def _required(own: Requirements | None, asked: Requirements | None) -> Requirements | None:
    """What the joint asks; what it says nothing of stays as the procedure has it."""
    if own is None or asked is None:
        return asked or own
    return Requirements(
        impact=asked.impact if asked.impact is not None else own.impact,
        hardness=asked.hardness if asked.hardness is not None else own.hardness,
        hardness_limit=asked.hardness_limit or own.hardness_limit,
    )


def _joint(procedure: Procedure, joint: JointToWeld) -> Joint:
    own, asked = procedure.joint, joint.joint
    if own is None:
        return asked
    sized = {
        name: getattr(asked, name)
        for name in ("throat_mm", "leg1_mm", "leg2_mm", "branch_angle_deg", "dihedral_deg")
        if getattr(asked, name) is not None
    }
    if sized.keys() & {"throat_mm", "leg1_mm", "leg2_mm"}:
        # One size of a fillet follows from the other: that of the drawing is not mixed with the sheet's.
        sized = {"throat_mm": None, "leg1_mm": None, "leg2_mm": None} | sized
    stated = asked.preparation
    if stated is not None:
        given = {
            name: getattr(stated, name)
            for name in ("included_angle_deg", "root_gap_mm", "root_face_mm")
            if getattr(stated, name) is not None
        }
        if stated.sides:
            given["sides"] = stated.sides
        base = own.preparation if own.preparation and own.preparation.form == stated.form else stated
        sized["preparation"] = replace(base, **given)
    elif own.weld == "cjp-groove" and own.preparation is not None and own.preparation.sides:
        sized["preparation"] = _as_deep(own.preparation, procedure, joint)
    return replace(own, **sized)


def _as_deep(drawn: Preparation, procedure: Procedure, joint: JointToWeld) -> Preparation:
    """Both sides of a double form as deep in the thickness of the joint as in that of the sheet."""
    before, now = _thickness(procedure), _thickness(joint)
    if before is None or now is None or before == now:
        return drawn
    sides = tuple(
        replace(one, depth_mm=one.depth_mm * now / before) if one.depth_mm else one for one in drawn.sides
    )
    return replace(drawn, sides=sides)


def _thickness(of: Procedure | JointToWeld) -> float | None:
    return min((one.thickness_mm for one in of.base_metals if one.thickness_mm), default=None)


def _deposits(procedure: Procedure, joint: JointToWeld) -> tuple[Pass, ...]:
    """Stated deposits of a joint of another thickness: the process with most of it takes the difference.

    Left unstated where that would leave nothing of it; how thick each process is, is unknown then.
    """
    passes = procedure.passes
    if len({one.process for one in passes}) < 2 or any(one.deposit_mm is None for one in passes):
        return passes
    drawn, wanted = _thickness(procedure), _thickness(joint)
    if drawn is None or wanted is None or drawn == wanted:
        return passes
    laid: dict[str, float] = {}
    for one in passes:
        laid[one.process] = laid.get(one.process, 0.0) + (one.deposit_mm or 0.0)
    most = max(laid, key=lambda process: laid[process])
    left = laid[most] + wanted - drawn
    if left <= 0:
        return tuple(replace(one, deposit_mm=None) for one in passes)
    share = left / laid[most]
    return tuple(
        replace(one, deposit_mm=(one.deposit_mm or 0.0) * share) if one.process == most else one
        for one in passes
    )


def _of_prequalified(sheet: _Sheet, written: Procedure) -> Iterator[Finding]:
    """Every requirement of the prequalified route that is broken or open for this joint."""
    found = _evaluated(written)
    for one in found.findings:
        if one.obligation != "requirement" or one.verdict not in _ORDER or one.rule in _SUMMED_UP:
            continue
        if (
            one.verdict == "violates"
            and one.rule in _MORE_LAYERS
            and (one.rule, "violates") not in sheet.as_drawn
        ):
            continue
        yield one
    for problem in found.missing:
        yield Finding(
            rule="wps.missing",
            verdict="undecided",
            path=problem.path,
            title=problem.message,
            message=problem.message,
        )


def _new_breaches(sheet: _Sheet, written: Procedure) -> Iterator[Finding]:
    """Requirements of the code that hold for the joint that the sheet is drawn for, and not for this one."""
    for one in _evaluated(written).findings:
        if (
            one.obligation == "requirement"
            and one.verdict in _ORDER
            and (one.rule, one.verdict) not in sheet.as_drawn
        ):
            yield one


def _evaluated(procedure: Procedure) -> Evaluation:
    return evaluate(procedure, procedure.code.units if procedure.code else "si")
