"""What is asked and how it is judged: rows recalled apart from our tables. AWS D1.1:2020 and ISO 15614-1:2017,
from memory; where nobody recalls a rule the answer must be open, never accepted."""

import tomllib
from pathlib import Path

import pytest

from tests.welding.records import put, record, taken, thickness
from welding.coverage.record import cutting_of, judge, plan_of, range_of
from welding.qualification.coupon import TestCoupon
from welding.qualification.impact_proof import impact_proof
from welding.testing.cutting import specimens_of

CASES = tomllib.loads((Path(__file__).parent / "cases" / "testing.toml").read_text())
CODES = {"aws": "aws-d1.1:2020", "iso": "iso-15614-1:2017"}
PIPE = ("product", "outside_diameter_mm", "position")
BEVEL = {"form": "single-bevel", "included_angle_deg": 45, "root_gap_mm": 3, "root_face_mm": 1}
JOINTS = {
    "fillet": {"kind": "t", "weld": "fillet", "leg1_mm": 8},
    "fillet-5": {"kind": "t", "weld": "fillet", "throat_mm": 5},
    "pjp": {"kind": "butt", "weld": "pjp-groove", "throat_mm": 8, "preparation": {
        "form": "single-v", "included_angle_deg": 60, "root_gap_mm": 0, "root_face_mm": 4}},
    "t-butt": {"kind": "t", "weld": "cjp-groove", "preparation": BEVEL},
    "branch": {"kind": "branch", "weld": "cjp-groove", "branch_angle_deg": 90, "preparation": BEVEL},
}  # fmt: skip


def coupon(code, of):
    plain = record(code)
    metals = of.get("metals")
    if metals:
        names = metals if isinstance(metals, list) else [metals, metals]
        plain["procedure"]["base_metals"] = [{"designation": name} for name in names]
    plain = thickness(plain, of.get("mm", 20))
    for name in PIPE:
        if name in of:
            plain["coupon"][name] = of[name]
    if "joint" in of:
        plain["procedure"]["joint"] = dict(JOINTS[of["joint"]])
    if "impact_c" in of:
        put(plain, "procedure.requirements", {"impact": {"temperature_c": of["impact_c"], "average_j": 27}})
    if "inch" in of:
        put(plain, "procedure.code.units", "us")
    for path, value in of.get("set", {}).items():
        put(plain, path, value)
    if "processes" in of:
        order = (of["processes"] * 3)[:3]
        for planned, log, process in zip(
            plain["procedure"]["passes"], plain["coupon"]["passes"], order, strict=True
        ):
            planned["process"] = log["process"] = process
    return plain


def level_of(code, case):
    return case.get("level", 2) if code == "iso" else None


def _named(kind):
    return [pytest.param(one, id=f"{one['code']}: {one['what']}".replace(" ", "_")) for one in CASES[kind]]


@pytest.mark.parametrize("case", _named("plan"))
def test_plan(case):
    code = case["code"]
    plan = plan_of(taken(coupon(code, case.get("of", {}))), CODES[code], level_of(code, case))
    asked = {one.kind: one.count for one in plan.asked}
    assert {kind: asked.get(kind, 0) for kind in case["asked"]} == case["asked"]
    for kind in case.get("may", []):
        assert any(one.kind == kind and one.alternative_to for one in plan.items), kind
    for kind in case.get("never", []):
        assert all(one.kind != kind for one in plan.items), kind
    said = " ".join((*plan.notes, *(one.note for one in plan.items)))
    for words in case.get("says", []):
        assert words in said


@pytest.mark.parametrize("case", _named("verdict"))
def test_verdict(case):
    code = case["code"]
    plain = coupon(code, case.get("of", {}))
    plain["tests"] = [{"specimen": "X1", **case["test"]}]
    found = judge(taken(plain), CODES[code], level_of(code, case)).specimens[0]
    assert found.verdict == case["verdict"], found


