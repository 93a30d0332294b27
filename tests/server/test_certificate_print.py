"""A certificate on paper and as files: from its signed bytes, with how it stands on the day."""

import json
from datetime import timedelta
from io import BytesIO

import openpyxl
import pytest
from apps.crew.models import Certificate
from django.db import connection

from tests.server.conftest import PF, SIGN, TODAY
from tests.server.test_printing import text_of

LONG_AGO = (TODAY - timedelta(days=400)).isoformat()


def printed(api, certificate, status=200):
    code, data = api["viewer"]("GET", f"/certificates/{certificate}/print")
    assert code == status, data
    return text_of(data)[1]


def test_the_certificate_on_paper(api, okafor, certify):
    made = certify(
        wps="FB-27-P02 A", place="hall 2", tests=["visual", "bend test"], training="16 h in booth 3"
    )
    text = printed(api, made["id"])
    due = api["viewer"]("GET", f"/crew/{okafor.pk}")[1]["certificates"][0]["last_valid_day"]
    for words in (
        "Welder's qualification test certificate",
        "R. Okafor",
        PF,
        f"Valid until {due}: confirmation is due.",
        "PA, PF",
        "FB-27-P02 A",
        "visual, bend test",
        "16 h in booth 3",
        "Nothing yet.",
        Certificate.objects.get().content_hash,
        f"/crew/{okafor.pk}?certificate={made['id']}",
    ):
        assert words in text, (words, text)
    assert "NOT VALID" not in text


@pytest.mark.parametrize("facts, words", [
    ({"welded_on": LONG_AGO}, ["NOT VALID", "Lapsed after", "nobody confirmed"]),
    ({"designation": "AWS D1.1 SMAW F4 3G uphill plate CJP T1in backing electrodes=1", "way": None},
     ["Welder qualification test record", "F-number", "1/8 in"]),
])  # fmt: skip
def test_how_it_stands_and_in_the_words_of_its_code(api, okafor, certify, facts, words):
    text = printed(api, certify(**facts)["id"])
    assert not [one for one in words if one not in text], text


def test_what_was_signed_since_stands_on_it(api, okafor, certify):
    made = certify()
    body = {"kind": "revocation", "reason": "doubt after a rejected weld", **SIGN}
    status, answer = api["examiner"]("POST", f"/certificates/{made['id']}/statements", body)
    assert status == 201, answer
    text = printed(api, made["id"])
    assert "NOT VALID" in text and "Revoked" in text and "doubt after a rejected weld" in text


def test_the_files_are_the_signed_bytes_and_a_workbook(api, okafor, certify):
    made = certify(place="=1+1")
    row = Certificate.objects.get()
    status, data = api["viewer"]("GET", f"/certificates/{made['id']}/file")
    assert status == 200 and data == json.loads(row.body) and data["designation"] == PF
    status, data = api["viewer"]("GET", f"/certificates/{made['id']}/file?kind=xlsx")
    book = openpyxl.load_workbook(BytesIO(data))
    assert status == 200 and book.sheetnames == ["Certificate", "Range", "Signatures"]
    stated = {row[0].value: row[1] for row in book["Certificate"].iter_rows(min_row=2)}
    assert stated["Designation"].value == PF and stated["Place"].data_type == "s"
    limits = {row[0].value: row[2].value for row in book["Range"].iter_rows(min_row=2)}
    assert limits["Welding position"] == "PA, PF"


def test_one_that_was_changed_all_the_same_is_not_printed(api, okafor, certify):
    made = certify()
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        cursor.execute("UPDATE crew_certificate SET body = replace(body, 'PF', 'PA')")
        cursor.execute("SET session_replication_role = DEFAULT")
    assert api["viewer"]("GET", f"/certificates/{made['id']}/print")[0] == 409
    assert api["viewer"]("GET", f"/certificates/{made['id']}/file")[0] == 409
    assert api["viewer"]("GET", "/certificates/999/print")[0] == 404
