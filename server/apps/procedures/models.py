"""Procedures and their revisions. A revision is a document plus the columns that are searched."""

from __future__ import annotations

import hashlib
from functools import lru_cache
from typing import ClassVar

import pghistory
import pgtrigger
from api.errors import DamagedError
from django.contrib.postgres.fields import ArrayField
from django.contrib.postgres.indexes import GinIndex
from django.db import models
from django.db.models import Q

from apps.accounts.models import User
from apps.jobs.models import Job
from welding.documents.codec import PROCEDURE
from welding.documents.procedure import Procedure as Document


class Stage(models.TextChoices):
    """How far a revision has come."""

    DRAFT = "draft", "draft"
    TRIAL = "trial", "trial"
    TESTED = "tested", "tested"
    PREQUALIFIED = "prequalified", "prequalified"
    QUALIFIED = "qualified", "qualified"
    RELEASED = "released", "released"
    SUPERSEDED = "superseded", "superseded"
    WITHDRAWN = "withdrawn", "withdrawn"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Procedure(models.Model):
    """A procedure of a job; its contents are in its revisions."""

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="procedures")
    number = models.CharField(max_length=60)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """A number stands once in a job."""

        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["job", "number"], name="procedure_number_once"),
            models.CheckConstraint(condition=~Q(number=""), name="procedure_number_given"),
        ]

    def __str__(self) -> str:
        return self.number


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent(), exclude=["body"])
class Revision(models.Model):
    """One revision. While a draft it changes, each save raising ``version``; then it is frozen.

    ``body`` holds the canonical bytes that ``content_hash`` is over, and is what is read; ``document`` is
    the same in a form that can be searched.
    """

    procedure = models.ForeignKey(Procedure, on_delete=models.PROTECT, related_name="revisions")
    letter = models.CharField(max_length=3)
    stage = models.CharField(max_length=12, choices=Stage.choices, default=Stage.DRAFT)
    version = models.PositiveIntegerField(default=1)
    document = models.JSONField()
    body = models.TextField(default="")
    content_hash = models.CharField(max_length=64)
    title = models.CharField(max_length=200, blank=True)
    code_id = models.CharField(max_length=200, blank=True)
    code_level = models.PositiveSmallIntegerField(null=True)
    processes = ArrayField(models.CharField(max_length=4), default=list)
    positions = ArrayField(models.CharField(max_length=8), default=list)
    thickness_min_mm = models.FloatField(null=True)
    thickness_max_mm = models.FloatField(null=True)
    pass_count = models.PositiveSmallIntegerField(default=0)
    created_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    saved_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    saved_at = models.DateTimeField(auto_now=True)
    frozen_at = models.DateTimeField(null=True)

    class Meta:
        """One draft a procedure; a frozen document is never rewritten, by whatever code."""

        ordering: ClassVar = ["procedure", "id"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["procedure", "letter"], name="revision_letter_once"),
            models.UniqueConstraint(
                fields=["procedure"], condition=Q(stage="draft"), name="revision_one_draft"
            ),
            models.UniqueConstraint(
                fields=["procedure"], condition=Q(stage="released"), name="revision_one_released"
            ),
            models.CheckConstraint(condition=Q(letter__regex=r"^[A-Z]{1,3}$"), name="revision_letter"),
            models.CheckConstraint(condition=Q(stage__in=Stage.values), name="revision_stage_known"),
            models.CheckConstraint(
                condition=Q(stage="draft", frozen_at__isnull=True)
                | (~Q(stage="draft") & Q(frozen_at__isnull=False)),
                name="revision_frozen_past_draft",
            ),
            models.CheckConstraint(condition=Q(version__gte=1), name="revision_version"),
        ]
        # Where a metal, a filler, a machine is used is asked of the documents.
        indexes: ClassVar = [
            GinIndex(fields=["document"], name="revision_document", opclasses=["jsonb_path_ops"])
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(
                name="frozen_document",
                operation=pgtrigger.Update,
                condition=pgtrigger.Q(old__frozen_at__isnull=False)
                & (
                    pgtrigger.Q(old__document__df=pgtrigger.F("new__document"))
                    | pgtrigger.Q(old__body__df=pgtrigger.F("new__body"))
                    | pgtrigger.Q(old__content_hash__df=pgtrigger.F("new__content_hash"))
                    | pgtrigger.Q(new__frozen_at__isnull=True)
                ),
            ),
            pgtrigger.Protect(
                name="frozen_stays",
                operation=pgtrigger.Delete,
                condition=pgtrigger.Q(old__frozen_at__isnull=False),
            ),
        ]

    def __str__(self) -> str:
        return f"{self.procedure.number} {self.letter}"

    def contents(self) -> Document:
        """The procedure from its bytes.

        Raises:
            DamagedError: The bytes do not match the hash, or a signature is over another one.
            DocumentError: A revision of before the bytes were kept does not hold together.
        """
        if not self.body:
            return PROCEDURE.take(self.document)
        self.intact()
        return _read_body(self.body, self.content_hash)

    def intact(self) -> None:
        """Nothing where the bytes match the hash.

        Raises:
            DamagedError: They do not.
        """
        if hashlib.sha256(self.body.encode()).hexdigest() != self.content_hash:
            raise DamagedError(f"Revision {self}")


@lru_cache(maxsize=256)
def _read_body(body: str, digest: str) -> Document:
    """Documents are immutable, and reading one takes longer than all else that a list asks of it."""
    return PROCEDURE.read(body)
