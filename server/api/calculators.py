"""Calculators: small questions to the core about fillers, gases and compositions. Nothing is stored."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field, StringConstraints

from api.errors import ProblemOut
from welding.consumables.designations.decode import decode
from welding.consumables.designations.model import Decoded
from welding.consumables.gas import gas_text, read_gas
from welding.consumables.gas_symbol import GasSymbol, TransferModes, gas_symbol, transfer_modes
from welding.errors import AmbiguousError
from welding.language import tr
from welding.metals.equivalents import Equivalent, equivalents, looks_like_fractions

router = Router(tags=["calculators"])
Text = Annotated[str, StringConstraints(max_length=500)]


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


@router.post("/calculators/decode", response={200: Decoded, 422: ProblemOut})
def decode_filler(request: HttpRequest, payload: TextIn) -> Decoded:
    """What a filler designation says."""
    return decode(payload.text)


@router.post("/calculators/gas", response={200: GasOut, 422: ProblemOut})
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


@router.post("/calculators/equivalents", response={200: EquivalentsOut, 422: ProblemOut})
def name_equivalents(request: HttpRequest, payload: ChemistryIn) -> EquivalentsOut:
    """Equivalents of a composition."""
    found = equivalents(payload.chemistry)
    hint = tr("These look like fractions; % is meant.") if looks_like_fractions(payload.chemistry) else ""
    return EquivalentsOut(items=list(found), hint=hint)
