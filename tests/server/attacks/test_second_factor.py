"""A second factor: asked at signing in, never twice with the same code, counted like a password, removed by few."""

import json
from datetime import timedelta

import pyotp
import pytest
from apps.accounts import budgets
from apps.accounts.models import SecondFactor
from apps.accounts.services import second_factor
from django.test import Client
from django.utils import timezone

PASSWORD = "long-enough-1"
# RFC 6238, appendix B, SHA-1: the secret is 20 ASCII bytes; eight digits there, of which the last six count here.
RFC_SECRET = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"
RFC_CODES = [
    (59, "287082"),
    (1111111109, "081804"),
    (1111111111, "050471"),
    (1234567890, "005924"),
    (2000000000, "279037"),
]


def post(client, path, body, method="post"):
    answer = getattr(client, method)(f"/api{path}", json.dumps(body), content_type="application/json")
    return answer.status_code, answer.json() if answer.content else None


def sign_in(code="", username="engineer", password=PASSWORD, client=None):
    client = client or Client()
    client.get("/api/session")
    return client, *post(client, "/session", {"username": username, "password": password, "code": code})


@pytest.fixture
def clock(monkeypatch):
    """The time that codes go by, set by hand."""
    now = [1_900_000_000.0]
    monkeypatch.setattr(second_factor.time, "time", lambda: now[0])
    return now


@pytest.fixture
def factor(people, clock):
    """The engineer's, with the recovery codes; the time goes on so that the first code is used."""
    client, status, _ = sign_in()
    assert status == 200
    status, offer = post(client, "/session/factor", {"password": PASSWORD})
    assert status == 200 and offer["address"].startswith("otpauth://totp/Grounded%20Bead:engineer?secret=")
    status, answer = post(client, "/session/factor", {"code": code_of(offer["secret"], clock)}, "put")
    assert status == 200, answer
    clock[0] += 30
    return client, offer["secret"], answer["codes"]


def code_of(secret, clock, steps=0):
    return pyotp.TOTP(secret).at(clock[0] + 30 * steps)


