"""The bench of proof: ranges, coverage of many joints by many records, the pages of qualification."""

from __future__ import annotations

import random
import statistics
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from welding.coverage.matrix import coverage_matrix
from welding.coverage.record import range_of
from welding.documents.codec import JOINT, RECORD
from welding.documents.joint_list import JointToWeld
from welding.documents.record import QualificationRecord

EXAMPLES = Path(__file__).parent.parent / "docs" / "examples"
RECORDS, JOINTS = 200, 1000


def proof(sign_in: Callable[[], Any]) -> dict[str, float]:
    """Figures of the core and of the pages; signed in only then, for an idle connection is closed."""
    return {**ranges(), **matrix(), **pages(sign_in())}


def ranges() -> dict[str, float]:
    """One range, the slower of both codes."""
    medians = []
    for path in sorted(EXAMPLES.glob("*.qualification-record.json")):
        record = RECORD.read(path.read_bytes())
        range_of(record)
        times = []
        for _ in range(200):
            start = time.perf_counter()
            range_of(record)
            times.append((time.perf_counter() - start) * 1000)
        medians.append(statistics.median(times))
    return {"core_range_ms_p50": max(medians)}


def matrix() -> dict[str, float]:
    """1,000 joints, hardly two alike, against 200 records of many thicknesses and positions."""
    chance = random.Random(27)
    records, joints = some_records(chance), some_joints(chance)
    coverage_matrix(records[:1], joints[:1])
    start = time.perf_counter()
    coverage_matrix(records, joints)
    return {"core_matrix_s": time.perf_counter() - start}


def some_records(chance: random.Random) -> list[QualificationRecord]:
    """Records of many thicknesses and positions."""
    plain = RECORD.plain(RECORD.read((EXAMPLES / "iso-15614-1.qualification-record.json").read_bytes()))
    found = []
    for number in range(RECORDS):
        t = chance.choice([12, 15, 20, 25, 30, 40])
        plain["number"] = f"Q{number}"
        plain["coupon"].update(thickness_mm=[t, t], position=chance.choice(["PA", "PC", "PF"]))
        found.append(RECORD.take(plain))
    return found


def some_joints(chance: random.Random) -> list[JointToWeld]:
    """Joints, hardly two alike."""
    return [
        JOINT.take(
            {
                "format": "grounded-bead/joint",
                "version": 1,
                "number": f"J{number}",
                "code": {"id": "iso-15614-1:2017", "level": 2},
                "requirements": {"impact": {"temperature_c": -20, "average_j": 27}},
                "base_metals": [
                    {
                        "designation": chance.choice(["S355J2+N", "S275JR", "S235JR"]),
                        "thickness_mm": round(chance.uniform(5, 80), 1),
                    }
                ]
                * 2,
                "joint": {
                    "kind": chance.choice(["butt", "t"]),
                    "weld": chance.choice(["cjp-groove", "pjp-groove", "fillet"]),
                    "leg1_mm": chance.choice([5, 6, 8, 10]),
                },
                "positions": [chance.choice(["PA", "PC", "PF"])],
            }
        )
        for number in range(JOINTS)
    ]


def pages(session: Any) -> dict[str, float]:
    """The answers behind the pages: tests, range, proof of a procedure, the code book."""
    job = session.get("/api/jobs")[0]["id"]
    record = session.get(f"/api/jobs/{job}/records")[0]
    released = next(
        one["id"] for one in session.get(f"/api/jobs/{job}/procedures") if one["stage"] == "released"
    )
    slowest = 0.0
    for path in (
        f"/api/coupons/{record['coupon_id']}/evidence",
        f"/api/coupons/{record['coupon_id']}/ranges",
        f"/api/revisions/{released}/stage",
        "/api/book",
        "/api/book/touched",
    ):
        times = []
        for _ in range(8):
            start = time.perf_counter()
            session.get(path)
            times.append((time.perf_counter() - start) * 1000)
        slowest = max(slowest, statistics.median(times))
    return {"proof_page_ms": slowest}
