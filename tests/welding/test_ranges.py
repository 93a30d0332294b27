"""Ranges of qualification against case tables; every group of cases has its clause beside it."""

import tomllib
from itertools import chain
from pathlib import Path

import pytest

from tests.welding.records import put, record, taken, thickness
from tests.welding.samples import a_pass
from welding.coverage.record import range_of

FILES = {
    "aws": Path(__file__).parent / "cases" / "ranges" / "aws_d1_1_2020.toml",
    "iso": Path(__file__).parent / "cases" / "ranges" / "iso_15614_1_2017.toml",
}
CODES = {"aws": "aws-d1.1:2020", "iso": "iso-15614-1:2017"}
GAS = {"gas": {"components_percent": {"Ar": 100}, "flow_l_min": 10}}


def _change(plain, path, value):
    if path == "thickness":
        thickness(plain, value)
    elif path == "metals":
        plain["procedure"]["base_metals"] = [{"designation": name, "thickness_mm": 20} for name in value]
    elif path == "runs":
        plain["coupon"]["passes"] = plain["coupon"]["passes"][:value]
        plain["procedure"]["passes"] = plain["procedure"]["passes"][:value]
    elif path == "fillet":
        plain["procedure"]["joint"] = {"kind": "t", "weld": "fillet", "throat_mm": 5}
    elif path == "gtaw":
        _process(plain, "141", {"designation": "ER70S-2", "diameter_mm": 2.4}, "DCEN", GAS)
    elif path == "smaw":
        _process(plain, "111", {"designation": value, "diameter_mm": 3.2}, "DCEP", {"gas": None})
    elif path == "fcaw":
        _process(plain, "136", {"designation": "E71T-1C", "diameter_mm": 1.2}, "DCEP", {})
    else:
        put(plain, path, value)


def _process(plain, number, filler, polarity, more):
    passes = plain["procedure"]["passes"]
    plain["procedure"]["passes"] = [
        {k: v for k, v in a_pass(p["number"], p["role"], process=number, filler=filler, polarity=polarity,
                                 transfer=None, gas=None).items() if v is not None}
        for p in passes
    ]  # fmt: skip
    for one in plain["coupon"]["passes"]:
        one.update(process=number, **more)
        if one["gas"] is None:
            del one["gas"]


def _groups(kind):
    for code, path in FILES.items():
        for group in tomllib.loads(path.read_text())[kind]:
            for case in group["cases"]:
                name = f"{code} {group['clause']} {group['variable']} {case[0]}"
                yield pytest.param(code, group, case, id=name.replace(" ", "_"))


LESSER = ("fillet", "pjp-groove")
"""Welds that a groove qualifies beside grooves like it; their items stand apart."""


def _found(code, group, case):
    plain = record(code)
    for path, value in group.get("set", {}).items():
        _change(plain, path, value)
    _change(plain, group["vary"], case[0])
    level = group.get("level", 2) if code == "iso" else None
    items = range_of(taken(plain), CODES[code], level).of(group["variable"])
    if any(one.weld not in LESSER for one in items) and "where" not in group:
        items = [one for one in items if one.weld not in LESSER]
    for key, value in group.get("where", {}).items():
        items = [one for one in items if getattr(one, key) == value]
    assert len(items) == 1, items
    return items[0]


@pytest.mark.parametrize("code, group, case", _groups("group"))
def test_span(code, group, case):
    item = _found(code, group, case)
    low, high = (None if end == "-" else end for end in case[1:])
    assert item.kind in ("span", "any" if low is None and high is None else "span"), item
    assert item.min == (None if low is None else pytest.approx(low))
    assert item.max == (None if high is None else pytest.approx(high))
    assert item.rule.clause
    assert item.rule.provenance == "memory"
    assert item.unchecked, "a figure from memory says so"
    if item.tested is not None and not isinstance(item.tested, tuple):
        assert item.holds(item.tested.min) and item.holds(item.tested.max), "the tested point is inside"


@pytest.mark.parametrize("code, group, case", _groups("sets"))
def test_set(code, group, case):
    item = _found(code, group, case)
    if len(case) == 1:
        assert item.kind == "any"
    else:
        assert item.kind in ("set", "exact")
        assert list(item.values) == case[1:]
    assert item.rule.clause


def test_there_are_enough_cases():
    assert len(list(chain(_groups("group"), _groups("sets")))) >= 150
