"""What the API says of evidence, ranges, coverage and release."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from api.documents import JointIn, ProcedureIn, TestIn
from api.text import GivenLine, Line, Note, Version
from ninja import Schema
from pydantic import Field

from welding.coverage.brackets import Bracket
from welding.coverage.covers import Coverage
from welding.documents.record import Test
from welding.qualification.items import QualifiedRange
from welding.testing.cutting import CuttingPlan, PlannedSpecimen
from welding.testing.overall import TestReport


class SpecimenOut(Schema):
    """A specimen as entered."""

    id: int
    version: int
    test: Test
    entered_by: str
    changed_at: datetime


class PlanItemOut(Schema):
    """A line of the plan."""

    kind: str
    count: int
    note: str
    clause: str
    alternative_to: str
    option: int
    choice: str
    locations: list[str]
    before_cutting: bool
    unchecked: list[str]


class SignatureOut(Schema):
    """A signature."""

    purpose: str
    words: str
    by: str
    role: str
    at: datetime
    reason: str
    content_hash: str


class AmendmentOut(Schema):
    """An amendment: the record at its other end, with the coupon to open."""

    record_number: str
    coupon_id: int
    reason: str
    by: str
    at: datetime


class AmendIn(Schema):
    """Why a signed record is amended."""

    reason: Note


class SignedOut(Schema):
    """A signed record; ``state`` is signed, awaits-second, superseded or void."""

    id: int
    number: str
    content_hash: str
    signed_at: datetime
    void: bool
    state: str
    signed_by_id: int
    signatures: list[SignatureOut]
    amendment: AmendmentOut | None


class EvidenceOut(Schema):
    """A coupon's tests: the plan, what was entered, the verdicts."""

    coupon_id: int
    coupon_number: str
    record_number: str
    procedure_number: str
    revision_id: int
    letter: str
    title: str
    status: str
    certificate: str
    tested_to: str
    code: str
    record_word: str
    items: list[PlanItemOut]
    notes: list[str]
    open: list[str]
    planned: list[PlannedSpecimen]
    cutting: CuttingPlan
    specimens: list[SpecimenOut]
    report: TestReport
    signed: SignedOut | None
    amends: AmendmentOut | None


class SpecimenIn(Schema):
    """A test to enter."""

    test: TestIn


class SpecimenChangeIn(Schema):
    """A changed test."""

    version: Version
    test: TestIn


class PreparedOut(Schema):
    """How many were entered."""

    made: int


class RangeOut(Schema):
    """A range under one code and level."""

    code: str
    level: int | None
    short: str
    own: bool
    range: QualifiedRange


class VariableOut(Schema):
    """Words for a variable."""

    name: str
    title: str
    quantity: str
    group: str


class RangesOut(Schema):
    """Ranges side by side."""

    coupon_number: str
    record_number: str
    units: str
    variables: list[VariableOut]
    groups: list[str]
    ranges: list[RangeOut]


class CoversIn(Schema):
    """A procedure or a joint to cover."""

    procedure: ProcedureIn | None = None
    joint: JointIn | None = None


class RecordLineOut(Schema):
    """A signed record in a list."""

    id: int
    number: str
    coupon_id: int
    coupon_number: str
    procedure_number: str
    code_id: str
    code_level: int | None
    content_hash: str
    signed_by: str
    signed_at: datetime
    state: str
    damaged: str


class DraftCoverageOut(Schema):
    """How a draft stands to the signed records of its job, and its qualified limits."""

    coverage: Coverage | None
    brackets: list[Bracket]
    record: str
    records: list[RecordLineOut]


class SignatureIn(Schema):
    """A signature: the password again, and a reason or remarks."""

    password: Annotated[str, Field(max_length=200)]
    reason: Note = ""


class QualifyIn(SignatureIn):
    """Which records support the revision."""

    records: Annotated[list[Annotated[int, Field(ge=1, le=2**62)]], Field(max_length=20)]


class MadeOut(Schema):
    """A draft that was made."""

    id: int
    notes: list[str]


class MakeIn(Schema):
    """Where to make it."""

    as_new: bool = False


class StageOut(Schema):
    """A revision's stage, its supports and signatures."""

    revision_id: int
    stage: str
    route: str | None
    supports: list[RecordLineOut]
    signatures: list[SignatureOut]
    current: Coverage | None


class DifferenceOut(Schema):
    """A field that differs."""

    path: str
    before: Any
    after: Any


class EffectOut(Schema):
    """A procedure that a change of the book reaches."""

    revision_id: int
    number: str
    letter: str
    stage: str
    covered_before: bool
    covered_after: bool
    changes: list[str]
    blocking: list[str]


class PreviewIn(Schema):
    """A change of the book that is only looked at."""

    number_id: Line
    said: Literal["confirm", "correct", "revert"]
    value: Any = None


class OldRecordOfIn(Schema):
    """The certificate of an old record, and the edition it was tested to."""

    certificate: GivenLine
    tested_to: Line = ""


class OldRecordIn(Schema):
    """An old record: the procedure as printed, the certificate, the edition it was tested to."""

    document: ProcedureIn
    certificate: GivenLine
    tested_to: Line = ""
