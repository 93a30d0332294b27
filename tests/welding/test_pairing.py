"""Fillers against metals. Expectations: common practice and the handbooks' tables of pairs, from memory."""

import pytest

from tests.welding import samples
from welding.documents.codec import PROCEDURE
from welding.evaluate.procedure import evaluate

RULES = {"filler.metal", "filler.autogenous", "metal.weldable", "filler.over-match"}

# metal, other metal, filler, process, rules that it breaks
PAIRS = [
    ("S355J2+N", "S355J2+N", "ER70S-6", "135", set()),
    ("S355J2+N", "S355J2+N", "E71T1-M21A2-CS1-H8", "136", set()),
    ("S690QL", "S690QL", "G 69 4 M21 Mn3Ni1CrMo", "135", set()),
    ("S355J2+N", "304L", "ER309L", "135", set()),
    ("S355J2+N", "304L", "E 23 12 L R 12", "111", set()),
    ("S355J2+N", "304L", "ERNiCr-3", "141", set()),
    ("304L", "304L", "T 19 9 L P M21 1", "136", set()),
    ("304L", "304L", "E 19 9 L R 12", "111", set()),
    ("316L", "316L", "ER316LSi", "135", set()),
    ("1.4462", "1.4462", "ER2209", "141", set()),
    ("Alloy 625", "Alloy 625", "ERNiCrMo-3", "141", set()),
    ("5083-H111", "5083-H111", "ER5183", "131", set()),
    ("5083-H111", "6082-T6", "ER5356", "131", set()),
    ("6082-T6", "5083-H111", "S Al 5183", "131", set()),
    ("6061-T6", "6061-T6", "ER4043", "141", set()),
    ("5754", "5754", "ER5356", "131", set()),
    ("7020", "7020", "ER5356", "131", set()),  # no row of the table: nothing is said
    ("Cu-DHP", "Cu-DHP", "ERCu", "141", set()),
    ("Cu-DHP", "Cu-DHP", "ERCuSi-A", "131", set()),
    ("S355J2+N", "S355J2+N", "ERCuSi-A", "131", set()),
    ("6061-T6", "6061-T6", "", "131", set()),
    ("S355J2+N", "S355J2+N", "", "141", set()),
    ("S355J2+N", "304L", "ER308L", "135", {"filler.metal"}),
    ("304L", "304L", "ER70S-6", "135", {"filler.metal"}),
    ("S355J2+N", "S355J2+N", "ER308L", "135", {"filler.metal"}),
    ("316L", "316L", "ER308L", "135", {"filler.metal"}),
    ("1.4462", "1.4462", "ER316L", "141", {"filler.metal"}),
    ("Alloy 625", "Alloy 625", "ER316L", "141", {"filler.metal"}),
    ("5083-H111", "5083-H111", "ER4043", "131", {"filler.metal"}),
    ("5083-H111", "6082-T6", "ER4047", "131", {"filler.metal"}),
    ("6061-T6", "6061-T6", "ER1100", "141", {"filler.metal"}),
    ("3003", "3003", "ER5183", "131", {"filler.metal"}),
    ("6061-T6", "S355J2+N", "ER4043", "141", {"filler.metal"}),
    ("6082-T6", "6082-T6", "ER70S-6", "131", {"filler.metal"}),
    ("Cu-DHP", "Cu-DHP", "ER70S-6", "135", {"filler.metal"}),
    ("6061-T6", "6061-T6", "", "141", {"filler.autogenous"}),
    ("7075-T6", "6061-T6", "ER5356", "131", {"metal.weldable"}),
    ("2024", "2024", "ER4043", "141", {"metal.weldable"}),
    ("S235JR", "S235JR", "ER110S-1", "135", {"filler.over-match"}),
]


def findings(one, other, filler, process):
    passes = [samples.a_pass(1, process=process, filler={"designation": filler} if filler else None)]
    if not filler:
        del passes[0]["filler"]
    metals = [{"designation": name, "thickness_mm": 6} for name in (one, other)]
    return evaluate(PROCEDURE.take(samples.procedure(base_metals=metals, passes=passes))).findings


@pytest.mark.parametrize("one, other, filler, process, expected", PAIRS)
def test_each_pair_is_told_exactly_what_is_wrong(one, other, filler, process, expected):
    found = findings(one, other, filler, process)
    assert {f.rule for f in found if f.rule in RULES and f.verdict == "violates"} == expected


@pytest.mark.parametrize(
    "one, filler, process, words",
    [
        ("304L", "ER308L", "135", "high-silicon ER308LSi"),
        ("Cu-DHP", "ERCuSi-A", "131", "colour and etch differ"),
        ("6061-T6", "ER4043", "131", "turns dark when anodised"),
        ("6082-T6", "ER5356", "131", "above 65 °C"),
    ],
)
def test_a_sound_pair_may_come_with_a_word(one, filler, process, words):
    found = next(f for f in findings(one, one, filler, process) if f.rule == "filler.metal")
    assert found.verdict == "complies"
    assert words in found.message


def test_the_remedy_names_the_first_choice():
    wrong = next(f for f in findings("5083-H111", "6082-T6", "ER1100", "131") if f.rule == "filler.metal")
    assert (wrong.obligation, wrong.remedy) == ("recommendation", "Choose 5356.")
