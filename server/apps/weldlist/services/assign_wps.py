"""Assign released WPSs to joint types: only one that covers the type, under the list as it stands."""

from __future__ import annotations

from collections.abc import Mapping

from api.errors import ConflictError, NoListError, StaleError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.weldlist.models import Assignment, WeldList
from apps.weldlist.queries import standing_list
from apps.weldlist.services.take_list import require_version
from apps.weldlist.wps import hash_of, released_wps
from welding.documents.codec import JOINT
from welding.language import tr
from welding.weldlist.applying import applied_to


@transaction.atomic
def assign_wps(
    user: User, job: Job, version: int, wanted: Mapping[str, int | None], before: Mapping[str, int | None]
) -> WeldList:
    """Assign, all or none.

    Args:
        user: Who assigns.
        job: Whose list.
        version: Version of the list that was looked at.
        wanted: Ids of revisions by the keys of joint types; ``None`` takes an assignment back.
        before: What was seen assigned to them; nothing where a key is left out.

    Raises:
        NotAllowedError: The role does not allow it.
        StaleError: Somebody changed the list, or assigned another WPS, in the meantime.
        ConflictError: A WPS does not cover its type, is not released, or the list has no such type.
    """
    require(user, Action.WRITE_PROCEDURE)
    Job.objects.select_for_update(no_key=True).get(pk=job.pk)
    listed = WeldList.objects.select_for_update().filter(job=job).first()
    if listed is None:
        raise NoListError(tr("This job has no weld list yet."))
    require_version(listed, version)
    standing = standing_list(listed)
    kinds = {one.key: one for one in standing.types}
    _require_seen(listed, {key: hash_of(kinds[key]) for key in wanted if key in kinds}, before)
    wps = {one.revision.pk: one for one in released_wps(job)}
    against: list[dict[str, str]] = []
    for key, revision_id in wanted.items():
        kind = kinds.get(key)
        if kind is None:
            raise ConflictError(tr("The list has no joint type {key} any more.", key=key))
        if revision_id is None:
            Assignment.objects.filter(weld_list=listed, facts_hash=hash_of(kind)).delete()
            continue
        chosen = wps.get(revision_id)
        if chosen is None:
            raise ConflictError(tr("Only a released WPS of this job is assigned."))
        found = applied_to(chosen.document, kind.joint, chosen.records, standing.code)
        if found.verdict != "covered":
            against += [
                {"path": key, "message": f"{one.title}: {one.message}", "value": chosen.name}
                for one in found.findings[:5]
            ]
            continue
        facts = JOINT.plain(kind.joint)
        facts.pop("number", None)
        Assignment.objects.update_or_create(
            weld_list=listed,
            facts_hash=hash_of(kind),
            defaults={"facts": facts, "revision": chosen.revision, "assigned_by": user},
        )
    if against:
        types = ", ".join(dict.fromkeys(one["path"] for one in against))
        raise ConflictError(tr("The WPS does not cover joint type {types}.", types=types), errors=against)
    return listed


def _require_seen(listed: WeldList, hashes: Mapping[str, str], before: Mapping[str, int | None]) -> None:
    assigned = listed.assignments.select_related("revision__procedure", "assigned_by")
    now = {one.facts_hash: one for one in assigned}
    for key, facts_hash in hashes.items():
        there = now.get(facts_hash)
        standing = there.revision_id if there else None
        if standing == before.get(key):
            continue
        if there is None:
            said = tr("The assignment of {key} was taken back in the meantime.", key=key)
        else:
            who = there.assigned_by.shown_name
            said = tr(
                "{name} assigned {wps} to {key} in the meantime.", name=who, wps=there.revision, key=key
            )
        raise StaleError(said, current={"key": key, "assigned": standing})


@transaction.atomic
def drop_assignment(user: User, job: Job, assignment_id: int) -> None:
    """Take back an assignment whose joints are gone from the list.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The job has no such assignment.
    """
    require(user, Action.WRITE_PROCEDURE)
    deleted, _ = Assignment.objects.filter(weld_list__job=job, pk=assignment_id).delete()
    if not deleted:
        raise ConflictError(tr("This assignment was taken back already."))
