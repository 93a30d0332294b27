"""The cheapest coupons: the solver against brute force, the answer against ``covers`` itself."""

import json
from dataclasses import replace
from itertools import combinations
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from welding.cli import main
from welding.codebook.table import load_table
from welding.coverage.covers import covers
from welding.coverage.record import as_passed
from welding.documents.codec import WELD_LIST
from welding.documents.record import KINDS
from welding.errors import DocumentError, UnknownEntryError, WeldingError
from welding.weldlist.candidates import worth_trying
from welding.weldlist.cheapest import TooFewKindsError, cheapest_set
from welding.weldlist.coupons import fewest_coupons
from welding.weldlist.joint_types import joint_types

EXAMPLE = (
    Path(__file__).resolve().parents[2] / "docs" / "examples" / "weld-lists" / "footbridge.weld-list.json"
)


def line(
    mark, mm, position, *, metal="S355J2+N", kind="butt", weld="cjp-groove", throat=None, od=None, **more
):
    one = {"designation": metal, "thickness_mm": mm, **({"outside_diameter_mm": od} if od else {})}
    joint = {"kind": kind, "weld": weld, **({"throat_mm": throat} if throat else {})}
    head = {"format": "grounded-bead/joint", "version": 1}
    facts = {**head, "base_metals": [one, one], "joint": joint, "positions": [position], **more}
    return {"mark": mark, "joint": facts}


def listed(*lines, code=None, records=(), **shop):
    return WELD_LIST.take(
        {
            "format": "grounded-bead/weld-list",
            "version": 1,
            "code": code or {"id": "iso-15614-1:2017", "level": 2, "units": "si", "route": "test"},
            "joints": list(lines),
            "records": list(records),
            "shop": {"processes": ["135"], **shop},
        }
    )


# --- the solver ------------------------------------------------------------------------------------

COLUMNS = st.lists(st.frozensets(st.integers(0, 5), min_size=1), min_size=1, max_size=7)


def brute_force(rows, columns, costs, pairs, forced, kinds=(), most=None):
    """The least cost over every subset; ``None`` where none covers."""
    best = None
    for size in range(len(columns) + 1):
        for chosen in combinations(range(len(columns)), size):
            covered = set().union(*(columns[one] for one in chosen))
            covered |= set().union(*(found for pair, found in pairs.items() if set(pair) <= set(chosen)))
            few = most is None or len({kinds[one] for one in chosen}) <= most
            if covered >= set(range(rows)) and set(forced) <= set(chosen) and few:
                cost = sum(costs[one] for one in chosen)
                best = cost if best is None else min(best, cost)
    return best


@settings(max_examples=150, deadline=None)
@given(COLUMNS, st.data())
def test_the_solver_agrees_with_brute_force(columns, data):
    costs = data.draw(st.lists(st.integers(1, 20), min_size=len(columns), max_size=len(columns)))
    rows = max(max(one) for one in columns) + 1
    pairs = {}
    if len(columns) > 1 and data.draw(st.booleans()):
        pairs[(0, 1)] = frozenset(data.draw(st.sets(st.integers(0, rows - 1), min_size=1)))
    forced = data.draw(st.sets(st.integers(0, len(columns) - 1), max_size=1))
    wanted = brute_force(rows, columns, costs, pairs, forced)
    if wanted is None:
        with pytest.raises(WeldingError):
            cheapest_set(rows, columns, costs, pairs=pairs, forced=forced)
        return
    found = cheapest_set(rows, columns, costs, pairs=pairs, forced=forced)
    assert (found.cost, found.optimal) == (wanted, True)
    assert found.bound == pytest.approx(wanted)
    more = cheapest_set(rows, [*columns, frozenset(range(rows))], [*costs, 7], pairs=pairs, forced=forced)
    assert more.cost <= found.cost, "one more choice never costs more"


