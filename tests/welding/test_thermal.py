"""Cooling, waiting and preheat, against worked figures and against the heat equation itself."""

import json
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.optimize import brentq

from welding.cli import main
from welding.codebook.table import load_table
from welding.editions.aws_d1_1_2020.rules.preheat import (
    annex_b_preheat,
    group_by_pcm_table,
    susceptibility_group,
    susceptibility_index,
    table_preheat,
)
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.heat.by_metal import copper_preheat
from welding.heat.cooling import (
    cooling_time,
    cooling_window,
    heat_input_for_t85_kj_mm,
    interpass_wait,
    t85_2d_s,
    t85_3d_s,
    transition_thickness_mm,
)
from welding.heat.preheat import method_b, method_b_c
from welding.ranges import Range


@pytest.mark.parametrize(
    "q, t0, d, thick, thin, governs, transition",
    [
        # Computed by hand from the formulas of EN 1011-2 annex D, F = 1.
        (1.0, 20, 30, 5.29, 1.26, "3d", 14.66),
        (1.0, 20, 10, 5.29, 11.36, "2d", 14.66),
        (1.5, 100, 15, 9.96, 16.29, "2d", 19.18),
        (2.0, 150, 40, 15.69, 5.30, "3d", 23.24),
    ],
)
def test_worked_cooling_times(q, t0, d, thick, thin, governs, transition):
    assert t85_3d_s(q, t0) == pytest.approx(thick, abs=0.005)
    assert t85_2d_s(q, t0, d) == pytest.approx(thin, abs=0.005)
    found = cooling_time(q, t0, d)
    assert found.regime == governs
    assert found.t85_s == pytest.approx(max(thick, thin), abs=0.005)
    assert found.transition_thickness_mm == pytest.approx(transition, abs=0.005)
    assert transition_thickness_mm(q, t0) == pytest.approx(transition, abs=0.005)


@given(
    st.floats(0.3, 5), st.floats(0, 350), st.floats(3, 100), st.sampled_from(["plate", "butt", "t-fillet"])
)
def test_heat_input_for_a_time_is_the_inverse(q, t0, d, joint):
    time = cooling_time(q, t0, d, joint).t85_s
    assert heat_input_for_t85_kj_mm(time, t0, d, joint) == pytest.approx(q, rel=1e-6)


@given(st.floats(0.5, 4), st.floats(0, 300))
def test_both_solutions_meet_at_the_transition(q, t0):
    d = transition_thickness_mm(q, t0)
    assert t85_2d_s(q, t0, d) == pytest.approx(t85_3d_s(q, t0), rel=1e-9)


# --- the heat equation, integrated ------------------------------------------------------------

CONDUCTIVITY, VOLUME_HEAT = 0.028, 0.0052  # W/(mm K) and J/(mm³ K): steel between 500 and 800 °C
DIFFUSIVITY = CONDUCTIVITY / VOLUME_HEAT
SPEED = 5.0  # mm/s


def behind_the_arc(q_kj_mm, t0, time, thickness=None):
    """Temperature beside the bead after the arc has passed: heat released along its track, summed up.

    Every element of track is an instantaneous source; with a thickness the heat spreads in the plane.
    """
    power = q_kj_mm * 1000 * SPEED

    def element(ago):
        along = SPEED * (time - ago)
        spread = math.exp(-(along**2) / (4 * DIFFUSIVITY * ago))
        if thickness is None:
            return 2 * power / (VOLUME_HEAT * (4 * math.pi * DIFFUSIVITY * ago) ** 1.5) * spread
        return power / thickness / (VOLUME_HEAT * 4 * math.pi * DIFFUSIVITY * ago) * spread

    lately, _ = quad(element, 1e-3, 4 * time, points=[time], limit=400)
    long_ago, _ = quad(element, 4 * time, 400 * time, limit=400)
    return t0 + lately + long_ago


def rosenthal_t85(q, t0, thickness=None):
    def reached(temperature):
        return brentq(lambda t: behind_the_arc(q, t0, t, thickness) - temperature, 0.3, 3000)

    return reached(500) - reached(800)


