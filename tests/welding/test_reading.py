"""Reading of quantities, against a case table and against reference libraries."""

import math
import tomllib
from pathlib import Path

import pint
import pytest
from fluids.piping import nearest_pipe
from hypothesis import given
from hypothesis import strategies as st

from welding.codebook.table import load_table
from welding.consumables.gas import gas_text, read_gas
from welding.errors import UnreadableError
from welding.quantities.kinds import KINDS
from welding.quantities.reading import PipeReading, read_any, read_quantity, read_range
from welding.quantities.units import to_us
from welding.quantities.writing import number_text, quantity_text, range_text
from welding.ranges import Range

CASES = tomllib.loads((Path(__file__).parent / "cases/reading.toml").read_text())


@pytest.mark.parametrize("case", CASES["case"], ids=lambda c: c["text"])
def test_reads(case):
    read = read_any(case["text"], kind=case.get("kind"), shown_unit=case.get("shown_unit"))
    assert read.value == pytest.approx(case["value"], rel=1e-5)
    assert read.unit == case["unit"]


@pytest.mark.parametrize("case", CASES["refusal"], ids=lambda c: c["text"] or "empty")
def test_refuses_with_a_reason(case):
    with pytest.raises(UnreadableError, match=case["reason"]):
        read_any(case["text"], kind=case.get("kind"))


def test_ten_thousand_characters_are_refused():
    with pytest.raises(UnreadableError, match="10000 characters"):
        read_any("1" * 10_000)


@pytest.mark.parametrize("nps, schedule", [(0.5, "80"), (1.5, "40"), (2, "40"), (6, "40"), (2, "10S")])
def test_pipes_against_the_pipe_tables_of_fluids(nps, schedule):
    _, _, outside, wall = nearest_pipe(NPS=nps, schedule=schedule)
    read = read_any(f"{nps}in sch{schedule}")
    assert isinstance(read, PipeReading)
    assert read.outside_diameter_mm == pytest.approx(outside * 1000, abs=0.06)
    assert read.wall_mm == pytest.approx(wall * 1000, abs=0.006)


def test_two_inch_schedule_40():
    # ASME B36.10M in its metric column: 60.3 x 3.91.
    read = read_any("2in sch40")
    assert (read.outside_diameter_mm, read.wall_mm) == (60.3, 3.91)
    assert read_any("DN50 sch 40").wall_mm == 3.91


def test_steel_gauges_against_their_definition():
    # Manufacturers' standard gauge is a weight: oz/ft² / 16 / 41.82 lb/ft² per inch. The ounces are
    # the definition's, from memory (the oracle does not read our table).
    ounces = {7: 120, 10: 90, 11: 80, 12: 70, 14: 50, 16: 40, 18: 32, 20: 24, 22: 20, 24: 16}
    table = {row["gauge"]: row["steel_in"] for row in load_table("welding.quantities", "sheet_gauges").rows}
    for gauge, weight in ounces.items():
        assert table[gauge] == pytest.approx(weight / 16 / 41.82, abs=6e-5), gauge


@pytest.mark.parametrize(
    "text, kind, low, high",
    [
        ("165-200 A", "current", 165, 200),
        ("24.5 to 26", "voltage", 24.5, 26),
        ("180 ± 10", "current", 170, 190),
        ("9-10 ipm", "travel", 228.6, 254),
        ("3/32-1/8", "wire_diameter", 2.38125, 3.175),
        ("12–16 l/min", "flow", 12, 16),
        ("-20 - 10 C", "temperature", -20, 10),
        ("100±10 F", "temperature", 32.222222, 43.333333),
        ("180", "current", 180, 180),
    ],
)
def test_ranges(text, kind, low, high):
    read = read_range(text, kind=kind)
    assert (read.min, read.max) == (pytest.approx(low), pytest.approx(high))


@pytest.mark.parametrize(
    "text, reason",
    [
        ("200-100", "backwards"),
        ("1-1/2", "one number or two"),
        ("100-5000", "plausible"),
        ("20-25 kg", "mass"),
    ],
)
def test_refused_ranges(text, reason):
    with pytest.raises(UnreadableError, match=reason):
        read_range(text, kind="gap" if "/" in text else "current")


PINT = pint.UnitRegistry()
US = {"in": "inch", "in/min": "inch/minute", "ft³/h": "foot**3/hour", "kJ/in": "kJ/inch"}
SI = {"mm": "mm", "mm/min": "mm/min", "m/min": "m/min", "L/min": "L/min", "kJ/mm": "kJ/mm"}


@given(
    st.sampled_from(["length", "travel", "wire_feed", "flow", "heat_input"]),
    st.floats(min_value=0.2, max_value=50),
)
def test_us_display_and_back_against_pint(kind_name, value):
    kind = KINDS[kind_name]
    expected = PINT.Quantity(value, SI[kind.unit]).to(US[kind.us_unit]).magnitude
    assert to_us(value, kind_name) == pytest.approx(expected, rel=1e-9)
    again = read_quantity(f"{to_us(value, kind_name):.12f} {kind.us_unit}", kind=kind_name)
    assert math.isclose(again.value, value, rel_tol=1e-6)


@given(st.text(max_size=60))
def test_no_text_breaks_the_reader(text):
    for kind in (None, "flow", "thickness"):
        try:
            read_any(text, kind=kind)
        except UnreadableError as error:
            assert str(error)  # noqa: PT017


def test_writing():
    assert quantity_text(6350, "travel", "us") == "250 in/min"
    assert range_text(Range(1.2, 1.2), "heat_input") == "1.20 kJ/mm"
    assert range_text(Range(165, 200), "current") == "165–200 A"
    assert number_text(0.0, "gap") == "0"


@pytest.mark.parametrize(
    "text, shares",
    [
        ("Ar+18CO2", {"Ar": 82, "CO2": 18}),
        ("82Ar/18CO2", {"Ar": 82, "CO2": 18}),
        ("C25", {"Ar": 75, "CO2": 25}),
        ("argon", {"Ar": 100}),
        ("CO₂", {"CO2": 100}),
        ("90He/7.5Ar/2.5CO2", {"He": 90, "Ar": 7.5, "CO2": 2.5}),
        ("Ar + 5 O2", {"Ar": 95, "O2": 5}),
    ],
)
def test_gases(text, shares):
    assert read_gas(text) == pytest.approx(shares)
    assert read_gas(gas_text(shares)) == pytest.approx(shares)


@pytest.mark.parametrize(
    "text, reason",
    [
        ("98/2", "does not name"),
        ("Ar+120CO2", "leave nothing"),
        ("Xe", "no gas"),
        ("Ar+CO2", "not said"),
        ("", "nothing"),
        ("80Ar/10CO2", "sum to 90"),
    ],
)
def test_refused_gases(text, reason):
    with pytest.raises(UnreadableError, match=reason):
        read_gas(text)
