"""The core's command line: JSON on stdout; problems on stderr and exit code 2."""

from __future__ import annotations

import argparse
import dataclasses
import json
import sys
from fractions import Fraction
from pathlib import Path
from typing import Any, NoReturn

from welding.assess import Evaluation, evaluate
from welding.assess_coupon import evaluate_coupon
from welding.documents.codec import CODECS, COUPON, LARGEST_BYTES, PROCEDURE
from welding.documents.coupon import Coupon
from welding.errors import DocumentError, WeldingError
from welding.heat.energy import (
    AWS_HEAT_INPUT,
    ISO_TR_18491,
    MM_PER_INCH,
    arc_energy_from_energy_kj_mm,
    arc_energy_from_power_kj_mm,
    arc_energy_kj_in,
    arc_energy_kj_mm,
    thermal_efficiency,
)
from welding.heat.pulse import rectangular_pulse
from welding.quantities.kinds import KINDS
from welding.quantities.reading import PipeReading, read_any, read_quantity


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        raise WeldingError(message)


def main(arguments: list[str]) -> int:
    """Run one call; return the exit code."""
    try:
        options = _parser().parse_args(arguments)
        print(json.dumps(options.call(options), ensure_ascii=False, indent=2, allow_nan=False))
    except DocumentError as error:
        for problem in error.problems:
            print(
                f"{problem.path or 'document'}: {problem.message}"
                + (f" ({problem.value})" if problem.value else ""),
                file=sys.stderr,
            )
        return 2
    except (WeldingError, OSError) as error:
        print(error, file=sys.stderr)
        return 2
    return 0


def _parser() -> _Parser:
    parser = _Parser(prog="python -m welding", description=__doc__)
    calls = parser.add_subparsers(dest="name", required=True, parser_class=_Parser)

    read = calls.add_parser("read", help="read a quantity as people type it")
    read.add_argument("text")
    read.add_argument("--as", dest="kind", choices=sorted(KINDS))
    read.add_argument("--unit", help="unit of a bare number")
    read.add_argument("--metal", help="metal of a gauge number")
    read.set_defaults(call=_read)

    heat = calls.add_parser("heat", help="arc energy and heat input of a run")
    heat.add_argument("--volts", type=_number)
    heat.add_argument("--amps", type=_number)
    heat.add_argument("--travel", help='travel speed, such as "10 ipm"')
    heat.add_argument("--energy", type=_number, help="measured energy in J")
    heat.add_argument("--power", type=_number, help="measured mean power in W")
    heat.add_argument("--length", help='bead length, such as "150 mm"')
    heat.add_argument("--process", help="ISO 4063 number; without it k is not known")
    heat.set_defaults(call=_heat)

    pulse = calls.add_parser("pulse", help="means of a rectangular pulse")
    pulse.add_argument("--peak", type=_number, required=True)
    pulse.add_argument("--background", type=_number, required=True)
    pulse.add_argument("--duty", type=_number, required=True)
    pulse.add_argument("--peak-volts", type=_number)
    pulse.add_argument("--background-volts", type=_number)
    pulse.set_defaults(call=_pulse)

    judge = calls.add_parser("evaluate", help="judge a procedure or a coupon")
    judge.add_argument("file", type=Path)
    judge.add_argument("--units", choices=("si", "us"), default="si")
    judge.set_defaults(call=_evaluate)

    schema = calls.add_parser("schema", help="JSON Schema of a document")
    schema.add_argument("document", choices=sorted(CODECS))
    schema.set_defaults(call=lambda options: CODECS[options.document].schema())
    return parser


def _number(text: str) -> float:
    try:
        return float(Fraction(text.replace(",", ".")))
    except (ValueError, ZeroDivisionError):
        raise argparse.ArgumentTypeError(f"{text!r} is no number") from None


def _read(options: argparse.Namespace) -> dict[str, Any]:
    reading = read_any(options.text, kind=options.kind, shown_unit=options.unit, metal=options.metal)
    if isinstance(reading, PipeReading):
        return dataclasses.asdict(reading)
    return {
        "value": reading.value,
        "unit": reading.unit,
        "kind": reading.kind,
        "understood": reading.understood,
    }


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
        efficiency = thermal_efficiency(options.process)
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


def _evaluate(options: argparse.Namespace) -> dict[str, Any]:
    size = options.file.stat().st_size
    if size > LARGEST_BYTES:
        raise WeldingError(f"{options.file}: {size:,} bytes are too many for a document")
    data = options.file.read_bytes()
    if b'"grounded-bead/coupon"' in data:
        coupon: Coupon = COUPON.read(data)
        log = evaluate_coupon(coupon, options.units)
        return {
            **_plain(evaluate(coupon.procedure, options.units)),
            "passes": [dataclasses.asdict(one) for one in log.passes],
            "to_weld": list(log.to_weld),
        }
    return _plain(evaluate(PROCEDURE.read(data), options.units))


def _plain(evaluation: Evaluation) -> dict[str, Any]:
    plain = dataclasses.asdict(evaluation)
    for heat in plain["heat_input"]:
        heat["pass"] = heat.pop("pass_number")
    return plain
