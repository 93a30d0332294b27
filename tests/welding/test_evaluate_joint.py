"""What an evaluation tells of temperatures, metal laid down, consumption and time."""

import math

import pytest

from tests.welding import samples
from welding.documents.codec import COUPON, PROCEDURE
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.procedure import evaluate
from welding.heat.cooling import cooling_time
from welding.heat.method_a import method_a

HEAT = {"C": 0.16, "Si": 0.40, "Mn": 1.45, "Cr": 0.08, "Mo": 0.02, "V": 0.04, "Ni": 0.10, "Cu": 0.15}
V = samples.SINGLE_V


def judged(**change):
    return evaluate(PROCEDURE.take(samples.procedure(**change)))


def metals(thickness=20, **more):
    return [{"designation": "S355J2+N", "thickness_mm": thickness, **more}] * 2


def rule(evaluation, name):
    return [finding for finding in evaluation.findings if finding.rule == name]


def test_preheat_methods_stand_side_by_side():
    thermal = {"preheat_min_c": 75, "interpass_max_c": 250, "hydrogen_ml_100g": 5}
    european = judged(base_metals=metals(chemistry=HEAT), thermal=thermal).thermal
    assert [option.method for option in european.preheat] == ["en-1011-2-b", "en-1011-2-a"]
    option = european.preheat[0]
    # CET 0.321, 20 mm, 5 ml/100 g, at the coldest pass's 1.296 kJ/mm.
    assert option.preheat_c == pytest.approx(72 - 15 * 0.296, abs=0.6)
    assert "CET 0.32, chemistry of the heat" in option.assumptions
    code = {"id": "aws-d1.1:2020", "units": "si"}
    metal = [{"designation": "A572 Gr 50", "thickness_mm": 25, "chemistry": {**HEAT, "B": 0}}] * 2
    american = judged(code=code, base_metals=metal, thermal=thermal).thermal
    assert [option.method for option in american.preheat] == [
        "en-1011-2-b",
        "en-1011-2-a",
        "aws-d1.1-table",
        "aws-d1.1-annex-b",
    ]
    assert american.preheat[2].preheat_c == 10
    # Pcm 0.26 and H1: index 3.9, group C; medium restraint, over 20 to 38 mm: 75 °C.
    assert american.preheat[3].preheat_c == 75


@pytest.mark.parametrize(
    "kind, thicknesses, combined", [("butt", (20, 25), 45), ("t", (20, 12), 52), ("corner", (10, 10), 20)]
)
@pytest.mark.parametrize(
    "hydrogen, scale", [(20, "A"), (15, "B"), (10, "C"), (5.1, "C"), (5, "D"), (3.1, "D"), (3, "E"), (1, "E")]
)
def test_method_a_says_what_its_diagrams_are_entered_with(kind, thicknesses, combined, hydrogen, scale):
    """EN 1011-2:2001 C.2, from memory: two plates of a butt, three ways of a T; scales A to E."""
    found = method_a(
        ce=0.43, kind=kind, thicknesses_mm=thicknesses, hydrogen_ml_100g=hydrogen, heat_kj_mm=1.2
    )
    assert found.preheat_c is None and not found.none_needed and not found.valid
    assert found.governing_thickness_mm == combined
    assert {"CE 0.43", f"hydrogen scale {scale}"} <= set(found.assumptions)


def test_without_a_certificate_a_typical_chemistry_is_taken_and_said():
    option = judged(base_metals=metals()).thermal.preheat[0]
    assert any("typical chemistry" in text for text in option.assumptions)
    assert any("assumed" in text for text in option.assumptions)


def test_cooling_by_pass_counts_k_under_every_code():
    for code in (None, {"id": "aws-d1.1:2020", "units": "si"}):
        thermal = judged(code=code, base_metals=metals()).thermal
        one = thermal.passes[0]
        # 24 V x 220 A x 60 / 300 x 0.8 and 28 x 260 x 60 / 200 x 0.8.
        assert (one.heat_least_kj_mm, one.heat_most_kj_mm) == (pytest.approx(0.8448), pytest.approx(1.7472))
        assert one.t85_least_s == pytest.approx(cooling_time(0.8448, 75, 20, "butt").t85_s)
        assert one.t85_most_s == pytest.approx(cooling_time(1.7472, 250, 20, "butt").t85_s)
        assert one.wait_s > 0
        assert thermal.window is not None and thermal.start_c.min == 75


