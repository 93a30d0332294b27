"""``heat`` and ``pulse``: arc energy, heat input, means of a pulse."""

from __future__ import annotations

import argparse
import dataclasses
from typing import Any

from welding.cli.parsing import Calls, efficiency_of, number
from welding.errors import WeldingError
from welding.heat.energy import (
    AWS_HEAT_INPUT,
    ISO_TR_18491,
    MM_PER_INCH,
    arc_energy_from_energy_kj_mm,
    arc_energy_from_power_kj_mm,
    arc_energy_kj_in,
    arc_energy_kj_mm,
)
from welding.heat.pulse import rectangular_pulse
from welding.quantities.reading import read_quantity


def add(calls: Calls) -> None:
    """Add the calls."""
    heat = calls.add_parser("heat", help="arc energy and heat input of a run")
    heat.add_argument("--volts", type=number)
    heat.add_argument("--amps", type=number)
    heat.add_argument("--travel", help='travel speed, such as "10 ipm"')
    heat.add_argument("--energy", type=number, help="measured energy in J")
    heat.add_argument("--power", type=number, help="measured mean power in W")
    heat.add_argument("--length", help='bead length, such as "150 mm"')
    heat.add_argument("--process", help="135, GMAW, stick …; without it k is not known")
    heat.set_defaults(call=_heat)

    pulse = calls.add_parser("pulse", help="means of a rectangular pulse")
    pulse.add_argument("--peak", type=number, required=True)
    pulse.add_argument("--background", type=number, required=True)
    pulse.add_argument("--duty", type=number, required=True)
    pulse.add_argument("--peak-volts", type=number)
    pulse.add_argument("--background-volts", type=number)
    pulse.set_defaults(call=_pulse)


def _heat(options: argparse.Namespace) -> dict[str, Any]:
    if options.energy is not None:
        if options.length is None:
            raise WeldingError("--energy needs --length")
        length = read_quantity(options.length, kind="length", shown_unit=None).value
        arc_energy = arc_energy_from_energy_kj_mm(energy_j=options.energy, length_mm=length)
        per_inch = arc_energy * MM_PER_INCH
        method = "energy"
    else:
        if options.travel is None:
            raise WeldingError('--travel is needed, such as --travel "10 ipm"')
        travel = read_quantity(options.travel, kind="travel").value
        if options.power is not None:
            arc_energy = arc_energy_from_power_kj_mm(power_w=options.power, travel_mm_min=travel)
            per_inch = arc_energy * MM_PER_INCH
            method = "power"
        elif options.volts is None or options.amps is None:
            raise WeldingError("give --volts and --amps, or --energy and --length, or --power")
        else:
            arc_energy = arc_energy_kj_mm(
                voltage_v=options.volts, current_a=options.amps, travel_mm_min=travel
            )
            per_inch = arc_energy_kj_in(
                voltage_v=options.volts, current_a=options.amps, travel_in_min=travel / MM_PER_INCH
            )
            method = "mean"
    result: dict[str, Any] = {
        "arc_energy_kj_mm": arc_energy,
        "arc_energy_kj_in": per_inch,
        "heat_input_kj_mm": None,
        "heat_input_kj_in": None,
        "k": None,
        "method": method,
        "source": {"arc_energy": [ISO_TR_18491.text, AWS_HEAT_INPUT.text], "k": None},
    }
    if options.process:
        efficiency = efficiency_of(options.process)
        result |= {
            "heat_input_kj_mm": efficiency.k * arc_energy,
            "heat_input_kj_in": efficiency.k * per_inch,
            "k": efficiency.k,
        }
        result["source"]["k"] = {
            "citation": efficiency.citation.text,
            "provenance": efficiency.citation.provenance,
            "confidence": efficiency.citation.confidence,
            "unchecked": list(efficiency.unchecked),
        }
    return result


def _pulse(options: argparse.Namespace) -> dict[str, Any]:
    return dataclasses.asdict(
        rectangular_pulse(
            peak_a=options.peak,
            background_a=options.background,
            peak_share=options.duty,
            peak_v=options.peak_volts,
            background_v=options.background_volts,
        )
    )
