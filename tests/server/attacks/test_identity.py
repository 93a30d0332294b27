"""A signature binds a person: names of that day, passwords that their owners chose, two people where asked."""

from io import BytesIO

import pytest
from apps.accounts.models import User
from apps.accounts.passwords import NotMadeOfNames
from apps.coupons.models import Coupon
from apps.procedures.models import Revision
from apps.qualification.models import QualificationRecord, Signature
from django.core.exceptions import ValidationError
from django.db import DatabaseError, transaction
from django.test import Client
from pypdf import PdfReader

from tests.server.attacks.conftest import seen
from tests.server.conftest import PASSWORD, Api, enter_tests
from tests.welding.records import record


def pages(data):
    return [" ".join(page.extract_text().split()) for page in PdfReader(BytesIO(data)).pages]


def test_renaming_a_person_does_not_change_the_past(evidence, api, people, at_noon):
    before = seen(api, evidence["coupon"])
    for user in people.values():
        user.first_name, user.last_name, user.role = "Somebody", "Else", "viewer"
        user.save()
    people["viewer"].refresh_from_db()
    after = seen(api, evidence["coupon"])
    # Who entered a specimen is a matter of the account; whoever logged and signed is evidence.
    assert {name for name in before if before[name] != after[name]} <= {"specimens"}
    text = " ".join(pages(after["record print"]))
    assert "Engineer Test, engineer" in text and "Somebody Else" not in text


def test_a_password_that_an_administrator_set_signs_nothing(api, welded, people):
    enter_tests(api, welded)
    admin = Client()
    people["administrator"].is_staff = people["administrator"].is_superuser = True
    people["administrator"].save()
    admin.force_login(people["administrator"], backend="apps.accounts.backend.GuardedBackend")
    fields = {"password1": "given-by-admin-1", "password2": "given-by-admin-1", "usable_password": "true"}
    answer = admin.post(f"/admin/accounts/user/{people['engineer'].pk}/password/", fields)
    assert answer.status_code == 302, answer.content[:500]

    trail = User.events.rel.related_model.objects.filter(pgh_obj=people["engineer"])
    last = trail.filter(pgh_label="password").order_by("-pgh_id").first()
    assert last.pgh_context.metadata["user"] == people["administrator"].pk
    assert last.password_own is False

    engineer = Api(User.objects.get(pk=people["engineer"].pk))
    assert engineer("GET", "/session")[1]["person"]["password_own"] is False
    signature = {"password": "given-by-admin-1", "reason": ""}
    status, answer = engineer("POST", f"/coupons/{welded.pk}/sign", signature)
    assert status == 403 and "Change your password" in answer["detail"]
    assert not QualificationRecord.objects.exists()

    status, answer = engineer("POST", "/session/password", {"current": "wrong", "new": "heather-and-tin-4"})
    assert (status, answer["errors"][0]["path"]) == (422, "current")
    change = {"current": "given-by-admin-1", "new": "heather-and-tin-4"}
    status, answer = engineer("POST", "/session/password", change)
    assert status == 200 and answer["person"]["password_own"] is True
    signature["password"] = "heather-and-tin-4"
    assert engineer("POST", f"/coupons/{welded.pk}/sign", signature)[0] == 201


def test_changing_the_password_ends_the_other_sessions(people):
    here, there = Api(people["engineer"]), Api(people["engineer"])
    change = {"current": "long-enough-1", "new": "heather-and-tin-4"}
    assert here("POST", "/session/password", change)[0] == 200
    assert here("GET", "/jobs")[0] == 200
    assert there("GET", "/jobs")[0] == 401


@pytest.mark.parametrize(
    "new", ["short", "engineerengineer", "Engineer.Test1", "1111111111", "password123", "long-enough-1"]
)
def test_weak_passwords_are_refused_beside_the_field(people, new):
    body = {"current": "long-enough-1", "new": new}
    status, answer = Api(people["engineer"])("POST", "/session/password", body)
    assert (status, answer["errors"][0]["path"]) == (422, "new"), new


def test_names_are_no_password_however_they_are_written():
    user = User(username="imra.vance", first_name="Imra", last_name="Vance")
    check = NotMadeOfNames().validate
    for bad in ("imra.vanceimra.vance", "ImraVance99", "ecnavecnavecnav", "VANCE-vance-1"):
        with pytest.raises(ValidationError):
            check(bad, user)
    check("heather-and-tin-4", user)
    check("vance keeps 14 geese", user)


