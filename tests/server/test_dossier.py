"""The final documentation: what it lacks, the bytes that were signed, equal contents give equal bytes."""

import hashlib
import io
import json
import zipfile

import pypdfium2
import pytest
from apps.procedures.models import Revision
from apps.production.models import Weld
from apps.qualification.models import QualificationRecord
from django.db import connection


def lacks(api, job):
    status, answer = api["viewer"]("GET", f"/jobs/{job.pk}/dossier")
    assert status == 200, answer
    return answer, {one["said"]: one["count"] for one in answer["open"]}


def archive(api, job, status=200):
    code, data = api["viewer"]("GET", f"/jobs/{job.pk}/dossier/file")
    assert code == status, data
    return data


def test_what_the_documentation_lacks(api, job, log, inspect):
    first, second = log("W1"), log("W1", item=2)
    strange = log("W3")
    inspect(first), inspect(second, "UT", accepted=False)
    assert api["inspector"]("POST", f"/welds/{first['id']}/release")[0] == 200
    found, said = lacks(api, job)
    assert (found["expected"], found["made"], found["released"]) == (5, 3, 1)
    assert said == {
        "Rows of the weld list that are no joints yet": 1,
        "Joints without a WPS that covers them": 1,
        "Welds that are not logged": 2,
        "Welds that are not inspected": 1,
        "Welds that are rejected and not repaired": 1,
        "Welds whose WPS does not cover them, or is not the one assigned": 1,
    }
    assert strange["fit"] == "blocked"
    marks = {one["said"]: one["marks"] for one in found["open"]}
    assert marks["Welds that are not logged"] == ["W2 / 1", "W4 / 1"]
    # Only a repair releases a rejected weld.
    repair = log("W1", item=2, repair_of=second["id"])
    inspect(repair)
    assert api["inspector"]("POST", f"/welds/{repair['id']}/release")[0] == 200
    found, said = lacks(api, job)
    assert found["released"] == 2 and "Welds that are rejected and not repaired" not in said


def test_welds_of_joints_that_the_list_lost_are_named(api, job, log):
    log("W2")
    row = next(
        one
        for one in api["viewer"]("GET", f"/jobs/{job.pk}/weld-list")[1]["rows"]
        if one["cells"]["mark"] == "W2"
    )
    code = {"id": "iso-15614-1:2017", "level": 2}
    gone = {"code": code, "changes": [{"id": row["id"], "version": row["version"]}]}
    assert api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/rows", gone)[0] == 200
    assert lacks(api, job)[1]["Welds of joints that the weld list no longer has"] == 1


def test_the_archive_holds_what_was_signed_with_its_hashes(api, job, log, inspect, released):
    inspect(log("W2"))
    data = archive(api, job)
    assert data == archive(api, job)  # reproducible
    with zipfile.ZipFile(io.BytesIO(data)) as opened:
        files = {name: opened.read(name) for name in opened.namelist()}
    contents = json.loads(files["contents.json"])
    assert {one["name"] for one in contents["files"]} == set(files) - {"contents.json"}
    for one in contents["files"]:
        assert hashlib.sha256(files[one["name"]]).hexdigest() == one["sha256"]
    record = QualificationRecord.objects.get()
    hashes = {one["sha256"] for one in contents["files"]}
    assert {record.content_hash, released.content_hash} <= hashes
    assert {record.content_hash, released.content_hash} == {
        one["sha256"] for one in json.loads(files["signatures.json"])
    }
    (weld,) = json.loads(files["welds.json"])
    assert weld["mark"] == "W2" and weld["results"][0]["method"] == "VT"
    assert b"W4" in files["weld-list.csv"] and b"W2" in files["welds.csv"]


@pytest.mark.parametrize("what", ["record", "procedure"])
def test_a_bent_document_is_not_handed_out(api, job, log, released, what):
    log("W2")
    model, pk = (
        (QualificationRecord, QualificationRecord.objects.get().pk)
        if what == "record"
        else (Revision, released.pk)
    )
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        model.objects.filter(pk=pk).update(body=model.objects.get(pk=pk).body.replace("135", "136"))
        cursor.execute("SET session_replication_role = DEFAULT")
    code, answer = api["viewer"]("GET", f"/jobs/{job.pk}/dossier/file")
    assert code == 409 and answer["type"].endswith("/damaged"), answer


def test_what_is_stored_of_a_weld_reads_the_same_whoever_entered_it(api, log):
    api["welder"].client.cookies["language"] = "de"
    weld = Weld.objects.get(pk=log("W3")["id"])
    assert "butt" in weld.joint and weld.against[0].startswith("Positions of the WPS")


def test_the_pdf_has_bookmarks_and_is_the_same_twice(api, job, log, inspect):
    weld = log("W2")
    inspect(weld), inspect(weld, "UT", accepted=False)
    first, second = (api["viewer"]("GET", f"/jobs/{job.pk}/dossier/print")[1] for _ in range(2))
    document = pypdfium2.PdfDocument(first)
    titles = [one.get_title() for one in document.get_toc()]
    assert titles[0].startswith("FB-27") or "Open points" in titles
    assert {"Open points", "Qualification records", "Welds and results", "Rejections"} <= set(titles)
    said = " ".join(page.get_textpage().get_text_range() for page in document)
    assert "lack of fusion" in said and "W2 / 1" in said and "FB-27-P03 B" in said
    assert first == second


def test_without_a_list_nobody_says_that_nothing_is_open(api, job):
    found, said = lacks(api, job)
    assert (found["expected"], found["made"]) == (0, 0)
    assert said == {"The job has no weld list: what has to be welded is not known.": 0}
    status, refused = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coverage")
    assert (status, refused["type"]) == (409, "/problems/no-weld-list")
