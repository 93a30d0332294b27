"""Whoever signs enters the password again."""

from __future__ import annotations

from api.errors import InvalidError, NotAllowedError
from django.http import HttpRequest

from apps.accounts.models import User
from apps.accounts.services.sign_in import checked
from welding.language import tr


def confirm_person(request: HttpRequest, user: User, password: str) -> None:
    """Whoever signs enters the password again; throttled like signing in.

    Raises:
        InvalidError: The password does not fit.
        NotAllowedError: Somebody else set the password: its owner changes it first.
    """
    found = checked(request, user.username, password)
    if found is None or found.pk != user.pk:
        raise InvalidError(
            tr("The password does not fit: nothing was signed."),
            errors=[{"path": "password", "message": tr("does not fit"), "value": ""}],
        )
    if not found.password_own:
        raise NotAllowedError(
            tr(
                "Your password was set by an administrator, who knows it too: a signature with "
                "it would prove nothing. Change your password, then sign."
            )
        )
