"""Many invented production welds, to measure how fast they are found: ``manage.py many_welds 100000``."""

from __future__ import annotations

import random
from argparse import ArgumentParser
from datetime import timedelta
from typing import Any
from uuid import UUID

import pgtrigger
from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.db import connection, transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.production.models import Inspection, Weld

NUMBER = "MANY-1"
BATCH = 2000


class Command(BaseCommand):
    """``manage.py many_welds COUNT``, once and beside the demo's own data."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: ArgumentParser) -> None:
        """How many."""
        parser.add_argument("count", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Make them."""
        revision = Revision.objects.filter(stage=Stage.RELEASED).first()
        user = User.objects.filter(role="inspector").first()
        if not settings.DEMO or revision is None or user is None:
            raise CommandError("The demo is not loaded.")
        if Job.objects.filter(number=NUMBER).exists():
            raise CommandError(f"Job {NUMBER} is there already.")
        # No trail of them is kept: linking a quarter of a million events would take longer than measuring.
        with transaction.atomic(), pgtrigger.ignore():
            job = Job.objects.create(number=NUMBER, title="Many welds", customer="nobody")
            chance = random.Random(27)  # noqa: S311 - invented data
            for first in range(0, options["count"], BATCH):
                _some(job, revision, user, range(first, min(first + BATCH, options["count"])), chance)
        with connection.cursor() as cursor:
            # As the database does by itself after a while: its plans go by it.
            cursor.execute("ANALYZE production_weld")
            cursor.execute("ANALYZE production_inspection")
        self.stdout.write(str(job.pk))


def _some(job: Job, revision: Revision, user: User, numbers: range, chance: random.Random) -> None:
    today = timezone.localdate()
    welds = Weld.objects.bulk_create(
        Weld(
            job=job,
            client_id=UUID(int=chance.getrandbits(128)),
            mark=f"J{number:06d}",
            joint="butt joint",
            position=chance.choice(["PA", "PC", "PF"]),
            revision=revision,
            wps=str(revision),
            welders=[f"Welder {chance.randrange(60)}"],
            batches=[f"B-{chance.randrange(400)}"],
            heats=[f"H-{chance.randrange(900)}"],
            welded_on=today - timedelta(days=chance.randrange(400)),
            fit="covered",
            state="accepted",
            entered_by=user,
            entered_name=user.shown_name,
        )
        for number in numbers
    )
    Inspection.objects.bulk_create(
        Inspection(
            weld=one,
            client_id=UUID(int=chance.getrandbits(128)),
            method=method,
            accepted=(accepted := chance.random() > share),
            found="" if accepted else "porosity",
            inspector="Inspector",
            inspected_on=one.welded_on,
            entered_by=user,
            entered_name=user.shown_name,
        )
        for one in welds
        for method, share in (("VT", 0.02), ("UT", 0.06))
        if method == "VT" or one.pk % 4 == 0
    )
