"""Arc energy and heat input: worked checks, and every figure a second way."""

import json
from pathlib import Path

import numpy as np
import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import trapezoid

from welding.errors import OutOfRangeError, UnknownEntryError
from welding.heat import energy
from welding.heat.pulse import rectangular_pulse
from welding.ranges import Range

UNITS = pint.UnitRegistry()
positive = st.floats(min_value=0.5, max_value=500)


def test_us_worked_check():
    # AWS form V·I·60/travel, from memory: 25 V, 250 A, 10 in/min = 37.5 kJ/in = 1.4764 kJ/mm.
    assert energy.arc_energy_kj_in(voltage_v=25, current_a=250, travel_in_min=10) == 37.5
    assert energy.arc_energy_kj_mm(voltage_v=25, current_a=250, travel_mm_min=254) == pytest.approx(
        1.4764, abs=5e-5
    )


@pytest.mark.parametrize(
    "process, volts, amps, mm_s, expected",
    [
        ("111", 24, 150, 3.0, 0.960),  # EN 1011-1 form, k 0.8, from memory
        ("141", 11, 90, 1.2, 0.495),  # k 0.6
    ],
)
def test_heat_input_with_k(process, volts, amps, mm_s, expected):
    arc_energy = energy.arc_energy_kj_mm(voltage_v=volts, current_a=amps, travel_mm_min=mm_s * 60)
    assert energy.thermal_efficiency(process).k * arc_energy == pytest.approx(expected, abs=5e-4)


def test_measured_energy():
    assert energy.arc_energy_from_energy_kj_mm(energy_j=45_000, length_mm=150) == pytest.approx(0.3)


@given(positive, positive, positive)
def test_against_pint(volts, amps, travel):
    second = (
        (UNITS.Quantity(volts, "V") * UNITS.Quantity(amps, "A") / UNITS.Quantity(travel, "mm/min"))
        .to("kJ/mm")
        .magnitude
    )
    ours = energy.arc_energy_kj_mm(voltage_v=volts, current_a=amps, travel_mm_min=travel)
    assert ours == pytest.approx(second)
    assert energy.travel_for_energy_mm_min(
        voltage_v=volts, current_a=amps, energy_kj_mm=ours
    ) == pytest.approx(travel)


def test_measured_energy_against_an_integral():
    # 10 s at 180 mm/min with a rippled arc: E = integral of v·i dt, numerically.
    time = np.linspace(0, 10, 200_001)
    volts = 24 + 2 * np.sin(2 * np.pi * 50 * time)
    amps = 200 + 60 * np.sin(2 * np.pi * 50 * time)
    joules = trapezoid(volts * amps, time)
    by_energy = energy.arc_energy_from_energy_kj_mm(energy_j=float(joules), length_mm=30)
    by_power = energy.arc_energy_from_power_kj_mm(power_w=float(joules) / 10, travel_mm_min=180)
    by_means = energy.arc_energy_kj_mm(voltage_v=24, current_a=200, travel_mm_min=180)
    assert by_energy == pytest.approx(by_power)
    # In phase, the ripple adds half the product of its amplitudes: 60 W of 4800 W.
    assert by_energy / by_means == pytest.approx(1 + 60 / 4800, rel=1e-4)


@given(st.tuples(positive, positive), st.tuples(positive, positive), st.tuples(positive, positive))
def test_range_bounds_all_corners(volts, amps, travel):
    v, i, s = (Range(min(pair), max(pair)) for pair in (volts, amps, travel))
    found = energy.arc_energy_range_kj_mm(voltage_v=v, current_a=i, travel_mm_min=s)
    corners = [
        energy.arc_energy_kj_mm(voltage_v=a, current_a=b, travel_mm_min=c)
        for a in (v.min, v.max)
        for b in (i.min, i.max)
        for c in (s.min, s.max)
    ]
    assert found.min == pytest.approx(min(corners))
    assert found.max == pytest.approx(max(corners))


