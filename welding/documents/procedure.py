"""The document *procedure*: what is to be welded, and how. Missing data stays missing (``None``)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.library import Library
from welding.documents.setup import (
    AcWave,
    ArcStart,
    Cup,
    Electrodes,
    Feeder,
    Flux,
    GasTimes,
    Pulse,
    Slopes,
    Trigger,
    Tungsten,
)
from welding.language import tr
from welding.metals.equivalents import require_chemistry


@dataclass(frozen=True, slots=True, kw_only=True)
class Code:
    """The code in force. ``level`` is ISO 15614-1's; ``route`` and ``units`` matter to AWS D1.1."""

    id: f.Line
    level: Annotated[int, Field(ge=1, le=2)] | None = None
    units: f.UnitColumn = "si"
    route: f.Route = "test"


@dataclass(frozen=True, slots=True, kw_only=True)
class ImpactRequirement:
    """Impact energy asked for at a temperature."""

    temperature_c: f.TemperatureC
    average_j: f.PositiveFloat


@dataclass(frozen=True, slots=True, kw_only=True)
class AgreedHardness:
    """Maximum hardness that the parties agreed before the test, where the code leaves it to them.

    It counts once it is complete: the value, with whom it was agreed, and when.
    """

    max_hv10: Annotated[float, Field(ge=100, le=1000)] | None = None
    agreed_with: f.Line | None = None
    agreed_on: f.Day | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Requirements:
    """``None``: the code's own trigger decides; ``True`` or an object: asked for; ``False``: not."""

    impact: ImpactRequirement | bool | None = None
    hardness: bool | None = None
    hardness_limit: AgreedHardness | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Groups:
    """Material groups: ISO/TR 15608 such as ``1.2``, AWS D1.1 such as ``II``."""

    iso_15608: f.Line | None = None
    aws_d1_1: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ImpactValue:
    """Impact energy that a metal's standard guarantees at a temperature."""

    temperature_c: f.TemperatureC
    energy_j: f.PositiveFloat


@dataclass(frozen=True, slots=True, kw_only=True)
class Certificate:
    """A heat's certificate: its number, and the properties that were measured."""

    number: f.Line | None = None
    kind: f.Line | None = None
    issued_on: f.Day | None = None
    yield_mpa: f.PositiveFloat | None = None
    tensile_mpa: f.PositiveFloat | None = None
    elongation_percent: f.Percent | None = None
    impact: ImpactValue | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class BaseMetal:
    """One of the members joined.

    ``elongation_percent`` is the specified minimum, by which bend formers are chosen. ``chemistry`` is that
    of the heat, % by mass by element symbol. ``identified_by`` names the
    evidence: certificate, mark, magnet, spark, analyser.
    """

    designation: f.Line | None = None
    standard: f.Line | None = None
    condition: f.Condition | None = None
    groups: Groups | None = None
    yield_mpa: f.PositiveFloat | None = None
    tensile_mpa: f.PositiveFloat | None = None
    elongation_percent: f.Percent | None = None
    impact: ImpactValue | None = None
    thickness_mm: f.ThicknessMm | None = None
    outside_diameter_mm: f.DiameterMm | None = None
    chemistry: dict[f.Line, f.Percent] | None = None
    heat: f.Line | None = None
    certificate: Certificate | None = None
    identified_by: f.Line | None = None
    magnet_sticks: bool | None = None

    def __post_init__(self) -> None:
        require_chemistry(self.chemistry or {})


