"""Tested this, asked that: rows of a second opinion, written from memory without a look at our rules."""

import tomllib
from pathlib import Path

import pytest

from tests.welding.weldments import own_procedure, welded
from welding.coverage.covers import covers

CODES = {"aws": ("aws-d1.1:2020", "aws_d1_1_2020.toml"), "iso": ("iso-15614-1:2017", "iso_15614_1_2017.toml")}
CASES = Path(__file__).parent / "cases" / "covering"


def _cases():
    for code, (_, name) in CODES.items():
        if not (CASES / name).exists():
            continue
        for group in tomllib.loads((CASES / name).read_text())["group"]:
            for covered, words, *_sure in group["cases"]:
                said = " ".join(f"{k}={v}" for k, v in words.items()) or "own"
                yield pytest.param(code, group["record"], words, covered, id=f"{group['clause']}|{said}")


def changed(record, words):
    """The words of what is asked; an empty one takes a word away."""
    return {key: value for key, value in {**record, **words}.items() if value != ""}


@pytest.mark.parametrize("code, record, words, covered", _cases())
def test_covered(code, record, words, covered):
    found = covers([welded(code, record)], own_procedure(code, changed(record, words)), CODES[code][0])
    why = [f"{one.verdict} {one.rule}: {one.message}" for one in found.findings if one.verdict != "complies"]
    if covered == "yes":
        assert found.covered, why
    else:
        assert not found.covered
        assert covered == "no" or found.verdict == covered, why
