"""Joint types: joints with equal facts, which is what an engineer decides about."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from welding.documents.codec import JOINT
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Code
from welding.documents.weld_list import ListedJoint


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
    for one in joints:
        # The length of a weld is no fact that a procedure is chosen by.
        plain = replace(one.joint.joint, length_mm=None)
        facts = replace(one.joint, number=None, title=None, joint=plain, code=code)
        groups.setdefault(JOINT.write(facts), (facts, []))[1].append(one)
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