@dataclass(frozen=True, slots=True, kw_only=True)
class PreparedSide:
    """One bevelled side of a preparation; ``radius_mm`` is a U's or J's root radius, a flare's outside."""

    angle_deg: f.AngleDeg | None = None
    depth_mm: f.GapMm | None = None
    radius_mm: f.GapMm | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Preparation:
    """Edge preparation. ``included_angle_deg`` is between both faces, ``root_face_mm`` the land.

    ``sides`` are front and back of a double form, lower and upper flank of a compound bevel; their
    angles are included angles too. ``gap_allowed_mm`` is what the gap may be when it is measured again
    after tacking.
    """

    form: f.PreparationForm
    included_angle_deg: Annotated[f.AngleDeg, Field(lt=180)] | None = None
    root_gap_mm: f.GapMm | None = None
    root_face_mm: f.GapMm | None = None
    gap_allowed_mm: f.GapRangeMm | None = None
    sides: Annotated[tuple[PreparedSide, ...], Field(max_length=2)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Joint:
    """The joint. Legs and throat are a fillet's; ``leg1_mm`` lies on the first base metal.

    On a T groove ``leg1_mm`` is the fillet that reinforces it. ``dihedral_deg`` is the angle between
    the members of a skewed joint. ``face_height_mm`` is the crown, or the hollow, of a fillet's face.
    ``length_mm`` is the weld's length, for consumption and time.
    """

    kind: f.JointKind
    weld: f.WeldKind
    preparation: Preparation | None = None
    sides: f.Sides = "one"
    backing: f.Backing = "none"
    back_gouge: bool = False
    leg1_mm: f.GapMm | None = None
    leg2_mm: f.GapMm | None = None
    throat_mm: f.GapMm | None = None
    reinforcement_mm: f.GapMm | None = None
    branch_angle_deg: f.AngleDeg | None = None
    dihedral_deg: f.AngleDeg | None = None
    face: f.FaceProfile | None = None
    face_height_mm: f.GapMm | None = None
    length_mm: f.LengthMm | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class PostHeat:
    """Hydrogen post-heat straight after welding."""

    temperature_c: f.TemperatureC
    hold_min: f.Minutes


@dataclass(frozen=True, slots=True, kw_only=True)
class Pwht:
    """Post-weld heat treatment as planned."""

    kind: f.Line
    hold_c: f.TemperatureRangeC | None = None
    hold_min: f.Minutes | None = None
    heating_c_h: f.PositiveFloat | None = None
    cooling_c_h: f.PositiveFloat | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Thermal:
    """Temperatures around the welding, and the heat input that is wanted per pass.

    ``preheat_reason``: why less preheat than the code's table for prequalified work is enough, where a
    tested record proves it.
    """

    preheat_min_c: f.TemperatureC | None = None
    preheat_reason: f.Line | None = None
    interpass_max_c: f.TemperatureC | None = None
    heat_input_kj_mm: f.HeatInputRangeKjMm | None = None
    hydrogen_ml_100g: f.HydrogenMl100g | None = None
    post_heat: PostHeat | None = None
    pwht: Pwht | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Filler:
    """Filler. ``nominal`` keeps the trade size as said; ``diameter_mm`` is the true one."""

    designation: f.Line | None = None
    diameter_mm: f.WireDiameterMm | None = None
    nominal: f.Line | None = None
    make: f.Line | None = None
    batch: f.Line | None = None


GasShares = dict[Literal["Ar", "He", "CO2", "O2", "H2", "N2", "NO"], f.Percent]


def _whole(components: Mapping[Any, float]) -> None:
    total = sum(components.values())
    if abs(total - 100) > 0.05:
        raise ValueError(tr("the components sum to {total:g} %, not to 100 %", total=total))


@dataclass(frozen=True, slots=True, kw_only=True)
class Gas:
    """Shielding gas as planned, % by volume."""

    components_percent: GasShares
    flow_l_min: f.FlowRangeLMin | None = None

    def __post_init__(self) -> None:
        _whole(self.components_percent)


@dataclass(frozen=True, slots=True, kw_only=True)
class Purge:
    """Gas behind the root, and the oxygen it must fall below."""

    components_percent: GasShares
    flow_l_min: f.FlowRangeLMin | None = None
    oxygen_ppm: Annotated[float, Field(ge=0, le=1e6)] | None = None

    def __post_init__(self) -> None:
        _whole(self.components_percent)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pass:
    """One pass as planned. ``sources`` says where a value comes from, by field path.

    ``id`` is what a pass is known by while others come and go (``identity``); ``number`` says its place.

    ``layer`` counts from the root within a side; where a side's passes do not all state it, the beads
    are arranged by their natural shape.

    ``machine`` names a machine of the procedure's library; ``pedal_max_a`` is what the machine is set
    to where a pedal takes the current below it. ``bead_area_mm2`` locks the bead's section; the other
    beads of its side share the rest. ``deposit_mm`` is the thickness that the pass adds to the joint.
    """

    id: f.RowId | None = None
    number: Annotated[int, Field(ge=1, le=999)]
    side: Annotated[int, Field(ge=1, le=2)] = 1
    role: f.Role = "fill"
    layer: Annotated[int, Field(ge=1, le=100)] | None = None
    process: f.Process
    mechanisation: f.Mechanisation | None = None
    transfer: f.Transfer | None = None
    filler: Filler | None = None
    flux: Flux | None = None
    electrodes: Electrodes | None = None
    gas: Gas | None = None
    purge: Purge | None = None
    polarity: f.Polarity | None = None
    output: f.Output | None = None
    current_a: f.CurrentRangeA | None = None
    voltage_v: f.VoltageRangeV | None = None
    wire_feed_m_min: f.WireFeedRangeMMin | None = None
    travel_mm_min: f.TravelRangeMmMin | None = None
    run_out_mm: f.RunOutRangeMm | None = None
    progression: f.Progression | None = None
    bead: f.Bead | None = None
    weave_max_mm: f.GapMm | None = None
    bead_area_mm2: Annotated[float, Field(gt=0, le=5000)] | None = None
    deposit_mm: f.GapMm | None = None
    extension_mm: f.ExtensionRangeMm | None = None
    pulse: Pulse | None = None
    ac: AcWave | None = None
    tungsten: Tungsten | None = None
    cup: Cup | None = None
    slopes: Slopes | None = None
    gas_times: GasTimes | None = None
    start: ArcStart | None = None
    trigger: Trigger | None = None
    pedal_max_a: f.PositiveFloat | None = None
    feeder: Feeder | None = None
    machine: f.Line | None = None
    notes: f.Note | None = None
    sources: dict[f.Line, f.ValueSource] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class OpenRange:
    """A range whose ends may be open; ``None`` is no limit."""

    min: Annotated[float, Field(ge=0, le=100_000)] | None = None
    max: Annotated[float, Field(ge=0, le=100_000)] | None = None

    def __post_init__(self) -> None:
        if self.min is not None and self.max is not None and self.min > self.max:
            raise ValueError(tr("min {min:g} is above max {max:g}", min=self.min, max=self.max))


@dataclass(frozen=True, slots=True, kw_only=True)
class AppliesTo:
    """What a procedure may be used for in production, beyond the joint that it is drawn for.

    ``base_metals`` are the qualified pairs in words; ``records`` are the numbers that support it.
    """

    thickness_mm: OpenRange | None = None
    outside_diameter_mm: OpenRange | None = None
    throat_mm: OpenRange | None = None
    base_metals: Annotated[tuple[f.Line, ...], Field(max_length=60)] = ()
    records: Annotated[tuple[f.Line, ...], Field(max_length=20)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Site:
    """Where it is welded; the wind is what is expected at the joint."""

    place: Literal["indoors", "outdoors"] | None = None
    wind_m_s: Annotated[float, Field(ge=0, le=60)] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Procedure:
    """A welding procedure, draft or whole. Passes are numbered 1, 2, 3 … in welding order."""

    format: Literal["grounded-bead/procedure"] = "grounded-bead/procedure"
    version: Literal[1] = 1
    number: f.Line | None = None
    revision: f.Line | None = None
    title: f.Line | None = None
    code: Code | None = None
    requirements: Requirements | None = None
    base_metals: Annotated[tuple[BaseMetal, ...], Field(max_length=2)] = ()
    joint: Joint | None = None
    positions: Annotated[tuple[f.Position, ...], Field(max_length=12)] = ()
    thermal: Thermal | None = None
    applies_to: AppliesTo | None = None
    site: Site | None = None
    shelf: Library | None = None
    passes: Annotated[tuple[Pass, ...], Field(max_length=200)] = ()
    notes: f.Note | None = None

    def __post_init__(self) -> None:
        numbers = [one.number for one in self.passes]
        if numbers != list(range(1, len(numbers) + 1)):
            raise ValueError(
                tr("passes are numbered {numbers}; number them 1, 2, 3 … in order", numbers=numbers[:12])
            )
