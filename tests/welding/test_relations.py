"""Relations of starting settings: fitted again, tested on the points left out, and on facts of the trade."""

import math
import tomllib
from pathlib import Path

import numpy as np
import pytest
from scipy.optimize import least_squares

from welding.arc.relations import (
    arc_volts,
    bead_shape,
    current_a,
    current_for_thickness,
    travel_range,
    wire_feed_m_min,
    wire_range,
)
from welding.codebook.table import load_table
from welding.deposit.laid import bead_area_middle_mm2, density_g_cm3, deposition_yield, weld_metal
from welding.documents.codec import PASS

POINTS = tomllib.loads((Path(__file__).parent / "cases" / "burn_off.toml").read_text())["points"]


def of(kind, use):
    return [p for p in POINTS if p["kind"] == kind and p["use"] == use]


def law(coefficients, point):
    area = math.pi / 4 * point["diameter_mm"] ** 2
    amps = point["current_a"]
    return 0.06 * (
        coefficients[0] * amps / area + coefficients[1] * 1e-4 * point["extension_mm"] * amps**2 / area**2
    )


@pytest.mark.parametrize("kind", ["solid-steel", "cored-rutile"])
def test_the_melting_law_is_the_fit_of_its_points(kind):
    fitted = least_squares(
        lambda c: [math.log(law(c, p) / p["feed_m_min"]) for p in of(kind, "fit")], [0.3, 0.6]
    ).x
    row = next(r for r in load_table("welding.arc", "burn_off").rows if r["kind"] == kind)
    assert row["m1"] == pytest.approx(fitted[0], rel=0.01)
    assert row["m2"] == pytest.approx(fitted[1] * 1e-4, rel=0.01)


def errors(kind, use):
    return [
        wire_feed_m_min(kind, p["diameter_mm"], p["current_a"], p["extension_mm"]).value / p["feed_m_min"] - 1
        for p in of(kind, use)
    ]


def test_on_points_that_it_was_not_fitted_to():
    found = np.abs(errors("solid-steel", "test"))
    assert len(found) == 19
    # As docs/rules.md says: 4 % in the mean; a shop card of 1.143 mm wire is missed by a quarter.
    assert found.mean() < 0.045
    assert np.median(found) < 0.03
    assert sorted(found)[-2] < 0.09
    assert found.max() < 0.26
    backwards = [
        abs(
            current_a("solid-steel", p["diameter_mm"], p["feed_m_min"], p["extension_mm"]).value
            / p["current_a"]
            - 1
        )
        for p in of("solid-steel", "test")
    ]
    assert np.mean(backwards) < 0.03 and max(backwards) < 0.15
    assert np.abs(errors("cored-rutile", "test")).max() < 0.01


@pytest.mark.parametrize("size_in, per_amp", [(0.023, 3.5), (0.030, 2.0), (0.035, 1.6), (0.045, 1.0)])
def test_the_rule_of_inches_a_minute_per_ampere(size_in, per_amp):
    # Common practice, good near 100 to 150 A: .045 wire 1 in/min per A, and so on.
    amps = {0.023: 60, 0.030: 100, 0.035: 130, 0.045: 150}[size_in]
    feed = wire_feed_m_min("solid-steel", size_in * 25.4, amps, 10).value / 0.0254
    assert feed / amps == pytest.approx(per_amp, rel=0.3)


def test_aluminium_by_the_rule():
    # Common practice: 1.2 mm 4043 in argon, 200 A at about 9 m/min; 5356 runs 10 to 15 % faster.
    silicon = wire_feed_m_min("aluminium-silicon", 1.2, 200, 15).value
    assert silicon == pytest.approx(9, rel=0.05)
    assert wire_feed_m_min("aluminium-magnesium", 1.2, 200, 15).value / silicon == pytest.approx(
        1.125, abs=0.03
    )


def test_more_extension_melts_more():
    short, long = (wire_feed_m_min("solid-steel", 1.2, 200, x).value for x in (12, 22))
    assert long > short
    # At one feed a longer extension draws less current: 3 to 6 A per mm (common practice).
    drop = current_a("solid-steel", 1.2, 6, 15).value - current_a("solid-steel", 1.2, 6, 16).value
    assert 2.5 < drop < 6.5


@pytest.mark.parametrize(
    "case, gas, amps, low, high",
    [
        # Windows of arc volts recalled from handbooks (from memory).
        ("steel-short", {"Ar": 75, "CO2": 25}, 60, 15, 18),
        ("steel-short", {"CO2": 100}, 180, 17, 23),
        ("spray", {"Ar": 82, "CO2": 18}, 225, 26, 28),
        ("spray", {"Ar": 82, "CO2": 18}, 400, 31, 34),
        ("cored-gas", {"CO2": 100}, 170, 24, 26),
        ("cored-gas", {"CO2": 100}, 330, 30.5, 33.5),
        ("cored-metal", {"Ar": 82, "CO2": 18}, 180, 24, 26),
        ("aluminium", {"Ar": 100}, 140, 19.5, 20.5),
        ("aluminium", {"Ar": 100}, 260, 25, 27),
        ("tig", {"Ar": 100}, 100, 9, 12),
        ("tig-ac", {"Ar": 100}, 150, 12, 18),
        ("stick", {}, 115, 21, 26),
        ("stick-cellulosic", {}, 100, 25, 32),
        ("pulsed", {"Ar": 90, "CO2": 10}, 200, 19, 27),
    ],
)
def test_volts_lie_in_the_recalled_windows(case, gas, amps, low, high):
    assert low <= arc_volts(case, amps, gas)[0].value <= high


