"""The one next step of a revision, for the desk."""

from __future__ import annotations

from dataclasses import dataclass

from apps.procedures.models import Revision, Stage
from welding.evaluate.procedure import Evaluation, evaluate

_STEPS = {
    Stage.TESTED: "Make the WPS from its record",
    Stage.QUALIFIED: "Release it",
    Stage.PREQUALIFIED: "Release it",
    Stage.RELEASED: "In production",
    Stage.SUPERSEDED: "Superseded by a later revision",
    Stage.WITHDRAWN: "Withdrawn from production",
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
            return "Start a coupon"
        return "Log the coupon's passes" if welding else "Enter the coupon's tests and sign its record"
    if revision.stage in _STEPS:
        return _STEPS[Stage(revision.stage)]
    if breaches:
        first = next(f for f in evaluation.findings if f.verdict == "violates")
        return f"Clear: {first.title[:1].lower()}{first.title[1:]}"
    if evaluation.missing:
        return f"State the {evaluation.missing[0].message}"
    return "Weld a coupon"
