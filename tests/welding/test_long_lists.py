"""Coupons for long lists: what is left out beforehand costs nothing, and the search can be watched and ended."""

import random

import pytest

from welding.documents.codec import JOINT
from welding.documents.procedure import Code
from welding.documents.weld_list import ListedJoint, Shop, WeldList
from welding.weldlist import screening
from welding.weldlist.coupons import fewest_coupons
from welding.weldlist.joint_types import joint_types
from welding.weldlist.screening import tried_for
from welding.weldlist.spread import spread

ISO = Code(id="iso-15614-1:2017", level=2, units="si")
COLD = {"impact": {"temperature_c": -20, "average_j": 27}}


def joint(metal, mm, position, *, fillet=False, od=None, sides=None, asked=None, measured_mpa=None):
    member = {"designation": metal, "thickness_mm": mm}
    if od:
        member["outside_diameter_mm"] = od
    if measured_mpa:
        member["yield_mpa"] = measured_mpa
    shape = (
        {"kind": "t", "weld": "fillet", "leg1_mm": 6} if fillet else {"kind": "butt", "weld": "cjp-groove"}
    )
    if sides:
        shape["sides"] = sides
    return JOINT.take(
        {
            "format": "grounded-bead/joint",
            "version": 1,
            "code": {"id": ISO.id, "level": 2},
            "base_metals": [member] * 2,
            "joint": shape,
            "positions": [position],
            **({"requirements": asked} if asked else {}),
        }
    )


def listed(joints, **shop):
    lines = tuple(ListedJoint(mark=f"W{n}", joint=one) for n, one in enumerate(joints))
    return WeldList(code=ISO, joints=lines, shop=Shop(**{"processes": ("135",), **shop}))


def some_joints(seed, count):
    """A mixed job: steels of several groups, plate and pipe, butts and fillets, some with impact tests."""
    chance = random.Random(seed)
    found = []
    for _ in range(count):
        pipe, fillet = chance.random() < 0.25, chance.random() < 0.4
        places = (("PB", "PF"), ("PB", "PH")) if fillet else (("PA", "PC", "PF"), ("PC", "H-L045"))
        found.append(
            joint(
                chance.choice(["S355J2+N", "S235JR", "S460N", "P265GH", "X5CrNi18-10"]),
                chance.choice([4, 5, 8, 10] if pipe else [6, 8, 12, 20, 30, 50]),
                chance.choice(places[pipe]),
                fillet=fillet,
                od=chance.choice([60.3, 114.3, 219.1]) if pipe else None,
                sides="both" if not fillet and chance.random() < 0.3 else None,
                asked=COLD if chance.random() < 0.4 else None,
            )
        )
    return found


@pytest.mark.parametrize("seed", [5, 7, 21])
def test_what_is_left_out_beforehand_makes_the_set_no_dearer(seed, monkeypatch):
    plan = listed(some_joints(seed, 9))
    monkeypatch.setattr(screening, "EVERY_ONE_UP_TO", 10**9)
    all_of_them = fewest_coupons(plan)
    monkeypatch.setattr(screening, "EVERY_ONE_UP_TO", 0)
    screened = fewest_coupons(plan)
    assert screened.optimal and screened.cost <= all_of_them.cost + 0.01
    assert screened.tried < all_of_them.tried / 2, "nothing was left out: the test shows nothing"
    assert [one.type.key for one in screened.uncovered] == [one.type.key for one in all_of_them.uncovered]


@pytest.mark.parametrize(
    "costs, rows, matched",
    [
        ((100, 400), 0b111, True), ((90, 390), 0b111, True), ((100, 400), 0b110, False),
        ((101, 400), 0b111, False), ((100, 401), 0b111, False), ((0, 0), 0b001, False),
    ],
)  # fmt: skip
def test_a_size_gives_way_only_to_what_covers_as_much_and_is_never_dearer(costs, rows, matched):
    """Costs without further tests and with those of the hardest joint: either may decide."""
    mine = screening._Size(0, 12.0, None, None, (100, 400), 0b011)
    assert mine.is_matched_by(screening._Size(1, 12.0, None, None, costs, rows)) is matched


def test_a_coupon_left_out_by_name_takes_nothing_else_with_it(monkeypatch):
    monkeypatch.setattr(screening, "EVERY_ONE_UP_TO", 0)
    joints = [joint("S355J2+N", mm, "PF", asked=COLD) for mm in (12, 20)] + [joint("S235JR", 8, "PA")]
    free = fewest_coupons(listed(joints))
    (first, *_) = free.coupons
    less = fewest_coupons(listed(joints, without=(first.name,)))
    assert first.name not in [one.name for one in less.coupons]
    assert not less.uncovered and less.cost >= free.cost


def test_pipe_has_walls_as_they_are_made():
    """Of 60.3 mm pipe the heaviest schedule has a wall of 11.1 mm (ASME B36.10M, from memory)."""
    plan = listed([joint("S355J2+N", mm, "PC", od=od) for mm in (5, 12.5) for od in (60.3, 219.1)])
    tried = tried_for(joint_types(plan.joints, ISO), ISO, plan.shop, plan.prices)
    walls = {(one.piece.thickness_mm, one.piece.diameter_mm) for one in tried.candidates}
    assert max(t for t, od in walls if od == 60.3) == 12.5, "what the list itself has stays"
    assert not any(t > od / 5 for t, od in walls if (t, od) != (12.5, 60.3))
    assert any(t > 12.5 for t, od in walls if od == 219.1)


def test_coupons_that_differ_are_called_differently():
    """Two energies at one temperature, and one designation with two strengths."""
    hard = {"impact": {"temperature_c": -20, "average_j": 40}}
    joints = [
        joint("S355J2+N", 20, "PF", asked=COLD),
        joint("S355J2+N", 20, "PC", asked=hard),
        joint("S355J2+N", 20, "PA", measured_mpa=345),
    ]
    found = fewest_coupons(listed(joints))
    assert not found.uncovered
    gaps = joint_types(listed(joints).joints, ISO)
    names = [one.name for one in tried_for(gaps, ISO, Shop(), listed(joints).prices).candidates]
    assert len(set(names)) == len(names)
    assert any("40 J" in one for one in names) and any("(2)" in one for one in names)


def test_two_processors_find_what_one_finds():
    plan = listed(some_joints(3, 4))
    assert fewest_coupons(plan, workers=2) == fewest_coupons(plan)


def test_a_search_is_watched_and_ended():
    told = []
    fewest_coupons(listed(some_joints(3, 3)), watch=lambda *one: told.append(one))
    assert list(dict.fromkeys(one[0] for one in told)) == [
        "records",
        "draft",
        "solve",
        "check",
    ]
    assert all(0 <= done <= of for _, done, of in told)

    def enough(doing, done, of):
        if doing == "draft" and done > 2:
            raise TimeoutError

    for workers in (1, 2):
        with pytest.raises(TimeoutError):
            fewest_coupons(listed(some_joints(3, 3)), workers=workers, watch=enough)


def test_work_on_several_processors_keeps_its_order():
    told = []
    found = list(spread(lambda n: n * n, 9, 3, "square", lambda *one: told.append(one)))
    assert found == [n * n for n in range(9)]
    assert told[-1] == ("square", 9, 9)
