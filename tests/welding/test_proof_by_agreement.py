"""What a record proves by what people state or agree: hardness limits, deposited thickness, makers' ranges."""

from dataclasses import replace

import pytest

from tests.welding.records import put
from tests.welding.weldments import own_procedure, plain_record, welded
from welding.coverage.covers import covers
from welding.coverage.record import judge, range_of
from welding.documents.codec import PROCEDURE, RECORD
from welding.documents.procedure import AppliesTo, OpenRange

AWS, ISO = "aws-d1.1:2020", "iso-15614-1:2017"
DUPLEX = {"process": "141", "t": 6, "metals": ["1.4462"], "filler": "W 22 9 3 N L", "hardness": True}
FULL = {"max_hv10": 350, "agreed_with": "the owner", "agreed_on": "2026-02-01"}


@pytest.mark.parametrize(
    "limit, tested_on, highest, verdict, words",
    [
        (FULL, "2026-03-01", 350, "accepted", ""),
        (FULL, "2026-03-01", 351, "rejected", ""),
        (FULL, "2026-02-01", 350, "accepted", ""),
        (FULL, "2026-01-31", 350, "incomplete", "agreed before the test"),
        ({**FULL, "agreed_with": "remove"}, "2026-03-01", 350, "incomplete", "in full"),
        ({**FULL, "agreed_on": "remove"}, "2026-03-01", 350, "incomplete", "in full"),
        (None, "2026-03-01", 350, "incomplete", "agree it before the test"),
    ],
)  # fmt: skip
def test_an_agreed_hardness_limit(limit, tested_on, highest, verdict, words):
    """ISO 15614-1:2017, clause 7.4.6: the table leaves group 10 to the parties, from memory."""
    plain = plain_record("iso", DUPLEX)
    asked = plain["procedure"]["requirements"]
    asked["hardness_limit"] = limit and {k: v for k, v in limit.items() if v != "remove"}
    if limit is None:
        del asked["hardness_limit"]
    traverse = next(one for one in plain["tests"] if one["kind"] == "hardness-hv10")
    traverse["date"] = tested_on
    for row in traverse["rows"]:
        if row["zone"] == "weld":
            row["values"] = [highest, 300, 300]
    found = judge(RECORD.take(plain))
    assert found.verdict == verdict
    assert words in " ".join(found.missing)


def test_an_agreed_limit_never_replaces_that_of_the_code():
    """Group 1, as welded: 380 HV10 whatever was agreed (ISO 15614-1:2017, table of hardness, from memory)."""
    plain = plain_record("iso", {"t": 15, "hardness": True})
    plain["procedure"]["requirements"]["hardness_limit"] = {**FULL, "max_hv10": 450}
    traverse = next(one for one in plain["tests"] if one["kind"] == "hardness-hv10")
    traverse["rows"][0]["values"] = [381, 300, 300]
    assert judge(RECORD.take(plain)).verdict == "rejected"


TWO = {"processes": ["141", "111"], "t": 12, "deposits": {"141": 3, "111": 9}}


@pytest.mark.parametrize(
    "shares, known",
    [((3, 9), True), ((3, 8.5), True), ((3, 8), False), ((3, 10.5), True), ((3, 11), False), ((3, 6), False)],
)
def test_stated_deposits_have_to_add_up_to_the_joint(shares, known):
    """12 mm, 5 % less to 15 % more: 11.4 to 13.8 mm (judgement)."""
    words = {**TWO, "deposits": dict(zip(("141", "111"), shares, strict=True))}
    items = range_of(welded("iso", words), ISO, 2).of("deposited_thickness_mm")
    assert len(items) == 2
    assert {item.kind for item in items} == {"span" if known else "unknown"}
    assert known or all("add up to" in item.reason for item in items)
    assert not known or sum(item.tested.min for item in items) <= 12 + 1e-9, "never more than the joint"


def test_deposits_stated_for_some_passes_only_are_not_known():
    plain = plain_record("iso", TWO)
    put(plain, "coupon.passes.0.deposit_mm", "remove")
    items = range_of(RECORD.take(plain), ISO, 2).of("deposited_thickness_mm")
    assert {item.kind for item in items} == {"unknown"}


