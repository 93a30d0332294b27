"""Coupons and the log of their passes, row by row."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.contrib.postgres.indexes import GinIndex
from django.db import models
from django.db.models import Q
from django.utils import timezone

from apps.accounts.models import User
from apps.jobs.models import Job
from apps.procedures.models import Revision


class Status(models.TextChoices):
    """Where the coupon stands."""

    WELDING = "welding", "welding"
    WELDED = "welded", "welded"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Coupon(models.Model):
    """A test piece: what it was to be (a copy of the procedure) and how it was set up."""

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="coupons")
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="coupons")
    number = models.CharField(max_length=60)
    status = models.CharField(max_length=12, choices=Status.choices, default=Status.WELDING)
    version = models.PositiveIntegerField(default=1)
    procedure_document = models.JSONField()
    piece = models.JSONField(default=dict)
    people = models.JSONField(default=list)
    # An old record: its values stand on a certificate, and no run log was kept here.
    certificate = models.CharField(max_length=200, blank=True)
    tested_to = models.CharField(max_length=200, blank=True)
    created_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        """A number stands once in a job."""

        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["job", "number"], name="coupon_number_once"),
            models.CheckConstraint(condition=~Q(number=""), name="coupon_number_given"),
            models.CheckConstraint(condition=Q(status__in=Status.values), name="coupon_status_known"),
            models.CheckConstraint(condition=Q(version__gte=1), name="coupon_version"),
        ]
        # Whoever welded a coupon is asked of the people that it names.
        indexes: ClassVar = [GinIndex(fields=["people"], name="coupon_people", opclasses=["jsonb_path_ops"])]

    def __str__(self) -> str:
        return self.number


def _positive(*names: str) -> list[models.CheckConstraint]:
    return [
        models.CheckConstraint(
            condition=Q(**{f"{name}__isnull": True}) | Q(**{f"{name}__gt": 0}), name=f"pass_{name}_positive"
        )
        for name in names
    ]


def _ordered(*names: str) -> list[models.CheckConstraint]:
    """Mean between both ends, where the ends were seen."""
    constraints = []
    for stem, unit in (name.split(":") for name in names):
        mean, low, high = (f"{stem}_{part}_{unit}" for part in ("mean", "min", "max"))
        constraints.append(
            models.CheckConstraint(
                condition=(Q(**{f"{low}__isnull": True}) | Q(**{f"{low}__lte": models.F(mean)}))
                & (Q(**{f"{high}__isnull": True}) | Q(**{f"{high}__gte": models.F(mean)})),
                name=f"pass_{stem}_ordered",
            )
        )
    return constraints


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class PassLog(models.Model):
    """One pass as welded. Struck rows stay, with the reason, and no longer count."""

    coupon = models.ForeignKey(Coupon, on_delete=models.PROTECT, related_name="passes")
    client_id = models.UUIDField(unique=True)
    number = models.PositiveSmallIntegerField()
    version = models.PositiveIntegerField(default=1)
    process = models.CharField(max_length=4, blank=True)
    current_mean_a = models.FloatField(null=True)
    current_min_a = models.FloatField(null=True)
    current_max_a = models.FloatField(null=True)
    voltage_mean_v = models.FloatField(null=True)
    voltage_min_v = models.FloatField(null=True)
    voltage_max_v = models.FloatField(null=True)
    wire_feed_mean_m_min = models.FloatField(null=True)
    wire_feed_min_m_min = models.FloatField(null=True)
    wire_feed_max_m_min = models.FloatField(null=True)
    length_mm = models.FloatField(null=True)
    time_s = models.FloatField(null=True)
    travel_mm_min = models.FloatField(null=True)
    before_c = models.FloatField(null=True)
    energy_j = models.FloatField(null=True)
    rest = models.JSONField(default=dict)
    # When the arc ended by the server's clock, and by how much the device's clock was ahead of it.
    ended_at = models.DateTimeField(null=True)
    device_offset_s = models.FloatField(null=True)
    device_saved_at = models.DateTimeField(null=True)
    struck_reason = models.TextField(blank=True)
    struck = models.BooleanField(default=False)
    logged_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    logged_at = models.DateTimeField(default=timezone.now)
    # Names as they were then: a person who is renamed does not change the log.
    logged_name = models.CharField(max_length=310, blank=True)
    corrected_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+", null=True)
    corrected_name = models.CharField(max_length=310, blank=True)
    corrected_at = models.DateTimeField(null=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        """A pass number counts once; measured values are positive; means lie between their ends."""

        ordering: ClassVar = ["number", "id"]
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["coupon", "number"], condition=Q(struck=False), name="pass_number_once"
            ),
            models.CheckConstraint(condition=Q(number__gte=1, number__lte=999), name="pass_number"),
            models.CheckConstraint(
                condition=Q(struck=False) | ~Q(struck_reason=""), name="pass_struck_with_reason"
            ),
            *_positive(
                "current_mean_a",
                "voltage_mean_v",
                "wire_feed_mean_m_min",
                "length_mm",
                "time_s",
                "travel_mm_min",
                "energy_j",
            ),
            *_ordered("current:a", "voltage:v", "wire_feed:m_min"),
        ]

    def __str__(self) -> str:
        return f"{self.coupon.number} pass {self.number}"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class PassPhoto(models.Model):
    """A photo of a pass, kept as it came."""

    row = models.ForeignKey(PassLog, on_delete=models.PROTECT, related_name="photos")
    client_id = models.UUIDField(unique=True)
    file = models.FileField(upload_to="photos/%Y/%m", max_length=300)
    content_type = models.CharField(max_length=20)
    sha256 = models.CharField(max_length=64)
    taken_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    taken_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """In order of their coming."""

        ordering: ClassVar = ["id"]

    def __str__(self) -> str:
        return f"photo {self.pk} of {self.row}"
