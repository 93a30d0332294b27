"""From tests to a released procedure, through the API: evidence, signing, coverage, release, the book."""

import hashlib
import json
import uuid
from copy import deepcopy
from io import BytesIO

import pytest
from apps.accounts.permissions import Action
from apps.codebook.models import Entry
from apps.coupons.services.start_coupon import start_coupon
from apps.procedures.models import Revision
from apps.qualification.models import QualificationRecord, Signature, Specimen
from django.db import IntegrityError, InternalError, transaction
from django.db.utils import ProgrammingError
from openpyxl import load_workbook
from pypdf import PdfReader

from tests.server.conftest import PASSWORD, enter_tests
from tests.welding import samples
from tests.welding.records import record
from welding.documents.codec import RECORD

NAMELESS = {"format": "grounded-bead/procedure", "version": 1}
EMPTY_BOOK = {"format": "grounded-bead/book-corrections", "version": 1}
FACTOR = "iso_15614_1_2017.thickness_level_2/over-12-to-20/multi_max_factor"


@pytest.fixture
def coupon(welded):
    """A welded coupon of 20 mm with its log closed, no test entered."""
    return welded


def test_a_failed_bend_its_retest_and_a_released_procedure(api, coupon):
    enter_tests(api, coupon, changed={"B2": {"openings_mm": [4.0]}})
    _, found = api["inspector"]("GET", f"/coupons/{coupon.pk}/evidence")
    assert found["report"]["verdict"] == "rejected"
    assert found["report"]["retests"][0]["needed"] == 2
    status, answer = api["engineer"]("POST", f"/coupons/{coupon.pk}/sign", PASSWORD)
    assert status == 409 and "cannot be signed" in answer["detail"]

    bend = next(t for t in record("iso")["tests"] if t["specimen"] == "B1")
    for mark in ("R1", "R2"):
        test = {**bend, "specimen": mark, "retest_of": "B2"}
        assert api["inspector"]("POST", f"/coupons/{coupon.pk}/specimens", {"test": test})[0] == 201
    _, found = api["inspector"]("GET", f"/coupons/{coupon.pk}/evidence")
    assert found["report"]["verdict"] == "accepted"

    status, made = api["engineer"]("POST", f"/coupons/{coupon.pk}/sign", PASSWORD)
    assert status == 201
    coupon.revision.refresh_from_db()
    assert coupon.revision.stage == "tested"
    assert api["examiner"]("POST", f"/records/{made['id']}/witness", PASSWORD)[0] == 201

    status, draft = api["engineer"]("POST", f"/records/{made['id']}/procedure", {})
    assert status == 201
    body = {**PASSWORD, "records": [made["id"]]}
    status, answer = api["engineer"]("POST", f"/revisions/{draft['id']}/qualify", body)
    assert status == 200, answer
    status, answer = api["engineer"]("POST", f"/revisions/{draft['id']}/release", PASSWORD)
    assert status == 200 and answer["stage"] == "released"
    assert [one["purpose"] for one in answer["signatures"]] == ["qualified", "release"]

    revision = Revision.objects.get(pk=draft["id"])
    status, answer = api["engineer"](
        "PUT", f"/revisions/{revision.pk}", {"version": revision.version, "document": revision.document}
    )
    assert status == 409, "a released procedure is not edited"


def test_the_signed_bytes_are_the_ones_that_were_hashed(api, signed):
    assert hashlib.sha256(signed.body.encode()).hexdigest() == signed.content_hash
    answer = api["viewer"].client.get(f"/api/coupons/{signed.coupon_id}/record")
    assert answer.content == signed.body.encode()
    assert RECORD.write(RECORD.read(signed.body)) == signed.body.encode()


