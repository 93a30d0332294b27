"""Sets of joints that coupons cover: what ``covers`` says of each of them, alone and as a pair."""

import random
from dataclasses import replace
from functools import lru_cache
from itertools import combinations
from pathlib import Path

import pytest

from tools.bench_proof import some_joints, some_records
from welding.coverage.cover_sets import CoverSet, CoverSets, members
from welding.coverage.covers import covers
from welding.coverage.record import KeptRanges, as_passed, in_force, judge, keeping_ranges
from welding.documents.codec import JOINT, RECORD
from welding.documents.procedure import Code
from welding.documents.weld_list import ListedJoint, Prices, Shop
from welding.weldlist.joint_types import joint_types
from welding.weldlist.screening import tried_for
from welding.weldlist.standing import types_covered

EXAMPLES = Path(__file__).resolve().parents[2] / "docs" / "examples"
ISO, AWS = Code(id="iso-15614-1:2017", level=2, units="si"), Code(id="aws-d1.1:2020", units="us")


ASKED = {"requirements": {"impact": {"temperature_c": -20, "average_j": 27}}}


def gap(number, code, chance):
    """A joint of a list, hardly two alike."""
    iso = code == ISO
    fillet, pipe = chance.random() < 0.3, chance.random() < 0.3
    grooves = (("PA", "PC", "PF", "PE"), ("PC", "PH")) if iso else (("1G", "2G", "3G", "4G"), ("2G", "5G"))
    fillets = (("PB", "PF"), ("PB", "PH")) if iso else (("2F", "3F"), ("2F", "5F"))
    metal = chance.choice(["S355J2+N", "S235JR", "S460N", "P265GH"] if iso else ["A36", "A572-50"])
    member = {"designation": metal, "thickness_mm": chance.choice([6, 10, 14, 22, 45])}
    if pipe:
        member["outside_diameter_mm"] = chance.choice([60.3, 168.3, 323.9])
    joint = (
        {"kind": "t", "weld": "fillet", "leg1_mm": 6} if fillet else {"kind": "butt", "weld": "cjp-groove"}
    )
    return JOINT.take(
        {
            "format": "grounded-bead/joint", "version": 1, "number": f"J{number}", "code": {"id": code.id, "level": code.level},
            "base_metals": [member] * 2, "joint": joint, "positions": [chance.choice((fillets if fillet else grooves)[pipe])],
            **(ASKED if chance.random() < 0.6 else {}),
        }
    )  # fmt: skip


@lru_cache(maxsize=2)
def listed_gaps(code):
    """Joint types of a list, and the coupons that would be tried for them."""
    chance = random.Random(11)
    gaps = joint_types([ListedJoint(mark=f"W{n}", joint=gap(n, code, chance)) for n in range(40)], code)
    return gaps, tried_for(gaps, code, Shop(processes=("135",)), Prices()).candidates


@pytest.mark.parametrize("code", [ISO, AWS], ids=["iso", "aws"])
def test_coupons_of_a_list_cover_what_covers_says(code):
    gaps, tried = listed_gaps(code)
    tried = random.Random(3).sample(tried, 40)
    sets = CoverSets([one.joint for one in gaps], in_force(code))
    found = [sets.of(one.record, one.report) for one in tried]
    assert any(one.rows for one in found)
    for coupon, cover in zip(tried, found, strict=True):
        for row, one in enumerate(gaps):
            said = covers([coupon.record], one.joint, code.id, code.level, [coupon.report])
            assert bool(cover.rows >> row & 1) == said.covered, (coupon.name, one.key)
            blocked = sets.blocking(row, coupon.record, coupon.report)
            assert bool(blocked) != said.covered, (coupon.name, one.key, blocked)


