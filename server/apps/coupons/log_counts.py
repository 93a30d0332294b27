"""How far the logs of coupons have come, for lists: a log is judged once, not each time somebody looks."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from functools import partial

import orjson
from api.damage import attempt
from api.kept import Kept

from apps.coupons.models import Coupon
from apps.coupons.queries import coupon_document, plain_coupon
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


def counts_of(coupon: Coupon) -> tuple[LogCounts, str]:
    """Counts of a coupon and an empty text; or none, and what is wrong with it in a sentence.

    Args:
        coupon: With its record and the signatures of that, and its passes, read beforehand in lists.
    """
    found, damaged = attempt(coupon, partial(_counts, coupon))
    return found or LogCounts(), damaged


def _counts(coupon: Coupon) -> LogCounts:
    return _kept().answer(_contents(coupon), lambda: _judged(coupon_document(coupon)))


def _contents(coupon: Coupon) -> str:
    signed = getattr(coupon, "record", None)
    if signed is not None:
        signed.intact()
        return f"record {signed.content_hash}"
    return hashlib.sha256(orjson.dumps(plain_coupon(coupon), option=orjson.OPT_SORT_KEYS)).hexdigest()


def _judged(document: Document) -> LogCounts:
    passes = evaluate_coupon(document).passes
    flagged = sum(one.out_of_range for one in passes)
    return LogCounts(planned=len(document.procedure.passes), logged=len(passes), flagged=flagged)
