"""Joint types against the released WPSs of a job: which may be used, which is assigned, what to suggest."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from api.damage import attempt
from api.errors import DamagedError
from django.db.models import Prefetch, QuerySet

from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.qualification.models import Support
from apps.weldlist.models import Assignment, WeldList
from apps.weldlist.queries import KEPT_LISTS, MOST_KEPT, StandingList, facts_of
from welding.codebook.book import by_book
from welding.documents.codec import JOINT
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Procedure
from welding.documents.record import QualificationRecord
from welding.language import tr
from welding.weldlist.applying import Applied, applied_to_each
from welding.weldlist.assigning import Suggestion, minutes_per_kg, suggested
from welding.weldlist.joint_types import JointType


@dataclass(frozen=True, slots=True, kw_only=True)
class ReleasedWps:
    """A released revision, read from its frozen bytes, with the records that support it and count."""

    revision: Revision
    document: Procedure
    records: tuple[QualificationRecord, ...]
    key: str

    @property
    def name(self) -> str:
        """Number and revision letter."""
        return str(self.revision)


@dataclass(frozen=True, slots=True, kw_only=True)
class Assigned:
    """An assignment as it stands: ``kind`` is ``None`` where no joint of the list has these facts any more.

    Attributes:
        assignment: What was assigned.
        kind: The joint type with these facts.
        against: Why it no longer holds; empty where it does.
    """

    assignment: Assignment
    kind: JointType | None
    against: tuple[str, ...]

    @property
    def joint(self) -> JointToWeld:
        """The joint that it was made for."""
        return JOINT.take(self.assignment.facts)


def released_wps(job: Job) -> list[ReleasedWps]:
    """Released revisions of a job that are whole, in order of their numbers."""
    revisions = Revision.objects.filter(procedure__job=job, stage=Stage.RELEASED)
    return wps_of(revisions.order_by("procedure__number"))


def wps_of(revisions: QuerySet[Revision]) -> list[ReleasedWps]:
    """Revisions with the records that support them and count; one that is not what was signed is left out."""
    supports = Support.objects.select_related("record__coupon__revision__procedure").prefetch_related(
        "record__signatures"
    )
    found = []
    for one in revisions.select_related("procedure").prefetch_related(
        Prefetch("supports", queryset=supports)
    ):
        try:
            document = one.contents()
        except DamagedError:
            continue
        counting = [support.record for support in one.supports.all() if support.record.counts]
        read = [(record.content_hash, attempt(record, record.document)[0]) for record in counting]
        whole = {key: record for key, record in read if record is not None}
        key = hashlib.sha256("".join([one.content_hash, *whole]).encode()).hexdigest()
        found.append(ReleasedWps(revision=one, document=document, records=tuple(whole.values()), key=key))
    return found


def applied_table(standing: StandingList, wps: Sequence[ReleasedWps]) -> list[list[Applied]]:
    """For each joint type, how each WPS stands to it; asked once for equal facts, WPS, records and code."""
    facts = [facts_of(one) for one in standing.types]
    table: list[list[Applied]] = [[] for _ in standing.types]
    for one in wps:
        kept = _kept_answers(one.key)
        if len(kept) > MOST_KEPT:
            kept.clear()
        fresh = [(kind, key) for kind, key in zip(standing.types, facts, strict=True) if key not in kept]
        answers = applied_to_each(one.document, [kind.joint for kind, _ in fresh], one.records, standing.code)
        kept.update(zip((key for _, key in fresh), answers, strict=True))
        for row, key in zip(table, facts, strict=True):
            row.append(kept[key])
    return table


@by_book(KEPT_LISTS * 50)
def _kept_answers(wps: str) -> dict[bytes, Applied]:
    """Answers of one WPS with its records about joint types; filled as they are asked about."""
    return {}


def assigned_of(
    listed: WeldList, standing: StandingList, wps: Sequence[ReleasedWps], table: Sequence[Sequence[Applied]]
) -> list[Assigned]:
    """Every assignment of a list and whether it still holds."""
    by_hash = {hash_of(one): number for number, one in enumerate(standing.types)}
    places = {one.revision.pk: at for at, one in enumerate(wps)}
    found = []
    for one in listed.assignments.select_related("revision__procedure", "assigned_by"):
        number = by_hash.get(one.facts_hash)
        against: tuple[str, ...] = ()
        at = places.get(one.revision_id)
        if number is None:
            against = (tr("No joint of the list has these facts any more."),)
        elif at is None:
            against = (
                tr("{wps} is {stage}, not released.", wps=one.revision, stage=one.revision.stage)
                if one.revision.stage != Stage.RELEASED
                else tr("{wps} does not match what was signed.", wps=one.revision),
            )
        elif table[number][at].verdict != "covered":
            against = tuple(f.message for f in table[number][at].findings)
        kind = standing.types[number] if number is not None else None
        found.append(Assigned(assignment=one, kind=kind, against=against))
    return found


def holding_wps(
    listed: WeldList, standing: StandingList, wps: Sequence[ReleasedWps]
) -> dict[str, ReleasedWps]:
    """The WPS that each joint type is welded to, by its key; none where its assignment does not hold."""
    released = {one.revision.pk: one for one in wps}
    return {
        one.kind.key: released[one.assignment.revision_id]
        for one in assigned_of(listed, standing, wps, applied_table(standing, wps))
        if one.kind is not None and not one.against
    }


def hash_of(kind: JointType) -> str:
    """What the facts of a joint type are found again by."""
    return hashlib.sha256(facts_of(kind)).hexdigest()


def suggestions(
    wps: Sequence[ReleasedWps], table: Sequence[Sequence[Applied]], assigned: Sequence[Assigned]
) -> Mapping[int, Suggestion]:
    """A WPS for each joint type that one covers; those that are assigned already are used further."""
    in_use = {one.assignment.revision_id for one in assigned if not one.against}
    kept = [at for at, one in enumerate(wps) if one.revision.pk in in_use]
    times = [_time(one.key, one.document) for one in wps]
    return suggested(table, [one.name for one in wps], times, kept)


_TIMES: dict[str, float | None] = {}


def _time(key: str, document: Procedure) -> float | None:
    if len(_TIMES) > MOST_KEPT:
        _TIMES.clear()
    if key not in _TIMES:
        _TIMES[key] = minutes_per_kg(document)
    return _TIMES[key]
