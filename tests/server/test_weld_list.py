"""The weld list of a job: a messy file taken in, two people editing, what covers it, coupons and their drafts."""

import io
import json
from datetime import datetime
from urllib.parse import urlencode

import pytest
from apps.weldlist.models import ListRow, WeldList
from openpyxl import Workbook, load_workbook

ISO = {"id": "iso-15614-1:2017", "level": 2}
HEAD = [
    ["Tarn Hollow footbridge, weld list"],
    ["Weld", "Drawing", None, "Nahtart", "Material", "Thickness [mm]", None, "Position", "Size"],
    ["No.", "No.", "Rev.", None, None, "1", "2", None, None],
]
ROWS = [
    ["W1", "101", "B", "BW", "S355J2+N", 20.0, 20, "PF", None],
    ["W2", "101", "B", "BW", "S355J2+N", "20", "20", "PF", None],
    ["W3", "101", "B", "BW", "S355J2+N", 60, 60, "PC", None],
    ["W4", "101", "B", "FW", "S355", "12/12", None, "PB", "a5 mm"],
    ["W5", "101", "B", "FW", "S355", datetime(2026, 4, 3), None, "PB", "a5 mm"],
]
ANSWERS = {"weld:bw": "cjp-groove", "metal:s355": "S355J2+N", "joint:fillet": "t", "second": "same"}


def book(rows, head=HEAD):
    made = Workbook()
    for row in [*head, *rows]:
        made.active.append(row)
    if head is HEAD:
        made.active.merge_cells("F2:G2")
        made.active.merge_cells("B2:C2")
    sink = io.BytesIO()
    made.save(sink)
    return sink.getvalue()


def look(api, job, data, how=None):
    head = json.dumps(how).encode() if how else b""
    return api("POST", f"/jobs/{job.pk}/weld-list/look?head={len(head)}", raw=head + data)


def take(api, job, data, answers=ANSWERS, **more):
    status, seen = look(api, job, data)
    assert status == 200, seen
    how = {
        "first_row": seen["first_row"],
        "headings": seen["mapping"],
        "units": seen["units"],
        "answers": answers,
    }
    head = json.dumps(how).encode()
    query = urlencode({"head": len(head), "version": seen["version"], **more})
    return api("POST", f"/jobs/{job.pk}/weld-list/take?{query}", raw=head + data)


@pytest.fixture
def listed(api, job):
    status, answer = take(api["engineer"], job, book(ROWS))
    assert status == 200, answer
    return answer


def test_a_messy_workbook_is_looked_at_before_it_is_taken(api, job):
    status, seen = look(api["engineer"], job, book(ROWS))
    assert status == 200, seen
    assert (seen["joints"], seen["added"], seen["with_problems"], seen["version"]) == (5, 5, 5, 0)
    assert seen["mapping"]["revision"] == "Drawing Rev." or seen["mapping"]["revision"] == "Rev."
    assert {one["key"] for one in seen["questions"]} == set(ANSWERS)
    assert not WeldList.objects.exists()


def test_a_taken_list_keeps_every_row_and_groups_equal_joints(listed):
    assert [row["cells"]["mark"] for row in listed["rows"]] == ["W1", "W2", "W3", "W4", "W5"]
    assert [row["type"] for row in listed["rows"]] == ["T1", "T1", "T2", "T3", ""]
    assert [one["column"] for one in listed["rows"][4]["problems"]] == ["thickness"]
    assert listed["answers"] == ANSWERS and listed["questions"] == []


def test_an_answer_given_later_holds_for_all_rows(api, job):
    status, listed = take(api["engineer"], job, book(ROWS), answers={})
    assert status == 200 and {one["key"] for one in listed["questions"]} >= {"weld:bw", "metal:s355"}
    body = {name: listed[name] for name in ("version", "code", "shop", "prices")} | {"answers": ANSWERS}
    status, listed = api["engineer"]("PUT", f"/jobs/{job.pk}/weld-list", body)
    assert status == 200, listed
    assert sum(bool(row["problems"]) for row in listed["rows"]) == 1
    status, answer = api["engineer"]("PUT", f"/jobs/{job.pk}/weld-list", body)
    assert status == 409 and "in the meantime" in answer["detail"]