def test_a_signed_record_changes_no_more(api, signed, coupon):
    specimen = coupon.specimens.first()
    body = {"version": specimen.version, "test": specimen.document}
    for method, path, payload in (
        ("POST", f"/coupons/{coupon.pk}/specimens", {"test": {"kind": "visual", "specimen": "V9"}}),
        ("PUT", f"/specimens/{specimen.pk}", body),
        ("DELETE", f"/specimens/{specimen.pk}?version={specimen.version}", None),
        ("POST", f"/coupons/{coupon.pk}/specimens/plan", None),
        ("POST", f"/coupons/{coupon.pk}/sign", PASSWORD),
    ):
        status, answer = api["engineer"](method, path, payload)
        assert status == 409, (path, answer)
    for change in (
        lambda: QualificationRecord.objects.update(body="{}"),
        lambda: Signature.objects.all().delete(),
    ):
        with pytest.raises((InternalError, ProgrammingError, IntegrityError)), transaction.atomic():
            change()


def test_a_wrong_password_signs_nothing(api, coupon):
    enter_tests(api, coupon)
    status, answer = api["engineer"](
        "POST", f"/coupons/{coupon.pk}/sign", {"password": "not-this-one", "reason": ""}
    )
    assert status == 422 and answer["errors"][0]["path"] == "password"
    assert not QualificationRecord.objects.exists()


def test_a_record_is_not_signed_while_a_test_is_open(api, coupon):
    enter_tests(api, coupon, without={"I2"})
    status, answer = api["engineer"]("POST", f"/coupons/{coupon.pk}/sign", PASSWORD)
    assert status == 409
    assert any("impact" in one["message"] for one in answer["errors"])


def test_the_plan_is_prepared_once_and_counts_what_is_there(api, coupon):
    bend = {"kind": "side-bend", "specimen": "bend one", "openings_mm": []}
    api["inspector"]("POST", f"/coupons/{coupon.pk}/specimens", {"test": bend})
    _, first = api["inspector"]("POST", f"/coupons/{coupon.pk}/specimens/plan")
    _, again = api["inspector"]("POST", f"/coupons/{coupon.pk}/specimens/plan")
    # visual, RT, MT, 2 tensile, 3 further bends, 2 impact, hardness, macro
    assert (first["made"], again["made"]) == (12, 0)
    _, found = api["viewer"]("GET", f"/coupons/{coupon.pk}/evidence")
    assert found["report"]["verdict"] == "incomplete"
    assert found["cutting"]["needed_mm"] > 200


def test_two_people_at_one_specimen(api, coupon):
    enter_tests(api, coupon)
    one = Specimen.objects.get(coupon=coupon, mark="T1")
    test = {**one.document, "tensile_mpa": 512}
    assert api["inspector"]("PUT", f"/specimens/{one.pk}", {"version": 1, "test": test})[0] == 200
    status, answer = api["engineer"]("PUT", f"/specimens/{one.pk}", {"version": 1, "test": test})
    assert status == 409 and answer["current"]["test"]["tensile_mpa"] == 512


def test_bad_tests_are_refused_with_their_path(api, coupon):
    for test, path in (
        ({"kind": "side-bend", "specimen": "B1", "zap": 1}, "zap"),
        ({"kind": "impact", "specimen": "I1", "values_j": [1, "x"]}, "values_j.1"),
        ({"kind": "no-such", "specimen": "X"}, ""),
        ({"kind": "macro", "specimen": ""}, "specimen"),
    ):
        status, answer = api["inspector"]("POST", f"/coupons/{coupon.pk}/specimens", {"test": test})
        assert status == 422, answer
        assert any(one["path"].endswith(path) for one in answer["errors"]), answer
    status, answer = api["inspector"](
        "POST",
        f"/coupons/{coupon.pk}/specimens",
        {"test": {"kind": "macro", "specimen": "M", "retest_of": "none"}},
    )
    assert status == 422 and not Specimen.objects.filter(mark="M").exists(), "nothing is kept of it"


