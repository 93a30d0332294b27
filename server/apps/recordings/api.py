"""Recordings of a coupon: send a file, say how to read it, look at the trace, take passes."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from uuid import UUID

import numpy as np
from api.downloads import attachment
from api.errors import InvalidError, ProblemOut, StaleError
from api.people import person
from api.text import Line
from django.db import transaction
from django.db.models import Count, Q, Sum
from django.http import FileResponse, HttpRequest, HttpResponseBase
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.queries import coupon_document
from apps.coupons.schemas import VersionOut
from apps.coupons.services.hold import held
from apps.recordings.models import Recorder, Recording
from apps.recordings.models import Status as State
from apps.recordings.schemas import (
    AsideIn,
    ExamineIn,
    LiveOut,
    RecorderIn,
    RecorderMadeOut,
    RecorderOut,
    RecordingLineOut,
    RecordingOut,
    TakeIn,
    TakenOut,
    TraceOut,
)
from apps.recordings.services.examine import ANALYSIS, FAULTS, GUESS, MAPPING, examine
from apps.recordings.services.receive_file import examine_received, receive_file
from apps.recordings.services.recorders import add_recorder, retire_recorder
from apps.recordings.services.stream import close_stream
from apps.recordings.services.take_passes import Taken, take_passes
from apps.recordings.store import local, trace
from welding.language import tr

router = Router(tags=["recordings"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}
PART_BYTES = 1 << 20
MOST_CHUNKS = 120


def _recording(recording_id: int) -> Recording:
    query = Recording.objects.select_related("recorder", "coupon")
    return get_object_or_404(query, pk=recording_id)


def _out(one: Recording) -> RecordingOut:
    found = ANALYSIS.validate_python(one.analysis) if one.analysis else None
    taken = one.taken.select_related("row", "taken_by").filter(row__struck=False).order_by("start_s")
    return RecordingOut(
        id=one.pk,
        coupon_id=one.coupon_id,
        version=one.version,
        name=one.name,
        status=one.status,
        message=one.message,
        recorder=one.recorder.name if one.recorder else None,
        device_offset_s=one.device_offset_s,
        sha256=one.sha256,
        size_bytes=one.size_bytes,
        guess=GUESS.validate_python(one.guess) if one.guess else None,
        mapping=MAPPING.validate_python(one.mapping) if one.mapping else None,
        faults=[*FAULTS.validate_python(one.file_faults), *(found.faults if found else ())],
        analysis=found,
        taken=[
            TakenOut(
                pass_number=each.row.number,
                start_s=each.start_s,
                end_s=each.end_s,
                taken_by=each.taken_by.shown_name,
            )
            for each in taken
        ],
        created_at=one.created_at,
    )


@router.get("/coupons/{int:coupon_id}/recordings", response={200: list[RecordingLineOut], 404: ProblemOut})
def list_recordings(request: HttpRequest, coupon_id: int) -> list[RecordingLineOut]:
    """The recordings of a coupon, the latest first."""
    require(person(request), Action.VIEW)
    coupon = get_object_or_404(Coupon, pk=coupon_id)
    # An amendment's passes may come from recordings of the coupon that it was copied from.
    query = (
        Recording.objects.filter(Q(coupon=coupon) | Q(taken__row__coupon=coupon))
        .distinct()
        .defer("guess")
        .select_related("recorder")
        .prefetch_related("taken__row")
    )
    return [
        RecordingLineOut(
            id=one.pk,
            name=one.name,
            status=one.status,
            recorder=one.recorder.name if one.recorder else None,
            passes=_count(one.analysis, "passes"),
            faults=_count({"all": one.file_faults}, "all") + _count(one.analysis, "faults"),
            taken=sorted(
                each.row.number
                for each in one.taken.all()
                if not each.row.struck and each.row.coupon_id == coupon.pk
            ),
            created_at=one.created_at,
        )
        for one in query
    ]


def _count(found: Any, name: str) -> int:
    """How many there are; none where what is kept has another form."""
    items = found.get(name) if isinstance(found, dict) else None
    return len(items) if isinstance(items, list) else 0


@router.post("/coupons/{int:coupon_id}/recordings", response={201: RecordingOut, 413: ProblemOut, **REFUSALS})
def send_file(
    request: HttpRequest,
    coupon_id: int,
    client_id: UUID,
    name: Line = "recording",
    recorder_id: int | None = None,
) -> Status[RecordingOut]:
    """Take a recorder's file; the body is the file, up to 2 GB."""
    coupon = get_object_or_404(Coupon, pk=coupon_id)
    recorder = get_object_or_404(Recorder, pk=recorder_id) if recorder_id else None
    length = request.META.get("CONTENT_LENGTH") or ""
    found = receive_file(
        person(request),
        coupon,
        _parts(request),
        client_id=client_id,
        name=name,
        declared_bytes=int(length) if length.isdigit() else None,
        recorder=recorder,
    )
    return Status(201, _out(found))


