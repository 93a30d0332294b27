"""Correct a record, unless someone did in the meantime."""

from __future__ import annotations

from api.errors import ConflictError, StaleError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.library.models import Record
from apps.library.queries import uses_of
from apps.library.services.naming import Document, columns_of, require_free
from welding.language import tr


@transaction.atomic
def save_record(user: User, record: Record, version: int, document: Document) -> Record:
    """Replace a record's document if ``version`` is still the one that stands.

    Procedures keep the copy that they took along; the name stays while any of them uses it.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The name is taken, or is changed while in use.
        StaleError: Someone saved it in the meantime; carries what stands now.
    """
    require(user, Action.KEEP_LIBRARY)
    columns = columns_of(document)
    if columns["kind"] != record.kind:
        raise ConflictError(tr("{name} is a {kind} and stays one.", name=record.name, kind=record.kind))
    require_free(columns, but=record.pk)
    if columns["name"] != record.name and (count := uses_of(record).count()):
        detail = tr(
            "{name} is used under this name in {count} {value}.",
            name=record.name,
            count=count,
            value=tr("revision") if count == 1 else tr("revisions"),
        )
        raise ConflictError(detail, errors=[{"path": "name", "message": detail, "value": columns["name"]}])
    changed = Record.objects.filter(pk=record.pk, version=version).update(
        **columns, version=version + 1, saved_by=user, saved_at=timezone.now()
    )
    record.refresh_from_db()
    if not changed:
        raise StaleError(
            tr(
                "{shown_name} saved {name} after you opened it.",
                shown_name=record.saved_by.shown_name,
                name=record.name,
            ),
            current={
                "version": record.version,
                "document": record.document,
                "saved_by": record.saved_by.shown_name,
                "saved_at": record.saved_at.isoformat(),
            },
        )
    return record
