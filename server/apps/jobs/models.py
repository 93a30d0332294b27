"""Jobs: what procedures and coupons belong to."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Job(models.Model):
    """A job, such as one bridge."""

    number = models.CharField(max_length=40, unique=True)
    title = models.CharField(max_length=200)
    customer = models.CharField(max_length=200, blank=True)
    # The responsible welding coordinator (ISO 14731), inside the house or outside.
    coordinator = models.CharField(max_length=120, blank=True)
    # Records count, and procedures are released, only with the signatures of two people.
    two_signatures = models.BooleanField(default=False)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """A job has a number."""

        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.CheckConstraint(condition=~models.Q(number=""), name="job_number_given"),
        ]

    def __str__(self) -> str:
        return f"{self.number} {self.title}"
