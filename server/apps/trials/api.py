"""Planning with the shop's own trials: propose a draft, keep trials, the heat chart of a pass."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from api.damage import attempt
from api.documents import IntentIn, ProcedureIn, TrialIn
from api.errors import ProblemOut
from api.people import person
from api.text import Note
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status

from apps.accounts.permissions import Action, require
from apps.library.charts import charts_for
from apps.trials.models import TrialEntry
from apps.trials.services.enter_trial import enter_trial, strike_trial
from welding.documents.codec import TRIAL
from welding.documents.intent import Trial
from welding.documents.procedure import Procedure
from welding.evaluate.procedure import Evaluation, evaluate, heat_rule
from welding.heat.chart import HeatChart, heat_chart
from welding.heat.preheat import Preheat
from welding.planning.beside import THIS_PROCEDURE, PassBands, bands_beside
from welding.planning.propose import propose, with_own
from welding.planning.reasons import Reason
from welding.quantities.writing import System

router = Router(tags=["planning"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}
MOST_TRIALS = 200


class ProposeIn(Schema):
    """What is to be joined, and the unit system of the sentences."""

    intent: IntentIn
    units: System = "si"


class ProposalOut(Schema):
    """A draft, why it is so, which limits collide, and how it is judged."""

    procedure: Procedure
    reasons: list[Reason]
    collisions: list[str]
    preheat_options: list[Preheat]
    bands: list[PassBands]
    evaluation: Evaluation


class TrialOut(Schema):
    """A trial of the log; one that cannot be read says why."""

    id: int
    trial: Trial | None
    damaged: str
    entered_by: str
    entered_at: datetime
    struck_because: str


class EnterTrialIn(Schema):
    """A new trial."""

    trial: TrialIn


class StrikeTrialIn(Schema):
    """Why a trial is struck."""

    reason: Note


class EnteredOut(Schema):
    """The row that was made."""

    id: int


class BesideIn(Schema):
    """A procedure as it is typed, and the unit system of the sentences."""

    document: ProcedureIn
    units: System = "si"


class HeatChartIn(Schema):
    """A procedure and which pass of it."""

    document: ProcedureIn
    pass_number: int


@router.post("/propose", response={200: ProposalOut, **REFUSALS})
def propose_draft(request: HttpRequest, payload: ProposeIn) -> ProposalOut:
    """Propose a whole draft; the shop's own trials come first, its charts stand beside. Nothing is stored."""
    require(person(request), Action.VIEW)
    intent = payload.intent
    trials = _trials_of([intent.process])
    found = propose(with_own(intent, trials, charts_for([intent.process, intent.fill_process])))
    return ProposalOut(
        procedure=found.procedure,
        reasons=list(found.reasons),
        collisions=list(found.collisions),
        preheat_options=list(found.preheat_options),
        bands=list(found.bands),
        evaluation=evaluate(found.procedure, payload.units),
    )


def _trials_of(processes: Iterable[str | None]) -> tuple[Trial, ...]:
    """The shop's own trials of processes that count and can be read, the latest first."""
    asked = sorted({one for one in processes if one})
    entries = TrialEntry.objects.filter(process__in=asked, struck_because="")[:MOST_TRIALS]
    return tuple(trial for entry in entries if (trial := _read(entry)[0]) is not None)


@router.post("/charts-beside", response={200: list[PassBands], **REFUSALS})
def charts_beside(request: HttpRequest, payload: BesideIn) -> list[PassBands]:
    """The library's charts, own trials and the code's limits beside the passes of a procedure."""
    require(person(request), Action.VIEW)
    document = payload.document
    processes = [one.process for one in document.passes]
    found = bands_beside(
        document, charts_for(processes), _trials_of(processes), payload.units, own=THIS_PROCEDURE
    )
    return list(found)


@router.post("/heat-chart", response={200: HeatChart, **REFUSALS})
def chart(request: HttpRequest, payload: HeatChartIn) -> HeatChart:
    """Amps against travel for one pass, with lines of equal heat input."""
    document = payload.document
    one = next((one for one in document.passes if one.number == payload.pass_number), None)
    thermal = document.thermal
    return heat_chart(one, heat_rule(document), thermal.heat_input_kj_mm if thermal else None)


@router.get("/trials", response=list[TrialOut])
def list_trials(request: HttpRequest) -> list[TrialOut]:
    """The trial log, the latest first."""
    require(person(request), Action.VIEW)
    entries = TrialEntry.objects.select_related("entered_by")[:MOST_TRIALS]
    return [
        TrialOut(
            id=entry.pk,
            trial=trial,
            damaged=damaged,
            entered_by=entry.entered_by.shown_name,
            entered_at=entry.entered_at,
            struck_because=entry.struck_because,
        )
        for entry in entries
        for trial, damaged in [_read(entry)]
    ]


def _read(entry: TrialEntry) -> tuple[Trial | None, str]:
    return attempt(f"trial {entry.pk}", lambda: TRIAL.take(entry.document))


@router.post("/trials", response={201: EnteredOut, **REFUSALS})
def enter(request: HttpRequest, payload: EnterTrialIn) -> Status[EnteredOut]:
    """Enter a trial."""
    return Status(201, EnteredOut(id=enter_trial(person(request), payload.trial).pk))


@router.post("/trials/{int:entry_id}/strike", response={200: EnteredOut, **REFUSALS})
def strike(request: HttpRequest, entry_id: int, payload: StrikeTrialIn) -> EnteredOut:
    """Strike a trial with a reason."""
    get_object_or_404(TrialEntry, pk=entry_id)
    return EnteredOut(id=strike_trial(person(request), entry_id, payload.reason).pk)
