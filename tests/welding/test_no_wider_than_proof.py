"""No range is wider than what was tested: cases on both sides of each edge, with clause; all from memory."""

from copy import deepcopy

import pytest

from tests.welding.records import S355, put, record, specimens_of, taken
from tests.welding.test_covering import ISO, joint, procedure_of
from tests.welding.test_ranges import _change
from welding.coverage.covers import covers
from welding.coverage.record import judge, plan_of, range_of
from welding.documents.codec import PROCEDURE
from welding.evaluate.procedure import evaluate

AMPS = {"min": 300, "max": 320}


def answer(plain, procedure, variable):
    """covered, or the worst that is said of a variable."""
    found = covers([taken(plain)], procedure)
    of_it = [f.verdict for f in found.records[0].findings if f.rule == f"range.{variable}"]
    return next((one for one in ("violates", "undecided") if one in of_it), "covered")


# --- electrical values are held against a tested pass, whatever a pass is called (AWS D1.1:2020, table 6.5) ---


def one_pass_tested(role):
    plain = record("aws")
    plain["coupon"]["passes"] = plain["coupon"]["passes"][:1]
    plain["procedure"]["passes"] = [{**plain["procedure"]["passes"][0], "role": role}]
    return plain


@pytest.mark.parametrize("tested", ["root", "fill", "cap"])
@pytest.mark.parametrize("asked", ["root", "fill", "hot", "cap"])
@pytest.mark.parametrize(
    "amps, verdict",
    [
        ((195, 205), "covered"),
        ((181, 219), "covered"),
        ((179, 200), "violates"),
        ((200, 221), "violates"),
        ((380, 400), "violates"),
    ],
)
def test_a_pass_is_held_against_what_was_tested_by_any_name(tested, asked, amps, verdict):
    plain = one_pass_tested(tested)
    low, high = amps
    wanted = procedure_of(plain, passes__0__role=asked, passes__0__current_a={"min": low, "max": high})
    assert answer(plain, wanted, "current_a") == verdict


@pytest.mark.parametrize(
    "size, amps, verdict",
    [
        (1.0, (195, 205), "covered"),
        (1.0, (300, 310), "violates"),
        (1.2, (195, 205), "covered"),
        (1.6, (300, 310), "violates"),
    ],
)
@pytest.mark.parametrize("variable", ["current_a", "voltage_v", "travel_mm_min", "wire_feed_m_min"])
def test_another_wire_is_held_against_the_nearest_that_was_tested(size, amps, verdict, variable):
    plain = record("aws")
    wanted = {
        "current_a": amps,
        "voltage_v": (24.5, 25.5),
        "travel_mm_min": (235, 245),
        "wire_feed_m_min": (7.8, 8.2),
    }
    if verdict == "violates":
        wanted = {name: (1.5 * low, 1.5 * high) for name, (low, high) in wanted.items()}
    low, high = wanted[variable]
    procedure = procedure_of(
        plain,
        passes__1__filler__diameter_mm=size,
        **{f"passes__1__{variable}": {"min": low, "max": high}},
    )
    assert answer(plain, procedure, variable) == verdict
    found = covers([taken(plain)], procedure).records[0].findings
    said = [f.message for f in found if f.rule == f"range.{variable}" and f.verdict == "violates"]
    assert verdict == "covered" or size == 1.2 or any("tested passes 2–3, 1.2 mm" in one for one in said)


def test_another_stick_has_the_range_of_its_own_sheet():
    """Covered electrodes go by their manufacturer's range: one of another size is open until its sheet is entered."""
    plain = record("aws")
    _change(plain, "smaw", "E7018")
    assert answer(plain, procedure_of_stick(plain, 4.0), "current_a") == "undecided"
    assert answer(plain, procedure_of_stick(plain, 5.0), "filler_diameter_mm") == "violates"


