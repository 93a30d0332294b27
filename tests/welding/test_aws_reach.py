"""How far the rules of AWS D1.1:2020 reach without a test, and what fillet tests ask; all from memory."""

import pytest

from tests.welding.records import record, taken
from tests.welding.samples import a_pass
from tests.welding.test_aws_prequalified import (
    BACKED,
    BACKED_V,
    FILLET,
    broken,
    changed,
    cored,
    document,
    many,
    stick,
)
from tests.welding.test_aws_prequalified import verdict as verdict_of
from tests.welding.weldments import plain_record, welded
from welding.coverage.record import judge, plan_of
from welding.documents.codec import PROCEDURE, RECORD
from welding.evaluate.procedure import evaluate


@pytest.mark.parametrize(
    "backing, prequalified", [("metal", True), ("ceramic", False), ("flux", False), ("none", False)]
)
def test_only_steel_backing_is_prequalified(backing, prequalified):
    found = broken(document({**BACKED_V, "backing": backing}, many(cored, BACKED), "1G"))
    assert ("prequalified.joint" not in found) == prequalified


# --- prequalified (AWS D1.1:2020, clause 5) ---------------------------------------------------------------


def prequalified(joint_, passes, position, **more):
    procedure = document(joint_, passes, position, **more)
    return broken(procedure), verdict_of(procedure).verdict


@pytest.mark.parametrize(
    "angle, rules, verdict",
    [
        (90, set(), "complies"),
        (60, set(), "complies"),
        (59, set(), "undecided"),
        (30, set(), "undecided"),
        (29, {"prequalified.skewed"}, "violates"),
        (150, set(), "undecided"),
        (151, {"prequalified.skewed"}, "violates"),
    ],
)
def test_an_acute_fillet(angle, rules, verdict):
    passes = changed([stick(1, "root")], progression="up")
    assert prequalified({**FILLET, "dihedral_deg": angle}, passes, "3F") == (rules, verdict)


@pytest.mark.parametrize("mm, rules", [(3.0, set()), (2.9, {"prequalified.scope"})])
def test_sheet_is_another_code(mm, rules):
    found, _ = prequalified({**FILLET, "leg1_mm": 3}, [cored(1, "root")], "2F", thickness=mm)
    assert found & {"prequalified.scope"} == rules


@pytest.mark.parametrize("field, low, high, wide", [
    ("current_a", 200, 244, False), ("current_a", 200, 250, True), ("voltage_v", 24, 32.4, False), ("voltage_v", 24, 33, True),
    ("wire_feed_m_min", 8, 9.7, False), ("wire_feed_m_min", 8, 9.9, True),
])  # fmt: skip
def test_a_prequalified_procedure_spreads_no_further_than_its_variables(field, low, high, wide):
    one = {**cored(1, "root"), field: {"min": low, "max": high}}
    found, _ = prequalified(FILLET, [one], "2F")
    assert ("prequalified.spread" in found) == wide


@pytest.mark.parametrize("weld, verdict", [("plug", "undecided"), ("slot", "undecided")])
def test_a_weld_with_rules_of_its_own_is_open(weld, verdict):
    assert prequalified({"kind": "lap", "weld": weld}, [cored(1, "root")], "1F")[1] == verdict


@pytest.mark.parametrize(
    "form, weld, verdict",
    [
        ("flare-v", "pjp-groove", "undecided"),
        ("flare-bevel", "pjp-groove", "undecided"),
        ("double-j", "cjp-groove", "undecided"),
        ("single-j", "pjp-groove", "undecided"),
    ],
)
def test_details_that_are_not_entered_are_open(form, weld, verdict):
    """AWS D1.1:2020, figures 5.1 and 5.2: not entered is not the same as not prequalified."""
    joint_ = {"kind": "butt", "weld": weld, "throat_mm": 8, "preparation": {"form": form}, "backing": "metal"}
    rules, said = prequalified(joint_, [cored(1, "root")], "1G")
    assert ("prequalified.joint" not in rules, said) == (True, verdict)


def test_a_groove_that_nobody_stated_is_not_prequalified():
    assert (
        prequalified({"kind": "butt", "weld": "cjp-groove", "backing": "metal"}, [cored(1, "root")], "1G")[1]
        == "undecided"
    )


@pytest.mark.parametrize(
    "metal, verdict",
    [("A36", "complies"), ("A514", "violates"), ("S355J2+N", "violates"), ("A9999 Gr 7", "undecided")],
)
def test_not_found_is_not_the_same_as_not_listed(metal, verdict):
    found = evaluate(PROCEDURE.take(document(FILLET, [cored(1, "root")], "2F", metal=metal))).findings
    assert {f.verdict for f in found if f.rule == "prequalified.metal"} == {verdict}


# --- fillet tests (AWS D1.1:2020, table 6.4) --------------------------------------------------------------


@pytest.mark.parametrize(
    "product, position, macros", [("plate", "2F", 3), ("pipe", "2F", 3), ("pipe", "4F", 4), ("pipe", "5F", 4)]
)
def test_faces_of_a_fillet_test(product, position, macros):
    plain = record(
        "aws",
        coupon__product=product,
        coupon__position=position,
        procedure__joint={"kind": "t", "weld": "fillet", "leg1_mm": 8},
    )
    assert [one.count for one in plan_of(taken(plain)).items if one.kind == "macro"] == [macros]


@pytest.mark.parametrize(
    "designation, transfer, asked",
    [("ER70S-6", "spray", False), ("ER70S-6", "short-circuit", True), ("ER308L", "spray", True)],
)
def test_consumables_outside_the_rules_are_verified(designation, transfer, asked):
    plain = record(
        "aws", procedure__joint={"kind": "t", "weld": "fillet", "leg1_mm": 8}, coupon__position="2F"
    )
    plain["procedure"]["passes"] = [
        a_pass(n, "root", filler={"designation": designation, "diameter_mm": 1.2}, transfer=transfer)
        for n in (1, 2, 3)
    ]
    kinds = {one.kind for one in plan_of(taken(plain)).items}
    assert ({"all-weld-tensile", "side-bend"} <= kinds) == asked


# --- partial grooves, narrow Charpy specimens (AWS D1.1:2020, clause 6.10.2, table 6.15) -------------------


@pytest.mark.parametrize("joint, volumetric", [("v-backing", True), ("pjp-v", False), ("fillet", False)])
def test_only_a_complete_groove_is_examined_through_its_volume(joint, volumetric):
    position = "1F" if joint == "fillet" else "1G"
    kinds = {item.kind for item in plan_of(welded("aws", {"joint": joint, "position": position})).asked}
    assert ("radiographic" in kinds) == volumetric


@pytest.mark.parametrize(
    "width_mm, colder_c",
    [
        (10, 0),
        (9, 0),
        (8, 0),
        (7.5, 3),
        (7, 4),
        (6.7, 6),
        (6, 8),
        (5, 11),
        (4, 17),
        (3.3, 19),
        (3, 22),
        (2.5, 28),
    ],
)
def test_a_narrow_specimen_is_tested_colder(width_mm, colder_c):
    """ASTM A370's own steps are the same, from memory."""
    plain = plain_record("aws", {"t": 12, "impact": -20})
    for offset, verdict in ((0, "accepted"), (1, "incomplete")):
        for one in plain["tests"]:
            if one["kind"] == "impact":
                one |= {
                    "width_mm": width_mm,
                    "temperature_c": -20 - colder_c + offset,
                    "values_j": [27, 27, 27],
                }
        assert judge(RECORD.take(plain)).verdict == verdict
