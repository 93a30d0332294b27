"""What the API says of procedures."""

from __future__ import annotations

from datetime import datetime

from api.documents import ProcedureIn
from api.text import Version
from ninja import Schema

from welding.documents.procedure import Procedure
from welding.evaluate.procedure import Evaluation


class RevisionLineOut(Schema):
    """A line in a list."""

    id: int
    procedure_id: int
    number: str
    letter: str
    title: str
    stage: str
    code_id: str
    code_level: int | None
    processes: list[str]
    positions: list[str]
    thickness_min_mm: float | None
    thickness_max_mm: float | None
    pass_count: int
    coupon_count: int
    saved_by: str
    saved_at: datetime
    breaches: int
    cautions: int
    open_questions: int
    next_step: str
    damaged: str


class SiblingOut(Schema):
    """Another revision of the same procedure."""

    id: int
    letter: str
    stage: str


class CouponRefOut(Schema):
    """A coupon started from this revision."""

    id: int
    number: str
    status: str


class RevisionOut(Schema):
    """A revision to work on."""

    id: int
    job_id: int
    procedure_id: int
    number: str
    letter: str
    stage: str
    version: int
    document: Procedure
    saved_by: str
    saved_at: datetime
    frozen: bool
    siblings: list[SiblingOut]
    coupons: list[CouponRefOut]
    evaluation: Evaluation


class SaveIn(Schema):
    """A save: the version that was opened, and what it should become."""

    version: Version
    document: ProcedureIn


class SavedOut(Schema):
    """A save that was taken."""

    version: int
    saved_by: str
    saved_at: datetime


class CreateIn(Schema):
    """A new procedure."""

    document: ProcedureIn


class CreatedOut(Schema):
    """Where to find it."""

    id: int


class ImportedOut(Schema):
    """What an import led to."""

    kind: str
    id: int
    number: str
    unchanged: bool


class EventOut(Schema):
    """One entry of the audit trail."""

    at: datetime
    what: str
    by: str
    version: int
    stage: str
