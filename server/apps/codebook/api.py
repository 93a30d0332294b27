"""The code book: read, say something of a number, take along and take in."""

from __future__ import annotations

from typing import Any

from api.downloads import attachment
from api.errors import ProblemOut
from api.people import person
from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.codebook.models import Entry
from apps.codebook.queries import newest_entries
from apps.codebook.schemas import BookOut, BookTakeIn, BookTakenOut, EntryOut, SayIn
from apps.codebook.services.say import say, take_corrections
from welding.codebook.contents import part, part_of, parts
from welding.documents.codec import CORRECTIONS
from welding.documents.corrections import BookCorrections, NumberCorrection

router = Router(tags=["codebook"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


def entry_out(one: Entry) -> EntryOut:
    """An entry as the API says it."""
    return EntryOut(
        id=one.pk,
        number_id=one.number_id,
        said=one.said,
        value=one.value,
        reason=one.reason,
        by=one.by.shown_name,
        at=one.at,
    )


@router.get("/book", response={200: BookOut})
def read_book(request: HttpRequest, code: str = "", row: str = "") -> BookOut:
    """A part of the book as it stands, by its code or by a row of it, with everything that was ever said."""
    require(person(request), Action.VIEW)
    entries = Entry.objects.select_related("by").order_by("id")
    known = parts()
    wanted = part_of(row) or code
    shown = wanted if wanted in {one.code for one in known} else known[0].code
    return BookOut(parts=list(known), part=part(shown), entries=[entry_out(one) for one in entries])


@router.post("/book", response={201: EntryOut, **REFUSALS})
def say_something(request: HttpRequest, payload: SayIn) -> Status[EntryOut]:
    """Confirm, correct or revert a number."""
    made = say(person(request), payload.number_id, payload.said, payload.value, payload.reason)
    return Status(201, entry_out(made))


@router.get("/book/export", response={200: None})
def export_book(request: HttpRequest) -> HttpResponse:
    """What stands now as an open document."""
    require(person(request), Action.VIEW)
    document = BookCorrections(
        corrections=tuple(
            NumberCorrection(
                id=number_id,
                action=one.said,  # type: ignore[arg-type]
                value=one.value,
                reason=one.reason,
                by=one.by.shown_name,
                at=one.at.date().isoformat(),
            )
            for number_id, one in sorted(newest_entries().items())
        )
    )
    return attachment(CORRECTIONS.write(document), "application/json", "book-corrections.json")


@router.post("/book/import", response={200: BookTakenOut, **REFUSALS})
def import_book(request: HttpRequest, payload: BookTakeIn) -> BookTakenOut:
    """Take a book of corrections in, whole or not at all."""
    return BookTakenOut(made=take_corrections(person(request), payload.document))
