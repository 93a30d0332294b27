"""Writing quantities: one case table with the screen (web/src/domain/quantity.test.ts)."""

import json
from pathlib import Path

import pytest

from welding.quantities.kinds import KINDS
from welding.quantities.units import us_scale
from welding.quantities.writing import number_text, quantity_text, range_text
from welding.ranges import Range

TABLE = json.loads((Path(__file__).parent / "cases" / "writing.json").read_text())


def test_the_table_describes_the_kinds_as_they_are():
    for name, said in TABLE["kinds"].items():
        kind = KINDS[name]
        scale, offset = us_scale(kind)
        assert said == {
            "name": name,
            "unit": kind.unit,
            "us_unit": kind.us_unit,
            "us_scale": pytest.approx(scale),
            "us_offset": pytest.approx(offset),
            "decimals": kind.decimals,
            "us_decimals": kind.us_decimals,
            "us_fraction": kind.us_fraction,
            "us_fraction_from": kind.us_fraction_from,
        }


@pytest.mark.parametrize("case", TABLE["numbers"], ids=lambda case: f"{case['kind']}-{case['value']}")
@pytest.mark.parametrize("system", ["si", "us"])
def test_numbers(case, system):
    assert number_text(case["value"], case["kind"], system) == case[system]


@pytest.mark.parametrize("case", TABLE["ranges"], ids=lambda case: f"{case['kind']}-{case['min']}")
@pytest.mark.parametrize("system", ["si", "us"])
def test_ranges(case, system):
    unit = KINDS[case["kind"]].unit if system == "si" else KINDS[case["kind"]].us_unit
    assert range_text(Range(case["min"], case["max"]), case["kind"], system) == f"{case[system]} {unit}"


def test_advised_limits_round_to_their_safe_side():
    # 233.4 mm/min at least: 234, not 233; at most: 233, not 234. A hair above a whole number is that number.
    assert quantity_text(233.4, "travel", rounding="up") == "234 mm/min"
    assert quantity_text(233.6, "travel", rounding="down") == "233 mm/min"
    assert quantity_text(233.0000001, "travel", rounding="up") == "233 mm/min"


@pytest.mark.parametrize("value", [1e15, 3e30, 1e300, float("inf")])
@pytest.mark.parametrize("rounding", ["nearest", "up", "down"])
def test_a_number_beyond_all_sense_is_written_and_raises_nothing(value, rounding):
    for kind in ("heat_input", "travel", "temperature"):
        for system in ("si", "us"):
            assert number_text(value, kind, system, rounding)
            assert number_text(-value, kind, system, rounding)
