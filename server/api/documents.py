"""Documents in request bodies: the OpenAPI schema is the core's, the reading is the strict codec's."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any, TypeVar

from pydantic import BeforeValidator

from api.errors import DocumentRefused
from welding.documents.bead_settings import BeadSettings
from welding.documents.chart import SettingsChart
from welding.documents.codec import (
    BEAD_SETTINGS,
    CODECS,
    CORRECTIONS,
    COUPON,
    INTENT,
    JOINT,
    PASS_RECORD,
    PERSON,
    PIECE,
    PROCEDURE,
    TEST,
    TRIAL,
    Codec,
)
from welding.documents.corrections import BookCorrections
from welding.documents.coupon import Coupon, CouponPiece, PassRecord, Person
from welding.documents.intent import Intent, Trial
from welding.documents.joint_list import JointToWeld
from welding.documents.library import OwnMetal, Product
from welding.documents.machine import BalanceDial, DialCalibration, Machine
from welding.documents.procedure import Code, Procedure
from welding.documents.record import Test
from welding.documents.weld_list import Prices, Shop
from welding.errors import DocumentError, Problem
from welding.language import tr
from welding.recording.mapping import Mapping

T = TypeVar("T")


def _through(codec: Codec[T]) -> Callable[[Any], Any]:
    def take(value: Any) -> Any:
        if not isinstance(value, dict):
            return value
        try:
            return codec.take(value)
        except DocumentError as error:
            raise DocumentRefused(error) from error

    return take


def _record(value: Any) -> Any:
    """An own record by its ``format``."""
    kind = str(value.get("format", "")).removeprefix("grounded-bead/") if isinstance(value, dict) else ""
    if kind not in ("machine", "product", "metal", "chart"):
        problem = Problem("format", tr("is none of grounded-bead/machine, product, metal, chart"), kind)
        raise DocumentRefused(DocumentError((problem,)))
    return _through(CODECS[kind])(value)


RecordIn = Annotated[Machine | Product | OwnMetal | SettingsChart, BeforeValidator(_record)]
DialIn = Annotated[DialCalibration, BeforeValidator(_through(Codec(DialCalibration)))]
BalanceIn = Annotated[BalanceDial, BeforeValidator(_through(Codec(BalanceDial)))]
ProcedureIn = Annotated[Procedure, BeforeValidator(_through(PROCEDURE))]
CouponIn = Annotated[Coupon, BeforeValidator(_through(COUPON))]
PassRecordIn = Annotated[PassRecord, BeforeValidator(_through(PASS_RECORD))]
PersonIn = Annotated[Person, BeforeValidator(_through(PERSON))]
PieceIn = Annotated[CouponPiece, BeforeValidator(_through(PIECE))]
BeadSettingsIn = Annotated[BeadSettings, BeforeValidator(_through(BEAD_SETTINGS))]
IntentIn = Annotated[Intent, BeforeValidator(_through(INTENT))]
TrialIn = Annotated[Trial, BeforeValidator(_through(TRIAL))]
TestIn = Annotated[Test, BeforeValidator(_through(TEST))]
JointIn = Annotated[JointToWeld, BeforeValidator(_through(JOINT))]
CorrectionsIn = Annotated[BookCorrections, BeforeValidator(_through(CORRECTIONS))]
CodeIn = Annotated[Code, BeforeValidator(_through(Codec(Code)))]
ShopIn = Annotated[Shop, BeforeValidator(_through(Codec(Shop)))]
PricesIn = Annotated[Prices, BeforeValidator(_through(Codec(Prices)))]
MappingIn = Annotated[Mapping, BeforeValidator(_through(Codec(Mapping)))]
