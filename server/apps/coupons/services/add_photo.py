"""Add a photo to a logged pass."""

from __future__ import annotations

import hashlib
import io
import warnings
from uuid import UUID

from api.errors import ConflictError, InvalidError
from django.core.files.base import ContentFile
from django.db import IntegrityError, transaction
from PIL import Image, ImageOps, UnidentifiedImageError

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import PassLog, PassPhoto
from apps.coupons.services.hold import held
from welding.language import tr

LARGEST_BYTES = 15_000_000
_NOTES = {"exif", "xmp", "XML:com.adobe.xmp", "comment"}
TYPES = {"JPEG": ("image/jpeg", "jpg"), "PNG": ("image/png", "png"), "WEBP": ("image/webp", "webp")}


def add_photo(user: User, row: PassLog, client_id: UUID, data: bytes) -> PassPhoto:
    """Keep a photo; the same ``client_id`` again gives the one that is there.

    The picture is kept as it came but for what tells where it was taken: position and the device's own
    notes are left out. ``sha256`` is that of the kept bytes.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: It is no photo, or above 15 MB.
        ConflictError: The ``client_id`` was used for another photo, or the record is signed.
    """
    require(user, Action.LOG_PASS)
    if len(data) > LARGEST_BYTES:
        raise InvalidError(tr("A photo has at most 15 MB."))
    kept, content_type, ending = _without_place(data)
    digest = hashlib.sha256(kept).hexdigest()
    there = _sent_before(row, client_id, digest)
    if there:
        return there
    photo = PassPhoto(row=row, client_id=client_id, content_type=content_type, sha256=digest, taken_by=user)
    with transaction.atomic():
        held(row.coupon)
        photo.file.save(f"{digest[:16]}.{ending}", ContentFile(kept), save=False)
        try:
            with transaction.atomic():
                photo.save()
        except IntegrityError:  # the same photo arrived twice at once
            photo.file.delete(save=False)
            found = _sent_before(row, client_id, digest)
            if found is None:
                raise
            return found
    return photo


def _sent_before(row: PassLog, client_id: UUID, digest: str) -> PassPhoto | None:
    there = PassPhoto.objects.select_related("row__coupon").filter(client_id=client_id).first()
    if there is not None and (there.row_id != row.pk or there.sha256 != digest):
        raise ConflictError(
            tr(
                "Another photo has this id already, of pass {number} of {number2}. This one is "
                "not kept: take it again.",
                number=there.row.number,
                number2=there.row.coupon.number,
            )
        )
    return there


def _without_place(data: bytes) -> tuple[bytes, str, str]:
    """The photo without position and device notes, turned as it was held; its type and file ending."""
    kind = _type_of(data)
    sink = io.BytesIO()
    try:
        with Image.open(io.BytesIO(data), formats=list(TYPES)) as image:
            if not image.getexif() and not _NOTES & set(image.info):
                return data, *kind
            turned = ImageOps.exif_transpose(image)
            profile = image.info.get("icc_profile")
            for name in _NOTES:
                turned.info.pop(name, None)
            turned.save(
                sink, format=image.format, quality=95, **({"icc_profile": profile} if profile else {})
            )
    except (OSError, SyntaxError, ValueError) as error:
        raise InvalidError(tr("The photo cannot be read to its end: take it again.")) from error
    return sink.getvalue(), *kind


def _type_of(data: bytes) -> tuple[str, str]:
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=list(TYPES)) as image:
                image.verify()
                return TYPES[str(image.format)]
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, KeyError) as error:
        raise InvalidError(tr("This is no photo: send JPEG, PNG or WebP.")) from error
    except (Image.DecompressionBombError, Image.DecompressionBombWarning) as error:
        raise InvalidError(tr("The photo unpacks to far too many pixels.")) from error
