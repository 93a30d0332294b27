"""How a deviation is said."""

from __future__ import annotations

from typing import Any

from welding.citation import Citation
from welding.codebook.table import Table, load_table
from welding.finding import Finding, Verdict

THIS_PROCEDURE = Citation(
    document="this procedure", clause="range of the pass", provenance="practice", confidence="high"
)


def is_deviation(rule: str) -> bool:
    """Whether a pass's finding by this rule tells of a difference or a contradiction, not of a reading.

    Example:
        >>> is_deviation("gas.planned"), is_deviation("current.range")
        (True, False)
    """
    return rule.endswith((".planned", ".agrees"))


def tolerances() -> Table:
    """How far something may differ before it is told."""
    return load_table("welding.deviations", "tolerances")


def allowed(name: str, planned: float) -> float:
    """What may lie between planned and welded, in the unit of ``planned``: percent or least, the wider."""
    row = tolerances().row(name)
    return float(max(row.get("least", 0.0), abs(planned) * row["percent"] / 100))


def differs(name: str, planned: float, welded: float) -> bool:
    """Whether a value lies further from the planned one than is allowed.

    Example:
        >>> differs("thickness", 20, 20.9), differs("thickness", 20, 21.5)
        (False, True)
    """
    return abs(welded - planned) > allowed(name, planned) * (1 + 1e-9)


def against_plan(
    rule: str,
    path: str,
    title: str,
    message: str,
    *,
    verdict: Verdict = "violates",
    actual: str = "",
    limit: str = "",
    remedy: str = "",
    **more: Any,
) -> Finding:
    """A finding on something welded, held against what the procedure plans."""
    return Finding(
        rule=rule,
        verdict=verdict,
        path=path,
        title=title,
        message=message,
        actual=actual,
        limit=limit,
        remedy=remedy,
        citations=more.pop("citations", (THIS_PROCEDURE,)),
        **more,
    )
