"""What a code asks of a welder whose test failed before the next one counts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from welding.documents.welder_weld import WelderWeld
from welding.errors import UnknownEntryError
from welding.language import tr
from welding.welders.catalogue import welder_edition

Outcome = Literal["qualified", "retest", "failed"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Attempt:
    """A test of one welder, of one kind and position.

    Attributes:
        on: Day on which the piece was welded.
        passed: Whether all its tests were accepted.
        trained: Whether further training or practice before it is recorded.
        name: What it is called in sentences, such as the number of its coupon.
    """

    on: date
    passed: bool
    trained: bool = False
    name: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Retest:
    """Where a welder stands after the attempts of one kind and position.

    Attributes:
        outcome: ``qualified``; ``retest`` while pieces are missing that have to pass; ``failed`` where the
            last piece failed.
        missing: How many more pieces have to pass at least; 0 where it is qualified.
        reasons: Sentences.
    """

    outcome: Outcome
    missing: int
    reasons: tuple[str, ...]


def same_kind(one: WelderWeld, other: WelderWeld) -> bool:
    """Whether two test pieces are of one kind and position, as retests count them."""
    return all(
        getattr(one, name) == getattr(other, name)
        for name in ("code", "person", "weld", "product", "position", "progression")
    ) and [part.process for part in one.parts] == [part.process for part in other.parts]


def after_attempts(code: str, attempts: Sequence[Attempt]) -> Retest:
    """Whether the attempts of one kind and position qualify.

    Args:
        code: The code for persons.
        attempts: At least one, in any order; those of one day in the order given.

    Raises:
        UnknownEntryError: The code is not known here, or no retests are recalled for it.
    """
    edition = welder_edition(code)
    try:
        table = edition.table("retests")
    except FileNotFoundError:
        raise UnknownEntryError(
            tr("What {code} asks after a failed test is not known here.", code=edition.short)
        ) from None
    at_once, after_training = table.row("at_once"), table.row("after_training")
    failures: list[Attempt] = []
    passed = trained = 0
    for one in sorted(attempts, key=lambda attempt: attempt.on):
        if not one.passed:
            failures.append(one)
            passed = trained = 0
            continue
        trained, passed = trained + one.trained, passed + (not one.trained)
        repeated = len(failures) <= at_once["failures"] and passed >= at_once["pieces"]
        if repeated or trained >= after_training["pieces"]:
            failures, passed, trained = [], 0, 0
    if not failures:
        return Retest(outcome="qualified", missing=0, reasons=())
    last = failures[-1]
    said = tr(
        "{name} of {day} failed. {code} asks for {count} test pieces of its kind and position that pass when "
        "they are welded at once, or for {trained} after further training that is recorded "
        "({clause}, from memory): the examiner says which it was.",
        name=last.name or tr("A test"),
        day=last.on.isoformat(),
        code=edition.short,
        count=at_once["pieces"],
        trained=after_training["pieces"],
        clause=table.citation_of(at_once).clause,
    )
    missing = at_once["pieces"] - passed
    if len(failures) > at_once["failures"]:
        missing = after_training["pieces"] - trained
        said = tr(
            "{name} of {day} failed, as one before it did: further training that is recorded comes before "
            "the next test piece counts ({code}, {clause}, from memory).",
            name=last.name or tr("A test"),
            day=last.on.isoformat(),
            code=edition.short,
            clause=table.citation_of(after_training).clause,
        )
    return Retest(outcome="retest" if passed or trained else "failed", missing=missing, reasons=(said,))
