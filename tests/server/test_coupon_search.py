"""Searches for the cheapest coupons: asked for, found once, watched, ended; drafts from what was found."""

from datetime import timedelta

import pytest
from apps.background import serve
from apps.background.work import give_up_orphans, next_waiting
from apps.weldlist.models import CouponSearch, WeldList
from apps.weldlist.services import search as searches
from django.conf import settings
from django.utils import timezone

from tests.server.test_weld_list import ROWS, book, change, take
from welding.documents.codec import WELD_LIST
from welding.weldlist.coupons import fewest_coupons

State = CouponSearch.State


@pytest.fixture
def listed(api, job):
    status, answer = take(api["engineer"], job, book(ROWS))
    assert status == 200, answer
    return answer


def searched(person, job, **asked):
    """A search that was asked for; in these tests it is made at once."""
    status, search = person("POST", f"/jobs/{job.pk}/weld-list/coupons", asked)
    assert (status, search["state"]) == (200, "done"), search
    return search


def test_the_fewest_coupons_close_the_gaps_once_they_are_welded(api, job, signed, listed):
    search = searched(api["engineer"], job)
    plan = search["plan"]
    assert plan["optimal"] and plan["cost"] == plan["bound"] > 0
    closed = {key for one in plan["coupons"] for key in one["covers"]} | {
        one["key"] for one in plan["uncovered"]
    }
    _, cover = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coverage")
    assert closed == {one["key"] for one in cover["types"] if one["verdict"] != "covered"}
    names = [one["name"] for one in plan["coupons"]]
    other = searched(api["engineer"], job, without=names[:1])["plan"]
    assert other["cost"] >= plan["cost"] - 0.01
    drafts = f"/jobs/{job.pk}/weld-list/drafts"
    status, made = api["engineer"]("POST", drafts, {"search": search["id"], "names": names})
    assert status == 201 and [one["coupon"] for one in made] == names
    status, draft = api["viewer"]("GET", f"/revisions/{made[0]['revision_id']}")
    assert status == 200 and draft["stage"] == "draft" and draft["document"]["passes"]


@pytest.mark.parametrize(
    "code", [{"id": "iso-15614-1:2017", "level": 1}, {"id": "aws-d1.1:2020"}], ids=["level 1", "D1.1"]
)
def test_the_same_list_under_another_code(api, job, listed, code):
    """The same joints and records; the core's own answer under that code."""
    plan = searched(api["engineer"], job, code=code)["plan"]
    assert plan["code"]["id"] == code["id"] and plan["types"] == 3
    _, document = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/file?kind=json")
    plain = {**document, "code": code, "joints": [without_code(one) for one in document["joints"]]}
    own = fewest_coupons(WELD_LIST.take(plain), 30)
    assert (plan["cost"], plan["optimal"]) == (own.cost, own.optimal)
    assert [one["name"] for one in plan["coupons"]] == [one.name for one in own.coupons]
    status, last = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coupons")
    assert status == 200 and last is None, "what was asked under another code is not the list's own answer"


def without_code(line):
    return {**line, "joint": {name: value for name, value in line["joint"].items() if name != "code"}}


def test_the_list_as_a_document_plans_the_same_coupons_without_the_server(api, job, signed, listed):
    _, plain = api["engineer"]("GET", f"/jobs/{job.pk}/weld-list/file?kind=json")
    document = WELD_LIST.take(plain)
    assert [one.mark for one in document.joints] == ["W1", "W2", "W3", "W4"]
    assert [one.number for one in document.records] == [signed.number]
    plan = searched(api["engineer"], job)["plan"]
    assert fewest_coupons(document).cost == plan["cost"] > 0


def test_what_was_found_stands_until_something_changes(api, job, listed):
    first = searched(api["engineer"], job)
    assert searched(api["engineer"], job)["id"] == first["id"]
    _, last = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coupons")
    assert (last["id"], last["current"]) == (first["id"], True)
    fifth = listed["rows"][1]
    status, _ = change(
        api["engineer"],
        job,
        {
            "id": fifth["id"],
            "version": fifth["version"],
            "cells": {**fifth["cells"], "thickness": "33 mm", "thickness2": "33 mm"},
        },
    )
    assert status == 200
    _, last = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coupons")
    assert (last["id"], last["current"]) == (first["id"], False)
    names = [first["plan"]["coupons"][0]["name"]]
    drafts = f"/jobs/{job.pk}/weld-list/drafts"
    status, answer = api["engineer"]("POST", drafts, {"search": first["id"], "names": names})
    assert status == 409 and "changed" in answer["detail"]
    assert searched(api["engineer"], job)["id"] != first["id"]


