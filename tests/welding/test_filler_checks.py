"""The filler's class against the draft: what each draft must and must not be told.

Expectations: the classes of the named standards, from memory, and common practice. Every draft lists
the exact set of rules that it breaks or leaves open; the right ones list none.
"""

import pytest

from tests.welding import samples
from welding.documents.codec import PROCEDURE
from welding.evaluate.procedure import evaluate

RULES = {
    "filler.class", "filler.process", "polarity.class", "polarity.process", "gas.class", "gas.process",
    "position.class", "runs.class", "thickness.class", "transfer.gas",
}  # fmt: skip
C25, MIX, CO2, ARGON = {"Ar": 75, "CO2": 25}, {"Ar": 82, "CO2": 18}, {"CO2": 100}, {"Ar": 100}
FLAT, FILLET = {"positions": ["PA"]}, {"positions": ["2F"], "joint": samples.T_FILLET}
UP, DOWN = {"positions": ["PF"]}, {"positions": ["PG"]}


def wire(designation, process="136", gas=C25, polarity="DCEP", **more):
    return {
        "process": process,
        "polarity": polarity,
        "filler": {"designation": designation},
        "gas": {"components_percent": gas} if gas else None,
        "transfer": None,
        **more,
    }


def stick(designation, polarity="DCEP", **more):
    return wire(designation, "111", None, polarity, **more)


