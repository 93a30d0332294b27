"""Make an administrator with a password that is shown once."""

from __future__ import annotations

import secrets
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from apps.accounts.models import Role, User


class Command(BaseCommand):
    """``manage.py make_admin NAME``."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """The sign-in name."""
        parser.add_argument("username")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it."""
        username = options["username"]
        if User.objects.filter(username=username).exists():
            raise CommandError(f"There is a person {username} already.")
        password = secrets.token_urlsafe(12)
        User.objects.create_user(
            username, password=password, role=Role.ADMINISTRATOR, is_staff=True, is_superuser=True
        )
        self.stdout.write(
            f"{username} signs in with {password}. "
            "Change the password after the first sign-in: until then nothing can be signed with it."
        )
