"""Own records of the shop: machines, fillers as bought, own metals, charts of settings."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models

from apps.accounts.models import User


class Kind(models.TextChoices):
    """What a record is of; the value is the name of its document."""

    METAL = "metal", "metal"
    PRODUCT = "product", "product"
    MACHINE = "machine", "machine"
    CHART = "chart", "chart"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Record(models.Model):
    """One record: a document, and its name without what spellings differ in. Each save raises ``version``."""

    kind = models.CharField(max_length=10, choices=Kind.choices)
    name = models.CharField(max_length=120)
    name_key = models.CharField(max_length=120)
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    created_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    saved_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    saved_at = models.DateTimeField(auto_now=True)

    class Meta:
        """A name stands once in a kind."""

        ordering: ClassVar = ["kind", "name"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["kind", "name_key"], name="record_name_once"),
            models.CheckConstraint(condition=models.Q(kind__in=Kind.values), name="record_kind_known"),
            models.CheckConstraint(condition=~models.Q(name_key=""), name="record_name_given"),
            models.CheckConstraint(condition=models.Q(version__gte=1), name="record_version"),
        ]

    def __str__(self) -> str:
        return self.name