def test_carbon_dioxide_takes_more_volts_than_a_mix():
    # Common practice: CO2 1 to 2 V over an argon mix; a chart for CO2 reads high for it.
    for case in ("steel-short", "cored-gas"):
        mix, pure = (arc_volts(case, 150, g)[0].value for g in ({"Ar": 75, "CO2": 25}, {"CO2": 100}))
        assert 1 <= pure - mix <= 2
    lean = arc_volts("steel-short", 150, {"Ar": 98, "CO2": 2})
    assert lean[1] == pytest.approx(-2.0, abs=0.4)


def test_an_ampere_a_thousandth():
    # Common practice: 1 A per 0.001 in of steel for TIG: 0.120 in, 120 A; 30 A more per mm of aluminium.
    assert current_for_thickness("tig", 0.120 * 25.4).value == pytest.approx(120, rel=0.03)
    assert current_for_thickness("tig", 0.060 * 25.4).value == pytest.approx(60, rel=0.03)
    more = current_for_thickness("tig-aluminium", 5).value - current_for_thickness("tig-aluminium", 4).value
    assert more == pytest.approx(30)


def test_what_an_electrode_takes():
    assert wire_range("stick-basic", 3.2)[0].min == 90
    between = wire_range("stick-basic", 3.6)[0]
    assert 90 < between.min < 130 and 140 < between.max < 190
    assert wire_range("stick-basic", 8.0) is None
    assert wire_range("pulsed", 1.2, uphill=True)[0].max < wire_range("pulsed", 1.2)[0].max


def test_travel_and_shape():
    assert travel_range("spray", "vertical-up") is None
    up, flat = (travel_range("short", attitude)[0] for attitude in ("vertical-up", "flat"))
    assert up.max < flat.max
    assert bead_shape("stick", "flat", 4.0).most_mm2 == pytest.approx(26 * 4 / 3.2)


# --- what is laid down ------------------------------------------------------------------------


@pytest.mark.parametrize(
    "diameter, metal, grams",
    [
        (1.0, "steel", 6.17),
        (1.2, "steel", 8.88),
        (1.2, "stainless", 8.97),
        (1.2, "aluminium-magnesium", 2.99),
    ],
)
def test_mass_of_a_metre_of_wire(diameter, metal, grams):
    assert math.pi / 4 * diameter**2 * density_g_cm3(metal) == pytest.approx(grams, abs=0.005)


def test_pounds_an_hour():
    # .045 in wire at 250 in/min, solid: 0.0015904 in² x 250 x 60 x 0.2836 lb/in³ = 6.77 lb/h; a flux-cored one
    # was weighed at 5.8 melted and 5.0 deposited (common practice).
    wire = {"designation": "ER70S-6", "diameter_mm": 1.143}
    base = {
        "number": 1,
        "wire_feed_m_min": {"min": 6.35, "max": 6.35},
        "travel_mm_min": {"min": 300, "max": 300},
        "gas": {"components_percent": {"Ar": 98, "O2": 2}},
    }
    solid = PASS.take({**base, "process": "135", "filler": wire})
    kg_h = bead_area_middle_mm2(solid) * 300 * 60 * density_g_cm3("steel") / 1e6
    assert kg_h / 0.453592 == pytest.approx(6.77 * 0.98, rel=0.01)
    cored = PASS.take({**base, "process": "136", "filler": {**wire, "designation": "E71T-1C"}})
    kg_h = bead_area_middle_mm2(cored) * 300 * 60 * density_g_cm3("steel") / 1e6
    assert kg_h / 0.453592 == pytest.approx(5.0, rel=0.02)


@pytest.mark.parametrize(
    "process, designation, gas, low, high",
    [
        ("135", "ER70S-6", {"Ar": 82, "CO2": 18}, 0.94, 0.97),
        ("135", "ER70S-6", {"CO2": 100}, 0.88, 0.95),
        ("136", "E71T-1C", {"CO2": 100}, 0.82, 0.90),
        ("114", "E71T-8", {}, 0.75, 0.87),
        ("111", "E7018", {}, 0.65, 0.73),
        ("111", "E6010", {}, 0.58, 0.68),
        ("141", "ER70S-2", {"Ar": 100}, 0.98, 1.0),
    ],
)
def test_yields(process, designation, gas, low, high):
    found = deposition_yield(process, designation=designation, components=gas)
    assert (found.spread.min, found.spread.max) == (low, high)
    assert low <= found.usual <= high


@pytest.mark.parametrize(
    "designation, metal",
    [("ER5356", "aluminium-magnesium"), ("ER4043", "aluminium-silicon"), ("ER316LSi", "stainless"),
     ("E71T-1C", "steel"), ("ERCuSi-A", "silicon-bronze"), ("ERNiCrMo-3", "nickel-alloy"), ("E308L-16", "stainless")],
)  # fmt: skip
def test_weld_metal_of_a_filler(designation, metal):
    assert weld_metal(designation) == metal


def test_an_electrodes_run_out():
    one = PASS.take(
        {
            "number": 1,
            "process": "111",
            "filler": {"designation": "E7018", "diameter_mm": 3.2},
            "run_out_mm": {"min": 100, "max": 100},
        }
    )
    # 350 mm of 3.2 mm core at 69 % yield over 100 mm.
    assert bead_area_middle_mm2(one) == pytest.approx(math.pi / 4 * 3.2**2 * 350 * 0.69 / 100)
