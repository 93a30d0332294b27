"""Bad input: a clear refusal with its place, and never a 500."""

import json

import pytest
import schemathesis
from api.api import api as ninja
from config import urls  # noqa: F401 - mounts the routers on the API
from config.wsgi import application
from django.core.signals import request_finished, request_started
from django.db import OperationalError, close_old_connections
from hypothesis import HealthCheck, settings

from tests.server.conftest import Api
from tests.welding import samples


@pytest.mark.parametrize(
    "raw, status, word",
    [
        (b"", 422, ""),
        (b"[" * 10_000 + b"]" * 10_000, 422, "deeper"),
        (b"{" * 9, 422, "JSON"),
        (b'{"text": "1", "text": "2"}', 422, "twice"),
        (b"\xff", 422, "UTF-8"),
        (b"[1]", 422, ""),
        (b"null", 422, ""),
        (b'{"text": NaN}', 422, "NaN"),
    ],
)
@pytest.mark.parametrize("path", ["/read", "/evaluate"])
def test_odd_bodies(api, path, raw, status, word):
    found, answer = api["engineer"]("POST", path, raw=raw)
    assert found == status
    assert word in answer["detail"]


def test_fifty_megabytes(api, job):
    big = b'{"title": "' + b"x" * 50_000_000 + b'"}'
    for path in (f"/jobs/{job.pk}/import", "/evaluate"):
        status, answer = api["engineer"]("POST", path, raw=big)
        assert (status, answer["type"]) == (413, "/problems/too-big")


@pytest.mark.parametrize(
    "change, path",
    [
        ({"title": "x" * 10_000}, "title"),
        ({"title": "\u0000"}, "title"),
        ({"zap": 1}, "zap"),
        ({"passes": [samples.a_pass(1, current_a={"min": 100, "max": 5000})]}, "passes.0.current_a"),
        ({"passes": [samples.a_pass(1, current_a={"min": 200, "max": 100})]}, "passes.0.current_a"),
        ({"passes": [samples.a_pass(1, travel_mm_min={"min": -5, "max": 100})]}, "passes.0.travel_mm_min"),
        ({"positions": ["9Z"]}, "positions.0"),
    ],
)
def test_a_document_with_a_mistake_is_refused_with_its_path(api, draft, change, path):
    body = {"version": 1, "document": samples.procedure(**change)}
    for method, where, payload in (
        ("PUT", f"/revisions/{draft.pk}", body),
        ("POST", "/evaluate", {"document": body["document"]}),
    ):
        status, answer = api["engineer"](method, where, payload)
        assert status == 422
        assert path in [error["path"] for error in answer["errors"]]
    _, now = api["engineer"]("GET", f"/revisions/{draft.pk}")
    assert now["version"] == 1


def test_emoji_and_long_names_are_kept(api, draft):
    title = "Träger 😀 " + "W" * 180
    body = {"version": 1, "document": samples.procedure(title=title)}
    assert api["engineer"]("PUT", f"/revisions/{draft.pk}", body)[0] == 200
    assert api["engineer"]("GET", f"/revisions/{draft.pk}")[1]["document"]["title"] == title
    assert api["engineer"]("GET", f"/revisions/{draft.pk}/print")[0] == 200


@pytest.mark.parametrize(
    "text, kind, as_, word",
    [
        ("25 kg", "flow", "value", "mass"),
        ("5000 A", "current", "value", "plausible"),
        ("26-24", "voltage", "range", "backwards"),
        ("9" * 10_000, "current", "value", "characters"),
        ("😀", "travel", "value", "number"),
        ("98/2", "flow", "gas", "name"),
        ("5", "zap", "value", "zap"),
    ],
)
def test_typed_quantities_are_refused_with_a_reason(api, text, kind, as_, word):
    status, answer = api["viewer"]("POST", "/read", {"text": text, "kind": kind, "as_": as_})
    assert status == 422
    assert word in answer["detail"]


def test_read_in_the_unit_shown(api):
    ask = {"text": "3/8", "kind": "thickness", "system": "si"}
    assert api["viewer"]("POST", "/read", ask)[1]["value"] == 9.525
    ask = {"text": "10", "kind": "travel", "system": "us"}
    assert api["viewer"]("POST", "/read", ask)[1]["value"] == 254
    ask = {"text": "165-200", "kind": "current", "as_": "range"}
    answer = api["viewer"]("POST", "/read", ask)[1]
    assert (answer["min"], answer["max"]) == (165, 200)


@pytest.mark.parametrize(
    "path",
    [
        "/revisions/999999",
        "/coupons/999999",
        "/jobs/999999/procedures",
        "/revisions/999999/print",
        "/nonsense",
        "/revisions/99999999999999999999",
    ],
)
def test_nothing_there(api, path):
    assert api["viewer"]("GET", path)[0] == 404


def test_a_stopped_database_is_said_plainly(api, draft, monkeypatch):
    def gone(*_args, **_kwargs):
        raise OperationalError("connection refused")

    monkeypatch.setattr("apps.procedures.api.require", gone)
    status, answer = api["viewer"]("GET", f"/revisions/{draft.pk}")
    assert (status, answer["type"]) == (503, "/problems/database")
    assert "connection refused" not in json.dumps(answer)


def test_an_unexpected_error_shows_no_trace(api, draft, monkeypatch):
    def broken(*_args, **_kwargs):
        raise RuntimeError("secret detail")

    monkeypatch.setattr("apps.procedures.api.evaluate", broken)
    status, answer = api["viewer"]("GET", f"/revisions/{draft.pk}")
    assert status == 500
    assert "secret" not in json.dumps(answer)


schema = schemathesis.openapi.from_dict(ninja.get_openapi_schema())
schema.app = application


@pytest.fixture
def session(people, draft):
    signed_in = Api(people["engineer"])
    signed_in.client.get("/api/session")
    cookies = {name: signed_in.client.cookies[name].value for name in ("sessionid", "csrftoken")}
    # A plain WSGI call would close the connection of the test's own transaction.
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    yield cookies
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


@schema.exclude(path_regex="/session").parametrize()
@settings(max_examples=8, deadline=None, suppress_health_check=list(HealthCheck))
def test_no_request_breaks_the_server(case, session):
    response = case.call(cookies=session, headers={"X-CSRFToken": session["csrftoken"]})
    assert response.status_code < 500, response.text[:500]
