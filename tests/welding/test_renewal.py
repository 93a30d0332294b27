"""A qualification that lapsed because its process had rested, and the test that renews it (AWS D1.1)."""

from dataclasses import replace
from datetime import date

import pytest

from welding.documents.codec import CERTIFICATE_STATEMENT
from welding.documents.welder_certificate import CertificateStatement, RenewingTest, WelderCertificate
from welding.welders.asked import Asked
from welding.welders.catalogue import read_designation
from welding.welders.certificate import standing_on, statement_problems
from welding.welders.renewal import against_test, renews_by_test
from welding.welders.who import HeldTest, may_weld

UNLIMITED = "AWS D1.1 SMAW 3G uphill plate CJP T25mm F4 backing"
TEN = "AWS D1.1 SMAW 3G uphill plate CJP T10mm F4 backing"
WELDED, LAPSED, AGAIN = date(2022, 3, 1), date(2022, 9, 1), date(2024, 8, 5)
DIGEST = "a" * 64


def certificate(designation=UNLIMITED, welded=WELDED):
    return WelderCertificate(
        number="C-1",
        person="R. Okafor",
        designation=designation,
        tested=read_designation(designation),
        welded_on=welded.isoformat(),
        examiner="B. Quill",
    )


def renewal(designation=TEN, welded=AGAIN, on=AGAIN, **more):
    by = RenewingTest(
        certificate="C-2",
        certificate_sha256=DIGEST,
        designation=designation,
        tested=read_designation(designation),
        welded_on=welded.isoformat(),
    )
    given = {
        "kind": "renewal",
        "certificate": "C-1",
        "certificate_sha256": "0" * 64,
        "person": "R. Okafor",
        "on": on.isoformat(),
        "signer": "responsible",
        "signed_by": "I. Vance",
        "renewed_by": by,
    }
    return CertificateStatement(**(given | more))


def test_a_test_on_ten_millimetres_brings_back_a_qualification_of_any_thickness():
    """AWS D1.1 6.25.1.3, from memory: 3/8 in [10 mm] serves for any production thickness from 1/8 in up."""
    held, signed = certificate(), renewal()
    before = standing_on(held, (), AGAIN)
    assert (before.standing, before.last_valid_day) == ("lapsed", LAPSED)
    assert statement_problems(held, (), signed) == ()
    after = standing_on(held, (signed,), AGAIN)
    two_inches = replace(read_designation(UNLIMITED), thickness_mm=50)
    for standing, expected in ((before, "lapsed"), (after, "may")):
        asked = Asked(welds=(two_inches,), open=())
        assert may_weld([HeldTest(weld=held.tested, validity=standing)], asked).standing == expected
    assert (after.standing, after.last_valid_day) == ("valid", date(2025, 2, 5))
    assert "C-2" in " ".join(after.reasons) and "6.25.1.3" in " ".join(after.reasons)
    # What was signed later says nothing about the days before.
    assert standing_on(held, (signed,), date(2024, 8, 4)).standing == "lapsed"


def test_from_the_test_on_the_use_of_the_process_counts_again():
    held, signed = certificate(), renewal()
    uses = [date(2022, 6, 1), date(2025, 1, 10), date(2025, 6, 20)]
    assert standing_on(held, (signed,), date(2025, 12, 20), uses).standing == "valid"
    assert standing_on(held, (signed,), date(2025, 12, 21), uses).last_valid_day == date(2025, 12, 20)
    assert standing_on(held, (signed,), date(2025, 3, 1)).standing == "lapsed"


