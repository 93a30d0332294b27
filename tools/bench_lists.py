"""The bench of weld lists: a file read, its joint types against records, the cheapest coupons."""

from __future__ import annotations

import random
import time

from tools.bench_proof import some_joints, some_records
from welding.documents.procedure import Code
from welding.documents.weld_list import ListedJoint, Shop, WeldList
from welding.weldlist.coupons import fewest_coupons
from welding.weldlist.grid import Cell, ListMapping, guessed_mapping, read_grid
from welding.weldlist.joint_types import joint_types
from welding.weldlist.standing import types_covered

ROWS, TYPES = 10_000, 300
COUPON_TYPES = 100
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
    types_covered(joint_types(listed, CODE), records, CODE)
    covered = time.perf_counter()
    gaps = tuple(ListedJoint(mark=f"W{n}", joint=one) for n, one in enumerate(joints[:COUPON_TYPES]))
    plan = fewest_coupons(WeldList(code=CODE, joints=gaps, shop=Shop(processes=("135",))))
    planned = time.perf_counter()
    if not plan.optimal:
        raise SystemExit("the cheapest coupons were not proven in time")
    return {
        "core_list_s": read - start,
        "core_list_cover_s": covered - read,
        "core_coupons_s": planned - covered,
    }


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