@settings(max_examples=100, deadline=None)
@given(COLUMNS, st.data())
def test_with_few_kinds_the_solver_agrees_with_brute_force(columns, data):
    """Columns of at most so many kinds, as coupons in at most so many positions."""
    costs = data.draw(st.lists(st.integers(1, 20), min_size=len(columns), max_size=len(columns)))
    kinds = data.draw(st.lists(st.sampled_from("abc"), min_size=len(columns), max_size=len(columns)))
    most = data.draw(st.integers(1, 3))
    rows = max(max(one) for one in columns) + 1
    if brute_force(rows, columns, costs, {}, ()) is None:
        return
    wanted = brute_force(rows, columns, costs, {}, (), kinds, most)
    if wanted is None:
        with pytest.raises(TooFewKindsError) as caught:
            cheapest_set(rows, columns, costs, kinds=kinds, most_kinds=most)
        assert brute_force(rows, columns, costs, {}, (), kinds, caught.value.least) is not None
        assert brute_force(rows, columns, costs, {}, (), kinds, caught.value.least - 1) is None
        return
    found = cheapest_set(rows, columns, costs, kinds=kinds, most_kinds=most)
    assert (found.cost, found.optimal) == (wanted, True)
    assert len({kinds[one] for one in found.chosen}) <= most


def test_nothing_to_cover_costs_nothing():
    assert cheapest_set(0, [], []).chosen == ()


# --- joint types -----------------------------------------------------------------------------------


def test_equal_joints_are_one_type():
    """Mark, length and number of welds are no facts that a procedure is chosen by."""
    one, two = line("A", 12, "PA"), line("B", 12, "PA")
    two["joint"]["joint"]["length_mm"] = 900
    found = joint_types(
        listed({**one, "count": 3, "length_mm": 200}, {**two, "length_mm": 900}, line("C", 12, "PF")).joints,
        listed().code,
    )
    assert [(one.key, one.marks, one.count, one.length_mm) for one in found] == [
        ("T1", ("A", "B"), 4, 1500),
        ("T2", ("C",), 1, None),
    ]


@pytest.mark.parametrize(
    "change, said",
    [
        ({"joints": [line("A", 12, "PA"), line("A", 10, "PA")]}, "stands twice"),
        ({"prices": {"tests": {"x-ray": 3}}}, "no kind of test"), ({"shop": {"processes": []}}, "at least 1"),
        ({"joints": [{**line("A", 12, "PA"), "count": 0}]}, "greater than or equal to 1"),
        ({"joints": [line("A", 12, "1G", code={"id": "aws-d1.1:2020", "units": "us"})]}, "another code"),
        ({"joints": [line("A", 12, "PA", code={"id": "iso-15614-1:2017", "level": 1, "units": "si"})]}, "another code"),
    ],
)  # fmt: skip
def test_a_list_that_contradicts_itself_is_refused(change, said):
    plain = WELD_LIST.plain(listed(line("A", 12, "PA")))
    with pytest.raises(DocumentError) as caught:
        WELD_LIST.take({**plain, **change})
    assert said in str(caught.value.problems)


# --- the whole answer ------------------------------------------------------------------------------


@pytest.fixture(scope="module")
def example():
    plan = WELD_LIST.read(EXAMPLE.read_bytes())
    return plan, fewest_coupons(plan)


def test_the_example_as_it_is_worked_by_hand(example):
    """docs/worked-coupons.md goes through it: two coupons for five gaps, and one joint that no coupon helps."""
    _, found = example
    stand = {one.type.marks[0]: (one.verdict, one.by) for one in found.types}
    assert [mark for mark, (verdict, _) in stand.items() if verdict == "covered"] == ["G1", "G3", "W2"]
    assert stand["G1"] == ("covered", ("EX-ISO-Q1",))
    assert found.optimal and found.bound == pytest.approx(found.cost)
    assert found.cost == pytest.approx(sum(one.cost for one in found.coupons))
    assert [(one.name, one.only) for one in found.coupons] == [
        ("135 304L 4 mm butt PA", ("T7", "T8")),
        ("135 S355J2H 10 mm OD 88.9 butt H-L045 impact -20 °C hardness", ("T2", "T4", "T6")),
    ]
    assert [(one.type.marks, one.reasons) for one in found.uncovered] == [
        (("X1",), ("The shop does not weld process 111.",))
    ]


