"""How long a certificate holds: clause 9 of ISO 9606-1 as recalled, and years of logs that are simulated."""

from datetime import date, timedelta
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from welding.errors import WeldingError
from welding.welders.catalogue import welder_edition
from welding.welders.validity import (
    Confirmation,
    Employment,
    ExaminedWeld,
    Held,
    Prolongation,
    add_months,
    engaged_until,
    validity,
)

STEEL = welder_edition("iso-9606-1:2017").package
ALUMINIUM = welder_edition("iso-9606-2:2004").package
OPERATORS = welder_edition("iso-14732:2013").package
GOOD = Employment(same_employer=True, system="ISO 3834-2", records=True)


def day(text):
    return date.fromisoformat(text)


def held(welded="2023-01-10", option="a", confirmed=(), package=STEEL, **more):
    """A certificate with confirmations on these days."""
    signed = tuple(one if isinstance(one, Confirmation) else Confirmation(on=day(one)) for one in confirmed)
    return Held(
        package=package,
        processes=("135",),
        welded_on=day(welded),
        option=option,
        confirmations=signed,
        **more,
    )


def kept_up(welded, until):
    """Confirmations in time, every five months."""
    at, found = day(welded), []
    while (at := add_months(at, 5)) <= day(until):
        found.append(at.isoformat())
    return found


def weld(on, method="RT", accepted=True):
    return ExaminedWeld(welded_on=day(on), method=method, accepted=accepted)


WELDER = Confirmation(on=day("2023-07-01"), signer="welder")
OUTSIDE = Confirmation(on=day("2023-07-01"), within_range=False)
OTHER = Confirmation(on=day("2023-07-01"), processes=("141",))
OWN = Confirmation(on=day("2023-07-01"), processes=("135", "141"), signer="examiner")

CONFIRMED = [
    ((), "2023-01-09", "not_yet", None),
    ((), "2023-01-10", "valid", "2023-07-10"),
    ((), "2023-07-10", "valid", "2023-07-10"),
    ((), "2023-07-11", "lapsed", "2023-07-10"),
    (("2023-07-05",), "2023-12-31", "valid", "2024-01-05"),
    (("2023-07-05",), "2024-01-06", "lapsed", "2024-01-05"),
    (("2023-07-10",), "2023-10-01", "valid", "2024-01-10"),
    (("2023-08-15",), "2023-08-20", "lapsed", "2023-07-10"),
    (("2023-08-15",), "2023-07-01", "valid", "2023-07-10"),
    (("2023-04-10",), "2023-09-30", "valid", "2023-10-10"),
    (("2023-04-10",), "2023-11-15", "lapsed", "2023-10-10"),
    (("2023-04-10", "2023-12-01", "2024-01-01"), "2024-01-02", "lapsed", "2023-10-10"),
    (("2022-12-01",), "2023-08-01", "lapsed", "2023-07-10"),
    ((WELDER,), "2023-09-01", "lapsed", "2023-07-10"),
    ((OUTSIDE,), "2023-09-01", "lapsed", "2023-07-10"),
    ((OTHER,), "2023-09-01", "lapsed", "2023-07-10"),
    ((OWN,), "2023-09-01", "valid", "2024-01-01"),
    ((WELDER, "2023-07-02"), "2023-09-01", "valid", "2024-01-02"),
]


@pytest.mark.parametrize("confirmed, on, standing, last", CONFIRMED)
def test_a_confirmation_every_six_months(confirmed, on, standing, last):
    """Clause 9.2."""
    found = validity(held(confirmed=confirmed), day(on))
    assert (found.standing, found.valid) == (standing, standing == "valid")
    assert found.last_valid_day == (day(last) if last else None)
    assert found.citation.clause.startswith("clause 9") and (found.reasons or found.valid)


def test_a_month_without_that_day_ends_on_its_last():
    assert validity(held("2023-08-31"), day("2024-02-29")).valid
    assert not validity(held("2023-08-31"), day("2024-03-01")).valid


