"""Entries of the code book: said once, never rewritten; the newest of a number counts."""

from __future__ import annotations

from typing import ClassVar

import pghistory
import pgtrigger
from django.db import models
from django.db.models import Q

from apps.accounts.models import User


class Said(models.TextChoices):
    """What an entry says of a number."""

    CONFIRM = "confirm", "confirm"
    CORRECT = "correct", "correct"
    REVERT = "revert", "revert"


@pghistory.track(pghistory.InsertEvent())
class Entry(models.Model):
    """One confirmation, correction or revert of one number."""

    number_id = models.CharField(max_length=200, db_index=True)
    said = models.CharField(max_length=8, choices=Said.choices)
    value = models.JSONField(null=True)
    reason = models.TextField()
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """A correction has a value, everything has a reason, and nothing is rewritten."""

        ordering: ClassVar = ["id"]
        verbose_name_plural = "entries"
        constraints: ClassVar = [
            models.CheckConstraint(condition=Q(said__in=Said.values), name="entry_said_known"),
            models.CheckConstraint(condition=~Q(reason=""), name="entry_with_reason"),
            models.CheckConstraint(
                condition=Q(said="correct", value__isnull=False)
                | (~Q(said="correct") & Q(value__isnull=True)),
                name="entry_value_of_correction",
            ),
        ]
        triggers: ClassVar = [
            pgtrigger.Protect(name="entry_stays", operation=pgtrigger.Update | pgtrigger.Delete)
        ]

    def __str__(self) -> str:
        return f"{self.said} {self.number_id}"
