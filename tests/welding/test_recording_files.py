"""Recorder files of every shape: what is read, what is refused, and which line is named."""

from __future__ import annotations

import gzip
import io
import json
import zipfile
from dataclasses import replace

import numpy as np
import pyarrow as pa
import pyarrow.parquet as pq
import pytest

from welding.cli import main
from welding.errors import WeldingError
from welding.recording.files import read_file
from welding.recording.mapping import Column, Mapping
from welding.recording.sniff import sniff

ROWS = 2000
"""Two seconds at 1 kHz: 24 V, 200 A with a ripple that has no mean."""


def table() -> np.ndarray:
    time = np.arange(ROWS) / 1000
    ripple = np.sin(2 * np.pi * 10 * time)
    return np.column_stack([time, 24 + 0.5 * ripple, 200 + 5 * ripple])


TRUE_W = 24 * 200 + 0.5 * 5 / 2


def text(
    delimiter=",", decimal=".", header="time_s,voltage_v,current_a", factor=(1, 1, 1), before="", end="\n"
):
    rows = [
        delimiter.join(
            f"{value / scale:.6f}".replace(".", decimal) for value, scale in zip(row, factor, strict=True)
        )
        for row in table()
    ]
    return before + (header + "\n" if header else "") + "\n".join(rows) + end


def parquet() -> bytes:
    sink = io.BytesIO()
    columns = dict(zip(("elapsed_ms", "U", "I"), table().T, strict=True))
    columns["elapsed_ms"] = columns["elapsed_ms"] * 1000
    pq.write_table(pa.table(columns), sink)
    return sink.getvalue()


def clocks(day="") -> str:
    rows = []
    for time, volts, amps in table():
        seconds = 23 * 3600 + 59 * 60 + 59 + time  # passes midnight
        whole = seconds % 86_400
        date = f"2026-11-{26 + int(seconds // 86_400)}T" if day else ""
        stamp = f"{date}{int(whole // 3600):02d}:{int(whole // 60 % 60):02d}:{whole % 60:06.3f}"
        rows.append(f"{stamp}\t{volts:.4f}\t{amps:.4f}")
    return "timestamp\tarc_voltage\tarc_current\n" + "\n".join(rows) + "\n"


SHAPES = {
    "plain": text(),
    "no header, by number": text(header=""),
    "semicolons, decimal commas, milliseconds": text(";", ",", "Zeit [ms];Spannung [V];Strom [kA]", (0.001, 1, 1000)),
    "preamble and a line of units": text(
        ";", ".", "t;U;I\ns;V;A", before="recorder: 7\noperator: none\n\n"
    ),
    "tabs, quoted names": text("\t", header='"time (s)"\t"voltage (V)"\t"current (A)"'),
    "bars": text("|", header="time|volts|amps"),
    "blanks": text("   ", header="t_s  u_v  i_a"),
    "utf-16": text("\t", header="time_s\tvoltage_v\tcurrent_a").encode("utf-16"),
    "old encoding": text(header="time_s,voltage_v,current_a,").encode().replace(b"time_s", "Messgrö\xdfe time".encode("cp1252")).replace(b"\n", b",\n").replace(b"a,,\n", b"a,x\n"),
    "byte order mark, line ends of old": text().replace("\n", "\r\n").encode("utf-8-sig"),
    "clock past midnight": clocks(),
    "clock with dates": clocks("dated"),
    "parquet": parquet(),
}  # fmt: skip


def put(folder, contents: str | bytes, name="file.dat"):
    path = folder / name
    path.write_bytes(contents.encode() if isinstance(contents, str) else contents)
    return path


@pytest.mark.parametrize("shape", SHAPES)
def test_every_shape_gives_the_same_energy(shape, tmp_path):
    path = put(tmp_path, SHAPES[shape])
    guess = sniff(path)
    mapping = guess.mapping
    if shape == "no header, by number":
        assert guess.names == ("1", "2", "3")
        assert len(guess.questions) == 3
        mapping = Mapping(
            header_line=0,
            first_line=1,
            time=Column(column="1", unit="s"),
            voltage=Column(column="2", unit="V"),
            current=Column(column="3", unit="A"),
        )
    assert mapping is not None, guess.questions
    read = read_file(path, mapping)
    assert read.recording.size == ROWS
    assert read.faults == ()
    assert float(np.mean(read.recording.voltage_v * read.recording.current_a)) == pytest.approx(
        TRUE_W, rel=1e-4
    )
    assert read.recording.step_s == pytest.approx(0.001)


