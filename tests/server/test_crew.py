"""People and certificates: read, signed, kept alive or not; nothing that would not count is signed."""

import hashlib
import json
from datetime import UTC, date, datetime, timedelta

import pytest
from apps.crew.models import Certificate, CrewMember, Scan, Statement
from django.db import DatabaseError, connection, transaction

from tests.server.attacks.test_audit import faults
from tests.server.conftest import PF, SIGN, TODAY
from welding.documents.codec import CERTIFICATE_STATEMENT, WELDER_CERTIFICATE

PDF = b"%PDF-1.7 a certificate on paper"


@pytest.fixture
def scan(api, okafor):
    status, answer = api["engineer"]("POST", f"/crew/{okafor.pk}/scans?name=back.pdf", raw=PDF)
    assert status == 201, answer
    return answer


def state(api, certificate_id, kind="confirmation", who="engineer", status=201, **more):
    body = {"kind": kind, **SIGN} | more
    code, answer = api[who]("POST", f"/certificates/{certificate_id}/statements", body)
    assert code == status, answer
    return answer


def look(api, member, on=None):
    status, answer = api["viewer"]("GET", f"/crew/{member.pk}" + (f"?on={on}" if on else ""))
    assert status == 200, answer
    return answer


@pytest.fixture
def later(monkeypatch, api, people):
    """The clock of the server, so many days on; everybody signs in again."""

    def turn(days):
        moment = datetime.now(UTC) + timedelta(days=days)
        monkeypatch.setattr("django.utils.timezone.now", lambda: moment)
        for role, user in people.items():
            api[role].client.force_login(user, backend="apps.accounts.backend.GuardedBackend")

    return turn


def wrong(answer):
    return {one["path"] for one in answer["errors"]}


# --- people -----------------------------------------------------------------------------------


def test_a_person_stands_once_and_two_editors_do_not_overwrite_each_other(api, okafor):
    for entry in ({"name": "r. okafor"}, {"name": "M. Ito", "mark": "ro"}):
        status, answer = api["engineer"]("POST", "/crew", entry)
        assert status == 422 and len(wrong(answer)) == 1
    change = {"version": 1, "name": "R. Okafor", "mark": "RO", "employer": "Fernhollow"}
    assert api["engineer"]("PUT", f"/crew/{okafor.pk}", change)[0] == 200
    assert api["administrator"]("PUT", f"/crew/{okafor.pk}", change)[0] == 409
    okafor.refresh_from_db()
    assert (okafor.employer, okafor.version) == ("Fernhollow", 2)


def test_the_name_on_a_certificate_stays_and_what_is_signed_is_not_removed(api, okafor, certify):
    certify()
    change = {"version": 1, "name": "Rell Okafor", "mark": "RO"}
    status, answer = api["engineer"]("PUT", f"/crew/{okafor.pk}", change)
    assert status == 422 and wrong(answer) == {"name"}
    assert api["engineer"]("DELETE", f"/crew/{okafor.pk}")[0] == 409
    status, made = api["engineer"]("POST", "/crew", {"name": "Entered by mistake"})
    assert api["engineer"]("DELETE", f"/crew/{made['id']}")[0] == 204


@pytest.mark.parametrize("who", ["welder", "viewer", "inspector", "examiner"])
def test_only_the_engineer_keeps_the_list(api, okafor, who):
    assert api[who]("POST", "/crew", {"name": "Somebody"})[0] == 403
    assert api[who]("PUT", f"/crew/{okafor.pk}", {"version": 1, "name": "R. Okafor"})[0] == 403
    assert api[who]("DELETE", f"/crew/{okafor.pk}")[0] == 403
    assert api[who]("POST", f"/crew/{okafor.pk}/scans?name=a.pdf", raw=PDF)[0] == 403


# --- certificates -----------------------------------------------------------------------------