def _parts(request: HttpRequest) -> Iterator[bytes]:
    while part := request.read(PART_BYTES):
        yield part


@router.get("/recordings/{int:recording_id}", response={200: RecordingOut, 404: ProblemOut})
def read_recording(request: HttpRequest, recording_id: int) -> RecordingOut:
    """A recording with its passes and faults."""
    require(person(request), Action.VIEW)
    return _out(_recording(recording_id))


@router.post("/recordings/{int:recording_id}/mapping", response={200: RecordingOut, **REFUSALS})
def choose_mapping(request: HttpRequest, recording_id: int, payload: ExamineIn) -> RecordingOut:
    """Read the file again with columns that a person chose; remembered for the device."""
    require(person(request), Action.LOG_PASS)
    one = _recording(recording_id)
    if one.taken.filter(row__struck=False).exists():
        raise InvalidError(tr("Passes were taken from it: strike them first, then read it differently."))
    if one.status == State.STREAMING:
        raise InvalidError(tr("It is still streaming: end it first."))
    _claim(one, payload.version)
    with local(one.original) as path:
        examine(one, path, payload.mapping)
    if one.recorder and one.status == State.READY:
        Recorder.objects.filter(pk=one.recorder.pk).update(mapping=one.mapping)
    return _out(one)


def _claim(one: Recording, version: int) -> None:
    """Move to the next version if ``version`` still stands.

    Raises:
        StaleError: Someone changed it in the meantime.
        ConflictError: The coupon's record is signed.
    """
    with transaction.atomic():
        if one.coupon is not None:
            held(one.coupon)
        changed = Recording.objects.filter(pk=one.pk, version=version).update(version=version + 1)
    one.refresh_from_db()
    if not changed:
        raise StaleError(tr("The recording was changed in the meantime."), current={"version": one.version})


@router.post("/recordings/{int:recording_id}/passes", response={200: list[VersionOut], **REFUSALS})
def take(request: HttpRequest, recording_id: int, payload: TakeIn) -> list[VersionOut]:
    """Write confirmed parts into the coupon's log."""
    one = _recording(recording_id)
    if one.coupon is None:
        raise InvalidError(tr("The recording belongs to no coupon."))
    procedure = coupon_document(one.coupon).procedure
    parts = [Taken(**part.model_dump()) for part in payload.parts]
    return [
        VersionOut(id=row.pk, version=row.version)
        for row in take_passes(person(request), one, one.coupon, parts, procedure)
    ]


@router.post("/recordings/{int:recording_id}/examine", response={200: RecordingOut, **REFUSALS})
def examine_it(request: HttpRequest, recording_id: int) -> RecordingOut:
    """Read a recording that was kept but not read, such as after a power cut."""
    require(person(request), Action.LOG_PASS)
    one = _recording(recording_id)
    if one.coupon is not None:
        with transaction.atomic():
            held(one.coupon)
    return _out(examine_received(one))


@router.get("/recordings/{int:recording_id}/trace", response={200: TraceOut, **REFUSALS})
def read_trace(
    request: HttpRequest,
    recording_id: int,
    start_s: float | None = None,
    end_s: float | None = None,
    most: int = 900,
) -> TraceOut:
    """The trace between two times, thinned so that no peak is lost."""
    require(person(request), Action.VIEW)
    one = _recording(recording_id)
    if not one.levels:
        raise InvalidError(tr("The recording could not be read yet."))
    if start_s is not None and end_s is not None and end_s <= start_s:
        raise InvalidError(tr("The end comes before the beginning."))
    names, level = trace(one, start_s, end_s, min(max(most, 50), 4000))
    return TraceOut(
        start_s=[round(float(value), 6) for value in level.start_s],
        samples_a_bucket=level.size,
        channels={
            name: {"low": _plain(level.low[at]), "high": _plain(level.high[at])}
            for at, name in enumerate(names)
        },
    )