PERIODS = [
    (STEEL, "a", "2020-05-04", "2023-05-04", ()),
    (STEEL, "b", "2021-03-01", "2023-03-01", ()),
    (STEEL, "b", "2021-03-01", "2025-03-01", (weld("2022-11-10"), weld("2023-01-15"))),
    (STEEL, "b", "2021-03-01", "2025-03-01", (weld("2022-09-01"), weld("2023-01-15", "UT"))),
    (STEEL, "b", "2021-03-01", "2025-03-01", (weld("2022-11-10", "destructive"), weld("2023-01-15"))),
    (STEEL, "b", "2021-03-01", "2023-03-01", (weld("2022-08-31"), weld("2023-01-15"))),
    (STEEL, "b", "2021-03-01", "2023-03-01", (weld("2022-11-10", "VT"), weld("2023-01-15", "VT"))),
    (STEEL, "b", "2021-03-01", "2023-03-01", (weld("2022-11-10"), weld("2023-01-15", accepted=False))),
    (STEEL, "b", "2021-03-01", "2023-03-01", (weld("2022-11-10"),)),
    (STEEL, "b", "2021-03-01", "2023-03-01", (weld("2022-11-10"), weld("2023-02-11"))),
    (ALUMINIUM, "b", "2022-03-01", "2024-03-01", ()),
    (OPERATORS, "a", "2018-03-01", "2024-03-01", ()),
    (OPERATORS, "b", "2020-03-01", "2023-03-01", ()),
]


@pytest.mark.parametrize("package, option, welded, last, welds", PERIODS)
def test_the_period_of_each_way_of_revalidation(package, option, welded, last, welds):
    """Clause 9.3 a and b, and their like for aluminium and for operators."""
    signed = (Prolongation(on=day("2023-02-10"), welds=welds),) if welds else ()
    one = held(welded, option, kept_up(welded, "2026-01-01"), package, prolongations=signed)
    assert validity(one, day(last)).standing == "valid"
    after = validity(one, day(last) + timedelta(days=1))
    assert (after.standing, after.last_valid_day) == ("lapsed", day(last))
    if welds and last == "2023-03-01":
        assert "2023-02-10" in " ".join(after.reasons)


def test_a_way_of_revalidation_that_the_code_does_not_have_is_refused():
    with pytest.raises(WeldingError, match="ISO 9606-2 has no way c"):
        validity(held(option="c", package=ALUMINIUM), day("2023-02-01"))


def test_what_is_due_next_is_told():
    one = held("2021-03-01", "b", kept_up("2021-03-01", "2022-11-30"))
    assert validity(one, day("2022-08-01")).due[0] == "confirmation"
    assert validity(one, day("2022-12-01")).due == ("prolongation", day("2023-03-01"))


def test_a_missed_confirmation_ends_it_under_every_way():
    welds = (weld("2022-11-10"), weld("2023-01-15"))
    one = held(
        "2021-03-01",
        "b",
        ("2021-08-15",),
        prolongations=(Prolongation(on=day("2023-02-10"), welds=welds),),
    )
    found = validity(one, day("2023-04-01"))
    assert (found.standing, found.last_valid_day) == ("lapsed", day("2022-02-15"))


def test_a_prolongation_needs_an_examiner_in_time_and_the_way_that_stands_on_it():
    welds = (weld("2022-11-10"), weld("2023-01-15"))
    confirmed = kept_up("2021-03-01", "2024-01-01")
    for signed, option in (
        (Prolongation(on=day("2023-02-10"), signer="responsible", welds=welds), "b"),
        (Prolongation(on=day("2023-03-02"), welds=welds), "b"),
    ):
        found = validity(held("2021-03-01", option, confirmed, prolongations=(signed,)), day("2023-06-01"))
        assert (found.standing, found.last_valid_day) == ("lapsed", day("2023-03-01"))
        assert signed.on.isoformat() in " ".join(found.reasons)
    by_test = Prolongation(on=day("2023-02-10"), welds=welds)
    found = validity(
        held("2020-05-04", "a", kept_up("2020-05-04", "2024-01-01"), prolongations=(by_test,)),
        day("2023-06-01"),
    )
    assert found.standing == "lapsed" and "new test" in " ".join(found.reasons)


