"""The set-up of a pass: pulse, AC, tungsten, cup, slopes, gas times, feeder. All of it as planned."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.language import tr

Waveform = Literal["sine", "soft-square", "square", "triangle"]
ArcStart = Literal["high-frequency", "lift", "scratch"]
Trigger = Literal["hold", "latched"]
DriveRolls = Literal["v", "u", "knurled"]
Seconds = Annotated[float, Field(ge=0, le=600)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Pulse:
    """Rectangular pulse; ``peak_share`` is the share of the period at peak."""

    peak_a: f.PositiveFloat
    background_a: f.PositiveFloat
    frequency_hz: f.PositiveFloat | None = None
    peak_share: Annotated[float, Field(gt=0, le=1)] | None = None
    peak_v: f.PositiveFloat | None = None
    background_v: f.PositiveFloat | None = None

    def __post_init__(self) -> None:
        if self.background_a > self.peak_a:
            raise ValueError(
                tr(
                    "background {background_a:g} A is above peak {peak_a:g} A",
                    background_a=self.background_a,
                    peak_a=self.peak_a,
                )
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class AcWave:
    """AC wave; ``en_share`` is the share of the period with the electrode negative.

    ``amplitude_ratio`` is the height of the negative part over that of the positive one.
    """

    frequency_hz: f.PositiveFloat | None = None
    en_share: Annotated[float, Field(gt=0, lt=1)] | None = None
    waveform: Waveform | None = None
    amplitude_ratio: Annotated[float, Field(ge=0.1, le=10)] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Tungsten:
    """Tungsten electrode, type by ISO 6848 or AWS A5.12; ``tip_mm`` is the flat ground on the point."""

    type: f.Line | None = None
    diameter_mm: f.WireDiameterMm | None = None
    angle_deg: f.AngleDeg | None = None
    tip_mm: f.GapMm | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Cup:
    """Gas cup; ``number`` counts sixteenths of an inch of bore."""

    number: Annotated[int, Field(ge=2, le=30)]
    lens: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Flux:
    """Flux of submerged arc welding, by ISO 14174 or the flux part of an AWS class."""

    designation: f.Line | None = None
    make: f.Line | None = None
    batch: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class OneElectrode:
    """Settings of one of several electrodes: amperes, polarity, angles.

    Angles count from a right angle to the work: ``angle_deg`` along the weld, positive where the tip points
    in the direction of travel; ``across_deg`` across it.
    """

    current_a: f.CurrentRangeA | None = None
    polarity: f.Polarity | None = None
    angle_deg: Annotated[float, Field(ge=-60, le=60)] | None = None
    across_deg: Annotated[float, Field(ge=-60, le=60)] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Electrodes:
    """Wires that burn in one pool: how many, and how far apart along the weld and across it.

    The amperes of the pass are those of all of them together; the wire feed is that of each. ``each`` holds
    the settings of the electrodes by themselves, the leading one first.
    """

    count: Annotated[int, Field(ge=1, le=6)] = 1
    spacing_mm: f.GapMm | None = None
    offset_mm: f.GapMm | None = None
    each: Annotated[tuple[OneElectrode, ...], Field(max_length=6)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Slopes:
    """How the arc begins and ends: start current, time up, time down, current at the end."""

    start_a: f.PositiveFloat | None = None
    up_s: Seconds | None = None
    down_s: Seconds | None = None
    finish_a: f.PositiveFloat | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class GasTimes:
    """Gas before the arc and after it."""

    pre_flow_s: Seconds | None = None
    post_flow_s: Seconds | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Feeder:
    """What guides the wire: rolls, liner, bore of the contact tip, inductance of the source."""

    rolls: DriveRolls | None = None
    liner: f.Line | None = None
    contact_tip_mm: f.WireDiameterMm | None = None
    inductance_percent: f.Percent | None = None