def two_by_beads(share=1.0):
    """Wire in both processes, so that feed and travel tell the section; ``share`` of what fills it."""
    words = {"processes": ["135", "121"], "t": 20, "joint": "v-open", "runs": 2, "impact": -20}
    plain = plain_record("iso", words)
    for one in plain["coupon"]["passes"]:
        one.pop("deposit_mm", None)
        thin = one["process"] == "135"
        # 1.2 mm at 8 m/min and 3.2 mm at 1.5 m/min; the section is 247 mm² and its cap.
        one["travel_mm_min"] = (160 if thin else 155) / share
    return plain


@pytest.mark.parametrize("share, known", [(1.0, True), (1.15, True), (0.5, False), (2.0, False)])
def test_without_a_statement_the_beads_tell_while_they_fill_the_joint(share, known):
    items = range_of(RECORD.take(two_by_beads(share)), ISO, 2).of("deposited_thickness_mm")
    assert {item.kind for item in items} == {"span" if known else "unknown"}, [one.reason for one in items]
    if known:
        whole = sum(item.tested.min for item in items)
        assert whole == pytest.approx(20, rel=0.02), "layers sum to the joint"
        for item in items:
            assert item.max == pytest.approx(2 * 0.8 * item.tested.min, rel=0.01), "four fifths count"


def test_a_procedure_by_its_beads_is_covered_by_its_own_record():
    plain = two_by_beads()
    sheet = plain["procedure"]
    for plan, log in zip(sheet["passes"], plain["coupon"]["passes"], strict=True):
        for name in ("current_a", "voltage_v", "wire_feed_m_min", "travel_mm_min"):
            plan[name] = {"min": log[name], "max": log[name]}
        if "gas" in plan:
            plan["gas"]["flow_l_min"] = {"min": 15, "max": 15}
    found = covers([RECORD.take(plain)], PROCEDURE.take(sheet), ISO)
    assert found.covered, [(f.rule, f.message) for f in found.findings if f.verdict != "complies"]


@pytest.mark.parametrize(
    "amps, sheet, verdict",
    [(120, False, "covered"), (121, False, "open"), (150, True, "covered"), (151, True, "blocked")],
)
def test_covered_electrodes_by_the_makers_sheet_or_as_tested(amps, sheet, verdict):
    """AWS D1.1:2020, table 6.5: the maker's range; without it the amperage tested is known to be inside."""
    plain = plain_record("aws", {"amps": 120})
    if not sheet:
        del plain["procedure"]["shelf"]
    found = covers([RECORD.take(plain)], own_procedure("aws", {"amps": amps}), AWS)
    assert found.verdict == verdict


@pytest.mark.parametrize(
    "tested_mm, asked_mm, preheat_c, reason, verdict",
    [
        (50, 50, 65, None, "complies"),
        (50, 50, 50, None, "undecided"),
        (50, 50, 50, "coupon of full restraint, no cracks", "complies"),
        (50, 50, 34, "coupon of full restraint, no cracks", "violates"),
        (50, 50.1, 50, "coupon of full restraint, no cracks", "undecided"),
        (38, 50, 64, None, "undecided"),
        (38, 38, 35, None, "complies"),
    ],
)  # fmt: skip
def test_preheat_below_the_table_is_for_the_engineer(tested_mm, asked_mm, preheat_c, reason, verdict):
    """AWS D1.1:2020, clause 5.7 and table 6.5 (15 °C down), from memory; contested, so it needs a reason."""
    record = RECORD.take(plain_record("aws", {"t": tested_mm, "preheat": 50}))
    asked = own_procedure("aws", {"t": asked_mm, "preheat": preheat_c})
    assert asked.thermal
    found = covers([record], replace(asked, thermal=replace(asked.thermal, preheat_reason=reason)))
    said = [one for one in found.records[0].findings if one.path.startswith("thermal.preheat")]
    worst = next((v for v in ("violates", "undecided") if v in [one.verdict for one in said]), "complies")
    assert worst == verdict
    if reason and verdict == "complies":
        assert any(reason in one.message for one in said)
        # Used for thicker metal than was tested, the reason says nothing; open upwards is thicker.
        for most in (tested_mm + 1, None):
            wide = AppliesTo(thickness_mm=OpenRange(min=3, max=most))
            thicker = replace(asked, applies_to=wide, thermal=replace(asked.thermal, preheat_reason=reason))
            again = covers([record], thicker).records[0].findings
            assert "undecided" in {f.verdict for f in again if f.path.startswith("thermal.preheat")}
    if verdict == "undecided":
        assert any("65 °C" in one.message or "10 °C" in one.message for one in said)
