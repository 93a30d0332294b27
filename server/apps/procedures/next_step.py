"""The one next step of a revision, for the desk."""

from __future__ import annotations

from dataclasses import dataclass

from api.kept import Kept

from apps.procedures.models import Revision, Stage
from welding.codebook.book import by_book
from welding.documents.procedure import Procedure as Document
from welding.evaluate.procedure import Evaluation, evaluate
from welding.language import in_sentence, tr, tr_noop

BOOKS_KEPT, MOST_KEPT = 8, 20_000
_STEPS = {
    Stage.TESTED: tr_noop("Make the WPS from its record"),
    Stage.QUALIFIED: tr_noop("Release it"),
    Stage.PREQUALIFIED: tr_noop("Release it"),
    Stage.RELEASED: tr_noop("In production"),
    Stage.SUPERSEDED: tr_noop("Superseded by a later revision"),
    Stage.WITHDRAWN: tr_noop("Withdrawn from production"),
}


@dataclass(frozen=True, slots=True)
class Standing:
    """Counts of findings and what to do next."""

    breaches: int
    cautions: int
    open_questions: int
    next_step: str


@dataclass(frozen=True, slots=True)
class _Judged:
    """What the document alone says: counts of findings, and the first thing to clear or to state."""

    breaches: int
    cautions: int
    open_questions: int
    clear: str
    state: str


def standing_of(revision: Revision, coupon_count: int, welding: int) -> Standing:
    """Judge a revision's document and name the next step."""
    judged = _judged(revision)
    return Standing(
        breaches=judged.breaches,
        cautions=judged.cautions,
        open_questions=judged.open_questions,
        next_step=_next(revision, judged, coupon_count, welding),
    )


@by_book(BOOKS_KEPT)
def _kept() -> Kept[_Judged]:
    """By the digest of the contents: a document is judged once, not each time a list is looked at."""
    return Kept(MOST_KEPT)


def _judged(revision: Revision) -> _Judged:
    if not revision.body:  # of before the bytes were kept
        return _judge(revision.contents())
    revision.intact()
    return _kept().answer(revision.content_hash, lambda: _judge(revision.contents()))


def _judge(document: Document) -> _Judged:
    evaluation = evaluate(document)
    breach = next((f for f in evaluation.findings if f.verdict == "violates"), None)
    return _Judged(
        breaches=_count(evaluation, "violates", "requirement"),
        cautions=_count(evaluation, "violates", "recommendation"),
        open_questions=len(evaluation.missing),
        clear=breach.title if breach else "",
        state=evaluation.missing[0].message if evaluation.missing else "",
    )


def _count(evaluation: Evaluation, verdict: str, obligation: str) -> int:
    return sum(f.verdict == verdict and f.obligation == obligation for f in evaluation.findings)


def _next(revision: Revision, judged: _Judged, coupon_count: int, welding: int) -> str:
    if revision.stage == Stage.TRIAL:
        if not coupon_count:
            return tr("Start a coupon")
        return (
            tr("Log the coupon's passes") if welding else tr("Enter the coupon's tests and sign its record")
        )
    if revision.stage in _STEPS:
        return tr(_STEPS[Stage(revision.stage)])
    if judged.breaches:
        return tr("Clear: {headline}", headline=in_sentence(judged.clear))
    if judged.open_questions:
        return tr("State the {message}", message=judged.state)
    return tr("Weld a coupon")
