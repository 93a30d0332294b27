"""Retests of welders: D1.1 clause 6.25.1 and ISO 9606-1 clause 8, from memory."""

from datetime import date

import pytest

from welding.errors import UnknownEntryError
from welding.welders.catalogue import read_designation
from welding.welders.retests import Attempt, after_attempts, same_kind

D1_1, STEEL = "aws-d1.1-welders:2020", "iso-9606-1:2017"


def attempts(text):
    """``F`` failed, ``P`` passed, ``T`` passed after training, ``X`` failed after training; a day apart."""
    return [
        Attempt(on=date(2026, 5, day), passed=one in "PT", trained=one in "TX", name=f"C-{day}")
        for day, one in enumerate(text, start=1)
    ]


@pytest.mark.parametrize("code, text, outcome, missing", [
    (D1_1, "P", "qualified", 0),
    (D1_1, "F", "failed", 2),
    # two of each kind that failed, at once, and all of them pass
    (D1_1, "FP", "retest", 1),
    (D1_1, "FPP", "qualified", 0),
    (D1_1, "FPF", "failed", 1),
    # where the retest fails as well, training comes before the next counts
    (D1_1, "FPFPP", "retest", 1),
    (D1_1, "FPFT", "qualified", 0),
    # a failure that was made good does not count against the next test
    (D1_1, "FPPFPP", "qualified", 0),
    (D1_1, "FPPF", "failed", 2),
    # after recorded training one complete retest
    (D1_1, "FT", "qualified", 0),
    (D1_1, "FX", "failed", 1),
    (D1_1, "FXT", "qualified", 0),
    (D1_1, "PF", "failed", 2),
    # ISO 9606-1: repeated once without additional training
    (STEEL, "F", "failed", 1),
    (STEEL, "FP", "qualified", 0),
    (STEEL, "FFP", "retest", 1),
    (STEEL, "FFT", "qualified", 0),
])  # fmt: skip
def test_how_many_have_to_pass(code, text, outcome, missing):
    found = after_attempts(code, attempts(text))
    assert (found.outcome, found.missing) == (outcome, missing)
    assert bool(found.reasons) == (outcome != "qualified")


def test_the_sentence_names_the_test_that_failed_and_its_clause():
    (said,) = after_attempts(D1_1, attempts("PFP")).reasons
    assert "C-2 of 2026-05-02 failed" in said and "asks for 2 test pieces" in said and "6.25.1.1" in said


def test_a_code_whose_retests_are_not_recalled_says_so():
    with pytest.raises(UnknownEntryError, match="not known here"):
        after_attempts("iso-14732:2013", attempts("F"))


@pytest.mark.parametrize("other, same", [
    ("AWS D1.1 SMAW F4 3G uphill plate T1in backing", True),
    ("AWS D1.1 SMAW F3 3G uphill plate T3/8in open-root", True),
    ("AWS D1.1 SMAW F4 4G plate T1in backing", False),
    ("AWS D1.1 SMAW F4 3G downhill plate T1in backing", False),
    ("AWS D1.1 FCAW-G 3G uphill plate T1in backing", False),
    ("AWS D1.1 SMAW F4 6G uphill pipe D24in T1in backing", False),
])  # fmt: skip
def test_which_tests_are_of_one_kind(other, same):
    one = read_designation("AWS D1.1 SMAW F4 3G uphill plate T3/8in backing")
    assert same_kind(one, read_designation(other)) is same
