"""How far the logs of coupons have come, for lists: a log is judged once, not each time somebody looks."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from functools import partial
from itertools import groupby
from operator import itemgetter
from typing import Any

from api.damage import attempt
from api.kept import Kept
from django.db.models import QuerySet, TextField
from django.db.models.functions import MD5, Cast

from apps.coupons.models import Coupon, PassLog
from apps.coupons.queries import coupon_document
from welding.codebook.book import by_book
from welding.documents.coupon import Coupon as Document
from welding.evaluate.coupon import evaluate_coupon

BOOKS_KEPT, MOST_KEPT = 8, 20_000


@dataclass(frozen=True, slots=True)
class LogCounts:
    """Passes that the procedure plans, that are logged, and that are out of its ranges."""

    planned: int = 0
    logged: int = 0
    flagged: int = 0


@by_book(BOOKS_KEPT)
def _kept() -> Kept[LogCounts]:
    """By what the log is of: the digest of its signed record, or that of its rows as they stand."""
    return Kept(MOST_KEPT)


def counted(coupons: QuerySet[Coupon]) -> list[tuple[Coupon, LogCounts, str]]:
    """Coupons in their order with their counts and an empty text; or without, and what is wrong with one.

    What a log holds is compared by digests, those of the procedures made by the database: reading some
    hundred procedures takes longer than all else.
    """
    held = (
        coupons.select_related("job", "revision__procedure", "record")
        .prefetch_related("record__signatures")
        .defer("procedure_document", "revision__document", "revision__body", "record__findings")
        .annotate(procedure_digest=MD5(Cast("procedure_document", TextField())))
    )
    passes = _pass_digests(coupons)
    found: list[tuple[Coupon, LogCounts, str]] = []
    for one in held:
        counts, damaged = attempt(one, partial(_counts, one, passes.get(one.pk, "")))
        found.append((one, counts or LogCounts(), damaged))
    return found


def _pass_digests(coupons: QuerySet[Coupon]) -> dict[int, str]:
    """What the passes of coupons hold that are not signed; those of signed ones stand in their records."""
    open_ones = coupons.filter(record=None).order_by().values("pk")
    rows = PassLog.objects.filter(coupon__in=open_ones, struck=False).order_by("coupon_id", "number", "id")
    columns = [field.attname for field in PassLog._meta.concrete_fields]
    found = {}
    for coupon_id, group in groupby(rows.values_list("coupon_id", *columns), key=itemgetter(0)):
        found[coupon_id] = hashlib.sha256(repr(list(group)).encode()).hexdigest()
    return found


def _counts(coupon: Any, passes: str) -> LogCounts:
    signed = getattr(coupon, "record", None)
    if signed is not None:
        signed.intact()
        key = f"record {signed.content_hash}"
    else:
        key = repr((coupon.procedure_digest, coupon.number, coupon.piece, coupon.people, passes))
    return _kept().answer(key, lambda: _judged(coupon_document(coupon)))


def _judged(document: Document) -> LogCounts:
    passes = evaluate_coupon(document).passes
    flagged = sum(one.out_of_range for one in passes)
    return LogCounts(planned=len(document.procedure.passes), logged=len(passes), flagged=flagged)
