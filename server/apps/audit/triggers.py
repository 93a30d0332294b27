"""What the database itself does for the trail: it links every row, and refuses to change or drop one."""

from __future__ import annotations

from pathlib import Path
from typing import Any, LiteralString

from django.apps import apps
from django.db import connections
from psycopg import sql

CONTEXT = "pghistory_context"
FUNCTIONS = Path(__file__).with_name("chain.sql")


def linked_tables() -> dict[str, str]:
    """Tables whose rows are linked, each with its primary key: all events, and what is signed or said."""
    found = {}
    for model in apps.get_models():
        meta = model._meta
        if hasattr(model, "pgh_tracked_model") or meta.label in (
            "qualification.QualificationRecord",
            "qualification.Signature",
            "qualification.Amendment",
            "codebook.Entry",
            "crew.Certificate",
            "crew.Statement",
        ):
            found[meta.db_table] = str(meta.pk.column)
    return dict(sorted(found.items()))


def attach(using: str) -> None:
    """Make functions and triggers anew; link what stood there before the chain began."""
    connection = connections[using]
    with connection.cursor() as cursor:
        there = set(connection.introspection.table_names(cursor))
        if "audit_link" not in there or CONTEXT not in there:
            return
        cursor.execute(FUNCTIONS.read_text())
        tables = {name: key for name, key in linked_tables().items() if name in there}
        for name, key in tables.items():
            _guard(cursor, name, "audit_stays")
            # At commit: the lock on the chain's end is held for as short as can be.
            cursor.execute(_sql("DROP TRIGGER IF EXISTS audit_link ON {table}", name))
            cursor.execute(
                _sql(
                    "CREATE CONSTRAINT TRIGGER audit_link AFTER INSERT ON {table} DEFERRABLE "
                    "INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION audit_link({key})",
                    name,
                    key=sql.Literal(key),
                )
            )
        _guard(cursor, "audit_link", "audit_stays")
        _guard(cursor, CONTEXT, "audit_request_stays")
        cursor.execute("SELECT EXISTS (SELECT 1 FROM audit_link)")
        if not cursor.fetchone()[0]:
            for name, key in tables.items():
                cursor.execute("SELECT audit_begin(%s, %s)", [name, key])


def _guard(cursor: Any, name: str, function: str) -> None:
    """Refuse to change or remove a row."""
    cursor.execute(_sql("DROP TRIGGER IF EXISTS audit_stays ON {table}", name))
    cursor.execute(
        _sql(
            "CREATE TRIGGER audit_stays BEFORE UPDATE OR DELETE ON {table} "
            "FOR EACH ROW EXECUTE FUNCTION {function}()",
            name,
            function=sql.Identifier(function),
        )
    )


def _sql(text: LiteralString, table: str, **parts: sql.Composable) -> sql.Composed:
    return sql.SQL(text).format(table=sql.Identifier(table), **parts)
