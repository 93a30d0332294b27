"""What the role that serves people may do in the database, table by table."""

from __future__ import annotations

from typing import Any, LiteralString

from django.db import connection
from psycopg import sql

from apps.audit.triggers import CONTEXT, linked_tables

LINKS = "audit_link"
ALL = "riud"
RIGHTS: dict[str, LiteralString] = {
    "r": "GRANT SELECT ON TABLE {table} TO {role}",
    "i": "GRANT INSERT ON TABLE {table} TO {role}",
    "u": "GRANT UPDATE ON TABLE {table} TO {role}",
    "d": "GRANT DELETE ON TABLE {table} TO {role}",
}


def grant_serving(role: str) -> None:
    """Rights of the serving role: evidence and trail are read and added to, links are read, the rest changes.

    It owns nothing, so it can neither empty a table nor switch a trigger off.
    """
    told = {
        **dict.fromkeys(linked_tables(), "ri"),
        # The same request writes its line again with every event; a trigger sees that nothing changes.
        CONTEXT: "riu",
        LINKS: "r",
        "django_migrations": "r",
    }
    with connection.cursor() as cursor:
        tables = [one.name for one in connection.introspection.get_table_list(cursor)]
        for table in tables:
            _run(cursor, "REVOKE ALL ON TABLE {table} FROM {role}", role, table)
            for right in told.get(table, ALL):
                _run(cursor, RIGHTS[right], role, table)
        _run(cursor, "GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO {role}", role)
        _run(cursor, "REVOKE ALL ON SEQUENCE audit_link_id_seq FROM {role}", role)


def _run(cursor: Any, statement: LiteralString, role: str, table: str = "") -> None:
    cursor.execute(sql.SQL(statement).format(role=sql.Identifier(role), table=sql.Identifier(table or role)))
