"""Drafts, revisions, conflicts, the audit trail, and what the database itself refuses."""

import hashlib

import pytest
from apps.coupons.services.start_coupon import start_coupon
from apps.procedures.models import Revision
from apps.procedures.services.begin_revision import next_letter
from django.db import DatabaseError, IntegrityError, connection, transaction

from tests.welding import samples
from welding.documents.codec import PROCEDURE


def test_draft_save_and_read(api, job):
    engineer = api["engineer"]
    status, made = engineer(
        "POST",
        f"/jobs/{job.pk}/procedures",
        {"document": {"format": "grounded-bead/procedure", "version": 1, "title": "Butt"}},
    )
    assert status == 201
    _, one = engineer("GET", f"/revisions/{made['id']}")
    assert (one["number"], one["letter"], one["stage"], one["version"]) == ("FB-27-P01", "A", "draft", 1)
    assert one["evaluation"]["missing"]
    status, saved = engineer(
        "PUT", f"/revisions/{made['id']}", {"version": 1, "document": samples.procedure()}
    )
    assert (status, saved["version"]) == (200, 2)
    _, again = engineer("GET", f"/revisions/{made['id']}")
    # The number is the one it is kept by, whatever the document said.
    assert again["document"]["number"] == "FB-27-P01"
    assert len(again["evaluation"]["heat_input"]) == 3
    _, lines = engineer("GET", f"/jobs/{job.pk}/procedures")
    assert lines[0]["processes"] == ["135"]
    assert lines[0]["thickness_max_mm"] == 20


def test_two_people_never_overwrite_each_other_silently(api, draft):
    mine, theirs = samples.procedure(title="mine"), samples.procedure(title="theirs")
    assert api["administrator"]("PUT", f"/revisions/{draft.pk}", {"version": 1, "document": theirs})[0] == 200
    status, answer = api["engineer"]("PUT", f"/revisions/{draft.pk}", {"version": 1, "document": mine})
    assert (status, answer["type"]) == (409, "/problems/stale")
    assert answer["current"]["document"]["title"] == "theirs"
    assert answer["current"]["version"] == 2
    assert "Administrator Test" in answer["detail"]
    _, now = api["engineer"]("GET", f"/revisions/{draft.pk}")
    assert now["document"]["title"] == "theirs"
    assert api["engineer"]("PUT", f"/revisions/{draft.pk}", {"version": 2, "document": mine})[0] == 200


def test_a_coupon_freezes_its_revision(api, people, draft):
    start_coupon(people["engineer"], draft)
    status, answer = api["engineer"](
        "PUT", f"/revisions/{draft.pk}", {"version": 1, "document": samples.procedure(title="late")}
    )
    assert (status, answer["type"]) == (409, "/problems/conflict")
    assert "frozen" in answer["detail"]
    status, made = api["engineer"]("POST", f"/revisions/{draft.pk}/next")
    assert status == 201
    _, fresh = api["engineer"]("GET", f"/revisions/{made['id']}")
    assert (fresh["letter"], fresh["stage"], fresh["document"]["revision"]) == ("B", "draft", "B")
    assert api["engineer"]("POST", f"/revisions/{draft.pk}/next")[0] == 409  # one draft at a time


@pytest.mark.parametrize(
    "change",
    [
        {"document": {}},
        {"content_hash": "0" * 64},
        {"frozen_at": None, "stage": "draft"},
    ],
)
def test_the_database_keeps_frozen_documents(people, draft, change):
    start_coupon(people["engineer"], draft)
    with pytest.raises(DatabaseError, match="Cannot update"), transaction.atomic():
        Revision.objects.filter(pk=draft.pk).update(**change)


@pytest.mark.parametrize(
    "change",
    [
        {"stage": "nonsense"},
        {"letter": "a"},
        {"version": 0},
        {"stage": "trial"},
        {"letter": ""},
    ],
)
def test_the_database_refuses_odd_rows(draft, change):
    with pytest.raises(IntegrityError), transaction.atomic():
        Revision.objects.filter(pk=draft.pk).update(**change)


def test_the_trail_is_written_by_the_database(api, draft):
    with connection.cursor() as cursor:  # past all of our code
        cursor.execute("update procedures_revision set title = 'by hand' where id = %s", [draft.pk])
    api["engineer"]("PUT", f"/revisions/{draft.pk}", {"version": 1, "document": samples.procedure()})
    _, events = api["viewer"]("GET", f"/revisions/{draft.pk}/history")
    assert [event["what"] for event in events] == ["saved", "saved", "created"]
    assert events[0]["version"] == 2


def test_next_letters():
    assert [next_letter(x) for x in ("A", "Y", "Z", "AZ", "ZZ")] == ["B", "Z", "AA", "BA", "AAA"]