def test_a_search_is_for_engineers(api, job, listed):
    path = f"/jobs/{job.pk}/weld-list/coupons"
    assert api["viewer"]("POST", path, {})[0] == 403
    search = searched(api["engineer"], job)
    assert api["viewer"]("POST", f"{path}/{search['id']}/stop", {})[0] == 403
    assert api["viewer"]("GET", f"{path}/{search['id']}")[0] == 200
    drafts = f"/jobs/{job.pk}/weld-list/drafts"
    assert api["viewer"]("POST", drafts, {"search": search["id"], "names": ["x"]})[0] == 403
    status, answer = api["engineer"]("POST", drafts, {"search": search["id"], "names": ["111 nothing"]})
    assert status == 409 and "111 nothing" in answer["detail"]
    assert api["engineer"]("POST", drafts, {"search": search["id"] + 999, "names": ["x"]})[0] == 404


@pytest.fixture
def apart(monkeypatch):
    """Searches wait for a process of their own, which is not started."""
    started = []
    monkeypatch.setattr(settings, "WORK_APART", True)
    monkeypatch.setattr(searches, "start_process", lambda _: started.append(1))
    return started


def waiting(api, job):
    status, search = api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/coupons", {})
    assert (status, search["state"]) == (200, "waiting"), search
    return CouponSearch.objects.get(pk=search["id"])


def test_a_search_waits_its_turn_and_tells_how_far_it_is(
    api, job, listed, apart, django_capture_on_commit_callbacks
):
    with django_capture_on_commit_callbacks(execute=True):
        search = waiting(api, job)
    assert apart == [1]
    assert waiting(api, job).pk == search.pk, "asked twice, searched once"
    taken = next_waiting(CouponSearch)
    assert (taken.pk, taken.state) == (search.pk, State.RUNNING) and next_waiting(CouponSearch) is None
    let_go = []
    searches.take_up(taken, 1, lambda: let_go.append(1))
    search.refresh_from_db()
    assert search.state == State.DONE and search.plan["optimal"] and let_go
    assert search.doing == "check"


def test_a_search_is_stopped(api, job, listed, apart):
    search = waiting(api, job)
    path = f"/jobs/{job.pk}/weld-list/coupons/{search.pk}"
    taken = next_waiting(CouponSearch)
    status, answer = api["engineer"]("POST", f"{path}/stop", {})
    assert (status, answer["state"]) == (200, "stopped")
    searches.take_up(taken)
    search.refresh_from_db()
    assert (search.state, search.plan) == (State.STOPPED, None)
    assert waiting(api, job).pk != search.pk, "asked again, it is searched for again"


def test_a_search_whose_process_is_gone_says_so(api, job, listed, apart):
    search = waiting(api, job)
    next_waiting(CouponSearch)
    CouponSearch.objects.filter(pk=search.pk).update(seen_at=timezone.now() - timedelta(minutes=5))
    _, answer = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coupons/{search.pk}")
    assert answer["state"] == "failed" and "ask again" in answer["problem"]
    again = waiting(api, job)
    CouponSearch.objects.filter(pk=again.pk).update(seen_at=timezone.now() - timedelta(minutes=1))
    apart.clear()
    api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coupons/{again.pk}")
    assert apart == [1], "nobody took it up: one is started"


def test_what_another_process_left_behind_is_given_up(api, job, listed, apart):
    search = waiting(api, job)
    next_waiting(CouponSearch)
    give_up_orphans(CouponSearch)
    search.refresh_from_db()
    assert search.state == State.FAILED and "ask again" in search.problem


def test_what_cannot_be_searched_is_said(api, job, listed, apart, monkeypatch):
    monkeypatch.setattr(searches, "MOST_TYPES", 2)
    search = waiting(api, job)
    searches.take_up(next_waiting(CouponSearch))
    search.refresh_from_db()
    assert search.state == State.FAILED and "command line" in search.problem
    monkeypatch.setattr(searches, "MOST_TYPES", 2000)
    monkeypatch.setattr(searches, "fewest_coupons", lambda *_: 1 / 0)
    search = waiting(api, job)
    searches.take_up(next_waiting(CouponSearch))
    search.refresh_from_db()
    assert search.state == State.FAILED and "log" in search.problem


def test_a_list_that_changed_while_it_waited_is_not_searched(api, job, listed, apart):
    search = waiting(api, job)
    WeldList.objects.filter(pk=search.weld_list_id).update(version=search.list_version + 1)
    searches.take_up(next_waiting(CouponSearch))
    search.refresh_from_db()
    assert search.state == State.FAILED and "changed" in search.problem


def test_only_one_process_searches(monkeypatch):
    monkeypatch.setattr(serve, "PATIENCE_S", 0.1)
    with serve.only_one("test") as first, serve.only_one("test") as second:
        assert (first, second) == (True, False)
    with serve.only_one("test") as again:
        assert again
