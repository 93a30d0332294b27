"""A person's certificate on paper, as a workbook, and as the bytes that were signed."""

from __future__ import annotations

import dataclasses
from typing import Literal

from api.downloads import attachment
from api.errors import ProblemOut
from api.people import person
from api.qr import qr_svg
from api.sheets import TYPES, workbook
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router

from apps.accounts.permissions import Action, require
from apps.crew.models import Certificate
from apps.printing.api import page_address
from apps.printing.certificate_sheet import (
    facts,
    kind_words,
    range_lines,
    sheets_of,
    signed_lines,
    standing_of_certificate,
    standing_words,
)
from apps.printing.render import Paper, pdf
from welding.language import terms_of
from welding.welders.catalogue import welder_edition

router = Router(tags=["printing"])


def _certificate(certificate_id: int) -> Certificate:
    return get_object_or_404(Certificate.objects.select_related("member"), pk=certificate_id)


@router.get("/certificates/{int:certificate_id}/print", response={200: None, 404: ProblemOut})
def print_certificate(request: HttpRequest, certificate_id: int, paper: Paper = "a4") -> HttpResponse:
    """The certificate from its signed bytes, its range, and how it stands on the day of printing."""
    require(person(request), Action.VIEW)
    row = _certificate(certificate_id)
    document = row.document()
    edition = welder_edition(document.tested.code)
    found = standing_of_certificate(row, timezone.localdate())
    address = page_address(request, f"/crew/{row.member_id}?certificate={row.pk}")
    with terms_of(edition.usage):
        data = pdf(
            "printing/certificate.html",
            {
                "stamp": "" if found.validity is not None and found.validity.valid else "NOT VALID",
                "number": document.number,
                "person": document.person,
                "kind": kind_words(document.tested),
                "code": edition.title,
                "facts": facts(document),
                "range": [dataclasses.asdict(one) for one in range_lines(document.tested)],
                "standing": standing_words(found.validity),
                "reasons": found.validity.reasons if found.validity is not None else (),
                "today": timezone.localdate(),
                "row": row,
                "from_paper": document.from_paper,
                "statements": [dataclasses.asdict(one) for one in signed_lines(found)]
                if found.validity is not None
                else [],
                "qr": qr_svg(address),
                "address": address,
                "printed": timezone.now(),
            },
            paper,
        )
    return attachment(data, "application/pdf", f"{document.number}.pdf", inline=True)


@router.get("/certificates/{int:certificate_id}/file", response={200: None, 404: ProblemOut})
def certificate_file(
    request: HttpRequest, certificate_id: int, kind: Literal["json", "xlsx"] = "json"
) -> HttpResponse:
    """The signed bytes in the open format, or everything that is said of it as a workbook."""
    require(person(request), Action.VIEW)
    row = _certificate(certificate_id)
    document = row.document()
    if kind == "json":
        return attachment(row.intact_body().encode(), "application/json", f"{row.number}.certificate.json")
    found = standing_of_certificate(row, timezone.localdate())
    with terms_of(welder_edition(document.tested.code).usage):
        data = workbook(sheets_of(row, document, found))
    return attachment(data, TYPES["xlsx"], f"{row.number}.xlsx")
