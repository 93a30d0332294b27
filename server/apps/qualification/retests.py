"""Earlier tests of the welder of a coupon that failed, and what the code asks before this one counts."""

from __future__ import annotations

from datetime import date

from api.damage import attempt
from django.utils import timezone

from apps.coupons.models import Coupon
from apps.coupons.welder_log import welder_of
from apps.qualification.queries import record_document
from welding.coverage.record import judge
from welding.documents.record import QualificationRecord
from welding.errors import UnknownEntryError
from welding.welders.from_coupon import WelderTest, welder_test
from welding.welders.retests import Attempt, after_attempts, same_kind

MOST_LOOKED_AT = 40
"""Coupons of one welder that are compared, the latest first."""


def welded_on(coupon: Coupon) -> date | None:
    """Day of the last pass of a coupon that counts."""
    days = [
        timezone.localdate(ended or logged)
        for ended, logged in coupon.passes.filter(struck=False).values_list("ended_at", "logged_at")
    ]
    return max(days, default=None)


def retest_words(coupon: Coupon, document: QualificationRecord, found: WelderTest) -> list[str]:
    """What an earlier failure asks for, in sentences; whether training is recorded the examiner says."""
    if found.weld is None or found.code is None or not found.welder:
        return []
    day = welded_on(coupon) or timezone.localdate()
    others = Coupon.objects.exclude(people=[]).filter(pk__lt=coupon.pk).order_by("-pk")
    own = [one for one in others if welder_of(one) == found.welder][:MOST_LOOKED_AT]
    # In the order of their making: two of one day are told apart by it.
    tried = [_attempt(one, found) for one in reversed(own)] + [_of(coupon, document)]
    attempts = [one for one in tried if one is not None and one.on <= day]
    if all(one.passed for one in attempts):
        return []
    try:
        return list(after_attempts(found.code, attempts).reasons)
    except UnknownEntryError as error:
        return [str(error)]


def _attempt(coupon: Coupon, found: WelderTest) -> Attempt | None:
    document = attempt(coupon, lambda: record_document(coupon))[0]
    if document is None or found.weld is None:
        return None
    weld = welder_test(document).weld
    return _of(coupon, document) if weld is not None and same_kind(weld, found.weld) else None


def _of(coupon: Coupon, document: QualificationRecord) -> Attempt | None:
    """A coupon whose tests are decided."""
    verdict, day = judge(document).verdict, welded_on(coupon)
    if verdict == "incomplete" or day is None:
        return None
    return Attempt(on=day, passed=verdict == "accepted", name=coupon.number)