def test_no_cooling_time_for_stainless_but_a_wait():
    metal = [{"designation": "304L", "thickness_mm": 10}] * 2
    thermal = judged(base_metals=metal, thermal={"preheat_min_c": 10, "interpass_max_c": 150}).thermal
    assert thermal.preheat == () and thermal.window is None
    assert thermal.passes[0].t85_least_s is None and thermal.passes[0].wait_s > 0


def test_nothing_thermal_while_metals_are_unknown():
    assert judged(base_metals=[{"designation": "unheard of", "thickness_mm": 20}] * 2).thermal is None


# --- consumption ------------------------------------------------------------------------------


def test_use_by_hand():
    evaluation = judged(joint={**V, "length_mm": 2000})
    use, section = evaluation.use, evaluation.section
    assert use.weld_metal_kg_m == pytest.approx(section.total_mm2 * 7.85 / 1000)
    assert use.filler_kg_m == pytest.approx(use.weld_metal_kg_m / 0.955)  # solid wire, 18 % CO2
    # Three passes at 250 mm/min: 4 min/m each; 16 L/min of gas.
    assert use.arc_min_m == pytest.approx(12)
    assert use.gas_l_m == pytest.approx(12 * 16)
    assert use.at_joint_min_m == pytest.approx(12 / 0.35)
    waits = sum(one.wait_min for one in use.passes[:-1])
    assert use.waits_min == pytest.approx(waits)
    assert use.elapsed_min == pytest.approx(max(2 * 12 / 0.35, 2 * 12 + waits))
    assert use.length_m == 2


def test_a_kilogram_by_the_rule():
    # Common practice: a 60° V in 20 mm plate with gap 3 and land 2 takes about 2 kg of weld metal a metre.
    assert judged().use.weld_metal_kg_m == pytest.approx(2.1, abs=0.2)


def test_what_is_not_known_is_not_summed():
    passes = [samples.a_pass(1, "root"), samples.a_pass(2, "cap", travel_mm_min=None)]
    use = judged(passes=passes).use
    assert use.arc_min_m is None and use.at_joint_min_m is None and use.elapsed_min is None
    assert use.filler_kg_m is not None


# --- what the passes lay down -----------------------------------------------------------------


def laid(feed, count=7, **more):
    roles = ["root", *["fill"] * (count - 2), "cap"]
    passes = [samples.a_pass(i + 1, role, wire_feed_m_min=feed) for i, role in enumerate(roles)]
    return rule(judged(passes=passes, **more), "deposit.volume")[0]


def test_passes_that_fill_the_joint():
    # 1.2 mm wire at 8 m/min and 250 mm/min: 1.131 x 8000 / 250 x 0.955 = 34.6 mm²; eight of them fill 276 mm².
    assert laid({"min": 7, "max": 9}, 8).verdict == "complies"


@pytest.mark.parametrize("feed, count, word", [(8, 3, "do not fill"), (8, 24, "overfill")])
def test_passes_that_do_not(feed, count, word):
    found = laid({"min": feed, "max": feed}, count)
    assert (found.verdict, found.obligation) == ("violates", "recommendation")
    assert word in found.title and found.remedy


def test_the_other_side_of_a_double_v_needs_passes():
    double = {**V, "preparation": {**V["preparation"], "form": "double-v"}}
    assert rule(judged(joint=double), "joint.other-side")[0].verdict == "undecided"
    passes = [samples.a_pass(1, "root"), samples.a_pass(2, "back", side=2)]
    assert rule(judged(joint=double, passes=passes), "joint.other-side") == []


# --- temperatures that are stated -------------------------------------------------------------


