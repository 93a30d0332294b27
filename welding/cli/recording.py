"""``recording``: energy, means and passes of a recorder's file."""

from __future__ import annotations

import argparse
import dataclasses
from itertools import zip_longest
from pathlib import Path
from typing import Any

from welding.cli.parsing import Calls, efficiency_of, number
from welding.errors import WeldingError
from welding.heat.energy import MM_PER_INCH, arc_energy_from_energy_kj_mm
from welding.quantities.reading import read_quantity

DEFAULTS = {"time": "time_s", "voltage": "voltage_v", "current": "current_a"}


def add(calls: Calls) -> None:
    """Add the call."""
    call = calls.add_parser("recording", help="energy by integration of a recorder's CSV, TSV or Parquet")
    call.add_argument("file", type=Path)
    call.add_argument(
        "--length",
        action="append",
        default=[],
        help='bead length, such as "150 mm"; one for each pass of the recording, in their order',
    )
    call.add_argument("--process", help="135, GMAW, stick …; without it k is not known")
    call.add_argument("--time", help="column of the time, by name or number")
    call.add_argument("--volts", help="column of the voltage")
    call.add_argument("--amps", help="column of the current")
    call.add_argument("--arc-on", type=number, default=5.0, help="current in A from which the arc burns")
    call.add_argument("--pause", type=number, default=20.0, help="a longer pause in s begins the next pass")
    call.set_defaults(call=_recording)


def _recording(options: argparse.Namespace) -> dict[str, Any]:
    # Reading files takes libraries that no other call should wait for.
    from welding.recording.analysis import analyse, measure_window
    from welding.recording.files import read_file
    from welding.recording.mapping import Column, Mapping, Unit
    from welding.recording.sniff import sniff, unit_of

    guess = sniff(options.file)
    typed = {"time": options.time, "voltage": options.volts, "current": options.amps}
    mapping = guess.mapping
    if mapping is None or any(typed.values()):
        chosen = {
            channel: typed[channel] or (name if (name := DEFAULTS[channel]) in guess.names else None)
            for channel in DEFAULTS
        }
        if None in chosen.values():
            raise WeldingError(" ".join(guess.questions) or "name all three of --time, --volts and --amps")
        usual: dict[str, Unit] = {"time": "s", "voltage": "V", "current": "A"}
        columns = {
            channel: Column(column=str(name), unit=unit_of(str(name), usual[channel]))
            for channel, name in chosen.items()
        }
        mapping = Mapping(
            delimiter=guess.delimiter,
            decimal=guess.decimal,
            encoding=guess.encoding,
            header_line=guess.header_line,
            first_line=guess.first_line,
            time=columns["time"],
            voltage=columns["voltage"],
            current=columns["current"],
        )
    read = read_file(options.file, mapping)
    found = analyse(read.recording, arc_on_a=options.arc_on, pause_s=options.pause)
    time = read.recording.time_s
    whole = measure_window(read.recording, float(time[0]), float(time[-1]), arc_on_a=options.arc_on)
    lengths = [read_quantity(one, kind="length").value for one in options.length]
    if lengths and len(lengths) != max(len(found.passes), 1):
        raise WeldingError(
            f"{len(found.passes)} passes are in the recording, lengths are stated for {len(lengths)}: "
            "give --length once for each pass, in their order"
        )
    k = efficiency_of(options.process).k if options.process else None
    energy = (
        arc_energy_from_energy_kj_mm(energy_j=whole.measured.energy_j, length_mm=lengths[0])
        if len(lengths) == 1
        else None
    )
    heat = k * energy if k is not None and energy is not None else None
    return {
        **dataclasses.asdict(whole.measured),
        "arc_energy_kj_mm": energy,
        "arc_energy_kj_in": None if energy is None else energy * MM_PER_INCH,
        "heat_input_kj_mm": heat,
        "heat_input_kj_in": None if heat is None else heat * MM_PER_INCH,
        "k": k,
        "method": "energy",
        "waveform": dataclasses.asdict(whole.waveform),
        "samples": read.recording.size,
        "rows": read.rows,
        "samples_per_s": found.samples_per_s,
        "passes": [
            {**dataclasses.asdict(one), **_heat_of(one, length, k)}
            for one, length in zip_longest(found.passes, lengths)
            if one is not None
        ],
        "faults": [dataclasses.asdict(one) for one in (*read.faults, *found.faults)],
        "mapping": dataclasses.asdict(mapping),
    }


def _heat_of(one: Any, length_mm: float | None, k: float | None) -> dict[str, float | None]:
    """Arc energy and heat input of one pass over its own length."""
    if length_mm is None:
        return {}
    energy = arc_energy_from_energy_kj_mm(energy_j=one.measured.energy_j, length_mm=length_mm)
    return {
        "length_mm": length_mm,
        "arc_energy_kj_mm": energy,
        "heat_input_kj_mm": None if k is None else k * energy,
    }
