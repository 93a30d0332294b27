"""Add a photo to a logged pass."""

from __future__ import annotations

import hashlib
import io
import warnings
from uuid import UUID

from api.errors import InvalidError
from django.core.files.base import ContentFile
from django.db import IntegrityError, transaction
from PIL import Image, UnidentifiedImageError

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import PassLog, PassPhoto

LARGEST_BYTES = 15_000_000
TYPES = {"JPEG": ("image/jpeg", "jpg"), "PNG": ("image/png", "png"), "WEBP": ("image/webp", "webp")}


def add_photo(user: User, row: PassLog, client_id: UUID, data: bytes) -> PassPhoto:
    """Keep a photo as it came; the same ``client_id`` again gives the one that is there.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: It is no photo, or above 15 MB.
    """
    require(user, Action.LOG_PASS)
    there = PassPhoto.objects.filter(client_id=client_id, row=row).first()
    if there:
        return there
    if len(data) > LARGEST_BYTES:
        raise InvalidError("A photo has at most 15 MB.")
    content_type, ending = _type_of(data)
    digest = hashlib.sha256(data).hexdigest()
    photo = PassPhoto(row=row, client_id=client_id, content_type=content_type, sha256=digest, taken_by=user)
    photo.file.save(f"{digest[:16]}.{ending}", ContentFile(data), save=False)
    try:
        with transaction.atomic():
            photo.save()
    except IntegrityError:  # the same photo arrived twice at once
        photo.file.delete(save=False)
        return PassPhoto.objects.get(client_id=client_id)
    return photo


def _type_of(data: bytes) -> tuple[str, str]:
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=list(TYPES)) as image:
                image.verify()
                return TYPES[str(image.format)]
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, KeyError) as error:
        raise InvalidError("This is no photo: send JPEG, PNG or WebP.") from error
    except (Image.DecompressionBombError, Image.DecompressionBombWarning) as error:
        raise InvalidError("The photo unpacks to far too many pixels.") from error
