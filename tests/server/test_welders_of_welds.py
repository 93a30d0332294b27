"""Who welds a joint of the list: named before the arc, kept with the weld, and asked again at its release."""

from datetime import timedelta

import pytest
from apps.coupons.models import Coupon
from apps.crew.models import Certificate
from apps.production.models import Weld
from django.db import DatabaseError, connection, transaction

from tests.server.conftest import CODE, PF, SIGN, TODAY, enter_tests
from tests.server.test_crew import wrong
from tests.welding.records import record

LONG_AGO = (TODAY - timedelta(days=400)).isoformat()
RELEASE = "/welds/{}/release"


def named(api, job, listed, mark="W2", **more):
    query = "&".join(f"names={one}" for one in more.get("names", ["R. Okafor"]))
    status, answer = api["welder"](
        "GET", f"/jobs/{job.pk}/welds/welders?mark={mark}&revision_id={listed.pk}&{query}"
    )
    assert status == 200, answer
    return {one["name"]: one for one in answer}


def test_before_the_arc_everybody_who_is_named_is_answered(api, job, listed, okafor):
    found = named(api, job, listed, names=["R. Okafor", "Nobody Known"])
    assert {name: one["standing"] for name, one in found.items()} == {
        "R. Okafor": "untested",
        "Nobody Known": "unknown",
    }
    assert all(one["reasons"] for one in found.values())


def test_the_joint_counts_and_not_what_the_wps_is_drawn_with(api, job, listed, certify):
    """W2 is welded in PF, W3 in PC: a test in PF covers PF, not PC (ISO 9606-1, table 9, from memory)."""
    certify()
    assert named(api, job, listed)["R. Okafor"]["standing"] == "may"
    assert named(api, job, listed, mark="W3")["R. Okafor"]["standing"] == "blocked"
    # W4 has no metal: nobody is said to be qualified for a joint of which the list says too little.
    assert named(api, job, listed, mark="W4")["R. Okafor"]["standing"] == "open"
    path = f"/jobs/{job.pk}/welds/who-may?revision_id={listed.pk}&mark="
    for mark, standing in (("W2", "may"), ("W3", "blocked"), ("W4", "open")):
        status, answer = api["welder"]("GET", path + mark)
        assert status == 200 and [one["standing"] for one in answer["people"]] == [standing]
    assert api["welder"]("GET", path + "W99")[0] == 404


def test_the_weld_of_somebody_who_is_not_qualified_is_kept_and_not_released(
    api,
    job,
    okafor,
    certify,
    log,
    inspect,
):
    weld = log()
    assert [one["standing"] for one in weld["qualified"]] == ["untested"] and weld["fit"] == "covered"
    inspect(weld)
    status, answer = api["inspector"]("POST", RELEASE.format(weld["id"]))
    assert status == 409 and wrong(answer) == {"welders"} and "R. Okafor" in answer["detail"]
    # A certificate that had run out before the weld changes nothing.
    certify(welded_on=LONG_AGO, number="C-old")
    assert api["inspector"]("POST", RELEASE.format(weld["id"]))[0] == 409
    # One that is entered from paper later, and held on that day, does.
    certify(number="C-new")
    status, answer = api["inspector"]("POST", RELEASE.format(weld["id"]))
    assert status == 200 and [one["standing"] for one in answer["qualified"]] == ["may"]
    with pytest.raises(DatabaseError), transaction.atomic():
        Weld.objects.filter(pk=weld["id"]).update(qualified=[])


def test_a_name_that_the_crew_list_does_not_have_is_said_to_be_unknown(api, log, inspect):
    weld = log(welders=["R. Okafor", "T. Visitor"])
    assert {one["name"]: one["standing"] for one in weld["qualified"]} == {
        "R. Okafor": "unknown",
        "T. Visitor": "unknown",
    }
    inspect(weld)
    status, answer = api["inspector"]("POST", RELEASE.format(weld["id"]))
    assert status == 200 and [one["standing"] for one in answer["qualified"]] == ["unknown", "unknown"]


