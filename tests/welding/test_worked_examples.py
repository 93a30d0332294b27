"""The worked examples in docs/ are computed, line by line, by the core; figures there were made by hand."""

import re
from pathlib import Path

import pytest

from welding.coverage.covers import covers
from welding.coverage.record import judge, range_of
from welding.documents.codec import PROCEDURE, RECORD

DOCS = Path(__file__).parents[2] / "docs"
PAGES = {
    "worked-aws-d1-1.md": "aws-d1-1.qualification-record.json",
    "worked-iso-15614-1.md": "iso-15614-1.qualification-record.json",
}
ROW = re.compile(r"^\| `(\w+)` \| (\w*) ?\| .*? \| (-?[\d.]+|-) \| (-?[\d.]+|-) \| (.*) \|$", re.MULTILINE)


def lines():
    for page, file in PAGES.items():
        for variable, scope, low, high, clause in ROW.findall((DOCS / page).read_text()):
            yield pytest.param(file, variable, scope, low, high, clause, id=f"{page}-{variable}-{scope}")


def record_of(file):
    return RECORD.read((DOCS / "examples" / file).read_bytes())


@pytest.mark.parametrize("file, variable, scope, low, high, clause", lines())
def test_a_line_of_the_example(file, variable, scope, low, high, clause):
    items = [
        one
        for one in range_of(record_of(file)).of(variable)
        if scope in ("", one.role, one.weld) and one.kind == "span"
    ]
    assert len(items) == 1
    for found, said in ((items[0].min, low), (items[0].max, high)):
        assert found == (None if said == "-" else pytest.approx(float(said), rel=1e-5))
    assert items[0].rule.clause == clause


def test_the_examples_have_their_lines():
    assert len(list(lines())) >= 20


@pytest.mark.parametrize("file", PAGES.values())
def test_the_examples_are_accepted_and_canonical(file):
    record = record_of(file)
    assert judge(record).verdict == "accepted"
    assert RECORD.write(record) == (DOCS / "examples" / file).read_bytes()


OWN = sorted(path.name for path in (DOCS / "examples").glob("*.procedure.json"))


@pytest.mark.parametrize("file", OWN)
def test_the_procedure_as_welded_is_covered_by_the_record_beside_it(file):
    path = DOCS / "examples" / file
    one = record_of(file.replace(".procedure.", ".qualification-record."))
    own = PROCEDURE.read(path.read_bytes())
    assert judge(one).verdict == "accepted"
    found = covers([one], own)
    assert found.covered, [(f.rule, f.message) for f in found.findings if f.verdict != "complies"]
    assert PROCEDURE.write(own) == path.read_bytes()


def test_there_are_examples_of_two_processes_submerged_arc_and_duplex():
    assert {"two-processes", "submerged-arc", "duplex"} <= {re.split(r"-(?:aws|iso)", one)[0] for one in OWN}
