"""The record of a coupon on paper and as a workbook; the cutting plan with its labels."""

from __future__ import annotations

import io
from typing import Any

from api.downloads import attachment
from api.errors import ProblemOut
from api.people import person
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.services.log_files import TYPES
from apps.printing import sheets
from apps.printing.api import _address
from apps.printing.record_sheet import kind_words, range_rows, test_rows
from apps.printing.render import Paper, pdf, qr_svg
from apps.printing.svg import drawing_svg
from apps.qualification.models import Purpose
from apps.qualification.queries import record_document, record_number
from welding.assess import evaluate
from welding.assess_coupon import evaluate_coupon
from welding.qualify import cutting_of, judge, plan_of, range_of
from welding.testing.cutting import specimens_of

router = Router(tags=["printing"])


def _coupon(coupon_id: int) -> Coupon:
    return get_object_or_404(
        Coupon.objects.select_related("job", "revision__procedure", "record"), pk=coupon_id
    )


@router.get("/coupons/{int:coupon_id}/record/print", response={200: None, 404: ProblemOut})
def print_record(request: HttpRequest, coupon_id: int, paper: Paper = "a4") -> HttpResponse:
    """The qualification record: what was welded, what the specimens showed, what that qualifies."""
    require(person(request), Action.VIEW)
    coupon = _coupon(coupon_id)
    document = record_document(coupon)
    write = sheets.Writer(sheets.system_of(document.procedure))
    evaluation = evaluate(document.procedure, write.system)
    report, found = judge(document), range_of(document)
    signed = getattr(coupon, "record", None)
    address = _address(request, f"/coupons/{coupon.pk}/tests")
    data = pdf(
        "printing/record.html",
        {
            "word": sheets.record_word(document.procedure),
            "number": record_number(coupon),
            "coupon": coupon,
            "document": document,
            "job": coupon.job,
            "code": sheets.code_line(document.procedure, evaluation),
            "heat_word": evaluation.heat_word,
            "facts": sheets.facts(document.procedure, evaluation),
            "people": document.people,
            "rows": sheets.logged_rows(document.as_coupon, evaluate_coupon(document.as_coupon, write.system)),
            "tests": test_rows(document.tests, report),
            "report": report,
            "missing": report.missing,
            "range": range_rows(found, write),
            "valid": found.valid,
            "findings": [one for one in found.findings if one.rule != "record.valid"],
            "signed": signed,
            "signatures": [
                {"by": one.by.shown_name, "role": one.role, "words": Purpose(one.purpose).label, "at": one.at}
                for one in signed.signatures.select_related("by")
            ]
            if signed
            else [],
            "drawing": drawing_svg(evaluation.drawing, write.system) if evaluation.drawing else "",
            "cautions": (),
            "qr": qr_svg(address),
            "address": address,
            "printed": timezone.now(),
        },
        paper,
    )
    return attachment(data, "application/pdf", f"{record_number(coupon)}.pdf", inline=True)


@router.get("/coupons/{int:coupon_id}/labels", response={200: None, 404: ProblemOut})
def print_labels(request: HttpRequest, coupon_id: int, paper: Paper = "a4") -> HttpResponse:
    """The cutting plan, and a label for every specimen to stick on before it is cut."""
    require(person(request), Action.VIEW)
    coupon = _coupon(coupon_id)
    document = record_document(coupon)
    write = sheets.Writer(sheets.system_of(document.procedure))
    cutting, plan = cutting_of(document), plan_of(document)
    address = _address(request, f"/coupons/{coupon.pk}/tests")
    data = pdf(
        "printing/labels.html",
        {
            "number": record_number(coupon),
            "coupon": coupon,
            "job": coupon.job,
            "drawing": drawing_svg(cutting.drawing, write.system),
            "notes": cutting.notes,
            "strips": [
                {
                    "mark": one.mark,
                    "kind": kind_words(one.kind),
                    "from": write.value(one.start_mm, "thickness") if one.angle_deg is None else None,
                    "to": write.value(one.start_mm + one.width_mm, "thickness"),
                    "angle": one.angle_deg,
                }
                for one in cutting.strips
            ],
            "labels": [
                {"mark": one.mark, "kind": kind_words(one.kind), "location": one.location}
                for one in specimens_of(plan)
            ],
            "qr": qr_svg(address),
            "address": address,
            "printed": timezone.now(),
        },
        paper,
    )
    return attachment(data, "application/pdf", f"{record_number(coupon)}-labels.pdf", inline=True)


@router.get("/coupons/{int:coupon_id}/record/table", response={200: None, 404: ProblemOut})
def record_workbook(request: HttpRequest, coupon_id: int) -> HttpResponse:
    """Tests and range as a workbook."""
    require(person(request), Action.VIEW)
    coupon = _coupon(coupon_id)
    document = record_document(coupon)
    write = sheets.Writer(sheets.system_of(document.procedure))
    book = Workbook()
    tests = test_rows(document.tests, judge(document))
    book.remove(book.worksheets[0])
    _fill(
        book.create_sheet("Tests"),
        ["Mark", "Test", "Readings", "Criterion", "Clause", "Found", "Verdict", "State", "Remarks"],
        [list(one.values()) for one in tests],
    )
    rows = range_rows(range_of(document), write)
    _fill(
        book.create_sheet("Range"),
        ["Variable", "For", "Tested", "Qualified", "Clause", "Source", "Also"],
        [
            [
                one["title"],
                one["scope"],
                one["tested"].main,
                one["qualified"].main,
                one["clause"],
                one["provenance"],
                one["also"],
            ]
            for one in rows
        ],
    )
    stream = io.BytesIO()
    book.save(stream)
    return attachment(stream.getvalue(), TYPES["xlsx"], f"{record_number(coupon)}.xlsx")


def _harmless(value: Any) -> Any:
    """Text with a leading sign would be read as a formula."""
    return f"'{value}" if isinstance(value, str) and value[:1] in ("=", "+", "-", "@") else value


def _fill(sheet: Any, head: list[str], rows: list[list[Any]]) -> None:
    sheet.append(head)
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for row in rows:
        sheet.append([_harmless(value) for value in row])
    for index in range(1, len(head) + 1):
        widest = max((len(str(row[index - 1])) for row in rows), default=0)
        width = min(max(widest, len(head[index - 1])) + 2, 60)
        sheet.column_dimensions[get_column_letter(index)].width = width
    sheet.freeze_panes = "A2"