def test_a_hash_that_is_renewed_at_sign_in_stays_the_persons_own(people, settings):
    settings.PASSWORD_HASHERS = [
        "django.contrib.auth.hashers.PBKDF2PasswordHasher",
        "django.contrib.auth.hashers.MD5PasswordHasher",
    ]
    user = User.objects.get(pk=people["engineer"].pk)
    assert user.check_password("long-enough-1") and user.password_own
    user.refresh_from_db()
    assert user.password.startswith("pbkdf2") and user.password_own


def test_whoever_signed_is_no_witness_of_it(evidence, api):
    path = f"/records/{evidence['record'].pk}/witness"
    status, answer = api["engineer"]("POST", path, PASSWORD)
    assert status == 409 and "somebody else" in answer["detail"]
    assert api["inspector"]("POST", path, PASSWORD)[0] == 201
    signed = evidence["record"]
    forged = Signature(record=signed, purpose="witness", content_hash=signed.content_hash, role="engineer")
    forged.by, forged.name = signed.signed_by, "Somebody"
    with pytest.raises(DatabaseError), transaction.atomic():
        forged.save()


def test_a_void_record_is_printed_void_on_every_page_and_has_no_new_witness(evidence, api):
    signed, coupon = evidence["record"], evidence["coupon"]
    reason = {**PASSWORD, "reason": "the laboratory lost its accreditation"}
    assert api["engineer"]("POST", f"/records/{signed.pk}/void", reason)[0] == 201
    assert api["examiner"]("POST", f"/records/{signed.pk}/witness", PASSWORD)[0] == 409
    for path in ("record/print", "print"):
        sheets = pages(api["viewer"]("GET", f"/coupons/{coupon.pk}/{path}")[1])
        assert len(sheets) > 1 or path == "print"
        assert all("VOID" in one for one in sheets), path
    assert "lost its accreditation" in " ".join(
        pages(api["viewer"]("GET", f"/coupons/{coupon.pk}/record/print")[1])
    )


def test_a_released_procedure_whose_record_is_void_says_so_on_paper(released, signed, api):
    path = f"/revisions/{released.pk}/print"
    assert not any("NOT COVERED" in one for one in pages(api["viewer"]("GET", path)[1]))
    assert api["engineer"]("POST", f"/records/{signed.pk}/void", PASSWORD)[0] == 201
    sheets = pages(api["viewer"]("GET", path)[1])
    assert all("NOT COVERED" in one for one in sheets)
    assert "Not for production" in sheets[0] and "FB-27-Q01 is void" in sheets[0]
    assert api["engineer"]("POST", f"/revisions/{released.pk}/withdraw", PASSWORD)[0] == 200
    assert all("WITHDRAWN" in one for one in pages(api["viewer"]("GET", path)[1]))


def test_an_amendment_is_a_new_record_and_the_old_one_is_superseded(evidence, api, people, at_noon):
    coupon, signed = evidence["coupon"], evidence["record"]
    before = seen(api, coupon)
    path = f"/records/{signed.pk}/amend"
    assert api["inspector"]("POST", path, {"reason": "x"})[0] == 403
    assert api["engineer"]("POST", path, {"reason": " "})[0] == 409
    status, made = api["engineer"]("POST", path, {"reason": "T1 was read wrongly"})
    assert status == 201
    assert api["engineer"]("POST", path, {"reason": "again"})[0] == 409, "one at a time"
    copy = Coupon.objects.get(pk=made["id"])
    assert copy.number == f"{coupon.number}-R1"
    _, found = api["viewer"]("GET", f"/coupons/{copy.pk}/evidence")
    assert found["report"]["verdict"] == "accepted" and found["amends"]["record_number"] == signed.number
    _, log = api["viewer"]("GET", f"/coupons/{copy.pk}")
    assert [one["record"] for one in log["rows"]] == [
        one["record"] for one in api["viewer"]("GET", f"/coupons/{coupon.pk}")[1]["rows"]
    ]
    assert log["rows"][0]["photos"]
    assert [one["taken"] for one in api["viewer"]("GET", f"/coupons/{copy.pk}/recordings")[1]] == [[1]]

    one = copy.specimens.get(mark="T1")
    body = {"version": one.version, "test": {**one.document, "tensile_mpa": 512}}
    assert api["inspector"]("PUT", f"/specimens/{one.pk}", body)[0] == 200
    assert QualificationRecord.objects.get(pk=signed.pk).counts, "it counts until the amended one is signed"
    status, second = api["engineer"]("POST", f"/coupons/{copy.pk}/sign", PASSWORD)
    assert status == 201
    old, new = (QualificationRecord.objects.get(pk=pk) for pk in (signed.pk, second["id"]))
    assert (old.state, new.state, new.number) == ("superseded", "signed", f"{signed.number}-R1")
    _, lines = api["viewer"]("GET", f"/jobs/{coupon.job_id}/records")
    assert [line["number"] for line in lines] == [new.number]
    assert api["engineer"]("POST", f"/records/{old.pk}/procedure", {})[0] == 409
    assert api["examiner"]("POST", f"/records/{old.pk}/witness", PASSWORD)[0] == 409

    after = seen(api, coupon)
    changed = {name for name in before if before[name] != after[name]}
    assert changed == {"record print", "coupon print", "signatures", "log"}
    assert all("SUPERSEDED" in page for page in pages(after["record print"]))
    new_print = " ".join(pages(api["viewer"]("GET", f"/coupons/{copy.pk}/record/print")[1]))
    assert "T1 was read wrongly" in new_print and "512 MPa" in new_print


