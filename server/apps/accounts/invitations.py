"""Links by which somebody sets the first password, or a new one; a password that is set makes them void."""

from __future__ import annotations

from django.core import signing
from django.utils.crypto import salted_hmac

from apps.accounts.models import User

SALT = "invitation"
DAYS = 7


def invitation_for(user: User) -> str:
    """What the link carries; who has it sets the password of this person, once, for so many days."""
    return signing.dumps([user.pk, _mark(user)], salt=SALT)


def invited(token: str) -> User | None:
    """The person whose invitation it is; ``None`` where it is used, replaced, too old or none."""
    try:
        pk, mark = signing.loads(token, salt=SALT, max_age=DAYS * 86_400)
    except (signing.BadSignature, ValueError, TypeError):
        return None
    user = User.objects.filter(pk=pk, is_active=True).first() if isinstance(pk, int) else None
    return user if user is not None and not user.has_usable_password() and mark == _mark(user) else None


def _mark(user: User) -> str:
    return salted_hmac(SALT, user.password).hexdigest()[:32]
