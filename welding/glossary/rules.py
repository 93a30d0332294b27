"""Every rule by its id: what it asks of a document, and how it may be answered."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache

from welding.codebook.table import load_table
from welding.finding import Obligation, Verdict

ADVICE = " (advice)"


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """One rule, as findings name it.

    Attributes:
        id: Id of ``Finding.rule``; ``range.*`` stands for every variable of a range, ``checklist.*`` for
            every question of the checklist.
        asks: One sentence: what holds where the finding complies.
        answers: Verdicts that it gives, each with its obligation.
    """

    id: str
    asks: str
    answers: frozenset[tuple[Verdict, Obligation]]

    @property
    def family(self) -> bool:
        """Whether it stands for a family of ids."""
        return self.id.endswith(".*")


def _answer(text: str) -> tuple[Verdict, Obligation]:
    verdict: Verdict = text.removesuffix(ADVICE)  # type: ignore[assignment]
    return verdict, "recommendation" if text.endswith(ADVICE) else "requirement"


@cache
def all_rules() -> dict[str, Rule]:
    """Every rule by its id."""
    return {
        row["id"]: Rule(id=row["id"], asks=row["asks"], answers=frozenset(map(_answer, row["answers"])))
        for row in load_table("welding.glossary", "rules").rows
    }


def rule_named(rule_id: str) -> Rule | None:
    """The rule that a finding names; ``None`` where the table has none.

    Example:
        >>> rule_named("range.positions").id, rule_named("checklist.open").id, rule_named("no.rule")
        ('range.*', 'checklist.open', None)
    """
    family = f"{rule_id.partition('.')[0]}.*"
    return all_rules().get(rule_id) or all_rules().get(family)


def rules_page() -> Iterator[str]:
    """Lines of ``docs/findings.md`` as it should read."""
    yield from (
        "# What is checked",
        "",
        "Every finding names its rule. Here are all of them, with what each asks and how it may be answered:",
        "*advice* is good practice, all else a requirement. Where a rule stands (code, clause, table) each",
        "finding cites. `./bead core rules heat` searches the list. The table is",
        "`welding/glossary/tables/rules.toml`. A run of `tests/welding` fails where a finding is not in it,",
        "or where an answer of it was never given. This page is written from it:",
        "`python -m welding.glossary`.",
        "",
        "| rule | what it asks | answers |",
        "|---|---|---|",
    )
    for rule in all_rules().values():
        said = sorted(f"{verdict}{ADVICE if to == 'recommendation' else ''}" for verdict, to in rule.answers)
        yield f"| `{rule.id}` | {rule.asks} | {', '.join(said).replace('_', ' ')} |"
    yield ""