@pytest.mark.parametrize(
    "designation, interpass, verdict",
    [
        ("S355J2+N", 250, "complies"),
        ("S355J2+N", 320, "violates"),
        ("304L", 150, "complies"),
        ("304L", 250, "violates"),
        ("2205", 150, "complies"),
        ("S690QL", 300, "violates"),
        ("6082", 150, "violates"),
    ],
)
def test_interpass_by_metal(designation, interpass, verdict):
    thermal = {"preheat_min_c": 20, "interpass_max_c": interpass}
    metal = [{"designation": designation, "thickness_mm": 12}] * 2
    assert rule(judged(base_metals=metal, thermal=thermal), "temperature.interpass")[0].verdict == verdict


@pytest.mark.parametrize("preheat, verdict", [(20, "violates"), (60, "complies"), (75, "complies")])
def test_preheat_against_the_chemistry_of_the_heat(preheat, verdict):
    thermal = {"preheat_min_c": preheat, "interpass_max_c": 250, "hydrogen_ml_100g": 5}
    found = rule(judged(base_metals=metals(chemistry=HEAT), thermal=thermal), "preheat.method-b")
    assert found[0].verdict == verdict
    assert rule(judged(base_metals=metals(), thermal=thermal), "preheat.method-b") == []


# --- which fields a joint has -----------------------------------------------------------------


@pytest.mark.parametrize(
    "joint, has, lacks",
    [
        (V, {"included_angle_deg", "root_face_mm", "root_gap_mm"}, {"sides.0.radius_mm"}),
        ({**V, "preparation": {"form": "single-u"}}, {"sides.0.radius_mm"}, {"sides.1.depth_mm"}),
        ({**V, "preparation": {"form": "double-j"}}, {"sides.0.radius_mm", "sides.1.depth_mm"}, set()),
        ({**V, "preparation": {"form": "square"}}, {"root_gap_mm"}, {"included_angle_deg", "root_face_mm"}),
        ({**V, "preparation": {"form": "flare-v"}}, {"sides.0.radius_mm"}, {"included_angle_deg"}),
        (
            {"kind": "t", "weld": "fillet"},
            {"leg1_mm", "throat_mm", "dihedral_deg"},
            {"face_height_mm", "form"},
        ),
        ({"kind": "lap", "weld": "fillet", "face": "convex"}, {"face_height_mm"}, {"dihedral_deg"}),
    ],
)
def test_fields_of_a_joint(joint, has, lacks):
    found = {
        path.removeprefix("joint.preparation.").removeprefix("joint.")
        for path in judged(joint=joint).joint_fields
    }
    assert has <= found and not lacks & found


def test_no_number_is_ever_not_a_number():
    for thickness in (0.3, 20, 300):
        evaluation = judged(base_metals=metals(thickness))
        for one in evaluation.thermal.passes:
            assert all(math.isfinite(v) for v in (one.wait_s or 0.0, one.t85_least_s or 0.0))


# --- fit-up and tint --------------------------------------------------------------------------


@pytest.mark.parametrize(
    "gap, verdict", [(2.0, "complies"), (3.9, "complies"), (1.2, "violates"), (4.5, "violates")]
)
def test_the_gap_after_tacking_against_its_tolerance(gap, verdict):
    joint = {**V, "preparation": {**V["preparation"], "gap_allowed_mm": {"min": 2, "max": 4}}}
    whole = samples.coupon(joint=joint)
    whole["coupon"]["fit_up"] = {"gap_before_tack_mm": 3, "gap_after_tack_mm": gap}
    found = [f for f in evaluate_coupon(COUPON.take(whole)).piece if f.rule == "fit-up.gap"]
    assert [f.verdict for f in found] == [verdict]
    assert bool(found[0].remedy) == (verdict == "violates")


def test_no_word_on_the_gap_without_a_tolerance_or_a_measurement():
    assert not [f for f in evaluate_coupon(COUPON.take(samples.coupon())).piece if f.rule == "fit-up.gap"]


def test_heat_tint_is_told_for_stainless_only():
    stainless = judged(base_metals=[{"designation": "304L", "thickness_mm": 3}] * 2).thermal.tint
    assert [one.to_c for one in stainless] == sorted(one.to_c for one in stainless)
    # Common in the trade: straw accepted, blue and grey not.
    views = {one.colour: one.view for one in stainless}
    assert views["pale straw"] == "accept" and views["blue"].startswith("reject")
    assert judged(base_metals=metals()).thermal.tint == ()
