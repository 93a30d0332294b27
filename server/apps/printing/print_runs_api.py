"""Sheets and cards of a whole list: asked for, watched, ended, handed out while they hold."""

from __future__ import annotations

from typing import Literal

from api.downloads import attachment
from api.errors import ConflictError, ProblemOut
from api.people import person
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema

from apps.accounts.permissions import Action, require
from apps.background.work import as_it_stands
from apps.printing.api import Second, page_address
from apps.printing.joints_printed import Printing
from apps.printing.models import PrintRun
from apps.printing.render import Paper
from apps.printing.services.print_runs import ask, is_current, start_printer, stop
from apps.weldlist.listed import REFUSALS, listed_of
from welding.language import tr
from welding.quantities.writing import System

router = Router(tags=["printing"])


class PrintRunIn(Schema):
    """What to set: a booth sheet for each joint type, or a card for each joint."""

    what: Literal["sheets", "cards"]
    paper: Paper = "a4"
    units: System = "si"
    second: Second = ""


class PrintRunOut(Schema):
    """A long print: how far it is (``done`` of ``of`` of what it is ``doing``)."""

    id: int
    what: Literal["sheets", "cards"]
    state: Literal["waiting", "running", "done", "failed", "stopped"]
    doing: str
    done: int
    of: int
    problem: str


@router.post("/jobs/{int:job_id}/joints/print-runs", response={200: PrintRunOut, **REFUSALS})
def ask_for_print(request: HttpRequest, job_id: int, payload: PrintRunIn) -> PrintRunOut:
    """Ask for the sheets or cards of the whole list as one PDF."""
    _, listed, _ = listed_of(job_id)
    how = Printing(
        paper=payload.paper,
        units=payload.units,
        second=payload.second,
        root=page_address(request, "/").removesuffix("/"),
    )
    return _out(ask(person(request), listed, payload.what, how))


@router.get("/jobs/{int:job_id}/joints/print-runs/{int:run_id}", response={200: PrintRunOut, **REFUSALS})
def print_as_it_stands(request: HttpRequest, job_id: int, run_id: int) -> PrintRunOut:
    """How far a print is."""
    require(person(request), Action.VIEW)
    return _out(as_it_stands(_run(job_id, run_id), start_printer))


@router.post(
    "/jobs/{int:job_id}/joints/print-runs/{int:run_id}/stop", response={200: PrintRunOut, **REFUSALS}
)
def stop_print(request: HttpRequest, job_id: int, run_id: int) -> PrintRunOut:
    """End a print."""
    return _out(stop(person(request), _run(job_id, run_id)))


@router.get(
    "/jobs/{int:job_id}/joints/print-runs/{int:run_id}/file",
    response={200: None, 404: ProblemOut, **REFUSALS},
)
def printed_file(request: HttpRequest, job_id: int, run_id: int) -> HttpResponse:
    """The PDF. One whose joints or WPSs changed since it was set is not handed out."""
    require(person(request), Action.VIEW)
    run = _run(job_id, run_id)
    if run.state != PrintRun.State.DONE:
        raise ConflictError(tr("This print is not done."))
    if not is_current(run):
        raise ConflictError(tr("The list or its WPSs changed since: print again."))
    words = {"sheets": "booth sheets", "cards": "joint cards"}[run.asked["what"]]
    with run.file.open("rb") as stream:
        data = stream.read()
    return attachment(data, "application/pdf", f"{run.weld_list.job.number} {words}.pdf", inline=True)


def _run(job_id: int, run_id: int) -> PrintRun:
    return get_object_or_404(
        PrintRun.objects.select_related("weld_list__job"), pk=run_id, weld_list__job=job_id
    )


def _out(run: PrintRun) -> PrintRunOut:
    return PrintRunOut(
        id=run.pk,
        what=run.asked["what"],
        state=run.state,  # type: ignore[arg-type]
        doing=run.doing,
        done=run.done,
        of=run.of,
        problem=run.problem,
    )
