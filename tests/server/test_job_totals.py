"""Totals of a job: only of joints whose WPS holds; what is not counted is said; as a sheet."""

import io

from openpyxl import load_workbook

from tests.server.test_list_wps import BASE, CODE, PASSWORD, assign, look


def listed(api, job, *rows):
    body = {"code": CODE, "changes": [{"cells": BASE | one} for one in rows]}
    status, answer = api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/rows", body)
    assert status == 200 and not any(row["problems"] for row in answer["rows"]), answer


def totals(api, job):
    status, answer = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/totals")
    assert status == 200, answer
    return answer["totals"]


def test_totals_count_what_is_assigned_and_say_what_is_not(api, job, released):
    listed(
        api,
        job,
        {"mark": "W1", "length": "2 m", "count": "3", "part": "deck"},
        {"mark": "W2", "part": "mast"},
        {"mark": "W3", "length": "1 m", "thickness": "60 mm", "thickness2": "60 mm"},
    )
    assert totals(api, job)["welds"] == 0
    assert assign(api, job, look(api, job), T1=released.pk)[0] == 200
    found = totals(api, job)
    assert (found["welds"], found["length_m"]) == (3, 6.0)
    assert {one["reason"]: one["welds"] for one in found["left_out"]} == {
        "the list states no length": 1,
        "no WPS is assigned": 1,
    }
    assert found["weld_metal_kg"] > 0 and found["cost"] > 0
    status, data = api["viewer"]("GET", f"/jobs/{job.pk}/weld-list/totals/file")
    assert status == 200
    cells = [
        cell for row in load_workbook(io.BytesIO(data)).active.iter_rows(values_only=True) for cell in row
    ]
    assert round(found["weld_metal_kg"], 2) in cells and "no WPS is assigned" in cells


def test_a_withdrawn_wps_counts_nothing(api, job, released):
    listed(api, job, {"mark": "W1", "length": "2 m"})
    assert assign(api, job, look(api, job), T1=released.pk)[0] == 200
    assert api["engineer"]("POST", f"/revisions/{released.pk}/withdraw", PASSWORD)[0] == 200
    found = totals(api, job)
    assert found["welds"] == 0 and found["left_out"][0]["reason"] == "no WPS is assigned"
