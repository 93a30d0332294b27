"""What a procedure asks of whoever welds it, in the terms of a code for persons."""

from __future__ import annotations

import re
from dataclasses import dataclass

from welding.documents.procedure import Joint, Pass, Procedure
from welding.documents.welder_weld import WelderWeld
from welding.language import tr
from welding.qualification.positions import iso_positions

MACHINE = ("fully", "automatic")


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """What a procedure asks.

    Attributes:
        welds: Welds that a person has to be qualified for: all of them.
        open: What the procedure does not state, or the code is not known to decide: with one of these nobody
            is said to be qualified.
    """

    welds: tuple[WelderWeld, ...]
    open: tuple[str, ...]


def processes_of(procedure: Procedure) -> list[str]:
    """Its processes in the order of their first pass; tacks are left out where other passes are."""
    passes = [one for one in procedure.passes if one.role != "tack"] or list(procedure.passes)
    return list(dict.fromkeys(one.process for one in passes))


def passes_with(procedure: Procedure, process: str) -> list[Pass]:
    """The passes of a process."""
    return [one for one in procedure.passes if one.process == process]


def fillers_of(procedure: Procedure, process: str) -> list[str]:
    """Designations of the fillers of a process; an empty one for a pass whose filler is not named."""
    found = []
    for one in passes_with(procedure, process):
        if one.filler is None:
            continue
        found.append(one.filler.designation or one.filler.nominal or "")
    return list(dict.fromkeys(found))


def class_digits(designation: str) -> str:
    """The last two digits of the class of a covered electrode: its covering, as AWS counts them.

    Example:
        >>> class_digits("E7018-1 H4R"), class_digits("E10018-D2"), class_digits("ER70S-6")
        ('18', '18', '')
    """
    found = re.match(r"E(\d{4,5})", designation)
    return found[1][-2:] if found else ""


def by_machine(procedure: Procedure) -> bool:
    """Whether a machine guides the torch in any pass."""
    return any(one.mechanisation in MACHINE for one in procedure.passes)


def thicknesses_of(procedure: Procedure, joint: Joint) -> tuple[float, ...]:
    """Thicknesses that a person is asked about [mm]: of a butt joint the thinner member, else of each."""
    known = [one.thickness_mm for one in procedure.base_metals if one.thickness_mm is not None]
    if not known:
        return ()
    if joint.kind == "butt":
        return (min(known),)
    if joint.kind == "branch":
        return (_of_branch(procedure) or min(known),)
    return tuple(dict.fromkeys(known))


def _of_branch(procedure: Procedure) -> float | None:
    """Thickness of the branch: the member of the smaller diameter, as set-on branches count."""
    pipes = [one for one in procedure.base_metals if one.outside_diameter_mm is not None]
    branch = min(pipes, key=lambda one: one.outside_diameter_mm or 0.0, default=None)
    return branch.thickness_mm if branch else None


def diameter_of(procedure: Procedure) -> float | None:
    """Outside diameter of the smaller pipe [mm]; ``None`` for plates."""
    known = [one.outside_diameter_mm for one in procedure.base_metals if one.outside_diameter_mm is not None]
    return min(known, default=None)


def iso_positions_of(procedure: Procedure) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Positions by ISO 6947, and what is open about them."""
    found: list[str] = []
    open_: list[str] = []
    progressions = {one.progression for one in procedure.passes if one.progression}
    stated = progressions.pop() if len(progressions) == 1 else None
    for position in procedure.positions:
        meant = iso_positions(position, stated)
        if len(meant) > 1:
            open_.append(
                tr("Whether {position} is welded upward or downward is not stated.", position=position)
            )
        found += meant
    if not found:
        open_.append(tr("The position is not stated."))
    return tuple(dict.fromkeys(found)), tuple(open_)