def test_the_set_covers_what_it_says_and_no_coupon_is_idle(example):
    """Asked of ``covers`` itself: every gap is closed, and each coupon's own gaps open without it."""
    _, found = example
    joints = {one.type.key: one.type.joint for one in found.types}
    records = [one.record for one in found.coupons]

    def covered(key, chosen):
        return covers(chosen, joints[key], reports=[as_passed(one) for one in chosen]).covered

    closed = {key for one in found.coupons for key in one.covers}
    gaps = {one.type.key for one in found.types if one.verdict != "covered"}
    assert closed | {one.type.key for one in found.uncovered} == gaps
    assert all(covered(key, records) for key in closed)
    for one in found.coupons:
        others = [other for other in records if other is not one.record]
        assert one.only and not any(covered(key, others) for key in one.only)


def test_a_record_more_never_needs_more_coupons():
    joints = [line("A", 12, "PA"), line("B", 40, "PA")]
    before = fewest_coupons(listed(*joints))
    record = json.loads((EXAMPLE.parents[1] / "iso-15614-1.qualification-record.json").read_text())
    after = fewest_coupons(listed(*joints, records=[record]))
    assert after.cost <= before.cost and len(after.coupons) <= len(before.coupons)


def test_many_thicknesses_are_left_to_stock_and_none_of_them_loses_its_cover():
    many = [5.3 + n * 1.7 for n in range(26)]
    plan = fewest_coupons(listed(*(line(f"W{n}", mm, "PA") for n, mm in enumerate(many))))
    assert plan.optimal and not plan.uncovered
    tried = worth_trying(set(many), {2.0, 5.0, 10.0, 20.0, 40.0})
    assert {min(many), max(many)} <= tried < set(many)
    assert worth_trying({10.1, 12.0}, {10.0, 12.0}) == {10.1, 12.0}


def test_two_positions_stand_together_where_the_code_says_so():
    """With impact tests PC and PF together qualify every position but PG (ISO 15614-1:2017, from memory)."""
    joints = [line(mark, 20, mark) for mark in ("PA", "PC", "PF", "PE")]
    found = fewest_coupons(listed(*joints))
    assert sorted(one.record.coupon.position for one in found.coupons) == ["PC", "PF"]
    assert not found.uncovered
    assert all(set(one.only) >= {"T1", "T4"} for one in found.coupons), "flat and overhead need both"


def test_few_positions_cost_more_or_do_not_do():
    """With impact tests PA and PE are covered by PC and PF together alone (ISO 15614-1:2017, from memory)."""
    joints = [line(mark, 20, mark) for mark in ("PA", "PC", "PF", "PE")]
    free = fewest_coupons(listed(*joints))
    assert fewest_coupons(listed(*joints, most_positions=2)).cost == free.cost
    with pytest.raises(WeldingError, match="in 2 positions they do"):
        fewest_coupons(listed(*joints, most_positions=1))
    plain = {"metal": "S235JR"}
    thin = [line("A", 10, "PA", **plain), line("B", 8, "PF", **plain), line("C", 40, "PF", **plain)]
    one = fewest_coupons(listed(*thin, most_positions=1))
    assert len({coupon.record.coupon.position for coupon in one.coupons}) == 1
    assert one.cost >= fewest_coupons(listed(*thin)).cost


def test_what_may_not_be_welded_or_has_to_be():
    joints = [line("A", 12, "PA"), line("B", 15, "PA")]
    free = fewest_coupons(listed(*joints))
    (name,) = (one.name for one in free.coupons)
    without = fewest_coupons(listed(*joints, without=[name]))
    assert name not in [one.name for one in without.coupons] and without.cost >= free.cost
    other = without.coupons[0].name
    kept = fewest_coupons(listed(*joints, keep=[other]))
    assert other in [one.name for one in kept.coupons] and kept.cost >= free.cost
    with pytest.raises(UnknownEntryError):
        fewest_coupons(listed(*joints, keep=["nothing of the kind"]))


