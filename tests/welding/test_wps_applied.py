"""Whether a released procedure may be used for a joint of a weld list: each limit, and never wider than proof."""

from dataclasses import replace
from itertools import product
from math import inf
from pathlib import Path

import pytest

from welding.coverage.covers import covers
from welding.documents.codec import JOINT, PROCEDURE, WELD_LIST
from welding.documents.codec import RECORD as RECORDS
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import (
    AppliesTo,
    ImpactRequirement,
    Joint,
    OpenRange,
    Pwht,
    Requirements,
    Thermal,
)
from welding.planning.from_record import procedure_from
from welding.weldlist.applying import Applied, applied_to, applied_to_each, written_for
from welding.weldlist.assigning import minutes_per_kg, suggested

EXAMPLE = (
    Path(__file__).resolve().parents[2] / "docs" / "examples" / "weld-lists" / "footbridge.weld-list.json"
)
LIST = WELD_LIST.read(EXAMPLE.read_bytes())
RECORD = LIST.records[0]
WPS = procedure_from(RECORD).procedure
"""ISO 15614-1, butt, S355J2+N 20 mm, PF, process 135: 10 to 40 mm, group 1 up to 355 MPa."""
PREQUALIFIED = PROCEDURE.read(
    (EXAMPLE.parents[1] / "drafts" / "plate-16mm-3g-fcaw.procedure.json").read_bytes()
)


def joint(mm=20.0, **more):
    metal = {"designation": more.pop("metal", "S355J2+N"), "thickness_mm": mm} | more.pop("pipe", {})
    other = metal | ({"designation": more.pop("second")} if "second" in more else {})
    facts = {
        "format": "grounded-bead/joint",
        "version": 1,
        "number": "T1",
        "base_metals": [metal, other],
        "joint": {"kind": "butt", "weld": "cjp-groove"} | more.pop("weld", {}),
        "positions": ["PF"],
    }
    return JOINT.take(facts | more)


def asked(one, wps=WPS, records=(RECORD,), code=LIST.code):
    return applied_to(wps, one, records, code)


def rules(found):
    return {one.rule: one.verdict for one in found.findings}


# What the sheet states, fact by fact (common practice: a WPS is used inside what it states).
STATED = [
    ("as drawn", joint(), "covered", ""),
    ("thinnest stated", joint(10.0), "covered", ""),
    ("thickest stated", joint(40.0), "covered", ""),
    ("thinner", joint(9.9), "blocked", "wps.thickness"),
    ("thicker", joint(40.1), "blocked", "wps.thickness"),
    ("thickness not stated", joint(None), "open", "wps.thickness"),
    ("another grade of the stated group", joint(metal="S235JR"), "covered", ""),
    ("stainless", joint(metal="1.4307"), "blocked", "wps.base-metals"),
    ("one member stainless", joint(second="1.4307"), "blocked", "wps.base-metals"),
    ("metal not stated", joint(metal=None), "open", "wps.base-metals"),
    ("a grade that nobody knows", joint(metal="Unobtainium 7"), "blocked", "wps.base-metals"),
    ("another position", joint(positions=["PC"]), "blocked", "wps.positions"),
    ("one of two positions", joint(positions=["PF", "PE"]), "blocked", "wps.positions"),
    ("position as the procedure states", joint(positions=[]), "covered", ""),
    ("fillet", joint(weld={"kind": "t", "weld": "fillet", "throat_mm": 5}), "blocked", "wps.weld"),
    ("partial penetration", joint(weld={"weld": "pjp-groove"}), "blocked", "wps.weld"),
    ("T joint", joint(weld={"kind": "t"}), "blocked", "wps.weld"),
    ("both sides", joint(weld={"sides": "both"}), "blocked", "wps.sides"),
    ("metal backing", joint(weld={"backing": "metal"}), "blocked", "wps.backing"),
    ("another edge", joint(weld={"preparation": {"form": "double-v"}}), "blocked", "wps.preparation"),
    ("another process", joint(process="111"), "blocked", "wps.process"),
    ("its process", joint(process="135"), "covered", ""),
    ("downwards", joint(progression="down"), "blocked", "wps.progression"),
    ("with PWHT", joint(pwht=True), "blocked", "wps.pwht"),
    ("without PWHT", joint(pwht=False), "covered", ""),
    ("pipe on a sheet for plate", joint(pipe={"outside_diameter_mm": 600}), "open", "wps.diameter"),
]  # fmt: skip


