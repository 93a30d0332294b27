"""Filler designations: meanings and refusals, from memory of the named standards; and no text breaks it."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from welding.cli import main
from welding.consumables.designations.decode import decode
from welding.consumables.designations.text import rows

MIX = "Ar+20-25CO2"
ANY = object()

# designation, system, process, polarities, gases, shielding, positions, tensile, impact (J, °C), hydrogen
VALID = [
    ("E6010", "AWS A5.1", "111", {"DCEP"}, (), "none", "all", 430, (27, -30), None),
    ("E6011", "AWS A5.1", "111", {"AC", "DCEP"}, (), "none", "all", 430, (27, -30), None),
    ("E7018-1 H4R", "AWS A5.1", "111", {"AC", "DCEP"}, (), "none", "all", 490, (27, -45), 4),
    ("E7024", "AWS A5.1", "111", {"AC", "DCEP", "DCEN"}, (), "none", "flat-horizontal", 490, (None, None), None),
    ("E7015", "AWS A5.1", "111", {"DCEP"}, (), "none", "all", 490, (27, -30), None),
    ("E8018-C3 H4R", "AWS A5.5", "111", {"AC", "DCEP"}, (), "none", "all", 550, (27, -40), 4),
    ("E9018M", "AWS A5.5", "111", {"DCEP"}, (), "none", "all", 620, (27, -50), None),
    ("E7018-B2L", "AWS A5.5", "111", {"AC", "DCEP"}, (), "none", "all", 520, (None, None), None),
    ("E7010-P1", "AWS A5.5", "111", {"DCEP"}, (), "none", "all", 490, (27, -30), None),
    ("E308L-16", "AWS A5.4", "111", {"AC", "DCEP"}, (), "none", "all", 520, (None, None), None),
    ("E2209-15", "AWS A5.4", "111", {"DCEP"}, (), "none", "all", 690, (None, None), None),
    ("ER70S-6", "AWS A5.18", "135", {"DCEP", "DCEN"}, (), "gas", "all", 490, (27, -30), None),
    ("ER70S-3", "AWS A5.18", "135", {"DCEP", "DCEN"}, (), "gas", "all", 490, (27, -20), None),
    ("E70C-6M H4", "AWS A5.18", "138", {"DCEP"}, (MIX,), "gas", "all", 490, (27, -30), 4),
    ("ER80S-D2", "AWS A5.28", "135", {"DCEP", "DCEN"}, (), "gas", "all", 550, (27, -30), None),
    ("ER100S-1", "AWS A5.28", "135", {"DCEP", "DCEN"}, (), "gas", "all", 690, (68, -50), None),
    ("E71T-1C", "AWS A5.20", "136", {"DCEP"}, ("CO2",), "gas", "all", 490, (27, -20), None),
    ("E71T-1M-JH8", "AWS A5.20", "136", {"DCEP"}, (MIX,), "gas", "all", 490, (27, -40), 8),
    ("E71T-1C/1M", "AWS A5.20", "136", {"DCEP"}, ("CO2", MIX), "gas", "all", 490, (27, -20), None),
    ("E70T-4", "AWS A5.20", "114", {"DCEP"}, (), "self", "flat-horizontal", 490, (None, None), None),
    ("E71T-8", "AWS A5.20", "114", {"DCEN"}, (), "self", "all", 490, (27, -30), None),
    ("E71T-11", "AWS A5.20", "114", {"DCEN"}, (), "self", "all", 490, (None, None), None),
    ("E70T-5M", "AWS A5.20", "136", {"DCEP", "DCEN"}, (MIX,), "gas", "flat-horizontal", 490, (27, -30), None),
    ("E81T1-Ni1C-J H4", "AWS A5.29", "136", {"DCEP"}, ("CO2",), "gas", "all", 550, (27, -40), 4),
    ("E71T8-Ni1 H8", "AWS A5.29", "114", {"DCEN"}, (), "self", "all", 490, (27, -30), 8),
    ("E101T1-K3C", "AWS A5.29", "136", {"DCEP"}, ("CO2",), "gas", "all", 690, (None, None), None),
    ("E308LT1-4", "AWS A5.22", "136", {"DCEP"}, (MIX,), "gas", "all", 520, (None, None), None),
    ("E316LT0-3", "AWS A5.22", "114", {"DCEP"}, (), "self", "flat-horizontal", 485, (None, None), None),
    ("R308LT1-5", "AWS A5.22", "141", {"DCEN"}, ("I1",), "gas", "all", 520, (None, None), None),
    ("ER308LSi", "AWS A5.9", "135", {"DCEP", "DCEN"}, (), "gas", "all", None, (None, None), None),
    ("ER5356", "AWS A5.10", "131", {"DCEP", "AC", "DCEN"}, ("I1", "I3"), "gas", "all", None, (None, None), None),
    ("R4011", "AWS A5.10", "141", ANY, ("I1", "I3"), "gas", "all", None, (None, None), None),
    ("ERCuSi-A", "AWS A5.7", "131", ANY, ("I1", "I2", "I3"), "gas", "all", None, (None, None), None),
    ("ISO 14341-A-G 42 4 M21 3Si1", "ISO 14341-A", "135", {"DCEP"}, ("M21",), "gas", "all", 500, (47, -40), None),
    ("G 50 4 M21 4Mo", "ISO 14341-A", "135", {"DCEP"}, ("M21",), "gas", "all", 560, (47, -40), None),
    ("G 3Si1", "ISO 14341-A", "135", {"DCEP"}, (), "gas", "all", None, (None, None), None),
    ("T 46 3 1Ni P M21 1 H5", "ISO 17632-A", "136", set(), ("M21",), "gas", "all", 530, (47, -30), 5),
    ("T 46 4 M M21 2 H5", "ISO 17632-A", "138", set(), ("M21",), "gas", "all-but-vertical-down", 530, (47, -40), 5),
    ("T 42 3 Y N 1 H10", "ISO 17632-A", "114", set(), (), "self", "all", 500, (47, -30), 10),
    ("E 42 4 B 32 H5", "ISO 2560-A", "111", {"AC", "DCEP", "DCEN"}, (), "none", "all-but-vertical-down", 500, (47, -40), 5),
    ("E 46 3 1Ni B 5 4 H5", "ISO 2560-A", "111", {"AC", "DCEP", "DCEN"}, (), "none", "flat", 530, (47, -30), 5),
    ("E 38 0 RC 11", "ISO 2560-A", "111", {"AC", "DCEP", "DCEN"}, (), "none", "all", 470, (47, 0), None),
    ("F7A2-EM12K", "AWS A5.17", "121", set(), (), "none", "flat-horizontal", 480, (27, -29), None),
    ("F48A3-EM12K", "AWS A5.17", "121", set(), (), "none", "flat-horizontal", 480, (27, -30), None),
    ("F6P0-EL12", "AWS A5.17", "121", set(), (), "none", "flat-horizontal", 415, (27, -18), None),
    ("F7AZ-EH14", "AWS A5.17", "121", set(), (), "none", "flat-horizontal", 480, (None, None), None),
    ("EM12K", "AWS A5.17", "121", set(), (), "none", "flat-horizontal", None, (None, None), None),
    ("F7A4-EC1", "AWS A5.17", "125", set(), (), "none", "flat-horizontal", 480, (27, -40), None),
    ("F8A4-ENi1-Ni1-H8", "AWS A5.23", "121", set(), (), "none", "flat-horizontal", 550, (27, -40), 8),
    ("F9P2-EB3-B3", "AWS A5.23", "121", set(), (), "none", "flat-horizontal", 620, (27, -29), None),
    ("F11A10-EM3-M3", "AWS A5.23", "121", set(), (), "none", "flat-horizontal", 760, (27, -73), None),
    ("S 46 3 AB S2", "ISO 14171-A", "121", set(), (), "none", "flat-horizontal", 530, (47, -30), None),
    ("S 50 4 AB S3Si H5", "ISO 14171-A", "121", set(), (), "none", "flat-horizontal", 560, (47, -40), 5),
    ("S2Mo", "ISO 14171-A", "121", set(), (), "none", "flat-horizontal", None, (None, None), None),
    ("S 69 4 FB S3Ni2.5CrMo", "ISO 26304-A", "121", set(), (), "none", "flat-horizontal", 760, (47, -40), None),
    ("S A AB 1 67 AC H5", "ISO 14174", "121", {"DCEP", "AC"}, (), "none", "flat-horizontal", None, (None, None), 5),
    ("S 19 9 L", "ISO 14343-A", "121", set(), (), "none", "", 510, (None, None), None),
    ("W 46 5 W3Si1", "ISO 636-A", "141", {"DCEN"}, ("I1",), "gas", "all", 530, (47, -50), None),
    ("G 19 9 L Si", "ISO 14343-A", "135", {"DCEP"}, (), "gas", "all", 510, (None, None), None),
    ("E71T1-C1A0-CS1-H8", "AWS A5.36", "136", {"DCEP"}, ("C1",), "gas", "all", 490, (27, -20), 8),
    ("E71T8-A2-CS3-H8", "AWS A5.36", "114", {"DCEN"}, (), "self", "all", 490, (27, -30), 8),
    ("E81T1-M21A5-Ni1", "AWS A5.36", "136", {"DCEP"}, ("M21",), "gas", "all", 550, (27, -45), None),
    ("E70T15-M21A4-CS1-H4", "AWS A5.36", "138", {"DCEP"}, ("M21",), "gas", "flat-horizontal", 490, (27, -40), 4),
    ("ENiCrFe-3", "AWS A5.11", "111", {"DCEP"}, (), "none", "all", 550, (None, None), None),
    ("ERNiCrMo-3", "AWS A5.14", "131", {"DCEP", "DCEN"}, ("I1", "I3"), "gas", "all", 760, (None, None), None),
    ("ISO 17633-A-T 19 9 L P M21 1", "ISO 17633-A", "136", set(), ("M21",), "gas", "all", 510, (None, None), None),
    ("T 19 9 L R M21 3", "ISO 17633-A", "136", set(), ("M21",), "gas", "flat-horizontal", 510, (None, None), None),
    ("T 23 12 L U NO 1", "ISO 17633-A", "114", set(), (), "self", "all", 510, (None, None), None),
    ("ISO 3581-A-E 19 9 L R 12", "ISO 3581-A", "111", {"AC", "DCEP", "DCEN"}, (), "none", "all-but-vertical-down", 510, (None, None), None),
    ("E 22 9 3 N L R 32", "ISO 3581-A", "111", {"AC", "DCEP", "DCEN"}, (), "none", "all-but-vertical-down", 550, (None, None), None),
    ("G 69 4 M21 Mn3Ni1CrMo", "ISO 16834-A", "135", {"DCEP"}, ("M21",), "gas", "all", 760, (47, -40), None),
    ("W 62 5 Mn3Ni1Mo", "ISO 16834-A", "141", {"DCEN"}, ("I1",), "gas", "all", 690, (47, -50), None),
    ("E 69 5 Mn2NiCrMo B 42 H5", "ISO 18275-A", "111", {"DCEP", "DCEN"}, (), "none", "all-but-vertical-down", 760, (47, -50), 5),
    ("T 69 4 Mn2NiCrMo B M21 3 H5", "ISO 18276-A", "136", set(), ("M21",), "gas", "flat-horizontal", 760, (47, -40), 5),
    ("E CrMo1 B 42 H5", "ISO 3580-A", "111", {"DCEP", "DCEN"}, (), "none", "all-but-vertical-down", 510, (None, None), 5),
    ("E CrMo2 B", "ISO 3580-A", "111", set(), (), "none", "", 500, (None, None), None),
    ("G CrMo1Si", "ISO 21952-A", "135", {"DCEP"}, (), "gas", "all", 510, (None, None), None),
    ("W CrMo91", "ISO 21952-A", "141", {"DCEN"}, ("I1",), "gas", "all", 585, (None, None), None),
    ("S Al 5356 (AlMg5Cr(A))", "ISO 18273", "131", ANY, ("I1", "I3"), "gas", "all", None, (None, None), None),
]  # fmt: skip


@pytest.mark.parametrize(
    "text, system, process, polarities, gases, shielding, positions, tensile, impact, hydrogen", VALID
)
def test_what_a_designation_says(
    text, system, process, polarities, gases, shielding, positions, tensile, impact, hydrogen
):
    found = decode(text)
    assert found.valid, found.reason
    assert (found.system, found.process, found.gases) == (system, process, gases)
    assert polarities is ANY or set(found.polarities) == polarities
    assert (found.shielding, found.positions, found.tensile_mpa) == (shielding, positions, tensile)
    assert ((found.impact_j, found.impact_c), found.hydrogen_ml_100g) == (impact, hydrogen)
    assert found.sources.citations
    assert found.sources.unchecked  # all of it is from memory, and says so
    assert decode(found.designation).designation == found.designation


@pytest.mark.parametrize(
    "text, word, meant",
    [
        ("E7010", "suffix", "E7010-P1"),
        ("E6010 H4", "low-hydrogen", "E6010"),
        ("E7018-H5", "mark of ISO", "E7018"),
        ("E8018", "suffix", "E8018-C3"),
        ("E8018-Ni1", "suffix of wire", "E8018-C3"),
        ("E8010-B2", "covering 15, 16 and 18", "E8018-B2"),
        ("E70S-6", "begins with ER", "ER70S-6"),
        ("E70C-6", "gas letter", "E70C-6M"),
        ("ER80S-6", "no class", "ER70S-6"),
        ("E71T-8M", "self-shielded", "E71T-8"),
        ("E72T-1C", "position", "E71T-1C"),
        ("E71T1-C", "wrong place", "E71T-1C"),
        ("E71T-4", "flat and horizontal", "E70T-4"),
        ("E71T-2C-J", "J means nothing", "E71T-2"),
        ("E71T-1Q4", "no class of A5.20", "E71T-1C"),
        ("E61T-1C", "strength 6", "E71T-1"),
        ("E71T8-Ni1M", "self-shielded", "E71T8-Ni1"),
        ("F7A2", "stands the electrode", "F7A2-EM12K"),
        ("F7A2-EM99", "no electrode of A5.17", "F7A2-EM12K"),
        ("F8A4-ENi1", "weld metal behind it", "F8A4-ENi1-Ni1"),
        ("S 46 3 QQ S2", "no type of flux", "S 46 3 AB S2"),
        ("S 46 3 AB S9", "no wire", "S 46 3 AB S2"),
        ("S A XX 1", "no type of flux", "S A AB 1 67 AC H5"),
        ("E81T1-Ni9C", "no deposit", "E81T1-Ni1"),
        ("E308LT1-2", "no gas of A5.22", "E308LT1-4"),
        ("E308LT1-5", "begin with R", "R308LT1-5"),
        ("ER304L", "base metal", "ER308L"),
        ("ER308L-16", "covered electrodes", "E308L-16"),
        ("E308L", "usability", "E308L-16"),
        ("E321-16", "no covered electrode", "E347-16"),
        ("E308LSi-16", "no covered electrode", "E308L-16"),
        ("ER6061", "no filler alloy", "ER4043"),
        ("ER4043-1", "means nothing", "ER4043"),
        ("ERCuSi", "group letter", "ERCuSi-A"),
        ("G 42 1 M21 3Si1", "1 does not exist", None),
        ("G 40 4 M21 3Si1", "40 is no strength", "G 42 4 M21 3Si1"),
        ("T 42 2 P C1 1 H8", "mark of AWS", None),
        ("T 42 2 P N 1 H10", "needs a gas", "T 42 2 P C1 1 H10"),
        ("T 42 2 V N 1", "single runs", "T 4T 2 V N 1"),
        ("E 42 4 B 92 H5", "efficiency", "E 42 4 B 32 H5"),
        ("E 42 4 X 32 H5", "covering", "E 42 4 B 32 H5"),
        ("E 42 0 RR 12 H5", "basic coverings", "E 42 4 B 32 H5"),
        ("W 42 5 M21 3Si1", "no gas mark", "W 42 5 3Si1"),
        ("W 42 5 3Si1 H5", "no hydrogen mark", "W 42 5 3Si1"),
        ("G 308L", "number of AWS", "G 19 9 L"),
        ("S Al 6061", "no filler alloy", "S Al 4043"),
        ("S ER5356", "stands Al", "S Al 4043"),
        ("S Al 5356 (AlSi5)", "and not ALSI5", "S Al 5356 (AlMg5Cr(A))"),
        ("ERNiCr-9", "no nickel class", "ERNiCr-3"),
        ("E71T1-C1A1-CS1", "no impact mark", "E71T1-C1A0-CS1-H8"),
        ("E71T8-M21A2-CS3", "self-shielded", None),
        ("E71T1-A2-CS1", "needs a gas mark", None),
        ("E72T1-C1A2-CS1", "position", None),
        ("E71T1-C1A2-XY9", "no deposit", None),
        ("E71T1-C1A2", "stands the deposit", None),
        ("T 19 9 L", "type of core", "T 19 9 L P M21 1"),
        ("E 19 9 L 12", "covering", "E 19 9 L R 12"),
        ("G 69 4 M21 3Si1", "no alloy of ISO 16834", "G 69 4 M21 Mn3Ni1CrMo"),
        ("E 69 5 Mn3Ni1CrMo B 42", "no alloy of ISO 18275", None),
        ("E CrMo1 C 42", "covering", None),
        ("E4918", "system B", None),
        ("", "nothing was typed", None),
        ("x" * 500, "too many", None),
    ],
)
def test_refusals_say_why_and_what_may_be_meant(text, word, meant):
    found = decode(text)
    assert not found.valid
    assert word in found.reason
    if meant:
        assert meant in found.suggestions
    assert all(decode(one).valid for one in found.suggestions)


@pytest.mark.parametrize(
    "text, same",
    [
        ("e71t-1c", "E71T-1C"),
        ("E71T–1C", "E71T-1C"),
        ("  E71T-1C  ", "E71T-1C"),
        ("AWS A5.20: E71T-1C", "E71T-1C"),
        ("E491T-1C", "E71T-1C"),
        ("ER49S-6", "ER70S-6"),
        ("E7018 - 1", "E7018-1"),
        ("G 46 4 M G4Si1", "G 46 4 M 4Si1"),
        ("E81T1-NI1C", "E81T1-Ni1C"),
        ("E 42 4 B 3 2 H5", "E 42 4 B 32 H5"),
    ],
)
def test_spellings(text, same):
    assert decode(text).designation == same


def test_older_spellings_are_explained():
    assert "older spelling" in " ".join(decode("E71T-1").notes)
    assert decode("E71T-1").gases == ("CO2",)
    assert "metric" in " ".join(decode("ER48S-6").notes)


def test_limits_that_matter_at_the_bench():
    assert decode("E71T-11").thickness_max_mm == 19
    assert decode("E70T-3").runs == "single"
    assert decode("E7018").low_hydrogen is True
    assert decode("E6010").low_hydrogen is False
    assert "65 °C" in " ".join(decode("ER5356").notes)
    assert "65 °C" not in " ".join(decode("ER5554").notes)


def built_from_the_grammar():
    """Designations that no list here holds, put together from the parts of their grammar."""
    for use, row in rows("a5_20").items():
        if use in ("G", "GS"):
            continue
        for position in row["position_digits"]:
            for gas in ("C", "M") if row["shielding"] == "gas" else ("",):
                j = "-J" if row["runs"] == "multi" else ""
                yield f"E7{position}T-{use}{gas}{j} H8"
    for deposit in rows("a5_29_deposit"):
        yield f"E100T5-{deposit}M H16"
    for alloy in rows("a5_22"):
        yield f"E{alloy}T0-1"
    for strength in ("35", "38", "42", "46", "50"):
        for symbol in rows("iso_wire"):
            yield f"G {strength} 6 M20 {symbol}"
            yield f"W {strength} Z {symbol}"
        for deposit in ("MO", "1NI", "MN1NI", "1NIMO"):
            yield f"T {strength} 5 {deposit} B M21 3 H10"
            yield f"E {strength} A {deposit} B 4 5 H15"
    for row in rows("a5_5").values():
        for strength in row["strengths"]:
            for covering in row["coverings"]:
                yield f"E{strength}{covering}{'' if row['suffix'] in ('M', 'M1') else '-'}{row['suffix']}"
    for symbol in rows("iso_14343"):
        yield f"G {symbol}"


@pytest.mark.parametrize("text", sorted(set(built_from_the_grammar())))
def test_unseen_designations_decode(text):
    found = decode(text)
    assert found.valid, found.reason
    assert found.meaning


@given(st.text(max_size=100) | st.from_regex(r"\AE[0-9RTCSL.\- /HJDQMNiABG]{0,14}\Z"))
def test_no_text_breaks_it(text):
    found = decode(text)
    assert found.valid != bool(found.reason)
    assert all(decode(one).valid for one in found.suggestions)


def test_command_line(capsys):
    assert main(["decode", "E71T-1M-JH8"]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert (answer["valid"], answer["process"], answer["hydrogen_ml_100g"]) == (True, "136", 8)
    assert [token["text"] for token in answer["meaning"]] == ["E", "7", "1", "T", "1", "M", "J", "H8"]
    assert main(["decode", "E70S-6"]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert answer["valid"] is False
    assert answer["suggestions"] == ["ER70S-6"]
