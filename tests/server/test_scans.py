"""Scans of certificates: removed where nothing signed names them, and only there, in the database too."""

from pathlib import Path

import pytest
from apps.crew.models import Scan
from django.db import DatabaseError, connection, transaction

from tests.server.conftest import SIGN, TODAY

PDF = b"%PDF-1.7 a scan"


@pytest.fixture
def kept(api, okafor):
    def keep(data=PDF, name="back.pdf"):
        status, answer = api["engineer"]("POST", f"/crew/{okafor.pk}/scans?name={name}", raw=data)
        assert status == 201, answer
        return answer

    return keep


def unnamed(api, okafor):
    return [one["name"] for one in api["engineer"]("GET", f"/crew/{okafor.pk}")[1]["unnamed_scans"]]


def test_a_scan_that_nothing_signed_names_is_removed_with_its_file(
    api, okafor, certify, kept, django_capture_on_commit_callbacks
):
    used, spare = kept(), kept(PDF + b" again", "spare.pdf")
    certify(scans=[used["id"]])
    assert unnamed(api, okafor) == ["spare.pdf"]
    file = Path(Scan.objects.get(pk=spare["id"]).file.path)
    assert file.exists()
    assert api["welder"]("DELETE", f"/scans/{spare['id']}")[0] == 403 and file.exists()
    with django_capture_on_commit_callbacks(execute=True):
        assert api["engineer"]("DELETE", f"/scans/{spare['id']}")[0] == 204
    assert not file.exists() and unnamed(api, okafor) == []
    assert api["engineer"]("GET", f"/scans/{spare['id']}")[0] == 404
    assert api["engineer"]("DELETE", f"/scans/{spare['id']}")[0] == 404
    with connection.cursor() as cursor:
        cursor.execute("SELECT pgh_label, name FROM crew_scanevent WHERE pgh_obj_id = %s", [spare["id"]])
        assert sorted(cursor.fetchall()) == [("delete", "spare.pdf"), ("insert", "spare.pdf")]


def test_what_a_certificate_or_a_statement_names_stays(api, okafor, certify, kept):
    of_certificate, of_statement = kept(), kept(PDF + b" again", "confirmed.pdf")
    made = certify(scans=[of_certificate["id"]])
    paper = {
        "kind": "confirmation", "on": TODAY.isoformat(), "signer": "responsible", "signed_by": "I. Vance",
        "scans": [of_statement["id"]], **SIGN,
    }  # fmt: skip
    status, answer = api["engineer"]("POST", f"/certificates/{made['id']}/statements", paper)
    assert status == 201, answer
    assert unnamed(api, okafor) == []
    for one in (of_certificate, of_statement):
        status, answer = api["engineer"]("DELETE", f"/scans/{one['id']}")
        assert status == 409 and one["name"] in answer["detail"]
        # Whoever reaches the database past the server does not remove it either.
        with pytest.raises(DatabaseError, match="names this scan"), transaction.atomic():
            Scan.objects.filter(pk=one["id"]).delete()
    assert Scan.objects.count() == 2


def test_somebody_of_whom_only_scans_are_kept_is_removed_after_them(
    api, okafor, kept, django_capture_on_commit_callbacks
):
    spare = kept()
    assert api["engineer"]("DELETE", f"/crew/{okafor.pk}")[0] == 409
    with django_capture_on_commit_callbacks(execute=True):
        assert api["engineer"]("DELETE", f"/scans/{spare['id']}")[0] == 204
    assert api["engineer"]("DELETE", f"/crew/{okafor.pk}")[0] == 204
