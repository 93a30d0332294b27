"""Coverage: record by record, together only where the code says so; properties of ranges and corrections."""

from copy import deepcopy
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.welding.records import A572, S355, put, record, specimens_of, taken, thickness
from welding.codebook.book import Book, Correction, using
from welding.coverage.covers import covers
from welding.coverage.matrix import coverage_matrix
from welding.coverage.record import range_of
from welding.documents.codec import JOINT, PROCEDURE
from welding.ranges import Range

ISO, AWS = "iso-15614-1:2017", "aws-d1.1:2020"
GROOVES = ("PA", "PC", "PE", "PF", "PG")


def joint(mm=20.0, *, weld="cjp-groove", kind="butt", position="PF", metal="S355J2+N", code="iso", **more):
    used = {"id": ISO, "level": 2} if code == "iso" else {"id": AWS, "units": "si"}
    leg = {"leg1_mm": more.pop("leg_mm", 6)} if weld == "fillet" else {}
    return JOINT.take(
        {
            "format": "grounded-bead/joint", "version": 1, "number": "J1", "code": used,
            "base_metals": [{"designation": metal, "thickness_mm": mm}] * 2,
            "joint": {"kind": kind, "weld": weld, **leg}, "positions": [position], **more,
        }
    )  # fmt: skip


IMPACT = {"requirements": {"impact": {"temperature_c": -20, "average_j": 27}}}


def procedure_of(plain, **changes):
    """The procedure of a record, its ranges narrowed to what was welded."""
    found = deepcopy(plain["procedure"])
    for one in found["passes"]:
        one.update(
            current_a={"min": 195, "max": 205}, voltage_v={"min": 24.5, "max": 25.5},
            travel_mm_min={"min": 235, "max": 245}, wire_feed_m_min={"min": 7.8, "max": 8.2},
        )  # fmt: skip
        one["gas"]["flow_l_min"] = {"min": 14, "max": 16}
    found["thermal"] = {"preheat_min_c": 80, "interpass_max_c": 160}
    found.update(deepcopy(IMPACT) if plain["procedure"]["code"]["id"] == ISO else {})
    for path, value in changes.items():
        put(found, path.replace("__", "."), value)
    return PROCEDURE.take(found)


@pytest.mark.parametrize("code", ["aws", "iso"])
def test_a_record_covers_what_was_welded(code):
    found = covers([taken(record(code))], procedure_of(record(code)))
    assert found.covered, [(f.title, f.message) for f in found.findings]
    assert found.by == ("FB-27-Q02",)


@pytest.mark.parametrize("code", ["aws", "iso"])
def test_no_record_covers_nothing_and_says_so(code):
    found = covers([], procedure_of(record(code)))
    assert not found.covered and [one.rule for one in found.findings] == ["record.none"]


def test_mechanised_weaving_with_toughness_is_left_open():
    """AWS D1.1, supplementary variables: width, frequency and dwell are limited, and are not recorded."""
    plain = record("aws")
    put(plain, "procedure.requirements", IMPACT["requirements"])
    for one in (*plain["procedure"]["passes"], *plain["coupon"]["passes"]):
        one.update(bead="weave")
    for one in plain["procedure"]["passes"]:
        one["mechanisation"] = "fully"
    found = covers([taken(plain)], procedure_of(plain))
    assert [one.verdict for one in found.findings if one.rule == "range.oscillation"] == ["undecided"]
    assert not found.covered


def blocked(code, **changes):
    found = covers([taken(record(code))], procedure_of(record(code), **changes))
    assert not found.covered
    return {one.rule.removeprefix("range."): one for one in found.findings if one.verdict == "violates"}


