"""What the API says of coupons."""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from api.documents import PassRecordIn, PieceIn
from ninja import Schema

from welding.assess import Evaluation
from welding.assess_coupon import CouponEvaluation
from welding.documents.coupon import CouponPiece, PassRecord, Person
from welding.documents.procedure import Procedure


class CouponLineOut(Schema):
    """A line in a list."""

    id: int
    number: str
    status: str
    procedure_number: str
    letter: str
    title: str
    revision_id: int
    welder: str
    planned: int
    logged: int
    flagged: int
    changed_at: datetime


class PassRowOut(Schema):
    """A logged pass: its row, and the pass of the document."""

    id: int
    version: int
    record: PassRecord
    logged_by: str
    logged_at: datetime


class StruckOut(Schema):
    """A struck entry."""

    number: int
    reason: str
    logged_by: str
    logged_at: datetime


class CouponOut(Schema):
    """A coupon to log on."""

    id: int
    job_id: int
    number: str
    status: str
    version: int
    revision_id: int
    procedure_number: str
    letter: str
    procedure: Procedure
    piece: CouponPiece
    people: list[Person]
    rows: list[PassRowOut]
    struck: list[StruckOut]
    evaluation: Evaluation
    log: CouponEvaluation


class StartIn(Schema):
    """A coupon to start."""

    welder: str = ""


class LogIn(Schema):
    """A pass to log; the same ``client_id`` again changes nothing."""

    client_id: UUID
    record: PassRecordIn


class CorrectIn(Schema):
    """A correction."""

    version: int
    record: PassRecordIn


class StrikeIn(Schema):
    """A striking out."""

    version: int
    reason: str


class JudgeIn(Schema):
    """A pass that is being typed."""

    record: PassRecordIn
    units: Literal["si", "us"] = "si"


class PieceChangeIn(Schema):
    """What changed on the piece."""

    version: int
    piece: PieceIn | None = None
    welder: str | None = None
    status: Literal["welding", "welded"] | None = None


class VersionOut(Schema):
    """The version that stands now."""

    id: int
    version: int
