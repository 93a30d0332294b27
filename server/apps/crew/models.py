"""The crew, the signed bytes of its certificates, and what was signed about them later."""

from __future__ import annotations

import hashlib
from functools import lru_cache
from typing import ClassVar

import pghistory
import pgtrigger
from api.errors import DamagedError
from django.db import models
from django.db.models import Q

from apps.accounts.models import User
from welding.documents.codec import CERTIFICATE_STATEMENT, WELDER_CERTIFICATE
from welding.documents.welder_certificate import CertificateStatement as StatementDocument
from welding.documents.welder_certificate import WelderCertificate as CertificateDocument

LONGEST_NAME = 80
"""As in the logs, which name people in words."""


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class CrewMember(models.Model):
    """Somebody who welds: the name by which the logs know the person, and the mark on the welds."""

    name = models.CharField(max_length=LONGEST_NAME)
    mark = models.CharField(max_length=40, blank=True)
    employer = models.CharField(max_length=120, blank=True)
    left_on = models.DateField(null=True)
    version = models.PositiveIntegerField(default=1)
    added_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    added_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Two people of one name, or of one mark, could not be told apart in a log."""

        ordering: ClassVar = ["name"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["name"], name="crew_name_once"),
            models.UniqueConstraint(fields=["mark"], condition=~Q(mark=""), name="crew_mark_once"),
            models.CheckConstraint(condition=~Q(name=""), name="crew_named"),
            models.CheckConstraint(condition=Q(version__gte=1), name="crew_version"),
        ]

    def __str__(self) -> str:
        return self.name


class _Signed(models.Model):
    """Bytes that somebody signed after entering the password again; they never change."""

    body = models.TextField()
    content_hash = models.CharField(max_length=64)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    # Name and role as they were at the signing, whatever becomes of the person's account.
    signed_name = models.CharField(max_length=310)
    signed_role = models.CharField(max_length=20)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Of certificates and of what is said about them."""

        abstract = True

    def intact_body(self) -> str:
        """The bytes that were signed.

        Raises:
            DamagedError: They are not those that were signed.
        """
        if hashlib.sha256(self.body.encode()).hexdigest() != self.content_hash:
            raise DamagedError(str(self))
        return self.body


@pghistory.track(pghistory.InsertEvent())
class Certificate(_Signed):
    """A certificate as it was signed; ``code_id`` and ``number`` are those of its document."""

    member = models.ForeignKey(CrewMember, on_delete=models.PROTECT, related_name="certificates")
    number = models.CharField(max_length=120)
    code_id = models.CharField(max_length=200)

    class Meta:
        """A number stands once; what was signed stays."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["number"], name="certificate_number_once"),
            models.CheckConstraint(condition=~Q(number="") & ~Q(code_id=""), name="certificate_told"),
            models.CheckConstraint(condition=~Q(signed_name=""), name="certificate_signed"),
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(name="certificate_stays", operation=pgtrigger.Update | pgtrigger.Delete)
        ]

    def __str__(self) -> str:
        return f"Certificate {self.number}"

    def document(self) -> CertificateDocument:
        """The certificate from its signed bytes.

        Raises:
            DamagedError: The bytes are not those that were signed.
        """
        return _certificate(self.intact_body(), self.content_hash)


@pghistory.track(pghistory.InsertEvent())
class Statement(_Signed):
    """A confirmation, prolongation, renewal or revocation of a certificate, as it was signed."""

    certificate = models.ForeignKey(Certificate, on_delete=models.PROTECT, related_name="statements")
    kind = models.CharField(max_length=12)

    class Meta:
        """In the order of their signing; what was signed stays."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=Q(kind__in=["confirmation", "prolongation", "renewal", "revocation"]),
                name="statement_known",
            ),
            models.CheckConstraint(condition=~Q(signed_name=""), name="statement_signed"),
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(name="statement_stays", operation=pgtrigger.Update | pgtrigger.Delete)
        ]

    def __str__(self) -> str:
        return f"{self.kind} of {self.certificate}"

    def document(self) -> StatementDocument:
        """The statement from its signed bytes.

        Raises:
            DamagedError: The bytes are not those that were signed, or it is of another certificate.
        """
        read = _statement(self.intact_body(), self.content_hash)
        if read.certificate_sha256 != self.certificate.content_hash or read.kind != self.kind:
            raise DamagedError(str(self))
        return read


@pghistory.track(pghistory.InsertEvent(), pghistory.DeleteEvent())
class Scan(models.Model):
    """A scan of a certificate on paper; the signed certificate names its digest."""

    member = models.ForeignKey(CrewMember, on_delete=models.PROTECT, related_name="scans")
    name = models.CharField(max_length=200)
    content_type = models.CharField(max_length=40)
    file = models.FileField(upload_to="certificates/%Y/%m", max_length=300)
    sha256 = models.CharField(max_length=64)
    added_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    added_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """A scan of a person is kept once."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["member", "sha256"], name="scan_once"),
            models.CheckConstraint(condition=Q(sha256__regex="^[0-9a-f]{64}$"), name="scan_digest"),
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(name="scan_stays", operation=pgtrigger.Update),
            pgtrigger.Trigger(
                name="signed_scan_stays",
                when=pgtrigger.Before,
                operation=pgtrigger.Delete,
                func="""
                    IF EXISTS (
                        SELECT 1 FROM crew_certificate c
                        WHERE c.member_id = OLD.member_id AND position(OLD.sha256 IN c.body) > 0
                    ) OR EXISTS (
                        SELECT 1 FROM crew_statement s JOIN crew_certificate c ON c.id = s.certificate_id
                        WHERE c.member_id = OLD.member_id AND position(OLD.sha256 IN s.body) > 0
                    ) THEN
                        RAISE EXCEPTION 'pgtrigger: what is signed names this scan';
                    END IF;
                    RETURN OLD;
                """,
            ),
        ]

    def __str__(self) -> str:
        return self.name


# Documents are immutable, and reading one takes longer than all else that is asked of it.
@lru_cache(maxsize=4096)
def _certificate(body: str, _digest: str) -> CertificateDocument:
    return WELDER_CERTIFICATE.read(body)


@lru_cache(maxsize=8192)
def _statement(body: str, _digest: str) -> StatementDocument:
    return CERTIFICATE_STATEMENT.read(body)
