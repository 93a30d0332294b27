"""Released WPSs and the joint types of a list: what covers, what is assigned, what no longer holds."""

import pytest
from apps.procedures.models import Revision, Stage
from apps.qualification.models import QualificationRecord
from apps.weldlist.models import Assignment, ListRow
from django.db import connection

from tests.server.conftest import BASE, CODE
from welding.documents.codec import PROCEDURE

PASSWORD = {"password": "long-enough-1", "reason": "found wrong"}


@pytest.fixture
def table(api, job, released):
    """A list of three types: as the WPS is drawn, thicker than it states, in another position."""
    rows = [
        BASE | {"mark": "W1"},
        BASE | {"mark": "W2", "thickness": "60 mm", "thickness2": "60 mm"},
        BASE | {"mark": "W3", "positions": "PC"},
        BASE | {"mark": "W4"},
    ]
    body = {"code": CODE, "changes": [{"cells": one} for one in rows]}
    status, answer = api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/rows", body)
    assert status == 200 and not any(row["problems"] for row in answer["rows"]), answer
    return look(api, job)


def look(api, job, who="viewer"):
    status, answer = api[who]("GET", f"/jobs/{job.pk}/weld-list/procedures")
    assert status == 200, answer
    return answer


def assign(api, job, table, who="engineer", before=None, **wanted):
    body = {"version": table["version"], "assign": wanted, "before": before or {}}
    return api[who]("PUT", f"/jobs/{job.pk}/weld-list/assignments", body)


def test_each_type_against_the_released_wps(table, released):
    (wps,) = table["procedures"]
    assert wps["revision_id"] == released.pk and (wps["types"], wps["welds"]) == (1, 2)
    assert [one["cells"][0]["verdict"] for one in table["types"]] == ["covered", "blocked", "blocked"]
    assert table["types"][1]["cells"][0]["names"] == ["Thickness"]
    assert "60 mm" in table["types"][1]["cells"][0]["reasons"][0]
    assert table["types"][0]["suggested"] == released.pk and table["types"][0]["reason"]
    assert table["types"][1]["suggested"] is None


def test_only_a_wps_that_covers_is_assigned(api, job, table, released):
    status, answer = assign(api, job, table, T1=released.pk, T2=released.pk)
    assert status == 409 and answer["errors"][0]["path"] == "T2", answer
    assert not Assignment.objects.exists()  # all or none
    status, answer = assign(api, job, table, T1=released.pk)
    assert status == 200 and answer["types"][0]["assigned"] == released.pk, answer
    status, answer = assign(api, job, table, before={"T1": released.pk}, T1=None)
    assert status == 200 and answer["types"][0]["assigned"] is None


@pytest.mark.parametrize("who", ["welder", "viewer", "inspector"])
def test_who_writes_no_procedures_assigns_none(api, job, table, released, who):
    status, _ = assign(api, job, table, who, T1=released.pk)
    assert status == 403 and not Assignment.objects.exists()


def test_a_revision_that_is_not_released_is_not_assigned(api, job, table, released):
    status, draft = api["engineer"]("POST", f"/revisions/{released.pk}/next")
    assert status == 201, draft
    status, answer = assign(api, job, table, T1=draft["id"])
    assert status == 409 and "released" in answer["detail"]
    status, answer = assign(api, job, table, T9=released.pk)
    assert status == 409 and "T9" in answer["detail"]


def test_two_people_assigning_do_not_overwrite_each_other(api, job, table, released):
    assert assign(api, job, table, T1=released.pk)[0] == 200
    status, answer = assign(api, job, table, T1=None)
    assert status == 409 and answer["type"].endswith("stale") and "in the meantime" in answer["detail"], (
        answer
    )
    assert Assignment.objects.count() == 1


def test_a_changed_drawing_loses_its_assignment_and_says_so(api, job, table, released):
    assert assign(api, job, table, T1=released.pk)[0] == 200
    changes = [
        {
            "id": row.pk,
            "version": row.version,
            "cells": row.cells | {"thickness": "22 mm", "thickness2": "22 mm"},
        }
        for row in ListRow.objects.filter(mark__in=["W1", "W4"])
    ]
    status, _ = api["engineer"]("POST", f"/jobs/{job.pk}/weld-list/rows", {"code": CODE, "changes": changes})
    assert status == 200
    now = look(api, job)
    assert [one["assigned"] for one in now["types"]] == [None, None, None]
    (lost,) = now["lost"]
    assert "20 mm" in lost["words"] and lost["wps"] == str(released)
    path = f"/jobs/{job.pk}/weld-list/assignments/{lost['id']}"
    assert api["viewer"]("DELETE", path)[0] == 403
    status, after = api["engineer"]("DELETE", path)
    assert status == 200 and after["lost"] == []
    assert api["engineer"]("DELETE", path)[0] == 409


def test_an_assignment_ends_with_the_release(api, job, table, released):
    assert assign(api, job, table, T1=released.pk)[0] == 200
    status, _ = api["engineer"]("POST", f"/revisions/{released.pk}/withdraw", PASSWORD)
    assert status == 200
    now = look(api, job)
    assert now["procedures"] == [] and now["types"][0]["assigned"] == released.pk
    assert "not released" in now["types"][0]["against"][0]


def test_a_void_record_supports_nothing(api, job, table, released):
    assert assign(api, job, table, T1=released.pk)[0] == 200
    record = QualificationRecord.objects.get()
    status, answer = api["engineer"]("POST", f"/records/{record.pk}/void", PASSWORD)
    assert status in (200, 201), answer
    now = look(api, job)
    assert now["types"][0]["against"]
    assert assign(api, job, now, before={"T1": released.pk}, T1=released.pk)[0] == 409


def test_a_released_sheet_that_was_bent_in_the_database_covers_nothing(api, job, table, released):
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        body = Revision.objects.get(pk=released.pk).body.replace('"PF"', '"PC"')
        Revision.objects.filter(pk=released.pk).update(body=body)
        cursor.execute("SET session_replication_role = DEFAULT")
    assert Revision.objects.get(pk=released.pk).stage == Stage.RELEASED
    assert look(api, job)["procedures"] == []
    assert PROCEDURE.read(body).positions == ("PC",)