def procedure_of_stick(plain, size):
    found = {**plain["procedure"], "thermal": {"preheat_min_c": 80, "interpass_max_c": 160}}
    found["passes"] = [
        {**one, "filler": {"designation": "E7018", "diameter_mm": size}} for one in found["passes"]
    ]
    return PROCEDURE.take(found)


# --- backing is not one thing (AWS D1.1:2020, table 6.5 and clause 5) ------------------------------------


@pytest.mark.parametrize(
    "tested, asked, verdict",
    [
        ("metal", "metal", "covered"), ("metal", "none", "violates"), ("metal", "gas", "violates"),
        ("metal", "ceramic", "violates"), ("metal", "flux", "violates"), ("metal", "weld", "undecided"),
        ("none", "metal", "covered"), ("none", "gas", "covered"), ("none", "ceramic", "undecided"),
        ("gas", "none", "covered"), ("gas", "flux", "undecided"), ("ceramic", "ceramic", "covered"),
        ("ceramic", "metal", "undecided"), ("ceramic", "none", "violates"), ("flux", "metal", "undecided"),
    ],
)  # fmt: skip
def test_backing(tested, asked, verdict):
    plain = record("aws", procedure__joint__backing=tested, procedure__joint__back_gouge=False)
    put(plain, "procedure.joint.preparation.included_angle_deg", 70)  # no prequalified detail
    wanted = procedure_of(plain, joint__backing=asked)
    assert answer(plain, wanted, "backing") == verdict


@pytest.mark.parametrize(
    "od, backing, verdict",
    [
        (600, "none", "covered"),
        (599, "none", "violates"),
        (400, "metal", "undecided"),
        (400, "ceramic", "violates"),
    ],
)
def test_a_plate_test_and_pipe(od, backing, verdict):
    """AWS D1.1:2020, table 6.2: pipe from 600 mm; smaller on backing is not decided."""
    plain = record("aws", procedure__joint__backing=backing)
    wanted = joint(20, position="3G", metal="A572 Gr 50", code="aws", progression="up",
                   base_metals=[{"designation": "A572 Gr 50", "thickness_mm": 20, "outside_diameter_mm": od}] * 2,
                   joint={"kind": "butt", "weld": "cjp-groove", "backing": backing})  # fmt: skip
    assert answer(plain, wanted, "outside_diameter_mm") == verdict


# --- toughness variables (AWS D1.1:2020, table 6.7) -------------------------------------------------------


@pytest.mark.parametrize(
    "metal, impact, verdict",
    [
        ("A572 Gr 50", True, "covered"),
        ("A36", True, "violates"),
        ("A36", False, "covered"),
        ("A572 Gr 65", True, "violates"),
    ],
)
def test_another_group_with_impact_toughness(metal, impact, verdict):
    asked = {"impact": {"temperature_c": -20, "average_j": 27}}
    plain = record("aws", procedure__requirements=asked)
    plain["tests"] = specimens_of({"id": ISO})
    changes = {"requirements": asked} if impact else {}
    wanted = procedure_of(plain, base_metals=[{"designation": metal, "thickness_mm": 16}] * 2, **changes)
    if not impact:
        wanted = procedure_of(record("aws"), base_metals=[{"designation": metal, "thickness_mm": 16}] * 2)
    assert answer(plain, wanted, "base_metals") == verdict


# --- retests (AWS D1.1:2020, clause 6.10.5; ISO 15614-1:2017, clause 7.6) ---------------------------------


def with_failures(code, failed, again):
    plain = record(code)
    for one in [t for t in plain["tests"] if t["kind"] == "side-bend"][:failed]:
        one["openings_mm"] = [12]
        for n in range(again):
            good = {
                **one,
                "specimen": f"{one['specimen']}-{n}",
                "openings_mm": [],
                "retest_of": one["specimen"],
            }
            plain["tests"].append(good)
    return judge(taken(plain)).verdict


