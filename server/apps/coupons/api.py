"""Coupons: start, log, correct, judge, import and export."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from api.downloads import attachment
from api.errors import InvalidError, ProblemOut
from api.people import person, sender
from api.sheets import TYPES
from api.text import Line, Number
from api.uploads import file_of
from django.http import FileResponse, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.coupons.log_counts import counted
from apps.coupons.models import Coupon, PassLog, PassPhoto
from apps.coupons.queries import coupon_document, passes_by_number
from apps.coupons.schemas import (
    CorrectIn,
    CouponLineOut,
    CouponOut,
    ExplainIn,
    JudgeIn,
    LogIn,
    PassRowOut,
    PieceChangeIn,
    ScrapIn,
    StartIn,
    StrikeIn,
    StruckOut,
    VersionOut,
)
from apps.coupons.services.add_photo import LARGEST_BYTES as LARGEST_PHOTO
from apps.coupons.services.add_photo import add_photo
from apps.coupons.services.edit_piece import edit_piece
from apps.coupons.services.import_coupon import import_coupon
from apps.coupons.services.log_files import Kind, log_file, take_log, template_file
from apps.coupons.services.log_pass import DeviceClock, correct_pass, explain_flag, log_pass, strike_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.coupons.welder_log import welder_of
from apps.crew.api import who_may_out
from apps.crew.queries import named_welders
from apps.crew.schemas import NamedWelderOut, WhoMayOut
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.schemas import CreatedOut, ImportedOut
from apps.procedures.services.import_procedure import import_procedure
from apps.trials.services.enter_trial import enter_trial
from welding.advice.checklist import checklist_for
from welding.documents.codec import COUPON, PERSON, PIECE, PROCEDURE, parse_json
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.fit_up import cooling_after
from welding.evaluate.one_pass import PassResult, evaluate_pass
from welding.evaluate.procedure import evaluate
from welding.language import tr
from welding.planning.trial import trial_of
from welding.quantities.writing import System

router = Router(tags=["coupons"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


def _coupon(coupon_id: int) -> Coupon:
    return get_object_or_404(
        Coupon.objects.select_related("job", "revision__procedure", "created_by", "record"), pk=coupon_id
    )


def _row(pass_id: int) -> PassLog:
    return get_object_or_404(PassLog.objects.select_related("coupon", "logged_by"), pk=pass_id)


def _ended(row: PassLog) -> datetime:
    return row.ended_at or row.logged_at


@router.get("/jobs/{int:job_id}/coupons", response={200: list[CouponLineOut], 404: ProblemOut})
def list_coupons(request: HttpRequest, job_id: int) -> list[CouponLineOut]:
    """All coupons of a job."""
    require(person(request), Action.VIEW)
    job = get_object_or_404(Job, pk=job_id)
    lines = []
    for one, counts, damaged in counted(job.coupons.order_by("number")):
        lines.append(
            CouponLineOut(
                id=one.pk,
                number=one.number,
                status=one.status,
                record_state=one.record.state if hasattr(one, "record") else "",
                damaged=damaged,
                revision_id=one.revision_id,
                procedure_number=one.revision.procedure.number,
                letter=one.revision.letter,
                title=one.revision.title,
                welder=welder_of(one),
                planned=counts.planned,
                logged=counts.logged,
                flagged=counts.flagged,
                changed_at=one.changed_at,
            )
        )
    return lines


@router.post("/revisions/{int:revision_id}/coupons", response={201: CreatedOut, **REFUSALS})
def start(request: HttpRequest, revision_id: int, payload: StartIn) -> Status[CreatedOut]:
    """Start a coupon from a revision."""
    revision = get_object_or_404(Revision, pk=revision_id)
    coupon = start_coupon(person(request), revision, payload.welder)
    return Status(201, CreatedOut(id=coupon.pk))


@router.get("/coupons/{int:coupon_id}", response={200: CouponOut, 404: ProblemOut})
def read_coupon(request: HttpRequest, coupon_id: int, units: System = "si") -> CouponOut:
    """A coupon with its log and what each pass gave."""
    require(person(request), Action.VIEW)
    one = _coupon(coupon_id)
    document = coupon_document(one)
    records = passes_by_number(document)
    rows = list(one.passes.prefetch_related("photos").order_by("number", "id"))
    evaluation, log = evaluate(document.procedure, units), evaluate_coupon(document, units)
    latest = max((row for row in rows if not row.struck), key=_ended, default=None)
    heat = {result.pass_number: result.heat_with_k_kj_mm for result in log.passes}
    cooling = cooling_after(document, evaluation, latest.number, heat[latest.number]) if latest else None
    return CouponOut(
        id=one.pk,
        job_id=one.job_id,
        number=one.number,
        status=one.status,
        version=one.version,
        signed_record=one.record.number if hasattr(one, "record") else "",
        record_state=one.record.state if hasattr(one, "record") else "",
        revision_id=one.revision_id,
        procedure_number=one.revision.procedure.number,
        letter=one.revision.letter,
        procedure=document.procedure,
        piece=document.coupon,
        people=list(document.people),
        rows=[
            PassRowOut(
                id=row.pk,
                version=row.version,
                record=records[row.number],
                logged_by=row.logged_name,
                corrected_by=row.corrected_name,
                logged_at=row.logged_at,
                ended_at=_ended(row),
                device_offset_s=row.device_offset_s,
                photos=[photo.pk for photo in row.photos.all()],
            )
            for row in rows
            if not row.struck and row.number in records
        ],
        struck=[
            StruckOut(
                number=row.number,
                reason=row.struck_reason,
                logged_by=row.logged_name,
                logged_at=row.logged_at,
                struck_by=row.corrected_name,
            )
            for row in rows
            if row.struck
        ],
        evaluation=evaluation,
        log=log,
        checklist=list(checklist_for(document.procedure)),
        cooling=cooling,
        cooling_since=_ended(latest) if latest and cooling else None,
        server_time=timezone.now(),
    )


@router.patch("/coupons/{int:coupon_id}", response={200: VersionOut, **REFUSALS})
def change_piece(request: HttpRequest, coupon_id: int, payload: PieceChangeIn) -> VersionOut:
    """Change fit-up, preheat, ambient, welder or status."""
    one = _coupon(coupon_id)
    change: dict[str, Any] = {}
    if payload.piece is not None:
        piece = PIECE.plain(payload.piece)
        piece.pop("passes", None)
        change["piece"] = piece
    if payload.welder is not None:
        others = [other for other in one.people if other.get("role") != "welder"]
        name = payload.welder.strip()
        change["people"] = [{"role": "welder", "name": name}, *others] if name else others
    if payload.people is not None:
        change["people"] = [PERSON.plain(each) for each in payload.people]
    if payload.status is not None:
        change["status"] = payload.status
    if not change:
        raise InvalidError(tr("Nothing to change was sent."))
    changed = edit_piece(person(request), one, payload.version, change)
    return VersionOut(id=changed.pk, version=changed.version)


@router.post("/coupons/{int:coupon_id}/judge", response={200: PassResult, **REFUSALS})
def judge(request: HttpRequest, coupon_id: int, payload: JudgeIn) -> PassResult:
    """Judge a pass that is being typed; nothing is stored."""
    require(person(request), Action.VIEW)
    one = coupon_document(_coupon(coupon_id))
    return evaluate_pass(one.procedure, payload.record, payload.units, one.coupon)


@router.post("/revisions/{int:revision_id}/judge", response={200: PassResult, **REFUSALS})
def judge_on_scrap(request: HttpRequest, revision_id: int, payload: JudgeIn) -> PassResult:
    """Judge a pass tried on scrap, before there is a coupon; nothing is stored."""
    require(person(request), Action.VIEW)
    revision = get_object_or_404(Revision, pk=revision_id)
    return evaluate_pass(revision.contents(), payload.record, payload.units)


@router.post("/revisions/{int:revision_id}/trials", response={201: CreatedOut, **REFUSALS})
def keep_trial(request: HttpRequest, revision_id: int, payload: ScrapIn) -> Status[CreatedOut]:
    """Enter what was tried on scrap for a revision into the trial log."""
    revision = get_object_or_404(Revision, pk=revision_id)
    procedure = revision.contents()
    trial = trial_of(procedure, payload.record, payload.verdict, timezone.localdate().isoformat())
    return Status(201, CreatedOut(id=enter_trial(person(request), trial).pk))


@router.post("/coupons/{int:coupon_id}/passes", response={201: VersionOut, **REFUSALS})
def log_one(request: HttpRequest, coupon_id: int, payload: LogIn) -> Status[VersionOut]:
    """Log a pass, once for each ``client_id``."""
    clock = DeviceClock(payload.device_time, payload.saved_at) if payload.device_time else None
    user = sender(request, payload.person_id)
    row = log_pass(user, _coupon(coupon_id), payload.client_id, payload.record, clock)
    return Status(201, VersionOut(id=row.pk, version=row.version))


@router.put("/passes/{int:pass_id}", response={200: VersionOut, **REFUSALS})
def correct(request: HttpRequest, pass_id: int, payload: CorrectIn) -> VersionOut:
    """Correct a logged pass; 409 with what stands now if it was changed in the meantime."""
    row = correct_pass(person(request), _row(pass_id), payload.version, payload.record)
    return VersionOut(id=row.pk, version=row.version)


@router.post("/passes/{int:pass_id}/strike", response={200: VersionOut, **REFUSALS})
def strike(request: HttpRequest, pass_id: int, payload: StrikeIn) -> VersionOut:
    """Strike a logged pass with a reason; it stays in the trail."""
    row = strike_pass(person(request), _row(pass_id), payload.version, payload.reason)
    return VersionOut(id=row.pk, version=row.version)


@router.post("/passes/{int:pass_id}/explain", response={200: VersionOut, **REFUSALS})
def explain(request: HttpRequest, pass_id: int, payload: ExplainIn) -> VersionOut:
    """Explain a flag of a pass; the flag stays."""
    row = explain_flag(person(request), _row(pass_id), payload.version, payload.rule, payload.text)
    return VersionOut(id=row.pk, version=row.version)


@router.get("/coupons/{int:coupon_id}/export", response={200: None, 404: ProblemOut})
def export(request: HttpRequest, coupon_id: int) -> HttpResponse:
    """The coupon document as a file."""
    require(person(request), Action.VIEW)
    one = _coupon(coupon_id)
    return attachment(COUPON.write(coupon_document(one)), "application/json", f"{one.number}.coupon.json")


@router.post("/passes/{int:pass_id}/photos", response={201: CreatedOut, 413: ProblemOut, **REFUSALS})
def take_photo(request: HttpRequest, pass_id: int, client_id: UUID) -> Status[CreatedOut]:
    """Keep a photo of a pass; the body is the picture, at most 15 MB."""
    data = file_of(request, LARGEST_PHOTO)
    return Status(201, CreatedOut(id=add_photo(person(request), _row(pass_id), client_id, data).pk))


@router.get("/coupons/{int:coupon_id}/welder", response={200: list[NamedWelderOut], 404: ProblemOut})
def welder(request: HttpRequest, coupon_id: int, name: Line = "") -> list[NamedWelderOut]:
    """Whether whoever is to weld a coupon is qualified for it today; without a name its own welder."""
    require(person(request), Action.VIEW)
    one = _coupon(coupon_id)
    procedure = PROCEDURE.take(one.procedure_document)
    found = named_welders(procedure, timezone.localdate(), [name or welder_of(one)])
    return [
        NamedWelderOut(name=each.name, standing=each.standing, reasons=list(each.reasons)) for each in found
    ]


@router.get("/coupons/{int:coupon_id}/who-may", response={200: WhoMayOut, **REFUSALS})
def who_may(request: HttpRequest, coupon_id: int) -> WhoMayOut:
    """Who is qualified to weld what a coupon's procedure asks."""
    require(person(request), Action.VIEW)
    one = _coupon(coupon_id)
    procedure = PROCEDURE.take(one.procedure_document)
    return who_may_out(tr("coupon {number}", number=one.number), procedure, timezone.localdate())


