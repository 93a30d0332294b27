"""The page that the browser application lives in."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe


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
