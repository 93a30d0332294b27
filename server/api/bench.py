"""The bench: small questions to the core about fillers, gases and compositions. Nothing is stored."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field, StringConstraints

from api.errors import ProblemOut
from welding.citation import Citation
from welding.consumables.designations.decode import decode
from welding.consumables.designations.model import Decoded
from welding.consumables.gas import gas_text, read_gas
from welding.consumables.gas_symbol import GasSymbol, TransferModes, gas_symbol, transfer_modes
from welding.errors import AmbiguousError
from welding.metals.catalogue import search
from welding.metals.equivalents import Equivalent, equivalents, looks_like_fractions

router = Router(tags=["bench"])
Text = Annotated[str, StringConstraints(max_length=500)]
Most = Annotated[int, Field(ge=1, le=300)]


class TextIn(Schema):
    """What was typed."""

    text: Text


class ModesOut(Schema):
    """Transfer modes of solid wire on each family of metals."""

    steel: TransferModes
    stainless: TransferModes
    aluminium: TransferModes


class GasOut(Schema):
    """A gas that was understood, or the candidates that it could be."""

    written: str
    components_percent: dict[str, float]
    symbol: GasSymbol | None = None
    modes: ModesOut | None = None
    candidates: list[str] = []
    reason: str = ""


class ChemistryIn(Schema):
    """% by mass by element symbol."""

    chemistry: Annotated[dict[str, float], Field(max_length=40)]


class EquivalentsOut(Schema):
    """Every equivalent; ``hint`` where the composition seems to be typed as fractions."""

    items: list[Equivalent]
    hint: str


@router.post("/bench/decode", response={200: Decoded, 422: ProblemOut})
def decode_filler(request: HttpRequest, payload: TextIn) -> Decoded:
    """What a filler designation says."""
    return decode(payload.text)


@router.post("/bench/gas", response={200: GasOut, 422: ProblemOut})
def name_gas(request: HttpRequest, payload: TextIn) -> GasOut:
    """What a gas is called and what may be welded with it; candidates where it is ambiguous."""
    try:
        shares = read_gas(payload.text)
    except AmbiguousError as error:
        return GasOut(
            written="", components_percent={}, candidates=list(error.candidates), reason=error.reason
        )
    return GasOut(
        written=gas_text(shares),
        components_percent=shares,
        symbol=gas_symbol(shares),
        modes=ModesOut(
            steel=transfer_modes(shares, "steel"),
            stainless=transfer_modes(shares, "stainless"),
            aluminium=transfer_modes(shares, "aluminium"),
        ),
    )


@router.post("/bench/equivalents", response={200: EquivalentsOut, 422: ProblemOut})
def name_equivalents(request: HttpRequest, payload: ChemistryIn) -> EquivalentsOut:
    """Equivalents of a composition."""
    found = equivalents(payload.chemistry)
    hint = "These look like fractions; % is meant." if looks_like_fractions(payload.chemistry) else ""
    return EquivalentsOut(items=list(found), hint=hint)


class MetalOut(Schema):
    """A grade to pick: what a base metal of a procedure takes over from it."""

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


@router.get("/metals", response=list[MetalOut])
def list_metals(
    request: HttpRequest, search_text: Text = "", thickness_mm: float | None = None, most: Most = 12
) -> list[MetalOut]:
    """Grades that people may mean; the yield is that of the thickness, where one is given."""
    return [
        MetalOut(
            name=one.name,
            also=list(one.also),
            standard=one.standard,
            family=one.family,
            condition=one.condition,
            iso_15608=one.iso_15608,
            reason=one.grouped.reason,
            aws_d1_1=one.aws_d1_1,
            yield_mpa=one.yield_at(thickness_mm),
            yield_steps_mpa=list(one.yield_steps_mpa),
            tensile_mpa=one.tensile_mpa,
            chemistry=one.chemistry,
            magnetic=one.magnetic,
            citation=one.citation,
        )
        for one in search(search_text, most=most)
    ]