@router.get("/photos/{int:photo_id}", response={200: None, 404: ProblemOut})
def photo(request: HttpRequest, photo_id: int) -> FileResponse:
    """The photo as it came."""
    require(person(request), Action.VIEW)
    one = get_object_or_404(PassPhoto, pk=photo_id)
    return FileResponse(one.file.open("rb"), content_type=one.content_type)


@router.get("/coupons/{int:coupon_id}/table", response={200: None, 404: ProblemOut})
def table(request: HttpRequest, coupon_id: int, kind: Kind = "csv", empty: bool = False) -> HttpResponse:
    """The log as CSV or XLSX; ``empty`` gives the template to copy a hand-written log into."""
    require(person(request), Action.VIEW)
    one = _coupon(coupon_id)
    data = template_file(one, kind) if empty else log_file(one, kind)
    name = f"{one.number}.{'template' if empty else 'log'}.{kind}"
    return attachment(data, TYPES[kind], name)


@router.post("/coupons/{int:coupon_id}/table", response={200: list[VersionOut], 413: ProblemOut, **REFUSALS})
def take_table(request: HttpRequest, coupon_id: int) -> list[VersionOut]:
    """Log every row of a CSV or XLSX made from the template; all or none. The body is the file."""
    rows = take_log(person(request), _coupon(coupon_id), request.body)
    return [VersionOut(id=row.pk, version=row.version) for row in rows]


@router.post("/jobs/{int:job_id}/import", response={200: ImportedOut, 413: ProblemOut, **REFUSALS})
def import_document(request: HttpRequest, job_id: int, as_number: Number = "") -> ImportedOut:
    """Import a procedure or a coupon; the body is the file. Refused whole if anything is wrong."""
    user = person(request)
    require(user, Action.IMPORT)
    job = get_object_or_404(Job, pk=job_id)
    raw = request.body
    head = parse_json(raw)
    if isinstance(head, dict) and head.get("format") == "grounded-bead/coupon":
        found = import_coupon(user, job, COUPON.read(raw), as_number)
        return ImportedOut(
            kind="coupon", id=found.coupon.pk, number=found.coupon.number, unchanged=found.unchanged
        )
    taken = import_procedure(user, job, PROCEDURE.read(raw), as_number)
    return ImportedOut(
        kind="procedure",
        id=taken.revision.pk,
        number=taken.revision.procedure.number,
        unchanged=taken.unchanged,
    )
