"""Log a production weld, or strike an entry that was wrong."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any
from uuid import UUID

from api.errors import ConflictError, InvalidError
from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.production.models import State, Weld
from apps.production.queries import Fit, JointToLog, fit_of, joint_to_log
from apps.production.services.standing import restate
from apps.production.welders import kept, welders_of
from welding.documents.codec import PASS_RECORD
from welding.documents.coupon import PassRecord
from welding.language import in_source_language, tr
from welding.production.state import state_words

MOST_AHEAD = timedelta(days=1)
"""A device east of the server may be a day ahead of it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class WeldEntry:
    """What is entered of a weld. ``values`` are its passes as welded, where they were recorded."""

    mark: str
    item: int
    revision_id: int
    welders: Sequence[str]
    batches: Sequence[str]
    heats: Sequence[str]
    welded_on: date
    values: Sequence[PassRecord] = ()
    remarks: str = ""
    repair_of: int | None = None


@transaction.atomic
def log_weld(user: User, job: Job, client_id: UUID, entry: WeldEntry) -> Weld:
    """Log a weld once; the same ``client_id`` again gives the entry that is there.

    What was welded is logged, also where the WPS does not cover the joint: the entry says so, and the weld
    is not released.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: The list has no such joint, the WPS was never released, nobody is named, or the day is
            ahead.
        ConflictError: This weld is logged already, or what it repairs was not rejected.
    """
    require(user, Action.LOG_WELD)
    there = Weld.objects.filter(client_id=client_id).first()
    if there is not None:
        return _sent_before(there, job, entry)
    Job.objects.select_for_update(no_key=True).get(pk=job.pk)
    joint = joint_to_log(job, entry.mark)
    if joint is None:
        raise _wrong("mark", tr("The weld list has no joint {mark}.", mark=entry.mark), entry.mark)
    revision = _revision(job, entry.revision_id)
    welders = _names(entry.welders)
    if not welders:
        raise _wrong("welders", tr("Say who welded it."))
    if entry.welded_on > timezone.localdate() + MOST_AHEAD:
        raise _wrong("welded_on", tr("This day is yet to come."), entry.welded_on.isoformat())
    repaired = _repaired(job, entry, joint)
    fit = in_source_language(fit_of)(joint, revision, entry.welded_on)
    qualified = in_source_language(welders_of)(joint, revision, entry.welded_on, welders)
    try:
        with transaction.atomic():
            weld = Weld.objects.create(
                client_id=client_id,
                job=job,
                revision=revision,
                wps=str(revision),
                welders=welders,
                batches=_names(entry.batches),
                heats=_names(entry.heats),
                welded_on=entry.welded_on,
                values=[PASS_RECORD.plain(one) for one in entry.values],
                remarks=entry.remarks.strip(),
                qualified=kept(qualified),
                repair_of=repaired,
                entered_by=user,
                entered_name=user.shown_name,
                **_of_joint(joint, entry, fit),
            )
    except IntegrityError:
        raise ConflictError(
            tr("Weld {item} of {mark} is logged already.", item=entry.item, mark=entry.mark),
            errors=[{"path": "item", "message": tr("logged already"), "value": str(entry.item)}],
        ) from None
    if repaired is not None:
        restate(repaired)
    return weld


@in_source_language
def _of_joint(joint: JointToLog, entry: WeldEntry, fit: Fit) -> Mapping[str, Any]:
    kind = joint.kind
    return {
        "mark": entry.mark,
        "item": entry.item,
        "joint": joint.words,
        "facts_hash": joint.facts_hash,
        "position": ", ".join(kind.joint.positions) if kind is not None else "",
        "fit": fit.verdict,
        "against": list(fit.against),
    }


def _sent_before(there: Weld, job: Job, entry: WeldEntry) -> Weld:
    """The entry of an id that came before; another entry is not acknowledged in its place."""
    same = (there.job_id, there.mark, there.item, there.welders) == (
        job.pk, entry.mark, entry.item, _names(entry.welders)
    )  # fmt: skip
    if not same:
        raise ConflictError(tr("This entry was sent before, with other values: log it anew."))
    return there


def _revision(job: Job, revision_id: int) -> Revision:
    revision = Revision.objects.filter(procedure__job=job, pk=revision_id).select_related("procedure").first()
    if revision is None or revision.stage not in (Stage.RELEASED, Stage.SUPERSEDED, Stage.WITHDRAWN):
        raise _wrong("revision_id", tr("Welds are made to a WPS that was released."))
    return revision


def _repaired(job: Job, entry: WeldEntry, joint: JointToLog) -> Weld | None:
    if entry.repair_of is None:
        if not 1 <= entry.item <= joint.count:
            said = tr("The weld list has {count} welds of {mark}.", count=joint.count, mark=entry.mark)
            raise _wrong("item", said, str(entry.item))
        return None
    weld = Weld.objects.select_for_update().filter(job=job, pk=entry.repair_of).first()
    if weld is None or (weld.mark, weld.item) != (entry.mark, entry.item):
        raise _wrong("repair_of", tr("A repair is of a weld of the same joint."))
    if weld.state != State.REJECTED:
        raise ConflictError(
            tr(
                "Only a rejected weld is repaired; {weld} is {state}.",
                weld=weld,
                state=state_words(weld.state),
            )
        )
    return weld


def _names(names: Sequence[str]) -> list[str]:
    """Names without doubles, in their order."""
    return list(dict.fromkeys(one.strip() for one in names if one.strip()))


def _wrong(path: str, message: str, value: str = "") -> InvalidError:
    return InvalidError(message, errors=[{"path": path, "message": message, "value": value}])


@transaction.atomic
def strike_weld(user: User, weld_id: int, reason: str) -> Weld:
    """Strike an entry that was wrong; it stays with its reason and counts no more.

    Raises:
        NotAllowedError: The role does not allow it, or a welder strikes somebody else's entry.
        ConflictError: It is struck, released or repaired, has results, or no reason is given.
    """
    require(user, Action.LOG_WELD)
    weld = Weld.objects.select_for_update().get(pk=weld_id)
    if weld.entered_by_id != user.pk:
        require(user, Action.INSPECT_WELD)
    if weld.struck_reason:
        raise ConflictError(tr("It is struck already."))
    if weld.released_at is not None:
        raise ConflictError(tr("It is released: nothing of it is struck any more."))
    if weld.repairs.filter(struck_reason="").exists():
        raise ConflictError(tr("It was repaired: strike the repair first."))
    if weld.inspections.filter(struck_reason="").exists():
        raise ConflictError(tr("Results were entered on it: strike these first."))
    weld.struck_reason, weld.struck_name = given(reason), user.shown_name
    weld.state = State.STRUCK
    weld.save(update_fields=["struck_reason", "struck_name", "state"])
    if weld.repair_of is not None:
        restate(weld.repair_of)
    return weld


def given(reason: str) -> str:
    """The reason for striking an entry.

    Raises:
        ConflictError: None is given.
    """
    if not reason.strip():
        raise ConflictError(
            tr("Say why it is struck."),
            errors=[{"path": "reason", "message": tr("a reason is needed"), "value": ""}],
        )
    return reason.strip()[:400]
