"""A file examined from its bytes to passes, here and in a process of its own; what is kept is what was read."""

from __future__ import annotations

import numpy as np
import pyarrow.parquet as pq
import pytest

from welding.recording.examine import Examined, examine, examine_apart, is_large, main
from welding.recording.mapping import Column, Mapping

SECONDS = 8
HEADED = "time_s,voltage_v,current_a"


def file_of(folder, header: str = HEADED, rows: int = SECONDS * 1000):
    """Arc on from 2 s to 6 s at 25 V and 200 A, at 1 kHz."""
    path = folder / "booth.csv"
    lines = [header]
    for at in range(rows):
        on = 2000 <= at < 6000
        lines.append(f"{at / 1000:.3f},{25 if on else 60},{200 if on else 0}")
    path.write_text("\n".join(lines))
    return path


def here(path, folder, **more) -> Examined:
    return examine(path, folder / "samples.parquet", folder / "levels.npz", **more)


def test_a_plain_file_becomes_passes_and_its_samples_are_kept_as_read(tmp_path):
    seen = here(file_of(tmp_path), tmp_path)
    assert seen.state == "ready" and not seen.message and not seen.faults
    assert [one.end_s - one.start_s for one in seen.analysis.passes] == pytest.approx([4.0], abs=0.01)
    kept = pq.read_table(tmp_path / "samples.parquet")
    assert kept.column_names == ["time_s", "voltage_v", "current_a"]
    assert kept.num_rows == SECONDS * 1000
    assert set(np.unique(kept["current_a"].to_numpy())) == {0.0, 200.0}
    with np.load(tmp_path / "levels.npz") as levels:
        assert list(levels["channels"]) == ["voltage_v", "current_a"]
        highest, lowest = levels["high_0"].max(axis=1), levels["low_0"].min(axis=1)
        assert list(highest) == [60, 200] and list(lowest) == [25, 0]


def test_columns_without_a_meaning_are_asked_about_and_nothing_is_kept(tmp_path):
    seen = here(file_of(tmp_path, header="a,b,c"), tmp_path)
    assert seen.state == "asking" and seen.message and seen.guess is not None
    assert not (tmp_path / "samples.parquet").exists()


def mapping_of(*columns: str) -> Mapping:
    time, voltage, current = (
        Column(column=name, unit=unit) for name, unit in zip(columns, ("s", "V", "A"), strict=True)
    )
    return Mapping(time=time, voltage=voltage, current=current)


@pytest.mark.parametrize(("header", "state"), [("a,b,c", "ready"), ("a,b,d", "asking")])
def test_how_the_device_was_read_before_answers_for_the_same_columns_only(tmp_path, header, state):
    assert here(file_of(tmp_path, header), tmp_path, usual=mapping_of("a", "b", "c")).state == state


def test_a_mapping_that_fits_no_column_is_asked_about_in_words(tmp_path):
    seen = here(file_of(tmp_path), tmp_path, mapping=mapping_of("time_s", "nowhere", "current_a"))
    assert seen.state == "asking" and "nowhere" in seen.message


def test_a_file_that_is_no_recording_is_refused(tmp_path):
    path = tmp_path / "notes.csv"
    path.write_bytes(b"\x00\x01\x02" * 50)
    seen = here(path, tmp_path)
    assert seen.state == "refused" and seen.message


def test_a_process_of_its_own_says_the_same(tmp_path):
    path = file_of(tmp_path)
    inside = here(path, tmp_path)
    apart = examine_apart(path, tmp_path / "s2", tmp_path / "l2", memory_mb=4000)
    assert apart == inside
    assert (tmp_path / "s2").read_bytes() == (tmp_path / "samples.parquet").read_bytes()


def test_a_process_that_takes_too_long_is_ended_and_the_file_has_to_be_cut(tmp_path, monkeypatch):
    monkeypatch.setattr("welding.recording.examine.LONGEST_S", -29.95)  # 50 ms: not enough to start in
    apart = examine_apart(file_of(tmp_path), tmp_path / "s2", tmp_path / "l2", memory_mb=4000)
    assert apart.state == "refused" and "cut it into parts" in apart.message
    assert apart.guess is not None


def test_large_is_what_a_file_holds_and_not_what_it_is_called(tmp_path, monkeypatch):
    path = file_of(tmp_path)
    here(path, tmp_path)
    assert not is_large(path) and not is_large(tmp_path / "samples.parquet")
    monkeypatch.setattr("welding.recording.examine.LARGE_ROWS", 100)
    assert is_large(tmp_path / "samples.parquet") and not is_large(path)
    monkeypatch.setattr("welding.recording.examine.LARGE_BYTES", 100)
    assert is_large(path)
    broken = tmp_path / "broken.parquet"
    broken.write_bytes(b"PAR1 and no more")
    assert not is_large(broken)


def test_the_module_itself_answers_in_json(tmp_path, capfdbinary, monkeypatch):
    monkeypatch.setattr("welding.recording.examine.resource.setrlimit", lambda *_: None)
    path = file_of(tmp_path)
    assert main([str(path), str(tmp_path / "s"), str(tmp_path / "l"), "--memory-mb", "4000"]) == 0
    assert b'"state":"ready"' in capfdbinary.readouterr().out
