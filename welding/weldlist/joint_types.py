"""Joint types: joints with equal facts, which is what an engineer decides about."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from welding.documents.codec import JOINT
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import BaseMetal, Code, ImpactRequirement
from welding.documents.weld_list import ListedJoint
from welding.glossary.values import in_words
from welding.language import tr
from welding.quantities.writing import System, quantity_text


@dataclass(frozen=True, slots=True, kw_only=True)
class JointType:
    """Equal joints.

    Attributes:
        key: Its number in the order of the list, such as ``T3``.
        joint: The facts that they share, without mark and title, under the code of the list.
        marks: Their marks, in the order of the list.
        count: How many welds they are.
        length_mm: Their length in all; ``None`` where one of them states none.
    """

    key: str
    joint: JointToWeld
    marks: tuple[str, ...]
    count: int
    length_mm: float | None


def joint_types(joints: Sequence[ListedJoint], code: Code) -> tuple[JointType, ...]:
    """Group joints by equal facts.

    Args:
        joints: Lines of a list.
        code: Code of the list, under which all of them are judged.
    """
    groups: dict[bytes, tuple[JointToWeld, list[ListedJoint]]] = {}
    # Rows that were read from equal cells share one object: its facts are written out once.
    written: dict[int, tuple[bytes, JointToWeld]] = {}
    for one in joints:
        if id(one.joint) not in written:
            # The length of a weld is no fact that a procedure is chosen by.
            plain = replace(one.joint.joint, length_mm=None)
            facts = replace(one.joint, number=None, title=None, joint=plain, code=code)
            written[id(one.joint)] = JOINT.write(facts), facts
        key, facts = written[id(one.joint)]
        groups.setdefault(key, (facts, []))[1].append(one)
    return tuple(
        JointType(
            key=f"T{number}",
            joint=replace(facts, number=f"T{number}"),
            marks=tuple(one.mark for one in lines),
            count=sum(one.count for one in lines),
            length_mm=_length_mm(lines),
        )
        for number, (facts, lines) in enumerate(groups.values(), start=1)
    )


def _length_mm(lines: Sequence[ListedJoint]) -> float | None:
    total = 0.0
    for one in lines:
        if one.length_mm is None:
            return None
        total += one.count * one.length_mm
    return total


def type_words(joint: JointToWeld, system: System = "si") -> str:
    """A joint type in one line: ``CJP groove weld, butt joint; S355J2+N 20 mm to S355J2+N 12 mm; PF``."""
    weld = joint.joint
    parts = [in_words(f"{weld.kind} {weld.weld}")]
    if weld.preparation is not None:
        parts.append(in_words(weld.preparation.form))
    sizes = ((weld.throat_mm, "a"), (weld.leg1_mm, "z"))
    parts += [f"{letter} {quantity_text(mm, 'gap', system)}" for mm, letter in sizes if mm is not None]
    members = [_member(one, system) for one in joint.base_metals]
    if any(members):
        parts.append(tr("{one} to {other}", one=members[0] or "?", other=[*members, "?"][1] or "?"))
    parts.append(", ".join(joint.positions) or tr("position as the procedure states"))
    parts += [joint.process] if joint.process else []
    required = joint.requirements
    if required is not None and isinstance(required.impact, ImpactRequirement):
        at = quantity_text(required.impact.temperature_c, "temperature", system)
        parts.append(tr("impact {energy:g} J at {at}", energy=required.impact.average_j, at=at))
    elif required is not None and required.impact:
        parts.append(tr("impact tested"))
    if required is not None and required.hardness:
        parts.append(tr("hardness tested"))
    if joint.pwht:
        parts.append(tr("PWHT"))
    return "; ".join(parts)


def _member(metal: BaseMetal, system: System) -> str:
    thickness, outside = metal.thickness_mm, metal.outside_diameter_mm
    parts = [metal.designation or ""]
    parts += [quantity_text(thickness, "thickness", system)] if thickness is not None else []
    parts += [f"Ø {quantity_text(outside, 'thickness', system)}"] if outside is not None else []
    return " ".join(one for one in parts if one)
