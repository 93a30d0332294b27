"""Specimens row by row, signed records with their bytes, signatures, and what supports a revision."""

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
from apps.coupons.models import Coupon
from apps.procedures.models import Revision
from welding.documents.codec import RECORD
from welding.documents.record import QualificationRecord as Document
from welding.language import tr_noop


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Specimen(models.Model):
    """One specimen or test of a coupon: its document, and the columns that are searched and constrained."""

    coupon = models.ForeignKey(Coupon, on_delete=models.PROTECT, related_name="specimens")
    mark = models.CharField(max_length=40)
    kind = models.CharField(max_length=30)
    retest_of = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="retests")
    discarded = models.BooleanField(default=False)
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    entered_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    entered_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        """A mark stands once on a coupon; a retest is no retest of itself."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["coupon", "mark"], name="specimen_mark_once"),
            models.CheckConstraint(condition=~Q(mark=""), name="specimen_mark_given"),
            models.CheckConstraint(
                condition=Q(retest_of__isnull=True) | ~Q(retest_of=models.F("id")),
                name="specimen_no_retest_of_itself",
            ),
            models.CheckConstraint(condition=Q(version__gte=1), name="specimen_version"),
        ]

    def __str__(self) -> str:
        return f"{self.coupon.number} {self.mark}"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent())
class QualificationRecord(models.Model):
    """A signed record: its bytes as signed, their hash, and what it was found to qualify then."""

    coupon = models.OneToOneField(Coupon, on_delete=models.PROTECT, related_name="record")
    number = models.CharField(max_length=60)
    code_id = models.CharField(max_length=200)
    code_level = models.PositiveSmallIntegerField(null=True)
    body = models.TextField()
    content_hash = models.CharField(max_length=64)
    findings = models.JSONField()
    book_digest = models.CharField(max_length=64)
    signed_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    signed_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Signed once; its contents never change."""

        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["number"], name="record_number_once"),
            models.CheckConstraint(condition=~Q(number=""), name="record_number_given"),
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(name="signed_record_stays", operation=pgtrigger.Update | pgtrigger.Delete)
        ]

    def __str__(self) -> str:
        return self.number

    def document(self) -> Document:
        """The record from its signed bytes.

        Raises:
            DamagedError: The bytes are not those that were signed.
        """
        self.intact()
        return _read_signed(self.body, self.content_hash)

    def intact(self) -> None:
        """Nothing where the bytes are those that were signed.

        Raises:
            DamagedError: They are not.
        """
        digest = hashlib.sha256(self.body.encode()).hexdigest()
        if {self.content_hash, *(one.content_hash for one in self.signatures.all())} != {digest}:
            raise DamagedError(f"Record {self.number}")

    @property
    def void(self) -> bool:
        """Whether somebody signed that it no longer counts."""
        return self._signed_for(Purpose.VOID)

    @property
    def superseded(self) -> bool:
        """Whether an amendment was signed in its place."""
        return self._signed_for(Purpose.SUPERSEDED)

    @property
    def counts(self) -> bool:
        """Whether procedures may rest on it: not void, not superseded, signed by as many as the job asks."""
        if self.void or self.superseded:
            return False
        return not self.coupon.job.two_signatures or self._signed_for(Purpose.WITNESS)

    @property
    def state(self) -> str:
        """``signed``, ``awaits-second``, ``superseded`` or ``void``."""
        if self.void:
            return "void"
        if self.superseded:
            return "superseded"
        return "signed" if self.counts else "awaits-second"

    @property
    def signer(self) -> str:
        """Who signed it, by the name of that day."""
        return next((one.name for one in self.signatures.all() if one.purpose == Purpose.RECORD), "")

    def _signed_for(self, purpose: str) -> bool:
        return any(one.purpose == purpose for one in self.signatures.all())


NOT_COUNTING = {
    "void": "is void",
    "superseded": "is superseded by its amendment",
    "awaits-second": "needs a second signature first: the job asks for two",
}
"""Why a record does not count, by its state, after its number."""


@lru_cache(maxsize=256)
def _read_signed(body: str, digest: str) -> Document:
    """Documents are immutable, and reading one takes longer than all else that is asked of it."""
    return RECORD.read(body)


@pghistory.track(pghistory.InsertEvent())
class Amendment(models.Model):
    """A signed record that is to be corrected: the copy of its coupon that is worked on, and why."""

    of = models.OneToOneField(QualificationRecord, on_delete=models.PROTECT, related_name="amendment")
    coupon = models.OneToOneField(Coupon, on_delete=models.PROTECT, related_name="amendment")
    reason = models.TextField()
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    name = models.CharField(max_length=310)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """One of a record, with a reason, never rewritten."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [
            models.CheckConstraint(condition=~Q(reason=""), name="amendment_with_reason"),
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(name="amendment_stays", operation=pgtrigger.Update | pgtrigger.Delete)
        ]

    def __str__(self) -> str:
        return f"amendment of {self.of}"


class Purpose(models.TextChoices):
    """What a signature is for."""

    RECORD = "record", tr_noop("the record is right and the tests are accepted")
    WITNESS = "witness", tr_noop("welding and tests were witnessed")
    VOID = "void", tr_noop("the record no longer counts")
    SUPERSEDED = "superseded", tr_noop("an amended record stands in its place")
    PREQUALIFIED = "prequalified", tr_noop("every prequalified rule holds")
    QUALIFIED = "qualified", tr_noop("the records cover the procedure")
    RELEASE = "release", tr_noop("released for production")
    WITHDRAW = "withdraw", tr_noop("withdrawn from production")


@pghistory.track(pghistory.InsertEvent())
class Signature(models.Model):
    """Who signed what, over which hash, after entering the password again."""

    record = models.ForeignKey(
        QualificationRecord, on_delete=models.PROTECT, null=True, related_name="signatures"
    )
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, null=True, related_name="signatures")
    purpose = models.CharField(max_length=12, choices=Purpose.choices)
    content_hash = models.CharField(max_length=64)
    reason = models.TextField(blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    # Name and role as they were at the signing, whatever becomes of the person's account.
    name = models.CharField(max_length=310, default="")
    role = models.CharField(max_length=20)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Of a record or of a revision, and never rewritten."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=Q(record__isnull=True, revision__isnull=False)
                | Q(record__isnull=False, revision__isnull=True),
                name="signature_of_one",
            ),
            models.CheckConstraint(condition=Q(purpose__in=Purpose.values), name="signature_purpose_known"),
            models.CheckConstraint(condition=~Q(name=""), name="signature_named"),
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(name="signature_stays", operation=pgtrigger.Update | pgtrigger.Delete)
        ]

    def __str__(self) -> str:
        return f"{self.purpose} by {self.name}"


@pghistory.track(pghistory.InsertEvent(), pghistory.DeleteEvent())
class Support(models.Model):
    """A signed record that supports a revision, and what was found when it was declared."""

    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="supports")
    record = models.ForeignKey(QualificationRecord, on_delete=models.PROTECT, related_name="supports")

    class Meta:
        """A record supports a revision once."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [models.UniqueConstraint(fields=["revision", "record"], name="support_once")]

    def __str__(self) -> str:
        return f"{self.record} supports {self.revision}"
