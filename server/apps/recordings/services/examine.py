"""Read a recording's file, keep its samples, find its passes; or say what has to be answered first."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from apps.recordings.models import Recording, Status
from apps.recordings.store import keep_samples
from welding.errors import WeldingError
from welding.recording.analysis import Analysis, analyse
from welding.recording.arcs import ARC_ON_A, PAUSE_S
from welding.recording.files import read_file
from welding.recording.mapping import Mapping
from welding.recording.signals import Fault
from welding.recording.sniff import Guess, sniff

MAPPING: TypeAdapter[Mapping] = TypeAdapter(Mapping)
GUESS: TypeAdapter[Guess] = TypeAdapter(Guess)
ANALYSIS: TypeAdapter[Analysis] = TypeAdapter(Analysis)
FAULTS: TypeAdapter[list[Fault]] = TypeAdapter(list[Fault])


def examine(recording: Recording, path: Path, mapping: Mapping | None = None) -> None:
    """Examine the file of a recording and save what was found.

    Without a mapping that of the device is tried, then the guess. What cannot be read stays with its
    reason; the original is kept whatever happens.

    Args:
        recording: The recording; its row is saved.
        path: Its file.
        mapping: As a person chose it.
    """
    recording.message = ""
    try:
        guess = sniff(path)
        recording.guess = GUESS.dump_python(guess, mode="json")
    except WeldingError as error:
        _refuse(recording, str(error))
        return
    remembered = recording.recorder.mapping if recording.recorder else None
    if mapping is None and remembered is not None and _fits(remembered, guess):
        mapping = MAPPING.validate_python(remembered)
    mapping = mapping or guess.mapping
    if mapping is None:
        recording.status = Status.ASKING
        recording.message = " ".join(guess.questions)
        recording.save()
        return
    try:
        read = read_file(path, mapping)
    except WeldingError as error:
        recording.mapping = MAPPING.dump_python(mapping, mode="json")
        recording.status = Status.ASKING
        recording.message = str(error)
        recording.save()
        return
    keep_samples(recording, read.recording)
    found = analyse(read.recording, arc_on_a=ARC_ON_A, pause_s=PAUSE_S)
    recording.mapping = MAPPING.dump_python(mapping, mode="json")
    recording.file_faults = FAULTS.dump_python(list(read.faults), mode="json")
    recording.analysis = ANALYSIS.dump_python(found, mode="json")
    recording.status = Status.READY
    recording.save()


def _fits(remembered: dict[str, Any], guess: Guess) -> bool:
    """Whether the columns that the device used last are in this file, too."""
    keys = ("time", "voltage", "current", "wire_feed", "gas")
    wanted = [one["column"] for key in keys if (one := remembered.get(key))]
    return all(name in guess.names for name in wanted) and remembered.get("delimiter") == guess.delimiter


def _refuse(recording: Recording, why: str) -> None:
    recording.status = Status.REFUSED
    recording.message = f"{why[:1].upper()}{why[1:]}. The file is kept as it came."
    recording.save()
