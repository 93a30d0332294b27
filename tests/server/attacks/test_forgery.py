"""A signed record cannot be bent: by no verb of the API as no role, and by no statement past the services."""

import uuid
from copy import deepcopy

import pytest
from api.api import api as ninja
from apps.coupons.models import Coupon, PassLog, PassPhoto
from apps.qualification.models import QualificationRecord, Specimen
from apps.recordings.models import RecordedPass, Recording
from config import urls  # noqa: F401 - mounts the routers on the API
from django.db import DatabaseError, connection, transaction

from tests.server.attacks.conftest import CSV, picture, seen
from tests.server.conftest import PASSWORD
from tests.welding import samples
from tests.welding.records import record

WRONG = {"password": "not-the-password", "reason": "forged"}
ENTRY = {"number": 9, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 72}


def bodies(it):
    """What a forger would send to every call that changes something; ``bytes`` go as they are.

    Signatures come with a wrong password: a true one is a true signature, and is tried below. The book is
    confirmed in a number of the other code: one of its own changes what is said of the number's source.
    """
    coupon, row, specimen = it["coupon"], it["row"], it["specimen"]
    piece = {**coupon.piece, "thickness_mm": [30, 30]}
    changed = {**ENTRY, "number": row.number, "current_a": 400}
    test = {**specimen.document, "remarks": "forged"}
    procedure = samples.procedure()
    other = "aws_d1_1_2020.thickness_plate_groove/over-25/max_factor"
    return {
        ("patch", "/coupons/{coupon_id}"): [
            {"version": coupon.version, "piece": piece},
            {"version": coupon.version, "welder": "Somebody Else"},
            {"version": coupon.version, "people": [{"role": "witness", "name": "Nobody"}]},
            {"version": coupon.version, "status": "welding"},
        ],
        ("post", "/coupons/{coupon_id}/passes"): [{"client_id": str(uuid.uuid4()), "record": ENTRY}],
        ("put", "/passes/{pass_id}"): [{"version": row.version, "record": changed}],
        ("post", "/passes/{pass_id}/strike"): [{"version": row.version, "reason": "forged"}],
        ("post", "/passes/{pass_id}/explain"): [{"version": row.version, "rule": "x", "text": "forged"}],
        ("post", "/passes/{pass_id}/photos"): [picture("blue")],
        ("post", "/coupons/{coupon_id}/table"): [b"pass,\"current, A\"\n9,200\n"],
        ("post", "/coupons/{coupon_id}/specimens"): [{"test": {"kind": "visual", "specimen": "V9"}}],
        ("post", "/coupons/{coupon_id}/specimens/plan"): [None],
        ("put", "/specimens/{specimen_id}"): [{"version": specimen.version, "test": test}],
        ("delete", "/specimens/{specimen_id}"): [None],
        ("post", "/coupons/{coupon_id}/sign"): [WRONG, PASSWORD],
        ("post", "/coupons/{coupon_id}/recordings"): [CSV.encode()],
        ("post", "/recordings/{recording_id}/mapping"): [{"version": 1, "mapping": it["recording"].mapping}],
        ("post", "/recordings/{recording_id}/passes"): [
            {"parts": [{"number": row.number, "start_s": 0.5, "end_s": 3.0}]}
        ],
        ("post", "/recordings/{recording_id}/aside"): [{"version": 1, "reason": "forged"}],
        ("post", "/recordings/{recording_id}/end"): [None],
        ("post", "/recordings/{recording_id}/examine"): [None],
        ("post", "/records/{record_id}/witness"): [WRONG],
        ("post", "/records/{record_id}/void"): [WRONG, {**PASSWORD, "reason": " "}],
        ("post", "/records/{record_id}/amend"): [{"reason": "forged"}],
        ("post", "/records/{record_id}/procedure"): [{}],
        ("post", "/revisions/{revision_id}/coupons"): [{"welder": "X"}],
        ("post", "/revisions/{revision_id}/next"): [None],
        ("put", "/revisions/{revision_id}"): [{"version": 1, "document": procedure}],
        ("post", "/revisions/{revision_id}/old-record"): [{"certificate": "PQ 1"}],
        ("post", "/revisions/{revision_id}/qualify"): [{**WRONG, "records": [it["record"].pk]}],
        ("post", "/revisions/{revision_id}/prequalify"): [WRONG],
        ("post", "/revisions/{revision_id}/release"): [WRONG],
        ("post", "/revisions/{revision_id}/withdraw"): [WRONG],
        ("post", "/jobs"): [{"number": f"J-{uuid.uuid4()}"[:40], "title": "x"}],
        ("patch", "/jobs/{job_id}"): [{"two_signatures": False}],
        ("post", "/jobs/{job_id}/import"): [
            {"format": "grounded-bead/coupon", "version": 1, "number": coupon.number,
             "procedure": coupon.procedure_document, "coupon": piece},
        ],
        ("post", "/jobs/{job_id}/old-records"): [{"document": procedure, "certificate": "PQ 1"}],
        ("post", "/jobs/{job_id}/procedures"): [{"document": procedure}],
        ("post", "/book"): [{"number_id": other, "said": "confirm", "reason": "read"}],
        ("post", "/book/import"): [{"document": {"format": "grounded-bead/book-corrections", "version": 1}}],
    }  # fmt: skip


