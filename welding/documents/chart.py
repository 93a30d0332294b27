"""A chart of settings as printed: on a machine's door, in a filler's leaflet, in a handbook."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.language import tr
from welding.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class ChartRow:
    """One line of a chart; no position named: the chart does not tell positions apart."""

    diameter_mm: f.WireDiameterMm
    positions: Annotated[tuple[f.Position, ...], Field(max_length=24)] = ()
    thickness_mm: f.ThicknessRangeMm | None = None
    current_a: f.CurrentRangeA | None = None
    voltage_v: f.VoltageRangeV | None = None
    wire_feed_m_min: f.WireFeedRangeMMin | None = None

    def __post_init__(self) -> None:
        if self.current_a is None and self.voltage_v is None and self.wire_feed_m_min is None:
            raise ValueError(tr("a line of a chart gives amps, volts or wire feed"))


@dataclass(frozen=True, slots=True, kw_only=True)
class SettingsChart:
    """A chart: where it stands, what it is for, and its lines. What it does not say stays empty."""

    format: Literal["grounded-bead/chart"] = "grounded-bead/chart"
    version: Literal[1] = 1
    name: f.Name
    source: f.Line | None = None
    page: f.Line | None = None
    printed_on: f.Day | None = None
    process: f.Process
    designation: f.Name | None = None
    gas: f.Line | None = None
    polarity: f.Polarity | None = None
    notes: f.Note | None = None
    rows: Annotated[tuple[ChartRow, ...], Field(min_length=1, max_length=200)]

    @property
    def title(self) -> str:
        """Name with the page."""
        return tr("{name}, page {page}", name=self.name, page=self.page) if self.page else self.name


QUANTITIES: tuple[tuple[str, str], ...] = (
    ("current_a", "current"),
    ("voltage_v", "voltage"),
    ("wire_feed_m_min", "wire_feed"),
)
"""What charts give: field and kind of quantity."""


def range_of(row: object, field: str) -> Range | None:
    """A range of a line, a pass or a sheet by the name of its field."""
    found = getattr(row, field, None)
    return found if isinstance(found, Range) else None
