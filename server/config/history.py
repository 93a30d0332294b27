"""Who and where, for the audit trail."""

from typing import cast

from django.http import HttpRequest, HttpResponse
from pghistory.middleware import HistoryMiddleware


class HistoryOfChanges(HistoryMiddleware):  # type: ignore[misc]  # the library has no types
    """Only where something can be changed: the page itself must open while the database is away."""

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Note the person and the address, then go on."""
        if request.path.startswith(("/api/", "/admin/")):
            return cast(HttpResponse, super().__call__(request))
        return cast(HttpResponse, self.get_response(request))
