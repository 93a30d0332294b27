"""Take a file into the list of a job: rows added, changed by their marks, and removed where they are gone."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from api.errors import StaleError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.weldlist.models import ListRow, WeldList
from apps.weldlist.queries import CODE, MAPPING, weld_list_of
from welding.documents.procedure import Code
from welding.language import tr
from welding.weldlist.grid import Grid, ListMapping, ListRead, read_grid
from welding.weldlist.revision import ListChanges, changes_between, merged

BATCH = 2000
CHANGED = ("cells", "mark", "version", "saved_by", "saved_at")
"""Columns of a row that a change writes."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Incoming:
    """A file as it was read, and what it does to the list that stands."""

    read: ListRead
    changes: ListChanges
    before: tuple[ListRow, ...]


def look_at(job: Job, code: Code, grid: Grid, mapping: ListMapping | None) -> Incoming:
    """Read a file without taking it.

    Args:
        job: Whose list.
        code: Code that the list is judged under.
        grid: Cells of the file.
        mapping: How to read it; guessed, as the last file of the job was read, where it is ``None``.
    """
    listed = weld_list_of(job)
    usual = MAPPING.take(listed.mapping) if listed is not None and listed.mapping else None
    if usual is not None and listed is not None:
        usual = replace(usual, answers={**usual.answers, **listed.answers})
    read = read_grid(grid, code, mapping, usual)
    before = tuple(listed.rows.all()) if listed is not None else ()
    changes = changes_between([one.cells for one in before], [row.cells for row, _ in read.rows])
    return Incoming(read=read, changes=changes, before=before)


@transaction.atomic
def take_list(
    user: User, job: Job, code: Code, grid: Grid, mapping: ListMapping, version: int, *, remove_gone: bool
) -> WeldList:
    """Take a file into the list of a job. Rows with problems are kept, too.

    Args:
        user: Who takes it.
        job: Whose list.
        code: Code of the list; the one that stands is kept where there is a list.
        grid: Cells of the file.
        mapping: How to read it, with the answers that hold for every row.
        version: The list's version that was looked at; 0 where there was none.
        remove_gone: Whether joints that the file no longer has are removed.

    Raises:
        NotAllowedError: The role does not allow it.
        StaleError: Somebody changed the list in the meantime.
    """
    require(user, Action.IMPORT)
    Job.objects.select_for_update(no_key=True).get(pk=job.pk)  # one list at a time
    listed = _held(user, job, code, version)
    incoming = look_at(job, CODE.take(listed.code), grid, mapping)
    rows = [row.cells for row, _ in incoming.read.rows]
    now = timezone.now()
    last = max((one.place for one in incoming.before), default=0)
    ListRow.objects.bulk_create(
        [
            ListRow(
                weld_list=listed,
                place=last + number,
                mark=rows[at].get("mark", ""),
                cells=rows[at],
                saved_by=user,
            )
            for number, at in enumerate(incoming.changes.added, start=1)
        ],
        batch_size=BATCH,
    )
    columns = tuple(mapping.headings)
    changed = []
    for one in incoming.changes.changed:
        row = incoming.before[one.at[0]]
        row.cells = merged(row.cells, rows[one.at[1]], columns)
        row.mark = row.cells.get("mark", "")
        row.version, row.saved_by, row.saved_at = row.version + 1, user, now
        changed.append(row)
    ListRow.objects.bulk_update(
        changed, ["cells", "mark", "version", "saved_by", "saved_at"], batch_size=BATCH
    )
    if remove_gone:
        gone = [incoming.before[at].pk for at in incoming.changes.gone]
        ListRow.objects.filter(pk__in=gone).delete()
    listed.mapping = MAPPING.plain(replace(mapping, answers={}))
    listed.answers = {**listed.answers, **mapping.answers}
    raise_version(listed, user)
    return listed


def _held(user: User, job: Job, code: Code, version: int) -> WeldList:
    """The list of a job at the version that was looked at, held; made where there is none."""
    listed = WeldList.objects.select_for_update().filter(job=job).first()
    if listed is None:
        if version:
            raise StaleError(tr("The list is no longer there."))
        return WeldList.objects.create(job=job, code=CODE.plain(code), saved_by=user, version=1)
    require_version(listed, version)
    return listed


def require_version(listed: WeldList, version: int) -> None:
    """Refuse where the list is no longer the one that was looked at.

    Raises:
        StaleError: Carries what stands now.
    """
    if listed.version != version:
        raise StaleError(
            tr("{shown_name} changed this list in the meantime.", shown_name=listed.saved_by.shown_name),
            current={"version": listed.version},
        )


def raise_version(listed: WeldList, user: User, **changes: Any) -> None:
    """Save the list's own row under its next version."""
    for name, value in changes.items():
        setattr(listed, name, value)
    listed.version += 1
    listed.saved_by = user
    listed.save()


def plain_cells(cells: Mapping[str, str]) -> dict[str, str]:
    """Cells that say something."""
    return {name: text.strip() for name, text in cells.items() if text.strip()}