@pytest.mark.parametrize("q, t0", [(1.0, 20), (2.0, 20), (1.0, 150), (2.5, 200)])
def test_thick_plates_against_rosenthal(q, t0):
    # Same order with constant properties; the standard's factor was fitted to measurements.
    assert cooling_time(q, t0, 200).t85_s == pytest.approx(rosenthal_t85(q, t0), rel=0.35)


@pytest.mark.parametrize("q, t0, d", [(1.0, 20, 6), (1.0, 100, 8), (1.5, 150, 10)])
def test_thin_plates_against_rosenthal(q, t0, d):
    assert cooling_time(q, t0, d).t85_s == pytest.approx(rosenthal_t85(q, t0, d), rel=0.45)


def test_trends_are_those_of_rosenthal():
    for change in ({"q": 1.4}, {"t0": 180}):
        base = {"q": 1.0, "t0": 20.0}
        more = {**base, **change}
        ours = cooling_time(more["q"], more["t0"], 200).t85_s / cooling_time(1.0, 20, 200).t85_s
        theirs = rosenthal_t85(more["q"], more["t0"]) / rosenthal_t85(1.0, 20)
        assert ours == pytest.approx(theirs, rel=0.2) and ours > 1
    thinner = cooling_time(1.0, 20, 5).t85_s / cooling_time(1.0, 20, 7).t85_s
    assert thinner == pytest.approx(rosenthal_t85(1.0, 20, 5) / rosenthal_t85(1.0, 20, 7), rel=0.1)


def test_the_wait_is_the_heat_equations():
    # The same element sources, with the table's own properties, long after the arc has passed.
    row = next(r for r in load_table("welding.heat", "conduction").rows if r["metal"] == "steel")
    k, c = row["conductivity_w_m_k"] / 1000, row["heat_j_cm3_k"] / 1000
    for d, q in ((8, 1.2), (15, 2.0)):
        wait = interpass_wait(q, d, 60, 250)
        assert wait.regime == "2d"
        a = k / c

        def element(along, d=d, q=q, time=wait.wait_s, a=a):
            return q * 1000 / d / (c * 4 * math.pi * a * time) * math.exp(-(along**2) / (4 * a * time))

        rise, _ = quad(element, -3000, 3000, points=[0], limit=400)
        # What both faces lose to the air on the way: the fin equation takes it off as a factor.
        rise *= math.exp(-2 * 25e-6 / (c * d) * wait.wait_s)
        assert rise == pytest.approx(250 - 60, rel=0.01)
    thick = interpass_wait(1.0, 100, 20, 250)
    assert thick.regime == "3d"
    assert thick.wait_s == pytest.approx(1000 / (2 * math.pi * k * 230))


@pytest.mark.parametrize(("q", "d", "metal"), [(0.5, 2, "stainless"), (0.3, 1.5, "steel"), (1.0, 6, "steel")])
def test_the_wait_of_sheet_against_a_plate_in_cells(q, d, metal):
    """Finite differences across a strip of sheet with losses, started from the line of heat."""
    row = next(r for r in load_table("welding.heat", "conduction").rows if r["metal"] == metal)
    k, c = row["conductivity_w_m_k"] / 1000, row["heat_j_cm3_k"] / 1000
    step, half = 1.0, 400
    rises = [0.0] * (half + 1)
    rises[0] = q * 1000 / (c * d * step)  # half of the line on each side of the middle
    pause = 0.4 * step**2 * c / k
    time, b = 0.0, 2 * 25e-6 / (c * d)
    while rises[0] > 130:
        flows = [
            2 * (rises[1] - rises[0]),
            *(rises[i - 1] + rises[i + 1] - 2 * rises[i] for i in range(1, half)),
            0.0,
        ]
        rises = [r + 0.4 * f - b * r * pause for r, f in zip(rises, flows, strict=True)]
        time += pause
    assert interpass_wait(q, d, 20, 150, metal).wait_s == pytest.approx(time, rel=0.03)


def test_a_wait_needs_a_plate_below_the_limit():
    with pytest.raises(OutOfRangeError, match="interpass maximum"):
        interpass_wait(1.0, 10, 250, 250)
    assert (
        interpass_wait(1, 10, 20, 150, "stainless").wait_s
        > interpass_wait(1, 10, 20, 150, "aluminium").wait_s
    )


