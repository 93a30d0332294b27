"""Many people against many welds: the table says what ``may_weld`` says of each pair."""

import random
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.welding.crew_cases import ANY, aws, held, iso
from tests.welding.welder_cases import designations
from welding.documents.welder_weld import ProcessPart
from welding.welders.asked import Asked
from welding.welders.catalogue import read_designation
from welding.welders.crew_matrix import FACTS_ASKED, FACTS_TESTED, GROUPS, crew_matrix
from welding.welders.variables import VARIABLES
from welding.welders.who import may_weld


def as_they_stand(chance, weld):
    """Valid, lapsed, or unknown where the code has a way of revalidation that rests on facts."""
    if weld.code == "iso-9606-1:2017" and chance.random() < 0.2:
        return held(weld, option="c")
    return held(weld, welded=chance.choice(["2026-08-01", "2026-01-02"]))


def one_by_one(people, asked):
    return [[may_weld(tests, one).standing for one in asked] for tests in people]


@pytest.mark.parametrize("code, any_weld", ANY.items())
def test_the_table_says_what_each_pair_says(code, any_weld):
    chance = random.Random(18)
    people = [
        [as_they_stand(chance, any_weld(chance)) for _ in range(chance.randint(0, 4))] for _ in range(60)
    ]
    asked = [
        Asked(
            welds=tuple(any_weld(chance) for _ in range(chance.choice([1, 1, 2]))),
            open=chance.choice([(), (), ("something is not stated",)]),
        )
        for _ in range(30)
    ]
    found = crew_matrix(people, asked)
    assert found == one_by_one(people, asked)
    assert {"may", "open", "blocked", "untested"} <= {one for row in found for one in row}


@settings(max_examples=60)
@given(st.lists(designations(), min_size=2, max_size=6))
def test_whatever_their_grammar_allows(texts):
    welds = [read_designation(one) for one in texts]
    people = [[held(one)] for one in welds] + [[held(one) for one in welds]]
    asked = [Asked(welds=(one,), open=()) for one in welds]
    assert crew_matrix(people, asked) == one_by_one(people, asked)


@pytest.mark.parametrize("facts", [
    {"turning": True}, {"turning": False}, {"branch_deg": 45.0}, {"mechanized": True}, {"thickness_mm": 8.0},
    {"product": "pipe", "diameter_mm": 520.0}, {"product": "pipe", "diameter_mm": 100.0, "turning": True},
    {"backing": "bs"}, {"from_designation": False}, {"weld": "fillet", "thickness_mm": 8.0, "layers": "ml"},
])  # fmt: skip
def test_welds_that_differ_in_one_fact_are_told_apart(facts):
    plain = read_designation("ISO 9606-1 135 P BW FM1 S s12 PA ss mb")
    pipe = read_designation("ISO 9606-1 135 T BW FM1 S s12 D168.3 PH ss nb")
    asked = [Asked(welds=(one,), open=()) for one in (plain, replace(plain, **facts), pipe)]
    people = [[held(plain)], [held(pipe)], [held(plain), held(pipe)]]
    assert crew_matrix(people, asked) == one_by_one(people, asked)


@pytest.mark.parametrize("facts", [
    {"turning": True}, {"layer_count": 3}, {"layer_count": 2}, {"diameter_mm": 60.3}, {"position": "PC"},
    {"fillet_too": ProcessPart(process="135", filler_group="FM1", filler_type="S"), "fillet_too_mm": 10.0},
    {"backing": "bs"}, {"trained": True}, {"from_designation": False}, {"thickness_mm": 9.0},
])  # fmt: skip
def test_tests_that_differ_in_one_fact_are_told_apart(facts):
    pipe = read_designation("ISO 9606-1 135 T BW FM1 S s12 D168.3 PH ss nb, spray transfer")
    other = replace(pipe, **facts)
    people = [[held(pipe)], [held(other)], [held(pipe), held(other)]]
    asked = [
        Asked(welds=(read_designation(f"ISO 9606-1 135 {one}"),), open=())
        for one in ("T BW FM1 S s5 D90 PH ss nb", "T BW FM1 S s20 D40 PH ss nb", "T BW FM1 S s12 D168.3 PC ss nb",
                    "T BW FM1 S s12 D168.3 H-L045 ss nb", "P BW FM1 S s30 PF ss mb", "P FW FM1 S t10 PB sl",
                    "T BW FM1 S s12 D168.3 PA ss mb", "P FW FM1 S t2 PF ml")
    ]  # fmt: skip
    assert crew_matrix(people, asked) == one_by_one(people, asked)


def test_nobody_and_nothing():
    weld = iso(random.Random(1))
    nothing = Asked(welds=(), open=("The procedure has no joint or no passes.",))
    assert crew_matrix([], [nothing]) == []
    assert crew_matrix([[], [held(weld)]], []) == [[], []]
    assert crew_matrix([[], [held(weld)]], [nothing]) == [["open"], ["open"]]
    other = Asked(welds=(aws(random.Random(1)),), open=())
    assert crew_matrix([[], [held(weld)]], [other]) == [["untested"], ["untested"]]


def test_every_variable_of_a_welder_stands_in_a_group():
    """A variable that is added says on which facts it rests."""
    assert set(GROUPS) == set(VARIABLES) and set(GROUPS.values()) == set(FACTS_ASKED)
    assert list(FACTS_TESTED) == list(FACTS_ASKED)
