"""Reading coupons. Once a record is signed, everything is read from its signed bytes."""

from __future__ import annotations

from dataclasses import replace

from apps.coupons.models import Coupon
from apps.coupons.rows import to_plain
from welding.documents.codec import COUPON
from welding.documents.coupon import Coupon as Document
from welding.documents.coupon import PassRecord


def coupon_document(coupon: Coupon) -> Document:
    """The whole coupon as an open document; struck passes are left out.

    Raises:
        DamagedError: Its record is signed, and the bytes are not those that were signed.
        DocumentError: What is kept does not hold together.
    """
    signed = getattr(coupon, "record", None)
    if signed is not None:
        welded: Document = signed.document().as_coupon
        return replace(welded, number=coupon.number)
    return standing_document(coupon)


def standing_document(coupon: Coupon) -> Document:
    """The coupon as its rows stand: what a signature would be over."""
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


def passes_by_number(document: Document) -> dict[int, PassRecord]:
    """The passes of a coupon by their numbers."""
    return {one.number: one for one in document.coupon.passes}
