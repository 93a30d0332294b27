"""The invented shop of the demo: people, one job, procedures in several processes, trials,
coupons with logs.

All names and numbers are made up. Settings are invented to be plausible, and are no advice. The
procedures stand in ``documents/`` in the open format, so they serve as examples of it too.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from welding.documents.codec import CODECS, PROCEDURE, TRIAL
from welding.documents.intent import Trial
from welding.documents.procedure import Procedure

BOOK = (
    ("iso_15614_1_2017.hardness_limits/1/untreated", "confirm", None, "own copy, table of hardness"),
    ("iso_15614_1_2017.variables/interpass_c.2/plus_c", "correct", 50, "own copy, clause 8.4.10"),
)
"""What the demo's engineer said of two numbers: invented, as everything here, and no reading of any copy."""
JOB = ("FB-27", "Tarn Hollow footbridge", "Fernhollow Fabrication")
DOCUMENTS = Path(__file__).parent / "documents"


def procedures() -> list[Procedure]:
    """The demo's procedures, in order of their numbers."""
    return [PROCEDURE.read(path.read_bytes()) for path in sorted(DOCUMENTS.glob("*.procedure.json"))]


def library() -> list[Any]:
    """The demo's own records: machines, a filler as bought, a metal."""
    found = json.loads((DOCUMENTS / "library.json").read_text())
    return [CODECS[one["format"].removeprefix("grounded-bead/")].take(one) for one in found]


def trials() -> list[Trial]:
    """What the demo's people tried on scrap, the earliest first."""
    return [TRIAL.take(one) for one in json.loads((DOCUMENTS / "trials.json").read_text())]


def tests() -> dict[str, dict[str, Any]]:
    """What the specimens of the demo's coupons showed, by procedure; whether the record was signed."""
    found: dict[str, dict[str, Any]] = json.loads((DOCUMENTS / "tests.json").read_text())
    return found


def coupons() -> list[dict[str, Any]]:
    """The demo's coupons: procedure, welder, what was measured on the piece, and the passes."""
    found: list[dict[str, Any]] = json.loads((DOCUMENTS / "coupons.json").read_text())
    return found


def weld_list() -> bytes:
    """The demo's weld list as a drawing office sends it: about 400 joints, decimal commas."""
    return (DOCUMENTS / "weld-list.csv").read_bytes()
