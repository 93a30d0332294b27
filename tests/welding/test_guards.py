"""The table of guards fits the tree; ``./bead guards`` takes them out one by one."""

import pytest

from ops.places import ROOT
from tools.guards import guards


@pytest.mark.parametrize("guard", guards(), ids=lambda one: one["what"])
def test_the_guard_stands_where_the_table_says(guard):
    assert (ROOT / guard["file"]).read_text().count(guard["old"]) == 1
    assert guard["new"] != guard["old"]
    for one in guard["tests"].partition(" -k ")[0].split():
        assert (ROOT / one).is_file()
