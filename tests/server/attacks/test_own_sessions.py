"""Own sessions: seen, ended by the person and by nobody else, and over when nobody uses them."""

import json
from datetime import timedelta

import pytest
from apps.accounts.models import SeenSession
from apps.accounts.services.keep_sessions import device_of
from django.contrib.sessions.models import Session
from django.test import Client
from django.utils import timezone

FIREFOX = "Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0"
TABLET = (
    "Mozilla/5.0 (Linux; Android 14; Tab) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0 Safari/537.36"
)


def signed_in(username="engineer", agent=FIREFOX):
    client = Client(headers={"user-agent": agent})
    client.get("/api/session")
    body = json.dumps({"username": username, "password": "long-enough-1"})
    assert client.post("/api/session", body, content_type="application/json").status_code == 200
    assert client.get("/api/jobs").status_code == 200
    return client


def listed(client):
    answer = client.get("/api/session/all")
    assert answer.status_code == 200, answer.content
    return answer.json()


def person_of(client):
    return client.get("/api/session").json()["person"]


@pytest.fixture
def later(monkeypatch):
    def go(**by):
        moment = timezone.now() + timedelta(**by)
        monkeypatch.setattr("django.utils.timezone.now", lambda: moment)

    return go


def test_a_person_sees_where_somebody_is_signed_in_as_the_person(people):
    desk, booth = signed_in(), signed_in(agent=TABLET)
    signed_in("welder")
    lines = listed(desk)
    assert [(one["device"], one["this"]) for one in lines] == [
        ("Chromium, Android", False),
        ("Firefox, Linux", True),
    ]
    assert all(one["address"] == "127.0.0.1" for one in lines)
    assert {one["id"] for one in listed(booth)} == {one["id"] for one in lines}


def test_a_session_on_a_lost_tablet_is_ended_from_the_desk(people):
    desk, tablet, other = signed_in(), signed_in(agent=TABLET), signed_in("welder")
    lost = next(one["id"] for one in listed(desk) if not one["this"])
    left = desk.delete(f"/api/session/all/{lost}").json()
    assert [one["this"] for one in left] == [True]
    assert tablet.get("/api/jobs").status_code == 401 and person_of(tablet) is None
    assert person_of(desk)["username"] == "engineer" and person_of(other)["username"] == "welder"


def test_all_others_are_ended_at_once_and_this_one_stays(people):
    desk, more = signed_in(), [signed_in(agent=TABLET) for _ in range(3)]
    assert len(desk.delete("/api/session/all").json()) == 1
    assert [person_of(one) for one in more] == [None] * 3 and person_of(desk) is not None


def test_nobody_ends_the_session_of_somebody_else(people):
    desk, other = signed_in(), signed_in("administrator")
    theirs = next(one["id"] for one in listed(desk))
    assert other.delete(f"/api/session/all/{theirs}").status_code == 200
    assert person_of(desk) is not None
    own = listed(other)[0]["id"]
    other.delete(f"/api/session/all/{own}")
    assert person_of(other) is not None, "the own session ends by signing out"
    assert Client().get("/api/session/all").status_code == 401


def test_a_session_that_nobody_uses_ends_and_one_in_use_goes_on(people, later, settings):
    settings.IDLE_HOURS = 2
    used, idle = signed_in(), signed_in(agent=TABLET)
    later(hours=1.5)
    assert used.get("/api/jobs").status_code == 200
    later(hours=1)
    assert idle.get("/api/jobs").status_code == 401, "two and a half hours without use"
    assert used.get("/api/jobs").status_code == 200, "used an hour ago"
    assert len(listed(used)) == 1
    assert Session.objects.count() == 1


def test_use_is_noted_once_a_minute(people, later):
    client = signed_in()
    first = SeenSession.objects.get().last_at
    client.get("/api/jobs")
    assert SeenSession.objects.get().last_at == first
    later(minutes=2)
    client.get("/api/jobs")
    assert SeenSession.objects.get().last_at > first


def test_a_new_password_and_signing_out_leave_no_line_behind(people):
    desk, other = signed_in(), signed_in(agent=TABLET)
    body = json.dumps({"current": "long-enough-1", "new": "three blue herons 7"})
    assert desk.post("/api/session/password", body, content_type="application/json").status_code == 200
    assert other.get("/api/jobs").status_code == 401
    assert [one["this"] for one in listed(desk)] == [True]
    desk.delete("/api/session")
    again = Client()
    again.get("/api/session")
    body = json.dumps({"username": "engineer", "password": "three blue herons 7"})
    again.post("/api/session", body, content_type="application/json")
    again.get("/api/jobs")
    assert len(listed(again)) == 1


def test_lines_of_sessions_that_ended_long_ago_are_dropped(people):
    signed_in()
    SeenSession.objects.update(last_at=timezone.now() - timedelta(days=16))
    signed_in("welder")
    assert [one.person.username for one in SeenSession.objects.all()] == ["welder"]


@pytest.mark.parametrize(
    "agent, said",
    [
        (FIREFOX, "Firefox, Linux"),
        (TABLET, "Chromium, Android"),
        (
            "Mozilla/5.0 (iPad; CPU OS 18_0 like Mac OS X) AppleWebKit/605 Version/18.0 Safari/604.1",
            "Safari, iPad",
        ),
        ("Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537 Chrome/140 Safari/537 Edg/140", "Edge, Windows"),
        ("curl/8", ""),
    ],
)
def test_a_device_is_called_as_people_call_it(agent, said):
    assert device_of(agent) == said
