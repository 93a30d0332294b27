"""Production welds: how far they have come, what stands against their release, reject rates."""

import pytest
from scipy.stats import binomtest

from welding.errors import WeldingError
from welding.production.rates import reject_rate
from welding.production.state import METHODS, Found, against_release, method_words, state_of

OK, BAD = True, False
STATES = [
    ([], {}, "welded"),
    ([("VT", OK)], {}, "accepted"),
    ([("UT", OK)], {}, "welded"),  # common practice: nothing is accepted unseen
    ([("VT", OK), ("UT", OK)], {}, "accepted"),
    ([("VT", OK), ("UT", BAD)], {}, "rejected"),
    ([("VT", BAD)], {}, "rejected"),
    ([("VT", BAD), ("VT", OK)], {}, "accepted"),  # dressed and looked at again
    ([("VT", OK), ("UT", BAD), ("MT", OK)], {}, "rejected"),
    ([("VT", OK)], {"released": True}, "released"),
    ([("VT", OK), ("RT", BAD)], {"released": True}, "rejected"),
    ([("VT", OK), ("RT", BAD)], {"repaired": True}, "repaired"),
    ([("VT", OK)], {"struck": True, "released": True}, "struck"),
]


@pytest.mark.parametrize(("found", "more", "state"), STATES)
def test_how_far_a_weld_has_come(found, more, state):
    assert state_of([Found(*one) for one in found], **more) == state


@pytest.mark.parametrize(
    ("found", "covered", "more", "said"),
    [
        ([("VT", OK)], True, {}, ""),
        ([], True, {}, "visual"),
        ([("UT", OK)], True, {}, "visual"),
        ([("VT", OK), ("UT", BAD)], True, {}, "UT rejected"),
        ([("VT", OK)], False, {}, "does not cover"),
        ([("VT", OK)], True, {"released": True}, "already"),
        ([("VT", OK)], True, {"repaired": True}, "repair weld"),
    ],
)
def test_what_stands_against_a_release(found, covered, more, said):
    answer = against_release([Found(*one) for one in found], covered, **more)
    assert said in answer and bool(said) == bool(answer)


def test_every_method_has_words():
    assert [method_words(one).split()[0] for one in METHODS] == [
        "Visual", "Penetrant", "Magnetic", "Radiographic", "Ultrasonic"
    ]  # fmt: skip


# Exact limits for a proportion at 95 %, as printed in the usual tables of the binomial distribution.
PRINTED = [(0, 10, 0.0, 0.3085), (1, 10, 0.0025, 0.4450), (5, 10, 0.1871, 0.8129), (10, 10, 0.6915, 1.0)]


@pytest.mark.parametrize(("rejected", "inspected", "low", "high"), PRINTED)
def test_intervals_are_those_of_printed_tables(rejected, inspected, low, high):
    found = reject_rate(rejected, inspected)
    assert (round(found.low, 4), round(found.high, 4)) == (low, high)
    assert found.share == rejected / inspected


@pytest.mark.parametrize("inspected", [1, 7, 40, 1000])
def test_intervals_are_those_of_a_reference_library(inspected):
    for rejected in {0, 1, inspected // 3, inspected}:
        ours = reject_rate(rejected, inspected)
        theirs = binomtest(rejected, inspected).proportion_ci(confidence_level=0.95, method="exact")
        assert (ours.low, ours.high) == pytest.approx((theirs.low, theirs.high), abs=1e-9)


def test_nothing_inspected_says_nothing():
    found = reject_rate(0, 0)
    assert (found.share, found.low, found.high) == (None, 0.0, 1.0)
    for wrong in ((-1, 3), (4, 3)):
        with pytest.raises(WeldingError):
            reject_rate(*wrong)
