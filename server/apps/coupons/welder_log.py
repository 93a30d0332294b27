"""The logs of coupons as evidence that people have welded."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from datetime import date

from django.db.models import Q
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


def _of(name: str) -> Q:
    return Q(coupon__people__contains=[{"role": ROLE, "name": name}])


def _days_welded(name: str) -> dict[tuple[int, date], list[PassLog]]:
    """Passes that count, by coupon and day; a coupon of an old record has none."""
    rows = PassLog.objects.filter(_of(name), struck=False).select_related("coupon__job").order_by("number")
    found: dict[tuple[int, date], list[PassLog]] = {}
    for row in rows:
        found.setdefault((row.coupon_id, timezone.localdate(row.ended_at or row.logged_at)), []).append(row)
    return found


def _works(name: str, since: date, until: date) -> Iterable[Work]:
    for (coupon_id, day), rows in _days_welded(name).items():
        if not since <= day <= until:
            continue
        coupon = rows[0].coupon
        passes = ", ".join(str(one.number) for one in rows)
        what = tr(
            "{job}, coupon {coupon}, pass {passes}", job=coupon.job.number, coupon=coupon, passes=passes
        )
        yield Work(
            ref=f"coupon-{coupon_id}-{day.isoformat()}",
            name=name,
            on=day,
            what=what[:200],
            procedure=PROCEDURE.take(coupon.procedure_document),
            same=("coupon", coupon_id),
        )


def _days(names: Collection[str]) -> Iterable[DayAtWork]:
    for name in names:
        for (coupon_id, day), rows in _days_welded(name).items():
            procedure = PROCEDURE.take(rows[0].coupon.procedure_document)
            yield DayAtWork(name=name, on=day, procedure=procedure, same=("coupon", coupon_id))


LOG = Log(works=_works, days=_days)
