"""Sign certificates, and what keeps or ends them. Whoever calls has asked for the password again."""

from __future__ import annotations

import hashlib
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import date

from api.errors import ConflictError, InvalidError, NotAllowedError
from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.accounts.models import Role, User
from apps.accounts.permissions import Action, require
from apps.crew.evidence import Work
from apps.crew.models import Certificate, CrewMember, Scan, Statement
from apps.crew.prepared import MOST_WORKS, work_for
from apps.crew.queries import uses_of
from welding.documents.codec import CERTIFICATE_STATEMENT, WELDER_CERTIFICATE
from welding.documents.welder_certificate import (
    CertificateScan,
    CertificateStatement,
    EmployedUnder,
    RenewingTest,
    RevalidationWay,
    SignerIs,
    StatementKind,
    WelderCertificate,
    WorkDone,
)
from welding.errors import DocumentError, Problem, UnreadableError
from welding.language import SOURCE, speaking, tr
from welding.welders.catalogue import read_designation
from welding.welders.certificate import counts_use, problems_of, statement_problems

SIGNER_OF: dict[str, SignerIs] = {
    Role.EXAMINER: "examiner",
    Role.ENGINEER: "responsible",
    Role.ADMINISTRATOR: "responsible",
}
"""What a person of a role is to a certificate."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CertificateEntry:
    """What is entered of a certificate; ``scans`` are ids."""

    number: str
    designation: str
    welded_on: date
    way: RevalidationWay | None = None
    employed_under: EmployedUnder | None = None
    wps: str = ""
    examiner: str = ""
    body: str = ""
    place: str = ""
    tests: Sequence[str] = ()
    training: str = ""
    from_paper: bool = False
    not_stated: Sequence[str] = ()
    scans: Sequence[int] = ()


@transaction.atomic
def sign_certificate(
    user: User, member: CrewMember, entry: CertificateEntry, coupon: str = ""
) -> Certificate:
    """Sign a certificate: that of a test, or one that is entered from paper.

    Args:
        user: Who signs.
        member: Whom it qualifies.
        entry: The certificate.
        coupon: Number of the coupon that was the test piece.

    Raises:
        NotAllowedError: The role does not allow it, or a test is not certified by its examiner.
        InvalidError: A field does not hold, or the designation cannot be read.
        ConflictError: The number is taken.
    """
    require(user, Action.SIGN_CERTIFICATE)
    if entry.from_paper:
        require(user, Action.KEEP_CREW)
    document = certificate_document(member, entry, coupon)
    if not entry.from_paper and not counts_use(document.tested.code) and user.role != Role.EXAMINER:
        raise NotAllowedError(tr("The examiner of the test signs this certificate."))
    problems = problems_of(document, timezone.localdate())
    if problems:
        raise _invalid(problems)
    body = WELDER_CERTIFICATE.write(document)
    try:
        with transaction.atomic():
            return Certificate.objects.create(
                member=member,
                number=document.number,
                code_id=document.tested.code,
                body=body.decode(),
                content_hash=hashlib.sha256(body).hexdigest(),
                **_signed_by(user),
            )
    except IntegrityError:
        raise ConflictError(
            tr("There is a certificate {number} already.", number=document.number),
            errors=[{"path": "number", "message": tr("taken already"), "value": document.number}],
        ) from None


def certificate_document(member: CrewMember, entry: CertificateEntry, coupon: str = "") -> WelderCertificate:
    """What is entered, as the document that is signed.

    Raises:
        InvalidError: The designation cannot be read, or a field does not hold.
    """
    try:
        tested = read_designation(entry.designation)
    except UnreadableError as error:
        raise _invalid((Problem("designation", error.reason, entry.designation),)) from error
    document = WelderCertificate(
        number=entry.number.strip(),
        person=member.name,
        mark=member.mark,
        designation=" ".join(entry.designation.split()),
        tested=tested,
        welded_on=entry.welded_on.isoformat(),
        way=entry.way,
        employed_under=entry.employed_under,
        wps=entry.wps.strip(),
        examiner=entry.examiner.strip(),
        body=entry.body.strip(),
        place=entry.place.strip(),
        tests=tuple(one.strip() for one in entry.tests if one.strip()),
        training=entry.training.strip(),
        coupon=coupon,
        from_paper=entry.from_paper,
        not_stated=tuple(one.strip() for one in entry.not_stated if one.strip()),
        scans=_scans(member, entry.scans),
    )
    try:
        return WELDER_CERTIFICATE.take(WELDER_CERTIFICATE.plain(document))
    except DocumentError as error:
        raise _invalid(error.problems) from error


@dataclass(frozen=True, slots=True, kw_only=True)
class StatementEntry:
    """What is signed about a certificate.

    Attributes:
        kind: Confirmation, prolongation, renewal or revocation.
        renewed_by: Of a renewal, id of the certificate of the test that renews it.
        works: Welds that it rests on, by their ``ref``.
        meets: Those of them that meet the levels of the code for persons, as the signer states.
        reason: Why it is revoked; else remarks.
        on: Of one on paper, the day that stands there.
        signer: Of one on paper, what the one who signed is.
        signed_by: Of one on paper, the name that stands there.
        scans: Of one on paper, ids of its scans.
    """

    kind: StatementKind
    renewed_by: int | None = None
    works: Collection[str] = ()
    meets: Collection[str] = ()
    reason: str = ""
    on: date | None = None
    signer: SignerIs | None = None
    signed_by: str = ""
    scans: Sequence[int] = ()

    @property
    def from_paper(self) -> bool:
        """Whether it was signed on paper."""
        return self.on is not None


@transaction.atomic
def sign_statement(user: User, certificate: Certificate, entry: StatementEntry) -> Statement:
    """Sign a confirmation, a prolongation, a renewal or a revocation; what would not count is refused.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: It would not count: the certificate had run out, no weld speaks for it, the signer is
            not the one whom the code names, or paper is said and no scan is given.
    """
    require(user, Action.SIGN_CERTIFICATE)
    if entry.from_paper:
        require(user, Action.KEEP_CREW)
    # Two signatures on one certificate come one after the other: each sees what the other did.
    CrewMember.objects.select_for_update().get(pk=certificate.member_id)
    locked = Certificate.objects.select_related("member").get(pk=certificate.pk)
    document = locked.document()
    before = [one.document() for one in locked.statements.select_related("certificate")]
    statement = _statement(user, locked, document, entry)
    uses = uses_of(locked, document) if entry.kind == "renewal" else ()
    problems = statement_problems(document, before, statement, uses)
    if problems:
        raise _invalid(problems)
    body = CERTIFICATE_STATEMENT.write(statement)
    return Statement.objects.create(
        certificate=locked,
        kind=statement.kind,
        body=body.decode(),
        content_hash=hashlib.sha256(body).hexdigest(),
        **_signed_by(user),
    )


def _statement(
    user: User, row: Certificate, document: WelderCertificate, entry: StatementEntry
) -> CertificateStatement:
    today = timezone.localdate()
    on, signer, name = today, SIGNER_OF.get(user.role, "other"), user.shown_name
    if entry.on is not None:
        on, signer, name = entry.on, entry.signer or "other", entry.signed_by.strip()
        if on > today:
            raise _invalid((Problem("on", tr("This day is yet to come."), on.isoformat()),))
        if not name:
            raise _invalid((Problem("signed_by", tr("Say whose signature stands on the paper."), ""),))
        if not entry.scans:
            raise _invalid((Problem("scans", tr("Add a scan of what was signed on paper."), ""),))
    statement = CertificateStatement(
        kind=entry.kind,
        certificate=row.number,
        certificate_sha256=row.content_hash,
        person=document.person,
        on=on.isoformat(),
        signer=signer,
        signed_by=name,
        from_paper=entry.from_paper,
        works=_works(row, document, on, entry) if entry.works else (),
        renewed_by=_renewing(row, entry, on),
        reason=entry.reason.strip(),
        scans=_scans(row.member, entry.scans),
    )
    try:
        return CERTIFICATE_STATEMENT.take(CERTIFICATE_STATEMENT.plain(statement))
    except DocumentError as error:
        raise _invalid(error.problems) from error


def _works(
    row: Certificate, document: WelderCertificate, on: date, entry: StatementEntry
) -> tuple[WorkDone, ...]:
    """The welds that were chosen, as the logs have them now; what the screen showed does not count."""
    with speaking(SOURCE):  # what is kept reads the same whoever signs
        found = {one.work.ref: one for one in work_for(row.member.name, document, on)}
    unknown = [one for one in entry.works if one not in found]
    if unknown:
        said = tr("A weld that was chosen is no longer in the logs, or is older: look at the list again.")
        raise _invalid((Problem("works", said, unknown[0]),))
    chosen = [found[one] for one in dict.fromkeys(entry.works)][:MOST_WORKS]
    return tuple(one.done(meets=one.work.ref in entry.meets and _passed(one.work)) for one in chosen)


def _renewing(row: Certificate, entry: StatementEntry, on: date) -> RenewingTest | None:
    if entry.kind != "renewal" or entry.renewed_by is None:
        return None
    tests = Certificate.objects.select_related("member").filter(member_id=row.member_id).exclude(pk=row.pk)
    test = tests.filter(pk=entry.renewed_by).first()
    said = ""
    if test is None:
        said = tr("There is no such certificate of this person.")
    elif test.statements.filter(kind="revocation").exists():
        said = tr("{number} was revoked.", number=test.number)
    elif test.document().welded_on > on.isoformat():
        said = tr("{number} was welded after this day.", number=test.number)
    if test is None or said:
        raise _invalid((Problem("renewed_by", said, str(entry.renewed_by)),))
    read = test.document()
    return RenewingTest(
        certificate=test.number,
        certificate_sha256=test.content_hash,
        designation=read.designation,
        tested=read.tested,
        welded_on=read.welded_on,
    )


def _passed(work: Work) -> bool:
    return bool(work.tested) and all(one.accepted for one in work.tested)


def _scans(member: CrewMember, ids: Sequence[int]) -> tuple[CertificateScan, ...]:
    # Whoever removes one of them meanwhile waits, or is waited for.
    rows = {one.pk: one for one in Scan.objects.select_for_update().filter(member=member, pk__in=ids)}
    missing = [one for one in ids if one not in rows]
    if missing:
        raise _invalid((Problem("scans", tr("There is no such scan of this person."), str(missing[0])),))
    return tuple(CertificateScan(name=rows[one].name, sha256=rows[one].sha256) for one in dict.fromkeys(ids))


def _signed_by(user: User) -> dict[str, object]:
    return {"by": user, "signed_name": user.shown_name, "signed_role": user.role}


def _invalid(problems: Sequence[Problem]) -> InvalidError:
    return InvalidError(
        " ".join(dict.fromkeys(one.message for one in problems)),
        errors=[{"path": one.path, "message": one.message, "value": one.value} for one in problems],
    )
