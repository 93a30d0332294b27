"""Sound procedures, on which no check may raise a false alarm (a second opinion, from memory)."""

import tomllib
from pathlib import Path

import pytest

from welding.assess import evaluate
from welding.documents.codec import PROCEDURE

CASES = tomllib.loads((Path(__file__).parent / "cases" / "sound.toml").read_text())["procedure"]


def whole(case):
    """The procedure: runs that are alike are written once, with how many they are."""
    runs = [dict(run) for one in case["passes"] for run in [one] * one["times"]]
    for number, run in enumerate(runs, start=1):
        del run["times"]
        run["number"] = number
    head = {"format": "grounded-bead/procedure", "version": 1, "number": "S-1", "title": "sound"}
    return PROCEDURE.take({**head, **case, "passes": runs})


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["base_metals"][0]["designation"])
def test_a_sound_procedure_raises_no_alarm(case):
    assert [f.message for f in evaluate(whole(case)).findings if f.verdict == "violates"] == []


def test_there_are_enough_sound_procedures():
    assert len(CASES) >= 38
