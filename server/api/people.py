"""The person behind a request."""

from typing import TYPE_CHECKING, cast

from django.http import HttpRequest

if TYPE_CHECKING:
    from apps.accounts.models import User


def person(request: HttpRequest) -> "User":
    """The signed-in person; the API's authentication has made sure there is one."""
    return cast("User", request.user)
