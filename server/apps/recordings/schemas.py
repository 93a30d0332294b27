"""What the API says of recordings and recorders."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from api.documents import MappingIn
from api.text import Line, Moment, Note, Number, Version
from ninja import Schema
from pydantic import Field

from welding.recording.analysis import Analysis
from welding.recording.mapping import Mapping
from welding.recording.signals import Fault
from welding.recording.sniff import Guess

Seconds = Annotated[float, Field(ge=-1e9, le=1e9)]


class RecorderOut(Schema):
    """A device."""

    id: int
    name: str
    retired: bool
    heard_at: datetime | None
    has_mapping: bool


class RecorderIn(Schema):
    """A device to add."""

    name: Line


class RecorderMadeOut(Schema):
    """A new device, with the token that it signs in with, told this once."""

    id: int
    name: str
    token: str


class TakenOut(Schema):
    """A pass that was taken from the recording."""

    pass_number: int
    start_s: float
    end_s: float
    taken_by: str


class RecordingLineOut(Schema):
    """A recording in a list."""

    id: int
    name: str
    status: str
    recorder: str | None
    passes: int
    faults: int
    taken: list[int]
    created_at: datetime


class RecordingOut(Schema):
    """A recording with what was found in it."""

    id: int
    coupon_id: int | None
    version: int
    name: str
    status: str
    message: str
    recorder: str | None
    device_offset_s: float | None
    sha256: str
    size_bytes: int
    guess: Guess | None
    mapping: Mapping | None
    faults: list[Fault]
    analysis: Analysis | None
    taken: list[TakenOut]
    created_at: datetime


class ExamineIn(Schema):
    """How the columns are to be read; remembered for the device."""

    version: Version
    mapping: MappingIn


class PartIn(Schema):
    """A part of a recording that is a pass of the coupon."""

    number: Annotated[int, Field(ge=1, le=999)]
    start_s: Seconds
    end_s: Seconds
    length_mm: Annotated[float, Field(gt=0, le=100_000)] | None = None


class TakeIn(Schema):
    """Parts that a person confirmed as passes."""

    parts: Annotated[list[PartIn], Field(min_length=1, max_length=400)]


class TraceOut(Schema):
    """Lowest and highest value by bucket; ``None`` where a channel has no value."""

    start_s: list[float]
    samples_a_bucket: int
    channels: dict[str, dict[str, list[float | None]]]


class AsideIn(Schema):
    """Why a recording is set aside."""

    version: Version
    reason: Note


class LiveOut(Schema):
    """What came in since a chunk number, and how the arc stands."""

    status: str
    next: int
    chunks: list[dict[str, Any]]
    samples: int
    arc_s: float
    energy_j: float


class OpenIn(Schema):
    """A stream to open."""

    client_id: UUID
    name: Line = ""
    columns: Annotated[list[Line], Field(max_length=20)]
    coupon: Number | None = None
    job: Number | None = None
    device_time: Moment | None = None


class StreamOut(Schema):
    """Where a stream stands."""

    id: int
    next: int
    server_time: datetime


class CloseIn(Schema):
    """The end of a stream, with what was sent."""

    chunks: Annotated[int, Field(ge=0, le=2_000_000_000)]
    samples: Annotated[int, Field(ge=0, le=2_000_000_000_000)]


class ClosedOut(Schema):
    """What was kept of a stream."""

    id: int
    status: str
    samples: int
    sha256: str