def _plain(values: Any) -> list[float | None]:
    return [
        float(value) if finite else None
        for value, finite in zip(values.round(4), np.isfinite(values), strict=True)
    ]


@router.get("/recordings/{int:recording_id}/live", response={200: LiveOut, 404: ProblemOut})
def live(request: HttpRequest, recording_id: int, after: int = 0) -> LiveOut:
    """What a running stream brought since chunk ``after``."""
    require(person(request), Action.VIEW)
    one = _recording(recording_id)
    # Asked every moment: sums come from the database, and only what is new is read whole.
    sums = one.chunks.aggregate(
        count=Count("pk"), samples=Sum("samples"), arc_s=Sum("arc_s"), energy_j=Sum("energy_j")
    )
    count = sums["count"]
    new = one.chunks.filter(number__gte=max(after, count - MOST_CHUNKS)).order_by("number")
    return LiveOut(
        status=one.status,
        next=count,
        chunks=list(new.filter(number__lt=count).values_list("glance", flat=True)),
        samples=sums["samples"] or 0,
        arc_s=sums["arc_s"] or 0.0,
        energy_j=sums["energy_j"] or 0.0,
    )


@router.post("/recordings/{int:recording_id}/end", response={200: RecordingOut, **REFUSALS})
def end_stream(request: HttpRequest, recording_id: int) -> RecordingOut:
    """End a stream whose recorder is gone; what came is kept."""
    require(person(request), Action.LOG_PASS)
    one = _recording(recording_id)
    if one.coupon is not None:
        with transaction.atomic():
            held(one.coupon)
    return _out(close_stream(one, chunks=None, samples=None))


@router.post("/recordings/{int:recording_id}/aside", response={200: RecordingOut, **REFUSALS})
def set_aside(request: HttpRequest, recording_id: int, payload: AsideIn) -> RecordingOut:
    """Set a recording aside with a reason; its file stays."""
    require(person(request), Action.LOG_PASS)
    one = _recording(recording_id)
    if not payload.reason.strip():
        raise InvalidError(tr("Say why."), errors=[{"path": "reason", "message": tr("say why"), "value": ""}])
    if one.taken.filter(row__struck=False).exists():
        raise InvalidError(tr("Passes were taken from it: strike them first."))
    if one.status == State.STREAMING:
        raise InvalidError(tr("It is still streaming: end it first."))
    _claim(one, payload.version)
    one.status, one.message = State.SET_ASIDE, payload.reason.strip()
    one.save(update_fields=["status", "message", "changed_at"])
    return _out(one)


@router.get("/recordings/{int:recording_id}/file", response={200: None, 404: ProblemOut})
def original(request: HttpRequest, recording_id: int) -> HttpResponseBase:
    """The file as it came, byte for byte."""
    require(person(request), Action.VIEW)
    one = _recording(recording_id)
    if not one.original:
        return attachment(b"", "text/csv", f"{one.name}.csv")
    return FileResponse(one.original.open("rb"), as_attachment=True, filename=one.name[-100:])


@router.get("/recorders", response=list[RecorderOut])
def list_recorders(request: HttpRequest) -> list[RecorderOut]:
    """All recorders."""
    require(person(request), Action.VIEW)
    return [
        RecorderOut(
            id=one.pk,
            name=one.name,
            retired=one.retired,
            heard_at=one.heard_at,
            has_mapping=one.mapping is not None,
        )
        for one in Recorder.objects.all()
    ]


@router.post("/recorders", response={201: RecorderMadeOut, **REFUSALS})
def make_recorder(request: HttpRequest, payload: RecorderIn) -> Status[RecorderMadeOut]:
    """Add a recorder; its token is told this once."""
    made, token = add_recorder(person(request), payload.name)
    return Status(201, RecorderMadeOut(id=made.pk, name=made.name, token=token))


@router.post("/recorders/{int:recorder_id}/retire", response={200: RecorderOut, **REFUSALS})
def retire(request: HttpRequest, recorder_id: int) -> RecorderOut:
    """Refuse its token from now on."""
    one = retire_recorder(person(request), get_object_or_404(Recorder, pk=recorder_id))
    return RecorderOut(
        id=one.pk,
        name=one.name,
        retired=one.retired,
        heard_at=one.heard_at,
        has_mapping=one.mapping is not None,
    )
