"""Whether those who weld a joint are qualified for it, on the day that they do."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from typing import Any

from api.errors import DamagedError

from apps.crew.queries import NamedWelder, named_welders
from apps.procedures.models import Revision
from apps.production.queries import JointToLog
from welding.documents.procedure import Procedure
from welding.language import tr
from welding.weldlist.applying import written_for

NOT_QUALIFIED = ("lapsed", "blocked", "untested")
"""Standings with which a weld is not released."""


def written_procedure(joint: JointToLog, revision: Revision) -> Procedure:
    """The WPS for this joint; as it stands where the list does not say enough of the joint."""
    document = revision.contents()
    return written_for(document, joint.kind.joint) if joint.kind is not None else document


def welders_of(joint: JointToLog, revision: Revision, on: date, names: Sequence[str]) -> list[NamedWelder]:
    """How the people who are named stand to a joint that they weld on a day."""
    try:
        procedure = written_procedure(joint, revision)
    except DamagedError:
        said = tr("{wps} does not match what was signed.", wps=revision)
        return [NamedWelder(name=one, standing="unknown", reasons=(said,)) for one in names]
    found = named_welders(procedure, on, names)
    if joint.kind is not None:
        return found
    # Whoever may weld everything that the WPS states may still not be asked about this joint.
    said = tr("The weld list does not say enough of this joint.")
    return [replace(one, standing="open", reasons=(said,)) if one.standing == "may" else one for one in found]


def kept(found: Sequence[NamedWelder]) -> list[dict[str, Any]]:
    """As it is kept with a weld."""
    return [{"name": one.name, "standing": one.standing, "reasons": list(one.reasons)} for one in found]


def against_welders(found: Sequence[NamedWelder]) -> list[str]:
    """Why a weld is not released for those who made it, in sentences."""
    return [
        tr("{name} was not qualified for this weld: {why}", name=one.name, why=" ".join(one.reasons))
        for one in found
        if one.standing in NOT_QUALIFIED
    ]