def test_the_window_holds_its_target():
    window = cooling_window(Range(10, 25), 20, "butt")
    for start, low, high in zip(window.start_c, window.least_kj_mm, window.most_kj_mm, strict=True):
        assert low < high
        assert cooling_time(low, start, 20, "butt").t85_s == pytest.approx(10)
        assert cooling_time(high, start, 20, "butt").t85_s == pytest.approx(25)
    assert list(window.most_kj_mm) == sorted(window.most_kj_mm, reverse=True)  # hotter: less heat


# --- EN 1011-2 method B -----------------------------------------------------------------------


@pytest.mark.parametrize(
    "cet, d, hd, q, expected",
    [
        (0.321, 20, 5, 1.0, 72),
        (0.321, 40, 5, 1.5, 113),
        (0.321, 40, 10, 1.0, 150),
        (0.321, 60, 3, 2.0, 107),
        (0.30, 20, 5, 1.0, 56.5),
        (0.35, 40, 5, 1.5, 135.1),
        (0.25, 15, 10, 1.0, 31.0),
    ],
)
def test_worked_preheats(cet, d, hd, q, expected):
    assert method_b_c(cet, d, hd, q) == pytest.approx(expected, abs=0.5)


@pytest.mark.parametrize(
    "change, word",
    [
        ({"cet": 0.6}, "CET"),
        ({"thickness_mm": 5}, "thickness"),
        ({"hydrogen_ml_100g": 25}, "hydrogen"),
        ({"heat_input_kj_mm": 0.3}, "heat input"),
    ],
)
def test_outside_the_validity_there_is_no_number(change, word):
    facts = {"cet": 0.3, "thickness_mm": 20, "hydrogen_ml_100g": 5, "heat_input_kj_mm": 1.0, **change}
    found = method_b(**facts)
    assert found.preheat_c is None and not found.valid and found.advised_c is None
    assert word in found.outside[0]
    with pytest.raises(OutOfRangeError):
        method_b_c(facts["cet"], facts["thickness_mm"], facts["hydrogen_ml_100g"], facts["heat_input_kj_mm"])


def test_the_weld_metal_governs_where_it_is_the_harder():
    facts = {"thickness_mm": 20, "hydrogen_ml_100g": 5, "heat_input_kj_mm": 1.0}
    plain = method_b(cet=0.30, **facts)
    assert method_b(cet=0.30, weld_metal_cet=0.27, **facts).preheat_c == pytest.approx(plain.preheat_c)
    harder = method_b(cet=0.30, weld_metal_cet=0.29, **facts)
    assert harder.preheat_c == pytest.approx(method_b_c(0.32, 20, 5, 1.0))
    assert "weld metal governs" in harder.assumptions[0]
    fillet = method_b(cet=0.30, single_run_fillet=True, **facts)
    assert plain.preheat_c - fillet.preheat_c == pytest.approx(60)
    assert method_b(cet=0.321, **facts).advised_c == 75


@given(st.floats(0.21, 0.49), st.floats(11, 85), st.floats(1.5, 18), st.floats(0.6, 3.5))
def test_preheat_rises_with_carbon_thickness_and_hydrogen(cet, d, hd, q):
    value = method_b_c(cet, d, hd, q)
    assert method_b_c(cet + 0.01, d, hd, q) > value
    assert method_b_c(cet, d + 2, hd, q) > value
    assert method_b_c(cet, d, hd + 1, q) > value
    assert method_b_c(cet, d, hd, q + 0.2) < value


# --- AWS D1.1 (from memory) -------------------------------------------------------------------


@pytest.mark.parametrize(
    "category, mm, si, fahrenheit",
    [
        ("A", 19, 0, 32), ("A", 25, 65, 150), ("A", 40, 110, 225), ("A", 70, 150, 300),
        ("B", 12, 0, 32), ("B", 25, 10, 50), ("B", 50, 65, 150), ("B", 80, 110, 225),
        ("C", 10, 10, 50), ("C", 30, 65, 150), ("D", 100, 0, 32),
    ],
)  # fmt: skip
def test_prequalified_preheat(category, mm, si, fahrenheit):
    found = table_preheat(category, mm)
    assert found.preheat_c == si
    assert found.none_needed == (si == 0)
    inch = table_preheat(category, mm, "us")
    assert inch.preheat_c == pytest.approx((fahrenheit - 32) / 1.8)


