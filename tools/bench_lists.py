"""The bench of weld lists: a file read, its joint types against records, the cheapest coupons."""

from __future__ import annotations

import os
import random
import time
from dataclasses import replace

from tools.bench_proof import some_joints, some_records
from welding.coverage.record import KeptRanges, keeping_ranges
from welding.documents.codec import JOINT
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Code
from welding.documents.weld_list import ListedJoint, Shop, WeldList
from welding.weldlist.coupons import fewest_coupons
from welding.weldlist.grid import Cell, ListMapping, guessed_mapping, read_grid
from welding.weldlist.joint_types import joint_types
from welding.weldlist.standing import types_covered

ROWS, TYPES = 10_000, 300
COUPON_TYPES = 1000
SHOP = Shop(processes=("111", "135", "141"))
CODE = Code(id="iso-15614-1:2017", level=2)


def lists() -> dict[str, float]:
    """Figures of the core, cold: nothing is kept from one to the next."""
    chance = random.Random(27)
    records, joints = some_records(chance), some_joints(chance)
    listed = [ListedJoint(mark=f"W{number}", joint=joints[number % TYPES]) for number in range(ROWS)]
    grid = _grid()
    mapping = guessed_mapping(grid)
    start = time.perf_counter()
    read_grid(
        grid, CODE, ListMapping(first_row=mapping.first_row, headings=mapping.headings, units=mapping.units)
    )
    read = time.perf_counter()
    types = joint_types(listed, CODE)
    ranges = KeptRanges()
    with keeping_ranges(ranges):
        types_covered(types, records, CODE)
    covered = time.perf_counter()
    # After one change only the type that is new is asked about, as the server does.
    known = {JOINT.write(replace(one.joint, number=None)) for one in types}
    listed[4711] = ListedJoint(mark="W4711", joint=replace(listed[4711].joint, pwht=True))
    after = [
        one for one in joint_types(listed, CODE) if JOINT.write(replace(one.joint, number=None)) not in known
    ]
    with keeping_ranges(ranges):
        types_covered(after, records, CODE)
    changed = time.perf_counter()
    if len(after) != 1:
        raise SystemExit(f"one change made {len(after)} joint types")
    gaps = WeldList(code=CODE, joints=_mixed_types(chance), shop=SHOP)
    start_of_plan = time.perf_counter()
    plan = fewest_coupons(gaps, workers=os.cpu_count() or 1)
    planned = time.perf_counter()
    if not plan.optimal:
        raise SystemExit("the cheapest coupons were not proven in time")
    return {
        "core_list_s": read - start,
        "core_list_cover_s": covered - read,
        "core_list_change_ms": 1000 * (changed - covered),
        "core_coupons_s": planned - start_of_plan,
    }


def _mixed_types(chance: random.Random) -> tuple[ListedJoint, ...]:
    """Joint types of a hard job: steels of many groups, plate and pipe, butts and fillets."""
    found: dict[bytes, ListedJoint] = {}
    while len(found) < COUPON_TYPES:
        joint = _mixed(chance)
        found.setdefault(JOINT.write(joint), ListedJoint(mark=f"W{len(found)}", joint=joint))
    return tuple(found.values())


METALS = ("S355J2+N", "S355J2+N", "S355J2+N", "S275JR", "S235JR", "S460N", "X5CrNi18-10", "16Mo3", "P265GH")
PLATES_MM = (5, 6, 8, 10, 12, 15, 16, 20, 25, 30, 35, 40, 50, 60)
WALLS_MM, DIAMETERS_MM = (4, 5, 6.3, 8, 10, 12.5), (60.3, 88.9, 114.3, 168.3, 219.1, 323.9)
WELDS = ("cjp-groove", "cjp-groove", "pjp-groove", "fillet", "fillet")
POSITIONS = {
    (False, False): ("PA", "PC", "PF", "PE"),
    (False, True): ("PC", "PH", "H-L045", "PA"),
    (True, False): ("PA", "PB", "PF", "PD"),
    (True, True): ("PA", "PB", "PH"),
}


def _mixed(chance: random.Random) -> JointToWeld:
    pipe, weld = chance.random() < 0.25, chance.choice(WELDS)
    mm = chance.choice(WALLS_MM if pipe else (*PLATES_MM, round(chance.uniform(4, 70), 1)))
    member = {"designation": chance.choice(METALS), "thickness_mm": mm}
    if pipe:
        member["outside_diameter_mm"] = chance.choice(DIAMETERS_MM)
    other = member if chance.random() < 0.9 else {**member, "designation": chance.choice(METALS[:5])}
    joint: dict[str, object] = {"kind": "t" if weld == "fillet" else "butt", "weld": weld}
    if weld == "fillet":
        joint["leg1_mm"] = chance.choice((4, 5, 6, 7, 8, 10))
    elif chance.random() < 0.3:
        joint["sides"] = "both"
    asked = {"impact": {"temperature_c": -20, "average_j": 27}} if chance.random() < 0.4 else {}
    return JOINT.take(
        {
            "format": "grounded-bead/joint",
            "version": 1,
            "code": {"id": CODE.id, "level": CODE.level},
            "base_metals": [member, other],
            "joint": joint,
            "positions": [chance.choice(POSITIONS[weld == "fillet", pipe])],
            **({"requirements": asked} if asked else {}),
        }
    )


def _grid() -> list[list[Cell]]:
    head: list[Cell] = [
        "Weld no.",
        "Drawing",
        "Joint type",
        "Weld type",
        "Material 1",
        "Material 2",
        "t1 (mm)",
        "t2 (mm)",
        "Position",
    ]
    rows: list[list[Cell]] = [
        [f"W{n}", f"D{n // 200}", "butt", "CJP", "S355J2+N", "S355J2+N", 5 + n % 60, 5 + n % 60, "PA"]
        for n in range(ROWS)
    ]
    return [head, *rows]