def test_ranges_side_by_side_and_what_they_cover(api, coupon):
    enter_tests(api, coupon)
    _, found = api["viewer"]("GET", f"/coupons/{coupon.pk}/ranges")
    assert [(one["code"], one["level"]) for one in found["ranges"]] == [
        ("iso-15614-1:2017", 2), ("aws-d1.1:2020", None), ("iso-15614-1:2017", 1)
    ]  # fmt: skip
    assert found["ranges"][0]["own"] and found["ranges"][0]["range"]["valid"]
    joint = {"format": "grounded-bead/joint", "version": 1, "joint": {"kind": "butt", "weld": "cjp-groove"},
             "positions": ["PF"], "base_metals": [{"designation": "S355J2+N", "thickness_mm": 41}] * 2,
             "requirements": {"impact": {"temperature_c": -20, "average_j": 27}}}  # fmt: skip
    _, answer = api["viewer"]("POST", f"/coupons/{coupon.pk}/covers", {"joint": joint})
    assert not answer["covered"]
    assert [one["rule"] for one in answer["findings"]] == ["range.parent_thickness_mm"]
    joint["base_metals"] = [{"designation": "S355J2+N", "thickness_mm": 40}] * 2
    _, answer = api["viewer"]("POST", f"/coupons/{coupon.pk}/covers", {"joint": joint})
    assert answer["covered"]


def test_a_draft_is_held_against_the_signed_records(api, job, signed):
    document = deepcopy(record("iso")["procedure"])
    _, found = api["engineer"]("POST", f"/jobs/{job.pk}/coverage", {"procedure": document})
    assert found["record"] == "FB-27-Q01" and found["records"][0]["number"] == "FB-27-Q01"
    assert {one["path"] for one in found["brackets"]} >= {
        "passes.0.heat_input_kj_mm",
        "thermal.preheat_min_c",
    }
    assert not found["coverage"]["covered"]


def test_a_revision_that_no_record_covers_is_not_qualified(api, coupon, signed):
    body = {**PASSWORD, "records": [signed.pk]}
    status, answer = api["engineer"]("POST", f"/revisions/{coupon.revision_id}/qualify", body)
    assert status == 409
    assert any("Heat input" in one["message"] for one in answer["errors"])


def test_a_later_release_supersedes_and_a_withdrawal_has_a_reason(api, released, signed):
    status, made = api["engineer"]("POST", f"/records/{signed.pk}/procedure", {})
    assert status == 201
    body = {**PASSWORD, "records": [signed.pk]}
    assert api["engineer"]("POST", f"/revisions/{made['id']}/qualify", body)[0] == 200
    assert api["engineer"]("POST", f"/revisions/{made['id']}/release", PASSWORD)[0] == 200
    released.refresh_from_db()
    assert released.stage == "superseded"
    path = f"/revisions/{made['id']}/withdraw"
    assert api["engineer"]("POST", path, {"password": "long-enough-1"})[0] == 409
    assert api["engineer"]("POST", path, PASSWORD)[1]["stage"] == "withdrawn"
    _, lines = api["viewer"]("GET", f"/revisions/{made['id']}/differences/{released.pk}")
    assert [one["path"] for one in lines] == ["revision"]


def test_a_correction_shows_and_lists_the_released_procedures_that_it_reaches(api, released):
    change = {"number_id": FACTOR, "said": "correct", "value": 1.5}
    status, effects = api["viewer"]("POST", "/book/preview", change)
    assert status == 200
    assert [(one["number"], one["covered_before"], one["covered_after"]) for one in effects] == [
        ("FB-27-P03", True, False)
    ]
    assert any("Base metal thickness 10 to 40 becomes 10 to 30" in text for text in effects[0]["changes"])
    assert not Entry.objects.exists(), "looking changes nothing"

    status, answer = api["engineer"]("POST", "/book", {**change, "reason": ""})
    assert status == 422 and answer["errors"][0]["path"] == "reason"
    assert api["engineer"]("POST", "/book", {**change, "reason": "compared with the printed table"})[0] == 201
    _, touched = api["viewer"]("GET", "/book/touched")
    assert [one["number"] for one in touched] == ["FB-27-P03"]
    _, stage = api["viewer"]("GET", f"/revisions/{released.pk}/stage")
    assert stage["stage"] == "released" and not stage["current"]["covered"]

    assert (
        api["engineer"]("POST", "/book", {"number_id": FACTOR, "said": "revert", "reason": "misread"})[0]
        == 201
    )
    assert api["viewer"]("GET", "/book/touched")[1] == []
    assert api["viewer"]("GET", f"/revisions/{released.pk}/stage")[1]["current"]["covered"]
    assert Entry.objects.count() == 2, "what was said stays"


