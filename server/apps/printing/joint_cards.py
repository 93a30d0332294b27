"""Cards for the joints of a weld list: mark, joint, WPS and the QR code that opens the entry at the joint."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated
from urllib.parse import urlencode

from api.downloads import attachment
from api.errors import ConflictError, ProblemOut
from api.people import person
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.printing.api import page_address
from apps.printing.render import Paper, pdf, qr_svg
from apps.weldlist.listed import REFUSALS, listed_of
from apps.weldlist.queries import ListedRow
from apps.weldlist.wps import holding_wps, released_wps
from welding.language import tr
from welding.quantities.writing import System
from welding.weldlist.joint_types import type_words

router = Router(tags=["printing"])
MOST_CARDS = 300
"""Cards of one sheet; more are printed part by part."""


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
    job, listed, standing = listed_of(job_id)
    holding = holding_wps(listed, standing, released_wps(job))
    words = {one.key: type_words(one.joint, units) for one in standing.types}
    rows = [one for one in standing.rows if one.type and joint_type in ("", one.type)]
    part: Sequence[ListedRow] = rows[first - 1 : first - 1 + MOST_CARDS]
    if not part:
        raise ConflictError(tr("The list has no joint type {key} any more.", key=joint_type or "–"))
    data = pdf(
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
                    "qr": qr_svg(page_address(request, entry_of(job.number, one.cells.get("mark", "")))),
                }
                for one in part
            ],
            "left": max(0, len(rows) - (first - 1) - len(part)),
            "printed": timezone.now(),
        },
        paper,
    )
    name = f"{job.number} joints {joint_type}".strip()
    return attachment(data, "application/pdf", f"{name}.pdf", inline=True)


def entry_of(job: str, mark: str) -> str:
    """Page that a joint's code opens."""
    return f"/production/joint?{urlencode({'job': job, 'mark': mark})}"
