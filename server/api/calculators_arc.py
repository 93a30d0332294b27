"""Calculators, arc side: pulse and AC waves, run-out and dial, balance, cups and flow. Nothing is stored."""

from __future__ import annotations

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from api.calculators import Text
from api.documents import BalanceIn, DialIn
from api.errors import ProblemOut
from welding.citation import Citation
from welding.documents.setup import Waveform
from welding.heat.ac import AcMeans, ac_wave
from welding.heat.pulse import PulseMeans, rectangular_pulse
from welding.machines.balance import en_share_of, reading_of
from welding.machines.dial import DialFit, DialPoint, fit_dial
from welding.ranges import Range
from welding.setup.cup import cup_advice, read_cup
from welding.setup.fields import fields_of
from welding.setup.flow import flow_advice
from welding.setup.pulse import PulseSchool, pulse_schools, read_background

router = Router(tags=["calculators"])
REFUSED: dict[Any, Any] = {422: ProblemOut}
Number = Annotated[float, Field(ge=-1e9, le=1e9, allow_inf_nan=False)]


class PulseIn(Schema):
    """A pulse as typed: the background in A or as a share of the peak."""

    peak_a: Number
    background: Text
    peak_share: Number
    frequency_hz: Number | None = None
    peak_v: Number | None = None
    background_v: Number | None = None


class PulseOut(Schema):
    """Its means, and its corners over three periods (ms, A)."""

    background_a: float
    means: PulseMeans
    peak_ms: float | None
    background_ms: float | None
    points: list[tuple[float, float]]


@router.get("/pulse-schools", response=list[PulseSchool])
def list_schools(request: HttpRequest) -> list[PulseSchool]:
    """Both schools of TIG pulse."""
    return list(pulse_schools())


@router.post("/calculators/pulse", response={200: PulseOut, **REFUSED})
def pulse(request: HttpRequest, payload: PulseIn) -> PulseOut:
    """Means and shape of a rectangular pulse."""
    background = read_background(payload.background, peak_a=payload.peak_a)
    means = rectangular_pulse(
        peak_a=payload.peak_a,
        background_a=background,
        peak_share=payload.peak_share,
        peak_v=payload.peak_v,
        background_v=payload.background_v,
    )
    period = 1000 / payload.frequency_hz if payload.frequency_hz and payload.frequency_hz > 0 else None
    one = period or 1.0
    points = []
    for n in range(3):
        start, turn, end = n * one, (n + payload.peak_share) * one, (n + 1) * one
        points += [(start, payload.peak_a), (turn, payload.peak_a), (turn, background), (end, background)]
    return PulseOut(
        background_a=background,
        means=means,
        peak_ms=period * payload.peak_share if period else None,
        background_ms=period * (1 - payload.peak_share) if period else None,
        points=points,
    )


class AcIn(Schema):
    """An AC wave; the balance as the dial shows it."""

    en_a: Number
    balance: Number
    dial: BalanceIn
    frequency_hz: Number
    waveform: Waveform = "square"
    amplitude_ratio: Number = 1.0
    en_v: Number | None = None
    ep_v: Number | None = None


class ReadingOut(Schema):
    """The same balance on the other dials."""

    en_percent: float
    ep_percent: float


class AcOut(Schema):
    """Share negative, the same in per cent both ways, and the wave's means."""

    en_share: float
    readings: ReadingOut
    wave: AcMeans


@router.post("/calculators/ac", response={200: AcOut, **REFUSED})
def ac(request: HttpRequest, payload: AcIn) -> AcOut:
    """Means and shape of an AC wave."""
    share = en_share_of(payload.dial, payload.balance)
    wave = ac_wave(
        en_a=payload.en_a,
        en_share=share,
        frequency_hz=payload.frequency_hz,
        waveform=payload.waveform,
        amplitude_ratio=payload.amplitude_ratio,
        en_v=payload.en_v,
        ep_v=payload.ep_v,
    )
    return AcOut(
        en_share=share,
        readings=ReadingOut(en_percent=100 * share, ep_percent=100 * (1 - share)),
        wave=wave,
    )


class BalanceReadIn(Schema):
    """A dial's reading, or a share negative to find on it."""

    dial: BalanceIn
    reading: Number | None = None
    en_share: Number | None = None


class BalanceOut(Schema):
    """Share negative and the dial's reading."""

    en_share: float
    reading: float


@router.post("/calculators/balance", response={200: BalanceOut, **REFUSED})
def balance(request: HttpRequest, payload: BalanceReadIn) -> BalanceOut:
    """Turn a dial's reading into the share negative, or back."""
    if payload.reading is not None:
        share = en_share_of(payload.dial, payload.reading)
    else:
        share = payload.en_share if payload.en_share is not None else 0.5
        en_share_of(payload.dial, reading_of(payload.dial, share))
    return BalanceOut(en_share=share, reading=reading_of(payload.dial, share))


class RunOutIn(Schema):
    """A dial's run-outs, and a feed to find."""

    dial: DialIn
    feed_m_min: Number | None = None
    setting: Number | None = None


class RunOutOut(Schema):
    """The fit, and the answer to what was asked."""

    fit: DialFit
    points: list[DialPoint]
    residuals_m_min: list[float]
    setting: float | None
    feed_m_min: float | None


@router.post("/calculators/dial", response={200: RunOutOut, **REFUSED})
def dial(request: HttpRequest, payload: RunOutIn) -> RunOutOut:
    """Fit a wire feed dial; asked feed to setting, and back."""
    fit = fit_dial(payload.dial)
    return RunOutOut(
        fit=fit,
        points=list(fit.points),
        residuals_m_min=[one.residual_m_min for one in fit.points],
        setting=fit.setting_for(payload.feed_m_min) if payload.feed_m_min is not None else None,
        feed_m_min=fit.feed_at(payload.setting) if payload.setting is not None else None,
    )


class CupIn(Schema):
    """A cup as typed, and what is around it."""

    text: Text
    lens: bool = False
    ac: bool = False
    helium_percent: Annotated[float, Field(ge=0, le=100)] = 0


class CupOut(Schema):
    """The cup, and what goes with it."""

    number: int
    bore_mm: float
    hint: str
    flow_l_min: Range | None
    tungsten_mm: Range | None
    citation: Citation | None


@router.post("/calculators/cup", response={200: CupOut, **REFUSED})
def cup(request: HttpRequest, payload: CupIn) -> CupOut:
    """Read a TIG cup, and say which flow and tungsten go with it."""
    found = read_cup(payload.text)
    advice = cup_advice(found.number, lens=payload.lens)
    flow = flow_advice(
        "141",
        {"Ar": 100 - payload.helium_percent, "He": payload.helium_percent},
        cup_number=found.number,
        lens=payload.lens,
        ac=payload.ac,
    )
    return CupOut(
        number=found.number,
        bore_mm=found.bore_mm,
        hint=found.hint,
        flow_l_min=flow.usual if flow else None,
        tungsten_mm=advice.tungsten_mm if advice else None,
        citation=advice.citation if advice else None,
    )


@router.get("/setup-fields", response=list[str])
def list_setup_fields(
    request: HttpRequest, process: Text, polarity: Text | None = None, transfer: Text | None = None
) -> list[str]:
    """Paths of those fields of a pass that only some processes have, and this one does."""
    return list(fields_of(process, polarity, transfer))
