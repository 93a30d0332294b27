"""What the database holds at one moment: rows and a digest for each table, and the files that rows name."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import LiteralString

from django.apps import apps
from django.core.files.storage import default_storage
from django.db import connection, models
from psycopg import sql

AT_A_TIME = 2000
FIXED: tuple[LiteralString, ...] = (
    "SET LOCAL TimeZone = 'UTC'",
    "SET LOCAL DateStyle = 'ISO'",
    "SET LOCAL IntervalStyle = 'postgres'",
    "SET LOCAL extra_float_digits = 1",
    "SET LOCAL bytea_output = 'hex'",
)
"""A digest is over rows as text, which these would change."""
HASHED = "sha256"
"""The column that keeps the hash of a row's file, where there is one."""
FIRST = "original"
"""Of several files of a row this is the one that the hash is of."""


@dataclass(frozen=True, slots=True)
class Table:
    """How many rows a table holds, and a digest over all of them in whatever order."""

    rows: int
    digest: str


@dataclass(frozen=True, slots=True)
class Named:
    """A file that a row names; the hash where the row keeps one."""

    name: str
    sha256: str | None


def tables() -> dict[str, Table]:
    """Every table of this program. To be called in a transaction; the digest tells loss, not forgery."""
    found = {}
    with connection.cursor() as cursor:
        for statement in FIXED:
            cursor.execute(statement)
        for name in sorted(one.name for one in connection.introspection.get_table_list(cursor)):
            cursor.execute(
                sql.SQL(
                    "SELECT count(*), coalesce(sum(('x' || substr(md5(t::text), 1, 15))::bit(60)::bigint), 0)"
                    "::text FROM {table} t"
                ).format(table=sql.Identifier(name))
            )
            rows, digest = cursor.fetchone()
            found[name] = Table(rows, digest)
    return found


def migrations() -> list[str]:
    """The migrations that this database has seen, as ``app.name``; no locale changes their order."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT app || '.' || name FROM django_migrations")
        return sorted(name for (name,) in cursor.fetchall())


def files() -> Iterator[Named]:
    """Every file that a row names, event rows apart: those tell of files that are gone by right."""
    there = _columns()
    for model in apps.get_models():
        if hasattr(model, "pgh_tracked_model"):
            continue
        known = there.get(model._meta.db_table, set())  # a backup of an earlier version has fewer
        fields = [
            one
            for one in model._meta.concrete_fields
            if isinstance(one, models.FileField) and one.column in known
        ]
        hashed = HASHED in known and any(one.name == HASHED for one in model._meta.concrete_fields)
        for field in fields:
            of_this = hashed and (len(fields) == 1 or field.name == FIRST)
            columns = [field.name, HASHED] if of_this else [field.name]
            named = model._default_manager.exclude(**{field.name: ""}).order_by("pk")
            for row in named.values_list(*columns).iterator(AT_A_TIME):
                yield Named(str(row[0]), (row[1] or None) if of_this else None)


def _columns() -> dict[str, set[str]]:
    found: dict[str, set[str]] = {}
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT table_name, column_name FROM information_schema.columns "
            "WHERE table_schema = current_schema()"
        )
        for table, column in cursor.fetchall():
            found.setdefault(table, set()).add(column)
    return found


def missing(names: list[str]) -> list[str]:
    """Files of these that are not there."""
    return [name for name in names if not default_storage.exists(name)]