def test_the_book_shows_a_part_at_a_time_and_finds_the_part_of_a_row(api):
    _, book = api["viewer"]("GET", "/book")
    codes = [one["code"] for one in book["parts"]]
    assert {"aws-d1.1:2020", "iso-15614-1:2017", "metals", "heat"} <= set(codes)
    assert book["part"]["code"] == codes[0]
    for query, shown in (("code=heat", "heat"), ("row=iso_14175/M20", "gases"), ("code=cheese", codes[0])):
        assert api["viewer"]("GET", f"/book?{query}")[1]["part"]["code"] == shown
    said = {"number_id": "thermal_efficiency/135/k", "said": "correct", "value": 0.85, "reason": "own copy"}
    assert api["engineer"]("POST", "/book", said)[0] == 201
    _, book = api["viewer"]("GET", "/book?code=heat")
    assert next(one for one in book["parts"] if one["code"] == "heat")["said"] == 1
    numbers = {n["id"]: n for t in book["part"]["tables"] for r in t["rows"] for n in r["numbers"]}
    found = numbers["thermal_efficiency/135/k"]
    assert (found["value"], found["entered"], found["status"]) == (0.85, 0.8, "corrected")
    # It is heard wherever heat input is counted.
    _, judged = api["viewer"]("POST", "/evaluate", {"document": samples.procedure()})
    assert 0.85 in {one["k"] for one in judged["heat_input"]}


def test_a_record_that_no_longer_counts_is_told_wherever_it_supports(api, released, signed):
    path = f"/records/{signed.pk}/void"
    assert api["engineer"]("POST", path, {"password": "long-enough-1"})[0] == 409, "a reason is asked"
    assert (
        api["engineer"]("POST", path, {**PASSWORD, "reason": "a retest failed at the laboratory"})[0] == 201
    )
    assert api["engineer"]("POST", path, PASSWORD)[0] == 409
    _, touched = api["viewer"]("GET", "/book/touched")
    assert [(one["number"], one["covered_after"]) for one in touched] == [("FB-27-P03", False)]
    assert "FB-27-Q01 is void" in touched[0]["changes"]
    _, stage = api["viewer"]("GET", f"/revisions/{released.pk}/stage")
    assert not stage["current"]["covered"]
    assert api["engineer"]("POST", f"/records/{signed.pk}/procedure", {})[0] == 409
    assert api["viewer"]("GET", f"/jobs/{released.procedure.job_id}/records")[1] == []


def test_a_correction_never_rewrites_what_was_signed(api, signed):
    before = (signed.body, signed.findings)
    api["engineer"](
        "POST", "/book", {"number_id": FACTOR, "said": "correct", "value": 1.5, "reason": "printed"}
    )
    signed.refresh_from_db()
    assert (signed.body, signed.findings) == before
    items = {i["variable"]: i for i in signed.findings["range"]["items"]}
    assert items["parent_thickness_mm"]["max"] == 40
    _, now = api["viewer"]("GET", f"/coupons/{signed.coupon_id}/ranges")
    now_items = {i["variable"]: i for i in now["ranges"][0]["range"]["items"]}
    assert now_items["parent_thickness_mm"]["max"] == 30
    assert now_items["parent_thickness_mm"]["rule"]["id"].endswith("over-12-to-20")


