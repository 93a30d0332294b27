"""Sessions are noted as they are used, and end when nobody uses them."""

from __future__ import annotations

from collections.abc import Callable

from apps.accounts.services.keep_sessions import note_use
from django.http import HttpRequest, HttpResponse


class SessionsInUse:
    """Where something can be read or changed: the page itself opens without the database."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Note it, then go on."""
        if request.path.startswith(("/api/", "/admin/")):
            note_use(request)
        return self._get_response(request)
