"""TIG set-up of a proposed pass: tungsten, cup, AC, pulse, slopes, gas times, pedal (common practice)."""

from __future__ import annotations

from typing import Any, Literal

from welding.documents.setup import AcWave, Cup, GasTimes, Pulse, Slopes, Tungsten
from welding.planning.facts import Facts
from welding.ranges import Range
from welding.setup.flow import post_flow_s
from welding.setup.tungsten import carried_current

TUNGSTEN_TYPE = "WLa15"
_SI_TUNGSTENS = (1.0, 1.6, 2.4, 3.2, 4.0, 4.8)
_US_TUNGSTENS = (1.016, 1.588, 2.381, 3.175, 3.969, 4.763)
_CUPS = {1.0: 5, 1.6: 6, 2.4: 8, 3.2: 10, 4.0: 12, 4.8: 12}
EN_SHARE = 0.67
"""A third of the period for cleaning (common practice)."""
PULSE_BELOW_MM = 1.2
PEDAL_TO_MM = 3.5


def tig_set_up(facts: Facts, current: Range, *, ac: bool, root: bool) -> dict[str, Any]:
    """Fields of a TIG pass that go with its current.

    Args:
        facts: What is welded.
        current: Planned current [A].
        ac: Whether it is welded on alternating current.
        root: Whether it is a root, which is not fed by pedal on pipe.
    """
    polarity: Literal["AC", "DCEN"] = "AC" if ac else "DCEN"
    sizes = _US_TUNGSTENS if facts.units == "us" else _SI_TUNGSTENS
    diameter = next(
        (
            size
            for size in sizes
            if (
                carried := carried_current(
                    size,
                    polarity,
                    en_share=EN_SHARE if polarity == "AC" else None,
                )
            )
            and current.max <= carried.widest.max
        ),
        sizes[-1],
    )
    lens = facts.kind in ("stainless", "nickel")
    number = _CUPS[min(_CUPS, key=lambda size: abs(size - diameter))] + (2 if lens else 0)
    fields: dict[str, Any] = {
        "tungsten": Tungsten(
            type=TUNGSTEN_TYPE, diameter_mm=diameter, angle_deg=60.0 if polarity == "AC" else 30.0
        ),
        "cup": Cup(number=number, lens=lens),
        "slopes": Slopes(up_s=0.5, down_s=3.0),
        "gas_times": GasTimes(pre_flow_s=0.5, post_flow_s=round(post_flow_s(current.max))),
        "start": "high-frequency",
    }
    if polarity == "AC":
        fields["ac"] = AcWave(
            frequency_hz=150.0 if facts.thin < 3 else 100.0, en_share=EN_SHARE, waveform="soft-square"
        )
    elif facts.thin < PULSE_BELOW_MM and not facts.pipe:
        fields["pulse"] = _pulse(current)
    if facts.thin <= PEDAL_TO_MM and not facts.pipe and not root and "pulse" not in fields:
        fields["pedal_max_a"] = round(current.middle / 0.6 / 5) * 5.0
    return fields


def _pulse(current: Range) -> Pulse:
    """A slow pulse of the same mean: thin sheet is bridged by it. Peak 40 % of the time."""
    share, background = 0.4, 0.2
    peak = current.middle / (share + (1 - share) * background)
    return Pulse(
        peak_a=round(peak), background_a=round(peak * background), frequency_hz=2.0, peak_share=share
    )
