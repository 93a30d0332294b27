"""Drops, short circuits, pulses, tungsten: balances and textbook laws."""

from __future__ import annotations

import math

MU_0 = 4e-7 * math.pi
BOLTZMANN_EV = 8.617333e-5


def short_circuits_hz(wire_mm: float, feed_m_min: float, drop_mm: float) -> float:
    """How often a wire shorts where each short takes a drop of this diameter [Hz]."""
    volume = math.pi / 4 * wire_mm**2 * feed_m_min * 1000 / 60
    return volume / (math.pi / 6 * drop_mm**3)


def drop_per_pulse_hz(wire_mm: float, feed_m_min: float, drop_mm: float | None = None) -> float:
    """Pulse frequency at one drop a pulse; a drop as wide as the wire gives 1.5 feed / d [Hz]."""
    return short_circuits_hz(wire_mm, feed_m_min, drop_mm or wire_mm)


def one_drop_time_ms(constant_a2_s: float, peak_a: float) -> float:
    """Pulse time that detaches one drop, D / Ip²; D is a wire's and a gas's own [ms]."""
    return constant_a2_s / peak_a**2 * 1000


def pinch_force_mn(current_a: float, ratio: float) -> float:
    """Electromagnetic force on a neck, mu0 I² / (4 pi) ln(Ra / Rd) [mN]."""
    return MU_0 * current_a**2 / (4 * math.pi) * math.log(ratio) * 1000


def extension_drop_v(
    current_a: float, extension_mm: float, wire_mm: float, resistivity_uohm_mm: float
) -> float:
    """Voltage lost in the hot wire beyond the contact tip, Ohm's law [V]."""
    return resistivity_uohm_mm * 1e-6 * extension_mm * current_a / (math.pi / 4 * wire_mm**2)


def ac_mean_a(negative_a: float, positive_a: float, positive_share: float) -> float:
    """Mean of the absolute current of a square wave [A]."""
    return negative_a * (1 - positive_share) + positive_a * positive_share


def ac_rms_a(negative_a: float, positive_a: float, positive_share: float) -> float:
    """Root mean square of a square wave [A]."""
    return math.sqrt(negative_a**2 * (1 - positive_share) + positive_a**2 * positive_share)


def ac_direct_part_a(negative_a: float, positive_a: float, positive_share: float) -> float:
    """Direct part of a square wave, electrode negative [A]."""
    return negative_a * (1 - positive_share) - positive_a * positive_share


def emission_a_cm2(constant_a_cm2_k2: float, work_ev: float, temperature_k: float) -> float:
    """Emission of a hot electrode, A T² exp(-phi / kT) (Richardson, Dushman) [A/cm²]."""
    return constant_a_cm2_k2 * temperature_k**2 * math.exp(-work_ev / (BOLTZMANN_EV * temperature_k))
