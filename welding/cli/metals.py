"""``metal``: a grade by its name; ``equivalents``: carbon equivalents and the like of a composition."""

from __future__ import annotations

import argparse
from typing import Any

from welding.cli.parsing import Calls, number
from welding.errors import UnknownEntryError
from welding.metals.catalogue import find, search
from welding.metals.equivalents import ELEMENTS, equivalents, looks_like_fractions
from welding.quantities.reading import read_quantity


def add(calls: Calls) -> None:
    """Add the calls."""
    metal = calls.add_parser("metal", help="a base metal by any of its names")
    metal.add_argument("name")
    metal.add_argument("--thickness", help="strength at this thickness, such as 25 mm or 1 in")
    metal.set_defaults(call=_metal)
    call = calls.add_parser("equivalents", help="carbon equivalents of a composition, %% by mass")
    for element in ELEMENTS:
        call.add_argument(f"--{element}", type=number, metavar="%", dest=f"element_{element}")
    call.set_defaults(call=_equivalents)


def _metal(options: argparse.Namespace) -> dict[str, Any]:
    found = find(options.name)
    if found is None:
        near = ", ".join(one.name for one in search(options.name, 8))
        raise UnknownEntryError(
            f"{options.name} is no one grade known here" + (f"; there are {near}" if near else "")
        )
    mm = read_quantity(options.thickness, kind="thickness").value if options.thickness else None
    return {
        "name": found.name,
        "also": list(found.also),
        "standard": found.standard,
        "family": found.family,
        "condition": found.condition,
        "thickness_mm": mm,
        "yield_mpa": found.yield_at(mm),
        "tensile_mpa": found.tensile_at(mm),
        "tensile_us_column_mpa": found.tensile_printed_mpa("us", mm),
        "groups": {"iso_15608": found.iso_15608, "aws_d1_1": found.aws_group_at(mm, "si")},
        "chemistry_percent": {element: list(ends) for element, ends in found.chemistry.items()},
        "provenance": found.citation.provenance,
        "confidence": found.citation.confidence,
    }


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
