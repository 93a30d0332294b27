"""``read``: a quantity as people type it."""

from __future__ import annotations

import argparse
import dataclasses
from typing import Any

from welding.cli.parsing import Calls
from welding.quantities.kinds import KINDS
from welding.quantities.reading import PipeReading, read_any


def add(calls: Calls) -> None:
    """Add the call."""
    read = calls.add_parser("read", help="read a quantity as people type it")
    read.add_argument("text")
    read.add_argument("--as", dest="kind", choices=sorted(KINDS))
    read.add_argument("--unit", help="unit of a bare number")
    read.add_argument("--metal", help="metal of a gauge number")
    read.set_defaults(call=_read)


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
