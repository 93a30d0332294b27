"""Small files that would fill the memory, and large ones that may die alone."""

import csv
import io
import resource
import subprocess
import sys
from pathlib import Path

import numpy as np
import pyarrow as pa
import pyarrow.parquet as pq
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ops.places import ROOT
from welding.errors import WeldingError
from welding.recording.examine import Examined, examine, examine_apart, is_large
from welding.recording.files import MOST_SAMPLES

CEILING_MB = 1500
"""What a reader may take in these tests: Python with its libraries alone takes a third of it."""

MEASURE = """
import sys
from pathlib import Path
from welding.recording.examine import examine
found = examine(*(Path(one) for one in sys.argv[1:4]))
status = dict(line.split(":", 1) for line in open("/proc/self/status"))
print(found.state, int(status["VmHWM"].split()[0]) // 1000)
"""
"""A started process is told its parent's peak as its own `ru_maxrss`: the kernel's own count starts anew."""


def peak_mb(path, tmp_path):
    """State and peak memory [MB] of a process that examines a file."""
    call = [sys.executable, "-c", MEASURE, str(path), str(tmp_path / "s"), str(tmp_path / "l")]
    done = subprocess.run(call, cwd=ROOT, capture_output=True, text=True, check=True)
    state, megabytes = done.stdout.split()
    return state, int(megabytes)


def in_place(path, tmp_path) -> Examined:
    return examine(path, tmp_path / "samples.parquet", tmp_path / "levels.npz")


def sparse_csv(span_s):
    """Two thousand rows whose times span very long, with an arc all the while."""
    rows = "".join(
        f"{t:.3f},{24 + n % 7 * 0.1:.1f},{200 + n % 5}\n" for n, t in enumerate(np.linspace(0, span_s, 2000))
    )
    return "time_s,voltage_v,current_a\n" + rows


def test_a_small_csv_over_a_long_time_takes_little_memory(tmp_path):
    """79 kB over 5e7 s took 3.4 GB: a window for every half second of it."""
    path = tmp_path / "sparse.csv"
    path.write_text(sparse_csv(5e7))
    state, megabytes = peak_mb(path, tmp_path)
    assert (state, megabytes < 500) == ("asking", True), megabytes
    found = in_place(path, tmp_path)
    assert "days" in found.message


def test_a_day_of_samples_far_apart_is_read(tmp_path):
    path = tmp_path / "day.csv"
    path.write_text(sparse_csv(86_400))
    state, megabytes = peak_mb(path, tmp_path)
    assert (state, megabytes < 500) == ("ready", True), megabytes


def parquet(path, rows):
    """A file that declares many rows and holds little: the same values over and over."""
    schema = pa.schema([("time_s", pa.float64()), ("voltage_v", pa.float64()), ("current_a", pa.float64())])
    block = 1 << 20
    with pq.ParquetWriter(path, schema, compression="zstd") as writer:
        for begin in range(0, rows, block):
            size = min(block, rows - begin)
            same = pa.array(np.full(size, 24.0))
            writer.write_table(pa.table([same, same, same], schema=schema))
    return path


def test_a_small_parquet_of_many_rows_is_read_apart_and_dies_alone(tmp_path):
    """274 kB took 1.6 GB and kept it: what is declared is asked before anything is read."""
    path = parquet(tmp_path / "many.parquet", 24_000_000)
    assert path.stat().st_size < 400_000 and is_large(path)
    found = examine_apart(path, tmp_path / "s", tmp_path / "l", memory_mb=CEILING_MB)
    assert found.state == "refused" and "more memory" in found.message
    assert found.guess is not None, "what it looks like is told all the same"


def test_more_rows_than_are_taken_are_refused_by_what_is_declared(tmp_path):
    path = parquet(tmp_path / "too-many.parquet", MOST_SAMPLES + 1)
    found = in_place(path, tmp_path)
    assert found.state == "asking" and "cut the recording" in found.message
    _, megabytes = peak_mb(path, tmp_path)
    assert megabytes < 600


def test_thousands_of_columns_are_no_recording(tmp_path):
    path = tmp_path / "wide.parquet"
    pq.write_table(pa.table({f"c{n}": [1.0] for n in range(3000)}), path)
    found = in_place(path, tmp_path)
    assert found.state == "refused" and found.message.startswith("3,000 columns")
    (tmp_path / "wide.csv").write_text(
        ",".join(map(str, range(30_000))) + "\n" + ",".join(["1"] * 30_000) + "\n"
    )
    assert in_place(tmp_path / "wide.csv", tmp_path).state in ("asking", "refused")


