"""What the API takes and gives of the crew."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from api.text import Day, GivenLine, Line, Note, Number, Version
from ninja import Schema
from pydantic import Field, StringConstraints

from apps.crew.queries import NamedStanding
from welding.documents.welder_certificate import RevalidationWay, SignerIs, StatementKind
from welding.qualification.items import RangeItem
from welding.welders.who import MayWeld

PersonName = Annotated[GivenLine, Field(max_length=80)]
Password = Annotated[str, StringConstraints(min_length=1, max_length=400)]
StandingWord = Literal["valid", "lapsed", "unknown", "not_yet", "damaged"]
Days = Annotated[int, Field(ge=1, le=3660)]


class DueOut(Schema):
    """What is next of a certificate, and the last day for it."""

    kind: Literal["confirmation", "prolongation", "use"]
    on: date


class CertificateLineOut(Schema):
    """A certificate in a list, as it stands on the day that is asked."""

    id: int
    number: str
    designation: str
    code: str
    short: str
    standing: StandingWord
    last_valid_day: date | None
    due: DueOut | None
    reasons: list[str]
    from_paper: bool


class MemberOut(Schema):
    """A person of the crew."""

    id: int
    version: int
    name: str
    mark: str
    employer: str
    left_on: date | None
    first_due: date | None
    certificates: list[CertificateLineOut]


class CrewOut(Schema):
    """The crew on a day."""

    on: date
    members: list[MemberOut]


class MemberIn(Schema):
    """What is entered of a person."""

    name: PersonName
    mark: Annotated[Line, Field(max_length=40)] = ""
    employer: Annotated[Line, Field(max_length=120)] = ""
    left_on: Day | None = None


class MemberChangeIn(MemberIn):
    """What the list says of a person, over the version that was looked at."""

    version: Version


class WelderVariableOut(Schema):
    """Words for a variable of a person's range."""

    name: str
    title: str
    quantity: str


class DesignationIn(Schema):
    """A designation as it was typed."""

    text: Annotated[Line, Field(max_length=200)]


class DesignationOut(Schema):
    """A designation that was read, and what it qualifies."""

    designation: str
    code: str
    short: str
    ways: list[RevalidationWay]
    items: list[RangeItem]
    variables: list[WelderVariableOut]


class ScanOut(Schema):
    """A scan on file."""

    id: int
    name: str
    content_type: str
    sha256: str


class EmployedUnderIn(Schema):
    """What revalidation without an end rests on; null where it is not stated."""

    same_employer: bool | None = None
    system: Annotated[Line, Field(min_length=1, max_length=120)] | None = None
    records: bool | None = None


class CertificateIn(Schema):
    """A certificate to sign."""

    number: Annotated[GivenLine, Field(max_length=120)]
    designation: GivenLine
    welded_on: Day
    way: RevalidationWay | None = None
    employed_under: EmployedUnderIn | None = None
    wps: Line = ""
    examiner: Line = ""
    body: Line = ""
    place: Line = ""
    tests: Annotated[list[Line], Field(max_length=30)] = []
    training: Line = ""
    from_paper: bool = True
    not_stated: Annotated[list[Line], Field(max_length=30)] = []
    scans: Annotated[list[int], Field(max_length=20)] = []
    password: Password


class WorkOut(Schema):
    """A weld that a signature may rest on."""

    ref: str
    on: date
    what: str
    within: bool | None
    against: list[str]
    method: str
    accepted: bool | None
    report: str


class WorkListOut(Schema):
    """What the logs have for a signature today."""

    since: date
    until: date
    works: list[WorkOut]
    more: int


class StatementIn(Schema):
    """A confirmation, a prolongation, a renewal or a revocation to sign."""

    kind: StatementKind
    renewed_by: int | None = None
    works: Annotated[list[Number], Field(max_length=200)] = []
    meets: Annotated[list[Number], Field(max_length=200)] = []
    reason: Note = ""
    on: Day | None = None
    signer: SignerIs | None = None
    signed_by: Annotated[Line, Field(max_length=120)] = ""
    scans: Annotated[list[int], Field(max_length=20)] = []
    password: Password


class WorkDoneOut(Schema):
    """A weld that a statement rests on."""

    on: date
    what: str
    within: bool | None
    method: str | None
    accepted: bool | None
    report: str


class StatementOut(Schema):
    """What was signed about a certificate, from its signed bytes."""

    id: int
    kind: StatementKind
    on: date
    signer: SignerIs
    signed_by: str
    entered_by: str
    entered_at: datetime
    from_paper: bool
    reason: str
    works: list[WorkDoneOut]
    renewed_by: str
    scans: list[ScanOut]


class RenewingOut(Schema):
    """A later certificate of the same person whose test renews one that lapsed."""

    id: int
    number: str
    designation: str


class CertificateOut(CertificateLineOut):
    """A certificate whole, from its signed bytes."""

    mark: str
    welded_on: date
    way: RevalidationWay | None
    wps: str
    examiner: str
    body: str
    place: str
    tests: list[str]
    training: str
    coupon: str
    not_stated: list[str]
    signed_name: str
    signed_role: str
    signed_at: datetime
    sha256: str
    may_confirm: bool
    may_prolong: bool
    renewing: list[RenewingOut]
    items: list[RangeItem]
    statements: list[StatementOut]
    scans: list[ScanOut]


class MemberDetailOut(Schema):
    """A person with the certificates; ``unnamed_scans`` are those that nothing signed names."""

    on: date
    member: MemberOut
    certificates: list[CertificateOut]
    variables: list[WelderVariableOut]
    unnamed_scans: list[ScanOut]


class MemberMayOut(Schema):
    """Whether a person may weld it: by which certificates and until when, or why not."""

    id: int
    name: str
    mark: str
    standing: MayWeld
    by: list[str]
    until: date | None
    reasons: list[str]


class WhoMayOut(Schema):
    """Who may weld something on a day."""

    on: date
    what: str
    code: str
    asked: list[str]
    open: list[str]
    people: list[MemberMayOut]


class NamedWelderOut(Schema):
    """Somebody whom a log names."""

    name: str
    standing: NamedStanding
    reasons: list[str]


class DueLineOut(Schema):
    """What runs out."""

    member_id: int
    name: str
    certificate_id: int
    certificate: str
    designation: str
    kind: Literal["confirmation", "prolongation", "use", "lapsed"]
    on: date
    days: int
