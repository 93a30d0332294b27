"""Hold a coupon's row while something beneath it changes; refused once its record is signed."""

from __future__ import annotations

from api.errors import ConflictError

from apps.coupons.models import Coupon, Status
from welding.language import tr


def held(coupon: Coupon) -> Coupon:
    """The coupon with its row locked until the transaction ends, while no record of it is signed.

    Everything beneath a signed record is frozen: piece, people, passes, photos, recordings, specimens.
    The database refuses it too; this says it in a sentence, and keeps a signature from coming in between.

    Raises:
        ConflictError: The record is signed.
    """
    locked = Coupon.objects.select_for_update().get(pk=coupon.pk)
    if hasattr(locked, "record"):
        raise ConflictError(
            tr(
                "Record {number} is signed: its coupon, log and tests no longer change. If it is "
                "wrong, amend the record.",
                number=locked.record.number,
            )
        )
    return locked


def held_open(coupon: Coupon) -> Coupon:
    """The same, while the log is open too.

    Raises:
        ConflictError: The record is signed, or the log is closed.
    """
    locked = held(coupon)
    if locked.status != Status.WELDING:
        raise ConflictError(
            tr("The log of {number} is closed. Open it again to change it.", number=locked.number)
        )
    return locked
