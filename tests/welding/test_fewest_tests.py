"""The fewest tests for a crew: enough by ``may_weld``, and no fewer do, tried out one by one."""

import random
from itertools import combinations

import pytest

from tests.welding.crew_cases import aws, held, iso
from welding.errors import WeldingError
from welding.welders.asked import Asked
from welding.welders.catalogue import designation_of, read_designation, welder_edition
from welding.welders.covers import each_process
from welding.welders.crew_matrix import crew_matrix
from welding.welders.fewest_tests import fewest_tests
from welding.welders.who import may_weld


def asked_for(*designations):
    return [Asked(welds=(read_designation(one),), open=()) for one in designations]


def iso_welds(*words):
    return asked_for(*(f"ISO 9606-1 {one}" for one in words))


def certificate(words, **more):
    return held(read_designation(f"ISO 9606-1 {words}"), **more)


def planned(found):
    return [(one.person, designation_of(one.piece).removeprefix("ISO 9606-1 ")) for one in found.tests]


def after(people, found):
    """The crew once the tests are passed."""
    return [
        [*tests, *(held(one.piece) for one in found.tests if one.person == person)]
        for person, tests in enumerate(people)
    ]


def may(people, asked):
    """How many may weld each."""
    return [sum(may_weld(tests, one).standing == "may" for tests in people) for one in asked]


@pytest.mark.parametrize("welds, count", [
    # One upward test holds flat as well; a test without backing holds backing (ISO 9606-1, tables 9 and 11).
    (("135 P BW FM1 S s10 PF ss nb", "135 P BW FM1 S s20 PA ss mb"), 1),
    # From 12 mm every thickness from 3 mm is held; 2 mm is not (table 6).
    (("135 P BW FM1 S s3 PA ss nb", "135 P BW FM1 S s40 PA ss nb"), 1),
    (("135 P BW FM1 S s2 PA ss nb", "135 P BW FM1 S s40 PA ss nb"), 2),
    # No position of a plate holds horizontal and upward; a butt weld holds no fillet weld (5.4).
    (("135 P BW FM1 S s10 PC ss nb", "135 P BW FM1 S s10 PF ss nb"), 2),
    (("135 P BW FM1 S s10 PA ss nb", "135 P FW FM1 S t10 PB ml"), 2),
    # One pipe at 45 degrees holds all but downward, and the plates.
    (("141 T BW FM1 S s4 D60.3 PC ss nb", "141 T BW FM1 S s4 D60.3 PH ss nb", "141 P BW FM1 S s4 PF ss nb"), 1),
    (("141 T BW FM1 S s4 D60.3 PC ss nb", "141 T BW FM1 S s4 D60.3 PJ ss nb"), 1),
    # Each process by itself; a joint of two is held by a test of each.
    (("135 P BW FM1 S s10 PA ss nb", "111 P BW FM1 B s10 PA ss nb"), 2),
    (("141/111 T BW FM1 S/B s12(4/8) D168.3 PH ss nb", "141 T BW FM1 S s4 D168.3 PH ss nb",
      "111 P BW FM1 B s8 PF ss nb"), 2),
])  # fmt: skip
def test_how_many_tests_a_list_needs(welds, count):
    asked = iso_welds(*welds)
    found = fewest_tests([[]], asked)
    assert len(found.tests) == count and found.optimal and not found.lacking, planned(found)
    assert may(after([[]], found), asked) == [1] * len(asked)


def test_who_is_qualified_needs_no_test():
    asked = iso_welds("135 P BW FM1 S s10 PF ss nb", "135 P FW FM1 S t10 PB ml")
    upward = certificate("135 P BW FM1 S s12 PF ss nb, 3 layers")
    found = fewest_tests([[], [upward]], asked)
    assert (found.held, len(found.tests)) == ((1, 0), 1) and found.tests[0].for_asked == (1,)
    two = fewest_tests([[], [upward]], asked, needed=2)
    assert len(two.tests) == 3 and may(after([[], [upward]], two), asked) == [2, 2]
    lapsed = fewest_tests(
        [[certificate("135 P BW FM1 S s12 PF ss nb, 3 layers", welded="2026-01-01")]], asked[:1]
    )
    assert (lapsed.held, len(lapsed.tests)) == ((0,), 1)


def test_a_process_that_somebody_has_is_not_tested_again():
    asked = iso_welds("141/111 T BW FM1 S/B s12(4/8) D168.3 PH ss nb")
    people = [[], [certificate("141 T BW FM1 S s4 D168.3 PH ss nb")]]
    found = fewest_tests(people, asked, needed=2)
    assert len(found.tests) == 2 and may(after(people, found), asked) == [2]
    (other,) = [piece for person, piece in planned(found) if person == 1]
    assert other.startswith("111 ")


def test_what_cannot_be_planned_is_told():
    machine = read_designation("ISO 9606-1 135 P BW FM1 S s10 PA ss nb, mechanized")
    unsaid = Asked(welds=(machine,), open=("The position is not stated.",))
    asked = [Asked(welds=(machine,), open=()), unsaid, Asked(welds=(), open=("No joint.",))]
    asked += iso_welds("135 P BW FM1 S s10 PA ss nb")
    found = fewest_tests([[]], asked, needed=2)
    assert (found.open, found.lacking, len(found.tests)) == ((1, 2), (0, 3), 1)
    nobody = fewest_tests([], asked)
    assert (nobody.tests, nobody.lacking) == ((), (0, 3))
    assert fewest_tests([[]], []).tests == ()
    with pytest.raises(WeldingError, match="At least one person"):
        fewest_tests([[]], asked, needed=0)


@pytest.mark.parametrize("any_weld", [iso, aws])
def test_no_fewer_tests_do(any_weld):
    """Every one test, and every two, are given to one person, and do not reach where more are planned."""
    chance = random.Random(18)
    counts = set()
    for _ in range(8):
        asked = [Asked(welds=(any_weld(chance),), open=()) for _ in range(chance.randint(1, 3))]
        people = [[held(any_weld(chance))] for _ in range(chance.randint(0, 1))] + [[]]
        found = fewest_tests(people, asked)
        assert found.optimal and min(may(after(people, found), asked)) >= 1
        counts.add(len(found.tests))
        welds = [part for one in asked for weld in one.welds for part in (weld, *each_process(weld))]
        pieces = {piece for one in welds for piece in welder_edition(one.code).pieces_for(one)}
        fewer = [few for n in range(min(len(found.tests), 3)) for few in combinations(pieces, n)]
        owned = [one for tests in people for one in tests]
        tried = crew_matrix([[*owned, *map(held, few)] for few in fewer], asked)
        assert not any(set(row) == {"may"} for row in tried)
    assert len(counts) > 1