# Calls that have nothing to do with a coupon, or store nothing.
ELSEWHERE = {
    ("post", "/people"), ("put", "/people/{person_id}"), ("post", "/people/{person_id}/reset"),
    ("post", "/people/{person_id}/unlock"),
    ("post", "/invitations"), ("post", "/invitations/look"),
    ("post", "/session/factor"), ("put", "/session/factor"), ("post", "/session/factor/removal"),
    ("post", "/people/{person_id}/factor-removal"),
    ("delete", "/session/all"), ("delete", "/session/all/{session_id}"),
    ("delete", "/session"), ("post", "/session"), ("post", "/session/demo"), ("post", "/session/password"),
    ("post", "/library"), ("put", "/library/{record_id}"), ("delete", "/library/{record_id}"),
    ("post", "/trials"), ("post", "/trials/{entry_id}/strike"), ("post", "/revisions/{revision_id}/trials"),
    ("post", "/faults/causes"), ("post", "/faults/cures"), ("post", "/faults/cures/{cure_id}/strike"),
    ("post", "/faults/words"), ("post", "/faults/words/{words_id}/settle"),
    ("post", "/training/exercise"), ("post", "/training/answer"),
    ("put", "/jobs/{job_id}/weld-list"), ("post", "/jobs/{job_id}/weld-list/rows"),
    ("post", "/jobs/{job_id}/weld-list/look"), ("post", "/jobs/{job_id}/weld-list/take"),
    ("post", "/jobs/{job_id}/joints/print-runs"), ("post", "/jobs/{job_id}/joints/print-runs/{run_id}/stop"),
    ("put", "/jobs/{job_id}/weld-list/assignments"),
    ("delete", "/jobs/{job_id}/weld-list/assignments/{assignment_id}"),
    ("post", "/crew"), ("put", "/crew/{member_id}"), ("delete", "/crew/{member_id}"),
    ("post", "/crew/designation"), ("post", "/crew/{member_id}/scans"), ("delete", "/scans/{scan_id}"),
    ("post", "/crew/{member_id}/certificates"), ("post", "/coupons/{coupon_id}/certify"), ("post", "/certificates/{certificate_id}/statements"),
    ("post", "/jobs/{job_id}/welds"), ("post", "/welds/{weld_id}/results"),
    ("post", "/welds/{weld_id}/release"), ("post", "/welds/{weld_id}/strike"),
    ("post", "/welds/results/{result_id}/strike"),
    ("post", "/jobs/{job_id}/weld-list/coupons"),
    ("post", "/jobs/{job_id}/weld-list/coupons/{search_id}/stop"), ("post", "/jobs/{job_id}/weld-list/drafts"),
    ("post", "/recorders"), ("post", "/recorders/{recorder_id}/retire"),
    ("post", "/recorder/streams"), ("put", "/recorder/streams/{stream_id}/chunks/{number}"),
    ("post", "/recorder/streams/{stream_id}/close"),
    ("post", "/coupons/{coupon_id}/judge"), ("post", "/revisions/{revision_id}/judge"),
    ("post", "/coupons/{coupon_id}/covers"), ("post", "/jobs/{job_id}/coverage"), ("post", "/book/preview"),
    ("post", "/read"), ("post", "/evaluate"), ("post", "/propose"), ("post", "/heat-chart"), ("post", "/charts-beside"),
}  # fmt: skip


