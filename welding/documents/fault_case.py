"""The document *fault case*: what was seen, the pass it was seen on, and what is known around it."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.coupon import PassRecord
from welding.documents.procedure import Procedure
from welding.ranges import Range

Answered = Annotated[dict[Annotated[str, Field(max_length=40)], bool], Field(max_length=300)]
Counted = Annotated[
    dict[Annotated[str, Field(max_length=40)], Annotated[int, Field(ge=0, le=100_000)]], Field(max_length=300)
]

Limits = Annotated[dict[Annotated[str, Field(max_length=40)], Range], Field(max_length=40)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Around:
    """What was measured beside the pass."""

    wind_m_s: Annotated[float, Field(ge=0, le=60)] | None = None
    humidity_percent: f.Percent | None = None
    gas_flow_l_min: f.PositiveFloat | None = None
    gap_mm: f.GapMm | None = None
    purge_oxygen_ppm: Annotated[float, Field(gt=0, le=1e6)] | None = None
    short_circuits_hz: Annotated[float, Field(ge=0, le=2000)] | None = None
    feed_slip_percent: Annotated[float, Field(ge=-100, le=100)] | None = None
    return_drop_v: Annotated[float, Field(ge=0, le=60)] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class FaultCase:
    """A fault and what is known about it.

    ``symptom`` is a row of the table of symptoms, or words. ``index`` is the place of the pass in the
    procedure. ``checklist`` holds answers to the checklist before the arc by its question's id. ``ticked``
    holds quick checks that were made: whether the cause of that row was found. ``cured`` counts what cured
    this symptom in this shop before, by row. ``qualified`` holds ranges that the records of the procedure
    set, by field of the pass (and ``heat_input_kj_mm``).
    """

    format: Literal["grounded-bead/fault-case"] = "grounded-bead/fault-case"
    version: Literal[1] = 1
    symptom: Annotated[str, Field(min_length=1, max_length=200)]
    procedure: Procedure | None = None
    index: Annotated[int, Field(ge=0, le=998)] = 0
    logged: PassRecord | None = None
    around: Around = Around()
    checklist: Answered = field(default_factory=dict)
    ticked: Answered = field(default_factory=dict)
    cured: Counted = field(default_factory=dict)
    qualified: Limits = field(default_factory=dict)