def test_the_next_revision_is_read_as_the_last_and_says_what_changes(api, job, listed):
    rows = [
        *ROWS[:2],
        ["W3", "101", "C", "BW", "S355J2+N", 40, 40, "PC", None],
        ["W9", "101", "C", "BW", "S355", 8, 8, "PA"],
    ]
    status, seen = look(api["engineer"], job, book(rows))
    assert status == 200 and seen["with_problems"] == 0, seen
    assert (seen["added"], seen["same"], seen["gone"]) == (1, 2, ["W4", "W5"])
    assert [(one["mark"], [cell["column"] for cell in one["cells"]]) for one in seen["changed"]] == [
        ("W3", ["revision", "thickness", "thickness2"])
    ]
    status, after = take(api["engineer"], job, book(rows), remove_gone=True)
    assert status == 200 and [row["cells"]["mark"] for row in after["rows"]] == ["W1", "W2", "W3", "W9"]
    assert after["rows"][2]["version"] == 2


@pytest.mark.parametrize("kind", ["csv", "xlsx"])
def test_an_exported_list_comes_back_unchanged(api, job, listed, kind):
    _, data = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/file?kind={kind}")
    status, seen = look(api["engineer"], job, data)
    assert status == 200, seen
    assert (seen["added"], seen["changed_count"], seen["same"], seen["gone"]) == (0, 0, 5, [])


@pytest.mark.parametrize("language", ["de", "es"])
def test_a_list_exported_in_another_language_comes_back_unchanged(api, job, listed, language):
    api["engineer"].client.cookies["language"] = language
    _, data = api["engineer"]("GET", f"/jobs/{job.pk}/weld-list/file?kind=xlsx")
    status, seen = look(api["engineer"], job, data)
    assert status == 200, seen
    assert (seen["added"], seen["changed_count"], seen["same"], seen["gone"]) == (0, 0, 5, [])


def test_a_german_csv_with_decimal_commas(api, job):
    text = (
        "Naht-Nr;Stoßart;Nahtart;Werkstoff;Werkstoff 2;Blechdicke 1 (mm);Blechdicke 2 (mm);Schweißposition\n"
    )
    text += "N1;Stumpfstoß;durchgeschweißt;S355J2+N;S355J2+N;12,5;12,5;PA\n"
    status, answer = take(api["engineer"], job, text.encode("cp1252"), answers={})
    assert status == 200 and answer["rows"][0]["type"] == "T1", answer
    status, cover = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coverage")
    assert "12.5 mm" in cover["types"][0]["words"]


@pytest.mark.parametrize(
    "data",
    [b"", b"PK\x03\x04 no workbook", b"\xd0\xcf\x11\xe0 old", b"\x00\x01\x02"],
    ids=["empty", "zip", "old", "bytes"],
)
def test_a_file_of_another_kind_is_refused_with_a_reason(api, job, data):
    status, answer = look(api["engineer"], job, data)
    assert status == 422 and answer["detail"], answer


@pytest.mark.parametrize("head", [-1, 10_000_000])
def test_how_a_file_is_read_stands_in_front_of_it(api, job, head):
    status, answer = api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/look?head={head}", raw=book(ROWS))
    assert status == 422 and "how the file is read" in answer["detail"]


def test_many_answers_fit_in_front_of_a_file(api, job):
    answers = {**ANSWERS, **{f"metal:grade {n}": "S355J2+N" for n in range(400)}}
    status, answer = take(api["engineer"], job, book(ROWS), answers=answers)
    assert status == 200 and len(answer["answers"]) == len(answers)


def test_a_formula_without_a_value_is_named(api, job):
    rows = [["W1", "101", "B", "BW", "S355J2+N", "=10+10", 20, "PF", None]]
    status, seen = look(api["engineer"], job, book(rows))
    assert status == 200
    assert any(one["column"] == "thickness" for one in seen["rows"][0]["problems"]), seen["rows"]


