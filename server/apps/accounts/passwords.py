"""What a password must not be, beside what the framework knows."""

from __future__ import annotations

import re
import unicodedata

from django.core.exceptions import ValidationError

from apps.accounts.models import User
from welding.language import tr

LEAST_BESIDE_NAMES = 6
LEAST_DIFFERENT = 5


class NotMadeOfNames:
    """Refuses a password that is little more than the person's own names, however often repeated."""

    def validate(self, password: str, user: User | None = None) -> None:
        """Take the names away and look at what is left.

        Raises:
            ValidationError: Too little is left, or too few different characters stand in it at all.
        """
        plain = _plain(password)
        if len(set(plain)) < LEAST_DIFFERENT:
            raise ValidationError(tr("The password repeats too few characters."), code="repeated")
        if user is None:
            return
        names = {
            part
            for text in (user.username, user.first_name, user.last_name, user.email)
            for part in (_plain(text), *re.split(r"[\s@.+_-]+", _plain(text)))
            if len(part) >= 3
        }
        left = plain
        for part in sorted(names, key=len, reverse=True):
            left = left.replace(part, "").replace(part[::-1], "")
        if names and left != plain and len(left) < LEAST_BESIDE_NAMES:
            raise ValidationError(tr("The password is made of your own name."), code="names")

    def get_help_text(self) -> str:
        """What is asked."""
        return tr("The password must not be made of your own name.")


def _plain(text: str) -> str:
    return unicodedata.normalize("NFKD", text).casefold()