def test_production_welds_are_evidence_with_what_was_found_on_them(api, certify, log, inspect):
    made = certify(number="C-1")
    other = certify(number="C-2", designation=PF.replace(" PF ", " PA "))
    for method in ("RT", "UT"):
        weld = log(mark="W1", item=1 if method == "RT" else 2)
        inspect(weld, "VT")
        inspect(weld, method, report=f"{method}-7")
    struck = log()
    assert api["welder"]("POST", f"/welds/{struck['id']}/strike", {"reason": "wrong joint"})[0] == 200
    # The one that waits is no more: two welds and the coupon of the WPS are left.
    status, answer = api["examiner"]("GET", f"/certificates/{made['id']}/work")
    welds = [one for one in answer["works"] if one["ref"].startswith("weld-")]
    assert status == 200 and len(welds) == 2 and all(one["within"] for one in welds)
    assert {one["report"] for one in welds} == {"RT-7", "UT-7"}
    _, answer = api["examiner"]("GET", f"/certificates/{other['id']}/work")
    assert [one["within"] for one in answer["works"] if one["ref"].startswith("weld-")] == [False, False]


def test_a_prolongation_is_the_examiners_and_rests_on_tested_welds_of_the_last_months(
    api, okafor, certify, log, inspect
):
    """ISO 9606-1, 9.3 b (from memory): two welds of the last six months, tested by RT, UT or destructively."""
    _, scan = api["engineer"]("POST", f"/crew/{okafor.pk}/scans?name=back.pdf", raw=b"%PDF- signed")
    made = certify(welded_on=(TODAY - timedelta(days=700)).isoformat())
    path = f"/certificates/{made['id']}/statements"
    for days in (530, 360, 180):
        paper = {
            "on": (TODAY - timedelta(days=days)).isoformat(),
            "signer": "responsible",
            "signed_by": "I. Vance",
        }
        status, answer = api["engineer"](
            "POST", path, {"kind": "confirmation", **paper, "scans": [scan["id"]], **SIGN}
        )
        assert status == 201, answer
    for item, method in ((1, "RT"), (2, "UT")):
        inspect(log(mark="W1", item=item), method, report=f"{method}-7")
    _, answer = api["examiner"]("GET", f"/certificates/{made['id']}/work")
    refs = [one["ref"] for one in answer["works"] if one["ref"].startswith("weld-")]
    assert api["engineer"]("POST", path, {"kind": "confirmation", "works": refs, **SIGN})[0] == 201
    # Accepted for the product is not accepted to the levels of the code for persons: the examiner says so.
    body = {"kind": "prolongation", "works": refs, **SIGN}
    twice = {"works": refs[:1] * 2, "meets": refs[:1] * 2}  # one weld named twice is one weld
    assert api["examiner"]("POST", path, body | twice)[0] == 422
    for who, more in (("examiner", {}), ("engineer", {"meets": refs}), ("examiner", {"meets": refs[:1]})):
        status, answer = api[who]("POST", path, body | more)
        assert status == 422 and wrong(answer) == {"works"}, answer
    status, answer = api["examiner"]("POST", path, body | {"meets": refs})
    assert status == 201, answer
    _, answer = api["viewer"]("GET", f"/crew/{okafor.pk}?on={(TODAY + timedelta(days=100)).isoformat()}")
    assert answer["certificates"][0]["standing"] == "valid"


def test_a_joint_that_the_list_no_longer_has_confirms_nothing(api, job, certify, log):
    made = certify()
    log()
    _, rows = api["engineer"]("GET", f"/jobs/{job.pk}/weld-list")
    changes = [
        {"id": one["id"], "version": one["version"], "cells": {"thickness": "12 mm"}}
        for one in rows["rows"][:3]
    ]
    status, answer = api["engineer"](
        "POST", f"/jobs/{job.pk}/weld-list/rows", {"code": CODE, "changes": changes}
    )
    assert status == 200, answer
    _, answer = api["engineer"]("GET", f"/certificates/{made['id']}/work")
    assert [one["within"] for one in answer["works"] if one["ref"].startswith("weld-")] == [None]


# --- a coupon as the test of its welder -------------------------------------------------------


