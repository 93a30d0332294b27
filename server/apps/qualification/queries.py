"""Reading evidence: the record of a coupon as an open document, signed records of a job."""

from __future__ import annotations

from apps.coupons.models import Coupon
from apps.coupons.queries import coupon_document
from apps.jobs.models import Job
from apps.qualification.models import Purpose, QualificationRecord
from welding.documents.codec import COUPON, RECORD
from welding.documents.record import QualificationRecord as Document


def record_number(coupon: Coupon) -> str:
    """Number of a coupon's record: the coupon's own with Q in place of C, such as ``FB-27-Q05``."""
    head, _, tail = coupon.number.rpartition("-C")
    return f"{head}-Q{tail}" if head and tail else f"{coupon.number}-Q"


def record_document(coupon: Coupon) -> Document:
    """The whole record as it stands now; struck passes are left out."""
    plain = COUPON.plain(coupon_document(coupon))
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


def signed_document(record: QualificationRecord) -> Document:
    """A signed record as it was signed."""
    return RECORD.read(record.body)


def signed_records(job: Job) -> list[QualificationRecord]:
    """Signed records of a job that count, in order of their numbers."""
    return list(
        QualificationRecord.objects.filter(coupon__job=job)
        .exclude(signatures__purpose=Purpose.VOID)
        .select_related("coupon__revision__procedure", "signed_by")
        .order_by("number")
    )
