"""``fault``: the causes of a fault of a weld, ranked by what is known; ``symptoms``: what may be asked."""

from __future__ import annotations

import argparse
from pathlib import Path
from typing import Any

from welding.cli.documents import read_bytes
from welding.cli.parsing import Calls
from welding.documents.codec import FAULT_CASE
from welding.faults.finder import Cause, find_causes, symptoms, symptoms_called


def add(calls: Calls) -> None:
    """Add the calls."""
    fault = calls.add_parser("fault", help="causes of a fault of a weld, ranked by what is known")
    fault.add_argument("file", type=Path, help="fault case, JSON")
    fault.set_defaults(call=_fault)
    listed = calls.add_parser("symptoms", help="symptoms that the fault finder knows")
    listed.add_argument("words", nargs="*", help="only those that these words may mean")
    listed.set_defaults(call=_symptoms)


def _fault(options: argparse.Namespace) -> dict[str, Any]:
    found = find_causes(FAULT_CASE.read(read_bytes(options.file)))
    return {
        "symptom": found.symptom.key,
        "title": found.symptom.title,
        "caution": found.caution,
        "causes": [_plain(one) for one in found.causes],
    }


def _plain(one: Cause) -> dict[str, Any]:
    return {
        "row": one.row,
        "cause": one.cause,
        "share": round(one.share, 4),
        "prior": one.prior,
        "evidence": [{"sign": e.sign, "holds": e.holds, "words": e.words} for e in one.evidence],
        "look_for": one.look_for,
        "check": one.check,
        "remedies": [
            {
                "words": remedy.words,
                "where": remedy.where,
                "field": remedy.field,
                "direction": remedy.direction,
                "limit": [remedy.limit.min, remedy.limit.max] if remedy.limit else None,
            }
            for remedy in one.remedies
        ],
        "caution": one.caution,
        "source": one.citation.text,
        "confidence": one.citation.confidence,
    }


def _symptoms(options: argparse.Namespace) -> dict[str, Any]:
    found = symptoms_called(" ".join(options.words)) if options.words else symptoms()
    return {"symptoms": [{"symptom": one.key, "title": one.title, "also": list(one.also)} for one in found]}
