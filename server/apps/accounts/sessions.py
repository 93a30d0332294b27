"""Whether a request comes from somebody who is signed in, asked before anything large is read from it."""

from __future__ import annotations

from http.cookies import CookieError, SimpleCookie
from typing import Any

from api.connection import release_connection
from django.conf import settings
from django.utils import timezone


def is_signed_in(environ: dict[str, Any]) -> bool:
    """Whether its session is there. What the person may do is asked later; this only keeps strangers out."""
    try:
        cookies = SimpleCookie(environ.get("HTTP_COOKIE", ""))
    except CookieError:
        return False
    found = cookies.get(settings.SESSION_COOKIE_NAME)
    if found is None or not found.value.isalnum():
        return False
    from django.contrib.sessions.models import Session  # the applications are loaded after this module

    try:
        return Session.objects.filter(session_key=found.value[:40], expire_date__gt=timezone.now()).exists()
    finally:
        release_connection()
