"""The person behind a request."""

from typing import TYPE_CHECKING, cast

from django.http import HttpRequest

from api.errors import Refusal
from welding.language import tr, tr_noop

if TYPE_CHECKING:
    from apps.accounts.models import User


def person(request: HttpRequest) -> "User":
    """The signed-in person; the API's authentication has made sure there is one."""
    return cast("User", request.user)


class OtherPersonError(Refusal):
    """It was saved by somebody else than who is signed in now."""

    status, type, title = 403, "other-person", tr_noop("Saved by somebody else")


def sender(request: HttpRequest, saved_by: int | None) -> "User":
    """The signed-in person, who must be the one that saved on the device what arrives now.

    Args:
        request: The request.
        saved_by: Id of whoever was signed in when it was saved, where the device says so.

    Raises:
        OtherPersonError: Another one is signed in: the entry would bear a wrong name.
    """
    user = person(request)
    if saved_by is not None and saved_by != user.pk:
        raise OtherPersonError(
            tr("Somebody else saved this on the device. It is sent once that person signs in there.")
        )
    return user
