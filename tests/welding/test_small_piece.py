"""The wait of a small piece that warms through, against the differential equation solved by a library."""

import pytest
from scipy.integrate import solve_ivp

from tests.welding.records import put, record
from welding.documents.codec import COUPON
from welding.errors import OutOfRangeError
from welding.evaluate.fit_up import cooling_after
from welding.evaluate.procedure import evaluate
from welding.heat.cooling import FACE_LOSS_W_M2_K
from welding.heat.small_piece import warm_piece

CASES = [(300, 300, 12, 100, 150, 20), (350, 300, 10, 80, 150, 15), (150, 200, 20, 140, 150, 25)]


@pytest.mark.parametrize("length, width, t, before, to, air", CASES)
def test_against_the_differential_equation(length, width, t, before, to, air):
    """Energy balance ρcV·dT/dt = -h·A·(T - T0), solved numerically; steel, 4.5 J/(cm³·K)."""
    heat = 1.2e3 * length
    found = warm_piece(
        heat_j=heat, length_mm=length, width_mm=width, thickness_mm=t, before_c=before, to_c=to, ambient_c=air
    )
    volume_m3 = length * width * t * 1e-9
    area_m2 = 2 * (length * width + length * t + width * t) * 1e-6
    start = before + heat / (4.5e6 * volume_m3)
    assert found.piece_c == pytest.approx(start)

    def loses(_, temperature):
        return [-FACE_LOSS_W_M2_K * area_m2 * (temperature[0] - air) / (4.5e6 * volume_m3)]

    def reached(_, temperature):
        return temperature[0] - to

    reached.terminal = True
    if start <= to:
        assert found.wait_s == 0
        return
    solved = solve_ivp(loses, (0, 20_000), [start], events=reached, rtol=1e-9, atol=1e-9)
    assert found.wait_s == pytest.approx(solved.t_events[0][0], rel=1e-5)


def test_air_as_warm_as_the_limit_is_refused():
    with pytest.raises(OutOfRangeError):
        warm_piece(
            heat_j=1e5, length_mm=300, width_mm=300, thickness_mm=10, before_c=100, to_c=40, ambient_c=40
        )


def test_the_longer_wait_counts_once_the_size_is_recorded():
    plain = record("iso")
    made = {
        "format": "grounded-bead/coupon",
        "version": 1,
        "procedure": plain["procedure"],
        "coupon": plain["coupon"],
    }
    put(made, "procedure.thermal.interpass_max_c", 150)
    put(made, "coupon.passes.0.before_c", 100)

    def waits(**size):
        one = COUPON.take({**made, "coupon": {**made["coupon"], **size}})
        return cooling_after(one, evaluate(one.procedure), 1, 1.0)

    large, small = waits(), waits(length_mm=320, width_mm=120)
    assert large.piece_c is None
    assert small.piece_c > 150 and small.wait_s > large.wait_s
    wide = waits(length_mm=2000, width_mm=2000)
    assert wide.wait_s == large.wait_s, "in a large plate conduction decides"
