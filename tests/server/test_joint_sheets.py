"""Booth sheets for joint types: the joint at its own thickness, the passes of the WPS, no WPS where none holds."""

from apps.procedures.models import Revision

from tests.server.test_joint_cards import text_of
from tests.server.test_list_wps import CODE, assign, look, table  # noqa: F401 - a fixture


def sheets(api, job, query="", status=200):
    code, data = api["welder"]("GET", f"/jobs/{job.pk}/joints/sheets{query}")
    assert code == status, data
    return data


def test_a_type_is_shown_with_the_passes_of_its_wps(api, job, table, released):  # noqa: F811
    assert text_of(sheets(api, job)).count("do not weld") == len(table["types"])
    assert assign(api, job, table, T1=released.pk)[0] == 200
    said = text_of(sheets(api, job, "?joint_type=T1"))
    assert str(released) in said and "W1, W4" in said and "do not weld" not in said
    document = Revision.objects.get(pk=released.pk).contents()
    first = document.passes[0]
    for end in (first.current_a.min, first.current_a.max):
        assert f"{end:g}" in said
    assert f"{document.thermal.interpass_max_c:g}" in said
    assert "fill passes as it needs" not in said, "it is as thick as the WPS was drawn"
    assert text_of(sheets(api, job)).count("do not weld") == len(table["types"]) - 1


def test_a_joint_of_another_thickness_is_drawn_with_its_own(api, job, released, table):  # noqa: F811
    row = {**table_row(api, job, "W1"), "mark": "W9", "thickness": "18 mm", "thickness2": "18 mm"}
    body = {"code": CODE, "changes": [{"cells": row}]}
    assert api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/rows", body)[0] == 200
    after = look(api, job)
    key = next(one["key"] for one in after["types"] if one["marks"] == ["W9"])
    status, answer = assign(api, job, after, **{key: released.pk})
    assert status == 200, answer
    said = text_of(sheets(api, job, f"?joint_type={key}"))
    assert "18 mm" in said and "fill passes as it needs" in said
    german = text_of(sheets(api, job, "?mark=W9&second=de"))
    assert "Vorwärmen" in german and "W9" in german


def table_row(api, job, mark):
    _, listed = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list")
    return next(row["cells"] for row in listed["rows"] if row["cells"].get("mark") == mark)


def test_what_is_not_in_the_list_has_no_sheet(api, job, table):  # noqa: F811
    assert "T9" in sheets(api, job, "?joint_type=T9", 409)["detail"]
    assert "W77" in sheets(api, job, "?mark=W77", 409)["detail"]
    sheets(api, job, "?first=99", 409)


def test_a_withdrawn_wps_is_on_no_sheet(api, job, table, released):  # noqa: F811
    assert assign(api, job, table, T1=released.pk)[0] == 200
    body = {"password": "long-enough-1", "reason": "found wrong"}
    assert api["engineer"]("POST", f"/revisions/{released.pk}/withdraw", body)[0] == 200
    assert text_of(sheets(api, job)).count("do not weld") == len(table["types"])
