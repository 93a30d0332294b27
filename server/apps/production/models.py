"""Production welds and what was found on them. Entries are never rewritten: a wrong one is struck."""

from __future__ import annotations

from typing import Any, ClassVar

import pghistory
import pgtrigger
from django.contrib.postgres.fields import ArrayField
from django.contrib.postgres.indexes import GinIndex
from django.db import models
from django.db.models import Q
from django.utils import timezone

from apps.accounts.models import User
from apps.jobs.models import Job
from apps.procedures.models import Revision

LONGEST_NAME = 80
WELD_FACTS = (
    "job_id", "client_id", "mark", "item", "joint", "facts_hash", "position", "revision_id", "wps", "welders",
    "batches", "heats", "welded_on", "values", "remarks", "repair_of_id", "entered_by_id", "entered_name",
    "entered_at",
)  # fmt: skip
RESULT_FACTS = (
    "weld_id", "client_id", "method", "accepted", "report", "inspector", "inspected_on", "found",
    "entered_by_id", "entered_name", "entered_at",
)  # fmt: skip
"""What an entry holds; it is never rewritten."""


class State(models.TextChoices):
    """How far a weld has come; derived by the core and kept so that it can be searched."""

    WELDED = "welded", "welded"
    ACCEPTED = "accepted", "accepted"
    REJECTED = "rejected", "rejected"
    REPAIRED = "repaired", "repaired"
    RELEASED = "released", "released"
    STRUCK = "struck", "struck"


def _stays(name: str, *fields: str) -> pgtrigger.Protect:
    changed = [pgtrigger.Q(**{f"old__{field}__df": pgtrigger.F(f"new__{field}")}) for field in fields]
    condition = changed[0]
    for one in changed[1:]:
        condition |= one
    return pgtrigger.Protect(name=name, operation=pgtrigger.Update, condition=condition)


