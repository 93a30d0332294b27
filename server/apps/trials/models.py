"""The trial log: a row a trial; struck ones stay with their reason."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models

from apps.accounts.models import User


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class TrialEntry(models.Model):
    """One trial: its document, and the columns it is found by."""

    process = models.CharField(max_length=4)
    position = models.CharField(max_length=8)
    thickness_mm = models.FloatField()
    verdict = models.CharField(max_length=8)
    document = models.JSONField()
    entered_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    entered_at = models.DateTimeField(auto_now_add=True)
    struck_because = models.CharField(max_length=400, blank=True, default="")

    class Meta:
        """The latest first."""

        ordering: ClassVar = ["-entered_at", "-id"]
        verbose_name_plural = "trial entries"
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=models.Q(verdict__in=["kept", "rejected"]), name="trial_verdict"
            ),
            models.CheckConstraint(condition=models.Q(thickness_mm__gt=0), name="trial_thickness"),
        ]

    def __str__(self) -> str:
        return f"{self.process}, {self.position}, {self.thickness_mm:g} mm, {self.verdict}"
