"""Documents in request bodies: the OpenAPI schema is the core's, the reading is the strict codec's."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any, TypeVar

from pydantic import BeforeValidator

from api.errors import DocumentRefused
from welding.documents.codec import COUPON, PASS_RECORD, PROCEDURE, Codec
from welding.documents.coupon import Coupon, CouponPiece, PassRecord
from welding.documents.procedure import Procedure
from welding.errors import DocumentError

T = TypeVar("T")
PIECE = Codec(CouponPiece)


def _through(codec: Codec[T]) -> Callable[[Any], Any]:
    def take(value: Any) -> Any:
        if not isinstance(value, dict):
            return value
        try:
            return codec.take(value)
        except DocumentError as error:
            raise DocumentRefused(error) from error

    return take


ProcedureIn = Annotated[Procedure, BeforeValidator(_through(PROCEDURE))]
CouponIn = Annotated[Coupon, BeforeValidator(_through(COUPON))]
PassRecordIn = Annotated[PassRecord, BeforeValidator(_through(PASS_RECORD))]
PieceIn = Annotated[CouponPiece, BeforeValidator(_through(PIECE))]
