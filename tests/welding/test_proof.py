"""Test plans, cutting drawings, procedures made from records, the code book, and the calls on the command line."""

import json
from copy import deepcopy
from itertools import pairwise

import pytest

from tests.welding.records import put, record, taken, thickness
from welding.cli import main
from welding.codebook.book import Book, Correction, using
from welding.codebook.contents import find_number
from welding.coverage.brackets import brackets_of
from welding.coverage.covers import covers
from welding.coverage.record import cutting_of, plan_of, range_of
from welding.documents.codec import CORRECTIONS, PROCEDURE, RECORD
from welding.documents.difference import differences
from welding.errors import DocumentError
from welding.evaluate.procedure import evaluate
from welding.planning.from_record import procedure_from
from welding.testing.bends import former_by_elongation_mm

ISO, AWS = "iso-15614-1:2017", "aws-d1.1:2020"
S20 = {"coupon__product": "pipe", "coupon__outside_diameter_mm": 323.9, "coupon__position": "6G"}
FILLET = {"procedure__joint": {"kind": "t", "weld": "fillet", "leg1_mm": 8}}
IMPACT = {"procedure__requirements": {"impact": {"temperature_c": -20, "average_j": 27}}}
METALS = "procedure__base_metals"


def of(name, mm=20):
    return {METALS: [{"designation": name, "thickness_mm": mm}] * 2}


@pytest.mark.parametrize(
    "code, level, mm, changes, asked",
    [
        ("aws", None, 3, {}, {"transverse-tensile": 2, "root-bend": 2, "face-bend": 2}),
        ("aws", None, 10, {}, {"transverse-tensile": 2, "root-bend": 2, "face-bend": 2}),
        ("aws", None, 12, {}, {"transverse-tensile": 2, "side-bend": 4}),
        ("aws", None, 25, {}, {"transverse-tensile": 2, "side-bend": 4}),
        ("aws", None, 8, S20, {"transverse-tensile": 2, "root-bend": 2, "face-bend": 2}),
        ("aws", None, 20, S20, {"transverse-tensile": 2, "side-bend": 4}),
        ("aws", None, 12, FILLET, {"macro": 3}),
        ("aws", None, 20, IMPACT, {"transverse-tensile": 2, "side-bend": 4, "impact": 3}),
        ("iso", 2, 20, {}, {"transverse-tensile": 2, "side-bend": 4, "impact": 2, "hardness-hv10": 1, "macro": 1, "magnetic-particle": 1}),
        ("iso", 2, 10, {}, {"transverse-tensile": 2, "root-bend": 2, "face-bend": 2, "hardness-hv10": 1, "macro": 1, "magnetic-particle": 1}),
        ("iso", 2, 60, {}, {"transverse-tensile": 2, "side-bend": 4, "impact": 4, "hardness-hv10": 1, "macro": 1, "magnetic-particle": 1}),
        ("iso", 2, 12, of("1.4307", 12), {"transverse-tensile": 2, "side-bend": 4, "macro": 1, "penetrant": 1}),
        ("iso", 2, 10, of("S235JR", 10), {"transverse-tensile": 2, "root-bend": 2, "face-bend": 2, "macro": 1, "magnetic-particle": 1}),
        ("iso", 1, 20, {}, {"transverse-tensile": 2, "side-bend": 4}),
        ("iso", 1, 20, IMPACT, {"transverse-tensile": 2, "side-bend": 4, "impact": 2}),
        ("iso", 2, 20, FILLET, {"macro": 2, "hardness-hv10": 1, "magnetic-particle": 1}),
        ("iso", 1, 20, FILLET, {"macro": 2}),
    ],
)  # fmt: skip
def test_plan(code, level, mm, changes, asked):
    """AWS D1.1:2020, tables 6.2 and 6.4; ISO 15614-1:2017, clause 7.1 and its triggers, from memory."""
    plan = plan_of(taken(thickness(record(code, **changes), mm)), AWS if code == "aws" else ISO, level)
    found = {
        one.kind: one.count for one in plan.asked if one.kind not in ("visual", "radiographic", "ultrasonic")
    }
    assert found == asked
    assert plan.asked[0].kind == "visual"
    assert all(one.clause for one in plan.items)
    assert all(one.alternative_to for one in plan.items if one.option)


@pytest.mark.parametrize("mm, sound", [(7.9, False), (8, True), (20, True)])
def test_ultrasonic_testing_from_8_mm(mm, sound):
    """ISO 15614-1:2017, conditions of tests, from memory."""
    plan = plan_of(taken(thickness(record("iso"), mm)))
    assert any(one.kind == "ultrasonic" for one in plan.items) == sound


