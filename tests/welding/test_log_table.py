"""A hand-written log copied into a table: what is read, and which line is named."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from welding.documents.codec import PASS_RECORD
from welding.documents.log_table import COLUMNS, RECKONED, cells_of, read_table
from welding.errors import DocumentError

NAMES = ["pass", "current, A", "voltage", "bead length, mm", "arc time, s", "before the pass, °C", "remarks"]


def test_rows_as_people_write_them():
    first, second = read_table(
        [
            NAMES,
            ["1", "118", "24.5", "12 in", "90", "150F", "arc blow"],
            [2, 120.0, 25, 300, None, None, None],
            [3],
            [],
        ]
    )
    assert (first.current_a, first.voltage_v, first.length_mm) == (118, 24.5, pytest.approx(304.8))
    assert first.before_c == pytest.approx((150 - 32) / 1.8)
    assert (second.number, second.length_mm, second.remarks) == (2, 300, None)


def test_least_and_most_make_a_reading():
    rows = [
        ["pass", "current", "current least", "current most", "voltage least, V", "voltage most, V"],
        [1, 118, 112, 126, 24, 26],
    ]
    (record,) = read_table(rows)
    assert (record.current_a.mean, record.current_a.min, record.current_a.max) == (118, 112, 126)
    assert record.voltage_v.mean == 25


@pytest.mark.parametrize(
    "rows,path,says",
    [
        ([], "", "empty"),
        ([NAMES], "", "no row holds"),
        ([["current, A"], [118]], "line 1", "no column named pass"),
        ([[*NAMES, "smell"], [1, 118]], "line 1", "not known"),
        ([NAMES, [1, "lots"]], "line 2, current, A", ""),
        ([NAMES, [1, 5000]], "line 2, current, A", "not plausible"),
        ([NAMES, [1, 118], [1, 119]], "line 3", "stands in line 2 already"),
        ([NAMES, ["one", 118]], "line 2, pass", "whole number"),
        ([NAMES, [None, 118]], "line 2, number", ""),
        ([["pass", "quenched"], [1, "maybe"]], "line 2, quenched", "yes or no"),
    ],
)
def test_mistakes_are_named_by_line(rows, path, says):
    with pytest.raises(DocumentError) as caught:
        read_table(rows)
    assert any(one.path == path and says in one.message for one in caught.value.problems), (
        caught.value.problems
    )


@given(
    st.integers(1, 999),
    st.floats(20, 800),
    st.floats(0, 0.2),
    st.one_of(st.none(), st.floats(1, 2000)),
    st.one_of(st.none(), st.sampled_from(["W-4471", "4471", "=1+1", "a, b"])),
)
def test_what_is_written_is_read_back(number, amps, spread, length, batch):
    plain = {
        "number": number,
        "current_a": {"mean": amps, "min": amps * (1 - spread), "max": amps * (1 + spread)},
    }
    plain |= {"length_mm": length} if length else {}
    plain |= {"filler": {"batch": batch}} if batch else {}
    record = PASS_RECORD.take(plain)
    head = [*(column.title for column in COLUMNS), *RECKONED]
    (back,) = read_table([head, [*cells_of(record), 1.2, 1.5, 0.8, "mean", None, "R. Okafor", "2026"]])
    for mine, theirs in zip(cells_of(record), cells_of(back), strict=True):
        assert mine == theirs or mine == pytest.approx(theirs, rel=1e-9)
