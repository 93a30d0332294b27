"""Whoever signs, or changes who may, enters the password again."""

from __future__ import annotations

from api.errors import InvalidError, NotAllowedError
from django.http import HttpRequest

from apps.accounts.models import User
from apps.accounts.services.second_factor import is_due
from apps.accounts.services.sign_in import checked
from welding.language import tr


def confirm_person(request: HttpRequest, user: User, password: str, *, signs: bool = True) -> None:
    """Whoever signs enters the password again; throttled like signing in.

    Args:
        request: The request.
        user: Who is signed in.
        password: What was entered.
        signs: Whether something is signed; else it is changed, and the sentences say so.

    Raises:
        InvalidError: The password does not fit.
        NotAllowedError: Somebody else set the password: its owner changes it first; or a second factor
            is due.
    """
    found = checked(request, user.username, password)
    if found is None or found.pk != user.pk:
        unsaid = tr("The password does not fit: nothing was signed.")
        raise InvalidError(
            unsaid if signs else tr("The password does not fit: nothing was changed."),
            errors=[{"path": "password", "message": tr("does not fit"), "value": ""}],
        )
    if is_due(found):
        raise NotAllowedError(
            tr("Set up a second factor first (menu under your name); the shop asks for it of whoever signs.")
        )
    if not found.password_own and not signs:
        raise NotAllowedError(tr("Somebody else set your password. Change it first, then go on."))
    if not found.password_own:
        raise NotAllowedError(
            tr(
                "Your password was set by an administrator, who knows it too: a signature with "
                "it would prove nothing. Change your password, then sign."
            )
        )
