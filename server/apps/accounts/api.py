"""Signing in and out."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from api.errors import InvalidError, ProblemOut
from api.people import person
from django.conf import settings
from django.contrib.auth import login, logout, update_session_auth_hash
from django.http import Http404, HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router, Schema
from ninja.security import APIKeyCookie
from pydantic import StringConstraints, WithJsonSchema

from apps.accounts.models import Role, User
from apps.accounts.permissions import ALLOWED, Action
from apps.accounts.services.change_password import change_password
from apps.accounts.services.keep_sessions import device_of, drop_ended, end_sessions, sessions_of
from apps.accounts.services.second_factor import is_due
from apps.accounts.services.sign_in import checked, remember_device
from welding.language import tr

router = Router(tags=["session"])


class CsrfOnly(APIKeyCookie):
    """No session yet, but the CSRF token must be right."""

    param_name = settings.CSRF_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Accept whoever brought the token; the base class has checked it."""
        return True


ActionName = Annotated[str, WithJsonSchema({"enum": [one.name for one in Action], "type": "string"})]


class PersonOut(Schema):
    """Who is signed in, and what this person may do."""

    id: int
    username: str
    name: str
    role: str
    allowed: list[ActionName]
    password_own: bool
    all_jobs: bool
    factor_due: bool


class DemoPersonOut(Schema):
    """Someone to sign in as with one click, in the demo only."""

    username: str
    name: str
    role: str


class SessionOut(Schema):
    """The session as the page needs it at the start."""

    person: PersonOut | None
    demo: list[DemoPersonOut]


Secret = Annotated[str, StringConstraints(max_length=200)]


class SignIn(Schema):
    """A sign-in."""

    username: Annotated[str, StringConstraints(max_length=150)]
    password: Secret
    code: Annotated[str, StringConstraints(max_length=40)] = ""


class PasswordIn(Schema):
    """The present password and the one to come."""

    current: Secret
    new: Secret


class DemoSignIn(Schema):
    """A sign-in with one click."""

    username: Annotated[str, StringConstraints(max_length=150)]


def _person(user: User) -> PersonOut:
    return PersonOut(
        id=user.pk,
        username=user.username,
        name=user.shown_name,
        role=user.role,
        allowed=sorted(action.name for action in ALLOWED[Role(user.role)]),
        password_own=user.password_own,
        all_jobs=user.only_jobs is None,
        factor_due=is_due(user),
    )


def _session(request: HttpRequest) -> SessionOut:
    get_token(request)  # sets the cookie that every change has to bring back
    demo = []
    if settings.DEMO:
        demo = [
            DemoPersonOut(username=one.username, name=one.shown_name, role=one.role)
            for one in User.objects.filter(is_active=True, username__startswith="demo-").order_by("id")
        ]
    user = request.user
    return SessionOut(person=_person(user) if isinstance(user, User) else None, demo=demo)


@router.get("/session", response=SessionOut, auth=None)
def session(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return _session(request)


BACKEND = "apps.accounts.backend.GuardedBackend"


@router.post("/session", response={200: SessionOut, 422: ProblemOut, 429: ProblemOut}, auth=CsrfOnly())
def sign_in(request: HttpRequest, response: HttpResponse, payload: SignIn) -> SessionOut:
    """Sign in with name and password; throttled."""
    user = checked(request, payload.username, payload.password, payload.code)
    if user is None and payload.code:
        said = tr("Name, password and code do not fit, or the code was used.")
        raise InvalidError(said, errors=[{"path": "code", "message": said, "value": ""}])
    if user is None:
        raise InvalidError(
            tr("Name and password do not fit."),
            errors=[{"path": "password", "message": tr("Name and password do not fit."), "value": ""}],
        )
    login(request, user, backend=BACKEND)
    drop_ended()
    remember_device(request, response, user.username)
    return _session(request)


@router.post("/session/password", response={200: SessionOut, 422: ProblemOut, 429: ProblemOut})
def change_own_password(request: HttpRequest, payload: PasswordIn) -> SessionOut:
    """Change the own password; other sessions of the person end."""
    changed = change_password(request, person(request), payload.current, payload.new)
    update_session_auth_hash(request, changed)
    request.user = changed
    return _session(request)


@router.post("/session/demo", response={200: SessionOut, 404: ProblemOut}, auth=CsrfOnly())
def demo_sign_in(request: HttpRequest, payload: DemoSignIn) -> SessionOut:
    """Sign in as one of the invented people; there is no such thing outside the demo."""
    user = User.objects.filter(username=payload.username, username__startswith="demo-", is_active=True)
    found = user.first() if settings.DEMO else None
    if found is None:
        raise Http404
    login(request, found, backend=BACKEND)
    return _session(request)


class SessionLineOut(Schema):
    """A session that is open: where, since when, when it was used last."""

    id: int
    device: str
    address: str
    began_at: datetime
    last_at: datetime
    this: bool


@router.get("/session/all", response=list[SessionLineOut])
def own_sessions(request: HttpRequest) -> list[SessionLineOut]:
    """The own sessions that are open, the last used first."""
    here = request.session.session_key
    return [
        SessionLineOut(
            id=one.pk,
            device=device_of(one.agent),
            address=one.address,
            began_at=one.began_at,
            last_at=one.last_at,
            this=one.key == here,
        )
        for one in sessions_of(person(request))
    ]


@router.delete("/session/all", response=list[SessionLineOut])
def end_others(request: HttpRequest) -> list[SessionLineOut]:
    """End every own session but this one."""
    end_sessions(person(request), keep=request.session.session_key)
    return own_sessions(request)


@router.delete("/session/all/{int:session_id}", response=list[SessionLineOut])
def end_one(request: HttpRequest, session_id: int) -> list[SessionLineOut]:
    """End one of the own other sessions; one that has ended is ended."""
    end_sessions(person(request), keep=request.session.session_key, only=session_id)
    return own_sessions(request)


@router.delete("/session", response=SessionOut)
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    logout(request)
    return _session(request)
