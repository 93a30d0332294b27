"""The verdict on a specimen: points, each with its criterion, from which the verdict follows."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Literal

from welding.documents.record import Specimen
from welding.language import tr, tr_noop
from welding.qualification.items import RuleRef

OUTCOMES: dict[str, str] = {"accepted": tr_noop("accepted"), "rejected": tr_noop("rejected")}
"""What was found on a specimen as a whole, in words."""
TestVerdict = Literal["accepted", "rejected", "incomplete"]


@dataclass(frozen=True, slots=True)
class Point:
    """One criterion and how the specimen stands to it.

    Attributes:
        ok: Kept, broken, or ``None`` where a reading is missing or no limit is known.
        criterion: The criterion in words, with its number.
        actual: What was found.
        rule: Where the criterion stands.
        unchecked: Rows read that nobody has compared with the printed text.
        lacking: What is missing, where ``ok`` is ``None``.
    """

    ok: bool | None
    criterion: str
    actual: str
    rule: RuleRef
    unchecked: tuple[str, ...] = ()
    lacking: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class SpecimenVerdict:
    """Verdict on one specimen.

    Attributes:
        specimen: Its mark.
        kind: Kind of test.
        verdict: accepted, rejected or incomplete.
        criterion: The criterion that decided.
        clause: Where it stands.
        actual: What was found against it.
        points: Every criterion that was asked.
        missing: What has to be supplied, in number or zone.
        rule: Reference of the criterion that decided.
        unchecked: Rows read that nobody has compared with the printed text.
        retest_of: The specimen that it repeats.
        state: counts, discarded, repeated (retests stand in for it), extra (the plan does not ask for it).
    """

    specimen: str
    kind: str
    verdict: TestVerdict
    criterion: str
    clause: str
    actual: str
    points: tuple[Point, ...] = ()
    missing: tuple[str, ...] = ()
    rule: RuleRef | None = None
    unchecked: tuple[str, ...] = ()
    retest_of: str | None = None
    state: Literal["counts", "discarded", "repeated", "extra"] = "counts"


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """Points of a specimen, what is missing beside them, and which point is the main one."""

    points: tuple[Point, ...]
    lacking: tuple[str, ...] = field(default=())
    main: int = 0


def verdict_of(test: Specimen, kind: str, judged: Judged) -> SpecimenVerdict:
    """Put the points together: one broken rejects, one open leaves it incomplete."""
    points = judged.points
    worst = _first(points, False) or _first(points, None)
    deciding = worst or (points[min(judged.main, len(points) - 1)] if points else None)
    verdict: TestVerdict = (
        "incomplete"
        if deciding is None or deciding.ok is None
        else "rejected"
        if deciding.ok is False
        else "accepted"
    )
    missing = tuple(p.lacking for p in points if p.ok is None and p.lacking) + judged.lacking
    return SpecimenVerdict(
        specimen=test.specimen,
        kind=kind,
        verdict=verdict,
        criterion=deciding.criterion if deciding else tr("nothing was entered"),
        clause=deciding.rule.clause if deciding else "",
        actual=deciding.actual if deciding else "",
        points=points,
        missing=tuple(dict.fromkeys(missing)),
        rule=deciding.rule if deciding else None,
        unchecked=tuple(dict.fromkeys(one for p in points for one in p.unchecked)),
        retest_of=test.retest_of,
    )


def _first(points: Iterable[Point], ok: bool | None) -> Point | None:
    return next((p for p in points if p.ok is ok), None)
