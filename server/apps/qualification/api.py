"""Evidence of a coupon, its ranges, what it covers, the signing of its record."""

from __future__ import annotations

from typing import Any

from api.downloads import attachment
from api.errors import DamagedError, InvalidError, ProblemOut
from api.people import person
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.jobs.models import Job
from apps.procedures.schemas import CreatedOut
from apps.qualification.models import (
    Amendment,
    Purpose,
    QualificationRecord,
    Signature,
    Specimen,
)
from apps.qualification.queries import (
    all_records,
    record_document,
    record_number,
    signed_records,
    signed_tests,
)
from apps.qualification.schemas import (
    AmendmentOut,
    CoversIn,
    DraftCoverageOut,
    EvidenceOut,
    PlanItemOut,
    PreparedOut,
    RangeOut,
    RangesOut,
    RecordLineOut,
    SignatureOut,
    SignedOut,
    SpecimenChangeIn,
    SpecimenIn,
    SpecimenOut,
    VariableOut,
)
from apps.qualification.services.specimens import change_test, enter_test, prepare_tests, remove_test
from welding.codebook.catalogue import all_editions
from welding.coverage.brackets import brackets_of
from welding.coverage.covers import Coverage, covers
from welding.coverage.record import cutting_of, in_force, judge, plan_of, range_of
from welding.documents.codec import RECORD
from welding.language import tr
from welding.qualification.variables import GROUPS, VARIABLES
from welding.testing.cutting import specimens_of

