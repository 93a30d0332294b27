"""The drafted filler over the whole catalogue: of the metal's family, and no check finds fault with it."""

import re

import pytest

from welding.consumables.designations.decode import decode
from welding.documents.codec import INTENT
from welding.errors import DocumentError
from welding.evaluate.procedure import evaluate
from welding.metals.catalogue import all_metals, find
from welding.metals.kinds import KIND_OF_FAMILY, takes_nickel_filler
from welding.planning.propose import propose

SUITS = ("filler.metal", "filler.composition", "filler.class", "gas.process", "purge.root", "preheat.typical")
PROCESSES = {
    "steel": ("111", "135", "136", "141"), "stainless": ("111", "141"), "aluminium": ("131", "141"),
    "copper": ("141",), "nickel": ("111", "141"),
}  # fmt: skip
NOT_WELDED = re.compile(r"AlCu|1\.4305")
"""Alloys that are not for the arc: the checks say so of the metal itself."""


def draft(metal, process, thickness, **more):
    intent = {
        "format": "grounded-bead/intent", "version": 1, "metals": [metal], "thickness_mm": [thickness],
        "joint": {"kind": "butt", "weld": "cjp-groove"}, "position": "PA", "process": process, **more,
    }  # fmt: skip
    return propose(INTENT.take(intent)).procedure


def unless_unknown(metal, process, thickness):
    """The draft, or the paths of what refuses it."""
    try:
        return draft(metal, process, thickness)
    except DocumentError as refusal:
        return [one.path for one in refusal.problems]


@pytest.mark.parametrize("metal", all_metals(), ids=lambda metal: metal.name)
def test_the_drafted_filler_suits_the_metal(metal):
    if NOT_WELDED.search(metal.name):
        pytest.skip("not for the arc")
    thickness = min(6.0, metal.yield_steps_mpa[0][0])
    for process in PROCESSES[KIND_OF_FAMILY[metal.family]]:
        made = unless_unknown(metal.name, process, thickness)
        if made == ["filler.designation"] and process == "136":
            continue  # unknown stays unknown: no cored wire is known here
        if made == ["process"] and takes_nickel_filler(metal):
            continue  # nickel filler: inert gas for its wire, no carbon-steel flux
        assert decode(made.passes[0].filler.designation).valid
        wrong = [f.message for f in evaluate(made).findings if f.rule in SUITS and f.verdict == "violates"]
        assert wrong == [], process


@pytest.mark.parametrize("metal", ["X8Ni9", "X12Ni5", "A553 Type I"])
@pytest.mark.parametrize("other", [None, "S355J2+N"])
def test_nickel_filler_of_steel_is_welded_in_inert_gas(metal, other):
    """CO2 burns nickel filler: its wire takes argon or argon-helium (AWS A5.14, from memory)."""
    metals = [metal, other] if other else [metal]
    made = draft(metal, "131", 10.0, metals=metals)
    assert made.passes[0].gas.components_percent == {"Ar": 100.0} and made.passes[0].transfer == "pulsed"
    assert made.passes[0].filler.designation.startswith(("ERNi", "S Ni"))
    assert not [one for one in evaluate(made).findings if one.verdict == "violates"]
    with pytest.raises(DocumentError) as refusal:
        draft(metal, "135", 10.0, metals=metals)
    assert "inert gas" in str(refusal.value)


@pytest.mark.parametrize("joint", [{"kind": "t", "weld": "fillet"}, {"kind": "butt", "weld": "cjp-groove"}])
def test_no_short_arc_is_drafted_in_nine_chromium_steel(joint):
    made = draft("P91", "135", 6.0, joint=joint, position="PB" if joint["weld"] == "fillet" else "PA")
    assert {one.transfer for one in made.passes} == {"pulsed"}
    assert not [one for one in evaluate(made).findings if one.verdict == "violates"]


@pytest.mark.parametrize("process, most", [("141", 220.0)])
def test_thicker_metal_takes_more_beads_and_not_hotter_ones(process, most):
    """A hand torch on heavy wall runs 130 to 220 A, whatever the wall (common practice)."""
    for metal in ("S355J2+N", "P91", "304L"):
        made = draft(metal, process, 60.0)
        assert max(one.current_a.middle for one in made.passes) <= most