def test_a_certificate_is_what_was_signed(api, okafor, certify):
    made = certify()
    row = Certificate.objects.get(pk=made["id"])
    assert row.content_hash == hashlib.sha256(row.body.encode()).hexdigest()
    document = WELDER_CERTIFICATE.read(row.body)
    assert (document.person, document.mark, document.tested.position) == ("R. Okafor", "RO", "PF")
    (one,) = look(api, okafor)["certificates"]
    assert one["standing"] == "valid" and one["signed_name"] == "Engineer Test"
    assert one["due"]["kind"] == "confirmation"
    # Six months on, by common practice: the same day of the sixth month.
    assert 181 <= (date.fromisoformat(one["due"]["on"]) - TODAY).days <= 184
    names = {item["variable"] for item in one["items"]}
    assert {"welder_position", "deposited_mm", "filler_group", "transfer_mode"} <= names


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"designation": "ISO 9606-1 135 P BW FM1 S PF ss nb"}, "designation"),
        ({"designation": "by heart"}, "designation"),
        ({"welded_on": (TODAY + timedelta(days=1)).isoformat()}, "welded_on"),
        ({"way": None}, "way"),
        ({"examiner": ""}, "examiner"),
        ({"password": "wrong"}, "password"),
        ({"designation": "AWS D1.1 GMAW 3G uphill plate CJP T10mm open-root electrodes=1"}, "way"),
        ({"scans": [987_654]}, "scans"),
    ],
)
def test_what_does_not_hold_is_named_and_nothing_is_signed(certify, change, path):
    assert path in wrong(certify(status=422, **change))
    assert not Certificate.objects.exists()


@pytest.mark.parametrize("day", ["0001-01-01", "9999-12-31"])
def test_a_day_that_is_none_of_our_time_is_refused(api, okafor, certify, day):
    made = certify()
    certify(status=422, welded_on=day)
    for path in ("/crew?on=", f"/crew/{okafor.pk}?on=", f"/certificates/{made['id']}/work?on="):
        assert api["viewer"]("GET", path + day)[0] == 422
    state(api, made["id"], status=422, on=day)


def test_a_number_stands_once(certify):
    certify(number="C-1")
    assert wrong(certify(status=409, number="C-1")) == {"number"}


def test_who_signs_what(certify):
    certify(who="inspector", status=403)
    certify(who="examiner", status=403)  # entering paper is the engineer's
    certify(who="engineer", status=403, from_paper=False)  # the certificate of a test is the examiner's
    certify(who="examiner", from_paper=False)
    certify(
        from_paper=False,
        way=None,
        designation="AWS D1.1 GMAW 3G uphill plate CJP T10mm open-root electrodes=1",
    )


def test_nothing_signed_is_changed_or_dropped_beneath_the_server(api, okafor, certify, scan):
    made = certify(welded_on=(TODAY - timedelta(days=100)).isoformat())
    state(
        api, made["id"], on=TODAY.isoformat(), signer="responsible", signed_by="I. Vance", scans=[scan["id"]]
    )
    for statement in (
        "UPDATE crew_certificate SET body = replace(body, 'PF', 'PC')",
        "UPDATE crew_certificate SET member_id = member_id + 1",
        "DELETE FROM crew_statement",
        "UPDATE crew_statement SET kind = 'prolongation'",
        "UPDATE crew_scan SET sha256 = repeat('0', 64)",
        "DELETE FROM crew_certificate",
    ):
        with pytest.raises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
            cursor.execute(statement)


def test_a_certificate_that_was_changed_all_the_same_counts_no_more(api, okafor, certify):
    certify()
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        cursor.execute("UPDATE crew_certificate SET body = replace(body, 'PF', 'PC')")
        cursor.execute("SET session_replication_role = DEFAULT")
    status, answer = api["viewer"]("GET", "/crew")
    assert status == 200
    assert [one["standing"] for one in answer["members"][0]["certificates"]] == ["damaged"]
    assert any("certificate C-1" in one for one in faults())


def test_a_designation_is_read_with_its_range_or_refused_with_the_part(api, people):
    status, answer = api["welder"]("POST", "/crew/designation", {"text": PF})
    assert status == 200 and answer["ways"] == ["a", "b", "c"] and answer["short"] == "ISO 9606-1"
    position = next(one for one in answer["items"] if one["variable"] == "welder_position")
    assert set(position["values"]) >= {"PA", "PF"} and "PC" not in position["values"]
    status, answer = api["welder"]("POST", "/crew/designation", {"text": PF.replace("FM1 ", "")})
    assert status == 422 and wrong(answer) == {"designation"}


def test_a_scan_is_kept_once_with_its_digest_and_only_what_a_scan_can_be(api, okafor, scan):
    assert scan["sha256"] == hashlib.sha256(PDF).hexdigest()
    status, again = api["engineer"]("POST", f"/crew/{okafor.pk}/scans?name=again.pdf", raw=PDF)
    assert (status, again["id"], Scan.objects.count()) == (201, scan["id"], 1)
    kept = api["viewer"].client.get(f"/api/scans/{scan['id']}")
    assert b"".join(kept.streaming_content) == PDF and kept["Content-Type"] == "application/pdf"
    assert api["engineer"]("POST", f"/crew/{okafor.pk}/scans?name=a.exe", raw=b"MZ....")[0] == 422
    assert (
        api["engineer"]("POST", f"/crew/{okafor.pk}/scans?name=a.pdf", raw=PDF + b"0" * 15_000_000)[0] == 422
    )


