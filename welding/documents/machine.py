"""The document *machine*: what a power source can deliver, on which supply, and how its dials read."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.language import tr

Family = Literal["stick", "tig", "wire"]
BalanceConvention = Literal["ep-percent", "en-percent", "signed"]


@dataclass(frozen=True, slots=True, kw_only=True)
class DutyPoint:
    """At this current [A] the machine may weld this share of ten minutes [%]."""

    current_a: f.PositiveFloat
    percent: Annotated[float, Field(gt=0, le=100)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Envelope:
    """What the machine delivers for one family of processes. ``duty`` runs over current."""

    family: Family
    current_a: f.CurrentRangeA
    voltage_v: f.VoltageRangeV | None = None
    wire_feed_m_min: f.WireFeedRangeMMin | None = None
    duty: Annotated[tuple[DutyPoint, ...], Field(max_length=12)] = ()

    def __post_init__(self) -> None:
        amps = [point.current_a for point in self.duty]
        if len(set(amps)) != len(amps):
            raise ValueError(tr("the duty cycle names one current twice"))
        ordered = sorted(self.duty, key=lambda point: point.current_a)
        for lower, higher in pairwise(ordered):
            if higher.percent > lower.percent:
                raise ValueError(
                    tr(
                        "the duty cycle rises with current: {percent:g} % at {current_a:g} A, "
                        "{percent2:g} % at {current_a2:g} A",
                        percent=lower.percent,
                        current_a=lower.current_a,
                        percent2=higher.percent,
                        current_a2=higher.current_a,
                    )
                )


@dataclass(frozen=True, slots=True, kw_only=True)
class Supply:
    """One mains supply the machine may be connected to, with what it then delivers."""

    name: f.Name
    envelopes: Annotated[tuple[Envelope, ...], Field(max_length=3)] = ()

    def __post_init__(self) -> None:
        families = [one.family for one in self.envelopes]
        if len(set(families)) != len(families):
            raise ValueError(tr("{name} names a family of processes twice", name=self.name))


@dataclass(frozen=True, slots=True, kw_only=True)
class Meter:
    """A meter of the machine and the dates of its calibration."""

    name: f.Name
    calibrated_on: f.Day | None = None
    due_on: f.Day | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RunOut:
    """Wire run out at one dial setting: length [mm] in a time [s]."""

    setting: Annotated[float, Field(ge=-1000, le=10_000)]
    length_mm: f.LengthMm
    time_s: f.TimeS


@dataclass(frozen=True, slots=True, kw_only=True)
class DialCalibration:
    """Wire feed dial measured by run-out, for one wire."""

    wire: f.Line | None = None
    made_on: f.Day | None = None
    points: Annotated[tuple[RunOut, ...], Field(max_length=30)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class BalanceDial:
    """What the AC balance dial counts.

    ``ep-percent``: % cleaning. ``en-percent``: % electrode negative. ``signed``: around zero, where
    the share negative is ``zero_en_share`` and each step adds ``step_en_share`` (less than zero
    where plus means cleaning).
    """

    convention: BalanceConvention
    zero_en_share: Annotated[float, Field(gt=0, lt=1)] | None = None
    step_en_share: Annotated[float, Field(ge=-0.5, le=0.5)] | None = None

    def __post_init__(self) -> None:
        if self.convention == "signed" and not (self.zero_en_share and self.step_en_share):
            raise ValueError(tr("a signed dial needs its share at zero and its share per step"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Machine:
    """A power source. ``connected`` names the supply it runs on; without it the first one counts."""

    format: Literal["grounded-bead/machine"] = "grounded-bead/machine"
    version: Literal[1] = 1
    name: f.Name
    notes: f.Note | None = None
    supplies: Annotated[tuple[Supply, ...], Field(max_length=6)] = ()
    connected: f.Line | None = None
    meters: Annotated[tuple[Meter, ...], Field(max_length=10)] = ()
    dial: DialCalibration | None = None
    balance_dial: BalanceDial | None = None

    def __post_init__(self) -> None:
        names = [one.name for one in self.supplies]
        if len(set(names)) != len(names):
            raise ValueError(tr("two supplies have the same name"))
        if self.connected is not None and self.connected not in names:
            raise ValueError(
                tr(
                    "it is connected to {connected!r}, which is none of its supplies",
                    connected=self.connected,
                )
            )

    @property
    def supply(self) -> Supply | None:
        """The supply it is connected to; the first one where nothing is said."""
        return next((one for one in self.supplies if one.name == self.connected), None) or (
            self.supplies[0] if self.supplies else None
        )
