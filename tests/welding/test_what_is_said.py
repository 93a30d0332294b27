"""Every word and number that is said of some records, kept as text: a change is seen where it is reviewed.

The text is written anew by ``python -m tests.welding.test_what_is_said``; whoever does so reads the difference.
"""

from dataclasses import fields, is_dataclass
from pathlib import Path
from typing import Any

import pytest

from tests.welding.records import put
from tests.welding.weldments import own_procedure, plain_record
from welding.coverage.covers import covers
from welding.coverage.record import cutting_of, judge, plan_of, range_of
from welding.documents.codec import RECORD
from welding.evaluate.procedure import evaluate

KEPT = Path(__file__).parent / "cases" / "said"
BAD_BEND = {"openings_mm": [4.0, 1.0], "former_mm": 60}
AWS: dict[str, tuple[dict[str, Any], dict[str, Any], dict[str, Any]]] = {
    # name: what was welded, what is planned instead, what the record has otherwise
    "stick groove on backing": ({"t": 19.05, "units": "us"}, {"diameter": 4.0, "volts": 28}, {}),
    "thin plate": ({"t": 6, "units": "us", "process": "GMAW-S", "joint": "v-open"}, {"t": 30}, {}),
    "impact, narrow specimens": (
        {"t": 12, "impact": -20, "process": "FCAW-G"}, {"position": "3G", "progression": "up"},
        {"tests.*.width_mm": 7.5},
    ),
    "impact in inch units": (
        {"t": 25.4, "impact": -20, "process": "SAW", "units": "us"}, {"heat": 3.5}, {},
    ),
    "one-pass fillet": ({"joint": "fillet", "runs": 1, "t": 12}, {"joint.leg1_mm": 10}, {}),
    "multiple-pass fillet": ({"joint": "fillet", "runs": 3, "t": 12, "units": "us"}, {"joint.leg1_mm": 5}, {}),
    "fillet by its throat": (
        {"joint": "fillet", "runs": 3, "t": 12}, {"joint.leg1_mm": 8},
        {"procedure.joint.leg1_mm": "remove", "procedure.joint.throat_mm": 5.6},
    ),
    "partial groove": ({"joint": "pjp-own", "t": 20, "sections": [6, 6, 6]}, {"joint": "pjp-v"}, {}),
    "pipe": ({"od": 168.3, "t": 10.97, "position": "6G", "joint": "v-open"}, {"od": 60.3}, {}),
    "heat-treated": ({"t": 50, "pwht": [620, 120], "preheat": 110}, {"preheat": 65}, {}),
    "two electrodes": (
        {"process": "SAW", "electrodes": {"count": 2, "spacing_mm": 20, "offset_mm": 0, "each": "tandem"}, "t": 30},
        {"electrodes": {"count": 2, "spacing_mm": 30, "offset_mm": 0, "each": "tandem"}}, {},
    ),
    "quenched steel": ({"metals": ["A514"], "filler": "E11018M", "t": 25}, {"metals": ["A36"]}, {}),
    "bends that fail": ({"t": 20}, {}, {"tests.*.openings_mm": [4.0, 1.0]}),
    "details not prequalified": ({"joint": "double-v", "t": 20, "units": "us"}, {"joint": "square-both"}, {}),
}  # fmt: skip
ISO: dict[str, tuple[dict[str, Any], dict[str, Any], dict[str, Any]]] = {
    "butt, level 2": ({"t": 12}, {"t": 40}, {}),
    "butt, level 1": ({"t": 12, "level": 1, "preheat": 100}, {"preheat": 40, "t": 26}, {}),
    "impact, narrow specimens": ({"t": 8, "impact": -20}, {"heat": 2.5}, {"tests.*.width_mm": 7.5}),
    "hardness": ({"t": 15, "hardness": True, "metals": ["S460N"]}, {"metals": ["S355J2"]}, {}),
    "fillet": ({"joint": "fillet", "t": 10, "runs": 2}, {"t": 30}, {}),
    "fillet by its throat": (
        {"joint": "fillet", "t": 10, "runs": 1}, {"runs": 3},
        {"procedure.joint.leg1_mm": "remove", "procedure.joint.throat_mm": 5.6},
    ),
    "thin fillet": ({"joint": "fillet", "t": 2.5, "runs": 1, "joint.leg1_mm": 3}, {"t": 4}, {}),
    "branch": ({"joint": "branch", "od": 48.3, "t": 5, "position": "PH", "runs": 2}, {"od": 114.3}, {}),
    "pipe": ({"od": 168.3, "t": 10, "position": "H-L045"}, {"od": 60.3, "position": "PC"}, {}),
    "short circuit": ({"process": "135", "t": 2.5, "runs": 1}, {"t": 3.5}, {}),
    "two processes": (
        {"processes": ["141", "111"], "deposits": {"141": 4, "111": 11}, "t": 15, "runs": 2}, {"t": 30}, {},
    ),
    "heat-treated": ({"t": 30, "pwht": [600, 90], "metals": ["13CrMo4-5"]}, {"pwht": [650, 90]}, {}),
    "dissimilar": ({"t": 12, "metals": ["S355J2", "S235JR"]}, {"metals": ["S355J2", "S355J2"]}, {}),
    "cracks": ({"t": 12}, {}, {"tests.*.cracks": True}),
}  # fmt: skip
CODES = {"aws": AWS, "iso": ISO}
CUT = ("stick groove on backing", "pipe", "butt, level 2")