@pytest.mark.parametrize(("name", "one", "verdict", "rule"), STATED, ids=[row[0] for row in STATED])
def test_a_joint_is_welded_inside_what_the_sheet_states(name, one, verdict, rule):
    found = asked(one)
    assert found.verdict == verdict, found.findings
    if rule:
        assert rules(found)[rule] == {"blocked": "violates", "open": "undecided"}[verdict]
    else:
        assert found.records == (RECORD.number,)


@pytest.mark.parametrize(("name", "one", "verdict", "rule"), STATED, ids=[row[0] for row in STATED])
def test_what_may_be_welded_is_covered_by_the_records(name, one, verdict, rule):
    """No sheet makes a joint covered that ``covers`` does not find covered."""
    wide = replace(
        WPS,
        positions=("PA", "PC", "PE", "PF"),
        applies_to=AppliesTo(
            thickness_mm=OpenRange(), outside_diameter_mm=OpenRange(), base_metals=WPS.applies_to.base_metals
        ),
    )
    if asked(one, wide).verdict == "covered":
        assert covers([RECORD], one, LIST.code.id, LIST.code.level).covered


@pytest.mark.parametrize("wps", [WPS, PREQUALIFIED], ids=["by test", "prequalified"])
def test_many_joints_at_once_are_answered_as_one_by_one(wps):
    joints = [one for _, one, *_ in STATED]
    code = wps.code
    alone = [asked(one, wps, code=code) for one in joints]
    assert applied_to_each(wps, joints, [RECORD], code) == alone


FILLET = replace(WPS, joint=Joint(kind="t", weld="fillet", throat_mm=5.0), applies_to=None, positions=("PB",))
SILENT = tuple(replace(one, progression=None) for one in WPS.passes)


def fillet(**sizes):
    return joint(20.0, weld={"kind": "t", "weld": "fillet", **sizes}, positions=["PB"])


# What a sheet or a list leaves out is undecided, never covered (common practice).
LEFT_OUT = [
    ("positions", replace(WPS, positions=()), joint(positions=[]), "undecided"),
    (
        "preparation",
        replace(WPS, joint=replace(WPS.joint, preparation=None)),
        joint(weld={"preparation": {"form": "single-v"}}),
        "undecided",
    ),
    ("progression", replace(WPS, passes=SILENT), joint(progression="up"), "undecided"),
    ("sides", replace(WPS, joint=replace(WPS.joint, sides="both")), joint(), "undecided"),
    ("weld", replace(WPS, joint=None), joint(), "undecided"),
    ("size", FILLET, fillet(), "undecided"),
    ("size", FILLET, fillet(throat_mm=8.0), "violates"),
]


@pytest.mark.parametrize(
    ("fact", "wps", "one", "verdict"), LEFT_OUT, ids=[f"{r[0]} {r[3]}" for r in LEFT_OUT]
)
def test_what_is_left_out_is_undecided(fact, wps, one, verdict):
    found = asked(one, wps)
    assert rules(found)[f"wps.{fact}"] == verdict
    assert found.verdict != "covered"


def test_the_size_that_a_fillet_is_drawn_with_holds():
    assert "wps.size" not in rules(asked(fillet(throat_mm=5.0), FILLET))


def test_a_prequalified_sheet_without_the_thickness_is_undecided():
    metal = replace(PREQUALIFIED.base_metals[0], thickness_mm=None)
    one = JointToWeld(base_metals=(metal, metal), joint=PREQUALIFIED.joint, positions=PREQUALIFIED.positions)
    found = asked(one, PREQUALIFIED, (), PREQUALIFIED.code)
    assert found.verdict == "open"
    assert {"wps.thickness", "wps.missing"} <= set(rules(found))


EXAMPLES = sorted(EXAMPLE.parents[1].glob("*.qualification-record.json"))