EMPLOYED = [
    (GOOD, "valid"),
    (Employment(same_employer=True, system="ISO 3834-3", records=True), "valid"),
    (Employment(same_employer=True, system="ISO 3834-4", records=True), "lapsed"),
    (Employment(same_employer=True, system="ISO 9001", records=True), "lapsed"),
    (Employment(same_employer=False, system="ISO 3834-2", records=True), "lapsed"),
    (Employment(same_employer=True, system="ISO 3834-2", records=False), "lapsed"),
    (Employment(same_employer=True, system="ISO 3834-2"), "unknown"),
    (Employment(), "unknown"),
]


@pytest.mark.parametrize("employment, standing", EMPLOYED)
@pytest.mark.parametrize("package", [STEEL, OPERATORS])
def test_as_long_as_the_conditions_hold(package, employment, standing):
    """Clause 9.3 c: nothing unknown turns into valid."""
    one = held("2015-06-01", "c", kept_up("2015-06-01", "2024-10-01"), package, employment=employment)
    found = validity(one, day("2024-10-01"))
    assert found.standing == standing and bool(found.reasons) == (standing != "valid")


def test_reasonable_doubt_revokes_it_from_that_day():
    one = held(confirmed=("2023-05-01",), revoked_on=day("2023-06-15"))
    assert validity(one, day("2023-06-14")).valid
    found = validity(one, day("2023-06-15"))
    assert (found.standing, found.last_valid_day) == ("lapsed", day("2023-06-14"))


def test_continuity_by_use():
    """AWS D1.1, 6.2.3.1: counted by process, lapsed after more than six months without it."""
    start = day("2020-02-01")
    uses = [start + timedelta(days=90 * n) for n in range(17)]
    last, holds = engaged_until(start, uses, day("2024-07-01"), 6)
    assert holds and last == add_months(uses[-1], 6)
    assert engaged_until(start, [], day("2020-08-01"), 6) == (day("2020-08-01"), True)
    assert engaged_until(start, [], day("2020-08-02"), 6) == (day("2020-08-01"), False)
    late = [day("2020-08-02")]
    assert engaged_until(start, late, day("2020-09-01"), 6) == (day("2020-08-01"), False)
    assert engaged_until(start, [day("2019-01-01")], day("2020-03-01"), 6)[1]


def test_a_qualification_that_is_counted_by_use():
    """AWS D1.1, 6.2.3: no confirmation and no end, but the process in use; a tack welder's does not lapse."""
    package = welder_edition("aws-d1.1-welders:2020").package
    used = tuple(day(one) for one in ("2020-07-20", "2021-01-15", "2021-07-01"))
    one = held("2020-02-01", package=package, uses=used)
    assert validity(one, day("2021-12-31")).valid
    assert validity(one, day("2021-12-31")).due == ("use", day("2022-01-01"))
    found = validity(one, day("2022-01-02"))
    assert (found.standing, found.last_valid_day) == ("lapsed", day("2022-01-01"))
    assert "not used" in found.reasons[0] and found.citation.clause == "clause 6.2.3.1"
    tack = held("2015-02-01", package=package, tacks=True)
    assert validity(tack, day("2024-06-01")).valid and validity(tack, day("2024-06-01")).due is None
    doubted = held("2020-02-01", package=package, uses=used, revoked_on=day("2021-03-01"))
    assert validity(doubted, day("2021-03-01")).standing == "lapsed"


LONG = 6 * 365


@given(st.lists(st.integers(0, LONG), max_size=20), st.integers(0, LONG))
def test_over_years_of_logs_it_holds_only_while_no_gap_is_longer_than_six_months(days, asked):
    """Against the plain reading: walk from signature to signature, and look for a gap."""
    start = day("2018-01-15")
    signed = sorted(start + timedelta(days=n) for n in days)
    on = start + timedelta(days=asked)
    steps = [start, *(one for one in signed if one <= on), on]
    unbroken = all(after <= add_months(before, 6) for before, after in pairwise(steps))
    one = held(start.isoformat(), "c", [at.isoformat() for at in signed], employment=GOOD)
    assert validity(one, on).valid == unbroken
    assert engaged_until(start, signed, on, 6)[1] == unbroken
