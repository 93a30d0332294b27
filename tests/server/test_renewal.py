"""A qualification of AWS D1.1 that lapsed is renewed by a test on 3/8 in [10 mm], and only by a signature."""

from datetime import timedelta

import pytest

from tests.server.conftest import SIGN, TODAY
from tests.server.test_certificate_print import printed
from tests.server.test_crew import look, state, wrong

UNLIMITED = "AWS D1.1 SMAW 3G uphill plate CJP T25mm F4 backing"
TEN = UNLIMITED.replace("T25mm", "T10mm")


def day(ago):
    return (TODAY - timedelta(days=ago)).isoformat()


@pytest.fixture
def lapsed(certify):
    return certify(number="OLD", designation=UNLIMITED, way=None, welded_on=day(900))


@pytest.fixture
def tested(certify):
    return certify(number="NEW", designation=TEN, way=None, welded_on=day(20))


def standing(api, member, number):
    return next(one for one in look(api, member)["certificates"] if one["number"] == number)


def test_a_later_test_is_offered_and_renews_when_somebody_signs_it(api, okafor, lapsed, tested):
    before = standing(api, okafor, "OLD")
    assert before["standing"] == "lapsed"
    assert [one["number"] for one in before["renewing"]] == ["NEW"]
    assert not standing(api, okafor, "NEW")["renewing"]
    for who in ("viewer", "welder"):
        state(api, lapsed["id"], kind="renewal", who=who, status=403, renewed_by=tested["id"])
    state(api, lapsed["id"], kind="renewal", renewed_by=tested["id"])
    after = standing(api, okafor, "OLD")
    assert (after["standing"], after["renewing"]) == ("valid", [])
    assert "NEW" in " ".join(after["reasons"])
    (said,) = after["statements"]
    assert (said["kind"], said["renewed_by"]) == ("renewal", "NEW")
    page = printed(api, lapsed["id"])
    assert "Renewed by a test" in page and TEN in page
    # Once renewed there is nothing to renew.
    again = state(api, lapsed["id"], kind="renewal", status=422, renewed_by=tested["id"])
    assert wrong(again) == {"renewed_by"}


def test_a_test_that_is_revoked_later_takes_the_renewal_with_it(api, okafor, lapsed, tested):
    state(api, lapsed["id"], kind="renewal", renewed_by=tested["id"])
    state(api, tested["id"], kind="revocation", reason="the piece was welded by somebody else")
    found = standing(api, okafor, "OLD")
    assert found["standing"] == "lapsed" and "NEW was revoked" in " ".join(found["reasons"])
    refused = state(api, lapsed["id"], kind="renewal", status=422, renewed_by=tested["id"])
    assert wrong(refused) == {"renewed_by"}


@pytest.mark.parametrize(
    "more",
    [
        {"designation": UNLIMITED.replace("T25mm", "T12mm")},
        {"designation": TEN.replace("3G uphill", "2G")},
        {"designation": TEN, "welded_on": day(890)},
    ],
    ids=["too thick", "another position", "before it lapsed"],
)
def test_what_renews_nothing_is_not_offered_and_not_signed(api, okafor, lapsed, certify, more):
    made = certify(number="NEW", way=None, **({"welded_on": day(20)} | more))
    assert standing(api, okafor, "OLD")["renewing"] == []
    refused = state(api, lapsed["id"], kind="renewal", status=422, renewed_by=made["id"])
    assert wrong(refused) == {"renewed_by"} and standing(api, okafor, "OLD")["standing"] == "lapsed"


def test_the_test_of_another_person_or_none_renews_nothing(api, okafor, lapsed, certify):
    status, added = api["engineer"]("POST", "/crew", {"name": "P. Salgado"})
    assert status == 201
    status, other = api["engineer"](
        "POST",
        f"/crew/{added['id']}/certificates",
        {"number": "THEIRS", "designation": TEN, "welded_on": day(20), "examiner": "B. Quill",
         **SIGN},
    )  # fmt: skip
    assert status == 201
    for chosen in (other["id"], lapsed["id"], 10**6, None):
        refused = state(api, lapsed["id"], kind="renewal", status=422, renewed_by=chosen)
        assert wrong(refused) == {"renewed_by"}
