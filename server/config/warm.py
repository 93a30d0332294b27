"""Read tables and build readers before the workers part: nobody's first request waits for them."""

from __future__ import annotations

import gc
import logging
from typing import Any

from welding.documents.codec import INTENT, all_ready
from welding.errors import WeldingError
from welding.evaluate.procedure import evaluate
from welding.planning.propose import propose

_CODES: tuple[tuple[dict[str, Any], str, str], ...] = (
    ({"id": "aws-d1.1:2020", "units": "us", "route": "prequalified"}, "A572 Gr 50", "136"),
    ({"id": "iso-15614-1:2017", "level": 2, "units": "si", "route": "test"}, "S355J2", "135"),
)


def warm() -> None:
    """Draft and judge a plain joint under each code; what went wrong is logged and hinders nobody."""
    all_ready()
    for code, metal, process in _CODES:
        intent = {
            "format": "grounded-bead/intent",
            "version": 1,
            "code": code,
            "metals": [metal, metal],
            "thickness_mm": [12, 12],
            "joint": {"kind": "t", "weld": "fillet", "leg1_mm": 8},
            "position": "PB",
            "process": process,
        }
        try:
            evaluate(propose(INTENT.take(intent)).procedure)
        except WeldingError:
            logging.getLogger("warm").exception("the core could not be made ready")
    gc.collect()
    gc.freeze()  # what is there now stays: workers share it, and no collection walks it again