@pytest.mark.parametrize(
    "change, path",
    [
        ({"number_id": FACTOR, "said": "correct", "value": "two"}, "value"),
        ({"number_id": FACTOR, "said": "correct", "value": -1}, "value"),
        ({"number_id": FACTOR, "said": "correct"}, "value"),
        ({"number_id": "no/such/number", "said": "confirm"}, "id"),
        ({"number_id": "nonsense", "said": "confirm"}, "id"),
        ({"number_id": FACTOR, "said": "revert"}, "id"),
    ],
)
def test_what_does_not_fit_the_book_is_refused(api, change, path):
    status, answer = api["engineer"]("POST", "/book", {**change, "reason": "because"})
    assert status == 422 and answer["errors"][0]["path"] == path, answer
    assert not Entry.objects.exists()


def test_a_book_goes_out_and_comes_in_whole_or_not_at_all(api):
    for number, value in ((FACTOR, 1.8), ("iso_15614_1_2017.variables/interpass_c.2/plus_c", 50)):
        body = {"number_id": number, "said": "correct", "value": value, "reason": "printed"}
        assert api["engineer"]("POST", "/book", body)[0] == 201
    document = json.loads(api["viewer"].client.get("/api/book/export").content)
    assert len(document["corrections"]) == 2
    assert api["engineer"]("POST", "/book/import", {"document": document})[1] == {"made": 0}
    document["corrections"][0]["value"] = 1.7
    document["corrections"].append({"id": "no/such/one", "action": "confirm", "reason": "x"})
    status, answer = api["engineer"]("POST", "/book/import", {"document": document})
    assert status == 422 and "corrections.2" in answer["errors"][0]["path"]
    assert Entry.objects.count() == 2
    document["corrections"].pop()
    assert api["engineer"]("POST", "/book/import", {"document": document})[1] == {"made": 1}


def test_an_old_record_is_entered_from_its_certificate(api, job):
    document = {**record("iso")["procedure"], "number": "PQ-112"}
    body = {"document": document, "certificate": "PQ 112/98", "tested_to": "iso-15614-1:2004"}
    status, made = api["engineer"]("POST", f"/jobs/{job.pk}/old-records", body)
    assert status == 201, made
    for one in record("iso")["tests"]:
        test = {k: v for k, v in one.items() if k in ("kind", "specimen", "location", "temperature_c")}
        test["certified"] = "accepted"
        assert api["inspector"]("POST", f"/coupons/{made['id']}/specimens", {"test": test})[0] == 201
    _, found = api["viewer"]("GET", f"/coupons/{made['id']}/ranges")
    own = found["ranges"][0]["range"]
    assert own["valid"]
    assert {one["rule"] for one in own["findings"]} == {"record.certificate", "record.edition"}


def calls(coupon, record_id, revision_id):
    engineers = {"engineer", "administrator"}
    testers = {*engineers, "inspector"}
    witnesses = {*testers, "examiner"}
    everyone = {*witnesses, "welder", "viewer"}
    test = {"kind": "visual", "specimen": f"V{uuid.uuid4()}"[:20]}
    return [
        (everyone, "GET", f"/coupons/{coupon.pk}/evidence", None),
        (everyone, "GET", f"/coupons/{coupon.pk}/ranges", None),
        (everyone, "GET", f"/coupons/{coupon.pk}/record", None),
        (everyone, "GET", "/book", None),
        (everyone, "GET", "/book/export", None),
        (everyone, "GET", "/book/touched", None),
        (everyone, "POST", "/book/preview", {"number_id": FACTOR, "said": "confirm"}),
        (everyone, "GET", f"/revisions/{revision_id}/stage", None),
        (testers, "POST", f"/coupons/{coupon.pk}/specimens", {"test": test}),
        (testers, "POST", f"/coupons/{coupon.pk}/specimens/plan", None),
        (witnesses, "POST", f"/records/{record_id}/witness", PASSWORD),
        (engineers, "POST", f"/coupons/{coupon.pk}/sign", PASSWORD),
        (engineers, "POST", f"/records/{record_id}/void", PASSWORD),
        (testers, "POST", f"/revisions/{revision_id}/old-record", {"certificate": "PQ 1"}),
        (
            engineers,
            "POST",
            f"/jobs/{coupon.job_id}/old-records",
            {"document": NAMELESS, "certificate": "PQ 1"},
        ),
        (engineers, "POST", f"/records/{record_id}/procedure", {}),
        (engineers, "POST", f"/revisions/{revision_id}/qualify", {**PASSWORD, "records": []}),
        (engineers, "POST", f"/revisions/{revision_id}/prequalify", PASSWORD),
        (engineers, "POST", f"/revisions/{revision_id}/release", PASSWORD),
        (engineers, "POST", f"/revisions/{revision_id}/withdraw", PASSWORD),
        (engineers, "POST", "/book", {"number_id": FACTOR, "said": "confirm", "reason": "read"}),
        (engineers, "POST", "/book/import", {"document": EMPTY_BOOK}),
    ]


