"""Voltage and current of an arc over a tenth of a second, and how it sounds, by mode of metal transfer.

The shapes follow common practice: a bridged arc falls below 10 V while its current rises; drops that fall by
themselves let the voltage wander; a spray is smooth; pulses step between background and peak.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from random import Random
from typing import Literal

from welding.codebook.table import load_table
from welding.language import tr

PACKAGE = "welding.bead"
LASTS_MS, STEP_MS = 120.0, 0.4
Points = tuple[tuple[float, float, float], ...]
Transfer = Literal["short-circuit", "globular", "spray", "pulsed"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ArcSound:
    """How an arc sounds, for a synthesiser; ``caption`` says it in words for whoever does not hear it.

    Attributes:
        clicks_hz: Clicks a second; 0 for none.
        irregular: How unevenly they come, 0 to 1.
        hiss: Level of the hiss, 0 to 1.
        tone_hz: Hum of the pulses [Hz]; 0 for none.
        caption: What is heard.
    """

    clicks_hz: float
    irregular: float
    hiss: float
    tone_hz: float
    caption: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ArcTrace:
    """Voltage and current over time: ms, V, A."""

    points: tuple[tuple[float, float, float], ...]
    sound: ArcSound


def trace_of(
    mode: Transfer,
    lot: Random,
    *,
    rate_hz: float | None = None,
    mean_a: float | None = None,
    mean_v: float | None = None,
) -> ArcTrace:
    """Draw the trace of a mode.

    Args:
        mode: Mode of metal transfer.
        lot: Where its irregularity comes from; the same lot gives the same trace.
        rate_hz: Short circuits, drops or pulses a second; drawn from what is usual where it is not known.
        mean_a: Mean current that the trace has [A]; as drawn where it is not known.
        mean_v: Mean voltage, likewise [V].
    """
    table = load_table(PACKAGE, "arc_sounds")
    row = next(one for one in table.rows if one["mode"] == mode)
    usual = lot.uniform(*row["events_hz"])
    rate = usual if rate_hz is None else rate_hz
    draw = {"short-circuit": _bridged, "globular": _globular, "spray": _smooth, "pulsed": _pulsed}[mode]
    sound = ArcSound(
        clicks_hz=rate if row["clicks"] else 0.0,
        irregular=row["irregular"],
        hiss=row["hiss"],
        tone_hz=rate if row["hum"] else 0.0,
        caption=tr(row["caption"]),
    )
    return ArcTrace(points=_scaled(draw(rate, lot), mean_a, mean_v), sound=sound)


def _scaled(points: Points, mean_a: float | None, mean_v: float | None) -> Points:
    """The same shape around means that are known."""
    volts = sum(one[1] for one in points) / len(points)
    amps = sum(one[2] for one in points) / len(points)
    by_v = mean_v / volts if mean_v else 1.0
    by_a = mean_a / amps if mean_a else 1.0
    return tuple((time, round(v * by_v, 1), round(a * by_a, 0)) for time, v, a in points)


def _times() -> list[float]:
    return [round(step * STEP_MS, 2) for step in range(int(LASTS_MS / STEP_MS))]


def _bridged(rate: float, lot: Random) -> Points:
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


def _globular(rate: float, lot: Random) -> Points:
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


def _smooth(rate: float, lot: Random) -> Points:
    """Fine drops: hardly any ripple."""
    return tuple(
        (
            time,
            round(29 + 0.3 * math.sin(2 * math.pi * rate * time / 1000) + lot.uniform(-0.2, 0.2), 1),
            round(265 + lot.uniform(-4, 4), 0),
        )
        for time in _times()
    )


def _pulsed(rate: float, lot: Random) -> Points:
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
