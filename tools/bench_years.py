"""How fast the pages are for a shop after many years: every call of the API that reads, at two jobs."""

from __future__ import annotations

import json
import re
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

COPIES = 10_000
"""Of the demo's job: 10^5 procedures, 10^6 passes, 1.7 x 10^5 welds, 10^4 recordings, 10^4 records."""
ROOT = Path(__file__).resolve().parents[1]
WARM, TIMES, GOAL_MS = 6, 10, 150.0
"""Every web worker has said it once before it is measured."""
PAPER = re.compile(r"/(print|file|export|labels|sheets?|cards?|dossier|book)\b|\.(pdf|xlsx|ics|csv)$")
"""What is set on paper or packed, which other lines of the bench measure."""
GOALS: dict[str, tuple[str, str, float | None]] = {
    "years_procedures": ("procedures of the shop after many years", "", None),
    "years_calls": ("calls of the API that read, each asked at an ordinary job of it", "", None),
    "years_call_ms": (f"the slowest of them, the second slowest of {TIMES}", "ms", GOAL_MS),
    "years_calls_over": (f"of them over {GOAL_MS:g} ms", "", 0),
    "years_large_call_ms": ("the slowest of them at a job of 1,000 procedures and 1,700 welds", "ms", None),
    "years_large_calls_over": (f"of them over {GOAL_MS:g} ms", "", None),
}


def years(sign_in: Callable[[], Any]) -> dict[str, float]:
    """Reading calls at an ordinary and at the largest job of a shop after many years.

    Args:
        sign_in: Opens a session; its ``get`` asks for a path of the API and gives what it holds.
    """
    manage = [sys.executable, "manage.py"]
    made = subprocess.run(
        [*manage, "many_years", str(COPIES)], cwd=ROOT / "server", capture_output=True, text=True, check=True
    )
    schema = subprocess.run(
        [*manage, "export_openapi_schema", "--api", "config.urls.api"],
        cwd=ROOT / "server",
        capture_output=True,
        text=True,
        check=True,
    )
    largest = int(made.stdout.strip().splitlines()[-1])
    session = sign_in()
    ordinary = next(one["id"] for one in session.get("/api/jobs") if one["number"].endswith("-0006"))
    found: dict[str, float] = {}
    for name, job in (("years_", ordinary), ("years_large_", largest)):
        times = dict(_timed(session, json.loads(schema.stdout), job))
        over = {path: ms for path, ms in times.items() if ms > GOAL_MS}
        for path, ms in sorted(over.items(), key=lambda one: -one[1]):
            print(f"    {ms:6.0f} ms {path}", flush=True)
        found |= {
            f"{name}calls": len(times),
            f"{name}calls_over": len(over),
            f"{name}call_ms": max(times.values()),
        }
    del found["years_large_calls"]
    return {"years_procedures": COPIES * 10, **found}


def _timed(session: Any, schema: dict[str, Any], job: int) -> Iterator[tuple[str, float]]:
    ids = _ids(session, job)
    for path, verbs in schema["paths"].items():
        asked = re.findall(r"\{(\w+)\}", path)
        if "get" not in verbs or PAPER.search(path) or any(name not in ids for name in asked):
            continue
        address = path.format(**ids)
        times: list[float] = []
        for _ in range(WARM):
            session("GET", address)
        for _ in range(TIMES):
            start = time.perf_counter()
            status, _ = session("GET", address)
            times.append((time.perf_counter() - start) * 1000)
            if status != 200:
                break
        else:
            yield path, sorted(times)[-2]


def _ids(session: Any, job: int) -> dict[str, int]:
    """One of each kind that the job has."""
    revision = session.get(f"/api/jobs/{job}/procedures")[0]["id"]
    coupon = session.get(f"/api/jobs/{job}/coupons")[0]["id"]
    found = {"job_id": job, "revision_id": revision, "other_id": revision, "coupon_id": coupon}
    whole = session.get(f"/api/coupons/{coupon}")
    found["pass_id"] = whole["rows"][0]["id"]
    records = session.get(f"/api/jobs/{job}/records")
    found["record_id"] = records[0]["id"]
    welds = session.get(f"/api/jobs/{job}/welds")["welds"]
    found["weld_id"] = welds[0]["id"]
    recordings = session.get(f"/api/coupons/{coupon}/recordings")
    if recordings:
        found["recording_id"] = recordings[0]["id"]
    return found