def _names() -> ArrayField[Any, Any]:
    return ArrayField(models.CharField(max_length=LONGEST_NAME), default=list)


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Weld(models.Model):
    """One weld as it was made: which joint, to which WPS, by whom, of what.

    ``item`` counts the welds of a mark that stands several times. ``joint`` is the joint type in words and
    ``facts_hash`` its facts as the list had them then. ``fit`` is whether the WPS covered it then.
    """

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="welds")
    client_id = models.UUIDField(unique=True)
    mark = models.CharField(max_length=400)
    item = models.PositiveIntegerField(default=1)
    joint = models.TextField(blank=True)
    facts_hash = models.CharField(max_length=64, blank=True)
    position = models.CharField(max_length=80, blank=True)
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="welds")
    wps = models.CharField(max_length=70)
    welders = _names()
    batches = _names()
    heats = _names()
    welded_on = models.DateField()
    values = models.JSONField(default=list)
    remarks = models.TextField(blank=True)
    fit = models.CharField(max_length=8)
    against = models.JSONField(default=list)
    # How those named stood to it: name, standing, reasons; judged at the entry, and anew at the release.
    qualified = models.JSONField(default=list)
    repair_of = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="repairs")
    state = models.CharField(max_length=10, choices=State.choices, default=State.WELDED)
    entered_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    # Names as they were then: a person who is renamed does not change the log.
    entered_name = models.CharField(max_length=310)
    entered_at = models.DateTimeField(default=timezone.now)
    struck_reason = models.TextField(blank=True)
    struck_name = models.CharField(max_length=310, blank=True)
    released_by = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")
    released_name = models.CharField(max_length=310, blank=True)
    released_at = models.DateTimeField(null=True)

    class Meta:
        """A weld of a joint is logged once; what was logged stays."""

        ordering: ClassVar = ["-id"]
        indexes: ClassVar = [
            models.Index(fields=["job", "mark"], name="weld_mark"),
            models.Index(fields=["job", "state", "-id"], name="weld_state"),
            models.Index(fields=["revision", "welded_on"], name="weld_wps"),
            models.Index(fields=["job", "welded_on"], name="weld_day"),
            GinIndex(fields=["welders"], name="weld_welders"),
            GinIndex(fields=["batches"], name="weld_batches"),
            GinIndex(fields=["heats"], name="weld_heats"),
        ]
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["job", "mark", "item"],
                condition=Q(struck_reason="", repair_of__isnull=True),
                name="weld_once",
            ),
            models.UniqueConstraint(
                fields=["repair_of"], condition=Q(struck_reason=""), name="weld_repaired_once"
            ),
            models.CheckConstraint(condition=~Q(mark="") & Q(item__gte=1), name="weld_of_a_joint"),
            models.CheckConstraint(condition=Q(welders__len__gte=1), name="weld_by_somebody"),
            models.CheckConstraint(condition=Q(state__in=State.values), name="weld_state_known"),
            models.CheckConstraint(
                condition=Q(fit__in=["covered", "open", "blocked"]), name="weld_fit_known"
            ),
            models.CheckConstraint(
                condition=Q(released_at__isnull=True) | (Q(struck_reason="") & Q(fit="covered")),
                name="weld_released_covered",
            ),
        ]
        triggers: ClassVar = [
            _stays("weld_stays", *WELD_FACTS),
            pgtrigger.Protect(
                name="weld_struck_stays",
                operation=pgtrigger.Update,
                condition=~pgtrigger.Q(old__struck_reason="")
                & pgtrigger.Q(old__struck_reason__df=pgtrigger.F("new__struck_reason")),
            ),
            pgtrigger.Protect(
                name="weld_release_stays",
                operation=pgtrigger.Update,
                condition=pgtrigger.Q(old__released_at__isnull=False)
                & (
                    pgtrigger.Q(old__released_at__df=pgtrigger.F("new__released_at"))
                    | pgtrigger.Q(old__released_by_id__df=pgtrigger.F("new__released_by_id"))
                    | pgtrigger.Q(old__fit__df=pgtrigger.F("new__fit"))
                    | pgtrigger.Q(old__qualified__df=pgtrigger.F("new__qualified"))
                ),
            ),
            pgtrigger.Protect(name="weld_not_removed", operation=pgtrigger.Delete),
        ]

    def __str__(self) -> str:
        return f"{self.mark} {self.item}"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Inspection(models.Model):
    """What a method of testing found on a weld."""

    weld = models.ForeignKey(Weld, on_delete=models.PROTECT, related_name="inspections")
    client_id = models.UUIDField(unique=True)
    method = models.CharField(max_length=2)
    accepted = models.BooleanField()
    report = models.CharField(max_length=200, blank=True)
    inspector = models.CharField(max_length=LONGEST_NAME)
    inspected_on = models.DateField()
    found = models.TextField(blank=True)
    entered_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    entered_name = models.CharField(max_length=310)
    entered_at = models.DateTimeField(default=timezone.now)
    struck_reason = models.TextField(blank=True)
    struck_name = models.CharField(max_length=310, blank=True)

    class Meta:
        """In the order of their entry; what was entered stays."""

        ordering: ClassVar = ["id"]
        indexes: ClassVar = [models.Index(fields=["method", "accepted"], name="inspection_found")]
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=Q(method__in=["VT", "PT", "MT", "RT", "UT"]), name="inspection_method_known"
            ),
            models.CheckConstraint(condition=~Q(inspector=""), name="inspection_by_somebody"),
            # A rejection without what was found helps nobody who has to repair it.
            models.CheckConstraint(condition=Q(accepted=True) | ~Q(found=""), name="inspection_says_what"),
        ]
        triggers: ClassVar = [
            _stays("inspection_stays", *RESULT_FACTS),
            pgtrigger.Protect(
                name="inspection_struck_stays",
                operation=pgtrigger.Update,
                condition=~pgtrigger.Q(old__struck_reason="")
                & pgtrigger.Q(old__struck_reason__df=pgtrigger.F("new__struck_reason")),
            ),
            pgtrigger.Protect(name="inspection_not_removed", operation=pgtrigger.Delete),
        ]

    def __str__(self) -> str:
        return f"{self.method} of {self.weld}"
