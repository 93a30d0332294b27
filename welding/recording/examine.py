"""A recorder's file from its bytes to passes: guessed, read, kept as samples, analysed.

A large file is read by a process of its own (``python -m welding.recording.examine``), which has a
ceiling of memory and of time and may die without taking anybody along.
"""

from __future__ import annotations

import argparse
import resource
import subprocess
import sys
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any, Literal

import pyarrow as pa
import pyarrow.parquet as pq
from pydantic import TypeAdapter

from welding.errors import WeldingError
from welding.language import tr
from welding.recording.analysis import Analysis, analyse
from welding.recording.arcs import ARC_ON_A, PAUSE_S
from welding.recording.files import read_file
from welding.recording.keep import keep
from welding.recording.mapping import Mapping
from welding.recording.signals import Fault
from welding.recording.sniff import Guess, sniff

LARGE_BYTES = 20_000_000
LARGE_ROWS = 2_000_000
"""A file above either is read by a process of its own."""
LONGEST_S = 900

State = Literal["ready", "asking", "refused"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Examined:
    """What became of a file.

    Attributes:
        state: ``ready`` with samples kept; ``asking`` where a person has to answer; ``refused``.
        message: Why it is not ready, in words; empty otherwise.
        guess: What the file looks like; ``None`` where it looks like no recording.
        mapping: How its columns were read.
        faults: What was wrong with its rows.
        analysis: What the recording tells.
    """

    state: State
    message: str = ""
    guess: Guess | None = None
    mapping: Mapping | None = None
    faults: tuple[Fault, ...] = ()
    analysis: Analysis | None = None


_EXAMINED: TypeAdapter[Examined] = TypeAdapter(Examined)
_MAPPING: TypeAdapter[Mapping] = TypeAdapter(Mapping)


def examine(
    path: Path, samples: Path, levels: Path, *, mapping: Mapping | None = None, usual: Mapping | None = None
) -> Examined:
    """Examine a file in this process.

    Args:
        path: The file.
        samples: Where its samples go, as Parquet.
        levels: Where the levels of its trace go.
        mapping: How to read it, as a person chose.
        usual: How files of this device were read before; tried where the columns are the same.
    """
    try:
        guess = sniff(path)
    except WeldingError as error:
        return Examined(state="refused", message=str(error))
    if mapping is None and usual is not None and _fits(usual, guess):
        mapping = usual
    mapping = mapping or guess.mapping
    if mapping is None:
        return Examined(state="asking", message=" ".join(guess.questions), guess=guess)
    try:
        read = read_file(path, mapping)
        found = analyse(read.recording, arc_on_a=ARC_ON_A, pause_s=PAUSE_S)
    except WeldingError as error:
        return Examined(state="asking", message=str(error), guess=guess, mapping=mapping)
    keep(read.recording, samples, levels)
    return Examined(state="ready", guess=guess, mapping=mapping, faults=read.faults, analysis=found)


def is_large(path: Path) -> bool:
    """Whether the file, or what it declares to hold, is more than a web worker should read."""
    if path.stat().st_size > LARGE_BYTES:
        return True
    with path.open("rb") as file:
        if file.read(4) != b"PAR1":
            return False
    try:
        return bool(pq.read_metadata(path).num_rows > LARGE_ROWS)
    except (pa.ArrowException, OSError):
        return False  # it will be refused where it is read


def examine_apart(
    path: Path,
    samples: Path,
    levels: Path,
    *,
    mapping: Mapping | None = None,
    usual: Mapping | None = None,
    memory_mb: int,
) -> Examined:
    """The same in a process of its own that may use ``memory_mb`` of memory and 15 minutes.

    Whatever it dies of, the answer is an ``Examined`` that says so.
    """
    call = [sys.executable, "-m", "welding.recording.examine", str(path), str(samples), str(levels)]
    call += ["--memory-mb", str(memory_mb)]
    for name, value in (("--mapping", mapping), ("--usual", usual)):
        if value is not None:
            call += [name, _MAPPING.dump_json(value).decode()]
    root = str(Path(__file__).resolve().parents[2])
    try:
        done = subprocess.run(  # noqa: S603 - our own interpreter and our own module
            call, capture_output=True, check=False, timeout=LONGEST_S + 30, cwd=root, stdin=subprocess.DEVNULL
        )
    except subprocess.TimeoutExpired:
        done = None
    if done is not None and done.returncode == 0:
        return _EXAMINED.validate_json(done.stdout)
    why = tr("it takes more memory or time than one recording may take: cut it into parts")
    return replace(_guessed(path), state="refused", message=why)


def _guessed(path: Path) -> Examined:
    try:
        return Examined(state="refused", guess=sniff(path))
    except WeldingError:
        return Examined(state="refused")


def _fits(usual: Mapping, guess: Guess) -> bool:
    """Whether the columns that the device used last are in this file, too."""
    wanted = [column.column for column in usual.columns.values()]
    return all(name in guess.names for name in wanted) and usual.delimiter == guess.delimiter


def main(arguments: list[str]) -> int:
    """Examine one file under a ceiling; the answer goes to stdout as JSON."""
    parser = argparse.ArgumentParser(description=__doc__)
    for name in ("path", "samples", "levels"):
        parser.add_argument(name, type=Path)
    parser.add_argument("--memory-mb", type=int, required=True)
    for name in ("--mapping", "--usual"):
        parser.add_argument(name, type=_MAPPING.validate_json, default=None)
    asked: Any = parser.parse_args(arguments)
    ceiling = asked.memory_mb * 1_000_000
    resource.setrlimit(resource.RLIMIT_AS, (ceiling, ceiling))
    resource.setrlimit(resource.RLIMIT_CPU, (LONGEST_S, LONGEST_S))
    found = examine(asked.path, asked.samples, asked.levels, mapping=asked.mapping, usual=asked.usual)
    sys.stdout.buffer.write(_EXAMINED.dump_json(found))
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