def changing_calls():
    return {
        (method, path.removeprefix("/api"))
        for path, verbs in ninja.get_openapi_schema()["paths"].items()
        for method in verbs
        if method in ("post", "put", "patch", "delete")
    }


def test_every_call_that_changes_something_is_tried(evidence):
    told = set(bodies(evidence)) | ELSEWHERE
    calculators = {one for one in changing_calls() if one[1].startswith("/calculators")}
    assert changing_calls() - calculators == told


def test_no_verb_of_any_role_bends_a_signed_record(evidence, api, at_noon):
    before = seen(api, evidence["coupon"])
    ids = {
        "coupon_id": evidence["coupon"].pk,
        "pass_id": evidence["row"].pk,
        "specimen_id": evidence["specimen"].pk,
        "recording_id": evidence["recording"].pk,
        "record_id": evidence["record"].pk,
        "revision_id": evidence["coupon"].revision_id,
        "job_id": evidence["coupon"].job_id,
    }
    taken = []
    for role, call in api.items():
        for (method, path), tries in bodies(evidence).items():
            address = path.format(**ids)
            if method == "delete":
                address += f"?version={evidence['specimen'].version}"
            elif path.endswith(("/photos", "/recordings")):
                address += f"?client_id={uuid.uuid4()}"
            for body in tries:
                raw = body if isinstance(body, bytes) else None
                status, answer = call(method.upper(), address, None if raw else body, raw=raw)
                assert status < 500, (role, method, path, answer)
                beneath = path.startswith(("/coupons/", "/passes/", "/specimens/", "/recordings/"))
                if beneath and status < 400:
                    taken.append((role, method, path, status))
    assert taken == []
    after = seen(api, evidence["coupon"])
    assert {name for name in before if before[name] != after[name]} == set()


def test_true_signatures_add_themselves_and_change_nothing_else(evidence, api, at_noon):
    before = seen(api, evidence["coupon"])
    record_id = evidence["record"].pk
    assert api["examiner"]("POST", f"/records/{record_id}/witness", PASSWORD)[0] == 201
    assert api["engineer"]("POST", f"/records/{record_id}/void", PASSWORD)[0] == 201
    after = seen(api, evidence["coupon"])
    changed = {name for name in before if before[name] != after[name]}
    assert changed == {"record print", "coupon print", "signatures", "log"}


STATEMENTS = {
    "coupon": lambda it: Coupon.objects.filter(pk=it["coupon"].pk).update(piece={"thickness_mm": [30, 30]}),
    "status": lambda it: Coupon.objects.filter(pk=it["coupon"].pk).update(status="welding"),
    "pass": lambda it: PassLog.objects.filter(pk=it["row"].pk).update(current_mean_a=400),
    "pass away": lambda it: PassLog.objects.filter(pk=it["row"].pk).delete(),
    "pass to it": lambda it: PassLog.objects.create(
        coupon=it["coupon"], client_id=uuid.uuid4(), number=99, logged_by=it["row"].logged_by
    ),
    "photo": lambda it: PassPhoto.objects.filter(pk=it["photo"].pk).update(sha256="0" * 64),
    "recording": lambda it: Recording.objects.filter(pk=it["recording"].pk).update(sha256="0" * 64),
    "recording elsewhere": lambda it: Recording.objects.filter(pk=it["recording"].pk).update(coupon=None),
    "recorded pass": lambda it: RecordedPass.objects.filter(row=it["row"]).update(end_s=9),
    "specimen": lambda it: Specimen.objects.filter(pk=it["specimen"].pk).update(document={}),
    "specimen away": lambda it: Specimen.objects.filter(pk=it["specimen"].pk).delete(),
    "record": lambda it: QualificationRecord.objects.filter(pk=it["record"].pk).update(body="{}"),
    "record away": lambda it: QualificationRecord.objects.filter(pk=it["record"].pk).delete(),
}  # fmt: skip


