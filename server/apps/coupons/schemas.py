"""What the API says of coupons."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from api.documents import PassRecordIn, PersonIn, PieceIn
from api.text import Line, Moment, Note, Version
from ninja import Schema
from pydantic import Field

from welding.advice.checklist import Question
from welding.documents.coupon import CouponPiece, PassRecord, Person
from welding.documents.procedure import Procedure
from welding.evaluate.coupon import CouponEvaluation
from welding.evaluate.fit_up import Cooling
from welding.evaluate.procedure import Evaluation


class CouponLineOut(Schema):
    """A line in a list; a coupon that cannot be read says why. ``record_state`` is empty until signed."""

    id: int
    number: str
    status: str
    record_state: str
    damaged: str
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
    corrected_by: str
    logged_at: datetime
    ended_at: datetime
    device_offset_s: float | None
    photos: list[int]


class StruckOut(Schema):
    """A struck entry."""

    number: int
    reason: str
    logged_by: str
    logged_at: datetime
    struck_by: str


class CouponOut(Schema):
    """A coupon to log on."""

    id: int
    job_id: int
    number: str
    status: str
    version: int
    signed_record: str
    record_state: str
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
    checklist: list[Question]
    cooling: Cooling | None
    cooling_since: datetime | None
    server_time: datetime


class StartIn(Schema):
    """A coupon to start."""

    welder: Line = ""


class LogIn(Schema):
    """A pass to log; the same ``client_id`` again changes nothing.

    ``device_time`` is the device's clock at sending, ``saved_at`` when the pass was saved on it, and
    ``person_id`` who was signed in then: a pass that waited is logged under no other name.
    """

    client_id: UUID
    record: PassRecordIn
    device_time: Moment | None = None
    saved_at: Moment | None = None
    person_id: int | None = None


class CorrectIn(Schema):
    """A correction."""

    version: Version
    record: PassRecordIn


class StrikeIn(Schema):
    """A striking out."""

    version: Version
    reason: Note


class ScrapIn(Schema):
    """A pass that was tried on scrap."""

    record: PassRecordIn
    verdict: Literal["kept", "rejected"]


class ExplainIn(Schema):
    """An explanation of a flag."""

    version: Version
    rule: Line
    text: Note


class JudgeIn(Schema):
    """A pass that is being typed."""

    record: PassRecordIn
    units: Literal["si", "us"] = "si"


class PieceChangeIn(Schema):
    """What changed on the piece."""

    version: Version
    piece: PieceIn | None = None
    welder: Line | None = None
    people: Annotated[list[PersonIn], Field(max_length=50)] | None = None
    status: Literal["welding", "welded"] | None = None


class VersionOut(Schema):
    """The version that stands now."""

    id: int
    version: int
