"""Ranges about a starting point, narrowed until every corner keeps the heat input, the machine, the wire."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from welding.language import tr
from welding.ranges import Range

TOLD_FROM_KJ_MM = 0.005
LEAST_SHARE = 0.3
"""Ranges narrower than this share of the usual ones cannot be held by a welder."""


@dataclass(frozen=True, slots=True, kw_only=True)
class HalfWidths:
    """Usual half widths of ranges, as shares of their middles (common practice)."""

    current: float
    voltage: float
    feed: float
    travel: float


HALF_WIDTHS: dict[str, HalfWidths] = {
    "tig": HalfWidths(current=0.15, voltage=0.10, feed=0.0, travel=0.20),
    "tig-aluminium": HalfWidths(current=0.15, voltage=0.10, feed=0.0, travel=0.20),
    "stick": HalfWidths(current=0.10, voltage=0.08, feed=0.0, travel=0.15),
    "cored-gas": HalfWidths(current=0.18, voltage=0.07, feed=0.14, travel=0.15),
    "cored-metal": HalfWidths(current=0.15, voltage=0.07, feed=0.14, travel=0.15),
    "cored-self": HalfWidths(current=0.18, voltage=0.07, feed=0.14, travel=0.15),
}
PREQUALIFIED_SHARE = 0.09
"""Half width of current and feed of wire that stays within 10 % when its ends are rounded."""
WIRE = HalfWidths(current=0.13, voltage=0.075, feed=0.14, travel=0.15)


@dataclass(frozen=True, slots=True, kw_only=True)
class Middle:
    """Middles of a run."""

    current_a: float
    voltage_v: float
    travel_mm_min: float
    feed_m_min: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Ranges:
    """Ranges of a run, and the limits that collide where they cannot all be kept."""

    current_a: Range
    voltage_v: Range
    travel_mm_min: Range
    feed_m_min: Range | None
    heat_kj_mm: Range
    share: float
    collisions: tuple[str, ...]


def heat_of(current: Range, voltage: Range, travel: Range, k: float) -> Range:
    """Heat input over all corners [kJ/mm]: k · V · I · 60 / (1000 · v)."""
    return Range(
        k * voltage.min * current.min * 0.06 / travel.max, k * voltage.max * current.max * 0.06 / travel.min
    )


def narrowed(
    middle: Middle,
    widths: HalfWidths,
    *,
    k: float,
    window_kj_mm: Range | None,
    current: dict[str, Range],
    voltage: dict[str, Range],
    feed: dict[str, Range],
) -> Ranges:
    """Ranges about a middle that keep every limit in every corner.

    Args:
        middle: The starting point.
        widths: Usual half widths.
        k: Thermal efficiency that the window counts with.
        window_kj_mm: Wanted heat input, or none.
        current: Limits of current by who sets them, such as ``the machine``.
        voltage: Limits of volts likewise.
        feed: Limits of wire feed likewise.

    Returns:
        The ranges; where limits collide they are kept about the middle and the collision is told with
        both limits and by how much.
    """
    share = 1.0
    while True:
        amps = _about(middle.current_a, widths.current * share)
        volts = _about(middle.voltage_v, widths.voltage * share)
        travel = _about(middle.travel_mm_min, widths.travel * share)
        heat = heat_of(amps, volts, travel, k)
        if window_kj_mm is None or (
            heat.min >= window_kj_mm.min - 1e-9 and heat.max <= window_kj_mm.max + 1e-9
        ):
            break
        share -= 0.05
        if share < LEAST_SHARE:
            share = LEAST_SHARE
            break
    collisions = list(_heat_collision(heat, window_kj_mm, middle, k))
    amps, more = _held(amps, current, "A")
    collisions += more
    volts, more = _held(volts, voltage, "V")
    collisions += more
    fed = None
    if middle.feed_m_min is not None:
        fed, more = _held(_about(middle.feed_m_min, widths.feed * share), feed, "m/min")
        collisions += more
    return Ranges(
        current_a=amps,
        voltage_v=volts,
        travel_mm_min=travel,
        feed_m_min=fed,
        heat_kj_mm=heat_of(amps, volts, travel, k),
        share=share,
        collisions=tuple(collisions),
    )


def _about(value: float, share: float) -> Range:
    return Range(value * (1 - share), value * (1 + share))


def _heat_collision(heat: Range, window: Range | None, middle: Middle, k: float) -> Iterator[str]:
    if window is None:
        return
    power = k * middle.current_a * middle.voltage_v * 0.06
    if heat.max > window.max + TOLD_FROM_KJ_MM:
        needed = power / window.max
        yield (
            tr(
                "heat input {max:.2f} kJ/mm at the top corner is {max2:.2f} above the wanted "
                "{max3:.2f}: these amps and volts would need {needed:.0f} mm/min or faster, the "
                "bead gives {travel_mm_min:.0f}",
                max=heat.max,
                max2=heat.max - window.max,
                max3=window.max,
                needed=needed,
                travel_mm_min=middle.travel_mm_min,
            )
        )
    if heat.min < window.min - TOLD_FROM_KJ_MM:
        needed = power / window.min
        yield (
            tr(
                "heat input {min:.2f} kJ/mm at the low corner is {min2:.2f} below the wanted "
                "{min3:.2f}: these amps and volts would need {needed:.0f} mm/min or slower, the "
                "bead gives {travel_mm_min:.0f}",
                min=heat.min,
                min2=window.min - heat.min,
                min3=window.min,
                needed=needed,
                travel_mm_min=middle.travel_mm_min,
            )
        )


def _held(wanted: Range, limits: dict[str, Range], unit: str) -> tuple[Range, list[str]]:
    """The part of a range within all limits; a limit that leaves nothing is told."""
    low, high, told = wanted.min, wanted.max, []
    for who, limit in limits.items():
        if limit.min > high or limit.max < low:
            end, gap = (limit.min, limit.min - high) if limit.min > high else (limit.max, low - limit.max)
            told.append(
                tr(
                    "{who} allows {min:g} to {max:g} {unit}; {low:.3g} to {high:.3g} is needed, "
                    "{gap:.3g} {unit} beyond {end:g}",
                    who=who,
                    min=limit.min,
                    max=limit.max,
                    unit=unit,
                    low=low,
                    high=high,
                    gap=gap,
                    end=end,
                )
            )
            continue
        low, high = max(low, limit.min), min(high, limit.max)
    return Range(low, high), told
