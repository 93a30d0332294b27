"""The document *coupon*: a procedure and what was really welded, pass by pass."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.procedure import (
    BaseMetal,
    Filler,
    GasShares,
    PostHeat,
    Procedure,
    Pwht,
    _whole,
)
from welding.language import tr


@dataclass(frozen=True, slots=True, kw_only=True)
class GasUsed:
    """Shielding gas as used; the flow is a reading."""

    components_percent: GasShares
    flow_l_min: f.FlowReadingLMin | None = None

    def __post_init__(self) -> None:
        _whole(self.components_percent)


@dataclass(frozen=True, slots=True, kw_only=True)
class FitUp:
    """The joint as fitted; the gap closes while tacks cool, so it is measured twice."""

    gap_before_tack_mm: f.GapMm | None = None
    gap_after_tack_mm: f.GapMm | None = None
    root_face_mm: f.GapMm | None = None
    root_face_after_tack_mm: f.GapMm | None = None
    misalignment_mm: f.GapMm | None = None
    cleaning: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class TemperatureReading:
    """A temperature of the piece, where and when it was read."""

    temperature_c: f.TemperatureC
    place: f.Line | None = None
    at: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Batch:
    """A batch of filler or a gas bottle at the booth, with its certificate."""

    kind: Literal["filler", "gas"]
    designation: f.Line | None = None
    batch: f.Line
    certificate: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineUsed:
    """The power source at the booth, and until when its meters are calibrated."""

    name: f.Line
    calibrated_until: f.Day | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """An answer of the checklist before the first arc; ``item`` is an id of the checklist."""

    item: f.Line
    answer: Literal["yes", "no", "does-not-apply"]
    note: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class TreatmentDone:
    """A heat treatment as it was done. ``chart`` names the chart or the file that shows it."""

    kind: Literal["hydrogen-post-heat", "pwht"]
    hold_c: f.TemperatureRangeC | None = None
    hold_min: f.Minutes | None = None
    heating_c_h: f.PositiveFloat | None = None
    cooling_c_h: f.PositiveFloat | None = None
    started_at: f.Line | None = None
    chart: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Flag:
    """Something that happened at this pass and stays on the record; it can only be explained."""

    rule: f.Line
    title: f.Line
    message: f.Note
    at: f.Line | None = None
    explanation: f.Note | None = None
    explained_by: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RecordingRef:
    """The part of a recording that a pass was taken from; ``sha256`` is that of the file as it came."""

    name: f.Line
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    start_s: Annotated[float, Field(ge=-1e9, le=1e9)]
    end_s: Annotated[float, Field(ge=-1e9, le=1e9)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Segment:
    """One stretch of arc within a pass."""

    time_s: f.TimeS
    length_mm: f.LengthMm | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Interpass:
    """How the reading before the pass was taken. A quenched piece has no interpass record."""

    place: f.Line | None = None
    at: f.Line | None = None
    quenched: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class PassRecord:
    """One pass as welded. A field that is absent was as planned.

    Travel comes from ``length_mm`` and ``time_s``, or ``segments`` (their times add up), or a typed
    ``travel_mm_min``; one is enough. ``before_c`` is the piece's temperature before the pass.
    ``time_s`` is arc time, ``elapsed_s`` runs from the first start to the last stop. ``run_out_mm`` is
    the bead length that one covered electrode gave, as a mean; each electrode may be a segment.
    """

    number: Annotated[int, Field(ge=1, le=999)]
    side: Annotated[int, Field(ge=1, le=2)] = 1
    process: f.Process | None = None
    filler: Filler | None = None
    gas: GasUsed | None = None
    polarity: f.Polarity | None = None
    transfer: f.Transfer | None = None
    current_a: f.CurrentReadingA | None = None
    voltage_v: f.VoltageReadingV | None = None
    wire_feed_m_min: f.WireFeedReadingMMin | None = None
    length_mm: f.LengthMm | None = None
    time_s: f.TimeS | None = None
    segments: Annotated[tuple[Segment, ...], Field(max_length=100)] = ()
    travel_mm_min: f.TravelMmMin | None = None
    run_out_mm: f.LengthMm | None = None
    before_c: f.TemperatureC | None = None
    interpass: Interpass | None = None
    deposit_mm: f.GapMm | None = None
    energy_j: f.EnergyJ | None = None
    energy_method: f.EnergyMethod = "mean"
    bead: f.Bead | None = None
    layer: Annotated[int, Field(ge=1, le=200)] | None = None
    welded_by: f.Line | None = None
    elapsed_s: f.TimeS | None = None
    recording: RecordingRef | None = None
    flags: Annotated[tuple[Flag, ...], Field(max_length=40)] = ()
    remarks: f.Note | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class CouponPiece:
    """The test piece and its log. ``length_mm`` is along the weld, ``width_mm`` across both members."""

    product: f.Product = "plate"
    thickness_mm: Annotated[tuple[f.ThicknessMm, ...], Field(max_length=2)] = ()
    outside_diameter_mm: f.DiameterMm | None = None
    length_mm: f.LengthMm | None = None
    width_mm: f.LengthMm | None = None
    weld: f.WeldKind | None = None
    position: f.Position | None = None
    progression: f.Progression | None = None
    base_metals: Annotated[tuple[BaseMetal, ...], Field(max_length=2)] = ()
    ambient_c: f.TemperatureC | None = None
    preheat_c: f.TemperatureC | None = None
    post_heat: PostHeat | None = None
    pwht: Pwht | None = None
    fit_up: FitUp | None = None
    welded_on: f.Day | None = None
    machine: MachineUsed | None = None
    batches: Annotated[tuple[Batch, ...], Field(max_length=40)] = ()
    preheat_readings: Annotated[tuple[TemperatureReading, ...], Field(max_length=60)] = ()
    checklist: Annotated[tuple[Answer, ...], Field(max_length=60)] = ()
    treatments_done: Annotated[tuple[TreatmentDone, ...], Field(max_length=10)] = ()
    passes: Annotated[tuple[PassRecord, ...], Field(max_length=400)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Person:
    """Someone who took part."""

    role: f.Line
    name: f.Line
    organisation: f.Line | None = None
    at: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Coupon:
    """A coupon: the procedure as it was to be welded, the piece, the people."""

    format: Literal["grounded-bead/coupon"] = "grounded-bead/coupon"
    version: Literal[1] = 1
    number: f.Line | None = None
    procedure: Procedure
    coupon: CouponPiece
    people: Annotated[tuple[Person, ...], Field(max_length=50)] = field(default=())

    def __post_init__(self) -> None:
        seen: set[int] = set()
        for one in self.coupon.passes:
            if one.number in seen:
                raise ValueError(tr("pass {number} stands twice in the log", number=one.number))
            seen.add(one.number)
