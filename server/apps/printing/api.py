"""Printed sheets."""

from __future__ import annotations

from typing import Any, Literal

from api.downloads import attachment
from api.errors import DamagedError, ProblemOut
from api.people import person
from api.qr import qr_svg
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router

from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.queries import coupon_document
from apps.printing import sheets
from apps.printing.coupon_lines import coupon_facts, deviation_lines, flag_lines
from apps.printing.heat_chart import heat_chart_svg
from apps.printing.pass_table import MOST_WITH_BANDS, pass_table
from apps.printing.record_sheet import applies_rows
from apps.printing.render import Paper, pdf
from apps.printing.said import say, second_language
from apps.printing.svg import drawing_svg
from apps.procedures.models import Revision, Stage
from apps.qualification.models import NOT_COUNTING, Purpose, QualificationRecord
from apps.qualification.services.release import coverage_of, supporting_records
from welding.documents.coupon import Person
from welding.documents.procedure import Procedure
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.procedure import evaluate
from welding.glossary.values import in_words
from welding.language import language, speaking, terms_of, tr

router = Router(tags=["printing"])
Second = Literal["", "en", "de", "es"]


def cautions_again(document: Procedure, second: str) -> tuple[str, ...]:
    """The cautions in the second language of the sheet."""
    if not second or second == language():
        return ()
    with speaking(second):
        return evaluate(document).cautions


def _person(one: Person) -> str:
    role = in_words(one.role, "person")
    return f"{one.name} ({role}{f', {one.organisation}' if one.organisation else ''})"


def page_address(request: HttpRequest, path: str) -> str:
    """Address of a page as a code on paper holds it: the public one where there is one."""
    return f"{settings.PUBLIC_URL}{path}" if settings.PUBLIC_URL else request.build_absolute_uri(path)


def stamp_of(record: QualificationRecord | None) -> str:
    """The word across every page of a record that no longer counts."""
    state = record.state if record else ""
    return state.upper() if state in ("void", "superseded") else ""


def _signatures(revision: Revision) -> list[dict[str, Any]]:
    return [
        {
            "by": one.name,
            "role": in_words(one.role, "person"),
            "words": tr(Purpose(one.purpose).label),
            "at": one.at,
        }
        for one in revision.signatures.all()
    ]


def _standing(revision: Revision) -> tuple[str, list[str]]:
    """The word across the sheet, and why a revision is no longer to be welded from; both empty if it is."""
    if revision.stage in (Stage.WITHDRAWN, Stage.SUPERSEDED):
        return revision.stage.upper(), [tr("This revision is {stage}.", stage=revision.stage)]
    if revision.stage not in (Stage.QUALIFIED, Stage.RELEASED):
        return "", []
    records = supporting_records(revision)
    if not records:
        return "", []
    said = [
        tr("Record {number} {not_counting}.", number=one.number, not_counting=NOT_COUNTING[one.state])
        for one in records
        if not one.counts
    ]
    try:
        found = coverage_of(revision, records)
    except DamagedError as error:
        return "NOT COVERED", [error.detail]
    if found.covered:
        return "", []
    return "NOT COVERED", said or [f"{one.title}: {one.message}" for one in found.findings[:5]]