@pytest.mark.parametrize("file", EXAMPLES, ids=lambda one: one.name.split(".")[0])
def test_no_sheet_covers_more_than_its_record(file):
    """Whatever joint a sheet is used for, ``covers`` finds that joint covered by the record behind the sheet."""
    record = RECORDS.read(file.read_bytes())
    wps = procedure_from(record).procedure
    upward = wps.passes[0].progression
    joints = []
    for share, od, position, wanted in product(
        (0.3, 0.5, 1.0, 1.3, 2.0, 2.6),
        (None, 100.0, 800.0),
        {*wps.positions[:1], "PE", "2G"},
        (None, Requirements(impact=True), Requirements(hardness=True)),
    ):
        metals = tuple(
            replace(one, thickness_mm=one.thickness_mm * share, outside_diameter_mm=od)
            for one in wps.base_metals
        )
        # Gouging and edges are left to the WPS by a list.
        drawn = replace(wps.joint, preparation=None, length_mm=None)
        joints.append(
            JointToWeld(
                base_metals=metals,
                joint=drawn,
                positions=(position,),
                requirements=wanted,
                progression=upward,
            )
        )
    for one, found in zip(joints, applied_to_each(wps, joints, [record], wps.code), strict=True):
        if found.verdict == "covered":
            assert covers([record], one, wps.code.id, wps.code.level).covered, one
            assert set(one.positions) <= set(wps.positions)


def test_a_sheet_wider_than_its_record_is_held_by_the_record():
    wide = replace(WPS, applies_to=replace(WPS.applies_to, thickness_mm=OpenRange(min=1, max=200)))
    found = asked(joint(60.0), wide)
    assert found.verdict == "blocked"
    assert any("60 mm" in one.message for one in found.findings)
    assert asked(joint(), WPS, records=()).verdict == "blocked"


def test_a_requirement_of_the_joint_is_proved_or_not_covered():
    """Common practice: a record without impact tests at a temperature proves none."""
    cold = joint(requirements={"impact": {"temperature_c": -60, "average_j": 27}})
    assert asked(cold).verdict != "covered"
    assert covers([RECORD], cold, LIST.code.id, LIST.code.level).covered is False


def test_without_a_stated_range_a_sheet_is_for_what_it_is_drawn_for():
    bare = replace(WPS, applies_to=None)
    assert asked(joint(20.0), bare).verdict == "covered"
    found = asked(joint(22.0), bare)
    assert rules(found)["wps.thickness"] == "violates"
    assert "20 mm" in found.findings[0].message
    assert rules(asked(joint(metal="S235JR"), bare))["wps.base-metals"] == "violates"


def test_metals_in_words_that_no_record_has_are_not_taken_for_covered():
    odd = replace(WPS, applies_to=replace(WPS.applies_to, base_metals=("mild steels",)))
    assert asked(joint(), odd).verdict == "covered"  # its own grade
    assert rules(asked(joint(metal="S235JR"), odd))["wps.base-metals"] == "undecided"


def test_another_code_or_no_code_is_refused():
    aws = replace(LIST.code, id="aws-d1.1:2020", level=None)
    assert rules(asked(joint(), code=aws)) == {"wps.code": "violates"}
    assert rules(asked(joint(), replace(WPS, code=None))) == {"wps.code": "violates"}


def test_a_sheet_that_is_heat_treated_asks_the_list():
    treated = replace(WPS, thermal=replace(WPS.thermal or Thermal(), pwht=Pwht(kind="stress relief")))
    assert rules(asked(joint(), treated))["wps.pwht"] == "undecided"
    assert rules(asked(joint(pwht=False), treated))["wps.pwht"] == "violates"


def test_preheat_of_the_sheet_is_asked_for_the_thickness_of_the_joint():
    """AWS D1.1:2020 table 5.8, category B: 10 °C up to 20 mm, 65 °C over 38 mm to 65 mm (from memory)."""
    wps = replace(PREQUALIFIED, applies_to=AppliesTo(thickness_mm=OpenRange(min=3)))
    metal = wps.base_metals[0]
    said = {}
    for mm in (12.0, 16.0, 50.0):
        one = JointToWeld(
            base_metals=(replace(metal, thickness_mm=mm),) * 2, joint=wps.joint, positions=wps.positions
        )
        said[mm] = asked(one, wps, (), wps.code)
    assert said[16.0].verdict == "covered", said[16.0].findings
    assert said[50.0].verdict == "blocked"
    assert rules(said[50.0]) == {"prequalified.preheat": "violates"}


