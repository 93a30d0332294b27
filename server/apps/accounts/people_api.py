"""People who sign in: listed, invited, changed by an administrator; an invitation is accepted by its link."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime
from typing import Annotated, Any

from api.errors import InvalidError, ProblemOut
from api.people import person
from api.text import GivenLine, Line
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status
from pydantic import Field, StringConstraints

from apps.accounts.api import CsrfOnly, Secret
from apps.accounts.budgets import CALLS, NAME, spend, spent_of
from apps.accounts.invitations import DAYS, invited
from apps.accounts.models import Role, User
from apps.accounts.permissions import Action, require
from apps.accounts.services.confirm_person import confirm_person
from apps.accounts.services.keep_people import (
    LONGEST_NAME,
    LONGEST_USERNAME,
    PersonEntry,
    accept_invitation,
    change_person,
    invite_person,
    reset_password,
    state_of,
)
from apps.accounts.services.sign_in import ThrottledError, unlock
from welding.language import tr

router = Router(tags=["people"])
REFUSALS: dict[Any, Any] = {
    403: ProblemOut,
    404: ProblemOut,
    409: ProblemOut,
    422: ProblemOut,
    429: ProblemOut,
}
FullName = Annotated[GivenLine, Field(max_length=LONGEST_NAME)]
MOST_JOBS = 500
OnlyJobs = Annotated[list[Annotated[int, Field(ge=1, le=2**53)]] | None, Field(max_length=MOST_JOBS)]
"""Jobs that somebody from outside sees; all without."""
Token = Annotated[str, StringConstraints(min_length=1, max_length=400)]


class AccountOut(Schema):
    """A person who may sign in; ``seen`` goes back with a change."""

    id: int
    username: str
    name: str
    role: Role
    active: bool
    only_jobs: list[int] | None
    invited: bool
    password_own: bool
    locked: bool
    second_factor: bool
    last_login: datetime | None
    seen: str


class InviteIn(Schema):
    """Somebody to be invited; the password is that of whoever invites."""

    username: Annotated[Line, Field(max_length=LONGEST_USERNAME)]
    name: FullName
    role: Role
    only_jobs: OnlyJobs = None
    password: Secret


class InvitationOut(Schema):
    """The token for the link by which the person sets a password; it is shown this once."""

    person: AccountOut
    token: str
    days: int


class AccountChangeIn(Schema):
    """What is to stand of a person, over the state that was looked at."""

    name: FullName
    role: Role
    active: bool
    only_jobs: OnlyJobs
    seen: Annotated[str, StringConstraints(max_length=64)]
    password: Secret


class ConfirmedIn(Schema):
    """The password of whoever does it."""

    password: Secret


class TokenIn(Schema):
    """An invitation."""

    token: Token


class InvitedOut(Schema):
    """Whose invitation it is."""

    username: str
    name: str


class AcceptIn(TokenIn):
    """An invitation, and the password that its person chose."""

    password: Secret


@router.get("/people", response={200: list[AccountOut], 403: ProblemOut})
def people(request: HttpRequest) -> list[AccountOut]:
    """Everybody who may sign in, or might once."""
    require(person(request), Action.KEEP_PEOPLE)
    everybody = User.objects.select_related("second_factor")
    rows = list(everybody.order_by("-is_active", "first_name", "last_name", "username"))
    locked = spent_of(NAME, "name", [one.username for one in rows])
    return [_out(one, locked) for one in rows]


@router.post("/people", response={201: InvitationOut, **REFUSALS})
def invite(request: HttpRequest, payload: InviteIn) -> Status[InvitationOut]:
    """Invite a person: who has the link sets the password."""
    user = _administrator(request, payload.password)
    entry = PersonEntry(name=payload.name, role=payload.role, only_jobs=_only(payload.only_jobs))
    made, token = invite_person(user, payload.username, entry)
    return Status(201, InvitationOut(person=_out(made), token=token, days=DAYS))


@router.put("/people/{int:person_id}", response={200: AccountOut, **REFUSALS})
def change(request: HttpRequest, person_id: int, payload: AccountChangeIn) -> AccountOut:
    """Change name, role or access."""
    user = _administrator(request, payload.password)
    entry = PersonEntry(
        name=payload.name,
        role=payload.role,
        active=payload.active,
        only_jobs=_only(payload.only_jobs),
    )
    try:
        return _out(change_person(user, person_id, payload.seen, entry))
    except User.DoesNotExist:
        raise Http404 from None


@router.post("/people/{int:person_id}/reset", response={200: InvitationOut, **REFUSALS})
def reset(request: HttpRequest, person_id: int, payload: ConfirmedIn) -> InvitationOut:
    """Take a password away: the person is signed out, and sets a new one by the link."""
    user = _administrator(request, payload.password)
    try:
        found, token = reset_password(user, person_id)
    except User.DoesNotExist:
        raise Http404 from None
    return InvitationOut(person=_out(found), token=token, days=DAYS)


@router.post("/people/{int:person_id}/unlock", response={204: None, **REFUSALS})
def let_in(request: HttpRequest, person_id: int) -> Status[None]:
    """Let somebody try again whose name was locked by too many failed sign-ins."""
    require(person(request), Action.KEEP_PEOPLE)
    unlock(get_object_or_404(User, pk=person_id).username)
    return Status(204, None)


@router.post("/invitations/look", response={200: InvitedOut, **REFUSALS}, auth=CsrfOnly())
def look(request: HttpRequest, payload: TokenIn) -> InvitedOut:
    """Whose invitation it is."""
    _throttled(request)
    found = invited(payload.token)
    if found is None:
        said = tr("This link is used, replaced or too old. Ask an administrator for a new one.")
        raise InvalidError(said, errors=[{"path": "token", "message": said, "value": ""}])
    return InvitedOut(username=found.username, name=found.shown_name)


@router.post("/invitations", response={200: InvitedOut, **REFUSALS}, auth=CsrfOnly())
def accept(request: HttpRequest, payload: AcceptIn) -> InvitedOut:
    """Set the password that the person chose; then the person signs in with it."""
    _throttled(request)
    found = accept_invitation(payload.token, payload.password)
    return InvitedOut(username=found.username, name=found.shown_name)


def _only(jobs: list[int] | None) -> tuple[int, ...] | None:
    return None if jobs is None else tuple(jobs)


def _administrator(request: HttpRequest, password: str) -> User:
    user = person(request)
    require(user, Action.KEEP_PEOPLE)
    confirm_person(request, user, password, signs=False)
    return user


def _throttled(request: HttpRequest) -> None:
    if not spend(CALLS, "calls", request.META.get("REMOTE_ADDR", "")):
        raise ThrottledError(tr("Too many sign-ins from this address. Try again in a minute."))


def _out(one: User, locked: Collection[str] | None = None) -> AccountOut:
    if locked is None:
        locked = spent_of(NAME, "name", [one.username])
    return AccountOut(
        id=one.pk,
        username=one.username,
        name=one.shown_name,
        role=Role(one.role),
        active=one.is_active,
        only_jobs=one.only_jobs,
        invited=not one.has_usable_password(),
        password_own=one.password_own,
        locked=one.username in locked,
        second_factor=hasattr(one, "second_factor"),
        last_login=one.last_login,
        seen=state_of(one),
    )