def test_round_trip_through_a_file(api, job, draft):
    engineer = api["engineer"]
    _, exported = engineer("GET", f"/revisions/{draft.pk}/export")
    file = api["engineer"].client.get(f"/api/revisions/{draft.pk}/export").content
    status, answer = engineer("POST", f"/jobs/{job.pk}/import", raw=file)
    assert (status, answer["unchanged"]) == (200, True)
    _, other = engineer("POST", "/jobs", {"number": "FB-28", "title": "Other"})
    status, answer = engineer("POST", f"/jobs/{other['id']}/import", raw=file)
    assert (status, answer["unchanged"], answer["number"]) == (200, False, "FB-27-P03")
    again = api["engineer"].client.get(f"/api/revisions/{answer['id']}/export").content
    assert again == file
    changed = file.replace(b"Girder butt", b"Other butt")
    status, refusal = engineer("POST", f"/jobs/{job.pk}/import", raw=changed)
    assert (status, refusal["errors"][0]["path"]) == (409, "number")
    assert (
        engineer("POST", f"/jobs/{job.pk}/import?as_number=FB-27-P77", raw=changed)[1]["number"]
        == "FB-27-P77"
    )
    assert exported["number"] == "FB-27-P03"


def test_every_pass_is_known_by_an_id_that_stays(api, people, job, draft):
    path = f"/revisions/{draft.pk}"
    _, one = api["engineer"]("GET", path)
    ids = [run["id"] for run in one["document"]["passes"]]
    assert ids == ["p1", "p2", "p3"]
    # The root is removed, a cap is added; the two others are still what they were.
    _, middle, last = one["document"]["passes"]
    cap = {**last, "id": "abc123", "number": 3}
    document = {**one["document"], "passes": [{**middle, "number": 1}, {**last, "number": 2}, cap]}
    assert api["engineer"]("PUT", path, {"version": 1, "document": document})[0] == 200
    _, two = api["engineer"]("GET", path)
    assert [run["id"] for run in two["document"]["passes"]] == ["p2", "p3", "abc123"]
    start_coupon(people["engineer"], Revision.objects.get(pk=draft.pk))
    _, made = api["engineer"]("POST", f"{path}/next")
    _, fresh = api["engineer"]("GET", f"/revisions/{made['id']}")
    assert [run["id"] for run in fresh["document"]["passes"]] == ["p2", "p3", "abc123"]


def test_a_draft_of_before_there_were_ids_gets_the_same_ones_for_everybody(api, people, job, draft):
    older = PROCEDURE.take(samples.procedure(number=draft.procedure.number, revision=draft.letter))
    plain, body = PROCEDURE.kept_with_bytes(older)
    assert all("id" not in run for run in plain["passes"])
    Revision.objects.filter(pk=draft.pk).update(
        document=plain, body=body.decode(), content_hash=hashlib.sha256(body).hexdigest()
    )
    seen = [
        [run["id"] for run in api[who]("GET", f"/revisions/{draft.pk}")[1]["document"]["passes"]]
        for who in ("engineer", "administrator")
    ]
    assert seen == [["p1", "p2", "p3"]] * 2
    # Its file, written before, is the same document still; what was frozen is shown as it was.
    status, answer = api["engineer"]("POST", f"/jobs/{job.pk}/import", raw=PROCEDURE.write(older))
    assert (status, answer["unchanged"]) == (200, True)
    start_coupon(people["engineer"], Revision.objects.get(pk=draft.pk))
    _, frozen = api["engineer"]("GET", f"/revisions/{draft.pk}")
    assert all(run.get("id") is None for run in frozen["document"]["passes"])


@pytest.mark.parametrize("name", ["", "a b", "x" * 41, "ü"])
def test_an_odd_id_is_refused(api, draft, name):
    document = samples.procedure()
    document["passes"][1]["id"] = name
    status, answer = api["engineer"]("PUT", f"/revisions/{draft.pk}", {"version": 1, "document": document})
    assert status == 422 and any("passes.1.id" in one["path"] for one in answer["errors"])


def test_a_save_without_ids_lends_no_pass_the_id_of_another(api, draft):
    path = f"/revisions/{draft.pk}"
    _, before = api["engineer"]("GET", path)
    plain = [{k: v for k, v in run.items() if k != "id"} for run in before["document"]["passes"]]
    rest = [{**run, "number": n} for n, run in enumerate(plain[1:], 1)]  # the root is gone
    document = {**before["document"], "passes": rest}
    assert api["engineer"]("PUT", path, {"version": 1, "document": document})[0] == 200
    _, now = api["engineer"]("GET", path)
    ids = [run["id"] for run in now["document"]["passes"]]
    assert len(set(ids)) == 2 and not set(ids) & {run["id"] for run in before["document"]["passes"]}
