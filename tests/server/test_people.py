"""People in the program: invited, changed, disabled and reset by an administrator, and by nobody else."""

import json
from datetime import timedelta

import pytest
from apps.accounts import budgets
from apps.accounts.models import User
from django.apps import apps as django_apps
from django.core import signing
from django.test import Client

from tests.server.attacks.test_audit import faults
from tests.server.conftest import SIGN

GOOD = "three blue herons 7"


def send(client, path, body):
    client.get("/api/session")
    answer = client.post(f"/api{path}", json.dumps(body), content_type="application/json")
    return answer.status_code, answer.json()


def invite(api, status=201, who="administrator", **more):
    body = {"username": "t.brandt", "name": "Thea Brandt", "role": "engineer", **SIGN} | more
    code, answer = api[who]("POST", "/people", body)
    assert code == status, answer
    return answer


def change(api, one, status=200, who="administrator", **more):
    body = {
        "name": one["name"],
        "role": one["role"],
        "active": one["active"],
        "only_jobs": one["only_jobs"],
        "seen": one["seen"],
        **SIGN,
    } | more
    code, answer = api[who]("PUT", f"/people/{one['id']}", body)
    assert code == status, answer
    return answer


def listed(api):
    status, answer = api["administrator"]("GET", "/people")
    assert status == 200
    return {one["username"]: one for one in answer}


def signed_in(username, password=GOOD):
    client = Client()
    status, _ = send(client, "/session", {"username": username, "password": password})
    return client if status == 200 else None


@pytest.fixture
def thea(api):
    made = invite(api)
    status, answer = send(Client(), "/invitations", {"token": made["token"], "password": GOOD})
    assert status == 200, answer
    return made["person"]


def test_from_the_invitation_to_the_first_signature(api, people):
    made = invite(api)
    assert made["person"]["invited"] and not listed(api)["t.brandt"]["password_own"]
    assert signed_in("t.brandt", "") is None
    stranger = Client()
    assert send(stranger, "/invitations/look", {"token": made["token"]}) == (
        200, {"username": "t.brandt", "name": "Thea Brandt"},
    )  # fmt: skip
    status, weak = send(stranger, "/invitations", {"token": made["token"], "password": "theabrandt1"})
    assert (status, [one["path"] for one in weak["errors"]]) == (422, ["password"])
    assert send(stranger, "/invitations", {"token": made["token"], "password": GOOD})[0] == 200
    # The link is used: whoever finds it later does nothing with it.
    for path in ("/invitations/look", "/invitations"):
        status, answer = send(stranger, path, {"token": made["token"], "password": "another good one 9"})
        assert (status, answer["errors"][0]["path"]) == (422, "token")
    client = signed_in("t.brandt")
    person = client.get("/api/session").json()["person"]
    assert person["password_own"] and "SIGN_RECORD" in person["allowed"]
    assert "KEEP_PEOPLE" not in person["allowed"]
    assert not listed(api)["t.brandt"]["invited"]


@pytest.mark.parametrize("who", ["engineer", "inspector", "examiner", "welder", "viewer"])
def test_nobody_else_sees_or_changes_who_may_sign_in(api, people, who):
    one = listed(api)[people["welder"].username]
    assert api[who]("GET", "/people")[0] == 403
    invite(api, 403, who)
    change(api, one, 403, who, role="administrator")
    assert api[who]("POST", f"/people/{one['id']}/reset", SIGN)[0] == 403
    assert listed(api)[people["welder"].username] == one


@pytest.mark.parametrize(
    ("more", "status", "path"),
    [
        ({"username": ""}, 422, "username"),
        ({"username": "with a space"}, 422, "username"),
        ({"username": "x" * 61}, 422, "username"),
        ({"username": "ENGINEER"}, 409, "username"),
        ({"name": " "}, 422, "name"),
        ({"name": "x" * 81}, 422, "name"),
        ({"name": "  thea   BRANDT "}, 409, "name"),
        ({"role": "king"}, 422, "role"),
        ({"password": "wrong"}, 422, "password"),
    ],
)
def test_what_does_not_hold_is_named_and_nobody_is_added(api, thea, more, status, path):
    before = User.objects.count()
    answer = invite(api, status, **({"username": "second", "name": "Second Person"} | more))
    assert any(path in one["path"].split(".") for one in answer["errors"]), answer
    assert User.objects.count() == before


def test_the_password_of_another_signs_no_change(api, people):
    """An administrator whose password somebody else knows changes it first."""
    people["administrator"].set_password(SIGN["password"])
    people["administrator"].save()
    api["administrator"].client.force_login(
        people["administrator"], backend="apps.accounts.backend.GuardedBackend"
    )
    assert "Change it first" in invite(api, 403)["detail"]


