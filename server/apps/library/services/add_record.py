"""Add a record to the library."""

from __future__ import annotations

from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.library.models import Record
from apps.library.services.naming import Document, columns_of, require_free


@transaction.atomic
def add_record(user: User, document: Document) -> Record:
    """Add a machine, a product or a metal.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The name is taken.
    """
    require(user, Action.KEEP_LIBRARY)
    columns = columns_of(document)
    require_free(columns)
    return Record.objects.create(created_by=user, saved_by=user, **columns)
