"""Sessions of a person: noted as they are used, ended when idle, seen and ended by the person."""

from __future__ import annotations

import logging
from datetime import timedelta

from django.conf import settings
from django.contrib.auth import logout
from django.contrib.sessions.models import Session
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone

from apps.accounts.models import SeenSession, User

log = logging.getLogger("sign-in")

NOTED_EVERY = timedelta(minutes=1)
"""Last use is noted so often; a write with every request would be many for nothing."""
KEPT = timedelta(days=15)
"""A day longer than any session lasts."""


def note_use(request: HttpRequest) -> None:
    """Note that the session is used; one that was idle for too long ends here, and nobody is signed in."""
    user, key = request.user, request.session.session_key
    if not isinstance(user, User) or key is None:
        return
    now = timezone.now()
    found = SeenSession.objects.filter(key=key).first()
    if found is None:
        _begin(request, user, key)
    elif now - found.last_at > timedelta(hours=settings.IDLE_HOURS):
        log.info("session of %r ended after %s hours without use", user.username, settings.IDLE_HOURS)
        found.delete()
        logout(request)
    elif now - found.last_at > NOTED_EVERY:
        SeenSession.objects.filter(pk=found.pk).update(last_at=now)


def _begin(request: HttpRequest, user: User, key: str) -> None:
    now = timezone.now()
    row = SeenSession(
        key=key,
        person=user,
        began_at=now,
        last_at=now,
        address=str(request.META.get("REMOTE_ADDR", ""))[:64],
        agent=str(request.META.get("HTTP_USER_AGENT", ""))[:300].replace("\x00", ""),
    )
    SeenSession.objects.bulk_create([row], ignore_conflicts=True)  # of two requests at once one is first


def drop_ended() -> None:
    """Drop what is left of sessions that ended long ago."""
    SeenSession.objects.filter(last_at__lt=timezone.now() - KEPT).delete()


def sessions_of(user: User) -> list[SeenSession]:
    """Those that are open, the last used first."""
    now = timezone.now()
    rows = SeenSession.objects.filter(person=user, last_at__gt=now - timedelta(hours=settings.IDLE_HOURS))
    found = list(rows.order_by("-last_at"))
    there = Session.objects.filter(session_key__in=[one.key for one in found], expire_date__gt=now)
    keys = set(there.values_list("session_key", flat=True))
    return [one for one in found if one.key in keys]


@transaction.atomic
def end_sessions(user: User, *, keep: str | None, only: int | None = None) -> int:
    """End sessions of a person; returns how many.

    Args:
        user: Whose; nobody ends sessions of others here.
        keep: Key of the session that stays.
        only: The one that ends; all others but ``keep`` without it.
    """
    rows = SeenSession.objects.filter(person=user).exclude(key=keep or "")
    if only is not None:
        rows = rows.filter(pk=only)
    keys = list(rows.values_list("key", flat=True))
    ended, _ = Session.objects.filter(session_key__in=keys).delete()
    rows.delete()
    if ended:
        log.info("%r ended %s of the own sessions", user.username, ended)
    return ended


_BROWSERS = (("Edg", "Edge"), ("Firefox", "Firefox"), ("Chrom", "Chromium"), ("Safari", "Safari"))
_SYSTEMS = (
    ("Android", "Android"),
    ("iPhone", "iPhone"),
    ("iPad", "iPad"),
    ("Windows", "Windows"),
    ("Mac OS", "macOS"),
    ("Linux", "Linux"),
)


def device_of(agent: str) -> str:
    """Browser and system as people call them; empty where the browser does not say."""
    found = [next((word for mark, word in pairs if mark in agent), "") for pairs in (_BROWSERS, _SYSTEMS)]
    return ", ".join(word for word in found if word)
