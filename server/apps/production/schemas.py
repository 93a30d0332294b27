"""What the API says of production welds."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from api.documents import PassRecordIn
from api.text import Day, Line, Note
from ninja import Schema
from pydantic import Field, StringConstraints

from apps.crew.schemas import NamedWelderOut
from apps.production.models import LONGEST_NAME
from welding.documents.coupon import PassRecord
from welding.evaluate.one_pass import PassResult
from welding.production.rates import RejectRate
from welding.production.state import Method, WeldState

Name = Annotated[str, StringConstraints(strip_whitespace=True, max_length=LONGEST_NAME)]
Names = Annotated[list[Name], Field(max_length=20)]
Mark = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]


class ResultOut(Schema):
    """What a method of testing found on a weld."""

    id: int
    method: Method
    accepted: bool
    report: str
    inspector: str
    inspected_on: date
    found: str
    entered_name: str
    entered_at: datetime
    struck_reason: str
    struck_name: str


class WeldOut(Schema):
    """A weld as it was made, what was found on it, and what stands against its release."""

    id: int
    mark: str
    item: int
    joint: str
    position: str
    revision_id: int
    wps: str
    welders: list[str]
    batches: list[str]
    heats: list[str]
    welded_on: date
    remarks: str
    fit: Literal["covered", "open", "blocked"]
    against: list[str]
    qualified: list[NamedWelderOut]
    state: WeldState
    repair_of: int | None
    entered_name: str
    entered_at: datetime
    struck_reason: str
    struck_name: str
    released_name: str
    released_at: datetime | None
    results: list[ResultOut]


class WeldDetailOut(WeldOut):
    """A weld with its passes as welded against the WPS."""

    passes: list[PassRecord]
    judged: list[PassResult]
    repaired_by: int | None


class WeldsOut(Schema):
    """A page of the log, the latest first; ``next`` is what to ask on with.

    ``total`` is how many there are, or at least how many where there are ``more``.
    """

    total: int
    more: bool
    welds: list[WeldOut]
    next: int | None


class WpsChoiceOut(Schema):
    """A WPS that a weld may be logged to."""

    revision_id: int
    name: str
    released: bool


class JointToLogOut(Schema):
    """A joint for whoever welds it: what it is, its WPS, what of it is welded."""

    mark: str
    words: str
    drawing: str
    ndt: str
    count: int
    left: list[int]
    problems: list[str]
    assigned: int | None
    wps: list[WpsChoiceOut]
    welds: list[WeldOut]
    welders: list[str]
    batches: list[str]
    heats: list[str]


class WeldIn(Schema):
    """A weld to log; ``person_id`` says who was signed in when it was saved on the device."""

    client_id: UUID
    person_id: int | None = None
    mark: Mark
    item: Annotated[int, Field(ge=1, le=100_000)] = 1
    revision_id: int
    welders: Names
    batches: Names = []
    heats: Names = []
    welded_on: Day
    passes: Annotated[list[PassRecordIn], Field(max_length=100)] = []
    remarks: Note = ""
    repair_of: int | None = None


class ResultIn(Schema):
    """A result to enter."""

    client_id: UUID
    method: Method
    accepted: bool
    inspector: Name
    inspected_on: Day
    report: Line = ""
    found: Note = ""


class StrikeEntryIn(Schema):
    """Why an entry is struck."""

    reason: Note


class RateOut(Schema):
    """A reject rate of one welder, WPS, position or month."""

    of: str
    rate: RejectRate
