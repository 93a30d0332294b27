"""What a check says: never a bare yes or no, and never an exception for a poor design."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from welding.citation import Citation

Verdict = Literal["complies", "violates", "undecided", "not_applicable"]
Obligation = Literal["requirement", "recommendation"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """One answer of one check.

    Attributes:
        rule: Topic slug, stable over editions, such as ``heat-input.window``.
        verdict: complies, violates, undecided (a fact or a number is missing), not_applicable.
        obligation: requirement ("shall") or recommendation ("should").
        path: Field of the document that it is about, such as ``passes.2.travel_mm_min``.
        title: A few words for a headline.
        message: One sentence with the value, the limit and the unit.
        actual: The value found, with its unit; empty where there is none.
        limit: The limit, with its unit; empty where there is none.
        remedy: What would satisfy the check; empty where nothing is asked.
        citations: Where the rule and its numbers stand.
        unchecked: Ids of the tables it read that nobody has compared with the printed text.
    """

    rule: str
    verdict: Verdict
    obligation: Obligation = "requirement"
    path: str = ""
    title: str
    message: str
    actual: str = ""
    limit: str = ""
    remedy: str = ""
    citations: tuple[Citation, ...] = ()
    unchecked: tuple[str, ...] = ()