# --- what keeps it alive ----------------------------------------------------------------------


def test_a_confirmation_rests_on_welds_of_the_logs(api, okafor, certify, welded):
    """``welded`` is a coupon in PF that R. Okafor welded today."""
    made = certify()
    status, answer = api["engineer"]("GET", f"/certificates/{made['id']}/work")
    assert status == 200
    (one,) = answer["works"]
    assert one["within"] is True and welded.number in one["what"] and one["on"] == TODAY.isoformat()
    state(api, made["id"], works=[one["ref"]])
    row = Statement.objects.get()
    signed = CERTIFICATE_STATEMENT.read(row.intact_body())
    assert signed.certificate_sha256 == Certificate.objects.get().content_hash
    assert (signed.signer, signed.on, signed.signed_by) == ("responsible", TODAY.isoformat(), "Engineer Test")
    assert [work.what for work in signed.works] == [one["what"]]


def test_without_a_weld_within_the_range_nothing_is_confirmed(api, okafor, certify, welded):
    other = certify(designation=PF.replace(" PF ", " PA "))
    _, answer = api["engineer"]("GET", f"/certificates/{other['id']}/work")
    assert [one["within"] for one in answer["works"]] == [False]
    assert "position" in " ".join(answer["works"][0]["against"]).lower()
    assert wrong(state(api, other["id"], status=422, works=[answer["works"][0]["ref"]])) == {"works"}
    assert wrong(state(api, other["id"], status=422)) == {"works"}
    assert wrong(state(api, other["id"], status=422, works=["weld-1"])) == {"works"}
    assert not Statement.objects.exists()


def test_the_welds_of_somebody_else_confirm_nothing(api, certify, welded):
    _, made = api["engineer"]("POST", "/crew", {"name": "M. Ito"})
    ito = CrewMember.objects.get(pk=made["id"])
    other = certify(member=ito)
    assert api["engineer"]("GET", f"/certificates/{other['id']}/work")[1]["works"] == []
    ref = f"coupon-{welded.pk}-{TODAY.isoformat()}"
    assert wrong(state(api, other["id"], status=422, works=[ref])) == {"works"}


def test_a_confirmation_after_it_ran_out_is_refused_and_says_since_when(api, okafor, certify, welded):
    made = certify(welded_on=(TODAY - timedelta(days=200)).isoformat())
    (one,) = look(api, okafor)["certificates"]
    assert one["standing"] == "lapsed" and one["last_valid_day"] in one["reasons"][0]
    work = api["engineer"]("GET", f"/certificates/{made['id']}/work")[1]["works"]
    answer = state(api, made["id"], status=422, works=[work[0]["ref"]])
    assert one["last_valid_day"] in answer["detail"] and not Statement.objects.exists()


def test_who_may_sign_for_it(api, certify, welded):
    made = certify()
    work = [api["viewer"]("GET", f"/certificates/{made['id']}/work")[1]["works"][0]["ref"]]
    for who in ("welder", "viewer", "inspector"):
        state(api, made["id"], who=who, status=403, works=work)
    assert wrong(state(api, made["id"], status=422, works=work, password="wrong")) == {"password"}
    # A prolongation is the examiner's, and needs two welds that were tested.
    state(api, made["id"], kind="prolongation", status=422, works=work)
    state(api, made["id"], kind="prolongation", who="examiner", status=422, works=work)
    state(api, made["id"], who="examiner", works=work)


def test_a_signature_on_paper_needs_its_day_its_name_and_a_scan(api, okafor, certify, scan):
    made = certify(welded_on=(TODAY - timedelta(days=300)).isoformat())
    paper = {
        "on": (TODAY - timedelta(days=150)).isoformat(),
        "signer": "responsible",
        "signed_by": "Imra Vance",
        "scans": [scan["id"]],
    }
    for path, change in (
        ("scans", {"scans": []}),
        ("signed_by", {"signed_by": " "}),
        ("on", {"on": (TODAY + timedelta(days=2)).isoformat()}),
        ("on", {"on": (TODAY - timedelta(days=301)).isoformat()}),
        ("on", {"on": (TODAY - timedelta(days=100)).isoformat()}),  # it had run out by then
        ("works", {"signer": "welder"}),
    ):
        assert wrong(state(api, made["id"], status=422, **(paper | change))) == {path}
    state(api, made["id"], **paper)
    (one,) = look(api, okafor)["certificates"]
    assert one["standing"] == "valid" and one["statements"][0]["from_paper"]
    assert one["statements"][0]["signed_by"] == "Imra Vance"
    assert one["statements"][0]["entered_by"] == "Engineer Test"


