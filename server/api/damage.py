"""A row that cannot be read is shown as damaged in its list, and the rest stands."""

from __future__ import annotations

import logging
from collections.abc import Callable
from typing import TypeVar

from pydantic import ValidationError

from api.errors import Refusal
from welding.errors import WeldingError
from welding.language import tr

log = logging.getLogger("damage")
T = TypeVar("T")


def attempt(what: object, read: Callable[[], T]) -> tuple[T | None, str]:
    """What was read and an empty text; or nothing, and what is wrong with it in a sentence."""
    try:
        return read(), ""
    except Refusal as error:
        said = error.detail
    except (WeldingError, ValidationError, LookupError, TypeError, ValueError) as error:
        first = next(iter(str(error).splitlines()), type(error).__name__)
        said = tr("It cannot be read: {first}", first=first[:300])
    log.error("damaged row %s: %s", what, said)
    return None, said
