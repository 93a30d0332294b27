"""How fast production welds are found among very many."""

from __future__ import annotations

import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

WELDS = 100_000
ROOT = Path(__file__).resolve().parents[1]
SEARCHES = {
    "welds_latest_ms_p95": ("",),
    "welds_mark_ms_p95": ("mark=J0420", "mark=99"),
    "welds_batch_ms_p95": ("batch=B-17", "batch=B-212"),
    "welds_heat_ms_p95": ("heat=H-3", "heat=H-801"),
    "welds_wps_since_ms_p95": ("wps={wps}&since=2026-05-03",),
    "welds_welder_ut_rejected_ms_p95": (
        "welder=Welder+7&method=UT&accepted=false",
        "welder=Welder+41&method=UT&accepted=false",
    ),
}
GOALS: dict[str, tuple[str, str, float | None]] = {
    "welds": ("production welds that are searched", "", None),
    "welds_latest_ms_p95": ("welds: the latest, 95 of 100", "ms", 150),
    "welds_mark_ms_p95": ("welds by a part of their mark, 95 of 100", "ms", 150),
    "welds_batch_ms_p95": ("everything welded from a batch, 95 of 100", "ms", 200),
    "welds_heat_ms_p95": ("everything welded of a heat, 95 of 100", "ms", 200),
    "welds_wps_since_ms_p95": ("everything welded to a WPS since a day, 95 of 100", "ms", 200),
    "welds_welder_ut_rejected_ms_p95": ("welds of a welder that UT rejected, 95 of 100", "ms", 200),
    "reject_rates_welder_ms": ("reject rates by welder", "ms", None),
    "reject_rates_wps_ms": ("reject rates by WPS", "ms", None),
    "reject_rates_position_ms": ("reject rates by position", "ms", None),
    "reject_rates_month_ms": ("reject rates by month", "ms", None),
}
RATES = ("welder", "wps", "position", "month")


def production(sign_in: Callable[[], Any]) -> dict[str, float]:
    """Searches and reject rates among 100,000 welds [ms].

    Args:
        sign_in: Opens a session; its ``get`` asks for a path of the API and gives what it holds.
    """
    made = subprocess.run(
        [sys.executable, "manage.py", "many_welds", str(WELDS)],
        cwd=ROOT / "server",
        capture_output=True,
        text=True,
        check=True,
    )
    job = int(made.stdout.strip().splitlines()[-1])
    get = sign_in().get  # making them takes longer than a connection is kept
    wps = get(f"/api/jobs/{job}/welds")["welds"][0]["revision_id"]
    found: dict[str, float] = {"welds": WELDS}
    for name, queries in SEARCHES.items():
        times = []
        for query in queries * (20 // len(queries)):
            start = time.perf_counter()
            get(f"/api/jobs/{job}/welds?{query.format(wps=wps)}")
            times.append((time.perf_counter() - start) * 1000)
        found[name] = statistics.quantiles(times, n=20)[-1]
    for by in RATES:
        start = time.perf_counter()
        get(f"/api/jobs/{job}/welds/rates?by={by}&method=UT")
        found[f"reject_rates_{by}_ms"] = (time.perf_counter() - start) * 1000
    return found
