"""Machines: duty cycle, balance dials, feed dials, and records that cannot be."""

from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import curve_fit

from welding.documents.codec import MACHINE, OWN_METAL, PRODUCT
from welding.documents.machine import BalanceDial, DialCalibration, DutyPoint, Envelope, RunOut
from welding.errors import DocumentError, WeldingError
from welding.machines.balance import en_share_of, reading_of
from welding.machines.dial import fit_dial, run_out_feed_m_min
from welding.machines.duty import duty_at
from welding.machines.meters import overdue_meters
from welding.ranges import Range

RATED = Envelope(
    family="wire",
    current_a=Range(30, 350),
    duty=(DutyPoint(current_a=350, percent=40), DutyPoint(current_a=280, percent=60), DutyPoint(current_a=220, percent=100)),
)  # fmt: skip


@pytest.mark.parametrize("amps, percent", [(350, 40), (280, 60), (220, 100), (100, 100)])
def test_duty_at_the_rated_points(amps, percent):
    assert duty_at(RATED, amps) == pytest.approx(percent)


def test_duty_beyond_the_points_keeps_i_squared_x():
    """Working rule of the trade: I at X2 = I1 · sqrt(X1 / X2)."""
    one = Envelope(family="wire", current_a=Range(30, 400), duty=(DutyPoint(current_a=300, percent=60),))
    assert duty_at(one, 300 * np.sqrt(60 / 35)) == pytest.approx(35)
    assert duty_at(one, 300 * np.sqrt(60 / 100)) == pytest.approx(100)
    assert duty_at(Envelope(family="tig", current_a=Range(5, 200)), 100) is None


@given(st.floats(30, 400), st.floats(30, 400))
def test_more_current_never_gives_more_time(a, b):
    low, high = sorted((a, b))
    assert duty_at(RATED, low) >= duty_at(RATED, high) * (1 - 1e-9)


SIGNED = BalanceDial(convention="signed", zero_en_share=0.7, step_en_share=0.03)
PLUS_CLEANS = BalanceDial(convention="signed", zero_en_share=0.65, step_en_share=-0.05)


@pytest.mark.parametrize(
    "dial, reading, share",
    [
        (BalanceDial(convention="ep-percent"), 35, 0.65), (BalanceDial(convention="en-percent"), 65, 0.65),
        (SIGNED, 0, 0.7), (SIGNED, 5, 0.85), (SIGNED, -5, 0.55), (PLUS_CLEANS, 2, 0.55), (PLUS_CLEANS, -3, 0.8),
    ],
)  # fmt: skip
def test_one_share_whatever_the_dial_counts(dial, reading, share):
    assert en_share_of(dial, reading) == pytest.approx(share)
    assert reading_of(dial, share) == pytest.approx(reading)


@pytest.mark.parametrize(
    "dial, reading",
    [(BalanceDial(convention="ep-percent"), -10), (BalanceDial(convention="en-percent"), 100), (SIGNED, 40)],
)
def test_a_balance_that_is_none_is_refused(dial, reading):
    with pytest.raises(WeldingError, match="allowed is between"):
        en_share_of(dial, reading)


# --- run-out and dial ------------------------------------------------------------------------------
@pytest.mark.parametrize("inches, ipm", [(22.5, 225), (23.5, 235), (24.25, 242.5)])
def test_six_seconds_times_ten(inches, ipm):
    """Common practice: inches of wire in 6 s, times ten, are in/min."""
    assert run_out_feed_m_min(inches * 25.4, 6) == pytest.approx(ipm * 0.0254)


def runs(*pairs, time_s=6.0):
    return DialCalibration(points=tuple(RunOut(setting=s, length_mm=mm, time_s=time_s) for s, mm in pairs))


def test_a_straight_dial_is_found_exactly_and_goes_both_ways():
    fit = fit_dial(runs((2, 210), (4, 410), (6, 610), (8, 810)))
    assert len(fit.coefficients) == 2
    assert fit.scatter_m_min == pytest.approx(0, abs=1e-9)
    assert fit.feed_at(5) == pytest.approx(5.1)
    assert fit.setting_for(5.1) == pytest.approx(5)


def test_a_scattered_dial_agrees_with_another_least_squares():
    pairs = [(1, 130), (3, 300), (5, 540), (7, 700), (9, 930)]
    fit = fit_dial(runs(*pairs))
    (c0, c1), _ = curve_fit(lambda x, a, b: a + b * x, *zip(*((s, mm / 100) for s, mm in pairs), strict=True))
    assert fit.coefficients == pytest.approx((c0, c1), rel=1e-6)
    assert sum(point.residual_m_min for point in fit.points) == pytest.approx(0, abs=1e-9)
    assert 0.1 < fit.scatter_m_min < 0.4


