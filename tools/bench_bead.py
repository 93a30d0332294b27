"""Speed of predictions of the bead and of the fault finder."""

import json
import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

from welding.bead.predict import predict
from welding.documents.codec import BEAD_SETTINGS, FAULT_CASE
from welding.faults.finder import find_causes, symptoms

ROOT = Path(__file__).resolve().parents[1]
Asked = Callable[[str, str, Any], tuple[int, bytes]]


def beads() -> list[float]:
    """Predictions of the example settings, no two alike."""
    examples = sorted((ROOT / "docs" / "examples" / "bead").glob("*.json"))
    settings = [BEAD_SETTINGS.read(one.read_bytes()) for one in examples]
    predict(settings[0])
    times = []
    for step in range(20):
        for one in settings:
            changed = replace(one, travel_mm_min=(one.travel_mm_min or 100.0) + step)
            start = time.perf_counter()
            predict(changed)
            times.append((time.perf_counter() - start) * 1000)
    return times


def faults(plain: dict[str, Any]) -> list[float]:
    """Causes of every symptom, ranked on a procedure of twelve passes."""
    head = {"format": "grounded-bead/fault-case", "version": 1, "procedure": plain}
    cases = [FAULT_CASE.take({**head, "symptom": one.key}) for one in symptoms()]
    find_causes(cases[0])
    times = []
    for case in cases:
        start = time.perf_counter()
        find_causes(case)
        times.append((time.perf_counter() - start) * 1000)
    return times


def dragged(session: Asked) -> list[float]:
    """A slider dragged on the page of settings: one request after the other."""
    example = ROOT / "docs" / "examples" / "bead" / "gmaw-spray-fillet.bead-settings.json"
    settings = json.loads(example.read_text())
    times = []
    for step in range(100):
        body = {"settings": [{**settings, "travel_mm_min": 300 + step}]}
        start = time.perf_counter()
        status, _ = session("POST", "/api/calculators/bead", body)
        times.append((time.perf_counter() - start) * 1000)
        assert status == 200
    return times