@pytest.mark.parametrize(("at", "code"), RFC_CODES)
def test_codes_are_those_of_the_standard(clock, at, code):
    clock[0] = at
    assert second_factor._step_of(RFC_SECRET, code, after=0) == at // 30
    assert second_factor._step_of(RFC_SECRET, code, after=at // 30) is None


def test_signing_in_asks_for_a_code_and_takes_each_once(factor, clock):
    _, secret, _ = factor
    _, status, answer = sign_in()
    assert (status, answer["type"]) == (422, "/problems/code-needed")
    code = code_of(secret, clock)
    client, status, _ = sign_in(code)
    assert status == 200 and client.get("/api/jobs").status_code == 200
    _, status, answer = sign_in(code)
    assert (status, answer["errors"][0]["path"]) == (422, "code")
    # Clocks differ by a step; two steps are too many.
    clock[0] += 90
    assert sign_in(code_of(secret, clock, -1))[1] == 200
    assert sign_in(code_of(secret, clock, 2))[1] == 422
    assert sign_in(code_of(secret, clock, 1))[1] == 200


def test_without_the_password_nobody_learns_that_there_is_a_code(factor):
    _, status, answer = sign_in(password="wrong-password")
    assert (status, answer["type"], answer["errors"][0]["path"]) == (422, "/problems/invalid", "password")


def test_wrong_codes_are_counted_like_wrong_passwords(factor, clock):
    _, secret, _ = factor
    for _ in range(budgets.PAIR.amount):
        assert sign_in("000000")[1] == 422
    _, status, answer = sign_in(code_of(secret, clock))
    assert (status, answer["type"]) == (429, "/problems/throttled")


def test_wrong_codes_at_removing_it_are_counted_too(factor, clock):
    client, secret, _ = factor
    body = {"password": PASSWORD, "code": "000000"}
    for _ in range(budgets.PAIR.amount):
        assert post(client, "/session/factor/removal", body)[0] == 422
    body["code"] = code_of(secret, clock)
    assert post(client, "/session/factor/removal", body)[0] == 429
    assert SecondFactor.objects.count() == 1


def test_a_code_for_once_counts_once(factor):
    client, _, codes = factor
    typed = codes[0].replace("-", " ").upper()
    assert len(set(codes)) == 10
    assert sign_in(typed)[1] == 200
    assert sign_in(typed)[1] == 422
    assert client.get("/api/session/factor").json()["codes_left"] == 9


def test_what_is_stored_gives_no_code(factor):
    _, secret, codes = factor
    row = SecondFactor.objects.values().get()
    kept = json.dumps(row, default=str)
    assert secret not in kept and not any(one in kept or one.replace("-", "") in kept for one in codes)
    _, status, listed = sign_in(username="administrator")
    assert status == 200 and "secret" not in json.dumps(listed)


def test_under_another_key_of_the_server_no_code_fits(factor, clock, settings):
    _, secret, _ = factor
    settings.SECRET_KEY = "another one"
    assert sign_in(code_of(secret, clock))[1] == 422


def test_other_sessions_end_when_it_is_set(people, clock):
    left, status, _ = sign_in()
    assert status == 200
    assert left.get("/api/session/factor").json() == {"on": False, "set_at": None, "codes_left": 0}
    client, _, _ = sign_in()
    client.get("/api/session/factor")
    _, offer = post(client, "/session/factor", {"password": PASSWORD})
    assert post(client, "/session/factor", {"code": "000000"}, "put")[0] == 422
    assert post(client, "/session/factor", {"code": code_of(offer["secret"], clock)}, "put")[0] == 200
    assert client.get("/api/jobs").status_code == 200
    assert left.get("/api/jobs").status_code == 401


def test_it_is_set_with_the_password_only_and_not_over_another(factor):
    client, _, _ = factor
    assert post(client, "/session/factor", {"password": "wrong"})[0] == 422
    status, answer = post(client, "/session/factor", {"password": PASSWORD})
    assert status == 422 and "already" in answer["detail"]
    assert post(client, "/session/factor", {"code": "123456"}, "put")[0] == 422  # the offer is gone


@pytest.mark.parametrize(("who", "status"), [("inspector", 403), ("administrator", 204)])
def test_an_administrator_removes_that_of_somebody_whose_device_is_lost(factor, people, who, status):
    client, _, _ = factor
    other, signed, _ = sign_in(username=who)
    assert signed == 200
    path = f"/people/{people['engineer'].pk}/factor-removal"
    assert post(other, path, {"password": "wrong"})[0] in (403, 422)
    assert post(other, path, {"password": PASSWORD})[0] == status
    gone = status == 204
    assert SecondFactor.objects.exists() is not gone
    assert client.get("/api/jobs").status_code == (401 if gone else 200)
    own = f"/people/{people[who].pk}/factor-removal"
    assert post(other, own, {"password": PASSWORD})[0] in (403, 422)


def test_the_admin_pages_ask_for_no_code_and_let_nobody_in_past_it(factor, people):
    people["engineer"].is_staff = people["engineer"].is_superuser = True
    people["engineer"].save()
    client = Client()
    client.post("/admin/login/", {"username": "engineer", "password": PASSWORD})
    assert "_auth_user_id" not in client.session


@pytest.mark.parametrize(
    ("asked", "who", "due"),
    [
        ("", "engineer", False),
        ("signers", "engineer", True),
        ("signers", "examiner", True),
        ("signers", "welder", False),
        ("everyone", "welder", True),
    ],
)
def test_where_the_shop_asks_for_it_nothing_is_signed_without(api, people, settings, asked, who, due):
    settings.SECOND_FACTOR = asked
    assert api[who]("GET", "/session")[1]["person"]["factor_due"] is due
    SecondFactor.objects.create(person=people[who], secret="x", set_at=timezone.now() - timedelta(days=1))
    assert api[who]("GET", "/session")[1]["person"]["factor_due"] is False


def test_an_administrator_changes_nobody_while_it_is_due(api, people, settings):
    settings.SECOND_FACTOR = "signers"
    status, answer = api["administrator"](
        "POST", f"/people/{people['welder'].pk}/reset", {"password": PASSWORD}
    )
    assert status == 403 and "second factor" in answer["detail"]
