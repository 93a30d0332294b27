"""Take a record off the library, unless something uses it."""

from __future__ import annotations

from api.errors import ConflictError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.library.models import Record
from apps.library.queries import uses_of
from welding.language import tr


@transaction.atomic
def remove_record(user: User, record: Record) -> None:
    """Remove a record that nothing uses.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: Some revision takes it along; each is named.
    """
    require(user, Action.KEEP_LIBRARY)
    uses = list(uses_of(record)[:50])
    if uses:
        names = [f"{one.procedure.number} {one.letter}" for one in uses]
        more = tr(" and {count} more", count=len(names) - 5) if len(names) > 5 else ""
        raise ConflictError(
            tr(
                "{name} is used in {names}{more}; it stays while they use it.",
                name=record.name,
                names=", ".join(names[:5]),
                more=more,
            ),
            current={"used_in": names},
        )
    record.delete()
