"""Booth sheets for joint types: the joint at its own thickness, the passes of its WPS with their limits."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Any

from api.downloads import attachment
from api.errors import ConflictError, ProblemOut
from api.people import person
from api.qr import qr_svg
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.printing import sheets
from apps.printing.api import Second, cautions_again, page_address
from apps.printing.joint_cards import entry_of
from apps.printing.joints_printed import Printed, Printing
from apps.printing.pass_table import PassTable, pass_table
from apps.printing.render import Paper, pdf
from apps.printing.said import say, second_language
from apps.printing.svg import drawing_svg
from apps.weldlist.listed import REFUSALS, listed_of
from apps.weldlist.wps import ReleasedWps
from welding.documents.procedure import Procedure
from welding.evaluate.procedure import Evaluation, evaluate
from welding.language import terms_of, tr
from welding.quantities.writing import System
from welding.weldlist.applying import written_for
from welding.weldlist.joint_types import JointType, type_words

router = Router(tags=["printing"])
MOST_SHEETS = 40
"""Sheets of one PDF that somebody waits for: each takes a quarter of a second to set."""
PART_SHEETS = 20
"""Sheets of a long print that are set at once."""
MARKS_NAMED = 16


@dataclass(frozen=True, slots=True)
class _Wps:
    """A WPS as its sheets show it, evaluated once for all of them."""

    wps: ReleasedWps
    evaluation: Evaluation
    table: PassTable
    cautions_again: tuple[str, ...]


@router.get("/jobs/{int:job_id}/joints/sheets", response={200: None, 404: ProblemOut, **REFUSALS})
def print_joint_sheets(
    request: HttpRequest,
    job_id: int,
    joint_type: Annotated[str, Field(max_length=20)] = "",
    mark: Annotated[str, Field(max_length=400)] = "",
    first: Annotated[int, Field(ge=1, le=1_000_000)] = 1,
    paper: Paper = "a4",
    units: System = "si",
    second: Second = "",
) -> HttpResponse:
    """A sheet for a joint type, for the type of one joint, or for every type, in a second language as well.

    A type without a WPS that covers it says so in the place of the WPS.
    """
    require(person(request), Action.VIEW)
    job, listed, _ = listed_of(job_id)
    root = page_address(request, "/").removesuffix("/")
    printed = Printed.of(listed, Printing(paper=paper, units=units, second=second, root=root))
    if len(_types(printed, joint_type, mark)) < first:
        raise ConflictError(tr("The list has no joint type {key} any more.", key=joint_type or mark or "–"))
    data = sheets_pdf(printed, first - 1, MOST_SHEETS, joint_type, mark)
    name = f"{job.number} booth sheets {mark or joint_type}".strip()
    return attachment(data, "application/pdf", f"{name}.pdf", inline=True)


def sheets_pdf(printed: Printed, first: int, most: int, joint_type: str = "", mark: str = "") -> bytes:
    """Sheets of a list from its type ``first`` on: for all types, for one, or for the type of a joint."""
    types = _types(printed, joint_type, mark)
    part = types[first : first + most]
    known: dict[int, _Wps] = {}
    with second_language(printed.how.second):
        return pdf(
            "printing/joint_sheets.html",
            {
                "job": printed.job,
                "sheets": [_sheet(printed, one, mark, _known(known, printed, one)) for one in part],
                "first": first + 1,
                "last": first + len(part),
                "all": len(types),
                "printed": timezone.now(),
            },
            printed.how.paper,
        )


def _types(printed: Printed, joint_type: str, mark: str) -> list[JointType]:
    types = printed.standing.types
    return [one for one in types if joint_type in ("", one.key) and (not mark or mark in one.marks)]


def _known(known: dict[int, _Wps], printed: Printed, kind: JointType) -> _Wps | None:
    wps = printed.holding.get(kind.key)
    if wps is None:
        return None
    if wps.revision.pk not in known:
        document = wps.document
        with terms_of(sheets.usage_of(document)):
            evaluation = evaluate(document, sheets.system_of(document))
            known[wps.revision.pk] = _Wps(
                wps,
                evaluation,
                pass_table(document, evaluation),
                cautions_again(document, printed.how.second),
            )
    return known[wps.revision.pk]


def _sheet(printed: Printed, kind: JointType, mark: str, one: _Wps | None) -> dict[str, Any]:
    job, root = printed.job.number, printed.how.root
    marks = (mark,) if mark else kind.marks
    head = {
        "type": kind.key,
        "words": type_words(kind.joint, printed.how.units),
        "marks": ", ".join(marks[:MARKS_NAMED]),
        "more": max(0, len(marks) - MARKS_NAMED),
    }
    if one is None:
        address = entry_of(job, mark) if mark else "/joints/wps"
        return head | {"wps": "", "qr": qr_svg(root + address)}
    revision, document = one.wps.revision, one.wps.document
    address = entry_of(job, mark) if mark else f"/procedures/{revision.pk}"
    system = sheets.system_of(document)
    with terms_of(sheets.usage_of(document)):
        # The passes are those of the WPS's own thickness: here the joint is drawn without them.
        joint = replace(written_for(document, kind.joint), passes=())
        drawn = evaluate(joint, system)
        return head | {
            "wps": str(revision),
            "code": sheets.code_line(document, one.evaluation),
            "qr": qr_svg(root + address),
            "facts": sheets.facts(joint, replace(drawn, section=None)),
            "drawing": drawing_svg(drawn.drawing, system) if drawn.drawing else "",
            "table": one.table,
            "passes_note": _passes_note(document, joint),
            "cautions": one.evaluation.cautions,
            "cautions_again": one.cautions_again,
        }


def _passes_note(document: Procedure, joint: Procedure) -> str:
    """Why the joint may take more or fewer passes than the table has; empty where both are as thick."""
    own, here = ([one.thickness_mm for one in some.base_metals] for some in (document, joint))
    if own == here or not any(one.role == "fill" for one in document.passes):
        return ""
    return say(
        "The table has the passes of the WPS as it was drawn. This joint has another thickness: it takes as "
        "many fill passes as it needs, each within these limits."
    )
