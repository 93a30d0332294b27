"""The logs of coupons as evidence that people have welded."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from datetime import date
from functools import reduce
from operator import or_
from typing import Any

from django.db.models import Q, QuerySet
from django.db.models.functions import Coalesce, TruncDate

from apps.coupons.models import Coupon, PassLog
from apps.crew.evidence import DayAtWork, Log, Work
from welding.documents.codec import PROCEDURE
from welding.language import tr

ROLE = "welder"


def welder_of(coupon: Coupon) -> str:
    """Name of whoever welds a coupon; empty where nobody is named."""
    return _welder(coupon.people)


def _welder(people: Iterable[Any]) -> str:
    named = (one for one in people if isinstance(one, dict) and one.get("role") == ROLE)
    return next((str(one.get("name", "")) for one in named), "")


FEW, MANY = 8, 2000
"""So many names are looked for in the database; of more, every coupon that names somebody is looked at.
Passes of so many coupons are read with all others."""


def _named(names: Collection[str]) -> dict[int, tuple[str, int]]:
    """Coupons that these people weld: by id the name and the revision."""
    wanted = set(names)
    coupons = Coupon.objects.exclude(people=[])
    if len(wanted) <= FEW:
        ways = (Q(people__contains=[{"role": ROLE, "name": name}]) for name in sorted(wanted))
        coupons = coupons.filter(reduce(or_, ways))
    rows = coupons.order_by().values_list("pk", "people", "revision_id")
    found = ((pk, _welder(people), revision) for pk, people, revision in rows)
    return {pk: (name, revision) for pk, name, revision in found if name in wanted}


def _passes(coupons: Collection[int]) -> QuerySet[Any, Any]:
    """Passes that count, with the day on which each was welded; of many coupons those of all."""
    rows: QuerySet[Any, Any] = PassLog.objects.filter(struck=False).annotate(
        day=TruncDate(Coalesce("ended_at", "logged_at"))
    )
    # The database reads all passes sooner than it looks for those of each of very many coupons.
    return rows.filter(coupon__in=coupons) if len(coupons) < MANY else rows


def _works(name: str, since: date, until: date) -> Iterable[Work]:
    days: dict[tuple[int, date], list[int]] = {}
    named = _named([name])
    rows = _passes(named).filter(day__gte=since, day__lte=until).order_by("number")
    for coupon_id, number, day in rows.values_list("coupon", "number", "day"):
        if coupon_id in named:
            days.setdefault((coupon_id, day), []).append(number)
    coupons = Coupon.objects.select_related("job").in_bulk(list({pk for pk, _ in days}))
    for (pk, day), numbers in days.items():
        coupon = coupons[pk]
        passes = ", ".join(str(one) for one in numbers)
        what = tr(
            "{job}, coupon {coupon}, pass {passes}", job=coupon.job.number, coupon=coupon, passes=passes
        )
        yield Work(
            ref=f"coupon-{pk}-{day.isoformat()}",
            name=name,
            on=day,
            what=what[:200],
            procedure=PROCEDURE.take(coupon.procedure_document),
            same=("coupon", pk),
            coupon=coupon.number,
        )


def _days(names: Collection[str]) -> Iterable[DayAtWork]:
    coupons = _named(names)
    for pk, day in _passes(coupons).order_by().values_list("coupon", "day").distinct():
        if pk in coupons:
            name, revision = coupons[pk]
            yield DayAtWork(name=name, on=day, revision_id=revision)


LOG = Log(works=_works, days=_days)
