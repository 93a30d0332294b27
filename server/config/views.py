"""The page that the browser application lives in."""

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe


class NothingKept:
    """What the API and the admin pages say is kept in no cache: it is evidence, and it is somebody's."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer, with the word to caches."""
        response = self._get_response(request)
        if request.path.startswith(("/api/", "/admin/")):
            response["Cache-Control"] = "no-store"
        return response


@require_safe
@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Serve the built page; its routes are the browser's."""
    index = settings.WEB_DIST / "index.html"
    if not index.is_file():
        return HttpResponse(
            "The front end is not built yet: run ./bead demo.", status=503, content_type="text/plain"
        )
    return HttpResponse(index.read_bytes(), content_type="text/html; charset=utf-8")