def test_the_columns_part_at_their_own_thickness():
    # 3/4 in is 19.05 mm: 19.5 mm is in the first SI band and in the second inch band.
    assert table_preheat("B", 19.5, "si").preheat_c == 0
    assert table_preheat("B", 19.5, "us").preheat_c == pytest.approx(10)
    with pytest.raises(UnknownEntryError):
        table_preheat("E", 20)


@pytest.mark.parametrize("name", ["preheat", "annex_b_preheat"])
def test_both_printed_columns_tell_about_the_same_temperature(name):
    for row in load_table("welding.editions.aws_d1_1_2020", name).rows:
        us, si = row["us_f"], row["si_c"]
        for f, c in zip(
            us if isinstance(us, list) else [us], si if isinstance(si, list) else [si], strict=True
        ):
            assert (f - 32) / 1.8 == pytest.approx(c, abs=4)  # rounded to 5 °C and 5 °F in print


@pytest.mark.parametrize(
    "pcm, level, index, group",
    [
        (0.19, "H1", 3.0, "A"),
        (0.20, "H1", 3.1, "B"),
        (0.26, "H2", 4.1, "D"),
        (0.30, "H3", 5.1, "F"),
        (0.45, "H3", 6.9, "G"),
    ],
)
def test_susceptibility(pcm, level, index, group):
    assert susceptibility_index(pcm, level) == pytest.approx(index)
    assert susceptibility_group(pcm, level) == group


def test_beyond_the_annex():
    with pytest.raises(OutOfRangeError, match=r"7\.0"):
        susceptibility_group(0.5, "H3")
    assert group_by_pcm_table(0.24, "H2") == "D"
    assert group_by_pcm_table(0.5, "H2") is None


@pytest.mark.parametrize(
    "pcm, level, restraint, mm, si, none",
    [
        (0.26, "H2", "medium", 25, 110, False),
        (0.19, "H1", "low", 15, 20, True),
        (0.19, "H1", "high", 25, 20, False),
        (0.22, "H2", "low", 9.9, 20, True),
        (0.22, "H2", "low", 10, 20, False),
        (0.45, "H3", "high", 100, 160, False),
        (0.26, "H2", "high", 76, 150, False),
    ],
)
def test_annex_b(pcm, level, restraint, mm, si, none):
    found = annex_b_preheat(pcm, level, restraint, mm)
    assert (found.preheat_c, found.none_needed) == (si, none)
    assert restraint in " ".join(found.assumptions)


def test_annex_b_never_falls_with_thickness_group_or_restraint():
    rows = load_table("welding.editions.aws_d1_1_2020", "annex_b_preheat").rows
    for row in rows:
        assert row["si_c"] == sorted(row["si_c"])
        for other in rows:
            if other["restraint"] == row["restraint"] and other["over_mm"] > row["over_mm"]:
                assert all(a <= b for a, b in zip(row["si_c"], other["si_c"], strict=True))


def test_the_command_line(capsys):
    assert main(["cooling", "--heat-input", "1.5", "--preheat", "100", "--thickness", "15"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["regime"] == "2d" and found["t85_s"] == pytest.approx(16.29, abs=0.005)
    call = "preheat --method en-1011-2-b --cet .321 --thickness 20 --hydrogen 5 --heat-input 1"
    assert main(call.split()) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["preheat_c"] == pytest.approx(72, abs=0.5) and found["advised_c"] == 75 and found["valid"]
    assert main(["preheat", "--method", "aws-d1.1-table", "--thickness", "20"]) == 2
    assert "--category" in capsys.readouterr().err
    assert main(["cooling", "--heat-input", "0", "--preheat", "20", "--thickness", "10"]) == 2
    assert "heat_input" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("thickness_mm", "usual_c", "least_c"),
    [
        (1.5, 20, 20),
        (2, 100, 20),
        (3.9, 100, 20),
        (4, 250, 200),
        (7.9, 250, 200),
        (8, 400, 200),
        (9.9, 400, 200),
        (10, 400, 400),
        (40, 400, 400),
    ],
)
def test_copper_is_preheated_by_its_thickness(thickness_mm, usual_c, least_c):
    """Common practice: sheet needs none, 3 mm about 100 °C, 6 mm 250 °C, 10 mm and more 400 °C."""
    assert copper_preheat(thickness_mm)[:2] == (usual_c, least_c)
