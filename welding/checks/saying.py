"""One way to say something about a pass or a field, so that checks read as rules and not as forms."""

from __future__ import annotations

from welding.citation import COMMON_PRACTICE, Citation
from welding.documents.procedure import Pass
from welding.finding import Finding, Verdict
from welding.language import tr


def advise(
    rule: str,
    path: str,
    *,
    trouble: str,
    fine: str,
    titles: tuple[str, str],
    actual: str = "",
    limit: str = "",
    remedy: str = "",
    citations: tuple[Citation, ...] = (COMMON_PRACTICE,),
    unchecked: tuple[str, ...] = (),
) -> Finding:
    """A recommendation: violated where ``trouble`` says what is wrong, kept otherwise.

    Args:
        rule: Rule id.
        path: Field that it is about.
        trouble: One sentence; empty where all is well.
        fine: The sentence for that case.
        titles: Headline when violated, headline when kept.
        actual: What was found.
        limit: What is usual.
        remedy: What to do; kept silent where all is well.
        citations: Sources.
        unchecked: Tables that nobody has compared.
    """
    return Finding(
        rule=rule,
        verdict="violates" if trouble else "complies",
        obligation="recommendation",
        path=path,
        title=titles[0] if trouble else titles[1],
        message=trouble or fine,
        actual=actual,
        limit=limit,
        remedy=remedy if trouble else "",
        citations=citations,
        unchecked=unchecked,
    )


def ask(
    rule: str, path: str, title: str, message: str, remedy: str, verdict: Verdict = "undecided"
) -> Finding:
    """An open question of common practice."""
    return Finding(
        rule=rule,
        verdict=verdict,
        obligation="recommendation",
        path=path,
        title=title,
        message=message,
        remedy=remedy,
        citations=(COMMON_PRACTICE,),
    )


def of_pass(words: str, one: Pass) -> str:
    """``words, pass 3``."""
    return tr("{words}, pass {number}", words=words, number=one.number)