def test_side_bends_may_replace_the_others_at_10_mm():
    plan = plan_of(taken(thickness(record("aws"), 10)))
    assert [(one.kind, one.count, one.alternative_to) for one in plan.items if one.option] == [
        ("ultrasonic", 1, "radiographic"), ("side-bend", 4, "root-bend")
    ]  # fmt: skip


def test_switching_a_required_test_off_is_a_breach():
    plain = record("iso", procedure__requirements={"hardness": False, "impact": False})
    findings = {one.rule for one in range_of(taken(plain)).findings}
    assert findings >= {"requirements.hardness", "requirements.impact"}


@pytest.mark.parametrize("code", ["aws", "iso"])
@pytest.mark.parametrize("changes", [{}, S20, FILLET], ids=["plate", "pipe", "fillet"])
def test_every_specimen_has_its_place_and_none_overlaps(code, changes):
    cutting = cutting_of(taken(record(code, **changes)))
    plan = plan_of(taken(record(code, **changes)))
    cut = sum(one.count for one in plan.asked if not one.before_cutting and one.kind != "hardness-hv10")
    assert len(cutting.strips) == cut
    assert len({one.mark for one in cutting.strips}) == cut
    if changes is S20:
        angles = sorted(one.angle_deg for one in cutting.strips)
        assert angles[0] == 0 and all(b > a for a, b in pairwise(angles))
        return
    ordered = sorted(cutting.strips, key=lambda one: one.start_mm)
    assert ordered[0].start_mm >= cutting.discard_mm
    for one, other in pairwise(ordered):
        assert other.start_mm >= one.start_mm + one.width_mm - 1e-9
    assert cutting.needed_mm == pytest.approx(
        ordered[-1].start_mm + ordered[-1].width_mm + cutting.discard_mm
    )


def test_tensiles_and_bends_come_from_both_ends():
    """ISO 15614-1: a tensile and half the bends in area 1 and in area 3, macro in area 4, from memory."""
    marks = [
        one.mark for one in sorted(cutting_of(taken(record("iso"))).strips, key=lambda one: one.start_mm)
    ]
    assert marks == ["T1", "S1", "S2", "I1", "I2", "T2", "S3", "S4", "M1"]


@pytest.mark.parametrize("ts, percent, former", [(10, 22, 40), (10, 20, 40), (10, 17, 48.8235), (6, 15, 34)])
def test_former_by_elongation(ts, percent, former):
    """100·ts/A - ts below 20 %: A 17, ts 10 gives 48.8 mm (ISO 15614-1, from memory)."""
    assert former_by_elongation_mm(thickness_mm=ts, elongation_percent=percent) == pytest.approx(
        former, rel=1e-4
    )


# --- the procedure that a record supports ---------------------------------------------------------


@pytest.mark.parametrize("code", ["aws", "iso"])
@pytest.mark.parametrize("mm", [8, 20, 40])
def test_the_procedure_made_from_a_record_is_covered_by_it_and_breaks_nothing(code, mm):
    one = taken(thickness(record(code), mm))
    if code == "iso" and mm == 8:
        plain = thickness(record("iso"), 8)
        bends = [t for t in plain["tests"] if t["kind"] == "side-bend"]
        for test, kind in zip(bends, ("root-bend", "root-bend", "face-bend", "face-bend"), strict=True):
            test.update(kind=kind, thickness_mm=8, former_mm=30)
        one = taken(plain)
    if code == "aws" and mm == 8:
        plain = thickness(record("aws"), 8)
        bends = [t for t in plain["tests"] if t["kind"] == "side-bend"]
        for test, kind in zip(bends, ("root-bend", "root-bend", "face-bend", "face-bend"), strict=True):
            test.update(kind=kind)
        one = taken(plain)
    made = procedure_from(one)
    assert covers([one], made.procedure).covered, [f.message for f in covers([one], made.procedure).findings]
    own = {
        f.title
        for f in evaluate(one.procedure).findings
        if f.verdict == "violates" and f.obligation == "requirement"
    }
    now = {
        f.title
        for f in evaluate(made.procedure).findings
        if f.verdict == "violates" and f.obligation == "requirement"
    }
    assert now <= own, "making the procedure adds no breach"
    assert made.procedure.applies_to.records == ("FB-27-Q02",)
    assert PROCEDURE.read(PROCEDURE.write(made.procedure)) == made.procedure


