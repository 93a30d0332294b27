"""Own records beside the catalogues: fillers as bought, metals of one's own, and what a draft takes along."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.machine import Machine
from welding.language import tr
from welding.metals.equivalents import ELEMENTS
from welding.metals.grouping import Family
from welding.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class MakerRange:
    """What a maker's sheet gives for one diameter, in some positions (none named: in all)."""

    diameter_mm: f.WireDiameterMm
    positions: Annotated[tuple[f.Position, ...], Field(max_length=24)] = ()
    polarity: f.Polarity | None = None
    current_a: f.CurrentRangeA | None = None
    voltage_v: f.VoltageRangeV | None = None
    wire_feed_m_min: f.WireFeedRangeMMin | None = None
    extension_mm: f.ExtensionRangeMm | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Product:
    """A filler as bought: its name, its class, and what its sheet of that date gives."""

    format: Literal["grounded-bead/product"] = "grounded-bead/product"
    version: Literal[1] = 1
    name: f.Name
    designation: f.Name
    sheet_date: f.Day | None = None
    notes: f.Note | None = None
    ranges: Annotated[tuple[MakerRange, ...], Field(max_length=60)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class YieldStep:
    """Minimum yield up to a thickness."""

    up_to_mm: f.ThicknessMm
    yield_mpa: f.PositiveFloat


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnMetal:
    """A grade that the catalogue does not have.

    Chemistry limits are % by mass, least and most. The group of ISO/TR 15608 is computed where the
    standard defines it; ``iso_15608`` is what its owner states.
    """

    format: Literal["grounded-bead/metal"] = "grounded-bead/metal"
    version: Literal[1] = 1
    name: f.Name
    also: Annotated[tuple[f.Name, ...], Field(max_length=10)] = ()
    standard: f.Line | None = None
    family: Family
    condition: f.Condition | None = None
    yield_steps: Annotated[tuple[YieldStep, ...], Field(max_length=12)] = ()
    tensile_mpa: f.PositiveFloat | None = None
    chemistry: dict[f.Line, Range] | None = None
    iso_15608: f.Line | None = None
    source: f.Line | None = None

    def __post_init__(self) -> None:
        tops = [step.up_to_mm for step in self.yield_steps]
        if tops != sorted(set(tops)):
            raise ValueError(tr("the steps of yield go from thin to thick, each thickness once"))
        _limits(self.chemistry or {})


def _limits(chemistry: Mapping[str, Range]) -> None:
    for element, limits in chemistry.items():
        if element not in ELEMENTS:
            raise ValueError(
                tr(
                    "{element} is no element known here: {elements}",
                    element=element,
                    elements=", ".join(ELEMENTS),
                )
            )
        if limits.min < 0 or limits.max > 100:
            raise ValueError(
                tr(
                    "{element} from {min:g} to {max:g} % is no share",
                    element=element,
                    min=limits.min,
                    max=limits.max,
                )
            )
    least = sum(limits.min for limits in chemistry.values())
    if least > 100.05:
        raise ValueError(tr("the least shares sum to {least:g} %, more than 100 %", least=least))


@dataclass(frozen=True, slots=True, kw_only=True)
class Library:
    """Copies of the own records that a procedure uses, so that the document stands for itself.

    Documents carry it as ``shelf``, the name of the field since the first release: signed documents keep it.
    """

    metals: Annotated[tuple[OwnMetal, ...], Field(max_length=4)] = ()
    products: Annotated[tuple[Product, ...], Field(max_length=20)] = ()
    machines: Annotated[tuple[Machine, ...], Field(max_length=6)] = ()

    def __post_init__(self) -> None:
        for words, records in (
            ("metals", self.metals),
            ("products", self.products),
            ("machines", self.machines),
        ):
            names = [one.name for one in records]
            if len(set(names)) != len(names):
                raise ValueError(tr("two {words} have the same name", words=words))
