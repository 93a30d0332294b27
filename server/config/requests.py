"""Every request has a number: in its answer, in each line of the log about it, and in the proxy's."""

from __future__ import annotations

import logging
import re
import time
import uuid
from collections.abc import Callable
from typing import Any

from django.db import connection
from django.http import HttpRequest, HttpResponse
from structlog.contextvars import bound_contextvars

log = logging.getLogger("request")

HEADER = "X-Request-ID"
SLOW_S = 1.0
SLOW_QUERY_S = 0.5
MOST_TOLD = 2000
"""So many characters of a query are told."""
_SANE = re.compile(r"[A-Za-z0-9-]{8,64}")
READS = ("GET", "HEAD", "OPTIONS")


def _telling_if_slow(
    execute: Callable[..., Any], sql: str, params: Any, many: bool, context: dict[str, Any]
) -> Any:
    """Ask the database; a query that took long stands in the log, without its values."""
    began = time.monotonic()
    try:
        return execute(sql, params, many, context)
    finally:
        took_s = time.monotonic() - began
        if took_s > SLOW_QUERY_S:
            log.warning("query of %.0f ms: %s", took_s * 1000, sql[:MOST_TOLD])


class Numbered:
    """Number a request; log it where it changed something, failed, or was slow. Reads are the proxy's.

    A query that took long is logged, too, under the number of its request.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer, with the number."""
        given = request.headers.get(HEADER, "")
        number = given if _SANE.fullmatch(given) else uuid.uuid4().hex
        began = time.monotonic()
        with bound_contextvars(request_id=number), connection.execute_wrapper(_telling_if_slow):
            response = self._get_response(request)
            took_s = time.monotonic() - began
            if request.method not in READS or response.status_code >= 500 or took_s > SLOW_S:
                self._tell(request, response, took_s)
        response[HEADER] = number
        return response

    @staticmethod
    def _tell(request: HttpRequest, response: HttpResponse, took_s: float) -> None:
        match = request.resolver_match
        # The route and not the address: that may carry the key of a calendar.
        route = match.route if match is not None else "?"
        # Whoever was looked up on the way; nobody is looked up for the log's sake, the database may be away.
        who = getattr(request.__dict__.get("_cached_user"), "pk", None)
        log.info(
            "%s %s %s in %.0f ms, person %s",
            request.method,
            route,
            response.status_code,
            took_s * 1000,
            who if who is not None else "-",
        )
