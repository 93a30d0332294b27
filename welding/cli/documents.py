"""``evaluate`` and ``schema``: procedures and coupons."""

from __future__ import annotations

import argparse
import dataclasses
from pathlib import Path
from typing import Any

from welding.assess import Evaluation, evaluate
from welding.assess_coupon import evaluate_coupon
from welding.cli.parsing import Calls
from welding.documents.codec import CODECS, COUPON, LARGEST_BYTES, PROCEDURE
from welding.documents.coupon import Coupon
from welding.errors import WeldingError


def add(calls: Calls) -> None:
    """Add the calls."""
    judge = calls.add_parser("evaluate", help="judge a procedure or a coupon")
    judge.add_argument("file", type=Path)
    judge.add_argument("--units", choices=("si", "us"), default="si")
    judge.set_defaults(call=_evaluate)

    schema = calls.add_parser("schema", help="JSON Schema of a document")
    schema.add_argument("document", choices=sorted(CODECS))
    schema.set_defaults(call=lambda options: CODECS[options.document].schema())


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
            "piece": [dataclasses.asdict(one) for one in log.piece],
        }
    return _plain(evaluate(PROCEDURE.read(data), options.units))


def _plain(evaluation: Evaluation) -> dict[str, Any]:
    plain = dataclasses.asdict(evaluation)
    for heat in plain["heat_input"]:
        heat["pass"] = heat.pop("pass_number")
    return plain