def test_a_bent_dial_is_bent_and_still_goes_both_ways():
    fit = fit_dial(runs(*((s, 100 * (0.5 + 0.4 * s + 0.08 * s * s)) for s in range(1, 11))))
    assert fit.coefficients == pytest.approx((0.5, 0.4, 0.08), rel=1e-6)
    for setting in (1, 3.3, 7, 10):
        assert fit.setting_for(fit.feed_at(setting)) == pytest.approx(setting)


@given(st.lists(st.tuples(st.floats(0, 10), st.floats(1, 3000)), min_size=0, max_size=8))
def test_a_dial_is_fitted_or_refused_never_crashed(pairs):
    try:
        fit = fit_dial(runs(*pairs))
    except WeldingError:
        return
    assert fit.feed_at(fit.low) < fit.feed_at(fit.high)


@pytest.mark.parametrize(
    "pairs, word", [([], "two or more"), ([(5, 500)], "two or more"), ([(5, 500), (5, 510)], "two or more"), ([(2, 800), (8, 200)], "does not rise")]
)  # fmt: skip
def test_a_dial_that_cannot_be_fitted_says_why(pairs, word):
    with pytest.raises(WeldingError, match=word):
        fit_dial(runs(*pairs))


def test_nothing_is_said_beyond_what_was_measured():
    fit = fit_dial(runs((2, 200), (8, 800)))
    with pytest.raises(WeldingError, match="outside what was measured, 2 to 8"):
        fit.feed_at(12)
    with pytest.raises(WeldingError, match="outside what was measured, 2 to 8 m/min"):
        fit.setting_for(15)
    with pytest.raises(WeldingError):
        run_out_feed_m_min(0, 6)


# --- records that cannot be ----------------------------------------------------------------------
def machine(**more):
    return {"format": "grounded-bead/machine", "version": 1, "name": "Bay 2", **more}


ENVELOPE = {"family": "wire", "current_a": {"min": 30, "max": 300}}


@pytest.mark.parametrize(
    "document, word",
    [
        (machine(name=""), "at least 1 character"),
        (machine(supplies=[{"name": "400 V"}, {"name": "400 V"}]), "same name"),
        (machine(supplies=[{"name": "400 V"}], connected="230 V"), "none of its supplies"),
        (machine(supplies=[{"name": "400 V", "envelopes": [ENVELOPE, ENVELOPE]}]), "twice"),
        (machine(supplies=[{"name": "400 V", "envelopes": [{**ENVELOPE, "duty": [{"current_a": 200, "percent": 40}, {"current_a": 300, "percent": 60}]}]}]), "rises with current"),
        (machine(meters=[{"name": "volts", "due_on": "31.3.2026"}]), "write it as 2026-03-31"),
        (machine(balance_dial={"convention": "signed"}), "share at zero"),
        (machine(dial={"points": [{"setting": 3, "length_mm": 200, "time_s": 0}]}), "0 s is not plausible"),
    ],
)  # fmt: skip
def test_impossible_machines_are_refused(document, word):
    with pytest.raises(DocumentError, match=word):
        MACHINE.take(document)


def metal(**more):
    return {"format": "grounded-bead/metal", "version": 1, "name": "FB-X", "family": "carbon", **more}


@pytest.mark.parametrize(
    "codec, document, word",
    [
        (OWN_METAL, metal(chemistry={"C": {"min": 80, "max": 90}, "Mn": {"min": 50, "max": 60}}), "sum to 130 %"),
        (OWN_METAL, metal(chemistry={"Xx": {"min": 0, "max": 1}}), "no element"),
        (OWN_METAL, metal(chemistry={"C": {"min": 0, "max": 130}}), "no share"),
        (OWN_METAL, metal(yield_steps=[{"up_to_mm": 40, "yield_mpa": 345}, {"up_to_mm": 16, "yield_mpa": 355}]), "thin to thick"),
        (PRODUCT, {"format": "grounded-bead/product", "version": 1, "name": "W", "designation": ""}, "at least 1"),
        (PRODUCT, {"format": "grounded-bead/product", "version": 1, "name": "W", "designation": "ER70S-6", "sheet_date": "2026-02-30"}, "no date"),
    ],
)  # fmt: skip
def test_impossible_records_are_refused(codec, document, word):
    with pytest.raises(DocumentError, match=word):
        codec.take(document)


@pytest.mark.parametrize("day, overdue", [("2026-05-10", ()), ("2026-05-11", ()), ("2026-05-12", ("volts",))])
def test_a_meter_is_good_on_the_day_it_is_due(day, overdue):
    meters = [{"name": "volts", "due_on": "2026-05-11"}, {"name": "amps"}]
    found = MACHINE.take(machine(meters=meters))
    assert overdue_meters(found, date.fromisoformat(day)) == overdue
