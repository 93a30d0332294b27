"""The bench of recordings: import of a large file, streams of ten recorders, a soak, the entry of a pass."""

import http.client
import json
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit
from uuid import uuid4

import numpy as np
import pyarrow as pa
import pyarrow.csv as pa_csv

from recorder.client import Gateway
from recorder.waveforms import Setting
from recorder.welding_day import COLUMNS, Plan, samples, text_of

MILLIONS, RATE = 12, 20_000
RECORDERS, STREAM_S, SOAK_S = 10, 30, 600

IMPORT = """
import json, resource, sys, time
from pathlib import Path
start = time.perf_counter()
from welding.recording.analysis import analyse
from welding.recording.arcs import arc_stretches
from welding.recording.files import read_file
from welding.recording.measure import measure
from welding.recording.sniff import sniff
path = Path(sys.argv[1])
read = read_file(path, sniff(path).mapping)
analyse(read.recording)
whole = time.perf_counter() - start
peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000
stretches = arc_stretches(read.recording)
speeds = []
for _ in range(5):
    start = time.perf_counter()
    measure(read.recording, stretches)
    speeds.append(read.recording.size / (time.perf_counter() - start) / 1e6)
print(json.dumps({"import_s": whole, "import_peak_mb": peak, "integrate_m_per_s": sorted(speeds)[2]}))
"""


def recordings(address: str, session: Any, revision: int) -> dict[str, float]:
    """All of it, on a coupon of its own."""
    status, body = session("POST", f"/api/revisions/{revision}/coupons", {"welder": "Bench"})
    assert status == 201, body
    coupon = json.loads(body)["id"]
    number = session.get(f"/api/coupons/{coupon}")["number"]
    return {
        **entries(session, coupon),
        **large_file(address, session, coupon),
        **streams(address, session, number),
    }


def entries(session: Any, coupon: int) -> dict[str, float]:
    """Log twelve passes, reading the coupon again after each, and strike them, eight times over."""
    took = []
    for _ in range(8):
        for number in range(1, 13):
            record = {"number": number, "current_a": 250, "voltage_v": 28, "length_mm": 300}
            body = {"client_id": str(uuid4()), "record": {**record, "time_s": 60, "before_c": 90}}
            start = time.perf_counter()
            status, answer = session("POST", f"/api/coupons/{coupon}/passes", body)
            session.get(f"/api/coupons/{coupon}")
            took.append((time.perf_counter() - start) * 1000)
            assert status == 201, answer
        for row in session.get(f"/api/coupons/{coupon}")["rows"]:
            session("POST", f"/api/passes/{row['id']}/strike", {"version": row["version"], "reason": "bench"})
    return {"entry_ms_p50": statistics.median(took), "entry_ms_p95": statistics.quantiles(took, n=20)[-1]}


def large_file(address: str, session: Any, coupon: int) -> dict[str, float]:
    """A CSV of 12 million rows: through the core alone, then through the server."""
    random = np.random.default_rng(1)
    count = MILLIONS * 1_000_000
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "large.csv"
        table = pa.table(
            {
                "time_s": np.round(np.arange(count) / RATE, 5),
                "voltage_v": np.round(24 + random.normal(size=count), 2),
                "current_a": np.round(220 + 15 * random.normal(size=count), 1),
            }
        )
        pa_csv.write_csv(table, path)
        del table
        done = subprocess.run(
            [sys.executable, "-c", IMPORT, str(path)], capture_output=True, text=True, check=True
        )
        found: dict[str, float] = json.loads(done.stdout)
        start = time.perf_counter()
        made = _upload(address, session, coupon, path)
        found["upload_s"] = time.perf_counter() - start
    assert made["analysis"]["samples"] == count, made["message"]
    session.connection.close()  # it slept too long to be kept by the server
    for name, query in (("trace_open_ms", ""), ("trace_zoom_ms", "&start_s=300&end_s=301")):
        times = []
        for _ in range(5):
            start = time.perf_counter()
            session.get(f"/api/recordings/{made['id']}/trace?most=900{query}")
            times.append((time.perf_counter() - start) * 1000)
        found[name] = statistics.median(times)
    return found


def _upload(address: str, session: Any, coupon: int, path: Path) -> Any:
    connection = http.client.HTTPConnection(urlsplit(address).netloc, timeout=300)
    headers = {
        "Content-Type": "application/octet-stream",
        "Content-Length": str(path.stat().st_size),
        "Cookie": "; ".join(f"{key}={value}" for key, value in session.cookies.items()),
        "X-CSRFToken": session.cookies["csrftoken"],
    }
    with path.open("rb") as file:
        connection.request(
            "POST", f"/api/coupons/{coupon}/recordings?client_id={uuid4()}&name=large.csv", file, headers
        )
        answer = connection.getresponse()
        body = answer.read()
    assert answer.status == 201, (answer.status, body[:300])
    return json.loads(body)


def streams(address: str, session: Any, coupon: str) -> dict[str, float]:
    """Ten recorders in real time, then ten as fast as they are taken."""
    tokens = []
    for at in range(RECORDERS):
        status, body = session("POST", "/api/recorders", {"name": f"Bench {at} {uuid4()}"[:60]})
        assert status == 201, body
        tokens.append(json.loads(body)["token"])
    setting = Setting("pulsed", 24, 160)
    short = [text_of(rows) for rows in samples(Plan(setting, passes=1, arc_s=STREAM_S - 4), 1000)]
    long = [text_of(rows) for rows in samples(Plan(setting, passes=1, arc_s=SOAK_S - 4), 1000)]
    late: list[float] = []
    live = _all(address, tokens, coupon, short, 1.0, late)
    start = time.perf_counter()
    soak = _all(address, tokens, coupon, long, 0.0, [])
    return {
        "stream_late_ms_p95": statistics.quantiles(late, n=20)[-1],
        "stream_lost": live[0] - live[1],
        "soak_samples": soak[1],
        "soak_lost": soak[0] - soak[1],
        "soak_s": time.perf_counter() - start,
    }


def _all(
    address: str, tokens: list[str], coupon: str, chunks: list[bytes], every_s: float, late: list[float]
) -> tuple[int, int]:
    """All recorders at once; samples sent and samples kept."""
    sent, kept = [0] * len(tokens), [0] * len(tokens)

    def one(at: int) -> None:
        gateway = Gateway(address, tokens[at])
        gateway.open(COLUMNS, coupon, f"bench {at}")
        begun = time.monotonic() + at / len(tokens) * every_s
        for number, rows in enumerate(chunks):
            time.sleep(max(0.0, begun + number * every_s - time.monotonic()))
            start = time.perf_counter()
            gateway.put(rows)
            gateway.flush()
            late.append((time.perf_counter() - start) * 1000)
        answer = gateway.close()
        sent[at], kept[at] = gateway.samples, int(answer["samples"])

    threads = [threading.Thread(target=one, args=(at,)) for at in range(len(tokens))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return sum(sent), sum(kept)
