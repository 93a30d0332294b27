"""What each person practises: a row for each exercise of a rung, and each answer that was given."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.db import models
from django.db.models import F, Q

from apps.accounts.models import User


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class Skill(models.Model):
    """One exercise on one rung, of one person: when it is due again, and the one that lies open.

    ``card`` is the state of the spaced repetition. ``open_seed`` is what the open exercise was drawn with:
    whoever leaves the page finds the same one again.
    """

    person = models.ForeignKey(User, on_delete=models.PROTECT, related_name="skills")
    stage = models.CharField(max_length=20)
    kind = models.CharField(max_length=40)
    card = models.JSONField()
    due = models.DateTimeField()
    answered = models.PositiveIntegerField(default=0)
    points = models.FloatField(default=0)
    open_seed = models.PositiveIntegerField(null=True)
    opened_at = models.DateTimeField(null=True)

    class Meta:
        """One row for each exercise of a rung and person; points never exceed what was answered."""

        ordering: ClassVar = ["due", "id"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["person", "stage", "kind"], name="skill_once"),
            models.CheckConstraint(
                condition=Q(points__gte=0, points__lte=F("answered")), name="skill_points"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.kind}, {self.stage}"


@pghistory.track(pghistory.InsertEvent(), pghistory.UpdateEvent(), pghistory.DeleteEvent())
class AnswerGiven(models.Model):
    """One answer, as it was given; ``score`` is 0 to 1."""

    skill = models.ForeignKey(Skill, on_delete=models.PROTECT, related_name="answers")
    seed = models.PositiveIntegerField()
    given = models.JSONField()
    score = models.FloatField()
    given_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """The latest first."""

        ordering: ClassVar = ["-given_at", "-id"]
        constraints: ClassVar = [
            models.CheckConstraint(condition=Q(score__gte=0, score__lte=1), name="answer_score")
        ]

    def __str__(self) -> str:
        return f"{self.skill}: {self.score:.2f}"