@pytest.mark.parametrize(
    "code, failed, again, verdict",
    [
        ("aws", 0, 0, "accepted"), ("aws", 1, 2, "accepted"), ("aws", 1, 1, "incomplete"), ("aws", 1, 0, "rejected"),
        ("aws", 2, 2, "rejected"), ("aws", 4, 2, "rejected"),
        ("iso", 1, 2, "accepted"), ("iso", 2, 2, "accepted"), ("iso", 4, 2, "rejected"),
    ],
)  # fmt: skip
def test_retests_are_for_single_failures(code, failed, again, verdict):
    assert with_failures(code, failed, again) == verdict


@pytest.mark.parametrize("code", ["aws", "iso"])
def test_a_retest_has_no_retest_of_its_own(code):
    plain = record(code)
    first = next(t for t in plain["tests"] if t["kind"] == "side-bend")
    first["openings_mm"] = [12]
    mark = first["specimen"]
    for name, of, openings in (("R1", mark, [12]), ("R2", mark, []), ("S1", "R1", []), ("S2", "R1", [])):
        plain["tests"].append({**first, "specimen": name, "retest_of": of, "openings_mm": openings})
    found = judge(taken(plain))
    assert found.verdict == "rejected"
    assert {one.specimen: one.state for one in found.retests}["R1"] == "failed"


# --- processes (AWS D1.1:2020, table 6.5; ISO 15614-1:2017, clause 8.4.1) ---------------------------------


@pytest.mark.parametrize("tested, asked, code, verdict", [
    ("121", "121", "aws", "covered"), ("121", "122", "aws", "violates"), ("121", "124", "aws", "violates"), ("121", "125", "aws", "violates"),
    ("141", "141", "aws", "covered"), ("141", "143", "aws", "violates"), ("136", "114", "aws", "violates"), ("135", "131", "aws", "covered"),
    ("135", "138", "iso", "violates"), ("135", "135", "iso", "covered"),
])  # fmt: skip
def test_processes_are_not_merged(tested, asked, code, verdict):
    plain = record(code)
    for one in (*plain["procedure"]["passes"], *plain["coupon"]["passes"]):
        one["process"] = tested
    assert (
        answer(
            plain,
            procedure_of(plain, passes__0__process=asked, passes__1__process=asked, passes__2__process=asked),
            "processes",
        )
        == verdict
    )


def two_processes(*order):
    plain = record("iso")
    for one, other, process in zip(
        plain["procedure"]["passes"], plain["coupon"]["passes"], (order * 3)[:3], strict=True
    ):
        one["process"] = other["process"] = process
    return plain


@pytest.mark.parametrize(
    "asked, verdict",
    [
        (("141", "111", "111"), "covered"),
        (("111", "141", "141"), "violates"),
        (("111", "111", "111"), "violates"),
        (("141", "141", "141"), "violates"),
    ],
)
def test_two_processes_hold_in_the_order_of_the_test(asked, verdict):
    plain = two_processes("141", "111", "111")
    procedure = two_processes(*asked)
    assert answer(plain, procedure_of(procedure), "processes") == verdict


@pytest.mark.parametrize(
    "pulse, verdict",
    [(None, "covered"), ({"peak_a": 150, "background_a": 40, "frequency_hz": 2}, "violates")],
)
def test_pulsed_current_is_not_proved_by_plain(pulse, verdict):
    """ISO 15614-1:2017, clause 8.4.6, type of current."""
    plain = record("iso")
    _change(plain, "gtaw", None)
    found = deepcopy(plain["procedure"])
    if pulse:
        found["passes"][1]["pulse"] = pulse
    assert answer(plain, PROCEDURE.take(found), "current_kind") == verdict


# --- preheat ---------------------------------------------------------------------------------------------