def test_revoked_is_revoked_with_a_reason_and_once(api, okafor, certify):
    made = certify()
    assert wrong(state(api, made["id"], kind="revocation", status=422)) == {"reason"}
    state(api, made["id"], kind="revocation", reason="repeated lack of fusion")
    (one,) = look(api, okafor)["certificates"]
    assert one["standing"] == "lapsed" and not one["may_confirm"]
    assert wrong(state(api, made["id"], kind="revocation", status=422, reason="again")) == {"reason"}


def test_six_months_on_it_runs_out_unless_it_was_confirmed(api, okafor, certify, welded, later):
    confirmed, forgotten = certify(), certify()
    later(150)
    work = api["engineer"]("GET", f"/certificates/{confirmed['id']}/work")[1]["works"]
    state(api, confirmed["id"], works=[work[0]["ref"]])
    later(200)
    _, answer = api["viewer"]("GET", "/crew")
    found = {one["id"]: one["standing"] for one in answer["members"][0]["certificates"]}
    assert found == {confirmed["id"]: "valid", forgotten["id"]: "lapsed"}


def test_under_aws_the_logs_alone_keep_it_alive(api, okafor, certify, welded, later):
    """D1.1: it lapses when the process was not used for more than six months (from memory)."""
    old = (TODAY - timedelta(days=170)).isoformat()
    aws = "AWS D1.1 GMAW 3G uphill plate CJP T10mm open-root electrodes=1"
    made = certify(designation=aws, way=None, welded_on=old)
    unused = certify(designation=aws.replace("GMAW", "FCAW-G"), way=None, welded_on=old)
    later(90)
    found = {one["id"]: one for one in look(api, okafor)["certificates"]}
    assert found[made["id"]]["standing"] == "valid" and found[made["id"]]["due"]["kind"] == "use"
    assert found[unused["id"]]["standing"] == "lapsed"
    assert wrong(state(api, made["id"], status=422)) == {"works"}


# --- who may weld it --------------------------------------------------------------------------


def test_everybody_is_named_whoever_may_first(api, okafor, certify, welded):
    for name, designation in (
        ("A. Other", PF.replace(" PF ", " PA ")),
        ("B. Lapsed", PF),
        ("C. None", ""),
        ("D. Left", PF),
    ):
        made = api["engineer"]("POST", "/crew", {"name": name})[1]
        member = CrewMember.objects.get(pk=made["id"])
        if designation:
            day = TODAY - timedelta(days=200 if name == "B. Lapsed" else 0)
            certify(member=member, designation=designation, welded_on=day.isoformat())
        if name == "D. Left":
            CrewMember.objects.filter(pk=member.pk).update(left_on=TODAY)
    certify(number="C-RO")
    status, answer = api["welder"]("GET", f"/revisions/{welded.revision_id}/who-may")
    assert status == 200 and answer["code"] == "ISO 9606-1" and answer["asked"]
    assert [(one["name"], one["standing"]) for one in answer["people"]] == [
        ("R. Okafor", "may"),
        ("B. Lapsed", "lapsed"),
        ("A. Other", "blocked"),
        ("C. None", "untested"),
    ]
    assert answer["people"][0]["by"] == ["C-RO"]
    assert all(one["reasons"] for one in answer["people"][1:])


@pytest.mark.parametrize(
    ("name", "standing"), [("", "untested"), ("R. Okafor", "untested"), ("Nobody Known", "unknown")]
)
def test_before_the_arc_whoever_is_named_is_held_against_the_coupon(api, okafor, welded, name, standing):
    status, (one,) = api["welder"]("GET", f"/coupons/{welded.pk}/welder?name={name}")
    assert status == 200 and one["standing"] == standing and one["reasons"]
    assert one["name"] == (name or "R. Okafor")


def test_the_trail_holds_what_was_signed(api, certify):
    certify()
    assert faults() == []
    with connection.cursor() as cursor:
        cursor.execute("SELECT count(*) FROM audit_link WHERE table_name = 'crew_certificate'")
        assert cursor.fetchone()[0] == 1


def test_the_body_that_is_signed_reads_the_same_in_every_language(api, certify, welded):
    made = certify()
    (work,) = api["engineer"]("GET", f"/certificates/{made['id']}/work")[1]["works"]
    api["engineer"].client.cookies["language"] = "de"
    state(api, made["id"], works=[work["ref"]])
    assert "coupon" in json.loads(Statement.objects.get().body)["works"][0]["what"]


# --- what runs out ----------------------------------------------------------------------------
