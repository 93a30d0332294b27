"""The weld list of a job. Rows hold cells as they were written; what they mean is read by the core."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models

from apps.accounts.models import User
from apps.background.models import Work
from apps.jobs.models import Job
from apps.procedures.models import Revision


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


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Assignment(models.Model):
    """The WPS that joints with equal facts are welded to.

    It goes by the facts of the joint type and not by its place in the list: ``facts_hash`` is over the joint
    document ``facts``. Whether it still holds is asked anew whenever it is shown.
    """

    weld_list = models.ForeignKey(WeldList, on_delete=models.PROTECT, related_name="assignments")
    facts_hash = models.CharField(max_length=64)
    facts = models.JSONField()
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="assignments")
    assigned_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    assigned_at = models.DateTimeField(auto_now=True)

    class Meta:
        """Joints with equal facts are welded to one WPS."""

        ordering: ClassVar = ["id"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["weld_list", "facts_hash"], name="assignment_once")
        ]

    def __str__(self) -> str:
        return f"{self.revision} for {self.facts_hash[:8]}"


class CouponSearch(Work):
    """A search for the cheapest coupons, and what it found: ``plan``."""

    weld_list = models.ForeignKey(WeldList, on_delete=models.CASCADE, related_name="searches")
    list_version = models.PositiveIntegerField()
    plan = models.JSONField(null=True)

    class Meta(Work.Meta):
        """Found by what was asked, and by what waits."""

        indexes: ClassVar = [
            models.Index(fields=["weld_list", "asked_hash"], name="coupon_search_asked"),
            models.Index(fields=["state"], name="coupon_search_state"),
        ]

    def __str__(self) -> str:
        return f"coupons for {self.weld_list}, {self.state}"