def test_whoever_is_disabled_is_out_at_once_and_back_by_a_change(api, thea):
    client = signed_in("t.brandt")
    assert client.get("/api/jobs").status_code == 200
    out = change(api, listed(api)["t.brandt"], active=False)
    assert client.get("/api/jobs").status_code in (401, 403) and signed_in("t.brandt") is None
    assert api["administrator"]("POST", f"/people/{thea['id']}/reset", SIGN)[0] == 422
    change(api, out, active=True)
    assert signed_in("t.brandt") is not None


def test_a_role_holds_from_the_next_call_on(api, thea):
    client = signed_in("t.brandt")
    assert send(client, "/jobs", {"number": "J-1", "title": "one"})[0] == 201
    change(api, listed(api)["t.brandt"], role="viewer")
    assert send(client, "/jobs", {"number": "J-2", "title": "two"})[0] == 403


def test_two_administrators_do_not_overwrite_each_other(api, thea):
    seen = listed(api)["t.brandt"]
    change(api, seen, name="Thea Brandt-Olsen")
    answer = change(api, seen, 409, role="viewer")
    assert [one["path"] for one in answer["errors"]] == ["name"]
    assert (listed(api)["t.brandt"]["name"], listed(api)["t.brandt"]["role"]) == (
        "Thea Brandt-Olsen",
        "engineer",
    )


def test_the_last_administrator_stays(api, people):
    own = listed(api)[people["administrator"].username]
    for more in ({"role": "engineer"}, {"active": False}):
        assert change(api, own, 422, **more)["errors"][0]["path"] == "role"
    change(api, own, name="The Administrator")
    assert User.objects.get(pk=own["id"]).shown_name == "The Administrator"
    assert api["administrator"]("POST", f"/people/{own['id']}/reset", SIGN)[0] == 422


def test_whoever_is_no_administrator_any_more_does_not_get_into_the_admin_pages(api, people):
    second = invite(api, role="administrator")["person"]
    User.objects.filter(pk=second["id"]).update(is_staff=True, is_superuser=True)
    change(api, second, role="welder")
    found = User.objects.get(pk=second["id"])
    assert (found.is_staff, found.is_superuser) == (False, False)


def test_a_reset_ends_every_session_and_older_links(api, thea):
    client = signed_in("t.brandt")
    status, first = api["administrator"]("POST", f"/people/{thea['id']}/reset", SIGN)
    assert status == 200 and client.get("/api/jobs").status_code in (401, 403)
    assert signed_in("t.brandt") is None
    status, second = api["administrator"]("POST", f"/people/{thea['id']}/reset", SIGN)
    anew = {"password": "four green herons 8"}
    assert send(Client(), "/invitations", {"token": first["token"], **anew})[0] == 422
    assert send(Client(), "/invitations", {"token": second["token"], **anew})[0] == 200
    assert signed_in("t.brandt", anew["password"]) is not None


def test_a_link_that_is_none_opens_nothing(people):
    # Signed ones bear the time: they are no names of tests.
    for token in ("x", "a:b:c", signing.dumps(["1", 2], salt="invitation"), signing.dumps(7)):
        for path in ("/invitations/look", "/invitations"):
            assert send(Client(), path, {"token": token, "password": GOOD})[0] == 422, token


def test_a_link_ends_after_a_week_and_with_the_access(api, monkeypatch):
    made = invite(api)
    real = signing.time.time
    monkeypatch.setattr(signing.time, "time", lambda: real() + timedelta(days=7, minutes=1).total_seconds())
    assert send(Client(), "/invitations/look", {"token": made["token"]})[0] == 422
    monkeypatch.undo()
    assert send(Client(), "/invitations/look", {"token": made["token"]})[0] == 200
    change(api, listed(api)["t.brandt"], active=False)
    assert send(Client(), "/invitations/look", {"token": made["token"]})[0] == 422


def test_a_name_that_is_locked_is_seen_and_opened_again(api, thea, people, django_assert_max_num_queries):
    assert not any(one["locked"] for one in listed(api).values())
    while budgets.spend(budgets.NAME, "name", "t.brandt"):
        pass
    assert budgets.spent(budgets.NAME, "name", "t.brandt")
    with django_assert_max_num_queries(8):  # however many people there are
        assert [name for name, one in listed(api).items() if one["locked"]] == ["t.brandt"]
    for who in ("engineer", "viewer"):
        assert api[who]("POST", f"/people/{thea['id']}/unlock")[0] == 403
    assert listed(api)["t.brandt"]["locked"]
    assert api["administrator"]("POST", f"/people/{thea['id']}/unlock")[0] == 204
    assert not listed(api)["t.brandt"]["locked"] and signed_in("t.brandt") is not None


def test_the_trail_names_who_changed_whose_access(api, people, thea):
    change(api, listed(api)["t.brandt"], role="inspector")
    kept = django_apps.get_model("accounts", "UserEvent").objects.filter(pgh_obj_id=thea["id"])
    roles = [
        (one.role, one.pgh_context.metadata["user"]) for one in kept.order_by("pgh_id") if one.pgh_context
    ]
    by = people["administrator"].pk
    assert roles[0] == ("engineer", by) and roles[-1] == ("inspector", by)
    assert not faults()