@pytest.mark.parametrize("preheat, covered", [(80, True), (66, True), (64, False)])
def test_a_steel_without_a_row_of_the_preheat_table_goes_by_its_test(preheat, covered):
    """AWS D1.1:2020, tables 5.8 and 6.5: the table is for prequalified work; by test, 15 °C less at most."""
    metals = [{"designation": name, "thickness_mm": 20} for name in ("A514", "A572 Gr 50")]
    plain = record("aws", procedure__base_metals=metals)
    for one in plain["tests"]:
        if one["kind"] == "transverse-tensile":
            one["tensile_mpa"] = 600
    assert covers([taken(plain)], procedure_of(plain, thermal__preheat_min_c=preheat)).covered == covered


# --- pairs of groups (ISO 15614-1:2017, clause 8.3.1) -----------------------------------------------------


@pytest.mark.parametrize(
    "tested, asked, verdict",
    [
        (("13CrMo4-5", "13CrMo4-5"), ("13CrMo4-5", "13CrMo4-5"), "covered"),
        (("13CrMo4-5", "13CrMo4-5"), ("13CrMo4-5", "X11CrMo9-1"), "violates"),
        (("1.4301", "1.4301"), ("1.4307", "1.4301"), "covered"),
        (("1.4301", "1.4301"), ("1.4301", "1.4539"), "violates"),
        (("S460Q", "S355J2+N"), ("S460Q", "S355J2+N"), "covered"),
        (("S460Q", "S355J2+N"), ("S690QL", "S355J2+N"), "violates"),
        (("S355J2+N", "S355J2+N"), ("S235JR", "S355J2+N"), "covered"),
        (("S355J2+N", "S355J2+N"), ("S420N", "S355J2+N"), "violates"),
    ],
)  # fmt: skip
def test_a_mark_binds_both_members(tested, asked, verdict):
    def metals(pair):
        return [{"designation": name, "thickness_mm": 20} for name in pair]

    plain = record("iso", procedure__base_metals=metals(tested))
    assert answer(plain, joint(20, base_metals=metals(asked)), "base_metals") == verdict


@pytest.mark.parametrize(
    "name, part", [("6082", "ISO 15614-2"), ("Cu-DHP", "ISO 15614-6"), ("S355J2+N", ""), ("1.4301", "")]
)
def test_other_metals_belong_to_other_parts(name, part):
    """ISO 15614-1:2017, clause 1: steels and nickel alloys."""
    groups = {"6082": "23.1", "Cu-DHP": "31"}.get(name)
    metal = {"designation": name, "thickness_mm": 20, **({"groups": {"iso_15608": groups}} if groups else {})}
    plain = record("iso", procedure__base_metals=[metal, metal])
    assert answer(plain, joint(20, base_metals=[metal, metal]), "base_metals") == (
        "violates" if part else "covered"
    )
    found = [f for f in evaluate(PROCEDURE.take(plain["procedure"])).findings if f.rule == "code.scope"]
    assert bool(found) == bool(part) and all(part in one.message for one in found)


@pytest.mark.parametrize("stated, group", [("11.1", "11.1"), ("1.1", "1.1"), (None, "11.1")])
def test_what_is_stated_outranks_the_catalogue(stated, group):
    """ISO/TR 15608: more than 0.25 % C is group 11; a heat with less may be stated as group 1."""
    metal = {
        "designation": "A106 Gr B",
        "thickness_mm": 20,
        **({"groups": {"iso_15608": stated}} if stated else {}),
    }
    plain = record("iso", procedure__base_metals=[metal, metal])
    asks = any(one.kind == "hardness-hv10" for one in plan_of(taken(plain), ISO, 2).items)
    assert asks == (group == "11.1")


@pytest.mark.parametrize(
    "stated, verdict", [(None, "violates"), ("3.1", "violates"), ("1.2", "undecided"), ("8.1", "undecided")]
)
def test_a_stated_group_against_the_grade_covers_nothing(stated, verdict):
    """S690QL stated as group 1.2 is not covered by a test on S355."""
    metal = {
        "designation": "S690QL",
        "thickness_mm": 20,
        **({"groups": {"iso_15608": stated}} if stated else {}),
    }
    assert answer(record("iso"), joint(20, base_metals=[metal, metal]), "base_metals") == verdict
    told = [
        f
        for f in evaluate(procedure_of(record("iso"), base_metals=[metal, metal])).findings
        if f.rule == "metal.group"
    ]
    assert bool(told) == (verdict == "undecided")
    plain = record("iso", procedure__base_metals=[metal, metal])
    kind = range_of(taken(plain)).of("base_metals")[0].kind
    assert (kind == "unknown") == (verdict == "undecided")


