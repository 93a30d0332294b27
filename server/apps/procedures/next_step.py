"""The one next step of a revision, for the desk."""

from __future__ import annotations

from dataclasses import dataclass

from apps.procedures.models import Revision, Stage
from welding.evaluate.procedure import Evaluation, evaluate
from welding.language import in_sentence, tr, tr_noop

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


def standing_of(revision: Revision, coupon_count: int, welding: int) -> Standing:
    """Judge a revision's document and name the next step."""
    evaluation = evaluate(revision.contents())
    breaches = _count(evaluation, "violates", "requirement")
    return Standing(
        breaches=breaches,
        cautions=_count(evaluation, "violates", "recommendation"),
        open_questions=len(evaluation.missing),
        next_step=_next(revision, evaluation, breaches, coupon_count, welding),
    )


def _count(evaluation: Evaluation, verdict: str, obligation: str) -> int:
    return sum(f.verdict == verdict and f.obligation == obligation for f in evaluation.findings)


def _next(revision: Revision, evaluation: Evaluation, breaches: int, coupon_count: int, welding: int) -> str:
    if revision.stage == Stage.TRIAL:
        if not coupon_count:
            return tr("Start a coupon")
        return (
            tr("Log the coupon's passes") if welding else tr("Enter the coupon's tests and sign its record")
        )
    if revision.stage in _STEPS:
        return tr(_STEPS[Stage(revision.stage)])
    if breaches:
        first = next(f for f in evaluation.findings if f.verdict == "violates")
        return tr("Clear: {headline}", headline=in_sentence(first.title))
    if evaluation.missing:
        return tr("State the {message}", message=evaluation.missing[0].message)
    return tr("Weld a coupon")
