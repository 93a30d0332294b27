"""Sheets and cards of a whole list: set part by part, watched, ended, never handed out when they are old."""

import io

import pytest
from apps.background.work import end, next_waiting
from apps.printing.models import PrintRun
from apps.printing.services import print_runs
from django.conf import settings
from pypdf import PdfReader, PdfWriter

from tests.server.test_joint_cards import text_of
from tests.server.test_list_wps import assign, table  # noqa: F401 - a fixture
from welding.language import speaking

State = PrintRun.State


def asked(api, job, status=200, **body):
    code, run = api["welder"]("POST", f"/jobs/{job.pk}/joints/print-runs", body)
    assert code == status, run
    return run


def file_of(api, job, run, status=200):
    code, data = api["welder"]("GET", f"/jobs/{job.pk}/joints/print-runs/{run['id']}/file")
    assert code == status, data
    return data


def test_parts_make_one_pdf_with_every_sheet(api, job, table, released, monkeypatch):  # noqa: F811
    assert assign(api, job, table, T1=released.pk)[0] == 200
    parts = {"sheets": (2, print_runs.PARTS["sheets"][1]), "cards": print_runs.PARTS["cards"]}
    monkeypatch.setattr(print_runs, "PARTS", parts)
    run = asked(api, job, what="sheets")
    assert (run["state"], run["doing"]) == ("done", "join")
    data = file_of(api, job, run)
    said = text_of(data)
    _, at_once = api["welder"]("GET", f"/jobs/{job.pk}/joints/sheets")
    assert len(table["types"]) > 2 and len(PdfReader(io.BytesIO(data)).pages) >= len(table["types"])
    for one in table["types"]:
        assert f"{one['key']} ·" in said and f"{one['key']} ·" in text_of(at_once)
    assert said.count("do not weld") == text_of(at_once).count("do not weld") == len(table["types"]) - 1
    assert asked(api, job, what="sheets")["id"] == run["id"], "asked twice, set once"
    assert asked(api, job, what="sheets", second="de")["id"] != run["id"]


def test_cards_of_the_whole_list(api, job, table):  # noqa: F811
    said = text_of(file_of(api, job, asked(api, job, what="cards")))
    assert all(mark in said for one in table["types"] for mark in one["marks"])


def test_a_print_that_rests_on_a_withdrawn_wps_is_not_handed_out(api, job, table, released):  # noqa: F811
    assert assign(api, job, table, T1=released.pk)[0] == 200
    run = asked(api, job, what="sheets")
    assert str(released) in text_of(file_of(api, job, run))
    body = {"password": "long-enough-1", "reason": "found wrong"}
    assert api["engineer"]("POST", f"/revisions/{released.pk}/withdraw", body)[0] == 200
    assert "changed since" in file_of(api, job, run, 409)["detail"]
    again = asked(api, job, what="sheets")
    assert again["id"] != run["id"] and str(released) not in text_of(file_of(api, job, again))


def test_only_the_last_prints_are_kept_with_their_files(
    api,
    job,
    table,  # noqa: F811
    monkeypatch,
    django_capture_on_commit_callbacks,
):
    monkeypatch.setattr(print_runs, "KEPT", 1)
    old = PrintRun.objects.get(pk=asked(api, job, what="cards")["id"])
    assert old.file.storage.exists(old.file.name)
    with django_capture_on_commit_callbacks(execute=True):
        asked(api, job, what="cards", paper="letter")
    assert not PrintRun.objects.filter(pk=old.pk).exists()
    assert not old.file.storage.exists(old.file.name)


@pytest.fixture
def apart(monkeypatch):
    """Prints wait for a process of their own, which is not started."""
    monkeypatch.setattr(settings, "WORK_APART", True)
    monkeypatch.setattr(print_runs, "start_process", lambda _: None)


def test_a_print_is_ended(api, job, table, apart):  # noqa: F811
    run = asked(api, job, what="sheets")
    path = f"/jobs/{job.pk}/joints/print-runs/{run['id']}"
    assert run["state"] == "waiting" and "not done" in file_of(api, job, run, 409)["detail"]
    taken = next_waiting(PrintRun)
    assert api["viewer"]("POST", f"{path}/stop", {})[1]["state"] == "stopped"
    print_runs.take_up(taken)
    taken.refresh_from_db()
    assert (taken.state, taken.file.name) == (State.STOPPED, "")


def test_a_print_that_is_ended_while_its_file_is_written_leaves_no_file(
    api,
    job,
    table,  # noqa: F811
    apart,
    monkeypatch,
):
    asked(api, job, what="cards")
    taken = next_waiting(PrintRun)

    class Ended(PdfWriter):
        def write(self, stream):
            end(taken)
            return super().write(stream)

    monkeypatch.setattr(print_runs, "PdfWriter", Ended)
    print_runs.take_up(taken)
    kept = PrintRun.objects.get(pk=taken.pk)
    assert (kept.state, kept.file.name) == (State.STOPPED, "")
    storage = kept.file.storage
    assert not any(storage.exists(f"{folder}/cards-{kept.pk}.pdf") for folder in months(storage))


def months(storage):
    """Folders in which prints are kept."""
    years = storage.listdir("printed")[0] if storage.exists("printed") else []
    return [f"printed/{year}/{month}" for year in years for month in storage.listdir(f"printed/{year}")[0]]


def test_a_list_that_changed_meanwhile_is_not_printed(api, job, table, apart, released):  # noqa: F811
    asked(api, job, what="sheets")
    assert assign(api, job, table, T1=released.pk)[0] == 200
    taken = next_waiting(PrintRun)
    print_runs.take_up(taken)
    taken.refresh_from_db()
    assert taken.state == State.FAILED
    with speaking("en"):
        assert "print again" in taken.problem


def test_more_than_one_pdf_may_hold_is_refused(api, job, table, monkeypatch):  # noqa: F811
    monkeypatch.setattr(print_runs, "MOST_OF", {"sheets": 1, "cards": 1})
    run = asked(api, job, what="sheets")
    assert run["state"] == "failed" and "at most 1" in run["problem"]
    assert api["welder"]("POST", f"/jobs/{job.pk}/joints/print-runs", {"what": "books"})[0] == 422
    assert api["welder"]("GET", f"/jobs/{job.pk}/joints/print-runs/{run['id'] + 99}")[0] == 404
