"""Many invented welders, to measure how fast one is found who may weld it: ``manage.py many_crew 1000``."""

from __future__ import annotations

import random
from argparse import ArgumentParser
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.db import connection, transaction
from django.utils import timezone

from apps.accounts.models import Role, User
from apps.crew.services.keep_member import MemberEntry, add_member
from apps.crew.services.sign_certificate import CertificateEntry, sign_certificate

WELDS = (
    "135 P BW FM1 S s{} {} {}, dip transfer",
    "135 P FW FM1 S t{} PB ml",
    "111 P BW FM1 B s{} {} {}",
    "141 T BW FM5 S s{} D60.3 PH ss nb",
    "136 P BW FM1 P s{} {} ss mb",
)


class Command(BaseCommand):
    """``manage.py many_crew COUNT``, beside the demo's own data."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: ArgumentParser) -> None:
        """How many."""
        parser.add_argument("count", type=int)

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Make them, each with one to three certificates of the last 400 days."""
        user = User.objects.filter(role=Role.ADMINISTRATOR).first()
        if not settings.DEMO or user is None:
            raise CommandError("The demo is not loaded.")
        chance, today = random.Random(18), timezone.localdate()  # noqa: S311 - invented data
        for number in range(options["count"]):
            member = add_member(user, MemberEntry(name=f"Welder {number:04d}", mark=f"W{number:04d}"))
            for at in range(chance.randint(1, 3)):
                words = chance.choice(WELDS).format(
                    chance.choice([3, 6, 8, 10, 12, 15, 20]),
                    chance.choice(["PA", "PC", "PF"]),
                    chance.choice(["ss nb", "ss mb"]),
                )
                entry = CertificateEntry(
                    number=f"M-{number:04d}-{at}",
                    designation=f"ISO 9606-1 {words}",
                    welded_on=today - timedelta(days=chance.randrange(1, 400)),
                    way="a",
                    examiner="nobody",
                    from_paper=True,
                )
                sign_certificate(user, member, entry)
        with connection.cursor() as cursor:
            # As the database does by itself after a while: its plans go by it.
            cursor.execute("ANALYZE crew_certificate")
            cursor.execute("ANALYZE crew_crewmember")
        self.stdout.write(str(options["count"]))
