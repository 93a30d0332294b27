"""People and their roles."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.contrib.auth.models import AbstractUser
from django.db import models


class Role(models.TextChoices):
    """What a person is here for."""

    ENGINEER = "engineer", "engineer"
    INSPECTOR = "inspector", "inspector"
    WELDER = "welder", "welder"
    VIEWER = "viewer", "viewer"
    EXAMINER = "examiner", "examiner"
    ADMINISTRATOR = "administrator", "administrator"


@pghistory.track(
    pghistory.InsertEvent(),
    pghistory.UpdateEvent(),
    pghistory.DeleteEvent(),
    exclude=["password", "last_login"],
)
class User(AbstractUser):
    """A person who signs in."""

    role = models.CharField(max_length=20, choices=Role.choices, default=Role.VIEWER)

    class Meta(AbstractUser.Meta):
        """The role is one of the known ones, in the database too."""

        constraints: ClassVar = [
            models.CheckConstraint(condition=models.Q(role__in=Role.values), name="user_role_known"),
        ]

    @property
    def shown_name(self) -> str:
        """Full name, or the sign-in name where none is given."""
        return self.get_full_name() or self.username