@pytest.mark.parametrize("case", _named("limit"))
def test_limit(case):
    """The number that a criterion names."""
    code = case["code"]
    plain = coupon(code, case.get("of", {}))
    plain["tests"] = [{"specimen": "X1", **case["test"]}]
    found = judge(taken(plain), CODES[code], level_of(code, case)).specimens[0]
    assert any(case["says"] in one.criterion for one in found.points), [one.criterion for one in found.points]


def test_size_of_a_plate_coupon():
    """ISO 15614-1:2017, clause 6.2: 350 mm long, 150 mm each side, 25 mm discarded at each end, from memory."""
    cutting = cutting_of(taken(record("iso")))
    assert cutting.discard_mm == 25
    assert max(x for shape in cutting.drawing.shapes for x, _ in getattr(shape, "points", ())) == 350


# --- impact sets of a coupon of two processes -----------------------------------------------------------

BOTH = {"processes": ["141", "111", "111"], "impact_c": -20}


def two(*sets):
    """A coupon of 141 and 111; each set is (place, temperature, processes)."""
    plain = coupon("iso", BOTH)
    plain["tests"] = [one for one in plain["tests"] if one["kind"] != "impact"] + [
        {"kind": "impact", "specimen": f"I{n}", "location": place, "temperature_c": cold, "processes": list(of),
         "values_j": [60, 70, 80], "width_mm": 10}
        for n, (place, cold, of) in enumerate(sets)
    ]  # fmt: skip
    return taken(plain)


ROOT, FILL = ("141",), ("111",)
ALL = (("VWT", -20, ROOT), ("VHT", -20, ROOT), ("VWT", -20, FILL), ("VHT", -20, FILL))


def test_weld_metal_and_haz_of_each_process_are_planned():
    """ISO 15614-1:2017, clause 7.4.5, from memory."""
    plan = plan_of(two())
    item = next(one for one in plan.items if one.kind == "impact")
    assert item.count == 4
    made = [(one.location, one.processes) for one in specimens_of(plan) if one.kind == "impact"]
    assert made == [("VWT of 141", ROOT), ("VHT of 141", ROOT), ("VWT of 111", FILL), ("VHT of 111", FILL)]


@pytest.mark.parametrize(
    "sets, lacking",
    [
        (ALL, ()),
        ((("VWT", -20, ROOT + FILL), ("VHT", -20, ROOT + FILL)), ()),
        (ALL[:3], ("1 more Charpy impact sets (4 are asked)",)),
        ((*ALL[:3], ("VWT", -20, FILL)), ("heat-affected zone of process 111",)),
        ((*ALL[:2], *ALL[:2]), ("weld metal of process 111", "heat-affected zone of process 111")),
        ((*ALL[:3], ("VHT", -20, ())), ("heat-affected zone of process 111",)),
        ((*ALL[:3], ("VHT", -20, ("135",))), ("heat-affected zone of process 111",)),
        ((*ALL[:2], ("VWT", -20, FILL * 2)), ("1 more Charpy impact sets (4 are asked)",)),
    ],
    ids=["four sets", "two that hold both", "three", "HAZ of 111 lacks", "111 lacks", "not said", "another", "twice"],
)  # fmt: skip
def test_a_set_of_one_process_shows_nothing_of_the_other(sets, lacking):
    one = two(*sets)
    missing = [text for text in judge(one).missing if "impact" in text]
    assert len(missing) == len(lacking), missing
    assert all(words in text for words, text in zip(lacking, missing, strict=True))
    found = next(item for item in range_of(one).items if item.variable == "impact_temperature_c")
    assert found.kind == ("unknown" if lacking else "span")


def test_the_warmest_process_rules():
    found = impact_proof(TestCoupon(two(("VWT", -40, ROOT), ("VHT", -40, ROOT), *ALL[2:])), 0.7)
    assert (found.temperature_c, found.lacking) == (-20, ())
