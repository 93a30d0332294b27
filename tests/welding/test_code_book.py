"""The code book: every table stands in it, every number is found by its id, and a correction is heard."""

import re
from contextlib import suppress
from pathlib import Path

import pytest

import welding
from tests.welding import samples
from welding.arc.relations import current_for_thickness, wire_range
from welding.codebook.book import Book, Correction, using
from welding.codebook.catalogue import all_editions
from welding.codebook.contents import SUBJECTS, find_number, part, part_of, parts, problem_of
from welding.codebook.table import parse_table
from welding.consumables.designations.decode import decode
from welding.consumables.gas_symbol import gas_symbol
from welding.documents.codec import INTENT, PROCEDURE
from welding.errors import UnknownEntryError, WeldingError
from welding.evaluate.procedure import evaluate
from welding.heat.by_metal import copper_preheat
from welding.heat.cooling import cooling_time
from welding.heat.energy import thermal_efficiency
from welding.heat.method_a import hydrogen_scale
from welding.metals.catalogue import find
from welding.planning.propose import propose
from welding.welders.catalogue import welder_editions


def numbers():
    return [n for one in parts() for t in part(one.code).tables for r in t.rows for n in r.numbers]


def test_every_table_stands_in_the_book():
    """But for the glossary, which has words and no numbers."""
    root = Path(welding.__file__).parent
    files = root.rglob("tables/*.toml")
    tables = {parse_table(one.name, one.read_text()).id for one in files} - {"terms", "values", "rules"}
    shown = {table.id for one in parts() for table in part(one.code).tables}
    assert len(tables) > 100 and tables == shown
    assert {one.code for one in parts()} == {
        *all_editions(),
        *welder_editions(),
        *(code for code, _, _ in SUBJECTS),
    }


def test_every_number_has_an_id_and_can_be_found_by_it():
    seen = [one.id for one in numbers()]
    assert len(seen) == len(set(seen)) > 10_000
    for number in seen[::97]:
        assert find_number(number).id == number
    assert sum(one.numbers for one in parts()) == len(seen)


def test_the_part_of_a_row_is_found_and_an_unknown_part_is_named():
    assert part_of("thermal_efficiency/141") == part_of("thermal_efficiency") == "heat"
    assert part_of("aws_d1_1_2020.groove_tests/plate-thin") == "aws-d1.1:2020"
    assert part_of("nowhere/x") == ""
    with pytest.raises(UnknownEntryError, match="metals"):
        part("cheese")


@pytest.mark.parametrize(
    "number, value, fine",
    [
        ("aws_d1_1_2020.groove_tests/plate-thin/max_factor", 2.5, True),
        ("aws_d1_1_2020.groove_tests/plate-thin/max_factor", "2", False),
        ("aws_d1_1_2020.groove_tests/plate-thin/max_factor", True, False),
        ("aws_d1_1_2020.groove_tests/plate-thin/max_factor", -2, False),
        ("aws_d1_1_2020.test_positions/plate-3G/groove", ("1G", "3G"), True),
        ("aws_d1_1_2020.test_positions/plate-3G/groove", (1, 2), False),
        ("iso_15614_1_2017.variables/mechanisation.1/rule", "free", True),
        ("iso_15614_1_2017.variables/mechanisation.1/rule", " ", False),
        ("iso_15614_1_2017.nowhere/x/y", 1, False),
        # Outside the editions rows are looked up by words: those are confirmed only.
        ("thermal_efficiency/141/k", 0.7, True), ("wire_current/short-0.8/kind", "spray", False),
        ("iso_14175/M20/CO2", {"over": 5.0, "to": 14.0}, True), ("iso_14175/M20/CO2", {"over": 5.0}, False),
        ("iso_14175/M20/CO2", {"over": 5.0, "to": "x"}, False), ("iso_14175/M20/base", "He", False),
    ],
)  # fmt: skip
def test_a_correction_is_of_the_kind_that_stands_there(number, value, fine):
    problem = problem_of(Correction(id=number, action="correct", value=value))
    assert (problem is None) == fine, problem


def corrected(number, value):
    return using(Book({number: Correction(id=number, action="correct", value=value)}))


HEARD = [
    ("thermal_efficiency/141/k", 0.7, lambda: thermal_efficiency("141").k),
    ("iso_14175/M20/CO2", {"over": 5.0, "to": 12.0}, lambda: gas_symbol({"Ar": 85.0, "CO2": 15.0}).iso_14175),
    ("grades/S355J2/tensile_mpa", 999, lambda: find("S355J2").tensile_mpa),
    ("current_law/tig/base", 60, lambda: current_for_thickness("tig", 6.0).value),
    ("wire_current/short-0.8/max_a", 77, lambda: wire_range("short", 0.8)[0].max),
    ("copper_preheat/4 to 8 mm/usual_c", 320, lambda: copper_preheat(6.0)[0]),
    ("shape_factors/plate/f2_min", 0.5, lambda: cooling_time(1.0, 100.0, 8.0, "plate")),
    ("hydrogen_scales/D/over_ml_100g", 4.5, lambda: hydrogen_scale(4.0)),
    ("aws_tensile/80/tensile_mpa", 555, lambda: decode("E8018-C3").tensile_mpa),
]
"""Answers that are kept for speed, with a number behind each."""


@pytest.mark.parametrize("number, value, answer", HEARD, ids=[one[0] for one in HEARD])
def test_a_correction_is_heard_at_once_and_only_while_its_book_is_in_force(number, value, answer):
    assert problem_of(Correction(id=number, action="correct", value=value)) is None
    before = answer()
    with corrected(number, value):
        assert answer() != before
    assert answer() == before


def changed(value):
    """The value as another copy might print it; ``None`` where it is words."""
    if isinstance(value, (bool, str)):
        return None
    if isinstance(value, (int, float)):
        return value * 1.25
    if isinstance(value, dict):
        found = {name: changed(one) for name, one in value.items()}
        return None if None in found.values() else found
    found = tuple(changed(one) for one in value)
    return None if None in found else found


EVERY = 90
"""One number of so many is tried in each run; which ones goes with how many there are."""


def lower_ends():
    """Lower ends of ranges in tables outside the editions."""
    ends = [one for one in numbers() if re.search(r"/(\w+_)?min(_\w+)?$", one.id) and "_1_20" not in one.id]
    return [one for one in ends if one.value]


def test_a_lower_end_that_has_passed_the_upper_one_stops_nothing():
    """Until the upper one is corrected as well the range lies between the two."""
    intent = planned()
    for number in lower_ends():
        with corrected(number.id, number.value * 40):
            evaluate(PROCEDURE.take(samples.procedure()))
            with suppress(WeldingError):
                propose(INTENT.take(intent))


def planned():
    return {
        "format": "grounded-bead/intent", "version": 1, "metals": ["S355J2+N"], "thickness_mm": [20],
        "joint": {"kind": "butt", "weld": "cjp-groove"}, "position": "PA", "process": "135",
    }  # fmt: skip


def test_no_correction_of_a_number_stops_the_program():
    intent = planned()
    every = [one for one in numbers() if changed(one.value) is not None]
    for number in every[::EVERY]:
        value = changed(number.value)
        assert problem_of(Correction(id=number.id, action="correct", value=value)) is None, number.id
        with corrected(number.id, value):
            evaluate(PROCEDURE.take(samples.procedure()))
            with suppress(WeldingError):  # what can no longer be planned is refused with a reason
                propose(INTENT.take(intent))
