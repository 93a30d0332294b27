"""The fault finder: symptoms, their causes on a pass, and what cured them in this shop."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from api.errors import ProblemOut
from api.people import person
from api.text import Line
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Query, Router, Status

from apps.accounts.permissions import Action, require
from apps.coupons.models import PassLog
from apps.faults.models import Cure, UnknownSymptom
from apps.faults.queries import coupon_of_pass, cured_here, waveform_of_pass
from apps.faults.schemas import (
    CauseOut,
    CausesIn,
    CausesOut,
    FaultFactOut,
    FaultKeptOut,
    FaultRemedyOut,
    FoundCureIn,
    FoundCureOut,
    GroupOut,
    PassKnownOut,
    SettleIn,
    StrikeCureIn,
    SymptomOut,
    SymptomsOut,
    WordsIn,
    WordsOut,
)
from apps.faults.services.keep import keep_cure, keep_words, settle_words, strike_cure
from apps.procedures.models import Revision
from welding.bead.from_procedure import limits_of
from welding.documents.codec import BEAD_SETTINGS
from welding.documents.fault_case import Around, FaultCase
from welding.errors import UnknownEntryError
from welding.evaluate.one_pass import evaluate_pass
from welding.faults.finder import GROUPS, Answer, Symptom, find_causes, remedies_of, symptoms, symptoms_called
from welding.faults.from_log import case_of, suggested
from welding.faults.signs import Known
from welding.language import tr
from welding.quantities.writing import System

router = Router(tags=["faults"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}
MOST_SHOWN = 200


@router.get("/faults/symptoms", response={200: SymptomsOut, **REFUSALS})
def list_symptoms(request: HttpRequest, words: Query[Line] = "") -> SymptomsOut:
    """Every symptom by group, and what the words may mean."""
    require(person(request), Action.VIEW)
    every = symptoms()
    return SymptomsOut(
        groups=[
            GroupOut(key=key, title=tr(title), symptoms=[_symptom(one) for one in every if one.group == key])
            for key, title in GROUPS.items()
        ],
        found=[one.key for one in symptoms_called(words)] if words else [],
    )


@router.post("/faults/causes", response={200: CausesOut, **REFUSALS})
def causes(request: HttpRequest, payload: CausesIn) -> CausesOut:
    """Causes of a symptom, ranked by what is known here. Nothing is stored."""
    require(person(request), Action.VIEW)
    # Words first: what cured a symptom is counted by its key.
    called = symptoms_called(payload.symptom)
    if not called:
        raise UnknownEntryError(payload.symptom, tuple(one.key for one in symptoms()))
    key = called[0].key
    cured = cured_here(key)
    return _answer(find_causes(_case(payload, key, cured), payload.units), cured)


def _case(payload: CausesIn, key: str, cured: dict[str, int]) -> FaultCase:
    if payload.pass_id is None:
        return FaultCase(
            symptom=key,
            procedure=payload.procedure,
            index=payload.index,
            around=payload.around,
            ticked=payload.ticked,
            cured=cured,
            qualified=payload.qualified,
        )
    row = _row(payload.pass_id)
    coupon = coupon_of_pass(row)
    logged = next((one for one in coupon.coupon.passes if one.number == row.number), None)
    waveform = waveform_of_pass(row, logged.recording) if logged else None
    case = case_of(coupon, row.number, key, waveform=waveform, ticked=payload.ticked, cured=cured)
    said = {name: value for name in Around.__slots__ if (value := getattr(payload.around, name)) is not None}
    return replace(case, around=replace(case.around, **said))


@router.get("/faults/passes/{int:pass_id}", response={200: PassKnownOut, **REFUSALS})
def pass_known(request: HttpRequest, pass_id: int, units: System = "si") -> PassKnownOut:
    """A logged pass, its breaches, and the symptoms that they are."""
    require(person(request), Action.VIEW)
    row = _row(pass_id)
    coupon = coupon_of_pass(row)
    logged = next(one for one in coupon.coupon.passes if one.number == row.number)
    result = evaluate_pass(coupon.procedure, logged, units, coupon.coupon)
    planned = next((one for one in coupon.procedure.passes if one.number == row.number), None)
    settings = Known(case_of(coupon, row.number, "pores")).settings
    return PassKnownOut(
        coupon_id=row.coupon_id,
        coupon_number=row.coupon.number,
        pass_number=row.number,
        procedure_number=coupon.procedure.number or "",
        revision_id=row.coupon.revision_id,
        process=logged.process or (planned.process if planned else ""),
        findings=[f"{one.title}. {one.message}" for one in result.findings if one.verdict == "violates"],
        suggested=[_symptom(one) for one in suggested(coupon.procedure, logged, result)],
        settings=BEAD_SETTINGS.plain(settings) if settings else None,
        limits=limits_of(coupon.procedure, planned, {}) if planned else {},
    )


@router.get("/faults/cures", response={200: list[FoundCureOut], **REFUSALS})
def list_cures(request: HttpRequest) -> list[FoundCureOut]:
    """What cured faults here, the latest first."""
    require(person(request), Action.VIEW)
    titles = {one.key: one.title for one in symptoms()}
    rows = Cure.objects.select_related("entered_by", "row__coupon", "revision__procedure")[:MOST_SHOWN]
    return [
        FoundCureOut(
            id=one.pk,
            symptom=one.symptom,
            title=titles.get(one.symptom, one.symptom),
            cause=_cause_words(one.cause),
            remedy=tr(one.remedy),
            note=one.note,
            seen_on=_seen_on(one.row) or (one.revision.procedure.number if one.revision else ""),
            entered_by=one.entered_by.shown_name,
            entered_at=one.entered_at,
            struck_because=one.struck_because,
        )
        for one in rows
    ]


@router.post("/faults/cures", response={201: FaultKeptOut, **REFUSALS})
def keep(request: HttpRequest, payload: FoundCureIn) -> Status[FaultKeptOut]:
    """Keep what cured a fault."""
    row = _row(payload.pass_id) if payload.pass_id else None
    revision = get_object_or_404(Revision, pk=payload.revision_id) if payload.revision_id else None
    kept = keep_cure(person(request), payload.cause, payload.remedy, payload.note, row, revision)
    return Status(201, FaultKeptOut(id=kept.pk))


@router.post("/faults/cures/{int:cure_id}/strike", response={200: FaultKeptOut, **REFUSALS})
def strike(request: HttpRequest, cure_id: int, payload: StrikeCureIn) -> FaultKeptOut:
    """Void a cure with a reason."""
    get_object_or_404(Cure, pk=cure_id)
    return FaultKeptOut(id=strike_cure(person(request), cure_id, payload.reason).pk)


@router.get("/faults/words", response={200: list[WordsOut], **REFUSALS})
def list_words(request: HttpRequest) -> list[WordsOut]:
    """Words that found no symptom, the latest first."""
    require(person(request), Action.VIEW)
    rows = UnknownSymptom.objects.select_related("entered_by", "settled_by", "row__coupon")[:MOST_SHOWN]
    return [
        WordsOut(
            id=one.pk,
            words=one.words,
            seen_on=_seen_on(one.row),
            entered_by=one.entered_by.shown_name,
            entered_at=one.entered_at,
            settled_as=one.settled_as,
            settled_by=one.settled_by.shown_name if one.settled_by else "",
        )
        for one in rows
    ]


@router.post("/faults/words", response={201: FaultKeptOut, **REFUSALS})
def send_words(request: HttpRequest, payload: WordsIn) -> Status[FaultKeptOut]:
    """Keep words for a symptom that nobody knows, for the engineer."""
    row = _row(payload.pass_id) if payload.pass_id else None
    return Status(201, FaultKeptOut(id=keep_words(person(request), payload.words, row).pk))


@router.post("/faults/words/{int:words_id}/settle", response={200: FaultKeptOut, **REFUSALS})
def settle(request: HttpRequest, words_id: int, payload: SettleIn) -> FaultKeptOut:
    """Say what words for a symptom meant."""
    get_object_or_404(UnknownSymptom, pk=words_id)
    return FaultKeptOut(id=settle_words(person(request), words_id, payload.answer).pk)


def _row(pass_id: int) -> PassLog:
    rows = PassLog.objects.select_related("coupon__record", "coupon__revision").filter(struck=False)
    return get_object_or_404(rows, pk=pass_id)


def _seen_on(row: PassLog | None) -> str:
    return tr("{coupon}, pass {number}", coupon=row.coupon.number, number=row.number) if row else ""


def _cause_words(row: str) -> str:
    found = remedies_of(row)
    return tr(found.cause) if found else row


def _symptom(one: Symptom) -> SymptomOut:
    return SymptomOut(
        key=one.key, title=one.title, group=one.group, sensed=list(one.sensed), also=list(one.also)
    )


def _answer(found: Answer, cured: dict[str, int]) -> CausesOut:
    return CausesOut(
        symptom=_symptom(found.symptom),
        causes=[
            CauseOut(
                row=one.row,
                cause=one.cause,
                share=one.share,
                prior=one.prior,
                evidence=[FaultFactOut(holds=fact.holds, words=fact.words) for fact in one.evidence],
                look_for=one.look_for,
                check=one.check,
                remedies=[
                    FaultRemedyOut(
                        words=remedy.words,
                        where=remedy.where,
                        field=remedy.field,
                        direction=remedy.direction,
                        limit=remedy.limit,
                    )
                    for remedy in one.remedies
                ],
                caution=one.caution,
                ticked=one.ticked,
                cured_here=cured.get(one.row, 0),
                source=one.citation.text,
                confidence=one.citation.confidence,
            )
            for one in found.causes
        ],
        caution=found.caution,
    )
