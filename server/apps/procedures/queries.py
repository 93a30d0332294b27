"""Reading procedures for lists and for the desk."""

from __future__ import annotations

from django.db.models import Count, Q

from apps.jobs.models import Job
from apps.procedures.models import Revision


def newest_revisions(job: Job) -> list[Revision]:
    """The newest revision of every procedure of a job, in order of their numbers."""
    newest_ids = (
        Revision.objects.filter(procedure__job=job)
        .order_by("procedure_id", "-id")
        .distinct("procedure_id")
        .values("pk")
    )
    return list(
        Revision.objects.filter(pk__in=newest_ids)
        .select_related("procedure", "saved_by")
        .defer("document")
        .annotate(
            coupon_count=Count("coupons"), welding_count=Count("coupons", filter=Q(coupons__status="welding"))
        )
        .order_by("procedure__number")
    )