# Families of fillers that each metal is welded with, first in the names of AWS, then of ISO (common practice).
FAMILIES = [
    ("16Mo3", "141", r"ER70S-A1", r"W MoSi"),
    ("13CrMo4-5", "141", r"ER80S-B2", r"W CrMo1Si"),
    ("10CrMo9-10", "111", r"E9018-B3", r"E CrMo2 B"),
    ("X12CrMo5", "141", r"ER80S-B6", r"W CrMo5Si"),
    ("A335 P9", "111", r"E8018-B8", r"E CrMo9 B"),
    ("X10CrMoVNb9-1", "141", r"ER90S-B9", r"W CrMo91"),
    ("12Ni14", "111", r"E8018-C2", r"E8018-C2"),
    ("X8Ni9", "141", r"ERNiCrMo-3", r"S Ni 6625"),
    ("304L", "141", r"ER308L", r"W 19 9 L"),
    ("304H", "111", r"E308H", r"E 19 9 H"),
    ("1.4571", "141", r"ER318", r"W 19 12 3 Nb"),
    ("317L", "141", r"ER317L", r"ER317L"),
    ("309S", "141", r"ER309", r"ER309"),
    ("310S", "141", r"ER310", r"W 25 20"),
    ("904L", "141", r"ER385", r"W 20 25 5 Cu L"),
    ("1.4547", "141", r"ERNiCrMo-3", r"S Ni 6625"),
    ("410", "141", r"ER410", r"W 13"),
    ("1.4313", "111", r"E410NiMo", r"E 13 4"),
    ("1.4542", "141", r"ER630", r"ER630"),
    ("1.4462", "111", r"E2209", r"E 22 9 3 N L"),
    ("1.4410", "141", r"ER2594", r"W 25 9 4 N L"),
    ("Alloy 400", "141", r"ERNiCu-7", r"S Ni 4060"),
    ("Alloy 201", "141", r"ERNi-1", r"S Ni 2061"),
    ("Alloy 600", "111", r"ENiCrFe-3", r"E Ni 6182"),
    ("Alloy C-276", "141", r"ERNiCrMo-4", r"S Ni 6276"),
    ("7020", "131", r"ER5356", r"S Al 5356"),
    ("5083", "131", r"ER5183", r"S Al 5183"),
    ("CuSn6", "141", r"ERCuSn-A", r"S Cu 5180"),
    ("CuAl10Ni5Fe4", "141", r"ERCuNiAl", r"S Cu 6328"),
    ("CuNi30Mn1Fe", "141", r"ERCuNi", r"S Cu 7158"),
    ("CuZn37", "141", r"ERCuSi-A", r"S Cu 6560"),
    ("S690QL", "135", r"ER110S-1", r"G 69"),
    ("S460N", "136", r"E81T1-Ni1M", r"T 50 6 1Ni"),
    ("S355NL", "111", r"E8018-C3", r"E 46 6 1Ni"),
    ("S355J2W", "136", r"E81T1-W2M", r"E81T1-W2M"),
    ("4130", "141", r"ER80S-D2", r"ER80S-D2"),
]  # fmt: skip


@pytest.mark.parametrize("name, process, aws, iso", FAMILIES, ids=[row[0] for row in FAMILIES])
def test_each_metal_has_the_filler_of_its_family(name, process, aws, iso):
    assert find(name)
    assert re.match(aws, draft(name, process, 6).passes[0].filler.designation)
    code = {"id": "iso-15614-1:2017", "level": 2}
    assert re.match(iso, draft(name, process, 6, code=code).passes[0].filler.designation)


# --- two processes, submerged arc -------------------------------------------------------------


def test_the_root_by_hand_and_the_filling_by_another_process():
    made = draft(
        "A106 Gr B", "141", 12.7, position="6G", outside_diameter_mm=219.1, fill_process="111",
        fill_filler={"designation": "E7018"},
    )  # fmt: skip
    root, *filling = made.passes
    assert (root.process, root.polarity, root.role) == ("141", "DCEN", "root")
    assert {one.process for one in filling} == {"111"}
    assert {one.filler.designation for one in filling} == {"E7018"}
    assert root.tungsten and not any(one.tungsten or one.gas for one in filling)
    assert [f.message for f in evaluate(made).findings if f.verdict == "violates"] == []


def test_one_process_with_another_filler_after_the_root():
    made = draft(
        "API 5L X52", "111", 9.5, position="5G", progression="down", outside_diameter_mm=323.9,
        filler={"designation": "E6010"}, fill_process="111", fill_filler={"designation": "E7010-P1"},
    )  # fmt: skip
    assert [one.filler.designation for one in made.passes if one.role == "root"] == ["E6010"]
    assert {one.filler.designation for one in made.passes if one.role != "root"} == {"E7010-P1"}
    assert made.thermal.hydrogen_ml_100g > 15


def test_submerged_arc_over_a_root_by_hand_has_a_hot_pass_under_it():
    made = draft("A106 Gr B", "141", 17.5, outside_diameter_mm=610, fill_process="121")
    assert [one.process for one in made.passes if one.role in ("root", "hot")] == ["141"] * sum(
        one.role in ("root", "hot") for one in made.passes
    )
    assert any(one.role == "hot" for one in made.passes)
    later = [one for one in made.passes if one.role not in ("root", "hot")]
    assert later and all(one.process == "121" and one.flux and one.gas is None for one in later)


@pytest.mark.parametrize(
    "thickness, form, runs", [(10, "square", 2), (16, "double-v", 2), (30, "double-v", None)]
)
def test_submerged_arc_from_both_sides(thickness, form, runs):
    made = draft("S355J2", "121", thickness)
    assert made.joint.preparation.form == form and made.joint.sides == "both"
    assert {one.side for one in made.passes} == {1, 2}
    assert runs is None or len(made.passes) == runs
    assert [f.message for f in evaluate(made).findings if f.verdict == "violates"] == []
