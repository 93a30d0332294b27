"""Let a name sign in again after too many failures from strangers."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from apps.accounts.models import User
from apps.accounts.services.sign_in import unlock


class Command(BaseCommand):
    """``manage.py unlock NAME``."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """The sign-in name."""
        parser.add_argument("username")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it."""
        if not User.objects.filter(username=options["username"]).exists():
            raise CommandError(f"There is no person {options['username']}.")
        unlock(options["username"])
        self.stdout.write(f"{options['username']} can sign in again.")
