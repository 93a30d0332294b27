"""What is asked for and done beside the web server."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from apps.accounts.models import User


class Work(models.Model):
    """Something asked for: what, how far it is, and why there is no answer if there is none.

    ``asked_hash`` is over all that the answer rests on: the same question is answered once. ``done`` of
    ``of`` of the step ``doing`` are done. ``seen_at`` is when its process was last heard of.
    """

    class State(models.TextChoices):
        """From waiting for its turn to an answer, or to why there is none."""

        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        STOPPED = "stopped"

    asked = models.JSONField()
    asked_hash = models.CharField(max_length=64)
    language = models.CharField(max_length=10)
    asked_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    asked_at = models.DateTimeField(auto_now_add=True)
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    doing = models.CharField(max_length=20, blank=True)
    done = models.PositiveIntegerField(default=0)
    of = models.PositiveIntegerField(default=0)
    seen_at = models.DateTimeField(auto_now_add=True)
    problem = models.TextField(blank=True)

    class Meta:
        """The newest last."""

        abstract = True
        ordering: ClassVar = ["id"]
