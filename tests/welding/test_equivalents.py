"""Equivalents against hand-worked figures."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from welding.cli import main
from welding.errors import WeldingError
from welding.metals.equivalents import ELEMENTS, FORMULAS, equivalents, looks_like_fractions

STEEL = {"C": 0.16, "Si": 0.40, "Mn": 1.45, "Cr": 0.08, "Mo": 0.02, "V": 0.04, "Ni": 0.10, "Cu": 0.15}


@pytest.mark.parametrize(
    "chemistry, key, value",
    [
        # By hand: .16 + 1.45/6 + .14/5 + .25/15; the others likewise.
        (STEEL, "ce_iiw", 0.4463),
        (STEEL, "ce_aws", 0.5130),
        (STEEL, "cet", 0.3210),
        (STEEL, "pcm", 0.2643),
        ({**STEEL, "B": 0.002}, "pcm", 0.2743),
        # A 308L deposit: 20 + 0.1 Mo; 10 + 35 x .02 + 20 x .06 + .25 x .1.
        ({"C": 0.02, "Cr": 20, "Ni": 10, "Mo": 0.1, "N": 0.06, "Cu": 0.1}, "cr_eq_wrc92", 20.1),
        ({"C": 0.02, "Cr": 20, "Ni": 10, "Mo": 0.1, "N": 0.06, "Cu": 0.1}, "ni_eq_wrc92", 11.925),
        ({"Cr": 19.5, "Nb": 0.8}, "cr_eq_wrc92", 20.06),
        # CEN: .15 + A (.35/24 + 1.4/6 + .05/15 + .05/20 + .075/5), A = .75 + .25 tanh .6 = .88426.
        (
            {"C": 0.15, "Si": 0.35, "Mn": 1.4, "Cu": 0.05, "Ni": 0.05, "Cr": 0.05, "Mo": 0.02, "V": 0.005},
            "cen",
            0.3876,
        ),
        # UCS: 27.6 + 1.9 + 1.125 + .45 - 4.305 - 7.56 - 1; and carbon under .08 counts as .08.
        ({"C": 0.12, "S": 0.01, "P": 0.015, "Nb": 0.01, "Si": 0.35, "Mn": 1.4}, "ucs", 18.21),
        ({"C": 0.05, "S": 0.01, "P": 0.015, "Si": 0.35, "Mn": 1.4}, "ucs", 8.56),
    ],
)
def test_by_hand(chemistry, key, value):
    found = {one.key: one for one in equivalents(chemistry)}
    assert found[key].value == pytest.approx(value, abs=5e-5)


def test_what_is_missing_is_said_and_never_guessed():
    found = {one.key: one for one in equivalents({"C": 0.2})}
    assert found["ce_iiw"].value is None
    assert found["ce_iiw"].missing == ("Mn",)
    assert found["ni_eq_wrc92"].missing == ("Ni", "N")
    full = {one.key: one for one in equivalents({"C": 0.2, "Mn": 1.0, "Si": 0.3})}
    assert full["pcm"].taken_as_zero == ("Cu", "Cr", "Ni", "Mo", "V", "B")


@pytest.mark.parametrize(
    "chemistry, word",
    [({"C": -0.1}, "no share"), ({"Xx": 1}, "no element"), ({"Fe": 90, "Cr": 40}, "130 %")],
)
def test_impossible_compositions(chemistry, word):
    with pytest.raises(WeldingError, match=word):
        equivalents(chemistry)


def test_fractions_typed_for_percent():
    assert looks_like_fractions({"C": 0.0016, "Mn": 0.0145})
    assert not looks_like_fractions(STEEL)
    assert not looks_like_fractions({"C": 0.003, "Mn": 1.2})  # an extra low carbon steel


@given(st.dictionaries(st.sampled_from(ELEMENTS), st.floats(0, 4), max_size=12))
def test_more_of_an_element_never_lowers_an_equivalent(chemistry):
    before = {one.key: one.value for one in equivalents(chemistry)}
    for formula in FORMULAS:
        assert all(weight > 0 for weight in formula.weights.values())
        for element in formula.weights:
            more = equivalents({**chemistry, element: chemistry.get(element, 0) + 0.5})
            value = next(one.value for one in more if one.key == formula.key)
            if before[formula.key] is not None:
                assert value > before[formula.key]


def test_command_line(capsys):
    assert main(["equivalents", *(part for e, x in STEEL.items() for part in (f"--{e}", str(x)))]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert answer["ce_iiw"] == pytest.approx(0.4463, abs=5e-5)
    assert answer["missing"] == {"ni_eq_wrc92": ["N"], "ucs": ["S", "P"]}
    assert main(["equivalents", "--C", "0,16", "--Mn", "1,45"]) == 0  # commas as decimals
    assert json.loads(capsys.readouterr().out)["ce_iiw"] == pytest.approx(0.16 + 1.45 / 6)
    assert main(["equivalents", "--C", "-1", "--Mn", "1"]) == 2


def test_a_ferrite_number_is_unknown_and_says_so():
    plain = equivalents({"C": 0.16, "Mn": 1.4})
    stainless = equivalents({"C": 0.02, "Cr": 19.5, "Ni": 9.8, "N": 0.05})
    assert "fn_wrc92" not in {one.key for one in plain}
    ferrite = next(one for one in stainless if one.key == "fn_wrc92")
    assert ferrite.value is None
    assert "diagram" in ferrite.missing[0]
