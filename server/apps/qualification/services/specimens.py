"""Enter, change and remove specimens; prepare those that the plan asks for."""

from __future__ import annotations

from typing import Any

from api.errors import ConflictError, StaleError
from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.services.hold import held
from apps.qualification.models import Specimen
from apps.qualification.queries import record_document
from welding.coverage.record import plan_of
from welding.documents.codec import TEST
from welding.language import in_source_language, tr
from welding.testing.cutting import specimens_of


def _columns(coupon: Coupon, test: Any) -> dict[str, Any]:
    retest = None
    if test.retest_of is not None:
        retest = coupon.specimens.filter(mark=test.retest_of).first()
    return {
        "mark": test.specimen,
        "kind": test.kind,
        "retest_of": retest,
        "discarded": test.discarded is not None,
        "document": TEST.kept(test),
    }


@transaction.atomic
def enter_test(user: User, coupon: Coupon, test: Any) -> Specimen:
    """Enter a test.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The record is signed, or the mark is taken.
        DocumentError: The record would not hold together, such as a retest of nothing.
    """
    require(user, Action.ENTER_TESTS)
    locked = held(coupon)
    try:
        with transaction.atomic():
            made = Specimen.objects.create(coupon=locked, entered_by=user, **_columns(locked, test))
    except IntegrityError:
        raise ConflictError(
            tr("Specimen {specimen} is entered already.", specimen=test.specimen),
            errors=[{"path": "specimen", "message": tr("taken on this coupon"), "value": test.specimen}],
        ) from None
    record_document(locked)
    return made


@transaction.atomic
def change_test(user: User, specimen: Specimen, version: int, test: Any) -> Specimen:
    """Replace a test if ``version`` is still the one that stands.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The record is signed, or the mark is taken.
        StaleError: Someone changed it in the meantime.
    """
    require(user, Action.ENTER_TESTS)
    locked = held(specimen.coupon)
    try:
        with transaction.atomic():
            changed = Specimen.objects.filter(pk=specimen.pk, version=version).update(
                **_columns(locked, test), version=version + 1, entered_by=user, changed_at=timezone.now()
            )
    except IntegrityError:
        raise ConflictError(
            tr("Specimen {specimen} is entered already.", specimen=test.specimen),
            errors=[{"path": "specimen", "message": tr("taken on this coupon"), "value": test.specimen}],
        ) from None
    specimen.refresh_from_db()
    if not changed:
        raise StaleError(
            tr(
                "{shown_name} changed specimen {mark} after you opened it.",
                shown_name=specimen.entered_by.shown_name,
                mark=specimen.mark,
            ),
            current={"version": specimen.version, "test": specimen.document},
        )
    record_document(locked)
    return specimen


@transaction.atomic
def remove_test(user: User, specimen: Specimen, version: int) -> None:
    """Remove a test that was entered by mistake; the audit trail keeps it.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The record is signed, or other specimens repeat this one.
        StaleError: Someone changed it in the meantime.
    """
    require(user, Action.ENTER_TESTS)
    held(specimen.coupon)
    if specimen.retests.exists():
        raise ConflictError(tr("Other specimens repeat {mark}: remove those first.", mark=specimen.mark))
    gone, _ = Specimen.objects.filter(pk=specimen.pk, version=version).delete()
    if not gone:
        specimen.refresh_from_db()
        raise StaleError(
            tr("Specimen {mark} was changed after you opened it.", mark=specimen.mark),
            current={"version": specimen.version, "test": specimen.document},
        )


@transaction.atomic
@in_source_language
def prepare_tests(user: User, coupon: Coupon) -> int:
    """Enter an empty test for every specimen of the plan that is not there yet.

    Returns:
        How many were entered.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The record is signed.
    """
    require(user, Action.ENTER_TESTS)
    locked = held(coupon)
    document = record_document(locked)
    wanted = specimens_of(plan_of(document))
    # What was entered under marks of one's own counts, kind by kind.
    made = 0
    present: dict[str, int] = {}
    for test in document.tests:
        present[test.kind] = present.get(test.kind, 0) + 1
    marks = {test.specimen for test in document.tests}
    asked: dict[str, int] = {}
    for one in wanted:
        asked[one.kind] = asked.get(one.kind, 0) + 1
        if asked[one.kind] <= present.get(one.kind, 0) or one.mark in marks:
            continue
        plain: dict[str, Any] = {"kind": one.kind, "specimen": one.mark}
        if one.kind == "impact" and one.location:
            plain["location"] = one.location
            plain["processes"] = list(one.processes)
        Specimen.objects.create(coupon=locked, entered_by=user, **_columns(locked, TEST.take(plain)))
        made += 1
    return made