@pytest.mark.parametrize("name", STATEMENTS)
def test_the_database_itself_refuses(evidence, name):
    with pytest.raises(DatabaseError), transaction.atomic():
        STATEMENTS[name](evidence)


@pytest.mark.parametrize("name", [one for one in STATEMENTS if not one.startswith("record")])
def test_no_setting_of_the_connection_switches_the_freeze_off(evidence, name):
    """The library for triggers has such a setting; the freeze does not listen to it."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT set_config('pgtrigger.ignore', '{all}', true)")
    with pytest.raises(DatabaseError), transaction.atomic():
        STATEMENTS[name](evidence)


def with_triggers_off(table, change):
    """What an intruder with the owner's rights over the database would do."""
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute(f"ALTER TABLE {table} DISABLE TRIGGER USER")
        change()
        cursor.execute(f"ALTER TABLE {table} ENABLE TRIGGER USER")
        cursor.execute("SET CONSTRAINTS ALL DEFERRED")


@pytest.mark.parametrize(
    "path",
    ["", "/evidence", "/ranges", "/record", "/record/print", "/record/table", "/print", "/table", "/export"],
)
def test_bytes_changed_past_the_triggers_are_shown_nowhere(evidence, api, path):
    coupon, signed = evidence["coupon"], evidence["record"]
    forged = signed.body.replace('"tensile_mpa": 548', '"tensile_mpa": 648')
    assert forged != signed.body
    with_triggers_off(
        "qualification_qualificationrecord",
        lambda: QualificationRecord.objects.filter(pk=signed.pk).update(body=forged),
    )
    status, answer = api["viewer"]("GET", f"/coupons/{coupon.pk}{path}")
    assert (status, answer["type"]) == (409, "/problems/damaged")
    assert signed.number in answer["detail"]
    _, lines = api["viewer"]("GET", f"/jobs/{coupon.job_id}/coupons")
    assert "not what was kept" in next(one for one in lines if one["id"] == coupon.pk)["damaged"]
    _, records = api["viewer"]("GET", f"/jobs/{coupon.job_id}/records")
    assert records[0]["state"] == "damaged"
    document = deepcopy(record("iso")["procedure"])
    _, found = api["engineer"]("POST", f"/jobs/{coupon.job_id}/coverage", {"procedure": document})
    assert found["coverage"] is None


def test_rows_changed_past_the_triggers_are_not_shown(evidence, api, at_noon):
    """The forged rows lie in the database, and whatever shows the record still shows the signed bytes."""
    coupon = evidence["coupon"]
    before = seen(api, coupon)
    with_triggers_off(
        "coupons_coupon",
        lambda: Coupon.objects.filter(pk=coupon.pk).update(piece={**coupon.piece, "thickness_mm": [30, 30]}),
    )
    with_triggers_off(
        "coupons_passlog", lambda: PassLog.objects.filter(pk=evidence["row"].pk).update(current_mean_a=400)
    )
    with_triggers_off(
        "qualification_specimen", lambda: Specimen.objects.filter(coupon=coupon).update(document={})
    )
    after = seen(api, coupon)
    assert {name for name in before if before[name] != after[name]} == set()
