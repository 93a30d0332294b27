"""What strangers can do to signing in: try, spray, lock the owner out. And how the owner comes back."""

import json
import logging

import pytest
from apps.accounts import budgets
from apps.accounts.management.commands.unlock import Command as Unlock
from apps.accounts.models import Budget
from django.core.management import call_command
from django.test import Client

from welding.documents.codec import parse_json
from welding.errors import DocumentError

HOME, AWAY = "203.0.113.7", "198.51.100.9"


@pytest.fixture
def knock(people):
    """Sign in from an address; a client keeps the cookies of its device."""

    def call(name, password, address=HOME, client=None):
        client = client or Client()
        return client.post(
            "/api/session",
            json.dumps({"username": name, "password": password}),
            content_type="application/json",
            REMOTE_ADDR=address,
        ).status_code

    return call


def test_the_same_name_from_the_same_address_is_throttled(knock):
    codes = [knock("engineer", "wrong") for _ in range(9)]
    assert codes == [422] * 8 + [429]
    assert knock("engineer", "long-enough-1") == 429, "the right one too, for a while"
    assert knock("engineer", "long-enough-1", AWAY) == 200, "the owner elsewhere is not locked out"


def test_refused_attempts_do_not_prolong_a_lock(knock):
    for _ in range(8):
        knock("engineer", "wrong")
    before = list(Budget.objects.order_by("key").values_list("key", "count", "ends_at"))
    for _ in range(20):
        assert knock("engineer", "wrong") == 429
    after = list(Budget.objects.order_by("key").values_list("key", "count", "ends_at"))
    calls = {key for key, *_ in after} - {key for key, *_ in before}
    assert calls == set()
    moved = [old for old, new in zip(before, after, strict=True) if old != new]
    assert len(moved) == 1, "only the count of calls from this address goes on"
    assert [old[2] for old in before] == [new[2] for new in after], "no window was prolonged"


def test_thirty_names_from_one_address_are_spraying(knock):
    codes = [knock(f"person-{n}", "spring-2026") for n in range(31)]
    assert codes == [422] * 30 + [429]
    assert knock("engineer", "long-enough-1") == 429
    assert knock("engineer", "long-enough-1", AWAY) == 200


def test_strangers_from_many_addresses_lock_a_name_but_not_its_owners_device(knock, caplog):
    owner = Client()
    assert knock("engineer", "long-enough-1", HOME, owner) == 200
    with caplog.at_level(logging.WARNING, logger="sign-in"):
        codes = [knock("engineer", "wrong", f"192.0.2.{n}") for n in range(61)]
    assert codes == [422] * 60 + [429]
    assert "sign-in locked for 'engineer' from unknown devices" in caplog.text
    assert knock("engineer", "long-enough-1", AWAY) == 429, "an unknown device waits"
    assert knock("engineer", "long-enough-1", AWAY, owner) == 200, "a device of the owner does not"
    call_command(Unlock(), "engineer")
    assert knock("engineer", "long-enough-1", AWAY) == 200, "an administrator opens it"


def test_a_stolen_device_cookie_is_worth_ten_tries(knock):
    owner = Client()
    assert knock("engineer", "long-enough-1", HOME, owner) == 200
    codes = [knock("engineer", "wrong", f"192.0.2.{n}", owner) for n in range(11)]
    assert codes == [422] * 10 + [429]


def test_a_device_is_known_for_its_own_people_only(knock):
    theirs = Client()
    assert knock("welder", "long-enough-1", HOME, theirs) == 200
    for n in range(60):
        knock("engineer", "wrong", f"192.0.2.{n}")
    assert knock("engineer", "long-enough-1", AWAY, theirs) == 429


def test_a_forged_device_cookie_is_worth_nothing(knock):
    forger = Client()
    forger.cookies["bead_device"] = "eyJkZXZpY2UiOiJ4IiwibmFtZXMiOlsiZW5naW5lZXIiXX0:1:forged"
    for n in range(60):
        knock("engineer", "wrong", f"192.0.2.{n}")
    assert knock("engineer", "long-enough-1", AWAY, forger) == 429


def test_the_password_asked_when_signing_has_the_same_budgets(api, evidence):
    path = f"/records/{evidence['record'].pk}/witness"
    codes = [api["inspector"]("POST", path, {"password": "wrong", "reason": ""})[0] for _ in range(9)]
    assert codes == [422] * 8 + [429]


def test_the_administrators_door_has_the_same_budgets(people, knock):
    people["administrator"].is_staff = True
    people["administrator"].save()
    door = Client()
    for _ in range(8):
        door.post("/admin/login/", {"username": "administrator", "password": "wrong"}, REMOTE_ADDR=HOME)
    assert knock("administrator", "long-enough-1") == 429


def test_windows_end_and_are_swept(people, monkeypatch):
    now = [1_000_000.0]
    monkeypatch.setattr(budgets.time, "time", lambda: now[0])
    assert [budgets.spend(budgets.PAIR, "a") for _ in range(9)] == [True] * 8 + [False]
    now[0] += 15 * 60 + 1
    assert not budgets.spent(budgets.PAIR, "a") and budgets.spend(budgets.PAIR, "a")
    assert Budget.objects.get().count == 1
    now[0] += 15 * 60 + 1
    assert budgets.sweep() == 1


def test_whoever_signs_in_sweeps_what_has_ended(people, knock):
    Budget.objects.create(key="old", count=3, ends_at=1_000_000.0)
    assert knock("administrator", "long-enough-1") == 200
    assert not Budget.objects.filter(key="old").exists()


@pytest.mark.parametrize("keys", [["twin"] * 60_000, [f"k{n}" for n in range(60_000)] + ["k59999"]])
def test_a_body_of_repeated_keys_is_refused_at_once(keys):
    """Sixty thousand keys took a minute when every key was counted among all."""
    body = "{" + ",".join(f'"{key}":1' for key in keys) + "}"
    with pytest.raises(DocumentError, match="stands twice"):
        parse_json(body.encode())


@pytest.mark.parametrize(
    "body, word",
    [
        (b'{"a": ' + b"9" * 5000 + b"}", "too long"),
        (b'{"a": 1e999}', "too large"),
        (b'{"a": ' + b"[" * 41 + b"]" * 41 + b"}", "nested deeper"),
        (b'{"a": 0.' + b"1" * 5000 + b"}", "too long"),
        (b'{"a": "\\u0000"}', "U\\+0000"),
        (b'{"\\ud800": 1}', "surrogate"),
        (b'{"a": ["x", {"b": "\\udfff"}]}', "surrogate"),
    ],
)
def test_what_no_body_needs_is_refused(body, word):
    with pytest.raises(DocumentError, match=word):
        parse_json(body)


def test_a_pair_of_surrogates_is_a_character():
    assert parse_json(b'{"a": "\\ud83d\\ude00"}') == {"a": "\U0001f600"}
