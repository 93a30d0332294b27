"""Change what is known of the test piece: fit-up, ambient, preheat, people, status."""

from __future__ import annotations

from typing import Any

from api.errors import StaleError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.queries import standing_document
from apps.coupons.services.hold import held
from welding.language import tr


@transaction.atomic
def edit_piece(user: User, coupon: Coupon, version: int, change: dict[str, Any]) -> Coupon:
    """Replace piece, people or status if ``version`` is still the one that stands.

    Raises:
        NotAllowedError: The role does not allow it.
        StaleError: Someone changed it in the meantime.
        ConflictError: The record is signed.
    """
    require(user, Action.EDIT_PIECE)
    if "status" in change:
        require(user, Action.CLOSE_LOG)
    held(coupon)
    changed = Coupon.objects.filter(pk=coupon.pk, version=version).update(
        **change, version=version + 1, changed_at=timezone.now()
    )
    coupon.refresh_from_db()
    if not changed:
        raise StaleError(
            tr("The coupon was changed in the meantime."),
            current={
                "version": coupon.version,
                "piece": coupon.piece,
                "people": coupon.people,
                "status": coupon.status,
            },
        )
    # The parts were valid alone; the whole must be, too, or nothing is kept.
    standing_document(coupon)
    return coupon
