"""A running stream: open it, take its chunks once each, end it."""

from __future__ import annotations

import hashlib
import io
import tempfile
from datetime import datetime
from pathlib import Path
from typing import Any
from uuid import UUID

import numpy as np
import pyarrow as pa
import pyarrow.csv as pa_csv
from api.errors import ConflictError, InvalidError
from django.core.files import File
from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.coupons.models import Coupon
from apps.coupons.services.hold import held_open
from apps.recordings.models import Chunk, Recorder, Recording, Status
from apps.recordings.services.examine import examine
from welding.language import tr
from welding.recording.arcs import ARC_ON_A, arc_stretches
from welding.recording.mapping import Column, Mapping
from welding.recording.measure import measure
from welding.recording.signals import CHANNELS, tidy
from welding.recording.signals import Recording as Signals
from welding.recording.trace import thinned

COLUMNS = ("time_s", *CHANNELS)
BUCKETS_A_CHUNK = 60
UNITS = {"time_s": "s", "voltage_v": "V", "current_a": "A", "wire_feed_m_min": "m/min", "gas_l_min": "L/min"}


def open_stream(
    recorder: Recorder,
    *,
    client_id: UUID,
    name: str,
    columns: list[str],
    coupon: str | None,
    job: str | None = None,
    device_time: datetime | None,
) -> Recording:
    """Open a stream; the same ``client_id`` again gives the one that is there.

    Args:
        recorder: The device.
        client_id: Of this stream.
        name: Of the recording.
        columns: What each row holds; the first is ``time_s``.
        coupon: Number of the coupon that is welded; its log must be open.
        job: Number of its job, needed where coupons of several jobs have that number.
        device_time: The device's clock.

    Raises:
        InvalidError: Columns are unknown or missing, or there is no such coupon, or several.
        ConflictError: The coupon's log is closed, or the ``client_id`` was used for another stream.
    """
    there = Recording.objects.filter(client_id=client_id, recorder=recorder).first()
    if there:
        return there
    if columns[:1] != ["time_s"] or not {"voltage_v", "current_a"} <= set(columns):
        raise InvalidError(tr("columns begin with time_s and hold voltage_v and current_a"))
    if strange := [one for one in columns if one not in COLUMNS]:
        raise InvalidError(
            tr("{strange}: columns are {columns}", strange=", ".join(strange), columns=", ".join(COLUMNS))
        )
    if len(set(columns)) != len(columns):
        raise InvalidError(tr("a column stands twice"))
    piece = _coupon_of(coupon, job) if coupon else None
    offset = (device_time - timezone.now()).total_seconds() if device_time else None
    try:
        with transaction.atomic():
            if piece is not None:
                held_open(piece)
            return Recording.objects.create(
                recorder=recorder,
                coupon=piece,
                client_id=client_id,
                name=name[:200] or recorder.name,
                status=Status.STREAMING,
                columns=columns,
                device_offset_s=offset,
            )
    except IntegrityError:
        twin = Recording.objects.filter(client_id=client_id, recorder=recorder).first()
        if twin is None:
            raise ConflictError(tr("this client_id was used by another sender: take a new one")) from None
        return twin


def _coupon_of(number: str, job: str | None) -> Coupon:
    found = list(Coupon.objects.filter(number=number).select_related("job"))
    if job:
        found = [one for one in found if one.job.number == job]
    if not found:
        raise InvalidError(
            tr(
                "there is no coupon {number}{value}",
                number=number,
                value=tr(" in job {job}", job=job) if job else "",
            )
        )
    if len(found) > 1:
        jobs = ", ".join(sorted(one.job.number for one in found))
        raise InvalidError(
            tr("coupon {number} stands in several jobs: name one of {jobs} as job", number=number, jobs=jobs)
        )
    return found[0]


def take_chunk(recording: Recording, number: int, payload: bytes) -> int:
    """Keep a chunk; the same number with the same bytes again changes nothing.

    Returns:
        The number that is wanted next.

    Raises:
        ConflictError: The stream has ended, the number holds other bytes, or one before is missing.
        InvalidError: The rows cannot be read.
    """
    digest = hashlib.sha256(payload).hexdigest()
    with transaction.atomic():
        # One chunk of a stream at a time: numbers follow one another.
        held = Recording.objects.select_for_update().only("status", "columns").get(pk=recording.pk)
        there = (
            Chunk.objects.filter(recording=recording, number=number).values_list("sha256", flat=True).first()
        )
        wanted = Chunk.objects.filter(recording=recording).count()
        if there is not None:
            if there != digest:
                raise ConflictError(
                    tr("chunk {number} is there with other bytes", number=number), current={"next": wanted}
                )
            return wanted
        if held.status != Status.STREAMING:
            raise ConflictError(tr("the stream has ended"))
        if number != wanted:
            raise ConflictError(tr("chunk {wanted} is wanted next", wanted=wanted), current={"next": wanted})
        signals = _read(held.columns, payload)
        glance = _glance(signals)
        arc = glance["arc"] or {}
        Chunk.objects.create(
            recording=recording,
            number=number,
            payload=payload,
            sha256=digest,
            samples=signals.size,
            arc_s=arc.get("arc_s", 0.0),
            energy_j=arc.get("energy_j", 0.0),
            glance=glance,
        )
    return wanted + 1


