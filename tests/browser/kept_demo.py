"""The demo's rows, loaded once by the services and then written back as they were: ten times as fast."""

from itertools import count

from apps.demo.management.commands.prepare import load_demo
from apps.jobs.models import Job
from django.db import connection, transaction

_KEPT: dict[str, bytes] = {}
"""Rows by table, of this process. Files of the demo stay where they are; new rows get new ids."""

_TIMES = count(1)


def demo() -> Job:
    """The footbridge job on tables that hold nothing else."""
    if _KEPT:
        _write_back()
    else:
        load_demo()
        _KEPT.update({table: _rows(table) for table in _tables()})
    return Job.objects.get()


def _tables() -> list[str]:
    names = connection.introspection.django_table_names(only_existing=True, include_views=False)
    return [name for name in names if name != "django_migrations"]


def _rows(table: str) -> bytes:
    with connection.cursor() as cursor, cursor.copy(f'COPY "{table}" TO STDOUT (FORMAT binary)') as copy:
        return b"".join(bytes(part) for part in copy)


def _write_back() -> None:
    with transaction.atomic(), connection.cursor() as cursor:
        # The rows have passed every trigger once, and their audit trail is among them.
        cursor.execute("SET LOCAL session_replication_role = replica")
        cursor.execute('TRUNCATE "' + '", "'.join(_KEPT) + '" CASCADE')
        for table, rows in _KEPT.items():
            with cursor.copy(f'COPY "{table}" FROM STDIN (FORMAT binary)') as copy:
                copy.write(rows)
        # The server keeps lists in mind by id and version, which stand for one state of a list for good.
        cursor.execute("UPDATE weldlist_weldlist SET version = version + %s", [1000 * next(_TIMES)])
