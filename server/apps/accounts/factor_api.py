"""The own second factor: set up, looked at, removed; by an administrator where a device is lost."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from api.errors import InvalidError
from api.people import person
from api.qr import qr_image
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status
from pydantic import StringConstraints

from apps.accounts.api import Secret
from apps.accounts.models import SecondFactor, User
from apps.accounts.people_api import REFUSALS, ConfirmedIn
from apps.accounts.permissions import Action, require
from apps.accounts.services.confirm_person import confirm_person
from apps.accounts.services.keep_sessions import end_sessions
from apps.accounts.services.second_factor import address_of, new_secret, remove_factor, set_factor
from apps.accounts.services.sign_in import checked
from welding.language import tr

router = Router(tags=["session"])
PENDING = "second-factor"
"""Where the session keeps a secret until the person has shown a code of it."""


class FactorOut(Schema):
    """Whether a second factor is asked for, since when, and how many recovery codes are left."""

    on: bool
    set_at: datetime | None = None
    codes_left: int = 0


class FactorOfferOut(Schema):
    """A secret for the person's device: to be typed, as an address, and that as the address of a picture."""

    secret: str
    address: str
    qr: str


class FactorCodeIn(Schema):
    """A code that the device shows."""

    code: Annotated[str, StringConstraints(max_length=40)]


class FactorRemovalIn(FactorCodeIn):
    """What removes the own second factor: the password and a code."""

    password: Secret


class FactorCodesOut(Schema):
    """Recovery codes; they are shown this once."""

    codes: list[str]


@router.get("/session/factor", response=FactorOut)
def factor(request: HttpRequest) -> FactorOut:
    """The own second factor."""
    found = SecondFactor.objects.filter(person=person(request)).first()
    if found is None:
        return FactorOut(on=False)
    return FactorOut(on=True, set_at=found.set_at, codes_left=len(found.codes))


@router.post("/session/factor", response={200: FactorOfferOut, **REFUSALS})
def offer(request: HttpRequest, payload: ConfirmedIn) -> FactorOfferOut:
    """A new secret; it counts once a code of it was shown."""
    user = person(request)
    _password(request, user, payload.password)
    if SecondFactor.objects.filter(person=user).exists():
        said = tr("There is one already. Remove it first, with a code of it.")
        raise InvalidError(said, errors=[{"path": "password", "message": said, "value": ""}])
    secret = new_secret()
    request.session[PENDING] = secret
    address = address_of(user, secret)
    return FactorOfferOut(secret=secret, address=address, qr=qr_image(address))


@router.put("/session/factor", response={200: FactorCodesOut, **REFUSALS})
def confirm(request: HttpRequest, payload: FactorCodeIn) -> FactorCodesOut:
    """Begin with it: the person shows a code of the secret. Other sessions of the person end."""
    secret = request.session.get(PENDING)
    if not isinstance(secret, str):
        said = tr("The offer is gone. Begin again.")
        raise InvalidError(said, errors=[{"path": "code", "message": said, "value": ""}])
    user = person(request)
    codes = set_factor(user, secret, payload.code)
    del request.session[PENDING]
    end_sessions(user, keep=request.session.session_key)
    return FactorCodesOut(codes=codes)


@router.post("/session/factor/removal", response={200: FactorOut, **REFUSALS})
def remove(request: HttpRequest, payload: FactorRemovalIn) -> FactorOut:
    """Remove the own second factor, with the password and a code."""
    user = person(request)
    # Counted like signing in: else whoever has the password would try all codes here.
    if not payload.code or checked(request, user.username, payload.password, payload.code) is None:
        said = tr("Password and code do not fit, or the code was used.")
        raise InvalidError(said, errors=[{"path": "code", "message": said, "value": ""}])
    remove_factor(user)
    return FactorOut(on=False)


@router.post("/people/{int:person_id}/factor-removal", response={204: None, **REFUSALS})
def remove_of(request: HttpRequest, person_id: int, payload: ConfirmedIn) -> Status[None]:
    """Remove the second factor of somebody whose device is lost; all sessions of the person end."""
    user = person(request)
    require(user, Action.KEEP_PEOPLE)
    confirm_person(request, user, payload.password, signs=False)
    found = get_object_or_404(User, pk=person_id)
    if found.pk == user.pk:
        said = tr("Another administrator removes yours, or you do with a code.")
        raise InvalidError(said, errors=[{"path": "person", "message": said, "value": ""}])
    remove_factor(found)
    end_sessions(found, keep=None)
    return Status(204, None)


def _password(request: HttpRequest, user: User, password: str) -> None:
    if checked(request, user.username, password) is None:
        said = tr("The password does not fit: nothing was changed.")
        raise InvalidError(said, errors=[{"path": "password", "message": tr("does not fit"), "value": ""}])
