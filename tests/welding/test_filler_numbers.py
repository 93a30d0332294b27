"""Strengths and marks of fillers reckoned a second way: units by pint, systematics by hand."""

import re

import pint
import pytest

from welding.consumables.designations.decode import decode
from welding.consumables.designations.text import rows

UNITS = pint.UnitRegistry()


def every_steel_class():
    """Each class of the tables whose name states its tensile strength, with that strength in ksi."""
    for table in ("a5_1", "a5_18", "a5_28"):
        for row in rows(table).values():
            name = str(row["class"])
            yield name, int(re.match(r"ER?(\d{2,3})(?=\d\d\b|\d\d-|\d\dM|[SC])", name)[1])
    for row in rows("a5_5").values():
        for strength in row["strengths"]:
            mark = row["suffix"] if row["suffix"] in ("M", "M1") else f"-{row['suffix']}"
            yield f"E{strength}{row['coverings'][0]}{mark}", int(strength)
    for use, row in rows("a5_20").items():
        gas = "C" if row["shielding"] == "gas" and use not in ("G", "GS") else ""
        yield f"E7{row['position_digits'][0]}T-{use}{gas}", 70
    for row in rows("a5_29_deposit").values():
        for ksi in (70, 80, 90, 100, 110, 120):
            yield f"E{ksi}T5-{row['deposit']}C", ksi


def asked_of_the_weld_metal(name, ksi):
    """From memory: the 60s of A5.1 print 430 MPa, as the 62 ksi of before; these 70s ask for 75 ksi."""
    if ksi == 60:
        return 62
    return 75 if name in ("E7015-B2L", "ER70S-A1", "ER70S-B2L", "E70C-B2L") else ksi


@pytest.mark.parametrize("name, ksi", sorted(set(every_steel_class())))
def test_mpa_beside_ksi(name, ksi):
    found = decode(name)
    assert found.valid, found.reason
    expected = UNITS.Quantity(asked_of_the_weld_metal(name, ksi), "ksi").to("MPa").magnitude
    assert found.tensile_mpa == pytest.approx(expected, abs=10)  # the standards round to tens


@pytest.mark.parametrize("number", ["35", "38", "42", "46", "50"])
@pytest.mark.parametrize("form", ["G {} 4 M21 3Si1", "W {} 4 3Si1", "T {} 4 P M21 1", "E {} 4 B 32"])
def test_yield_is_ten_times_the_strength_number_of_system_a(number, form):
    found = decode(form.format(number))
    assert found.yield_mpa == {"35": 355}.get(number, 10 * int(number))
    assert found.yield_mpa < found.tensile_mpa


@pytest.mark.parametrize("mark, at_c", [("A", 20), ("0", 0), *((str(n), -10 * n) for n in range(2, 7))])
@pytest.mark.parametrize(
    "form", ["G 42 {} M21 3Si1", "W 42 {} 3Si1", "T 42 {} B M21 1 H5", "E 42 {} B 32 H5"]
)
def test_impact_mark_is_the_temperature_in_tens_below_zero(mark, at_c, form):
    found = decode(form.format(mark))
    assert (found.impact_j, found.impact_c) == (47, at_c)
    assert found.designation == form.format(mark)


@pytest.mark.parametrize("form", ["G 42 Z M21 3Si1", "W 42 Z 3Si1", "T 42 Z B M21 1", "E 42 Z B 32"])
def test_z_asks_for_no_impact(form):
    assert (decode(form).impact_j, decode(form).impact_c) == (None, None)


@pytest.mark.parametrize(
    "text, word, meant",
    [
        ("E71T-1C H4R", "no class of A5.20", "E71T-1C"),  # R is a mark of covered electrodes
        ("E91T-1C", "higher ones are in A5.29", "E71T-1C"),
        ("E71T-77C", "no usability", "E71T-1C"),
        ("E51T1-Ni1C", "no beginning of A5.29", "E81T1-Ni1C"),
        ("E71T1-M29A2-CS1", "no group", None),
        ("E308LT2-4", "position", "E308LT1-4"),
        ("R308LT1-1", "-5 or -G", "E308LT1-1"),
        ("ER70C-6M", "not with ER", "E70C-6M"),
        ("ER50S-6", "no class", "ER70S-6"),
        ("ER120S-9", "no class", "ER120S-1"),
        ("E6018-1", "does not exist", "E7018-1"),
        ("E9018", "always has a suffix", "E9018-B3"),
        ("E7018-B99", "no suffix", "E7018-G"),
        ("E308L-18", "no usability of A5.4", "E308L-16"),
        ("G 55 4 M21 3Si1", "16834", None),
        ("G 42 4 X9 3Si1", "no gas mark", None),
        ("G 42 4 M21 9Zz", "no wire symbol", "G 42 4 M21 3Si1"),
        ("G 42 4 M21 3Si1 H5", "not expected at the end", "G 42 4 M21 3Si1"),  # solid wire has no H mark
        ("T 42 3 Y M21 1", "self-shielded", "T 42 3 Y N 1 H10"),
        ("T 46 4 K M21 1", "type of core", "T 46 4 P M21 1 H5"),
        ("T 19 12 3 L", "type of core", "T 19 12 3 L P M21 1"),
        ("T 46 4 2Ni2 P M21 1", "core", None),
        ("E 42 7 B 32", "2 to 6", "E 42 4 B 32 H5"),
        ("E 4T 2 B 32", "35 to 50", "E 42 4 B 32 H5"),
        ("E 42 4 B 36", "no position digit", "E 42 4 B 32 H5"),
        ("E 42 4 B 32 H7", "no mark", None),
        ("ISO 14341-A-X", "stands G, T, E, W", None),
    ],
)
def test_more_refusals(text, word, meant):
    found = decode(text)
    assert not found.valid
    assert word in found.reason
    assert meant is None or meant in found.suggestions
