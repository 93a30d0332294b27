"""The crew: people, certificates, what is signed about them, and who may weld what."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import date
from typing import Any, cast

from api.downloads import attachment
from api.errors import DamagedError, InvalidError, ProblemOut
from api.people import person
from api.text import Day
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.accounts.services.confirm_person import confirm_person
from apps.crew.models import Certificate, CrewMember, Scan
from apps.crew.own_record import record_of
from apps.crew.prepared import MOST_WORKS, work_for
from apps.crew.queries import (
    CertificateStanding,
    MemberStanding,
    crew_may,
    reasons_of,
    renewing,
    standing_crew,
)
from apps.crew.scans_api import scans_of, unnamed_scans
from apps.crew.schemas import (
    CertificateIn,
    CertificateLineOut,
    CertificateOut,
    CrewOut,
    DesignationIn,
    DesignationOut,
    DueOut,
    MemberChangeIn,
    MemberDetailOut,
    MemberIn,
    MemberMayOut,
    MemberOut,
    RenewingOut,
    StatementIn,
    StatementOut,
    WelderVariableOut,
    WhoMayOut,
    WorkDoneOut,
    WorkListOut,
    WorkOut,
)
from apps.crew.services.keep_member import MemberEntry, add_member, change_member, remove_member
from apps.crew.services.sign_certificate import (
    CertificateEntry,
    StatementEntry,
    sign_certificate,
    sign_statement,
)
from apps.procedures.models import Revision
from apps.procedures.schemas import CreatedOut
from welding.documents.procedure import Procedure
from welding.documents.welder_certificate import EmployedUnder
from welding.documents.welder_weld import WelderWeld
from welding.errors import UnreadableError
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.welders.catalogue import designation_of, read_designation, welder_edition
from welding.welders.certificate import evidence_from, ways_of
from welding.welders.covers import welder_range
from welding.welders.variables import VARIABLES, value_words

router = Router(tags=["crew"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


@router.get("/crew", response=CrewOut)
def crew(request: HttpRequest, on: Day | None = None) -> CrewOut:
    """Everybody, with the certificates as they stand on a day."""
    require(person(request), Action.VIEW)
    day = on or timezone.localdate()
    found = standing_crew(CrewMember.objects.all(), day)
    return CrewOut(on=day, members=[_member(one) for one in found])


@router.post("/crew", response={201: CreatedOut, **REFUSALS})
def add(request: HttpRequest, payload: MemberIn) -> Status[CreatedOut]:
    """Add a person."""
    made = add_member(person(request), MemberEntry(**payload.dict()))
    return Status(201, CreatedOut(id=made.pk))


@router.get("/crew/{int:member_id}", response={200: MemberDetailOut, **REFUSALS})
def member(request: HttpRequest, member_id: int, on: Day | None = None) -> MemberDetailOut:
    """A person with the certificates, their ranges and what was signed about them."""
    require(person(request), Action.VIEW)
    get_object_or_404(CrewMember, pk=member_id)
    day = on or timezone.localdate()
    (found,) = standing_crew(CrewMember.objects.filter(pk=member_id), day)
    scans = {one.sha256: one for one in found.member.scans.all()}
    return MemberDetailOut(
        on=day,
        member=_member(found),
        certificates=[
            _whole(one, scans, found.certificates) for one in found.certificates if one.document is not None
        ],
        variables=_variables(),
        unnamed_scans=unnamed_scans(found.member),
    )


@router.put("/crew/{int:member_id}", response={200: CreatedOut, **REFUSALS})
def change(request: HttpRequest, member_id: int, payload: MemberChangeIn) -> CreatedOut:
    """Change what the list says of a person."""
    get_object_or_404(CrewMember, pk=member_id)
    entry = MemberEntry(**payload.dict(exclude={"version"}))
    return CreatedOut(id=change_member(person(request), member_id, payload.version, entry).pk)


@router.delete("/crew/{int:member_id}", response={204: None, **REFUSALS})
def remove(request: HttpRequest, member_id: int) -> Status[None]:
    """Remove somebody of whom nothing is signed."""
    get_object_or_404(CrewMember, pk=member_id)
    remove_member(person(request), member_id)
    return Status(204, None)


@router.get("/crew/{int:member_id}/record", response={200: None, 403: ProblemOut, 404: ProblemOut})
def record(request: HttpRequest, member_id: int) -> HttpResponse:
    """Everything that is kept of a person, for the person, or for whoever keeps the list."""
    user = person(request)
    one = get_object_or_404(CrewMember, pk=member_id)
    if user.shown_name != one.name:
        require(user, Action.KEEP_CREW)
    return attachment(record_of(one), "application/json", f"{one.name}.record.json")


@router.post("/crew/designation", response={200: DesignationOut, **REFUSALS})
def designation(request: HttpRequest, payload: DesignationIn) -> DesignationOut:
    """Read a designation: what a certificate with it qualifies."""
    require(person(request), Action.VIEW)
    try:
        weld = read_designation(payload.text)
    except UnreadableError as error:
        raise InvalidError(
            error.reason, errors=[{"path": "designation", "message": error.reason, "value": payload.text}]
        ) from None
    return DesignationOut(
        designation=designation_of(weld),
        code=weld.code,
        short=welder_edition(weld.code).short,
        ways=cast(Any, list(ways_of(weld.code))),
        items=_items(weld),
        variables=_variables(),
    )


# --- certificates ---------------------------------------------------------------------------------


@router.post("/crew/{int:member_id}/certificates", response={201: CreatedOut, **REFUSALS})
def certify(request: HttpRequest, member_id: int, payload: CertificateIn) -> Status[CreatedOut]:
    """Sign a certificate."""
    user = person(request)
    require(user, Action.SIGN_CERTIFICATE)
    one = get_object_or_404(CrewMember, pk=member_id)
    confirm_person(request, user, payload.password)
    return Status(201, CreatedOut(id=sign_certificate(user, one, entry_of(payload)).pk))


def entry_of(payload: CertificateIn) -> CertificateEntry:
    """A certificate as it was sent."""
    given = payload.dict(exclude={"password", "employed_under"})
    under = payload.employed_under
    return CertificateEntry(**given, employed_under=EmployedUnder(**under.dict()) if under else None)


@router.get("/certificates/{int:certificate_id}/work", response={200: WorkListOut, **REFUSALS})
def work(request: HttpRequest, certificate_id: int, on: Day | None = None) -> WorkListOut:
    """Welds of the logs that a signature today, or on a day on paper, may rest on."""
    require(person(request), Action.VIEW)
    row = _certificate(certificate_id)
    document, until = row.document(), on or timezone.localdate()
    found = work_for(row.member.name, document, until)
    rank = {True: 0, None: 1, False: 2}
    listed = sorted(
        found,
        key=lambda one: (rank[one.found.within], one.rejected, not one.work.tested, -one.work.on.toordinal()),
    )
    return WorkListOut(
        since=evidence_from(document, until),
        until=until,
        works=[
            WorkOut(
                ref=one.work.ref,
                on=one.work.on,
                what=one.work.what,
                within=one.found.within,
                against=list(one.found.against),
                method=", ".join(dict.fromkeys(test.method for test in one.work.tested)),
                accepted=all(test.accepted for test in one.work.tested) if one.work.tested else None,
                report=", ".join(dict.fromkeys(test.report for test in one.work.tested if test.report)),
            )
            for one in listed[:MOST_WORKS]
        ],
        more=max(len(listed) - MOST_WORKS, 0),
    )


@router.post("/certificates/{int:certificate_id}/statements", response={201: CreatedOut, **REFUSALS})
def state(request: HttpRequest, certificate_id: int, payload: StatementIn) -> Status[CreatedOut]:
    """Sign a confirmation, a prolongation, a renewal or a revocation."""
    user = person(request)
    require(user, Action.SIGN_CERTIFICATE)
    row = _certificate(certificate_id)
    confirm_person(request, user, payload.password)
    made = sign_statement(user, row, StatementEntry(**payload.dict(exclude={"password"})))
    return Status(201, CreatedOut(id=made.pk))


# --- who may weld it ------------------------------------------------------------------------------


@router.get("/revisions/{int:revision_id}/who-may", response={200: WhoMayOut, **REFUSALS})
def who_may(request: HttpRequest, revision_id: int, on: Day | None = None) -> WhoMayOut:
    """Who may weld everything that a procedure states, on a day."""
    require(person(request), Action.VIEW)
    revision = get_object_or_404(Revision.objects.select_related("procedure"), pk=revision_id)
    return who_may_out(str(revision), revision.contents(), on or timezone.localdate())


def who_may_out(what: str, procedure: Procedure, on: date) -> WhoMayOut:
    """Who may weld what a procedure asks, as an answer."""
    found = crew_may(procedure, on)
    if found.code is None or found.asked is None:
        said = tr("No code for the qualification of welders is known here for this procedure.")
        return WhoMayOut(on=on, what=what, code="", asked=[], open=[said], people=[])
    return WhoMayOut(
        on=on,
        what=what,
        code=welder_edition(found.code).short,
        asked=list(dict.fromkeys(designation_of(one) for one in found.asked.welds)),
        open=list(found.asked.open),
        people=[
            MemberMayOut(
                id=one.member.pk,
                name=one.member.name,
                mark=one.member.mark,
                standing=one.answer.standing,
                by=[each.row.number for each in one.by],
                until=one.until,
                reasons=list(reasons_of(one.answer)),
            )
            for one in found.people
        ],
    )


# --- writing it out -------------------------------------------------------------------------------


def _certificate(certificate_id: int) -> Certificate:
    return get_object_or_404(Certificate.objects.select_related("member"), pk=certificate_id)


def _items(tested: WelderWeld) -> list[RangeItem]:
    """The range of a test piece, its values in words."""
    return [
        replace(one, words={**one.words, **{value: value_words(value) for value in one.values}})
        for one in welder_range(tested).items
    ]


def _variables() -> list[WelderVariableOut]:
    return [
        WelderVariableOut(name=name, title=one.title, quantity=one.quantity)
        for name, one in VARIABLES.items()
    ]


def _member(found: MemberStanding) -> MemberOut:
    one = found.member
    return MemberOut(
        id=one.pk,
        version=one.version,
        name=one.name,
        mark=one.mark,
        employer=one.employer,
        left_on=one.left_on,
        first_due=found.first_due,
        certificates=[CertificateLineOut(**_line(each)) for each in found.certificates],
    )


def _line(found: CertificateStanding) -> dict[str, Any]:
    row, document, how = found.row, found.document, found.validity
    common = {"id": row.pk, "number": row.number, "code": row.code_id}
    short = welder_edition(row.code_id).short
    if document is None or how is None:
        said = tr("What is kept is not what was signed: it does not count.")
        return {
            **common, "designation": "", "short": short, "standing": "damaged", "last_valid_day": None,
            "due": None, "reasons": [said], "from_paper": False,
        }  # fmt: skip
    return {
        **common,
        "designation": document.designation,
        "short": short,
        "standing": how.standing,
        "last_valid_day": how.last_valid_day,
        "due": DueOut(kind=cast(Any, how.due[0]), on=how.due[1]) if how.due else None,
        "reasons": list(how.reasons),
        "from_paper": document.from_paper,
    }


def _whole(
    found: CertificateStanding, scans: dict[str, Scan], others: Sequence[CertificateStanding]
) -> CertificateOut:
    row, document, how = found.row, found.document, found.validity
    if document is None or how is None:
        raise DamagedError(str(row))
    ways = ways_of(row.code_id)
    return CertificateOut(
        **_line(found),
        mark=document.mark,
        welded_on=date.fromisoformat(document.welded_on),
        way=document.way,
        wps=document.wps,
        examiner=document.examiner,
        body=document.body,
        place=document.place,
        tests=list(document.tests),
        training=document.training,
        coupon=document.coupon,
        not_stated=list(document.not_stated),
        signed_name=row.signed_name,
        signed_role=row.signed_role,
        signed_at=row.at,
        sha256=row.content_hash,
        may_confirm=bool(ways) and how.valid,
        may_prolong=document.way == "b" and how.valid,
        renewing=[
            RenewingOut(id=one.pk, number=one.number, designation=one.document().designation)
            for one in renewing(others, found)
        ],
        items=_items(document.tested),
        statements=[_statement(one, scans) for one in found.statements],
        scans=scans_of(document.scans, scans),
    )


def _statement(row: Any, scans: Mapping[str, Scan]) -> StatementOut:
    one = row.document()
    return StatementOut(
        id=row.pk,
        kind=one.kind,
        on=date.fromisoformat(one.on),
        signer=one.signer,
        signed_by=one.signed_by,
        entered_by=row.signed_name,
        entered_at=row.at,
        from_paper=one.from_paper,
        reason=one.reason,
        works=[
            WorkDoneOut(
                on=date.fromisoformat(each.on),
                what=each.what,
                within=each.within,
                method=each.method,
                accepted=each.accepted,
                report=each.report,
            )
            for each in one.works
        ],
        renewed_by=one.renewed_by.certificate if one.renewed_by else "",
        scans=scans_of(one.scans, scans),
    )
