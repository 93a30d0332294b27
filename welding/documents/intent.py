"""The document *intent*: six answers from which a whole draft is proposed, and what else is wished."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.chart import SettingsChart
from welding.documents.library import Library
from welding.documents.procedure import Code, Joint, Requirements

OverlapSchool = Literal["third", "half", "two-thirds"]
TrialVerdict = Literal["kept", "rejected"]


@dataclass(frozen=True, slots=True, kw_only=True)
class WishedFiller:
    """Filler that is wished; what is not stated is proposed."""

    designation: f.Line | None = None
    diameter_mm: f.WireDiameterMm | None = None
    nominal: f.Line | None = None
    make: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Trial:
    """A trial on scrap: settings, what was seen, kept or rejected. Kept ones outrank every estimate."""

    process: f.Process
    transfer: f.Transfer | None = None
    filler: WishedFiller = WishedFiller()
    gas: f.Line | None = None
    position: f.Position
    progression: f.Progression | None = None
    thickness_mm: f.ThicknessMm
    metal: f.Line | None = None
    role: f.Role | None = None
    current_a: f.PositiveFloat | None = None
    voltage_v: f.PositiveFloat | None = None
    wire_feed_m_min: f.PositiveFloat | None = None
    travel_mm_min: f.TravelMmMin | None = None
    seen: f.Note | None = None
    verdict: TrialVerdict = "kept"
    made_on: f.Day | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Intent:
    """What is to be joined, where, and how. ``metals`` are names or what people say.

    ``fill_process`` (and its transfer, filler and gas) is for the passes after the root, where they are
    welded otherwise than the root: another process, or the same one with another filler.

    ``heat_input_kj_mm`` and ``t85_s`` are wanted windows. ``machine`` names a machine of the library.
    ``overlap`` is how far each bead laps over the last; it is only drawn and planned with, never
    counted as metal twice.
    """

    format: Literal["grounded-bead/intent"] = "grounded-bead/intent"
    version: Literal[1] = 1
    code: Code | None = None
    metals: Annotated[tuple[f.Line, ...], Field(min_length=1, max_length=2)]
    thickness_mm: Annotated[tuple[f.ThicknessMm, ...], Field(min_length=1, max_length=2)]
    outside_diameter_mm: f.DiameterMm | None = None
    joint: Joint
    position: f.Position
    progression: f.Progression | None = None
    process: f.Process
    transfer: f.Transfer | None = None
    filler: WishedFiller | None = None
    gas: f.Line | None = None
    fill_process: f.Process | None = None
    fill_transfer: f.Transfer | None = None
    fill_filler: WishedFiller | None = None
    fill_gas: f.Line | None = None
    machine: f.Line | None = None
    requirements: Requirements | None = None
    heat_input_kj_mm: f.HeatInputRangeKjMm | None = None
    t85_s: f.TimeRangeS | None = None
    hydrogen_ml_100g: f.HydrogenMl100g | None = None
    overlap: OverlapSchool = "half"
    passes_wanted: Annotated[int, Field(ge=1, le=100)] | None = None
    shelf: Library | None = None
    trials: Annotated[tuple[Trial, ...], Field(max_length=200)] = ()
    charts: Annotated[tuple[SettingsChart, ...], Field(max_length=40)] = ()
