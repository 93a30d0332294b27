"""The final documentation of a job as one PDF with bookmarks: procedures, records, welds, results."""

from __future__ import annotations

from typing import Any

from api.downloads import attachment
from api.errors import ConflictError, ProblemOut
from api.people import person
from django.http import HttpRequest, HttpResponse
from ninja import Router

from apps.accounts.permissions import Action, require
from apps.printing.record_sheet import applies_rows
from apps.printing.render import Paper, pdf
from apps.printing.sheets import Writer, system_of
from apps.procedures.models import Revision
from apps.production.dossier import dossier_of, job_welds, used_records, used_revisions
from apps.production.models import State, Weld
from apps.qualification.models import Purpose, QualificationRecord
from apps.weldlist.listed import REFUSALS, job_of
from welding.glossary.values import in_words
from welding.language import tr
from welding.production.state import METHODS, method_words, state_words

router = Router(tags=["printing"])
MOST_WELDS = 3000
"""Welds that one PDF lists; a longer log is in the archive of open files."""


@router.get("/jobs/{int:job_id}/dossier/print", response={200: None, 404: ProblemOut, **REFUSALS})
def print_documentation(request: HttpRequest, job_id: int, paper: Paper = "a4") -> HttpResponse:
    """The final documentation of a job. Equal contents give an equal sheet: it bears no time of printing."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    welds = job_welds(job)
    if welds.count() > MOST_WELDS:
        raise ConflictError(
            tr("One PDF lists at most {most} welds: take the archive of open files.", most=MOST_WELDS)
        )
    revisions = used_revisions(job)
    records = used_records(revisions)
    data = pdf(
        "printing/job_documentation.html",
        {
            "job": job,
            "state": dossier_of(job),
            "procedures": [_procedure(one) for one in revisions],
            "records": [_record(one) for one in records],
            "methods": [(name, method_words(name)) for name in METHODS],
            "welds": [_weld(one) for one in welds if one.state != State.STRUCK],
            "rejections": [line for one in welds for line in _rejections(one)],
            "struck": sum(one.state == State.STRUCK for one in welds),
        },
        paper,
    )
    return attachment(data, "application/pdf", f"{job.number} documentation.pdf", inline=True)


def _procedure(one: Revision) -> dict[str, Any]:
    document = one.contents()
    level = tr(", level {level}", level=one.code_level) if one.code_level else ""
    return {
        "name": str(one),
        "title": one.title,
        "stage": in_words(one.stage),
        "code": f"{one.code_id}{level}",
        "processes": ", ".join(one.processes),
        "positions": ", ".join(one.positions),
        "applies": applies_rows(document, Writer(system_of(document))),
        "hash": one.content_hash,
        "signatures": _signatures(one),
    }


def _record(one: QualificationRecord) -> dict[str, Any]:
    document = one.document()
    return {
        "number": one.number,
        "state": one.state,
        "procedure": document.procedure.title or "",
        "tests": ", ".join(dict.fromkeys(in_words(test.kind, "test") for test in document.tests)),
        "hash": one.content_hash,
        "signatures": _signatures(one),
    }


def _signatures(of: Revision | QualificationRecord) -> list[dict[str, Any]]:
    return [
        {
            "name": one.name,
            "role": in_words(one.role, "person"),
            "words": tr(Purpose(one.purpose).label),
            "at": one.at,
        }
        for one in of.signatures.all()
    ]


def _weld(one: Weld) -> dict[str, Any]:
    last = {result.method: result for result in one.inspections.all() if not result.struck_reason}
    return {
        "mark": one.mark,
        "item": one.item,
        "repair": one.repair_of_id is not None,
        "wps": one.wps,
        "covered": one.fit == "covered",
        "welders": ", ".join(one.welders),
        "batches": ", ".join(one.batches),
        "heats": ", ".join(one.heats),
        "welded_on": one.welded_on,
        "results": [_said(last[name].accepted) if name in last else "" for name in METHODS],
        "state": state_words(one.state),
        "released": one.released_name,
    }


def _said(accepted: bool) -> str:
    return tr("accepted") if accepted else tr("rejected")


def _rejections(one: Weld) -> list[dict[str, Any]]:
    return [
        {
            "weld": str(one),
            "method": method_words(result.method),
            "found": result.found,
            "report": result.report,
            "inspector": result.inspector,
            "on": result.inspected_on,
            "state": state_words(one.state),
        }
        for result in one.inspections.all()
        if not result.accepted and not result.struck_reason and one.state != State.STRUCK
    ]
