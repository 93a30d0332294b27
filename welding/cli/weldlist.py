"""``coupons``: the cheapest set of test coupons for the joints of a job that no record covers."""

from __future__ import annotations

import argparse
import os
import sys
from pathlib import Path
from typing import Any

from welding.cli.documents import read_bytes
from welding.cli.parsing import Calls
from welding.documents.codec import WELD_LIST
from welding.weldlist.coupons import FewestCoupons, fewest_coupons


def add(calls: Calls) -> None:
    """Add the call."""
    one = calls.add_parser("coupons", help="the cheapest coupons for joints that no record covers")
    one.add_argument("file", type=Path, help="weld list, JSON")
    one.add_argument("--seconds", type=float, default=60.0, help="time for the solver")
    one.add_argument("--workers", type=int, default=os.cpu_count() or 1, help="processors to use")
    one.set_defaults(call=_coupons)


def _coupons(options: argparse.Namespace) -> dict[str, Any]:
    data = read_bytes(options.file, WELD_LIST.largest_bytes)
    return _plain(fewest_coupons(WELD_LIST.read(data), options.seconds, options.workers, _tell))


def _tell(doing: str, done: int, of: int) -> None:
    """How far it is, where somebody looks on; the answer itself goes to the output."""
    if sys.stderr.isatty():
        end = "\n" if doing == "check" else ""
        print(f"\r{doing}: {done} of {of}        ", end=end, file=sys.stderr, flush=True)


def _plain(found: FewestCoupons) -> dict[str, Any]:
    return {
        "cost": found.cost,
        "bound": found.bound,
        "optimal": found.optimal,
        "tried": found.tried,
        "types": [
            {
                "key": one.type.key,
                "marks": list(one.type.marks),
                "count": one.type.count,
                "verdict": one.verdict,
                "by": list(one.by),
            }
            for one in found.types
        ],
        "coupons": [one.plain() for one in found.coupons],
        "uncovered": [
            {
                "key": one.type.key,
                "marks": list(one.type.marks),
                "nearest": one.nearest,
                "reasons": list(one.reasons),
            }
            for one in found.uncovered
        ],
    }
