"""What cured faults here, and symptoms that nobody knew. Struck and settled rows stay."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models
from django.db.models import Q

from apps.accounts.models import User
from apps.coupons.models import PassLog
from apps.procedures.models import Revision


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Cure(models.Model):
    """One cause that was found and cured: next time it ranks higher in this shop."""

    symptom = models.CharField(max_length=40)
    cause = models.CharField(max_length=40)
    remedy = models.CharField(max_length=400)
    note = models.CharField(max_length=400, blank=True, default="")
    row = models.ForeignKey(PassLog, on_delete=models.PROTECT, related_name="cures", null=True)
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="cures", null=True)
    entered_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    entered_at = models.DateTimeField(auto_now_add=True)
    struck_because = models.CharField(max_length=400, blank=True, default="")

    class Meta:
        """The latest first."""

        ordering: ClassVar = ["-entered_at", "-id"]
        constraints: ClassVar = [
            models.CheckConstraint(condition=~Q(symptom="") & ~Q(cause="") & ~Q(remedy=""), name="cure_whole")
        ]
        indexes: ClassVar = [models.Index(fields=["symptom"], name="cure_symptom")]

    def __str__(self) -> str:
        return f"{self.symptom}: {self.remedy}"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class UnknownSymptom(models.Model):
    """Words for a fault that found no symptom; ``settled_as`` is what the engineer said about them."""

    words = models.CharField(max_length=200)
    row = models.ForeignKey(PassLog, on_delete=models.PROTECT, related_name="+", null=True)
    entered_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    entered_at = models.DateTimeField(auto_now_add=True)
    settled_as = models.CharField(max_length=400, blank=True, default="")
    settled_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+", null=True)

    class Meta:
        """The latest first."""

        ordering: ClassVar = ["-entered_at", "-id"]
        constraints: ClassVar = [models.CheckConstraint(condition=~Q(words=""), name="unknown_symptom_said")]

    def __str__(self) -> str:
        return self.words
