"""Keep a scan of a certificate on paper."""

from __future__ import annotations

import hashlib

from api.errors import InvalidError
from django.core.files.base import ContentFile
from django.db import IntegrityError, transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.crew.models import CrewMember, Scan
from welding.language import tr

LARGEST_BYTES = 15_000_000
KINDS = (
    (b"%PDF-", "application/pdf", "pdf"),
    (b"\xff\xd8\xff", "image/jpeg", "jpg"),
    (b"\x89PNG\r\n\x1a\n", "image/png", "png"),
)


def add_scan(user: User, member: CrewMember, name: str, data: bytes) -> Scan:
    """Keep a scan as it came; the same bytes again give the scan that is there.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: It is no PDF, JPEG or PNG, or above 15 MB.
    """
    require(user, Action.KEEP_CREW)
    if len(data) > LARGEST_BYTES:
        raise InvalidError(tr("A scan has at most 15 MB."))
    kind = next(((kind, ending) for start, kind, ending in KINDS if data.startswith(start)), None)
    if kind is None:
        raise InvalidError(tr("This is no scan: send PDF, JPEG or PNG."))
    digest = hashlib.sha256(data).hexdigest()
    there = member.scans.filter(sha256=digest).first()
    if there is not None:
        return there
    scan = Scan(
        member=member,
        name=" ".join(name.split())[:200] or digest[:16],
        content_type=kind[0],
        sha256=digest,
        added_by=user,
    )
    scan.file.save(f"{digest[:16]}.{kind[1]}", ContentFile(data), save=False)
    try:
        with transaction.atomic():
            scan.save()
    except IntegrityError:  # the same scan arrived twice at once
        scan.file.delete(save=False)
        return member.scans.get(sha256=digest)
    return scan