def _read(columns: list[str], payload: bytes) -> Signals:
    """The rows of a chunk; a value that is missing stays out of the glance but in the bytes."""
    try:
        table = pa_csv.read_csv(
            io.BytesIO(payload),
            read_options=pa_csv.ReadOptions(column_names=columns, use_threads=False),
            convert_options=pa_csv.ConvertOptions(column_types={name: pa.float64() for name in columns}),
        )
    except (pa.ArrowException, OSError, ValueError) as error:
        first = next(iter(str(error).splitlines()), "")
        raise InvalidError(tr("the rows cannot be read: {first}", first=first[:200])) from error
    arrays = {name: table.column(name).to_numpy() for name in columns}
    signals = Signals(**arrays)
    if signals.size and not np.any(np.isfinite(signals.time_s)):
        raise InvalidError(tr("the rows cannot be read: no time is a number"))
    return signals


def _glance(signals: Signals) -> dict[str, Any]:
    """What the page shows of a chunk while the arc burns; the record is reckoned from the whole."""
    fit = tidy(signals.time_s, signals.voltage_v, signals.current_a).recording
    stretches = arc_stretches(fit, arc_on_a=ARC_ON_A, touch_s=0)
    arc = None
    if stretches and fit.size > 2:
        got = measure(fit, stretches)
        arc = {
            "energy_j": got.energy_j,
            "arc_s": got.arc_time_s,
            "voltage_v": got.mean_voltage_v,
            "current_a": got.mean_current_a,
        }
    names = [name for name in CHANNELS if getattr(signals, name) is not None]
    level = thinned(signals.time_s, tuple(getattr(signals, name) for name in names), BUCKETS_A_CHUNK)

    def plain(values: Any) -> list[float | None]:
        return [None if not np.isfinite(one) else round(float(one), 4) for one in values]

    return {
        "start_s": plain(level.start_s),
        "channels": {
            name: {"low": plain(level.low[at]), "high": plain(level.high[at])}
            for at, name in enumerate(names)
        },
        "arc": arc,
    }


def close_stream(recording: Recording, *, chunks: int | None, samples: int | None) -> Recording:
    """End a stream and examine it whole; ended already, it stays as it is.

    Args:
        recording: The stream.
        chunks: How many the sender sent; ``None`` where a person ends an abandoned stream.
        samples: How many samples those held.

    Raises:
        ConflictError: The server has other chunks or samples than were sent.
    """
    with transaction.atomic():
        held = Recording.objects.select_for_update().get(pk=recording.pk)
        if held.status != Status.STREAMING:
            return held
        have = list(held.chunks.values_list("samples", flat=True))
        if chunks is not None and (len(have) != chunks or (samples is not None and sum(have) != samples)):
            raise ConflictError(
                tr(
                    "{count} chunks with {sum} samples are here; {chunks} with {samples} were sent",
                    count=len(have),
                    sum=sum(have),
                    chunks=chunks,
                    samples=samples,
                ),
                current={"next": len(have)},
            )
        with tempfile.NamedTemporaryFile(suffix=".csv") as whole:
            digest = hashlib.sha256()
            for part in _lines(held):
                digest.update(part)
                whole.write(part)
            held.size_bytes = whole.tell()
            whole.flush()
            held.sha256 = digest.hexdigest()
            with open(whole.name, "rb") as file:
                held.original.save(f"{held.sha256[:16]}-stream.csv", File(file), save=False)
            examine(held, Path(whole.name), _mapping(held.columns))
        # The file is on the disk by now, and its row with the chunks' end comes in one commit or not at all.
        held.chunks.all().delete()
    return held


def _lines(recording: Recording) -> Any:
    yield (",".join(recording.columns) + "\n").encode()
    for payload in recording.chunks.order_by("number").values_list("payload", flat=True).iterator(20):
        data = bytes(payload)
        yield data if data.endswith(b"\n") else data + b"\n"


def _mapping(columns: list[str]) -> Mapping:
    def column(name: str) -> Column | None:
        return Column(column=name, unit=UNITS[name]) if name in columns else None  # type: ignore[arg-type]

    return Mapping(
        time=column("time_s"),
        voltage=Column(column="voltage_v", unit="V"),
        current=Column(column="current_a", unit="A"),
        wire_feed=column("wire_feed_m_min"),
        gas=column("gas_l_min"),
    )