def metal(name):
    """A grade by its name, or any metal of a group: ``group 4.2``."""
    group = name.removeprefix("group ") if name.startswith("group ") else None
    return {"designation": name, "thickness_mm": 20, **({"groups": {"iso_15608": group}} if group else {})}


@pytest.mark.parametrize(
    "tested, asked, covered",
    [
        ("S355J2", "P355NH", True), ("S355J2", "S355J2W", True), ("S235JR", "S275JR", False), ("S460N", "S235JR", True),
        ("S460M", "S460M + S355J2", True), ("S460M", "S460M + S690QL", False), ("S690QL", "S460M", True),
        ("S960QL", "S690QL", True), ("S690QL", "S960QL", False), ("group 4.2", "group 4.1", True),
        ("group 4.2", "group 4.2 + S355J2", True), ("group 4.1", "group 4.2", False), ("10CrMo9-10", "13CrMo4-5", True),
        ("10CrMo9-10", "10CrMo9-10 + S355J2", True), ("10CrMo9-10", "S355J2", False),
        ("X10CrMoVNb9-1", "X10CrMoVNb9-1 + S355J2", True), ("group 7.1", "group 7.2", False), ("1.4307", "1.4404", True),
        ("1.4539", "1.4307", False), ("1.4307 + S690QL", "1.4307 + S355J2", True),
        ("1.4307 + 10CrMo9-10", "1.4307 + group 6.4", False), ("1.4307 + 10CrMo9-10", "1.4307 + group 4.1", True),
        ("group 9.3", "group 9.2", True), ("group 9.2", "group 9.3", False), ("S355J2", "1.4307", False),
    ],
)  # fmt: skip
def test_pairs_of_groups_at_level_2(tested, asked, covered):
    """ISO 15614-1:2017, clause 8.3.1, level 2, with its marks, from memory."""

    def pair(text):
        names = text.split(" + ")
        return [metal(names[0]), metal(names[-1])]

    plain = record("iso", procedure__base_metals=pair(tested))
    found = answer(plain, joint(20, base_metals=pair(asked)), "base_metals")
    assert (found == "covered") == covered, found


# --- positions of T-joints (ISO 15614-1:2017, clause 8.4.2) -----------------------------------------------


@pytest.mark.parametrize(
    "tested, asked, verdict",
    [
        ("PB", "PB", "covered"),
        ("PD", "PD", "covered"),
        ("PB", "PF", "violates"),
        ("PD", "PA", "violates"),
        ("PB", "PG", "violates"),
    ],
)
def test_a_t_butt_in_pb_or_pd_covers_itself(tested, asked, verdict):
    plain = record("iso", coupon__position=tested, procedure__joint__kind="t", procedure__positions=[tested])
    wanted = joint(20, kind="t", position=asked, requirements={"hardness": True})
    assert answer(plain, wanted, "positions") == verdict


# --- a record of another code -----------------------------------------------------------------------------


def test_a_record_of_another_code_covers_nothing_by_itself():
    plain = record("aws", number="D11")
    wanted = procedure_of(record("iso"), base_metals=[S355, S355])
    found = covers([taken(plain)], wanted, ISO, 2)
    assert not found.covered
    assert "record.edition" in {one.rule for one in found.records[0].findings}
    own = covers([taken(record("aws"))], procedure_of(record("aws")))
    assert own.covered and "record.edition" not in {one.rule for one in own.findings}
    old = record("aws", tested_to="aws-d1.1:2010")
    assert covers([taken(old)], procedure_of(record("aws"))).verdict == "open"
