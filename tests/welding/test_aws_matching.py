"""Matching filler to AWS D1.1:2020, table 5.4 (from memory)."""

import pytest

from tests.welding import samples
from welding.documents.codec import PROCEDURE
from welding.evaluate.procedure import evaluate

STICK = {"process": "111", "gas": None, "transfer": None}
CORED = {"process": "136", "transfer": None, "gas": {"components_percent": {"CO2": 100}}}
SELF = {"process": "114", "gas": None, "transfer": None, "polarity": "DCEN"}


def told(first, second, filler, change, thickness=10, route="prequalified"):
    passes = {**samples.a_pass(1), "filler": {"designation": filler}, **change}
    document = samples.procedure(
        code={"id": "aws-d1.1:2020", "units": "us", "route": route},
        base_metals=[
            {"designation": name, "thickness_mm": thickness, "identified_by": "mark"}
            for name in (first, second)
        ],
        passes=[{key: value for key, value in passes.items() if value is not None}],
    )
    return [one for one in evaluate(PROCEDURE.take(document)).findings if one.rule == "filler.matching"]


@pytest.mark.parametrize(
    "first, second, filler, change, thickness, word",
    [
        ("A36", "A36", "E6010", STICK, 10, None),
        ("A36", "A36", "E7018", STICK, 10, None),
        ("A572 Gr 50", "A572 Gr 50", "E7018", STICK, 10, None),
        ("A572 Gr 50", "A572 Gr 50", "ER70S-6", {"transfer": None}, 10, None),
        ("A572 Gr 50", "A572 Gr 50", "E71T-1C", CORED, 10, None),
        ("A572 Gr 65", "A572 Gr 65", "E8018-C3", STICK, 10, None),
        ("A572 Gr 65", "A572 Gr 65", "E81T1-Ni1C", CORED, 10, None),
        ("A572 Gr 65", "A36", "E7018", STICK, 10, None),
        ("A572 Gr 50", "A572 Gr 50", "E71T-11", SELF, 12.7, None),
        # Both sides of each break.
        ("A572 Gr 50", "A572 Gr 50", "E6010", STICK, 10, "480 MPa"),
        ("A572 Gr 50", "A572 Gr 50", "E7014", STICK, 10, "low-hydrogen"),
        ("A572 Gr 65", "A572 Gr 65", "E7018", STICK, 10, "550 MPa"),
        ("A709 HPS 70W", "A709 HPS 70W", "E8018-C3", STICK, 10, "620 MPa"),
        ("A36", "A572 Gr 50", "E6013", STICK, 10, "low-hydrogen"),
        ("A36", "A36", "E71T-GS", SELF, 10, "left out"),
        ("A36", "A36", "E71T-11", SELF, 12.8, "12.7 mm only"),
    ],
)
def test_table(first, second, filler, change, thickness, word):
    found = told(first, second, filler, change, thickness)
    assert len(found) == 1
    assert found[0].verdict == ("violates" if word else "complies")
    assert (word or "matches") in found[0].message
    assert found[0].obligation == "requirement"
    assert "aws_d1_1_2020.matching_filler" in found[0].unchecked


def test_by_test_it_is_advice():
    assert told("A572 Gr 50", "A572 Gr 50", "E6010", STICK, route="test")[0].obligation == "recommendation"


@pytest.mark.parametrize(
    "first, filler, change", [("S355J2", "E7018", STICK), ("A36", "ER308L", {}), ("A514", "E7018", STICK)]
)
def test_nothing_is_said_where_the_table_says_nothing(first, filler, change):
    assert told(first, first, filler, change) == []


@pytest.mark.parametrize(
    "thickness, units, filler, verdict",
    [
        (19.05, "us", "E6010", "complies"),  # 3/4 in and under: group I
        (19.1, "us", "E6010", "violates"),  # over it: group II
        (20, "si", "E6010", "complies"),
        (20.1, "si", "E6010", "violates"),
        (25, "us", "E7018", "complies"),
    ],
)
def test_a36_changes_its_group_with_thickness(thickness, units, filler, verdict):
    metal = {"designation": "A36", "thickness_mm": thickness, "identified_by": "mark"}
    passes = {**samples.a_pass(1), **STICK, "filler": {"designation": filler}}
    document = samples.procedure(
        code={"id": "aws-d1.1:2020", "units": units, "route": "prequalified"},
        base_metals=[metal, metal],
        passes=[{key: value for key, value in passes.items() if value is not None}],
    )
    found = [one for one in evaluate(PROCEDURE.take(document)).findings if one.rule == "filler.matching"]
    assert [one.verdict for one in found] == [verdict]