def test_a_list_that_is_too_long_is_refused(api, job, monkeypatch):
    monkeypatch.setattr("apps.weldlist.services.files.MOST_JOINTS", 10)
    status, answer = look(api["engineer"], job, book(ROWS * 20))
    assert status == 422 and "part it" in answer["detail"]


def change(api, job, *changes):
    return api("POST", f"/jobs/{job.pk}/weld-list/rows", {"code": ISO, "changes": list(changes)})


def test_rows_are_edited_like_a_sheet(api, job, listed):
    first, fifth = listed["rows"][0], listed["rows"][4]
    status, after = change(
        api["engineer"],
        job,
        {
            "id": fifth["id"],
            "version": 1,
            "cells": {**fifth["cells"], "thickness": "12 mm", "thickness2": "12 mm"},
        },
        {"cells": {"mark": "W6", "weld": "FW"}},
        {"id": first["id"], "version": 1, "cells": None},
    )
    assert status == 200, after
    assert [row["cells"]["mark"] for row in after["rows"]] == ["W2", "W3", "W4", "W5", "W6"]
    assert after["rows"][3]["type"] == after["rows"][2]["type"] != ""
    assert after["rows"][4]["problems"]


def test_two_people_never_overwrite_each_other_in_silence(api, job, listed):
    row = listed["rows"][0]
    mine = {"id": row["id"], "version": 1, "cells": {**row["cells"], "positions": "PA"}}
    assert change(api["engineer"], job, mine)[0] == 200
    theirs = {**mine, "cells": {**row["cells"], "positions": "PC"}}
    status, answer = change(api["administrator"], job, theirs, {"cells": {"mark": "W7"}})
    assert status == 409, answer
    assert answer["current"]["rows"] == [
        {"id": row["id"], "version": 2, "cells": {**row["cells"], "positions": "PA"}}
    ]
    assert not ListRow.objects.filter(mark="W7").exists()  # all of it or nothing


@pytest.mark.parametrize("who", ["welder", "viewer", "examiner", "inspector"])
def test_only_engineers_change_a_list(api, job, listed, who):
    row = listed["rows"][0]
    assert change(api[who], job, {"id": row["id"], "version": 1, "cells": None})[0] == 403
    assert take(api["engineer"], job, book(ROWS))[0] == 200
    assert look(api[who], job, book(ROWS))[0] == 403
    assert api[who]("GET", f"/jobs/{job.pk}/weld-list")[0] == 200


def test_a_column_that_a_list_has_not_is_refused(api, job, listed):
    status, answer = change(api["engineer"], job, {"cells": {"mark": "W8", "colour": "red"}})
    assert status == 422 and "colour" in answer["detail"]


def test_coverage_by_the_signed_records_of_the_job(api, job, signed, listed):
    status, cover = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coverage")
    assert status == 200, cover
    assert cover["records"] == [signed.number] and (cover["joints"], cover["unread"]) == (5, 1)
    verdicts = {one["key"]: one["verdict"] for one in cover["types"]}
    assert verdicts["T1"] == "covered" and verdicts["T2"] == "blocked"
    thick = next(one for one in cover["types"] if one["key"] == "T2")
    assert "parent_thickness_mm" in thick["cells"][0]["variables"]
    status, why = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/types/T2/why")
    assert status == 200 and any("60 mm" in reason for reason in why[0]["reasons"]), why


def test_a_job_without_a_list_has_an_empty_one(api, job):
    status, answer = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list")
    assert (status, answer["version"], answer["rows"]) == (200, 0, [])
    assert api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/coverage")[0] == 409


def test_the_workbook_that_is_written_holds_texts_and_no_formulas(api, job, listed):
    assert change(api["engineer"], job, {"cells": {"mark": "=1+1"}})[0] == 200
    _, data = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/file?kind=xlsx")
    cell = load_workbook(io.BytesIO(data)).active.cell(7, 1)
    assert (cell.value, cell.data_type) == ("=1+1", "s")
