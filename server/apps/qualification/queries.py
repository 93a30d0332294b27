"""Reading evidence: the record of a coupon as an open document, signed records of a job."""

from __future__ import annotations

from typing import Any

from apps.coupons.models import Coupon
from apps.coupons.queries import standing_document
from apps.jobs.models import Job
from apps.qualification.models import QualificationRecord
from welding.documents.codec import COUPON, RECORD, TEST
from welding.documents.record import QualificationRecord as Document


def record_number(coupon: Coupon) -> str:
    """Number of a coupon's record: the coupon's own with Q in place of C, such as ``FB-27-Q05``."""
    head, _, tail = coupon.number.rpartition("-C")
    return f"{head}-Q{tail}" if head and tail else f"{coupon.number}-Q"


def record_document(coupon: Coupon) -> Document:
    """The record: from its signed bytes once it is signed, else as it stands now.

    Raises:
        DamagedError: The bytes are not those that were signed.
        DocumentError: What is kept does not hold together.
    """
    signed = getattr(coupon, "record", None)
    return signed.document() if signed is not None else standing_record(coupon)


def standing_record(coupon: Coupon) -> Document:
    """The whole record as its rows stand; struck passes are left out."""
    plain = COUPON.plain(standing_document(coupon))
    tests = [one.document for one in coupon.specimens.order_by("id")]
    old = bool(coupon.certificate)
    return RECORD.take(
        {
            **plain,
            "format": "grounded-bead/qualification-record",
            "number": record_number(coupon),
            "tests": tests,
            "source": "certificate" if old else "log",
            **({"certificate": coupon.certificate} if old else {}),
            **({"tested_to": coupon.tested_to} if coupon.tested_to else {}),
        }
    )


def signed_tests(coupon: Coupon) -> dict[str, Any]:
    """Tests of a coupon by their marks: from the signed bytes once the record is signed."""
    signed = getattr(coupon, "record", None)
    if signed is not None:
        return {one.specimen: one for one in signed.document().tests}
    return {one.mark: TEST.take(one.document) for one in coupon.specimens.all()}


def all_records(job: Job) -> list[QualificationRecord]:
    """Signed records of a job, void and superseded ones too, in order of their numbers."""
    return list(
        QualificationRecord.objects.filter(coupon__job=job)
        .select_related("coupon__job", "coupon__revision__procedure")
        .defer(
            "findings", "coupon__procedure_document", "coupon__revision__document", "coupon__revision__body"
        )
        .prefetch_related("signatures")
        .order_by("number")
    )


def signed_records(job: Job) -> list[QualificationRecord]:
    """Signed records of a job that count, in order of their numbers."""
    return [one for one in all_records(job) if one.counts]
