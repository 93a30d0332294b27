"""Designations: read, refused with the reason, written, and read again."""

import pytest
from hypothesis import given

from tests.welding.welder_cases import answer, designations
from welding.__main__ import main
from welding.documents.codec import WELDER_WELD
from welding.errors import UnreadableError, WeldingError
from welding.welders.catalogue import designation_of, read_designation, welder_edition
from welding.welders.covers import welder_range


@given(designations())
def test_what_is_read_is_written_the_same(text):
    weld = read_designation(text)
    assert designation_of(weld) == text
    assert WELDER_WELD.read(WELDER_WELD.write(weld)) == weld


@given(designations())
def test_a_test_covers_what_it_was(text):
    """Whoever made the piece may make it again; only what is not known of the test stays open."""
    found = answer(text, text)
    if "mechanized" in text:
        assert found.verdict == "blocked"
    else:
        assert found.covered, found.findings


@pytest.mark.parametrize(
    "text",
    [
        "ISO 9606-1 141/111 T BW FM1 S/B s12(4/8) D168.3 PH ss nb",
        "ISO 9606-1 142 P BW nm s2 PA ss gb",
        "ISO 9606-1 311 T BW FM1 S s3 D48.3 PH ss nb rw",
        "ISO 9606-1 135 P BW FM1 S s12 PA ss nb, fillet t12",
        "ISO 9606-1 141 T BW FM1 S s4 D60.3 PH ss nb, branch 60",
        "ISO 9606-1 135 T FW FM1 S t10 D88.9 PB ml, turning",
        "ISO 9606-1 111 T BW FM1 B s8 D168.3 PH/PC ss nb",
        "ISO 9606-2 141 T BW 22 S t4 D60 PF ss nb",
        "AWS D1.1 SMAW F4 3G uphill plate T3/8in backing",
        "AWS D1.1 operator SAW 1G plate T1-1/2in backing electrodes=2",
        "AWS D1.1 FCAW-G V uphill plate groove T20mm open-root",
        "AWS D1.1 GTAW 6GR uphill pipe TYK D168.3mm T14.3mm open-root",
        "AWS D1.1 tack-welder SMAW F4 1F plate T1/2in",
        "AWS D1.1 GMAW H plate fillet T0.3in dihedral=45",
        "ISO 14732 automatic 135 PA unit=cell-7 arc-sensor multi-run functional-test",
        "ISO 14732 mechanized 121 PA camera-view arc-length-control tracking single-run no-backing no-functional-test",
    ],
)
def test_each_code_reads_what_it_writes(text):
    weld = read_designation(text)
    assert designation_of(weld) == text and read_designation(designation_of(weld)) == weld
    if weld.position not in ("V", "H"):
        items = welder_range(weld).items
        assert items and all(one.reason and one.rule.clause for one in items)


@pytest.mark.parametrize(
    "written, meant",
    [
        ("EN ISO 9606-1 135 P BW FM1 S s 10,5 PF ss nb", "ISO 9606-1 135 P BW FM1 S s10.5 PF ss nb"),
        ("iso 9606-1:2017 111 T BW FM1 B s6 D 114,3 H-L045 ss nb",
         "ISO 9606-1 111 T BW FM1 B s6 D114.3 H-L045 ss nb"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF ss nb (dip transfer)", "ISO 9606-1 135 P BW FM1 S s10 PF ss nb, dip transfer"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF ss nb, welded with dip transfer",
         "ISO 9606-1 135 P BW FM1 S s10 PF ss nb, dip transfer"),
        ("AWS D1.1:2020 SMAW F4 6G uphill D60.3mm T5.5mm open root",
         "AWS D1.1 SMAW F4 6G uphill pipe D60.3mm T5.5mm open-root"),
    ],
)  # fmt: skip
def test_it_is_read_as_people_write_it(written, meant):
    assert designation_of(read_designation(written)) == meant


