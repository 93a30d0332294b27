"""Tables are loaded strictly; the sums recorded in each catch a slip of the keyboard."""

from pathlib import Path

import pytest

import welding
from welding.codebook.table import parse_table
from welding.errors import TableError

ROOT = Path(welding.__file__).parent
FILES = sorted(ROOT.rglob("tables/*.toml"))
GOOD = """
id = "t"
title = "T"
[source]
document = "d"
edition = ""
clause = "c"
provenance = "memory"
confidence = "high"
[reading]
key = "a"
columns = ["a", "b"]
row_count = 2
column_sums = { b = 3.0 }
[[rows]]
a = "x"
b = 1.0
[[rows]]
a = "y"
b = 2.0
"""


@pytest.mark.parametrize("path", FILES, ids=lambda p: p.stem)
def test_every_table_has_its_passport(path):
    table = parse_table(str(path), path.read_text())
    assert table.citation.document
    assert (table.unchecked == (table.id,)) == (table.citation.provenance == "memory")


@pytest.mark.parametrize(
    "old, new, reason",
    [
        ('title = "T"', 'title = "T"\nzap = 1', "unknown zap"),
        ('provenance = "memory"', "", "missing provenance"),
        ('provenance = "memory"', 'provenance = "hearsay"', "hearsay"),
        ("row_count = 2", "row_count = 3", "announced"),
        ("b = 2.0", "b = 2.5", "sums to"),
        ("b = 2.0", "c = 2.0", "unknown c"),
        ('a = "y"', 'a = "x"', "twice"),
        ('a = "y"', "b = 9", "b"),
    ],
)
def test_a_slip_is_an_error(old, new, reason):
    assert parse_table("good", GOOD).rows[1]["b"] == 2.0
    with pytest.raises(TableError, match=reason):
        parse_table("bad", GOOD.replace(old, new))


def test_every_table_is_listed_where_people_look_for_sources():
    page = (ROOT.parent / "docs" / "rules.md").read_text()
    for path in FILES:
        table = parse_table(str(path), path.read_text())
        line = next((line for line in page.splitlines() if line.startswith(f"| `{table.id}` |")), "")
        assert line.endswith(f"| {table.citation.provenance} |"), table.id
