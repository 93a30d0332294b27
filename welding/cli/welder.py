"""``welder``: what a person's test covers; ``welder-covers``: whether tests cover a weld."""

from __future__ import annotations

import argparse
import dataclasses
from typing import Any

from welding.cli.parsing import Calls
from welding.welders.catalogue import designation_of, read_designation
from welding.welders.covers import welder_covers, welder_range

_SEVERAL = " + "


def add(calls: Calls) -> None:
    """Add the calls."""
    one = calls.add_parser("welder", help="the range of qualification of a welder's test")
    one.add_argument("designation", help="such as 'ISO 9606-1 135 P BW FM1 S s10 PF ss nb'")
    one.set_defaults(call=_range)
    two = calls.add_parser("welder-covers", help="whether a welder's tests cover a weld")
    two.add_argument("tested", help="designation of the test; several with ' + ' between them")
    two.add_argument("asked", help="designation of the weld")
    two.set_defaults(call=_covers)


def _range(options: argparse.Namespace) -> dict[str, Any]:
    weld = read_designation(options.designation)
    return {"designation": designation_of(weld), **dataclasses.asdict(welder_range(weld))}


def _covers(options: argparse.Namespace) -> dict[str, Any]:
    tested = [read_designation(one) for one in options.tested.split(_SEVERAL)]
    asked = read_designation(options.asked)
    return {
        "tested": [designation_of(one) for one in tested],
        "asked": designation_of(asked),
        **dataclasses.asdict(welder_covers(tested, asked)),
    }
