"""Take a recorder's file in: keep it as it came, hash it, examine it."""

from __future__ import annotations

import hashlib
import tempfile
from collections.abc import Iterator
from pathlib import Path
from uuid import UUID

from api.errors import ConflictError, InvalidError, Refusal
from django.core.files import File
from django.db import IntegrityError, transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.services.hold import held
from apps.recordings.models import Recorder, Recording, Status
from apps.recordings.services.examine import examine
from apps.recordings.store import local
from welding.language import tr, tr_noop

LARGEST_BYTES = 2_000_000_000


class TooLarge(Refusal):
    """The file is larger than is taken."""

    status, type, title = 413, "too-big", tr_noop("Too big")


def receive_file(
    user: User,
    coupon: Coupon,
    parts: Iterator[bytes],
    *,
    client_id: UUID,
    name: str,
    declared_bytes: int | None = None,
    recorder: Recorder | None = None,
) -> Recording:
    """Take a file; the same ``client_id`` again gives the recording that is there.

    Args:
        user: Who sends it.
        coupon: What it was recorded on.
        parts: The file, bit by bit; it is never held whole in memory.
        client_id: Of this sending.
        name: Of the file.
        declared_bytes: Its length as the sender says; a shorter file was cut off on the way.
        recorder: The device, whose mapping is tried.

    Raises:
        NotAllowedError: The role does not allow it.
        TooLarge: The file is above 2 GB.
        InvalidError: Less arrived than was declared.
        ConflictError: The record is signed, or the ``client_id`` was used for another file.
    """
    require(user, Action.LOG_PASS)
    there = Recording.objects.filter(client_id=client_id).first()
    if there:
        return _sent_before(there, coupon, declared_bytes)
    with transaction.atomic():
        held(coupon)  # said before a large file is sent in vain
    if declared_bytes is not None and declared_bytes > LARGEST_BYTES:
        raise TooLarge(
            tr(
                "{declared_bytes:.1f} GB are too many: a recording has at most 2 GB. Cut it.",
                declared_bytes=declared_bytes / 1000000000.0,
            )
        )
    digest, size = hashlib.sha256(), 0
    with tempfile.NamedTemporaryFile(suffix=Path(name).suffix[:10]) as copy:
        for part in parts:
            size += len(part)
            if size > LARGEST_BYTES:
                raise TooLarge(tr("A recording has at most 2 GB. Cut it."))
            digest.update(part)
            copy.write(part)
        copy.flush()
        if declared_bytes is not None and size < declared_bytes:
            raise InvalidError(
                tr(
                    "Only {size:,} of {declared_bytes:,} bytes arrived. Send the file again.",
                    size=size,
                    declared_bytes=declared_bytes,
                )
            )
        recording = Recording(
            coupon=coupon,
            recorder=recorder,
            client_id=client_id,
            name=name[:200] or "recording",
            status=Status.RECEIVED,
            sha256=digest.hexdigest(),
            size_bytes=size,
            sent_by=user,
        )
        with open(copy.name, "rb") as file:
            recording.original.save(
                f"{digest.hexdigest()[:16]}-{Path(name).name[-80:]}", File(file), save=False
            )
        try:
            with transaction.atomic():
                held(coupon)
                recording.save()
        except IntegrityError:  # the same sending arrived twice at once
            recording.original.delete(save=False)
            return _sent_before(Recording.objects.get(client_id=client_id), coupon, size)
        examine(recording, Path(copy.name))
    return recording


def _sent_before(there: Recording, coupon: Coupon, size: int | None) -> Recording:
    """The recording of an earlier sending; read now where the server died before it came to that.

    Raises:
        ConflictError: The id belongs to another file: it must not be acknowledged in this one's place.
    """
    if there.coupon_id != coupon.pk or (size is not None and size != there.size_bytes):
        raise ConflictError(
            tr("This file was sent under the id of {name}: send it again as a new one.", name=there.name)
        )
    return examine_received(there)


def examine_received(recording: Recording) -> Recording:
    """Read a recording that was kept but not read, such as after a power cut."""
    if recording.status == Status.RECEIVED and recording.original:
        with local(recording.original) as path:
            examine(recording, path)
    return recording