@pytest.mark.parametrize("role", ["administrator", "engineer", "examiner", "inspector", "viewer", "welder"])
def test_each_role_at_each_door(role, api, people, signed):
    other = start_coupon(people["engineer"], signed.coupon.revision)
    for allowed, method, path, body in calls(other, signed.pk, signed.coupon.revision_id):
        status, answer = api[role](method, path, body)
        assert (status == 403) == (role not in allowed), (role, method, path, status, answer)


def test_every_action_stands_in_the_trail(api, released, coupon):
    """Rows against actions: each insert, change and removal of evidence has its event."""
    assert Specimen.objects.count() == len(record("iso")["tests"])
    counts = {
        model.__name__: (
            model.objects.count(),
            model.events.rel.related_model.objects.filter(pgh_label="insert").count(),
        )
        for model in (Specimen, QualificationRecord, Signature, Entry)
    }
    assert all(rows == inserted for rows, inserted in counts.values()), counts
    stages = [one.stage for one in released.events.order_by("pgh_id")]
    assert stages[0] == "draft" and stages[-1] == "released" and "qualified" in stages


def test_every_verb_has_its_permission():
    assert {a.name for a in Action} >= {"ENTER_TESTS", "SIGN_RECORD", "WITNESS", "RELEASE", "CORRECT_BOOK"}


def text_of(data):
    return " ".join(" ".join(page.extract_text() for page in PdfReader(BytesIO(data)).pages).split())


def test_the_record_on_paper(api, signed):
    status, data = api["viewer"]("GET", f"/coupons/{signed.coupon_id}/record/print")
    assert status == 200
    text = text_of(data)
    for words in (
        "FB-27-Q01", "WPQR", "ISO 15614-1:2017, level 2", "transverse tensile", "548 MPa", "clause 7.4.3",
        "Base metal thickness", "10–40 mm", "from memory, not confirmed", "Engineer Test, engineer",
        signed.content_hash,
    ):  # fmt: skip
        assert words in text, (words, text[:3000])


def test_the_labels_name_every_specimen(api, coupon):
    status, data = api["viewer"]("GET", f"/coupons/{coupon.pk}/labels")
    text = text_of(data)
    assert status == 200
    for mark in ("T1", "T2", "S1", "S4", "I1", "I2", "M1", "RT", "VWT", "VHT"):
        assert mark in text, mark


def test_the_workbook_holds_tests_and_range(api, signed):
    status, data = api["viewer"]("GET", f"/coupons/{signed.coupon_id}/record/table")
    assert status == 200
    book = load_workbook(BytesIO(data))
    assert book.sheetnames == ["Tests", "Range"]
    marks = [row[0] for row in book["Tests"].iter_rows(min_row=2, values_only=True)]
    assert marks == [one["specimen"] for one in record("iso")["tests"]]
    spans = {row[0]: row[3] for row in book["Range"].iter_rows(min_row=2, values_only=True)}
    assert spans["Base metal thickness"] == "10–40 mm"


def test_a_released_procedure_says_so_on_paper(api, released):
    text = text_of(api["viewer"]("GET", f"/revisions/{released.pk}/print")[1])
    for words in (
        "released",
        "Thickness in production",
        "Supported by",
        "FB-27-Q01",
        "released for production",
    ):
        assert words in text, words
