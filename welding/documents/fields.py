"""Field types that the documents share: plausible quantities, lines of text, enumerations."""

from __future__ import annotations

import unicodedata
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from welding.language import tr
from welding.quantities.kinds import KINDS
from welding.ranges import Range

# --- text -----------------------------------------------------------------------------------


def _no_controls(text: str) -> str:
    for character in text:
        if unicodedata.category(character) in ("Cc", "Cs") and character not in "\n\t":
            raise ValueError(tr("holds the control character U+{ord:04X}", ord=ord(character)))
    return text


Line = Annotated[str, Field(max_length=200), AfterValidator(_no_controls)]
Note = Annotated[str, Field(max_length=4000), AfterValidator(_no_controls)]
Name = Annotated[str, Field(min_length=1, max_length=120), AfterValidator(_no_controls)]
RowId = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,40}$")]


def _iso_date(text: str) -> str:
    try:
        date.fromisoformat(text)
    except ValueError:
        raise ValueError(tr("{text!r} is no date; write it as 2026-03-31", text=text)) from None
    return text


Day = Annotated[str, Field(max_length=10), AfterValidator(_iso_date)]

# --- quantities -----------------------------------------------------------------------------


def _plausible(kind_name: str) -> AfterValidator:
    kind = KINDS[kind_name]

    def check(value: float) -> float:
        if not kind.limits.allows(value):
            raise ValueError(
                tr(
                    "{value:g} {unit} is not plausible for {words}: {text} is taken",
                    value=value,
                    unit=kind.unit,
                    words=kind.words,
                    text=kind.limits.text,
                )
            )
        return value

    return AfterValidator(check)


def _plausible_range(kind_name: str) -> AfterValidator:
    check: Callable[[float], float] = _plausible(kind_name).func  # type: ignore[assignment]

    def both(value: Range) -> Range:
        check(value.min)
        check(value.max)
        return value

    return AfterValidator(both)


LengthMm = Annotated[float, _plausible("length")]
ThicknessMm = Annotated[float, _plausible("thickness")]
DiameterMm = Annotated[float, _plausible("diameter")]
WireDiameterMm = Annotated[float, _plausible("wire_diameter")]
GapMm = Annotated[float, _plausible("gap")]
AngleDeg = Annotated[float, _plausible("angle")]
TemperatureC = Annotated[float, _plausible("temperature")]
TimeS = Annotated[float, _plausible("time")]
TravelMmMin = Annotated[float, _plausible("travel")]
EnergyJ = Annotated[float, _plausible("energy")]
HydrogenMl100g = Annotated[float, _plausible("hydrogen")]
Percent = Annotated[float, Field(ge=0, le=100)]
PositiveFloat = Annotated[float, Field(gt=0, le=1e6)]
Minutes = Annotated[float, Field(ge=0, le=100_000)]

CurrentRangeA = Annotated[Range, _plausible_range("current")]
VoltageRangeV = Annotated[Range, _plausible_range("voltage")]
WireFeedRangeMMin = Annotated[Range, _plausible_range("wire_feed")]
TravelRangeMmMin = Annotated[Range, _plausible_range("travel")]
FlowRangeLMin = Annotated[Range, _plausible_range("flow")]
ExtensionRangeMm = Annotated[Range, _plausible_range("gap")]
ThicknessRangeMm = Annotated[Range, _plausible_range("thickness")]
GapRangeMm = Annotated[Range, _plausible_range("gap")]
RunOutRangeMm = Annotated[Range, _plausible_range("length")]
HeatInputRangeKjMm = Annotated[Range, _plausible_range("heat_input")]
TimeRangeS = Annotated[Range, _plausible_range("time")]
TemperatureRangeC = Annotated[Range, _plausible_range("temperature")]


@dataclass(frozen=True, slots=True)
class Spread:
    """A reading that was watched over a while: its mean, and the ends where they were seen."""

    mean: float
    min: float | None = None
    max: float | None = None

    def __post_init__(self) -> None:
        low = self.mean if self.min is None else self.min
        high = self.mean if self.max is None else self.max
        if not low <= self.mean <= high:
            raise ValueError(
                tr(
                    "mean {mean:g} does not lie between min {low:g} and max {high:g}",
                    mean=self.mean,
                    low=low,
                    high=high,
                )
            )


Reading = float | Spread


def mean_of(reading: Reading) -> float:
    """The mean of a reading, whichever way it was written."""
    return reading.mean if isinstance(reading, Spread) else reading


def ends_of(reading: Reading) -> tuple[float, float]:
    """Lowest and highest value of a reading; its mean where an end was not seen."""
    if not isinstance(reading, Spread):
        return reading, reading
    return (
        reading.mean if reading.min is None else reading.min,
        reading.mean if reading.max is None else reading.max,
    )


def _plausible_reading(kind_name: str) -> AfterValidator:
    check: Callable[[float], float] = _plausible(kind_name).func  # type: ignore[assignment]

    def each(value: Reading) -> Reading:
        for part in (mean_of(value), *ends_of(value)):
            check(part)
        return value

    return AfterValidator(each)


CurrentReadingA = Annotated[Reading, _plausible_reading("current")]
VoltageReadingV = Annotated[Reading, _plausible_reading("voltage")]
WireFeedReadingMMin = Annotated[Reading, _plausible_reading("wire_feed")]
FlowReadingLMin = Annotated[Reading, _plausible_reading("flow")]

# --- enumerations, field terms --------------------------------------------------------------

Process = Literal[
    "111",
    "112",
    "114",
    "121",
    "122",
    "124",
    "125",
    "126",
    "131",
    "132",
    "133",
    "135",
    "136",
    "138",
    "141",
    "142",
    "143",
    "145",
    "146",
    "15",
    "311",
]
JointKind = Literal["butt", "t", "corner", "lap", "edge", "branch"]
WeldKind = Literal["cjp-groove", "pjp-groove", "fillet", "plug", "slot", "build-up"]
PreparationForm = Literal[
    "square",
    "single-v",
    "double-v",
    "single-bevel",
    "double-bevel",
    "single-u",
    "double-u",
    "single-j",
    "double-j",
    "flare-v",
    "flare-bevel",
    "compound-bevel",
]
Position = Literal[
    "PA",
    "PB",
    "PC",
    "PD",
    "PE",
    "PF",
    "PG",
    "PH",
    "PJ",
    "PK",
    "H-L045",
    "J-L045",
    "1G",
    "2G",
    "3G",
    "4G",
    "5G",
    "6G",
    "6GR",
    "1F",
    "2F",
    "3F",
    "4F",
    "5F",
]
Role = Literal["root", "hot", "fill", "cap", "back", "tack"]
Transfer = Literal["short-circuit", "globular", "spray", "pulsed", "controlled-short-circuit"]
Mechanisation = Literal["manual", "partly", "fully", "automatic"]
Polarity = Literal["DCEP", "DCEN", "AC"]
Output = Literal["CC", "CV"]
Progression = Literal["up", "down"]
Bead = Literal["stringer", "weave"]
Sides = Literal["one", "both"]
FaceProfile = Literal["flat", "convex", "concave"]
Backing = Literal["none", "metal", "ceramic", "gas", "weld", "flux"]
Route = Literal["prequalified", "test"]
UnitColumn = Literal["si", "us"]
Product = Literal["plate", "pipe"]
EnergyMethod = Literal["mean", "energy", "power"]
ValueSource = Literal[
    "own-trial", "maker", "handbook", "machine-chart", "estimate", "practice", "record", "code"
]
Condition = Annotated[str, Field(max_length=20), AfterValidator(_no_controls)]
