"""Reading coupons."""

from __future__ import annotations

from apps.coupons.models import Coupon
from apps.coupons.rows import to_plain
from welding.documents.codec import COUPON
from welding.documents.coupon import Coupon as Document


def coupon_document(coupon: Coupon) -> Document:
    """The whole coupon as an open document; struck passes are left out."""
    rows = coupon.passes.filter(struck=False).order_by("number", "id")
    return COUPON.take(
        {
            "format": "grounded-bead/coupon",
            "version": 1,
            "number": coupon.number,
            "procedure": coupon.procedure_document,
            "coupon": {**coupon.piece, "passes": [to_plain(row) for row in rows]},
            "people": coupon.people,
        }
    )
