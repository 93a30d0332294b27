"""Text that comes in beside documents: numbers, names, reasons. Bounded, and without control characters."""

from __future__ import annotations

import unicodedata
from datetime import UTC, date, datetime
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime, Field, StringConstraints

from welding.language import tr

_NEVER = ("Cc", "Cs", "Zl", "Zp")


def _clean(text: str, allowed: str = "") -> str:
    for character in text:
        if unicodedata.category(character) in _NEVER and character not in allowed:
            raise ValueError(tr("holds the control character U+{ord:04X}", ord=ord(character)))
    return text


def _one_line(text: str) -> str:
    return _clean(text)


def _lines(text: str) -> str:
    return _clean(text, "\n\r\t")


def _of_our_time(moment: datetime) -> datetime:
    if not datetime(1990, 1, 1, tzinfo=UTC) <= moment <= datetime(2200, 1, 1, tzinfo=UTC):
        raise ValueError(tr("is no date of our time"))
    return moment


JobNumber = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40), AfterValidator(_one_line)
]
Number = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60), AfterValidator(_one_line)]
Line = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200), AfterValidator(_one_line)]
GivenLine = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200), AfterValidator(_one_line)
]
Note = Annotated[str, StringConstraints(max_length=4000), AfterValidator(_lines)]


def _day_of_our_time(day: date) -> date:
    if not 1950 <= day.year <= 2200:
        raise ValueError(tr("is no date of our time"))
    return day


Day = Annotated[date, AfterValidator(_day_of_our_time)]
"""A day with which the calendar can be reckoned; certificates may be decades old."""
Moment = Annotated[AwareDatetime, AfterValidator(_of_our_time)]
"""A time with its zone."""
Version = Annotated[int, Field(ge=1, le=2_000_000_000)]
"""The version of a row that was opened."""
