"""What runs out: as a list, as a sheet, and as a calendar that other programs read."""

from datetime import timedelta

from django.test import Client
from icalendar import Calendar

from tests.server.conftest import TODAY


def test_what_runs_out_stands_in_list_sheet_and_calendar(api, certify):
    soon = certify(number="C-soon", welded_on=(TODAY - timedelta(days=160)).isoformat())
    certify(number="C-gone", welded_on=(TODAY - timedelta(days=200)).isoformat())
    certify(number="C-far")
    status, lines = api["viewer"]("GET", "/crew/due?days=60")
    assert status == 200
    assert [(one["certificate"], one["kind"]) for one in lines] == [
        ("C-gone", "lapsed"),
        ("C-soon", "confirmation"),
    ]
    assert lines[0]["days"] < 0 < lines[1]["days"] <= 60
    status, sheet = api["viewer"]("GET", "/crew/due/file?days=60&kind=csv")
    assert status == 200 and b"C-soon" in sheet and b"C-far" not in sheet
    status, link = api["viewer"]("GET", "/crew/calendar")
    found = Client().get("/" + link["url"].partition("//")[2].partition("/")[2])
    assert found.status_code == 200 and found["Content-Type"].startswith("text/calendar")
    calendar = Calendar.from_ical(found.content)
    events = {str(one["summary"]): one for one in calendar.walk("VEVENT")}
    assert len(events) == 3
    (due,) = [one for said, one in events.items() if "C-soon" in said]
    assert due["dtstart"].dt.isoformat() == lines[1]["on"] and len(due.walk("VALARM")) == 2
    assert str(soon["id"]) in str(due["uid"])


def test_a_calendar_is_read_with_its_key_alone_and_a_new_password_ends_it(api, people, certify):
    certify()
    _, link = api["viewer"]("GET", "/crew/calendar")
    path = "/" + link["url"].partition("//")[2].partition("/")[2]
    assert Client().get(path).status_code == 200
    assert Client().get(path + "x").status_code == 401
    assert Client().get("/api/crew/calendar.ics").status_code == 401
    people["viewer"].set_own_password("another-long-one")
    people["viewer"].save()
    assert Client().get(path).status_code == 401