router = Router(tags=["qualification"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


def coupon_of(coupon_id: int) -> Coupon:
    """The coupon, with what its record rests on; 404 where there is none."""
    return get_object_or_404(
        Coupon.objects.select_related("job", "revision__procedure", "record"), pk=coupon_id
    )


def _specimen(specimen_id: int) -> Specimen:
    return get_object_or_404(Specimen.objects.select_related("coupon", "entered_by"), pk=specimen_id)


def record_of(record_id: int) -> QualificationRecord:
    """A signed record, or 404."""
    found = QualificationRecord.objects.select_related(
        "coupon__job", "coupon__revision__procedure"
    ).prefetch_related("signatures")
    return get_object_or_404(found, pk=record_id)


def signature_out(one: Signature) -> SignatureOut:
    """A signature as the API says it."""
    return SignatureOut(
        purpose=one.purpose,
        words=tr(Purpose(one.purpose).label),
        by=one.name,
        role=one.role,
        at=one.at,
        reason=one.reason,
        content_hash=one.content_hash,
    )


def record_line(one: QualificationRecord) -> RecordLineOut:
    """A signed record as a line; a damaged one says so and nothing more."""
    damaged = ""
    try:
        one.intact()
    except DamagedError as error:
        damaged = error.detail
    return RecordLineOut(
        id=one.pk,
        number=one.number,
        coupon_id=one.coupon_id,
        coupon_number=one.coupon.number,
        procedure_number=one.coupon.revision.procedure.number,
        code_id=one.code_id,
        code_level=one.code_level,
        content_hash=one.content_hash,
        signed_by=one.signer,
        signed_at=one.signed_at,
        state="damaged" if damaged else one.state,
        damaged=damaged,
    )


@router.get("/coupons/{int:coupon_id}/evidence", response={200: EvidenceOut, **REFUSALS})
def evidence(request: HttpRequest, coupon_id: int) -> EvidenceOut:
    """The test plan with its cutting drawing, what was entered, and every verdict."""
    require(person(request), Action.VIEW)
    coupon = coupon_of(coupon_id)
    document = record_document(coupon)
    asked = in_force(document.procedure.code)
    plan = plan_of(document)
    rows = coupon.specimens.select_related("entered_by").order_by("id")
    tests = signed_tests(coupon)
    signed = getattr(coupon, "record", None)
    return EvidenceOut(
        coupon_id=coupon.pk,
        coupon_number=coupon.number,
        record_number=record_number(coupon),
        procedure_number=coupon.revision.procedure.number,
        revision_id=coupon.revision_id,
        letter=coupon.revision.letter,
        title=coupon.revision.title,
        status=coupon.status,
        certificate=coupon.certificate,
        tested_to=coupon.tested_to,
        code=asked.short,
        record_word=asked.edition.record_word,
        items=[
            PlanItemOut(
                kind=one.kind,
                count=one.count,
                note=one.note,
                clause=one.clause,
                alternative_to=one.alternative_to,
                option=one.option,
                choice=one.choice,
                locations=list(one.locations),
                before_cutting=one.before_cutting,
                unchecked=list(one.unchecked),
            )
            for one in plan.items
        ],
        notes=list(plan.notes),
        open=list(plan.open),
        planned=list(specimens_of(plan)),
        cutting=cutting_of(document),
        specimens=[
            SpecimenOut(
                id=row.pk,
                version=row.version,
                test=tests[row.mark],
                entered_by=row.entered_by.shown_name,
                changed_at=row.changed_at,
            )
            for row in rows
            if row.mark in tests
        ],
        report=judge(document),
        signed=_signed(signed) if signed else None,
        amends=_amends(coupon),
    )


def _amends(coupon: Coupon) -> AmendmentOut | None:
    """What this coupon amends, if it is an amendment."""
    found = Amendment.objects.filter(coupon=coupon).select_related("of").first()
    if found is None:
        return None
    return AmendmentOut(
        record_number=found.of.number,
        coupon_id=found.of.coupon_id,
        reason=found.reason,
        by=found.name,
        at=found.at,
    )


def _amended(record: QualificationRecord) -> AmendmentOut | None:
    """The amendment that a record has, signed or still being worked on."""
    found = Amendment.objects.filter(of=record).select_related("coupon").first()
    if found is None:
        return None
    return AmendmentOut(
        record_number=record_number(found.coupon),
        coupon_id=found.coupon_id,
        reason=found.reason,
        by=found.name,
        at=found.at,
    )


def _signed(record: QualificationRecord) -> SignedOut:
    return SignedOut(
        id=record.pk,
        number=record.number,
        content_hash=record.content_hash,
        signed_at=record.signed_at,
        void=record.void,
        state=record.state,
        signed_by_id=record.signed_by_id,
        signatures=[signature_out(one) for one in record.signatures.all()],
        amendment=_amended(record),
    )


@router.post("/coupons/{int:coupon_id}/specimens", response={201: CreatedOut, **REFUSALS})
def enter(request: HttpRequest, coupon_id: int, payload: SpecimenIn) -> Status[CreatedOut]:
    """Enter a test."""
    made = enter_test(person(request), coupon_of(coupon_id), payload.test)
    return Status(201, CreatedOut(id=made.pk))


@router.post("/coupons/{int:coupon_id}/specimens/plan", response={200: PreparedOut, **REFUSALS})
def prepare(request: HttpRequest, coupon_id: int) -> PreparedOut:
    """Enter an empty test for every specimen that the plan asks for."""
    return PreparedOut(made=prepare_tests(person(request), coupon_of(coupon_id)))


@router.put("/specimens/{int:specimen_id}", response={200: CreatedOut, **REFUSALS})
def change(request: HttpRequest, specimen_id: int, payload: SpecimenChangeIn) -> CreatedOut:
    """Change a test; 409 with what stands if someone changed it in the meantime."""
    changed = change_test(person(request), _specimen(specimen_id), payload.version, payload.test)
    return CreatedOut(id=changed.pk)


@router.delete("/specimens/{int:specimen_id}", response={204: None, **REFUSALS})
def remove(request: HttpRequest, specimen_id: int, version: int) -> Status[None]:
    """Remove a test that was entered by mistake."""
    remove_test(person(request), _specimen(specimen_id), version)
    return Status(204, None)


@router.get("/coupons/{int:coupon_id}/ranges", response={200: RangesOut, **REFUSALS})
def ranges(request: HttpRequest, coupon_id: int) -> RangesOut:
    """The range of qualification under every code and level, side by side."""
    require(person(request), Action.VIEW)
    coupon = coupon_of(coupon_id)
    document = record_document(coupon)
    own = in_force(document.procedure.code)
    found = []
    for edition in all_editions().values():
        for level in edition.levels or (None,):
            asked = in_force(document.procedure.code, edition.id, level)
            found.append(
                RangeOut(
                    code=edition.id,
                    level=level,
                    short=asked.short,
                    own=(asked.edition.id, asked.level) == (own.edition.id, own.level),
                    range=range_of(document, edition.id, level),
                )
            )
    return RangesOut(
        coupon_number=coupon.number,
        record_number=record_number(coupon),
        units=own.code.units,
        variables=[
            VariableOut(name=name, title=one.title, quantity=one.quantity, group=one.group)
            for name, one in VARIABLES.items()
        ],
        groups=[tr(one) for one in GROUPS],
        ranges=sorted(found, key=lambda one: not one.own),
    )


@router.post("/coupons/{int:coupon_id}/covers", response={200: Coverage, **REFUSALS})
def coupon_covers(request: HttpRequest, coupon_id: int, payload: CoversIn) -> Coverage:
    """Whether this coupon covers a procedure or a joint, under the coupon's own code."""
    require(person(request), Action.VIEW)
    document = record_document(coupon_of(coupon_id))
    target = payload.procedure or payload.joint
    if target is None:
        raise InvalidError(tr("Name a procedure or a joint."))
    code = document.procedure.code
    return covers([document], target, code.id if code else None, code.level if code else None)


@router.get("/jobs/{int:job_id}/records", response={200: list[RecordLineOut], 404: ProblemOut})
def list_records(request: HttpRequest, job_id: int, all_of_them: bool = False) -> list[RecordLineOut]:
    """Signed records of a job that count; with ``all_of_them`` void and superseded ones too."""
    require(person(request), Action.VIEW)
    job = get_object_or_404(Job, pk=job_id)
    return [record_line(one) for one in (all_records(job) if all_of_them else signed_records(job))]


@router.post("/jobs/{int:job_id}/coverage", response={200: DraftCoverageOut, **REFUSALS})
def draft_coverage(request: HttpRequest, job_id: int, payload: CoversIn) -> DraftCoverageOut:
    """How a draft stands to the signed records of its job, with the limits that they set."""
    require(person(request), Action.VIEW)
    records = signed_records(get_object_or_404(Job, pk=job_id))
    lines = [record_line(one) for one in records]
    procedure = payload.procedure
    whole = [one for one, line in zip(records, lines, strict=True) if not line.damaged]
    if procedure is None or procedure.code is None or not whole:
        return DraftCoverageOut(coverage=None, brackets=[], record="", records=lines)
    documents = [one.document() for one in whole]
    found = covers(documents, procedure)
    nearest = found.by[0] if found.by else _nearest(found)
    supporting = next((one for one in documents if one.number == nearest), None)
    brackets = []
    if supporting is not None:
        span = range_of(supporting, procedure.code.id, procedure.code.level)
        brackets = list(brackets_of(span, procedure))
    return DraftCoverageOut(coverage=found, brackets=brackets, record=nearest, records=lines)


def _nearest(found: Coverage) -> str:
    """The record that blocks least."""
    ordered = sorted(
        found.records,
        key=lambda one: (
            sum(f.verdict == "violates" for f in one.findings),
            sum(f.verdict == "undecided" for f in one.findings),
        ),
    )
    return ordered[0].record if ordered else ""


@router.get("/coupons/{int:coupon_id}/record", response={200: None, 404: ProblemOut})
def export_record(request: HttpRequest, coupon_id: int) -> HttpResponse:
    """The record as an open document: as signed, byte for byte, else as it stands."""
    require(person(request), Action.VIEW)
    coupon = coupon_of(coupon_id)
    document = record_document(coupon)  # verifies the hash of a signed one
    signed = getattr(coupon, "record", None)
    body = signed.body.encode() if signed else RECORD.write(document)
    return attachment(body, "application/json", f"{record_number(coupon)}.qualification-record.json")
