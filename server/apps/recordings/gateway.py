"""The interface that recorders speak: open a stream, put chunks, close it. See docs/formats.md."""

from __future__ import annotations

from typing import Any, cast

from api.errors import ProblemOut
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status
from ninja.security import HttpBearer

from apps.recordings.models import Recorder, Recording
from apps.recordings.schemas import ClosedOut, CloseIn, OpenIn, StreamOut
from apps.recordings.services.recorders import recorder_of
from apps.recordings.services.stream import close_stream, open_stream, take_chunk


class RecorderToken(HttpBearer):
    """A recorder signs in with its token, at every request."""

    def authenticate(self, request: HttpRequest, token: str) -> Recorder | None:
        """The recorder of this token."""
        return recorder_of(token)


router = Router(tags=["recorder"], auth=RecorderToken())
REFUSALS: dict[Any, Any] = {401: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


def _recorder(request: HttpRequest) -> Recorder:
    return cast(Recorder, request.auth)  # type: ignore[attr-defined]


def _stream(request: HttpRequest, stream_id: int) -> Recording:
    return get_object_or_404(
        Recording.objects.select_related("recorder"), pk=stream_id, recorder=_recorder(request)
    )


@router.post("/recorder/streams", response={201: StreamOut, **REFUSALS})
def open_one(request: HttpRequest, payload: OpenIn) -> Status[StreamOut]:
    """Open a stream, once for each ``client_id``."""
    one = open_stream(
        _recorder(request),
        client_id=payload.client_id,
        name=payload.name,
        columns=payload.columns,
        coupon=payload.coupon,
        job=payload.job,
        device_time=payload.device_time,
    )
    return Status(201, StreamOut(id=one.pk, next=one.chunks.count(), server_time=timezone.now()))


@router.put(
    "/recorder/streams/{int:stream_id}/chunks/{int:number}",
    response={200: StreamOut, 413: ProblemOut, **REFUSALS},
    openapi_extra={
        "requestBody": {"content": {"text/csv": {"schema": {"type": "string"}}}, "required": True}
    },
)
def put_chunk(request: HttpRequest, stream_id: int, number: int) -> StreamOut:
    """Rows of CSV without a header, at most 2 MB; taken once for each number."""
    one = _stream(request, stream_id)
    wanted = take_chunk(one, number, request.body)
    return StreamOut(id=one.pk, next=wanted, server_time=timezone.now())


@router.post("/recorder/streams/{int:stream_id}/close", response={200: ClosedOut, **REFUSALS})
def close_one(request: HttpRequest, stream_id: int, payload: CloseIn) -> ClosedOut:
    """End a stream; refused where chunks or samples are missing."""
    one = close_stream(_stream(request, stream_id), chunks=payload.chunks, samples=payload.samples)
    return ClosedOut(
        id=one.pk, status=one.status, samples=(one.analysis or {}).get("samples", 0), sha256=one.sha256
    )