# what, passes, rest of the draft, rules broken or left open
DRAFTS = [
    # --- right -------------------------------------------------------------------------------
    ("E71T-1M with its gas", [wire("E71T-1M")], FLAT, set()),
    ("E71T-1C with CO2", [wire("E71T-1C", gas=CO2)], FILLET, set()),
    ("E71T-1C/M with mix", [wire("E71T-1C/M")], UP, set()),
    ("E71T-9M uphill", [wire("E71T-9M")] * 3, UP, set()),
    ("E71T-5M on negative", [wire("E71T-5M", polarity="DCEN")], FLAT, set()),
    ("E71T-8", [wire("E71T-8", "114", None, "DCEN")] * 2, UP, set()),
    ("E71T-11 thin", [wire("E71T-11", "114", None, "DCEN")], {**FLAT, "thick": 12}, set()),
    ("E70T-4 flat", [wire("E70T-4", "114", None, "DCEP")] * 2, FLAT, set()),
    ("E71T-GS single", [wire("E71T-GS", "114", None, "DCEN")], FLAT, set()),
    ("E7018 uphill", [stick("E7018 H4R")] * 3, UP, set()),
    ("E7018 on AC", [stick("E7018", "AC")], FLAT, set()),
    ("E6010 downhill", [stick("E6010", progression="down")], DOWN, set()),
    ("E6013 on negative", [stick("E6013", "DCEN")], FLAT, set()),
    ("E7024 flat fillet", [stick("E7024")], FILLET, set()),
    ("E308L-16", [stick("E308L-16", "AC")], FLAT, set()),
    ("ER70S-6 spray", [wire("ER70S-6", "135", MIX, transfer="spray")] * 2, FLAT, set()),
    ("ER70S-6 short circuit in C25", [wire("ER70S-6", "135", C25, transfer="short-circuit")], UP, set()),
    ("ER70S-6 globular in CO2", [wire("ER70S-6", "135", CO2, transfer="globular")], FLAT, set()),
    ("ER70S-2 TIG", [wire("ER70S-2", "141", ARGON, "DCEN")], UP, set()),
    ("ER308LSi spray", [wire("ER308LSi", "135", {"Ar": 98, "O2": 2}, transfer="spray")], FLAT, set()),
    ("ER316L TIG", [wire("ER316L", "141", ARGON, "DCEN")], UP, set()),
    ("ER5356 spray", [wire("ER5356", "131", ARGON, transfer="spray")], FLAT, set()),
    ("ER4043 TIG", [wire("ER4043", "141", ARGON, "AC")], FLAT, set()),
    ("E70C-6M", [wire("E70C-6M", "138", C25)], FLAT, set()),
    ("E70C-6M called 136", [wire("E70C-6M", "136", C25)], FLAT, set()),
    ("G 42 4 M21 3Si1", [wire("G 42 4 M21 3Si1", "135", MIX, transfer="pulsed")] * 2, UP, set()),
    ("T 46 4 P M21 1 H5", [wire("T 46 4 P M21 1 H5", gas=MIX)] * 3, UP, set()),
    ("T 42 3 Y N 1", [wire("T 42 3 Y N 1 H10", "114", None, "DCEN")], UP, set()),
    ("E 42 4 B 32 H5", [stick("E 42 4 B 32 H5")] * 2, UP, set()),
    ("W 46 5 W3Si1", [wire("W 46 5 W3Si1", "141", ARGON, "DCEN")], UP, set()),
    ("E81T1-Ni1M", [wire("E81T1-Ni1M")], UP, set()),
    ("E308LT1-4", [wire("E308LT1-4", gas=C25)], UP, set()),
    ("ERCuSi-A", [wire("ERCuSi-A", "131", ARGON)], FLAT, set()),
    # --- wrong -------------------------------------------------------------------------------
    ("E71T-1M on negative", [wire("E71T-1M", polarity="DCEN")], FLAT, {"polarity.class"}),
    ("E71T-1C in mix", [wire("E71T-1C")], FLAT, {"gas.class"}),
    ("E71T-1M in CO2", [wire("E71T-1M", gas=CO2)], FLAT, {"gas.class"}),
    ("E71T-1M in a leaner mix", [wire("E71T-1M", gas={"Ar": 85, "CO2": 15})], FLAT, {"gas.class"}),
    ("E71T-1C in argon", [wire("E71T-1C", gas=ARGON)], FLAT, {"gas.class", "gas.process"}),
    ("E71T-8 on positive", [wire("E71T-8", "114", None, "DCEP")], UP, {"polarity.class"}),
    ("E71T-8 with gas", [wire("E71T-8", "114", C25, "DCEN")], UP, {"gas.class", "gas.process"}),
    ("E71T-8 as gas-shielded", [wire("E71T-8", "136", C25, "DCEN")], UP, {"filler.process", "gas.class"}),
    ("E71T-1C as self-shielded", [wire("E71T-1C", "114", None)], UP, {"filler.process"}),
    ("E70T-4 uphill", [wire("E70T-4", "114", None)], UP, {"position.class"}),
    ("E71T-11 on thick plate", [wire("E71T-11", "114", None, "DCEN")], {**FLAT, "thick": 25}, {"thickness.class"}),
    ("E70T-3 in two passes", [wire("E70T-3", "114", None)] * 2, {**FLAT, "thick": 4}, {"runs.class"}),
    ("E71T-GS in three passes", [wire("E71T-GS", "114", None, "DCEN")] * 3, FLAT, {"runs.class"}),
    ("E7018 downhill", [stick("E7018", progression="down")], DOWN, {"position.class"}),
    ("E7018 on negative", [stick("E7018", "DCEN")], FLAT, {"polarity.class"}),
    ("E6010 on AC", [stick("E6010", "AC")], FLAT, {"polarity.class"}),
    ("E7018 down a pipe", [stick("E7018", progression="down")], {"positions": ["5G"]}, {"position.class"}),
    ("E7018 in PJ", [stick("E7018", progression="down")], {"positions": ["PJ"]}, {"position.class"}),
    ("E7048 up a pipe", [stick("E7048", progression="up")], {"positions": ["5G"]}, {"position.class"}),
    ("E308L-16 downhill", [stick("E308L-16", progression="down")], DOWN, {"position.class"}),
    ("E7024 overhead", [stick("E7024")], {"positions": ["PE"]}, {"position.class"}),
    ("E7024 horizontal butt", [stick("E7024")], {"positions": ["PC"]}, {"position.class"}),
    ("E7048 uphill", [stick("E7048", progression="up")], UP, {"position.class"}),
    ("E308L-15 on AC", [stick("E308L-15", "AC")], FLAT, {"polarity.class"}),
    ("E7018 as wire", [wire("E7018", "135", MIX)], FLAT, {"filler.process"}),
    ("ER70S-6 as stick", [stick("ER70S-6")], FLAT, {"filler.process"}),
    ("ER70S-6 on negative", [wire("ER70S-6", "135", MIX, "DCEN")], FLAT, {"polarity.class"}),
    ("ER70S-2 TIG on positive", [wire("ER70S-2", "141", ARGON, "DCEP")], FLAT, {"polarity.class"}),
    ("ER70S-6 spray in C25", [wire("ER70S-6", "135", C25, transfer="spray")], FLAT, {"transfer.gas"}),
    ("ER70S-6 spray in CO2", [wire("ER70S-6", "135", CO2, transfer="spray")], FLAT, {"transfer.gas"}),
    ("ER308LSi in C25", [wire("ER308LSi", "135", C25, transfer="short-circuit")], FLAT, {"transfer.gas"}),
    ("ER5356 in mix", [wire("ER5356", "131", MIX)], FLAT, {"gas.class", "gas.process"}),
    ("ER5356 TIG on positive is allowed by no practice but the class", [wire("ER5356", "141", ARGON, "DCEP")], FLAT, {"polarity.class"}),
    ("G 42 4 M21 3Si1 in CO2", [wire("G 42 4 M21 3Si1", "135", CO2)], FLAT, {"gas.class"}),
    ("T 46 4 P M21 1 in CO2", [wire("T 46 4 P M21 1 H5", gas=CO2)], UP, {"gas.class"}),
    ("T 46 4 R M21 3 uphill", [wire("T 46 4 R M21 3 H5", gas=MIX)], UP, {"position.class"}),
    ("E 42 4 B 32 downhill", [stick("E 42 4 B 32 H5", progression="down")], DOWN, {"position.class"}),
    ("W 46 5 3Si1 as wire", [wire("W 46 5 3Si1", "135", MIX)], FLAT, {"filler.process", "gas.class", "polarity.class"}),
    ("a class that is none", [wire("E71T-1Q4")], FLAT, {"filler.class"}),
    ("an unknown filler", [wire("Bright Wire 7")], FLAT, {"filler.class"}),
]  # fmt: skip


