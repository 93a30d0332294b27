"""The number of a request stands in its answer and in each line of the log about it."""

import json
import logging

import pytest
import structlog
from config.logs import PRE_CHAIN
from config.requests import HEADER, _telling_if_slow
from django.db import OperationalError

pytestmark = pytest.mark.django_db


@pytest.fixture
def lines():
    """Records of the log as the server writes them: JSON."""
    kept = []
    formatter = structlog.stdlib.ProcessorFormatter(
        processor=structlog.processors.JSONRenderer(), foreign_pre_chain=PRE_CHAIN
    )

    class Keep(logging.Handler):
        def emit(self, record):
            kept.append(json.loads(formatter.format(record)))

    handler, logger = Keep(), logging.getLogger("request")
    logger.addHandler(handler)
    yield kept
    logger.removeHandler(handler)


def test_a_change_is_logged_with_its_number_and_who_made_it(api, people, lines):
    client = api["engineer"].client
    answer = client.post(
        "/api/jobs", json.dumps({"number": "J-1", "title": "x"}), content_type="application/json"
    )
    assert answer.status_code == 201 and len(answer[HEADER]) == 32
    assert [one["request_id"] for one in lines] == [answer[HEADER]]
    assert lines[0]["event"].startswith("POST api/jobs 201 in ")
    assert lines[0]["event"].endswith(f"person {people['engineer'].pk}")


def test_a_read_is_numbered_and_not_logged(api, lines):
    answer = api["viewer"].client.get("/api/jobs")
    assert answer[HEADER] and lines == []


@pytest.mark.parametrize(
    "given, kept", [("abc-123-def", True), ("x" * 65, False), ("a\tb\tc\td\te", False), ("short", False)]
)
def test_a_number_that_the_proxy_gave_is_kept_where_it_is_one(api, given, kept):
    answer = api["viewer"].client.get("/api/jobs", headers={HEADER: given})
    assert (answer[HEADER] == given) is kept


def test_keys_in_addresses_stay_out_of_the_log(api, lines, monkeypatch):
    monkeypatch.setattr("config.requests.SLOW_S", -1)
    _, link = api["viewer"]("GET", "/crew/calendar")
    lines.clear()
    api["viewer"].client.get(link["url"].partition("testserver")[2])
    assert lines[0]["event"].startswith("GET api/crew/calendar.ics 200")
    assert "key=" not in json.dumps(lines)


def test_nobody_is_looked_up_for_the_sake_of_the_log(api, lines, monkeypatch):
    """With the database away a second look-up would wait for it once more, and spoil the answer."""

    def away(request):
        raise OperationalError("away")

    monkeypatch.setattr("django.contrib.auth.middleware.auth.get_user", away)
    api["engineer"].client.raise_request_exception = False
    answer = api["engineer"].client.post("/api/jobs", "{}", content_type="application/json")
    assert answer.status_code == 503 and answer.json()["type"] == "/problems/database"
    assert lines[0]["event"].startswith("POST ? 503") and lines[0]["event"].endswith("person -")


def test_a_slow_query_is_logged_under_its_request_and_without_values(api, lines, monkeypatch):
    monkeypatch.setattr("config.requests.SLOW_QUERY_S", -1)
    answer = api["engineer"].client.get("/api/jobs/417/procedures")
    queries = [one for one in lines if one["event"].startswith("query of ")]
    assert {one["request_id"] for one in queries} == {answer[HEADER]}
    asked = [one["event"] for one in queries if "jobs_job" in one["event"]]
    assert asked and "%s" in asked[0] and "417" not in "".join(asked)


def test_a_query_that_fails_after_long_is_logged_and_fails(lines, monkeypatch):
    monkeypatch.setattr("config.requests.SLOW_QUERY_S", -1)

    def broken(*_):
        raise OperationalError("away")

    with pytest.raises(OperationalError, match="away"):
        _telling_if_slow(broken, "SELECT 1", None, many=False, context={})
    assert [one["event"].partition(": ")[2] for one in lines] == ["SELECT 1"]
