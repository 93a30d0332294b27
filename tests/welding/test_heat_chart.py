"""The chart of amps against travel: its lines against Q = k·U·I·60/v, worked by hand."""

from __future__ import annotations

import pytest

from tests.welding.samples import a_pass, procedure
from welding.documents.codec import PASS, PROCEDURE
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.evaluate.procedure import heat_rule
from welding.heat.chart import CLOSE, MOST_LINES, heat_chart
from welding.ranges import Range

WITH_K, WITHOUT_K = (
    heat_rule(PROCEDURE.take(procedure(code=code)))
    for code in ({"id": "iso-15614-1:2017", "level": 2}, {"id": "aws-d1.1:2020"})
)


@pytest.mark.parametrize(("rule", "k"), [(WITH_K, 0.8), (WITHOUT_K, 1.0)])
def test_every_point_of_a_line_has_its_heat_input(rule, k):
    chart = heat_chart(PASS.take(a_pass(1)), rule, Range(1.0, 1.9))
    assert chart.voltage_v == 26 and chart.k == k
    assert chart.rectangle == (Range(200, 300), Range(220, 260))
    for line in chart.lines:
        assert line.travel_mm_min[0] == line.current_a[0] == 0
        # EN 1011-1: k·U·I·60/(1000·v) in kJ/mm
        assert k * 26 * line.current_a[1] * 60 / (1000 * line.travel_mm_min[1]) == pytest.approx(line.kj_mm)
        assert line.travel_mm_min[1] <= chart.travel_mm_min.max + 1e-9
        assert line.current_a[1] <= chart.current_a.max + 1e-9


def test_the_wanted_window_is_drawn_and_no_round_line_lies_on_it():
    chart = heat_chart(PASS.take(a_pass(1)), WITH_K, Range(1.05, 1.9))
    wanted = [one.kj_mm for one in chart.lines if one.wanted]
    assert wanted == [1.05, 1.9]
    others = [one.kj_mm for one in chart.lines if not one.wanted]
    assert others and len(others) <= MOST_LINES
    assert all(abs(one - end) > CLOSE * end for one in others for end in wanted)


@pytest.mark.parametrize("lacking", ["voltage_v", "current_a", "travel_mm_min"])
def test_a_pass_without_its_values_has_no_chart(lacking):
    with pytest.raises(UnknownEntryError):
        heat_chart(PASS.take(a_pass(1, **{lacking: None})), WITH_K, None)
    with pytest.raises(OutOfRangeError):
        heat_chart(None, WITH_K, None)
