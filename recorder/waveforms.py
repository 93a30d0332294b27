"""Waveforms of an arc, as a recorder at the power source would see them.

The shapes are the textbook ones (common practice): a bridged arc is nearly a short, 2 to 4 ms long,
in which the inductance lets the current climb; a pulse rises in a fraction of a millisecond; a square
wave of alternating current re-ignites at each crossing; a spray arc only ripples.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Samples = NDArray[np.float64]
Mode = Literal["short-circuit", "spray", "pulsed", "ac"]
MODES: tuple[Mode, ...] = ("short-circuit", "spray", "pulsed", "ac")

SHORTS_HZ, SHORT_S, DECAY_S = 85.0, 0.0028, 0.004
PULSE_HZ, PEAK_SHARE, RISE_S = 120.0, 0.35, 0.0003
AC_HZ, NEGATIVE_SHARE, CROSSING_S = 90.0, 0.7, 0.0001
DYNAMIC_OHM = 0.035
"""Slope of the arc's volts with amps around its working point [V/A]."""


@dataclass(frozen=True, slots=True)
class Setting:
    """What the source is set to; means over the arc."""

    mode: Mode
    voltage_v: float
    current_a: float
    noise: float = 0.01
    seed: int = 1


def arc(setting: Setting, time_s: Samples) -> tuple[Samples, Samples]:
    """Volts and amps at the given times [s] of one arc, counted from its start.

    The same setting gives the same arc at the same times, however they are cut into pieces, so that
    a recorder may ask for them bit by bit. Means over a second meet the setting within 1 %.
    """
    shape = {"short-circuit": _short_circuit, "spray": _spray, "pulsed": _pulsed, "ac": _alternating}
    volts, amps = shape[setting.mode](setting, time_s)
    hiss = _hiss(setting, time_s)
    return volts * (1 + hiss[0]), amps * (1 + hiss[1])


def _hiss(setting: Setting, time_s: Samples) -> tuple[Samples, Samples]:
    """Noise that depends on the time alone: a hash of the microsecond, nearly white."""
    ticks = np.round(time_s * 1e6).astype(np.int64).astype(np.uint64)
    out = []
    for channel in (1, 2):
        mixed = (ticks + np.uint64(setting.seed * 2 + channel)) * np.uint64(0x9E3779B97F4A7C15)
        mixed ^= mixed >> np.uint64(29)
        mixed *= np.uint64(0xBF58476D1CE4E5B9)
        mixed ^= mixed >> np.uint64(32)
        out.append((mixed.astype(np.float64) / 2**64 - 0.5) * np.sqrt(12) * setting.noise)
    return out[0], out[1]


def _spray(setting: Setting, time_s: Samples) -> tuple[Samples, Samples]:
    # The ripple of a rectified three-phase supply, and the slow breathing of the arc's length.
    ripple = np.sin(2 * np.pi * 300 * time_s)
    breath = np.sin(2 * np.pi * 1.7 * time_s + setting.seed)
    amps = setting.current_a * (1 + 0.02 * ripple - 0.01 * breath)
    volts = setting.voltage_v * (1 + 0.006 * ripple + 0.012 * breath)
    return volts, amps


def _short_circuit(setting: Setting, time_s: Samples) -> tuple[Samples, Samples]:
    random = np.random.default_rng(setting.seed)
    # Drops do not fall like clockwork: intervals scatter by a seventh; the row repeats every 20 s.
    intervals = random.normal(1 / SHORTS_HZ, 1 / SHORTS_HZ / 7, int(20 * SHORTS_HZ)).clip(0.006, 0.03)
    starts = np.concatenate(([0.0], np.cumsum(intervals)))
    within = np.mod(time_s, starts[-1])
    since = within - starts[np.searchsorted(starts, within, side="right") - 1]
    short = since < SHORT_S
    climb = np.minimum(since, SHORT_S) / SHORT_S
    fall = np.exp(-np.maximum(since - SHORT_S, 0) / DECAY_S)
    shape = 0.72 + 0.95 * np.where(short, climb, fall)
    amps = setting.current_a * shape / _SHORT_MEAN
    bridge = 1.5 + 0.006 * amps
    burning = setting.voltage_v * 1.27 + DYNAMIC_OHM * (amps - setting.current_a) * 0.5
    return np.where(short, bridge, burning) * 1.0, amps


_SHORT_MEAN = (
    0.72 + 0.95 * (SHORT_S / 2 + DECAY_S * (1 - np.exp(-(1 / SHORTS_HZ - SHORT_S) / DECAY_S))) * SHORTS_HZ
)


def _pulsed(setting: Setting, time_s: Samples) -> tuple[Samples, Samples]:
    peak = setting.current_a * 2.0
    background = (setting.current_a - PEAK_SHARE * peak) / (1 - PEAK_SHARE)
    since = np.mod(time_s, 1 / PULSE_HZ)
    width = PEAK_SHARE / PULSE_HZ
    rising = 1 - np.exp(-since / RISE_S)
    falling = np.exp(-np.maximum(since - width, 0) / RISE_S)
    amps = background + (peak - background) * np.where(since < width, rising, falling)
    return setting.voltage_v + DYNAMIC_OHM * (amps - setting.current_a), amps


def _alternating(setting: Setting, time_s: Samples) -> tuple[Samples, Samples]:
    since = np.mod(time_s, 1 / AC_HZ)
    turn = NEGATIVE_SHARE / AC_HZ
    sign = np.where(since < turn, -1.0, 1.0)
    edge = np.minimum(np.abs(since - turn), np.minimum(since, 1 / AC_HZ - since))
    amps = sign * setting.current_a * np.minimum(edge / CROSSING_S, 1.0)
    # The arc burns a little longer with the electrode positive, and re-ignites with a small spike.
    volts = sign * setting.voltage_v * np.where(sign > 0, 1.15, 0.936)
    return volts, amps