def test_fewer_amps_can_be_hotter():
    # Common practice, volts and travel invented: 100 A at 3 in/min is hotter than 120 A at 4.
    slow = energy.arc_energy_kj_in(voltage_v=10, current_a=100, travel_in_min=3)
    fast = energy.arc_energy_kj_in(voltage_v=10, current_a=120, travel_in_min=4)
    assert (slow, fast) == (pytest.approx(20.0), pytest.approx(18.0))


@pytest.mark.parametrize(
    "peak, background, share, mean",
    [
        (100, 5, 0.30, 33.5),
        (100, 10, 0.50, 55.0),
        (100, 35, 0.30, 54.5),
        (100, 50, 0.70, 85.0),
    ],
)  # common practice, arithmetic
def test_pulse_means_against_a_sampled_wave(peak, background, share, mean):
    found = rectangular_pulse(peak_a=peak, background_a=background, peak_share=share)
    wave = np.where(np.arange(10_000) < share * 10_000, peak, background).astype(float)
    assert found.mean_a == pytest.approx(mean)
    assert found.mean_a == pytest.approx(wave.mean())
    assert found.rms_a == pytest.approx(np.sqrt((wave**2).mean()))


def test_pulse_power_is_not_the_product_of_means():
    # Worked check: 423 W true, 9.9 V x 37 A = 366.3 W apparent, 13.4 % low.
    found = rectangular_pulse(peak_a=100, background_a=10, peak_share=0.3, peak_v=12, background_v=9)
    assert found.mean_power_w == pytest.approx(423)
    assert found.apparent_power_w == pytest.approx(366.3)


def test_k_is_known_or_refused_never_guessed():
    assert {p: energy.thermal_efficiency(p).k for p in ("111", "121", "135", "136", "141")} == {
        "111": 0.8,
        "121": 1.0,
        "135": 0.8,
        "136": 0.8,
        "141": 0.6,
    }
    with pytest.raises(UnknownEntryError, match="311"):
        energy.thermal_efficiency("311")


@pytest.mark.parametrize(
    "call, arguments",
    [
        (energy.arc_energy_kj_mm, {"voltage_v": 0, "current_a": 1, "travel_mm_min": 1}),
        (energy.arc_energy_kj_in, {"voltage_v": 1, "current_a": -1, "travel_in_min": 1}),
        (energy.arc_energy_from_energy_kj_mm, {"energy_j": 1, "length_mm": 0}),
        (energy.arc_energy_from_power_kj_mm, {"power_w": 1, "travel_mm_min": float("nan")}),
        (energy.travel_mm_min, {"length_mm": 1, "time_s": 0}),
        (energy.travel_for_energy_mm_min, {"voltage_v": 1, "current_a": 1, "energy_kj_mm": 0}),
        (rectangular_pulse, {"peak_a": 1, "background_a": 1, "peak_share": 1.5}),
    ],
)
def test_documented_refusals(call, arguments):
    with pytest.raises(OutOfRangeError):
        call(**arguments)


ENERGY_CASES = json.loads((Path(__file__).parent / "cases" / "energy.json").read_text())


@pytest.mark.parametrize("case", ENERGY_CASES["energies"], ids=str)
def test_the_case_table_that_the_browser_shares(case):
    given = [case[name] for name in ("voltage_v", "current_a", "time_s", "length_mm")]
    if case["kj_mm"] is None:
        # the browser gives nothing; the core refuses what it cannot reckon with
        if None not in given:
            with pytest.raises(OutOfRangeError):
                energy.travel_mm_min(length_mm=given[3], time_s=given[2])
        return
    volts, amps, time_s, length_mm = given
    travel = energy.travel_mm_min(length_mm=length_mm, time_s=time_s)
    found = energy.arc_energy_kj_mm(voltage_v=volts, current_a=amps, travel_mm_min=travel)
    assert found == pytest.approx(case["kj_mm"], rel=1e-5)


@pytest.mark.parametrize("case", ENERGY_CASES["bands"], ids=str)
def test_the_bands_that_the_browser_shares(case):
    assert Range(case["min"], case["max"]).holds(case["value"]) == case["inside"]
