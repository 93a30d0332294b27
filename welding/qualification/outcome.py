"""The answer of one variable, and how it is put into a finding with what would unblock it."""

from __future__ import annotations

from dataclasses import dataclass, replace

from welding.citation import Citation
from welding.finding import Finding, Verdict
from welding.glossary.values import in_words
from welding.language import tr, tr_noop
from welding.qualification.items import RangeItem
from welding.qualification.required_scope import RequiredScope
from welding.qualification.variables import PROOFS, VARIABLES
from welding.quantities.writing import System, quantity_text

SENSES = (tr_noop("at least"), tr_noop("at most"), tr_noop("over"))
"""On which side of a limit what is qualified lies."""


@dataclass(frozen=True, slots=True)
class Outcome:
    """Verdict on one value.

    Attributes:
        verdict: complies, violates or undecided.
        path: Field of the document of the required scope.
        value: The number, where it is one.
        limit_value: The limit that it missed or keeps.
        sense: ``at least`` or ``at most``.
        actual: The value in words, where it is no number.
        limit: The limit in words.
        ask: What is not stated.
        note: What else the limit is.
    """

    verdict: Verdict
    path: str
    value: float | None = None
    limit_value: float | None = None
    sense: str = ""
    actual: str = ""
    limit: str = ""
    ask: str = ""
    note: str = ""


def no_answer(required: RequiredScope, path: str, what: str) -> Outcome:
    """A fact that is not stated: open in a procedure, left to the procedure in a joint that is still open."""
    return Outcome("undecided", path, ask=what)


def asked_span(item: RangeItem, value: float, path: str) -> Outcome:
    """A number against a span, ``any`` or ``unknown``."""
    if item.kind == "any":
        return Outcome("complies", path, value=value)
    if item.kind == "unknown":
        return Outcome("undecided", path, value=value)
    verdict: Verdict = "complies" if item.holds(value) else "undecided" if item.open_beyond else "violates"
    low = item.min is not None and not _holds_low(item, value)
    if low or (item.max is None and item.min is not None):
        return Outcome(
            verdict,
            path,
            value=value,
            limit_value=item.min,
            sense="over" if item.min_open else "at least",
        )
    return Outcome(
        verdict, path, value=value, limit_value=item.max, sense="at most" if item.max is not None else ""
    )


def _holds_low(item: RangeItem, value: float) -> bool:
    return replace(item, max=None).holds(value)


def of_set(item: RangeItem, value: str, path: str, words: str = "") -> Outcome:
    """A word against a set, ``any`` or ``unknown``."""
    limit = ", ".join(in_words(one, item.variable) for one in item.values)
    said = words or in_words(value, item.variable)
    if item.kind == "any":
        return Outcome("complies", path, actual=said, limit=limit)
    if item.kind == "unknown":
        return Outcome("undecided", path, actual=said, limit=limit)
    if value in item.doubtful:
        return Outcome(
            "undecided", path, actual=said, limit=limit, note=tr("{said} is not decided", said=said)
        )
    if value not in item.values and item.open_beyond:
        return Outcome(
            "undecided", path, actual=said, limit=limit, note=tr("{said} is not decided", said=said)
        )
    return Outcome("complies" if value in item.values else "violates", path, actual=said, limit=limit)


def finding_of(item: RangeItem, required: RequiredScope, found: Outcome) -> Finding:
    """The finding: what is asked, what the record proves, what would unblock it."""
    words = VARIABLES[item.variable]
    system: System = required.procedure.code.units if required.procedure.code else "si"
    actual = found.actual
    if found.value is not None:
        actual = quantity_text(found.value, words.quantity, system) if words.quantity else f"{found.value:g}"
    limit = found.limit
    if found.limit_value is not None:
        number = (
            quantity_text(
                found.limit_value, words.quantity, system, "up" if found.sense != "at most" else "down"
            )
            if words.quantity
            else f"{found.limit_value:g}"
        )
        limit = f"{tr(found.sense)} {number}"
    scope = _scope(item)
    title = f"{words.title}{scope}"
    message, remedy = _sentences(item, found, words.title, actual, limit)
    return Finding(
        rule=f"range.{item.variable}",
        verdict=found.verdict,
        path=found.path,
        title=title,
        message=message,
        actual=actual,
        limit=limit,
        remedy=remedy,
        citations=(
            Citation(
                document=item.rule.document,
                edition=item.rule.edition,
                clause=item.rule.clause,
                provenance=item.rule.provenance,
                confidence=item.rule.confidence,
            ),
        ),
        unchecked=item.unchecked,
    )


def _sentences(item: RangeItem, found: Outcome, title: str, actual: str, limit: str) -> tuple[str, str]:
    coupon = VARIABLES[item.variable].coupon.format(actual or "it")
    note = f" ({found.note})" if found.note else ""
    if found.verdict == "complies":
        return tr(
            "{title}: {value} is qualified{value2}{note}.",
            title=title,
            value=actual or tr("as stated"),
            value2=", " + limit if limit else "",
            note=note,
        ), ""
    if found.verdict == "violates":
        if item.variable in PROOFS:
            return tr(
                "{title}: {actual}; the record has {limit}.", title=title, actual=actual, limit=limit
            ), tr("Make {coupon}.", coupon=coupon)
        return (
            tr(
                "{title}: {value} is outside what is qualified, {value2}{note}.",
                title=title,
                value=actual or tr("what is asked"),
                value2=limit or tr("nothing"),
                note=note,
            ),
            tr("Change the draft to {limit}, or weld {coupon}.", limit=limit, coupon=coupon)
            if limit
            else tr("Weld {coupon}.", coupon=coupon),
        )
    if found.ask:
        return tr("{title}: {ask} is not stated.", title=title, ask=found.ask), tr(
            "State {ask}.", ask=found.ask
        )
    if item.open_beyond and limit:
        return (
            tr(
                "{title}: {actual} is not decided; {limit} is proved. {reason}",
                title=title,
                actual=actual,
                limit=limit,
                reason=item.reason,
            ),
            tr("Weld {coupon}, or look the clause up.", coupon=coupon),
        )
    if found.note:
        return f"{title}: {found.note}. {item.reason}", tr("Look the clause up, or weld a coupon.")
    return tr("{title}: not known. {reason}", title=title, reason=item.reason), tr(
        "Supply what is missing in the record, or look the rule up."
    )


def _scope(item: RangeItem) -> str:
    parts = []
    if item.process:
        parts.append(item.process)
    if item.filler_diameter_mm:
        parts.append(f"{item.filler_diameter_mm:g} mm")
    if item.role:
        parts.append(in_words("root") if item.role == "root" else tr("fill and cap"))
    return f", {', '.join(parts)}" if parts else ""