@pytest.mark.parametrize(
    ("designation", "why"),
    [
        ("AWS D1.1 SMAW 3G uphill plate CJP T12mm F4 backing", "10 mm"),
        ("AWS D1.1 SMAW 3G uphill plate CJP T8mm F4 backing", "10 mm"),
        ("AWS D1.1 SMAW 3G uphill plate CJP F4 backing", "10 mm"),
        ("AWS D1.1 SMAW 2G plate CJP T10mm F4 backing", "same kind"),
        ("AWS D1.1 SMAW 3G downhill plate CJP T10mm F4 backing", "same kind"),
        ("AWS D1.1 GMAW 3G uphill plate CJP T10mm backing electrodes=1", "same kind"),
        ("AWS D1.1 SMAW 3G uphill plate CJP T10mm F2 backing", "F"),
    ],
)
def test_another_test_does_not(designation, why):
    problems = statement_problems(certificate(), (), renewal(designation))
    assert problems and why in " ".join(one.message for one in problems)
    assert {one.path for one in problems} == {"renewed_by"}
    # Nor does one that was signed nevertheless.
    assert standing_on(certificate(), (renewal(designation),), AGAIN).standing == "lapsed"


def test_all_else_of_the_earlier_test_is_covered_by_the_new_one():
    """A test with backing says nothing of an open root."""
    held = certificate(UNLIMITED.replace("backing", "open-root"))
    (problem, *_) = statement_problems(held, (), renewal())
    assert "acking" in problem.message
    assert statement_problems(held, (), renewal(TEN.replace("backing", "open-root"))) == ()


def test_only_a_renewal_renews():
    other = renewal(kind="confirmation")
    assert standing_on(certificate(), (other,), AGAIN).standing == "lapsed"


def test_the_inch_piece_is_as_good():
    us = "AWS D1.1 SMAW 3G uphill plate CJP T3/8in F4 backing"
    assert against_test(read_designation(UNLIMITED), read_designation(us)) == ()


@pytest.mark.parametrize(
    ("signed", "uses", "why"),
    [
        (renewal(renewed_by=None), (), "Choose the test"),
        (renewal(welded=date(2022, 8, 1)), (), "before it lapsed"),
        (renewal(on=date(2022, 8, 1), welded=date(2022, 7, 1)), (), "not lapsed"),
        (renewal(on=date(2025, 3, 1)), (), "It lapsed"),
        (renewal(signer="welder"), (), "does not count"),
        (renewal(), [date(2022, month, 1) for month in (6, 11)] + [date(2023, 4, 1), date(2023, 9, 1),
            date(2024, 2, 20)], "not lapsed"),
    ],
)  # fmt: skip
def test_what_would_not_count_is_not_signed(signed, uses, why):
    problems = statement_problems(certificate(), (), signed, uses)
    assert why in " ".join(one.message for one in problems)


def test_what_is_revoked_stays_revoked_and_a_revoked_test_renews_nothing():
    held, signed = certificate(), renewal()
    end = renewal(kind="revocation", renewed_by=None, reason="Doubt", on=date(2024, 8, 1))
    assert "revoked" in statement_problems(held, (end,), signed)[0].message
    assert standing_on(held, (end, signed), AGAIN).standing == "lapsed"
    later = date(2024, 9, 1)
    assert standing_on(held, (signed,), later, revoked={DIGEST: date(2024, 9, 2)}).valid
    found = standing_on(held, (signed,), later, revoked={DIGEST: later})
    assert (found.standing, "C-2 was revoked" in " ".join(found.reasons)) == ("lapsed", True)


@pytest.mark.parametrize("code", ["iso-9606-1:2017", "iso-9606-2:2004", "iso-14732:2013"])
def test_codes_whose_certificates_run_out_have_no_such_renewal(code):
    assert not renews_by_test(code) and renews_by_test("aws-d1.1-welders:2020")


def test_what_was_signed_before_there_were_renewals_reads_as_before():
    old = renewal(kind="confirmation", renewed_by=None)
    text = CERTIFICATE_STATEMENT.write(old)
    assert b"renewed" not in text and CERTIFICATE_STATEMENT.read(text.decode()) == old
    assert CERTIFICATE_STATEMENT.read(CERTIFICATE_STATEMENT.write(renewal()).decode()) == renewal()