@pytest.mark.parametrize(
    "code, variable, changes",
    [
        ("aws", "current_a", {"passes__1__current_a": {"min": 170, "max": 200}}),
        ("aws", "current_a", {"passes__1__current_a": {"min": 200, "max": 221}}),
        ("aws", "voltage_v", {"passes__0__voltage_v": {"min": 23, "max": 25}}),
        ("aws", "travel_mm_min", {"passes__0__travel_mm_min": {"min": 170, "max": 240}}),
        ("aws", "gas", {"passes__*__gas__components_percent": {"Ar": 80, "CO2": 20}}),
        ("aws", "gas_flow_l_min", {"passes__*__gas__flow_l_min": {"min": 11, "max": 15}}),
        ("aws", "transfer_modes", {"passes__0__transfer": "short-circuit"}),
        ("aws", "filler", {"passes__*__filler__designation": "ER80S-D2"}),
        ("aws", "filler_diameter_mm", {"passes__*__filler__diameter_mm": 1.0}),
        ("aws", "current_kind", {"passes__*__polarity": "DCEN"}),
        ("aws", "output", {"passes__*__output": "CC"}),
        ("aws", "preheat_c", {"thermal__preheat_min_c": 60}),
        ("aws", "positions", {"positions": ["4G"]}),
        ("aws", "progression", {"passes__*__progression": "down"}),
        ("aws", "base_metals", {"base_metals": [{"designation": "A572 Gr 65", "thickness_mm": 20}] * 2}),
        ("aws", "groove_angle_deg", {"joint__preparation__included_angle_deg": 50}),
        ("iso", "heat_input_kj_mm", {"passes__*__travel_mm_min": {"min": 180, "max": 240}}),
        ("iso", "heat_input_kj_mm", {"passes__*__travel_mm_min": {"min": 240, "max": 340}}),
        ("iso", "mechanisation", {"passes__*__mechanisation": "fully"}),
        ("iso", "gas", {"passes__*__gas__components_percent": {"Ar": 80, "CO2": 20}}),
        ("iso", "transfer_modes", {"passes__*__transfer": "short-circuit"}),
        ("iso", "preheat_c", {"thermal__preheat_min_c": 79}),
        ("iso", "interpass_c", {"thermal__interpass_max_c": 161}),
        ("iso", "positions", {"positions": ["PA"]}),
        ("iso", "impact_temperature_c", {"requirements__impact__temperature_c": -30}),
        ("iso", "base_metals", {"base_metals": [{"designation": "S460M", "thickness_mm": 20}] * 2}),
        ("iso", "processes", {"passes__*__process": "138"}),
        ("iso", "pwht", {"thermal__pwht": {"kind": "stress-relief"}}),
    ],
)
def test_the_variable_that_blocks_is_named_with_what_would_unblock_it(code, variable, changes):
    found = blocked(code, **changes)
    assert variable in found, found
    assert found[variable].remedy and found[variable].citations[0].clause and found[variable].path


# --- never a union --------------------------------------------------------------------------------


def _with_filler(mm, designation, number):
    plain = thickness(record("aws", number=number), mm)
    put(plain, "procedure.passes.*.filler.designation", designation)
    return taken(plain)


def test_ten_millimetres_with_one_filler_and_forty_with_another_are_not_forty_with_the_first():
    records = [_with_filler(10, "ER70S-6", "Q10"), _with_filler(40, "ER70S-3", "Q40")]
    wanted = procedure_of(thickness(record("aws"), 40), **{"passes__*__filler__designation": "ER70S-6"})
    found = covers(records, wanted)
    assert not found.covered
    assert {one.verdict for one in found.records} == {"blocked"}


def _piece(position, number, heat_s=80):
    plain = record("iso", number=number, coupon__position=position)
    put(plain, "coupon.passes.*.time_s", heat_s)
    return taken(plain)


def test_a_piece_of_high_and_one_of_low_heat_input_cover_the_positions_between():
    """ISO 15614-1:2017, clause 8.4.2: impact from the highest, hardness from the lowest, from memory."""
    wanted = joint(20, position="PA", **IMPACT)
    high, low = _piece("PF", "high"), _piece("PC", "low")
    assert not covers([high], wanted).covered
    assert not covers([low], wanted).covered
    both = covers([high, low], wanted)
    assert both.covered and set(both.by) == {"high", "low"} and both.combination
    assert not covers([high, low], joint(20, position="PG", **IMPACT)).covered, "downhill stays out"
    assert not covers(
        [high, taken(thickness(record("iso", number="thin", coupon__position="PC"), 8))], wanted
    ).covered


def test_two_heat_inputs_cover_everything_between_them():
    plain = record("iso")
    wanted = procedure_of(plain, **{"passes__*__travel_mm_min": {"min": 130, "max": 245}})
    slow, fast = _piece("PF", "slow", 150), _piece("PF", "fast", 80)
    assert not covers([slow], wanted).covered
    assert not covers([fast], wanted).covered
    assert covers([slow, fast], wanted).covered


def test_2g_and_5g_on_pipe_cover_what_6g_covers():
    """AWS D1.1:2020, table 6.1, from memory."""

    def pipe(position):
        return taken(record("aws", number=position, coupon__product="pipe", coupon__outside_diameter_mm=323.9,
                            coupon__position=position))  # fmt: skip

    wanted = joint(20, position="6G", metal="A572 Gr 50", code="aws", progression="up")
    assert not covers([pipe("5G")], wanted).covered
    assert covers([pipe("2G"), pipe("5G")], wanted).covered
    assert not covers([pipe("2G")], wanted).covered


def test_an_invalid_record_covers_nothing():
    plain = record("iso")
    plain["tests"] = plain["tests"][:-1]
    found = covers([taken(plain)], procedure_of(record("iso")))
    assert not found.covered
    assert "record.valid" in {one.rule for one in found.findings}