def test_a_coupon_is_the_test_of_its_welder_once_its_tests_are_accepted(api, okafor, welded):
    path = f"/coupons/{welded.pk}"
    status, answer = api["viewer"]("GET", f"{path}/welder-test")
    assert status == 200 and answer["welder"] == "R. Okafor" and answer["member_id"] == okafor.pk
    assert answer["designation"] == PF and answer["missing"] and answer["tests"] == []
    body = {
        "number": "C-7",
        "designation": answer["designation"],
        "welded_on": answer["welded_on"],
        "way": "b",
        "examiner": "B. Quill",
        "tests": ["VT", "RT"],
        **SIGN,
    }
    status, answer = api["examiner"]("POST", f"{path}/certify", body)
    assert status == 422 and wrong(answer) == {"tests"}
    enter_tests(api, welded)
    status, answer = api["viewer"]("GET", f"{path}/welder-test")
    assert answer["missing"] == [] and "radiographic" in " ".join(answer["tests"])
    assert api["engineer"]("POST", f"{path}/certify", body)[0] == 403  # the examiner of the test signs
    assert api["welder"]("POST", f"{path}/certify", body)[0] == 403
    status, made = api["examiner"]("POST", f"{path}/certify", body)
    assert status == 201, made
    signed = Certificate.objects.get(pk=made["id"]).document()
    assert (signed.person, signed.coupon, signed.from_paper) == ("R. Okafor", welded.number, False)
    _, answer = api["viewer"]("GET", f"{path}/welder-test")
    assert answer["certificates"] == ["C-7"]


def test_bends_are_added_to_radiography_of_gas_metal_arc_welding(api, okafor, welded):
    """ISO 9606-1, note to table 13 (from memory): RT alone does not do for 135."""
    bends = [one["specimen"] for one in record("iso")["tests"] if "bend" in one["kind"]]
    enter_tests(api, welded, without=bends)
    _, answer = api["viewer"]("GET", f"/coupons/{welded.pk}/welder-test")
    assert len(answer["missing"]) == 1 and "bend test" in answer["missing"][0]


def test_two_welders_on_one_test_piece_are_named_and_nobody_is_certified(api, okafor, welded):
    enter_tests(api, welded)
    people = [{"role": "welder", "name": "R. Okafor"}, {"role": "welder", "name": "M. Ito"}]
    Coupon.objects.filter(pk=welded.pk).update(people=people)
    _, answer = api["viewer"]("GET", f"/coupons/{welded.pk}/welder-test")
    assert answer["welder"] == "" and "M. Ito, R. Okafor" in " ".join(answer["missing"])
    body = {
        "number": "C-7",
        "designation": PF,
        "welded_on": TODAY.isoformat(),
        "way": "b",
        "examiner": "B. Quill",
    }
    status, answer = api["examiner"]("POST", f"/coupons/{welded.pk}/certify", body | SIGN)
    assert status == 422 and wrong(answer) == {"tests"}


def test_the_test_piece_itself_is_no_work_that_confirms_its_certificate(api, okafor, welded):
    enter_tests(api, welded)
    body = {
        "number": "C-7",
        "designation": PF,
        "welded_on": TODAY.isoformat(),
        "way": "b",
        "examiner": "B. Quill",
    }
    status, made = api["examiner"]("POST", f"/coupons/{welded.pk}/certify", body | SIGN)
    assert status == 201, made
    assert api["engineer"]("GET", f"/certificates/{made['id']}/work")[1]["works"] == []


def test_a_weld_to_a_damaged_wps_is_logged_and_the_crew_stays_readable(
    api, job, listed, okafor, certify, log
):
    certify(designation="AWS D1.1 GMAW 3G uphill plate CJP T10mm open-root electrodes=1", way=None)
    made = certify(number="C-iso")
    log()
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        cursor.execute(
            "UPDATE procedures_revision SET body = replace(body, 'PF', 'PC') WHERE id = %s", [listed.pk]
        )
        cursor.execute("SET session_replication_role = DEFAULT")
    weld = log(mark="W1")
    assert [one["standing"] for one in weld["qualified"]] == ["unknown"] and weld["fit"] == "blocked"
    assert named(api, job, listed)["R. Okafor"]["standing"] == "unknown"
    assert api["viewer"]("GET", "/crew")[0] == 200
    _, answer = api["viewer"]("GET", f"/certificates/{made['id']}/work")
    assert {one["within"] for one in answer["works"] if one["ref"].startswith("weld-")} == {None}
