"""What the API says of the code book."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from api.documents import CorrectionsIn
from api.text import Line, Note
from ninja import Schema

from welding.codebook.contents import BookPart, PartSummary


class EntryOut(Schema):
    """What was said of a number, the newest last."""

    id: int
    number_id: str
    said: str
    value: Any
    reason: str
    by: str
    at: datetime


class BookOut(Schema):
    """Every part in short, one of them with its tables, and what was said."""

    parts: list[PartSummary]
    part: BookPart
    entries: list[EntryOut]


class SayIn(Schema):
    """Something said of a number."""

    number_id: Line
    said: Literal["confirm", "correct", "revert"]
    value: Any = None
    reason: Note = ""


class BookTakeIn(Schema):
    """A book of corrections to take in."""

    document: CorrectionsIn


class BookTakenOut(Schema):
    """How many entries were made."""

    made: int
