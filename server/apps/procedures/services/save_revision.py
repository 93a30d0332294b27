"""Save a draft, unless someone saved it in the meantime."""

from __future__ import annotations

from api.errors import ConflictError, StaleError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.procedures.models import Revision, Stage
from apps.procedures.services.columns import columns_of, named
from welding.documents.procedure import Procedure as Document


@transaction.atomic
def save_revision(user: User, revision: Revision, version: int, document: Document) -> Revision:
    """Replace the draft's document if ``version`` is still the one that stands.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The revision is frozen.
        StaleError: Someone saved it in the meantime; carries what stands now.
    """
    require(user, Action.WRITE_PROCEDURE)
    columns = columns_of(named(document, revision.procedure.number, revision.letter))
    columns |= {"version": version + 1, "saved_by": user, "saved_at": timezone.now()}
    if Revision.objects.filter(pk=revision.pk, version=version, stage=Stage.DRAFT).update(**columns):
        for name, value in columns.items():
            setattr(revision, name, value)  # as written: reading it back would take as long as writing it
        return revision
    revision.refresh_from_db()
    if revision.stage != Stage.DRAFT:
        raise ConflictError(
            f"Revision {revision.letter} is frozen: a coupon was started from it. Begin a new revision."
        )
    raise StaleError(
        f"{revision.saved_by.shown_name} saved this draft after you opened it.",
        current={
            "version": revision.version,
            "document": revision.document,
            "saved_by": revision.saved_by.shown_name,
            "saved_at": revision.saved_at.isoformat(),
        },
    )
