"""Certificates and what is signed about them: what is refused, what counts, which work speaks for them."""

import dataclasses
from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.welding.records import record
from welding.documents.codec import CERTIFICATE_STATEMENT, PROCEDURE, RECORD, WELDER_CERTIFICATE
from welding.documents.welder_certificate import CertificateStatement, WelderCertificate, WorkDone
from welding.welders.catalogue import read_designation, welder_edition
from welding.welders.certificate import (
    evidence_from,
    problems_of,
    standing_on,
    statement_problems,
    ways_of,
    within_range,
)
from welding.welders.from_coupon import against_certificate, missing_tests, welder_test
from welding.welders.validity import add_months

PF = "ISO 9606-1 135 P BW FM1 S s20 PF ss nb, spray transfer"
AWS = "AWS D1.1 GMAW 3G uphill plate CJP T10mm open-root electrodes=1"
BEGUN = date(2024, 1, 15)
WORK = WorkDone(on="2024-06-01", what="FB-27, weld W1", within=True)


def certificate(designation=PF, **more):
    given_ = {
        "number": "C-1",
        "person": "R. Okafor",
        "designation": designation,
        "tested": read_designation(designation),
        "welded_on": BEGUN.isoformat(),
        "way": "a" if "ISO" in designation else None,
        "examiner": "B. Quill",
    }
    return WelderCertificate(**(given_ | more))


def statement(kind="confirmation", on=BEGUN, **more):
    given_ = {
        "kind": kind,
        "certificate": "C-1",
        "certificate_sha256": "0" * 64,
        "person": "R. Okafor",
        "on": on.isoformat(),
        "signer": "examiner" if kind == "prolongation" else "responsible",
        "signed_by": "I. Vance",
        "works": () if kind == "revocation" else (dataclasses.replace(WORK, on=on.isoformat()),),
    }
    return CertificateStatement(**(given_ | more))


def paths(problems):
    return {one.path for one in problems}


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"tested": read_designation(PF.replace(" PF ", " PA "))}, "designation"),
        ({"tested": read_designation(AWS), "way": None}, "designation"),
        ({"welded_on": "2024-07-02"}, "welded_on"),
        ({"way": None}, "way"),
        ({"examiner": ""}, "examiner"),
        ({"examiner": "", "from_paper": True}, "examiner"),
    ],
)
def test_what_a_certificate_must_say(change, path):
    assert paths(problems_of(certificate(**change), date(2024, 7, 1))) == {path}


def test_what_holds_has_no_problem_and_paper_may_lack_what_it_says_it_lacks():
    assert problems_of(certificate(), BEGUN) == ()
    assert problems_of(certificate(examiner="", from_paper=True, not_stated=("examiner",)), BEGUN) == ()
    assert problems_of(certificate(AWS), BEGUN) == ()
    assert paths(problems_of(certificate(AWS, way="a"), BEGUN)) == {"way"}


def test_ways_of_revalidation_by_code():
    """ISO 9606-1 (2012 on) has three, ISO 9606-2:2004 two years alone, D1.1 none (from memory)."""
    assert ways_of("iso-9606-1:2017") == ("a", "b", "c")
    assert ways_of("aws-d1.1-welders:2020") == ()


DUE = add_months(BEGUN, 6)


@pytest.mark.parametrize(
    ("new", "path"),
    [
        (statement(on=DUE), None),
        (statement(on=DUE + timedelta(days=1)), "on"),
        (statement(on=BEGUN - timedelta(days=1)), "on"),
        (statement(on=DUE, works=()), "works"),
        (statement(on=DUE, works=(dataclasses.replace(WORK, within=False),)), "works"),
        (statement(on=DUE, works=(dataclasses.replace(WORK, within=None),)), "works"),
        (statement(on=DUE, works=(), from_paper=True), None),
        (statement(on=DUE, signer="welder"), "works"),
        (statement("prolongation", on=DUE), "works"),  # way a: a new test
        (statement("revocation", on=DUE), "reason"),
        (statement("revocation", on=DUE, reason="lack of fusion again and again"), None),
    ],
)
def test_what_would_not_count_is_not_signed(new, path):
    assert paths(statement_problems(certificate(), (), new)) == ({path} if path else set())