def test_a_large_file_is_read_apart_with_the_same_result(tmp_path):
    path = tmp_path / "long.csv"
    time = np.arange(60_000) / 1000
    with path.open("w", newline="") as sink:
        writer = csv.writer(sink)
        writer.writerow(["time_s", "voltage_v", "current_a"])
        writer.writerows((f"{t:.3f}", 24 + n % 9 * 0.1, 200 + n % 11) for n, t in enumerate(time))
    here = in_place(path, tmp_path)
    apart = examine_apart(path, tmp_path / "s", tmp_path / "l", memory_mb=CEILING_MB)
    assert here == apart and here.state == "ready"
    assert (tmp_path / "s").read_bytes() == (tmp_path / "samples.parquet").read_bytes()


@pytest.mark.parametrize(
    "text, state",
    [
        ("time_s,voltage_v,current_a\n0,24,1e308\n1,24,1e308\n2,24,1e308\n", "asking"),
        ("time_s,voltage_v,current_a\n0,inf,200\n1,24,-inf\n2,nan,nan\n", "asking"),
        ("time_s,voltage_v,current_a\n" + "1" * 140_000 + ",1,1\n0,1,2\n1,1,2\n", "refused"),
        ('time_s,voltage_v,current_a\n"' + "x" * 200_000 + "\n", "refused"),
        ("time_s,voltage_v,current_a\r0,24,200\r1,24,200\r", "ready"),
        ("a\rb,c\n1,2\n", "asking"),
        ("", "refused"),
        ("\x00" * 50, "refused"),
    ],
)
def test_odd_texts_end_in_a_sentence(tmp_path, text, state):
    path = tmp_path / "odd.csv"
    path.write_text(text, newline="")
    found = in_place(path, tmp_path)
    assert found.state == state
    assert bool(found.message) == (state != "ready")


GOOD = {
    "csv": b"time_s,voltage_v,current_a\n"
    + b"".join(b"%.2f,24.%d,20%d\n" % (n / 10, n % 9, n % 7) for n in range(60)),
}


def good_parquet():
    sink = io.BytesIO()
    time = np.arange(60) / 10
    table = pa.table({"time_s": time, "voltage_v": 24 + time % 1, "current_a": 200 + time % 3})
    pq.write_table(table, sink)
    return sink.getvalue()


GOOD["parquet"] = good_parquet()


@settings(max_examples=80, deadline=None)
@given(
    kind=st.sampled_from(sorted(GOOD)),
    flips=st.lists(st.tuples(st.floats(0, 0.999), st.integers(0, 255)), min_size=1, max_size=12),
    cut=st.floats(0.3, 1),
)
def test_a_mutated_file_ends_in_a_sentence(tmp_path_factory, kind, flips, cut):
    """Whatever bytes are turned: read, asked about or refused, and nothing else."""
    data = bytearray(GOOD[kind])
    for place, value in flips:
        data[int(place * len(data))] = value
    folder = tmp_path_factory.mktemp("mutated")
    path = folder / f"x.{kind}"
    path.write_bytes(bytes(data[: int(cut * len(data))]))
    found = in_place(path, folder)
    assert found.state in ("ready", "asking", "refused")
    assert found.state == "ready" or found.message


def test_the_core_raises_its_own_error_for_each_of_them(tmp_path):
    from welding.recording.sniff import sniff

    path = tmp_path / "x.parquet"
    path.write_bytes(b"PAR1" + b"\x00" * 40)
    with pytest.raises(WeldingError):
        sniff(path)


def test_a_worker_has_a_ceiling():
    """The setting that gunicorn calls in each worker, tried in a process of its own."""
    code = (
        "import os, runpy; os.environ.update(BEAD_PORT='1', BEAD_WORKER_MEMORY_MB='900')\n"
        "runpy.run_path('ops/gunicorn_conf.py')['post_fork'](None, None)\n"
        "try:\n    bytearray(2_000_000_000)\nexcept MemoryError:\n    print('refused')\n"
    )
    done = subprocess.run([sys.executable, "-c", code], cwd=ROOT, capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "refused"
    assert resource.getrlimit(resource.RLIMIT_AS)[0] == resource.RLIM_INFINITY, "and this one has none"
    assert Path(ROOT / "ops" / "gunicorn_conf.py").exists()
