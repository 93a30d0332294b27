"""The document *bead settings*: one pass with one value for all that is set, to be tried before the arc."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.procedure import GasShares
from welding.documents.setup import AcWave, Cup, Pulse, Tungsten

BeadJoint = Literal["plate", "fillet", "butt"]
Surroundings = Annotated[float, Field(ge=-60, le=600)]


@dataclass(frozen=True, slots=True, kw_only=True)
class BeadSettings:
    """Settings at the arc, and what it burns on.

    ``joint``: a bead on plate, a fillet, or the root of a butt with ``root_gap_mm``, ``root_face_mm`` and
    the ``included_angle_deg`` of its groove.
    ``current_a`` of an AC or a pulsed arc is the mean without its sign. ``torch_angle_deg`` is positive where
    the torch pushes, negative where it drags. ``start_c`` is the metal's temperature before the pass.
    ``feed_filler`` is false where a TIG pass is welded without filler.
    """

    format: Literal["grounded-bead/bead-settings"] = "grounded-bead/bead-settings"
    version: Literal[1] = 1
    process: f.Process
    metal: f.Line
    thickness_mm: f.ThicknessMm
    joint: BeadJoint = "plate"
    root_gap_mm: f.GapMm | None = None
    root_face_mm: f.GapMm | None = None
    included_angle_deg: Annotated[f.AngleDeg, Field(lt=180)] | None = None
    backing: bool = False
    position: f.Position | None = None
    progression: f.Progression | None = None
    transfer: f.Transfer | None = None
    polarity: f.Polarity | None = None
    filler: f.Line | None = None
    diameter_mm: f.WireDiameterMm | None = None
    feed_filler: bool = True
    gas: GasShares | None = None
    gas_flow_l_min: f.PositiveFloat | None = None
    nozzle_mm: f.PositiveFloat | None = None
    cup: Cup | None = None
    trailing_shield: bool = False
    purge_oxygen_ppm: Annotated[float, Field(gt=0, le=1e6)] | None = None
    current_a: f.PositiveFloat | None = None
    voltage_v: f.PositiveFloat | None = None
    wire_feed_m_min: f.PositiveFloat | None = None
    travel_mm_min: f.TravelMmMin | None = None
    extension_mm: f.PositiveFloat | None = None
    inductance_percent: f.Percent | None = None
    torch_angle_deg: Annotated[float, Field(ge=-60, le=60)] | None = None
    weave_mm: f.GapMm | None = None
    start_c: Surroundings = 20.0
    pulse: Pulse | None = None
    ac: AcWave | None = None
    tungsten: Tungsten | None = None
    post_flow_s: Annotated[float, Field(ge=0, le=600)] | None = None
    length_mm: f.LengthMm | None = None