@pytest.mark.parametrize(
    ("asked_for", "verdict"),
    [
        ({}, "covered"),
        ({"impact": False, "hardness": False}, "covered"),
        ({"impact": True}, "blocked"),
        ({"impact": ImpactRequirement(temperature_c=-20, average_j=27)}, "blocked"),
        ({"hardness": True}, "blocked"),
    ],
)
def test_a_prequalified_sheet_proves_no_toughness(asked_for, verdict):
    """AWS D1.1: impact tests that the contract asks for are part of a qualification by test (from memory)."""
    wps = PREQUALIFIED
    one = JointToWeld(
        base_metals=wps.base_metals,
        joint=wps.joint,
        positions=wps.positions,
        requirements=Requirements(**asked_for),
    )
    found = asked(one, wps, (), wps.code)
    assert found.verdict == verdict, found.findings
    assert ("prequalified.tested" in rules(found)) is (verdict == "blocked")


def test_deposits_of_two_processes_follow_the_thickness():
    first = replace(WPS.passes[0], process="141", deposit_mm=3.0)
    rest = [replace(one, deposit_mm=17.0 / (len(WPS.passes) - 1)) for one in WPS.passes[1:]]
    two = replace(WPS, passes=(first, *rest))
    thinner = written_for(two, joint(12.0)).passes
    assert thinner[0].deposit_mm == 3.0
    assert sum(one.deposit_mm for one in thinner) == pytest.approx(12.0)
    unknown = written_for(two, joint(2.0)).passes
    assert all(one.deposit_mm is None for one in unknown)


def test_the_size_of_a_fillet_is_the_drawing_s():
    fillet = replace(WPS, joint=replace(WPS.joint, kind="t", weld="fillet", preparation=None, leg1_mm=8.0))
    one = joint(weld={"kind": "t", "weld": "fillet", "throat_mm": 4.0})
    written = written_for(fillet, one)
    assert (written.joint.throat_mm, written.joint.leg1_mm) == (4.0, None)


# --- which procedure ------------------------------------------------------------------------------


def standing(verdict, margin=0.0):
    return Applied(verdict=verdict, findings=(), records=(), margin=margin)


def table(*rows):
    return [
        [standing("covered" if margin is not None else "blocked", margin or 0.0) for margin in row]
        for row in rows
    ]


def test_fewest_procedures_then_the_widest_margin():
    rows = table((0.5, None, 0.1), (None, 0.5, 0.1), (None, None, None))
    found = suggested(rows, ["P1", "P2", "P3"], [None, None, None])
    assert {at: one.procedure for at, one in found.items()} == {0: 2, 1: 2}
    assert "P1" in found[0].reason
    kept = suggested(rows, ["P1", "P2", "P3"], [None, None, None], kept=(0, 1))
    assert {at: one.procedure for at, one in kept.items()} == {0: 0, 1: 1}


def test_of_sets_as_small_the_quicker_is_suggested():
    found = suggested(table((0.5, 0.5), (0.2, 0.2)), ["slow", "quick"], [60.0, 20.0])
    assert {one.procedure for one in found.values()} == {1}


def test_the_only_one_is_said_to_be_the_only_one():
    found = suggested(table((inf, None)), ["P1", "P2"], [None, None])
    assert found[0].reason.startswith("The only")
    assert found[0].others == ()
    assert suggested(table((None, None)), ["P1", "P2"], [None, None]) == {}


def test_time_by_weld_metal():
    """1.2 mm wire at 8 m/min lays down π/4 · 1.2² · 8000 mm³/min at 7.85 g/cm³, less 5 to 10 % of spatter; the
    arc burns for 20 to 60 % of the time at the joint (common practice)."""
    arc_min_kg = 1e6 / (3.14159 / 4 * 1.2**2 * 8000 * 7.85)
    assert arc_min_kg / 0.95 / 0.6 < minutes_per_kg(WPS) < arc_min_kg / 0.90 / 0.2
    assert minutes_per_kg(replace(WPS, passes=())) is None
    unknown = replace(WPS.passes[0], travel_mm_min=None)
    assert minutes_per_kg(replace(WPS, passes=(unknown,))) is None