def told(passes, rest):
    rest = dict(rest)
    thick = rest.pop("thick", 10)
    document = samples.procedure(
        base_metals=[{"designation": "S355J2+N", "thickness_mm": thick}] * 2,
        passes=[
            {key: value for key, value in {**samples.a_pass(n + 1), **one}.items() if value is not None}
            for n, one in enumerate(passes)
        ],
        **rest,
    )
    found = evaluate(PROCEDURE.take(document)).findings
    return {one.rule for one in found if one.rule in RULES and one.verdict != "complies"}, found


@pytest.mark.parametrize(
    "what, passes, rest, expected", DRAFTS, ids=lambda value: value if isinstance(value, str) else ""
)
def test_each_draft_is_told_exactly_what_is_wrong(what, passes, rest, expected):
    assert told(passes, rest)[0] == expected


def test_there_are_enough_drafts_of_both_kinds():
    right = sum(not expected for *_, expected in DRAFTS)
    assert len(DRAFTS) >= 60
    assert right >= 30
    assert len(DRAFTS) - right >= 30


def test_a_finding_says_what_where_and_what_to_do():
    _, found = told([wire("E71T-1M", polarity="DCEN")], FLAT)
    wrong = next(one for one in found if one.rule == "polarity.class")
    assert (wrong.verdict, wrong.obligation, wrong.path) == ("violates", "requirement", "passes.0.polarity")
    assert (wrong.actual, wrong.limit, wrong.remedy) == ("DCEN", "DCEP", "Set DCEP.")
    assert wrong.citations[0].document == "AWS A5.20"
    assert wrong.unchecked == ("a5_20", "aws_tensile")
    _, found = told([wire("E71T-1Q4")], FLAT)
    assert "did you mean E71T-1C" in next(one for one in found if one.rule == "filler.class").message
