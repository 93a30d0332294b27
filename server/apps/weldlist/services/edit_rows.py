"""Change rows of a list as a spreadsheet does: many at once, and never over somebody else's change."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from api.errors import InvalidError, StaleError
from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.weldlist.models import ListRow, WeldList
from apps.weldlist.queries import CODE, rows_by_id
from apps.weldlist.services.take_list import BATCH, plain_cells, raise_version
from welding.documents.procedure import Code
from welding.documents.weld_list import MOST_JOINTS
from welding.language import tr


@dataclass(frozen=True, slots=True, kw_only=True)
class RowChange:
    """What becomes of a row: its cells, new where ``id`` is ``None``, removed where ``cells`` is."""

    id: int | None
    version: int
    cells: dict[str, str] | None


@transaction.atomic
def edit_rows(user: User, job: Job, code: Code, changes: Sequence[RowChange]) -> WeldList:
    """Change, add and remove rows; all of them or none.

    Raises:
        NotAllowedError: The role does not allow it.
        StaleError: Somebody changed one of the rows in the meantime; carries what stands now.
        InvalidError: The list would be too long.
    """
    require(user, Action.WRITE_PROCEDURE)
    Job.objects.select_for_update(no_key=True).get(pk=job.pk)
    listed = WeldList.objects.select_for_update().filter(job=job).first()
    if listed is None:
        listed = WeldList.objects.create(job=job, code=CODE.plain(code), saved_by=user)
    known = rows_by_id(listed, [one.id for one in changes if one.id is not None])
    _require_unchanged(known, changes)
    place = (listed.rows.aggregate(last=Max("place"))["last"] or 0) + 1
    added = [one for one in changes if one.id is None and one.cells]
    if listed.rows.count() + len(added) > MOST_JOINTS:
        raise InvalidError(tr("A weld list has at most {most} joints: part it.", most=MOST_JOINTS))
    cells = [plain_cells(one.cells or {}) for one in added]
    ListRow.objects.bulk_create(
        ListRow(weld_list=listed, place=place + at, mark=one.get("mark", ""), cells=one, saved_by=user)
        for at, one in enumerate(cells)
    )
    removed = [one.id for one in changes if one.cells is None]
    ListRow.objects.filter(weld_list=listed, pk__in=[one for one in removed if one is not None]).delete()
    changed = []
    for one in changes:
        if one.id is None or one.cells is None:
            continue
        row = known[one.id]
        row.cells = plain_cells(one.cells)
        row.mark, row.version = row.cells.get("mark", ""), row.version + 1
        row.saved_by, row.saved_at = user, timezone.now()
        changed.append(row)
    ListRow.objects.bulk_update(
        changed, ["cells", "mark", "version", "saved_by", "saved_at"], batch_size=BATCH
    )
    raise_version(listed, user)
    return listed


def _require_unchanged(known: dict[int, ListRow], changes: Sequence[RowChange]) -> None:
    wrong = [one for one in changes if one.id is not None and _differs(known.get(one.id), one.version)]
    if not wrong:
        return
    there = [known[one.id] for one in wrong if one.id in known]
    who = there[0].saved_by.shown_name if there else ""
    said = (
        tr("{shown_name} changed these joints in the meantime.", shown_name=who)
        if who
        else tr("One of these joints was removed in the meantime.")
    )
    rows = [{"id": row.pk, "version": row.version, "cells": row.cells} for row in there]
    gone = [one.id for one in wrong if one.id not in known]
    raise StaleError(said, current={"rows": rows, "gone": gone})


def _differs(row: ListRow | None, version: int) -> bool:
    return row is None or row.version != version
