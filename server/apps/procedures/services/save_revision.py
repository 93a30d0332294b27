"""Save a draft, unless someone saved it in the meantime."""

from __future__ import annotations

from dataclasses import replace
from secrets import token_hex

from api.errors import ConflictError, StaleError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.procedures.models import Revision, Stage
from apps.procedures.services.columns import columns_of, named
from welding.documents.procedure import Procedure as Document
from welding.language import tr


@transaction.atomic
def save_revision(user: User, revision: Revision, version: int, document: Document) -> Revision:
    """Replace the draft's document if ``version`` is still the one that stands.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The revision is frozen.
        StaleError: Someone saved it in the meantime; carries what stands now.
    """
    require(user, Action.WRITE_PROCEDURE)
    document = _with_new_ids(document)
    columns = columns_of(named(document, revision.procedure.number, revision.letter))
    columns |= {"version": version + 1, "saved_by": user, "saved_at": timezone.now()}
    if Revision.objects.filter(pk=revision.pk, version=version, stage=Stage.DRAFT).update(**columns):
        for name, value in columns.items():
            setattr(revision, name, value)  # as written: reading it back would take as long as writing it
        return revision
    revision.refresh_from_db()
    if revision.stage != Stage.DRAFT:
        raise ConflictError(
            tr(
                "Revision {letter} is frozen: a coupon was started from it. Begin a new revision.",
                letter=revision.letter,
            )
        )
    raise StaleError(
        tr("{shown_name} saved this draft after you opened it.", shown_name=revision.saved_by.shown_name),
        current={
            "version": revision.version,
            "document": revision.document,
            "saved_by": revision.saved_by.shown_name,
            "saved_at": revision.saved_at.isoformat(),
        },
    )


def _with_new_ids(document: Document) -> Document:
    """Whoever sends a pass without its id has lost which one it was: it gets one that none ever had."""
    if all(run.id is not None for run in document.passes):
        return document
    passes = (run if run.id is not None else replace(run, id=token_hex(8)) for run in document.passes)
    return replace(document, passes=tuple(passes))