def test_its_limits_are_the_qualified_ones_rounded_inwards():
    made = procedure_from(taken(record("aws"))).procedure
    first = made.passes[0]
    assert (first.current_a.min, first.current_a.max) == (180, 220)
    assert (first.voltage_v.min, first.voltage_v.max) == (23.3, 26.7)
    assert (first.travel_mm_min.min, first.travel_mm_min.max) == (180, 300)
    assert first.sources["current_a"] == "record"
    assert (made.applies_to.thickness_mm.min, made.applies_to.thickness_mm.max) == (3, 40)


def test_every_corner_keeps_the_qualified_heat_input():
    """0.8·U·I·60/(1000·v) at the hottest and the coolest corner, computed a second way."""
    made = procedure_from(taken(record("iso"))).procedure
    for one in made.passes:
        hot = 0.8 * one.voltage_v.max * one.current_a.max * 60 / one.travel_mm_min.min / 1000
        cool = 0.8 * one.voltage_v.min * one.current_a.min * 60 / one.travel_mm_min.max / 1000
        assert 0.75 - 1e-9 <= cool <= hot <= 1.25 + 1e-9, one


def test_a_draft_sees_the_limits_of_its_record_as_brackets():
    one = taken(record("aws"))
    found = {b.path: (b.min, b.max) for b in brackets_of(range_of(one), one.procedure)}
    assert found["passes.0.current_a"] == (pytest.approx(180), pytest.approx(220))
    assert found["passes.2.travel_mm_min"] == (pytest.approx(180), pytest.approx(300))
    assert found["thermal.preheat_min_c"] == (65, None)


def test_production_ranges_are_asked_at_both_ends():
    one = taken(record("aws"))
    made = PROCEDURE.plain(procedure_from(one).procedure)
    made["applies_to"]["thickness_mm"] = {"min": 3, "max": 41}
    assert not covers([one], PROCEDURE.take(made)).covered
    made["applies_to"]["thickness_mm"] = {"min": 3}
    assert not covers([one], PROCEDURE.take(made)).covered, "no limit at the top is more than 40 mm"


def test_two_revisions_differ_field_by_field():
    before, after = record("iso")["procedure"], record("iso")["procedure"]
    after["passes"][1]["current_a"]["max"] = 270
    after["title"] = "Girder butt"
    assert [(d.path, d.before, d.after) for d in differences(before, after)] == [
        ("passes.1.current_a.max", 260, 270), ("title", None, "Girder butt")
    ]  # fmt: skip


def test_a_corrected_number_shows_in_the_book_with_what_was_entered():
    number = "aws_d1_1_2020.groove_tests/plate-thin/max_factor"
    with using(Book({number: Correction(id=number, action="correct", value=2.5)})):
        found = find_number(number)
    assert (found.value, found.entered, found.status) == (2.5, 2, "corrected")
    assert find_number(number).status == "memory"


def test_corrections_as_a_document():
    plain = {
        "format": "grounded-bead/book-corrections", "version": 1, "organisation": "Fernhollow",
        "corrections": [{"id": "a.b/c/d", "action": "correct", "value": [1, 2], "reason": "printed"}],
    }  # fmt: skip
    assert CORRECTIONS.take(plain).book.corrections["a.b/c/d"].value == (1, 2)
    for wrong in (
        {"id": "a.b/c/d", "action": "correct", "reason": "no value"},
        {"id": "a.b/c/d", "action": "confirm", "value": 1, "reason": "a value"},
        {"id": "nothing", "action": "confirm", "reason": "no id"},
        {"id": "a.b/c/d", "action": "confirm", "reason": ""},
    ):
        with pytest.raises(DocumentError):
            CORRECTIONS.take({**plain, "corrections": [wrong]})
    with pytest.raises(DocumentError, match="twice"):
        CORRECTIONS.take({**plain, "corrections": plain["corrections"] * 2})


# --- the command line -----------------------------------------------------------------------------


@pytest.fixture
def files(tmp_path):
    def write(name, plain):
        path = tmp_path / name
        path.write_text(json.dumps(plain))
        return str(path)

    return write


def run(capsys, *arguments):
    code = main(list(arguments))
    out = capsys.readouterr()
    return code, json.loads(out.out) if code == 0 else out.err


