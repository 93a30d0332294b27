"""What runs out, for the page, for a sheet and for calendars."""

from __future__ import annotations

import dataclasses
from typing import Literal

from api.downloads import attachment
from api.errors import ProblemOut
from api.people import person
from api.sheets import TYPES
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Schema
from ninja.errors import AuthenticationError

from apps.accounts.permissions import Action, require
from apps.codebook.queries import current_book
from apps.crew.due import calendar_key, due_calendar, due_file, due_lines, reader_of
from apps.crew.schemas import Days, DueLineOut
from welding.codebook.book import using

router = Router(tags=["crew"])
CALENDAR_DAYS = 400


class CalendarLinkOut(Schema):
    """Where a calendar program reads what runs out."""

    url: str


@router.get("/crew/due", response=list[DueLineOut])
def due(request: HttpRequest, days: Days = 90) -> list[DueLineOut]:
    """What runs out within so many days, or ran out as lately."""
    require(person(request), Action.VIEW)
    return [DueLineOut(**dataclasses.asdict(one)) for one in due_lines(timezone.localdate(), days)]


@router.get("/crew/due/file", response={200: None})
def due_sheet(request: HttpRequest, days: Days = 90, kind: Literal["csv", "xlsx"] = "xlsx") -> HttpResponse:
    """The same as a sheet."""
    require(person(request), Action.VIEW)
    today = timezone.localdate()
    data = due_file(due_lines(today, days), kind)
    return attachment(data, TYPES[kind], f"qualification {today.isoformat()}.{kind}")


@router.get("/crew/calendar", response=CalendarLinkOut)
def calendar_link(request: HttpRequest) -> CalendarLinkOut:
    """The link by which a calendar program of this person reads what runs out."""
    user = person(request)
    require(user, Action.VIEW)
    path = f"/api/crew/calendar.ics?key={calendar_key(user)}"
    return CalendarLinkOut(
        url=f"{settings.PUBLIC_URL}{path}" if settings.PUBLIC_URL else request.build_absolute_uri(path)
    )


@router.get("/crew/calendar.ics", response={200: None, 401: ProblemOut}, auth=None)
def calendar(request: HttpRequest, key: str = "") -> HttpResponse:
    """What runs out, as a calendar; the key stands for whoever asked for the link."""
    user = reader_of(key[:400])
    if user is None:
        raise AuthenticationError
    require(user, Action.VIEW)
    with using(current_book()):
        data = due_calendar(due_lines(timezone.localdate(), CALENDAR_DAYS), timezone.now())
    return attachment(data, "text/calendar; charset=utf-8", "qualification.ics", inline=True)