def test_a_procedure_rests_on_the_amended_record_only_once_it_is_declared(released, signed, api):
    _, made = api["engineer"]("POST", f"/records/{signed.pk}/amend", {"reason": "a remark"})
    _, second = api["engineer"]("POST", f"/coupons/{made['id']}/sign", PASSWORD)
    _, stage = api["viewer"]("GET", f"/revisions/{released.pk}/stage")
    assert stage["stage"] == "released" and not stage["current"]["covered"]
    _, touched = api["viewer"]("GET", "/book/touched")
    assert touched[0]["changes"] == ["FB-27-Q01 is superseded by its amendment"]
    body = {**PASSWORD, "records": [second["id"]]}
    status, stage = api["engineer"]("POST", f"/revisions/{released.pk}/qualify", body)
    assert status == 200 and stage["stage"] == "released" and stage["current"]["covered"]


def test_a_job_may_ask_for_two_people(signed, api, job):
    assert api["inspector"]("PATCH", f"/jobs/{job.pk}", {"two_signatures": True})[0] == 403
    assert api["engineer"]("PATCH", f"/jobs/{job.pk}", {"two_signatures": True})[1]["two_signatures"]
    _, found = api["viewer"]("GET", f"/coupons/{signed.coupon_id}/evidence")
    assert found["signed"]["state"] == "awaits-second"
    assert api["viewer"]("GET", f"/jobs/{job.pk}/records")[1] == []
    status, answer = api["engineer"]("POST", f"/records/{signed.pk}/procedure", {})
    assert status == 409 and "second signature" in answer["detail"]
    assert api["examiner"]("POST", f"/records/{signed.pk}/witness", PASSWORD)[0] == 201
    status, draft = api["engineer"]("POST", f"/records/{signed.pk}/procedure", {})
    assert status == 201
    path = f"/revisions/{draft['id']}"
    assert api["engineer"]("POST", f"{path}/qualify", {**PASSWORD, "records": [signed.pk]})[0] == 200
    status, answer = api["engineer"]("POST", f"{path}/release", PASSWORD)
    assert status == 409 and "two signatures" in answer["detail"]
    assert api["administrator"]("POST", f"{path}/release", PASSWORD)[0] == 200


def test_an_inspector_freezes_no_draft_by_way_of_an_old_record(api, draft):
    body = {"certificate": "PQ 112/98"}
    assert api["inspector"]("POST", f"/revisions/{draft.pk}/old-record", body)[0] == 403
    assert Revision.objects.get(pk=draft.pk).stage == "draft"
    assert api["engineer"]("POST", f"/revisions/{draft.pk}/old-record", body)[0] == 201


def test_a_frozen_document_is_read_from_its_bytes(draft, api):
    """The searched copy may be bent past the triggers: what is shown is what the hash is over."""
    Revision.objects.filter(pk=draft.pk).update(document={**draft.document, "title": "forged"})
    _, found = api["viewer"]("GET", f"/revisions/{draft.pk}")
    assert found["document"]["title"] == record_title(draft)
    Revision.objects.filter(pk=draft.pk).update(body=draft.body.replace(record_title(draft), "forged"))
    status, answer = api["viewer"]("GET", f"/revisions/{draft.pk}")
    assert (status, answer["type"]) == (409, "/problems/damaged")
    _, lines = api["viewer"]("GET", f"/jobs/{draft.procedure.job_id}/procedures")
    assert "not what was kept" in lines[0]["damaged"]


def record_title(revision):
    return revision.document.get("title") or record("iso")["procedure"]["title"]
