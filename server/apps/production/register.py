"""The register of a job: who signed what, and when."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from api.damage import attempt
from api.sheets import written
from django.db.models import Count, Max, Q
from django.db.models.functions import TruncDate

from apps.crew.models import Certificate, Statement
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.production.dossier import used_revisions
from apps.production.dossier_welders import certificates_of
from apps.production.models import Weld
from apps.qualification.models import Purpose, QualificationRecord, Signature, Support
from welding.glossary.values import in_words
from welding.language import tr, tr_noop

_STATEMENTS = {
    "confirmation": tr_noop("work within the range of qualification is confirmed"),
    "prolongation": tr_noop("the qualification is prolonged"),
    "renewal": tr_noop("the qualification is renewed by a test"),
    "revocation": tr_noop("the qualification is revoked"),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class RegisterLine:
    """A signature.

    Attributes:
        at: When.
        name: Who, by the name at that time.
        role: In which role, in words.
        of: What it was put under: a WPS, a record, a certificate, welds.
        purpose: What it says, in words.
        reason: Why, where it was said.
        sha256: Digest of what was signed; empty where no document was.
    """

    at: datetime
    name: str
    role: str
    of: str
    purpose: str
    reason: str
    sha256: str


def register_of(job: Job) -> list[RegisterLine]:
    """Signatures on the procedures and records of a job, on certificates of its welders, releases of welds.

    Releases are counted by person and day. The latest first.
    """
    revisions = used_revisions(job)
    # Asked by ids: over the tables of both the database would read every signature of the shop.
    own = QualificationRecord.objects.filter(coupon__job=job).values_list("pk", flat=True)
    wanted = Q(revision__in=list(Revision.objects.filter(procedure__job=job).values_list("pk", flat=True)))
    used = Support.objects.filter(revision__in=revisions).values_list("record_id", flat=True)
    wanted |= Q(record__in={*own, *used})
    signed = (
        Signature.objects.filter(wanted)
        .select_related("revision__procedure", "record")
        .defer("revision__document", "revision__body", "record__body", "record__findings")
    )
    lines = [_signature(one) for one in signed]
    for certificate in certificates_of(job, revisions):
        lines.append(_certificate(certificate))
        lines += [_statement(one, certificate) for one in certificate.statements.all()]
    lines += _releases(job)
    return sorted(lines, key=lambda one: one.at, reverse=True)


def _signature(one: Signature) -> RegisterLine:
    return RegisterLine(
        at=one.at,
        name=one.name,
        role=in_words(one.role, "person"),
        of=str(one.revision or one.record),
        purpose=tr(Purpose(one.purpose).label),
        reason=one.reason,
        sha256=one.content_hash,
    )


def _certificate(one: Certificate) -> RegisterLine:
    document, damage = attempt(one, one.document)
    said = ""
    if document is not None:
        said = tr("entered from paper") if document.from_paper else tr("the tests are accepted")
    return _of_certificate(one, one, damage or said)


def _statement(one: Statement, certificate: Certificate) -> RegisterLine:
    document, damage = attempt(one, one.document)
    reason = document.reason if document is not None else ""
    return _of_certificate(one, certificate, damage or tr(_STATEMENTS[one.kind]), reason)


def _of_certificate(
    signed: Certificate | Statement, certificate: Certificate, purpose: str, reason: str = ""
) -> RegisterLine:
    return RegisterLine(
        at=signed.at,
        name=signed.signed_name,
        role=in_words(signed.signed_role, "person"),
        of=tr("{certificate} of {name}", certificate=certificate.number, name=certificate.member.name),
        purpose=purpose,
        reason=reason,
        sha256=signed.content_hash,
    )


def _releases(job: Job) -> list[RegisterLine]:
    rows = (
        Weld.objects.filter(job=job, released_at__isnull=False)
        .annotate(day=TruncDate("released_at"))
        .values("day", "released_name", "released_by__role")
        .annotate(count=Count("pk"), last=Max("released_at"))
    )
    return [
        RegisterLine(
            at=one["last"],
            name=one["released_name"],
            role=in_words(one["released_by__role"] or "", "person"),
            of=tr("{count} welds", count=one["count"]),
            purpose=tr("released"),
            reason="",
            sha256="",
        )
        for one in rows
    ]


def register_file(lines: list[RegisterLine], kind: str) -> bytes:
    """The register as CSV or XLSX."""
    head = [tr("When"), tr("Name"), tr("Role"), tr("Signed"), tr("What it says"), tr("Reason"), "SHA-256"]
    rows = [
        [
            one.at.isoformat(timespec="seconds"),
            one.name,
            one.role,
            one.of,
            one.purpose,
            one.reason,
            one.sha256,
        ]
        for one in lines
    ]
    return written([head, *rows], kind, tr("Register of signatures"))
