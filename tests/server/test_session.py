"""Signing in: CSRF, throttling, the demo's one click."""

import json

import pytest
from django.test import Client


def sign_in(client, password, token=None):
    headers = {"X-CSRFToken": token} if token else {}
    return client.post(
        "/api/session",
        json.dumps({"username": "engineer", "password": password}),
        content_type="application/json",
        headers=headers,
    )


@pytest.fixture
def strict():
    return Client(enforce_csrf_checks=True)


def test_sign_in_needs_the_token(people, strict):
    assert sign_in(strict, "long-enough-1").status_code in (401, 403)
    strict.get("/api/session")
    token = strict.cookies["csrftoken"].value
    answer = sign_in(strict, "long-enough-1", token)
    assert answer.status_code == 200
    assert answer.json()["person"]["role"] == "engineer"
    # A change without the token is refused; the token is new since the sign-in.
    assert strict.post("/api/jobs", "{}", content_type="application/json").status_code == 403


def test_a_wrong_password_says_so_beside_the_field(people, strict):
    strict.get("/api/session")
    answer = sign_in(strict, "wrong", strict.cookies["csrftoken"].value)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["path"] == "password"


def test_one_click_only_in_the_demo(people, strict, settings):
    strict.get("/api/session")
    headers = {"X-CSRFToken": strict.cookies["csrftoken"].value}
    people["viewer"].username = "demo-viewer"
    people["viewer"].save()

    def click(name):
        return strict.post(
            "/api/session/demo",
            json.dumps({"username": name}),
            content_type="application/json",
            headers=headers,
        ).status_code

    settings.DEMO = False
    assert strict.get("/api/session").json()["demo"] == []
    assert click("demo-viewer") == 404
    settings.DEMO = True
    assert click("engineer") == 404  # not one of the invented people
    assert click("demo-viewer") == 200


def test_signing_out(api):
    assert api["viewer"]("DELETE", "/session")[1]["person"] is None
    assert api["viewer"]("GET", "/jobs")[0] == 401
