"""What the API says of the library."""

from __future__ import annotations

from datetime import datetime

from api.documents import RecordIn
from api.text import Version
from ninja import Schema

from welding.citation import Citation
from welding.consumables.designations.model import Decoded
from welding.documents.chart import SettingsChart
from welding.documents.library import OwnMetal, Product
from welding.documents.machine import Machine
from welding.ranges import Range
from welding.setup.tungsten import TungstenType


class RecordOut(Schema):
    """An own record; one that cannot be read says why."""

    id: int
    kind: str
    name: str
    version: int
    document: Machine | Product | OwnMetal | SettingsChart | None
    damaged: str
    saved_by: str
    saved_at: datetime
    used_in: int
    overdue_meters: list[str] = []


class AddIn(Schema):
    """A new record."""

    document: RecordIn


class SaveRecordIn(Schema):
    """A corrected record, and the version that was opened."""

    version: Version
    document: RecordIn


class UseOut(Schema):
    """A revision that uses something of the library."""

    revision_id: int
    number: str
    letter: str
    title: str
    stage: str
    job: str


class MetalOut(Schema):
    """A grade to pick: what a base metal of a procedure takes over from it; ``own`` is an own record."""

    name: str
    also: list[str]
    standard: str
    family: str
    condition: str
    iso_15608: str
    reason: str
    aws_d1_1: str | None
    yield_mpa: float | None
    yield_steps_mpa: list[tuple[float, float]]
    tensile_mpa: float | None
    chemistry: dict[str, tuple[float, float]]
    magnetic: bool
    citation: Citation
    own: OwnMetal | None = None


class FillerOut(Schema):
    """A filler to pick; ``product`` is the own record where it is one as bought."""

    decoded: Decoded
    metal: str
    said: str
    diameter_mm: float | None
    nominal: str | None
    product: Product | None = None


class CarriedOut(Schema):
    """What one diameter of tungsten carries [A], both published families; empty where none is known."""

    diameter_mm: float
    dcen: list[Range]
    ac: list[Range]
    dcep: list[Range]


class TungstensOut(Schema):
    """Types and currents."""

    types: list[TungstenType]
    oxide: list[CarriedOut]
    pure: list[CarriedOut]
    citation: Citation