@pytest.mark.parametrize(
    "shape,arguments",
    [
        ("plain", []),
        ("semicolons, decimal commas, milliseconds", ["--time", "Zeit [ms]", "--volts", "Spannung [V]", "--amps", "Strom [kA]"]),
        ("no header, by number", ["--time", "1", "--volts", "2", "--amps", "3"]),
        ("parquet", []),
    ],
)  # fmt: skip
def test_the_command_line(shape, arguments, tmp_path, capsys):
    path = put(tmp_path, SHAPES[shape])
    assert main(["recording", str(path), "--length", "150 mm", "--process", "135", *arguments]) == 0
    got = json.loads(capsys.readouterr().out)
    assert got["energy_j"] == pytest.approx(TRUE_W * 1.999, rel=1e-4)
    assert got["arc_time_s"] == pytest.approx(1.999)
    assert got["true_power_w"] == pytest.approx(TRUE_W, rel=1e-4)
    assert got["apparent_power_w"] == pytest.approx(got["mean_voltage_v"] * got["mean_current_a"])
    assert got["arc_energy_kj_mm"] == pytest.approx(got["energy_j"] / 150 / 1000)
    assert got["heat_input_kj_mm"] == pytest.approx(0.8 * got["arc_energy_kj_mm"])


def test_every_pass_of_a_recording_has_its_own_length(tmp_path, capsys):
    """Two passes of 4 s and 8 s with 40 s between them, 24 V and 200 A throughout."""
    path = tmp_path / "two.csv"
    times = [n / 100 for n in range(400)] + [44 + n / 100 for n in range(800)]
    path.write_text("time_s,voltage_v,current_a\n" + "".join(f"{t:.2f},24.0,200.0\n" for t in times))
    assert main(["recording", str(path), "--length", "150 mm", "--process", "135"]) != 0
    assert "once for each pass" in capsys.readouterr().err
    lengths = ["--length", "20 mm", "--length", "1.5748 in"]
    assert main(["recording", str(path), *lengths, "--process", "135"]) == 0
    got = json.loads(capsys.readouterr().out)
    assert [one["arc_energy_kj_mm"] for one in got["passes"]] == pytest.approx([0.958, 0.959], rel=0.01)
    assert [one["heat_input_kj_mm"] for one in got["passes"]] == pytest.approx([0.766, 0.767], rel=0.01)
    assert got["arc_energy_kj_mm"] is None, "no single heat input for two passes"


