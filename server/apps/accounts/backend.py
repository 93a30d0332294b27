"""Signing in under /admin/ has the same budgets as everywhere else."""

from __future__ import annotations

from typing import Any

from api.errors import Refusal
from django.contrib.auth.backends import ModelBackend
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest

from apps.accounts.models import User
from apps.accounts.services.second_factor import has_factor
from apps.accounts.services.sign_in import checked


class GuardedBackend(ModelBackend):
    """Name and password, throttled."""

    def authenticate(
        self, request: HttpRequest | None, username: str | None = None, password: str | None = None, **_: Any
    ) -> User | None:
        """The person, or nobody.

        Raises:
            PermissionDenied: A budget is used up.
        """
        if request is None or username is None or password is None:
            return None
        try:
            found = checked(request, username, password)
        except Refusal as refused:
            raise PermissionDenied(refused.detail) from None
        if found is not None and has_factor(found):
            # The form there asks for no code: who has a second factor signs in on the page first.
            raise PermissionDenied
        return found
