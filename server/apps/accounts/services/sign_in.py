"""Check a name and a password: budgets by address and name, known devices, no connection held meanwhile."""

from __future__ import annotations

import logging
import secrets
import threading
from collections.abc import Iterator
from contextlib import contextmanager

from api.connection import release_connection
from api.errors import Refusal
from django.core import signing
from django.http import HttpRequest, HttpResponse
from limits import RateLimitItem

from apps.accounts import budgets
from apps.accounts.budgets import ADDRESS, CALLS, DEVICE, NAME, PAIR, forget, give_back, spend, spent
from apps.accounts.models import User
from apps.accounts.services.second_factor import has_factor, take_code
from welding.language import tr, tr_noop

log = logging.getLogger("sign-in")

COOKIE = "bead_device"
COOKIE_DAYS = 365
_SALT = "known-device"
LONGEST_PASSWORD = 200
# Hashing is meant to be slow. More than this many at a time would leave nothing for anyone else.
_AT_A_TIME = threading.BoundedSemaphore(2)
PATIENCE_S = 40


class ThrottledError(Refusal):
    """Too many failed sign-ins, of this name or from this address."""

    status, type, title = 429, "throttled", tr_noop("Too many attempts")


class CodeNeededError(Refusal):
    """Name and password fit; a code is asked for beside them."""

    status, type, title = 422, "code-needed", tr_noop("Code")


class BusyError(Refusal):
    """The server is busy with other sign-ins."""

    status, type, title = 503, "busy", "Busy"


def checked(request: HttpRequest, username: str, password: str, code: str | None = None) -> User | None:
    """The active person of this name and password, and of a code where one is asked for.

    Failures are counted by name and address, by address, and by name. A refused attempt counts nowhere,
    so that nobody's lock is prolonged by others. A device that the person signed in on before stays open
    when strangers have used up the name's budget; else an administrator opens it (``./bead unlock NAME``).

    Args:
        request: The request.
        username: Name to sign in with.
        password: Password.
        code: Where a second factor counts: what was typed, empty at first. Without it none is asked for.

    Raises:
        ThrottledError: A budget is used up.
        CodeNeededError: Name and password fit; the person's code is missing.
        BusyError: Too many passwords are being checked at once.
    """
    address = request.META.get("REMOTE_ADDR", "")
    name = username[:150]
    device = known_device(request, name)
    taken = _take(name, address, device)
    user = User.objects.filter(username=name, is_active=True).first()
    with _one_of_few():
        if user is None:
            User().set_password(password[:LONGEST_PASSWORD])  # takes as long as a real one
            fits = False
        else:
            fits = len(password) <= LONGEST_PASSWORD and user.check_password(password)
    asked = fits and user is not None and code is not None and has_factor(user)
    if asked and code and user is not None:
        fits = take_code(user, code)
    if fits:
        for item, *names in taken:
            give_back(item, *names)
        if asked and not code:
            raise CodeNeededError(tr("Enter the code of your device, or one of your recovery codes."))
        forget(PAIR, "pair", name, address)
        budgets.sweep()
        return user
    _tell_failure(name, address, device)
    return None


_Taken = list[tuple[RateLimitItem, str, str] | tuple[RateLimitItem, str, str, str]]


def _take(name: str, address: str, device: str) -> _Taken:
    """Take one of every budget before the password is looked at: many at once must not slip through.

    A budget that is used up is only asked, so that a refused attempt takes nothing. What was taken is
    given back when the password fits.
    """
    if not spend(CALLS, "calls", address):
        raise ThrottledError(tr("Too many sign-ins from this address. Try again in a minute."))
    budgets_of: _Taken = [(PAIR, "pair", name, address)]
    budgets_of += (
        [(DEVICE, "device", device)] if device else [(ADDRESS, "address", address), (NAME, "name", name)]
    )
    for item, *names in budgets_of:
        if spent(item, *names):
            raise ThrottledError(tr(_SAID[item]))
    for item, *names in budgets_of:
        if not spend(item, *names):
            raise ThrottledError(tr(_SAID[item]))
    return budgets_of


_SAID = {
    PAIR: tr_noop("Too many failed sign-ins. Try again in 15 minutes, or ask an administrator."),
    DEVICE: tr_noop(
        "Too many failed sign-ins from this device. Try again in an hour, or ask an administrator."
    ),
    ADDRESS: tr_noop("Too many failed sign-ins from this address. Try again in 15 minutes."),
    NAME: tr_noop(
        "Too many failed sign-ins of this name. Sign in on a device that you have used "
        "before, or ask an administrator to unlock it."
    ),
}


def _tell_failure(name: str, address: str, device: str) -> None:
    told = {"name": name, "address": address}
    log.warning("sign-in failed: %(name)r from %(address)s", told)
    if spent(PAIR, "pair", name, address):
        log.warning("sign-in locked for %(name)r from %(address)s", told)
    if not device and spent(ADDRESS, "address", address):
        log.warning("sign-in locked for every name from %(address)s", told)
    if not device and spent(NAME, "name", name):
        log.warning("sign-in locked for %(name)r from unknown devices", told)


@contextmanager
def _one_of_few() -> Iterator[None]:
    """Hash one of a few at a time, and hold no database connection while waiting for the turn."""
    release_connection()
    if not _AT_A_TIME.acquire(timeout=PATIENCE_S):
        raise BusyError(tr("The server is busy with other sign-ins. Try again in a moment."))
    try:
        yield
    finally:
        _AT_A_TIME.release()


def known_device(request: HttpRequest, name: str) -> str:
    """The device's own mark, where this person signed in on it before; else empty."""
    try:
        found = signing.loads(request.COOKIES.get(COOKIE, ""), salt=_SALT, max_age=COOKIE_DAYS * 86_400)
    except signing.BadSignature:
        return ""
    named = isinstance(found, dict) and name in found.get("names", ())
    return str(found["device"]) if named else ""


def remember_device(request: HttpRequest, response: HttpResponse, name: str) -> None:
    """Mark the device as one that this person signs in on, beside the last few others."""
    try:
        found = signing.loads(request.COOKIES.get(COOKIE, ""), salt=_SALT, max_age=COOKIE_DAYS * 86_400)
        device, names = str(found["device"]), [one for one in found["names"] if one != name]
    except (signing.BadSignature, KeyError, TypeError):
        device, names = secrets.token_urlsafe(16), []
    value = signing.dumps({"device": device, "names": [*names, name][-8:]}, salt=_SALT)
    response.set_cookie(
        COOKIE, value, max_age=COOKIE_DAYS * 86_400, httponly=True, samesite="Lax", secure=request.is_secure()
    )


def unlock(name: str) -> None:
    """Begin a name's budget anew, as an administrator does; a single address's budget runs out by itself."""
    budgets.forget(NAME, "name", name)
    log.warning("sign-in of %r unlocked by an administrator", name)