@router.get("/revisions/{int:revision_id}/print", response={200: None, 404: ProblemOut})
def print_procedure(
    request: HttpRequest, revision_id: int, paper: Paper = "a4", second: Second = ""
) -> HttpResponse:
    """The procedure as a sheet for the booth, in a second language beside the reader's where one is named."""
    require(person(request), Action.VIEW)
    revision = get_object_or_404(
        Revision.objects.select_related("procedure__job", "saved_by"), pk=revision_id
    )
    document = revision.contents()
    write = sheets.Writer(sheets.system_of(document))
    evaluation = evaluate(document, write.system)
    address = page_address(request, f"/procedures/{revision.pk}")
    stamp, uncovered = _standing(revision)
    with second_language(second), terms_of(sheets.usage_of(document)):
        data = pdf(
            "printing/procedure.html",
            {
                "word": sheets.sheet_word(document),
                "stamp": stamp,
                "uncovered": uncovered,
                "revision": revision,
                "document": document,
                "job": revision.procedure.job,
                "code": sheets.code_line(document, evaluation),
                "facts": [*sheets.facts(document, evaluation), *applies_rows(document, write)],
                "signatures": _signatures(revision),
                "table": pass_table(document, evaluation),
                "drawing": drawing_svg(evaluation.drawing, write.system) if evaluation.drawing else "",
                "drawn_in": "mm" if write.system == "si" else "inches",
                "breaches": [f for f in evaluation.findings if f.verdict == "violates"],
                "missing": evaluation.missing,
                "cautions": evaluation.cautions,
                "cautions_again": cautions_again(document, second),
                "use": sheets.use_line(evaluation),
                "assumptions": evaluation.section.assumptions if evaluation.section else (),
                "qr": qr_svg(address),
                "address": address,
                "printed": timezone.now(),
            },
            paper,
        )
    name = f"{revision.procedure.number}-{revision.letter}.pdf"
    return attachment(data, "application/pdf", name, inline=True)


@router.get("/coupons/{int:coupon_id}/print", response={200: None, 404: ProblemOut})
def print_coupon(
    request: HttpRequest, coupon_id: int, paper: Paper = "a4", second: Second = ""
) -> HttpResponse:
    """The coupon's record, in a second language beside the reader's where one is named."""
    require(person(request), Action.VIEW)
    coupon = get_object_or_404(
        Coupon.objects.select_related("job", "revision__procedure", "record"), pk=coupon_id
    )
    document = coupon_document(coupon)
    write = sheets.Writer(sheets.system_of(document.procedure))
    evaluation = evaluate(document.procedure, write.system)
    log = evaluate_coupon(document, write.system)
    address = page_address(request, f"/coupons/{coupon.pk}")
    fit_up = document.coupon.fit_up
    with second_language(second), terms_of(sheets.usage_of(document.procedure)):
        data = pdf(
            "printing/coupon.html",
            {
                "word": tr("{record_word}: coupon log", record_word=sheets.record_word(document.procedure)),
                "stamp": stamp_of(getattr(coupon, "record", None)),
                "coupon": coupon,
                "document": document,
                "job": coupon.job,
                "code": sheets.code_line(document.procedure, evaluation),
                "heat_word": evaluation.heat_word,
                "facts": [
                    *sheets.facts(document.procedure, evaluation),
                    (say("Preheat as read"), [write.value(document.coupon.preheat_c, "temperature")]),
                    (say("Ambient"), [write.value(document.coupon.ambient_c, "temperature")]),
                    (
                        say("Gap before and after tacking"),
                        [
                            write.value(fit_up.gap_before_tack_mm if fit_up else None, "gap"),
                            write.value(fit_up.gap_after_tack_mm if fit_up else None, "gap"),
                        ],
                    ),
                    (
                        say("People"),
                        [sheets.Both(_person(one)) for one in document.people] or [sheets.NOTHING],
                    ),
                    *coupon_facts(document, write),
                ],
                "chart": heat_chart_svg(document, log, write.system),
                "flags": flag_lines(document),
                "deviations": deviation_lines(document, write.system),
                "rows": sheets.logged_rows(document, log),
                "long": len(document.coupon.passes) > MOST_WITH_BANDS,
                "to_weld": log.to_weld,
                "drawing": drawing_svg(evaluation.drawing, write.system) if evaluation.drawing else "",
                "struck": coupon.passes.filter(struck=True),
                "cautions": evaluation.cautions,
                "cautions_again": cautions_again(document.procedure, second),
                "qr": qr_svg(address),
                "address": address,
                "printed": timezone.now(),
            },
            paper,
        )
    return attachment(data, "application/pdf", f"{coupon.number}.pdf", inline=True)