@pytest.mark.parametrize(
    "text, reason",
    [
        ("9606 135 P BW", "begins with its code"),
        ("ISO 9606-1", "process is missing"),
        ("ISO 9606-1 135", "product (P or T) is missing"),
        ("ISO 9606-1 135 P", "weld type (BW or FW) is missing"),
        ("ISO 9606-1 135 P BW S s10 PF ss nb", "filler group is missing"),
        ("ISO 9606-1 135 P BW FM1 s10 PF ss nb", "'s10' is no filler type"),
        ("ISO 9606-1 135 P BW FM1 S PF ss nb", "'PF' is no thickness"),
        ("ISO 9606-1 135 P BW FM1 S s10 ss nb", "'ss' is no welding position"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF", "needs its detail"),
        ("ISO 9606-1 135 P FW FM1 S t10 PB", "needs its layers"),
        ("ISO 9606-1 135 T BW FM1 S s10 PH ss nb", "'PH' is no outside diameter"),
        ("ISO 9606-1 135 P BW FM1 S s10 D60 PF ss nb", "A plate (P) has no outside diameter"),
        ("ISO 9606-1 135 P BW FM1 S t10 PF ss nb", "deposited thickness s"),
        ("ISO 9606-1 135 P FW FM1 S s10 PB ml", "thickness is that of the material"),
        ("ISO 9606-1 999 P BW FM1 S s10 PF ss nb", "999 is no process"),
        ("ISO 9606-1 135 P BW FM1 B s10 PF ss nb", "has no filler type B"),
        ("ISO 9606-1 135 P BW FM7 S s10 PF ss nb", "'FM7' is no filler type"),
        ("ISO 9606-1 135 P BW FM1 S s10 PB ss nb", "PB is a position of fillet welds"),
        ("ISO 9606-1 135 P BW FM1 S s10 PH ss nb", "PH is a position of fixed pipes"),
        ("ISO 9606-1 135 T BW FM1 S s10 D60 PF ss nb", "PF is a position of plates"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF ss nb mb", "contradict"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF ss bs nb", "contradict"),
        ("ISO 9606-1 135 P FW FM1 S t10 PB sl ml", "contradict"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF ss nb lw", "detail of process 311"),
        ("ISO 9606-1 311 P BW FM1 S s3 PF ss nb", "lw or rw"),
        ("ISO 9606-1 141/111 P BW FM1 S/B s12 PF ss nb", "that each deposits"),
        ("ISO 9606-1 141/111 P BW FM1 S/B s12(4/9) PF ss nb", "do not sum"),
        ("ISO 9606-1 141/111 P FW FM1 S/B t12 PB ml", "for a butt weld only"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF ss nb, in the rain", "is not understood"),
        ("ISO 9606-1 135 P BW FM1 S s10 PF ss nb, turning", "Only a pipe"),
        ("ISO 9606-1 135 P BW FM1 S s99999 PF ss nb", "not plausible"),
        ("ISO 9606-1 111 T BW FM1 B s8 D139.7 PH/PC ss nb", "from 150 mm"),
        ("ISO 9606-2 141 P BW S t4 PA ss nb", "group of the base metal is missing"),
        ("ISO 9606-2 135 P BW 22 S t4 PA ss nb", "135 is no process"),
        ("AWS D1.1 3G plate", "process is missing"),
        ("AWS D1.1 SMAW 3G plate", "F-number"),
        ("AWS D1.1 GMAW F4 3G plate", "F-numbers count for SMAW alone"),
        ("AWS D1.1 GMAW plate", "position is missing"),
        ("AWS D1.1 GMAW V plate", "groove weld or a fillet weld is missing"),
        ("AWS D1.1 GMAW 3G fillet", "no position of that weld"),
        ("AWS D1.1 GMAW 6G plate", "position of pipe"),
        ("AWS D1.1 GMAW 3G plate D60mm", "A plate has no diameter"),
        ("AWS D1.1 GMAW 3G 4G", "said twice"),
        ("AWS D1.1 GMAW 5G D60mm T1/4in", "in two units"),
        ("AWS D1.1 GMAW 3G sideways", "is not understood"),
        ("ISO 14732 135 PA", "mechanized or automatic is missing"),
        ("ISO 14732 automatic unit=x", "process is missing"),
        ("ISO 14732 automatic 135 135", "said twice"),
        ("ISO 14732 automatic 135 quickly", "is not understood"),
    ],
)
def test_what_is_missing_or_wrong_is_named(text, reason):
    with pytest.raises(UnreadableError) as refused:
        read_designation(text)
    assert reason in str(refused.value)


def test_a_weld_in_a_position_of_the_code_is_no_test():
    with pytest.raises(WeldingError, match="a test is in 1G to 6GR"):
        welder_range(read_designation("AWS D1.1 GMAW V uphill plate groove T10mm backing"))
    with pytest.raises(WeldingError, match="A 3G test is on plate"):
        welder_range(read_designation("AWS D1.1 GMAW 3G uphill pipe D60mm T5mm backing"))


def test_codes_do_not_stand_for_one_another():
    with pytest.raises(WeldingError, match="says nothing under"):
        answer("AWS D1.1 GMAW 3G uphill plate T10mm backing", "ISO 9606-1 135 P BW FM1 S s10 PF ss mb")
    with pytest.raises(WeldingError, match="no code for welders"):
        welder_edition("iso-9606-9")


def test_the_command_line(capsys):
    """``welder`` has the shape of ``range``; ``welder-covers`` says whether, and why."""
    import json

    assert main(["welder", "ISO 9606-1 135 P BW FM1 S s10 PF ss nb"]) == 0
    found = json.loads(capsys.readouterr().out)
    thickness = next(one for one in found["items"] if one["variable"] == "deposited_mm")
    assert (thickness["kind"], thickness["min"], thickness["max"]) == ("span", 3, 20)
    assert thickness["rule"]["clause"] == "table 6" and thickness["reason"]
    tests = "ISO 9606-1 111 T BW FM1 B s8 D168.3 PH ss nb + ISO 9606-1 111 T BW FM1 B s8 D168.3 PC ss nb"
    assert main(["welder-covers", tests, "ISO 9606-1 111 T BW FM1 B s8 D168.3 H-L045 ss nb"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert (found["covered"], found["verdict"], found["by"]) == (True, "covered", [0, 1])
    assert main(["welder", "ISO 9606-1 135 P BW FM1 S s10 PF"]) == 2
    assert "needs its detail" in capsys.readouterr().err
