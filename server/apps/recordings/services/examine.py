"""Read a recording's file, keep its samples, find its passes; or say what has to be answered first."""

from __future__ import annotations

import tempfile
from pathlib import Path

from django.conf import settings
from django.core.files import File
from pydantic import TypeAdapter, ValidationError

from apps.recordings.models import Recording, Status
from welding.language import in_source_language, tr
from welding.recording import examine as core
from welding.recording.analysis import Analysis
from welding.recording.mapping import Mapping
from welding.recording.signals import Fault
from welding.recording.sniff import Guess

MAPPING: TypeAdapter[Mapping] = TypeAdapter(Mapping)
GUESS: TypeAdapter[Guess] = TypeAdapter(Guess)
ANALYSIS: TypeAdapter[Analysis] = TypeAdapter(Analysis)
FAULTS: TypeAdapter[list[Fault]] = TypeAdapter(list[Fault])


@in_source_language
def examine(recording: Recording, path: Path, mapping: Mapping | None = None) -> None:
    """Examine the file of a recording and save what was found.

    Without a mapping that of the device is tried, then the guess. What cannot be read stays with its
    reason; the original is kept whatever happens. A large file is read by a process of its own.

    Args:
        recording: The recording; its row is saved.
        path: Its file.
        mapping: As a person chose it.
    """
    usual = _usual(recording)
    with tempfile.TemporaryDirectory(prefix="bead-recording-") as folder:
        samples, levels = Path(folder) / "samples.parquet", Path(folder) / "levels.npz"
        if core.is_large(path):
            found = core.examine_apart(
                path, samples, levels, mapping=mapping, usual=usual, memory_mb=settings.READING_MEMORY_MB
            )
        else:
            found = core.examine(path, samples, levels, mapping=mapping, usual=usual)
        recording.message = found.message
        if found.guess is not None:
            recording.guess = GUESS.dump_python(found.guess, mode="json")
        if found.mapping is not None:
            recording.mapping = MAPPING.dump_python(found.mapping, mode="json")
        recording.status = {"ready": Status.READY, "asking": Status.ASKING}.get(found.state, Status.REFUSED)
        if recording.status == Status.REFUSED:
            recording.message = tr(
                "{upper}{message}. The file is kept as it came.",
                upper=found.message[:1].upper(),
                message=found.message[1:],
            )
        if found.analysis is not None:
            recording.file_faults = FAULTS.dump_python(list(found.faults), mode="json")
            recording.analysis = ANALYSIS.dump_python(found.analysis, mode="json")
            stem = f"{recording.pk}-v{recording.version}"
            for field, made in ((recording.samples, samples), (recording.levels, levels)):
                with made.open("rb") as file:
                    field.save(f"{stem}{made.suffix}", File(file), save=False)
    recording.save()


def _usual(recording: Recording) -> Mapping | None:
    """How files of the device were read before."""
    if recording.recorder is None or recording.recorder.mapping is None:
        return None
    try:
        return MAPPING.validate_python(recording.recorder.mapping)
    except ValidationError:
        return None