def test_nothing_stated_is_asked_and_not_assumed():
    found = covers([taken(record("iso"))], procedure_of(record("iso"), passes__0__mechanisation="remove"))
    assert not found.covered and found.verdict == "open"
    assert [one.rule for one in found.findings] == ["range.mechanisation"]


# --- properties -----------------------------------------------------------------------------------

THICK = st.sampled_from([2.0, 3.0, 6.0, 10.0, 12.0, 16.0, 20.0, 25.0, 40.0, 60.0, 100.0])
CODE = st.sampled_from(["aws", "iso"])


@settings(max_examples=60, deadline=None)
@given(
    CODE,
    THICK,
    st.sampled_from(GROOVES),
    st.floats(100, 400),
    st.floats(15, 35),
    st.floats(20, 250),
    st.integers(40, 200),
)
def test_the_tested_point_is_inside_its_own_range(code, mm, position, amps, volts, preheat, seconds):
    plain = thickness(record(code, coupon__position=position, coupon__preheat_c=preheat), mm)
    plain["coupon"].pop("progression")
    plain["coupon"]["progression"] = "down" if position == "PG" else "up"
    put(plain, "coupon.passes.*.current_a", amps)
    put(plain, "coupon.passes.*.voltage_v", volts)
    put(plain, "coupon.passes.*.time_s", seconds)
    for level in (1, 2) if code == "iso" else (None,):
        for item in range_of(taken(plain), ISO if code == "iso" else AWS, level).items:
            if item.kind == "span" and isinstance(item.tested, Range):
                assert item.holds(item.tested.min) or item.variable == "interpass_c", item
                assert item.holds(item.tested.max), item
            if item.kind in ("set", "exact") and item.variable not in ("base_metals", "filler_diameter_mm"):
                assert item.values


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.tuples(THICK, st.sampled_from(GROOVES)), min_size=1, max_size=4),
    THICK,
    st.sampled_from(GROOVES),
)
def test_adding_a_record_never_uncovers_and_no_joint_is_covered_by_nobody(pieces, mm, position):
    records = [
        taken(
            thickness(
                record(
                    "iso",
                    number=f"Q{n}",
                    coupon__position=p,
                    coupon__progression="down" if p == "PG" else "up",
                ),
                t,
            )
        )
        for n, (t, p) in enumerate(pieces)
    ]
    wanted = joint(mm, position=position, **IMPACT)
    before = False
    for count in range(1, len(records) + 1):
        found = covers(records[:count], wanted)
        assert found.covered or not before, "a record more never takes coverage away"
        before = found.covered
        if found.covered:
            singly = [one for one in found.records if one.verdict == "covered"]
            assert singly or (found.combination and len(found.by) > 1)


@settings(max_examples=40, deadline=None)
@given(st.floats(1, 120), THICK, CODE)
def test_covers_agrees_with_the_span(asked, tested, code):
    one = taken(
        thickness(
            record(
                code, procedure__code={"id": AWS, "units": "si"} if code == "aws" else {"id": ISO, "level": 2}
            ),
            tested,
        )
    )
    wanted = joint(asked, position="PF", metal="S355J2+N" if code == "iso" else "A572 Gr 50", code=code)
    if code == "aws":
        wanted = joint(asked, position="3G", metal="A572 Gr 50", code="aws", progression="up")
    found = covers([one], wanted)
    thick = [f for f in found.records[0].findings if f.rule == "range.parent_thickness_mm"]
    span = range_of(one).of("parent_thickness_mm")[0]
    if span.kind == "span":
        assert (thick[0].verdict == "complies") == span.holds(asked)
    else:
        assert thick[0].verdict == "undecided"


@settings(max_examples=25, deadline=None)
@given(st.lists(st.tuples(THICK, st.sampled_from(GROOVES)), min_size=1, max_size=4),
       st.lists(st.tuples(st.floats(2, 120), st.sampled_from(["butt", "t"]), st.sampled_from(["cjp-groove", "pjp-groove", "fillet"]),
                          st.sampled_from(["PA", "PC", "PF", "PB"]), st.sampled_from(["S355J2+N", "S235JR", "1.4307"]),
                          st.sampled_from([None, "135", "111"]), st.sampled_from([None, True])),
                min_size=1, max_size=5))  # fmt: skip
def test_the_matrix_says_what_covers_says(pieces, joints):
    records = [
        taken(thickness(record("iso", number=f"Q{n}", coupon__position=p), t))
        for n, (t, p) in enumerate(pieces)
    ]
    wanted = [
        replace(joint(mm, kind=kind, weld=weld, position=position, metal=metal), process=process, pwht=pwht)
        for mm, kind, weld, position, metal, process, pwht in joints
    ]
    for row, one in zip(coverage_matrix(records, wanted), wanted, strict=True):
        singly = [covers([each], one).records[0].verdict for each in records]
        assert [cell.verdict for cell in row] == singly


