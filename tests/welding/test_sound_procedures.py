"""Sound procedures, on which no check may raise a false alarm (a second opinion, from memory)."""

import json
import random
import tomllib
from pathlib import Path

import pytest

from welding.documents.codec import PROCEDURE
from welding.errors import DocumentError
from welding.evaluate.procedure import evaluate

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


def places(plain):
    """Every place of a document that can be changed, as its holder and its key."""
    pairs = plain.items() if isinstance(plain, dict) else enumerate(plain)
    for key, value in pairs:
        yield plain, key
        if isinstance(value, dict | list):
            yield from places(value)


@pytest.mark.parametrize("seed", range(300))
def test_no_odd_number_or_missing_field_stops_the_checks(seed):
    chance = random.Random(seed)
    plain = json.loads(PROCEDURE.write(whole(chance.choice(CASES))))
    for _ in range(4):
        holder, key = chance.choice(list(places(plain)))
        value = holder[key]
        if isinstance(value, int | float) and not isinstance(value, bool) and key != "number":
            holder[key] = chance.choice(
                [0, 500, 1000, -value, value * 2, value * 10 ** chance.uniform(-3, 3)]
            )
        elif isinstance(holder, dict) and chance.random() < 0.5:
            del holder[key]
    try:
        procedure = PROCEDURE.take(plain)
    except DocumentError:
        return
    assert evaluate(procedure).findings is not None


def test_there_are_enough_sound_procedures():
    assert len(CASES) >= 38
