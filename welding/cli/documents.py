"""``evaluate``, ``propose`` and ``schema``: whole documents."""

from __future__ import annotations

import argparse
import dataclasses
from pathlib import Path
from typing import Any

from welding.cli.parsing import Calls
from welding.documents.codec import CODECS, COUPON, INTENT, LARGEST_BYTES, PROCEDURE
from welding.documents.coupon import Coupon
from welding.errors import WeldingError
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.procedure import Evaluation, evaluate
from welding.planning.propose import propose


def add(calls: Calls) -> None:
    """Add the calls."""
    judge = calls.add_parser("evaluate", help="judge a procedure or a coupon")
    judge.add_argument("file", type=Path)
    judge.add_argument("--units", choices=("si", "us"), default="si")
    judge.set_defaults(call=_evaluate)

    call = calls.add_parser("propose", help="a whole draft from an intent")
    call.add_argument("file", type=Path)
    call.set_defaults(call=_propose)

    schema = calls.add_parser("schema", help="JSON Schema of a document")
    schema.add_argument("document", choices=sorted(CODECS))
    schema.set_defaults(call=lambda options: CODECS[options.document].schema())


def _propose(options: argparse.Namespace) -> dict[str, Any]:
    found = propose(INTENT.read(read_bytes(options.file)))
    return {
        **PROCEDURE.plain(found.procedure),
        "reasons": [dataclasses.asdict(one) for one in found.reasons],
        "collisions": list(found.collisions),
        "preheat_options": [
            {**dataclasses.asdict(one), "advised_c": one.advised_c, "valid": one.valid}
            for one in found.preheat_options
        ],
        "bands": [dataclasses.asdict(one) for one in found.bands],
    }


def read_bytes(file: Path, largest_bytes: int = LARGEST_BYTES) -> bytes:
    """Bytes of a document's file, refused where they are too many."""
    size = file.stat().st_size
    if size > largest_bytes:
        raise WeldingError(f"{file}: {size:,} bytes are too many for a document")
    return file.read_bytes()


def _evaluate(options: argparse.Namespace) -> dict[str, Any]:
    data = read_bytes(options.file)
    if b'"grounded-bead/coupon"' in data:
        coupon: Coupon = COUPON.read(data)
        log = evaluate_coupon(coupon, options.units)
        return {
            **_plain(evaluate(coupon.procedure, options.units)),
            "passes": [dataclasses.asdict(one) for one in log.passes],
            "to_weld": list(log.to_weld),
            "piece": [dataclasses.asdict(one) for one in log.piece],
        }
    return _plain(evaluate(PROCEDURE.read(data), options.units))


def _plain(evaluation: Evaluation) -> dict[str, Any]:
    plain = dataclasses.asdict(evaluation)
    for heat in plain["heat_input"]:
        heat["pass"] = heat.pop("pass_number")
    return plain