def test_a_prolongation_on_paper_is_the_examiners_and_of_the_last_six_months():
    """What it rested on stands on the paper; when it was signed, and by whom, still counts (9.3 b, from memory)."""
    held = certificate(way="b")
    kept = [statement(on=add_months(BEGUN, at)) for at in (6, 12, 18)]
    for months, signer, paths_ in (
        (20, "examiner", set()),
        (20, "examining-body", set()),
        (20, "responsible", {"works"}),
        (16, "examiner", {"works"}),
    ):
        new = statement(
            "prolongation", on=add_months(BEGUN, months), works=(), from_paper=True, signer=signer
        )
        assert paths(statement_problems(held, tuple(kept[: months // 6]), new)) == paths_, (months, signer)
    new = statement("prolongation", on=add_months(BEGUN, 20), works=(), from_paper=True)
    later = [*kept, new, statement(on=add_months(BEGUN, 24))]
    assert standing_on(held, tuple(later), add_months(BEGUN, 28)).valid
    assert not standing_on(held, tuple(kept), add_months(BEGUN, 28)).valid


def test_the_day_it_ran_out_is_named():
    (problem,) = statement_problems(certificate(), (), statement(on=DUE + timedelta(days=40)))
    assert DUE.isoformat() in problem.message


def test_under_d1_1_nothing_is_confirmed_and_doubt_ends_it():
    """Continuity is the use of the process, and a qualification ends for reasoned doubt (from memory)."""
    assert paths(statement_problems(certificate(AWS), (), statement(on=DUE))) == {"works"}
    doubt = statement("revocation", on=DUE, reason="root cracks")
    assert statement_problems(certificate(AWS), (), doubt) == ()
    uses = [BEGUN + timedelta(days=one) for one in range(0, 700, 90)]
    assert standing_on(certificate(AWS), (), BEGUN + timedelta(days=600), uses).valid
    assert not standing_on(certificate(AWS), (doubt,), DUE, uses).valid
    assert not standing_on(certificate(AWS), (), BEGUN + timedelta(days=600), ()).valid


@given(st.lists(st.integers(1, 400), min_size=1, max_size=12))
def test_over_years_only_what_was_signed_in_time_keeps_it(steps):
    """A simulated life: each step is the number of days to the next attempt to confirm."""
    held, signed, day, last = certificate(), [], BEGUN, DUE
    end = add_months(BEGUN, 36)
    for step in steps:
        day += timedelta(days=step)
        new = statement(on=day)
        accepted = not statement_problems(held, tuple(signed), new)
        assert accepted == (day <= min(last, end))
        if accepted:
            signed.append(new)
            last = add_months(day, 6)
    found = standing_on(held, tuple(signed), day)
    assert found.valid == (day <= min(last, end)) and found.last_valid_day == min(last, end)


def test_evidence_reaches_back_as_far_as_the_code_and_not_before_the_test():
    assert evidence_from(certificate(), add_months(BEGUN, 12)) == add_months(BEGUN, 6)
    assert evidence_from(certificate(), BEGUN + timedelta(days=3)) == BEGUN


@pytest.mark.parametrize(
    ("designation", "within"),
    [
        (PF, True),
        (PF.replace(" PF ", " PA "), False),
        (PF.replace("135", "111").replace(" S ", " B ").replace(", spray transfer", ""), False),
        # Every tested mode stands for spray: which one it was need not be known.
        (PF.replace(", spray transfer", ""), True),
        ("ISO 14732 mechanized 135 PA direct-view tracking single-run backing functional-test", None),
    ],
)
def test_work_is_held_against_the_range(designation, within):
    welded = PROCEDURE.take(record("iso")["procedure"])
    found = within_range(read_designation(designation), welded)
    assert found.within is within and bool(found.against) == (within is not True)


def test_both_documents_go_out_and_in_unchanged():
    whole = certificate(scans=(), not_stated=("place",), tests=("VT", "RT"), employed_under=None)
    assert WELDER_CERTIFICATE.read(WELDER_CERTIFICATE.write(whole)) == whole
    said = statement("revocation", reason="doubt")
    assert CERTIFICATE_STATEMENT.read(CERTIFICATE_STATEMENT.write(said)) == said


# --- a coupon as the test of its welder -------------------------------------------------------


def with_tests(kinds, designation, *, deposited=20.0):
    edition = welder_edition(read_designation(designation).code)
    weld = read_designation(designation)
    parts = tuple(dataclasses.replace(one, deposited_mm=deposited) for one in weld.parts)
    return missing_tests(edition, dataclasses.replace(weld, parts=parts), list(kinds))


BUTT_111 = "ISO 9606-1 111 P BW FM1 B s12 PF ss nb"
FILLET = "ISO 9606-1 135 P FW FM1 S t12 PB ml"
SHORT = AWS.replace("GMAW", "GMAW-S")


@pytest.mark.parametrize(
    ("designation", "kinds", "missing"),
    [
        # ISO 9606-1, table 13 and its notes; D1.1, table 6.11: from memory.
        (BUTT_111, ("visual", "radiographic"), 0),
        (BUTT_111, ("visual", "side-bend"), 0),
        (BUTT_111, ("visual",), 1),
        (BUTT_111, ("radiographic",), 1),
        (BUTT_111, ("visual", "ultrasonic"), 0),
        # Ultrasonic testing stands for ferritic steels alone.
        (BUTT_111.replace("FM1 B", "FM5 B"), ("visual", "ultrasonic"), 1),
        (PF, ("visual", "radiographic"), 1),
        (PF, ("visual", "ultrasonic"), 1),
        (PF, ("visual", "radiographic", "side-bend"), 0),
        (PF, ("visual", "root-bend"), 0),
        (FILLET, ("visual", "fillet-break"), 0),
        (FILLET, ("visual", "macro"), 0),
        (FILLET, ("visual", "radiographic"), 1),
        (AWS, ("visual", "radiographic"), 0),
        (AWS, ("visual", "side-bend"), 0),
        (SHORT, ("visual", "radiographic"), 1),
        (SHORT, ("visual", "side-bend"), 0),
        ("AWS D1.1 GMAW 3F uphill plate fillet T10mm electrodes=1", ("visual", "macro"), 1),
    ],
)
def test_which_tests_a_piece_still_needs(designation, kinds, missing):
    assert len(with_tests(kinds, designation)) == missing, with_tests(kinds, designation)


@pytest.mark.parametrize(("deposited", "missing"), [(7.9, 1), (8.0, 0)])
def test_ultrasonic_testing_stands_from_its_thickness_on(deposited, missing):
    assert len(with_tests(("visual", "ultrasonic"), BUTT_111, deposited=deposited)) == missing


def test_a_code_whose_tests_are_not_known_says_so():
    assert with_tests(("visual", "radiographic"), "ISO 9606-2 141 P BW 22 S t5 PA ss nb")


def test_the_coupon_of_a_procedure_names_its_welders_designation():
    document = RECORD.take({**record("iso"), "people": [{"role": "welder", "name": "R. Okafor"}]})
    found = welder_test(document)
    assert (found.welder, found.designation, found.missing) == ("R. Okafor", PF, ())
    assert against_certificate(document, read_designation(PF), "R. Okafor") == ()
    assert against_certificate(document, read_designation(PF), "M. Ito")
    assert against_certificate(document, read_designation(AWS), "R. Okafor")
