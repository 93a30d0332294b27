"""A person changes the own password."""

from __future__ import annotations

from api.errors import InvalidError
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest

from apps.accounts.models import User
from apps.accounts.services.sign_in import checked
from welding.language import tr


def change_password(request: HttpRequest, user: User, current: str, new: str) -> User:
    """Replace the own password; all other sessions of the person end.

    Raises:
        ThrottledError: The present password was mistyped too often.
        InvalidError: The present password does not fit, or the new one is too weak or the same.
    """
    found = checked(request, user.username, current)
    if found is None or found.pk != user.pk:
        raise _at("current", tr("The present password does not fit: nothing was changed."))
    if new == current:
        raise _at("new", tr("The new password is the present one."))
    try:
        validate_password(new, found)
    except ValidationError as error:
        raise _at("new", " ".join(error.messages)) from None
    with transaction.atomic():
        changed = User.objects.select_for_update().get(pk=found.pk)
        changed.set_own_password(new)
        changed.save(update_fields=["password", "password_own", "password_set_at"])
    return changed


def _at(path: str, message: str) -> InvalidError:
    return InvalidError(message, errors=[{"path": path, "message": message, "value": ""}])
