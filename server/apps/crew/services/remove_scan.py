"""Remove a scan that nothing signed names: what need not be kept of a person is not kept."""

from __future__ import annotations

from api.errors import ConflictError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.crew.models import Scan
from apps.crew.queries import scans_named
from welding.language import tr


def remove_scan(user: User, scan_id: int) -> None:
    """Remove a scan with its file; that it was there and who removed it stays in the audit trail.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: A certificate or a statement that is signed names it.
    """
    require(user, Action.KEEP_CREW)
    with transaction.atomic():
        # Whoever signs with it meanwhile waits, or is waited for.
        scan = Scan.objects.select_for_update().get(pk=scan_id)
        if scan.sha256 in scans_named(scan.member):
            raise ConflictError(tr("{name} is named by what is signed: it has to be kept.", name=scan.name))
        file = scan.file
        scan.delete()
        transaction.on_commit(lambda: file.delete(save=False))
