"""A value that is asked against an item of a range, and the finding that says so."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from welding.citation import Citation
from welding.finding import Finding, Verdict
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.quantities.writing import System, quantity_text
from welding.welders.variables import VARIABLES, value_words


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """What comes of one value: the verdict, the value (a number, or in words), and why."""

    verdict: Verdict
    actual: str = ""
    why: str = ""
    value: float | None = None


@dataclass(frozen=True, slots=True)
class Compared:
    """An answer on one item; its sentences are written when they are asked for.

    Attributes:
        item: The item.
        answer: The answer.
        system: Units of its sentences.
    """

    item: RangeItem
    answer: Answer
    system: System

    @property
    def verdict(self) -> Verdict:
        """Whether what is asked is within the item."""
        return self.answer.verdict

    @property
    def finding(self) -> Finding:
        """The answer with its sentences."""
        return _finding(self.item, self.answer, self.system)


def compared(item: RangeItem, answer: Answer, system: System = "si") -> Compared:
    """An answer on an item."""
    return Compared(item, answer, system)


def of_set(item: RangeItem, asked: str | None, *, all_of: Sequence[str] = ()) -> Answer:
    """A word, or several that all have to be there, against a set.

    Args:
        item: The item.
        asked: What is asked; ``None`` where it is not stated.
        all_of: What has to be there for it, where that is more than the word itself.
    """
    if asked is None:
        return Answer(verdict="undecided", why=tr("It is not stated."))
    needed = tuple(all_of) or (asked,)
    said = value_words(asked)
    if item.kind == "unknown":
        return Answer(verdict="undecided", actual=said, why=item.reason)
    missing = [one for one in needed if one not in item.values]
    if not missing:
        return Answer(verdict="complies", actual=said)
    doubtful = all(one in item.doubtful for one in missing)
    why = item.reason
    if needed != (asked,):
        why = tr("{asked} asks for {missing} as well.", asked=asked, missing=", ".join(missing))
    return Answer(verdict="undecided" if doubtful else "violates", actual=said, why=why)


def of_span(item: RangeItem, asked: float | None) -> Answer:
    """A number against a span."""
    if asked is None:
        return Answer(verdict="undecided", why=tr("It is not stated."))
    if item.kind == "unknown":
        return Answer(verdict="undecided", value=asked, why=item.reason)
    if item.kind == "any" or item.holds(asked):
        return Answer(verdict="complies", value=asked)
    return Answer(verdict="violates", value=asked, why=item.reason)


def written(variable: str, value: float, system: System = "si") -> str:
    """A number of a variable with its unit."""
    quantity = VARIABLES[variable].quantity
    if quantity == "angle":
        return f"{value:g}°"
    return quantity_text(value, quantity, system) if quantity else f"{value:g}"


def limit_of(item: RangeItem, system: System = "si") -> str:
    """What an item covers, in words."""
    if item.kind == "unknown":
        return tr("not known")
    if item.kind == "any":
        return tr("no limit")
    if item.kind != "span":
        return ", ".join(value_words(one) for one in item.values) or tr("nothing")
    low = written(item.variable, item.min, system) if item.min is not None else ""
    high = written(item.variable, item.max, system) if item.max is not None else ""
    if low and high:
        return tr("{low} to {high}", low=low, high=high)
    return tr("{low} and over", low=low) if low else tr("up to {high}", high=high)


def _finding(item: RangeItem, answer: Answer, system: System) -> Finding:
    if answer.value is not None:
        answer = replace(answer, actual=written(item.variable, answer.value, system))
    title = VARIABLES[item.variable].title
    if item.process:
        title = f"{title}, {item.process}"
    limit = limit_of(item, system)
    return Finding(
        rule=f"welder.{item.variable}",
        verdict=answer.verdict,
        title=title,
        message=_sentence(title, limit, answer),
        actual=answer.actual,
        limit=limit,
        citations=(citation_of(item),),
        unchecked=item.unchecked,
    )


def citation_of(item: RangeItem) -> Citation:
    """Where the rule of an item stands."""
    return Citation(
        document=item.rule.document,
        edition=item.rule.edition,
        clause=item.rule.clause,
        provenance=item.rule.provenance,
        confidence=item.rule.confidence,
    )


def _sentence(title: str, limit: str, answer: Answer) -> str:
    if answer.verdict == "complies":
        return tr("{title}: {actual} is covered: {limit}.", title=title, actual=answer.actual, limit=limit)
    if answer.verdict == "violates":
        return tr(
            "{title}: {actual} is not covered: {limit}. {why}",
            title=title,
            actual=answer.actual,
            limit=limit,
            why=answer.why,
        ).strip()
    return tr(
        "{title}: {actual} is open. {why}",
        title=title,
        actual=answer.actual or tr("what is asked"),
        why=answer.why,
    )