def archive() -> bytes:
    sink = io.BytesIO()
    with zipfile.ZipFile(sink, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr("a.csv", b"0" * 5_000_000)
    return sink.getvalue()


@pytest.mark.parametrize(
    "contents,says",
    [
        (b"", "empty"),
        (b"  \n ", "empty"),
        (archive(), "archive or a workbook"),
        (gzip.compress(b"0" * 5_000_000), "compressed"),
        (b"a\x00\x01\x02\x03\n" * 99, "zero bytes"),
        (b"the arc was fine\nall day long\n", "columns|numbers"),
        (parquet()[:-20], "Parquet file cannot be read"),
    ],
)
def test_what_is_no_recording_is_refused_in_words(contents, says, tmp_path):
    with pytest.raises(WeldingError, match=says):
        sniff(put(tmp_path, contents))


@pytest.mark.parametrize(
    "spoil,kind,lines,left",
    [
        (lambda rows: [*rows[:5], "0.004,24.1,oops", *rows[6:]], "bad-row", (6,), ROWS - 1),
        (lambda rows: [*rows[:9], "1,2", *rows[9:]], "bad-row", (10,), ROWS),
        (lambda rows: [*rows[:9], "x,24,200", "", "y,24,200", *rows[9:]], "bad-row", (10, 12), ROWS),
        (lambda rows: [*rows[:700], "0.700,NaN,200", *rows[701:]], "not-a-number", (701,), ROWS - 1),
        (lambda rows: [*rows[:700], "0.700,,200", *rows[701:]], "not-a-number", (701,), ROWS - 1),
        (lambda rows: [*rows[:700], "0.200,24,200", *rows[701:]], "time-back", (701,), ROWS - 1),
        (lambda rows: [*rows[:700], "0.7,24"], "truncated", (701,), 699),
    ],
)
def test_a_bad_line_is_named_and_the_good_part_kept(spoil, kind, lines, left, tmp_path):
    path = put(tmp_path, "\n".join(spoil(text(end="").split("\n"))))
    read = read_file(path, sniff(path).mapping)
    told = next(one for one in read.faults if one.kind == kind)
    assert told.lines == lines
    assert read.recording.size == left
    named = [line for one in read.faults for line in one.lines]
    assert len(set(named)) == len(named)  # a row is told once


def test_a_row_with_two_bad_cells_is_one_row(tmp_path):
    rows = text(end="").split("\n")
    path = put(tmp_path, "\n".join([*rows[:5], "0.004,oops,oops", *rows[6:]]))
    read = read_file(path, sniff(path).mapping)
    (told,) = read.faults
    assert (told.kind, told.count, read.rows) == ("bad-row", 1, ROWS)
    assert "1 row could not be read and is left out, the first in line 6: 'oops'" in told.message


def test_a_bad_cell_of_the_wire_feed_costs_no_volts_and_amps(tmp_path):
    rows = ["time_s,voltage_V,current_A,wfs_m_min", *(f"{n / 1000:.3f},24.0,200.0,8.1" for n in range(900))]
    rows[7] = "0.006,24.0,200.0,stuck"
    path = put(tmp_path, "\n".join(rows) + "\n")
    guess = sniff(path).mapping
    assert guess is not None
    mapping = replace(guess, wire_feed=Column(column="wfs_m_min", unit="m/min"))
    read = read_file(path, mapping)
    (told,) = read.faults
    assert (told.lines, read.recording.size) == ((8,), 900)
    assert "Volts and amps of them are kept" in told.message


@pytest.mark.parametrize(
    "cell,says",
    [("26.11.2026 10:15", "spreadsheet has cut the seconds"), ("26/11/2026", "spreadsheet has cut")],
)
def test_spreadsheet_dates_are_asked_about(cell, says, tmp_path):
    rows = "\n".join(f"{cell};24,1;200,5" for _ in range(50))
    guess = sniff(put(tmp_path, f"time;voltage;current\n{rows}\n"))
    assert guess.mapping is None
    assert any(says in one for one in guess.questions)


def test_without_a_time_column_the_rate_gives_the_clock(tmp_path):
    path = put(tmp_path, "U;I\n" + "24,0;200,0\n" * 500)
    mapping = Mapping(
        delimiter=";", decimal=",", sample_rate_hz=50,
        voltage=Column(column="U", unit="V"), current=Column(column="I", unit="A", scale=2, offset=1),
    )  # fmt: skip
    read = read_file(path, mapping)
    assert read.recording.time_s[-1] == pytest.approx(499 / 50)
    assert set(read.recording.current_a) == {401.0}


@pytest.mark.parametrize(
    "columns,says",
    [
        ({"voltage": "nothing"}, "no column 'nothing'; the file has time_s"),
        ({"voltage": "9"}, "no column '9'"),
    ],
)
def test_a_column_that_is_not_there(columns, says, tmp_path):
    path = put(tmp_path, text())
    named = {"time": "time_s", "voltage": "voltage_v", "current": "current_a", **columns}
    units = {"time": "s", "voltage": "V", "current": "A"}
    mapping = Mapping(**{name: Column(column=column, unit=units[name]) for name, column in named.items()})
    with pytest.raises(WeldingError, match=says):
        read_file(path, mapping)


def test_a_mapping_needs_a_clock():
    with pytest.raises(ValueError, match="samples a second"):
        Mapping(voltage=Column(column="U", unit="V"), current=Column(column="I", unit="A"))


def test_blocks_after_the_first_name_their_lines_too(tmp_path):
    """The reader works in blocks of 4 MiB; a bad row far behind has its own line."""
    good = [f"{at / 1000:.6f},24.0000000000,200.0000000000" for at in range(200_000)]
    good[150_000] = "150.000000,24.0,bad"
    path = put(tmp_path, "time_s,voltage_v,current_a\n" + "\n".join(good) + "\n")
    read = read_file(path, sniff(path).mapping)
    assert next(one for one in read.faults if one.kind == "bad-row").lines == (150_002,)
    assert read.recording.size == 199_999
