"""The weld list of a job. Rows hold cells as they were written; what they mean is read by the core."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models

from apps.accounts.models import User
from apps.jobs.models import Job


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class WeldList(models.Model):
    """One of each job: under which code it is judged, how files are read, what the shop can weld.

    ``version`` rises with every change of the list or of any of its rows.
    """

    job = models.OneToOneField(Job, on_delete=models.PROTECT, related_name="weld_list")
    code = models.JSONField()
    mapping = models.JSONField(null=True)
    answers = models.JSONField(default=dict)
    shop = models.JSONField(default=dict)
    prices = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=1)
    saved_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    saved_at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"weld list of {self.job}"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class ListRow(models.Model):
    """A row: a joint, or what is not yet one; its cells as they were written."""

    weld_list = models.ForeignKey(WeldList, on_delete=models.PROTECT, related_name="rows")
    place = models.PositiveIntegerField()
    mark = models.CharField(max_length=400, blank=True)
    cells = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    saved_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    saved_at = models.DateTimeField(auto_now=True)

    class Meta:
        """In the order of the list."""

        ordering: ClassVar = ["place", "id"]
        indexes: ClassVar = [models.Index(fields=["weld_list", "mark"], name="list_row_mark")]

    def __str__(self) -> str:
        return self.mark or f"row {self.place}"