@pytest.mark.parametrize(
    "one, shop, said",
    [
        (line("A", 60, "PA"), {"thickest_mm": 15}, "No coupon"), (line("A", 12, "PA", metal="unobtainium 9"), {}, "No coupon"),
        (line("A", 12, "PA", process="141"), {}, "process 141"), (line("A", 20, "PG"), {"positions": ["PA"]}, "PG"),
    ],
)  # fmt: skip
def test_what_no_coupon_covers_is_named_with_its_reason(one, shop, said):
    found = fewest_coupons(listed(one, **shop))
    assert found.coupons == () and found.cost == 0
    (left,) = found.uncovered
    assert said in "; ".join(left.reasons)


def test_a_joint_without_metal_stays_open_and_says_so():
    bare = line("A", 12, "PA")
    bare["joint"]["base_metals"] = []
    found = fewest_coupons(listed(bare, line("B", 12, "PA")))
    assert [one.type.marks for one in found.uncovered] == [("A",)]
    assert "no metal" in found.uncovered[0].reasons[0]


def test_d1_1_asks_for_its_own_coupons():
    code = {"id": "aws-d1.1:2020", "units": "us", "route": "test"}
    lines = [line(mark, 12.7, mark, metal="A572 Gr 50", progression="up") for mark in ("1G", "3G")]
    found = fewest_coupons(listed(*lines, code=code, processes=["136"]))
    assert found.optimal and not found.uncovered
    assert all(one.record.procedure.code.id == "aws-d1.1:2020" for one in found.coupons)


def test_a_coupon_costs_the_tests_that_it_asks_for():
    """Impact sets that a joint needs are paid for, also where the coupon by its own thickness would need none."""
    thin, thick = listed(line("A", 10, "PA")), listed(line("A", 20, "PA"), thickest_mm=10)
    plain, tested = fewest_coupons(thin).coupons[0], fewest_coupons(thick).coupons[0]
    assert not any(one.kind == "impact" for one in plain.record.tests)
    assert tested.record.coupon.thickness_mm == (10, 10)
    assert [one.kind for one in tested.record.tests][:2] == ["impact", "impact"]
    sets = load_table("welding.weldlist", "test_prices").row("impact")["each"]
    assert tested.cost >= plain.cost + 2 * sets - 100


@pytest.mark.parametrize("metal, g_cm3", [("S355J2+N", 7.85), ("304L", 7.93)])
def test_plate_is_paid_for_by_its_weight(metal, g_cm3):
    """Hand-worked: two pieces of 150 by 350 mm, 10 mm thick, and nothing else has a price."""
    free = {"hour": 0, "weld_metal_kg": 0, "coupon": 0, "plate_kg": 2, "tests": dict.fromkeys(KINDS, 0)}
    plain = WELD_LIST.plain(listed(line("A", 10, "PA", metal=metal), thickest_mm=10, positions=["PA"]))
    found = fewest_coupons(WELD_LIST.take({**plain, "prices": free}))
    (mm,) = {one.record.coupon.thickness_mm[0] for one in found.coupons}
    assert found.cost == pytest.approx(2 * 2 * 35 * 15 * mm / 10 * g_cm3 / 1000, abs=0.01)


def test_dearer_tests_are_avoided():
    """Prices decide: plate and tests of the shop, not a fixed order of preference."""
    plan = listed(line("A", 12, "PA"), line("B", 24, "PA"))
    cheap = fewest_coupons(plan)
    dear = fewest_coupons(replace(plan, prices=replace(plan.prices, coupon=5000)))
    assert len(dear.coupons) <= len(cheap.coupons)
    assert dear.cost - cheap.cost >= 4850 * len(dear.coupons) - 1e-6


def test_the_call_prints_the_plan(capsys, tmp_path):
    (tmp_path / "list.json").write_bytes(WELD_LIST.write(listed(line("A", 12, "PA"))))
    assert main(["coupons", str(tmp_path / "list.json")]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["optimal"] and found["coupons"][0]["covers"] == ["T1"] == found["coupons"][0]["only"]
    assert found["coupons"][0]["record"]["format"] == "grounded-bead/qualification-record"
    (tmp_path / "bad.json").write_text("{}")
    assert main(["coupons", str(tmp_path / "bad.json")]) == 2


def test_every_kind_of_test_of_a_plan_has_a_price():
    table = load_table("welding.weldlist", "test_prices")
    assert {row["kind"] for row in table.rows} == set(KINDS)
