"""What runs out: as lines, as a sheet, and as a calendar that other programs read."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Literal

from api.sheets import written
from django.core import signing
from django.utils.crypto import salted_hmac
from icalendar import Alarm, Calendar, Event

from apps.accounts.models import User
from apps.crew.models import CrewMember
from apps.crew.queries import at_work_on, standing_crew
from welding.language import tr, tr_noop

DueKind = Literal["confirmation", "prolongation", "use", "lapsed"]
SALT = "crew-calendar"
REMINDERS_DAYS = (30, 7)
WORDS: dict[DueKind, str] = {
    "confirmation": tr_noop("Confirm the work of {name}: {certificate}"),
    "prolongation": tr_noop("Prolong or test anew: {name}, {certificate}"),
    "use": tr_noop("{name} has to use the process: {certificate}"),
    "lapsed": tr_noop("Ran out: {name}, {certificate}"),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class DueLine:
    """A certificate that needs something by a day, or that has run out.

    Attributes:
        member_id: The person.
        name: The person's name.
        certificate_id: The certificate.
        certificate: Its number.
        designation: Its designation.
        kind: What is due; ``lapsed`` for one that has run out.
        on: Last day on which it holds as it stands.
        days: Days until then; negative where it is past.
    """

    member_id: int
    name: str
    certificate_id: int
    certificate: str
    designation: str
    kind: DueKind
    on: date
    days: int


def due_lines(on: date, within_days: int) -> list[DueLine]:
    """What runs out within so many days of those who are there, or ran out as lately; the first due first."""
    found: list[DueLine] = []
    members = at_work_on(CrewMember.objects.all(), on)
    for standing in standing_crew(members, on):
        for one in standing.certificates:
            how, document = one.validity, one.document
            if how is None or document is None or how.last_valid_day is None:
                continue
            kind: DueKind
            if how.valid and how.due is not None:
                kind, day = how.due[0], how.due[1]  # type: ignore[assignment]
            elif how.standing == "lapsed":
                kind, day = "lapsed", how.last_valid_day
            else:
                continue
            days = (day - on).days
            if abs(days) > within_days:
                continue
            found.append(
                DueLine(
                    member_id=standing.member.pk,
                    name=standing.member.name,
                    certificate_id=one.row.pk,
                    certificate=one.row.number,
                    designation=document.designation,
                    kind=kind,
                    on=day,
                    days=days,
                )
            )
    return sorted(found, key=lambda one: (one.on, one.name, one.certificate))


def due_words(line: DueLine) -> str:
    """A line in a sentence."""
    return tr(WORDS[line.kind], name=line.name, certificate=line.certificate)


def due_file(lines: Sequence[DueLine], kind: str) -> bytes:
    """The lines as CSV or XLSX."""
    words: dict[DueKind, str] = {
        "confirmation": tr("confirmation"),
        "prolongation": tr("prolongation or new test"),
        "use": tr("use of the process"),
        "lapsed": tr("ran out"),
    }
    head = [tr("Name"), tr("Certificate"), tr("Designation"), tr("What is due"), tr("Last day"), tr("Days")]
    rows = [
        [one.name, one.certificate, one.designation, words[one.kind], one.on.isoformat(), one.days]
        for one in lines
    ]
    return written([head, *rows], kind, tr("What runs out"))


def due_calendar(lines: Sequence[DueLine], now: datetime) -> bytes:
    """The lines as days of a calendar, with reminders before (RFC 5545).

    Args:
        lines: What runs out.
        now: When it is written.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Grounded Bead//crew//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", tr("Welder qualification"))
    for one in lines:
        event = Event()
        # The same day of the same certificate is the same entry: a reader that asks again does not double it.
        event.add("uid", f"certificate-{one.certificate_id}-{one.kind}-{one.on.isoformat()}@grounded-bead")
        event.add("dtstamp", now.astimezone(UTC))
        event.add("dtstart", one.on)
        event.add("dtend", one.on + timedelta(days=1))
        event.add("summary", due_words(one))
        event.add("description", one.designation)
        event.add("transp", "TRANSPARENT")
        if one.kind != "lapsed":
            for days in REMINDERS_DAYS:
                alarm = Alarm()
                alarm.add("action", "DISPLAY")
                alarm.add("description", due_words(one))
                alarm.add("trigger", timedelta(days=-days))
                event.add_component(alarm)
        calendar.add_component(event)
    data: bytes = calendar.to_ical()
    return data


def calendar_key(user: User) -> str:
    """What a program that reads the calendar for a person shows; a new password makes it void."""
    return signing.dumps([user.pk, _mark(user)], salt=SALT)


def reader_of(key: str) -> User | None:
    """The person whose key it is; ``None`` where it is void."""
    try:
        pk, mark = signing.loads(key, salt=SALT)
    except (signing.BadSignature, ValueError, TypeError):
        return None
    # The crew is the shop's: nobody from outside reads its days.
    user = User.objects.filter(pk=pk, is_active=True, only_jobs=None).first()
    return user if user is not None and mark == _mark(user) else None


def _mark(user: User) -> str:
    return salted_hmac(SALT, user.password).hexdigest()[:24]
