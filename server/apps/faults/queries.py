"""What is known of a pass for the fault finder: its log, its recording, and what cured faults here before."""

from __future__ import annotations

from django.db.models import Count

from apps.coupons.models import PassLog
from apps.coupons.queries import coupon_document
from apps.faults.models import Cure
from apps.recordings.models import Recording
from welding.documents.codec import Codec
from welding.documents.coupon import Coupon, RecordingRef
from welding.recording.waveform import Waveform

_WAVEFORM = Codec(Waveform)


def cured_here(symptom: str) -> dict[str, int]:
    """How often each cause of a symptom was the cured one in this shop."""
    counted = Cure.objects.filter(symptom=symptom, struck_because="").values("cause")
    return {one["cause"]: one["n"] for one in counted.annotate(n=Count("id")).order_by("cause")}


def coupon_of_pass(row: PassLog) -> Coupon:
    """The coupon that a pass belongs to; from its signed bytes once its record is signed."""
    return coupon_document(row.coupon)


def waveform_of_pass(row: PassLog, ref: RecordingRef | None) -> Waveform | None:
    """The waveform over the part of a recording that a pass was taken from; ``None`` without one."""
    if ref is None:
        return None
    kept = Recording.objects.filter(coupon=row.coupon, sha256=ref.sha256).first()
    passes = (kept.analysis or {}).get("passes", []) if kept else []
    for one in passes:
        if one["start_s"] < ref.end_s and ref.start_s < one["end_s"]:
            return _WAVEFORM.take(one["waveform"])
    return None