def test_pairs_cover_what_covers_says_of_both():
    gaps, tried = listed_gaps(ISO)
    sets = CoverSets([one.joint for one in gaps], in_force(ISO))
    kin = {}
    for one in tried:
        piece = one.piece
        alike = piece.family, piece.thickness_mm, piece.diameter_mm, piece.requirements
        kin.setdefault(alike, []).append(one)
    closed = 0
    for some in random.Random(5).sample(list(kin.values()), 12):
        for one, two in combinations(some, 2):
            pair = [sets.of(each.record, each.report) for each in (one, two)]
            together = sets.of_pair(
                [(each.record, each.report, found) for each, found in zip((one, two), pair, strict=True)]
            )
            for row, wanted in enumerate(gaps):
                if (pair[0].rows | pair[1].rows) >> row & 1:
                    assert not together >> row & 1
                    continue
                said = covers(
                    [one.record, two.record], wanted.joint, ISO.id, ISO.level, [one.report, two.report]
                )
                assert bool(together >> row & 1) == said.covered, (one.name, two.name, wanted.key)
                closed += said.covered
    assert closed, "no pair of this list covers anything: the test shows nothing"


@pytest.mark.parametrize(
    "name", ["iso-15614-1", "duplex-iso-15614-1", "submerged-arc-iso-15614-1", "aws-d1-1"]
)
def test_records_at_hand_cover_what_covers_says(name):
    record = RECORD.read((EXAMPLES / f"{name}.qualification-record.json").read_bytes())
    code = record.procedure.code
    joints = [replace(one, code=code) for one in some_joints(random.Random(9))[:60]]
    own = JOINT.take(
        {
            "format": "grounded-bead/joint", "version": 1, "number": "own", "code": {"id": code.id, "level": code.level},
            "base_metals": [{"designation": one.designation, "thickness_mm": one.thickness_mm} for one in record.procedure.base_metals],
            "joint": {"kind": "butt", "weld": "cjp-groove"}, "positions": [record.coupon.position],
        }
    )  # fmt: skip
    joints.append(own)
    sets = CoverSets(joints, in_force(code))
    for report in (judge(record), as_passed(record)):
        found = set(members(sets.of(record, report).rows))
        for row, joint in enumerate(joints):
            said = covers([record], joint, code.id, code.level, [report])
            assert (row in found) == said.covered, (row, report.verdict)


@pytest.mark.parametrize("verdict", ["incomplete", "rejected"])
def test_a_coupon_whose_tests_are_not_accepted_covers_nothing(verdict):
    gaps, tried = listed_gaps(ISO)
    sets = CoverSets([one.joint for one in gaps], in_force(ISO))
    one = next(one for one in tried if sets.of(one.record, one.report).rows)
    row = next(members(sets.of(one.record, one.report).rows))
    report = replace(one.report, verdict=verdict, missing=("macro",))
    assert sets.of(one.record, report) == CoverSet(0, 0)
    assert not covers([one.record], gaps[row].joint, ISO.id, ISO.level, [report]).covered


def test_random_records_and_joints():
    chance = random.Random(27)
    records, joints = some_records(chance)[:12], some_joints(chance)[:80]
    sets = CoverSets(joints, in_force(ISO))
    for record in records:
        report = judge(record)
        found = set(members(sets.of(record, report).rows))
        assert found == {
            row for row, one in enumerate(joints) if covers([record], one, ISO.id, 2, [report]).covered
        }


def test_what_is_kept_of_records_changes_no_answer():
    """After one change of a list only the new type is asked about; the records are not judged again."""
    chance = random.Random(5)
    records = some_records(chance)[:3]
    listed = [ListedJoint(mark=f"W{at}", joint=one) for at, one in enumerate(some_joints(chance)[:40])]
    types = joint_types(listed, ISO)
    plain = types_covered(types, records, ISO)
    kept = KeptRanges()
    found = []
    for part in (types[:9], types[9:]):
        with keeping_ranges(kept):
            found += types_covered(part, records, ISO)
        judged = dict(kept.reports)
    assert tuple(found) == plain and {one.verdict for one in plain} >= {"covered", "blocked"}
    assert len(judged) == len(records) and kept.ranges
