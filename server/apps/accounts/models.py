"""People and their roles."""

from __future__ import annotations

from typing import ClassVar

import pghistory
from django.contrib.auth.models import AbstractUser
from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.utils import timezone


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
    # The hash itself stays out of the trail; that it changed, when and by whom stands in it.
    pghistory.UpdateEvent("password", condition=pghistory.AnyChange("password")),
    pghistory.DeleteEvent(),
    exclude=["password", "last_login"],
)
class User(AbstractUser):
    """A person who signs in.

    ``password_own`` says whether the person chose the present password; one that somebody else set
    signs nothing until its owner has changed it.
    """

    role = models.CharField(max_length=20, choices=Role.choices, default=Role.VIEWER)
    password_own = models.BooleanField(default=False)
    password_set_at = models.DateTimeField(null=True, blank=True)
    # Jobs that somebody from outside may see, and nothing else of the shop; none for people of the shop.
    only_jobs = ArrayField(models.BigIntegerField(), null=True, blank=True)

    class Meta(AbstractUser.Meta):
        """The role is one of the known ones, in the database too."""

        constraints: ClassVar = [
            models.CheckConstraint(condition=models.Q(role__in=Role.values), name="user_role_known"),
            models.CheckConstraint(
                condition=~models.Q(role=Role.ADMINISTRATOR) | models.Q(only_jobs=None),
                name="administrator_sees_all_jobs",
            ),
        ]

    @property
    def shown_name(self) -> str:
        """Full name, or the sign-in name where none is given."""
        return self.get_full_name() or self.username

    def set_password(self, raw_password: str | None) -> None:
        """Set a password that somebody else chose, as an administrator does."""
        super().set_password(raw_password)
        self.password_own, self.password_set_at = False, timezone.now()

    def set_own_password(self, raw_password: str) -> None:
        """Set a password that the person chose."""
        self.set_password(raw_password)
        self.password_own = True

    def check_password(self, raw_password: str | None) -> bool:
        """Whether it fits. A hash that is renewed on the way is still the same person's password."""
        own, at = self.password_own, self.password_set_at
        fits = super().check_password(raw_password)
        self.password_own, self.password_set_at = own, at
        return fits


@pghistory.track(
    pghistory.InsertEvent(),
    pghistory.DeleteEvent(),
    # What proves the person stays out of the trail; that it was set or taken away, and by whom, stands in it.
    exclude=["secret", "last_step", "codes"],
)
class SecondFactor(models.Model):
    """What a person shows beside the password: a code of the time (RFC 6238), or one of the recovery codes.

    ``secret`` is encrypted with the server's key; ``last_step`` is the last step of 30 s whose code was
    taken, so that none counts twice; ``codes`` are digests of those that are left.
    """

    person = models.OneToOneField(User, on_delete=models.CASCADE, related_name="second_factor")
    secret = models.CharField(max_length=300)
    set_at = models.DateTimeField()
    last_step = models.BigIntegerField(default=0)
    codes = ArrayField(models.CharField(max_length=64), default=list)

    def __str__(self) -> str:
        return f"second factor of {self.person}"


class SeenSession(models.Model):
    """A session of a person as it was used: since when, when last, from where. It ends with its session."""

    key = models.CharField(max_length=40, unique=True)
    person = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    began_at = models.DateTimeField()
    last_at = models.DateTimeField(db_index=True)
    address = models.CharField(max_length=64, blank=True)
    agent = models.CharField(max_length=300, blank=True)

    def __str__(self) -> str:
        return f"{self.person} since {self.began_at}"


class Budget(models.Model):
    """A counter of failed sign-ins in its window; the key is a digest of whom it counts."""

    key = models.CharField(max_length=64, primary_key=True)
    count = models.PositiveIntegerField()
    ends_at = models.FloatField(db_index=True)

    def __str__(self) -> str:
        return f"{self.count} until {self.ends_at:.0f}"
