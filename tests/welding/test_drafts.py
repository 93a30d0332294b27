"""Drafts held against the bands that good practice accepts (a second opinion, from memory)."""

import re
import tomllib
from pathlib import Path

import pytest

from welding.documents.codec import INTENT
from welding.planning.propose import propose

CASES = tomllib.loads((Path(__file__).parent / "cases" / "drafts.toml").read_text())["draft"]
LEAST_SHARE = 0.8


def middle(limits):
    return None if limits is None else (limits.min + limits.max) / 2


def inside(value, band):
    low, high = band
    return value is None or ((low < 0 or value >= low - 1e-9) and (high < 0 or value <= high + 1e-9))


def of_filler(one, fillers):
    """Patterns that the filler of a pass may match: a hot pass like the root or like the filling."""
    if "all" in fillers:
        return [fillers["all"]]
    return {"root": [fillers["root"]], "hot": [*fillers.values()]}.get(one.role, [fillers["fill"]])


def outside(case, draft):
    """What of a draft lies outside the bands, by name."""
    root, *_ = draft.passes
    filling = [one for one in draft.passes if one.role not in ("root", "hot")] or [draft.passes[-1]]
    thermal, bands = draft.thermal, case["bands"]
    values = {
        "passes": [len(draft.passes)],
        "preheat_c": [thermal.preheat_min_c],
        "interpass_c": [thermal.interpass_max_c],
        "root_a": [middle(root.current_a)],
        "fill_a": [middle(one.current_a) for one in filling],
        "volts": [middle(one.voltage_v) for one in filling],
        "feed_m_min": [middle(one.wire_feed_m_min) for one in filling],
        "travel_mm_min": [middle(one.travel_mm_min) for one in filling],
    }
    found = {name for name, band in bands.items() if not all(inside(one, band) for one in values[name])}
    for one in draft.passes:
        told = one.filler.designation if one.filler else ""
        if not any(re.search(shape, told, re.IGNORECASE) for shape in of_filler(one, case["fillers"])):
            found.add("filler")
    wanted = case["polarity"]
    if root.polarity != wanted[0] or (len(wanted) > 1 and filling[0].polarity != wanted[1]):
        found.add("polarity")
    if case.get("purge") not in (None, any(one.purge for one in draft.passes)):
        found.add("purge")
    return found


def drafted(case):
    return propose(INTENT.take({"format": "grounded-bead/intent", "version": 1, **case["asked"]})).procedure


@pytest.mark.parametrize(
    "case", CASES, ids=lambda case: f"{case['asked']['metals'][0]} {case['asked']['process']}"
)
def test_a_draft_is_what_good_practice_accepts(case):
    assert outside(case, drafted(case)) == set(case.get("differs", ()))


def test_most_drafts_lie_inside_every_band():
    held = sum(not case.get("differs") for case in CASES)
    assert len(CASES) >= 140 and held / len(CASES) >= LEAST_SHARE
