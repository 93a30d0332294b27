"""A second factor at signing in: codes of the time (RFC 6238), recovery codes where the device is lost."""

from __future__ import annotations

import base64
import hashlib
import hmac
import logging
import secrets
import time

import pyotp
from api.errors import InvalidError
from cryptography.fernet import Fernet, InvalidToken
from django.conf import settings
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import Role, SecondFactor, User
from apps.accounts.permissions import SIGNING, may
from welding.language import tr

log = logging.getLogger("sign-in")

ISSUER = "Grounded Bead"
STEP_S = 30
DRIFT_STEPS = 1
"""A code of the step before or after counts, too: clocks differ, and people type slowly."""
CODES = 10


def new_secret() -> str:
    """A secret of 160 bits, as RFC 4226 asks for."""
    return pyotp.random_base32(32)


def address_of(user: User, secret: str) -> str:
    """What the person's device reads: ``otpauth://totp/...``."""
    return pyotp.TOTP(secret).provisioning_uri(name=user.username, issuer_name=ISSUER)


def has_factor(user: User) -> bool:
    """Whether signing in asks this person for a code."""
    return SecondFactor.objects.filter(person=user).exists()


def is_due(user: User) -> bool:
    """Whether the shop asks for a second factor that this person does not have yet."""
    asked = settings.SECOND_FACTOR
    if asked == "signers":
        wanted = user.role == Role.ADMINISTRATOR or any(may(user, one) for one in SIGNING)
    else:
        wanted = asked == "everyone"
    return wanted and not has_factor(user)


@transaction.atomic
def set_factor(user: User, secret: str, code: str) -> list[str]:
    """Begin to ask for codes of this secret, once the person has shown one; gives the recovery codes.

    Raises:
        InvalidError: The code does not fit.
    """
    step = _step_of(secret, code, after=0)
    if step is None:
        said = tr("The code does not fit. Is the clock of the device right?")
        raise InvalidError(said, errors=[{"path": "code", "message": said, "value": ""}])
    SecondFactor.objects.filter(person=user).delete()
    codes = [_grouped(secrets.token_hex(8)) for _ in range(CODES)]
    SecondFactor.objects.create(
        person=user,
        secret=_key().encrypt(secret.encode()).decode(),
        set_at=timezone.now(),
        last_step=step,
        codes=[_digest(one) for one in codes],
    )
    log.warning("second factor of %r set", user.username)
    return codes


@transaction.atomic
def take_code(user: User, code: str) -> bool:
    """Whether a code fits; one that was taken counts no second time."""
    found = SecondFactor.objects.select_for_update().filter(person=user).first()
    if found is None:
        return False
    try:
        secret = _key().decrypt(found.secret.encode()).decode()
    except InvalidToken:
        log.exception("the second factor of %r was set under another key of the server", user.username)
        return False
    step = _step_of(secret, code, after=found.last_step)
    if step is not None:
        found.last_step = step
        found.save(update_fields=["last_step"])
        return True
    digest = _digest(code)
    left = [one for one in found.codes if not hmac.compare_digest(one, digest)]
    if len(left) == len(found.codes):
        return False
    found.codes = left
    found.save(update_fields=["codes"])
    log.warning("%r signed in with a recovery code; %s are left", user.username, len(left))
    return True


@transaction.atomic
def remove_factor(user: User) -> None:
    """Ask this person for no code from now on."""
    if SecondFactor.objects.filter(person=user).delete()[0]:
        log.warning("second factor of %r removed", user.username)


def _step_of(secret: str, code: str, *, after: int) -> int | None:
    """The step whose code this is, among those around now and after the last that was taken."""
    typed = "".join(code.split())
    now = int(time.time()) // STEP_S
    totp = pyotp.TOTP(secret, interval=STEP_S)
    for step in range(now - DRIFT_STEPS, now + DRIFT_STEPS + 1):
        if step > after and hmac.compare_digest(totp.generate_otp(step).encode(), typed.encode()):
            return step
    return None


def _grouped(text: str) -> str:
    return "-".join(text[at : at + 4] for at in range(0, len(text), 4))


def _digest(code: str) -> str:
    """Of a code as it is meant, however it is typed. It has 64 bits of chance: one round is enough."""
    meant = "".join(one for one in code.lower() if one.isalnum())
    return hashlib.sha256(meant.encode()).hexdigest()


def _key() -> Fernet:
    digest = hashlib.sha256(b"second factor " + settings.SECRET_KEY.encode()).digest()
    return Fernet(base64.urlsafe_b64encode(digest))
