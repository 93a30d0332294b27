"""The procedure as welded is covered by its own accepted record: under every code and level it is valid for."""

import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from tests.welding.test_covering_cases import CODES
from tests.welding.weldments import own_procedure, welded
from welding.coverage.covers import covers
from welding.coverage.record import judge

GROOVES = ("v-open", "v-backing", "v-gouged", "v-both", "double-v-gouged", "square-gouged", "bevel-backing")
PLATE = {"aws": ("1G", "2G", "3G", "4G"), "iso": ("PA", "PC", "PE", "PF", "PG")}
PIPE = {"aws": ("1G", "2G", "5G", "6G"), "iso": ("PA", "PC", "PH", "PJ", "H-L045", "J-L045")}
FILLET = {"aws": ("1F", "2F", "3F", "4F"), "iso": ("PA", "PB", "PD", "PF", "PG")}
UP, DOWN = ("3G", "3F", "5G", "6G", "PF", "PH", "H-L045"), ("PG", "PJ", "J-L045")
AWS = {
    ("A36",): "E7018", ("A572 Gr 50",): "E7018", ("A992", "A36"): "E7018", ("A514",): "E11018-M",
    ("A572 Gr 65", "A572 Gr 50"): "E8018-C3",
}  # fmt: skip
ISO = {
    ("S355J2+N",): "G 46 4 M21 3Si1", ("S235JR",): "G 42 4 M21 3Si1", ("S460N", "S355J2+N"): "G 50 6 M21 Mn3Ni1Mo",
    ("S690QL",): "G 69 6 M21 Mn4Ni1,5CrMo", ("13CrMo4-5",): "G CrMo1Si", ("1.4404",): "G 19 12 3 L Si",
    ("1.4462",): "G 22 9 3 N L", ("1.4307", "S355J2+N"): "G 23 12 L Si", ("group 9.1",): "G 46 8 M21 3Ni1",
}  # fmt: skip


@st.composite
def weldment(draw, code):
    """Words of a record that a shop could have welded."""
    fillet = draw(st.booleans())
    pipe = not fillet and draw(st.booleans())
    positions = (FILLET if fillet else PIPE if pipe else PLATE)[code]
    position = draw(st.sampled_from(positions))
    words = {
        "t": draw(st.sampled_from((3, 5, 8, 10, 12, 16, 20, 25, 38, 60))),
        "position": position, "joint": "fillet" if fillet else draw(st.sampled_from(GROOVES)),
        "runs": draw(st.sampled_from((1, 2, 3))), "preheat": draw(st.sampled_from((120, 160))),
        "interpass": draw(st.sampled_from((180, 220))), "bead": draw(st.sampled_from(("stringer", "weave"))),
    }  # fmt: skip
    if pipe:
        words["od"] = draw(st.sampled_from((60.3, 168.3, 323.9, 610, 914)))
        words["t"] = min(words["t"], 12)
    if position in UP or position in DOWN:
        words["progression"] = "up" if position in UP else "down"
    if words["joint"].endswith(("gouged", "both")):
        words["sides"] = 2
    if words["joint"].startswith("double"):
        words["t"] = 20
    if code == "aws":
        metals = draw(st.sampled_from(sorted(AWS)))
        words |= {"process": "SMAW", "filler": AWS[metals], "preheat": 160}
        if metals in (("A572 Gr 50",), ("A992", "A36")):
            words["process"] = draw(
                st.sampled_from(("SMAW", "GMAW", "GMAW-S", "FCAW-G", "FCAW-S", "GTAW", "SAW"))
            )
        if words["process"] != "SMAW":
            del words["filler"]
        words["units"] = draw(st.sampled_from(("si", "us")))
        if draw(st.booleans()):
            words["impact"] = -20
    else:
        metals = draw(st.sampled_from(sorted(ISO)))
        words |= {"filler": ISO[metals], "level": draw(st.sampled_from((1, 2))), "impact": -40}
        if metals == ("S355J2+N",):
            words["process"] = draw(st.sampled_from(("111", "135", "136", "141", "121")))
            del words["filler"]
    words["metals"] = list(metals)
    if fillet:
        words.pop("impact", None)  # no fillet test has impact sets
    two = words.get("process") in ("SMAW", "111") and words["joint"].startswith("v-") and words["t"] >= 8
    if two and "filler" not in words and draw(st.booleans()):
        first, second = ("GTAW", "SMAW") if code == "aws" else ("141", "111")
        words |= {"processes": [first, second], "deposits": {first: 3, second: words["t"] - 3}}
    return words


@pytest.mark.parametrize("code", CODES)
@settings(max_examples=120, suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much])
@given(data=st.data())
def test_what_was_welded_is_covered_by_its_record(code, data):
    words = data.draw(weldment(code))
    one = welded(code, words)
    assume(judge(one, CODES[code][0]).verdict == "accepted")
    found = covers([one], own_procedure(code, words), CODES[code][0])
    assert found.covered, [(f.verdict, f.rule, f.message) for f in found.findings if f.verdict != "complies"]
