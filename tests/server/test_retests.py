"""A welder whose test failed: what the code asks before the next one counts stands beside the coupon."""

import pytest
from apps.coupons.models import Coupon

from tests.server.conftest import enter_tests, weld_coupon

CRACKED = {"B1": {"openings_mm": [9.0]}}


@pytest.fixture
def again(people, welded):
    """Another coupon of the same procedure by the same welder."""
    return lambda: weld_coupon(people, welded.revision)


def missing(api, coupon):
    status, answer = api["viewer"]("GET", f"/coupons/{coupon.pk}/welder-test")
    assert status == 200, answer
    return answer["missing"]


def test_a_failed_test_asks_for_a_retest(api, okafor, welded, again):
    """ISO 9606-1 clause 8, from memory: repeated once; where that fails too, after further training."""
    first, second, third = welded, again(), again()
    enter_tests(api, second)
    assert missing(api, second) == []
    enter_tests(api, first, changed=CRACKED)
    said = " ".join(missing(api, first))
    assert f"{first.number} of " in said and "clause 8" in said
    # The second was welded after it and passed: the one repetition that the code gives.
    assert missing(api, second) == []
    enter_tests(api, third, changed=CRACKED)
    assert f"{third.number} of " in " ".join(missing(api, third))
    Coupon.objects.filter(pk=second.pk).update(people=[{"role": "welder", "name": "M. Ito"}])
    assert "further training" in " ".join(missing(api, third))


def test_the_test_of_another_welder_counts_for_nobody_else(api, okafor, welded, again):
    other = again()
    Coupon.objects.filter(pk=other.pk).update(people=[{"role": "welder", "name": "M. Ito"}])
    enter_tests(api, other, changed=CRACKED)
    enter_tests(api, welded)
    assert missing(api, welded) == []
