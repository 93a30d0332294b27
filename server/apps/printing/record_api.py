"""The record of a coupon on paper and as a workbook; the cutting plan with its labels."""

from __future__ import annotations

from api.downloads import attachment
from api.errors import ProblemOut
from api.people import person
from api.qr import qr_svg
from api.sheets import TYPES, workbook
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from pydantic import TypeAdapter, ValidationError

from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.printing import sheets
from apps.printing.api import page_address, stamp_of
from apps.printing.coupon_lines import deviation_lines, flag_lines
from apps.printing.pass_table import MOST_WITH_BANDS
from apps.printing.record_sheet import kind_words, range_rows, test_rows
from apps.printing.render import Paper, pdf
from apps.printing.svg import drawing_svg
from apps.qualification.models import Amendment, Purpose, QualificationRecord
from apps.qualification.queries import record_document, record_number
from welding.coverage.record import cutting_of, judge, plan_of, range_of
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.procedure import evaluate
from welding.glossary.values import in_words
from welding.language import tr
from welding.qualification.items import QualifiedRange
from welding.testing.cutting import specimens_of

router = Router(tags=["printing"])
_RANGE: TypeAdapter[QualifiedRange] = TypeAdapter(QualifiedRange)


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
    log = evaluate_coupon(document.as_coupon, write.system)
    report, found = judge(document), range_of(document)
    signed: QualificationRecord | None = getattr(coupon, "record", None)
    address = page_address(request, f"/coupons/{coupon.pk}/tests")
    data = pdf(
        "printing/record.html",
        {
            "word": sheets.record_word(document.procedure),
            "stamp": stamp_of(signed),
            "standing": _standing(coupon, signed),
            "number": record_number(coupon),
            "coupon": coupon,
            "document": document,
            "job": coupon.job,
            "code": sheets.code_line(document.procedure, evaluation),
            "heat_word": evaluation.heat_word,
            "facts": sheets.facts(document.procedure, evaluation),
            "people": document.people,
            "rows": sheets.logged_rows(document.as_coupon, log),
            "flags": flag_lines(document.as_coupon),
            "deviations": deviation_lines(document.as_coupon, write.system, log),
            "long": len(document.coupon.passes) > MOST_WITH_BANDS,
            "tests": test_rows(document.tests, report),
            "report": report,
            "missing": report.missing,
            "range": range_rows(found, write, range_as_signed(signed)),
            "valid": found.valid,
            "findings": [one for one in found.findings if one.rule != "record.valid"],
            "signed": signed,
            "signatures": [
                {
                    "by": one.name,
                    "role": in_words(one.role, "person"),
                    "words": tr(Purpose(one.purpose).label),
                    "at": one.at,
                    "reason": one.reason,
                }
                for one in signed.signatures.all()
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


def range_as_signed(record: QualificationRecord | None) -> QualifiedRange | None:
    """The range that was found when the record was signed; nothing where it was kept in another form."""
    if record is None:
        return None
    try:
        return _RANGE.validate_python(record.findings["range"])
    except (ValidationError, KeyError, TypeError):
        return None


def _standing(coupon: Coupon, record: QualificationRecord | None) -> list[tuple[str, str]]:
    """What whoever holds the sheet must know first: amended, superseded, void, one signature short."""
    said = []
    amendment = Amendment.objects.filter(coupon=coupon).select_related("of").first()
    if amendment:
        said.append(
            (
                "Amendment",
                tr(
                    "of {number}, begun by {name}: {reason}",
                    number=amendment.of.number,
                    name=amendment.name,
                    reason=amendment.reason,
                ),
            )
        )
    if record is None:
        return said
    for one in record.signatures.all():
        if one.purpose in (Purpose.VOID, Purpose.SUPERSEDED):
            role = in_words(one.role, "person")
            said.append((one.purpose.upper(), f"{one.reason} ({one.name}, {role}, {one.at:%Y-%m-%d})"))
    if record.state == "awaits-second":
        said.append((tr("One signature short"), tr("This job asks for the signatures of two people.")))
    return said


@router.get("/coupons/{int:coupon_id}/labels", response={200: None, 404: ProblemOut})
def print_labels(request: HttpRequest, coupon_id: int, paper: Paper = "a4") -> HttpResponse:
    """The cutting plan, and a label for every specimen to stick on before it is cut."""
    require(person(request), Action.VIEW)
    coupon = _coupon(coupon_id)
    document = record_document(coupon)
    write = sheets.Writer(sheets.system_of(document.procedure))
    cutting, plan = cutting_of(document), plan_of(document)
    address = page_address(request, f"/coupons/{coupon.pk}/tests")
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
    tests = test_rows(document.tests, judge(document))
    rows = range_rows(range_of(document), write, range_as_signed(getattr(coupon, "record", None)))
    data = workbook(
        (
            (
                "Tests",
                ["Mark", "Test", "Readings", "Criterion", "Clause", "Found", "Verdict", "State", "Remarks"],
                [list(one.values()) for one in tests],
            ),
            (
                "Range",
                ["Variable", "For", "Tested", "Qualified", "Clause", "Source", "Also", tr("When signed")],
                [
                    [
                        one["title"],
                        one["scope"],
                        one["tested"].main,
                        one["qualified"].main,
                        one["clause"],
                        one["provenance"],
                        one["also"],
                        one["signed_as"],
                    ]
                    for one in rows
                ],
            ),
        )
    )
    return attachment(data, TYPES["xlsx"], f"{record_number(coupon)}.xlsx")