def flat(value: Any) -> str:
    """A value of any depth on one line, the same on every machine."""
    if type(value).__name__ in ("Citation", "RuleRef"):
        return f"({value.clause})"
    if is_dataclass(value) and not isinstance(value, type):
        value = tuple(getattr(value, one.name) for one in fields(value))
    if isinstance(value, float):
        return f"{value:.6g}"
    if isinstance(value, tuple | list):
        return "[" + " ".join(flat(one) for one in value) + "]"
    return str(value)


def said(name: str, code: str, words: dict[str, Any], asked: dict[str, Any], changes: dict[str, Any]) -> str:
    """Plan, cutting, verdicts, range, and whether a changed procedure is covered, as lines of text."""
    plain = plain_record(code, words)
    for path, value in changes.items():
        if path.startswith("tests.*."):
            field = path.removeprefix("tests.*.")
            for one in plain["tests"]:
                if field in one:
                    one[field] = value
        else:
            put(plain, path, value)
    record = RECORD.take(plain)
    lines = ["plan"]
    lines += [f"  {flat(item)}" for item in plan_of(record).items]
    cut = cutting_of(record)
    if name in CUT:
        lines += ["cutting", *(f"  {flat(shape)}" for shape in (cut.drawing.shapes if cut.drawing else ()))]
    report = judge(record)
    lines += [f"judged {report.verdict}", *(f"  {flat(one)}" for one in (*report.findings, *report.retests))]
    lines += [f"  missing {one}" for one in report.missing]
    kinds = {one.kind: one for one in report.specimens}
    lines += [f"  {flat(one)}" for one in kinds.values()]
    found = range_of(record)
    lines += [f"range {found.valid}"]
    for item in found.items:
        edges = f"{flat(item.min)} {flat(item.max)} {item.min_open} {flat(item.values)} {flat(item.numbers)}"
        lines.append(
            f"  {item.variable} {item.kind} {edges} {flat(item.tested)} {item.how} | {item.reason} {item.also}"
        )
    procedure = own_procedure(code, {**words, **asked})
    answer = covers([record], procedure)
    lines += [f"asked {answer.verdict}"]
    lines += [
        f"  {one.rule} {one.verdict} {one.actual} | {one.limit} | {one.message} {one.remedy}"
        for one in answer.records[0].findings
    ]
    lines += ["draft"]
    lines += [
        f"  {one.rule} {one.verdict} {one.path} {one.actual} | {one.limit} | {one.message}"
        for one in evaluate(procedure).findings
        if one.verdict != "complies"
        and any(citation.document.startswith(("AWS D1.1", "ISO 15614")) for citation in one.citations)
    ]
    return "\n".join(dict.fromkeys(lines))


def every(code: str) -> str:
    return "\n\n".join(f"# {name}\n{said(name, code, *case)}" for name, case in CODES[code].items()) + "\n"


@pytest.mark.parametrize("code", CODES)
def test_what_is_said_is_what_was_read(code):
    assert every(code) == (KEPT / f"{code}.txt").read_text()


if __name__ == "__main__":
    KEPT.mkdir(exist_ok=True)
    for one in CODES:
        (KEPT / f"{one}.txt").write_text(every(one))
