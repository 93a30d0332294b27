"""What a shop has after many years, to measure its pages: ``manage.py many_years 10000``.

Everything of the demo's first job is copied so many times, ten copies to a job; the largest job has a
hundred. The database copies by itself: 10,000 copies are a million passes.
"""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any, Final

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.db import connection, models, transaction

from apps.coupons.models import Coupon, PassLog
from apps.jobs.models import Job
from apps.procedures.models import Procedure, Revision
from apps.production.models import Inspection, Weld
from apps.qualification.models import QualificationRecord, Signature, Specimen, Support
from apps.recordings.models import RecordedPass, Recording

TO_A_JOB, TO_THE_LARGEST = 10, 100
PASSES = 9
"""How often a copied coupon has the passes of its pattern: plate of 40 mm has a hundred of them."""
OF_JOB: Final[dict[type[models.Model], tuple[str, ...]]] = {
    Procedure: ("job",),
    Revision: ("procedure__job",),
    Coupon: (
        "job",
        "amendment",
    ),
    PassLog: (
        "coupon__job",
        "coupon__amendment",
    ),
    Specimen: (
        "coupon__job",
        "coupon__amendment",
    ),
    QualificationRecord: (
        "coupon__job",
        "coupon__amendment",
    ),
    Signature: (
        "record__coupon__job",
        "record__coupon__amendment",
    ),
    Support: ("revision__procedure__job",),
    Recording: ("coupon__job",),
    RecordedPass: ("row__coupon__job",),
    Weld: ("job",),
    Inspection: ("weld__job",),
}
"""What is copied, in the order of what hangs on what, and by which way the job is found from it."""
JOB_OF_COPY = f"(CASE WHEN k <= {TO_THE_LARGEST} THEN 1 ELSE 2 + (k - {TO_THE_LARGEST} - 1) / {TO_A_JOB} END)"
OTHERWISE: Final[dict[tuple[type[models.Model], str], str]] = {
    (Procedure, "number"): "number || '-' || k",
    (Coupon, "number"): "number || '-' || k",
    (
        Coupon,
        "people",
    ): """jsonb_build_array(jsonb_build_object('role', 'welder', 'name', 'Welder ' || mod(k, 200)))""",
    (QualificationRecord, "number"): "number || '-' || k",
    (PassLog, "number"): "number + 20 * a",
    (PassLog, "client_id"): "gen_random_uuid()",
    (Recording, "client_id"): "gen_random_uuid()",
    (Inspection, "client_id"): "gen_random_uuid()",
    (Weld, "client_id"): "gen_random_uuid()",
    (Weld, "mark"): "mark || '-' || k",
    (Weld, "welders"): "ARRAY['Welder ' || mod(k, 200)]",
    (Weld, "welded_on"): "welded_on - mod(k, 3000)",
}
"""Columns that a copy has anew: ``k`` counts the copies, ``a`` the passes of a copy."""


class Command(BaseCommand):
    """``manage.py many_years COPIES``, once and beside the demo's own data; prints the largest job's id."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: ArgumentParser) -> None:
        """How many."""
        parser.add_argument("copies", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Make them."""
        pattern = Job.objects.filter(coupons__isnull=False).order_by("pk").first()
        if not settings.DEMO or pattern is None:
            raise CommandError("The demo is not loaded.")
        if Job.objects.filter(number__startswith=f"{pattern.number}-").exists():
            raise CommandError("They are there already.")
        filled: tuple[type[models.Model], ...] = (Job, *OF_JOB)
        steps = {model: _last_id(model) for model in filled}
        with transaction.atomic():
            _without_triggers()
            _jobs(pattern, steps[Job], options["copies"])
            for model in OF_JOB:
                _copied(model, pattern, steps, options["copies"])
        with connection.cursor() as cursor:
            for model in steps:
                table = model._meta.db_table
                cursor.execute(
                    "SELECT setval(pg_get_serial_sequence(%s, 'id'), %s)", [table, _last_id(model)]
                )
                # As the database does by itself after a while: its plans go by it.
                cursor.execute(f"ANALYZE {table}")
        self.stdout.write(str(pattern.pk + steps[Job]))


def _without_triggers() -> None:
    """No trail is kept: linking millions of events would take longer than what is measured."""
    with connection.cursor() as cursor:
        cursor.execute("SET LOCAL session_replication_role = replica")


def _last_id(model: type[models.Model]) -> int:
    found: int = model._default_manager.aggregate(last=models.Max("pk"))["last"] or 1
    return found


def _jobs(pattern: Job, step: int, copies: int) -> None:
    jobs = 1 + -(-max(copies - TO_THE_LARGEST, 0) // TO_A_JOB)
    Job.objects.bulk_create(
        Job(
            pk=pattern.pk + number * step,
            number=f"{pattern.number}-{number:04d}",
            title=pattern.title,
            customer=f"Customer {number % 80}",
            coordinator=pattern.coordinator,
        )
        for number in range(1, jobs + 1)
    )


def _copied(
    model: type[models.Model], pattern: Job, steps: dict[type[models.Model], int], copies: int
) -> None:
    """Copy what the job has of a model; what a copy hangs on is the copy of the same count."""
    fields = model._meta.concrete_fields
    values = [_value(model, field, steps) for field in fields]
    rows = model._default_manager.filter(
        **{way: pattern if way.endswith("job") else None for way in OF_JOB[model]}
    )
    columns = ", ".join(f'"{field.column}"' for field in fields)
    again = f", generate_series(0, {PASSES - 1}) AS a" if model is PassLog else ""
    ids = list(rows.values_list("pk", flat=True))
    with connection.cursor() as cursor:
        cursor.execute(
            f'INSERT INTO "{model._meta.db_table}" ({columns}) SELECT {", ".join(values)} '  # noqa: S608
            f'FROM "{model._meta.db_table}", generate_series(1, %s) AS k{again} WHERE id = ANY(%s)',
            [copies, ids],
        )


def _value(
    model: type[models.Model], field: models.Field[Any, Any], steps: dict[type[models.Model], int]
) -> str:
    other = (model, field.name)
    if other in OTHERWISE:
        return OTHERWISE[other]
    if field.primary_key and model is PassLog:
        return f"id + (k * {PASSES} + a) * {steps[model]}::bigint"
    if field.primary_key:
        return f"id + k * {steps[model]}::bigint"
    kind = field.related_model
    if kind is Job:
        return f'"{field.column}" + {JOB_OF_COPY} * {steps[Job]}::bigint'
    if kind is PassLog:
        return f'"{field.column}" + k * {PASSES} * {steps[PassLog]}::bigint'
    if isinstance(kind, type) and kind in steps:
        return f'"{field.column}" + k * {steps[kind]}::bigint'
    return f'"{field.column}"'
