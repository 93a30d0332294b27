"""The database connection of a request: given back while something slow is done without it."""

from __future__ import annotations

from django.db import connection


def release_connection() -> None:
    """Give the connection back to the pool; the next query takes one anew. Within a transaction it stays."""
    if not connection.in_atomic_block:
        connection.close()
