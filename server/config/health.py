"""Whether the server lives, and whether it can answer: for proxies, load balancers and alarms."""

from __future__ import annotations

import logging
import os
import tempfile
from collections.abc import Callable

from django.conf import settings
from django.db import DEFAULT_DB_ALIAS, DatabaseError, connections
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, JsonResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

log = logging.getLogger("health")


@require_safe
@never_cache
def live(request: HttpRequest) -> JsonResponse:
    """The process answers; nothing else is asked, so that a dead database restarts no web server."""
    return JsonResponse({"live": True})


@require_safe
@never_cache
def ready(request: HttpRequest) -> JsonResponse:
    """Whether requests can be served: 200, or 503 with the names of what fails; why stands in the log."""
    failing = [name for name, check in CHECKS.items() if not _holds(name, check)]
    return JsonResponse({"ready": not failing, "failing": failing}, status=503 if failing else 200)


def _holds(name: str, check: Callable[[], bool]) -> bool:
    try:
        return check()
    except (DatabaseError, OSError):
        log.exception("not ready: %s", name)
        return False


def _database() -> bool:
    with connections[DEFAULT_DB_ALIAS].cursor() as cursor:
        cursor.execute("SELECT 1")
        return bool(cursor.fetchone() == (1,))


_migrated: list[bool] = []


def _migrations() -> bool:
    """Every migration of this program is applied. Once it is so it stays so as long as the process lives."""
    if not _migrated:
        executor = MigrationExecutor(connections[DEFAULT_DB_ALIAS])
        if executor.migration_plan(executor.loader.graph.leaf_nodes()):
            return False
        _migrated.append(True)
    return True


def _files() -> bool:
    """Uploads and recordings can be written."""
    os.makedirs(settings.MEDIA_ROOT, mode=0o700, exist_ok=True)
    with tempfile.TemporaryFile(dir=settings.MEDIA_ROOT) as probe:
        probe.write(b"ready")
        probe.flush()
    return True


def _screen() -> bool:
    return bool((settings.WEB_DIST / "index.html").is_file())


CHECKS: dict[str, Callable[[], bool]] = {
    "database": _database,
    "migrations": _migrations,
    "files": _files,
    "screen": _screen,
}
