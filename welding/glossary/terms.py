"""Terms of the trade: what AWS codes call a thing, what ISO codes call it, and what it is."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from welding.codebook.table import load_table
from welding.errors import UnknownEntryError
from welding.language import Usage, tr, usage


@dataclass(frozen=True, slots=True, kw_only=True)
class Term:
    """One concept.

    Attributes:
        key: What the program knows it by.
        aws: American usage (AWS A3.0).
        iso: ISO usage (ISO/TR 25901-1, ISO 15607, ISO 17659).
        meaning: What it is, in a sentence.
    """

    key: str
    aws: str
    iso: str
    meaning: str

    def word(self, usage: Usage) -> str:
        """What the usage calls it."""
        return self.aws if usage == "aws" else self.iso


@cache
def terms() -> tuple[Term, ...]:
    """Every term, in the order of the glossary."""
    rows = load_table("welding.glossary", "terms").rows
    return tuple(Term(key=row["key"], aws=row["aws"], iso=row["iso"], meaning=row["meaning"]) for row in rows)


def term(key: str) -> Term:
    """The term of this key.

    Raises:
        UnknownEntryError: The glossary has no such key.

    Example:
        >>> term("root-gap").word("aws"), term("root-gap").word("iso")
        ('root opening', 'root gap')
    """
    found = next((one for one in terms() if one.key == key), None)
    if found is None:
        raise UnknownEntryError(f"the glossary has no term {key!r}")
    return found


def term_word(key: str) -> str:
    """What the concept is called in the language and the terms of the context."""
    return tr(term(key).word(usage()))


def glossary_page() -> str:
    """``docs/glossary.md`` as it should read."""
    lines = [
        "# Glossary",
        "",
        "Terms by American usage (AWS A3.0) and by ISO usage (ISO/TR 25901-1, ISO 15607, ISO 17659), from",
        "memory. The screen uses the words of the code in force; the reader may pin either. The table is",
        "`welding/glossary/tables/terms.toml`; this page is written from it: `python -m welding.glossary`.",
        "",
        "| AWS | ISO | what it is | key |",
        "|---|---|---|---|",
        *(f"| {one.aws} | {one.iso} | {one.meaning} | `{one.key}` |" for one in terms()),
        "",
        "Processes, by ISO 4063 number and AWS letters: `welding/setup/tables/process_names.toml`.",
        "",
    ]
    return "\n".join(lines)
