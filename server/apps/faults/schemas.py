"""Shapes of the fault finder's API."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from api.documents import ProcedureIn
from api.text import GivenLine, Note
from ninja import Schema
from pydantic import Field

from welding.documents.fault_case import Answered, Around, Limits
from welding.quantities.writing import System
from welding.ranges import Range

Key = Annotated[str, Field(min_length=1, max_length=40)]
RowId = Annotated[int, Field(ge=1, le=2**62)]


class SymptomOut(Schema):
    """One thing that is seen, heard or found."""

    key: str
    title: str
    group: str
    sensed: list[str]
    also: list[str]


class GroupOut(Schema):
    """Symptoms that are shown together."""

    key: str
    title: str
    symptoms: list[SymptomOut]


class SymptomsOut(Schema):
    """Every symptom by group; ``found`` holds what words may mean, the likeliest first."""

    groups: list[GroupOut]
    found: list[str]


class FaultFactOut(Schema):
    """A fact that speaks for a cause, or against it."""

    holds: bool
    words: str


class FaultRemedyOut(Schema):
    """One thing to do, and whose it is."""

    words: str
    where: Literal["inside", "engineer", "shop"]
    field: str
    direction: str
    limit: Range | None


class CauseOut(Schema):
    """One cause with its place in the ranking; ``share`` is 0 to 1."""

    row: str
    cause: str
    share: float
    prior: str
    evidence: list[FaultFactOut]
    look_for: str
    check: str
    remedies: list[FaultRemedyOut]
    caution: str
    ticked: bool | None
    cured_here: int
    source: str
    confidence: str


class CausesOut(Schema):
    """Causes of a symptom, the likeliest first."""

    symptom: SymptomOut
    causes: list[CauseOut]
    caution: str


class CausesIn(Schema):
    """A symptom, what it was seen on, and quick checks that were made.

    ``pass_id`` is a logged pass; without one a ``procedure`` and the place of a pass in it may be given,
    with ``qualified`` ranges. ``around`` is what was measured besides.
    """

    symptom: GivenLine
    pass_id: RowId | None = None
    procedure: ProcedureIn | None = None
    index: Annotated[int, Field(ge=0, le=998)] = 0
    qualified: Limits = {}
    around: Around = Around()
    ticked: Answered = {}
    units: System = "si"


class PassKnownOut(Schema):
    """A logged pass that a fault is looked for on, and what its breaches suggest.

    ``settings`` are those of the pass as welded, to be tried; null where its procedure names no known metal.
    """

    coupon_id: int
    coupon_number: str
    pass_number: int
    procedure_number: str
    revision_id: int
    process: str
    findings: list[str]
    suggested: list[SymptomOut]
    settings: dict[str, Any] | None
    limits: dict[str, Range]


class FoundCureIn(Schema):
    """What cured a fault: a row of the causes, one of its remedies, what it was seen on."""

    cause: Key
    remedy: Annotated[int, Field(ge=0, le=40)]
    note: Annotated[Note, Field(max_length=400)] = ""
    pass_id: RowId | None = None
    revision_id: RowId | None = None


class FoundCureOut(Schema):
    """What cured a fault, and where."""

    id: int
    symptom: str
    title: str
    cause: str
    remedy: str
    note: str
    seen_on: str
    entered_by: str
    entered_at: datetime
    struck_because: str


class FaultKeptOut(Schema):
    """The row that was made or changed."""

    id: int


class StrikeCureIn(Schema):
    """Why a cure is voided."""

    reason: Note


class WordsIn(Schema):
    """Words for a symptom that nobody knows."""

    words: GivenLine
    pass_id: RowId | None = None


class WordsOut(Schema):
    """Words that found no symptom, and what the engineer said about them."""

    id: int
    words: str
    seen_on: str
    entered_by: str
    entered_at: datetime
    settled_as: str
    settled_by: str


class SettleIn(Schema):
    """What the words meant."""

    answer: GivenLine
