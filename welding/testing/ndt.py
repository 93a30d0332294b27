"""Non-destructive tests and fillet breaks."""

from __future__ import annotations

from welding.documents.record import FractureTest, NdtTest
from welding.language import tr
from welding.quantities.writing import System, quantity_text
from welding.testing.limits import SLACK, Limit
from welding.testing.verdict import OUTCOMES, Judged, Point


def outcome_point(outcome: str | None, criterion: str, limit: Limit) -> Point:
    """The outcome that a qualified examiner reported."""
    if outcome is None:
        return Point(None, criterion, "", limit.rule, limit.unchecked, tr("the outcome"))
    return Point(outcome == "accepted", criterion, tr(OUTCOMES[outcome]), limit.rule, limit.unchecked)


def judge_ndt(test: NdtTest, criterion: str, limit: Limit) -> Judged:
    """The outcome as reported against the acceptance level."""
    return Judged(points=(outcome_point(test.outcome, criterion, limit),))


def judge_break(test: FractureTest, flaw: Limit, total: Limit, length: Limit, system: System) -> Judged:
    """Judge a fillet break: folded flat, or its flaws within the limits for the length broken."""
    flat = tr("folded flat, or broken without a flaw over the limit")
    if test.broke is None:
        return Judged(
            points=(Point(None, flat, "", flaw.rule, flaw.unchecked, tr("whether it broke or folded flat")),)
        )
    if not test.broke:
        return Judged(points=(Point(True, flat, tr("folded flat"), flaw.rule, flaw.unchecked),))
    if test.flaws_mm is None:
        need = tr("the flaws in the broken face (an empty list where there are none)")
        return Judged(points=(Point(None, flat, "broke", flaw.rule, flaw.unchecked, need),))
    largest, added = max(test.flaws_mm, default=0.0), sum(test.flaws_mm)

    def mm(value: float | None) -> str:
        return quantity_text(value or 0.0, "gap", system)

    points = [
        Point(
            largest <= (flaw.value or 0.0) + SLACK,
            tr("no flaw over {mm}", mm=mm(flaw.value)),
            tr("largest {mm}", mm=mm(largest)),
            flaw.rule,
            flaw.unchecked,
        ),
        Point(
            added <= (total.value or 0.0) + SLACK,
            tr("flaws in {mm} add up to at most {mm2}", mm=mm(length.value), mm2=mm(total.value)),
            mm(added),
            total.rule,
            total.unchecked,
        ),
    ]
    return Judged(points=tuple(points))
