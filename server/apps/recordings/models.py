"""Recorders, what they sent, and which passes were taken from it. Files lie in Django's storage."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models
from django.db.models import Q

from apps.accounts.models import User
from apps.coupons.models import Coupon, PassLog


class Status(models.TextChoices):
    """Where a recording stands; ``received`` is kept but not read yet."""

    RECEIVED = "received", "received"
    STREAMING = "streaming", "streaming"
    ASKING = "asking", "asking"
    READY = "ready", "ready"
    REFUSED = "refused", "refused"
    SET_ASIDE = "set-aside", "set aside"


@pghistory.track(
    pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent(), exclude=["token_hash"]
)
class Recorder(models.Model):
    """A device. It signs in with a token, of which only a hash is kept; its mapping is remembered."""

    name = models.CharField(max_length=100, unique=True)
    token_hash = models.CharField(max_length=64, unique=True)
    mapping = models.JSONField(null=True)
    retired = models.BooleanField(default=False)
    created_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    heard_at = models.DateTimeField(null=True)

    class Meta:
        """By name."""

        ordering: ClassVar = ["name"]
        constraints: ClassVar = [models.CheckConstraint(condition=~Q(name=""), name="recorder_named")]

    def __str__(self) -> str:
        return self.name


@pghistory.track(
    pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent(), exclude=["analysis", "guess"]
)
class Recording(models.Model):
    """One recording. ``original`` holds the bytes as they came, ``sha256`` is theirs."""

    coupon = models.ForeignKey(Coupon, on_delete=models.PROTECT, related_name="recordings", null=True)
    recorder = models.ForeignKey(Recorder, on_delete=models.PROTECT, related_name="recordings", null=True)
    client_id = models.UUIDField(unique=True)
    name = models.CharField(max_length=200)
    status = models.CharField(max_length=12, choices=Status.choices)
    version = models.PositiveIntegerField(default=1)
    columns = models.JSONField(default=list)
    device_offset_s = models.FloatField(null=True)
    original = models.FileField(upload_to="recordings/original/%Y/%m", max_length=300, blank=True)
    samples = models.FileField(upload_to="recordings/samples/%Y/%m", max_length=300, blank=True)
    levels = models.FileField(upload_to="recordings/levels/%Y/%m", max_length=300, blank=True)
    sha256 = models.CharField(max_length=64, blank=True)
    size_bytes = models.BigIntegerField(default=0)
    guess = models.JSONField(null=True)
    mapping = models.JSONField(null=True)
    file_faults = models.JSONField(default=list)
    analysis = models.JSONField(null=True)
    message = models.TextField(blank=True)
    sent_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+", null=True)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        """The latest first."""

        ordering: ClassVar = ["-created_at", "-id"]
        constraints: ClassVar = [
            models.CheckConstraint(condition=Q(status__in=Status.values), name="recording_status_known"),
            models.CheckConstraint(condition=Q(size_bytes__gte=0), name="recording_size"),
            models.CheckConstraint(
                condition=Q(sent_by__isnull=False) | Q(recorder__isnull=False), name="recording_sender"
            ),
        ]

    def __str__(self) -> str:
        return self.name


class Chunk(models.Model):
    """A piece of a running stream, as it came. Taken once for each number; gone when the stream ends."""

    recording = models.ForeignKey(Recording, on_delete=models.CASCADE, related_name="chunks")
    number = models.PositiveIntegerField()
    payload = models.BinaryField()
    sha256 = models.CharField(max_length=64)
    samples = models.PositiveIntegerField()
    arc_s = models.FloatField(default=0.0)
    energy_j = models.FloatField(default=0.0)
    glance = models.JSONField()
    received_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """A number stands once in a stream."""

        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["recording", "number"], name="chunk_number_once")
        ]

    def __str__(self) -> str:
        return f"{self.recording_id} chunk {self.number}"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class RecordedPass(models.Model):
    """A pass that a person took from a recording."""

    recording = models.ForeignKey(Recording, on_delete=models.PROTECT, related_name="taken")
    row = models.ForeignKey(PassLog, on_delete=models.PROTECT, related_name="recorded")
    start_s = models.FloatField()
    end_s = models.FloatField()
    taken_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    taken_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """A logged pass comes from one place at most."""

        constraints: ClassVar = [
            models.UniqueConstraint(fields=["row"], name="recorded_pass_once"),
            models.CheckConstraint(condition=Q(end_s__gt=models.F("start_s")), name="recorded_pass_ordered"),
        ]

    def __str__(self) -> str:
        return f"{self.recording} {self.start_s:.1f}-{self.end_s:.1f} s"
