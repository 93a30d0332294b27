"""``equivalents``: carbon equivalents and the like of a composition."""

from __future__ import annotations

import argparse
from typing import Any

from welding.cli.parsing import Calls, number
from welding.metals.equivalents import ELEMENTS, equivalents, looks_like_fractions


def add(calls: Calls) -> None:
    """Add the call."""
    call = calls.add_parser("equivalents", help="carbon equivalents of a composition, %% by mass")
    for element in ELEMENTS:
        call.add_argument(f"--{element}", type=number, metavar="%", dest=f"element_{element}")
    call.set_defaults(call=_equivalents)


def _equivalents(options: argparse.Namespace) -> dict[str, Any]:
    chemistry = {
        element: share
        for element in ELEMENTS
        if (share := getattr(options, f"element_{element}")) is not None
    }
    found = equivalents(chemistry)
    return {
        **{one.key: one.value for one in found},
        "missing": {one.key: list(one.missing) for one in found if one.missing},
        "taken_as_zero": {one.key: list(one.taken_as_zero) for one in found if one.taken_as_zero},
        "sources": {one.key: one.citation.text for one in found},
        "hint": "these look like fractions, not %" if looks_like_fractions(chemistry) else "",
    }
