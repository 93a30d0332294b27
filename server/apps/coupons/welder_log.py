"""The logs of coupons as evidence that people have welded."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from datetime import date

from django.utils import timezone

from apps.coupons.models import Coupon, PassLog
from apps.crew.evidence import DayAtWork, Log, Work
from welding.documents.codec import PROCEDURE
from welding.language import tr

ROLE = "welder"


def welder_of(coupon: Coupon) -> str:
    """Name of whoever welds a coupon; empty where nobody is named."""
    return next(
        (
            str(one.get("name", ""))
            for one in coupon.people
            if isinstance(one, dict) and one.get("role") == ROLE
        ),
        "",
    )


def _welded(names: Collection[str]) -> list[tuple[str, Coupon, date, list[int]]]:
    """Who welded which coupon on which day, and the numbers of the passes that count."""
    wanted = set(names)
    coupons = {
        one.pk: one
        for one in Coupon.objects.exclude(people=[]).select_related("job")
        if welder_of(one) in wanted
    }
    days: dict[tuple[int, date], list[int]] = {}
    rows = PassLog.objects.filter(coupon__in=coupons, struck=False).order_by("number")
    for coupon_id, number, ended, logged in rows.values_list("coupon", "number", "ended_at", "logged_at"):
        days.setdefault((coupon_id, timezone.localdate(ended or logged)), []).append(number)
    return [(welder_of(coupons[pk]), coupons[pk], day, numbers) for (pk, day), numbers in days.items()]


def _works(name: str, since: date, until: date) -> Iterable[Work]:
    for _, coupon, day, numbers in _welded([name]):
        if not since <= day <= until:
            continue
        passes = ", ".join(str(one) for one in numbers)
        what = tr(
            "{job}, coupon {coupon}, pass {passes}", job=coupon.job.number, coupon=coupon, passes=passes
        )
        yield Work(
            ref=f"coupon-{coupon.pk}-{day.isoformat()}",
            name=name,
            on=day,
            what=what[:200],
            procedure=PROCEDURE.take(coupon.procedure_document),
            same=("coupon", coupon.pk),
            coupon=coupon.number,
        )


def _days(names: Collection[str]) -> Iterable[DayAtWork]:
    for name, coupon, day, _ in _welded(names):
        procedure = PROCEDURE.take(coupon.procedure_document)
        yield DayAtWork(name=name, on=day, procedure=procedure, same=("coupon", coupon.pk))


LOG = Log(works=_works, days=_days)
