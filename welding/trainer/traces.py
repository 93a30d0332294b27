"""Voltage and current of an arc over a tenth of a second, and how it sounds, by mode of metal transfer.

The shapes follow common practice: a bridged arc falls below 10 V while its current rises; drops that fall by
themselves let the voltage wander; a spray is smooth; pulses step between background and peak.
"""

from __future__ import annotations

import math
from random import Random

from welding.codebook.table import load_table
from welding.language import tr
from welding.trainer.exercise import Sense, Sound, Trace

LASTS_MS, STEP_MS = 120.0, 0.4


def trace_of(mode: Sense, lot: Random) -> Trace:
    """Draw the trace of a mode.

    Args:
        mode: Mode of metal transfer.
        lot: Where its irregularity comes from; the same lot gives the same trace.
    """
    table = load_table("welding.trainer", "arc_sounds")
    row = next(one for one in table.rows if one["mode"] == mode)
    rate = lot.uniform(*row["events_hz"])
    draw = {"short-circuit": _bridged, "globular": _globular, "spray": _smooth, "pulsed": _pulsed}[mode]
    points = draw(rate, lot)
    sound = Sound(
        clicks_hz=rate if row["clicks"] else 0.0,
        irregular=row["irregular"],
        hiss=row["hiss"],
        tone_hz=rate if row["hum"] else 0.0,
        caption=tr(row["caption"]),
    )
    return Trace(points=points, sound=sound)


def _times() -> list[float]:
    return [round(step * STEP_MS, 2) for step in range(int(LASTS_MS / STEP_MS))]


def _bridged(rate: float, lot: Random) -> tuple[tuple[float, float, float], ...]:
    """Even short circuits: voltage falls, current climbs until the bridge breaks."""
    begins, at = [], lot.uniform(0, 1000 / rate)
    while at < LASTS_MS:
        begins.append((at, lot.uniform(2.0, 3.2)))
        at += 1000 / rate * lot.uniform(0.85, 1.15)
    points, amps = [], 110.0
    for time in _times():
        bridged = any(start <= time < start + lasts for start, lasts in begins)
        amps = min(amps + 70 * STEP_MS, 330) if bridged else 100 + (amps - 100) * math.exp(-STEP_MS / 2.5)
        volts = 2.5 + lot.uniform(-0.4, 0.4) if bridged else 18 + 0.02 * (amps - 100) + lot.uniform(-0.6, 0.6)
        points.append((time, round(volts, 1), round(amps + lot.uniform(-3, 3), 0)))
    return tuple(points)


def _globular(rate: float, lot: Random) -> tuple[tuple[float, float, float], ...]:
    """Large drops that grow and fall unevenly; now and then one touches."""
    falls, at = [], lot.uniform(0, 1000 / rate)
    while at < LASTS_MS:
        falls.append((at, lot.random() < 0.3))
        at += 1000 / rate * lot.uniform(0.4, 1.6)
    points = []
    for time in _times():
        since = min((time - start for start, _ in falls if start <= time), default=time)
        touch = any(touches and start <= time < start + 1.6 for start, touches in falls)
        volts = 5.0 if touch else 28 - min(since, 40) * 0.12 + lot.uniform(-1.2, 1.2)
        amps = 290 if touch else 210 + min(since, 40) * 0.6 + lot.uniform(-9, 9)
        points.append((time, round(volts, 1), round(amps, 0)))
    return tuple(points)


def _smooth(rate: float, lot: Random) -> tuple[tuple[float, float, float], ...]:
    """Fine drops: hardly any ripple."""
    return tuple(
        (
            time,
            round(29 + 0.3 * math.sin(2 * math.pi * rate * time / 1000) + lot.uniform(-0.2, 0.2), 1),
            round(265 + lot.uniform(-4, 4), 0),
        )
        for time in _times()
    )


def _pulsed(rate: float, lot: Random) -> tuple[tuple[float, float, float], ...]:
    """Even steps between background and peak."""
    period, peak = 1000 / rate, 2.2
    return tuple(
        (
            time,
            round((31.5 if time % period < peak else 20.5) + lot.uniform(-0.4, 0.4), 1),
            round((420 if time % period < peak else 70) + lot.uniform(-5, 5), 0),
        )
        for time in _times()
    )
