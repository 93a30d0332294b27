"""What the screen asks of the core without touching the database: read, evaluate, units, codes."""

from __future__ import annotations

import re
from typing import Literal

from django.http import HttpRequest
from ninja import Router, Schema

from api.documents import BalanceIn, DialIn, ProcedureIn
from api.errors import ProblemOut
from welding.codebook.catalogue import all_editions
from welding.consumables.gas import gas_text, read_gas
from welding.documents.fields import UnitColumn
from welding.documents.machine import BalanceDial
from welding.errors import UnknownEntryError, UnreadableError
from welding.evaluate.procedure import Evaluation, evaluate
from welding.glossary.terms import terms
from welding.language import Usage, tr
from welding.machines.balance import en_share_of
from welding.machines.dial import fit_dial
from welding.quantities.kinds import KINDS
from welding.quantities.reading import PipeReading, read_any, read_quantity, read_range
from welding.quantities.units import us_scale
from welding.quantities.writing import System
from welding.setup.cup import read_cup
from welding.setup.pulse import read_background

router = Router(tags=["core"])


class KindOut(Schema):
    """How a kind of quantity is shown; ``us = us_scale * si + us_offset``."""

    name: str
    unit: str
    us_unit: str
    us_scale: float
    us_offset: float
    decimals: int
    us_decimals: int
    us_fraction: int
    us_fraction_from: float


class CodeOut(Schema):
    """A code that a procedure may be written to."""

    id: str
    title: str
    short: str
    levels: list[int]
    unit_column: UnitColumn
    usage: Usage
    record_word: str
    procedure_word: str
    prequalified: bool


class TermOut(Schema):
    """A term by both usages, and what it means."""

    key: str
    aws: str
    iso: str
    meaning: str


DIAL_SETTING = re.compile(r"^dial\s+(\d+(?:[.,]\d+)?)$", re.IGNORECASE)


class ReadIn(Schema):
    """A text and what it should be."""

    text: str
    kind: str
    as_: Literal["value", "range", "gas", "cup", "background", "balance"] = "value"
    system: System = "si"
    metal: str | None = None
    peak_a: float | None = None
    dial: BalanceIn | None = None
    feed_dial: DialIn | None = None


class ReadOut(Schema):
    """What was understood. One of the groups is filled, by what was asked."""

    value: float | None = None
    min: float | None = None
    max: float | None = None
    components_percent: dict[str, float] | None = None
    outside_diameter_mm: float | None = None
    wall_mm: float | None = None
    understood: str


class EvaluateIn(Schema):
    """A procedure and the unit system of the sentences."""

    document: ProcedureIn
    units: System = "si"


@router.get("/units", response=list[KindOut], auth=None)
def units(request: HttpRequest) -> list[KindOut]:
    """All kinds of quantity with their units and decimals."""
    found = []
    for kind in KINDS.values():
        scale, offset = us_scale(kind)
        found.append(
            KindOut(
                name=kind.name,
                unit=kind.unit,
                us_unit=kind.us_unit,
                us_scale=scale,
                us_offset=offset,
                decimals=kind.decimals,
                us_decimals=kind.us_decimals,
                us_fraction=kind.us_fraction,
                us_fraction_from=kind.us_fraction_from,
            )
        )
    return found


@router.get("/codes", response=list[CodeOut], auth=None)
def codes(request: HttpRequest) -> list[CodeOut]:
    """All code editions."""
    return [
        CodeOut(
            id=one.id,
            title=one.title,
            short=one.short,
            levels=list(one.levels),
            unit_column=one.unit_column,
            usage=one.usage,
            record_word=one.record_word,
            procedure_word=one.procedure_word,
            prequalified=one.prequalified,
        )
        for one in all_editions().values()
    ]


@router.get("/terms", response=list[TermOut], auth=None)
def read_terms(request: HttpRequest) -> list[TermOut]:
    """Every term of the glossary, by American and by ISO usage."""
    return [TermOut(key=one.key, aws=tr(one.aws), iso=tr(one.iso), meaning=one.meaning) for one in terms()]


@router.post("/read", response={200: ReadOut, 422: ProblemOut})
def read(request: HttpRequest, payload: ReadIn) -> ReadOut:
    """Read a quantity, a range or a gas as it was typed."""
    if payload.as_ == "gas":
        shares = read_gas(payload.text)
        return ReadOut(components_percent=shares, understood=gas_text(shares))
    if payload.as_ in ("cup", "background", "balance"):
        return _read_setting(payload)
    kind = KINDS.get(payload.kind)
    if kind is None:
        raise UnknownEntryError(f"{payload.kind} is no kind of quantity")
    setting = DIAL_SETTING.match(payload.text.strip())
    if kind.name == "wire_feed" and setting:
        return _read_feed_dial(payload, float(setting[1].replace(",", ".")))
    shown = kind.unit if payload.system == "si" else kind.us_unit
    if payload.as_ == "range":
        span = read_range(payload.text, kind=kind.name, shown_unit=shown, metal=payload.metal)
        return ReadOut(min=span.min, max=span.max, understood=payload.text.strip())
    found = read_any(payload.text, kind=kind.name, shown_unit=shown, metal=payload.metal)
    if isinstance(found, PipeReading):
        value = found.wall_mm if kind.name == "thickness" else found.outside_diameter_mm
        return ReadOut(
            value=value,
            outside_diameter_mm=found.outside_diameter_mm,
            wall_mm=found.wall_mm,
            understood=found.understood,
        )
    return ReadOut(value=found.value, understood=found.understood)


def _read_feed_dial(payload: ReadIn, setting: float) -> ReadOut:
    """A wire feed as the machine's dial shows it, by the calibration of that machine."""
    if payload.feed_dial is None:
        raise UnreadableError(
            payload.text, tr("no machine with a calibrated dial is named: type the feed, or the run-out")
        )
    feed = fit_dial(payload.feed_dial).feed_at(setting)
    return ReadOut(value=feed, min=feed, max=feed, understood=tr("dial {setting:g}", setting=setting))


def _read_setting(payload: ReadIn) -> ReadOut:
    """A cup's number, a background [A], a share negative: each in its own words."""
    if payload.as_ == "cup":
        cup = read_cup(payload.text)
        return ReadOut(
            value=cup.number, understood=cup.hint or tr("bore {bore_mm:.1f} mm", bore_mm=cup.bore_mm)
        )
    if payload.as_ == "background":
        if payload.peak_a is None or payload.peak_a <= 0:
            raise UnreadableError(payload.text, tr("state the peak current first"))
        amps = read_background(payload.text, peak_a=payload.peak_a)
        return ReadOut(value=amps, understood=f"{amps:g} A")
    dial = payload.dial or BalanceDial(convention="en-percent")
    kind = "number" if dial.convention == "signed" else "percent"
    share = en_share_of(dial, read_quantity(payload.text, kind=kind).value)
    return ReadOut(
        value=share,
        understood=tr(
            "{value:.0f} % negative, {value2:.0f} % cleaning", value=100 * share, value2=100 * (1 - share)
        ),
    )


@router.post("/evaluate", response={200: Evaluation, 422: ProblemOut})
def evaluate_document(request: HttpRequest, payload: EvaluateIn) -> Evaluation:
    """Judge a procedure that is being typed; nothing is stored."""
    return evaluate(payload.document, payload.units)