@pytest.mark.parametrize("process", [None, "135", "111"])
@pytest.mark.parametrize("mm", [None, 12, 300])
def test_the_matrix_heeds_the_process_that_a_joint_names(process, mm):
    """Also of a record without a log, which leaves the process open and blocks what it blocked before."""
    logged = taken(record("iso", number="Q1"))
    bare = replace(logged, number="Q2", coupon=replace(logged.coupon, passes=()))
    one = replace(joint(mm, position="PF"), process=process)
    (row,) = coverage_matrix([logged, bare], [one])
    assert [cell.verdict for cell in row] == [
        covers([each], one).records[0].verdict for each in (logged, bare)
    ]
    if process == "111":
        assert row[0].verdict == "blocked"


# --- the book -------------------------------------------------------------------------------------


def _book(*corrections):
    return Book(
        {
            one[0]: Correction(
                id=one[0],
                action="correct" if len(one) > 1 else "confirm",
                value=one[-1] if len(one) > 1 else None,
            )
            for one in corrections
        }
    )


@pytest.mark.parametrize(
    "code, number, value, variables",
    [
        ("aws", "aws_d1_1_2020.groove_tests/plate-middle/max_factor", 3, {"parent_thickness_mm"}),
        ("aws", "aws_d1_1_2020.essential_variables/current_a.GMAW/plus_percent", 20, {"current_a"}),
        ("aws", "aws_d1_1_2020.essential_variables/preheat_c.GMAW/minus_c", 30, {"preheat_c"}),
        ("aws", "aws_d1_1_2020.test_positions/plate-3G/groove", ("1G", "3G"), {"positions"}),
        (
            "iso",
            "iso_15614_1_2017.thickness_level_2/over-12-to-20/multi_max_factor",
            1.5,
            {"parent_thickness_mm"},
        ),
        (
            "iso",
            "iso_15614_1_2017.variables/heat_input_kj_mm.2/impact_plus_percent",
            10,
            {"heat_input_kj_mm"},
        ),
        ("iso", "iso_15614_1_2017.variables/interpass_c.2/plus_c", 50, {"interpass_c"}),
        ("iso", "iso_15614_1_2017.variables/mechanisation.2/rule", "free", {"mechanisation"}),
    ],
)
def test_correcting_one_number_changes_only_what_depends_on_it(code, number, value, variables):
    one = taken(record(code))
    before = {(i.variable, i.process, i.role, i.weld): i for i in range_of(one).items}
    with using(_book((number, value))):
        after = {(i.variable, i.process, i.role, i.weld): i for i in range_of(one).items}
    changed = {key[0] for key in before if _bare(before[key]) != _bare(after[key])}
    assert changed == variables
    assert {(i.variable, i.process, i.role, i.weld): i for i in range_of(one).items} == before, (
        "outside it all stands"
    )


def _bare(item):
    return item.kind, item.min, item.max, item.values, item.numbers


def test_confirming_a_number_takes_its_mark_away_and_changes_nothing_else():
    one = taken(record("iso"))
    before = range_of(one).of("interpass_c")[0]
    assert before.unchecked and before.rule.provenance == "memory"
    with using(_book(("iso_15614_1_2017.variables/interpass_c.2/plus_c",))):
        after = range_of(one).of("interpass_c")[0]
    assert after.rule.provenance == "confirmed" and not after.unchecked
    assert _bare(after) == _bare(before)


def test_a_rule_that_is_not_known_is_entered_by_the_owner_of_a_copy():
    one = taken(record("iso"))
    unknown = range_of(one, ISO, 1).of("mechanisation")[0]
    assert unknown.values == ("partly",) and unknown.open_beyond, "what was tested is proved, no more"
    with using(_book(("iso_15614_1_2017.variables/mechanisation.1/rule", "free"))):
        assert range_of(one, ISO, 1).of("mechanisation")[0].kind == "any"


def test_level_2_tests_serve_level_1_and_not_the_other_way():
    plain = record("iso")
    assert range_of(taken(plain), ISO, 1).valid
    plain["tests"] = [t for t in plain["tests"] if t["kind"] in ("visual", "transverse-tensile", "side-bend")]
    assert range_of(taken(plain), ISO, 1).valid
    assert not range_of(taken(plain), ISO, 2).valid


def test_the_sample_metals_are_what_the_cases_take_them_for():
    assert S355["thickness_mm"] == A572["thickness_mm"] == 20
    assert len(specimens_of({"id": ISO})) > len(specimens_of({"id": AWS}))
