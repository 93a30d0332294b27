"""Cards for the joints of a weld list: mark, joint, WPS and the QR code that opens the entry at the joint."""

from __future__ import annotations

from typing import Annotated
from urllib.parse import urlencode

from api.downloads import attachment
from api.errors import ConflictError, ProblemOut
from api.people import person
from api.qr import qr_svg
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.printing.api import page_address
from apps.printing.joints_printed import Printed, Printing
from apps.printing.render import Paper, pdf
from apps.weldlist.listed import REFUSALS, listed_of
from welding.language import tr
from welding.quantities.writing import System
from welding.weldlist.joint_types import type_words

router = Router(tags=["printing"])
MOST_CARDS = 300
"""Cards that are set at once; more are set part by part."""


@router.get("/jobs/{int:job_id}/joints/print", response={200: None, 404: ProblemOut, **REFUSALS})
def print_cards(
    request: HttpRequest,
    job_id: int,
    joint_type: Annotated[str, Field(max_length=20)] = "",
    first: Annotated[int, Field(ge=1, le=1_000_000)] = 1,
    paper: Paper = "a4",
    units: System = "si",
) -> HttpResponse:
    """Cards of a joint type or of all joints, to be cut and hung at the joints.

    A joint without a WPS that covers it says so in the place of the WPS.
    """
    require(person(request), Action.VIEW)
    job, listed, _ = listed_of(job_id)
    root = page_address(request, "/").removesuffix("/")
    printed = Printed.of(listed, Printing(paper=paper, units=units, root=root))
    if len(printed.rows(joint_type)) < first:
        raise ConflictError(tr("The list has no joint type {key} any more.", key=joint_type or "–"))
    data = cards_pdf(printed, first - 1, MOST_CARDS, joint_type)
    name = f"{job.number} joints {joint_type}".strip()
    return attachment(data, "application/pdf", f"{name}.pdf", inline=True)


def cards_pdf(printed: Printed, first: int, most: int, joint_type: str = "") -> bytes:
    """The cards of a list from its joint ``first`` on."""
    words = {one.key: type_words(one.joint, printed.how.units) for one in printed.standing.types}
    rows = printed.rows(joint_type)
    part = rows[first : first + most]
    job, holding = printed.job, printed.holding
    return pdf(
        "printing/joint_cards.html",
        {
            "job": job,
            "cards": [
                {
                    "mark": one.cells.get("mark", ""),
                    "words": words[one.type],
                    "type": one.type,
                    "wps": holding[one.type].name if one.type in holding else "",
                    "drawing": " ".join(filter(None, (one.cells.get("drawing"), one.cells.get("revision")))),
                    "count": one.read.joint.count if one.read.joint is not None else 1,
                    "qr": qr_svg(printed.how.root + entry_of(job.number, one.cells.get("mark", ""))),
                }
                for one in part
            ],
            "first": first + 1,
            "last": first + len(part),
            "all": len(rows),
            "printed": timezone.now(),
        },
        printed.how.paper,
    )


def entry_of(job: str, mark: str) -> str:
    """Page that a joint's code opens."""
    return f"/production/joint?{urlencode({'job': job, 'mark': mark})}"