def test_the_four_calls(capsys, files):
    plain = record("iso")
    one = files("record.json", plain)
    code, plan = run(capsys, "plan", one)
    assert code == 0 and {"kind", "count", "note", "clause", "alternative_to"} <= set(plan["items"][0])
    code, verdict = run(capsys, "judge", one)
    assert verdict["verdict"] == "accepted" and verdict["missing"] == []
    assert {"specimen", "kind", "verdict", "criterion", "clause"} <= set(verdict["specimens"][0])
    code, found = run(capsys, "range", one, "--code", ISO, "--level", "2")
    item = next(i for i in found["items"] if i["variable"] == "parent_thickness_mm")
    assert (item["kind"], item["min"], item["max"], item["tested"]) == (
        "span",
        10,
        40,
        {"min": 20, "max": 20},
    )
    assert {"id", "clause", "provenance"} <= set(item["rule"]) and found["valid"] is True
    target = deepcopy(plain["procedure"])
    code, answer = run(capsys, "covers", one, "--target", files("target.json", target))
    assert code == 0 and answer["covered"] is False and answer["findings"]
    joint = {"format": "grounded-bead/joint", "version": 1, "number": "J1", "code": {"id": ISO, "level": 2},
             "base_metals": target["base_metals"], "joint": target["joint"], "positions": ["PF"],
             "requirements": {"impact": {"temperature_c": -20, "average_j": 27}}}  # fmt: skip
    assert run(capsys, "covers", one, "--target", files("joint.json", joint))[1]["covered"] is True
    listed = {
        "format": "grounded-bead/joint-list",
        "version": 1,
        "joints": [joint, {**joint, "number": "J2", "positions": ["PE"]}],
    }
    answer = run(capsys, "covers", one, "--target", files("list.json", listed))[1]
    assert [(j["joint"], j["covered"]) for j in answer["joints"]] == [("J1", True), ("J2", False)]


def test_a_coupon_without_tests_is_planned_and_judged(capsys, files):
    plain = {k: v for k, v in record("iso").items() if k != "tests"}
    plain["format"] = "grounded-bead/coupon"
    one = files("coupon.json", plain)
    assert run(capsys, "judge", one)[1]["verdict"] == "incomplete"
    found = run(capsys, "range", one)[1]
    assert found["valid"] is False and found["findings"][0]["rule"] == "record.valid"


def test_a_book_is_laid_over_on_the_command_line(capsys, files):
    book = files("book.json", {"format": "grounded-bead/book-corrections", "version": 1, "corrections": [
        {"id": "iso_15614_1_2017.thickness_level_2/over-12-to-20/multi_max_factor", "action": "correct", "value": 1.5, "reason": "x"}]})  # fmt: skip
    found = run(capsys, "range", files("r.json", record("iso")), "--book", book)[1]
    assert next(i for i in found["items"] if i["variable"] == "parent_thickness_mm")["max"] == 30


@pytest.mark.parametrize(
    "changes, words",
    [
        ({"tests": [{"kind": "side-bend", "specimen": "B", "zap": 1}]}, "tests.0.zap"),
        ({"tests": [{"kind": "visual", "specimen": "V"}] * 2}, "twice"),
        ({"tests": [{"kind": "visual", "specimen": "V", "retest_of": "X"}]}, "not among the tests"),
        ({"tests": [{"kind": "visual", "specimen": "V", "date": "31.3.26"}]}, "tests.0.date"),
        ({"procedure__code": {"id": "no-such:1999"}}, "no code that this program has"),
        ({"procedure__code": "remove"}, "no code is named"),
    ],
)
def test_what_is_wrong_is_named_and_the_call_fails(capsys, files, changes, words):
    code, err = run(capsys, "range", files("bad.json", record("iso", **changes)))
    assert code == 2 and words in err


def test_a_record_survives_reading_and_writing():
    one = taken(record("iso"))
    assert RECORD.read(RECORD.write(one)) == one
    assert one.tests[4].openings_mm == (), "an empty list of openings says that nothing opened"


def test_several_processes_have_a_deposited_thickness_each():
    plain = record("iso")
    for index, process in enumerate(("141", "135", "135")):
        plain["coupon"]["passes"][index]["process"] = process
        plain["procedure"]["passes"][index]["process"] = process
        put(plain, f"coupon.passes.{index}.deposit_mm", (4, 8, 8)[index])
    items = {i.process: i for i in range_of(taken(plain)).of("deposited_thickness_mm")}
    assert items["141"].max == 8 and items["135"].max == 32
    assert range_of(taken(plain)).of("processes")[0].values == ("141", "135")
