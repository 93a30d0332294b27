"""Traces of the arc and drawings of the bead: means, shares and areas are those that are predicted."""

from itertools import pairwise

import pytest

from tests.welding.bead_settings import (
    AC,
    PULSED,
    ROOT,
    SHORT,
    STICK,
    TIG,
    settings,
)
from welding.bead.predict import predict, trace_for
from welding.bead.state import BeadState


def test_the_trace_has_the_means_and_the_rate_of_its_settings():
    short = settings(SHORT)
    found = predict(short)
    trace = trace_for(short, found)
    rate = found.figure("short_circuits_hz").value
    volts, amps = ([point[place] for point in trace.points] for place in (1, 2))
    falls = sum(before >= 10 > after for before, after in pairwise(volts))
    assert falls / (trace.points[-1][0] / 1000) == pytest.approx(rate, rel=0.25)
    assert sum(volts) / len(volts) == pytest.approx(short.voltage_v, rel=0.01)
    assert sum(amps) / len(amps) == pytest.approx(BeadState(short).amps, rel=0.01)
    assert trace == trace_for(short, found), "a drag must not make it flicker"


@pytest.mark.parametrize("waveform", ["square", "soft-square", "sine", "triangle"])
@pytest.mark.parametrize("ratio", [1.0, 1.5])
def test_an_ac_wave_keeps_its_mean_and_its_shares(waveform, ratio):
    wave = {"en_share": 0.68, "frequency_hz": 100, "waveform": waveform, "amplitude_ratio": ratio}
    one = settings(AC, ac=wave)
    trace = trace_for(one, predict(one))
    amps = [point[2] for point in trace.points[:-1]]
    assert trace.points[-1][0] == pytest.approx(40.0)
    assert sum(map(abs, amps)) / len(amps) == pytest.approx(190, rel=0.02)
    assert sum(a < 0 for a in amps) / len(amps) == pytest.approx(0.68, abs=0.03)
    assert -min(amps) / max(amps) == pytest.approx(ratio, rel=0.03)
    assert "buzz" in trace.sound.caption


def test_a_pulse_is_drawn_as_it_is_set():
    one = settings(PULSED)
    trace = trace_for(one, predict(one))
    amps = [point[2] for point in trace.points[:-1]]
    assert set(amps) == {400, 60}
    assert sum(amps) / len(amps) == pytest.approx(BeadState(one).pulse.mean_a, rel=0.02)
    slow = settings(
        TIG, pulse={"peak_a": 90, "background_a": 30, "frequency_hz": 1.5, "peak_share": 0.4}, current_a=None
    )
    assert "swells" in trace_for(slow, predict(slow)).sound.caption
    assert trace_for(settings(PULSED, pulse={"peak_a": 400, "background_a": 60}), predict(one)) is not None


# --- drawings in the joint -------------------------------------------------------------------------


def area_mm2(points):
    return abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in pairwise([*points, points[0]]))) / 2


@pytest.mark.parametrize(
    "change",
    [
        {"joint": "fillet"}, {**ROOT, "included_angle_deg": 60}, {**ROOT, "included_angle_deg": 40, "root_gap_mm": 3.2},
        {**ROOT, "included_angle_deg": 60, "root_gap_mm": 0, "root_face_mm": 2},
        {**ROOT, "thickness_mm": 3, "root_face_mm": 3, "root_gap_mm": 1}, {**ROOT, "included_angle_deg": 60, "thickness_mm": 4},
    ],
)  # fmt: skip
def test_a_drawing_in_the_joint_holds_the_deposit(change):
    """The outline has the deposited section, lies between the members, and its wall is part of them."""
    found = predict(settings(SHORT, **change))
    drawn, deposit = found.joint, found.figure("deposit_mm2").value
    assert area_mm2(drawn.deposit) == pytest.approx(deposit, rel=0.02)
    assert [one.name for one in drawn.beside][-1] == "pool"
    beyond = [one.beyond_mm for one in drawn.beside]
    assert beyond == sorted(beyond, reverse=True) and beyond[-1] > 0
    assert all(drawn.low[0] <= x <= drawn.high[0] and y <= drawn.high[1] for x, y in drawn.deposit)


def test_a_root_that_does_not_fuse_is_drawn_open():
    """Weld metal ends where the faces end to fuse; a deeper one reaches the far side."""
    cold = settings(ROOT, included_angle_deg=60, root_face_mm=4, root_gap_mm=1)
    warm = settings(ROOT, included_angle_deg=60, root_face_mm=1, root_gap_mm=2)
    assert min(y for _, y in predict(cold).joint.deposit) > -10
    assert min(y for _, y in predict(warm).joint.deposit) == -10


@pytest.mark.parametrize("change", [{}, {"joint": "butt"}, {**ROOT, "included_angle_deg": None}])
def test_without_a_joint_there_is_no_drawing_in_it(change):
    assert predict(settings(SHORT, **change)).joint is None


def test_an_arc_without_a_transfer_has_no_trace():
    stick = settings(STICK)
    assert trace_for(stick, predict(stick)) is None
