"""Fillers tested and asked, compared by what their classes say; from memory."""

import pytest

from welding.qualification.compare_fillers import filler_verdict


def test_strength_class_may_fall_and_not_rise():
    """AWS D1.1:2020, table 6.5, covered electrodes, from memory."""
    assert filler_verdict("strength-not-up", ("E8018-C3",), "E7018") == "complies"
    assert filler_verdict("strength-not-up", ("E7018",), "E8018-C3") == "violates"
    assert filler_verdict("strength-not-up", ("E7018",), "E6010") == "violates"
    assert filler_verdict("strength-not-up", ("E6010",), "E6011") == "complies"
    assert filler_verdict("class", ("E71T-1C",), "E71T-1M") == "violates"


@pytest.mark.parametrize(
    "how, tested, asked, verdict",
    [
        # Marks that add to a class and are no part of it (AWS A5.20, A5.1; ISO 2560, compulsory part), from memory.
        ("class", "E71T-1C", "E71T-1C H8", "complies"), ("class", "E71T-1C H8", "E71T-1C", "complies"),
        ("class", "E71T-1C", "E71T-1C-J", "complies"), ("class", "E71T-1C-J", "E71T-1C", "undecided"),
        ("class", "E71T-1C", "E71T-1M", "violates"), ("class", "ER70S-6", "ER70S-3", "violates"),
        ("class", "F7A2-EM12K", "F7A2-EM12K-H8", "complies"), ("class", "F7A4-EM12K", "F7A2-EM12K", "violates"),
        ("class", "ER70S-6", "G 42 4 M21 3Si1", "undecided"), ("class", "ER70S-6", "house wire X", "violates"),
        ("equal-class", "E7018", "E7018-1 H4R", "complies"), ("equal-class", "E7018-1", "E7018", "undecided"),
        ("equal-class", "E 42 4 B 32 H5", "E 42 4 B H5", "complies"), ("equal-class", "E 42 4 B 32 H5", "E 42 4 B 12 H5", "complies"),
        ("equal-class", "E 42 4 B 32", "E 42 5 B 32", "complies"), ("equal-class", "E 42 5 B 32", "E 42 4 B 32", "undecided"),
        ("equal-class", "E 42 4 B 32", "E 46 4 B 32", "violates"), ("equal-class", "E 42 4 B 32", "E 42 4 RB 32", "violates"),
        ("equal-class", "E 42 4 1Ni B 32", "E 42 4 B 32", "violates"), ("equal-class", "G 46 4 M21 3Si1", "G 46 4 M21 4Si1", "violates"),
        ("equal-class", "G 46 4 M21 3Si1", "ER70S-6", "undecided"), ("equal-class", "T 46 4 P M21 1 H5", "T 46 4 P M21 2 H5", "complies"),
        ("equal-class", "T 46 4 P M21 1", "T 46 4 B M21 1", "violates"), ("equal-class", "W 19 9 L", "W 19 12 3 L", "violates"),
    ],
)  # fmt: skip
def test_fillers_are_compared_by_what_they_say(how, tested, asked, verdict):
    assert filler_verdict(how, (tested,), asked) == verdict
