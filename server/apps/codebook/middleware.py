"""Every answer of the API is computed with the organisation's book laid over the tables."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from apps.codebook.queries import current_book
from welding.codebook.book import using


class BookInForce:
    """Lay the book over the code tables for the length of a request."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Only people who are signed in are answered from the tables."""
        if not request.path.startswith("/api/") or not request.user.is_authenticated:
            return self._get_response(request)
        with using(current_book()):
            return self._get_response(request)
